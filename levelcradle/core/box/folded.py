"""The folded-sheet box: flat patterns of tray and lid.

Both are a rectangle with four sides turned up (down for the lid) by 90 degrees. Two opposite sides run over the whole
length, the other two stand between them; at each corner the sheet is cut back to where the bends begin, so that it
does not tear, and the corner is welded.

            ┌──────────────┐  right wall, over the whole length
        ┌───┘              └───┐
        │  ┌ ─ ─ bend ─ ─ ─ ┐  │
        │                      │  front and aft walls, between the long ones
        │  └ ─ ─ ─ ─ ─ ─ ─ ─┘  │
        └───┐              ┌───┘
            └──────────────┘  left wall
"""

from dataclasses import dataclass

from levelcradle.core.axes import Vec
from levelcradle.core.box.openings import FaceHole, hole_places, lid_screw_up, screw_places
from levelcradle.core.design.box import Box
from levelcradle.core.design.tables import Material
from levelcradle.core.part import Bend, FlatPart, Hole, bend_deduction

__all__ = ["Pan", "SheetBend", "divider_part", "lid_part", "pan_outline", "sheet_bend", "tray_part"]

FIT_UP_MM = 0.5  # gap at a welded corner, common practice, no source


@dataclass(frozen=True, slots=True)
class SheetBend:
    """The 90-degree bend of one sheet: deduction, allowance and where the figure comes from."""

    radius_mm: float
    thickness_mm: float
    deduction_mm: float
    source: str

    @property
    def setback_mm(self) -> float:
        """From the outside apex back to where the bend begins."""
        return self.radius_mm + self.thickness_mm

    @property
    def allowance_mm(self) -> float:
        return 2 * self.setback_mm - self.deduction_mm


def sheet_bend(box: Box, material: Material) -> SheetBend:
    """The folder's own deduction where he gave one, else the one of the neutral fibre."""
    if box.folder.deduction_mm is not None:
        who = box.folder.name or "the folder"
        return SheetBend(box.bend_radius_mm, box.thickness_mm, box.folder.deduction_mm, f"deduction given by {who}")
    deduction = bend_deduction(angle_deg=90, radius_mm=box.bend_radius_mm, thickness_mm=box.thickness_mm, k=material.k_factor)
    return SheetBend(box.bend_radius_mm, box.thickness_mm, deduction, f"K {material.k_factor:g} ({material.k_source})")


@dataclass(frozen=True, slots=True)
class Pan:
    """A rectangle with four turned sides, by its outside size; flat coordinates start at the middle of the base."""

    length_mm: float
    width_mm: float
    height_mm: float
    bend: SheetBend

    @property
    def base_half(self) -> tuple[float, float]:
        """Half of the base that stays flat."""
        back = self.bend.setback_mm
        return self.length_mm / 2 - back, self.width_mm / 2 - back

    @property
    def side_start(self) -> tuple[float, float]:
        """Where the flat part of a side begins, from the middle."""
        a, b = self.base_half
        return a + self.bend.allowance_mm, b + self.bend.allowance_mm

    @property
    def half(self) -> tuple[float, float]:
        """Half of the blank."""
        rise = self.height_mm - self.bend.setback_mm
        x, y = self.side_start
        return x + rise, y + rise

    def on_base(self, x: float, y: float) -> tuple[float, float]:
        return x, y

    def on_side(self, face: str, along: float, height: float) -> tuple[float, float]:
        """A point on a side, by its place along the side from the middle and its height off the outside of the base."""
        x, y = self.side_start
        up = height - self.bend.setback_mm
        return {"front": (-x - up, along), "aft": (x + up, along), "left": (along, -y - up), "right": (along, y + up)}[face]


def pan_outline(pan: Pan) -> tuple[tuple[float, float], ...]:
    """Outline of the blank, counter-clockwise, corners cut back to where the bends begin."""
    (a, b), (sx, sy), (hx, hy) = pan.base_half, pan.side_start, pan.half
    end = pan.width_mm / 2 - pan.bend.thickness_mm - FIT_UP_MM  # half of the front and aft sides, between the long ones
    long = pan.length_mm / 2
    quarter = [(hx, end), (sx, end), (sx, b), (a, b), (a, sy), (long, sy), (long, hy)]
    right = quarter + [(-x, y) for x, y in reversed(quarter)]
    return tuple(right + [(-x, -y) for x, y in right])


def _bends(pan: Pan, *, up: bool) -> tuple[Bend, ...]:
    (a, b), (sx, sy) = pan.base_half, pan.side_start
    x, y = (a + sx) / 2, (b + sy) / 2
    lines = (((x, -b), (x, b)), ((-x, -b), (-x, b)), ((-a, y), (a, y)), ((-a, -y), (a, -y)))
    return tuple(Bend(start, end, 90.0, pan.bend.radius_mm, up) for start, end in lines)


def tray_part(box_id: str, box: Box, outer: Vec, material: Material) -> FlatPart:
    """Flat pattern of the tray: base and four walls folded up, with its openings and rivet-nut holes."""
    bend = sheet_bend(box, material)
    pan = Pan(outer[0], outer[1], outer[2], bend)
    holes = tuple(_tray_hole(hole, pan) for hole in hole_places(box, outer) if hole.face != "lid")
    return _part(f"{box_id}-tray", f"{box.name} tray", box, material, pan, holes, up=True)


def _tray_hole(hole: FaceHole, pan: Pan) -> Hole:
    x, y = hole.at[0] - pan.length_mm / 2, hole.at[1] - pan.width_mm / 2
    if hole.face == "base":
        return Hole(pan.on_base(x, y), hole.diameter_mm, hole.name)
    along = y if hole.face in ("front", "aft") else x
    return Hole(pan.on_side(hole.face, along, hole.at[2]), hole.diameter_mm, hole.name)


def lid_part(box_id: str, box: Box, outer: Vec, over_lid: Vec, material: Material) -> FlatPart:
    """Flat pattern of the cap lid, edges turned down; seen from inside, so that it folds up like the tray."""
    bend = sheet_bend(box, material)
    pan = Pan(over_lid[0], over_lid[1], box.lid.edge_mm, bend)
    below_top = outer[2] + box.thickness_mm - lid_screw_up(box, outer)
    size = box.lid.screws.hole_mm
    holes = [Hole(pan.on_side(face, at, below_top), size, "lid screw")
             for face in ("left", "right") for at in screw_places(outer[0], box.lid.screws)]  # fmt: skip
    holes += [Hole(pan.on_side(face, at, below_top), size, "lid screw")
              for face in ("front", "aft") for at in screw_places(outer[1], box.lid.screws)]  # fmt: skip
    holes += [Hole((h.at[0] - outer[0] / 2, -(h.at[1] - outer[1] / 2)), h.diameter_mm, h.name)
              for h in hole_places(box, outer) if h.face == "lid"]  # fmt: skip
    return _part(f"{box_id}-lid", f"{box.name} lid", box, material, pan, tuple(holes), up=True)


def divider_part(box_id: str, box: Box, number: int, low: Vec, high: Vec, material: Material) -> FlatPart:
    """A flat plate between modules, by its corners in the box."""
    thick = min(range(3), key=lambda i: high[i] - low[i])
    a, b = (high[i] - low[i] for i in range(3) if i != thick)
    outline = ((-a / 2, -b / 2), (a / 2, -b / 2), (a / 2, b / 2), (-a / 2, b / 2))
    notes = ("Stands across the whole inside of the box",)
    return FlatPart(
        f"{box_id}-divider-{number}", f"{box.name} divider {number}", 1, box.material, material.name, high[thick] - low[thick],
        material.density_kg_m3, outline, (), (), notes,
    )  # fmt: skip


def _part(id_: str, name: str, box: Box, material: Material, pan: Pan, holes: tuple[Hole, ...], *, up: bool) -> FlatPart:
    bend = pan.bend
    notes = (
        f"Outside {pan.length_mm:.1f} × {pan.width_mm:.1f} × {pan.height_mm:.1f} when folded",
        f"Inside radius {bend.radius_mm:g}, bend deduction {bend.deduction_mm:.2f}: {bend.source}",
        "Corners welded; the sheet is seen from inside, all bends towards you",
    )
    return FlatPart(
        id_, name, 1, box.material, material.name, box.thickness_mm, material.density_kg_m3,
        pan_outline(pan), holes, _bends(pan, up=up), notes,
    )  # fmt: skip
