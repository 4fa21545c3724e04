"""Whether a folded box can be folded and drilled as drawn."""

import math
from collections.abc import Iterator
from dataclasses import dataclass

from levelcradle.core.box.chamfers import beyond
from levelcradle.core.box.folded.edges import slope_of
from levelcradle.core.box.folded.separate import SEPARATE_WAYS, not_taken
from levelcradle.core.box.folded.sheet import Sheet
from levelcradle.core.box.openings import openings_of
from levelcradle.core.design.box import FACE_AT, Chamfer
from levelcradle.core.part import bend_setback_mm

__all__ = ["Makeable", "least_chamfer", "makeable"]

WORTH_MM = 8  # a smaller one is not worth its welding: common practice, no source


@dataclass(frozen=True, slots=True)
class Makeable:
    """One demand of the folder or driller: what there is, what is needed, and the words."""

    name: str
    message: str
    has_mm: float
    needs_mm: float


def makeable(sheet: Sheet) -> Iterator[Makeable]:
    """Shortest sides for the press brake and free sheet round every hole.

    Source: shortest flange about 0.7 V with V = 8 t, hole edge at least 2 t from an edge and 2 t + R from a bend, 3 t
    of flat between the two bends of a cut-off edge: common practice, no source."""
    t, outer, edge = sheet.t, sheet.outer_mm, sheet.cap.edge_mm
    shortest = max(5.6 * t, sheet.back_mm, sheet.spec.folder.shortest_mm or 0.0)
    for pan in (sheet.tray, sheet.lid):
        yield from (Makeable(*row) for row in not_taken(pan, sheet.spec.folder))
    if sheet.spec.base_mm and sheet.sloped:
        yield Makeable("base of its own", "sheet of a base of its own at its cut-off edges", 0.0, sheet.spec.base_mm)
    yield Makeable("lid edge", "lid edge for the press brake", edge, max(5.6 * sheet.lid_mm, shortest))
    if sheet.tray.separate != SEPARATE_WAYS[-1]:
        yield Makeable("wall", "wall height for the press brake", outer[2], max(shortest, edge))
        wide = min(outer[0], outer[1])
        yield Makeable("base", "width of the base between its bends", wide, 2 * sheet.back_mm + shortest)
    for chamfer in sheet.box.chamfers.values():
        yield from _of_a_chamfer(sheet, chamfer, shortest)
    from_bend, from_rim = 2 * t + sheet.back_mm, 2 * t
    for hole in openings_of(sheet.box, outer):
        along = [i for i in range(3) if i != FACE_AT[hole.face][0]]
        bends = [hole.at[i] for i in along] + [outer[i] - hole.at[i] for i in along if i != 2]
        bends += [-beyond(chamfer, outer, hole.at) for chamfer in sheet.box.chamfers.values()]
        rims = [outer[i] - hole.at[i] for i in along if i == 2]
        sides = [(d - hole.diameter_mm / 2, from_bend) for d in bends]
        sides += [(d - hole.diameter_mm / 2, from_rim) for d in rims]
        has, needs = min(sides, key=lambda row: row[0] - row[1])
        yield Makeable(f"hole {hole.name}", f"sheet beside hole {hole.name}", has, needs)
        if hole.seat_mm > hole.diameter_mm:
            flat = min([*(d - sheet.back_mm for d in bends), *rims])
            yield Makeable(f"seat {hole.name}", f"flat round the middle of hole {hole.name}", flat, hole.seat_mm / 2)


def least_chamfer(sheet: Sheet, edge: tuple[str, str]) -> int:
    """The smallest equal-sided one of an edge that can be folded and is worth its welding, in whole millimetres."""
    back = sheet.back_mm
    folds = (3 * sheet.t + 2 * bend_setback_mm(45, back)) / math.sqrt(2) if "base" in edge else 2 * back
    return max(WORTH_MM, math.ceil(round(folds, 6)))


def _of_a_chamfer(sheet: Sheet, chamfer: Chamfer, shortest_mm: float) -> Iterator[Makeable]:
    back, outer, words = sheet.back_mm, sheet.outer_mm, f"cut-off edge {chamfer.edge[0]} {chamfer.edge[1]}"
    if "base" not in chamfer.edge:
        yield Makeable(words, f"{words} beyond the bends of the base", min(chamfer.mm), 2 * back)
        return
    wall, slope = slope_of(chamfer)
    flat = slope.long_mm - sum(bend_setback_mm(angle, back) for angle in slope.angles_deg)
    yield Makeable(words, f"{words}, flat between its two bends", flat, 3 * sheet.t)
    left = outer[2] - slope.wall_mm
    yield Makeable(
        f"wall over {words}", f"wall left over the {words}", left, max(shortest_mm + back, sheet.cap.edge_mm)
    )
    across = outer[0] if wall in ("front", "aft") else outer[1]
    yield Makeable(f"base at {words}", f"base left beside the {words}", across - slope.base_mm, 2 * back + shortest_mm)
