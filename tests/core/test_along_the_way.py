"""Weighed along the way: what was to be expected, by moments taken by hand, against what the scales say; a box by the
scale."""

from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from levelcradle.core.finding import Finding
from tests.plain import analysed, as_found, box_at, found, plain_car
from tests.stranger import stranger_tree

BASE = 2500.0


def axles(front: float, rear: float, step: float = 0.01) -> dict[str, Any]:
    return {"type": "axles", "front_kg": front, "rear_kg": rear, "step_kg": step}


def thing(state: str, kg: float, aft: float) -> dict[str, Any]:
    return {"name": f"{state} {kg:g}", "state": state, "mass_kg": kg, "at_mm": [aft, 0.0, 400.0]}


def weighed(tree: dict[str, Any], key: str) -> list[Finding]:
    return [f for f in found(tree, "level.weighed") if f.subjects == (f"weighings/{key}",)]


KG, AFT = st.floats(1, 60), st.floats(-300, 3200)
THINGS = st.lists(st.tuples(st.sampled_from(["out", "in"]), KG, AFT, st.booleans()), min_size=1, max_size=6)


@settings(max_examples=40, deadline=None)
@given(THINGS, st.floats(-30, 30))
def test_on_the_way_what_was_done_by_then_is_expected_and_nothing_else(
    rows: list[tuple[str, float, float, bool]], off: float
) -> None:
    tree = plain_car(weighings=as_found(axles(500.0, 450.0)))
    tree["items"] = {f"t{n}": thing(*row[:3]) for n, row in enumerate(rows)}
    done = {f"items/t{n}": True for n, row in enumerate(rows) if row[3]}
    moved = [(kg if state == "in" else -kg, aft) for state, kg, aft, is_done in rows if is_done]
    rear = 450.0 + sum(kg * aft / BASE for kg, aft in moved)
    front = 950.0 + sum(kg for kg, _ in moved) - rear
    tree["weighings"]["half"] = {"kind": "on the way", "order": 1, "read": axles(front + off, rear, 1.0), "done": done}
    states = {f.label: f.state for f in weighed(tree, "half")}
    assert (
        states == {"front axle": "clear" if abs(off) <= 0.57 else "unknown", "rear axle": "clear"}
        or 0.57 < abs(off) < 0.6
    )


def test_stripped_all_that_comes_out_is_out_and_nothing_is_in() -> None:
    """A newcomer's job: the engine at 150, the exhaust at 1,500 and the tank at 2,600 leave 317.9 and 396.1."""
    tree = stranger_tree()
    tree["weighings"]["stripped"] = {"kind": "stripped", "order": 1, "read": axles(321.0, 394.0, 1.0)}
    front, rear = weighed(tree, "stripped")
    assert (front.limit, rear.limit) == (pytest.approx(317.88, abs=0.01), pytest.approx(396.12, abs=0.01))
    assert (front.state, rear.state) == ("unknown", "unknown")
    for item in ("engine", "exhaust", "fuel-tank"):  # weighed to a kilogram or three, as one does
        tree["items"][item]["tol_kg"] = 3.0
    assert [f.state for f in weighed(tree, "stripped")] == ["clear", "clear"]


def test_a_car_bought_without_its_engine_is_counted_from_what_it_weighed_then() -> None:
    whole, bare = stranger_tree(), stranger_tree()
    bare["weighings"] = {"stripped": {"kind": "stripped", "read": axles(317.8797, 396.1203)}}
    ready = [analysed(tree).level.ready for tree in (whole, bare)]
    assert ready[0]
    assert ready[1]
    assert (ready[1].front_kg, ready[1].rear_kg) == (
        pytest.approx(ready[0].front_kg, abs=0.01),
        pytest.approx(ready[0].rear_kg, abs=0.01),
    )


def boxed(read_kg: float | None, **more: Any) -> dict[str, Any]:
    tree = plain_car(weighings=as_found(axles(500.0, 450.0)), boxes={"x": box_at((1200.0, -100.0, 300.0), (2, 2, 1))})
    tree["items"] = {
        "horn": {"name": "horn", "state": "in", "mass_kg": 2.0, "at_mm": [1300.0, 0.0, 420.0], "fixed_to": "x"}
    }
    if read_kg is not None:
        read = {"type": "total", "total_kg": read_kg, "step_kg": 0.1}
        tree["weighings"]["x"] = {"kind": "box", "order": 1, "read": read, "done": {"boxes/x": True, **more}}
    return tree


def test_a_box_that_was_weighed_counts_by_the_scale_in_loads_and_in_what_hangs() -> None:
    drawn = analysed(boxed(None))
    kg = drawn.boxes["x"].full_kg
    scale = analysed(boxed(kg + 10.0))
    assert drawn.level.ready
    assert scale.level.ready
    assert scale.level.ready.total_kg - drawn.level.ready.total_kg == pytest.approx(10.0)
    assert scale.boxes["x"].hung_kg - drawn.boxes["x"].hung_kg == pytest.approx(10.0)
    assert (
        scale.level.ready.off.total_kg < drawn.level.ready.off.total_kg
    )  # a scale is surer than fittings nobody weighed
    with_horn = analysed(boxed(kg + 12.0, **{"items/horn": True}))
    assert with_horn.boxes["x"].hung_kg == pytest.approx(scale.boxes["x"].hung_kg)


def test_a_box_by_the_scale_shows_how_far_it_is_off_its_figures() -> None:
    kg = analysed(boxed(None)).boxes["x"].full_kg
    (near,), (far,) = weighed(boxed(kg + 0.2), "x"), weighed(boxed(kg + 10.0), "x")
    assert (near.state, far.state) == ("clear", "unknown")
    assert far.value is not None
    assert far.limit == pytest.approx(kg)
    assert far.value - kg == pytest.approx(10.0)


def test_the_latest_weighing_of_a_box_counts() -> None:
    tree = boxed(90.0)
    later = {
        "kind": "box",
        "order": 2,
        "read": {"type": "total", "total_kg": 70.0, "step_kg": 0.1},
        "done": {"boxes/x": True},
    }
    tree["weighings"]["again"] = later
    assert next(m.mass_kg for m in analysed(tree).level.masses if m.path == "boxes/x") == pytest.approx(70.0)
