"""Gaps: what they are measured to, when they are tight, and what is never clear."""

from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.geometry import Polygon

from levelcradle.core.analysis import Analysis, analyse
from levelcradle.core.assembly import resolve
from levelcradle.core.bays import panels
from levelcradle.core.clearance import tape_between
from levelcradle.core.design import Bay, validate
from levelcradle.core.errors import UnknownThing
from levelcradle.core.finding import Finding, gap_state, message_text


def gap(analysis: Analysis, box: str, thing: str) -> Finding:
    return next(f for f in analysis.findings if f.id == f"gap:boxes/{box}:{thing}")


def after(tree: dict[str, Any]) -> Analysis:
    return analyse(validate(tree), {})


@pytest.mark.parametrize(
    ("has", "state"),
    [(24.999, "foul"), (25.0, "tight"), (24.9999999999, "tight"), (27.99, "tight"), (28.0, "clear"), (400.0, "clear")],
)
def test_tight_is_from_the_need_to_the_tolerance_above_it(has: float, state: str) -> None:
    assert gap_state(has, 25.0, 3.0) == state


def test_without_a_tolerance_a_gap_at_its_need_is_still_tight() -> None:
    assert gap_state(25.0, 25.0, 0.0) == "tight"


def test_the_cure_of_the_demo_is_tight_and_costs_what_it_says(tree: dict[str, Any]) -> None:
    """14.5 aft: axle 25.0, hanger 6.5."""
    tree["boxes"]["tank"]["pose"]["at_mm"][0] += 14.5
    analysis = after(tree)
    axle, hanger = gap(analysis, "tank", "items/axle"), gap(analysis, "tank", "items/silencer-hanger")
    assert (axle.state, round(axle.value or 0, 6)) == ("tight", 25.0)
    assert (hanger.state, round(hanger.value or 0, 6)) == ("tight", 6.5)
    assert analysis.released


def test_moving_it_further_makes_the_hanger_foul(tree: dict[str, Any]) -> None:
    tree["boxes"]["tank"]["pose"]["at_mm"][0] += 15.1
    assert gap(after(tree), "tank", "items/silencer-hanger").state == "foul"


def test_the_working_ends_in_the_margin(tree: dict[str, Any]) -> None:
    found = gap(after(tree), "tank", "items/axle")
    assert found.working is not None
    steps = {step.what: step.value for step in found.working()}
    assert steps["gap"] == pytest.approx(10.5)
    assert steps["margin"] == pytest.approx(-14.5)


def test_an_overlap_says_how_deep(tree: dict[str, Any]) -> None:
    tree["boxes"]["tank"]["pose"]["at_mm"][0] = 2655.0
    assert (
        message_text(gap(after(tree), "tank", "items/axle"))
        == "Tank box overlaps axle at full bump by 5.0 mm, needs 25.0 mm clear"
    )


def test_a_mount_excuses_only_the_thing_it_sits_on(tree: dict[str, Any]) -> None:
    """The bracket touches its rail; the tray's own distance to that rail still counts."""
    analysis = after(tree)
    assert gap(analysis, "tank", "items/rear-rail-left").value == pytest.approx(18.5)
    tree["hardpoints"]["tail-lf"]["at_mm"][2] = 537.0
    assert gap(after(tree), "tank", "items/rear-rail-left").state == "foul", "three below the rail it sits on nothing"


def test_a_thing_fixed_in_the_box_is_no_obstacle_to_it(tree: dict[str, Any]) -> None:
    tree["items"]["anti-roll-bar"]["fixed_to"] = "tank"
    ids = {f.id for f in after(tree).findings}
    assert "gap:boxes/tank:items/anti-roll-bar" not in ids


def test_what_came_out_frees_its_place(tree: dict[str, Any]) -> None:
    tree["items"]["axle"]["state"] = "out"
    assert all(f.state != "foul" or f.station == "level" for f in after(tree).findings)


def test_readings_set_the_tolerance_and_an_assumed_figure_never_passes(tree: dict[str, Any]) -> None:
    path = "/items/anti-roll-bar/solid/high_mm/2"
    tree["readings"][path] = {"text": "330", "unit": "mm", "tolerance": 1.0, "basis": "measured"}
    assert gap(after(tree), "tank", "items/anti-roll-bar").state == "clear", "2 over its need, ± 1"
    tree["readings"][path]["basis"] = "assumed"
    found = gap(after(tree), "tank", "items/anti-roll-bar")
    assert found.state == "unknown"
    assert path in found.rationale


def test_what_the_box_may_be_off_comes_on_top_of_the_reading(tree: dict[str, Any]) -> None:
    """± 1.5 as measured, half of ± 2 as welded (ISO 13920 A, 400 to 1000): ± 1.8."""
    path = "/items/anti-roll-bar/solid/high_mm/2"
    tree["readings"][path] = {"text": "330", "unit": "mm", "tolerance": 1.5, "basis": "measured"}
    assert gap(after(tree), "tank", "items/anti-roll-bar").tolerance == pytest.approx((1.5**2 + 1**2) ** 0.5)


def test_what_nobody_measured_is_never_clear_and_open_air_is_never_foul(tree: dict[str, Any]) -> None:
    tree["bays"]["tank"]["sides"]["left"]["is"] = "not measured"
    analysis = after(tree)
    found = gap(analysis, "tank", "bays/tank/sides/left")
    assert found.state == "unknown"
    assert not analysis.released
    assert not any(f.id.endswith("bays/tank/sides/right") for f in analysis.findings)


def test_a_box_behind_the_metal_of_its_own_bay_is_foul(tree: dict[str, Any]) -> None:
    tree["boxes"]["tank"]["pose"]["at_mm"][2] = 420.0
    assert gap(after(tree), "tank", "bays/tank/sides/top").state == "foul"


def test_a_crush_zone_is_foul_with_modules_and_a_note_without(tree: dict[str, Any]) -> None:
    tree["boxes"]["tank"]["pose"]["at_mm"][0] = 3000.0
    assert gap(after(tree), "tank", "keepouts/crush-rear").state == "foul"
    tree["boxes"]["tank"] |= {"blocks": {}, "holders": {}, "inner": {"type": "fixed", "size_mm": [388, 694, 242]}}
    assert gap(after(tree), "tank", "keepouts/crush-rear").state == "note"


def test_two_boxes_are_checked_against_each_other_once(tree: dict[str, Any]) -> None:
    twin = tree["boxes"]["twin"] = {**tree["boxes"]["tank"], "name": "Twin box"}
    twin["pose"] = {**twin["pose"], "at_mm": [2670.5, -350, 100]}
    found = [f for f in after(tree).findings if f.id in ("gap:boxes/tank:boxes/twin", "gap:boxes/twin:boxes/tank")]
    assert [f.value for f in found] == [pytest.approx(352 - 100 - 248)]


def test_a_leaning_box_is_measured_as_it_leans(tree: dict[str, Any]) -> None:
    """Nose up by 5 degrees about its front left lower corner: the foot of the front wall stays, its top goes aft."""
    level = gap(after(tree), "tank", "items/axle").value
    tree["boxes"]["tank"]["pose"]["pitch_deg"] = 5.0
    leaning = gap(after(tree), "tank", "items/axle").value
    assert leaning == pytest.approx(level)
    tree["boxes"]["tank"]["pose"]["pitch_deg"] = -5.0
    nose_down = gap(after(tree), "tank", "items/axle").value
    assert nose_down is not None
    assert level is not None
    assert nose_down < level - 5


@settings(max_examples=10)
@given(st.floats(0, 14), st.floats(0.1, 5))
def test_a_box_moved_away_gains_exactly_that_gap(start: float, by: float) -> None:
    from levelcradle.core.design import tree_of
    from levelcradle.demo import demo_design

    tree = tree_of(demo_design())
    gaps = []
    for aft in (2670.5 + start, 2670.5 + start + by):
        tree["boxes"]["tank"]["pose"]["at_mm"][0] = aft
        gaps.append(gap(after(tree), "tank", "items/axle").value or 0.0)
    assert gaps[1] - gaps[0] == pytest.approx(by, abs=1e-6)


def test_at_most_eight_clear_pairs_are_listed_for_a_box(tree: dict[str, Any]) -> None:
    for n in range(60):
        low = [2700 + n, -20, 240 - n / 10]
        solid = {"type": "block", "low_mm": low, "high_mm": [low[0] + 1, 20, low[2] + 1]}
        tree["items"][f"pebble-{n}"] = {"name": f"pebble {n}", "state": "stays", "solid": solid}
    clear = [f for f in after(tree).findings if f.code == "gap" and f.state == "clear" and "boxes/tank" in f.subjects]
    assert len(clear) == 8


def test_names_with_braces_stay_names(tree: dict[str, Any]) -> None:
    tree["items"]["axle"]["name"] = "axle {0} {9} <b>"
    assert (
        message_text(gap(after(tree), "tank", "items/axle")) == "Tank box to axle (0) (9) <b>: 10.5 mm, needs 25.0 mm"
    )


def test_the_tape_gives_the_shortest_distance_and_its_parts(tree: dict[str, Any]) -> None:
    taped = tape_between(resolve(validate(tree), {}), "boxes/tank", "items/silencer-hanger")
    assert taped.distance_mm == pytest.approx(21.0)
    assert taped.parts_mm[0] == pytest.approx(21.0)
    with pytest.raises(UnknownThing):
        tape_between(resolve(validate(tree), {}), "boxes/tank", "items/fuel")


# --- bays --------------------------------------------------------------------------------------------------------


def bay(**left: float) -> Bay:
    base = {
        "floor_mm": 0.0,
        "top_left_mm": 300.0,
        "top_right_mm": 300.0,
        "right_floor_mm": 300.0,
        "right_top_mm": 300.0,
    }
    one = base | {"aft_mm": 0.0, "left_floor_mm": -300.0, "left_top_mm": -300.0}
    two = base | {"aft_mm": 500.0, "left_floor_mm": -300.0, "left_top_mm": -300.0} | left
    side = {"is": "metal", "gap_class": "same"}
    sides = dict.fromkeys(("fore", "aft", "left", "right", "floor", "top"), side)
    return Bay.model_validate({"name": "b", "stations": {"a": one, "b": two}, "sides": sides})


def test_every_panel_looks_away_from_the_free_space() -> None:
    for panel in panels(bay()):
        middle = (250.0, 0.0, 150.0)
        assert sum(n * (m - c) for n, m, c in zip(panel.outward, middle, panel.corners[0], strict=True)) < 0


def test_a_flat_side_is_one_panel_and_a_twisted_one_two() -> None:
    assert sum(p.side == "left" for p in panels(bay())) == 1
    assert sum(p.side == "left" for p in panels(bay(left_top_mm=-340.0))) == 2


@pytest.mark.parametrize("top", [-340.0, -300.6, -299.4, -260.0])
def test_a_twisted_side_never_overstates_the_free_space(top: float) -> None:
    """Half-way along and half-way up, the ruled surface stands at the mean of the four corners; no panel stands
    further out than that."""
    left = [p for p in panels(bay(left_top_mm=top)) if p.side == "left"]
    mean = (-300.0 * 3 + top) / 4
    for panel in left:
        inside = sum(n * (q - c) for n, q, c in zip(panel.outward, (250.0, mean, 150.0), panel.corners[0], strict=True))
        assert inside > -1e-9
    spread = [np.array(panel.corners)[:, [0, 2]] for panel in left]  # seen from the side they cover it whole
    assert sum(Polygon(ring).area for ring in spread) == pytest.approx(500 * 300)


@pytest.mark.parametrize(
    ("axis", "to", "side"),
    [
        (0, 2680.0, None),
        (0, 5200.0, "aft"),
        (1, 900.0, "right"),
        (1, -1900.0, "left"),
        (2, 1500.0, "top"),
        (0, 400.0, "fore"),
    ],
)
def test_a_box_far_beyond_its_own_space_never_passes_for_clear(
    tree: dict[str, Any], axis: int, to: float, side: str | None
) -> None:
    for name in ("fore", "aft", "left", "right", "floor", "top"):
        tree["bays"]["tank"]["sides"][name] = {"is": "metal", "gap_class": "same"}
    tree["mounts"] = {}
    tree["boxes"]["tank"]["pose"]["at_mm"][axis] = to
    told = [f for f in after(tree).findings if f.code == "gap.outside"]
    assert [f.subjects[1] for f in told] == ([f"bays/tank/sides/{side}"] if side else [])
    for f in told:
        tree["bays"]["tank"]["sides"][side]["is"] = "open"
        assert f.state == "foul"
        assert not any(g.code == "gap.outside" for g in after(tree).findings)
