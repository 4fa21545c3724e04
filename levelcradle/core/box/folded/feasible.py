"""Whether a folded box can be folded and drilled as drawn."""

import math
from collections.abc import Iterator
from dataclasses import dataclass

from levelcradle.core.box.chamfers import beyond
from levelcradle.core.box.folded.edges import slope_of, top_of
from levelcradle.core.box.folded.separate import SEPARATE_WAYS, not_taken
from levelcradle.core.box.folded.sheet import Sheet
from levelcradle.core.box.openings import openings_of
from levelcradle.core.design.box import FACE_AT, Chamfer
from levelcradle.core.part import bend_setback_mm

__all__ = ["Makeable", "least_chamfer", "least_radius", "makeable", "shortest_mm"]

WORTH_MM = 8  # a smaller one is not worth its welding: common practice, no source


@dataclass(frozen=True, slots=True)
class Makeable:
    """One demand of the folder or driller: what there is, what is needed, and the words."""

    name: str
    message: str
    has_mm: float
    needs_mm: float
    why: str = "common practice, no source"


def shortest_mm(sheet: Sheet, thickness_mm: float) -> float:
    """The shortest side that can be turned up of a sheet so thick. Source: as ``makeable``."""
    return max(5.6 * thickness_mm, sheet.spec.bend_radius_mm + sheet.t, sheet.spec.folder.shortest_mm or 0.0)


def makeable(sheet: Sheet, covers_mm: float) -> Iterator[Makeable]:
    """Shortest sides of a tray for the press brake and free sheet round every hole. ``covers_mm``: how far below its
    rim a lid takes the outside of its walls.

    Source: shortest flange about 0.7 V with V = 8 t, hole edge at least 2 t from an edge and 2 t + R from a bend, 3 t
    of flat between the two bends of a cut-off edge, 4 t between a bend and one back: common practice, no source."""
    t, outer, shortest = sheet.t, sheet.outer_mm, shortest_mm(sheet, sheet.t)
    yield from (Makeable(*row) for row in not_taken(sheet.tray, sheet.spec.folder))
    if sheet.tray.separate != SEPARATE_WAYS[-1]:
        yield from least_radius("bend radius", "inside radius of its bends", sheet, t)
    if sheet.spec.base_mm and sheet.sloped:
        yield Makeable("base of its own", "sheet of a base of its own at its cut-off edges", 0.0, sheet.spec.base_mm)
    if sheet.tray.separate != SEPARATE_WAYS[-1]:
        yield Makeable("wall", "wall height for the press brake", outer[2], max(shortest, covers_mm))
        wide = min(outer[0], outer[1])
        yield Makeable("base", "width of the base between its bends", wide, 2 * sheet.back_mm + shortest)
    for chamfer in sheet.box.chamfers.values():
        yield from _of_a_chamfer(sheet, chamfer, shortest, covers_mm)
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


def least_radius(name: str, words: str, sheet: Sheet, thickness_mm: float) -> Iterator[Makeable]:
    """Whether a sheet is bent no tighter than it takes; nothing where nobody has said how tight that is."""
    radii = sheet.material.bend_radii
    if radii is not None:
        why = f"{radii:g} thicknesses of {sheet.material.name}: {sheet.material.bend_source or 'as entered'}"
        yield Makeable(name, words, sheet.spec.bend_radius_mm, radii * thickness_mm, why)


def least_chamfer(sheet: Sheet, edge: tuple[str, str]) -> int:
    """The smallest equal-sided one of an edge that can be folded and is worth its welding, in whole millimetres."""
    back = sheet.back_mm
    folds = (3 * sheet.t + 2 * bend_setback_mm(45, back)) / math.sqrt(2) if {"base", "top"} & set(edge) else 2 * back
    return max(WORTH_MM, math.ceil(round(folds, 6)))


def _of_a_chamfer(sheet: Sheet, chamfer: Chamfer, shortest: float, covers_mm: float) -> Iterator[Makeable]:
    back, outer, words = sheet.back_mm, sheet.outer_mm, f"cut-off edge {chamfer.edge[0]} {chamfer.edge[1]}"
    if "top" in chamfer.edge:
        wall, (in_, _) = top_of(chamfer)
        left = sheet.rim_mm(wall)
        needs = max(shortest + back, covers_mm)
        yield Makeable(f"wall under {words}", f"wall left under the {words}", left, needs)
        across = outer[0] if wall in ("front", "aft") else outer[1]
        yield Makeable(f"top at {words}", f"top left beside the {words}", across - in_, 2 * back + shortest)
        return
    if "base" not in chamfer.edge:
        yield Makeable(words, f"{words} beyond the bends of the base", min(chamfer.mm), 2 * back)
        return
    wall, slope = slope_of(chamfer)
    if chamfer.square:
        bends = 2 * sheet.spec.bend_radius_mm + sheet.t
        for part, mm in (("riser", slope.wall_mm), ("shelf", slope.base_mm)):
            told = f"{part} of the step {wall}, flat between its bends"
            yield Makeable(f"{part} {words}", told, mm - bends, 4 * sheet.t)
    flat = slope.long_mm - sum(bend_setback_mm(angle, back) for angle in slope.angles_deg)
    if not chamfer.square:
        yield Makeable(words, f"{words}, flat between its two bends", flat, 3 * sheet.t)
    left = outer[2] - slope.wall_mm
    yield Makeable(f"wall over {words}", f"wall left over the {words}", left, max(shortest + back, covers_mm))
    across = outer[0] if wall in ("front", "aft") else outer[1]
    yield Makeable(f"base at {words}", f"base left beside the {words}", across - slope.base_mm, 2 * back + shortest)
