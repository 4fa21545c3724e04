"""Turns and blocks of modules."""

from itertools import product

import pytest
from hypothesis import given
from hypothesis import strategies as st

from levelcradle.core.design import ModuleKind
from levelcradle.core.design.box import Block, Counts, Gaps, Orientation
from levelcradle.core.modules import lay_out, orientations_for, string_result, turned

FACES = ("end_a", "end_b", "side_a", "side_b", "base", "top")


def kind(**more: object) -> ModuleKind:
    figures = {
        "name": "Slab", "size_mm": (600.0, 200.0, 100.0), "mass_kg": 20.0, "cells": {"series": 12, "parallel": 1},
        "nominal_v": 44.4, "full_v": 50.4, "may_rest_on": FACES, "face_gap_mm": {"end_a": 60.0, "end_b": 14.0},
        "above_mm": 8.0, "neighbour_gap_mm": 4.0, "capacity_ah": 96.0,
    }  # fmt: skip
    return ModuleKind.model_validate(figures | more)


def test_there_are_24_turns_and_each_stands_once() -> None:
    turns = orientations_for(kind())
    assert len(turns) == 24
    assert len({(t.down, t.aft) for t in turns}) == 24


@pytest.mark.parametrize("turn", orientations_for(kind()), ids=lambda t: f"{t.down}-{t.aft}")
def test_a_turn_shows_each_face_once_and_keeps_the_volume(turn: Orientation) -> None:
    shape = turned(kind(), turn)
    assert sorted(shape.looks) == sorted(FACES)
    assert shape.looks[4] == turn.down
    assert shape.looks[1] == turn.aft
    assert sorted(shape.size_mm) == [100.0, 200.0, 600.0]


def test_on_edge_with_its_terminals_forward() -> None:
    shape = turned(kind(), Orientation(down="side_a", aft="end_b"))
    assert shape.size_mm == (600.0, 100.0, 200.0)
    assert shape.looks[0] == "end_a"
    assert shape.face_clearance_mm == (60.0, 14.0, 0.0, 0.0, 0.0, 8.0)


def test_on_edge_crosswise_with_its_terminals_left() -> None:
    shape = turned(kind(), Orientation(down="side_a", aft="top"))
    assert shape.size_mm == (100.0, 600.0, 200.0)
    assert shape.looks[2] == "end_a"


def test_where_two_faces_look_at_each_other_the_larger_demand_counts() -> None:
    shape = turned(kind(), Orientation(down="base", aft="end_b"))
    assert shape.neighbour_mm == (60.0, 4.0, 8.0)


def test_a_module_is_placed_in_its_widest_state() -> None:
    grown = kind(growth_mm={"length": 0.0, "width": 3.0, "height": 0.0})
    assert turned(grown, Orientation(down="base", aft="end_b")).size_mm == (600.0, 203.0, 100.0)


@given(st.integers(1, 4), st.integers(1, 4), st.integers(1, 3), st.floats(0, 50))
def test_a_block_holds_every_module_once_without_overlap(along: int, across: int, up: int, gap: float) -> None:
    counts = Counts(aft=along, across=across, up=up)
    block = Block(
        kind="slab", turn=Orientation(down="base", aft="end_b"), counts=counts, gap_mm=Gaps(aft=gap, across=gap, up=gap)
    )
    laid = lay_out(block, kind())
    assert len(laid.modules) == along * across * up
    for one, other in product(laid.modules, laid.modules):
        if one is not other:
            assert any(one.high[i] <= other.low[i] + 1e-9 or other.high[i] <= one.low[i] + 1e-9 for i in range(3))
    assert max(m.high[0] for m in laid.modules) == pytest.approx(laid.size_mm[0])


def test_a_gap_smaller_than_what_the_faces_ask_for_is_told() -> None:
    block = Block(
        kind="slab", turn=Orientation(down="base", aft="end_b"), counts=Counts(across=2), gap_mm=Gaps(across=1.0)
    )
    row = lay_out(block, kind()).rows[0]
    assert (row.direction, row.has_mm, row.needs_mm) == ("across", 1.0, 4.0)


def test_a_string_adds_voltages_and_its_weakest_capacity_counts() -> None:
    line = [kind(), kind(capacity_ah=80.0)]
    figures = string_result(line)
    assert figures.nominal_v == pytest.approx(88.8)
    assert figures.energy_kwh == pytest.approx(88.8 * 80 / 1000)
    assert string_result([kind(capacity_ah=None)]).energy_kwh is None
