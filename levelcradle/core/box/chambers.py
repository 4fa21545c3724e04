"""Chambers on the faces of a box: each a folded box of its own, its base against the face."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np

from levelcradle.core.axes import Placement, Vec, vec
from levelcradle.core.box.folded import FoldedBox
from levelcradle.core.box.made import Made
from levelcradle.core.box.openings import on_face, outward
from levelcradle.core.box.piece import Outside, Piece, block_piece
from levelcradle.core.design.base import FACE_AT
from levelcradle.core.design.box import Box, Fixed, Pose
from levelcradle.core.design.chamber import Chamber
from levelcradle.core.design.construction import Folded, FoldingShop
from levelcradle.core.design.tables import Material
from levelcradle.core.finding import Finding
from levelcradle.core.part import FlatPart, Stand

__all__ = ["ChamberMade", "chambers_of"]

PLATE_KG_M3 = 1850.0  # glass-epoxy board: handbooks, from memory


@dataclass(frozen=True, eq=False)
class ChamberMade:
    """A chamber of a box: as it is made in its own axes, and where these are in the box's frame."""

    id: str
    spec: Chamber
    made: FoldedBox
    frame: Placement

    @cached_property
    def outside(self) -> tuple[Outside, ...]:
        """Its tray, lid and heads, in the box's frame."""
        return tuple(Outside(piece.name, piece.role, piece.solid.moved(self.frame)) for piece in self.made.outside())

    def pieces(self) -> Iterator[Piece]:
        """Everything it is made of, in the box's frame."""
        for piece in self.made.pieces():
            part = f"{self.id}-{piece.part}" if piece.part else ""
            yield Piece(
                f"{self.spec.name}, {piece.name}",
                "chamber",
                piece.mass_kg,
                self.frame.point(piece.centre),
                lambda piece=piece: tuple(s.moved(self.frame) for s in piece.solids),  # type: ignore[misc]
                part,
            )
        if self.spec.plate_mm:
            low, high = self.plate
            plate = block_piece(f"{self.spec.name}, insulating plate", "chamber", low, high, PLATE_KG_M3)
            yield replace(
                plate,
                centre=self.frame.point(plate.centre),
                build=lambda: tuple(s.moved(self.frame) for s in plate.solids),
            )

    @property
    def plate(self) -> tuple[Vec, Vec]:
        """Corners of the insulating plate on its base, between its bends, in its own axes."""
        (length, width, _), t = self.made.outer_mm, self.made.wall_mm
        back = t + self.spec.bend_radius_mm
        return (back, back, t), (length - back, width - back, t + self.spec.plate_mm)

    def parts(self, box_id: str, name: str) -> Iterator[FlatPart]:
        """The flat parts it is cut from, standing in the box's frame."""
        for part in self.made.parts(f"{box_id}-{self.id}", f"{name} {self.spec.name}"):
            stand = part.stand and Stand(part.stand.root, self.frame.after(part.stand.placement))
            yield replace(part, stand=stand)

    def findings(self, path: str, name: str) -> Iterator[Finding]:
        """What stands against making it."""
        for finding in self.made.findings(f"{path}/chambers/{self.id}", f"{name}, {self.spec.name}"):
            yield replace(finding, subjects=(path, *finding.subjects))


def chambers_of(box: Box, made: Made, material: Material) -> tuple[ChamberMade, ...]:
    """The chambers of a box that is made so."""
    return tuple(_made(box, key, spec, made, material) for key, spec in sorted(box.chambers.items()))


def _made(box: Box, key: str, spec: Chamber, made: Made, material: Material) -> ChamberMade:
    length, width, deep = spec.size_mm
    t = spec.thickness_mm
    inside = tuple(max(mm, 1.0) for mm in (length - 2 * t, width - 2 * t, deep - t))
    inner = Fixed(type="fixed", size_mm=(inside[0], inside[1], inside[2]))
    folder = box.construction.folder if isinstance(box.construction, Folded) else FoldingShop()
    takes = folder.model_copy(update={"deduction_mm": None})  # that is of another sheet
    folded = Folded(thickness_mm=t, bend_radius_mm=spec.bend_radius_mm, folder=takes)
    own = Box(
        name=spec.name,
        pose=Pose(anchor="front-left-base", at_mm=(0.0, 0.0, 0.0)),
        construction=folded,
        material=box.material,
        closures={"lid": spec.lid},
        layers={},
        inner=inner,
    )
    return ChamberMade(key, spec, FoldedBox.round(own, folded, inner.size_mm, material), _frame(spec, made))


def _frame(spec: Chamber, made: Made) -> Placement:
    """From its own axes to the box's: its base on the outside of the face."""
    axis, _ = FACE_AT[spec.face]
    first = min(i for i in range(3) if i != axis)
    x, z = np.eye(3)[first], np.array(outward(spec.face))
    turn = np.array([x, np.cross(z, x), z]).T
    at = np.array(on_face(spec, made.outer_mm)) + z * made.proud_mm(spec.face)
    middle = np.array([spec.size_mm[0] / 2, spec.size_mm[1] / 2, 0.0])
    return Placement(turn, vec(at - turn @ middle))
