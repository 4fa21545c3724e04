"""A flat part as SVG at true size, for cutters that take no DXF: the same lines, in groups named like its layers."""

from html import escape

from levelcradle.core.part import FlatPart
from levelcradle.drawings.dxf import LAYERS, lines_of

__all__ = ["part_svg"]

COLOURS = {"CUT": "#000000", "BEND_UP": "#0000ff", "BEND_DOWN": "#00a000", "TEXT": "#808080"}
LINE_MM, TEXT_MM, ROW_MM = 0.1, 5.0, 8.0


def part_svg(part: FlatPart, *, released: bool) -> bytes:
    """One user unit is a millimetre. CUT holds the outline and every hole as paths and circles, nothing else; what is
    to be read stands under the part, in a group of its own."""
    xs, ys = [p[0] for p in part.outline], [p[1] for p in part.outline]
    left, high = min(xs), max(ys)
    wide, tall = part.size_mm
    words = lines_of(part, released=released)
    groups = {
        "CUT": [_outline(part, left, high), *(_hole(h.at, h.diameter_mm, left, high) for h in part.holes)],
        "BEND_UP": [_line(b.start, b.end, left, high) for b in part.bends if b.up],
        "BEND_DOWN": [_line(b.start, b.end, left, high) for b in part.bends if not b.up],
        "TEXT": [
            f'<text x="0" y="{_n(tall + ROW_MM * n)}" font-size="{TEXT_MM}" fill="{COLOURS["TEXT"]}" '
            f'stroke="none">{escape(t)}</text>'
            for n, t in enumerate(words, 1)
        ],
    }
    body = "\n".join(_group(name, groups[name]) for name in LAYERS if groups[name])
    height = tall + ROW_MM * (len(words) + 1)
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{_n(wide)}mm" height="{_n(height)}mm" '
        f'viewBox="0 0 {_n(wide)} {_n(height)}"><title>{escape(part.name)}</title>\n{body}\n</svg>'
    ).encode()


def _group(name: str, marks: list[str]) -> str:
    look = f'fill="none" stroke="{COLOURS[name]}" stroke-width="{LINE_MM}"'
    return f'<g id="{name}" {look}>\n' + "\n".join(marks) + "\n</g>"


def _outline(part: FlatPart, left: float, high: float) -> str:
    return '<path d="M' + " L".join(f"{_n(x - left)},{_n(high - y)}" for x, y in part.outline) + ' Z"/>'


def _hole(at: tuple[float, float], diameter_mm: float, left: float, high: float) -> str:
    return f'<circle cx="{_n(at[0] - left)}" cy="{_n(high - at[1])}" r="{_n(diameter_mm / 2)}"/>'


def _line(start: tuple[float, float], end: tuple[float, float], left: float, high: float) -> str:
    (x0, y0), (x1, y1) = start, end
    return f'<path d="M{_n(x0 - left)},{_n(high - y0)} L{_n(x1 - left)},{_n(high - y1)}"/>'


def _n(value: float) -> str:
    """To a ten-thousandth of a millimetre, without a tail of zeros."""
    return f"{value:.4f}".rstrip("0").rstrip(".") or "0"
