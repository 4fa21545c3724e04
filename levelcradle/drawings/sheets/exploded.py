"""A box taken apart: tray, modules, lid and brackets drawn away from each other, each with its mark."""

from collections.abc import Iterator

import numpy as np

from levelcradle.core.apart import (
    BRACKET_MM,
    PLATE_MM,
    closure_off,
    holders_off,
    modules_off,
    mount_off,
    side_off,
    sides_apart,
)
from levelcradle.core.assembly import PlacedBox
from levelcradle.core.axes import Placement, Vec
from levelcradle.core.box import Role
from levelcradle.drawings.border import FOOT_MM, border
from levelcradle.drawings.linework import CORNER, Body
from levelcradle.drawings.sheet import Sheet
from levelcradle.drawings.subject import Subject
from levelcradle.drawings.views import balloons, box_bodies, fitted, holder_bodies, module_bodies, put

__all__ = ["exploded_sheet"]

LOW_MM, TOP_MM = FOOT_MM + 8.0, 24.0


def exploded_sheet(subject: Subject, letter: str, box: PlacedBox) -> Sheet:
    job = subject.job
    sheet = Sheet(f"{letter}-exploded", f"Box {letter}, taken apart: {box.name}", job.paper, about=(box.path,))
    groups = list(_apart(subject, box))
    bodies = [body for _, group in groups for body in group]
    window = (34.0, LOW_MM, job.paper.wide_mm - 68, job.paper.tall_mm - TOP_MM - LOW_MM)
    frame = fitted(bodies, CORNER, window)
    places = put(sheet, bodies, CORNER, frame)
    numbers = {id(body): number for number, body in enumerate(bodies)}
    shown = [(mark, [places[numbers[id(b)]] for b in group if numbers[id(b)] in places]) for mark, group in groups]
    tips = [(mark, found[0]) for mark, found in shown if mark and found]
    balloons(sheet, tips, (22.0, job.paper.wide_mm - 22.0), LOW_MM + 2, job.paper.tall_mm - TOP_MM - 4)
    marks = {mark for mark, _ in groups}
    facts = tuple(f"{part.mark}: {part.name}, {part.quantity} off" for part in subject.parts if part.mark in marks)
    border(sheet, job, f"{letter}, taken apart: {box.name}", (), ("Not to scale. " + "; ".join(facts),))
    return sheet


def _apart(subject: Subject, box: PlacedBox) -> Iterator[tuple[str, list[Body]]]:
    """(mark, bodies) in the box's own frame, moved away from where they belong."""
    tray, lid = box_bodies(box, lid=False), box_bodies(box)
    sides = list(sides_apart(box))
    for piece in sides:
        mark = subject.marks.get(f"{box.id}-{piece.part}", "")
        yield mark, [_moved(Body(piece.solids, 0.35), side_off(box, piece.centre))]
    if sides:
        yield "", tray[1:]  # the frame
    else:
        yield _mark(subject, box, "base"), tray
    yield "", [_moved(body, modules_off(box)) for body in module_bodies(box)]
    holders: dict[str, list[Body]] = {}
    for part, body in holder_bodies(box):
        mark = subject.marks.get(f"{box.id}-{part}", "")
        holders.setdefault(mark, []).append(_moved(body, holders_off(box)))
    yield from holders.items()
    yield _mark(subject, box, "closure"), [_moved(body, closure_off(box)) for body in lid[len(tray) :]]
    back = box.placement.inverse
    for mount in box.mounts:
        at, far = back.point(mount.spot.at), dict[str, list[Body]]()
        for held in mount.pieces:
            by = PLATE_MM if held.on_wall and _is_flat(subject, held.part) else BRACKET_MM
            body = Body((held.solid.moved(back),), 0.25)
            far.setdefault(held.part, []).append(_moved(body, mount_off(box, at, by)))
        yield from ((subject.marks.get(part, ""), group) for part, group in far.items())


def _mark(subject: Subject, box: PlacedBox, role: Role) -> str:
    """Of the part that the pieces of a role are of."""
    part = next((piece.part for piece in box.shell.pieces if piece.role == role and piece.part), "")
    return subject.marks.get(f"{box.id}-{part}", "")


def _is_flat(subject: Subject, part_id: str) -> bool:
    """Whether a part has no bend: a plate between the wall and what stands on it."""
    return any(not one.bends for part in subject.parts for one in part.each if one.id == part_id)


def _moved(body: Body, by: Vec) -> Body:
    place = Placement(np.eye(3), by)
    return Body(tuple(solid.moved(place) for solid in body.solids), body.weight_mm)
