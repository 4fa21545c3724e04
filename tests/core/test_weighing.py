"""Every way of weighing leads to the bare vehicle; what nobody measured stays marked."""

import math
from typing import Any

import pytest

from levelcradle.core.analysis import analyse
from levelcradle.core.design import Vehicle, validate
from levelcradle.core.design.vehicle import Weighed, Weighing
from levelcradle.core.finding import message_text
from levelcradle.core.level import found_loads, loads_after
from levelcradle.core.level.balance import BY_ROLL, BY_SIDES, corner_loads
from levelcradle.core.level.balance import Corners as CornerLoads
from levelcradle.core.level.lift import cg_height

DRIVER = {"name": "driver", "mass_kg": 80.0, "tol_kg": 1.0, "at_mm": [1200.0, 330.0, 600.0]}
FUEL = {"name": "fuel", "fluid": {"volume_l": 20.0, "density_kg_l": 0.75}, "at_mm": [2800.0, 0.0, 450.0]}


def car(read: dict[str, Any], **more: Any) -> tuple[Vehicle, Weighing]:
    vehicle = Vehicle.model_validate({"wheelbase_mm": 2480.0, "track_mm": {"front": 1310.0, "rear": 1290.0}, **more})
    return vehicle, Weighed.model_validate({"kind": "as found", "read": read}).read


def test_people_fuel_and_load_are_taken_off_again() -> None:
    """80 kg at 1,200 and 15 kg at 2,800 of a wheelbase of 2,480."""
    axles = {
        "type": "axles",
        "front_kg": 560.0,
        "rear_kg": 500.0,
        "step_kg": 10.0,
        "aboard": {"driver": DRIVER, "fuel": FUEL},
    }
    found = found_loads(*car(axles))
    assert found is not None
    rear = 500 - 80 * 1200 / 2480 - 15 * 2800 / 2480
    assert (found.rear_kg, found.front_kg) == (pytest.approx(rear), pytest.approx(1060 - 95 - rear))
    assert found.off.rear_kg == pytest.approx(math.hypot(10 / math.sqrt(3), 1200 / 2480)), (
        "half a step as a bound, and the driver's ±"
    )


def test_left_and_right_from_a_side_reading() -> None:
    found = found_loads(*car({"type": "axles", "front_kg": 560.0, "rear_kg": 440.0, "step_kg": 10.0, "left_kg": 520.0}))
    assert found is not None
    assert found.rule == BY_SIDES
    assert found.corners == CornerLoads(560 * 0.52, 560 * 0.48, 440 * 0.52, 440 * 0.48)
    assert found.across_mm == pytest.approx(-0.02 * (560 * 1310 + 440 * 1290) / 1000)


def test_a_total_with_an_assumed_split_passes_no_rating(tree: dict[str, Any]) -> None:
    tree["weighings"]["as-found"]["read"] = {"type": "total", "total_kg": 985, "step_kg": 20, "front_percent": 54}
    ratings = [f for f in analyse(validate(tree), {}).findings if f.code == "level.rating"]
    assert ratings
    assert {f.state for f in ratings} <= {"unknown", "foul"}
    assert ratings[0].rationale == "the split between the axles is assumed"


def test_a_guessed_mass_passes_no_rating(tree: dict[str, Any]) -> None:
    tree["readings"]["/items/motor/mass_kg"] = {"text": "79", "unit": "kg", "basis": "assumed"}
    ratings = [f for f in analyse(validate(tree), {}).findings if f.code == "level.rating"]
    assert {f.state for f in ratings} == {"unknown"}
    assert ratings[0].rationale == "the mass of motor is a guess until it is weighed, or until somebody answers for it"


def test_corner_sums_against_an_axle_scale(tree: dict[str, Any]) -> None:
    tree["weighings"]["as-found"]["read"]["check"] = {"front_kg": 530, "rear_kg": 470, "step_kg": 5}
    found = {f.id: f for f in analyse(validate(tree), {}).findings}
    assert found["survey:axles:front"].state == "clear"
    assert found["survey:axles:rear"].state == "unknown"
    assert message_text(found["survey:axles:rear"]) == "Rear wheels add up to 453.0 kg, the axle scale reads 470.0 kg"


def test_the_list_balances(tree: dict[str, Any]) -> None:
    sums = analyse(validate(tree), {}).level.sums_kg
    assert sums["found"] == pytest.approx(sums["kept"] + sums["out"])
    tree["items"]["fuel"] |= {"mass_kg": None, "fluid": {"volume_l": 18, "density_kg_l": 13.4 / 18}}
    assert analyse(validate(tree), {}).level.sums_kg == pytest.approx(sums)


def test_side_moment_by_roll_stiffness_keeps_sums_and_cross_weight() -> None:
    vehicle, read = car(
        {"type": "corners", "lf_kg": 268.0, "rf_kg": 264.0, "lr_kg": 228.0, "rr_kg": 225.0, "step_kg": 2.0},
        wheel_rates={"front_n_per_mm": 20.0, "rear_n_per_mm": 23.0},
    )
    found = found_loads(vehicle, read)
    assert found is not None
    assert found.corners is not None
    assert vehicle.track_mm is not None
    after = corner_loads(found.corners, 532.0, 453.0, 9000.0, vehicle.track_mm, vehicle.wheel_rates)
    front, rear = after.rf_kg - after.lf_kg + 4, after.rr_kg - after.lr_kg + 3
    assert front * 1310 + rear * 1290 == pytest.approx(2 * 9000)
    assert (front * 1310) / (rear * 1290) == pytest.approx(20 * 1310**2 / (23 * 1290**2))
    assert BY_ROLL in loads_after(found, [], vehicle).rule


LIFT = {"basis": "lifted", "raised": "rear", "rise_mm": 500.0, "level_kg": 532.0, "raised_kg": 560.0, "step_kg": 1.0,
        "radius_front_mm": 290.0, "radius_rear_mm": 290.0}  # fmt: skip


def test_a_coarse_scale_makes_the_lift_an_assumption(tree: dict[str, Any]) -> None:
    tree["vehicle"]["cg_height"] = LIFT
    found = {f.id: f for f in analyse(validate(tree), {}).findings}
    assert found["level:lift"].state == "note"
    assert found["level:lift"].working is not None
    tree["vehicle"]["cg_height"] = {**LIFT, "step_kg": 20.0}
    found = {f.id: f for f in analyse(validate(tree), {}).findings}
    assert found["level:lift"].state == "unknown"
    tree["vehicle"]["cg_height"] = {**LIFT, "raised_kg": 400.0}
    assert {f.id: f for f in analyse(validate(tree), {}).findings}["level:lift"].state == "foul"


@pytest.mark.parametrize("raised", ["front", "rear"])
def test_lift_with_unequal_wheels_found_again_by_turning_the_body(raised: str) -> None:
    """The body is turned about the lower wheel centre and the readings are taken from moments; the height comes
    back."""
    wheelbase, mass, cg = 2480.0, 1100.0, (1150.0, 561.0)
    front, rear = (0.0, 280.0), (wheelbase, 305.0)
    low, up = (front, rear) if raised == "rear" else (rear, front)
    turn = 0.21 if raised == "rear" else -0.21

    def moved(p: tuple[float, float]) -> tuple[float, float]:
        x, z = p[0] - low[0], p[1] - low[1]
        return low[0] + x * math.cos(turn) - z * math.sin(turn), low[1] + x * math.sin(turn) + z * math.cos(turn)

    raised_reading = mass * (moved(up)[0] - moved(cg)[0]) / (moved(up)[0] - low[0])
    level = mass * (up[0] - cg[0]) / (up[0] - low[0])
    vehicle, _ = car(
        {"type": "axles", "front_kg": mass - mass * cg[0] / wheelbase, "rear_kg": mass * cg[0] / wheelbase,
        "step_kg": 1.0},
        cg_height={**LIFT, "raised": raised, "rise_mm": moved(up)[1] - up[1], "level_kg": level,
        "raised_kg": raised_reading,
                   "radius_front_mm": front[1], "radius_rear_mm": rear[1]},
    )  # fmt: skip
    found = cg_height(vehicle, mass)
    assert found is not None
    assert found.up_mm == pytest.approx(cg[1], abs=1e-6)
