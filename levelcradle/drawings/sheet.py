"""A sheet of paper: strokes, rings and words in page millimetres, origin at the lower left corner."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Literal

__all__ = ["A4", "Frame", "Point", "Ring", "Sheet", "Stroke", "Words"]

Point = tuple[float, float]
A4 = (297.0, 210.0)


@dataclass(frozen=True, slots=True)
class Stroke:
    points: tuple[Point, ...]
    weight_mm: float = 0.25
    closed: bool = False
    dashed: bool = False
    fill: str = ""


@dataclass(frozen=True, slots=True)
class Ring:
    centre: Point
    radius_mm: float
    weight_mm: float = 0.25


@dataclass(frozen=True, slots=True)
class Words:
    at: Point
    text: str
    size_mm: float = 3.0
    anchor: Literal["start", "middle", "end"] = "start"
    bold: bool = False
    turned: bool = False  # reads upward


@dataclass(slots=True)
class Sheet:
    """What one page shows; filled by the drawing functions, then written as SVG or PDF."""

    name: str
    title: str
    size_mm: Point = A4
    marks: list[Stroke | Ring | Words] = field(default_factory=list)

    def line(self, *points: Point, weight: float = 0.25, dashed: bool = False) -> None:
        self.marks.append(Stroke(tuple(points), weight, dashed=dashed))

    def outline(self, points: Sequence[Point], weight: float = 0.5, *, fill: str = "", dashed: bool = False) -> None:
        self.marks.append(Stroke(tuple(points), weight, closed=True, fill=fill, dashed=dashed))

    def ring(self, centre: Point, radius: float, weight: float = 0.35) -> None:
        self.marks.append(Ring(centre, radius, weight))

    def words(self, at: Point, text: str, size: float = 3.0, anchor: Literal["start", "middle", "end"] = "start", *,
              bold: bool = False, turned: bool = False) -> None:  # fmt: skip
        self.marks.append(Words(at, text, size, anchor, bold, turned))

    def dimension(self, start: Point, end: Point, text: str, off: float) -> None:
        """A dimension off to the side of a horizontal or upright distance: witness lines, ticks, and its figure."""
        upright = abs(end[0] - start[0]) < abs(end[1] - start[1])
        a = (start[0] + off, start[1]) if upright else (start[0], start[1] + off)
        b = (end[0] + off, end[1]) if upright else (end[0], end[1] + off)
        self.line(start, a, weight=0.13)
        self.line(end, b, weight=0.13)
        self.line(a, b, weight=0.18)
        for x, y in (a, b):
            self.line((x - 0.9, y - 0.9), (x + 0.9, y + 0.9), weight=0.35)
        middle = ((a[0] + b[0]) / 2, (a[1] + b[1]) / 2)
        at = (middle[0] - 1.0, middle[1]) if upright else (middle[0], middle[1] + 1.0)
        self.words(at, text, 3.0, "middle", turned=upright)


@dataclass(frozen=True, slots=True)
class Frame:
    """Puts model millimetres into a window of the page, at one scale for both directions."""

    origin: Point  # page place of the model's lower left corner
    low: Point
    scale: float

    @staticmethod
    def fit(low: Point, high: Point, window: tuple[float, float, float, float]) -> "Frame":
        """Centres the model rectangle in a window (left, bottom, width, height), at most full size."""
        wide, tall = max(high[0] - low[0], 1e-6), max(high[1] - low[1], 1e-6)
        scale = min(window[2] / wide, window[3] / tall, 1.0)
        left = window[0] + (window[2] - wide * scale) / 2
        bottom = window[1] + (window[3] - tall * scale) / 2
        return Frame((left, bottom), low, scale)

    def at(self, point: Point) -> Point:
        return (
            self.origin[0] + (point[0] - self.low[0]) * self.scale,
            self.origin[1] + (point[1] - self.low[1]) * self.scale,
        )
