"""Service panels in the walls of a box: covers over rectangular openings, and what they take out of the wall."""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np
from shapely.geometry import Polygon
from shapely.geometry.polygon import orient

from levelcradle.core.axes import Placement, Vec, dot, scaled, vec
from levelcradle.core.box.cut_out import flat_under, is_under, lighter
from levelcradle.core.box.made import Made
from levelcradle.core.box.openings import on_face, outward
from levelcradle.core.box.piece import Outside, Piece, block_piece, head_piece
from levelcradle.core.box.plates import WINDOW_KG_M3, plate_part, window_bought
from levelcradle.core.design.base import FACE_AT
from levelcradle.core.design.box import Box
from levelcradle.core.design.service_panel import ServicePanel
from levelcradle.core.design.tables import Material
from levelcradle.core.fold import fold
from levelcradle.core.part import Cutout, Flat, FlatPart, Hole
from levelcradle.core.solids import Solid, block, clipped

__all__ = ["ServicePanelMade", "cut_through", "opened_by", "panels_of"]


@dataclass(frozen=True, eq=False)
class ServicePanelMade:
    """A service panel of a box. ``frame``: in the middle of its opening on the outside of the wall, its first and
    second way along those of the face, and out."""

    id: str
    spec: ServicePanel
    frame: Placement
    of: tuple[str, Material]

    @property
    def cover_mm(self) -> Flat:
        a, b = self.spec.size_mm
        return a + 2 * self.spec.overlap_mm, b + 2 * self.spec.overlap_mm

    @property
    def off_mm(self) -> tuple[float, float]:
        """From where to where its cover stands off the wall."""
        return self.spec.gasket_mm, self.spec.gasket_mm + self.spec.thickness_mm

    @cached_property
    def screws(self) -> tuple[Flat, ...]:
        """In the middle of its overlap all round: one in each corner, no further apart than said."""
        a, b = (
            mm / 2 for mm in (self.spec.size_mm[0] + self.spec.overlap_mm, self.spec.size_mm[1] + self.spec.overlap_mm)
        )
        steps = [max(1, math.ceil(2 * half / self.spec.screws.spacing_mm - 1e-9)) for half in (a, b)]
        along = [(-a + 2 * a * n / steps[0], y) for n in range(steps[0] + 1) for y in (-b, b)]
        up = [(x, -b + 2 * b * n / steps[1]) for n in range(1, steps[1]) for x in (-a, a)]
        return tuple(sorted((*along, *up)))

    @property
    def out(self) -> Vec:
        return self.frame.direction((0.0, 0.0, 1.0))

    @property
    def opening(self) -> tuple[Flat, ...]:
        a, b = (mm / 2 for mm in self.spec.size_mm)
        return (-a, -b), (a, -b), (a, b), (-a, b)

    def _block(self, half: Flat, up: Flat) -> Solid:
        low, high = (-half[0], -half[1], up[0]), (half[0], half[1], up[1])
        return block(low, high).moved(self.frame)

    @cached_property
    def cover(self) -> Solid:
        wide, tall = self.cover_mm
        return self._block((wide / 2, tall / 2), (0.0, self.off_mm[1]))

    def outside(self) -> Iterator[Outside]:
        """Cover with its gasket, and a layer as high as its heads: gaps are asked of the highest of them."""
        wide, tall = self.cover_mm
        top = self.off_mm[1]
        heads = self._block((wide / 2, tall / 2), (top, top + self.spec.screws.head_high_mm))
        yield Outside(self.spec.name, "panel", self.cover)
        yield Outside(f"{self.spec.name}, heads", "panel", heads)

    def pieces(self) -> Iterator[Piece]:
        (wide, tall), (near, far), screws = self.cover_mm, self.off_mm, self.spec.screws
        dense = WINDOW_KG_M3 if self.spec.window else self.of[1].density_kg_m3
        plate = block_piece("", "panel", (-wide / 2, -tall / 2, near), (wide / 2, tall / 2, far), dense)
        drilled = len(self.screws) * math.pi / 4 * screws.hole_mm**2 * self.spec.thickness_mm * dense * 1e-9
        yield Piece(
            self.spec.name,
            "panel",
            plate.mass_kg - drilled,
            self.frame.point(plate.centre),
            lambda: tuple(solid.moved(self.frame) for solid in plate.solids),
            "" if self.spec.window else f"{self.id}-cover",
        )
        for x, y in self.screws:
            foot, top = ((x, y, at) for at in (far, far + screws.head_high_mm))
            head = head_piece(self.frame.point(foot), self.frame.point(top), screws.head_across_mm / 2)
            yield replace(head, role="panel")

    def parts(self, box_id: str, name: str) -> Iterator[FlatPart]:
        """Its cover, seen from outside; a window is bought."""
        if self.spec.window:
            return
        seal = f"on a gasket {self.spec.gasket_mm:g} thick" if self.spec.gasket_mm else "on the bare wall"
        notes = ("Seen from outside, flat", f"Lies {seal}, {self.spec.screws.size} screws into rivet nuts in the wall")
        at = self.frame.after(Placement(np.eye(3), (0.0, 0.0, self.off_mm[0])))
        cover = plate_part(
            f"{box_id}-{self.id}-cover",
            f"{name} {self.spec.name}",
            self.of,
            self.spec.thickness_mm,
            self.cover_mm,
            notes,
            at,
        )
        yield replace(cover, holes=tuple(Hole(xy, self.spec.screws.hole_mm, "screw") for xy in self.screws))

    def bought(self) -> Iterator[tuple[str, int]]:
        name = self.spec.name
        yield f"{self.spec.screws.size} screw and rivet nut: {name}", len(self.screws)
        if self.spec.gasket_mm:
            round_m = 2 * sum(mm + self.spec.overlap_mm for mm in self.spec.size_mm) / 1000
            yield f"gasket strip, {round_m:.2f} m: {name}", 1
        if self.spec.window:
            yield window_bought(self.spec.thickness_mm, self.cover_mm, name)


def panels_of(box: Box, made: Made, material: Material) -> tuple[ServicePanelMade, ...]:
    return tuple(
        ServicePanelMade(key, spec, _frame(spec, made), (box.material, material))
        for key, spec in sorted(box.service_panels.items())
    )


def _frame(spec: ServicePanel, made: Made) -> Placement:
    axis, _ = FACE_AT[spec.face]
    one, other = (np.eye(3)[i] for i in range(3) if i != axis)
    z = np.array(outward(spec.face))
    if np.dot(np.cross(one, other), z) < 0:
        one, other = -one, other  # seen from outside, so that it is no mirror image
    at = np.array(on_face(spec, made.outer_mm)) + z * made.proud_mm(spec.face)
    return Placement(np.array([one, other, z]).T, vec(at))


def cut_through(part: FlatPart, panels: Sequence[ServicePanelMade]) -> FlatPart:
    """A flat part of the box with the openings of those panels that lie on it, and the holes of their rivet nuts.
    Raises OutOfRange where it cannot be folded."""
    flats = fold(part).flats if panels and part.stand else ()
    for panel in panels:
        back = flat_under(part, flats, panel.frame.origin, panel.out)
        if back:
            part = _cut(part, panel, back)
    return part


def _cut(part: FlatPart, panel: ServicePanelMade, back: Placement) -> FlatPart:
    def flat(at: Flat) -> Flat:
        x, y, _ = back.point(panel.frame.point((*at, 0.0)))
        return x, y

    ring = orient(Polygon([flat(corner) for corner in panel.opening]), 1.0).exterior.coords[:-1]
    cutout = Cutout(tuple((float(x), float(y)) for x, y in ring), panel.spec.name)
    nuts = tuple(Hole(flat(at), panel.spec.screws.rivet_nut_hole_mm, "rivet nut") for at in panel.screws)
    return replace(part, holes=(*part.holes, *nuts), cutouts=(*part.cutouts, cutout))


def opened_by(pieces: Sequence[Piece], panel: ServicePanelMade) -> Iterator[Piece]:
    """The pieces of a box, the one that the panel lies on less its opening and the holes round that."""
    for piece in pieces:
        yield _less(piece, panel) if is_under(piece, panel.frame.origin, panel.out) else piece


def _less(piece: Piece, panel: ServicePanelMade) -> Piece:
    nuts = len(panel.screws) * math.pi / 4 * panel.spec.screws.rivet_nut_hole_mm**2
    area = panel.spec.size_mm[0] * panel.spec.size_mm[1] + nuts
    left = lighter(piece, area, panel.frame.origin, panel.out, panel.of[1].density_kg_m3)
    return replace(left, build=lambda: tuple(_round_it(piece.solids, panel)))


def _round_it(solids: Sequence[Solid], panel: ServicePanelMade) -> Iterator[Solid]:
    """Beside the opening, then above and below it."""
    ways = [panel.frame.direction(way) for way in ((1.0, 0.0, 0.0), (0.0, 1.0, 0.0))]
    at = [dot(panel.frame.origin, way) for way in ways]
    (one, other), (a, b) = ways, (mm / 2 for mm in panel.spec.size_mm)
    beside = ((scaled(one, -1.0), -(at[0] + a)), (one, at[0] - a))
    between = ((one, at[0] + a), (scaled(one, -1.0), -(at[0] - a)))
    above = ((scaled(other, -1.0), -(at[1] + b)), (other, at[1] - b))
    cuts: list[tuple[tuple[Vec, float], ...]] = [(half,) for half in beside]
    cuts += [(*between, half) for half in above]
    for solid in solids:
        for cut in cuts:
            left: Solid | None = solid
            for normal, reach in cut:
                left = clipped(left, normal, reach) if left else None
            if left:
                yield left
