"""A sheet of paper: strokes, rings and words in page millimetres, origin at the lower left corner; and rows that go on
over many."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from typing import Literal

__all__ = ["PAPERS", "Flow", "Frame", "Paper", "Point", "Ring", "Sheet", "Spot", "Stroke", "Words", "standard_scale"]

Point = tuple[float, float]


@dataclass(frozen=True, slots=True)
class Paper:
    """A size of paper, lying on its long side."""

    name: str
    wide_mm: float
    tall_mm: float


PAPERS = {
    paper.name: paper
    for paper in (
        Paper("A4", 297.0, 210.0),  # ISO 216
        Paper("A3", 420.0, 297.0),  # ISO 216
        Paper("Letter", 279.4, 215.9),  # ASME Y14.1, A
        Paper("Tabloid", 431.8, 279.4),  # ASME Y14.1, B
    )
}


# reductions of one decade: 1, 2 and 5 as ISO 5455 recommends, between them the intermediate ones it allows (from
# memory)
SERIES = (1.0, 1.5, 2.0, 2.5, 3.0, 4.0, 5.0, 6.0, 8.0)


def standard_scale(most: float) -> float:
    """The largest standard reduction that is no larger than ``most``; full size at most.

    >>> [standard_scale(most) for most in (3.0, 0.7, 0.18, 0.02)]
    [1.0, 0.6666666666666666, 0.16666666666666666, 0.02]
    """
    reductions = (1 / (step * 10**decade) for decade in range(4) for step in SERIES)
    return next((scale for scale in reductions if scale <= most * (1 + 1e-9)), 1e-4)


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
    fill: str = ""


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
    """What one page shows; filled by the drawing functions, then written as SVG or PDF. ``cut``: the file name, without
    its ending, of the part whose cut files go with it, ``parts`` its ids; ``about``: paths of what it shows."""

    name: str
    title: str
    paper: Paper = PAPERS["A4"]
    cut: str = ""
    about: tuple[str, ...] = ()
    parts: tuple[str, ...] = ()
    marks: list[Stroke | Ring | Words] = field(default_factory=list)

    def line(self, *points: Point, weight_mm: float = 0.25, dashed: bool = False) -> None:
        self.marks.append(Stroke(tuple(points), weight_mm, dashed=dashed))

    def outline(self, points: Sequence[Point], weight_mm: float = 0.5, *, fill: str = "", dashed: bool = False) -> None:
        self.marks.append(Stroke(tuple(points), weight_mm, closed=True, fill=fill, dashed=dashed))

    def ring(self, centre: Point, radius_mm: float, weight_mm: float = 0.35, *, fill: str = "") -> None:
        self.marks.append(Ring(centre, radius_mm, weight_mm, fill))

    def words(
        self,
        at: Point,
        text: str,
        size_mm: float = 3.0,
        anchor: Literal["start", "middle", "end"] = "start",
        *,
        bold: bool = False,
        turned: bool = False,
    ) -> None:
        self.marks.append(Words(at, text, size_mm, anchor, bold, turned))

    def dimension(self, start: Point, end: Point, text: str, off_mm: float) -> None:
        """A dimension off to the side of a horizontal or upright distance: witness lines, ticks, and its figure."""
        upright = abs(end[0] - start[0]) < abs(end[1] - start[1])
        a = (start[0] + off_mm, start[1]) if upright else (start[0], start[1] + off_mm)
        b = (end[0] + off_mm, end[1]) if upright else (end[0], end[1] + off_mm)
        self.line(start, a, weight_mm=0.13)
        self.line(end, b, weight_mm=0.13)
        self.line(a, b, weight_mm=0.18)
        for x, y in (a, b):
            self.line((x - 0.9, y - 0.9), (x + 0.9, y + 0.9), weight_mm=0.35)
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
        """Centres the model rectangle in a window (left, bottom, width, height), at a standard scale."""
        wide, tall = max(high[0] - low[0], 1e-6), max(high[1] - low[1], 1e-6)
        scale = standard_scale(min(window[2] / wide, window[3] / tall))
        left = window[0] + (window[2] - wide * scale) / 2
        bottom = window[1] + (window[3] - tall * scale) / 2
        return Frame((left, bottom), low, scale)

    def at(self, point: Point) -> Point:
        return (
            self.origin[0] + (point[0] - self.low[0]) * self.scale,
            self.origin[1] + (point[1] - self.low[1]) * self.scale,
        )


@dataclass(frozen=True, slots=True)
class Spot:
    """Where a row stands: its sheet, its left end on the line, and whether it is the first of its column."""

    sheet: Sheet
    at: Point
    first: bool


@dataclass(slots=True)
class Flow:
    """Rows that stand under one another, column beside column, and go on over a new sheet where one is full.

    ``top_mm`` tells how high the columns of a sheet begin, by its number from 0.
    """

    new_sheet: Callable[[int], Sheet]
    top_mm: Callable[[int], float]
    low_mm: float
    left_mm: float
    column_mm: float = 0.0
    columns: int = 1
    sheets: list[Sheet] = field(default_factory=list)
    _column: int = -1
    _y_mm: float = 0.0

    def row(self, tall_mm: float, together_mm: float = 0.0) -> Spot:
        """Where the next row stands; what has to stay together with it goes on in the same column."""
        first = self._column < 0 or self._y_mm - max(tall_mm, together_mm) < self.low_mm
        if first:
            self._next_column()
        at = (self.left_mm + self._column * self.column_mm, self._y_mm)
        self._y_mm -= tall_mm
        return Spot(self.sheets[-1], at, first)

    def _next_column(self) -> None:
        self._column += 1
        if not self.sheets or self._column >= self.columns:
            self.sheets.append(self.new_sheet(len(self.sheets)))
            self._column = 0
        self._y_mm = self.top_mm(len(self.sheets) - 1)
