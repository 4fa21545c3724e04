"""What something new is begun with is no measure: no check counts on it, and everything that rests on it says so."""

from copy import deepcopy
from typing import Any, get_args

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from levelcradle.core.analysis import Analysis
from levelcradle.core.design import validate
from levelcradle.core.design.patch import apply
from levelcradle.core.design.pointer import find
from levelcradle.core.design.taken import begun
from levelcradle.core.edits import reshaped, station_said, weighed_as
from levelcradle.core.errors import DesignError
from levelcradle.core.fit import Wishes, check_wishes
from levelcradle.core.survey import Goal, still_to_measure
from tests.conftest import DEMO
from tests.plain import analysed, found
from tests.stranger import stranger_tree


@pytest.fixture(scope="module")
def job() -> dict[str, Any]:
    """The newcomer's job with a box of two bricks in the boot, near its floor and beside a thing."""
    tree = stranger_tree()
    block = {"kind": "brick", "turn": {"down": "base", "aft": "end_b"}, "counts": {"aft": 1, "across": 2, "up": 1}}
    tree["boxes"] = {"b": {"name": "boot box", "bay": "boot", "pose": {"anchor": "front-left-base", "at_mm": [2500.0,
    -170.0, 530.0]},
                           "blocks": {"a": block}}}  # fmt: skip
    tree["items"]["jack"] = {"name": "jack", "state": "stays", "solid": {"type": "block", "low_mm": [2600.0, 250.0,
    510.0],
                                                                          "high_mm": [2800.0, 300.0,
                                                                          600.0]}}  # fmt: skip
    room = {"type": "block", "low_mm": [2600.0, -400.0, 510.0], "high_mm": [2800.0, -300.0, 600.0]}
    tree["keepouts"] = {"hand": {"name": "hand", "kind": "hand", "gap_class": "hand", "solid": room}}
    return tree


def untaken(tree: dict[str, Any], *paths: str) -> dict[str, Any]:
    made = deepcopy(tree)
    made["readings"] = {path: {"text": "", "basis": "not taken"} for path in paths}
    return made


def gaps_to(analysis: Analysis, thing: str) -> set[str]:
    rows = [f for f in analysis.findings if f.code.startswith("gap") and any(s.startswith(thing) for s in f.subjects)]
    return {f.state for f in rows}


@pytest.mark.parametrize(("path", "thing"), [
    ("/items/jack/solid/low_mm/1", "items/jack"), ("/keepouts/hand/solid/high_mm/1", "keepouts/hand"),
    ("/bays/boot/stations/a/floor_mm", "bays/boot"), ("/bays/bonnet/stations/a/floor_mm", "bays/bonnet"),
])  # fmt: skip
def test_nothing_is_said_of_the_gap_to_what_was_not_taken(job: dict[str, Any], path: str, thing: str) -> None:
    analysis = analysed(untaken(job, path))
    assert gaps_to(analysis, thing) == {"unknown"}
    assert [f.subjects for f in analysis.findings if f.code == "survey.untaken"] == [(thing,)]
    assert not analysis.released


def test_foul_as_it_may_look_what_was_not_taken_is_not_known(job: dict[str, Any]) -> None:
    near = deepcopy(job)
    near["items"]["jack"]["solid"]["low_mm"][1] = 0.0
    assert "foul" in gaps_to(analysed(near), "items/jack")
    assert gaps_to(analysed(untaken(near, "/items/jack/solid/low_mm/1")), "items/jack") == {"unknown"}


@pytest.mark.parametrize("figure", ["size_mm/0", "face_gap_mm/end_a", "mass_kg", "nominal_v", "cells/series"])
def test_a_box_of_modules_that_nobody_measured_is_not_known(job: dict[str, Any], figure: str) -> None:
    tree = untaken(job, f"/module_kinds/brick/{figure}")
    assert [f.state for f in found(tree, "inside.untaken")] == ["unknown"]
    if "mm" in figure:
        assert not gaps_to(analysed(tree), "boxes/b") & {"clear", "tight"}
        with pytest.raises(DesignError, match="not taken yet: Grey 6S brick"):
            check_wishes(validate(tree), Wishes(kinds=("brick",), bays=("boot",)))
    if figure == "mass_kg":
        assert {f.state for f in found(tree, "level.rating")} == {"unknown"}


def test_a_space_that_was_not_taken_is_asked_nothing(job: dict[str, Any]) -> None:
    with pytest.raises(DesignError, match="not taken yet"):
        check_wishes(
            validate(untaken(job, "/bays/boot/stations/b/width_top_mm")), Wishes(kinds=("brick",), bays=("boot",))
        )


@pytest.mark.parametrize(
    "path", ["/weighings/as-found/read/front_kg", "/vehicle/track_mm/rear", "/vehicle/cg_height/up_mm"]
)
def test_loads_count_on_nothing_that_was_not_taken(job: dict[str, Any], path: str) -> None:
    part = deepcopy(job)
    if "weighings" in path:
        part["weighings"] = {}
    else:
        part["vehicle"][path.split("/")[2]] = None
    without, begun_only = analysed(part).level, analysed(untaken(job, path)).level
    assert (begun_only.found, begun_only.ready) == (without.found, without.ready)


def test_what_is_taken_from_a_point_without_a_place_is_not_known(job: dict[str, Any]) -> None:
    tree = untaken(job, "/references/boot-edge/at_mm/0")
    tree["readings"]["/items/jack/solid/low_mm/0"] = {"text": "140", "unit": "mm", "from": "boot-edge"}
    assert gaps_to(analysed(tree), "items/jack") == {"unknown"}


def test_typed_a_figure_is_taken_and_typed_otherwise_too(job: dict[str, Any]) -> None:
    path = "/bays/boot/stations/a/floor_mm"
    tree = untaken(job, path, "/bays/boot/stations/a/top_left_mm")
    key = "/readings/" + path.replace("/", "~1")
    typed = [
        {"op": "replace", "path": path, "value": 505.0},
        {"op": "replace", "path": key, "value": {"text": "505", "unit": "mm"}},
    ]
    moved = [{"op": "replace", "path": path, "value": 509.0}]  # drawn or picked: it stands where somebody put it
    for patch in (typed, moved):
        after = apply(tree, patch).tree["readings"]
        assert [p for p, r in after.items() if r["basis" if "basis" in r else "text"] == "not taken"] == [
            "/bays/boot/stations/a/top_left_mm"
        ]


def test_what_is_made_of_figures_that_nobody_took_is_not_taken_either(job: dict[str, Any]) -> None:
    design = validate(untaken(job, "/bays/boot/stations/a/floor_mm", "/items/jack/solid/low_mm/1"))
    for patch, under in (
        (station_said(design, "boot", "a", "copy")[1], "/bays/boot/stations/a-copy/"),
        (station_said(design, "boot", "a", "mirror")[1], "/bays/boot/stations/a/"),
        (list(reshaped(design, "items/jack/solid", "rod")), "/items/jack/solid/"),
    ):
        after = apply(untaken(job, "/bays/boot/stations/a/floor_mm", "/items/jack/solid/low_mm/1"), patch).tree
        assert len([p for p, r in after["readings"].items() if p.startswith(under) and r["basis"] == "not taken"]) > 1
        validate(after)


def test_wheels_that_nobody_read_are_not_taken(job: dict[str, Any]) -> None:
    after = validate(apply(job, weighed_as(validate(job), "corners")).tree)
    assert {path[-5:] for path, r in after.readings.items() if r.basis == "not taken"} == {
        "lf_kg",
        "rf_kg",
        "lr_kg",
        "rr_kg",
    }
    assert analysed(after.model_dump(mode="json", by_alias=True)).level.found is None


def test_all_that_was_not_taken_is_still_to_measure(job: dict[str, Any]) -> None:
    value = {"front": 80.0, "rear": 80.0}
    tree = untaken(job, "/bays/boot/stations/a/floor_mm", "/module_kinds/brick/mass_kg")
    tree["vehicle"]["bump_mm"] = value
    patch = list(begun(validate(tree), "/vehicle/bump_mm", value))
    design = validate(apply(tree, patch).tree)
    assert [r.path for r in still_to_measure(design, "clearances") if r.why == "not taken"] == [
        "bays/boot/stations/a/floor_mm"
    ]
    rows = {r.path for r in still_to_measure(design, "loads") if r.why == "not taken"}
    assert rows == {"module_kinds/brick/mass_kg", "vehicle/bump_mm/front", "vehicle/bump_mm/rear"}


LACKS = (
    "items/motor/mass_kg", "items/charger/solid", "items/axle/solid", "bays/well/sides/left", "bays/tank/sides/fore",
    "bays/tank/sides/aft",
    "vehicle/track_mm", "vehicle/cg_height", "weighings/as-found", "items/inverter/solid/low_mm/0",
    "bays/bonnet/stations/a/floor_mm",
)  # fmt: skip


@given(st.sets(st.sampled_from(LACKS)))
@settings(max_examples=15, suppress_health_check=[HealthCheck.too_slow])
def test_what_is_still_to_measure_is_just_what_the_stations_call_not_known(lacks: set[str]) -> None:
    """Of nothing that nobody can put a number to is there a row without a finding, or a finding without a row."""
    tree = untaken(DEMO, *(f"/{path}" for path in lacks if path.count("/") == 4))
    for path in lacks:
        above, last = path.rsplit("/", 1)
        if "/sides/" in path:
            tree["bays"][path.split("/")[1]]["sides"][last]["is"] = "not measured"
        elif path == "weighings/as-found":
            tree["weighings"] = {}
        elif path.count("/") < 4:
            find(tree, f"/{above}")[last] = None
    design = validate(tree)
    rows = {
        thing_of(row.path) for goal in get_args(Goal) for row in still_to_measure(design, goal) if row.moves is None
    }
    unknown = [
        f
        for f in analysed(tree).findings
        if f.state == "unknown" and f.code.startswith(("survey.", "level.", "stock."))
    ]
    assert rows == {thing_of(subject) for f in unknown if f.code != "level.rating" for subject in f.subjects}
    surveyed = {
        thing_of(path)
        for path in lacks
        if path != "weighings/as-found" and not path.endswith(("mass_kg", "track_mm", "cg_height"))
    }
    assert {f.subjects[0] for f in unknown if f.station == "survey" and f.code != "level.missing"} == surveyed


def thing_of(path: str) -> str:
    return "/".join(path.split("/")[:2])


def test_a_mount_on_a_point_that_was_not_taken_is_not_known_nor_is_one_under_unweighed_modules() -> None:
    point = next(mount["lands_on"]["hardpoint"] for mount in DEMO["mounts"].values())
    on_it = {f"mounts/{key}" for key, mount in DEMO["mounts"].items() if mount["lands_on"]["hardpoint"] == point}
    rows = found(untaken(DEMO, f"/hardpoints/{point}/at_mm/2"), "mount.use")
    assert {row.subjects[0] for row in rows if row.state == "unknown"} == on_it
    told = next(row.rationale for row in rows if row.state == "unknown")
    assert "/" not in told
    assert DEMO["hardpoints"][point]["name"] in told
    rows = found(untaken(DEMO, "/module_kinds/flagstone/mass_kg"), "mount.use")
    assert {row.state for row in rows} == {"unknown"}


def test_an_assumed_figure_of_a_space_keeps_its_gaps_not_known_until_somebody_answers_for_it(
    job: dict[str, Any],
) -> None:
    tree = untaken(job)
    reading = {"text": "0", "unit": "mm", "basis": "assumed", "from": "boot-edge"}
    tree["readings"] = {"/bays/boot/stations/a/floor_mm": reading}
    assert not gaps_to(analysed(tree), "bays/boot") & {"clear", "tight"}
    reading["accepted"] = {"by": "Ann", "plus_minus": 2.0}  # type: ignore[assignment]
    assert gaps_to(analysed(tree), "bays/boot") & {"clear", "tight"}
