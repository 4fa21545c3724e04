"""A flat part as DXF: millimetres, outline and holes to cut, bend lines, text."""

import io

from levelcradle.core.part import FlatPart

__all__ = ["LAYERS", "lines_of", "part_dxf"]

LAYERS = {"CUT": 7, "BEND_UP": 5, "BEND_DOWN": 3, "TEXT": 8}
TEXT_MM = 5.0


def part_dxf(part: FlatPart, *, released: bool) -> bytes:
    """DXF R2010. The outline is one closed polyline, every hole a circle, both on CUT; nothing else is there."""
    import ezdxf
    from ezdxf import units

    # the same part is the same file: no hour of writing, no new ids
    ezdxf.options.write_fixed_meta_data_for_testing = True
    doc = ezdxf.new("R2010")
    doc.units = units.MM
    for name, colour in LAYERS.items():
        doc.layers.add(name, color=colour)
    space = doc.modelspace()
    space.add_lwpolyline(part.outline, close=True, dxfattribs={"layer": "CUT"})
    for hole in part.holes:
        space.add_circle(hole.at, hole.diameter_mm / 2, dxfattribs={"layer": "CUT"})
    for bend in part.bends:
        space.add_line(bend.start, bend.end, dxfattribs={"layer": "BEND_UP" if bend.up else "BEND_DOWN"})
    _notes(space, part, released)
    out = io.StringIO()
    doc.write(out)
    return out.getvalue().encode("utf-8")


def lines_of(part: FlatPart, *, released: bool) -> list[str]:
    """What a cut file says of its part."""
    lines = [part.name, f"{part.material_name}, {part.thickness_mm:g} mm, {part.quantity} off", *part.notes]
    return lines if released else ["NOT RELEASED", *lines]


def _notes(space, part: FlatPart, released: bool) -> None:  # type: ignore[no-untyped-def]
    low = min(y for _, y in part.outline) - 3 * TEXT_MM
    left = min(x for x, _ in part.outline)
    for number, line in enumerate(lines_of(part, released=released)):
        text = line.replace("%%", "% %")  # no control codes from free text
        space.add_text(text, height=TEXT_MM, dxfattribs={"layer": "TEXT"}).set_placement(
            (left, low - number * 1.6 * TEXT_MM)
        )
