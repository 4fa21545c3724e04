"""Bolts through the modules' own holes, and through the whole stack where several stand behind each other, into the
face that their bases or tops look at."""

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from levelcradle.core.axes import Vec
from levelcradle.core.box.holding.bolted import (
    along_normal,
    bolt_asks,
    bolt_checks,
    bolt_words,
    steel_rod,
)
from levelcradle.core.box.holding.stack import Check, Forces, Grip, InFace, Placed, Stack, nut_mm
from levelcradle.core.box.openings import outward
from levelcradle.core.box.piece import Piece
from levelcradle.core.design.base import FACE_AT, FACE_PAIRS, Face
from levelcradle.core.design.holders import OwnHoles
from levelcradle.core.design.layers import Runners
from levelcradle.core.part import FlatPart

__all__ = ["OwnHolesHeld", "far_apart"]

UNDER_MM = 300.0  # a module that is bolted at its ends has something under it each so far: common practice, no source


def _into(stack: Stack) -> Face:
    """The base of the box where the holes run upright; else the face that the modules' bases look at."""
    axis = stack.holes_axis
    one, other = FACE_PAIRS[axis]
    return one if axis == 2 or stack.laid.turned.looks[2 * axis] == "base" else other


def far_apart(places: Sequence[tuple[float, float]]) -> list[tuple[float, float]]:
    """So that however many of the first are taken, they stand far apart: the outermost, then each time the one that is
    furthest from all before it.

    >>> far_apart([(-9.0, -4.0), (-9.0, 4.0), (9.0, -4.0), (9.0, 4.0)])
    [(-9.0, -4.0), (9.0, 4.0), (-9.0, 4.0), (9.0, -4.0)]
    """
    left, found = list(places), list[tuple[float, float]]()
    while left:
        best = max(left, key=lambda at: min((math.dist(at, one) for one in found), default=math.hypot(*at)))
        left.remove(best)
        found.append(best)
    return found


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

    presses = None

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
        for number, places, why in self._modules:
            if len(places) < min(used, holes.count):
                words = f"module {number}: {len(places)} of its {holes.count} holes can be used, {used} wanted: {why}"
                yield words, False
        free = self._free_under_mm
        if free > UNDER_MM:
            yield f"{free:.0f} free between the runners under a module, at most {UNDER_MM:.0f}: one more there", False
        yield from bolt_asks(self.placed, bolts, self.face)

    @property
    def _free_under_mm(self) -> float:
        """How far a module goes without anything under it: where runners lie across it, from one to the next."""
        rows = self.placed.box.lining("base")
        last = rows[-1][1] if rows else None
        if not isinstance(last, Runners) or self.face != "base":
            return 0.0
        runs = 0 if last.along == "first" else 1
        return 0.0 if runs == self.placed.stack.ends_axis else last.between_mm

    @property
    def _places(self) -> tuple[Vec, ...]:
        return tuple(at for _, places, _ in self._modules for at in places)

    @cached_property
    def _modules(self) -> tuple[tuple[int, list[Vec], str], ...]:
        """Of each module at the face, with all that stand behind it: its number in the block; the middle of each bolt
        where it goes into the face, through those holes that can be used, the ones far apart first; and what is in the
        way of one that cannot."""
        placed, stack = self.placed, self.placed.stack
        axis, far = FACE_AT[self.face]
        start, end = placed.made.start_mm[axis], placed.made.start_mm[axis] + placed.made.inner_mm[axis]
        start = placed.floor_mm if axis == 2 else start
        long = stack.ends_axis
        across = 3 - axis - long
        found = []
        for number, module in enumerate(stack.laid.modules, 1):
            if module.at[axis]:
                continue  # one bolt through all that stand behind each other
            middle = [placed.origin[i] + (module.low[i] + module.high[i]) / 2 for i in range(3)]
            places, why = [], ""
            for u, v in far_apart(list(placed.holes())):
                at = list(middle)
                at[long], at[across], at[axis] = at[long] + u, at[across] + v, end if far else start
                if stands := self._why_not((at[0], at[1], at[2])):
                    why = why or f"one comes on {stands}"
                else:
                    places.append((at[0], at[1], at[2]))
            found.append((number, places[: self.spec.used], why))
        return tuple(found)

    def _why_not(self, at: Vec) -> str:
        """What a bolt through a hole there would come on, with its washer; empty where it can be."""
        assert self.spec.bolts is not None
        (axis, far), on = FACE_AT[self.face], list(at)
        on[axis] = self.placed.made.outer_mm[axis] * far
        half = self.placed.stack.tables.bolts[self.spec.bolts.size].washer_mm / 2
        return self.placed.why_no_bolt(self.face, (on[0], on[1], on[2]), half, tubes=False)

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

    def bolted(self) -> Iterator[InFace]:
        assert self.spec.bolts is not None
        yield from (InFace(self.face, at, self.spec.bolts) for at in self._places)

    def parts(self, box_id: str, name: str) -> Iterator[FlatPart]:
        return iter(())

    def bought(self) -> Iterator[tuple[str, int]]:
        assert self.spec.bolts is not None
        long = -(-self._long_mm() // 5) * 5  # bolts come in steps of 5: common practice, no source
        yield f"{bolt_words(self.spec.bolts)}, {long:.0f} long, holding modules", len(self._places)
