"""Checks of a welded angle with one bolt. Loads N (pull-off +), D (away from the wall), W (along the bend) in newtons.

Every use is demand / capacity. Loads may be arrays; uses have the same shape. ``road`` says which of the loads are road
cases, as one bool or an array that broadcasts with them."""

import math
from collections.abc import Callable, Iterator
from dataclasses import dataclass

import numpy as np

from levelcradle.core.box import Wall
from levelcradle.core.connection.angle.gussets import Gusseted
from levelcradle.core.connection.angle.pieces import AngleMount
from levelcradle.core.connection.angle.rubber import on_rubber
from levelcradle.core.connection.connection import ForceArray, Road
from levelcradle.core.connection.hold import HeldPlate, held_plate
from levelcradle.core.design.mount import Angle, Isolator, Mount
from levelcradle.core.design.refused import STRONGEST_MPA
from levelcradle.core.design.tables import BoltClass, BoltSize, Material, Tables
from levelcradle.core.strength import (
    EDGE_HOLES,
    MOST_PACKING_D,
    TOE_MPA,
    BoltHole,
    bearing_n,
    bolt_capacity,
    bolt_utilisation,
    leg_capacity,
    packed_share,
    preload,
    pull_and_shear,
    toe_pull,
)

__all__ = ["CHECKS", "AngleJoint", "fatigue", "geometry", "lever_pull", "out_of_range", "utilisations"]


@dataclass(frozen=True, slots=True)
class AngleJoint:
    """Everything the checks need: ``plate`` is leg B on the wall. Its c follows from the pose of the box."""

    mount: AngleMount
    plate: HeldPlate
    bolt: BoltSize
    grade: BoltClass

    @staticmethod
    def of(mount: Mount, c_mm: float, wall: Wall, wall_key: str, tables: Tables) -> "AngleJoint":
        its = AngleMount.of(mount)
        shape, bolt = its.shape, its.lands_on.bolt
        plate = held_plate(
            its.to_box,
            tables,
            width_mm=shape.width_mm,
            long_mm=shape.leg_b_mm,
            thickness_mm=shape.thickness_mm,
            metal=shape.material,
            wall=wall.material,
            wall_key=wall_key,
            wall_mm=wall.thickness_mm,
            wall_height_mm=wall.height_mm,
            c_mm=c_mm,
        )
        return AngleJoint(its, plate, tables.bolts[bolt.size], tables.bolt_classes[bolt.property_class])

    @property
    def shape(self) -> Angle:
        return self.mount.shape

    @property
    def metal(self) -> Material:
        return self.plate.metal

    @property
    def t(self) -> float:
        return self.shape.thickness_mm

    @property
    def c_mm(self) -> float:
        return self.plate.c_mm

    @property
    def b_mm(self) -> float:
        """Bolt to the start of the bend."""
        return self.c_mm - self.t - self.shape.bend_radius_mm

    @property
    def b1_mm(self) -> float:
        """Bolt to the middle of leg B."""
        return self.c_mm - self.t / 2

    @property
    def gussets(self) -> Gusseted | None:
        spec = self.shape.gussets
        if spec is None:
            return None
        return Gusseted(self.shape, spec, self.metal, self.bolt, self.c_mm, self.plate.start_mm, self.b1_mm)

    @property
    def isolator(self) -> Isolator | None:
        return self.mount.lands_on.isolator

    @property
    def hole(self) -> BoltHole:
        return BoltHole.of(self.bolt, self.shape.hole)

    @property
    def preload_n(self) -> float:
        """Aluminium under the washer is pressed no further than it yields."""
        soft = self.metal.weldable_with == "aluminium"
        return preload(self.bolt, self.grade, self.plate.yield_mpa if soft else math.inf)

    @property
    def unchecked(self) -> str:
        """Why no strength of it is given, in words; empty where the rules below hold for its metals and its bolt."""
        if self.grade.ultimate_mpa > STRONGEST_MPA:
            return (
                f"property class {self.mount.lands_on.bolt.property_class}: classes above 10.9 are not used here, "
                f"they break brittle"
            )
        return self.plate.unchecked


def lever_pull(joint: AngleJoint, n: ForceArray) -> ForceArray:
    """T = max(N, 0)(1 + b1 / a1), a1 = min(e, 1.25 b1): the toe as a lever. Source: statics, uncapped."""
    return toe_pull(np.asarray(n), (joint.b1_mm,), joint.b1_mm + joint.shape.toe_mm)[..., 0]


def bolt(joint: AngleJoint, n: ForceArray, d: ForceArray, w: ForceArray, *, road: Road) -> ForceArray:
    pull, shear = lever_pull(joint, n), np.hypot(d, w) / packed_share(joint.bolt, joint.shape.packing_mm)
    if joint.isolator:  # nothing is clamped that could hold by friction
        return pull_and_shear(pull, shear, *bolt_capacity(joint.bolt, joint.grade))
    return bolt_utilisation(pull, shear, joint.bolt, joint.grade, joint.preload_n, road=road, slip=joint.hole.slip)


def _leg_capacity(joint: AngleJoint, *, road: Road) -> tuple[ForceArray, ForceArray, ForceArray]:
    return leg_capacity(joint.shape.width_mm, joint.t, joint.plate.yield_mpa, road=road)


def leg_a(joint: AngleJoint, n: ForceArray, d: ForceArray, w: ForceArray, *, road: Road) -> ForceArray:
    """u = |N| b / M_Rd + |W| b / M_s + |D| / N_Rd, at the bend; with gussets N at their end. Linear sum: cautious, no
    source."""
    bend, side, axial = _leg_capacity(joint, road=road)
    lever = max(joint.gussets.to_bolt_mm, 0.0) if joint.gussets else joint.b_mm
    return np.abs(n) * lever / bend + np.abs(w) * joint.b_mm / side + np.abs(d) / axial


def net_section(joint: AngleJoint, n: ForceArray, d: ForceArray, w: ForceArray, *, road: Road) -> ForceArray:
    """u = max(N, 0) b1 / M_net, at the bolt line, where the toe levers and the hole is missing: M_net on (w − d0).
    Source: statics."""
    bracket = joint.shape
    # none left is foul by its shape
    left = max(bracket.width_mm - joint.hole.across_mm, 0.01 * bracket.width_mm)
    bend, _, _ = _leg_capacity(joint, road=road)
    return np.maximum(n, 0.0) * joint.b1_mm / (bend * left / bracket.width_mm)


def leg_b(joint: AngleJoint, n: ForceArray, d: ForceArray, w: ForceArray, *, road: Road) -> ForceArray:
    """u = (|N| b1 + |D| h) / M_Rd + |W| h / M_s + |N| / N_Rd, h = zs − t/2, where it is first held, less its holes.
    Cautious, no source."""
    bend, side, axial = _leg_capacity(joint, road=road)
    h = max(joint.plate.start_mm - joint.t / 2, 0.0)
    bent = 0.0 if joint.gussets else (np.abs(n) * joint.b1_mm + np.abs(d) * h) / bend
    return np.asarray((bent + np.abs(w) * h / side + np.abs(n) / axial) / joint.plate.left)


def bearing_capacity_n(joint: AngleJoint) -> float:
    """Fb = k1 αb fu d t / γM2 of leg A, e1 = e, e2 = w/2 [N]. Source: EN 1993-1-8 table 3.4."""
    hole = joint.hole
    across, away = hole.ends_mm
    edges = (joint.shape.toe_mm - away, joint.shape.width_mm / 2 - across)
    return hole.bearing * bearing_n(joint.bolt, joint.grade.ultimate_mpa, joint.plate.ultimate_mpa, joint.t, edges)


def bearing(joint: AngleJoint, n: ForceArray, d: ForceArray, w: ForceArray, *, road: Road) -> ForceArray:
    return np.hypot(d, w) / bearing_capacity_n(joint)


CHECKS = {
    "bolt": bolt,
    "leg A": leg_a,
    "leg A at the bolt": net_section,
    "leg B": leg_b,
    "bearing": bearing,
}


def utilisations(
    joint: AngleJoint, n: ForceArray, d: ForceArray, w: ForceArray, *, road: Road, first: str = ""
) -> Iterator[tuple[str, ForceArray]]:
    """Every check and its use under given loads, worked out as they are asked for."""
    checks: dict[str, Callable[[], ForceArray]] = {
        name: lambda check=check: check(joint, n, d, w, road=road)  # type: ignore[misc]
        for name, check in CHECKS.items()
    }
    if joint.gussets:
        checks.update(joint.gussets.utilisations(n, d, road=road))
    if joint.isolator:
        checks.update(on_rubber(joint.isolator, joint.bolt, joint.grade, (n, d, w), road=road))
    checks.update(joint.plate.utilisations((n, d, w), road=road))
    for name in sorted(checks, key=lambda name: name != first):
        yield name, checks[name]()


def toe_stress_mpa(joint: AngleJoint, n: ForceArray, d: ForceArray, w: ForceArray) -> ForceArray:
    """In leg B where its welds begin, elastic: (|N| b1 + |D| h) / (w t²/6) + |W| h / (t w²/6) + |N| / (w t). Source:
    beam theory; summed without signs, as leg B's strength is (cautious, no source)."""
    t, wide, h = joint.t, joint.shape.width_mm, max(joint.plate.start_mm - joint.t / 2, 0.0)
    bent = 0.0 if joint.gussets else (np.abs(n) * joint.b1_mm + np.abs(d) * h) / (wide * t**2 / 6)
    return np.asarray(bent + np.abs(w) * h / (t * wide**2 / 6) + np.abs(n) / (wide * t))


def fatigue(joint: AngleJoint, n: ForceArray, d: ForceArray, w: ForceArray) -> Iterator[tuple[str, ForceArray]]:
    """Of leg B where its welds begin, and of each weld, the use under a load that comes to either side."""
    if joint.plate.toe:
        yield "fatigue at the weld's toe", 2 * toe_stress_mpa(joint, n, d, w) / TOE_MPA[joint.metal.weldable_with]
    if joint.gussets:
        yield from joint.gussets.fatigue(n, d)
    yield from joint.plate.fatigue((n, d, w))


def geometry(joint: AngleJoint) -> Iterator[tuple[str, bool]]:
    """What the shape must keep, each with whether it does. Sources: edge distance EN 1993-1-8 table 3.3, welds 4.5.1;
    the rest common practice, no source."""
    bracket, size, b = joint.shape, joint.bolt, joint.b_mm
    (across, away), edge = joint.hole.ends_mm, EDGE_HOLES * joint.hole.narrow_mm
    toe, side = bracket.toe_mm - away, bracket.width_mm / 2 - across
    yield f"bolt to toe {toe:.1f}, at least {edge:.1f}", toe >= edge
    yield f"edge distance across {side:.1f}, at least {edge:.1f}", side >= edge
    hole = b - joint.hole.away_mm / 2
    yield f"hole to bend {hole:.1f}, at least {2 * joint.t:.1f}", hole >= 2 * joint.t
    yield f"bolt to bend {b:.1f}, room for the washer {size.washer_mm / 2 + 1:.1f}", b >= size.washer_mm / 2 + 1
    if bracket.packing_mm:
        most = MOST_PACKING_D * size.d_mm
        yield (
            f"packing {bracket.packing_mm:.1f}, at most {most:.1f} for {size.d_mm:g} bolts",
            bracket.packing_mm <= most,
        )
    if joint.isolator:
        yield "isolator without a captive stop: it counts for nothing in a crash", joint.isolator.captive
    yield from _starts(joint)
    if joint.gussets:
        yield from joint.gussets.asks(joint.plate.holes())
    yield from joint.plate.asks()


def _starts(joint: AngleJoint) -> Iterator[tuple[str, bool]]:
    """Where leg B is first held: beyond the bend, and not far from it; a washer and its hole clear of the bend too."""
    bracket, starts, bolt = joint.shape, joint.plate.start_mm, joint.plate.bolted_by
    clear = joint.t + bracket.bend_radius_mm
    least = clear + max(bolt.washer_mm / 2 + 1, bolt.clearance_hole_mm / 2 + 2 * joint.t) if bolt else clear
    most = 3 * joint.t + bracket.bend_radius_mm + (least - clear)
    yield (
        f"held from {starts:.1f} off the contact plane, {least:.1f} (the bend) to {most:.1f}",
        least <= starts <= most,
    )


CLAMPED_MPA = 200.0  # aluminium that bolts clamp by the standard yields above that: EN 1999-1-1 8.5.9.1, from memory


def out_of_range(joint: AngleJoint) -> Iterator[str]:
    """What lies outside the range the standards' rules are written for: said, no reason to fail."""
    if joint.metal.weldable_with == "aluminium" and joint.metal.yield_mpa < CLAMPED_MPA:
        yield f"{joint.metal.name} under a bolt that clamps it, yields under {CLAMPED_MPA:g} MPa"
    yield from joint.plate.out_of_range()
