"""Flat parts as DXF, by themselves or on sheets of stock: millimetres, outline and holes to cut, bend lines, text."""

import io
from collections.abc import Callable, Sequence
from typing import Any

from levelcradle.core.design.sheets import DxfVersion
from levelcradle.core.nesting import Nest
from levelcradle.core.part import Flat, FlatPart
from levelcradle.drawings.sheet import Ring, Sheet, Stroke

__all__ = ["LAYERS", "LAYERS_TXT", "engraving_dxf", "lines_of", "nest_dxf", "part_dxf"]

LAYERS = {"CUT": 7, "BEND_UP": 5, "BEND_DOWN": 3, "TEXT": 8, "ENGRAVE": 1}
TEXT_MM = 5.0
LAYERS_TXT = """Layers of the cut files (DXF, and the groups of the SVG)

CUT        black, 7   outline and holes: cut through
BEND_UP    blue, 5    bend lines: folded towards who looks at the sheet
BEND_DOWN  green, 3   bend lines: folded away
TEXT       grey, 8    to be read, not cut
ENGRAVE    red, 1     on labels and plates: followed once, not cut through

All lengths are millimetres, at true size; a unit of the SVG is a millimetre. No splines; holes are true circles.
"""


def part_dxf(part: FlatPart, *, released: bool, version: DxfVersion = "R2010") -> bytes:
    """The outline is one closed polyline, every hole a circle, both on CUT; nothing else is there. No splines; R12 has
    no unit of its own: its figures are millimetres all the same."""
    doc = _new(version)
    _cut(doc.modelspace(), part, lambda p: p, version)
    low = min(y for _, y in part.outline) - 3 * TEXT_MM
    left = min(x for x, _ in part.outline)
    for number, line in enumerate(lines_of(part, released=released)):
        _text(doc.modelspace(), line, (left, low - number * 1.6 * TEXT_MM))
    return _bytes(doc, version)


def nest_dxf(nest: Nest, *, released: bool, version: DxfVersion = "R2010") -> bytes:
    """Every part of a sheet of stock in its place, with its mark; the edge of the sheet is text, not cut."""
    doc = _new(version)
    space, (wide, tall) = doc.modelspace(), nest.stock_mm
    for laid in nest.laid:
        _cut(space, laid.part, laid.point, version)
        _text(space, laid.part.mark, (laid.at[0] + 4, laid.at[1] + 4))
    edge = [(0.0, 0.0), (wide, 0.0), (wide, tall), (0.0, tall)]
    _polyline(space, edge, "TEXT", version)
    words = f"{nest.material}, {nest.thickness_mm:g} mm, {wide:g} x {tall:g}"
    for number, line in enumerate([words] if released else ["NOT RELEASED", words]):
        _text(space, line, (0.0, -3 * TEXT_MM - number * 1.6 * TEXT_MM))
    return _bytes(doc, version)


def engraving_dxf(edges: Sheet, faces: Sheet, version: DxfVersion = "R2010") -> bytes:
    """Plates: their edges on CUT, what is engraved on them on ENGRAVE; lines and circles alone."""
    doc = _new(version)
    for layer, sheet in (("CUT", edges), ("ENGRAVE", faces)):
        for mark in sheet.marks:
            if isinstance(mark, Stroke):
                _polyline(doc.modelspace(), mark.points, layer, version, closed=mark.closed)
            elif isinstance(mark, Ring):
                doc.modelspace().add_circle(mark.centre, mark.radius_mm, dxfattribs={"layer": layer})
    return _bytes(doc, version)


def _new(version: DxfVersion) -> Any:
    import ezdxf
    from ezdxf import units

    # the same part is the same file: no hour of writing, no new ids
    ezdxf.options.write_fixed_meta_data_for_testing = True
    doc = ezdxf.new(version)
    doc.units = units.MM
    for name, colour in LAYERS.items():
        doc.layers.add(name, color=colour)
    return doc


def _cut(space: Any, part: FlatPart, place: Callable[[Flat], Flat], version: DxfVersion) -> None:
    _polyline(space, [place(p) for p in part.outline], "CUT", version)
    for cutout in part.cutouts:
        _polyline(space, [place(p) for p in cutout.outline], "CUT", version)
    for hole in part.holes:
        space.add_circle(place(hole.at), hole.diameter_mm / 2, dxfattribs={"layer": "CUT"})
    for bend in part.bends:
        layer = "BEND_UP" if bend.up else "BEND_DOWN"
        space.add_line(place(bend.start), place(bend.end), dxfattribs={"layer": layer})


def _polyline(space: Any, points: Sequence[Flat], layer: str, version: DxfVersion, *, closed: bool = True) -> None:
    add = space.add_polyline2d if version == "R12" else space.add_lwpolyline
    add(points, close=closed, dxfattribs={"layer": layer})


def _text(space: Any, words: str, at: Flat) -> None:
    plain = words.replace("%%", "% %")  # no control codes from free text
    space.add_text(plain, height=TEXT_MM, dxfattribs={"layer": "TEXT"}).set_placement(at)


def _bytes(doc: Any, version: DxfVersion) -> bytes:
    # it takes its classes out of a set, in another order in every process
    doc.classes.add_required_classes(doc.dxfversion)
    doc.classes.classes = dict(sorted(doc.classes.classes.items()))
    out = io.StringIO()
    doc.write(out)
    # R12 knows no Unicode: a letter that it has not is written as its number
    return (
        out.getvalue().encode(doc.encoding, errors="dxfreplace") if version == "R12" else out.getvalue().encode("utf-8")
    )


def lines_of(part: FlatPart, *, released: bool) -> list[str]:
    """What a cut file says of its part."""
    lines = [
        f"{part.mark}  {part.name}".strip(),
        f"{part.material_name}, {part.thickness_mm:g} mm, {part.quantity} off",
        *part.notes,
    ]
    return lines if released else ["NOT RELEASED", *lines]
