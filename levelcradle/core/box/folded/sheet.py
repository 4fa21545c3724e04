"""What the tray of a folded box is made from: its size, its sheet, its cut-off edges; its blank follows."""

from dataclasses import dataclass, replace
from functools import cached_property

from levelcradle.core.axes import Vec
from levelcradle.core.box.folded.edges import ends_of, slope_of, step_of, top_of
from levelcradle.core.box.folded.flat_pattern import FlatPattern, SheetBend
from levelcradle.core.box.folded.separate import SEPARATE_WAYS, not_taken
from levelcradle.core.design.box import Box, Chamfer
from levelcradle.core.design.construction import Folded
from levelcradle.core.design.tables import Material
from levelcradle.core.part import Flat, bend_deduction_mm

__all__ = ["Sheet"]


@dataclass(frozen=True, eq=False)
class Sheet:
    """A folded tray of one outside size."""

    box: Box
    spec: Folded
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
    def upright(self) -> list[Chamfer]:
        """The upright edges that are cut off."""
        return [c for c in self.box.chamfers.values() if not {"base", "top"} & set(c.edge)]

    @cached_property
    def tops(self) -> dict[str, Flat]:
        """The edges of its rim that are cut off, by the wall's face: so far inward, and so far down."""
        return dict(top_of(c) for c in self.box.chamfers.values() if "top" in c.edge)

    def rim_mm(self, face: str) -> float:
        """How high the rim of a wall lies over the outside of the base."""
        return self.outer_mm[2] - (self.tops[face][1] if face in self.tops else 0.0)

    @cached_property
    def bend(self) -> SheetBend:
        return self.bend_of(self.t)

    def bend_of(self, t: float) -> SheetBend:
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
        base = [c for c in self.box.chamfers.values() if "base" in c.edge]
        slopes = dict(slope_of(c) for c in base if not c.square)
        steps = dict(step_of(c) for c in base if c.square)
        corners = dict(ends_of(c) for c in self.upright)
        heights = {face: self.rim_mm(face) for face in self.tops}
        pan = FlatPattern(
            *self.outer_mm,
            self.bend,
            slopes,
            corners,
            tabbed=self.spec.tabs,
            tops=self.tops,
            heights=heights,
            steps=steps,
        )
        if self.spec.base_mm is None or self.sloped:
            return self.as_taken(pan)
        return replace(pan, separate=SEPARATE_WAYS[-1], base_mm=self.spec.base_mm)

    def as_taken(self, pan: FlatPattern) -> FlatPattern:
        """With as few of its sides cut apart as his machine and his sheet ask for; in one piece where that does not
        help. A side whose edge with the base is cut off stays folded."""
        if not self.spec.folder.limited:
            return pan
        ways = (replace(pan, separate=sides) for sides in SEPARATE_WAYS if not sides & pan.bent_twice)
        return next((way for way in ways if not any(not_taken(way, self.spec.folder))), pan)
