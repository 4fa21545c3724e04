"""Height of the CG by raising one axle."""

import math
from dataclasses import dataclass, replace

from levelcradle.core.design.vehicle import CgLifted, Vehicle
from levelcradle.core.finding import Step, Working

__all__ = ["MOST_TOL_MM", "HeightResult", "cg_height"]

METHOD = "axle-lift method, ISO 10392 (clause numbers not checked)"
MOST_TOL_MM = 50.0  # a height less sure than this counts as assumed: common practice, no source


@dataclass(frozen=True, slots=True)
class HeightResult:
    """Height of the CG over the ground [mm] with its ±, whether it only counts as assumed, and how it came about."""

    up_mm: float
    tol_mm: float
    assumed: bool
    working: Working


@dataclass(frozen=True, slots=True)
class _Lift:
    """``down_kg``: load on the axle that stays down, level and with the other raised; radii of down and raised
    wheels."""

    wheelbase_mm: float
    total_kg: float
    level_kg: float
    raised_kg: float
    rise_mm: float
    radius_down_mm: float
    radius_up_mm: float

    def angle(self) -> float:
        """How far the body turns: L sin a + (r_up − r_down) cos a = (r_up − r_down) + rise."""
        step = self.radius_up_mm - self.radius_down_mm
        reach, lean = math.hypot(self.wheelbase_mm, step), math.atan2(step, self.wheelbase_mm)
        return math.asin(min((step + self.rise_mm) / reach, 1.0)) - lean

    def height(self) -> float:
        """h = r + (a cos a − D (1 − F1 / W)) / sin a, moments about the raised axle; a is the CG's distance from the
        lower one."""
        turn, step = self.angle(), self.radius_up_mm - self.radius_down_mm
        apart = self.wheelbase_mm * math.cos(turn) - step * math.sin(turn)
        from_down = self.wheelbase_mm * (1 - self.level_kg / self.total_kg)
        now = apart * (1 - self.raised_kg / self.total_kg)
        return self.radius_down_mm + (from_down * math.cos(turn) - now) / math.sin(turn)


def cg_height(vehicle: Vehicle, total_kg: float) -> HeightResult | None:
    """The height as given, or by the lift; None where nobody gave one.

    Args:
        total_kg: mass of the car as it stood on the scales.
    Source: ISO 10392 for the lift; with equal radii h = r + (F1 − F0) L / (W tan a), sin a = rise / L. Valid for a
    blocked suspension, released brakes, level scales."""
    height = vehicle.cg_height
    if height is None:
        return None
    if not isinstance(height, CgLifted):
        assumed = height.basis == "assumed" or height.tolerance_mm > MOST_TOL_MM
        return HeightResult(height.up_mm, height.tolerance_mm, assumed, ())
    radii = (height.radius_front_mm, height.radius_rear_mm)
    down, up = radii if height.raised == "rear" else radii[::-1]
    lift = _Lift(vehicle.wheelbase_mm, total_kg, height.level_kg, height.raised_kg, height.rise_mm, down, up)
    found = lift.height()
    half = height.step_kg / 2
    off = (
        replace(lift, level_kg=lift.level_kg + half),
        replace(lift, raised_kg=lift.raised_kg + half),
        replace(lift, total_kg=lift.total_kg + half),
        replace(lift, rise_mm=lift.rise_mm + height.rise_tol_mm),
    )
    tol = math.sqrt(math.fsum((one.height() - found) ** 2 for one in off))
    return HeightResult(found, tol, tol > MOST_TOL_MM, _working(lift, found, tol, half))


def _working(lift: _Lift, found_mm: float, tol_mm: float, half_mm: float) -> Working:
    turn = lift.angle()
    gain = lift.raised_kg - lift.level_kg
    slope = lift.wheelbase_mm / (lift.total_kg * math.tan(turn))
    return (
        Step("angle of the lift", f"sin a = {lift.rise_mm:g} / {lift.wheelbase_mm:g}", math.degrees(turn), "°", METHOD),
        Step("gain of the lower axle", f"{lift.raised_kg:g} − {lift.level_kg:g}", gain, "kg", "scales"),
        Step(
            "over the lower wheel centres",
            "gain × L / (W tan a), unequal radii allowed for",
            found_mm - lift.radius_down_mm,
            "mm",
            METHOD,
        ),
        Step("height of the CG", f"+ radius {lift.radius_down_mm:g}", found_mm, "mm", METHOD),
        Step("a kilogram more or less moves it by", "L / (W tan a)", slope, "mm", METHOD),
        Step("±", f"half a step of {half_mm * 2:g} kg at each reading, and the rise", tol_mm, "mm", "root-sum-square"),
    )
