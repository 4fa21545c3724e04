"""Angles on the floor before a face of a stack: it presses on them, and they hold it nowhere else."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from levelcradle.core.axes import Vec, scaled
from levelcradle.core.box.holding.angles import StandingAngle
from levelcradle.core.box.holding.bolted import (
    bolt_asks,
    bolt_checks,
    bolt_words,
    ratio,
    rim_check,
    weld_n_mm,
)
from levelcradle.core.box.holding.stack import Check, Forces, Grip, InFace, Placed, Stack, tool_mm
from levelcradle.core.box.openings import outward
from levelcradle.core.box.piece import Piece
from levelcradle.core.design.base import FACE_AT, Face
from levelcradle.core.design.holders import Stop, Stops
from levelcradle.core.part import FlatPart

__all__ = ["StopsHeld"]

LAPS_MM = 20.0  # so much of a stop stands before a tier at least: common practice, no source


@dataclass(frozen=True)
class StopsHeld:
    """Stops in place."""

    key: str
    spec: Stops
    placed: Placed

    @staticmethod
    def room(spec: Stops, stack: Stack) -> Mapping[Face, float]:
        return {spec.against: spec.stop.leg_mm} if spec.stop else {}

    @property
    def words(self) -> str:
        return f"stops before its {self.spec.against}"

    @property
    def missing(self) -> str:
        return "" if self.spec.stop else "nobody has said which stops"

    presses = None

    @property
    def ties(self) -> bool:
        return False

    @property
    def _stop(self) -> Stop:
        assert self.spec.stop is not None
        return self.spec.stop

    @property
    def _axes(self) -> tuple[int, int]:
        """The face's own axis, and the level one along it."""
        axis = FACE_AT[self.spec.against][0]
        return axis, 1 - axis

    def asks(self) -> Iterator[tuple[str, bool]]:
        stop = self.spec.stop
        if stop is None:
            return
        for row, laps in enumerate(self._laps(), 1):
            yield f"stops before row {row} by {max(laps, 0.0):.1f}, at least {LAPS_MM:g}", laps >= LAPS_MM - 1e-9
        bolt, bend = self.placed.stack.tables.bolts[stop.bolts.size], stop.thickness_mm + stop.bend_radius_mm
        over = max(self._tiers()[-1][0], bend) + LAPS_MM
        yield f"stop {stop.high_mm:g} high, {over:.1f} to stand before the highest tier", stop.high_mm >= over - 1e-9
        if stop.welded:
            yield "stops welded, steel to steel", weld_n_mm(self.placed, stop.material, stop.thickness_mm) is not None
            return
        needs, wide = bend + 2 * tool_mm(bolt), stop.each * 2 * tool_mm(bolt)
        yield f"leg of {stop.leg_mm:g} on the floor, {needs:.1f} for its bolts", stop.leg_mm >= needs - 1e-9
        yield f"stop {stop.wide_mm:g} wide, {wide:.1f} for its bolts", stop.wide_mm >= wide - 1e-9
        yield from bolt_asks(self.placed, stop.bolts, "base")

    def _laps(self) -> Iterator[float]:
        """How much of the stops stands before each row of modules: the most of one of them."""
        _, side = self._axes
        size = self.placed.stack.laid.turned.size_mm[side]
        for start in sorted({module.low[side] for module in self.placed.stack.laid.modules}):
            low = self.placed.origin[side] + start
            yield max(min(a.along_mm[1], low + size) - max(a.along_mm[0], low) for a in self._angles)

    @cached_property
    def _angles(self) -> tuple[StandingAngle, ...]:
        """Before the face, their backs to the stack: so that as many straps and one more stand between and beside
        them."""
        stop, (axis, side), placed = self._stop, self._axes, self.placed
        far = FACE_AT[self.spec.against][1]
        back, way = (placed.high[axis], 1) if far else (placed.low[axis], -1)
        low, size = placed.low[side], placed.stack.laid.size_mm[side]
        found = []
        for n in range(1, stop.count + 1):
            middle = low + n * size / (stop.count + 1)
            along = (middle - stop.wide_mm / 2, middle + stop.wide_mm / 2)
            sheet = (stop.high_mm, stop.leg_mm, stop.thickness_mm, stop.bend_radius_mm)
            found.append(StandingAngle(axis, way, back, along, placed.floor_mm, *sheet))
        return tuple(found)

    @property
    def _press_mm(self) -> float:
        """At which height over the floor they press: each tier evenly on as much of the stop as it stands before."""
        tall = [(low + min(high, self._stop.high_mm)) / 2 for low, high in self._tiers()]
        return sum(tall) / len(tall)

    def _tiers(self) -> list[tuple[float, float]]:
        """From where to where each tier stands over the floor."""
        foot, size = self.placed.free_mm("base"), self.placed.stack.laid.turned.size_mm[2]
        lows = sorted({module.low[2] for module in self.placed.stack.laid.modules})
        return [(foot + low, foot + low + size) for low in lows]

    def grips(self) -> tuple[Grip, ...]:
        axis, side = self._axes
        n = scaled(outward(self.spec.against), -1.0)
        found = []
        for angle in self._angles:
            at = [0.0, 0.0, angle.floor_mm + self._press_mm]
            at[axis], at[side] = angle.back_mm, sum(angle.along_mm) / 2
            found.append(Grip((at[0], at[1], at[2]), n, "push", "base", self._stop.bolts))
        return tuple(found)

    def checks(self, forces: Forces) -> Iterator[Check]:
        """The upright leg bends at its bend; the angle turns over the free edge of its other leg, which its bolts hold
        down."""
        stop, stack = self._stop, self.placed.stack
        press = np.linalg.norm(forces, axis=-1)
        steel, angle = stack.tables.materials[stop.material], self._angles[0]
        moment = press.max(axis=2) * self._press_mm
        capacity = angle.bend_n_mm(steel.yield_mpa)
        yield ratio("stops at their bend", moment, capacity, "N·mm", "w t² / 4 fy / γM0, plastic", "statics")
        if stop.welded:
            yield self._weld(press.max(axis=2))
            return
        half = (stop.leg_mm - stop.thickness_mm - stop.bend_radius_mm) / 2
        pull = press * self._press_mm / half / stop.each
        yield from bolt_checks(self.placed, stop.bolts, "base", pull, press / stop.each)
        sheet = steel, stop.thickness_mm, min(half, stop.wide_mm / stop.each / 2)
        yield rim_check("the stops", stack, stop.bolts, sheet, press / stop.each)

    def _weld(self, press: Forces) -> Check:
        """Of the two fillets along the leg on the floor: sheared, and the one pulled as the stop is turned over."""
        stop = self._stop
        line = np.hypot(press / (2 * stop.wide_mm), press * self._press_mm / (stop.leg_mm * stop.wide_mm))
        bears = weld_n_mm(self.placed, stop.material, stop.thickness_mm) or 1.0
        return ratio("welds of the stops", line, bears, "N/mm", "a fu / (√3 βw γM2), a = 0.7 t", "EN 1993-1-8, 4.5.3.3")

    def _bolt_places(self, angle: StandingAngle) -> Iterator[Vec]:
        axis, side = self._axes
        (row,) = angle.rows_mm(1)
        for n in range(self._stop.each):
            at = [0.0, 0.0, angle.floor_mm]
            at[axis], at[side] = angle.off_back_mm(row), angle.along_mm[0] + (n + 0.5) * angle.wide_mm / self._stop.each
            yield at[0], at[1], at[2]

    def pieces(self) -> Iterator[Piece]:
        density = self.placed.stack.tables.materials[self._stop.material].density_kg_m3
        for number, angle in enumerate(self._angles, 1):
            yield from angle.pieces(f"stop {number}", density, f"{self.key}-stop-{number}")

    def bolted(self) -> Iterator[InFace]:
        for angle in () if self._stop.welded else self._angles:
            yield from (InFace("base", at, self._stop.bolts) for at in self._bolt_places(angle))

    def parts(self, box_id: str, name: str) -> Iterator[FlatPart]:
        stop, tables = self._stop, self.placed.stack.tables
        of, bolt = (stop.material, tables.materials[stop.material]), tables.bolts[stop.bolts.size]
        for number, angle in enumerate(self._angles, 1):
            ids = f"{box_id}-{self.key}-stop-{number}", f"{name} stop {number}"
            places = () if stop.welded else self._bolt_places(angle)
            holes = [(at, bolt.clearance_hole_mm, stop.bolts.size) for at in places]
            yield angle.part(ids, of, holes)

    def bought(self) -> Iterator[tuple[str, int]]:
        if not self._stop.welded:
            yield f"{bolt_words(self._stop.bolts)}, holding stops", self._stop.count * self._stop.each
