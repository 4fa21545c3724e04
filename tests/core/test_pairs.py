"""Two grids in one box, and what a whole proposal may hold."""

from itertools import product
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from levelcradle.core.box import shell_of
from levelcradle.core.design import Design, standard_tables, validate
from levelcradle.core.design.box import Box, Pose
from levelcradle.core.design.layers import Liners
from levelcradle.core.fit import study
from levelcradle.core.fit.pairs import pairs
from levelcradle.core.fit.wanted import MOST_ANYWHERE, Wanted, held_in, left_of
from levelcradle.core.fit.wishes import Making, Wishes
from levelcradle.core.modules import orientations_for
from tests.core.test_fit import bay_design, bay_tree

side = st.integers(6, 30).map(lambda n: 10.0 * n)
asks = st.dictionaries(
    st.sampled_from(["end_a", "end_b", "side_a", "side_b"]), st.sampled_from([5.0, 12.0, 40.0]), max_size=3
)


@st.composite
def two(draw: st.DrawFn) -> Design:
    tree = bay_tree((600, 600, 600), [])
    for key in ("brick", "slab"):
        tree["module_kinds"][key] = tree["module_kinds"]["brick"] | {
            "name": key, "size_mm": [draw(side), draw(side), draw(side)], "face_gap_mm": draw(asks),
            "may_rest_on": ["base", "side_a"],
            "neighbour_gap_mm": draw(st.sampled_from([0.0, 4.0])), "above_mm": draw(st.sampled_from([0.0, 8.0])),
        }  # fmt: skip
    return validate(tree)


def boxed(pair: Any) -> Box:
    return Box(
        name="x",
        pose=Pose(anchor="base", at_mm=(0, 0, 0)),
        blocks=dict(pair.blocks),
        layers=Liners(wall_mm=0, floor_mm=0).layers(),
    )


@given(two(), st.tuples(side, side, side), st.integers(1, 12))
def test_a_pair_of_grids_keeps_its_gaps_and_asks_what_its_box_does(
    design: Design, room: tuple[float, float, float], left: int
) -> None:
    kinds = design.module_kinds
    turns = [(key, turn) for key in kinds for turn in orientations_for(kinds[key])[:3]]
    grids = {row: [(a, b, c) for a, b, c in product((1, 2), (1, 3), (1, 2))] for row in turns}
    for pair in pairs(turns, kinds, grids, room, {"brick": left, "slab": left}, above=2):
        box = boxed(pair)
        shell = shell_of(box, kinds, standard_tables())
        held = held_in([box])
        assert held.keys() == {"brick", "slab"}
        assert 2 < sum(held.values()) == pair.modules == len(shell.modules)
        assert max(held.values()) <= left
        assert all(gap.has_mm >= gap.needs_mm - 1e-6 for gap in shell.gaps)
        assert shell.inner_mm == pytest.approx(pair.inside_mm)
        assert pair.inside_mm[axis_of(pair)] <= room[axis_of(pair)] + 1e-6


def axis_of(pair: Any) -> int:
    """Along which the second block stands after the first: the grid's other sizes were asked of the room before."""
    a, b = pair.blocks["a"].origin_mm, pair.blocks["b"].origin_mm
    return max(range(3), key=lambda i: b[i] - a[i])


# --- what is wanted ---


def shelf(bricks: int, slabs: int) -> Design:
    tree = bay_tree((600, 600, 600), [])
    tree["module_kinds"]["brick"] |= {"empty_v": 36.0}
    tree["module_kinds"]["slab"] = tree["module_kinds"]["brick"] | {"name": "slab", "full_v": 25.2, "empty_v": 18.0}
    tree["modules"] = {f"b{n}": {"name": f"b{n}", "kind": "brick"} for n in range(bricks)}
    tree["modules"] |= {f"s{n}": {"name": f"s{n}", "kind": "slab"} for n in range(slabs)}
    return validate(tree)


def wanted(design: Design, **more: Any) -> Wanted:
    return Wanted.of(design, Wishes(kinds=("brick", "slab"), bays=("b",)).model_copy(update=more))


def test_without_a_shelf_of_a_kind_there_are_any_number() -> None:
    design = shelf(3, 0)
    assert (left_of(design, "brick"), left_of(design, "slab")) == (3, MOST_ANYWHERE)


def test_no_more_of_a_kind_than_are_left() -> None:
    found = wanted(shelf(3, 2))
    assert found.totals == (1, 2, 3, 4, 5)
    assert found.suits({"brick": 3, "slab": 2})
    assert not found.suits({"brick": 4, "slab": 1})


def test_strings_side_by_side_are_alike() -> None:
    found = wanted(shelf(4, 4), parallel=2)
    assert found.totals == (2, 4, 6, 8)
    assert found.suits({"brick": 2, "slab": 4})
    assert not found.suits({"brick": 3, "slab": 3}), "one string would be longer in volts"


def test_a_window_is_held_against_the_mix() -> None:
    """A brick is 36 to 50.4 V, a slab half of it: of three in series at 60 to 110 V, one of each and a second slab, not
    two bricks."""
    found = wanted(shelf(4, 4), window_v=(60.0, 110.0))
    assert found.suits({"brick": 1, "slab": 2})
    assert not found.suits({"brick": 2, "slab": 1})
    assert not found.suits({"slab": 3})


def test_one_kind_stands_on_two_faces_in_one_box_where_that_holds_more() -> None:
    """By hand: ten on edge, 10 × 84 + 9 × 2 = 858 across and 296 high, and above them six flat, 2 × 296 + 2 across and
    3 × 84 + 2 × 2 high; 62 and 26 before their ends. No grid on one face holds more than twelve."""
    tree = bay_tree((900, 900, 605), [])
    for station in tree["bays"]["b"]["stations"].values():
        station |= {"left_floor_mm": -450, "left_top_mm": -450, "right_floor_mm": 450, "right_top_mm": 450}
    tree["module_kinds"]["brick"] |= {
        "size_mm": [640, 296, 84], "face_gap_mm": {"end_a": 62, "end_b": 26}, "neighbour_gap_mm": 2,
        "may_rest_on": ["base", "side_a", "side_b"],
    }  # fmt: skip
    design = validate(tree)
    asked = Wishes(kinds=("brick",), bays=("b",), more_than_the_shelf=True, making=Making(weld_class=None))
    best = study(design, asked, meshes={}).proposals[0]
    (box,) = best.boxes
    assert best.modules >= 16
    assert all(has <= most for has, most in zip(sorted(box.outer_mm), sorted((742, 872, 567)), strict=True))
    one_face = study(design, asked.model_copy(update={"mixed_turns": False}), meshes={}).proposals[0]
    assert one_face.modules == 12


@pytest.mark.parametrize("shelf", [13, 15])
def test_two_faces_hold_no_more_than_there_are(shelf: int) -> None:
    kinds = bay_design((900, 900, 605), []).module_kinds
    kind = kinds["brick"].model_copy(update={"may_rest_on": ("base", "side_a")})
    turns = [("brick", turn) for turn in orientations_for(kind)]
    grids = {row: [(a, b, c) for a, b, c in product((1, 2), (1, 3), (1, 2))] for row in turns}
    found = [pair.modules for pair in pairs(turns, {"brick": kind}, grids, (600, 600, 600), {"brick": shelf}, above=4)]
    assert found
    assert max(found) <= shelf
