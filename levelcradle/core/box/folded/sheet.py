"""What a folded box is made from: its size, its sheet, its cap, its cut-off edges; the blanks of tray and lid
follow."""

from dataclasses import dataclass, replace
from functools import cached_property

from levelcradle.core.axes import Vec
from levelcradle.core.box.folded.edges import ends_of, lengthened, slope_of
from levelcradle.core.box.folded.flat_pattern import FlatPattern, SheetBend
from levelcradle.core.box.folded.separate import SEPARATE_WAYS, not_taken
from levelcradle.core.design.box import Box
from levelcradle.core.design.construction import Cap, Folded
from levelcradle.core.design.tables import Material
from levelcradle.core.part import Flat, bend_deduction_mm

__all__ = ["Sheet"]

_SEEN_FROM_INSIDE = {"left": "right", "right": "left"}


@dataclass(frozen=True, eq=False)
class Sheet:
    """A folded box of one outside size. The lid's blank is seen from inside, so that it folds up like the tray: its
    left is the box's right."""

    box: Box
    spec: Folded
    cap: Cap
    outer_mm: Vec
    material: Material

    @property
    def t(self) -> float:
        return self.spec.thickness_mm

    @property
    def back_mm(self) -> float:
        """From the outside apex of a square bend to where it begins."""
        return self.spec.thickness_mm + self.spec.bend_radius_mm

    @property
    def base_mm(self) -> float:
        """How thick its base is. One of its own has no edges cut off: there it is of the sheet, and told so."""
        return self.t if self.spec.base_mm is None or self.sloped else self.spec.base_mm

    @property
    def sloped(self) -> bool:
        """Whether an edge of its base is cut off."""
        return any("base" in chamfer.edge for chamfer in self.box.chamfers.values())

    @property
    def lid_mm(self) -> float:
        """How thick its lid is."""
        return self.cap.thickness_mm or self.t

    @property
    def out_mm(self) -> float:
        """From the tray's outside to the outside of the lid's edge."""
        return self.cap.clearance_mm + self.lid_mm

    @property
    def over_mm(self) -> Vec:
        length, width, height = self.outer_mm
        return length + 2 * self.out_mm, width + 2 * self.out_mm, height + self.lid_mm

    @cached_property
    def bend(self) -> SheetBend:
        return self._bend_of(self.t)

    def _bend_of(self, t: float) -> SheetBend:
        """The folder's own deduction where he gave one for this sheet, else the one of the neutral fibre."""
        radius, folder = self.spec.bend_radius_mm, self.spec.folder
        if folder.deduction_mm is not None and t == self.t:
            return SheetBend(radius, t, folder.deduction_mm, f"deduction given by {folder.name or 'the folder'}")
        k, source = self.material.k_factor, self.material.k_source
        return SheetBend(
            radius, t, bend_deduction_mm(angle_deg=90, radius_mm=radius, thickness_mm=t, k=k), f"K {k:g} ({source})"
        )

    @cached_property
    def tray(self) -> FlatPattern:
        slopes = dict(slope_of(c) for c in self.box.chamfers.values() if "base" in c.edge)
        corners = dict(ends_of(c) for c in self.box.chamfers.values() if "base" not in c.edge)
        pan = FlatPattern(*self.outer_mm, self.bend, slopes, corners)
        if self.spec.base_mm is None or slopes:
            return self._as_taken(pan)
        return replace(pan, separate=SEPARATE_WAYS[-1], base_mm=self.spec.base_mm)

    @cached_property
    def lid(self) -> FlatPattern:
        corners = {(end, self.seen(long)): self.over_lid(cut) for (end, long), cut in self.tray.corners.items()}
        bend = self._bend_of(self.lid_mm)
        return self._as_taken(FlatPattern(self.over_mm[0], self.over_mm[1], self.cap.edge_mm, bend, {}, corners))

    def _as_taken(self, pan: FlatPattern) -> FlatPattern:
        """With as few of its sides cut apart as his machine and his sheet ask for; in one piece where that does not
        help. A side whose edge with the base is cut off stays folded."""
        if not self.spec.folder.limited:
            return pan
        ways = (replace(pan, separate=sides) for sides in SEPARATE_WAYS if not sides & pan.slopes.keys())
        return next((way for way in ways if not any(not_taken(way, self.spec.folder))), pan)

    @staticmethod
    def seen(face: str) -> str:
        """What a face of the box is in the lid's blank, and the other way about."""
        return _SEEN_FROM_INSIDE.get(face, face)

    def over_lid(self, cut: Flat) -> Flat:
        """What goes along the two edges of the lid, whose slope stands off the tray's like its edges do."""
        return lengthened(cut, self.out_mm)
