"""Shocks of a box that answers quickly are taken times 1.2 only where a stated stiffness of the vehicle lets it."""

import math
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from levelcradle.core.assembly import resolve
from levelcradle.core.design import tree_of, validate
from levelcradle.core.edits import edited, with_load_set
from levelcradle.core.finding import Finding
from levelcradle.core.mount.frequency import inertia_of, lowest_hz
from tests.core.crossed import crossed
from tests.core.hung import angles
from tests.core.test_gear import fixed
from tests.core.test_rest import car
from tests.plain import analysed, box_at, lined, plain_car

GUESSED = {"/hardpoints/left0/at_mm/2": {"text": "406", "basis": "assumed"}}
WELDED = {"type": "welded", "from_mm": 22.0, "length_mm": 90.0}
KG, SIZE = 100.0, (600.0, 400.0, 250.0)


def evenly(size: tuple[float, float, float]) -> Any:
    a, b, c = size
    return np.diag([b * b + c * c, a * a + c * c, a * a + b * b]) * KG / 12


def corners(size: tuple[float, float, float], off_mm: float = 0.0) -> Any:
    return np.array([(x * size[0] / 2, y * size[1] / 2, off_mm) for x in (-1, 1) for y in (-1, 1)])


def springs(n_mm: float, count: int = 4) -> Any:
    return np.array([n_mm * np.eye(3)] * count)


def test_a_flat_box_on_springs_in_its_middle_plane_goes_up_and_down_as_the_textbook_says() -> None:
    """ω² = 4 k / m; one twice as tall as long rocks first, about the way across: ω² = 12 k a² / m (a² + c²)
    (vibration of a rigid body, statics and dynamics)."""
    heave = math.sqrt(4 * 5e6 / KG) / (2 * math.pi)
    assert lowest_hz(KG, evenly(SIZE), corners(SIZE), springs(5000.0)) == pytest.approx(heave)
    tall = (300.0, 1200.0, 600.0)
    rock = math.sqrt(12 * 5e6 * 300**2 / KG / (300**2 + 600**2)) / (2 * math.pi)
    assert rock < heave
    assert lowest_hz(KG, evenly(tall), corners(tall), springs(5000.0)) == pytest.approx(rock)


@given(st.floats(1.0, 1e5), st.floats(-400, 400))
def test_four_times_as_stiff_shakes_twice_as_fast_and_none_is_faster_off_its_middle(k: float, off_mm: float) -> None:
    arms, even = corners(SIZE, off_mm), evenly(SIZE)
    once = lowest_hz(KG, even, arms, springs(k))
    assert lowest_hz(KG, even, arms, springs(4 * k)) == pytest.approx(2 * once, rel=1e-6)
    assert once <= lowest_hz(KG, even, corners(SIZE), springs(k)) * (1 + 1e-9)


def test_what_is_free_some_way_does_not_shake_that_way_at_all() -> None:
    up = np.array([5000.0 * np.diag([0.0, 0.0, 1.0])] * 4)
    assert lowest_hz(KG, evenly(SIZE), corners(SIZE), up) == pytest.approx(0.0, abs=1e-3)


@pytest.mark.parametrize("yaw_deg", [0, 90])
def test_a_box_full_of_bricks_is_about_as_hard_to_turn_as_an_even_block(yaw_deg: float) -> None:
    """And that about the vehicle's own ways, whichever way it stands."""
    box = {**box_at((1000.0, -117.0, 400.0), (4, 2, 2)), "layers": lined()}
    box["pose"] = {**box["pose"], "yaw_deg": yaw_deg}
    placed = resolve(validate(plain_car(boxes={"x": box})), {}).boxes["x"]
    a, b, c = placed.shell.outer_mm if not yaw_deg else np.array(placed.shell.outer_mm)[[1, 0, 2]]
    even = np.array([b * b + c * c, a * a + c * c, a * a + b * b]) * placed.hung_kg / 12
    found = inertia_of(placed)
    assert np.diag(found) == pytest.approx(even, rel=0.15)
    assert np.abs(found - np.diag(np.diag(found))).max() < 0.05 * even.min()


def stated(n_mm: float | None, tree: dict[str, Any] | None = None, *, stiff: bool = True) -> list[Finding]:
    tree = tree or angles(to_box=WELDED, width_mm=90.0)
    tree["tables"] = {**tree["tables"], "vehicle_stiffness_n_per_mm": n_mm}
    design = validate(tree)
    taken = edited(design, with_load_set(design, "r100-m1-n1-stiff")) if stiff else design
    return [f for f in analysed(tree_of(taken)).findings if f.code == "mount.shakes"]


@pytest.mark.parametrize(("n_mm", "states"), [(None, ["foul"]), (100.0, ["foul"]), (50_000.0, ["clear"])])
def test_the_softer_cases_stand_only_on_a_stated_stiffness_that_is_enough(
    n_mm: float | None, states: list[str]
) -> None:
    found = stated(n_mm)
    assert [f.state for f in found] == states
    assert ("nobody has stated" in found[0].message) == (n_mm is None)


@pytest.mark.parametrize(("share", "state"), [(0.99, "foul"), (1.01, "clear")])
def test_thirty_hertz_is_where_it_turns(share: float, state: str) -> None:
    """As stiff as 30 Hz asks for: the square of how much faster it is to be."""
    (found,) = stated(50_000.0)
    assert found.working
    hz = found.working()[-1].value
    assert [f.state for f in stated(50_000.0 * (share * 30.0 / hz) ** 2)] == [state]


def test_a_pad_holds_nothing_sideways() -> None:
    """One bolt and two pads in a row leave a box free to turn about the bolt."""
    assert [f.state for f in stated(1e6, car(bolts=1))] == ["foul"]


def test_what_nobody_has_weighed_or_measured_is_not_called_clear() -> None:
    tree = angles(to_box=WELDED, width_mm=90.0)
    tree["readings"] = GUESSED
    assert [f.state for f in stated(50_000.0, tree)] == ["unknown"]
    gear = fixed("left", ("front", "base"), 60, 30, -60, (40, 60, 40))
    (found,) = stated(50_000.0, {**angles(to_box=WELDED, width_mm=90.0), "items": {"g": gear}})
    assert found.state == "unknown"
    assert "mass or place of thing is missing" in found.rationale
    assert [f.state for f in stated(100.0, tree)] == ["foul"]


def test_where_no_case_counts_on_it_it_is_told_and_asks_nothing() -> None:
    assert [f.state for f in stated(100.0, stiff=False)] == ["note"]
    assert stated(None, stiff=False) == []


def test_rubber_under_a_mount_is_in_series_and_softer_than_either() -> None:
    soft = angles(to_box=WELDED, width_mm=90.0)
    for key, mount in soft["mounts"].items():
        mount["lands_on"]["isolator"] = {
            "thick_mm": 15.0,
            "stiffness_n_per_mm": 300.0,
            "travel_mm": 5.0,
            "captive": True,
        }
        soft["hardpoints"][key]["at_mm"][2] -= 15.0
    assert [f.state for f in stated(50_000.0, soft)] == ["foul"]


def test_a_bar_between_is_softer_than_what_is_stated_and_nobody_has_worked_out_how_much() -> None:
    found = stated(50_000.0, crossed({"size_mm": 60, "wall_mm": 5}))
    assert [f.state for f in found] == ["foul"]
    assert "stands on a crossmember" in found[0].message


def test_the_cases_are_less_by_what_the_shock_is_multiplied_with() -> None:
    design = validate(angles(to_box=WELDED, width_mm=90.0))
    slow, fast = (edited(design, with_load_set(design, f"r100-m1-n1{end}")).tables.load_cases for end in ("", "-stiff"))
    assert fast["front"].aft_g == pytest.approx(slow["front"].aft_g * 1.2 / 1.7)
    assert fast["front"].least_hz == 30.0
    assert slow["front"].least_hz is None
