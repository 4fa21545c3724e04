"""Bolts through the modules' own holes, and through the whole stack where several stand behind each other, into the
face that their bases or tops look at."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from levelcradle.core.axes import Vec
from levelcradle.core.box.holding.bolted import along_normal, bolt_asks, bolt_checks, bolt_words, steel_rod
from levelcradle.core.box.holding.stack import Check, Forces, Grip, Placed, Stack, nut_mm
from levelcradle.core.box.openings import outward
from levelcradle.core.box.piece import Piece
from levelcradle.core.design.base import FACE_AT, FACE_PAIRS, Face
from levelcradle.core.design.holders import OwnHoles
from levelcradle.core.part import FlatPart

__all__ = ["OwnHolesHeld"]


def _into(stack: Stack) -> Face:
    """The base of the box where the holes run upright; else the face that the modules' bases look at."""
    axis = stack.holes_axis
    one, other = FACE_PAIRS[axis]
    return one if axis == 2 or stack.laid.turned.looks[2 * axis] == "base" else other


@dataclass(frozen=True)
class OwnHolesHeld:
    """Bolts through own holes, in place."""

    key: str
    spec: OwnHoles
    placed: Placed

    @staticmethod
    def room(spec: OwnHoles, stack: Stack) -> Mapping[Face, float]:
        """A head or a nut with its washer at the free end, less what sinks in the hole."""
        if spec.bolts is None:
            return {}
        one, other = FACE_PAIRS[stack.holes_axis]
        free = other if _into(stack) == one else one
        return {free: max(nut_mm(stack.tables.bolts[spec.bolts.size]) - stack.sunk_mm, 0.0)}

    @property
    def words(self) -> str:
        return "own bolt holes"

    @property
    def missing(self) -> str:
        if self.placed.stack.kind.mount_holes is None:
            return f"{self.placed.stack.kind.name} has no holes of its own"
        return "" if self.spec.bolts else "nobody has said with which bolts"

    @property
    def ties(self) -> bool:
        return True

    @property
    def face(self) -> Face:
        return _into(self.placed.stack)

    def asks(self) -> Iterator[tuple[str, bool]]:
        holes, bolts = self.placed.stack.kind.mount_holes, self.spec.bolts
        if holes is None or bolts is None:
            return
        size = self.placed.stack.tables.bolts[bolts.size].d_mm
        yield f"bolts {size:g} thick in holes of {holes.diameter_mm:g}", size <= holes.diameter_mm
        used = self.spec.used or holes.count
        yield f"{used} bolts a module in {holes.count} holes", used <= holes.count
        yield from bolt_asks(self.placed, bolts, self.face)

    @cached_property
    def _places(self) -> tuple[Vec, ...]:
        """Middle of each bolt where it goes into the face."""
        placed, stack = self.placed, self.placed.stack
        axis, far = FACE_AT[self.face]
        start, end = placed.made.start_mm[axis], placed.made.start_mm[axis] + placed.made.inner_mm[axis]
        start = placed.floor_mm if axis == 2 else start
        long = stack.ends_axis
        across = 3 - axis - long
        found = []
        for module in stack.laid.modules:
            if module.at[axis]:
                continue  # one bolt through all that stand behind each other
            middle = [placed.origin[i] + (module.low[i] + module.high[i]) / 2 for i in range(3)]
            for u, v in list(placed.holes())[: self.spec.used]:
                at = list(middle)
                at[long], at[across], at[axis] = at[long] + u, at[across] + v, end if far else start
                found.append((at[0], at[1], at[2]))
        return tuple(found)

    def grips(self) -> tuple[Grip, ...]:
        inward = np.array(outward(self.face)) * -1.0
        n = (float(inward[0]), float(inward[1]), float(inward[2]))
        return tuple(Grip(at, n, "both", self.face, self.spec.bolts) for at in self._places)

    def checks(self, forces: Forces) -> Iterator[Check]:
        assert self.spec.bolts is not None
        pull, shear = along_normal(forces, self.face)
        yield from bolt_checks(self.placed, self.spec.bolts, self.face, pull, shear)

    def _long_mm(self) -> float:
        """From outside the sheet to beyond the nut or head at the free end."""
        placed, axis = self.placed, FACE_AT[self.face][0]
        bearing = placed.made.bearing_at(self.face)
        sheet = bearing.thickness_mm if bearing else 0.0
        assert self.spec.bolts is not None
        ends = nut_mm(placed.stack.tables.bolts[self.spec.bolts.size])
        return placed.stack.laid.size_mm[axis] + placed.free_mm(self.face) + sheet + ends - placed.stack.sunk_mm

    def pieces(self) -> Iterator[Piece]:
        assert self.spec.bolts is not None
        axis, far = FACE_AT[self.face]
        top = self.placed.low[axis] if far else self.placed.high[axis]
        diameter = self.placed.stack.tables.bolts[self.spec.bolts.size].d_mm
        for foot in self._places:
            end = list(foot)
            end[axis] = top
            yield steel_rod("bolt", foot, (end[0], end[1], end[2]), diameter)

    def parts(self, box_id: str, name: str) -> Iterator[FlatPart]:
        return iter(())

    def bought(self) -> Iterator[tuple[str, int]]:
        assert self.spec.bolts is not None
        long = -(-self._long_mm() // 5) * 5  # bolts come in steps of 5: common practice, no source
        yield f"{bolt_words(self.spec.bolts)}, {long:.0f} long, holding modules", len(self._places)
