"""Lightening holes: where they come on a face, and what they take off its metal."""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

import numpy as np

from levelcradle.core.axes import Vec, vec
from levelcradle.core.box.chambers import ChamberMade
from levelcradle.core.box.chamfers import beyond
from levelcradle.core.box.cut_out import flat_under, is_under, lighter
from levelcradle.core.box.made import Made
from levelcradle.core.box.openings import FaceHole, openings_of, outward
from levelcradle.core.box.piece import Piece
from levelcradle.core.box.service_panels import ServicePanelMade
from levelcradle.core.design.base import FACE_AT
from levelcradle.core.design.box import Box
from levelcradle.core.design.lightening import Lightening
from levelcradle.core.design.tables import Material
from levelcradle.core.fold import fold
from levelcradle.core.part import FlatPart, Hole
from levelcradle.core.solids import Solid, nearest, point

__all__ = ["MOST_HOLES", "Lightened", "lightened_of"]

MOST_HOLES = 400  # on a face: more is a perforated sheet, which is bought

Rows = Sequence[FaceHole]
Solids = Sequence[Solid]


@dataclass(frozen=True, eq=False)
class Lightened:
    """The lightening holes of one face: their middles on its outside, in the box's frame."""

    id: str
    spec: Lightening
    at: tuple[Vec, ...]
    material: Material

    def through(self, part: FlatPart) -> FlatPart:
        """A flat part of the box with those that lie on it. Raises OutOfRange where it cannot be folded."""
        flats = fold(part).flats if self.at and part.stand else ()
        back = flat_under(part, flats, self.at[0], outward(self.spec.face)) if flats else None
        if back is None:
            return part
        places = (back.point(at)[:2] for at in self.at)
        holes = (Hole(place, self.spec.diameter_mm, "lightening") for place in places)
        return replace(part, holes=(*part.holes, *holes))

    def lighter(self, pieces: Sequence[Piece]) -> Iterator[Piece]:
        """The pieces of a box, the one that they go through less what they take."""
        if not self.at:
            yield from pieces
            return
        out, area = outward(self.spec.face), len(self.at) * math.pi / 4 * self.spec.diameter_mm**2
        middle = vec(np.mean(self.at, axis=0))
        for piece in pieces:
            under = is_under(piece, self.at[0], out)
            yield lighter(piece, area, middle, out, self.material.density_kg_m3) if under else piece


def lightened_of(
    box: Box, made: Made, material: Material, chambers: Sequence[ChamberMade], panels: Sequence[ServicePanelMade]
) -> tuple[Lightened, ...]:
    """Of each face that has them, those that have room beside everything else that is on it; none where that would be
    more than anybody drills."""
    covers = [(c.spec.face, piece.solid) for c in chambers for piece in c.outside]
    covers += [(panel.spec.face, panel.cover) for panel in panels]
    rows = []
    for key, spec in sorted(box.lightening.items()):
        clear = spec.diameter_mm / 2 + spec.edge_mm
        holes = [hole for hole in openings_of(box, made.outer_mm) if hole.face == spec.face]
        there = [solid for face, solid in covers if face == spec.face]

        def free(at: Vec, clear: float = clear, holes: Rows = tuple(holes), there: Solids = tuple(there)) -> bool:
            return (
                all(beyond(chamfer, made.outer_mm, at) <= -clear for chamfer in box.chamfers.values())
                and all(math.dist(at, hole.at) >= clear + hole.seat_mm / 2 for hole in holes)
                and all(nearest(point(at), solid).gap_mm >= clear for solid in there)
            )

        grid = list(_grid(spec, made, clear))
        at = tuple(place for place in grid if free(place)) if len(grid) <= MOST_HOLES else ()
        rows.append(Lightened(key, spec, at, material))
    return tuple(rows)


def _grid(spec: Lightening, made: Made, clear_mm: float) -> Iterator[Vec]:
    """As many rows as there is room for between what is flat of the face, about its middle."""
    flat = made.flat_at(spec.face)
    if flat is None:
        return
    axis, far = FACE_AT[spec.face]
    one, other = (i for i in range(3) if i != axis)
    surface = made.outer_mm[axis] * far + (made.proud_mm(spec.face) if far else -made.proud_mm(spec.face))
    ends = [(low + clear_mm, high - clear_mm) for low, high in zip(*flat, strict=True)]
    half = spec.diameter_mm / 2
    start, end = ends[0]
    ends[0] = (
        start if spec.from_mm is None else max(start, spec.from_mm + half),
        end if spec.to_mm is None else min(end, spec.to_mm - half),
    )
    rows = [_row(low, high, spec.apart_mm) for low, high in ends]
    for a in rows[0]:
        for b in rows[1]:
            at = [0.0, 0.0, 0.0]
            at[axis], at[one], at[other] = surface, a, b
            yield at[0], at[1], at[2]


def _row(start: float, end: float, apart_mm: float) -> list[float]:
    if end < start:
        return []
    steps = math.floor((end - start) / apart_mm + 1e-9)
    first = (start + end - steps * apart_mm) / 2
    return [first + apart_mm * n for n in range(steps + 1)]
