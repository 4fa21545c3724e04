"""A flat part as SVG at true size, for cutters that take no DXF: the same lines, in groups named like its layers."""

from collections.abc import Iterator, Mapping, Sequence
from html import escape

from levelcradle.core.part import Flat, FlatPart, Hole
from levelcradle.drawings.dxf import lines_of
from levelcradle.drawings.sheet import Ring, Sheet, Stroke

__all__ = ["engraving_svg", "part_svg"]

COLOURS = {"CUT": "#000000", "BEND_UP": "#0000ff", "BEND_DOWN": "#00a000", "TEXT": "#808080", "ENGRAVE": "#ff0000"}
LINE_MM, TEXT_MM, ROW_MM = 0.1, 5.0, 8.0


def part_svg(part: FlatPart, *, released: bool) -> bytes:
    """One user unit is a millimetre. CUT holds the outline and every hole as paths and circles, nothing else; what is
    to be read stands under the part, in a group of its own."""
    left, high = min(x for x, _ in part.outline), max(y for _, y in part.outline)
    wide, tall = part.size_mm
    words = lines_of(part, released=released)

    def at(point: Flat) -> str:
        return f"{_n(point[0] - left)},{_n(high - point[1])}"

    def ring(outline: Sequence[Flat]) -> str:
        return f'<path d="M{" L".join(map(at, outline))} Z"/>'

    def circle(hole: Hole) -> str:
        x, y = at(hole.at).split(",")
        return f'<circle cx="{x}" cy="{y}" r="{_n(hole.diameter_mm / 2)}"/>'

    groups = {
        "CUT": [*map(ring, (part.outline, *(cut.outline for cut in part.cutouts))), *map(circle, part.holes)],
        "BEND_UP": [f'<path d="M{at(b.start)} L{at(b.end)}"/>' for b in part.bends if b.up],
        "BEND_DOWN": [f'<path d="M{at(b.start)} L{at(b.end)}"/>' for b in part.bends if not b.up],
        "TEXT": [
            f'<text x="0" y="{_n(tall + ROW_MM * n)}" font-size="{TEXT_MM}" fill="{COLOURS["TEXT"]}" '
            f'stroke="none">{escape(t)}</text>'
            for n, t in enumerate(words, 1)
        ],
    }
    return _document(part.name, wide, tall + ROW_MM * (len(words) + 1), groups)


def engraving_svg(edges: Sheet, faces: Sheet) -> bytes:
    """Plates: their edges in CUT, what is engraved on them in ENGRAVE; lines and circles alone, nothing filled."""
    paper = edges.paper
    groups = {name: list(_lines(sheet)) for name, sheet in (("CUT", edges), ("ENGRAVE", faces))}
    return _document(edges.title, paper.wide_mm, paper.tall_mm, groups)


def _lines(sheet: Sheet) -> Iterator[str]:
    tall = sheet.paper.tall_mm
    for mark in sheet.marks:
        if isinstance(mark, Stroke):
            run = " L".join(f"{_n(x)},{_n(tall - y)}" for x, y in mark.points)
            yield f'<path d="M{run}{" Z" if mark.closed else ""}"/>'
        elif isinstance(mark, Ring):
            x, y = mark.centre
            yield f'<circle cx="{_n(x)}" cy="{_n(tall - y)}" r="{_n(mark.radius_mm)}"/>'


def _document(title: str, wide: float, tall: float, groups: Mapping[str, list[str]]) -> bytes:
    body = "\n".join(_group(name, marks) for name, marks in groups.items() if marks)
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{_n(wide)}mm" height="{_n(tall)}mm" '
        f'viewBox="0 0 {_n(wide)} {_n(tall)}"><title>{escape(title)}</title>\n{body}\n</svg>'
    ).encode()


def _group(name: str, marks: list[str]) -> str:
    look = f'fill="none" stroke="{COLOURS[name]}" stroke-width="{LINE_MM}"'
    return f'<g id="{name}" {look}>\n' + "\n".join(marks) + "\n</g>"


def _n(value: float) -> str:
    """To a ten-thousandth of a millimetre, without a tail of zeros."""
    return f"{value:.4f}".rstrip("0").rstrip(".") or "0"
