"""Verdicts at their borders, on plain cars: where a rule begins to bite, on which side, and what it leaves alone."""

import json
import math
from copy import deepcopy
from typing import Any

import numpy as np
import pytest
import trimesh
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import Polygon

from levelcradle.core.analysis import analyse
from levelcradle.core.assembly import resolve
from levelcradle.core.axes import Placement, rotation
from levelcradle.core.bays import diagonal_result
from levelcradle.core.clearance import stack_up
from levelcradle.core.clearance.outside_bay import TYRE_MM
from levelcradle.core.clearance.tape import move_to, tape_between
from levelcradle.core.connection import Contact
from levelcradle.core.connection.angle.checks import leg_a
from levelcradle.core.design import tree_of, validate
from levelcradle.core.design.lines import line_of
from levelcradle.core.design.patch import apply
from levelcradle.core.design.solid import MeshSolid
from levelcradle.core.edits import edited, reshaped
from levelcradle.core.errors import DesignError, PatchError
from levelcradle.core.fit import Wishes, study, what_it_takes
from levelcradle.core.gear import thing_solids
from levelcradle.core.level.lift import cg_height
from levelcradle.core.meshes import Mesh, placed_mesh
from levelcradle.core.modules.rearranged import Order, rearranged
from levelcradle.core.mount import judge_support
from levelcradle.core.solids import block, block_projections, hull, hull_corners, line_spans, projections, touches
from levelcradle.core.survey import survey_blanks
from tests.conftest import DEMO
from tests.plain import BRICK, SIDES, a_block, analysed, as_found, box_at, found, plain_car, space


@pytest.mark.parametrize(
    ("basis", "tol", "assumed"),
    [("measured", 20.0, False), ("measured", 60.0, True), ("assumed", 20.0, True), ("axle_lift", 50.0, False)],
)
def test_a_height_is_a_guess_where_it_was_assumed_or_is_not_sure(basis: str, tol: float, assumed: bool) -> None:
    car = validate(
        plain_car(vehicle={"wheelbase_mm": 2500.0, "cg_height": {"basis": basis, "up_mm": 550.0, "tolerance_mm": tol}})
    )
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
    assert all(str(len(row.ids)) in row.message for row in rows if len(row.ids) > 1)


def test_a_diagonal_that_reads_what_the_stations_say_is_out_of_square_by_nothing_more() -> None:
    """However much the sides lean: only what the tape says beyond that is told."""
    station = {"type": "sides", "aft_mm": 1000.0, "floor_mm": 300.0, "top_left_mm": 700.0, "top_right_mm": 700.0,
               "left_floor_mm": -300.0, "left_top_mm": -260.0, "right_floor_mm": 300.0,
               "right_top_mm": 260.0}  # fmt: skip
    sides = {side: {"is": "metal"} for side in ("fore", "aft", "left", "right", "floor", "top")}
    reads = math.hypot(560.0, 400.0)
    for extra in (0.0, 12.0, -12.0):
        diagonal = {"one": {"station": "a", "corner": "left_floor"}, "other": {"station": "a", "corner": "right_top"},
                    "length_mm": reads + extra}  # fmt: skip
        bay = {
            "name": "b",
            "stations": {"a": station, "b": {**station, "aft_mm": 1500.0}},
            "sides": sides,
            "diagonals": {"d": diagonal},
        }
        (row,) = diagonal_result(validate(plain_car(bays={"b": bay})).bays["b"])
        assert row.out_of_square_deg is not None
        assert math.copysign(1, row.out_of_square_deg) == math.copysign(1, extra) or abs(row.out_of_square_deg) < 1e-9
        assert (abs(row.out_of_square_deg) < 1e-9) == (extra == 0.0)


def test_a_diagonal_that_no_such_sides_can_have_says_nothing_of_the_corner() -> None:
    diagonal = {
        "one": {"station": "a", "corner": "left_floor"},
        "other": {"station": "a", "corner": "right_top"},
        "length_mm": 5000.0,
    }
    bay = space((1000.0, 1500.0), (300.0, 300.0), diagonals={"d": diagonal})
    (row,) = diagonal_result(validate(plain_car(bays={"b": bay})).bays["b"])
    assert row.out_of_square_deg is None
    assert row.misfit_mm > 4000


@pytest.mark.parametrize("off", [-30.0, 30.0])
@pytest.mark.parametrize("side", [-1, 1])
def test_where_the_body_was_not_measured_a_box_is_out_past_half_the_track_and_half_a_tyre(
    off: float, side: int
) -> None:
    half = 1300.0 / 2 + TYRE_MM / 2
    low = half + off - 134.0 if side > 0 else -half - off
    tree = plain_car(boxes={"x": box_at((1000.0, low, 400.0))})
    tree["vehicle"] |= {"track_mm": {"front": 1300.0, "rear": 1250.0}}
    rows = [f for f in analyse(validate(tree), {}).findings if f.code == "place.outline"]
    assert [f.value for f in rows] == pytest.approx([off + 3.5] if off > 0 else [], abs=7.0)


@pytest.mark.parametrize(
    ("aft", "right", "beyond"),
    [(1300.0, 430.0, False), (1300.0, 470.0, True), (1700.0, 330.0, False), (1700.0, 370.0, True)],
)
def test_in_a_space_that_tapers_a_box_is_out_of_it_where_its_middle_is_beyond_the_side_there(
    aft: float, right: float, beyond: bool
) -> None:
    """From 500 either side of the middle to 300 over a metre: at 1,250 aft 450, at 1,750 350."""
    bay = space((1000.0, 2000.0), (500.0, 300.0))
    box = {**box_at((aft - 107.0, right - 67.0, 400.0)), "bay": "b"}
    said = [
        f
        for f in analyse(validate(plain_car(bays={"b": bay}, boxes={"x": box})), {}).findings
        if f.code == "gap.outside"
    ]
    assert bool(said) == beyond


@pytest.mark.parametrize(("more", "moved"), [
    ({"state": "in"}, True), ({"state": "stays"}, False), ({"state": "in", "gap_class": "axle"}, False),
    ({"state": "in", "gap_class": "moving"}, False), ({"state": "in", "structure": "axle"}, False),
])  # fmt: skip
def test_a_thing_is_moved_out_of_the_way_only_where_it_goes_in_and_hangs_on_nothing_that_moves(
    more: dict[str, Any], moved: bool
) -> None:
    thing = {
        **a_block((1210, -200, 400), (1260, 300, 500)),
        "name": "t",
        "mass_kg": 2.0,
        "at_mm": [1235.0, 50.0, 450.0],
        **more,
    }
    answer = what_it_takes(
        validate(plain_car(boxes={"x": box_at((1000.0, 0.0, 400.0))}, items={"t": thing})), "x", meshes={}
    )
    assert ("thing" in {fix.kind for fix in answer.fixes}) == moved


def test_a_thing_ahead_of_the_axle_is_in_the_way_of_a_study_there() -> None:
    """A space far ahead and near the middle, with a post in it: less goes in than without."""
    bay = space((-1400.0, -800.0), (300.0, 300.0), (300.0, 700.0), open_sides=("top",))
    post = {"t": {**a_block((-1300, -150, 300), (-900, 150, 700)), "name": "post"}}
    most = []
    for items in ({}, post):
        found = study(
            validate(plain_car(bays={"b": bay}, items=items)), Wishes(kinds=("brick",), bays=("b",)), meshes={}
        )
        most.append(max((p.modules for p in found.proposals), default=0))
    assert most[1] < most[0]


# --- survey ---


def crossing(points: list[tuple[float, float]]) -> bool:
    spots = {f"p{n}": {"across_mm": a, "up_mm": u, "order": n} for n, (a, u) in enumerate(points)}
    sides = {side: {"is": "open"} for side in ("fore", "aft", "left", "right", "floor", "top")}
    stations = {key: {"type": "points", "aft_mm": aft, "points": spots} for key, aft in (("a", 1000.0), ("b", 1500.0))}
    tree = plain_car(bays={"b": {"name": "b", "stations": stations, "sides": sides}})
    return any(f.code == "survey.crossed" for f in analysed(tree).findings)


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
    tree = plain_car(
        boxes={"x": box_at((1000.0, 0.0, 400.0))}, items={"t": a_block((1300, 200, 300), (1400, 300, 600))}
    )
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
    crush = {
        "name": "crush",
        "kind": "crush",
        "solid": {"type": "block", "low_mm": [900, -300, 200], "high_mm": [1400, 400, 900]},
    }
    tree = plain_car(boxes={"x": box_at((1000.0, 0.0, 400.0), finish=finish)}, items=walls)
    rows = stack_up(resolve(validate(tree), {}), "x", way).rows
    coating = next(row for row in rows if row.what.startswith("coating"))
    assert (coating.mm, coating.tol_mm) == (pytest.approx(0.8), pytest.approx(0.4))
    tree["keepouts"] = {"k": crush}
    assert [(r.what, r.mm) for r in stack_up(resolve(validate(tree), {}), "x", way).rows] == [
        (r.what, r.mm) for r in rows
    ]


def test_two_loose_contacts_in_one_place_hold_nothing() -> None:
    here = (1000.0, 0.0, 400.0)
    found = judge_support(
        [
            Contact(here, (0.0, 0.0, 1.0), "push"),
            Contact(here, (0.0, 0.0, 1.0), "push"),
            Contact((1200.0, 0.0, 400.0), (0.0, 0.0, 1.0)),
        ]
    )
    assert (found.support_condition, found.ratio) == ("same place", 0.0)


@given(st.tuples(*[st.floats(-180, 180)] * 3), st.tuples(*[st.floats(-900, 900)] * 3))
def test_blocks_cast_the_shadow_that_each_of_them_casts_alone(
    turn: tuple[float, float, float], at: tuple[float, float, float]
) -> None:
    placement = Placement(rotation(*turn), at)
    lows = np.array([(0.0, 0.0, 0.0), (300.0, 20.0, 10.0), (40.0, 400.0, 0.0)])
    highs = lows + np.array([(200.0, 120.0, 90.0), (200.0, 120.0, 90.0), (20.0, 60.0, 300.0)])
    for n, (plan, side, top) in enumerate(block_projections(lows, highs, placement)):
        alone = block(tuple(lows[n]), tuple(highs[n])).moved(placement)
        for ring, other in zip((plan, side), projections(alone), strict=True):
            assert Polygon(ring).symmetric_difference(Polygon(other)).area == pytest.approx(0.0, abs=2.0)
        assert top == pytest.approx(alone.high[2], abs=0.01)


# --- the mounts ---


def test_on_the_road_a_leg_may_bear_less_than_in_a_crash() -> None:
    """Elastic and with a factor of its own, where a crash may bend it plastic (EN 1993-1-1 for the crash; the factor as
    in the working)."""
    joint: Any = resolve(validate(DEMO), {}).boxes["tank"].mounts[0].joint
    for load in ((1000.0, 0.0, 0.0), (0.0, 1000.0, 0.0), (0.0, 0.0, 1000.0)):
        forces = [np.array([v]) for v in load]
        road, crash = (float(leg_a(joint, *forces, road=np.array([road]))[0]) for road in (True, False))
        assert road > 1.2 * crash > 0


def test_one_contact_alone_holds_nothing() -> None:
    assert (judge_support([Contact((0.0, 0.0, 0.0), (0.0, 0.0, 1.0))]).support_condition, judge_support([]).ratio) == (
        "one",
        0.0,
    )
    assert judge_support([Contact((0.0, 0.0, 0.0), (0.0, 0.0, 1.0))]).ratio == 0.0


def test_a_bolts_head_stands_on_the_axis_of_its_hole() -> None:
    design = validate(DEMO)
    for box in resolve(design, {}).boxes.values():
        for mount in box.mounts:
            (head,) = [piece.solid for piece in mount.pieces if piece.name == "bolt head"]
            at = design.hardpoints[mount.mount.lands_on.hardpoint].at_mm  # type: ignore[union-attr]
            along = int(np.argmax(np.abs(design.hardpoints[mount.mount.lands_on.hardpoint].direction)))  # type: ignore[union-attr]
            for axis in {0, 1, 2} - {along}:
                assert (head.low[axis] + head.high[axis]) / 2 == pytest.approx(at[axis], abs=1e-6)


# --- gear, blocks, weighings ---


@pytest.mark.parametrize(("aft", "state"), [(40.0, "foul"), (225.0, "foul"), (240.0, "clear")])
def test_gear_keeps_out_of_the_room_before_the_face_that_asks_and_its_margin_is_what_is_left(
    aft: float, state: str
) -> None:
    """A brick from 7 to 207 aft in a case, 30 asked behind its aft end and nothing before its front one."""
    brick = {**BRICK, "face_gap_mm": {"end_b": 30.0}}
    case = {"construction": {"type": "existing", "size_mm": [400.0, 200.0, 160.0], "wall_mm": 3.0, "base_mm": 3.0,
    "top_mm": 3.0,
                             "mass_kg": 5.0}, "closures": {}, "inner": {"type": "fixed", "size_mm": [394.0, 194.0,
                             154.0]}}  # fmt: skip
    place = {
        "type": "box",
        "box": "x",
        "face": "base",
        "from": ["front", "left"],
        "u_mm": aft,
        "v_mm": 60.0,
        "off_mm": 20.0,
    }
    gear = {"g": a_block((0, 0, 0), (20, 20, 20), place=place, mass_kg=1.0)}
    rows = found(
        plain_car(boxes={"x": {**box_at((1000.0, 0.0, 400.0)), **case}}, items=gear, module_kinds={"brick": brick}),
        "inside.gear",
    )
    assert {row.state for row in rows} == {state}
    for row in rows:
        assert row.margin == pytest.approx((row.value or 0.0) - (row.limit or 0.0))


@pytest.mark.parametrize("turned", [False, True])
@pytest.mark.parametrize("axis", [0, 1])
def test_two_blocks_are_as_far_apart_whichever_comes_first(axis: int, turned: bool) -> None:
    origins = [[50.0, 50.0, 0.0], [50.0, 50.0, 0.0]]
    origins[1][axis] += BRICK["size_mm"][axis] + 25.0
    one, other = origins[::-1] if turned else origins
    block = box_at((0, 0, 0))["blocks"]["a"]
    box = {
        **box_at((1000.0, 0.0, 400.0)),
        "blocks": {"a": {**block, "origin_mm": one}, "b": {**block, "origin_mm": other}},
    }
    (gap,) = [g for g in resolve(validate(plain_car(boxes={"x": box})), {}).boxes["x"].shell.gaps if g.name == "a-b"]
    assert gap.has_mm == pytest.approx(25.0)


def test_a_copied_block_comes_after_the_others_and_one_that_is_off_by_a_third_is_not_joined() -> None:
    design = validate(plain_car(boxes={"x": box_at((1000.0, 0.0, 400.0), (2, 1, 1))}))
    blocks = dict(design.boxes["x"].blocks)
    copied = rearranged(blocks, design.module_kinds, Order(do="copy", block="a", way="across"))
    (new,) = set(copied) - set(blocks)
    assert copied[new].order > blocks["a"].order
    split = rearranged(blocks, design.module_kinds, Order(do="split", block="a", way="aft", at=1))
    (new,) = set(split) - set(blocks)
    origin = split[new].origin_mm
    off = {**split, new: split[new].model_copy(update={"origin_mm": (origin[0] + 0.3, origin[1], origin[2])})}
    assert rearranged(split, design.module_kinds, Order(do="join", block="a", other=new)) == blocks
    with pytest.raises(DesignError, match="do not make one block"):
        rearranged(off, design.module_kinds, Order(do="join", block="a", other=new))


@pytest.mark.parametrize(("off", "state"), [(1.4, "clear"), (1.6, "unknown")])
def test_an_axle_scale_may_differ_by_half_a_step_of_each_reading(off: float, state: str) -> None:
    """Two wheels at a step of 1 and the axle at one of 1: 1.5 in all."""
    read = {"type": "corners", "lf_kg": 200.0, "rf_kg": 200.0, "lr_kg": 200.0, "rr_kg": 200.0, "step_kg": 1.0,
            "check": {"front_kg": 400.0 + off, "rear_kg": 400.0 - off, "step_kg": 1.0}}  # fmt: skip
    rows = found(plain_car(weighings=as_found(read)), "survey.axles")
    assert [row.state for row in rows] == [state, state]


def test_a_car_without_modules_has_no_voltage() -> None:
    string = analysed(plain_car()).string
    assert (string.modules, string.nominal_v, string.full_v, string.energy_kwh) == (0, 0.0, 0.0, None)


# --- spaces ---


def test_a_box_that_hangs_out_through_an_open_side_is_told_by_how_much_it_is_beyond_the_side_there() -> None:
    """From 500 either side to 300 over a metre, the right side open: at the box's aft end, 1,407 aft, the side is at
    418.6."""
    bay = space((1000.0, 2000.0), (500.0, 300.0), open_sides=("right",))
    tree = plain_car(bays={"b": bay}, boxes={"x": {**box_at((1193.0, 350.0, 400.0)), "bay": "b"}})
    (row,) = found(tree, "place.out")
    assert row.subjects[1] == "bays/b/sides/right"
    assert row.value == pytest.approx(484.0 - 418.6, abs=7.0)  # and its lid's edge
    tree["bays"]["b"]["sides"]["right"] = {"is": "metal"}
    assert not found(tree, "place.out")  # metal is asked by its gap


def test_a_box_within_a_space_that_is_open_below_hangs_out_of_nothing() -> None:
    bay = space((1000.0, 1600.0), (400.0, 400.0), open_sides=SIDES)
    for up, told in ((340.0, False), (200.0, True)):
        tree = plain_car(bays={"b": bay}, boxes={"x": {**box_at((1100.0, 0.0, up)), "bay": "b"}})
        assert bool(found(tree, "place.lowest")) == told


# --- the document, and solids ---


def test_an_empty_list_is_no_empty_object_to_a_test() -> None:
    tree = tree_of(validate(plain_car()))
    apply(
        tree,
        [
            {
                "op": "test",
                "path": "/module_kinds/brick/may_rest_on",
                "value": tree["module_kinds"]["brick"]["may_rest_on"],
            }
        ],
    )
    tree["module_kinds"]["brick"]["may_rest_on"] = []
    with pytest.raises(PatchError):
        apply(tree, [{"op": "test", "path": "/module_kinds/brick/may_rest_on", "value": {}}])


def test_the_line_of_a_path_is_its_own() -> None:
    text = json.dumps({"a": 1, "b": {"c": 2, "d": 3}}, indent=1)
    assert [line_of(text, path) for path in ("/a", "/b", "/b/c", "/b/d", "/b/e")] == [2, 3, 4, 5, 3]


@pytest.mark.parametrize(("depth", "deeper", "told"), [(3.0, 2.0, True), (3.0, 5.0, False), (-1.0, 0.0, False)])
def test_two_solids_touch_where_they_overlap_by_more_than_is_asked(depth: float, deeper: float, told: bool) -> None:
    beside = block((200.0 - depth, -50.0, -50.0), (400.0, 50.0, 50.0))
    assert touches(block((0.0, -50.0, -50.0), (200.0, 50.0, 50.0)), beside, deeper) == told


@pytest.mark.parametrize(("gap", "told"), [(0.3, True), (0.8, False)])
def test_a_scan_touches_from_its_slack_less_what_is_asked(gap: float, told: bool) -> None:
    ball = trimesh.creation.icosphere(subdivisions=4, radius=200.0)
    scan = MeshSolid.model_validate({"type": "mesh", "file": "a" * 64, "tolerance_mm": 1.0})
    mesh = placed_mesh(scan, Mesh(np.array(ball.vertices), np.array(ball.faces), True))
    beside = block((200.0 + gap, -50.0, -50.0), (400.0, 50.0, 50.0))
    assert touches(mesh, beside, 0.5) == told
    assert touches(beside, mesh, 0.5) == told


def test_a_line_through_a_ring_runs_in_its_metal_twice() -> None:
    ring = trimesh.creation.torus(100.0, 20.0)
    scan = MeshSolid.model_validate({"type": "mesh", "file": "a" * 64, "tolerance_mm": 0.0})
    mesh = placed_mesh(scan, Mesh(np.array(ring.vertices), np.array(ring.faces), True))
    spans = line_spans(mesh, (-300.0, 1.0, 1.0), (1.0, 0.0, 0.0))
    assert len(spans) == 2
    for (start, end), (low, high) in zip(spans, ((180.0, 220.0), (380.0, 420.0)), strict=True):
        assert (start, end) == pytest.approx((low, high), abs=2.0)


def test_the_corners_of_what_is_flat_lie_in_the_block_round_it() -> None:
    flat = hull([(10.0, 20.0, 30.0), (110.0, 20.0, 30.0), (110.0, 80.0, 30.0), (10.0, 80.0, 30.0)])
    corners = np.array(hull_corners(flat))
    assert (corners.min(axis=0).tolist(), corners.max(axis=0).tolist()) == ([10.0, 20.0, 30.0], [110.0, 80.0, 30.0])
