"""Openings of a box and what sits in them: apart from each other, and clear of what is inside."""

import math
from collections.abc import Iterator
from itertools import combinations

from levelcradle.core.assembly import PlacedBox
from levelcradle.core.box import before_face, openings_of
from levelcradle.core.design.base import FACE_AT
from levelcradle.core.design.box import Opening
from levelcradle.core.finding import Figure, Finding, plain
from levelcradle.core.solids import block, nearest

__all__ = ["opening_findings"]

INSIDE_MM = 5.0  # a nut or plug keeps off modules and gear: common practice, no source
LEFT_THICKNESSES = 2.0  # of sheet between two holes: common practice, no source


def opening_findings(box: PlacedBox) -> Iterator[Finding]:
    yield from _apart(box)
    yield from _on_its_face(box)
    for key, hole in box.box.openings.items():
        if hole.fitted and hole.fitted.in_mm:
            yield _inside(box, key, hole, hole.fitted.in_mm)


def _apart(box: PlacedBox) -> Iterator[Finding]:
    """Two on one face that leave too little sheet between them, or lie on each other."""
    sheet = box.shell.made.wall_at("front").thickness_mm
    for one, other in combinations(openings_of(box.box, box.shell.outer_mm), 2):
        if one.face != other.face:
            continue
        middles = math.dist(one.at, other.at)
        left = middles - (one.diameter_mm + other.diameter_mm) / 2
        seats = middles - (one.seat_mm + other.seat_mm) / 2
        has, needs = min((left, LEFT_THICKNESSES * sheet), (seats, 0.0), key=lambda row: row[0] - row[1])
        margin = round(has - needs, 9)
        if margin < 0:
            names = [plain(box.box.openings[hole.name].name) for hole in (one, other)]
            yield Finding(
                id=f"openings:{box.path}:{one.name}:{other.name}",
                code="box.openings",
                station="box",
                state="foul",
                subjects=(box.path, *(f"{box.path}/openings/{hole.name}" for hole in (one, other))),
                message=f"{plain(box.box.name)}: between {names[0]} and {names[1]} {{0}}, needs {{1}}",
                figures=(Figure(has, "mm", "down"), Figure(needs, "mm", "up")),
                value=has,
                limit=needs,
                margin=margin,
                unit="mm",
                label="openings apart",
                rationale="two thicknesses of sheet between holes (common practice, no source), and what sits in them "
                "lies side by side",
            )


def _on_its_face(box: PlacedBox) -> Iterator[Finding]:
    """Those that reach over an edge of their face: what is measured there is no wall."""
    outer = box.shell.outer_mm
    for hole in openings_of(box.box, outer):
        along = [i for i in range(3) if i != FACE_AT[hole.face][0]]
        has = round(min(min(hole.at[i], outer[i] - hole.at[i]) for i in along) - hole.seat_mm / 2, 9)
        if has < 0:
            name = plain(box.box.openings[hole.name].name)
            yield Finding(
                id=f"openings:{box.path}:{hole.name}:edge",
                code="box.openings",
                station="box",
                state="foul",
                subjects=(box.path, f"{box.path}/openings/{hole.name}"),
                message=f"{plain(box.box.name)}: {name} reaches {{0}} over an edge of the {hole.face}",
                figures=(Figure(-has, "mm", "up"),),
                value=-has,
                limit=0.0,
                margin=has,
                unit="mm",
                label="opening on its face",
                rationale="it is cut in that face, all of it",
            )


def _inside(box: PlacedBox, key: str, hole: Opening, in_mm: float) -> Finding:
    """How far what stands in is off the nearest thing in the box."""
    made = box.shell.made
    back = (
        min(made.proud_mm(hole.face), 0.0) - made.wall_at("front").thickness_mm
    )  # a rack's sheet is behind its angles
    room = block(*before_face(hole, box.shell.outer_mm, hole.seat_mm, (back - in_mm, back)))
    rows = [(nearest(room, block(m.low, m.high)).gap_mm, f"module {m.number}") for m in box.shell.modules]
    plates = ((p.name, s) for p in box.shell.pieces if p.role in ("divider", "board", "holder") for s in p.solids)
    rows += [(nearest(room, plate).gap_mm, f"its {name}") for name, plate in plates]
    there = room.moved(box.placement)
    rows += [(nearest(there, solid).gap_mm, gear.item.name) for gear in box.gear for solid in gear.solids]
    has, what = min(rows, default=(math.inf, ""))
    margin = round(has - INSIDE_MM, 9)
    words = plain(hole.name)
    return Finding(
        id=f"opening:{box.path}:{key}",
        code="box.opening",
        station="box",
        state="foul" if margin < 0 else "clear",
        subjects=(box.path, f"{box.path}/openings/{key}"),
        message=f"{plain(box.box.name)}, {words} inside: {{0}} to {plain(what)}, needs {{1}}"
        if rows
        else f"{plain(box.box.name)}, {words}: nothing inside is near it",
        figures=(Figure(has, "mm", "down"), Figure(INSIDE_MM, "mm", "up")) if rows else (),
        value=has if rows else None,
        limit=INSIDE_MM if rows else None,
        margin=margin if rows else None,
        unit="mm",
        label=f"{hole.name} inside",
        rationale=f"it stands {in_mm:g} into the box, and keeps {INSIDE_MM:g} off modules and gear (common practice, "
        "no source)",
    )
