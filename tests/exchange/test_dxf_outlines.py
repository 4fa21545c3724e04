"""Closed outlines from DXF: blocks opened, curves flattened, what is not flat left out and told."""

import io
from itertools import pairwise

import ezdxf
import pytest

from levelcradle.exchange import FileRefused, read_outlines


def drawing(fill: object, unit: int = 4) -> bytes:
    document = ezdxf.new("R2010")
    document.header["$INSUNITS"] = unit
    fill(document)  # type: ignore[operator]
    out = io.StringIO()
    document.write(out)
    return out.getvalue().encode()


def rectangle(document: ezdxf.document.Drawing) -> None:
    document.modelspace().add_lwpolyline(
        [(0, 0), (400, 0), (400, 250), (0, 250)], close=True, dxfattribs={"layer": "FLOOR"}
    )


def test_a_rectangle() -> None:
    found = read_outlines(drawing(rectangle), None)
    assert found.outlines[0].layer == "FLOOR"
    assert found.outlines[0].area_mm2 == pytest.approx(100_000)
    assert len(found.outlines[0].points_mm) == 4


def test_units_are_asked_only_where_the_file_names_none() -> None:
    with pytest.raises(FileRefused, match="does not say its unit"):
        read_outlines(drawing(rectangle, 0), None)
    assert read_outlines(drawing(rectangle, 0), "cm").outlines[0].area_mm2 == pytest.approx(1e7)
    assert read_outlines(drawing(rectangle, 1), "cm").outlines[0].area_mm2 == pytest.approx(100_000 * 25.4**2)


def test_blocks_splines_and_loose_lines() -> None:
    def fill(document: ezdxf.document.Drawing) -> None:
        block = document.blocks.new("PLATE")
        block.add_circle((0, 0), 50)
        space = document.modelspace()
        space.add_blockref("PLATE", (500, 0), dxfattribs={"xscale": 2, "yscale": 2})
        space.add_spline([(0, 300), (100, 380), (200, 300), (100, 260), (0, 300)])
        for a, b in (((0, 0), (60, 0)), ((60, 0), (60, 80)), ((60, 80), (0.01, 0.01))):
            space.add_line(a, b)

    found = read_outlines(drawing(fill), None)
    assert found.outlines[0].area_mm2 == pytest.approx(3.14159 * 100**2, rel=1e-2)
    assert found.outlines[0].off_mm <= 2
    assert min(o.area_mm2 for o in found.outlines) == pytest.approx(2400, rel=1e-2)
    assert len(found.outlines) == 3


def test_what_is_not_flat_is_left_out_and_told() -> None:
    def fill(document: ezdxf.document.Drawing) -> None:
        rectangle(document)
        document.modelspace().add_polyline3d([(0, 0, 0), (100, 0, 50), (100, 100, 90), (0, 0, 0)])
        document.modelspace().add_text("hello")

    found = read_outlines(drawing(fill), None)
    assert set(found.notes) == {"1 × line that is not flat", "1 × text"}
    assert len(found.outlines) == 1


@pytest.mark.parametrize(
    ("data", "message"),
    [
        (b"", "empty"),
        (b"PK\x03\x04", "packed"),
        (b"hello", "no DXF"),
        (drawing(rectangle)[:3000], "cannot be read|no closed outline"),
        (drawing(lambda d: d.modelspace().add_line((0, 0), (1, 1))), "no closed outline"),
    ],
)
def test_what_is_broken_says_why(data: bytes, message: str) -> None:
    with pytest.raises(FileRefused, match=message):
        read_outlines(data, "mm")


def test_what_closes_no_outline_or_crosses_itself_is_told() -> None:
    def fill(document: ezdxf.document.Drawing) -> None:
        rectangle(document)
        space = document.modelspace()
        space.add_lwpolyline([(0, 0), (100, 100), (100, 0), (0, 100)], close=True)
        space.add_line((900, 0), (950, 0))
        space.add_line((960, 0), (990, 30))

    found = read_outlines(drawing(fill), None)
    assert len(found.outlines) == 1
    assert set(found.notes) == {"1 × outline that crosses itself", "2 × line that closes no outline"}


@pytest.mark.parametrize("radius", [1.0, 40.0, 900.0])
def test_a_circle_says_how_far_it_was_flattened(radius: float) -> None:
    found = read_outlines(drawing(lambda document: document.modelspace().add_circle((0, 0), radius)), None)
    (outline,) = found.outlines
    assert 0 < outline.off_mm < 2.0
    assert max(abs((x**2 + y**2) ** 0.5 - radius) for x, y in outline.points_mm) <= outline.off_mm + 1e-3
    chord = min(abs(((a[0] + b[0]) / 2) ** 2 + ((a[1] + b[1]) / 2) ** 2) ** 0.5 for a, b in pairwise(outline.points_mm))
    assert radius - chord <= outline.off_mm + 1e-3


def test_straight_lines_stand_off_by_nothing() -> None:
    assert read_outlines(drawing(rectangle), None).outlines[0].off_mm == 0.0
