"""The shelf: modules compare per cell, and what is placed must stand there."""

from typing import Any

import pytest

from levelcradle.core.analysis import analyse
from levelcradle.core.design import validate
from levelcradle.core.errors import DesignError, UnknownThing
from levelcradle.core.finding import Finding, message_text
from levelcradle.core.fit import Wishes, study
from levelcradle.core.modules.orientations import orientations_for
from levelcradle.core.stock import STARTERS, common_window, starter_kinds, starters
from tests.core.test_fit import bay_tree
from tests.plain import BRICK, box_at, found, plain_car


def stock(tree: dict[str, Any]) -> dict[str, str]:
    return {f.id: message_text(f) for f in analyse(validate(tree), {}).findings if f.station == "stock"}


@pytest.mark.parametrize(("volts", "told"), [(44.6, False), (44.1, False), (43.9, True), (45.3, True)])
def test_out_of_step_is_more_than_a_twentieth_of_a_volt_a_cell(tree: dict[str, Any], volts: float, told: bool) -> None:
    tree["modules"]["f05"]["reading_v"] = volts
    assert ("stock:volts:f05" in stock(tree)) is told


def test_a_shorter_module_compares_per_cell(tree: dict[str, Any]) -> None:
    """Six cells at 22.3 V read as high as twelve at 44.6 V."""
    tree["module_kinds"]["half"] = {
        **tree["module_kinds"]["flagstone"],
        "name": "Half",
        "cells": {"series": 6, "parallel": 3},
    }
    tree["modules"]["h1"] = {"name": "Half 1", "kind": "half", "reading_v": 22.3}
    assert "stock:volts:h1" not in stock(tree)
    tree["modules"]["h1"]["reading_v"] = 21.5
    assert stock(tree)["stock:volts:h1"] == "Half 1 reads 21.5 V, out of step by 0.14 V a cell"


def test_a_rejected_module_is_left_out(tree: dict[str, Any]) -> None:
    tree["modules"]["f11"]["verdict"] = "reject"
    assert set(stock(tree)) == {"stock:deadly"}


def test_two_readings_are_too_few_to_tell_who_is_out_of_step(tree: dict[str, Any]) -> None:
    tree["modules"] = {k: m for k, m in tree["modules"].items() if k in ("f01", "f11")}
    assert not any(k.startswith("stock:volts") for k in stock(tree))


def test_placing_more_than_there_are_is_not_known(tree: dict[str, Any]) -> None:
    tree["boxes"]["tank"]["blocks"]["a"]["counts"]["aft"] = 8
    assert stock(tree)["stock:count:flagstone"] == "13 of Flagstone 12s3p are placed, 11 stand on the shelf"


@pytest.mark.parametrize(("count", "told"), [(1, False), (2, True)])
def test_above_60_volts_in_series_can_kill(tree: dict[str, Any], count: int, told: bool) -> None:
    """One module is 50.4 V full, two are 100.8 V."""
    tree["modules"] = dict(list(tree["modules"].items())[:count])
    assert ("stock:deadly" in stock(tree)) is told


def test_one_bad_module_does_not_bend_the_rule(tree: dict[str, Any]) -> None:
    """A dead module would pull a mean towards itself; median and MAD stay."""
    tree["modules"]["f05"]["reading_v"] = 2.0
    shelf = analyse(validate(tree), {}).shelf
    assert [r.id for r in shelf.rows if r.out_of_step and r.id == "f05"] == ["f05"]
    assert shelf.middle_v == pytest.approx(44.6 / 12, abs=0.005)


def test_the_floor_is_the_users_and_the_meter_is_told(tree: dict[str, Any]) -> None:
    tree["shelf_rule"] = {"floor_mv": 200.0, "meter_step_mv": 100.0}
    shelf = analyse(validate(tree), {}).shelf
    assert not any(r.out_of_step for r in shelf.rows)
    assert shelf.message == "The meter's step is 8.3 mV a cell."
    tree["shelf_rule"] = {"floor_mv": 5.0, "meter_step_mv": 100.0}
    assert analyse(validate(tree), {}).shelf.message == "The meter's step is 8.3 mV a cell: it cannot tell 5 mV."


def test_the_newest_test_counts(tree: dict[str, Any]) -> None:
    tree["modules"]["f05"]["tests"] = {
        "b": {"on": "2026-11-20", "open_circuit_v": 40.0},
        "a": {"on": "2026-10-01", "open_circuit_v": 44.6},
        "c": {"on": "2026-11-22", "temperature_c": 12.0},
    }
    assert "stock:volts:f05" in stock(tree)


def test_altered_damaged_stand_in_and_split_are_told(tree: dict[str, Any]) -> None:
    tree["modules"]["f01"] |= {"altered": {"what": "terminals bent up", "size_mm": [612, 226, 97]}, "stand_in": True}
    tree["modules"]["f02"]["damage"] = "dent in side A"
    tree["stacks"] = {
        "front": {"name": "front stack", "modules": {"f01": True}, "size_mm": [700, 300, 110], "kept": False}
    }
    found = stock(tree)
    assert (
        found["stock:altered:f01"] == "Flagstone 1 as altered is 5.0 mm larger than its kind: give it a kind of its own"
    )
    assert {"stock:stand-in:f01", "stock:damage:f02", "stock:stack:front"} <= set(found)


@pytest.mark.parametrize("key", list(starter_kinds()))
def test_every_starter_kind_is_marked_and_can_be_placed(tree: dict[str, Any], key: str) -> None:
    kind = starter_kinds()[key]
    assert kind.made_up
    assert kind.empty_v is not None
    assert kind.empty_v < kind.nominal_v < kind.full_v
    assert orientations_for(kind)
    tree["module_kinds"]["new"] = kind.model_dump(mode="json")
    validate(tree)


def test_every_starter_row_names_its_source() -> None:
    for subject in STARTERS:
        assert all(row["source"] for row in starters(subject))
    with pytest.raises(UnknownThing):
        starters("secrets")


# --- what the gear takes ---

BOXED = {"x": box_at((1000.0, 0.0, 400.0), (2, 3, 1))}  # six in series


def gear(**windows: tuple[float | None, float | None]) -> dict[str, Any]:
    return {key: {"name": key, "state": "in", "least_v": low, "most_v": high} for key, (low, high) in windows.items()}


def volts(items: dict[str, Any], **kind: Any) -> list[Finding]:
    brick = {**BRICK, "full_v": 50.0, "empty_v": 36.0, **kind}
    return found(plain_car(boxes=BOXED, items=items, module_kinds={"brick": brick}), "gear.volts")


FROM_TO = [
    (216.0, 300.0, ["clear"]), (216.1, 300.0, ["foul"]), (216.0, 299.9, ["foul"]), (230.0, 290.0, ["foul", "foul"]),
    (None, 300.0, ["clear"]), (216.0, None, ["clear"]), (None, None, []),
]  # fmt: skip


@pytest.mark.parametrize(("low", "high", "states"), FROM_TO)
def test_a_string_stays_within_what_each_thing_that_goes_in_takes_empty_and_full(
    low: float | None, high: float | None, states: list[str]
) -> None:
    assert [f.state for f in volts(gear(inverter=(low, high)))] == states


def test_without_an_empty_voltage_the_lower_end_is_not_known() -> None:
    (row,) = volts(gear(inverter=(200.0, 400.0)), empty_v=None)
    assert row.state == "unknown"
    assert [f.state for f in volts(gear(inverter=(None, 400.0)), empty_v=None)] == ["clear"]


def test_what_comes_out_is_not_asked_and_the_common_window_is_the_narrowest() -> None:
    items = gear(inverter=(200.0, 420.0), charger=(230.0, 450.0), heater=(None, 400.0))
    items["old"] = {**items["inverter"], "state": "out", "least_v": 390.0}
    design = validate(plain_car(items=items))
    assert common_window(design) == (230.0, 400.0)
    assert common_window(validate(plain_car(items=gear(a=(300.0, None), b=(None, 250.0))))) is None
    assert common_window(validate(plain_car(items=gear(a=(None, None))))) is None


def test_the_study_asks_for_what_all_gear_has_in_common() -> None:
    tree = bay_tree((900, 500, 300), [])
    tree["module_kinds"]["brick"] |= {"full_v": 50.0, "empty_v": 36.0}
    wishes = Wishes(kinds=("brick",), bays=("b",), more_than_the_shelf=True, gears_window=True)
    with pytest.raises(DesignError, match="no gear that goes in states its voltages"):
        study(validate(tree), wishes, meshes={})
    tree["items"] = gear(inverter=(100.0, 260.0), charger=(150.0, 400.0))
    found_ = study(validate(tree), wishes, meshes={}).proposals
    assert {p.modules for p in found_} == {5}  # 180 to 250 V; of four 144, of six 300


def test_clear_says_the_ends_that_were_asked_and_measures_at_the_nearer() -> None:
    for window, words, margin in (((200.0, 310.0), ["216.0 V empty", "300.0 V full"], 10.0), ((None, 310.0),
    ["300.0 V full"], 10.0),
                                  ((210.0, None), ["216.0 V empty"], 6.0)):  # fmt: skip
        (row,) = volts(gear(inverter=window))
        assert row.margin == pytest.approx(margin)
        assert all(word in message_text(row) for word in words)
        assert ("empty" in message_text(row), "full" in message_text(row)) == (
            window[0] is not None,
            window[1] is not None,
        )
