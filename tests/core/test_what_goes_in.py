"""Motor, inverter, charger and the rest, and what moves beside them: they take part in gaps, loads and drawings."""

from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from levelcradle.core.analysis import Analysis, analyse
from levelcradle.core.design import validate
from levelcradle.core.finding import Finding
from tests.conftest import DEMO


def gaps(analysis: Analysis, thing: str, box: str = "tank") -> list[Finding]:
    return [f for f in analysis.findings if f.code == "gap" and thing in f.subjects and f"boxes/{box}" in f.subjects]


def aft_end(tree: dict[str, Any]) -> float:
    tray = next(s for s in analyse(validate(tree), {}).shapes if s.path == "boxes/tank" and s.kind == "tray")
    return max(p[0] for p in tray.plan)


def behind_the_tank(tree: dict[str, Any], off: float, **more: Any) -> dict[str, Any]:
    """A charger that far aft of the tank box."""
    x = aft_end(tree) + off
    solid = {"type": "block", "low_mm": [x, -50, 470], "high_mm": [x + 80, 50, 530]}
    return {
        "name": "new charger",
        "state": "in",
        "mass_kg": 6.0,
        "at_mm": [x + 40, 0, 500],
        "solid": solid,
        "gap_class": "other",
    } | more


@pytest.mark.parametrize(("off", "state"), [(10.0, "foul"), (15.5, "tight"), (40.0, "clear")])
def test_a_cuboid_counts_as_soon_as_it_has_a_place(tree: dict[str, Any], off: float, state: str) -> None:
    tree["items"]["new"] = behind_the_tank(tree, off)
    (found,) = gaps(analyse(validate(tree), {}), "items/new")
    assert (found.state, found.value) == (state, pytest.approx(off, abs=1e-3))


def test_the_room_before_a_face_is_kept_too(tree: dict[str, Any]) -> None:
    tree["items"]["new"] = behind_the_tank(
        tree, 100.0, keep_clear={"plug": {"face": "front", "depth_mm": 90, "reason": "its plug"}}
    )
    told = gaps(analyse(validate(tree), {}), "items/new/keep_clear/plug")
    assert told
    assert told[0].value == pytest.approx(10.0, abs=1e-3)
    assert "its plug" in told[0].label


def test_what_sits_on_the_box_is_no_obstacle_to_it(tree: dict[str, Any]) -> None:
    tree["items"]["new"] = behind_the_tank(tree, 0.5, fixed_to="tank")
    assert gaps(analyse(validate(tree), {}), "items/new") == []


def test_hot_things_ask_for_more(tree: dict[str, Any]) -> None:
    tree["items"]["new"] = behind_the_tank(tree, 50.0, gap_class="hot", heat_w=800.0)
    (found,) = gaps(analyse(validate(tree), {}), "items/new")
    assert (found.state, found.limit) == ("foul", 75.0)


def test_its_mass_counts_in_the_loads_and_it_is_drawn(tree: dict[str, Any]) -> None:
    before = analyse(validate(tree), {})
    tree["items"]["new"] = behind_the_tank(tree, 60.0)
    after = analyse(validate(tree), {})
    assert before.level.ready
    assert after.level.ready
    assert after.level.ready.total_kg - before.level.ready.total_kg == pytest.approx(6.0)
    assert any(s.path == "items/new" for s in after.shapes)


@pytest.mark.parametrize(
    ("sweep", "nearer"),
    [
        ({"type": "travel", "to_by_mm": [-30, 0, 0]}, 30.0),
        ({"type": "travel", "from_by_mm": [-20, 0, 0], "to_by_mm": [40, 0, 0]}, 20.0),
        ({"type": "guard", "guard_mm": 10}, 10.0),
        ({"type": "axle", "bump_mm": 15, "droop_mm": 15, "articulation_deg": 0}, 0.0),
    ],
)
def test_what_moves_is_measured_where_it_comes_nearest(
    tree: dict[str, Any], sweep: dict[str, Any], nearer: float
) -> None:
    tree["items"]["new"] = behind_the_tank(tree, 60.0, state="stays", mass_kg=None, sweep=sweep, gap_class="hot")
    (found,) = gaps(analyse(validate(tree), {}), "items/new")
    assert found.value is not None
    assert 60 - nearer - 1.01 <= found.value <= 60 - nearer + 1e-3


def test_a_member_is_in_the_way_like_anything_else(tree: dict[str, Any]) -> None:
    x = aft_end(tree) + 30.0
    tree["members"]["cross"] = {
        "name": "crossmember", "start_mm": [x + 20, -300, 500], "end_mm": [x + 20, 300, 500], "width_mm": 40,
        "height_mm": 60,
    }  # fmt: skip
    (found,) = gaps(analyse(validate(tree), {}), "members/cross")
    assert found.value == pytest.approx(30.0, abs=1e-3)


def test_a_corridor_and_the_lowest_line_are_spaces_that_count(tree: dict[str, Any]) -> None:
    x = aft_end(tree) + 40.0
    run = {"type": "path", "points_mm": [[x + 20, -300, 500], [x + 20, 300, 500]], "width_mm": 40, "height_mm": 40}
    low = {"type": "below", "points_mm": [[2000, 0, 200], [3500, 0, 200]], "width_mm": 1200}
    tree["keepouts"]["run"] = {"name": "cable run", "kind": "corridor", "solid": run, "gap_class": "same"}
    tree["keepouts"]["low"] = {"name": "lowest line", "kind": "lowest", "solid": low, "gap_class": "same"}
    analysis = analyse(validate(tree), {})
    (corridor,) = gaps(analysis, "keepouts/run")
    assert corridor.value == pytest.approx(40.0, abs=0.01)
    assert all(f.state == "clear" for f in gaps(analysis, "keepouts/low"))
    tree["keepouts"]["low"]["solid"]["points_mm"] = [[2000, 0, 450], [3500, 0, 450]]
    assert any(f.state == "foul" for f in gaps(analyse(validate(tree), {}), "keepouts/low"))


@settings(max_examples=12)
@given(st.integers(16, 40), st.integers(1, 34))
def test_moved_away_it_gains_just_that(off: int, by: int) -> None:
    values = []
    for far in (off, off + by):
        tree = {**DEMO, "items": {**DEMO["items"], "new": behind_the_tank(DEMO, float(far), gap_class="hot")}}
        values += [f.value for f in gaps(analyse(validate(tree), {}), "items/new")]
    assert len(values) == 2
    assert values[1] - values[0] == pytest.approx(by, abs=1e-3)
