"""Which class makes which kind of holder, and what all holders of a box make together."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from functools import cached_property
from itertools import combinations

import numpy as np

from levelcradle.core.axes import Matrix, Vec
from levelcradle.core.box.cut_out import Taken
from levelcradle.core.box.holding.bolted import hole_of, nut_outside
from levelcradle.core.box.holding.fit import FitHeld
from levelcradle.core.box.holding.ledges import LedgesHeld
from levelcradle.core.box.holding.own_holes import OwnHolesHeld
from levelcradle.core.box.holding.pressed import PressedHeld
from levelcradle.core.box.holding.rods import RodsHeld
from levelcradle.core.box.holding.stack import Holding, InFace, Kind, Placed, Stack
from levelcradle.core.box.holding.stops import StopsHeld
from levelcradle.core.box.holding.straps import StrapsHeld
from levelcradle.core.box.made import Made
from levelcradle.core.box.openings import FaceHole
from levelcradle.core.box.piece import Outside, Piece
from levelcradle.core.design.base import FACE_AT, Face
from levelcradle.core.design.box import Box
from levelcradle.core.part import FlatPart
from levelcradle.core.solids import bounds, nearest
from levelcradle.core.strength import Beams

__all__ = ["KINDS", "Held", "room_of"]

TOUCHES_MM = 1e-3  # rounding of the kernel

KINDS: Mapping[str, Kind] = {
    "own_holes": OwnHolesHeld,
    "rods": RodsHeld,
    "straps": StrapsHeld,
    "stops": StopsHeld,
    "ledges": LedgesHeld,
    "pressed": PressedHeld,
    "fit": FitHeld,
}


def room_of(box: Box, block: str, stack: Stack) -> dict[Face, float]:
    """How much the holders of a block take before each of its faces beside what lines the box there [mm]."""
    found: dict[Face, float] = {}
    for holder in box.holders.values():
        if holder.block == block:
            for face, mm in KINDS[holder.type].room(holder, stack).items():
                found[face] = max(found.get(face, 0.0), mm - box.lined_mm(face))
    return found


@dataclass(frozen=True)
class Held:
    """The stacks of a box in place, and what holds them: by block, and by holder."""

    box: Box
    stacks: Mapping[str, Placed]

    @staticmethod
    def of(
        box: Box, stacks: Mapping[str, tuple[Stack, Vec]], made: Made, pull_mm: Vec, taken: tuple[Taken, ...]
    ) -> "Held":
        placed = {key: Placed(stack, box, made, at, pull_mm, taken) for key, (stack, at) in stacks.items()}
        return Held(box, placed)

    @cached_property
    def by_holder(self) -> dict[str, Holding]:
        return {
            key: KINDS[holder.type](key, holder, self.stacks[holder.block])
            for key, holder in sorted(self.box.holders.items())
            if holder.block in self.stacks
        }

    @cached_property
    def pieces(self) -> tuple[Piece, ...]:
        """What is drawn of them: of a holder that lacks a figure nothing."""
        return tuple(piece for holder in self._whole() for piece in holder.pieces())

    def parts(self, box_id: str, name: str) -> Iterator[FlatPart]:
        """The flat parts they are cut from."""
        return (part for holder in self._whole() for part in holder.parts(box_id, name))

    def bought(self) -> Iterator[tuple[str, int]]:
        """What is bought of them, and how many of it."""
        return (row for holder in self._whole() for row in holder.bought())

    def _whole(self) -> list[Holding]:
        return [holder for holder in self.by_holder.values() if not holder.missing]

    @cached_property
    def clashes(self) -> tuple[tuple[str, str], ...]:
        """Holders that stand in one another."""
        solids = {
            key: [solid for piece in holder.pieces() for solid in piece.solids]
            for key, holder in self.by_holder.items()
            if not holder.missing
        }
        return tuple(
            (one, other)
            for one, other in combinations(solids, 2)
            if any(nearest(a, b).gap_mm < -TOUCHES_MM for a in solids[one] for b in solids[other])
        )

    @cached_property
    def in_modules(self) -> tuple[tuple[str, str], ...]:
        """(holder, another block than its own in whose modules it stands)."""
        found = []
        for key, holder in self.by_holder.items():
            solids = [] if holder.missing else [solid for piece in holder.pieces() for solid in piece.solids]
            own = self.box.holders[key].block
            others = [block for block in self.stacks if block != own]
            if solids and others:
                low, high = bounds(solids)
                found += [(key, block) for block in others if _laps(low, high, self.stacks[block])]
        return tuple(found)

    @cached_property
    def outside(self) -> tuple[Outside, ...]:
        """What of them stands out of the box."""
        return tuple(row for placed, bolt in self.bolts() for row in nut_outside(placed, bolt))

    def bolts(self) -> Iterator[tuple[Placed, InFace]]:
        """Those that go into the faces of the box, each with its stack."""
        for key, holder in self.by_holder.items():
            if not holder.missing:
                yield from ((self.stacks[self.box.holders[key].block], bolt) for bolt in holder.bolted())

    def holes(self) -> Iterator[FaceHole]:
        """Of its bolts, on the outside of the faces of sheet that they go through; where the tubes of a frame carry
        they are drilled through both."""
        for placed, bolt in self.bolts():
            (axis, far), at, hole = FACE_AT[bolt.face], list(bolt.at), hole_of(placed, bolt.bolts)
            if hole is None or isinstance(placed.made.bearing_at(bolt.face), Beams):
                continue
            at[axis] = placed.made.outer_mm[axis] * far
            yield FaceHole(hole[1], bolt.face, (at[0], at[1], at[2]), hole[0])


def _laps(low: Matrix, high: Matrix, placed: Placed) -> bool:
    """Whether any of some solids reaches into a stack."""
    laps = np.minimum(high, placed.high) - np.maximum(low, placed.low)
    return bool((laps > TOUCHES_MM).all(axis=1).any())
