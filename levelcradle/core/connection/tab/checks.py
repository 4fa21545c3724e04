"""Checks of a flat tab with one bolt. Loads along it from the bolt to the box n, away from the wall d, across it w [N];
``pull``: what draws it off the vehicle's metal."""

import math
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass

import numpy as np

from levelcradle.core.connection.connection import ForceArray, Road
from levelcradle.core.connection.hold import HeldPlate, Load, WeldedPlate
from levelcradle.core.connection.tab.frame import TabFrame
from levelcradle.core.design.mount import Bolt, Tab
from levelcradle.core.design.refused import STRONGEST_MPA
from levelcradle.core.design.tables import BoltClass, BoltSize
from levelcradle.core.strength import (
    EDGE_HOLES,
    MOST_PACKING_D,
    TOE_MPA,
    BoltHole,
    bearing_n,
    bolt_utilisation,
    buckles,
    leg_capacity,
    packed_share,
    preload,
    toe_pull,
)

__all__ = ["TabJoint"]


@dataclass(frozen=True, slots=True)
class TabJoint:
    """``plate``: the tab as it is held on the wall."""

    shape: Tab
    frame: TabFrame
    plate: HeldPlate
    named: Bolt
    bolt: BoltSize
    grade: BoltClass

    @property
    def b_mm(self) -> float:
        """From the bolt to where it is first held."""
        return self.plate.start_mm

    @property
    def hole(self) -> BoltHole:
        return BoltHole.of(self.bolt, self.shape.hole)

    @property
    def preload_n(self) -> float:
        """Aluminium under the washer is pressed no further than it yields."""
        soft = self.plate.metal.weldable_with == "aluminium"
        return preload(self.bolt, self.grade, self.plate.yield_mpa if soft else math.inf)

    @property
    def off_the_wall_mm(self) -> float:
        """It lies on the wall, or on a doubler on it."""
        hold = self.plate
        return hold.weld.doubler.thickness_mm if isinstance(hold, WeldedPlate) and hold.weld.doubler else 0.0

    @property
    def packed(self) -> float:
        """What its packing leaves of its bolt's shear."""
        return packed_share(self.bolt, self.shape.packing_mm)

    @property
    def unchecked(self) -> str:
        """Why no strength of it is given, in words."""
        if self.grade.ultimate_mpa > STRONGEST_MPA:
            return (
                f"property class {self.named.property_class}: classes above 10.9 are not used here, they break brittle"
            )
        return self.plate.unchecked

    def pull(self, load: Load) -> ForceArray:
        return np.maximum(load[1] if self.frame.outside else -np.asarray(load[1]), 0.0)

    def lever_pull(self, load: Load) -> ForceArray:
        """The free end as a lever. Source: statics."""
        return toe_pull(self.pull(load), (self.b_mm,), self.b_mm + self.shape.toe_mm)[..., 0]

    def utilisations(self, load: Load, *, road: Road, first: str = "") -> Iterator[tuple[str, ForceArray]]:
        """Every check and its use under given loads, worked out as they are asked for."""
        checks: Mapping[str, Callable[[], ForceArray]] = {
            "bolt": lambda: self._bolt(load, road),
            "tab": lambda: self._bent(load, road),
            "tab at the bolt": lambda: self._net(load, road),
            "bearing": lambda: np.asarray(np.hypot(load[0], load[2]) / self.bearing_n()),
            **self.plate.utilisations(load, road=road),
        }
        for name in sorted(checks, key=lambda name: name != first):
            yield name, checks[name]()

    def _bolt(self, load: Load, road: Road) -> ForceArray:
        shear = np.hypot(load[0], load[2]) / self.packed
        pull, slip = self.lever_pull(load), self.hole.slip
        return bolt_utilisation(pull, shear, self.bolt, self.grade, self.preload_n, road=road, slip=slip)

    def bearing_n(self) -> float:
        """[N] Source: EN 1993-1-8 table 3.4; edges are those that are nearest, whichever way it is pushed."""
        edge = min(*self.edges_mm)
        sheet_mpa = self.plate.ultimate_mpa
        bears = bearing_n(self.bolt, self.grade.ultimate_mpa, sheet_mpa, self.plate.thickness_mm, (edge, edge))
        return self.hole.bearing * bears

    @property
    def edges_mm(self) -> tuple[float, float]:
        """From the hole's nearer end to the tab's free end, and to its side."""
        across, away = self.hole.ends_mm
        return self.shape.toe_mm - away, self.shape.width_mm / 2 - across

    def _bent(self, load: Load, road: Road) -> ForceArray:
        """u = |D| b / M_Rd + |W| b / M_s + N / N_Rd where it is first held, less its holes; pressed along it bears no
        more than it buckles at. Linear sum: cautious, no source."""
        n, d, w = load
        bend, side, axial = leg_capacity(self.plate.width_mm, self.plate.thickness_mm, self.plate.yield_mpa, road=road)
        pressed = axial * buckles(self.plate.metal, self.plate.thickness_mm, self.b_mm, self.plate.yield_mpa)
        along = np.where(np.asarray(n) > 0, n / axial, -np.asarray(n) / pressed)
        return np.asarray((np.abs(d) * self.b_mm / bend + np.abs(w) * self.b_mm / side + along) / self.plate.left)

    def _net(self, load: Load, road: Road) -> ForceArray:
        """At the bolt line, where the free end levers and the hole is missing. Source: statics."""
        n, _, _ = load
        left = max(self.plate.width_mm - self.hole.across_mm, 0.01 * self.plate.width_mm)
        bend, _, axial = leg_capacity(left, self.plate.thickness_mm, self.plate.yield_mpa, road=road)
        return np.asarray(self.pull(load) * self.b_mm / bend + np.abs(n) / axial)

    def fatigue(self, load: Load) -> Iterator[tuple[str, ForceArray]]:
        if self.plate.toe:
            bears = TOE_MPA[self.plate.metal.weldable_with]
            yield "fatigue at the weld's toe", 2 * self.toe_stress_mpa(load) / bears
        yield from self.plate.fatigue(load)

    def toe_stress_mpa(self, load: Load) -> ForceArray:
        """Where its welds begin, elastic, summed without signs. Source: beam theory; cautious, no source."""
        n, d, w = (np.abs(part) for part in load)
        t, wide, b = self.plate.thickness_mm, self.plate.width_mm, self.b_mm
        return np.asarray(d * b / (wide * t**2 / 6) + w * b / (t * wide**2 / 6) + n / (wide * t))

    def asks(self) -> Iterator[tuple[str, bool]]:
        """What its shape must keep, each with whether it does. Sources: edges EN 1993-1-8 table 3.3; the rest common
        practice, no source."""
        shape, size, edge = self.shape, self.bolt, EDGE_HOLES * self.hole.narrow_mm
        end, side = self.edges_mm
        yield f"bolt to the tab's end {end:.1f}, at least {edge:.1f}", end >= edge
        yield f"edge distance across {side:.1f}, at least {edge:.1f}", side >= edge
        held = self.plate.bolted_by
        room = size.washer_mm / 2 + 1 + (held.washer_mm / 2 + 1 if held else 0.0)
        yield f"bolt to where the tab is held {self.b_mm:.1f}, room for its washer {room:.1f}", self.b_mm >= room
        if not self.frame.outside:
            beyond, least = self.frame.edge_mm, size.washer_mm / 2 + 1
            yield f"bolt beyond the box's edge by {beyond:.1f}, its head needs {least:.1f}", beyond >= least
        if self.frame.proud_mm > 0:
            proud, off = self.frame.proud_mm, self.off_the_wall_mm
            yield f"tab {off:.1f} off the wall where it passes what closes the box, {proud:.1f} proud", off >= proud
        if shape.packing_mm:
            most = MOST_PACKING_D * size.d_mm
            yield f"packing {shape.packing_mm:.1f}, at most {most:.1f} for {self.named.size}", shape.packing_mm <= most
        yield from self.plate.asks()
