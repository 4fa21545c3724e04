"""Pieces on sheets by their own shapes, so that one lies in the hollow of another: sheet and pieces as grids of cells,
and every place where a piece would lie free found at once by a convolution."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import shapely
from numpy.typing import NDArray
from scipy.fft import irfft2, next_fast_len, rfft2
from shapely.geometry import Polygon

from levelcradle.core.nesting.spot import Spot, quarters_of
from levelcradle.core.part import Flat, FlatPart

__all__ = ["by_shapes"]

CELLS = 60_000  # of a sheet: more lay closer and take longer
ALONG = 10  # a piece goes as far to the start of a sheet as it can; across comes after

Cells = NDArray[np.bool_]
Waves = NDArray[np.complex64]


@dataclass(frozen=True, eq=False, slots=True)
class _Turned:
    """A piece turned by quarters: the cells that it and its gap take, and their transform."""

    quarters: int
    cells: Cells
    waves: Waves


@dataclass(eq=False, slots=True)
class _Sheet:
    """What of a sheet is taken, its transform, and what lies there."""

    taken: NDArray[np.float32]
    waves: Waves
    spots: list[Spot]


def by_shapes(pieces: Sequence[FlatPart], order: Sequence[int], stock_mm: Flat, gap_mm: float) -> list[list[Spot]]:
    """Sheets that pieces lie on, each with what lies on it: in an order, each as far to the start of the first sheet
    that it goes on as it can."""
    grid = _Grid(stock_mm, gap_mm)
    turned: dict[str, list[_Turned]] = {}
    sheets: list[_Sheet] = []
    for number in order:
        part = pieces[number]
        if part.id not in turned:
            turned[part.id] = grid.turns(part)
        if not any(grid.put(sheet, number, part, turned[part.id]) for sheet in sheets):
            sheets.append(grid.empty())
            if not grid.put(sheets[-1], number, part, turned[part.id]):
                return []
    return [sheet.spots for sheet in sheets]


class _Grid:
    """The cells of a sheet of stock, within half a gap of its edge: each piece brings the other half along."""

    def __init__(self, stock_mm: Flat, gap_mm: float) -> None:
        self.gap_mm = gap_mm
        wide, tall = (v - gap_mm for v in stock_mm)
        self.cell_mm = max(1.0, (wide * tall / CELLS) ** 0.5)
        self.size = int(wide / self.cell_mm), int(tall / self.cell_mm)
        # what runs round the end comes out where a piece would stand over the edge, and is not read
        self.waves = tuple(next_fast_len(n, real=True) for n in self.size)

    def empty(self) -> _Sheet:
        taken = np.zeros(self.size, np.float32)
        return _Sheet(taken, rfft2(taken, self.waves), [])

    def turns(self, part: FlatPart) -> list[_Turned]:
        """Each way that a part may be turned and looks otherwise than before."""
        found: list[_Turned] = []
        cells = self._cells(part)
        for quarters in quarters_of(part):
            mine = np.rot90(cells, quarters)
            fits = mine.shape[0] <= self.size[0] and mine.shape[1] <= self.size[1]
            if fits and not any(np.array_equal(mine, other.cells) for other in found):
                found.append(_Turned(quarters, mine, rfft2(mine[::-1, ::-1].astype(np.float32), self.waves)))
        return found

    def _cells(self, part: FlatPart) -> Cells:
        """The cells that a part with half a gap round it comes into, the part in their middle."""
        (x0, y0, x1, y1), half, cell = Polygon(part.outline).bounds, self.gap_mm / 2, self.cell_mm
        across, up = (int(np.ceil((v + self.gap_mm) / cell - 1e-9)) for v in (x1 - x0, y1 - y0))
        x, y = (x0 + x1 - across * cell) / 2, (y0 + y1 - up * cell) / 2
        columns, rows = np.meshgrid(x + np.arange(across) * cell, y + np.arange(up) * cell, indexing="ij")
        grown = Polygon(part.outline).buffer(half, join_style="mitre")
        shapely.prepare(grown)
        inside: Cells = shapely.intersects(
            grown, shapely.box(columns + 1e-6, rows + 1e-6, columns + cell - 1e-6, rows + cell - 1e-6)
        )
        return inside

    def put(self, sheet: _Sheet, number: int, part: FlatPart, turns: Sequence[_Turned]) -> bool:
        """Puts a piece on a sheet as far to its start as it goes; whether it went on it."""
        best: tuple[int, int, int, _Turned] | None = None
        for turn in turns:
            (wide, tall), (columns, rows) = turn.cells.shape, self.size
            meets = irfft2(sheet.waves * turn.waves, self.waves)[wide - 1 : columns, tall - 1 : rows]
            xs, ys = np.nonzero(meets < 0.5)
            if len(xs):
                worth = (xs + wide) * ALONG + ys + tall
                at = int(worth.argmin())
                if best is None or worth[at] < best[0]:
                    best = int(worth[at]), int(xs[at]), int(ys[at]), turn
        if best is None:
            return False
        _, x, y, turn = best
        wide, tall = turn.cells.shape
        sheet.taken[x : x + wide, y : y + tall] += turn.cells
        sheet.waves = rfft2(sheet.taken, self.waves)
        sheet.spots.append(Spot(number, self._corner(x, y, part, turn), turn.quarters))
        return True

    def _corner(self, x: int, y: int, part: FlatPart, turn: _Turned) -> Flat:
        """Where the lower left corner of the part comes, which is in the middle of its cells."""
        size = part.size_mm[:: -1 if turn.quarters % 2 else 1]
        at = [
            self.gap_mm / 2 + n * self.cell_mm + (cells * self.cell_mm - v) / 2
            for n, cells, v in zip((x, y), turn.cells.shape, size, strict=True)
        ]
        return at[0], at[1]
