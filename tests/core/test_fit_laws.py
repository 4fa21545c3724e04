"""Laws of a study: the same bay in a mirror takes as many, with less in its way no fewer; a proposal is what its patch
makes of the car."""

from typing import Any

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from levelcradle.core.analysis import analyse
from levelcradle.core.design import Design, validate
from levelcradle.core.edits import edited
from levelcradle.core.fit import Wishes, study
from tests.core.test_fit import asked, bay_tree

few = settings(max_examples=5, deadline=None, suppress_health_check=[HealthCheck.too_slow])
size = st.tuples(st.integers(30, 52), st.integers(25, 44), st.integers(15, 30)).map(
    lambda s: (s[0] * 10.0, s[1] * 10.0, s[2] * 10.0)
)
corners = st.lists(st.tuples(st.integers(0, 50), st.integers(0, 40), st.integers(0, 30)), min_size=1, max_size=3)


def blocks_at(places: list[tuple[int, int, int]]) -> list[tuple[list[float], list[float]]]:
    return [
        ([x * 10.0, y * 10.0, 300 + z * 10.0], [x * 10.0 + 60, y * 10.0 + 80, 350 + z * 10.0]) for x, y, z in places
    ]


def most(tree: dict[str, Any]) -> int:
    return max((p.modules for p in asked(validate(tree)).proposals), default=0)


def mirrored(tree: dict[str, Any]) -> dict[str, Any]:
    """Left and right change places."""
    bay = tree["bays"]["b"]
    stations = {
        key: {
            **s, "left_floor_mm": -s["right_floor_mm"], "left_top_mm": -s["right_top_mm"],
            "right_floor_mm": -s["left_floor_mm"], "right_top_mm": -s["left_top_mm"],
        }
        for key, s in bay["stations"].items()
    }  # fmt: skip
    keepouts = {
        key: {**k, "solid": {**k["solid"], "low_mm": _across(k["solid"]["low_mm"], k["solid"]["high_mm"]),
                             "high_mm": _across(k["solid"]["high_mm"], k["solid"]["low_mm"])}}
        for key, k in tree["keepouts"].items()
    }  # fmt: skip
    return {**tree, "bays": {"b": {**bay, "stations": stations}}, "keepouts": keepouts}


def _across(corner: list[float], other: list[float]) -> list[float]:
    return [corner[0], -other[1], corner[2]]


@few
@given(size, corners, st.integers(0, 120).map(float))
def test_a_mirrored_bay_takes_as_many(
    room: tuple[float, float, float], places: list[tuple[int, int, int]], lean: float
) -> None:
    tree = bay_tree(room, blocks_at(places), lean)
    assert most(mirrored(tree)) == most(tree)


@few
@given(size, corners)
def test_with_one_thing_less_in_its_way_a_bay_takes_no_fewer(
    room: tuple[float, float, float], places: list[tuple[int, int, int]]
) -> None:
    tree = bay_tree(room, blocks_at(places))
    fewer = {**tree, "keepouts": dict(list(tree["keepouts"].items())[1:])}
    assert most(fewer) >= most(tree)


@few
@given(size, st.floats(0.5, 12.0))
def test_a_larger_gap_wanted_takes_no_more(room: tuple[float, float, float], more: float) -> None:
    tree = bay_tree(room, [])
    gaps = tree["tables"]["gaps"]
    wider = {
        **tree,
        "tables": {
            **tree["tables"],
            "gaps": {**gaps, "same": {**gaps["same"], "need_mm": gaps["same"]["need_mm"] + more}},
        },
    }
    assert most(wider) <= most(tree)


def test_a_proposal_is_what_its_patch_makes(demo: Design) -> None:
    """Counts, masses, axle loads, centre of gravity and volts as the checks find them once it is put in."""
    found = study(demo, Wishes(kinds=("flagstone",), bays=("bonnet", "tank"), modules=7), meshes={})
    assert found.proposals
    for proposal in found.proposals:
        analysis = analyse(edited(demo, proposal.patch), {})
        level = analysis.level.ready
        assert level is not None
        assert proposal.modules == sum(box.modules for box in analysis.boxes.values()) == 7
        assert (proposal.front_kg, proposal.rear_kg) == pytest.approx((level.front_kg, level.rear_kg))
        assert proposal.cg_mm == pytest.approx((level.aft_mm, level.across_mm, level.up_mm))
        assert proposal.string == analysis.string.strings[""]
        for box in proposal.boxes:
            figures = analysis.boxes[box.id]
            assert (box.modules, box.full_kg) == (figures.modules, pytest.approx(figures.full_kg))
            assert box.outer_mm == pytest.approx(figures.outer_mm)
