"""Loads and centres of gravity against worked examples by moments of force.

Source: statics, worked by hand and re-computed by script; each example states its own figures. Left is negative here.
"""

import pytest

from levelcradle.core.design.vehicle import Vehicle, Weighed, Weighing
from levelcradle.core.level import Corners, MassRow, corner_loads, found_loads, loads_after


def car_of(wheelbase: float, read: dict[str, object], **more: object) -> tuple[Vehicle, Weighing]:
    return Vehicle.model_validate({"wheelbase_mm": wheelbase} | more), Weighed.model_validate(
        {"kind": "as found", "read": read}
    ).read


def test_centre_of_gravity_from_four_wheel_scales() -> None:
    """361, 339, 295, 305 kg on 2,450 mm and tracks 1,420 / 1,400: 1,130.77 aft, 6.63 left, front 53.846 %."""
    corners = {"type": "corners", "lf_kg": 361.0, "rf_kg": 339.0, "lr_kg": 295.0, "rr_kg": 305.0, "step_kg": 1.0}
    found = found_loads(*car_of(2450.0, corners, track_mm={"front": 1420.0, "rear": 1400.0}))
    assert found is not None
    assert found.total_kg == 1300
    assert found.aft_mm == pytest.approx(1130.77, rel=1e-4)
    assert found.across_mm == pytest.approx(-6.63077, rel=1e-4)
    assert found.front_percent == pytest.approx(53.8462, rel=1e-4)


def test_removals_and_additions() -> None:
    """Kerb vehicle 1,180 kg, six items out and in: 1,348 kg, 1,148.78 aft, 546.217 up, axles 715.939 / 632.061."""
    rows = [
        (-150, -90, 20, 560),
        (-35, 480, 0, 380),
        (-62, 2050, -60, 430),
        (92, 40, -35, 470),
        (118, -60, 25, 640),
        (205, 1990, 70, 480),
    ]
    rear = 1180 * 1080 / 2450
    weighing = {"type": "axles", "front_kg": 1180 - rear, "rear_kg": rear, "step_kg": 1.0}
    height = {"up_mm": 545.0, "tolerance_mm": 0.0, "basis": "measured"}
    car, read = car_of(2450.0, weighing, cg_height=height)
    found = found_loads(car, read)
    assert found is not None
    assert found.front_kg == pytest.approx(659.837, rel=1e-4)
    ready = loads_after(found, [MassRow("", "", m, 0.0, (x, y, z)) for m, x, y, z in rows], car)
    assert ready.total_kg == pytest.approx(1348)
    assert ready.aft_mm == pytest.approx(1148.78, rel=1e-4)
    assert ready.up_mm == pytest.approx(546.217, rel=1e-4)
    assert (ready.front_kg, ready.rear_kg) == pytest.approx((715.939, 632.061), rel=1e-4)
    assert ready.front_percent == pytest.approx(53.1112, rel=1e-4)


def test_a_mass_behind_the_rear_axle() -> None:
    """100 kg at 3,050 aft on 2,450: rear + 124.49, front − 24.4898."""
    car, read = car_of(2450.0, {"type": "axles", "front_kg": 600.0, "rear_kg": 500.0, "step_kg": 1.0})
    found = found_loads(car, read)
    assert found is not None
    ready = loads_after(found, [MassRow("", "", 100.0, 0.0, (3050.0, 0.0, 0.0))], car)
    assert ready.rear_kg - found.rear_kg == pytest.approx(124.49, rel=1e-4)
    assert ready.front_kg - found.front_kg == pytest.approx(-24.4898, rel=1e-4)


def test_corner_loads_by_the_proportional_rule() -> None:
    """Axles 700 / 600 kg, CG 15 left, tracks 1,400: 357.5, 342.5, 306.429, 293.571 (common practice, no source)."""
    from levelcradle.core.design.vehicle import Track

    even = Corners(350.0, 350.0, 300.0, 300.0)
    found = corner_loads(even, 700.0, 600.0, -15.0 * 1300, Track(front=1400.0, rear=1400.0))
    assert (found.lf_kg, found.rf_kg) == pytest.approx((357.5, 342.5), rel=1e-4)
    assert (found.lr_kg, found.rr_kg) == pytest.approx((306.429, 293.571), rel=1e-4)


def test_centre_of_gravity_rises_with_a_mass_put_high() -> None:
    """1,208 kg at 548, and 118 kg at 905: 579.769 (first moment)."""
    weighing = {"type": "axles", "front_kg": 604.0, "rear_kg": 604.0, "step_kg": 1.0}
    car, read = car_of(2400.0, weighing, cg_height={"up_mm": 548.0, "tolerance_mm": 0.0, "basis": "measured"})
    found = found_loads(car, read)
    assert found is not None
    ready = loads_after(found, [MassRow("", "", 118.0, 0.0, (1000.0, 0.0, 905.0))], car)
    assert ready.up_mm == pytest.approx(579.769, rel=1e-5)
