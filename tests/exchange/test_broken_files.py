"""Files cut off anywhere or with bytes turned: a right import or a sentence, never anything else."""

import io
from collections.abc import Callable
from typing import Any, TypeVar

import ezdxf
import numpy as np
import pytest
import trimesh
from hypothesis import given, settings
from hypothesis import strategies as st
from PIL import Image

from levelcradle.core.design import Design, validate
from levelcradle.exchange import FileRefused, picture_kind, read_outlines, read_scan, read_shelf

BLOCK = trimesh.creation.box((0.4, 0.2, 0.1))


def exported(kind: str, **more: object) -> bytes:
    data = BLOCK.export(file_type=kind, **more)
    return data if isinstance(data, bytes) else str(data).encode()


def drawn() -> bytes:
    document = ezdxf.new("R2010", units=4)
    document.modelspace().add_lwpolyline([(0, 0), (400, 0), (400, 250), (0, 250)], close=True)
    document.modelspace().add_circle((600, 0), 80)
    out = io.StringIO()
    document.write(out)
    return out.getvalue().encode()


def pictured(kind: str) -> bytes:
    out = io.BytesIO()
    Image.new("RGB", (12, 8), "grey").save(out, kind)
    return out.getvalue()


MESHES = {kind: exported(kind) for kind in ("stl", "stl_ascii", "obj", "ply", "glb")}
DXF = drawn()
SHELF = "Name;Voltage;Date\nA1;44,61;2026-03-01\nA2;44,58;2026-03-02\n".encode("utf-16")
FEW = settings(max_examples=60)


@st.composite
def spoiled(draw: st.DrawFn, data: bytes) -> bytes:
    """Cut off somewhere, and up to four bytes of it turned."""
    cut = bytearray(data[: draw(st.integers(1, len(data)))])
    for _ in range(draw(st.integers(0, 4))):
        cut[draw(st.integers(0, len(cut) - 1))] = draw(st.integers(0, 255))
    return bytes(cut)


T = TypeVar("T")


def read_or_told(read: Callable[[], T]) -> T | None:
    """What was read, or None where it was refused with a whole sentence. Anything else fails the test."""
    message = ""
    try:
        return read()
    except FileRefused as refused:
        message = refused.message
    assert message.endswith((".", "?"))
    return None


@FEW
@given(st.data(), st.sampled_from(sorted(MESHES)))
def test_spoiled_meshes(data: st.DataObject, kind: str) -> None:
    bad = data.draw(spoiled(MESHES[kind]))
    scan = read_or_told(lambda: read_scan(bad, "m", 1.0))
    if scan:
        assert np.isfinite(scan.mesh.vertices).all()
        assert scan.mesh.triangles.max() < len(scan.mesh.vertices)


@FEW
@given(st.data())
def test_spoiled_drawings(data: st.DataObject) -> None:
    bad = data.draw(spoiled(DXF))
    found = read_or_told(lambda: read_outlines(bad, "mm"))
    if found:
        assert all(o.area_mm2 > 0 and len(o.points_mm) >= 3 for o in found.outlines)


@FEW
@given(data=st.data())
def test_spoiled_tables(demo: Design, data: st.DataObject) -> None:
    bad = data.draw(spoiled(SHELF))
    found = read_or_told(lambda: read_shelf(bad, demo, None, "flagstone"))
    if found:
        assert all(r.refused or r.becomes["kind"] == "flagstone" for r in found.rows)


@pytest.mark.parametrize("kind", ["PNG", "JPEG", "WEBP"])
def test_pictures_are_told_by_their_bytes(kind: str) -> None:
    assert picture_kind(pictured(kind)) == f"image/{kind.lower()}"


@pytest.mark.parametrize(
    "data", [b"", b"<svg xmlns='http://www.w3.org/2000/svg'/>", b"GIF89a" + b"0" * 40, b"%PDF-1.7", pictured("BMP")]
)
def test_what_is_no_picture_is_refused(data: bytes) -> None:
    with pytest.raises(FileRefused):
        picture_kind(data)


def test_rows_are_taken_in_the_way_they_were_mapped(tree: dict[str, Any]) -> None:
    design = validate(tree)
    text = b"a,b,c\nX1,44.6,3.1\n"
    assert read_shelf(text, design, {"a": "serial", "b": "open_circuit_v", "c": "resistance_mohm"},
    "flagstone").rows[0].becomes == {
        "serial": "X1", "open_circuit_v": 44.6, "resistance_mohm": 3.1, "kind": "flagstone",
    }  # fmt: skip
    left_out = read_shelf(text, design, {"a": "serial", "b": "", "c": ""}, "flagstone").rows[0].becomes
    assert left_out == {"serial": "X1", "kind": "flagstone"}
