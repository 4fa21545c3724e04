"""The fit study: nothing it proposes is foul, nothing that fits is missed; and what it would take."""

import itertools
import math
from typing import Any

import pytest
from hypothesis import HealthCheck, example, given, settings
from hypothesis import strategies as st

from levelcradle.core.analysis import analyse
from levelcradle.core.assembly import resolve
from levelcradle.core.design import Design, validate
from levelcradle.core.edits import edited
from levelcradle.core.errors import DesignError
from levelcradle.core.fit import Progress, Wishes, study, what_it_takes
from levelcradle.core.fit.mixed import Footprint, mixed_blocks
from levelcradle.core.fit.space import ClearanceConstraint, free_space
from levelcradle.core.fit.stand import solve_placement
from levelcradle.core.fit.wishes import Making
from levelcradle.core.modules import orientations_for
from levelcradle.core.solids import block, hull, nearest, rod
from tests.conftest import DEMO

SIDES = {
    side: {"is": "metal", "gap_class": "same", "opens": side == "top"}
    for side in ("fore", "aft", "left", "right", "floor", "top")
}


def bay_tree(
    size: tuple[float, float, float], keepouts: list[tuple[list[float], list[float]]], lean: float = 0.0
) -> dict[str, Any]:
    """A bare car with one bay, its right wall leaning out by ``lean`` at the top, and blocks in it."""
    length, width, height = size
    tree: dict[str, Any] = {
        **DEMO,
        **{name: {} for name in ("boxes", "mounts", "items", "members", "load_states", "readings", "duties")},
    }
    station = {"floor_mm": 300, "top_left_mm": 300 + height, "top_right_mm": 300 + height, "left_floor_mm": 0,
    "left_top_mm": 0,
               "right_floor_mm": width, "right_top_mm": width + lean}  # fmt: skip
    tree["bays"] = {
        "b": {
            "name": "b",
            "sides": SIDES,
            "stations": {"a": {"aft_mm": 0, **station}, "z": {"aft_mm": length, **station}},
        }
    }
    tree["keepouts"] = {
        f"k{n}": {
            "name": f"k{n}",
            "kind": "other",
            "gap_class": "same",
            "solid": {"type": "block", "low_mm": low, "high_mm": high},
        }
        for n, (low, high) in enumerate(keepouts)
    }
    brick = {
        "name": "brick",
        "size_mm": [200, 120, 90],
        "may_rest_on": ["base"],
        "face_gap_mm": {},
        "above_mm": 0,
        "neighbour_gap_mm": 4,
    }
    tree["module_kinds"] = {"brick": {**DEMO["module_kinds"]["flagstone"], **brick}}
    tree["modules"], tree["stacks"] = {}, {}
    tree["vehicle"] = {**tree["vehicle"], "ratings": {}, "wheel_rates": None}
    return tree


def bay_design(
    size: tuple[float, float, float], keepouts: list[tuple[list[float], list[float]]], lean: float = 0.0
) -> Design:
    return validate(bay_tree(size, keepouts, lean))


def asked(design: Design, **more: Any) -> Any:
    """No room for the pull of welds, so that the arithmetic stays plain."""
    making = Making(weld_class=None)
    wishes = Wishes(kinds=("brick",), bays=("b",), more_than_the_shelf=True, mixed_turns=False, making=making, **more)
    return study(design, wishes, meshes={})


def most_by_hand(size: tuple[float, float, float], keepouts: list[tuple[list[float], list[float]]]) -> int:
    """Every grid both ways, every place at which a side of the box stands exactly at its gap from something."""
    head, need = 6.5, 6.0  # lid clearance, sheet and screw head beyond the tray; the gap
    best = 0
    for along, across in ((200.0, 120.0), (120.0, 200.0)):
        for a, b, c in itertools.product(range(1, 6), range(1, 6), range(1, 4)):
            if a * b * c <= best:
                continue
            tray = (a * along + (a - 1) * 4 + 14, b * across + (b - 1) * 4 + 14, c * 90 + (c - 1) * 4 + 11)
            whole = (tray[0] + 2 * head, tray[1] + 2 * head, tray[2] + 3)
            if _stands(whole, size, keepouts, need):
                best = a * b * c
    return best


def _stands(
    whole: tuple[float, ...], size: tuple[float, ...], keepouts: list[tuple[list[float], list[float]]], need: float
) -> bool:
    """Boxes as their whole outside, so that this never counts more than truly fits."""
    base = (0.0, 0.0, 300.0)
    starts = []
    for i in range(3):
        rows = {base[i] + need, base[i] + size[i] - need - whole[i]}
        for low, high in keepouts:
            rows |= {high[i] + need, low[i] - need - whole[i]}
        starts.append([v for v in rows if base[i] + need - 1e-9 <= v <= base[i] + size[i] - need - whole[i] + 1e-9])
    for place in itertools.product(*starts):
        box = block((place[0], place[1], place[2]), tuple(p + w for p, w in zip(place, whole, strict=True)))  # type: ignore[arg-type]
        if all(nearest(box, block(tuple(low), tuple(high))).gap_mm >= need - 1e-9 for low, high in keepouts):  # type: ignore[arg-type]
            return True
    return False


corner = st.tuples(st.integers(0, 45), st.integers(0, 36), st.integers(0, 28))


@settings(max_examples=8, suppress_health_check=[HealthCheck.too_slow])
@example((30, 45, 21), [], 0)  # two tiers with nothing to spare in height
@example((42, 26, 21), [(0, 0, 0)], 0)  # only the fourth way of making four stands
@given(
    st.tuples(st.integers(30, 56), st.integers(25, 44), st.integers(15, 32)),
    st.lists(corner, max_size=3),
    st.integers(0, 12),
)
def test_nothing_proposed_is_foul_and_nothing_is_missed(
    size: tuple[int, ...], corners: list[tuple[int, ...]], lean: int
) -> None:
    room = (size[0] * 10.0, size[1] * 10.0, size[2] * 10.0)
    keepouts = [
        ([x * 10.0, y * 10.0, 300 + z * 10.0], [x * 10.0 + 60, y * 10.0 + 60, 360 + z * 10.0]) for x, y, z in corners
    ]
    design = bay_design(room, keepouts, lean * 10.0)
    found = asked(design)
    for proposal in found.proposals:
        analysis = analyse(edited(design, proposal.patch), {})
        assert not [f for f in analysis.findings if f.state == "foul" and f.station in ("place", "box")]
        assert sum(b.modules for b in analysis.boxes.values()) == proposal.modules
    best = max((p.modules for p in found.proposals), default=0)
    assert best >= most_by_hand(room, keepouts)


def test_of_a_plain_room_exactly_what_arithmetic_says() -> None:
    """636 × 410 × 214 inside the gaps: three bricks along, three across, two up need 3·200 + 2·4 + 27 = 635 and so
    on."""
    design = bay_design((647.5, 407.5, 216.5), [])
    assert max(p.modules for p in asked(design).proposals) == 18


def test_exactly_so_many_in_equal_strings() -> None:
    design = bay_design((700, 500, 300), [])
    found = asked(design, modules=7, parallel=1)
    assert {p.modules for p in found.proposals} == {7}
    assert {p.string.modules for p in asked(design, modules=6, parallel=2).proposals} == {3}


def test_counts_within_the_gears_window() -> None:
    """A brick is 36 V empty and 50.4 V full: from 130 V to 210 V only four in series (144 to 201.6 V) stay within."""
    tree = bay_tree((700, 500, 300), [])
    tree["module_kinds"]["brick"]["empty_v"] = 36.0
    found = asked(validate(tree), window_v=(130.0, 210.0))
    assert {p.modules for p in found.proposals} == {4}
    assert "whole number" in asked(validate(tree), window_v=(37.0, 50.0)).message


def test_why_not_one_fits_is_said() -> None:
    assert "larger than every bay" in asked(bay_design((150, 130, 80), [])).message
    assert "Not one module fits" in asked(bay_design((215, 140, 100), [])).message
    design = bay_design((450, 300, 210), [])
    assert "take" in asked(design, modules=99).message
    with pytest.raises(DesignError, match="no module kind"):
        study(design, Wishes(kinds=("gone",), bays=("b",)), meshes={})


def test_a_study_tells_what_it_tries_and_stops_with_what_it_has() -> None:
    design, told = bay_design((900, 700, 400), []), list[Progress]()
    wishes = Wishes(kinds=("brick",), bays=("b",), more_than_the_shelf=True)
    found = study(design, wishes, tell=lambda progress, _: told.append(progress), stop=lambda: len(told) > 6, meshes={})
    assert found.stopped
    assert found.proposals
    assert told[0].message == "trying boxes in b"
    assert len(told) < 20


@pytest.mark.parametrize("modules", [None, 3])
def test_of_several_bays_something_is_shown_before_all_their_boxes_are_known_and_kept_when_stopped(
    modules: int | None,
) -> None:
    tree = bay_tree((600, 400, 300), [])
    bay = tree["bays"]["b"]
    tree["bays"]["c"] = {
        **bay,
        "stations": {k: {**s, "aft_mm": s["aft_mm"] + 2000} for k, s in bay["stations"].items()},
    }
    shown: list[int] = []
    wishes = Wishes(kinds=("brick",), bays=("b", "c"), modules=modules, more_than_the_shelf=True)
    whole = study(validate(tree), wishes, meshes={})
    cut = study(
        validate(tree),
        wishes,
        meshes={},
        tell=lambda _, found: shown.extend(p.modules for p in found),
        stop=lambda: bool(shown),
    )
    assert cut.stopped
    assert cut.tried < whole.tried / 2
    assert shown[0] == cut.proposals[0].modules == whole.proposals[0].modules
    assert modules is None or shown[0] == modules


def test_mixed_turns_hold_more_than_a_grid() -> None:
    """A pinwheel of four round a hole: 320 × 320 holds two by either grid, four when turned."""
    tree = bay_tree((700, 500, 300), [])
    kind = validate(tree).module_kinds["brick"]
    foot = Footprint.of("brick", kind, orientations_for(kind)[0])
    blocks = mixed_blocks(foot, (4 * 204 + 124.0, 3 * 124 + 204 - 4.0), 1, 99)
    assert blocks is not None
    plain = max((940 // 204) * (576 // 124), (940 // 124) * (576 // 204))
    assert sum(b.counts.aft * b.counts.across for b in blocks.values()) > plain


def test_two_boxes_in_one_bay_keep_their_gap() -> None:
    wall = [([380.0, 0.0, 300.0], [420.0, 200.0, 600.0])]
    design = bay_design((800, 320, 210), wall)
    one, two = (max((p.modules for p in asked(design, boxes_per_bay=n).proposals), default=0) for n in (1, 2))
    assert two > one


def test_a_raked_space_takes_a_raked_box() -> None:
    """A floor and a roof that climb 10° to the rear, 150 apart: an upright box of two bricks fouls them, a raked one
    does not."""
    tree = bay_tree((800, 170, 480), [])
    rise = 800 * math.tan(math.radians(10))
    for n, up in enumerate((306.0 - 198, 462.0 + 198)):
        run = [[0.0, 85.0, up], [800.0, 85.0, up + rise]]
        tree["items"][f"plate{n}"] = {"name": f"plate {n}", "state": "stays", "gap_class": "same", "solid": {
            "type": "path", "points_mm": run, "width_mm": 168.0, "height_mm": 400.0}}  # fmt: skip
    design = validate(tree)
    level, raked = (
        max((p.modules for p in asked(design, tilts_deg=t).proposals), default=0) for t in ((), (-10.0, 10.0))
    )
    assert raked > level


def test_the_grid_marks_what_is_nearer_than_its_gap() -> None:
    things = [ClearanceConstraint(block((40, 40, 40), (60, 60, 60)), 10.0, "a", "a"), ClearanceConstraint(rod((0, 0, 0),
    (0, 0, 100), 8.0), 5.0, "b", "b"),
              ClearanceConstraint(hull([(80, 80, 0), (100, 80, 0), (80, 100, 0), (80, 80, 30)]), 6.0, "c",
              "c")]  # fmt: skip
    space = free_space((0, 0, 0), (100, 100, 100), things, 5.0)
    for i, j, k in itertools.product(range(0, 20, 3), repeat=3):
        middle = tuple(5.0 * n + 2.5 for n in (i, j, k))
        spot = block(middle, tuple(v + 1e-6 for v in middle))  # type: ignore[arg-type]
        blocked = any(nearest(spot, t.solid).gap_mm < t.need_mm - 1e-3 for t in things)
        free = all(nearest(spot, t.solid).gap_mm > t.need_mm + 1e-3 for t in things)
        one = bool(space.sums[i + 1, j + 1, k + 1] - space.sums[i, j + 1, k + 1] - space.sums[i + 1, j,
        k + 1] - space.sums[i + 1, j + 1, k]
                   + space.sums[i, j, k + 1] + space.sums[i, j + 1, k] + space.sums[i + 1, j, k] - space.sums[i, j,
                   k])  # fmt: skip
        assert not (blocked and not one)
        assert not (free and one)


@pytest.mark.parametrize("spare", [-1, 0, 1])
def test_a_place_is_free_where_no_blocked_cell_is_covered(spare: int) -> None:
    """A box of 20 × 15 × 10 in a grid of 5 with one block in it, by looking at every cell."""
    space = free_space(
        (0, 0, 0), (60, 50, 40), [ClearanceConstraint(block((22, 22, 0), (28, 28, 18)), 0.0, "a", "a")], 5.0
    )
    free = space.places((20.0, 15.0, 10.0), spare=spare)
    cells = [4 + spare, 3 + spare, 2 + spare]
    blocked = {(i, j, k) for i in (4, 5) for j in (4, 5) for k in range(4)}
    assert free.shape == tuple(n - m + 1 for n, m in zip((12, 10, 8), cells, strict=True))
    for at in itertools.product(*(range(n) for n in free.shape)):
        covered = itertools.product(*(range(a, a + n) for a, n in zip(at, cells, strict=True)))
        assert free[at] == blocked.isdisjoint(covered), at


def test_a_box_settles_where_every_gap_is_kept() -> None:
    box = [block((0, 0, 0), (100, 100, 50))]
    wedge = hull([(0, 90, 0), (200, 90, 0), (0, 140, 0), (0, 90, 90)])
    things = [
        ClearanceConstraint(block((-50, 0, 0), (0, 100, 100)), 12.0, "a", "a"),
        ClearanceConstraint(wedge, 8.0, "b", "b"),
    ]
    came = solve_placement(box, things, (5.0, -5.0, 3.0), (-50.0, -200.0, 0.0), (200.0, 0.0, 100.0), (0.0, 0.0, 0.0))
    assert came.holds
    at = came.at
    moved = block(at, (at[0] + 100, at[1] + 100, at[2] + 50))
    assert all(nearest(moved, t.solid).gap_mm >= t.need_mm - 1e-6 for t in things)


# --- what it would take ---


def test_the_demos_foul_gap_is_cured_by_moving_it_aft(demo: Design) -> None:
    """14.5 aft: 25.0 tight, hanger 6.5 tight, rear axle + 0.8 (the demo's own figures)."""
    answer = what_it_takes(demo, "tank", meshes={})
    first = answer.fixes[0]
    assert (first.kind, first.whole, first.figures[0].value) == ("move", True, 14.5)
    assert first.patch is not None
    analysis = analyse(edited(demo, first.patch), {})
    assert not [f for f in analysis.findings if f.state == "foul"]
    assert {round(c.figures[0].value, 1) for c in first.costs} >= {25.0, 6.5, 0.8}


@pytest.mark.parametrize("more", [None, "aft", "across", "up"])
@pytest.mark.parametrize("box", ["tank", "bonnet"])
def test_every_whole_cure_leaves_nothing_foul(demo: Design, box: str, more: Any) -> None:
    before = {f.id for f in analyse(demo, {}).findings if f.state == "foul"}
    answer = what_it_takes(demo, box, more, meshes={})
    if answer.fits and answer.patch:
        assert not [
            f
            for f in analyse(edited(demo, answer.patch), {}).findings
            if f.state == "foul" and f.station == "place" and f.id not in before
        ]
    for fix in answer.fixes:
        if fix.patch and fix.whole:
            after = [
                f
                for f in analyse(edited(demo, fix.patch), {}).findings
                if f.state == "foul" and f.code != "drawings.release"
            ]
            assert not [f for f in after if f"boxes/{box}" in f.subjects and f.station in ("place", "box")]
            assert {f.id for f in after} <= before
        assert fix.whole or fix.left


def test_a_chamfer_is_offered_as_small_as_it_may_be(tree: dict[str, Any]) -> None:
    """A pipe along the tank box's lower left edge: 6 is needed to its round side."""
    tree["boxes"]["tank"]["pose"]["at_mm"] = [2685.5, -350, 352]
    tree["items"]["pipe"] = {"name": "pipe", "state": "stays", "gap_class": "same", "solid": {
        "type": "rod", "start_mm": [2600, -345, 352], "end_mm": [3130, -345, 352], "radius_mm": 6}}  # fmt: skip
    answer = what_it_takes(validate(tree), "tank", meshes={})
    chamfer = next(c for c in answer.fixes if c.kind == "chamfer")
    assert chamfer.whole
    assert chamfer.patch is not None
    after = edited(validate(tree), chamfer.patch)
    gap = next(f for f in analyse(after, {}).findings if f.id == "gap:boxes/tank:items/pipe")
    assert 0 <= (gap.margin or 0) < 1.5  # whole millimetres, one less would not do
    assert resolve(after, {}).boxes["tank"].shell.shell_kg != resolve(validate(tree), {}).boxes["tank"].shell.shell_kg
