"""Clear is said only of what was asked, with everything else there: next boxes, flags, openings, the ground, the car's
outline."""

import copy
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.conftest import DEMO
from tests.plain import a_block, analysed, box_at, found, held, plain_car, said

SIDE = {"is": "metal", "gap_class": "same"}


def room(**sides: dict[str, Any]) -> dict[str, Any]:
    """A space 600 × 500 × 180 from (1000, −250, 300)."""
    station = {"floor_mm": 300, "top_left_mm": 480, "top_right_mm": 480, "left_floor_mm": -250, "left_top_mm": -250,
               "right_floor_mm": 250, "right_top_mm": 250}  # fmt: skip
    every = {side: sides.get(side, SIDE) for side in ("fore", "aft", "left", "right", "floor", "top")}
    return {
        "name": "room",
        "sides": every,
        "stations": {"a": {"aft_mm": 1000, **station}, "z": {"aft_mm": 1600, **station}},
    }


@settings(max_examples=20)
@given(apart=st.floats(8, 120))
def test_a_lid_is_not_clear_under_another_box(apart: float) -> None:
    """The lid's rim goes over the wall before it can be turned away, the modules over the tray: what hangs over them
    has to be out."""
    tree = plain_car(boxes={"x": box_at((1000, 0, 300)), "y": box_at((1000, 0, 404 + apart), name="Y")})
    rows = {f.subjects[0]: f for f in found(tree, "access.lid")}
    assert rows["boxes/y"].state == "clear"
    if apart < 90:  # a brick is 90 high and is drawn upward
        assert rows["boxes/x"].state == "note"
        assert any("once the Y is out" in words for words in said(tree, "access.lid"))


def test_a_hand_does_not_go_where_the_next_box_is() -> None:
    """A hose tail in the left wall, and another box 11 mm from it."""
    tail = {"name": "hose", "kind": "hose tail", "face": "left", "from": ["front", "base"], "u_mm": 100, "v_mm": 50,
    "across_mm": 20,
            "out_mm": 40}  # fmt: skip
    tree = plain_car(boxes={"x": box_at((1000, 0, 300), protrusions={"t": tail})})
    alone = [f.state for f in found(tree, "access.reach")]
    tree["boxes"]["y"] = box_at((1000, -134 - 40 - 11, 300), name="Y")
    beside = [f.state for f in found(tree, "access.reach") if f.subjects[0].startswith("boxes/x")]
    assert (alone, "clear" in beside) == (["clear"], False)


@pytest.mark.parametrize(("roll", "foul"), [(0.0, False), (15.0, False), (25.0, True), (90.0, True), (180.0, True)])
def test_modules_stand_on_a_face_they_may_however_the_box_is_turned(roll: float, foul: bool) -> None:
    tree = plain_car(boxes={"x": box_at((1000, 0, 300))})
    tree["boxes"]["x"]["pose"]["roll_deg"] = roll
    assert bool(found(tree, "inside.rest")) == foul


def test_a_box_may_lie_on_its_side_where_its_modules_stand() -> None:
    """Laid on its left side with the modules turned to match: nothing to say."""
    tree = plain_car(boxes={"x": box_at((1000, 0, 300))})
    tree["boxes"]["x"]["pose"]["roll_deg"] = 90.0
    turns = analysed(tree).boxes["x"].turns["a"]
    assert turns
    for turn in turns:
        tree["boxes"]["x"]["blocks"]["a"]["turn"] = {"down": turn.down, "aft": turn.aft}
        assert not found(tree, "inside.rest")


@settings(max_examples=20)
@given(out=st.floats(0, 400))
def test_how_far_a_box_stands_out_of_its_space_is_said(out: float) -> None:
    open_ = {"is": "open", "gap_class": "same"}
    tree = plain_car(bays={"b": room(top=open_)}, boxes={"x": box_at((1100, -67, 480 - 100 + out), bay="b")})
    analysis = analysed(tree)
    (row,) = [f for f in analysis.findings if f.code == "place.out"]
    assert row.value == pytest.approx(max(s.up_mm for s in analysis.shapes if s.owner == "boxes/x") - 480, abs=0.1)


@pytest.mark.parametrize("flag", ["passenger", "wet"])
@pytest.mark.parametrize(("sealing", "state"), [(None, "unknown"), ("open", "foul"), ("gasket", "note")])
def test_a_flag_asks_until_it_is_answered(flag: str, sealing: str | None, state: str) -> None:
    bay = {**room(), "flags": {flag: True}}
    tree = plain_car(bays={"b": bay}, boxes={"x": box_at((1100, -67, 330), bay="b", sealing=sealing)})
    assert [f.state for f in found(tree, "box.space") if f.label == "sealed"] == [state]
    tree["bays"]["b"]["flags"] = {}
    assert not found(tree, "box.space")


def test_a_hot_space_asks_for_its_class() -> None:
    tree = plain_car(bays={"b": room()}, boxes={"x": box_at((1100, -67, 330), bay="b")})
    needs = [f.limit for f in found(tree, "gap")]
    tree["bays"]["b"]["flags"] = {"hot": True}
    hot = [f.limit for f in found(tree, "gap")]
    assert min(v or 0 for v in hot) > max(v or 0 for v in needs)


def test_an_opening_to_be_cut_lets_the_box_through_and_waits_for_its_frame() -> None:
    """Metal all round; a hole in the top as large as the box and its gap."""
    tree = plain_car(bays={"b": room()}, boxes={"x": box_at((1100, -67, 330), bay="b")})
    shut = {f.code: f.state for f in analysed(tree).findings}
    hole = {
        "name": "hole",
        "at_mm": [1207, 0, 480],
        "direction": [0, 0, 1],
        "width_mm": 420,
        "height_mm": 420,
        "cut": "to be cut",
    }
    tree["openings"] = {"o": hole}
    cut = {f.code: f.state for f in analysed(tree).findings}
    assert (shut["access.box"], cut["access.box"]) == ("foul", "clear")
    assert cut["survey.opening"] in ("tight", "unknown")
    tree["openings"]["o"] = {**hole, "width_mm": 150, "height_mm": 90}
    assert {f.code: f.state for f in analysed(tree).findings}["access.box"] == "foul"
    tree["openings"]["o"] = {**hole, "framed": "flat bar 20 × 3"}
    assert "survey.opening" not in {f.code for f in analysed(tree).findings}


@settings(max_examples=25)
@given(pitch=st.floats(-8, 8), roll=st.floats(-8, 8))
def test_the_ground_is_asked_of_the_lowest_corner(pitch: float, roll: float) -> None:
    """A raked box is lower than its middle by half its length times the sine: what is said is never above its lowest
    corner."""
    tree = copy.deepcopy(DEMO)
    tree["boxes"]["tank"]["pose"].update(pitch_deg=pitch, roll_deg=roll)
    tree["boxes"]["tank"]["pose"]["at_mm"][2] -= 200
    analysis = analysed(tree)
    lowest = min(p[1] for s in analysis.shapes if s.owner == "boxes/tank" for p in s.side)
    rows = [
        f for f in analysis.findings if f.code == "ground" and f.subjects[0] == "boxes/tank" and f.value is not None
    ]
    assert rows
    for row in rows:
        assert (row.value or 0) <= lowest + 1e-6


def test_a_thing_in_the_way_of_nothing_says_nothing() -> None:
    tree = plain_car(boxes={"x": box_at((1000, 0, 300))}, items={"far": a_block((5000, 0, 300), (5100, 100, 400))})
    assert not [f for f in found(tree, "gap") if "items/far" in f.subjects]


FRAME = {"gap_class": "same"}


def on_a_frame(apart: float, off: float, facing: str) -> list[float]:
    """What the twist takes of the gap between two boxes hung ``apart`` along, ``off`` the middle, the second beside or
    over the first."""
    at = {"across": (0.0, 160.0, 0.0), "up": (0.0, 0.0, 130.0)}[facing]
    one = box_at((1000, off, 400))
    other = box_at((1000 + at[0], off + at[1], 400 + at[2]), name="Y")
    hard: dict[str, Any] = {}
    mounts: dict[str, Any] = {}
    for key, aft in (("x", 1000.0), ("y", 1000.0 + apart)):
        for n in range(2):
            where = [aft, off + 60.0 * n, 500.0]
            hard[f"{key}{n}"] = {"name": f"{key}{n}", "at_mm": where, "direction": [0, 0, -1], "structure": "frame"}
            mounts[f"{key}{n}"] = held(key, f"{key}{n}")
    tree = plain_car(boxes={"x": one, "y": other}, hardpoints=hard, mounts=mounts)
    return [(f.limit or 0) for f in found(tree, "gap") if set(f.subjects) == {"boxes/x", "boxes/y"}]


def test_a_twisting_frame_takes_more_the_farther_apart_and_off_the_middle() -> None:
    """0.55 m apart and 320 off the middle, facing up: 0.55° × 320 mm = 3.1 mm (1° a metre, common practice, no
    source)."""
    near, far = on_a_frame(0.0, 320.0, "up"), on_a_frame(550.0, 320.0, "up")
    wider = on_a_frame(550.0, 500.0, "up")
    assert near == [6.0]  # mounts beside each other, however far off the middle, do not turn against each other
    assert 2.5 < far[0] - near[0] < 4.5
    assert wider[0] > far[0]
