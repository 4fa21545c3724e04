"""Tables: what is listed, as sheets, CSV and one workbook; numbers as numbers, nothing that a spreadsheet would run."""

import csv
import io
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Literal

from levelcradle.core.design.sheets import Lengths
from levelcradle.core.quantity import INCH_MM
from levelcradle.drawings.border import FOOT_MM, Job, border
from levelcradle.drawings.letters import shortened, wrapped
from levelcradle.drawings.sheet import Flow, Sheet

__all__ = ["Column", "Table", "for_files", "table_csv", "table_sheets", "workbook"]

Cell = str | float | int | None
ROW_MM, LINE_MM, HEAD_MM, LETTERS_MM, HEAD_LETTERS_MM = 5.0, 3.6, 6.0, 2.8, 2.6
TOP_MM, LOW_MM, LEFT_MM = 31.0, FOOT_MM + 4.0, 14.0
MOST_LINES = 4
UNITS: dict[Lengths, str] = {"mm": "mm", "in": "in", "both": ""}  # of both the title block tells
FORMULA = ("=", "+", "-", "@", "\t", "\r")


@dataclass(frozen=True, slots=True)
class Column:
    """A column: its heading, how wide beside the others (0: only in files), and of numbers how many decimals.

    ``length``: millimetres, written in the job's unit: *taped* in fractions of an inch, *fine* in thousandths.
    """

    title: str
    share: float = 1.0
    digits: int | None = None
    length: Literal["", "taped", "fine"] = ""

    def headed(self, unit: str) -> str:
        return f"{self.title} {unit}".strip() if self.length else self.title


@dataclass(frozen=True, slots=True)
class Table:
    """What is listed. ``name``: of its file."""

    name: str
    title: str
    columns: tuple[Column, ...]
    rows: tuple[tuple[Cell, ...], ...]
    note: str = ""


def table_sheets(table: Table, job: Job) -> list[Sheet]:
    """The table over as many sheets as it takes, its head on each."""
    shown = [n for n, column in enumerate(table.columns) if column.share]
    columns = [table.columns[n] for n in shown]
    widths = _widths(columns, job.paper.wide_mm - 2 * LEFT_MM)
    top = job.paper.tall_mm - TOP_MM

    def new(number: int) -> Sheet:
        return Sheet(f"{table.name}-{number + 1}" if number else table.name, table.title, job.paper)

    flow = Flow(new, lambda _: top, LOW_MM, LEFT_MM)
    for row in table.rows:
        cells = [_lines(row[n], column, wide, job) for n, column, wide in zip(shown, columns, widths, strict=True)]
        tall = ROW_MM + LINE_MM * (max(map(len, cells)) - 1)
        spot = flow.row(tall)
        if spot.first:
            _head(spot.sheet, columns, widths, spot.at[1] + HEAD_MM, UNITS[job.lengths])
        right = [not isinstance(row[n], str) for n in shown]
        _cells(spot.sheet, list(zip(columns, widths, cells, right, strict=True)), spot.at[1], tall)
    for number, sheet in enumerate(flow.sheets, 1):
        if len(flow.sheets) > 1:
            sheet.title = f"{table.title}, sheet {number} of {len(flow.sheets)}"
        border(sheet, job, sheet.title, (), (table.note,) if table.note else ())
    return flow.sheets


def _widths(columns: Sequence[Column], wide_mm: float) -> list[float]:
    shares = sum(column.share for column in columns)
    return [wide_mm * column.share / shares for column in columns]


def _lines(cell: Cell, column: Column, wide_mm: float, job: Job) -> list[str]:
    """A cell in lines; one that has no room in so many ends with an ellipsis."""
    if column.length and isinstance(cell, float | int):
        text = job.length(cell) if column.length == "taped" else job.fine(cell)
    else:
        text = _written(cell, column)
    return wrapped(text, wide_mm - 2, LETTERS_MM, MOST_LINES) or [""]


def _head(sheet: Sheet, columns: Sequence[Column], widths: Sequence[float], y: float, unit: str) -> None:
    for column, left, wide in _laid(columns, widths):
        text, right = shortened(column.headed(unit), wide - 2, HEAD_LETTERS_MM * 1.18), column.digits is not None
        sheet.words(
            (left + wide - 2 if right else left, y), text, HEAD_LETTERS_MM, "end" if right else "start", bold=True
        )
    sheet.line((LEFT_MM, y - 1.6), (sheet.paper.wide_mm - LEFT_MM, y - 1.6), weight_mm=0.35)


def _cells(sheet: Sheet, cells: Sequence[tuple[Column, float, list[str], bool]], y: float, tall_mm: float) -> None:
    left = LEFT_MM
    for column, wide, lines, is_number in cells:
        right = column.digits is not None and is_number
        for number, text in enumerate(lines):
            at = (left + wide - 2 if right else left, y - LINE_MM * number)
            if text:
                sheet.words(at, text, LETTERS_MM, "end" if right else "start")
        left += wide
    low = y - tall_mm + ROW_MM - 1.5
    sheet.line((LEFT_MM, low), (sheet.paper.wide_mm - LEFT_MM, low), weight_mm=0.13)


def _laid(columns: Sequence[Column], widths: Sequence[float]) -> Iterator[tuple[Column, float, float]]:
    left = LEFT_MM
    for column, wide in zip(columns, widths, strict=True):
        yield column, left, wide
        left += wide


def _written(cell: Cell, column: Column) -> str:
    if cell is None:
        return ""
    return cell if isinstance(cell, str) else f"{cell:.{column.digits or 0}f}"


def for_files(table: Table, lengths: Lengths) -> Table:
    """With lengths as numbers in the unit that is wanted; for both, a column each."""
    columns, picks = list[Column](), list[tuple[int, float]]()
    for n, column in enumerate(table.columns):
        inches = Column(column.headed("in"), column.share, 3), 1 / INCH_MM
        millimetres = replace(column, title=column.headed("mm"), length=""), 1.0
        wanted = {"mm": [millimetres], "in": [inches], "both": [millimetres, inches]}[lengths]
        for made, factor in wanted if column.length else [(column, 1.0)]:
            columns.append(made)
            picks.append((n, factor))
    rows = tuple(
        tuple(cell * factor if isinstance(cell := row[n], float) else cell for n, factor in picks) for row in table.rows
    )
    return replace(table, columns=tuple(columns), rows=rows)


def table_csv(table: Table, *, released: bool) -> bytes:
    """With a mark in front that tells spreadsheets its encoding. A text that a spreadsheet would take for a formula
    begins with an apostrophe."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow([column.title for column in table.columns])
    for row in table.rows:
        writer.writerow(
            [
                _safe(_written(c, column)) if isinstance(c, str) else _written(c, column)
                for c, column in zip(row, table.columns, strict=True)
            ]
        )
    if not released:
        writer.writerow(["NOT RELEASED"])
    return out.getvalue().encode("utf-8-sig")


def _safe(text: str) -> str:
    return f"'{text}" if text.startswith(FORMULA) else text


def workbook(tables: Sequence[Table], *, released: bool, on: str) -> bytes:
    """One workbook, a leaf a table. Texts are written as texts, so that no cell is a formula; ``on``: its day, for
    nothing in a file comes from the clock."""
    from datetime import datetime

    import xlsxwriter

    out = io.BytesIO()
    book = xlsxwriter.Workbook(out, {"in_memory": True, "strings_to_formulas": False, "strings_to_urls": False})
    book.set_properties({"created": datetime.fromisoformat(on) if on else datetime(2000, 1, 1)})
    bold = book.add_format({"bold": True})
    for table in tables:
        leaf = book.add_worksheet(table.name[:31])
        for n, column in enumerate(table.columns):
            leaf.write_string(0, n, column.title, bold)
            leaf.set_column(n, n, 8 + 7 * column.share)
            figures = book.add_format({"num_format": "0" if not column.digits else f"0.{'0' * column.digits}"})
            for line, row in enumerate(table.rows, 1):
                cell = row[n]
                if isinstance(cell, str):
                    leaf.write_string(line, n, cell)
                elif cell is not None:
                    leaf.write_number(line, n, cell, figures)
        leaf.freeze_panes(1, 0)
        if not released:
            leaf.write_string(len(table.rows) + 1, 0, "NOT RELEASED", bold)
    book.close()
    return out.getvalue()
