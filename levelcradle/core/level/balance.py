"""Moments about the front axle line, the centreline and the ground."""

import math
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property

import numpy as np

from levelcradle.core.axes import AXES, Matrix, Vec, scaled
from levelcradle.core.design.design import AS_FOUND
from levelcradle.core.design.vehicle import Axles, CgGiven, Target, Total, Track, Vehicle, Weighing, WheelRates
from levelcradle.core.design.vehicle import Corners as CornerReadings
from levelcradle.core.design.weighed import half_step
from levelcradle.core.level.lift import cg_height
from levelcradle.core.level.uncertainty import Causes, PlusMinus, combined, plus_minus, seen_by

__all__ = [
    "Corners",
    "Lean",
    "MassRow",
    "WheelLoads",
    "aboard_rows",
    "corner_loads",
    "found_loads",
    "lean_of",
    "loads_after",
    "person",
    "read_loads",
    "total_kg_of",
]


@dataclass(frozen=True)
class MassRow:
    """One mass that changes what the axles read; taken out it is negative.

    ``causes``: by what it may be off, each with its ±, where that is more than its own figure; ``place_tol_mm``: ± of
    its place; ``goes_with``: what has to be done so that it counts: a mount is there with its box."""

    path: str
    name: str
    mass_kg: float
    tol_kg: float
    at: Vec
    causes: tuple[tuple[str, float], ...] = ()
    place_tol_mm: Vec = (0.0, 0.0, 0.0)
    goes_with: str = ""

    @cached_property
    def off_by(self) -> list[tuple[str, float, Vec]]:
        """Of each cause, what its whole ± does to the mass [kg] and to its moments about the axes [kg·mm]: what its own
        figure, or what stands behind it, may be off, and its place along each axis."""
        causes = self.causes or ((self.path, self.tol_kg),)
        found = [(key, tol, scaled(self.at, tol)) for key, tol in causes if tol]
        for axis, tol in enumerate(self.place_tol_mm):
            if tol:
                found.append((f"place:{self.path}:{axis}", 0.0, scaled(AXES[axis], self.mass_kg * tol)))
        return found


@dataclass(frozen=True, slots=True)
class Corners:
    lf_kg: float
    rf_kg: float
    lr_kg: float
    rr_kg: float


@dataclass(frozen=True, slots=True)
class WheelLoads:
    """What the ground carries [kg] and where the centre of gravity is [mm].

    ``across_mm``, ``up_mm`` and ``corners`` are None where the weighing cannot tell them; ``rule`` says how the corners
    came about, ``assumed`` what of it nobody measured. ``off`` is the ± of each figure, from what each cause does.
    """

    front_kg: float
    rear_kg: float
    aft_mm: float
    across_mm: float | None
    up_mm: float | None
    corners: Corners | None
    off: PlusMinus
    causes: Causes = field(repr=False)
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

    ``words`` is what a glance needs: "heavy: rear, right", "level", or why nobody knows left from right.
    """

    rear_percent: float
    right_percent: float
    words: str


RING_PERCENT = 1.0  # nearer to the aim than this counts as level: common practice, no source


def lean_of(found: WheelLoads, loads: WheelLoads, target: Target | None) -> Lean:
    """The lean of a car that was found so against the target; without one, against half and half."""
    rear = (target.front_percent if target else 50.0) - loads.front_percent
    if loads.corners is None:
        return Lean(rear, 0.0, "tracks not known" if found.corners else "left/right not weighed")
    right = 100 * (loads.corners.rf_kg + loads.corners.rr_kg) / loads.total_kg - 50
    ways = ((rear, "rear", "front"), (right, "right", "left"))
    said = [plus if off > 0 else minus for off, plus, minus in ways if abs(off) >= RING_PERCENT]
    return Lean(rear, right, f"heavy: {', '.join(said)}" if said else "level")


AS_WEIGHED = "as weighed"
BY_AXLE = "as found plus change: the side moment split by axle load"
BY_ROLL = "as found plus change: the side moment split by roll stiffness"
BY_SIDES = "axle load times side share, alike on both axles"


def read_loads(vehicle: Vehicle, weighing: Weighing | None) -> WheelLoads | None:
    """The car as it stood on the scales, with whoever was aboard. CG aft = rear / total * wheelbase.

    Source: moments of vertical forces (statics); corners from axle and side sums by the proportional rule, common
    practice, no source.
    """
    total = total_kg_of(weighing) if weighing else 0.0
    if weighing is None or total <= 0:
        return None
    readings, tols, work, rule, assumed = _read(weighing, vehicle.track_mm)
    front, rear, side, _, *four = work(readings)
    known = not isinstance(weighing, Total) and not (isinstance(weighing, Axles) and weighing.left_kg is None)
    corners = Corners(*four) if known else None
    across = side / total if corners and vehicle.track_mm else None
    causes = {f"reading:{n}": effect for n, effect in enumerate(seen_by(work, readings, tols))}
    up, height_off = _height(vehicle, weighing, total)
    if up is not None:  # what the scale reads too much counts at the height that was found
        causes = {key: (*e[:3], (e[0] + e[1]) * up, *e[4:]) for key, e in causes.items()}
        causes["cg_height"] = (0.0, 0.0, 0.0, total * height_off, 0.0, 0.0, 0.0, 0.0)
    return _loads(vehicle, front, rear, across, up, corners, causes, rule, assumed)


_Work = Callable[[tuple[float, ...]], tuple[float, ...]]


def _read(weighing: Weighing, track: Track | None) -> tuple[tuple[float, ...], tuple[float, ...], _Work, str, str]:
    """The readings, their ±, what makes front, rear, side moment, height moment and corners of them; the rule, and what
    is assumed."""
    step, wide = half_step(weighing.step_kg), (track.front, track.rear) if track else (0.0, 0.0)

    def of_corners(r: tuple[float, ...]) -> tuple[float, ...]:
        side = (r[1] - r[0]) * wide[0] / 2 + (r[3] - r[2]) * wide[1] / 2
        return r[0] + r[1], r[2] + r[3], side, 0.0, *r

    def of_axles(r: tuple[float, ...]) -> tuple[float, ...]:
        left = r[2] / (r[0] + r[1]) if len(r) > 2 else 0.5
        return of_corners((r[0] * left, r[0] * (1 - left), r[1] * left, r[1] * (1 - left)))

    def of_total(r: tuple[float, ...]) -> tuple[float, ...]:
        return of_axles((r[0] * r[1] / 100, r[0] * (1 - r[1] / 100)))

    if isinstance(weighing, CornerReadings):
        return (weighing.lf_kg, weighing.rf_kg, weighing.lr_kg, weighing.rr_kg), (step,) * 4, of_corners, AS_WEIGHED, ""
    if isinstance(weighing, Axles):
        if weighing.left_kg is None:
            return (weighing.front_kg, weighing.rear_kg), (step,) * 2, of_axles, "", ""
        return (weighing.front_kg, weighing.rear_kg, weighing.left_kg), (step,) * 3, of_axles, BY_SIDES, ""
    split = (weighing.total_kg, weighing.front_percent)
    return split, (step, weighing.front_tol_percent), of_total, "", "the split between the axles is assumed"


def _height(vehicle: Vehicle, weighing: Weighing, total_kg: float) -> tuple[float | None, float]:
    """The height of the CG as the car stood on the scales, and its ±; one from a table is the bare car's, so whoever
    was aboard comes on top of it."""
    height = cg_height(vehicle, total_kg)
    if height is None:
        return None, 0.0
    if not _of_the_bare_car(vehicle):
        return height.up_mm, height.tol_mm
    off = aboard_rows(weighing)
    bare = total_kg + math.fsum(row.mass_kg for row in off)
    return (
        bare * height.up_mm - math.fsum(row.mass_kg * row.at[2] for row in off)
    ) / total_kg, height.tol_mm * bare / total_kg


def _of_the_bare_car(vehicle: Vehicle) -> bool:
    return isinstance(vehicle.cg_height, CgGiven) and vehicle.cg_height.basis == "assumed"


def _loads(
    vehicle: Vehicle,
    front_kg: float,
    rear_kg: float,
    across_mm: float | None,
    up_mm: float | None,
    corners: Corners | None,
    causes: Causes,
    rule: str,
    assumed: str,
) -> WheelLoads:
    off = plus_minus(causes, front_kg, rear_kg, across_mm, up_mm, vehicle.wheelbase_mm, corners=corners is not None)
    aft = rear_kg / (front_kg + rear_kg) * vehicle.wheelbase_mm
    return WheelLoads(front_kg, rear_kg, aft, across_mm, up_mm, corners, off, causes, rule, assumed)


def total_kg_of(weighing: Weighing) -> float:
    if isinstance(weighing, Total):
        return weighing.total_kg
    if isinstance(weighing, Axles):
        return weighing.front_kg + weighing.rear_kg
    return weighing.lf_kg + weighing.rf_kg + weighing.lr_kg + weighing.rr_kg


def found_loads(vehicle: Vehicle, weighing: Weighing | None) -> WheelLoads | None:
    """The bare car as found: the readings without whoever and whatever was aboard. None where it was not weighed, or
    where more was aboard than it weighed."""
    read = read_loads(vehicle, weighing)
    if read is None or weighing is None:
        return None
    off = aboard_rows(weighing)
    if read.total_kg + sum(row.mass_kg for row in off) <= 0:
        return None
    if not off:
        return read
    bare = loads_after(read, off, vehicle)
    # its height is the bare car's, whatever the scale and the people are off
    if _of_the_bare_car(vehicle) and bare.up_mm is not None:
        up = bare.up_mm
        causes = {
            key: e if key == "cg_height" else (*e[:3], (e[0] + e[1]) * up, *e[4:]) for key, e in bare.causes.items()
        }
        return _loads(
            vehicle, bare.front_kg, bare.rear_kg, bare.across_mm, up, bare.corners, causes, read.rule, read.assumed
        )
    return replace(bare, rule=read.rule)


def person(name: str) -> str:
    """The cause of what is not known of somebody's weight: the same for one aboard while weighed and riding again."""
    return f"person:{name.strip().casefold()}"


def aboard_rows(weighing: Weighing) -> list[MassRow]:
    """What was aboard while weighing, taken off again."""
    rows = []
    for key, rider in weighing.aboard.items():
        mass = rider.weighs_kg
        if mass is not None and rider.at_mm is not None:
            path = f"{AS_FOUND}/read/aboard/{key}"
            rows.append(
                MassRow(path, rider.name, -mass, rider.tol_kg, rider.at_mm, ((person(rider.name), -rider.tol_kg),))
            )
    return rows


def loads_after(found: WheelLoads, changes: Sequence[MassRow], vehicle: Vehicle) -> WheelLoads:
    """The car with masses taken out (negative) and put in.

    Rear change = sum(m x) / L; the ± of every figure follows from what each cause does to it.
    Source: moments about the front axle (statics); uncertainty.py for the ±.
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
    corners: Corners | None = None
    keys, four = _causes_of(changes, wheelbase)
    spread = np.zeros_like(four)
    if found.corners and vehicle.track_mm:
        corners = corner_loads(found.corners, front, rear, side, vehicle.track_mm, vehicle.wheel_rates)
        spread = _spread(four, front, rear, vehicle.track_mm, vehicle.wheel_rates)
    causes: Causes = combined(found.causes, keys, np.hstack([four, spread]))
    if corners and vehicle.track_mm and not vehicle.wheel_rates:
        causes = _share_moved(causes, front, rear, side, vehicle.track_mm)
    rule = (BY_ROLL if vehicle.wheel_rates else BY_AXLE) if corners else ""
    return _loads(vehicle, front, rear, across, up, corners, causes, rule, found.assumed)


def _spread(four: Matrix, front_kg: float, rear_kg: float, track: Track, rates: WheelRates | None) -> Matrix:
    """(n, 4) of what (n, 4) changes of front, rear [kg], side and height moment [kg·mm] do to the corners LF, RF, LR,
    RR [kg], the split between the axles held."""
    share = _front_share(front_kg, rear_kg, track, rates)
    front, rear, side, _ = four.T
    tip_front, tip_rear = side * share / track.front, side * (1 - share) / track.rear
    return np.array([front / 2 - tip_front, front / 2 + tip_front, rear / 2 - tip_rear, rear / 2 + tip_rear]).T


def _share_moved(causes: Causes, front_kg: float, rear_kg: float, side: float, track: Track) -> Causes:
    """Split by axle load, the split itself moves with the loads."""
    out = {}
    for key, e in causes.items():
        moved = side * (e[0] * rear_kg - e[1] * front_kg) / (front_kg + rear_kg) ** 2
        tip_front, tip_rear = moved / track.front, -moved / track.rear
        out[key] = (*e[:4], e[4] - tip_front, e[5] + tip_front, e[6] - tip_rear, e[7] + tip_rear)
    return out


def _causes_of(changes: Iterable[MassRow], wheelbase_mm: float) -> tuple[list[str], Matrix]:
    """The causes of masses, and (n, 4) of what each does to front, rear [kg], side and height moment [kg·mm]."""
    rows = [row for change in changes for row in change.off_by]
    weighs = np.array([kg for _, kg, _ in rows])
    aft, side, height = np.array([moment for _, _, moment in rows]).reshape(-1, 3).T
    rear = aft / wheelbase_mm
    return [key for key, _, _ in rows], np.array([weighs - rear, rear, side, height]).T


def corner_loads(
    found: Corners, front_kg: float, rear_kg: float, side_kgmm: float, track: Track, rates: WheelRates | None = None
) -> Corners:
    """As found plus change. The change of an axle goes half to each side; the change's side moment is split between the
    axles by roll stiffness (wheel rate × track² / 2) where it is known, else by their new loads. Axle sums are exact,
    the measured cross-weight is kept.

    Source: common practice, no source (four wheels are statically indeterminate; without wheel rates a rule is chosen).
    """
    share = _front_share(front_kg, rear_kg, track, rates)
    d_front, d_rear = front_kg - found.lf_kg - found.rf_kg, rear_kg - found.lr_kg - found.rr_kg
    tip_front, tip_rear = side_kgmm * share / track.front, side_kgmm * (1 - share) / track.rear
    return Corners(
        found.lf_kg + d_front / 2 - tip_front,
        found.rf_kg + d_front / 2 + tip_front,
        found.lr_kg + d_rear / 2 - tip_rear,
        found.rr_kg + d_rear / 2 + tip_rear,
    )


def _front_share(front_kg: float, rear_kg: float, track: Track, rates: WheelRates | None) -> float:
    """How much of a side moment the front axle takes."""
    if rates is None:
        return front_kg / (front_kg + rear_kg)
    front_roll, rear_roll = rates.front_n_per_mm * track.front**2, rates.rear_n_per_mm * track.rear**2
    return front_roll / (front_roll + rear_roll)
