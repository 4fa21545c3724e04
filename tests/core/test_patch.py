"""Edits: the inverse takes back exactly what was done; readings stay true; late edits are told apart."""

import copy
import json
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from levelcradle.core.assembly import resolve
from levelcradle.core.design import tree_of, validate
from levelcradle.core.design.patch import Op, apply, clashes
from levelcradle.core.design.readings import Read, axis_of, kind_of, reads_as
from levelcradle.core.design.sentence import sentence
from levelcradle.core.errors import PatchError, ReadingError
from levelcradle.demo import demo_design

TREE = tree_of(demo_design())
AFT = "/boxes/tank/pose/at_mm/0"


def op(kind: str, path: str, value: Any = None) -> Op:
    return {"op": kind, "path": path} | ({} if kind == "remove" else {"value": value})


EDITS = st.lists(
    st.one_of(
        st.builds(lambda v: op("replace", AFT, v), st.floats(0, 5000)),
        st.builds(lambda v: op("replace", "/boxes/tank/pose/at_mm", v), st.tuples(*[st.floats(0, 9)] * 3).map(list)),
        st.builds(lambda k: op("add", f"/references/n{k}", {"name": "n", "at_mm": [1, 2, 3]}), st.integers(0, 5)),
        st.builds(lambda k: op("remove", f"/references/n{k}"), st.integers(0, 5)),
        st.builds(lambda v: op("replace", "/vehicle/target", v), st.sampled_from([None, {"front_percent": 50}])),
        st.just(op("remove", "/vehicle/cg_height")),
    ),
    max_size=8,
)


@settings(max_examples=60)
@given(EDITS)
def test_the_inverse_takes_back_exactly_what_was_done(patch: list[Op]) -> None:
    before = json.dumps(TREE)
    try:
        done = apply(TREE, patch)
    except PatchError:
        assert json.dumps(TREE) == before
        return
    back = apply(done.tree, done.inverse).tree
    assert back == TREE
    assert json.dumps(TREE) == before, "the tree given is left alone"


@pytest.mark.parametrize(
    ("edit", "message"),
    [
        (op("add", "/boxes/tank", {}), "exists already"),
        (op("remove", "/boxes/shed"), "is not there"),
        (op("replace", "/boxes/shed/name", "x"), "is not there"),
        (op("add", "/boxes/tank/pose/at_mm/-", 3), "a list is replaced whole"),
        (op("remove", AFT), "a list is replaced whole"),
        (op("replace", "/boxes/tank/pose/at_mm/7", 3), "a list is replaced whole"),
        (op("replace", "", {}), "whole document"),
        (op("test", AFT, 1.0), "no longer holds"),
        (op("test", "/items/fuel/fuel", 1), "no longer holds"),
        (op("replace", "boxes", 1), "no path"),
    ],
)
def test_an_edit_that_cannot_be_is_refused(edit: Op, message: str) -> None:
    with pytest.raises(PatchError, match=message):
        apply(TREE, [edit])


def test_a_failing_edit_does_nothing_at_all() -> None:
    before = copy.deepcopy(TREE)
    with pytest.raises(PatchError):
        apply(TREE, [op("replace", AFT, 1.0), op("remove", "/boxes/shed")])
    assert before == TREE


@pytest.mark.parametrize(
    ("late", "since", "found"),
    [
        (AFT, "/boxes/tank/pose", True),
        ("/boxes/tank", AFT, True),
        (AFT, AFT, True),
        (AFT, "/boxes/tank/pose/at_mm/1", False),
        ("/boxes/tank", "/boxes/tank-2", False),
    ],
)
def test_a_late_edit_clashes_with_what_holds_or_lies_in_its_path(late: str, since: str, found: bool) -> None:
    assert bool(clashes([op("replace", late, 1)], [op("replace", since, 2)])) is found


def with_reading(path: str, text: str, **more: Any) -> dict[str, Any]:
    tree = copy.deepcopy(TREE)
    tree["readings"][path] = {"text": text, "unit": "mm", "from": None, "basis": "typed", **more}
    return tree


def test_a_reading_goes_with_its_figure_and_comes_back_with_it() -> None:
    tree = with_reading(AFT, "2670.5")
    done = apply(tree, [op("remove", "/boxes/tank")])
    assert AFT not in done.tree["readings"]
    assert [o["op"] for o in done.patch] == ["remove", "remove"]
    assert apply(done.tree, done.inverse).tree == tree


def test_a_reading_goes_when_its_text_no_longer_gives_the_figure() -> None:
    done = apply(with_reading(AFT, "2670.5"), [op("replace", AFT, 2685.0)])
    assert AFT not in done.tree["readings"]


def test_a_reading_given_with_its_figure_stays() -> None:
    path = "/readings/" + AFT.replace("/", "~1")
    reading = {"text": '105 1/2"', "unit": "in", "from": None, "basis": "typed"}
    done = apply(TREE, [op("replace", AFT, 2679.7), op("add", path, reading)])
    assert done.tree["readings"][AFT]["text"] == '105 1/2"'


def test_moving_a_reference_moves_every_figure_taken_from_it() -> None:
    """The seat seam stands at 1,610; the floor of the tank's first station was read 215 below it."""
    path = "/bays/tank/stations/a/floor_mm"
    tree = with_reading(path, "-215", **{"from": "seat-seam"})
    done = apply(tree, [op("replace", "/references/seat-seam/at_mm/2", 550.0)])
    assert done.tree["bays"]["tank"]["stations"]["a"]["floor_mm"] == 335.0
    assert done.tree["readings"][path]["text"] == "-215"
    assert apply(done.tree, done.inverse).tree == tree


@pytest.mark.parametrize(
    ("path", "kind", "axis"),
    [
        ("/bays/tank/stations/a/left_floor_mm", "length", 1),
        ("/bays/tank/stations/a/top_left_mm", "length", 2),
        ("/items/motor/mass_kg", "mass", None),
        ("/boxes/tank/pose/yaw_deg", "angle", None),
        ("/modules/f01/reading_v", "voltage", None),
        ("/hardpoints/tail-lf/at_mm/1", "length", 1),
        ("/module_kinds/flagstone/cells/series", "number", None),
        ("/vehicle/track_mm/front", "length", None),
        ("/boxes/tank/chamfers/a/mm/1", "length", None),
        ("/module_kinds/flagstone/size_mm/0", "length", None),
        ("/sheets/stock_mm/1", "length", None),
        ("/sheets/roll_mm", "length", None),
    ],
)
def test_a_path_says_what_its_figure_is(path: str, kind: str, axis: int | None) -> None:
    assert (kind_of(path), axis_of(path)) == (kind, axis)


def test_a_text_is_read_for_its_place() -> None:
    assert reads_as("/hardpoints/h/at_mm/1", "120 L", "mm", [0.0, 20.0, 0.0]) == Read(-100.0, "mm")
    assert reads_as("/items/x/mass_kg", "10", "lb", None).value == pytest.approx(4.5359237)
    with pytest.raises(ReadingError):
        reads_as("/hardpoints/h/at_mm/1", "120 up", "mm", None)


LEFT = "/bays/b/stations/a/left_top_mm"


@pytest.mark.parametrize(
    ("path", "text", "now", "read"),
    [
        (LEFT, "425", None, Read(-425.0, "mm")),  # of a wall at the left so far to the left
        (LEFT, "425", -400.0, Read(-425.0, "mm")),
        (LEFT, "30 R", -400.0, Read(30.0, "mm")),
        (LEFT, "+12", -400.0, Read(-412.0, "mm", by=True)),
        (LEFT, "-425", None, Read(-425.0, "mm")),  # as it was typed before; a sign alone has nothing to move
        ("/bays/b/stations/a/right_top_mm", "425", None, Read(425.0, "mm")),
        ("/boxes/x/pose/at_mm/1", "236 L", 100.0, Read(-236.0, "mm")),
        ("/boxes/x/pose/at_mm/0", "-5", 100.0, Read(95.0, "mm", by=True)),
        ("/boxes/x/pose/at_mm/0", "15 3/16", 100.0, Read(385.7625, "in")),
        ("/bays/b/depth_mm", "610-25", 300.0, Read(585.0, "mm")),
    ],
)
def test_a_word_is_a_place_and_a_sign_moves_what_stands(path: str, text: str, now: float | None, read: Read) -> None:
    found = reads_as(path, text, "mm", None, now)
    assert found == read
    if not found.by:  # what is kept as typed gives the figure again
        assert reads_as(path, text, "mm", None) == found


@pytest.mark.parametrize(
    ("edit", "unit", "message"),
    [
        (op("replace", AFT, 2685.0), "mm", "Tank box 14.5 mm aft"),
        (op("replace", AFT, 2658.5), "mm", "Tank box 12 mm forward"),
        (op("replace", AFT, 2670.5 + 25.4), "in", 'Tank box 1" aft'),
        (op("replace", "/boxes/tank/pose/yaw_deg", 90.0), "mm", "Tank box turned +90°"),
        (op("remove", "/items/charger"), "mm", "removed thing charger"),
        (
            op("add", "/references/lip", {"name": "boot lip", "at_mm": [1, 2, 3]}),
            "mm",
            "added reference point boot lip",
        ),
        (op("replace", "/boxes/tank/construction/thickness_mm", 2.0), "mm", "Tank box: thickness 3 → 2"),
        (op("replace", "/boxes/tank/sealing", None), "mm", "Tank box: sealing cleared"),
        (op("replace", "/name", "Heron"), "mm", "design: name Calder Ouzel 1500 → Heron"),
    ],
)
def test_the_sentence_names_thing_change_and_amount(edit: Op, unit: str, message: str) -> None:
    done = apply(TREE, [edit])
    assert sentence(TREE, done.tree, done.patch, unit) == message


def test_the_sentence_counts_what_else_was_done() -> None:
    done = apply(TREE, [op("replace", AFT, 2685.0), op("remove", "/items/charger"), op("remove", "/items/inverter")])
    assert sentence(TREE, done.tree, done.patch) == "Tank box 14.5 mm aft and 2 more"


FIXED = {
    "block": {"type": "block", "low_mm": [2700, -50, 500], "high_mm": [2760, 50, 560]},
    "rod": {"type": "rod", "start_mm": [2700, 0, 500], "end_mm": [2900, 0, 500], "radius_mm": 10},
    "prism": {"type": "prism", "outline_mm": [[2700, 0], [2760, 0], [2760, 40]], "low_up_mm": 500, "high_up_mm": 520},
    "path": {"type": "path", "points_mm": [[2700, 0, 500], [2800, 0, 500]], "width_mm": 20, "height_mm": 20},
}


@pytest.mark.parametrize("shape", FIXED)
def test_what_is_fixed_to_a_box_goes_along_and_comes_back(tree: dict[str, Any], shape: str) -> None:
    tree["items"]["fuse"] = {
        "name": "fuse", "state": "in", "mass_kg": 1.0, "at_mm": [2730.0, 0.0, 530.0], "fixed_to": "tank",
        "solid": FIXED[shape],
        "sweep": {"type": "hinge", "about_mm": [2700, 0, 560], "axis": [0, 1, 0], "to_deg": 40},
    }  # fmt: skip
    start = tree["boxes"]["tank"]["pose"]["at_mm"]
    moved = apply(
        tree,
        [{"op": "replace", "path": "/boxes/tank/pose/at_mm", "value": [start[0] + 12.5, start[1], start[2] - 3.0]}],
    )
    fuse = moved.tree["items"]["fuse"]
    assert fuse["at_mm"] == [2742.5, 0.0, 527.0]
    assert fuse["sweep"]["about_mm"] == [2712.5, 0, 557]
    old, new = resolve(validate(tree), {}).obstacles, resolve(validate(moved.tree), {}).obstacles
    one, other = (next(o.solid for o in rows if o.path == "items/fuse") for rows in (old, new))
    assert [b - a for a, b in zip(one.low, other.low, strict=True)] == pytest.approx([12.5, 0.0, -3.0])
    assert apply(moved.tree, moved.inverse).tree == tree


def test_what_the_edit_placed_itself_or_whose_box_was_turned_stays(tree: dict[str, Any]) -> None:
    tree["items"]["fuse"] = {
        "name": "fuse",
        "state": "in",
        "mass_kg": 1.0,
        "at_mm": [2730.0, 0.0, 530.0],
        "fixed_to": "tank",
    }
    aft = {"op": "replace", "path": "/boxes/tank/pose/at_mm/0", "value": 2700.0}
    both = apply(tree, [aft, {"op": "replace", "path": "/items/fuse/at_mm/0", "value": 2800.0}])
    assert both.tree["items"]["fuse"]["at_mm"] == [2800.0, 0.0, 530.0]
    turned = apply(tree, [aft, {"op": "replace", "path": "/boxes/tank/pose/yaw_deg", "value": 90.0}])
    assert turned.tree["items"]["fuse"]["at_mm"] == [2730.0, 0.0, 530.0]
    loose = apply(tree, [{"op": "replace", "path": "/items/fuse/fixed_to", "value": None}, aft])
    assert loose.tree["items"]["fuse"]["at_mm"] == [2730.0, 0.0, 530.0]
