"""The shelf: modules compare per cell, and what is placed must stand there."""

from typing import Any

import pytest

from levelcradle.core.analysis import analyse
from levelcradle.core.design import validate
from levelcradle.core.finding import says


def stock(tree: dict[str, Any]) -> dict[str, str]:
    return {f.id: says(f) for f in analyse(validate(tree)).findings if f.station == "stock"}


@pytest.mark.parametrize(("volts", "told"), [(44.6, False), (44.1, False), (43.9, True), (45.3, True)])
def test_out_of_step_is_more_than_a_twentieth_of_a_volt_a_cell(tree: dict[str, Any], volts: float, told: bool) -> None:
    tree["modules"]["f05"]["reading_v"] = volts
    assert ("stock:volts:f05" in stock(tree)) is told


def test_a_shorter_module_compares_per_cell(tree: dict[str, Any]) -> None:
    """Six cells at 22.3 V read as high as twelve at 44.6 V."""
    tree["module_kinds"]["half"] = {**tree["module_kinds"]["flagstone"], "name": "Half", "cells": {"series": 6, "parallel": 3}}
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
