"""Designs to measure: the demo, and a made-up one of 200 modules in 12 boxes with 100 things in the way."""

import copy
import gc
import json
import os
import subprocess
import sys
import timeit
import uuid
from collections.abc import Iterator
from functools import cache
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from pytest_benchmark.fixture import BenchmarkFixture

from launcher.cluster import free_port
from launcher.main import serving
from levelcradle.core.design import tree_of, validate
from levelcradle.demo import demo_design
from levelcradle.store import Store, connect, migrate


def large_tree() -> dict[str, Any]:
    tree = tree_of(demo_design())
    box, item = tree["boxes"]["tank"], tree["items"]["charger"]
    tree["boxes"], tree["mounts"] = {}, {}
    for n in range(12):
        made = copy.deepcopy(box)
        made["name"], made["bay"] = f"Box {n}", None
        made["pose"]["at_mm"] = [300 * n - 200, 900 * (n % 2) - 700, 300 + 250 * (n % 3)]
        made["blocks"]["a"]["counts"] = {"aft": 1, "across": 1, "up": 17 if n < 8 else 16}
        made["blocks"]["a"]["turn"] = {"down": "base", "aft": "side_b"}
        made["pose"]["roll_deg"] = 3.0 if n % 4 == 0 else 0.0
        tree["boxes"][f"b{n}"] = made
        for m, (dx, face) in enumerate(((60, "left"), (200, "left"), (60, "right"), (200, "right"))):
            at = made["pose"]["at_mm"]
            side = -50 if face == "left" else 750
            tree["hardpoints"][f"h{n}-{m}"] = {
                "name": "h",
                "at_mm": [at[0] + dx, at[1] + side, at[2] + 150],
                "direction": [0, 0, -1],
            }
            tree["mounts"][f"m{n}-{m}"] = {
                "name": f"m{n}-{m}", "carries": {f"boxes/b{n}": True}, "face": face,
                "lands_on": {"type": "hardpoint", "hardpoint": f"h{n}-{m}"},
            }  # fmt: skip
    for n in range(100 - len(tree["items"])):
        thing = copy.deepcopy(item)
        low = [40 * n - 500, 25 * (n % 60) - 700, 200 + 10 * (n % 50)]
        thing["solid"] = {"type": "block", "low_mm": low, "high_mm": [c + 60 for c in low]}
        tree["items"][f"t{n}"] = thing
    return tree


@pytest.fixture(scope="session", autouse=True)
def as_served() -> None:
    """What was loaded stays for good, as in the server: it is not searched for waste over and over."""
    gc.collect()
    gc.freeze()


@pytest.fixture(scope="session")
def trees() -> dict[str, dict[str, Any]]:
    return {"demo": tree_of(demo_design()), "large": large_tree()}


def surveyed_tree(file: str) -> dict[str, Any]:
    """The demo with a space of 12 stations, 40 things about it and a scan in it."""
    tree = tree_of(demo_design())
    sides = {side: {"is": "metal", "gap_class": "other"} for side in ("fore", "aft", "left", "right", "floor", "top")}
    stations = {
        f"s{n}": {
            "aft_mm": 600 + 100 * n, "floor_mm": 250 + 6 * (n % 3), "top_left_mm": 700 - 4 * n,
            "top_right_mm": 690 - 3 * n,
            "left_floor_mm": -400 + 5 * n, "left_top_mm": -430 + 4 * (n % 4), "right_floor_mm": 395,
            "right_top_mm": 430 - 5 * n,
        }
        for n in range(12)
    }  # fmt: skip
    tree["bays"]["long"] = {"name": "long space", "stations": stations, "sides": sides, "tolerance_mm": 1.0}
    for n in range(40):
        low = [620 + 27 * n, -380 + 150 * (n % 5), 260 + 90 * (n % 4)]
        solid = {"type": "block", "low_mm": low, "high_mm": [v + 40 for v in low]}
        tree["items"][f"near-{n}"] = {"name": f"near {n}", "state": "stays", "solid": solid}
    ties = {
        k: {"name": k, "file_mm": at, "at_mm": [at[0] + 1200, at[1], at[2] + 500]}
        for k, at in (("a", [0, 0, 0]), ("b", [300, 0, 0]), ("c", [0, 300, 0]))
    }
    scan = {"type": "mesh", "file": file, "tolerance_mm": 2.0, "ties": ties}
    tree["items"]["scan"] = {"name": "scanned carrier", "state": "stays", "solid": scan}
    tree["boxes"]["tank"]["bay"] = None
    tree["boxes"]["tank"]["pose"]["at_mm"][0] = 1300.0
    return tree


def peak_mb(code: str, *arguments: str) -> float:
    """Peak resident memory of a process of its own that runs this."""
    told = 'import re; print(int(re.search(r"VmHWM:\\s+(\\d+)", open("/proc/self/status").read())[1]) / 1024)'
    command = [sys.executable, "-c", f"{code}\n{told}", *arguments]
    return float(subprocess.run(command, capture_output=True, text=True, check=True).stdout)


@pytest.fixture(scope="session")
def address() -> Iterator[str]:
    """Of a car ("demo", "large") over the API or on the screen, as the launcher serves it. Needs
    LEVELCRADLE_TEST_DATABASE."""
    where = os.environ["LEVELCRADLE_TEST_DATABASE"]
    database = connect(where)
    migrate(database)
    store = Store(database)
    key = uuid.uuid4().hex[:6]
    store.create(demo_design(), "bench", id_=f"demo-{key}")
    store.create(validate(large_tree()), "bench", id_=f"large-{key}")
    with serving(where, free_port(), demo=False) as here:
        yield f"{here}/{{}}/{{}}-{key}"


MINIMA = Path(__file__).with_name("minima.json")  # name of a benchmark: its least figure on two cores, as last agreed
SLOWER = 1.25  # times the kept figure is a loss; less is the machine's mood
YARDSTICK = "a fixed piece of work"


@cache
def yardstick_ms() -> float:
    """The least time of a fixed piece of work, some Python and some small arrays as in an analysis: a machine is faster
    in one hour than in another, and what is kept is compared by it."""
    return round(min(timeit.repeat(_fixed_work, number=1, repeat=300)) * 1e3, 3)


def _fixed_work() -> None:
    rows = sorted(((n * 7919) % 1009 / 7, f"{n:.1f}") for n in range(2000))
    matrix = np.arange(36.0).reshape(6, 6) + 40 * np.eye(6)
    for value, _ in rows[:200]:
        np.abs(np.linalg.solve(matrix, matrix[0] * value)).max()


MEGABYTES = " [MB]"


def keep_ms(benchmark: BenchmarkFixture, figure: float) -> None:
    """What is kept and compared of a benchmark whose own time says nothing."""
    benchmark.extra_info["kept"] = ("", round(figure, 1))


def keep_mb(benchmark: BenchmarkFixture, figure: float) -> None:
    benchmark.extra_info["kept"] = (MEGABYTES, round(figure))


def pytest_addoption(parser: pytest.Parser) -> None:
    parser.addoption(
        "--keep-minima", action="store_true", help="write what this run measured into benchmarks/minima.json"
    )


def pytest_sessionfinish(session: pytest.Session, exitstatus: int) -> None:
    """A run that is slower than the kept minima fails at its end, so that what was gained is not lost unseen."""
    now, kept = _measured(session.config), _kept()
    expected = _expected(kept, now)
    if session.config.getoption("--keep-minima"):
        MINIMA.write_text(json.dumps(dict(sorted({**kept, **now}.items())), indent=2) + "\n")
    elif exitstatus == pytest.ExitCode.OK and any(now[name] > SLOWER * was for name, was in expected.items()):
        session.exitstatus = pytest.ExitCode.TESTS_FAILED


def pytest_terminal_summary(terminalreporter: pytest.TerminalReporter, config: pytest.Config) -> None:
    now = _measured(config)
    expected = _expected(_kept(), now)
    for name, figure in now.items():
        was = expected.get(name)
        word = "not kept yet"
        if was is not None:
            word = f"{was:.1f} by what was kept, {figure / was - 1:+.0%}{' SLOWER' if figure > SLOWER * was else ''}"
        terminalreporter.write_line(f"{name}: {figure:g}; {word}")


def _measured(config: pytest.Config) -> dict[str, float]:
    """Of each benchmark of this run its least time [ms], or what it keeps instead; with the yardstick's."""
    rows = [one for one in config._benchmarksession.benchmarks if one.stats.data]  # type: ignore[attr-defined]
    figures = [(one.name, *one.extra_info.get("kept", ("", round(one.stats.min * 1e3, 1)))) for one in rows]
    return {YARDSTICK: yardstick_ms(), **{name + unit: figure for name, unit, figure in figures}} if rows else {}


def _expected(kept: dict[str, float], now: dict[str, float]) -> dict[str, float]:
    """What was kept, times by how fast this machine is this hour."""
    pace = now[YARDSTICK] / kept[YARDSTICK] if YARDSTICK in kept and now else 1.0
    return {name: kept[name] * (1.0 if name.endswith(MEGABYTES) else pace) for name in now if name in kept}


def _kept() -> dict[str, float]:
    return json.loads(MINIMA.read_text()) if MINIMA.exists() else {}
