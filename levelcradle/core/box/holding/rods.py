"""Threaded rods through a stack, on angles that stand on the floor.

       gap │ module            seen along the rods: leg A upright, rods through it; its other leg under the module
  ○────────┼───               on the floor, bolted where it stands out before the module's end
  │        │
  ○────────┼───
▁▁│▁▁▁▁▁▁▁▁│▁▁▁▁
 tab   wide
"""

import math
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from functools import cached_property
from itertools import pairwise

import numpy as np

from levelcradle.core.axes import Vec
from levelcradle.core.box.holding.angles import StandingAngle
from levelcradle.core.box.holding.bolted import (
    EC3,
    STATICS,
    along_normal,
    bolt_asks,
    bolt_checks,
    bolt_words,
    ratio,
    rim_check,
    steel_rod,
)
from levelcradle.core.box.holding.stack import Check, Forces, Grip, InFace, Placed, Stack, nut_mm, tool_mm
from levelcradle.core.box.piece import Piece
from levelcradle.core.design.base import FACE_PAIRS, Face
from levelcradle.core.design.holders import Feet, Rods
from levelcradle.core.finding import Step
from levelcradle.core.part import FlatPart
from levelcradle.core.strength import bolt_capacity, pull_and_shear

__all__ = ["RodsHeld"]

ROD_CLEARANCE_MM = 1.0
LIES_MM = 0.5  # modules lie against what fills their gap but for so much: common practice, no source


@dataclass(frozen=True, slots=True)
class _Foot:
    """One angle, and at which end of the modules it is (−1 front or left, +1 the other)."""

    end: int
    angle: StandingAngle


@dataclass(frozen=True)
class RodsHeld:
    """Rods on feet, in place."""

    key: str
    spec: Rods
    placed: Placed

    @staticmethod
    def room(spec: Rods, stack: Stack) -> Mapping[Face, float]:
        """Nuts at both ends of the stack less what sinks in the holes, an angle there where it stands there, its tabs
        before both ends of the modules, its leg under them."""
        if spec.size is None or stack.holes_axis == 2:
            return {}
        feet = spec.feet
        outside = feet.thickness_mm if feet and feet.at == "ends" else 0.0
        beyond = max(nut_mm(stack.tables.bolts[spec.size]) + outside - (0.0 if outside else stack.sunk_mm), 0.0)
        found = dict.fromkeys(FACE_PAIRS[stack.holes_axis], beyond)
        if feet:
            found |= dict.fromkeys(FACE_PAIRS[stack.ends_axis], feet.tab_mm)
            found["base"] = feet.thickness_mm
        return found

    @property
    def words(self) -> str:
        return "rods on feet"

    @property
    def missing(self) -> str:
        if self.placed.stack.kind.mount_holes is None:
            return f"{self.placed.stack.kind.name} has no holes of its own"
        if self.spec.size is None:
            return "nobody has said how thick the rods are"
        return "" if self.spec.feet else "nobody has said on which feet the rods stand"

    @property
    def ties(self) -> bool:
        return True

    @property
    def presses(self) -> int | None:
        """Along themselves, by their nuts."""
        return self.placed.stack.holes_axis

    @property
    def _feet(self) -> Feet:
        assert self.spec.feet is not None
        return self.spec.feet

    @property
    def _axes(self) -> tuple[int, int]:
        """Along which the rods run, and along which the modules are long."""
        return self.placed.stack.holes_axis, self.placed.stack.ends_axis

    def asks(self) -> Iterator[tuple[str, bool]]:
        holes, stack = self.placed.stack.kind.mount_holes, self.placed.stack
        if holes is None or self.spec.size is None or self.spec.feet is None:
            return
        size, feet = stack.tables.bolts[self.spec.size], self.spec.feet
        yield f"rods {size.d_mm:g} thick in holes of {holes.diameter_mm:g}", size.d_mm <= holes.diameter_mm
        upright = "rods that stand upright: bolt the modules down by their own holes"
        yield (upright if stack.holes_axis == 2 else "rods that lie"), stack.holes_axis != 2
        if stack.ends_axis == 2 or stack.holes_axis == 2:
            if stack.ends_axis == 2:
                yield "feet before the ends of modules that stand on them", False
            return
        ends, tiers = stack.counts(stack.ends_axis), stack.counts(2)
        yield f"feet at both ends of {ends} stacks end to end: a block for each", ends == 1
        yield f"feet up to the lowest rods of {tiers} tiers", tiers == 1 or feet.up_to == "all"
        gaps = stack.counts(stack.holes_axis) - 1
        if feet.at == "gaps":
            yield f"feet in {feet.pairs} of {gaps} gaps", feet.pairs <= gaps
            has = self._gap_mm
            yield f"feet {feet.thickness_mm:g} thick in gaps of {has:.1f}", feet.thickness_mm <= has + 1e-9
        else:
            yield f"feet at {feet.pairs} places, at the two ends", feet.pairs == 2
        bolt = stack.tables.bolts[feet.bolts.size]
        needs = 2 * tool_mm(bolt)
        yield f"tab of {feet.tab_mm:g}, {needs:.1f} for its bolts and a socket on them", feet.tab_mm >= needs - 1e-9
        needs = feet.thickness_mm + feet.bend_radius_mm + feet.each * 1.5 * bolt.washer_mm
        yield f"leg of {feet.leg_mm:g} on the floor, {needs:.1f} for its bolts", feet.leg_mm >= needs - 1e-9
        under = stack.laid.turned.size_mm[stack.holes_axis]
        yield f"leg of {feet.leg_mm:g} under modules {under:g} wide there", feet.leg_mm <= under
        inside = max((abs(u) for u, _ in self.placed.holes()), default=0.0)
        deep = stack.kind.size_mm[0] / 2 - inside
        needs = deep + 1.2 * (size.d_mm + ROD_CLEARANCE_MM)
        yield f"foot {feet.wide_mm:g} wide, rods {needs:.1f} from the end with their edge", feet.wide_mm >= needs - 1e-9
        yield from bolt_asks(self.placed, feet.bolts, "base")

    @property
    def _gap_mm(self) -> float:
        """Between neighbours along the rods."""
        axis = self.placed.stack.holes_axis
        starts = sorted({m.low[axis] for m in self.placed.stack.laid.modules})
        size = self.placed.stack.laid.turned.size_mm[axis]
        return min((b - a - size for a, b in pairwise(starts)), default=0.0)

    @cached_property
    def _stand(self) -> tuple[_Foot, ...]:
        feet, (axis, long), placed = self._feet, self._axes, self.placed
        if 2 in (axis, long):
            return ()
        found = []
        for at, way in self._places():
            for end in (-1, 1):
                edge = placed.low[long] if end < 0 else placed.high[long]
                one, other = sorted((edge + end * feet.tab_mm, edge - end * feet.wide_mm))
                back = at if way > 0 else at + feet.thickness_mm
                foot, head = self._upright_mm
                sheet = (feet.leg_mm, feet.thickness_mm, feet.bend_radius_mm)
                found.append(_Foot(end, StandingAngle(axis, way, back, (one, other), foot, head - foot, *sheet)))
        return tuple(found)

    def _places(self) -> Iterator[tuple[float, int]]:
        """Where upright legs begin along the rods, and which way their other legs lie from there."""
        feet, (axis, _), placed = self._feet, self._axes, self.placed
        if feet.at == "ends":
            yield placed.low[axis] - feet.thickness_mm, 1
            yield placed.high[axis], -1
            return
        starts = sorted({m.low[axis] for m in placed.stack.laid.modules})[1:]
        pairs = min(feet.pairs, len(starts))
        for n in range(pairs):
            start = starts[round((n + 0.5) * len(starts) / pairs - 0.5)]
            middle = placed.origin[axis] + start - self._gap_mm / 2
            yield middle - feet.thickness_mm / 2, 1 if n < pairs / 2 else -1

    @property
    def _upright_mm(self) -> tuple[float, float]:
        """Foot and head of the upright leg: over its highest rod by that one's edge distance."""
        size = self.placed.stack.tables.bolts[self.spec.size or ""]
        heights = self._rod_heights()
        top = heights[0] if self._feet.up_to == "lowest" else heights[-1]
        return self.placed.floor_mm, top + 1.2 * (size.d_mm + ROD_CLEARANCE_MM)

    def _rod_heights(self) -> list[float]:
        """Of the rods, in the box's frame."""
        return sorted({round(at[2], 6) for at in self._rods()})

    @cached_property
    def _rod_places(self) -> tuple[Vec, ...]:
        return tuple(self._rods())

    def _rods(self) -> Iterator[Vec]:
        """Middle of the stack on each rod, one row for all modules that stand beside or over each other."""
        placed, (axis, long) = self.placed, self._axes
        across = 3 - axis - long
        for module in placed.stack.laid.modules:
            if module.at[axis]:
                continue
            middle = [placed.origin[i] + (module.low[i] + module.high[i]) / 2 for i in range(3)]
            for u, v in placed.holes():
                at = list(middle)
                at[long], at[across], at[axis] = (
                    at[long] + u,
                    at[across] + v,
                    (placed.low[axis] + placed.high[axis]) / 2,
                )
                yield at[0], at[1], at[2]

    def _bolt_places(self, foot: _Foot) -> Iterator[Vec]:
        """On the tab, in one row along the rods, from the upright leg outward."""
        feet, (axis, long) = self._feet, self._axes
        edge = self.placed.low[long] if foot.end < 0 else self.placed.high[long]
        for row in foot.angle.rows_mm(feet.each):
            at = [0.0, 0.0, self.placed.floor_mm]
            at[long] = edge + foot.end * feet.tab_mm / 2
            at[axis] = foot.angle.off_back_mm(row)
            yield at[0], at[1], at[2]

    def grips(self) -> tuple[Grip, ...]:
        return self._grips

    @cached_property
    def _grips(self) -> tuple[Grip, ...]:
        return tuple(
            Grip(at, (0.0, 0.0, 1.0), "both", "base", self._feet.bolts)
            for foot in self._stand
            for at in self._bolt_places(foot)
        )

    def checks(self, forces: Forces) -> Iterator[Check]:
        """What lifts a foot lifts its upright leg, and its bolts stand beside that: its toe levers."""
        feet, (axis, long), stack = self._feet, self._axes, self.placed.stack
        pull, shear = along_normal(forces, "base")
        by_foot = forces.reshape(*forces.shape[:2], len(self._stand), feet.each, 3).sum(axis=3)
        levered = self._stand[0].angle.toe_pull(by_foot[..., 2], feet.each).reshape(pull.shape)
        yield from bolt_checks(self.placed, feet.bolts, "base", np.maximum(pull, levered), shear)
        bend = feet.thickness_mm + feet.bend_radius_mm
        edge = min(feet.tab_mm / 2, (feet.leg_mm - bend) / feet.each / 2)
        sheet = stack.tables.materials[feet.material], feet.thickness_mm, edge
        yield rim_check("the feet", stack, feet.bolts, sheet, shear)
        yield self._bend(by_foot, axis)
        yield self._rod_check(by_foot, axis, long)

    def _bend(self, by_foot: Forces, axis: int) -> Check:
        """Of the angle at its bend: what pushes it over passes at the underside of the modules, which stand against it;
        what lifts it acts at the bolts."""
        feet, steel = self._feet, self.placed.stack.tables.materials[self._feet.material]
        t = feet.thickness_mm
        lever = max(self.placed.free_mm("base"), t)
        if t < self._gap_mm - LIES_MM or feet.at == "ends":
            lever = self._rod_heights()[0] - self.placed.floor_mm  # nothing stands against it below the rods
        (out,) = self._stand[0].angle.rows_mm(1)
        moment = np.abs(by_foot[..., axis]) * lever + np.maximum(by_foot[..., 2], 0.0) * out
        capacity = self._stand[0].angle.bend_n_mm(steel.yield_mpa)
        worst = moment.max(axis=2)
        return ratio("feet at their bend", worst, capacity, "N·mm", "w t² / 4 fy / γM0, plastic", "statics")

    def _rod_check(self, by_foot: Forces, axis: int, long: int) -> Check:
        """Rods in shear between modules and feet, and pulled along: the modules of one side hang on them."""
        size = self.placed.stack.tables.bolts[self.spec.size or ""]
        grade = self.placed.stack.tables.bolt_classes[self.spec.property_class]
        ft, fv = bolt_capacity(size, grade)
        top = self._upright_mm[1]
        at_foot = max(sum(at[2] < top for at in self._rod_places) // 2, 1)
        across = [i for i in range(3) if i != axis]
        shear = np.linalg.norm(by_foot[..., across], axis=-1).max(axis=2) / at_foot
        pull = np.abs(by_foot[..., axis].sum(axis=2)) / max(len(self._rod_places), 1)
        used = pull_and_shear(pull, shear, ft, fv)

        def steps(s: int, k: int) -> tuple[Step, ...]:
            return (
                Step("shear V", f"of one foot, over {at_foot} rods", float(shear[s, k]), "N", STATICS),
                Step("pull T", "of the whole stack along them, over all", float(pull[s, k]), "N", STATICS),
                Step("Ft", "0.9 fub As / γM2", ft, "N", EC3),
                Step("Fv", "αv fub As / γM2, threads in the shear plane", fv, "N", EC3),
                Step("use", "max(V / Fv + T / (1.4 Ft), T / Ft)", float(used[s, k]), "", EC3),
            )

        return Check("rods", used, steps)

    def pieces(self) -> Iterator[Piece]:
        axis, _ = self._axes
        density = self.placed.stack.tables.materials[self._feet.material].density_kg_m3
        for number, foot in enumerate(self._stand, 1):
            yield from foot.angle.pieces(f"foot {number}", density, f"{self.key}-foot-{number}")
        for middle in self._rod_places:
            one, other = list(middle), list(middle)
            one[axis], other[axis] = self.placed.low[axis] - self._beyond_mm, self.placed.high[axis] + self._beyond_mm
            diameter = self.placed.stack.tables.bolts[self.spec.size or ""].d_mm
            yield steel_rod("rod", (one[0], one[1], one[2]), (other[0], other[1], other[2]), diameter)

    @property
    def _beyond_mm(self) -> float:
        """How far rods stand out of the stack at each end; below zero where their nuts sink in it."""
        nut = nut_mm(self.placed.stack.tables.bolts[self.spec.size or ""])
        return nut + self._feet.thickness_mm if self._feet.at == "ends" else nut - self.placed.stack.sunk_mm

    def bolted(self) -> Iterator[InFace]:
        yield from (InFace("base", grip.at, self._feet.bolts) for grip in self.grips())

    def parts(self, box_id: str, name: str) -> Iterator[FlatPart]:
        """One angle a place and end: the ones that are alike are found by their shape."""
        feet, tables = self._feet, self.placed.stack.tables
        size, bolt = tables.bolts[self.spec.size or ""], tables.bolts[feet.bolts.size]
        of = (feet.material, tables.materials[feet.material])
        for number, foot in enumerate(self._stand, 1):
            low, high = foot.angle.along_mm
            rods = [
                (at, size.d_mm + ROD_CLEARANCE_MM, f"rod {self.spec.size}")
                for at in self._rod_places
                if low < at[self._axes[1]] < high and at[2] < self._upright_mm[1]
            ]
            holes = [(at, bolt.clearance_hole_mm, feet.bolts.size) for at in self._bolt_places(foot)]
            ids = f"{box_id}-{self.key}-foot-{number}", f"{name} foot {number}"
            yield foot.angle.part(ids, of, [*holes, *rods])

    def bought(self) -> Iterator[tuple[str, int]]:
        axis, _ = self._axes
        long = math.ceil(self.placed.high[axis] - self.placed.low[axis] + 2 * self._beyond_mm)
        rods = len(self._rod_places)
        yield f"rod {self.spec.size}, {self.spec.property_class}, {long} long, with two nuts and washers", rods
        yield f"{bolt_words(self._feet.bolts)}, holding feet", len(self.grips())
