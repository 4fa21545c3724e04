"""Sheets as one PDF, a page each, true to size."""

from collections.abc import Sequence
from datetime import UTC, datetime
from pathlib import Path
from typing import TYPE_CHECKING

from levelcradle.drawings.sheet import Point, Ring, Sheet, Stroke, Words

if TYPE_CHECKING:
    from fpdf import FPDF

__all__ = ["sheets_pdf"]

# Debian's fonts-dejavu-core: it has the signs of drawings and many alphabets
FONTS = Path("/usr/share/fonts/truetype/dejavu")
FACES = {False: "DejaVuSans.ttf", True: "DejaVuSans-Bold.ttf"}
POINT_MM = 25.4 / 72
DASH_MM, DASH_GAP_MM = 2.0, 1.2
NO_DAY = datetime(2000, 1, 1, tzinfo=UTC)  # nothing in a file comes from the clock


def sheets_pdf(sheets: Sequence[Sheet], title: str, on: str = "") -> bytes:
    """One PDF, each page of its own sheet's paper; ``on``: its day, as the revision has it. The same sheets are the
    same bytes."""
    pdf = _new(title, on)
    for sheet in sheets:
        wide, tall = sheet.paper.wide_mm, sheet.paper.tall_mm
        pdf.add_page(orientation="L" if wide > tall else "P", format=(min(wide, tall), max(wide, tall)))
        for mark in sheet.marks:
            if isinstance(mark, Stroke):
                _stroke(pdf, mark, tall)
            elif isinstance(mark, Ring):
                _ring(pdf, mark, tall)
            else:
                _words(pdf, mark, tall)
    return bytes(pdf.output())


def _new(title: str, on: str) -> "FPDF":
    from fpdf import FPDF  # slow to import, and only what is printed needs it

    pdf = FPDF(unit="mm")
    pdf.set_auto_page_break(auto=False)
    pdf.set_creation_date(datetime.fromisoformat(on).replace(tzinfo=UTC) if on else NO_DAY)
    pdf.set_title(title)
    for bold, face in FACES.items():
        pdf.add_font("sheet", "B" if bold else "", FONTS / face)
    pdf.set_text_shaping(use_shaping_engine=True)  # alphabets that join their letters, or read from the right
    return pdf


def _stroke(pdf: "FPDF", mark: Stroke, tall_mm: float) -> None:
    points = [_down(point, tall_mm) for point in mark.points]
    if mark.dashed:
        pdf.set_dash_pattern(DASH_MM, DASH_GAP_MM)
    pdf.set_line_width(mark.weight_mm)
    pdf.polyline(points, polygon=mark.closed, style=_style(pdf, mark.fill))
    if mark.dashed:
        pdf.set_dash_pattern()


def _ring(pdf: "FPDF", mark: Ring, tall_mm: float) -> None:
    x, y = _down(mark.centre, tall_mm)
    pdf.set_line_width(mark.weight_mm)
    pdf.circle(x, y, mark.radius_mm, style=_style(pdf, mark.fill))


def _words(pdf: "FPDF", mark: Words, tall_mm: float) -> None:
    pdf.set_font("sheet", "B" if mark.bold else "", mark.size_mm / POINT_MM)
    x, y = _down(mark.at, tall_mm)
    share = {"start": 0.0, "middle": 0.5, "end": 1.0}[mark.anchor]
    left = x - (pdf.get_string_width(mark.text) * share if share else 0.0)
    if mark.turned:
        with pdf.rotation(90, x, y):
            pdf.text(left, y, mark.text)
    else:
        pdf.text(left, y, mark.text)


def _down(point: Point, tall_mm: float) -> Point:
    """A page counts from its upper edge."""
    return point[0], tall_mm - point[1]


def _style(pdf: "FPDF", fill: str) -> str:
    """Drawn, or filled too."""
    if fill:
        pdf.set_fill_color(fill)
    return "DF" if fill else "D"
