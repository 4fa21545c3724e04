"""Checks of a welded angle with one bolt. Loads N (pull-off +), D (away from the wall), W (along the bend) in newtons.

Every use is demand / capacity. Loads may be arrays; uses have the same shape. ``road`` says which of the loads are road
cases, as one bool or an array that broadcasts with them."""

import math
from collections.abc import Callable, Iterator
from dataclasses import dataclass

import numpy as np

from levelcradle.core.connection.angle.pieces import AngleMount
from levelcradle.core.connection.connection import ForceArray, Road
from levelcradle.core.design.mount import Angle, Doubler, Mount, Welded
from levelcradle.core.design.refused import STRONGEST_MPA
from levelcradle.core.design.tables import BoltClass, BoltSize, Material, Tables
from levelcradle.core.strength import (
    EDGE_HOLES,
    GAMMA_M0,
    GAMMA_M2,
    ROOT_MPA,
    TOE_MPA,
    bearing_n,
    bolt_capacity,
    pull_and_shear,
    toe_pull,
)

__all__ = ["CHECKS", "AngleJoint", "WallPatch", "fatigue", "geometry", "out_of_range", "tightening", "utilisations"]

ROAD_FACTOR = 1.5  # elastic, on yield: common practice, no source
SLIP_FRICTION = 0.15
ROAD_MARGIN = 1.25
PRELOAD_SHARE = 0.75  # of the proof load
SCATTER = 0.7  # what is left of the preload after scatter and embedding: common practice, no source
NUT_FACTOR = 0.2


@dataclass(frozen=True, slots=True)
class WallPatch:
    """A patch of wall that is pulled and twisted: width along the bend line, height along the bolt, and the sheet's
    effective thickness squared."""

    width_mm: float
    height_mm: float
    t2_mm2: float


@dataclass(frozen=True, slots=True)
class AngleJoint:
    """Everything the checks need, in millimetres and MPa. ``c_mm`` follows from the pose of the box."""

    mount: AngleMount
    c_mm: float
    steel: Material
    wall: Material
    wall_mm: float
    wall_height_mm: float
    bolt: BoltSize
    grade: BoltClass

    @staticmethod
    def of(
        mount: Mount, c_mm: float, wall: Material, wall_mm: float, wall_height_mm: float, tables: Tables
    ) -> "AngleJoint":
        its = AngleMount.of(mount)
        steel, bolt = tables.materials[its.shape.material], tables.bolts[its.lands_on.bolt.size]
        grade = tables.bolt_classes[its.lands_on.bolt.property_class]
        return AngleJoint(its, c_mm, steel, wall, wall_mm, wall_height_mm, bolt, grade)

    @property
    def shape(self) -> Angle:
        return self.mount.shape

    @property
    def weld(self) -> Welded:
        return self.mount.to_box

    @property
    def t(self) -> float:
        return self.shape.thickness_mm

    @property
    def b_mm(self) -> float:
        """Bolt to the start of the bend."""
        return self.c_mm - self.t - self.shape.bend_radius_mm

    @property
    def b1_mm(self) -> float:
        """Bolt to the middle of leg B."""
        return self.c_mm - self.t / 2

    @property
    def throat_mm(self) -> float:
        """a = min(leg / √2, 0.7 × the thinner part); the doubler is that part where there is one."""
        part = self.weld.doubler.thickness_mm if self.weld.doubler else self.wall_mm
        return min(self.weld.leg_mm / math.sqrt(2), 0.7 * min(self.t, part))

    @property
    def doubler_throat_mm(self) -> float:
        """Of the weld round the doubler; 0 where there is none."""
        plate = self.weld.doubler
        return min(plate.weld_leg_mm / math.sqrt(2), 0.7 * min(plate.thickness_mm, self.wall_mm)) if plate else 0.0

    @property
    def weld_strength_mpa(self) -> float:
        """fu / (√3 βw γM2) of the weaker part. Source: EN 1993-1-8, 4.5.3.3 and table 4.1."""
        parts = [(m.ultimate_mpa, m.beta_w) for m in (self.steel, self.wall)]
        return min(fu / (math.sqrt(3) * beta * GAMMA_M2) for fu, beta in parts if beta)

    @property
    def unchecked(self) -> str:
        """Why no strength of it is given, in words; empty where the rules below hold for its materials."""
        for part in (self.steel, self.wall):
            if part.weldable_with != "steel":
                return f"{part.name}: aluminium is not checked here, the weld takes most of its strength"
        for part, thickness in ((self.steel, self.t), (self.wall, self.wall_mm)):
            if part.yield_mpa_at(thickness) is None:
                return f"{part.name}: its yield over 16 mm thick is not in the table"
            if part.beta_w is None:
                return f"{part.name}: its weld factor βw is not in the table"
        if self.grade.ultimate_mpa > STRONGEST_MPA:
            return (
                f"property class {self.mount.lands_on.bolt.property_class}: classes above 10.9 are not used here, "
                f"they break brittle"
            )
        return ""

    @property
    def steel_yield_mpa(self) -> float:
        return self.steel.yield_mpa_at(self.t) or self.steel.yield_mpa

    @property
    def wall_yield_mpa(self) -> float:
        return self.wall.yield_mpa_at(self.wall_mm) or self.wall.yield_mpa

    def patches(self) -> Iterator[tuple[str, WallPatch]]:
        """The wall under the bracket (with the doubler's help) and under the doubler (the wall alone)."""
        bracket, plate = self.shape, self.weld.doubler
        alone = self.wall_mm**2
        helped = alone + (plate.thickness_mm**2 if plate else 0.0)
        yield "wall", WallPatch(bracket.width_mm, self.weld.length_mm, helped)
        if plate:
            yield "doubler patch", WallPatch(plate.along_w_mm, plate.along_n_mm, alone)


def lever_pull(joint: AngleJoint, n: ForceArray) -> ForceArray:
    """T = max(N, 0)(1 + b1 / a1), a1 = min(e, 1.25 b1): the toe as a lever. Source: statics, uncapped."""
    return toe_pull(np.asarray(n), (joint.b1_mm,), joint.b1_mm + joint.shape.toe_mm)[..., 0]


def tightening(joint: AngleJoint) -> tuple[float, float]:
    """(torque [N·m], least preload [N]): 0.75 of the proof load, T = 0.2 d F. Source: ISO 898-1; common practice."""
    preload = PRELOAD_SHARE * joint.grade.proof_mpa * joint.bolt.stress_area_mm2
    return NUT_FACTOR * joint.bolt.d_mm * preload / 1000, SCATTER * preload


def bolt(joint: AngleJoint, n: ForceArray, d: ForceArray, w: ForceArray, *, road: Road) -> ForceArray:
    """Crash: the joint has slipped, shear and pull together (EN 1993-1-8 table 3.4). Road: no slip, no gapping."""
    pull, shear = lever_pull(joint, n), np.hypot(d, w)
    crash = pull_and_shear(pull, shear, *bolt_capacity(joint.bolt, joint.grade))
    _, least = tightening(joint)
    clamp = np.maximum(least - pull, 1e-6 * least)
    on_road = np.maximum(shear * ROAD_MARGIN / (SLIP_FRICTION * clamp), pull * ROAD_MARGIN / least)
    return np.where(road, on_road, crash)


def _leg_capacity(joint: AngleJoint, *, road: Road) -> tuple[ForceArray, ForceArray, ForceArray]:
    """(M_Rd about the bend, M_s across it, N_Rd): plastic fy/γM0 in a crash, elastic fy/1.5 on the road [N·mm, N]."""
    t, w, fy = joint.t, joint.shape.width_mm, joint.steel_yield_mpa
    shape, stress = np.where(road, 6.0, 4.0), np.where(road, fy / ROAD_FACTOR, fy / GAMMA_M0)
    return w * t**2 / shape * stress, t * w**2 / shape * stress, w * t * stress


def leg_a(joint: AngleJoint, n: ForceArray, d: ForceArray, w: ForceArray, *, road: Road) -> ForceArray:
    """u = |N| b / M_Rd + |W| b / M_s + |D| / N_Rd, at the bend. Linear sum: cautious, no source."""
    bend, side, axial = _leg_capacity(joint, road=road)
    return np.abs(n) * joint.b_mm / bend + np.abs(w) * joint.b_mm / side + np.abs(d) / axial


def net_section(joint: AngleJoint, n: ForceArray, d: ForceArray, w: ForceArray, *, road: Road) -> ForceArray:
    """u = max(N, 0) b1 / M_net, at the bolt line, where the toe levers and the hole is missing: M_net on (w − d0).
    Source: statics."""
    bracket = joint.shape
    # none left is foul by its shape
    left = max(bracket.width_mm - joint.bolt.clearance_hole_mm, 0.01 * bracket.width_mm)
    bend, _, _ = _leg_capacity(joint, road=road)
    return np.maximum(n, 0.0) * joint.b1_mm / (bend * left / bracket.width_mm)


def leg_b(joint: AngleJoint, n: ForceArray, d: ForceArray, w: ForceArray, *, road: Road) -> ForceArray:
    """u = (|N| b1 + |D| h) / M_Rd + |W| h / M_s + |N| / N_Rd, h = zs − t/2, at the first weld. Cautious, no source."""
    bend, side, axial = _leg_capacity(joint, road=road)
    h = max(joint.weld.from_mm - joint.t / 2, 0.0)
    return (np.abs(n) * joint.b1_mm + np.abs(d) * h) / bend + np.abs(w) * h / side + np.abs(n) / axial


def bearing_capacity_n(joint: AngleJoint) -> float:
    """Fb = k1 αb fu d t / γM2 of leg A, e1 = e, e2 = w/2 [N]. Source: EN 1993-1-8 table 3.4."""
    edges = (joint.shape.toe_mm, joint.shape.width_mm / 2)
    return bearing_n(joint.bolt, joint.grade.ultimate_mpa, joint.steel.ultimate_mpa, joint.t, edges)


def bearing(joint: AngleJoint, n: ForceArray, d: ForceArray, w: ForceArray, *, road: Road) -> ForceArray:
    return np.hypot(d, w) / bearing_capacity_n(joint)


def weld_moments(
    joint: AngleJoint, n: ForceArray, d: ForceArray, w: ForceArray
) -> tuple[ForceArray, ForceArray, ForceArray]:
    """Moment at the weld's centre in (d, w, n): (c, 0, −hc) × (D, W, N), hc = zs + l/2 [N·mm]."""
    c, hc = joint.c_mm, joint.weld.from_mm + joint.weld.length_mm / 2
    return hc * w, -hc * d - c * n, c * w


@dataclass(frozen=True, slots=True)
class _WeldGroup:
    """Lines of weld about their middle: length, second moments about w and n [mm³], half extents along w and n."""

    length: float
    i_w: float
    i_n: float
    half_w: float
    half_n: float

    def most(
        self, forces: tuple[ForceArray, ForceArray, ForceArray], moments: tuple[ForceArray, ForceArray, ForceArray]
    ) -> ForceArray:
        """Largest force per length at its four ends [N/mm], forces and moments in (d, w, n). Source: line-weld method
        (statics)."""
        d, w, n = forces
        t_d, t_w, t_n = moments[0] / (self.i_w + self.i_n), moments[1] / self.i_w, moments[2] / self.i_n
        shape = (4, *([1] * np.ndim(n)))
        pw = (np.array([-1.0, -1.0, 1.0, 1.0]) * self.half_w).reshape(shape)
        pn = (np.array([-1.0, 1.0, -1.0, 1.0]) * self.half_n).reshape(shape)
        q_d, q_w, q_n = d / self.length + t_w * pn - t_n * pw, w / self.length - t_d * pn, n / self.length + t_d * pw
        return np.asarray(np.sqrt((q_d * q_d + q_w * q_w + q_n * q_n).max(axis=0)))


def weld_line(joint: AngleJoint, n: ForceArray, d: ForceArray, w: ForceArray) -> ForceArray:
    """Largest force per length at the four ends of the two side fillets [N/mm]."""
    bracket = joint.shape
    # shorter ones are foul by their shape; the use stays finite
    le = max(joint.weld.length_mm - 2 * joint.throat_mm, 1.0)
    group = _WeldGroup(2 * le, le**3 / 6, le * bracket.width_mm**2 / 2, bracket.width_mm / 2, le / 2)
    return group.most((d, w, n), weld_moments(joint, n, d, w))


def weld(joint: AngleJoint, n: ForceArray, d: ForceArray, w: ForceArray, *, road: Road) -> ForceArray:
    return weld_line(joint, n, d, w) / (joint.throat_mm * joint.weld_strength_mpa)


def doubler_weld_line(joint: AngleJoint, plate: Doubler, n: ForceArray, d: ForceArray, w: ForceArray) -> ForceArray:
    """Largest force per length at the corners of the weld all round the doubler [N/mm]; what presses on the wall helps
    nothing."""
    a, b = plate.along_w_mm, plate.along_n_mm
    group = _WeldGroup(2 * (a + b), b**3 / 6 + a * b**2 / 2, a**3 / 6 + b * a**2 / 2, a / 2, b / 2)
    c, up = joint.c_mm + plate.thickness_mm, plate.from_contact_mm + b / 2
    return group.most((d, w, n), (up * w, -up * d - c * n, c * w))


def doubler_weld(joint: AngleJoint, plate: Doubler, n: ForceArray, d: ForceArray, w: ForceArray) -> ForceArray:
    """Doubler and wall are of one material. Source: EN 1993-1-8, 4.5.3.3."""
    strength = joint.wall.ultimate_mpa / (math.sqrt(3) * (joint.wall.beta_w or 1.0) * GAMMA_M2)
    return doubler_weld_line(joint, plate, n, d, w) / (joint.doubler_throat_mm * strength)


def patch_capacity(joint: AngleJoint, patch: WallPatch) -> tuple[float, float, float]:
    """(N0 [N], Mn0, Mw0 [N·mm]) of a patch of wall by yield lines, as for the face of a hollow section.

    β = height / wall height (its rim held by the lid), η = width / wall height. Valid for: β up to 0.85 (geometry
    says so where it is not; the formulas are then taken at 0.85). Source: yield lines, from memory; rough.
    """
    b0, fy = joint.wall_height_mm, joint.wall_yield_mpa
    beta, eta, width, height = min(patch.height_mm / b0, 0.85), patch.width_mm / b0, patch.width_mm, patch.height_mm
    free = 1 - beta
    strength = fy * patch.t2_mm2 / GAMMA_M0
    pull = strength * (2 * eta + 4 * math.sqrt(free)) / free
    about_n = strength * width * (1 / (2 * eta) + 2 / math.sqrt(free) + eta / free)
    about_w = strength * (width * (1 + beta) / (2 * free) + math.sqrt(2 * b0 * height * (1 + beta) / free))
    return pull, about_n, about_w


def patch_utilisation(joint: AngleJoint, patch: WallPatch, n: ForceArray, d: ForceArray, w: ForceArray) -> ForceArray:
    """u = |D| / N0 + |Mn| / Mn0 + |Mw| / Mw0, with the moments at the weld's centre."""
    pull, about_n, about_w = patch_capacity(joint, patch)
    _, m_w, m_n = weld_moments(joint, n, d, w)
    return np.abs(d) / pull + np.abs(m_n) / about_n + np.abs(m_w) / about_w


CHECKS = {
    "bolt": bolt,
    "leg A": leg_a,
    "leg A at the bolt": net_section,
    "leg B": leg_b,
    "bearing": bearing,
    "weld": weld,
}


def utilisations(
    joint: AngleJoint, n: ForceArray, d: ForceArray, w: ForceArray, *, road: Road, first: str = ""
) -> Iterator[tuple[str, ForceArray]]:
    """Every check and its use under given loads, worked out as they are asked for."""
    checks: dict[str, Callable[[], ForceArray]] = {
        name: lambda check=check: check(joint, n, d, w, road=road)  # type: ignore[misc]
        for name, check in CHECKS.items()
    }
    if plate := joint.weld.doubler:
        checks["doubler weld"] = lambda: doubler_weld(joint, plate, n, d, w)
    for name, patch in joint.patches():
        checks[name] = lambda patch=patch: patch_utilisation(joint, patch, n, d, w)  # type: ignore[misc]
    for name in sorted(checks, key=lambda name: name != first):
        yield name, checks[name]()


def toe_stress_mpa(joint: AngleJoint, n: ForceArray, d: ForceArray, w: ForceArray) -> ForceArray:
    """In leg B where its welds begin, elastic: (|N| b1 + |D| h) / (w t²/6) + |W| h / (t w²/6) + |N| / (w t). Source:
    beam theory; summed without signs, as leg B's strength is (cautious, no source)."""
    t, wide, h = joint.t, joint.shape.width_mm, max(joint.weld.from_mm - joint.t / 2, 0.0)
    bent = (np.abs(n) * joint.b1_mm + np.abs(d) * h) / (wide * t**2 / 6)
    return np.asarray(bent + np.abs(w) * h / (t * wide**2 / 6) + np.abs(n) / (wide * t))


def fatigue(joint: AngleJoint, n: ForceArray, d: ForceArray, w: ForceArray) -> Iterator[tuple[str, ForceArray]]:
    """Of each weld the use under a load that comes to either side: twice its stress over what it bears two million
    times. The wall itself is not among them: what bends it there is only roughly known."""
    yield "fatigue at the weld's toe", 2 * toe_stress_mpa(joint, n, d, w) / TOE_MPA
    yield "fatigue in the weld", 2 * weld_line(joint, n, d, w) / joint.throat_mm / ROOT_MPA
    if plate := joint.weld.doubler:
        line = doubler_weld_line(joint, plate, n, d, w)
        yield "fatigue in the doubler's weld", 2 * line / joint.doubler_throat_mm / ROOT_MPA


def geometry(joint: AngleJoint) -> Iterator[tuple[str, bool]]:
    """What the shape must keep, each with whether it does. Sources: edge distance EN 1993-1-8 table 3.3, welds 4.5.1;
    the rest common practice, no source."""
    bracket, size, b = joint.shape, joint.bolt, joint.b_mm
    a, edge = joint.throat_mm, EDGE_HOLES * size.clearance_hole_mm
    yield f"bolt to toe {bracket.toe_mm:.1f}, at least {edge:.1f}", bracket.toe_mm >= edge
    yield f"edge distance across {bracket.width_mm / 2:.1f}, at least {edge:.1f}", bracket.width_mm / 2 >= edge
    hole = b - size.clearance_hole_mm / 2
    yield f"hole to bend {hole:.1f}, at least {2 * joint.t:.1f}", hole >= 2 * joint.t
    yield f"bolt to bend {b:.1f}, room for the washer {size.washer_mm / 2 + 1:.1f}", b >= size.washer_mm / 2 + 1
    least, most = joint.t + bracket.bend_radius_mm, 3 * joint.t + bracket.bend_radius_mm
    yield (
        f"welds start {joint.weld.from_mm:.1f} off the contact plane, {least:.1f} (the bend) to {most:.1f}",
        (least <= joint.weld.from_mm <= most),
    )
    end = joint.weld.from_mm + joint.weld.length_mm
    yield f"welds end at {end:.1f}, leg B at {bracket.leg_b_mm:.1f}", end <= bracket.leg_b_mm
    least = max(30.0, 6 * a) + 2 * a
    yield f"weld length {joint.weld.length_mm:.1f}, at least {least:.1f}", joint.weld.length_mm >= least
    weldable = joint.steel.weldable_with == joint.wall.weldable_with
    yield f"{joint.steel.name} welded to {joint.wall.name}", weldable
    for name, patch in joint.patches():
        share = patch.height_mm / joint.wall_height_mm
        yield f"{name} {share:.2f} of the wall's height, at most 0.85", share <= 0.85
    if plate := joint.weld.doubler:
        near = joint.weld.from_mm - plate.from_contact_mm
        far = plate.from_contact_mm + plate.along_n_mm - end
        side = (plate.along_w_mm - bracket.width_mm) / 2
        yield f"doubler round the weld {min(near, far, side):.1f}, at least 10", min(near, far, side) >= 10


THINNEST_MM, LEAST_THROAT_MM = 4.0, 3.0  # EN 1993-1-8 4.1 and 4.5.2, from memory


def out_of_range(joint: AngleJoint) -> Iterator[str]:
    """What lies outside the range the standard's weld rules are written for: said, no reason to fail."""
    plate = joint.weld.doubler
    sheets = [("bracket", joint.t), ("wall", joint.wall_mm), *([("doubler", plate.thickness_mm)] if plate else [])]
    yield from (f"{name} {mm:g} mm, under {THINNEST_MM:g}" for name, mm in sheets if mm < THINNEST_MM)
    throats = [("weld", joint.throat_mm), *([("doubler's weld", joint.doubler_throat_mm)] if plate else [])]
    yield from (
        f"throat of the {name} {mm:.1f} mm, under {LEAST_THROAT_MM:g}" for name, mm in throats if mm < LEAST_THROAT_MM
    )
