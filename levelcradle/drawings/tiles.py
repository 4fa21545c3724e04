"""Drawings at true size that are larger than the paper: cut into tiles that overlap, to be laid together."""

import math
from collections.abc import Iterator
from dataclasses import dataclass

import shapely
from shapely.geometry import LineString
from shapely.geometry import Point as Spot

from levelcradle.drawings.border import Job
from levelcradle.drawings.letters import letters_mm, shortened
from levelcradle.drawings.sheet import Paper, Ring, Sheet, Stroke, Words

__all__ = ["tiles"]

EDGE_MM, HEAD_MM, OVERLAP_MM = 10.0, 9.0, 10.0
CROSS_MM = 4.0


@dataclass(frozen=True, slots=True)
class _Tile:
    """A window on the whole: its lower left corner there, and its row and column from the lower left one."""

    left: float
    low: float
    row: int
    column: int


def tiles(whole: Sheet, job: Job) -> list[Sheet]:
    """The drawing on as many sheets as it takes. Lines are cut at the edges of the window; neighbours show the same
    strip of ``OVERLAP_MM``, its end dashed and crosses at its corners, so that they can be laid over each other."""
    paper = job.paper
    wide, tall = paper.wide_mm - 2 * EDGE_MM, paper.tall_mm - 2 * EDGE_MM - HEAD_MM
    columns, rows = _count(whole.paper.wide_mm, wide), _count(whole.paper.tall_mm, tall)
    found = [
        _Tile(column * (wide - OVERLAP_MM), row * (tall - OVERLAP_MM), row, column)
        for row in range(rows)
        for column in range(columns)
    ]
    return [_sheet(whole, tile, job, (wide, tall), (columns, rows)) for tile in found]


def _count(size_mm: float, window_mm: float) -> int:
    return max(1, math.ceil((size_mm - OVERLAP_MM) / (window_mm - OVERLAP_MM) - 1e-9))


def _sheet(whole: Sheet, tile: _Tile, job: Job, window: tuple[float, float], count: tuple[int, int]) -> Sheet:
    name = whole.name if count == (1, 1) else f"{whole.name}-{tile.row + 1}-{tile.column + 1}"
    sheet = Sheet(name, whole.title, job.paper, about=whole.about)
    view = shapely.box(tile.left, tile.low, tile.left + window[0], tile.low + window[1])
    for mark in whole.marks:
        sheet.marks += _cut(mark, view, EDGE_MM - tile.left, EDGE_MM - tile.low)
    _edges(sheet, tile, window, count)
    _head(sheet, whole.title, job, tile, count)
    return sheet


def _cut(mark: Stroke | Ring | Words, view: shapely.Polygon, dx: float, dy: float) -> Iterator[Stroke | Ring | Words]:
    """What of a mark is in the window, moved to where the window is on the page."""
    if isinstance(mark, Words):
        wide = letters_mm(mark.text, mark.size_mm)
        ends = {"start": (0.0, wide), "middle": (-wide / 2, wide / 2), "end": (-wide, 0.0)}[mark.anchor]
        if all(view.covers(Spot(mark.at[0] + off, mark.at[1])) for off in ends):
            at = (mark.at[0] + dx, mark.at[1] + dy)
            yield Words(at, mark.text, mark.size_mm, mark.anchor, mark.bold, mark.turned)
    elif isinstance(mark, Ring) and view.covers(Spot(mark.centre).buffer(mark.radius_mm)):
        yield Ring((mark.centre[0] + dx, mark.centre[1] + dy), mark.radius_mm, mark.weight_mm)
    else:
        line = (
            Spot(mark.centre).buffer(mark.radius_mm, quad_segs=48).exterior
            if isinstance(mark, Ring)
            else LineString([*mark.points, *(mark.points[:1] if mark.closed else ())])
        )
        for run in shapely.get_parts(line.intersection(view)):
            if run.geom_type == "LineString" and not run.is_empty:
                points = tuple((x + dx, y + dy) for x, y in run.coords)
                yield Stroke(points, mark.weight_mm, dashed=isinstance(mark, Stroke) and mark.dashed)


def _edges(sheet: Sheet, tile: _Tile, window: tuple[float, float], count: tuple[int, int]) -> None:
    """Where the next sheet begins: the end of the strip that both show, with crosses that come upon each other."""
    (wide, tall), (columns, rows) = window, count
    left, low, right, high = EDGE_MM, EDGE_MM, EDGE_MM + wide, EDGE_MM + tall
    xs = [
        x
        for x, there in ((left + OVERLAP_MM, tile.column > 0), (right - OVERLAP_MM, tile.column < columns - 1))
        if there
    ]
    ys = [y for y, there in ((low + OVERLAP_MM, tile.row > 0), (high - OVERLAP_MM, tile.row < rows - 1)) if there]
    for x in xs:
        sheet.line((x, low), (x, high), weight_mm=0.13, dashed=True)
    for y in ys:
        sheet.line((left, y), (right, y), weight_mm=0.13, dashed=True)
    for x in (left, right, *xs) if xs or ys else ():
        for y in (low, high, *ys):
            sheet.line((x - CROSS_MM, y), (x + CROSS_MM, y), weight_mm=0.13)
            sheet.line((x, y - CROSS_MM), (x, y + CROSS_MM), weight_mm=0.13)


def _head(sheet: Sheet, title: str, job: Job, tile: _Tile, count: tuple[int, int]) -> None:
    """What it is, which sheet of it, and a line to check the printer by."""
    paper: Paper = sheet.paper
    y = paper.tall_mm - EDGE_MM - 3
    where = (
        "" if count == (1, 1) else f"row {tile.row + 1} of {count[1]}, sheet {tile.column + 1} of {count[0]} in it: "
    )
    words = f"{'' if job.released else 'NOT RELEASED  '}{where}{title}"
    sheet.words((EDGE_MM, y), shortened(words, paper.wide_mm - 2 * EDGE_MM - 122, 3.0 * 1.18), 3.0, bold=True)
    right = paper.wide_mm - EDGE_MM
    sheet.line((right - 100, y), (right, y), weight_mm=0.35)
    for x in (right - 100, right):
        sheet.line((x, y - 1.5), (x, y + 1.5), weight_mm=0.35)
    sheet.words((right - 98, y + 1.0), "print at true size: this line is 100 mm", 2.5)
