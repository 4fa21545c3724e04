"""The chain of allowances says no more than the metal: what overlaps on the way is foul, and the least line is the one
that is told."""

import copy
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from levelcradle.core.assembly import resolve
from levelcradle.core.clearance import stack_up
from levelcradle.core.design import validate
from tests.conftest import DEMO
from tests.plain import BRICK, a_block, analysed, box_at, held, plain_car

AT = (1000.0, 0.0, 300.0)
HEADS_MM = 14.0  # no more than twice a lid's fit, its sheet and a head


def car(*things: dict[str, Any], **boxes: dict[str, Any]) -> dict[str, Any]:
    return plain_car(
        boxes={"x": box_at(AT), **boxes}, items={f"t{n}": {**t, "name": f"t{n}"} for n, t in enumerate(things)}
    )


def chain(tree: dict[str, Any], way: Any) -> Any:
    return stack_up(resolve(validate(tree), {}), "x", way)


@settings(max_examples=15)
@given(low=st.floats(5, 95), thick=st.floats(5, 200), across=st.floats(10, 60))
def test_a_beam_in_a_box_is_foul_however_deep_it_begins(low: float, thick: float, across: float) -> None:
    beam = a_block((1050, across, 300 + low), (1150, across + 50, 300 + low + thick))
    assert chain(car(beam, a_block((900, -50, 900), (1400, 300, 950))), "up").state == "foul"


@settings(max_examples=12)
@given(gap=st.floats(1, 60), at=st.floats(5, 200), wide=st.floats(5, 60))
def test_the_least_of_all_lines_is_told(gap: float, at: float, wide: float) -> None:
    """A rib anywhere beside the box comes nearer than the wall behind it: what is left over is the rib's, not the
    wall's."""
    walls = [a_block((800, -300, 200), (1500, -250, 600)), a_block((800, 400, 200), (1500, 450, 600))]
    rib = a_block((1000 + at, -gap - 100, 300), (1000 + at + wide, -gap, 390))
    told = chain(car(*walls, rib), "across")
    plain = chain(car(*walls), "across")
    assert told.spare_mm is not None
    assert plain.spare_mm is not None
    least = plain.spare_mm - (250 - gap)
    assert (
        least - 1e-6 <= told.spare_mm <= least + HEADS_MM
    )  # beside the rib may be no lid's rim and no head of a screw


def test_protruding_heads_count_and_not_the_sheet_between_them() -> None:
    """Walls beside the tray alone leave more than walls that reach up beside the lid's rim and its heads, 5 mm and more
    a side."""
    low = chain(car(a_block((800, -140, 200), (1500, -100, 360)), a_block((800, 234, 200), (1500, 274, 360))), "across")
    high = chain(
        car(a_block((800, -140, 200), (1500, -100, 600)), a_block((800, 234, 200), (1500, 274, 600))), "across"
    )
    assert low.spare_mm is not None
    assert high.spare_mm is not None
    assert low.spare_mm - high.spare_mm > 2 * 5


@settings(max_examples=10)
@given(between=st.floats(8, 80))
def test_it_runs_through_the_next_box_to_the_metal(between: float) -> None:
    """Two boxes side by side between two walls: both chains are one, with the same to spare."""
    walls = [a_block((800, -150, 200), (1500, -100, 600)), a_block((800, 500, 200), (1500, 550, 600))]
    tree = car(*walls, y=box_at((1000, 134 + between, 300), name="Y"))
    one, other = (stack_up(resolve(validate(tree), {}), key, "across") for key in ("x", "y"))
    assert one.there_mm == pytest.approx(600)
    assert other.there_mm == pytest.approx(600)
    assert one.spare_mm == pytest.approx(other.spare_mm)
    assert sum(r.kind == "module" for r in one.rows) == 2


@given(mm=st.floats(0.1, 20), tol=st.floats(0, 3))
def test_a_row_by_hand_takes_its_length_and_stays(mm: float, tol: float) -> None:
    walls = [a_block((800, -150, 200), (1500, -100, 600)), a_block((800, 300, 200), (1500, 350, 600))]
    tree = car(*walls)
    before = chain(tree, "across")
    tree["chains"] = {"c": {"box": "x", "axis": "across", "rows": {"r": {"words": "felt", "mm": mm, "tol_mm": tol}}}}
    after = chain(tree, "across")
    assert after.spare_mm == pytest.approx(before.spare_mm - mm)
    assert after.worst_mm == pytest.approx(before.worst_mm + tol)
    assert chain(tree, "aft").rows == chain(car(*walls), "aft").rows


CLASSES = st.sampled_from(["same", "other", "moving", "axle", "warm", "hot"])
POSTS = st.lists(st.tuples(st.floats(-60, 260), st.sampled_from((-1, 1)), st.floats(5, 90), CLASSES), max_size=3)


@settings(max_examples=15)
@given(walls=st.tuples(*[st.tuples(st.floats(1, 60), CLASSES)] * 2), posts=POSTS)
def test_the_chain_and_the_gaps_agree(walls: Any, posts: Any) -> None:
    """On a line a gap is never less than the nearest way to a thing: the chain has no less to spare than the two sides'
    least margins together, so that it is foul only where a gap is; and no more than the margins of two walls that every
    line meets."""
    spans = [(at, side, off, kind, 40.0, 320.0) for at, side, off, kind in posts]
    spans += [(-300.0, side, off, kind, 900.0, 200.0) for side, (off, kind) in zip((-1, 1), walls, strict=True)]
    things, sides = [], {-1: list[str](), 1: list[str]()}
    for n, (at, side, off, kind, long, low) in enumerate(spans):
        y = -off - HEADS_MM if side < 0 else 134 + off + HEADS_MM
        things.append(
            a_block(
                (1000 + at, min(y, y + side * 10), low), (1000 + at + long, max(y, y + side * 10), 600), gap_class=kind
            )
        )
        sides[side].append(f"items/t{n}")
    tree = car(*things)
    told = chain(tree, "across")
    margins = {f.subjects[1]: f.margin for f in analysed(tree).findings if f.code == "gap" and f.margin is not None}
    least = sum(min(margins.get(path, 100.0) for path in paths) for paths in sides.values())
    assert told.spare_mm is not None
    assert least - 1e-6 <= told.spare_mm <= sum(margins[f"items/t{len(posts) + k}"] for k in (0, 1)) + 1e-6


@settings(max_examples=12)
@given(more=st.floats(0.05, 12))
def test_the_worst_case_decides_and_the_root_is_only_told(more: float) -> None:
    """Clear is what is left over when every row is off the wrong way at once; less than that is tight, however small
    the root."""

    def between(room: float) -> Any:
        return chain(
            car(a_block((800, -200, 200), (1500, -28, 600)), a_block((800, room - 28, 200), (1500, 400, 600))), "across"
        )

    told = between(200.0)
    assert told.root_mm < told.worst_mm
    just = 200.0 - told.spare_mm
    states = [
        between(just + off).state
        for off in (-0.05, 0.05, told.root_mm + 0.05, told.worst_mm - 0.05, told.worst_mm + more)
    ]
    assert states == ["foul", "tight", "tight", "tight", "clear"]


@settings(max_examples=10)
@given(order=st.permutations(["a", "b", "c", "d", "e"]), way=st.sampled_from(["aft", "across", "up"]))
def test_the_order_of_the_lists_changes_nothing(order: list[str], way: str) -> None:
    """A thing far off, or a space that counts otherwise, hides none that comes after it in the list."""
    things = {
        "a": a_block((5000, 900, 900), (5100, 950, 950)), "b": a_block((800, -300, 200), (1500, -40, 600)),
        "c": a_block((800, 174, 200), (1500, 400, 600)), "d": a_block((700, -30, 200), (960, 160, 600)),
        "e": a_block((1254, -30, 250), (1300, 160, 600)),
    }  # fmt: skip
    crush = {
        "k": {
            "name": "crush",
            "kind": "crush",
            "solid": {"type": "block", "low_mm": [700, -100, 0], "high_mm": [1400, 300, 900]},
        }
    }
    named = {key: {**things[key], "name": key} for key in order}
    told = stack_up(resolve(validate(plain_car(boxes={"x": box_at(AT)}, items=named, keepouts=crush)), {}), "x", way)
    sorted_ = stack_up(
        resolve(validate(plain_car(boxes={"x": box_at(AT)}, items=dict(sorted(named.items())))), {}), "x", way
    )
    assert (told.spare_mm, told.state, {end.name for end in told.ends}) == (
        sorted_.spare_mm,
        sorted_.state,
        {e.name for e in sorted_.ends},
    )


def test_what_its_brackets_lie_on_hides_nothing_after_it() -> None:
    """Down through a bracket and the rail that carries it, to a plate on the ground: entered before the rails and after
    them."""
    plate = {**a_block((-300, -600, 0), (900, 600, 10)), "name": "plate"}

    def through(items: dict[str, Any]) -> Any:
        return stack_up(
            resolve(validate({**copy.deepcopy(DEMO), "items": items}), {}), "bonnet", "up", at_mm=(183.0, -55.0)
        )

    before, after = through({"plate": plate, **DEMO["items"]}), through({**DEMO["items"], "plate": plate})
    assert "plate" in {end.name for end in before.ends}
    assert before.rows == after.rows


def test_what_carries_a_box_and_lies_under_it_ends_the_chain_through_the_box_alone() -> None:
    """A plate under the whole box carries its bracket: through the box it is met with its gap, through the bracket it
    is not."""
    plate = {**a_block((800, -300, 200), (1500, 300, 280), gap_class="same"), "name": "plate"}
    hard = {"h": {"name": "h", "at_mm": [1100.0, -51.0, 280.0], "direction": [0, 0, 1]}}
    mounts = {"m": held("x", "h")}
    assembly = resolve(
        validate(plain_car(boxes={"x": box_at(AT)}, items={"t": plate}, hardpoints=hard, mounts=mounts)), {}
    )
    through, beside = (stack_up(assembly, "x", "up", at_mm=spot) for spot in ((107.0, 67.0), (100.0, -40.0)))
    assert through.ends[0].name == "plate"
    assert [row.mm for row in through.rows if row.kind == "gap"] == [6.0]
    assert beside.ends[0].name != "plate"
    assert all(row.what != "cut off its edge" for row in through.rows)  # it is a square box


@pytest.mark.parametrize(("way", "grows"), [("aft", 1.5), ("across", 0.0), ("up", 0.0)])
def test_a_module_that_spreads_in_its_length_does_so_in_one_chain(way: str, grows: float) -> None:
    tree = car()
    tree["module_kinds"] = {"brick": {**BRICK, "growth_mm": {"length": 1.5}}}
    rows = chain(tree, way).rows
    assert sum(row.mm for row in rows if row.kind == "growth") == grows
    assert all(row.what != "cut off its edge" for row in rows)  # nothing is cut off this box


def test_what_a_frames_twist_takes_counts_when_the_nearest_is_chosen() -> None:
    """A plate 18 over the box leaves 3 of 15, a box 20 over it less than that: the frame turns the two boxes towards
    each other."""
    hard, mounts = {}, {}
    for key, aft in (("x", 1000.0), ("y", 2500.0)):
        for n in range(2):
            at = [aft, 500.0 + 60.0 * n, 500.0]
            hard[f"{key}{n}"] = {"name": f"{key}{n}", "at_mm": at, "direction": [0, 0, -1], "structure": "frame"}
            mounts[f"{key}{n}"] = held(key, f"{key}{n}")
    boxes = {"x": box_at((1000.0, 500.0, 400.0)), "y": box_at((1000.0, 500.0, 524.0), name="Y")}
    plate = a_block((950.0, 450.0, 522.0), (1300.0, 700.0, 523.0), gap_class="same")
    tree = plain_car(boxes=boxes, hardpoints=hard, mounts=mounts, items={"p": {**plate, "name": "plate"}})
    rows = {row.what: row.mm for row in stack_up(resolve(validate(tree), {}), "x", "up").rows}
    assert rows["twist of the frame"] > 3.0
