"""A sheet as SVG. A user unit is 1/100 mm, so that no renderer rounds a figure away."""

from collections.abc import Iterator, Sequence
from html import escape
from itertools import groupby

from levelcradle.drawings.sheet import Ring, Sheet, Stroke, Words

__all__ = ["sheet_svg"]

UNITS = 100
FONTS = "Archivo Variable, Archivo, DejaVu Sans, sans-serif"
Mark = Stroke | Ring | Words


def sheet_svg(sheet: Sheet) -> str:
    """The sheet as one SVG document, true to size; every text is escaped."""
    return _document(sheet, "\n".join(_marks(sheet.marks, sheet.paper.tall_mm)))


def _document(sheet: Sheet, marks: str) -> str:
    wide, tall = sheet.paper.wide_mm, sheet.paper.tall_mm
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{wide:g}mm" height="{tall:g}mm" '
        f'viewBox="0 0 {wide * UNITS:.0f} {tall * UNITS:.0f}" font-family="{FONTS}">'
        f"<title>{escape(sheet.title)}</title>\n"
        f'<rect width="{wide * UNITS:.0f}" height="{tall * UNITS:.0f}" fill="#fff"/>\n{marks}\n</svg>'
    )


def _xy(point: tuple[float, float], tall_mm: float) -> tuple[str, str]:
    return f"{point[0] * UNITS:.0f}", f"{(tall_mm - point[1]) * UNITS:.0f}"


def _marks(marks: Sequence[Mark], tall_mm: float) -> Iterator[str]:
    """In their order; lines that follow each other and look alike are one path, for a page has thousands of them."""
    for (kind, *_), group in groupby(marks, key=_look):
        if kind == "line":
            yield _path([mark for mark in group if isinstance(mark, Stroke)], tall_mm)
        else:
            yield from (_mark(mark, tall_mm) for mark in group)


def _look(mark: Mark) -> tuple[object, ...]:
    """What lines must have in common to be one path; what is filled covers what came before."""
    if isinstance(mark, Stroke) and not mark.fill:
        return "line", mark.weight_mm, mark.dashed
    return ("by itself",)


def _path(strokes: list[Stroke], tall_mm: float) -> str:
    runs = "".join(_run(stroke, tall_mm) for stroke in strokes)
    first = strokes[0]
    dash = ' stroke-dasharray="200 120"' if first.dashed else ""
    look = f'fill="{first.fill or "none"}" stroke="#000" stroke-width="{first.weight_mm * UNITS:.0f}"{dash}'
    return f'<path d="{runs}" {look}/>'


def _run(stroke: Stroke, tall_mm: float) -> str:
    return "M" + " L".join(" ".join(_xy(p, tall_mm)) for p in stroke.points) + (" Z" if stroke.closed else "")


def _mark(mark: Mark, tall_mm: float) -> str:
    if isinstance(mark, Ring):
        x, y = _xy(mark.centre, tall_mm)
        weight = mark.weight_mm * UNITS
        return (
            f'<circle cx="{x}" cy="{y}" r="{mark.radius_mm * UNITS:.0f}" fill="{mark.fill or "none"}" stroke="#000" '
            f'stroke-width="{weight:.0f}"/>'
        )
    if isinstance(mark, Words):
        return _words(mark, tall_mm)
    return _path([mark], tall_mm)


def _words(mark: Words, tall_mm: float) -> str:
    x, y = _xy(mark.at, tall_mm)
    turn = f' transform="rotate(-90 {x} {y})"' if mark.turned else ""
    bold = ' font-weight="700"' if mark.bold else ""
    return (
        f'<text x="{x}" y="{y}" font-size="{mark.size_mm * UNITS:.0f}" '
        f'text-anchor="{mark.anchor}"{bold}{turn}>{escape(mark.text)}</text>'
    )
