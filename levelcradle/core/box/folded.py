"""The folded-sheet box: flat patterns of tray and lid, and the plates of its cut-off upright edges."""

import math
from collections.abc import Iterator
from dataclasses import replace

from shapely.geometry import Polygon

from levelcradle.core.axes import Vec
from levelcradle.core.box.chamfers import ends_of, over_lid, slope_of
from levelcradle.core.box.openings import FaceHole, hole_places, lid_screw_up
from levelcradle.core.box.pan import FIT_UP_MM, Pan, SheetBend, pan_bends, pan_outline
from levelcradle.core.design.box import Box
from levelcradle.core.design.tables import Material
from levelcradle.core.part import FlatPart, Hole, bend_deduction

__all__ = ["corner_parts", "crossing", "deduction_limits", "divider_part", "lid_part", "sheet_bend", "tray_part"]


def sheet_bend(box: Box, material: Material) -> SheetBend:
    """The folder's own deduction where he gave one, else the one of the neutral fibre."""
    if box.construction.folder.deduction_mm is not None:
        who = box.construction.folder.name or "the folder"
        return SheetBend(
            box.construction.bend_radius_mm,
            box.construction.thickness_mm,
            box.construction.folder.deduction_mm,
            f"deduction given by {who}",
        )
    deduction = bend_deduction(
        angle_deg=90, radius_mm=box.construction.bend_radius_mm, thickness_mm=box.construction.thickness_mm, k=material.k_factor
    )
    return SheetBend(
        box.construction.bend_radius_mm, box.construction.thickness_mm, deduction, f"K {material.k_factor:g} ({material.k_source})"
    )


def tray_part(box_id: str, box: Box, outer: Vec, material: Material) -> FlatPart:
    """Flat pattern of the tray: base and four walls folded up, with its openings and rivet-nut holes."""
    bend = sheet_bend(box, material)
    pan = tray_pan(box, outer, bend)
    holes = tuple(_tray_hole(hole, pan) for hole in hole_places(box, outer) if hole.face != "top")
    return _part(f"{box_id}-tray", f"{box.name} tray", box, material, pan, holes)


def _tray_hole(hole: FaceHole, pan: Pan) -> Hole:
    x, y = hole.at[0] - pan.length_mm / 2, hole.at[1] - pan.width_mm / 2
    if hole.face == "base":
        return Hole((x, y), hole.diameter_mm, hole.name)
    along = y if hole.face in ("front", "aft") else x
    return Hole(pan.on_side(hole.face, along, hole.at[2]), hole.diameter_mm, hole.name)


def tray_pan(box: Box, outer: Vec, bend: SheetBend) -> Pan:
    """The tray's blank with its cut-off edges."""
    slopes = dict(slope_of(c) for c in box.chamfers.values() if "base" in c.edge)
    corners = dict(ends_of(c) for c in box.chamfers.values() if "base" not in c.edge)
    return Pan(outer[0], outer[1], outer[2], bend, slopes, corners)


def lid_part(box_id: str, box: Box, outer: Vec, over_lid_mm: Vec, material: Material) -> FlatPart:
    """Flat pattern of the cap lid, edges turned down; seen from inside, so that it folds up like the tray."""
    bend = sheet_bend(box, material)
    other = {"left": "right", "right": "left"}  # seen from inside
    corners = {(end, other[long]): over_lid(box, cut) for (end, long), cut in tray_pan(box, outer, bend).corners.items()}
    pan = Pan(over_lid_mm[0], over_lid_mm[1], box.cap.edge_mm, bend, {}, corners)
    below_top = outer[2] + box.construction.thickness_mm - lid_screw_up(box, outer)
    holes = []
    for hole in hole_places(box, outer):
        x, y = hole.at[0] - outer[0] / 2, -(hole.at[1] - outer[1] / 2)
        if hole.face == "top":
            holes.append(Hole((x, y), hole.diameter_mm, hole.name))
        elif hole.name == "lid screw":
            face, along = other.get(hole.face, hole.face), y if hole.face in ("front", "aft") else x
            holes.append(Hole(pan.on_side(face, along, below_top), box.cap.screws.hole_mm, "lid screw"))
    return _part(f"{box_id}-lid", f"{box.name} lid", box, material, pan, tuple(holes))


def corner_parts(box_id: str, box: Box, outer: Vec, material: Material) -> Iterator[FlatPart]:
    """The plates welded into upright edges that are cut off, of the tray and of the lid."""
    t = box.construction.thickness_mm
    for chamfer in box.chamfers.values():
        if "base" in chamfer.edge:
            continue
        (end, long), cut = ends_of(chamfer)
        wide, lid_wide = (math.hypot(*mm) - 2 * FIT_UP_MM for mm in (cut, over_lid(box, cut)))
        notes = (f"Welded into the corner {end} {long}, flush outside", "Its long edges are bevelled to meet the walls")
        for what, width, height in (("corner", wide, outer[2] - t), ("lid corner", lid_wide, box.cap.edge_mm - t)):
            yield _plate(f"{box_id}-{what.replace(' ', '-')}-{end}-{long}", f"{box.name} {what}, {end} {long}", box, material, width,
                         height - FIT_UP_MM, notes)  # fmt: skip


def _plate(id_: str, name: str, box: Box, material: Material, a: float, b: float, notes: tuple[str, ...]) -> FlatPart:
    outline = ((-a / 2, -b / 2), (a / 2, -b / 2), (a / 2, b / 2), (-a / 2, b / 2))
    return FlatPart(
        id_, name, 1, box.material, material.name, box.construction.thickness_mm, material.density_kg_m3, outline, (), (), notes
    )


def crossing(box: Box, outer: Vec, over_lid_mm: Vec, material: Material) -> Iterator[str]:
    """Names of the blanks whose outline crosses itself or has no room: such a one is never cut."""
    blanks = [tray_part("x", box, outer, material), lid_part("x", box, outer, over_lid_mm, material)]
    blanks += list(corner_parts("x", box, outer, material))
    for part in blanks:
        ring = Polygon(part.outline)
        width, height = part.size_mm
        if not ring.is_valid or ring.area <= 0 or min(width, height) <= 0:
            yield part.name


def deduction_limits(box: Box) -> tuple[float, float]:
    """The least and the largest deduction that a 90° bend of this sheet can have: its neutral fibre lies within the sheet, K from 1
    to 0. Source: BD = 2 (R + t) − (π/2)(R + K t), sheet-metal handbooks."""
    most, least = (
        bend_deduction(angle_deg=90, radius_mm=box.construction.bend_radius_mm, thickness_mm=box.construction.thickness_mm, k=k) for k in (0.0, 1.0)
    )  # fmt: skip
    return least, most


def divider_part(box_id: str, box: Box, number: int, low: Vec, high: Vec, material: Material) -> FlatPart:
    """A flat plate between modules, by its corners in the box."""
    thick = min(range(3), key=lambda i: high[i] - low[i])
    a, b = (high[i] - low[i] for i in range(3) if i != thick)
    plate = _plate(f"{box_id}-divider-{number}", f"{box.name} divider {number}", box, material, a, b,
                   ("Stands across the whole inside of the box",))  # fmt: skip
    return replace(plate, thickness_mm=high[thick] - low[thick])


def _deductions(pan: Pan) -> str:
    """Of the square bends, and of others where there are some."""
    slants = sorted({round(angle, 1) for slope in pan.slopes.values() for angle in slope.angles_deg})
    return ", ".join([f"{pan.bend.deduction_mm:.2f}", *(f"{pan.bend.deduction_at(angle):.2f} at {angle:g}°" for angle in slants)])


def _part(id_: str, name: str, box: Box, material: Material, pan: Pan, holes: tuple[Hole, ...]) -> FlatPart:
    bend = pan.bend
    notes = (
        f"Outside {pan.length_mm:.1f} × {pan.width_mm:.1f} × {pan.height_mm:.1f} when folded",
        f"Inside radius {bend.radius_mm:g}, bend deduction {_deductions(pan)}: {bend.source}",
        "Corners welded; the sheet is seen from inside, all bends towards you",
    )
    return FlatPart(
        id_, name, 1, box.material, material.name, box.construction.thickness_mm, material.density_kg_m3,
        pan_outline(pan), holes, tuple(pan_bends(pan)), notes,
    )  # fmt: skip
