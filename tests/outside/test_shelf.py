"""The shelf against hand arithmetic and a general library. Sources stand beside each check."""

from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy import stats

from levelcradle.core.design import validate
from levelcradle.core.stock import shelf_result


def shelf(tree: dict[str, Any], readings: list[tuple[str, float]], floor_mv: float = 0.0) -> Any:
    tree["module_kinds"]["short"] = tree["module_kinds"]["flagstone"] | {
        "name": "short",
        "cells": {"series": 6, "parallel": 3},
    }
    tree["modules"] = {
        f"m{n}": {"name": f"m{n}", "kind": kind, "reading_v": volts} for n, (kind, volts) in enumerate(readings)
    }
    tree["shelf_rule"] = {"floor_mv": floor_mv, "meter_step_mv": 10.0}
    tree["boxes"], tree["mounts"], tree["stacks"] = {}, {}, {}
    return shelf_result(validate(tree))


def test_two_sizes_of_module_by_hand(tree: dict[str, Any]) -> None:
    """12 in series at 44.40 and 44.52 V, 6 in series at 22.20 and 21.90 V: 3.70, 3.71, 3.70, 3.65 V a cell (division by
    hand).

    Median 3.70; absolute deviations 0, 0.01, 0, 0.05, their median 0.005; spread 1.4826 × 0.005 = 0.007413; limit 3.5 ×
    that = 0.0259 V (Iglewicz and Hoaglin 1993, from memory): the last is out, though its 21.90 V would hide among
    whole-module readings."""
    found = shelf(tree, [("flagstone", 44.40), ("flagstone", 44.52), ("short", 22.20), ("short", 21.90)])
    assert [round(r.per_cell_v, 6) for r in found.rows] == [3.70, 3.71, 3.70, 3.65]
    assert found.middle_v == pytest.approx(3.70)
    assert found.limit_v == pytest.approx(0.0259455)
    assert [r.out_of_step for r in found.rows] == [False, False, False, True]


@given(st.lists(st.integers(3400, 4100), min_size=3, max_size=30))
def test_the_spread_is_the_librarys_scaled_mad(millivolts: list[int]) -> None:
    """scipy.stats.median_abs_deviation with scale "normal"."""
    from tests.conftest import DEMO

    tree = {**DEMO, "module_kinds": dict(DEMO["module_kinds"])}
    found = shelf(tree, [("flagstone", 12 * mv / 1000) for mv in millivolts])
    cells = np.array([r.per_cell_v for r in found.rows])
    assert found.middle_v == pytest.approx(float(np.median(cells)))
    assert found.spread_v == pytest.approx(float(stats.median_abs_deviation(cells, scale="normal")), rel=1e-4, abs=1e-9)


def test_the_mean_would_have_hidden_it(tree: dict[str, Any]) -> None:
    """One module at 3.20 V a cell among ten at 3.70: three standard deviations about the mean do not reach it (by hand:
    mean 3.6545, deviation 0.1508, 0.4545 / 0.1508 = 3.01 with n − 1; with two bad ones 2.2), the median's rule does."""
    readings = [("flagstone", 12 * 3.70)] * 9 + [("flagstone", 12 * 3.20)] * 2
    cells = np.array([v / 12 for _, v in readings])
    assert abs(cells[-1] - cells.mean()) / cells.std(ddof=1) < 3
    assert [r.out_of_step for r in shelf(tree, readings, 50.0).rows] == [False] * 9 + [True] * 2
