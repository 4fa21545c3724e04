"""Sixty parts such as boxes are cut from, on sheets of stock, beside a general-purpose packing package from the
registry: never more of the sheets. Prints both."""

import random

import pytest
import rectpack
from pytest_benchmark.fixture import BenchmarkFixture

from levelcradle.core.nesting import GAP_MM, nests
from levelcradle.core.part import Flat, FlatPart

STOCK = (2500.0, 1250.0)
SETS = range(6)


def trays_angles_and_plates(seed: int) -> list[FlatPart]:
    rng = random.Random(seed)

    def size(least: int, most: int) -> float:
        return float(rng.randrange(least, most, 5))

    outlines = [_tray(size(350, 600), size(250, 420), size(90, 150)) for _ in range(8)]
    outlines += [_plate(size(400, 640), size(300, 460)) for _ in range(8)]
    outlines += [_angle(size(120, 320), size(120, 320), size(40, 80)) for _ in range(20)]
    outlines += [_plate(size(50, 250), size(40, 120)) for _ in range(24)]
    return [
        FlatPart(f"p{n}", f"p{n}", 1, "x", "Steel", 2.0, 7850.0, outline, (), (), mark=f"p{n}")
        for n, outline in enumerate(outlines)
    ]


def _tray(a: float, b: float, h: float) -> tuple[Flat, ...]:
    across = [(h, 0.0), (h + a, 0.0), (h + a, h), (2 * h + a, h), (2 * h + a, h + b), (h + a, h + b)]
    return (*across, (h + a, 2 * h + b), (h, 2 * h + b), (h, h + b), (0.0, h + b), (0.0, h), (h, h))


def _angle(a: float, b: float, t: float) -> tuple[Flat, ...]:
    return ((0.0, 0.0), (a, 0.0), (a, t), (t, t), (t, b), (0.0, b))


def _plate(a: float, b: float) -> tuple[Flat, ...]:
    return ((0.0, 0.0), (a, 0.0), (a, b), (0.0, b))


def ours(parts: list[FlatPart]) -> float:
    """Sheets taken, the last by how much of its length is used."""
    found, left = nests(parts, STOCK)
    assert not left
    return len(found) - 1 + min(sheet.used_mm for sheet in found) / STOCK[0]


def by_package(parts: list[FlatPart]) -> float:
    """The best of three of its families of algorithms, turning allowed."""
    tries = []
    for algorithm in (rectpack.MaxRectsBssf, rectpack.GuillotineBssfSas, rectpack.SkylineMwfl):
        packer = rectpack.newPacker(rotation=True, pack_algo=algorithm)
        for part in parts:
            packer.add_rect(*(int(v + GAP_MM) for v in part.size_mm))
        packer.add_bin(*(int(v - GAP_MM) for v in STOCK), count=len(parts))
        packer.pack()
        ends: dict[int, float] = {}
        for sheet, x, _, wide, _, _ in packer.rect_list():
            ends[sheet] = max(ends.get(sheet, 0.0), x + wide + GAP_MM)
        tries.append(len(ends) - 1 + min(ends.values()) / STOCK[0])
    return min(tries)


def test_never_more_than_a_general_package() -> None:
    print(f"\n{'set':>4} {'ours':>7} {'package':>8}")
    for seed in SETS:
        parts = trays_angles_and_plates(seed)
        mine, theirs = ours(parts), by_package(parts)
        print(f"{seed:>4} {mine:>7.3f} {theirs:>8.3f}")
        assert mine <= theirs


@pytest.mark.benchmark(max_time=5, min_rounds=3)
def test_sixty_parts(benchmark: BenchmarkFixture) -> None:
    parts = trays_angles_and_plates(0)
    benchmark(ours, parts)
