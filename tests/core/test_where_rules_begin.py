"""Verdicts at their borders, on plain cars: where a rule begins to bite, on which side, and what it leaves alone."""

import math
from copy import deepcopy
from typing import Any

import pytest

from levelcradle.core.analysis import analyse
from levelcradle.core.bays import diagonal_figures
from levelcradle.core.design import validate
from levelcradle.core.fit import Wishes, study, what_it_takes
from levelcradle.core.level.lift import cg_height
from tests.conftest import DEMO
from tests.plain import a_block, box_at, plain_car


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
