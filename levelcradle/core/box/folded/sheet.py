"""What a folded box is made from: its size, its sheet, its cap, its cut-off edges; the blanks of tray and lid
follow."""

from dataclasses import dataclass
from functools import cached_property

from levelcradle.core.axes import Vec
from levelcradle.core.box.folded.edges import ends_of, lengthened, slope_of
from levelcradle.core.box.folded.flat_pattern import FlatPattern, SheetBend
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
    def out_mm(self) -> float:
        """From the tray's outside to the outside of the lid's edge."""
        return self.cap.clearance_mm + self.t

    @property
    def over_mm(self) -> Vec:
        length, width, height = self.outer_mm
        return length + 2 * self.out_mm, width + 2 * self.out_mm, height + self.t

    @cached_property
    def bend(self) -> SheetBend:
        """The folder's own deduction where he gave one, else the one of the neutral fibre."""
        t, radius, folder = self.t, self.spec.bend_radius_mm, self.spec.folder
        if folder.deduction_mm is not None:
            return SheetBend(radius, t, folder.deduction_mm, f"deduction given by {folder.name or 'the folder'}")
        k, source = self.material.k_factor, self.material.k_source
        return SheetBend(
            radius, t, bend_deduction_mm(angle_deg=90, radius_mm=radius, thickness_mm=t, k=k), f"K {k:g} ({source})"
        )

    @cached_property
    def tray(self) -> FlatPattern:
        slopes = dict(slope_of(c) for c in self.box.chamfers.values() if "base" in c.edge)
        corners = dict(ends_of(c) for c in self.box.chamfers.values() if "base" not in c.edge)
        return FlatPattern(*self.outer_mm, self.bend, slopes, corners)

    @cached_property
    def lid(self) -> FlatPattern:
        corners = {(end, self.seen(long)): self.over_lid(cut) for (end, long), cut in self.tray.corners.items()}
        return FlatPattern(self.over_mm[0], self.over_mm[1], self.cap.edge_mm, self.bend, {}, corners)

    @staticmethod
    def seen(face: str) -> str:
        """What a face of the box is in the lid's blank, and the other way about."""
        return _SEEN_FROM_INSIDE.get(face, face)

    def over_lid(self, cut: Flat) -> Flat:
        """What goes along the two edges of the lid, whose slope stands off the tray's like its edges do."""
        return lengthened(cut, self.out_mm)
