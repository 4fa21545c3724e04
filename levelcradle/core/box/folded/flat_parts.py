"""Flat patterns of folded blanks, the sides cut apart from them, and the plates of cut-off upright edges."""

import math
from collections.abc import Iterable, Iterator, Sequence

import numpy as np
from shapely.geometry import Polygon
from shapely.geometry.polygon import orient

from levelcradle.core.axes import Placement
from levelcradle.core.box.folded.edges import ends_of
from levelcradle.core.box.folded.flat_pattern import FIT_UP_MM, FlatPattern, pan_bends, pan_outline
from levelcradle.core.box.folded.separate import seen_inside, separate_ring, separate_stand
from levelcradle.core.box.folded.sheet import Sheet
from levelcradle.core.box.folded.tabs import notched, tabbed, tabs_of
from levelcradle.core.box.openings import FaceHole
from levelcradle.core.box.plates import plate_part
from levelcradle.core.design.box import Chamfer
from levelcradle.core.part import Flat, FlatPart, Hole, Stand, bend_deduction_mm

__all__ = [
    "corner_part",
    "corner_parts",
    "crossing",
    "deduction_limits",
    "pan_part",
    "separate_parts",
    "side_part",
    "tray_part",
]


def tray_part(box_id: str, name: str, sheet: Sheet, holes: Sequence[FaceHole]) -> FlatPart:
    """Flat pattern of the tray: base and four walls folded up, with its openings and rivet-nut holes."""
    apart = sheet.tray.separate
    own = tuple(_tray_hole(hole, sheet.tray) for hole in holes if hole.face not in (*apart, "top"))
    return pan_part(f"{box_id}-tray", f"{name} tray", sheet, sheet.tray, own, Stand((0.0, 0.0), _in_tray(sheet)))


def _tray_hole(hole: FaceHole, pan: FlatPattern) -> Hole:
    x, y = hole.at[0] - pan.length_mm / 2, hole.at[1] - pan.width_mm / 2
    if hole.face == "base":
        return Hole((x, y), hole.diameter_mm, hole.name)
    along = y if hole.face in ("front", "aft") else x
    return Hole(pan.on_side(hole.face, along, hole.at[2]), hole.diameter_mm, hole.name)


def _in_tray(sheet: Sheet) -> Placement:
    """From the axes of the tray's pan to the box's."""
    length, width, _ = sheet.outer_mm
    return Placement(np.eye(3), (length / 2, width / 2, 0.0))


def separate_parts(box_id: str, name: str, sheet: Sheet, holes: Sequence[FaceHole]) -> Iterator[FlatPart]:
    """The sides of the tray that are cut apart and welded on, seen from inside."""
    for face in sorted(sheet.tray.separate):
        own = [hole for hole in holes if hole.face == face]
        words = (f"{box_id}-{face}-wall", f"{name} {face} wall")
        yield side_part(words, sheet, sheet.tray, face, _in_tray(sheet), own)


def side_part(
    words: tuple[str, str], sheet: Sheet, pan: FlatPattern, face: str, placed: Placement, holes: Sequence[FaceHole]
) -> FlatPart:
    """``face``: as the pan has it; ``placed``: from its axes to the box's; ``holes``: on the panel, in the box's
    frame."""
    stand, t = placed.after(separate_stand(pan, face)), pan.bend.thickness_mm
    whole = tabbed(pan, face, Polygon(separate_ring(pan, face)))
    ring = Polygon([(along * seen_inside(face), up) for up, along in whole.exterior.coords[:-1]])
    corners = [(float(x), float(y)) for x, y in orient(ring, 1.0).exterior.coords[:-1]]
    back = stand.inverse
    flat = [(back.point(hole.at), hole) for hole in holes]
    stands = "its tabs stand in the notches of the base" if tabs_of(pan, face) else "it stands on the base"
    notes = (f"Cut apart and welded on, flush with the outside; {stands}", "Seen from inside")
    return FlatPart(
        *words, 1, sheet.box.material, sheet.material.name, t, sheet.material.density_kg_m3,
        tuple(corners), tuple(Hole((at[0], at[1]), hole.diameter_mm, hole.name) for at, hole in flat), (), notes,
        Stand((0.0, pan.high_mm(face) / 2), stand),
    )  # fmt: skip


def corner_parts(box_id: str, name: str, sheet: Sheet) -> Iterator[FlatPart]:
    """The plates welded into upright edges of the tray that are cut off."""
    for chamfer in sheet.upright:
        _, cut = ends_of(chamfer)
        yield corner_part(box_id, name, sheet, chamfer, "corner", (cut, sheet.outer_mm[2] - sheet.base_mm, sheet.t))


def corner_part(
    box_id: str, name: str, sheet: Sheet, chamfer: Chamfer, what: str, size: tuple[Flat, float, float]
) -> FlatPart:
    """The plate in an upright edge that is cut off. ``size``: what is cut along both sides, how high, how thick."""
    (end, long), _ = ends_of(chamfer)
    cut, height, t = size
    notes = (f"Welded into the corner {end} {long}, flush outside", "Its long edges are bevelled to meet the walls")
    return plate_part(
        f"{box_id}-{what.replace(' ', '-')}-{end}-{long}",
        f"{name} {what}, {end} {long}",
        (sheet.box.material, sheet.material),
        t,
        (math.hypot(*cut) - 2 * FIT_UP_MM, height - FIT_UP_MM),
        notes,
    )


def crossing(name: str, parts: Iterable[FlatPart]) -> Iterator[str]:
    """Names of the blanks whose outline crosses itself or has no room, without the box's: such a one is never cut."""
    for part in parts:
        ring = Polygon(part.outline)
        width, height = part.size_mm
        if not ring.is_valid or ring.area <= 0 or min(width, height) <= 0:
            yield part.name.removeprefix(name)


def deduction_limits(radius_mm: float, thickness_mm: float) -> tuple[float, float]:
    """The least and the largest deduction that a 90° bend of a sheet can have: its neutral fibre lies within the sheet,
    K from 1 to 0. Source: BD = 2 (R + t) − (π/2)(R + K t), sheet-metal handbooks."""
    most, least = (
        bend_deduction_mm(angle_deg=90, radius_mm=radius_mm, thickness_mm=thickness_mm, k=k) for k in (0.0, 1.0)
    )
    return least, most


def _deductions(pan: FlatPattern) -> str:
    """Of the square bends, and of others where there are some."""
    slants = sorted({round(angle, 1) for slope in pan.slopes.values() for angle in slope.angles_deg})
    return ", ".join(
        [f"{pan.bend.deduction_mm:.2f}", *(f"{pan.bend.deduction_mm_at(angle):.2f} at {angle:g}°" for angle in slants)]
    )


def pan_part(id_: str, name: str, sheet: Sheet, pan: FlatPattern, holes: tuple[Hole, ...], stand: Stand) -> FlatPart:
    bend = pan.bend
    t = pan.base_mm or bend.thickness_mm
    bends = tuple(pan_bends(pan))
    whole = f"{pan.length_mm:.1f} × {pan.width_mm:.1f} × {pan.height_mm:.1f}"
    notes = (
        f"Outside {whole} when {'folded' if bends else 'its walls stand on it'}",
        f"Inside radius {bend.radius_mm:g}, bend deduction {_deductions(pan)}: {bend.source}",
        "Corners welded; the sheet is seen from inside, all bends towards you"
        + (" but the one back of each step" if pan.steps else ""),
        "Bend in the order of the numbers",
    )
    if pan.separate:
        sides = " and ".join(sorted(pan.separate)) if len(pan.separate) < len(pan.sides) else "all four sides"
        notes = (*(notes if bends else notes[:1]), f"Cut apart and welded on: {sides}")
    return FlatPart(
        id_,
        name,
        1,
        sheet.box.material,
        sheet.material.name,
        t,
        sheet.material.density_kg_m3,
        notched(pan, pan_outline(pan)),
        holes,
        bends,
        notes,
        stand,
    )
