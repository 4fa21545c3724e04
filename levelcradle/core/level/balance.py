"""Moments about the front axle line, the centreline and the ground."""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace

from levelcradle.core.axes import Vec
from levelcradle.core.design.vehicle import Axles, Target, Total, Track, Vehicle, Weighing, WheelRates
from levelcradle.core.design.vehicle import Corners as CornerReadings
from levelcradle.core.level.lift import cg_height

__all__ = ["Corners", "Lean", "Loads", "MassRow", "aboard_rows", "corner_loads", "found_loads", "lean_of", "loads_after",
           "read_loads", "total_of"]  # fmt: skip


@dataclass(frozen=True, slots=True)
class MassRow:
    """One mass that changes what the axles read; taken out it is negative."""

    path: str
    name: str
    mass_kg: float
    tol_kg: float
    at: Vec


@dataclass(frozen=True, slots=True)
class Corners:
    lf_kg: float
    rf_kg: float
    lr_kg: float
    rr_kg: float


@dataclass(frozen=True, slots=True)
class Loads:
    """What the ground carries [kg] and where the centre of gravity is [mm].

    ``across_mm``, ``up_mm`` and ``corners`` are None where the weighing cannot tell them; ``rule`` says how the corners
    came about, ``assumed`` what of it nobody measured.
    """

    front_kg: float
    rear_kg: float
    aft_mm: float
    across_mm: float | None
    up_mm: float | None
    corners: Corners | None
    front_tol_kg: float
    rear_tol_kg: float
    up_tol_mm: float | None
    rule: str = ""
    assumed: str = ""

    @property
    def total_kg(self) -> float:
        return self.front_kg + self.rear_kg

    @property
    def front_percent(self) -> float:
        return 100 * self.front_kg / self.total_kg if self.total_kg else 0.0


@dataclass(frozen=True, slots=True)
class Lean:
    """How far the mass is off its aim, in percent of the mass: + is too much on the rear, on the right.

    ``words`` is what a glance needs: "heavy: rear, right", "level", or that left and right were not weighed.
    """

    rear_percent: float
    right_percent: float
    words: str


RING_PERCENT = 1.0  # nearer to the aim than this counts as level: common practice, no source


def lean_of(loads: Loads, target: Target | None) -> Lean:
    """The lean against the target; without one, against half and half."""
    rear = (target.front_percent if target else 50.0) - loads.front_percent
    if loads.corners is None:
        return Lean(rear, 0.0, "left/right not weighed")
    right = 100 * (loads.corners.rf_kg + loads.corners.rr_kg) / loads.total_kg - 50
    ways = ((rear, "rear", "front"), (right, "right", "left"))
    said = [plus if off > 0 else minus for off, plus, minus in ways if abs(off) >= RING_PERCENT]
    return Lean(rear, right, f"heavy: {', '.join(said)}" if said else "level")


AS_WEIGHED = "as weighed"
BY_AXLE = "as found plus change: the side moment split by axle load"
BY_ROLL = "as found plus change: the side moment split by roll stiffness"
BY_SIDES = "axle load times side share, alike on both axles"


def read_loads(vehicle: Vehicle) -> Loads | None:
    """The car as it stood on the scales, with whoever was aboard. CG aft = rear / total * wheelbase.

    Source: moments of vertical forces (statics); corners from axle and side sums by the proportional rule, common
    practice, no source.
    """
    weighing = vehicle.weighing
    total = total_of(weighing) if weighing else 0.0
    if weighing is None or total <= 0:
        return None
    half = weighing.step_kg / 2
    assumed, rule, corners, across = "", "", None, None
    if isinstance(weighing, Axles):
        front, rear, front_tol, rear_tol = weighing.front_kg, weighing.rear_kg, half, half
        if weighing.left_kg is not None:
            left = weighing.left_kg / total
            corners, rule = Corners(front * left, front * (1 - left), rear * left, rear * (1 - left)), BY_SIDES
    elif isinstance(weighing, Total):
        front = total * weighing.front_percent / 100
        rear, assumed = total - front, "the split between the axles is assumed"
        front_tol = rear_tol = math.hypot(half, total * weighing.front_tol_percent / 100)
    else:
        corners, rule = Corners(weighing.lf_kg, weighing.rf_kg, weighing.lr_kg, weighing.rr_kg), AS_WEIGHED
        front, rear = corners.lf_kg + corners.rf_kg, corners.lr_kg + corners.rr_kg
        front_tol = rear_tol = half * math.sqrt(2)
    if corners and vehicle.track_mm:
        across = _across(corners, vehicle.track_mm)
    height = cg_height(vehicle, total)
    up, up_tol = (height.up_mm, height.tol_mm) if height else (None, None)
    aft = rear / total * vehicle.wheelbase_mm
    return Loads(front, rear, aft, across, up, corners, front_tol, rear_tol, up_tol, rule, assumed)


def total_of(weighing: Weighing) -> float:
    if isinstance(weighing, Total):
        return weighing.total_kg
    if isinstance(weighing, Axles):
        return weighing.front_kg + weighing.rear_kg
    return weighing.lf_kg + weighing.rf_kg + weighing.lr_kg + weighing.rr_kg


def found_loads(vehicle: Vehicle) -> Loads | None:
    """The bare car as found: the readings without whoever and whatever was aboard. None where it was not weighed, or
    where more was aboard than it weighed."""
    read = read_loads(vehicle)
    if read is None or vehicle.weighing is None:
        return None
    off = aboard_rows(vehicle)
    if read.total_kg + sum(row.mass_kg for row in off) <= 0:
        return None
    bare = loads_after(read, off, vehicle) if off else read
    return replace(bare, rule=read.rule) if off else read


def aboard_rows(vehicle: Vehicle) -> list[MassRow]:
    """What was aboard while weighing, taken off again."""
    rows = []
    for key, rider in (vehicle.weighing.aboard if vehicle.weighing else {}).items():
        mass = rider.weighs_kg
        if mass is not None and rider.at_mm is not None:
            rows.append(MassRow(f"vehicle/weighing/aboard/{key}", rider.name, -mass, rider.tol_kg, rider.at_mm))
    return rows


def _across(c: CornerReadings | Corners, track: Track) -> float:
    moment = (c.rf_kg - c.lf_kg) * track.front / 2 + (c.rr_kg - c.lr_kg) * track.rear / 2
    return moment / (c.lf_kg + c.rf_kg + c.lr_kg + c.rr_kg)


def loads_after(found: Loads, changes: Sequence[MassRow], vehicle: Vehicle) -> Loads:
    """The car with masses taken out (negative) and put in.

    Rear change = sum(m x) / L. The ± of an axle is the root-sum-square of half a step per reading and of each
    tolerance times its lever. Source: moments about the front axle (statics).
    """
    wheelbase = vehicle.wheelbase_mm
    change = math.fsum(m.mass_kg for m in changes)
    rear_change = math.fsum(m.mass_kg * m.at[0] for m in changes) / wheelbase
    front, rear = found.front_kg + change - rear_change, found.rear_kg + rear_change
    total = front + rear
    side = math.fsum(m.mass_kg * m.at[1] for m in changes)
    across = None if found.across_mm is None else (found.total_kg * found.across_mm + side) / total
    up = None
    if found.up_mm is not None:
        up = (found.total_kg * found.up_mm + math.fsum(m.mass_kg * m.at[2] for m in changes)) / total
    corners = None
    if found.corners and vehicle.track_mm:
        corners = corner_loads(found.corners, front, rear, side, vehicle.track_mm, vehicle.wheel_rates)
    up_tol = None if found.up_tol_mm is None else found.up_tol_mm * found.total_kg / total
    return Loads(
        front, rear, rear / total * wheelbase, across, up, corners,
        _rss(found.front_tol_kg, ((m.tol_kg * (1 - m.at[0] / wheelbase)) for m in changes)),
        _rss(found.rear_tol_kg, ((m.tol_kg * m.at[0] / wheelbase) for m in changes)), up_tol,
        (BY_ROLL if vehicle.wheel_rates else BY_AXLE) if corners else "", found.assumed,
    )  # fmt: skip


def _rss(first: float, rest: Iterable[float]) -> float:
    return math.sqrt(first**2 + math.fsum(v**2 for v in rest))


def corner_loads(found: Corners, front_kg: float, rear_kg: float, side_kgmm: float, track: Track,
                 rates: WheelRates | None = None) -> Corners:  # fmt: skip
    """As found plus change. The change of an axle goes half to each side; the change's side moment is split between
    the axles by roll stiffness (wheel rate × track² / 2) where it is known, else by their new loads. Axle sums are exact,
    the measured cross-weight is kept.

    Source: common practice, no source (four wheels are statically indeterminate; without wheel rates a rule is chosen).
    """
    share = front_kg / (front_kg + rear_kg)
    if rates:
        front_roll, rear_roll = rates.front_n_per_mm * track.front**2, rates.rear_n_per_mm * track.rear**2
        share = front_roll / (front_roll + rear_roll)
    d_front, d_rear = front_kg - found.lf_kg - found.rf_kg, rear_kg - found.lr_kg - found.rr_kg
    tip_front, tip_rear = side_kgmm * share / track.front, side_kgmm * (1 - share) / track.rear
    return Corners(
        found.lf_kg + d_front / 2 - tip_front, found.rf_kg + d_front / 2 + tip_front,
        found.lr_kg + d_rear / 2 - tip_rear, found.rr_kg + d_rear / 2 + tip_rear,
    )  # fmt: skip
