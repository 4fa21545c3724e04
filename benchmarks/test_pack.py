"""How long the fabrication pack takes. Aims: the demo within 10 s, one DXF within 0.1 s.

The pack is made by a worker: these are not held against the kept minima, but run by hand after a change of drawings."""

from typing import Any

from pytest_benchmark.fixture import BenchmarkFixture

from levelcradle.core.assembly import resolve
from levelcradle.core.design import validate
from levelcradle.drawings import cut_file, make_pack, subject_of
from levelcradle.drawings.names import file_stem


def test_the_pack_of_the_demo(benchmark: BenchmarkFixture, trees: dict[str, Any]) -> None:
    design = validate(trees["demo"])
    benchmark.pedantic(make_pack, args=(design, {}), rounds=2)


def test_one_cut_file_by_itself(benchmark: BenchmarkFixture, trees: dict[str, Any]) -> None:
    design = validate(trees["demo"])
    name = f"cut/{file_stem(subject_of(resolve(design, {})).parts[0])}.dxf"
    assert benchmark(lambda: cut_file(subject_of(resolve(design, {})), name))
