"""A flat part as DXF: millimetres, outline and holes to cut, bend lines, text."""

import io

from levelcradle.core.design.sheets import DxfVersion
from levelcradle.core.part import FlatPart

__all__ = ["LAYERS", "LAYERS_TXT", "lines_of", "part_dxf"]

LAYERS = {"CUT": 7, "BEND_UP": 5, "BEND_DOWN": 3, "TEXT": 8}
TEXT_MM = 5.0
LAYERS_TXT = """Layers of the cut files (DXF, and the groups of the SVG)

CUT        black, 7   outline and holes: cut through
BEND_UP    blue, 5    bend lines: folded towards who looks at the sheet
BEND_DOWN  green, 3   bend lines: folded away
TEXT       grey, 8    to be read, not cut

All lengths are millimetres, at true size; a unit of the SVG is a millimetre. No splines; holes are true circles.
"""


def part_dxf(part: FlatPart, *, released: bool, version: DxfVersion = "R2010") -> bytes:
    """The outline is one closed polyline, every hole a circle, both on CUT; nothing else is there. No splines; R12 has
    no unit of its own: its figures are millimetres all the same."""
    import ezdxf
    from ezdxf import units

    # the same part is the same file: no hour of writing, no new ids
    ezdxf.options.write_fixed_meta_data_for_testing = True
    doc = ezdxf.new(version)
    doc.units = units.MM
    for name, colour in LAYERS.items():
        doc.layers.add(name, color=colour)
    space = doc.modelspace()
    add_outline = space.add_polyline2d if version == "R12" else space.add_lwpolyline
    add_outline(part.outline, close=True, dxfattribs={"layer": "CUT"})
    for hole in part.holes:
        space.add_circle(hole.at, hole.diameter_mm / 2, dxfattribs={"layer": "CUT"})
    for bend in part.bends:
        space.add_line(bend.start, bend.end, dxfattribs={"layer": "BEND_UP" if bend.up else "BEND_DOWN"})
    _notes(space, part, released)
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


def _notes(space, part: FlatPart, released: bool) -> None:  # type: ignore[no-untyped-def]
    low = min(y for _, y in part.outline) - 3 * TEXT_MM
    left = min(x for x, _ in part.outline)
    for number, line in enumerate(lines_of(part, released=released)):
        text = line.replace("%%", "% %")  # no control codes from free text
        space.add_text(text, height=TEXT_MM, dxfattribs={"layer": "TEXT"}).set_placement(
            (left, low - number * 1.6 * TEXT_MM)
        )
