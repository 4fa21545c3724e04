"""Laws that hold for the whole of a design, whatever its figures."""

import copy
import math
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from levelcradle.core.analysis import Analysis, analyse
from levelcradle.core.design import tree_of, validate
from levelcradle.demo import demo_design

TREE = tree_of(demo_design())
PAIRS = ("bonnet", "tank")


def analysed(tree: dict[str, Any]) -> Analysis:
    return analyse(validate(tree), {})


def mirrored(tree: dict[str, Any]) -> dict[str, Any]:
    """The demo seen in a mirror: left and right change places in everything but the modules themselves."""
    out = copy.deepcopy(tree)
    for item in out["items"].values():
        if item["at_mm"]:
            item["at_mm"][1] *= -1
        if (solid := item["solid"]) and solid["type"] == "block":
            solid["low_mm"][1], solid["high_mm"][1] = -solid["high_mm"][1], -solid["low_mm"][1]
        elif solid:
            solid["start_mm"][1] *= -1
            solid["end_mm"][1] *= -1
    for point in out["hardpoints"].values():
        point["at_mm"][1] *= -1
    for mount in out["mounts"].values():
        mount["face"] = {"left": "right", "right": "left"}[mount["face"]]
    other = {"left": "right", "right": "left"}
    for box in out["boxes"].values():
        for hole in box["openings"].values():
            hole["face"] = other.get(hole["face"], hole["face"])
            hole["from"] = [other.get(edge, edge) for edge in hole["from"]]
    tank = out["boxes"]["tank"]
    tank["blocks"]["a"]["turn"] = {"down": "side_a", "aft": "base"}  # terminals right
    w = out["weighings"]["as-found"]["read"]
    w["lf_kg"], w["rf_kg"], w["lr_kg"], w["rr_kg"] = w["rf_kg"], w["lf_kg"], w["rr_kg"], w["lr_kg"]
    return out


def test_a_mirrored_car_has_the_same_gaps_uses_and_axle_loads() -> None:
    here, there = analysed(TREE), analysed(mirrored(TREE))
    gaps = [
        sorted(round(f.value or 0, 3) for f in a.findings if f.code == "gap" and "items/" in f.id)
        for a in (here, there)
    ]
    assert gaps[0] == gaps[1]
    for box in PAIRS:
        worst = [{r.check: 0.0 for s in a.supports for m in s.mounts for r in m.rows} for a in (here, there)]
        for found, analysis in zip(worst, (here, there), strict=True):
            for support in (s for s in analysis.supports if s.box == box):
                for row in (r for m in support.mounts for r in m.rows):
                    found[row.check] = max(found[row.check], row.utilisation)
        assert worst[0] == pytest.approx(worst[1], rel=1e-6)
    a, b = here.level.ready, there.level.ready
    assert a is not None
    assert b is not None
    assert (a.front_kg, a.rear_kg) == pytest.approx((b.front_kg, b.rear_kg))
    assert a.across_mm == pytest.approx(-(b.across_mm or 0))


@settings(max_examples=10)
@given(st.floats(-400, 400), st.floats(-100, 100), st.floats(-40, 40))
def test_moving_a_box_moves_mass_times_travel(aft: float, right: float, up: float) -> None:
    """Rear axle by m dx / L, side moment by m dy; nothing else of the loads changes but the height."""
    tree = copy.deepcopy(TREE)
    tree["mounts"] = {}
    before = analysed(tree)
    at = tree["boxes"]["tank"]["pose"]["at_mm"]
    at[0], at[1], at[2] = at[0] + aft, at[1] + right, at[2] + up
    after = analysed(tree)
    mass = after.boxes["tank"].full_kg
    a, b = before.level.ready, after.level.ready
    assert a is not None
    assert b is not None
    assert b.rear_kg - a.rear_kg == pytest.approx(mass * aft / 2480, abs=1e-6)
    assert (b.across_mm or 0) * b.total_kg - (a.across_mm or 0) * a.total_kg == pytest.approx(mass * right, abs=1e-4)
    assert (b.up_mm or 0) * b.total_kg - (a.up_mm or 0) * a.total_kg == pytest.approx(mass * up, abs=1e-4)


@settings(max_examples=10)
@given(st.floats(0.5, 6), st.sampled_from(PAIRS))
def test_thicker_sheet_is_heavier_and_larger_outside_never_inside(extra: float, box: str) -> None:
    tree = copy.deepcopy(TREE)
    before = analysed(tree).boxes[box]
    tree["boxes"][box]["construction"]["thickness_mm"] += extra
    after = analysed(tree).boxes[box]
    assert after.shell_kg > before.shell_kg
    assert after.inner_mm == pytest.approx(before.inner_mm)
    assert after.outer_mm[0] == pytest.approx(before.outer_mm[0] + 2 * extra)
    assert after.outer_mm[2] == pytest.approx(before.outer_mm[2] + extra)


@settings(max_examples=10)
@given(st.floats(-180, 180), st.floats(-30, 30), st.floats(-30, 30))
def test_turning_a_box_keeps_its_peg_its_mass_and_its_distance_from_peg_to_cg(
    yaw: float, pitch: float, roll: float
) -> None:
    tree = copy.deepcopy(TREE)
    before = analysed(tree).boxes["tank"]
    tree["boxes"]["tank"]["pose"] |= {"yaw_deg": yaw, "pitch_deg": pitch, "roll_deg": roll}
    after = analysed(tree).boxes["tank"]
    assert after.corner_mm == pytest.approx(before.corner_mm), "its peg is that corner"
    assert after.full_kg == before.full_kg
    assert math.dist(after.cg_mm, after.corner_mm) == pytest.approx(math.dist(before.cg_mm, before.corner_mm))


@pytest.mark.parametrize("need", [6.0, 40.0, 90.0])
def test_a_larger_need_never_makes_a_gap_better(need: float) -> None:
    order = ["foul", "tight", "clear"]
    tree = copy.deepcopy(TREE)
    before = {f.id: f.state for f in analysed(tree).findings if f.code == "gap"}
    tree["tables"]["gaps"]["other"]["need_mm"] = need
    after = {f.id: f.state for f in analysed(tree).findings if f.code == "gap"}
    both = before.keys() & after.keys()
    if need >= 15:
        assert all(order.index(after[k]) <= order.index(before[k]) for k in both)
    else:
        assert all(order.index(after[k]) >= order.index(before[k]) for k in both)
