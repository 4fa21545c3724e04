"""Verdicts at their borders, on plain cars: where a rule begins to bite, on which side, and what it leaves alone."""

import math
from copy import deepcopy
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import Polygon

from levelcradle.core.analysis import analyse
from levelcradle.core.assembly import resolve
from levelcradle.core.axes import Placement, rotation
from levelcradle.core.bays import diagonal_figures
from levelcradle.core.clearance import stack_up
from levelcradle.core.clearance.strayed import TYRE_MM
from levelcradle.core.clearance.tape import move_to, tape_between
from levelcradle.core.connection import Contact
from levelcradle.core.design import tree_of, validate
from levelcradle.core.edits import edited, reshaped
from levelcradle.core.errors import DesignError
from levelcradle.core.fit import Wishes, study, what_it_takes
from levelcradle.core.gear import thing_solids
from levelcradle.core.level.lift import cg_height
from levelcradle.core.mount import judge_support
from levelcradle.core.solids import block, block_shadows, shadows
from levelcradle.core.survey import survey_blanks
from levelcradle.core.survey.findings import survey_findings
from tests.conftest import DEMO
from tests.plain import BRICK, a_block, box_at, plain_car


@pytest.mark.parametrize(
    ("basis", "tol", "assumed"), [("measured", 20.0, False), ("measured", 60.0, True), ("assumed", 20.0, True), ("axle_lift", 50.0, False)]
)
def test_a_height_is_a_guess_where_it_was_assumed_or_is_not_sure(basis: str, tol: float, assumed: bool) -> None:
    car = validate(plain_car(vehicle={"wheelbase_mm": 2500.0, "cg_height": {"basis": basis, "up_mm": 550.0, "tolerance_mm": tol}}))
    height = cg_height(car.vehicle, 1000.0)
    assert height is not None
    assert height.assumed == assumed


def test_a_mount_used_beyond_its_capacity_is_foul_however_little_and_none_other_is() -> None:
    """The demo's box heavier and heavier: somewhere its mounts pass 1, and are foul from there."""
    seen = set()
    for kg in (26.0, 34.0, 45.0, 60.0):
        tree = deepcopy(DEMO)
        tree["module_kinds"]["flagstone"]["mass_kg"] = kg
        for finding in analyse(validate(tree), {}).findings:
            if finding.code == "mount.use" and finding.value is not None:
                assert (finding.state == "foul") == (finding.value > 1), finding
                seen.add(min(int(finding.value * 4), 8))
    assert seen & {4, 5, 6, 7}  # some between 1 and 2


@pytest.mark.parametrize("foul", [0, 1, 2, 3])
def test_several_mounts_of_one_verdict_are_one_row_of_the_strip(foul: int) -> None:
    tree = deepcopy(DEMO)
    for mount in list(tree["mounts"].values())[:foul]:
        mount["shape"]["leg_b_mm"] = 40.0  # too short for its weld
    analysis = analyse(validate(tree), {})
    states = {f.id: f.state for f in analysis.findings if f.code == "mount.use"}
    rows = [row for row in analysis.watch if set(row.ids) & set(states)]
    assert len(rows) == len(set(states.values()) - {"clear", "note"})
    assert sorted(len(row.ids) for row in rows) == sorted(n for n in (foul, len(states) - foul) if n)
    assert all(str(len(row.ids)) in row.says for row in rows if len(row.ids) > 1)


def test_a_diagonal_that_reads_what_the_stations_say_is_out_of_square_by_nothing_more() -> None:
    """However much the sides lean: only what the tape says beyond that is told."""
    station = {"type": "sides", "aft_mm": 1000.0, "floor_mm": 300.0, "top_left_mm": 700.0, "top_right_mm": 700.0,
               "left_floor_mm": -300.0, "left_top_mm": -260.0, "right_floor_mm": 300.0, "right_top_mm": 260.0}  # fmt: skip
    sides = {side: {"is": "metal"} for side in ("fore", "aft", "left", "right", "floor", "top")}
    reads = math.hypot(560.0, 400.0)
    for extra in (0.0, 12.0, -12.0):
        diagonal = {"one": {"station": "a", "corner": "left_floor"}, "other": {"station": "a", "corner": "right_top"},
                    "length_mm": reads + extra}  # fmt: skip
        bay = {"name": "b", "stations": {"a": station, "b": {**station, "aft_mm": 1500.0}}, "sides": sides, "diagonals": {"d": diagonal}}
        (row,) = diagonal_figures(validate(plain_car(bays={"b": bay})).bays["b"])
        assert row.out_of_square_deg is not None
        assert math.copysign(1, row.out_of_square_deg) == math.copysign(1, extra) or abs(row.out_of_square_deg) < 1e-9
        assert (abs(row.out_of_square_deg) < 1e-9) == (extra == 0.0)


def test_a_diagonal_that_no_such_sides_can_have_says_nothing_of_the_corner() -> None:
    station = {"type": "sides", "aft_mm": 1000.0, "floor_mm": 300.0, "top_left_mm": 700.0, "top_right_mm": 700.0,
               "left_floor_mm": -300.0, "left_top_mm": -300.0, "right_floor_mm": 300.0, "right_top_mm": 300.0}  # fmt: skip
    diagonal = {"one": {"station": "a", "corner": "left_floor"}, "other": {"station": "a", "corner": "right_top"}, "length_mm": 5000.0}
    bay = {"name": "b", "stations": {"a": station, "b": {**station, "aft_mm": 1500.0}}, "diagonals": {"d": diagonal},
           "sides": {side: {"is": "metal"} for side in ("fore", "aft", "left", "right", "floor", "top")}}  # fmt: skip
    (row,) = diagonal_figures(validate(plain_car(bays={"b": bay})).bays["b"])
    assert row.out_of_square_deg is None
    assert row.misfit_mm > 4000


@pytest.mark.parametrize("off", [-30.0, 30.0])
@pytest.mark.parametrize("side", [-1, 1])
def test_where_the_body_was_not_measured_a_box_is_out_past_half_the_track_and_half_a_tyre(off: float, side: int) -> None:
    half = 1300.0 / 2 + TYRE_MM / 2
    low = half + off - 134.0 if side > 0 else -half - off
    tree = plain_car(boxes={"x": box_at((1000.0, low, 400.0))})
    tree["vehicle"] |= {"track_mm": {"front": 1300.0, "rear": 1250.0}}
    rows = [f for f in analyse(validate(tree), {}).findings if f.code == "place.outline"]
    assert [f.value for f in rows] == pytest.approx([off + 3.5] if off > 0 else [], abs=7.0)


@pytest.mark.parametrize(
    ("aft", "right", "beyond"), [(1300.0, 430.0, False), (1300.0, 470.0, True), (1700.0, 330.0, False), (1700.0, 370.0, True)]
)
def test_in_a_space_that_tapers_a_box_is_out_of_it_where_its_middle_is_beyond_the_side_there(
    aft: float, right: float, beyond: bool
) -> None:
    """From 500 either side of the middle to 300 over a metre: at 1,250 aft 450, at 1,750 350."""

    def station(at: float, half: float) -> dict[str, Any]:
        return {"type": "sides", "aft_mm": at, "floor_mm": 300.0, "top_left_mm": 900.0, "top_right_mm": 900.0,
                "left_floor_mm": -half, "left_top_mm": -half, "right_floor_mm": half, "right_top_mm": half}  # fmt: skip

    sides = {side: {"is": "metal"} for side in ("fore", "aft", "left", "right", "floor", "top")}
    bay = {"name": "b", "stations": {"a": station(1000.0, 500.0), "b": station(2000.0, 300.0)}, "sides": sides}
    box = {**box_at((aft - 107.0, right - 67.0, 400.0)), "bay": "b"}
    said = [f for f in analyse(validate(plain_car(bays={"b": bay}, boxes={"x": box})), {}).findings if f.code == "gap.outside"]
    assert bool(said) == beyond


@pytest.mark.parametrize(("more", "moved"), [
    ({"state": "in"}, True), ({"state": "stays"}, False), ({"state": "in", "gap_class": "axle"}, False),
    ({"state": "in", "gap_class": "moving"}, False), ({"state": "in", "structure": "axle"}, False),
])  # fmt: skip
def test_a_thing_is_moved_out_of_the_way_only_where_it_goes_in_and_hangs_on_nothing_that_moves(more: dict[str, Any], moved: bool) -> None:
    thing = {**a_block((1210, -200, 400), (1260, 300, 500)), "name": "t", "mass_kg": 2.0, "at_mm": [1235.0, 50.0, 450.0], **more}
    answer = what_it_takes(validate(plain_car(boxes={"x": box_at((1000.0, 0.0, 400.0))}, items={"t": thing})), "x", meshes={})
    assert ("thing" in {cure.kind for cure in answer.cures}) == moved


def test_a_thing_ahead_of_the_axle_is_in_the_way_of_a_study_there() -> None:
    """A space far ahead and near the middle, with a post in it: less goes in than without."""
    sides = {side: {"is": "metal"} for side in ("fore", "aft", "left", "right", "floor", "top")} | {"top": {"is": "open"}}
    station = {"type": "sides", "floor_mm": 300.0, "top_left_mm": 700.0, "top_right_mm": 700.0,
               "left_floor_mm": -300.0, "left_top_mm": -300.0, "right_floor_mm": 300.0, "right_top_mm": 300.0}  # fmt: skip
    stations = {"a": {**station, "aft_mm": -1400.0}, "b": {**station, "aft_mm": -800.0}}
    bay = {"name": "b", "stations": stations, "sides": sides}
    post = {"t": {**a_block((-1300, -150, 300), (-900, 150, 700)), "name": "post"}}
    most = []
    for items in ({}, post):
        found = study(validate(plain_car(bays={"b": bay}, items=items)), Wishes(kinds=("brick",), bays=("b",)), meshes={})
        most.append(max((p.modules for p in found.proposals), default=0))
    assert most[1] < most[0]


# --- survey ---


def crossing(points: list[tuple[float, float]]) -> bool:
    spots = {f"p{n}": {"across_mm": a, "up_mm": u, "order": n} for n, (a, u) in enumerate(points)}
    sides = {side: {"is": "open"} for side in ("fore", "aft", "left", "right", "floor", "top")}
    stations = {key: {"type": "points", "aft_mm": aft, "points": spots} for key, aft in (("a", 1000.0), ("b", 1500.0))}
    tree = plain_car(bays={"b": {"name": "b", "stations": stations, "sides": sides}})
    return any(f.code == "survey.crossed" for f in survey_findings(resolve(validate(tree), {})))


@pytest.mark.parametrize(("points", "told"), [
    ([(-300, 200), (300, 200), (300, 700), (-300, 700)], False),
    ([(-300, 200), (300, 700), (300, 200), (-300, 700)], True),  # crosses itself
    ([(-300, 200), (300, 200), (300, 200.001), (-300, 200.001)], True),  # has no room
])  # fmt: skip
def test_points_that_cross_or_have_no_room_are_told(points: list[tuple[float, float]], told: bool) -> None:
    assert crossing(points) == told


def test_a_twin_of_a_twin_or_of_itself_is_refused() -> None:
    def point(**more: Any) -> dict[str, Any]:
        return {"name": "h", "at_mm": [1000.0, 100.0, 400.0], "direction": [0.0, 0.0, 1.0], **more}

    validate(plain_car(hardpoints={"a": point(), "b": point(mirror_of="a")}))
    for wrong in (
        {"a": point(mirror_of="a")},
        {"a": point(), "b": point(mirror_of="a"), "c": point(mirror_of="b")},
        {"b": point(mirror_of="a")},
    ):
        with pytest.raises(DesignError, match="mirror twin"):
            validate(plain_car(hardpoints=wrong))


def test_blanks_of_a_survey_are_numbered_from_one_in_their_order() -> None:
    blanks = survey_blanks(validate(DEMO))
    assert [blank.number for blank in blanks] == list(range(1, len(blanks) + 1))


@pytest.mark.parametrize("want", [12.0, 60.0])
def test_a_box_is_moved_along_the_tape_until_it_reads_what_was_asked(want: float) -> None:
    tree = plain_car(boxes={"x": box_at((1000.0, 0.0, 400.0))}, items={"t": a_block((1300, 200, 300), (1400, 300, 600))})
    assembly = resolve(validate(tree), {})
    by = move_to(assembly, "boxes/x", "items/t", want)
    tree["boxes"]["x"]["pose"]["at_mm"] = [a + b for a, b in zip((1000.0, 0.0, 400.0), by, strict=True)]
    assert tape_between(resolve(validate(tree), {}), "boxes/x", "items/t").distance_mm == pytest.approx(want, abs=0.01)


def test_a_thing_made_a_run_and_a_block_again_stands_where_it_stood() -> None:
    tree = plain_car(items={"t": a_block((1300.0, 200.0, 300.0), (1400.0, 320.0, 600.0))})
    for shape in ("prism", "block"):
        design = edited(validate(tree), reshaped(validate(tree), "items/t/solid", shape))
        tree = tree_of(design)
        (piece,) = thing_solids(design.items["t"].solid, design.items["t"], {})
        assert (piece.low, piece.high) == (pytest.approx((1300, 200, 300)), pytest.approx((1400, 320, 600)))


# --- modules ---


@pytest.mark.parametrize(("axis", "grows"), [("length", (10.0, 0.0, 0.0)), ("height", (0.0, 0.0, 10.0))])
def test_what_is_pressed_springs_back_to_its_free_size(axis: str, grows: tuple[float, float, float]) -> None:
    size = BRICK["size_mm"][("length", "width", "height").index(axis)]
    pressed = {**BRICK, "growth_mm": {}, "compression": {"axis": axis, "free_mm": size + 10.0}}
    kind = validate(plain_car(module_kinds={"brick": pressed})).module_kinds["brick"]
    assert tuple(kind.grows_mm(n) for n in range(3)) == grows


# --- chains ---


@pytest.mark.parametrize("way", ["aft", "across", "up"])
def test_a_coating_is_as_sure_as_half_of_it_and_a_crush_zone_is_in_no_chain(way: Any) -> None:
    finish = {"coats": 2, "coat_mm": 0.2}
    walls = {"w": a_block((700, -300, 300), (900, 400, 600)), "v": a_block((1400, -300, 300), (1500, 400, 600))}
    crush = {"name": "crush", "kind": "crush", "solid": {"type": "block", "low_mm": [900, -300, 200], "high_mm": [1400, 400, 900]}}
    tree = plain_car(boxes={"x": box_at((1000.0, 0.0, 400.0), finish=finish)}, items=walls)
    rows = stack_up(resolve(validate(tree), {}), "x", way).rows
    coating = next(row for row in rows if row.what.startswith("coating"))
    assert (coating.mm, coating.tol_mm) == (pytest.approx(0.8), pytest.approx(0.4))
    tree["keepouts"] = {"k": crush}
    assert [(r.what, r.mm) for r in stack_up(resolve(validate(tree), {}), "x", way).rows] == [(r.what, r.mm) for r in rows]


def test_two_loose_contacts_in_one_place_hold_nothing() -> None:
    here = (1000.0, 0.0, 400.0)
    found = judge_support(
        [Contact(here, (0.0, 0.0, 1.0), "push"), Contact(here, (0.0, 0.0, 1.0), "push"), Contact((1200.0, 0.0, 400.0), (0.0, 0.0, 1.0))]
    )
    assert (found.verdict, found.ratio) == ("same place", 0.0)


@given(st.tuples(*[st.floats(-180, 180)] * 3), st.tuples(*[st.floats(-900, 900)] * 3))
def test_blocks_cast_the_shadow_that_each_of_them_casts_alone(turn: tuple[float, float, float], at: tuple[float, float, float]) -> None:
    placement = Placement(rotation(*turn), at)
    lows = np.array([(0.0, 0.0, 0.0), (300.0, 20.0, 10.0), (40.0, 400.0, 0.0)])
    highs = lows + np.array([(200.0, 120.0, 90.0), (200.0, 120.0, 90.0), (20.0, 60.0, 300.0)])
    for n, (plan, side, top) in enumerate(block_shadows(lows, highs, placement)):
        alone = block(tuple(lows[n]), tuple(highs[n])).moved(placement)
        for ring, other in zip((plan, side), shadows(alone), strict=True):
            assert Polygon(ring).symmetric_difference(Polygon(other)).area == pytest.approx(0.0, abs=2.0)
        assert top == pytest.approx(alone.high[2], abs=0.01)
