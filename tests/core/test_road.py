"""Over humps, over the top of a ramp and away from its foot: what is left under a box."""

import math
from typing import Any

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from levelcradle.core.design import validate
from levelcradle.core.design.vehicle import Hump
from levelcradle.core.errors import DesignError
from levelcradle.core.finding import Finding
from levelcradle.core.level.road import at_the_foot, over_hump, over_top
from tests.core.test_verdict_rules import RATES, SIZE, grounded, weighed
from tests.plain import found

BASE = 2500.0
ROAD = {"hump": {"long_mm": 900.0, "high_mm": 75.0}, "ramp_percent": 20.0}


def one(aft: float, up: float, hump: Hump, tyre: float = 300.0) -> float:
    return float(over_hump(np.array([aft]), np.array([up]), BASE, hump, tyre)[0])


@given(long=st.floats(200, 600), high=st.floats(20, 90), up=st.floats(50, 400))
def test_a_short_hump_between_the_axles_takes_all_its_height(long: float, high: float, up: float) -> None:
    """Both wheels stand on the flat while it is under the middle."""
    assume(high <= long / 2)
    assert one(BASE / 2, up, Hump(long_mm=long, high_mm=high)) == pytest.approx(up - high, abs=0.1)


@given(aft=st.floats(0, BASE), up=st.floats(50, 400), high=st.floats(10, 90))
def test_a_hump_is_met_alike_from_either_end(aft: float, up: float, high: float) -> None:
    hump = Hump(long_mm=1500.0, high_mm=high)
    assert one(aft, up, hump) == pytest.approx(one(BASE - aft, up, hump), abs=0.3)


@given(aft=st.floats(-800, 3400), up=st.floats(50, 400), high=st.floats(10, 90), more=st.floats(1, 60))
def test_a_higher_hump_leaves_less_and_a_higher_box_as_much_more(
    aft: float, up: float, high: float, more: float
) -> None:
    hump, higher = Hump(long_mm=1200.0, high_mm=high), Hump(long_mm=1200.0, high_mm=high + more)
    assert one(aft, up, higher) <= one(aft, up, hump) + 0.5
    assert one(aft, up + more, hump) == pytest.approx(one(aft, up, hump) + more, abs=1e-6)


def test_under_an_axle_a_hump_lifts_the_car_with_it() -> None:
    """Where a point wheel stands nothing comes nearer than it stands on the flat."""
    hump = Hump(long_mm=1200.0, high_mm=80.0)
    for at in (0.0, BASE):
        assert one(at, 200.0, hump, tyre=1.0) == pytest.approx(200.0, abs=0.5)


def test_a_hump_as_long_as_the_car_rolled_over_by_hand() -> None:
    """On its top the middle of a chord of the wheelbase stands R − √(R² − L²/4) below the top; point wheels."""
    hump = Hump(long_mm=6000.0, high_mm=200.0)
    radius = (3000.0**2 + 200.0**2) / 400.0
    sagitta = radius - math.sqrt(radius**2 - (BASE / 2) ** 2)
    left = one(BASE / 2, 200.0, hump, tyre=1.0)
    assert left == pytest.approx(200.0 - sagitta, abs=0.5)  # standing aslant on it a little less


@given(aft=st.floats(0, BASE), percent=st.floats(1, 50))
def test_the_top_of_a_ramp_is_two_straight_lines(aft: float, percent: float) -> None:
    """The chord from wheel to wheel over a kink, by its own points: one wheel on the flat, one on the ramp."""
    slope = percent / 100
    rear = np.array([BASE - aft, -slope * (BASE - aft)])  # from the kink, on the ramp
    front = np.array([-aft, 0.0])
    chord = front[1] + (rear[1] - front[1]) * aft / BASE
    assert float(over_top(np.array([aft]), np.array([0.0]), BASE, slope)[0]) == pytest.approx(chord, abs=1e-6)


def test_beyond_the_axles_the_foot_counts_and_between_them_the_top() -> None:
    aft, up = np.array([-600.0, 1250.0, 3300.0]), np.full(3, 200.0)
    assert at_the_foot(aft, up, BASE, 0.25).tolist() == [50.0, 200.0, 0.0]
    assert over_top(aft, up, BASE, 0.16).tolist() == [200.0, 100.0, 200.0]


def on_the_road(up: float, **more: Any) -> dict[str, Finding]:
    return {key: f for key, f in grounded(up, **{"wheel_rates": RATES, "overall": SIZE, **more}).items()
            if key in ("hump", "top", "foot")}  # fmt: skip


def test_what_nobody_said_that_it_is_to_pass_is_not_asked() -> None:
    assert on_the_road(200.0) == {}
    assert set(on_the_road(200.0, road={"ramp_percent": 15.0})) == {"top", "foot"}
    assert set(on_the_road(200.0, road={"hump": ROAD["hump"]})) == {"hump"}


@pytest.mark.parametrize(("up", "state"), [(60.0, "foul"), (80.0, "tight"), (330.0, "clear")])
def test_a_box_over_a_hump_has_its_verdict(up: float, state: str) -> None:
    """It stands between the axles, and sinks by nothing but the box itself."""
    hump = on_the_road(up, road=ROAD)["hump"]
    assert hump.limit == 0.0
    assert hump.state == state
    assert hump.value is not None
    assert hump.value < up


def test_a_high_box_far_behind_is_asked_at_the_foot_too() -> None:
    tree: dict[str, Any] = {"wheel_rates": RATES, "overall": SIZE, "road": {"ramp_percent": 40.0}}
    assert on_the_road(500.0, **tree)["foot"].state == "clear"


def test_without_wheel_rates_it_is_not_known_and_says_why() -> None:
    rows = on_the_road(200.0, road=ROAD, wheel_rates=None)
    assert {f.state for f in rows.values()} == {"unknown"}
    assert all("wheel rates" in f.rationale for f in rows.values())


def test_a_laden_car_comes_lower_over_it() -> None:
    tree = weighed(wheel_rates=RATES, overall=SIZE, road=ROAD)
    tree["boxes"]["x"]["pose"]["at_mm"][2] = 200.0
    alone = next(f for f in found(tree, "ground") if f.id.endswith("hump"))
    tree["items"] = {"p": {"name": "people", "state": "payload", "mass_kg": 300.0, "at_mm": [1250.0, 0.0, 600.0]}}
    tree["load_states"] = {"full": {"name": "full", "aboard": {"p": True}}}
    full = next(f for f in found(tree, "ground") if f.id.endswith("hump"))
    assert alone.value is not None
    assert full.value == pytest.approx(alone.value - 300 * 9.80665 / 4 / 20, abs=0.1)
    assert "(full)" in full.message


@pytest.mark.parametrize("road", [{"ramp_percent": 0}, {"ramp_percent": 61}, {"hump": {"long_mm": 100, "high_mm": 60}}])
def test_what_is_no_road_is_refused_at_its_field(road: dict[str, Any]) -> None:
    with pytest.raises(DesignError, match="/vehicle/road"):
        validate(weighed(road=road))
