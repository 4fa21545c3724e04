"""How long an analysis takes while a box is dragged. Run: .venv/bin/python -m pytest benchmarks; compare the minima.

Aims on two cores: the demo within 20 ms, the large design within 120 ms of server time.
"""

import copy
from itertools import count
from typing import Any

import pytest
from pytest_benchmark.fixture import BenchmarkFixture

from levelcradle.core.analysis import analyse
from levelcradle.core.design import Design, tree_of, validate
from levelcradle.core.design.patch import Op, apply


@pytest.mark.parametrize(("name", "box"), [("demo", "tank"), ("large", "b3")])
def test_analysis_while_a_box_is_dragged(
    benchmark: BenchmarkFixture, trees: dict[str, Any], name: str, box: str
) -> None:
    """Every round moves the box by a tenth, as previews do, so that what depends on its place is computed anew."""
    steps, design = count(), validate(trees[name])
    before = tree_of(design)
    start = before["boxes"][box]["pose"]["at_mm"][0]

    def moved() -> tuple[tuple[Design, dict[str, Any]], dict[str, Any]]:
        to: Op = {"op": "replace", "path": f"/boxes/{box}/pose/at_mm/0", "value": start + next(steps) / 10}
        return (validate(apply(before, [to]).tree, (before, design)), {}), {}

    analyse(*moved()[0])
    benchmark.pedantic(analyse, setup=moved, rounds=40)


def test_first_analysis_of_the_large_design(benchmark: BenchmarkFixture, trees: dict[str, Any]) -> None:
    """Nothing cached: every box moves."""
    steps, tree = count(), copy.deepcopy(trees["large"])

    def moved() -> tuple[tuple[Design, dict[str, Any]], dict[str, Any]]:
        for key, box in tree["boxes"].items():
            box["pose"]["at_mm"][0] = trees["large"]["boxes"][key]["pose"]["at_mm"][0] + next(steps) / 100
        return (validate(tree), {}), {}

    benchmark.pedantic(analyse, setup=moved, rounds=8)
