"""Where a box comes to stand: squeezed it says what is lacking, free it keeps every gap, and a way told is the least
there is."""

import math
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from levelcradle.core.assembly import resolve
from levelcradle.core.axes import Vec
from levelcradle.core.clearance import snap_points
from levelcradle.core.design import Design, validate
from levelcradle.core.fit import Wishes
from levelcradle.core.fit.cases import LuggageRoom
from levelcradle.core.fit.space import ClearanceConstraint, free_space
from levelcradle.core.fit.stand import STEP_MM, least_travel_mm, pressing, solve_placement
from levelcradle.core.solids import Solid, block, mesh_solid, nearest, surface_of
from tests.core.test_fit import bay_design
from tests.plain import box_at, found, plain_car

FAR = (-500.0, -500.0, -500.0), (500.0, 500.0, 500.0)
NOWHERE = (0.0, 0.0, 0.0)
PIECE = block((0, 0, 0), (100, 60, 40))

place = st.tuples(*(st.integers(-120, 120),) * 3)
lump = st.tuples(place, st.tuples(*(st.integers(5, 80),) * 3), st.integers(0, 25))


def thing(low: Any, size: Any, need_mm: float) -> ClearanceConstraint:
    return ClearanceConstraint(
        block(tuple(low), tuple(a + b for a, b in zip(low, size, strict=True))), need_mm, "t", "t"
    )  # type: ignore[arg-type]


def gaps_at(at: Vec, things: list[ClearanceConstraint], piece: Solid = PIECE) -> list[float]:
    """What each gap has beyond its need, the piece put there afresh."""
    there = block(
        tuple(a + b for a, b in zip(piece.low, at, strict=True)),
        tuple(a + b for a, b in zip(piece.high, at, strict=True)),
    )  # type: ignore[arg-type]
    return [nearest(there, t.solid).gap_mm - t.need_mm for t in things]


# --- settling ---


@settings(max_examples=60)
@given(st.lists(lump, min_size=1, max_size=4), place)
def test_what_holds_keeps_every_gap_within_its_bounds_and_what_lacks_says_so(rows: Any, start: Any) -> None:
    things = [thing(*row) for row in rows]
    low, high = (-200.0, -200.0, -10.0), (200.0, 200.0, 300.0)
    begin = (float(start[0]), float(start[1]), float(max(start[2], -10)))
    came = solve_placement([PIECE], things, begin, low, high, NOWHERE)
    if came.holds:
        assert min(gaps_at(came.at, things)) >= -1e-6
    else:
        assert came.lack_mm > 0
        assert min(gaps_at(came.at, things)) < 0
    assert all(a - 1e-6 <= v <= b + 1e-6 for a, v, b in zip(low, came.at, high, strict=True))


@pytest.mark.parametrize(("slot", "lack"), [(119.0, 1.0), (112.0, 8.0), (101.0, 19.0), (121.0, 0.0)])
def test_squeezed_between_two_walls_it_lacks_what_the_slot_is_short_of(slot: float, lack: float) -> None:
    """100 long with 10 wanted at either end, wherever it starts."""
    walls = [thing((-50, -500, -500), (50, 1000, 1000), 10.0), thing((slot, -500, -500), (50, 1000, 1000), 10.0)]
    for start in (-3.0, 5.0, 14.0):
        came = solve_placement([PIECE], walls, (start, 0.0, 0.0), *FAR, NOWHERE)
        assert came.lack_mm == pytest.approx(lack, abs=0.06)
        assert came.holds == (lack == 0)


def test_free_it_stands_lowest_and_nearest_to_where_it_is_preferred() -> None:
    floor = [thing((-500, -500, -50), (1000, 1000, 50), 4.0)]
    came = solve_placement([PIECE], floor, (80.0, 60.0, 90.0), *FAR, (30.0, -20.0, 0.0), roomy_mm=1.5)
    assert came.holds
    assert came.at == pytest.approx((30.0, -20.0, 5.5), abs=0.05)


# --- the least way ---


@settings(max_examples=40)
@given(st.lists(lump, min_size=1, max_size=3), st.integers(0, 2), st.sampled_from((1.0, -1.0)))
def test_the_way_told_is_the_first_place_on_the_step_that_keeps_every_gap(rows: Any, axis: int, sign: float) -> None:
    things, most = [thing(*row) for row in rows], 160.0

    def kept(far: float) -> bool:
        by = [0.0, 0.0, 0.0]
        by[axis] = sign * far
        return min(gaps_at((by[0], by[1], by[2]), things)) >= -1e-9

    steps = (n * STEP_MM for n in range(round(most / STEP_MM) + 1))
    by_hand = next((far for far in steps if kept(far)), None)
    told = least_travel_mm([PIECE], things, axis, sign, most)
    if told is None or by_hand is None:
        assert told is by_hand or max(t for t in (told, by_hand) if t is not None) > most - STEP_MM
    else:
        assert kept(told)
        assert told <= by_hand + 1e-9
        assert told > by_hand - STEP_MM


def test_past_a_scan_the_way_is_measured() -> None:
    scan = mesh_solid(*surface_of(block((40, 0, 0), (70, 60, 40))), slack_mm=0.0, closed=True, inside=True)
    assert least_travel_mm([PIECE], [ClearanceConstraint(scan, 6.0, "s", "s")], 0, 1.0, 200.0) == pytest.approx(
        76.0, abs=1.0
    )


def test_what_presses_says_the_way_it_is_to_be_left() -> None:
    wall = thing((110, -500, -500), (50, 1000, 1000), 15.0)
    (row,) = pressing([PIECE], [wall], NOWHERE, 0.0)
    assert row.spare_mm == pytest.approx(-5.0)
    assert row.away == pytest.approx((-1.0, 0.0, 0.0))
    (inside,) = pressing([PIECE], [thing((90, -500, -500), (50, 1000, 1000), 15.0)], NOWHERE, 0.0)
    assert inside.away == pytest.approx((-1.0, 0.0, 0.0))


# --- drags, free cells, luggage ---


@pytest.mark.parametrize("lean_deg", [0.0, 20.0, 45.0])
def test_put_where_it_is_caught_a_box_has_just_the_gap_that_is_told(lean_deg: float) -> None:
    """A wall that leans back from a box's path: along the path more has to be travelled than the gap opens."""
    back = 300 * math.tan(math.radians(lean_deg))
    plan = [[900 - back, -200], [900 + back, 400], [700 + back, 400], [700 - back, -200]]
    wall = {"name": "wall", "state": "stays", "gap_class": "same",
            "solid": {"type": "prism", "outline_mm": plan, "low_up_mm": 0, "high_up_mm": 900}}  # fmt: skip
    at = (1000.0 + back, 0.0, 400.0)
    tree = plain_car(boxes={"x": box_at(at)}, items={"wall": wall})
    rows = [c for c in snap_points(resolve(validate(tree), {}), "x") if c.axis == 0 and c.name == "wall"]
    assert {c.state for c in rows} == {"clear", "tight"}
    for row in rows:
        there = plain_car(boxes={"x": box_at((row.at_mm, *at[1:]))}, items={"wall": wall})
        gap = next(f for f in found(there, "gap") if "items/wall" in f.subjects)
        assert gap.value == pytest.approx(row.gap_mm, abs=0.02)


def test_beside_more_things_no_fewer_cells_are_blocked_and_the_first_space_stays_as_it_was() -> None:
    first, more = thing((20, 20, 0), (20, 20, 40), 3.0), thing((60, 10, 0), (20, 70, 40), 3.0)
    bounds: tuple[Vec, Vec] = ((0.0, 0.0, 0.0), (100.0, 90.0, 60.0))
    space = free_space(*bounds, [first], 5.0)
    before = space.places((30.0, 20.0, 20.0)).copy()
    both = space.beside([more]).places((30.0, 20.0, 20.0))
    assert (both == free_space(*bounds, [first, more], 5.0).places((30.0, 20.0, 20.0))).all()
    assert (space.places((30.0, 20.0, 20.0)) == before).all()
    assert both.sum() < before.sum()


def _boot(*keepouts: Any) -> Design:
    design = bay_design((800.0, 560.0, 330.0), list(keepouts))
    return design.model_copy(update={"bays": {"b": design.bays["b"].model_copy(update={"flags": {"luggage": True}})}})


def test_the_largest_case_is_what_the_room_beside_the_boxes_leaves() -> None:
    """Empty it takes the largest; each box that stands in it takes some of that, and the wish for an empty half takes
    nothing."""
    bare, wishes = _boot(), Wishes(kinds=("brick",), bays=("b",))
    cases = []
    for length in (None, 150.0, 350.0, 640.0):
        box = (
            {"x": {**box_at((10.0, 10.0, 310.0)), "inner": {"type": "fixed", "size_mm": [length, 500.0, 250.0]}}}
            if length
            else {}
        )
        design = validate({**bare.model_dump(mode="json", by_alias=True, exclude_none=True), "boxes": box})
        cases.append(LuggageRoom(bare, wishes, {}).largest_case(design))
        assert (
            LuggageRoom(bare, wishes.model_copy(update={"leave_empty": "left"}), {}).largest_case(design) == cases[-1]
        )
    assert [c.split(",")[0] for c in cases if c] == ["large case", "cabin case", "bag", "no case"]


def test_a_car_without_room_for_luggage_is_asked_for_no_case() -> None:
    bare = bay_design((800.0, 560.0, 330.0), [])
    assert LuggageRoom(bare, Wishes(kinds=("brick",), bays=("b",)), {}).largest_case(bare) is None
