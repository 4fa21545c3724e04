"""Axle and corner loads: laws that hold whatever the masses."""

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from levelcradle.core.analysis import Analysis, analyse
from levelcradle.core.design import validate
from levelcradle.core.design.vehicle import Corners, Vehicle
from levelcradle.core.finding import message_text
from levelcradle.core.level import MassRow, found_loads, loads_after

CORNERS = {"type": "corners", "lf_kg": 268.0, "rf_kg": 264.0, "lr_kg": 228.0, "rr_kg": 225.0, "step_kg": 2.0}
VEHICLE = Vehicle.model_validate({"wheelbase_mm": 2480.0, "track_mm": {"front": 1310.0, "rear": 1290.0}})
MASSES = st.lists(
    st.builds(
        MassRow, st.just("p"), st.just("n"), st.floats(-90, 90), st.floats(0, 5),
        st.tuples(st.floats(-600, 3400), st.floats(-700, 700), st.floats(100, 1200)),
    ),
    max_size=8,
)  # fmt: skip


def after(changes: list[MassRow]) -> Any:
    found = found_loads(VEHICLE, Corners.model_validate(CORNERS))
    assert found is not None
    return found, loads_after(found, changes, VEHICLE)


@given(MASSES)
def test_loads_are_in_equilibrium(changes: list[MassRow]) -> None:
    """Sums and moments about the rear axle line and the ground, taken apart from the code that made them."""
    found, ready = after(changes)
    assert ready.total_kg == pytest.approx(985 + sum(m.mass_kg for m in changes))
    about_rear = found.front_kg * 2480 + sum(m.mass_kg * (2480 - m.at[0]) for m in changes)
    assert ready.front_kg * 2480 == pytest.approx(about_rear, abs=1e-3)


@given(MASSES)
def test_corners_add_up_to_their_axles_and_keep_the_side_moment(changes: list[MassRow]) -> None:
    _, ready = after(changes)
    c = ready.corners
    assert c is not None
    assert c.lf_kg + c.rf_kg == pytest.approx(ready.front_kg)
    assert c.lr_kg + c.rr_kg == pytest.approx(ready.rear_kg)
    moment = (c.rf_kg - c.lf_kg) * 655 + (c.rr_kg - c.lr_kg) * 645
    assert moment == pytest.approx(ready.total_kg * ready.across_mm, abs=1e-3)


@given(MASSES)
def test_taking_out_what_was_put_in_returns_the_car_as_found(changes: list[MassRow]) -> None:
    back = [MassRow(m.path, m.name, -m.mass_kg, 0.0, m.at) for m in changes]
    found, ready = after(changes + back)
    assert ready.front_kg == pytest.approx(found.front_kg)
    assert ready.corners.lf_kg == pytest.approx(found.corners.lf_kg)


def test_a_mass_behind_the_rear_axle_lightens_the_front() -> None:
    found, ready = after([MassRow("p", "n", 50.0, 0.0, (3000.0, 0.0, 500.0))])
    assert ready.front_kg < found.front_kg


def test_the_tolerance_is_root_sum_square_of_readings_and_levers() -> None:
    """Two readings in steps of 2, bounds of 1 each: 2 / √3; one mass ± 3 at the rear axle line."""
    _, ready = after([MassRow("p", "n", 50.0, 3.0, (2480.0, 0.0, 500.0))])
    assert ready.off.rear_kg == pytest.approx((4 / 3 + 4 / 3 + 9) ** 0.5)
    assert ready.off.front_kg == pytest.approx((8 / 3) ** 0.5)


def level(tree: dict[str, Any]) -> Analysis:
    return analyse(validate(tree), {})


def codes(analysis: Analysis) -> dict[str, str]:
    return {f.id: f.state for f in analysis.findings if f.station == "level"}


def test_from_axle_readings_alone_left_and_right_are_not_weighed(tree: dict[str, Any]) -> None:
    tree["weighings"]["as-found"]["read"] = {"type": "axles", "front_kg": 532, "rear_kg": 453, "step_kg": 10}
    analysis = level(tree)
    assert analysis.level.ready is not None
    assert analysis.level.ready.corners is None
    assert analysis.level.ready.rear_kg == pytest.approx(606.2, abs=0.05)
    assert codes(analysis)["level:across"] == "unknown"


def test_a_car_that_was_not_weighed_says_so(tree: dict[str, Any]) -> None:
    del tree["weighings"]["as-found"]
    assert codes(level(tree)) == {"level:weigh": "unknown"}


def test_a_missing_mass_is_named_and_lets_nothing_pass(tree: dict[str, Any]) -> None:
    tree["items"]["charger"]["mass_kg"] = None
    found = codes(level(tree))
    assert found["level:missing:items/charger"] == "unknown"
    assert found["level:rating:ready:rear axle"] == "unknown"


def test_over_its_rating_is_foul(tree: dict[str, Any]) -> None:
    tree["vehicle"]["ratings"]["rear_kg"] = 850
    found = next(f for f in level(tree).findings if f.id == "level:rating:four-up:rear axle")
    assert found.state == "foul"
    assert message_text(found) == "Rear axle, four up: 5.1 kg over its rating, ± 3.6 kg"


def test_the_working_of_a_load_adds_up(tree: dict[str, Any]) -> None:
    found = next(f for f in level(tree).findings if f.id == "level:rating:four-up:rear axle")
    assert found.working is not None
    steps = found.working()
    rear = next(i for i, s in enumerate(steps) if s.what == "rear axle")
    assert sum(s.value for s in steps[:rear]) == pytest.approx(steps[rear].value)


def test_weighed_again_holds_the_prediction_against_the_scale(tree: dict[str, Any]) -> None:
    again = {"type": "axles", "front_kg": 587, "rear_kg": 620, "step_kg": 2}
    tree["weighings"]["finished"] = {"kind": "finished", "read": again}
    found = codes(level(tree))
    assert found["level:weighed:finished:front axle"] == "clear"
    assert found["level:weighed:finished:rear axle"] == "unknown"


def test_more_out_than_the_car_weighed_is_foul_and_no_number(tree: dict[str, Any]) -> None:
    tree["items"]["engine"]["mass_kg"] = 5000
    assert codes(level(tree)) == {"level:balance": "foul"}


@pytest.mark.parametrize(
    ("front", "across", "words"),
    [
        (52.0, 0.0, "heavy: rear"),
        (49.0, 0.0, "level"),
        (45.0, 0.0, "heavy: front"),
        (49.0, 60.0, "heavy: right"),
        (52.0, -60.0, "heavy: rear, left"),
    ],
)
def test_the_lean_is_said_against_the_target(tree: dict[str, Any], front: float, across: float, words: str) -> None:
    tree["vehicle"]["target"]["front_percent"] = front
    tree["items"]["motor"]["at_mm"][1] = across * 10
    lean = level(tree).level.lean
    assert lean is not None
    assert lean.words == words


def test_payload_counts_only_where_it_is_aboard(tree: dict[str, Any]) -> None:
    analysis = level(tree)
    names = {m.path for m in analysis.level.masses}
    assert "items/luggage" not in names
    assert [round(row.loads.total_kg, 1) for row in analysis.level.states] == [1266.9, 1541.9]
