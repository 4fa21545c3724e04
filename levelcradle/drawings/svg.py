"""A sheet as SVG. A user unit is 1/100 mm, so that no renderer rounds a figure away."""

from html import escape

from levelcradle.drawings.sheet import Ring, Sheet, Stroke, Words

__all__ = ["sheet_svg"]

UNITS = 100


def sheet_svg(sheet: Sheet) -> str:
    """The sheet as one SVG document, true to size; every text is escaped."""
    wide, tall = sheet.paper.wide_mm, sheet.paper.tall_mm
    marks = "\n".join(_mark(mark, tall) for mark in sheet.marks)
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{wide:g}mm" height="{tall:g}mm" '
        f'viewBox="0 0 {wide * UNITS:.0f} {tall * UNITS:.0f}" font-family="Archivo Variable, Archivo, DejaVu Sans, '
        f'sans-serif">'
        f"<title>{escape(sheet.title)}</title>\n"
        f'<rect width="{wide * UNITS:.0f}" height="{tall * UNITS:.0f}" fill="#fff"/>\n{marks}\n</svg>'
    )


def _xy(point: tuple[float, float], tall_mm: float) -> tuple[str, str]:
    return f"{point[0] * UNITS:.0f}", f"{(tall_mm - point[1]) * UNITS:.0f}"


def _mark(mark: Stroke | Ring | Words, tall_mm: float) -> str:
    if isinstance(mark, Ring):
        x, y = _xy(mark.centre, tall_mm)
        weight = mark.weight_mm * UNITS
        return (
            f'<circle cx="{x}" cy="{y}" r="{mark.radius_mm * UNITS:.0f}" fill="none" stroke="#000" '
            f'stroke-width="{weight:.0f}"/>'
        )
    if isinstance(mark, Words):
        return _words(mark, tall_mm)
    path = "M" + " L".join(" ".join(_xy(p, tall_mm)) for p in mark.points) + (" Z" if mark.closed else "")
    dash = ' stroke-dasharray="200 120"' if mark.dashed else ""
    weight = mark.weight_mm * UNITS
    return f'<path d="{path}" fill="{mark.fill or "none"}" stroke="#000" stroke-width="{weight:.0f}"{dash}/>'


def _words(mark: Words, tall_mm: float) -> str:
    x, y = _xy(mark.at, tall_mm)
    turn = f' transform="rotate(-90 {x} {y})"' if mark.turned else ""
    bold = ' font-weight="700"' if mark.bold else ""
    return (
        f'<text x="{x}" y="{y}" font-size="{mark.size_mm * UNITS:.0f}" '
        f'text-anchor="{mark.anchor}"{bold}{turn}>{escape(mark.text)}</text>'
    )
