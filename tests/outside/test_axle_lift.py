"""Height of the CG by raising an axle. Source: ISO 10392 (method; clause numbers not checked); both cases re-computed
by turning a rigid body about the lower wheel centre."""

import math

import pytest

from levelcradle.core.design import Vehicle
from levelcradle.core.design.vehicle import Axles
from levelcradle.core.level.lift import cg_height


def lifted(wheelbase: float, **lift: object) -> Vehicle:
    fields = {"basis": "lifted", "step_kg": 1.0, "rise_tol_mm": 0.0, **lift}
    return Vehicle.model_validate({"wheelbase_mm": wheelbase, "cg_height": fields})


def test_rear_axle_raised_by_500() -> None:
    """2,500 wheelbase, 1,300 kg, front 700 level and 732 raised, wheels 300: 601.476 mm at 11.537°."""
    car = lifted(
        2500.0,
        raised="rear",
        rise_mm=500.0,
        level_kg=700.0,
        raised_kg=732.0,
        radius_front_mm=300.0,
        radius_rear_mm=300.0,
    )
    found = cg_height(car, 1300.0)
    assert found is not None
    assert found.up_mm == pytest.approx(601.476, rel=1e-4)
    assert found.working[0].value == pytest.approx(11.537, rel=1e-4)
    # a kilogram more or less: L ΔF / (W tan a), first order
    assert found.working[4].value == pytest.approx(2500 / (1300 * math.tan(math.radians(11.537))), rel=1e-4)


def test_front_axle_raised_by_420() -> None:
    """2,380 wheelbase, 1,246 kg, rear 571 level and 594.747 raised, wheels 292: 545 mm."""
    car = lifted(
        2380.0,
        raised="front",
        rise_mm=420.0,
        level_kg=571.0,
        raised_kg=594.747,
        radius_front_mm=292.0,
        radius_rear_mm=292.0,
    )
    found = cg_height(car, 1246.0)
    assert found is not None
    assert found.up_mm == pytest.approx(545.0, abs=0.05)


def test_corners_from_axles_and_sides() -> None:
    """700 and 600 kg with a CG 15 mm left on tracks of 1,400: 357.5, 342.5, 306.429, 293.571 (proportional rule, common
    practice)."""
    left = 1300 * (0.5 + 15 / 1400)
    from levelcradle.core.level import found_loads

    weighing = Axles(type="axles", front_kg=700.0, rear_kg=600.0, step_kg=1.0, left_kg=left)
    car = Vehicle.model_validate({"wheelbase_mm": 2450.0, "track_mm": {"front": 1400.0, "rear": 1400.0}})
    found = found_loads(car, weighing)
    assert found is not None
    assert found.corners is not None
    expected = [357.5, 342.5, 306.429, 293.571]
    assert [found.corners.lf_kg, found.corners.rf_kg, found.corners.lr_kg, found.corners.rr_kg] == pytest.approx(
        expected, rel=1e-4
    )
    assert found.across_mm == pytest.approx(-15.0)
