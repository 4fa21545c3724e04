"""Parts laid out on sheets of stock, so that little is left over."""

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import cached_property

from levelcradle.core.nesting.rectangles import by_rectangles
from levelcradle.core.nesting.shapes import by_shapes
from levelcradle.core.nesting.spot import quarters_of
from levelcradle.core.part import Flat, FlatPart

__all__ = ["GAP_MM", "Laid", "Nest", "nests"]

GAP_MM = 8.0  # between two parts, and to the edge of the sheet: kerf and a bridge; common practice, no source


@dataclass(frozen=True, slots=True)
class Laid:
    """A part on a sheet: how many quarters it is turned to the left, so that nothing is mirrored, and where the lower
    left corner of the rectangle round it comes then."""

    part: FlatPart
    at: Flat
    quarters: int

    def point(self, p: Flat) -> Flat:
        """A point of the part on the sheet."""
        xs, ys = zip(*self.part.outline, strict=True)
        x, y = p[0] - min(xs), p[1] - min(ys)
        wide, tall = self.part.size_mm
        for _ in range(self.quarters):
            x, y, wide, tall = tall - y, x, tall, wide
        return self.at[0] + x, self.at[1] + y


@dataclass(frozen=True)
class Nest:
    """One sheet of stock and what is cut from it."""

    material: str
    thickness_mm: float
    stock_mm: Flat
    laid: tuple[Laid, ...]

    @property
    def full(self) -> float:
        """How much of it is cut, as a share."""
        return sum(laid.part.area_mm2 for laid in self.laid) / (self.stock_mm[0] * self.stock_mm[1])

    @cached_property
    def used_mm(self) -> float:
        """How far along it anything is cut: the rest goes back on the rack."""
        return max(laid.point(p)[0] for laid in self.laid for p in laid.part.outline) + GAP_MM


def nests(parts: Sequence[FlatPart], stock_mm: Flat, kits: int = 1) -> tuple[list[Nest], list[FlatPart]]:
    """The sheets that all parts are cut from, for so many cars; and the parts that are larger than a sheet."""
    found, left = list[Nest](), list[FlatPart]()
    stocks = dict.fromkeys((part.material_name, part.thickness_mm) for part in parts)
    for material, thickness in stocks:
        mine = [p for p in parts if (p.material_name, p.thickness_mm) == (material, thickness)]
        fits = [p for p in mine if _fits(p, stock_mm)]
        left += [p for p in mine if p not in fits]
        pieces = [part for part in fits for _ in range(part.quantity * kits)]
        found += _cheapest(pieces, material, thickness, stock_mm)
    return found, left


def _fits(part: FlatPart, stock_mm: Flat) -> bool:
    room = [v - 2 * GAP_MM for v in stock_mm]
    sizes = (part.size_mm[:: -1 if quarters % 2 else 1] for quarters in quarters_of(part))
    return any(size[0] <= room[0] and size[1] <= room[1] for size in sizes)


LARGEST_FIRST: tuple[Callable[[FlatPart], float], ...] = (
    lambda part: part.size_mm[0] * part.size_mm[1],
    lambda part: max(part.size_mm),
    lambda part: min(part.size_mm),
    lambda part: part.area_mm2,
)
MANY = 80  # pieces: so many take seconds, and are tried in one order


def _cheapest(pieces: Sequence[FlatPart], material: str, thickness_mm: float, stock_mm: Flat) -> list[Nest]:
    """By their shapes, in several orders, or by the rectangles round them, whichever takes least of the sheets."""
    sizes = LARGEST_FIRST[: 1 if len(pieces) > MANY else None]
    orders = dict.fromkeys(tuple(_largest_first(pieces, size)) for size in sizes)
    ways = [by_shapes(pieces, order, stock_mm, GAP_MM) for order in orders]
    ways.append(by_rectangles(pieces, stock_mm, GAP_MM))
    sheets = [
        [
            Nest(material, thickness_mm, stock_mm, tuple(Laid(pieces[s.piece], s.at, s.quarters) for s in spots))
            for spots in way
        ]
        for way in ways
    ]
    return min(sheets, key=_taken)


def _largest_first(pieces: Sequence[FlatPart], size: Callable[[FlatPart], float]) -> list[int]:
    return sorted(range(len(pieces)), key=lambda n: -size(pieces[n]))


def _taken(sheets: Sequence[Nest]) -> float:
    """Sheets taken: all whole but the one with most left, which is cut off."""
    return len(sheets) - 1 + min((n.used_mm / n.stock_mm[0] for n in sheets), default=math.inf)
