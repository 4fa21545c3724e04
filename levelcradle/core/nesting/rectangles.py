"""Pieces on sheets by the rectangles round them: quick, and as good as any where they are rectangles."""

import math
from collections.abc import Iterator, Sequence
from typing import Any

from levelcradle.core.nesting.spot import Spot, quarters_of
from levelcradle.core.part import Flat, FlatPart

__all__ = ["by_rectangles", "off_a_roll"]


def by_rectangles(pieces: Sequence[FlatPart], stock_mm: Flat, gap_mm: float) -> list[list[Spot]]:
    """Sheets that pieces lie on, each with what lies on it."""
    first = [quarters_of(part)[0] for part in pieces]
    sizes = [
        (part.size_mm[quarters] + gap_mm, part.size_mm[1 - quarters] + gap_mm)
        for part, quarters in zip(pieces, first, strict=True)
    ]
    turning = not any(part.rolled for part in pieces)
    found: dict[int, list[Spot]] = {}
    for sheet, number, (x, y), wide in _packed(sizes, (stock_mm[0] - gap_mm, stock_mm[1] - gap_mm), turning=turning):
        turned = turning and abs(wide - sizes[number][0]) > 0.15
        found.setdefault(sheet, []).append(Spot(number, (x + gap_mm, y + gap_mm), first[number] + int(turned)))
    return [spots for _, spots in sorted(found.items())]


ROLL_MM = 50_000.0  # so much is never taken


def off_a_roll(sizes: Sequence[Flat], wide_mm: float) -> tuple[float, list[Flat]]:
    """How much of a roll rectangles take, cut by the knife, and those that are wider than it either way."""
    left = [size for size in sizes if min(size) > wide_mm or max(size) > ROLL_MM]
    fit = [size for size in sizes if size not in left]
    as_they_are = [size if size[0] <= wide_mm else size[::-1] for size in fit]
    turned = [size[::-1] if size[1] <= wide_mm else size for size in fit]
    ways = [(fit, True), (as_they_are, False), (turned, False)]
    return min(_taken_of_a_roll(way, wide_mm, turning=turning) for way, turning in ways), left


def _taken_of_a_roll(sizes: Sequence[Flat], wide_mm: float, *, turning: bool) -> float:
    """Each as far to the roll's start as it goes."""
    import rectpack

    ends = [0.0]
    for _, number, (_, y), across in _packed(sizes, (wide_mm, ROLL_MM), rectpack.MaxRectsBl, turning=turning):
        wide, long = sizes[number]
        ends.append(y + (long if abs(across - wide) < 0.15 else wide))
    return max(ends)


def _packed(
    sizes: Sequence[Flat], stock_mm: Flat, algorithm: Any = None, *, turning: bool = True
) -> Iterator[tuple[int, int, Flat, float]]:
    """(sheet, number, corner, how long it lies) of each. The packer compares sizes: they are whole tenths of a
    millimetre, rounded up."""
    import rectpack

    packer = rectpack.newPacker(rotation=turning, pack_algo=algorithm or rectpack.MaxRectsBssf)
    for number, size in enumerate(sizes):
        packer.add_rect(*(math.ceil(v * 10 - 1e-6) for v in size), rid=number)
    packer.add_bin(*(int(v * 10 + 1e-6) for v in stock_mm), count=len(sizes) or 1)
    packer.pack()
    for sheet, x, y, wide, _, number in packer.rect_list():
        yield sheet, number, (x / 10, y / 10), wide / 10
