"""The parts of a fit study: what a bay can take, how bays are combined, blocks that are not full, edits; and the fixes
one by one."""

import itertools
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from levelcradle.core.analysis import analyse
from levelcradle.core.design import Design, validate
from levelcradle.core.design.box import Box, Orientation, Pose
from levelcradle.core.design.construction import Folded
from levelcradle.core.design.layers import Liners
from levelcradle.core.edits import adding, edited, removing
from levelcradle.core.errors import UnknownThing
from levelcradle.core.fit import Wishes, what_it_takes
from levelcradle.core.fit.combine import BayCandidate, combinations
from levelcradle.core.fit.edge_cuts import EDGES, EdgeCuts
from levelcradle.core.fit.grids import Grid, blocks_of, last_row
from levelcradle.core.fit.options import BayCavity, Option, room_of
from levelcradle.core.fit.proposals import study
from levelcradle.core.fit.wanted import Wanted, held_in
from levelcradle.core.fit.wishes import Making
from levelcradle.core.modules import turned
from tests import plain
from tests.core.test_fit import bay_design, bay_tree

PLAIN = Making(weld_class=None)  # so that the arithmetic stays plain
BRICK = Wishes(kinds=("brick",), bays=("b",), more_than_the_shelf=True, mixed_turns=False, making=PLAIN)


def room(design: Design, **more: Any) -> BayCavity:
    return room_of(design, "b", BRICK.model_copy(update=more), meshes={})


def counts_of(option: Option) -> int:
    return sum(b.counts.total for b in option.box.blocks.values())


# --- one bay ---


def test_every_option_holds_what_it_says_and_keeps_every_gap() -> None:
    design = bay_design((700, 450, 320), [([300.0, 0.0, 300.0], [360.0, 60.0, 620.0])])
    for option in room(design).options(30, every=True):
        assert counts_of(option) == option.modules <= 30
        after = edited(design, adding(design, [option.box]))
        assert not [f for f in analyse(after, {}).findings if f.state == "foul" and f.code == "gap"]


def test_every_count_is_offered_where_counts_matter() -> None:
    design = bay_design((700, 450, 320), [])
    found = {o.modules for o in room(design).options(12, every=True)}
    assert found >= set(range(1, 11)) | {12}  # eleven would need a last row that is no grid


def test_no_more_than_are_wanted() -> None:
    assert max(o.modules for o in room(bay_design((700, 450, 320), [])).options(4, every=False)) == 4


@given(st.tuples(st.integers(1, 6), st.integers(1, 4), st.integers(1, 3)), st.integers(0, 11))
def test_a_last_row_that_is_not_full_is_a_grid_of_its_own(counts: tuple[int, int, int], missing: int) -> None:
    layer = counts[0] * counts[1] * counts[2] // max(counts)
    row = last_row(counts, missing)
    if row is not None and 0 < missing < layer:
        assert row[0] * row[1] * row[2] == layer - missing
        grid = Grid("brick", Orientation(down="base", aft="end_b"), (214.0, 134.0, 101.0), (204.0, 124.0, 94.0))
        if max(counts) > 1:
            blocks = blocks_of(grid, counts, missing)
            total = sum(b.counts.total for b in blocks.values())
            assert total == counts[0] * counts[1] * counts[2] - missing


def two_kinds(size: tuple[float, float, float], *, shelf: tuple[int, int] | None = None) -> Design:
    """Bricks, and slabs of 300 × 120 × 90."""
    tree = bay_tree(size, [])
    tree["module_kinds"]["slab"] = {**tree["module_kinds"]["brick"], "name": "slab", "size_mm": [300, 120, 90]}
    for kind, number in zip(("brick", "slab"), shelf or (), strict=False):
        tree["modules"] |= {f"{kind}{n}": {"kind": kind, "name": f"{kind} {n}"} for n in range(number)}
    return validate(tree)


def test_a_box_of_two_kinds_where_it_holds_more_than_one_of_either() -> None:
    """Inside 504 long: a brick and a slab with the 4 between them fill it; two of one kind do not, or leave 100
    empty."""
    design = two_kinds((504 + 14 + 13 + 12.5, 120 + 14 + 13 + 12.5, 120.0))
    wishes = Wishes(kinds=("slab", "brick"), bays=("b",), more_than_the_shelf=True, making=PLAIN)
    assert max(o.modules for o in room_of(design, "b", wishes, meshes={}).options(9, every=False)) == 2
    short = two_kinds((504 + 14 + 13 + 12.5, 120 + 14 + 13 + 12.5, 120.0), shelf=(1, 1))
    found = study(short, wishes.model_copy(update={"more_than_the_shelf": False}), meshes={})
    assert found.proposals[0].modules == 2
    after = edited(short, found.proposals[0].patch)
    assert held_in(after.boxes.values()) == {"brick": 1, "slab": 1}
    assert not [f for f in analyse(after, {}).findings if f.state == "foul" and f.station in ("place", "box")]


def test_no_more_of_a_kind_than_the_shelf_has_and_as_many_of_each_in_every_string() -> None:
    design = two_kinds((900, 700, 400), shelf=(5, 2))
    wishes = Wishes(kinds=("brick", "slab"), bays=("b",), making=PLAIN)
    assert (
        max(sum(held_in([o.box]).values()) for o in room_of(design, "b", wishes, meshes={}).options(9, every=False))
        == 7
    )
    for proposal in study(design, wishes.model_copy(update={"parallel": 2}), meshes={}).proposals:
        held = held_in(edited(design, proposal.patch).boxes.values())
        assert held["brick"] <= 5
        assert held["brick"] % 2 == held["slab"] % 2 == 0


@pytest.mark.parametrize("towards", ["front", "aft", "left", "right"])
def test_terminals_look_where_they_are_wished(towards: Any) -> None:
    design = bay_design((700, 450, 320), [])
    ways = ("front", "aft", "left", "right", "down", "up")
    for option in room(design, towards=(towards,)).options(6, every=False):
        block = option.box.blocks["a"]
        kind = design.module_kinds[block.kind]
        assert turned(kind, block.turn).looks[ways.index(towards)] == kind.terminals


def test_thicker_sheet_and_liners_are_counted() -> None:
    """647 long takes three bricks with 3 mm sheet and 4 mm liners; with 5 mm sheet it does not."""
    design = bay_design((647.5, 200, 216.5), [])
    found = []
    for sheet in (3.0, 5.0):
        making = Making(construction=Folded(thickness_mm=sheet), weld_class=None, liners=Liners(wall_mm=4.0))
        blocks = [o.box.blocks["a"] for o in room(design, making=making).options(9, every=False)]
        found.append(max(b.counts.aft for b in blocks if b.turn.aft == "end_a"))
    assert found == [3, 2]


def test_no_more_tiers_than_are_wished() -> None:
    design = bay_design((300, 200, 500), [])
    assert {o.box.blocks["a"].counts.up for o in room(design, most_tiers=2).options(20, every=False)} == {1, 2}


@pytest.mark.parametrize("sides", ["left", "right", "both"])
def test_edges_are_cut_off_together_where_that_lets_one_more_in(sides: str) -> None:
    """Rails along the floor's edges, 18 square, in a bay as wide as the box; the terminals' room is beside it, so that
    the edges can go. What is cut is no more than has to be: 18 less what is between the box and the bay's wall, and the
    gap to the rail."""
    rails = [([0.0, 0.0, 300.0], [230.5, 18.0, 318.0]), ([0.0, 221.5, 300.0], [230.5, 239.5, 318.0])]
    tree = bay_tree((240.0, 239.5, 130), rails[:1] if sides == "left" else rails[1:] if sides == "right" else rails)
    tree["module_kinds"]["brick"] |= {"face_gap_mm": {"side_a": 40.0, "side_b": 40.0}, "may_rest_on": ["base"]}
    design = validate(tree)
    assert not list(room(design, chamfers=False).options(9, every=False))
    (option,) = room(design, chamfers=True).options(9, every=False)
    cut = {frozenset(c.edge): c.mm for c in option.box.chamfers.values()}
    assert set(cut) == {frozenset((side, "base")) for side in ("left", "right") if sides in (side, "both")}
    assert all(10 <= mm <= 30 for legs in cut.values() for mm in legs)
    after = edited(design, adding(design, [option.box]))
    assert not [f for f in analyse(after, {}).findings if f.state == "foul" and f.station in ("place", "box")]


# --- bays together ---


def totals(*numbers: int) -> Wanted:
    return Wanted(numbers, {}, 1, None, {})


def load(bay: str, modules: int, aft: float, boxes: int = 1, up: float = 400.0) -> BayCandidate:
    size = ((100.0, 100.0, 100.0 + modules),) * boxes
    return BayCandidate(
        bay,
        (Option(Box(name="x", pose=Pose(anchor="base", at_mm=(0, 0, 0))), 0),) * boxes,
        modules,
        25.0 * modules,
        (aft, 0.0, up),
        10.0,
        abs(aft),
        size,
    )  # type: ignore[arg-type]


@settings(max_examples=12)
@given(st.integers(3, 9))
def test_combined_bays_make_the_count_and_the_best_is_among_them(wanted: int) -> None:
    from tests.conftest import DEMO

    design = validate(DEMO).model_copy(update={"boxes": {}, "mounts": {}})
    loads = {
        "bonnet": [load("bonnet", n, 200.0) for n in range(1, 6)], "tank": [load("tank", n, 2900.0,
        up=450.0) for n in range(1, 5)],
        "well": [load("well", n, 3300.0, 2, 350.0) for n in range(1, 3)],
    }  # fmt: skip
    chosen = list(combinations(design, loads, totals(wanted), BRICK, lambda: False))
    assert len({tuple(id(c) for c in row) for row in chosen}) == len(chosen)
    for row in chosen:
        assert sum(c.modules for c in row) == wanted
        assert len({c.bay for c in row}) == len(row)
    every = [[r for r in rows if r] for rows in itertools.product(*([None, *v] for v in loads.values()))]
    fitting = [[r for r in row if r is not None] for row in every if sum(r.modules for r in row if r) == wanted]
    fewest = min(sum(len(r.options) for r in row) for row in fitting)
    assert min(sum(len(r.options) for r in row) for row in chosen) == fewest


def test_boxes_of_one_size_where_that_is_wished() -> None:
    from tests.conftest import DEMO

    design = validate(DEMO).model_copy(update={"boxes": {}, "mounts": {}})
    loads = {"bonnet": [load("bonnet", n, 200.0) for n in (2, 3, 4)], "tank": [load("tank", n, 2900.0) for n in (2, 3)]}
    for row in combinations(design, loads, totals(4, 5, 6), BRICK.model_copy(update={"one_size": True}), lambda: False):
        assert len({size for c in row for size in c.outer_mm}) == 1


def test_no_more_than_the_car_is_rated_for_and_that_is_said(demo: Design) -> None:
    """The demo's bays take more flagstones than its gross rating bears; with fifty kilograms less, fewer by the
    module's weight."""
    wishes, found = Wishes(kinds=("flagstone",), bays=tuple(demo.bays)), {}
    for less in (0.0, 50.0):
        ratings = demo.vehicle.ratings.model_copy(update={"gross_kg": (demo.vehicle.ratings.gross_kg or 0.0) - less})
        design = demo.model_copy(update={"vehicle": demo.vehicle.model_copy(update={"ratings": ratings})})
        found[less] = study(design, wishes, meshes={})
        assert all(
            f.code != "rating" or f.state != "foul"
            for p in found[less].proposals
            for f in analyse(edited(design, p.patch), {}).findings
        )
    best, heavier = (max(p.modules for p in found[less].proposals) for less in (0.0, 50.0))
    assert best - heavier in (1, 2)
    assert "would go in, but weigh more than the car is rated for" in found[50.0].message


# --- what a study leaves alone ---


def test_kept_and_pinned_boxes_stay_and_are_kept_clear_of(demo: Design) -> None:
    wishes = Wishes(kinds=("flagstone",), bays=tuple(demo.bays), keep=("bonnet",), modules=4)
    for proposal in study(demo, wishes, meshes={}).proposals:
        after = edited(demo, proposal.patch)
        assert after.boxes["bonnet"] == demo.boxes["bonnet"]
        assert {m.box for m in after.mounts.values()} == {"bonnet"}
    pinned = edited(demo, [{"op": "add", "path": "/pins/p", "value": {"what": "boxes/tank", "why": "built"}}])
    for proposal in study(
        pinned, Wishes(kinds=("flagstone",), bays=("bonnet", "tank"), modules=3), meshes={}
    ).proposals:
        assert edited(pinned, proposal.patch).boxes["tank"] == demo.boxes["tank"]


def test_a_box_taken_out_takes_along_what_speaks_of_it(tree: dict[str, Any]) -> None:
    axle = next(f"items/{k}" for k, i in tree["items"].items() if i["name"] == "axle at full bump")
    tree["agreed_gaps"] = {"g": {"one": "boxes/tank", "other": axle, "need_mm": 8, "reason": "r"}}
    tree["tapes"] = {"t": {"one": axle, "other": "boxes/tank"}, "u": {"one": axle, "other": "boxes/bonnet"}}
    tree["items"]["charger"]["fixed_to"] = "tank"
    design = validate(tree)
    after = edited(design, removing(design, ["tank"]))
    assert set(after.boxes) == {"bonnet"}
    assert after.agreed_gaps == {}
    assert set(after.tapes) == {"u"}
    assert after.items["charger"].fixed_to is None
    assert {m.box for m in after.mounts.values()} == {"bonnet"}


def test_luggage_room_is_counted_in_litres(tree: dict[str, Any]) -> None:
    tree["bays"]["well"]["flags"] = {"luggage": True}
    tree["items"].pop("charger")
    design = validate(tree)
    wishes = Wishes(kinds=("flagstone",), bays=("bonnet", "tank"), modules=9)
    found = study(design, wishes, meshes={}).proposals
    assert {round(p.luggage_l or 0) for p in found} == {round(0.305 * 0.472 * 0.25 * 1000)}
    assert {p.case for p in found} == {"no case"}  # 305 long and 250 high, with a battery in it
    tree["bays"]["bonnet"]["flags"], tree["bays"]["well"]["flags"] = {"luggage": True}, {}
    case = (
        study(validate(tree), Wishes(kinds=("flagstone",), bays=("tank",), modules=2, keep=("bonnet",)), meshes={})
        .proposals[0]
        .case
    )
    assert case is not None


@pytest.mark.parametrize("side", ["left", "right"])
def test_a_side_of_the_car_left_empty(demo: Design, side: Any) -> None:
    bare = demo.model_copy(update={"boxes": {}, "mounts": {}})
    half = room_of(bare, "bonnet", Wishes(kinds=("flagstone",), bays=("bonnet",), leave_empty=side), meshes={})
    options = list(half.options(5, every=False))
    assert options
    for option in options:
        low = option.box.pose.at_mm[1]
        assert low >= 0 if side == "left" else low + half._shell(option.box).outer_mm[1] <= 0


# --- fixes one by one ---


def fouled(
    size: tuple[float, float, float], keepouts: list[tuple[list[float], list[float]]], at: list[float], **box: Any
) -> Design:
    tree = bay_tree(size, keepouts)
    block = {"kind": "brick", "turn": {"down": "base", "aft": "end_b"}, "counts": {"aft": 2, "across": 1, "up": 1}}
    tree["boxes"] = {
        "x": {
            "name": "X",
            "bay": "b",
            "pose": {"anchor": "front-left-base", "at_mm": at},
            "blocks": {"a": block},
            **box,
        }
    }
    return validate(tree)


def fix(design: Design, kind: str, more: Any = None) -> Any:
    return next(c for c in what_it_takes(design, "x", more, meshes={}).fixes if c.kind == kind)


def test_a_wall_further_back_by_what_is_missing() -> None:
    """A box of two bricks is 418 and with lid and heads 431 long: a bay of 440 lacks 3 of its 12."""
    found = fix(fouled((440, 300, 300), [], [12.5, 60.0, 320.0]), "wall")
    assert (found.whole, found.patch, found.does) == (True, None, "vehicle")
    assert found.figures[0].value == 3.0


def test_a_thinner_liner_or_sheet_where_that_is_enough() -> None:
    """Across 134 and 13 more with 12 of gaps is 159; a bay of 155 lacks 4: liners of 2 are enough, sheet of 2 is
    enough."""
    design = fouled((600, 155.0, 300), [], [40.0, 12.5, 320.0])
    liner, sheet = fix(design, "liner"), fix(design, "sheet")
    assert (liner.whole, liner.figures[0].value) == (True, 2.0) or liner.figures[0].value < 4
    assert sheet.whole
    for found in (liner, sheet):
        assert not [
            f for f in analyse(edited(design, found.patch), {}).findings if f.state == "foul" and f.code == "gap"
        ]


def test_the_thing_in_the_way_moved_by_what_is_missing() -> None:
    design = fouled((900, 400, 300), [([455.0, 100.0, 320.0], [500.0, 200.0, 400.0])], [30.0, 120.0, 320.0])
    found = fix(design, "thing")
    assert found.whole
    assert found.patch is None  # it is done on the car, and measured again
    assert found.message == "k0 {0} aft"
    assert found.figures[0].value == 2.5  # 455 less 451.5 is 3.5 where 6 is needed


def test_one_row_left_out() -> None:
    design = fouled((440, 300, 300), [], [12.5, 60.0, 320.0])
    found = fix(design, "fewer")
    assert found.whole
    assert edited(design, found.patch).boxes["x"].blocks["a"].counts.aft == 1


def test_a_smaller_gap_says_what_the_rules_is_for() -> None:
    design = fouled((900, 400, 300), [([455.0, 100.0, 320.0], [500.0, 200.0, 400.0])], [30.0, 120.0, 320.0])
    found = fix(design, "gap")
    assert "fixed to the same structure" in found.message
    after = edited(design, found.patch)
    assert next(iter(after.agreed_gaps.values())).reason.startswith("accepted: 6 by rule")


def test_one_more_row_that_fits_comes_with_its_place() -> None:
    design = fouled((900, 400, 300), [], [30.0, 120.0, 320.0])
    answer = what_it_takes(design, "x", "across", meshes={})
    assert answer.fits
    after = edited(design, answer.patch)
    assert after.boxes["x"].blocks["a"].counts.across == 2
    assert not [f for f in analyse(after, {}).findings if f.state == "foul" and f.code == "gap"]


def test_a_partial_cure_says_what_is_left_and_offers_no_button() -> None:
    both = [([455.0, 100.0, 320.0], [500.0, 200.0, 400.0]), ([100.0, 259.0, 320.0], [160.0, 300.0, 400.0])]
    design = fouled((900, 400, 300), both, [30.0, 120.0, 320.0])
    part = [c for c in what_it_takes(design, "x", meshes={}).fixes if not c.whole]
    assert part
    assert all(c.left for c in part)


def test_of_a_box_that_is_clear_nothing_is_cured() -> None:
    answer = what_it_takes(fouled((900, 400, 300), [], [30.0, 120.0, 320.0]), "x", meshes={})
    assert answer.fits
    assert answer.fixes == ()
    with pytest.raises(UnknownThing):
        what_it_takes(fouled((900, 400, 300), [], [30.0, 120.0, 320.0]), "y", meshes={})


def test_a_scan_is_kept_clear_of_like_any_thing() -> None:
    """A scanned block in the middle of the room, upright and in a raked frame."""
    from levelcradle.core.meshes import Mesh
    from levelcradle.core.solids import block, surface_of

    tree = bay_tree((700, 400, 220), [])
    key = "a" * 64
    points, triangles = surface_of(block((300.0, 0.0, 300.0), (360.0, 400.0, 520.0)))
    tree["items"]["scan"] = {
        "name": "scanned",
        "state": "stays",
        "gap_class": "same",
        "solid": {"type": "mesh", "file": key, "tolerance_mm": 1.0},
    }
    design, meshes = validate(tree), {key: Mesh(points, triangles, closed=True)}
    wishes = BRICK.model_copy(update={"tilts_deg": (3.0,)})
    found = study(design, wishes, meshes=meshes)
    free = study(validate(bay_tree((700, 400, 220), [])), BRICK, meshes={})
    best, most = (max(p.modules for p in s.proposals) for s in (found, free))
    assert 0 < best < most
    for proposal in found.proposals:
        after = analyse(edited(design, proposal.patch), meshes)
        assert not [f for f in after.findings if f.state == "foul" and f.code == "gap"]


def test_an_edge_that_cannot_be_cut_so_far_as_its_modules_let_it_takes_no_other_along() -> None:
    """Beside a hole low in the left wall less can go off the left lower edge; the right one goes as far as before."""
    room_before = dict.fromkeys(("side_a", "side_b", "end_a", "end_b"), 90.0)
    brick = {**plain.BRICK, "size_mm": [200, 120, 160], "face_gap_mm": room_before}
    gland = {
        "name": "gland",
        "face": "left",
        "from": ["front", "base"],
        "u_mm": 100.0,
        "v_mm": 70.0,
        "diameter_mm": 20.0,
    }

    def most(**more: Any) -> dict[tuple[str, str], tuple[int, int]]:
        design = validate(
            plain.plain_car(boxes={"x": plain.box_at((1000.0, 0.0, 400.0), **more)}, module_kinds={"brick": brick})
        )
        box = design.boxes["x"]
        edges = EdgeCuts(box, design.module_kinds, design.tables)
        sets = edges.most()
        assert not [f for cuts in sets for f in edges.shell(cuts).made.findings("", "") if f.state == "foul"]
        return {edge: legs for cuts in sets for edge, legs in cuts}

    whole, holed = most(), most(openings={"g": gland})
    assert set(whole) == set(holed) == set(EDGES)
    assert holed["left", "base"] < whole["left", "base"]
    assert holed["right", "base"] == whole["right", "base"]
