"""How long a fit study takes. Aims on two cores: one bay of 1.2 × 0.9 × 0.6 m with 40 keep-outs, first proposals within
1 s and done within 5 s; twice the keep-outs in less than twice the time; the demo, all bays, exactly nine modules,
within 15 s; a newcomer's two plain spaces, first within 1 s and done within 10 s; 1 GB of memory at most."""

import random
import time
from typing import Any, get_args

import pytest
from pytest_benchmark.fixture import BenchmarkFixture

from levelcradle.core.design import Design, tree_of, validate
from levelcradle.core.fit import Wishes, pack_tier, study, what_it_takes
from levelcradle.core.fit.fixes import Axis
from levelcradle.core.hang import how_it_hangs
from levelcradle.demo import demo_design
from tests.stranger import stranger_tree

from .conftest import keep_mb, peak_mb


def one_bay(keepouts: int) -> Design:
    tree: dict[str, Any] = tree_of(demo_design())
    for name in ("boxes", "mounts", "keepouts", "members", "items", "readings"):
        tree[name] = {}
    tree["load_states"] = {}
    tree["vehicle"] |= {"ratings": {}, "wheel_rates": None}
    station = {"floor_mm": 300, "top_left_mm": 900, "top_right_mm": 900, "left_floor_mm": -450, "left_top_mm": -450,
               "right_floor_mm": 450, "right_top_mm": 450}  # fmt: skip
    sides = {
        side: {"is": "metal", "gap_class": "same", "opens": side == "top"}
        for side in ("fore", "aft", "left", "right", "floor", "top")
    }
    tree["bays"] = {
        "big": {
            "name": "big",
            "stations": {"a": {"aft_mm": 0, **station}, "b": {"aft_mm": 1200, **station}},
            "sides": sides,
        }
    }
    tree["duties"] = {}
    rng = random.Random(4)
    for n in range(keepouts):
        low = [rng.uniform(0, 1150), rng.choice((-450, 400)) + rng.uniform(-5, 5), rng.uniform(300, 850)]
        tree["keepouts"][f"k{n}"] = {"name": f"k{n}", "kind": "other", "gap_class": rng.choice(("same", "other")),
                                     "solid": {"type": "block", "low_mm": low,
                                     "high_mm": [v + 50 for v in low]}}  # fmt: skip
    return validate(tree)


@pytest.mark.parametrize("keepouts", [40, 80])
def test_one_bay(benchmark: BenchmarkFixture, keepouts: int) -> None:
    design = one_bay(keepouts)
    wishes = Wishes(kinds=("flagstone",), bays=("big",), more_than_the_shelf=True)
    first: list[float] = []

    def ask() -> None:
        began = time.perf_counter()
        seen: list[float] = []
        study(
            design,
            wishes,
            tell=lambda _, found: seen.append(time.perf_counter() - began) if found and not seen else None,
            meshes={},
        )
        first.append(seen[0])

    benchmark.pedantic(ask, rounds=3, warmup_rounds=1)
    benchmark.extra_info["first proposal [s]"] = round(min(first), 2)


def test_the_demo_with_exactly_nine(benchmark: BenchmarkFixture) -> None:
    design = demo_design()
    wishes = Wishes(kinds=("flagstone",), bays=tuple(design.bays), modules=9)
    benchmark.pedantic(lambda: study(design, wishes, meshes={}), rounds=3, warmup_rounds=1)


def small_jobs(number: int) -> list[Design]:
    """The stranger's car with spaces of other sizes and other bricks to put into them."""
    jobs, rng = [], random.Random(12)
    for _ in range(number):
        tree = stranger_tree()
        sides = {"left_floor_mm": -rng.uniform(250, 500), "right_floor_mm": rng.uniform(250, 500)}
        tops = {
            "left_top_mm": sides["left_floor_mm"] + rng.uniform(-40, 60),
            "right_top_mm": sides["right_floor_mm"] + rng.uniform(-60, 40),
        }
        tree["bays"]["bonnet"]["stations"]["a"] |= sides | tops
        tree["bays"]["bonnet"]["depth_mm"] = rng.uniform(350, 800)
        tree["module_kinds"]["brick"]["size_mm"] = [rng.uniform(180, 420), rng.uniform(110, 190), rng.uniform(80, 140)]
        jobs.append(validate(tree))
    return jobs


@pytest.mark.parametrize("modules", [None, 12])
def test_a_strangers_job(benchmark: BenchmarkFixture, modules: int | None) -> None:
    """Two plain spaces and one kind of bricks: first proposals within 1 s, done within 10 s."""
    design, first = validate(stranger_tree()), []

    def ask() -> None:
        began = time.perf_counter()
        seen: list[float] = []
        wishes = Wishes(kinds=("brick",), bays=("boot", "bonnet"), modules=modules)
        study(
            design,
            wishes,
            tell=lambda _, found: seen.append(time.perf_counter() - began) if found and not seen else None,
            meshes={},
        )
        first.append(seen[0])

    benchmark.pedantic(ask, rounds=3, warmup_rounds=1)
    benchmark.extra_info["first proposal [s]"] = round(min(first), 2)


def test_a_dozen_small_jobs(benchmark: BenchmarkFixture) -> None:
    """All together; each within 10 s."""
    wishes = Wishes(kinds=("brick",), bays=("boot", "bonnet"))
    benchmark.pedantic(
        lambda: [study(design, wishes, meshes={}) for design in small_jobs(12)], rounds=2, warmup_rounds=1
    )


@pytest.mark.parametrize("together", [False, True], ids=["single", "together"])
def test_what_would_it_take(benchmark: BenchmarkFixture, together: bool) -> None:
    """Of the demo's tank box and its next rows and tier: single changes within 1.5 s each, changes together within 6 s
    each."""
    demo = demo_design()

    def ask() -> None:
        for more in (None, *get_args(Axis)):
            what_it_takes(demo, "tank", more, meshes={}, together=together)

    benchmark.pedantic(ask, rounds=3, warmup_rounds=1)


@pytest.mark.parametrize("box", ["bonnet", "tank"])
def test_how_it_hangs(benchmark: BenchmarkFixture, box: str) -> None:
    """All brackets of a box, proved by all checks: within 1 s."""
    demo = demo_design()
    benchmark.pedantic(lambda: how_it_hangs(demo, box, meshes={}), rounds=3, warmup_rounds=1)


STUDIES = """
from benchmarks.test_fit import one_bay
from levelcradle.core.fit import Wishes, study
from levelcradle.demo import demo_design
demo = demo_design()
study(one_bay(40), Wishes(kinds=("flagstone",), bays=("big",), more_than_the_shelf=True), meshes={})
study(demo, Wishes(kinds=("flagstone", "ingot"), bays=tuple(demo.bays), more_than_the_shelf=True), meshes={})
"""


def test_memory_of_studies(benchmark: BenchmarkFixture) -> None:
    """Peak resident memory of a process that makes two large studies, in MB; the time is beside the point."""
    peak = benchmark.pedantic(peak_mb, (STUDIES,), rounds=1)
    keep_mb(benchmark, peak)
    assert peak <= 1024


@pytest.mark.parametrize("case", [(74, 46, 7, 5), (86, 52, 9, 5), (141, 71, 13, 8)])
@pytest.mark.parametrize("steps", [0, 20_000])
def test_one_tier(benchmark: BenchmarkFixture, case: tuple[int, int, int, int], steps: int) -> None:
    benchmark.pedantic(lambda: pack_tier(*case, steps=steps), rounds=1)
