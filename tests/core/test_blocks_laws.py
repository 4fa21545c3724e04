"""Laws of blocks rearranged by hand: whatever is done, modules are neither lost nor made nor put into each other."""

from itertools import combinations, pairwise
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from levelcradle.core.axes import rotation
from levelcradle.core.design import validate
from levelcradle.core.design.box import Block, Counts, Pose
from levelcradle.core.fit import Wishes
from levelcradle.core.modules import Order, lay_out, orientations_for, rearranged
from tests.conftest import DEMO

KINDS = validate(DEMO).module_kinds
TURNS = orientations_for(KINDS["flagstone"])
ways = st.sampled_from(["aft", "across", "up"])
counts = st.tuples(st.integers(1, 4), st.integers(1, 4), st.integers(1, 3))
Blocks = dict[str, Block]


@st.composite
def one_block(draw: st.DrawFn) -> Blocks:
    aft, across, up = draw(counts)
    alternate = draw(st.sampled_from([None, "aft", "across"]))
    return {
        "a": Block(
            kind="flagstone",
            turn=draw(st.sampled_from(TURNS)),
            counts=Counts(aft=aft, across=across, up=up),
            alternate=alternate,
        )
    }


def corners(blocks: Blocks) -> list[tuple[tuple[float, ...], tuple[float, ...]]]:
    rows = []
    for block in blocks.values():
        for m in lay_out(block, KINDS[block.kind]).modules:
            low, high = (
                tuple(round(o + v, 4) for o, v in zip(block.origin_mm, end, strict=True)) for end in (m.low, m.high)
            )
            rows.append((low, high))
    return rows


def overlap(one: Any, two: Any) -> bool:
    return all(one[0][i] < two[1][i] - 1e-6 and two[0][i] < one[1][i] - 1e-6 for i in range(3))


@given(one_block(), ways, st.data())
def test_split_then_joined_is_as_before(blocks: Blocks, way: Any, data: st.DataObject) -> None:
    count = getattr(blocks["a"].counts, way)
    if count > 1:
        split = rearranged(
            blocks, KINDS, Order(do="split", block="a", way=way, at=data.draw(st.integers(1, count - 1)))
        )
        assert sorted(corners(split)) == sorted(corners(blocks))
        if blocks["a"].alternate != way:
            assert rearranged(split, KINDS, Order(do="join", block="a", other="b")) == blocks


@given(one_block(), st.lists(st.tuples(ways, st.sampled_from(["low", "high"])), min_size=1, max_size=3))
def test_copies_stand_clear_of_each_other(blocks: Blocks, steps: list[tuple[Any, Any]]) -> None:
    single = len(corners(blocks))
    last = "a"
    for way, end in dict(steps).items():
        before = set(blocks)
        blocks = rearranged(blocks, KINDS, Order(do="copy", block=last, way=way, end=end))
        last = next(iter(set(blocks) - before))
        pair = corners({last: blocks[last]})
        assert len(pair) == single
    rows = [corners({key: block}) for key, block in blocks.items()]
    for one, two in pairwise(rows):
        assert not any(overlap(a, b) for a in one for b in two)


@given(one_block(), st.sampled_from(["aft", "across"]))
def test_mirrored_twice_is_as_before_and_fills_the_same_room(blocks: Blocks, way: Any) -> None:
    made = rearranged(blocks, KINDS, Order(do="copy", block="a", way=way))
    once = rearranged(made, KINDS, Order(do="mirror", block="a", way=way))
    axis = ("aft", "across").index(way)
    ends = [
        (min(low[axis] for low, _ in corners({"a": b["a"]})), max(high[axis] for _, high in corners({"a": b["a"]})))
        for b in (made, once)
    ]
    both = corners(made)
    low, high = min(c[0][axis] for c in both), max(c[1][axis] for c in both)
    assert ends[1] == pytest.approx((low + high - ends[0][1], low + high - ends[0][0]), abs=1e-3)
    assert rearranged(once, KINDS, Order(do="mirror", block="a", way=way))["a"].turn == blocks["a"].turn


@given(st.integers(3, 6), ways, st.data())
def test_spread_evenly_all_gaps_are_alike(number: int, way: Any, data: st.DataObject) -> None:
    axis = ("aft", "across", "up").index(way)
    blocks, at = {}, 0.0
    for n in range(number):
        origin = [0.0, 0.0, 0.0]
        origin[axis] = at
        blocks[f"b{n}"] = Block(kind="flagstone", turn=TURNS[0], origin_mm=(origin[0], origin[1], origin[2]))
        at += lay_out(blocks[f"b{n}"], KINDS["flagstone"]).size_mm[axis] + data.draw(st.floats(0, 200))
    spread = rearranged(blocks, KINDS, Order(do="spread", block="b0", way=way))
    rows = sorted(corners(spread), key=lambda c: c[0][axis])
    gaps = [b[0][axis] - a[1][axis] for a, b in pairwise(rows)]
    assert max(gaps) - min(gaps) < 1e-3
    assert not any(overlap(a, b) for a, b in combinations(rows, 2))


@pytest.mark.parametrize("wishes", [
    {"kinds": []}, {"bays": []}, {"modules": 0}, {"parallel": 0}, {"most_tiers": 0}, {"boxes_per_bay": 4},
    {"tilts_deg": [90.0]},
    {"window_v": [400.0, 300.0]}, {"weights": {"count": -1.0}}, {"making": {"construction": {"thickness_mm": 0.0}}},
    {"towards": ["down"]}, {"unknown": 1},
])  # fmt: skip
def test_wishes_that_make_no_sense_are_refused(wishes: dict[str, Any]) -> None:
    import json

    with pytest.raises(ValidationError):
        Wishes.model_validate_json(json.dumps({"kinds": ["flagstone"], "bays": ["tank"]} | wishes))


def test_a_question_is_the_same_however_its_fields_are_ordered() -> None:
    """What is asked twice is one study: its text is the same whatever order and defaults were typed."""
    one = Wishes.model_validate_json('{"kinds": ["flagstone"], "bays": ["tank"], "modules": 9}')
    two = Wishes.model_validate_json('{"modules": 9, "parallel": 1, "bays": ["tank"], "kinds": ["flagstone"]}')
    assert one.model_dump_json() == two.model_dump_json()
    assert Wishes.model_validate_json(one.model_dump_json()) == one


def test_a_split_of_an_alternating_block_goes_on_alternating() -> None:
    block = Block(kind="flagstone", turn=TURNS[0], counts=Counts(aft=5), alternate="aft")
    split = rearranged({"a": block}, KINDS, Order(do="split", block="a", way="aft", at=3))
    looks = [m.looks for b in (block, *split.values()) for m in lay_out(b, KINDS["flagstone"]).modules]
    assert looks[:5] == looks[5:]


def two_apart(gap: float = 300.0) -> Blocks:
    a = Block(kind="flagstone", turn=TURNS[0])
    size = lay_out(a, KINDS["flagstone"]).size_mm
    return {"a": a, "b": a.model_copy(update={"origin_mm": (size[0] + gap, 40.0, 0.0)})}


@given(st.tuples(*[st.floats(-200, 200)] * 3), st.integers(0, 3).map(lambda n: 90.0 * n))
def test_a_move_goes_the_way_of_the_vehicle_however_the_box_is_turned(
    by: tuple[float, float, float], yaw: float
) -> None:
    pose = Pose(anchor="base", at_mm=(0.0, 0.0, 0.0), yaw_deg=yaw)
    blocks = two_apart()
    moved = rearranged(blocks, KINDS, Order(do="move", block="b", by_mm=by), pose)
    went = rotation(yaw, 0.0, 0.0) @ (np.array(moved["b"].origin_mm) - np.array(blocks["b"].origin_mm))
    assert went == pytest.approx(by, abs=2e-6)
    assert moved["a"] == blocks["a"]


@given(st.floats(-12, 12), st.floats(-12, 12))
def test_a_move_is_caught_touching_with_the_gap_and_in_line(off: float, aside: float) -> None:
    blocks = two_apart()
    beside = rearranged(blocks, KINDS, Order(do="put beside", block="b", other="a", way="aft"))["b"]
    by = (beside.origin_mm[0] - blocks["b"].origin_mm[0] + off, -40.0 + aside, 0.0)
    caught = rearranged(blocks, KINDS, Order(do="move", block="b", by_mm=by, catch_mm=12.5))["b"]
    assert caught.origin_mm == beside.origin_mm
    free = rearranged(blocks, KINDS, Order(do="move", block="b", by_mm=by))["b"]
    assert free.origin_mm == pytest.approx([a + b for a, b in zip(blocks["b"].origin_mm, by, strict=True)], abs=1e-6)
