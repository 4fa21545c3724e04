"""Mesh files of every kind, good and broken: a right import or a clear sentence."""

import io
import zipfile

import numpy as np
import pytest
import trimesh

from levelcradle.core.design.solid import MeshSolid
from levelcradle.core.meshes import placed_mesh
from levelcradle.core.solids import block, nearest
from levelcradle.exchange import FileRefused, mesh_from_bytes, mesh_to_bytes, read_scan

BLOCK = trimesh.creation.box((0.4, 0.2, 0.1))  # metres
SIZE = (400.0, 200.0, 100.0)


def exported(kind: str, mesh: trimesh.Trimesh = BLOCK, **more: object) -> bytes:
    data = mesh.export(file_type=kind, **more)
    return data if isinstance(data, bytes) else str(data).encode()


FILES = {
    "binary STL": exported("stl"), "text STL": exported("stl_ascii"), "OBJ": exported("obj"), "GLB": exported("glb"),
    "binary PLY": exported("ply"), "text PLY": exported("ply", encoding="ascii"),
}  # fmt: skip


@pytest.mark.parametrize("kind", FILES)
def test_every_format_in_metres(kind: str) -> None:
    scan = read_scan(FILES[kind], None if kind == "GLB" else "m", 0.0)
    assert scan.size_mm == pytest.approx(SIZE, abs=0.01)
    assert scan.mesh.closed
    assert len(scan.mesh.vertices) == 8
    assert scan.mesh.volume_mm3 == pytest.approx(8e6, rel=1e-5)
    again = mesh_from_bytes(mesh_to_bytes(scan.mesh))
    assert np.array_equal(again.vertices, scan.mesh.vertices)


def test_the_unit_is_asked_and_counts() -> None:
    with pytest.raises(FileRefused, match="does not say its unit"):
        read_scan(FILES["OBJ"], None, 0.0)
    assert read_scan(FILES["OBJ"], "in", 0.0).size_mm == pytest.approx((0.4 * 25.4, 0.2 * 25.4, 0.1 * 25.4))


def test_inside_out_is_turned_and_open_is_a_skin() -> None:
    turned = BLOCK.copy()
    turned.invert()
    scan = read_scan(exported("ply", turned), "m", 0.0)
    assert "closed, inside out: turned" in scan.notes
    assert scan.mesh.volume_mm3 > 0
    gap = trimesh.Trimesh(BLOCK.vertices, BLOCK.faces[:-1], process=False)
    scan = read_scan(exported("ply", gap), "m", 0.0)
    assert not scan.mesh.closed
    assert any("counts as a skin" in note for note in scan.notes)


def _nan() -> bytes:
    vertices = np.array(BLOCK.vertices)
    lines = [f"v {x} {y} {z}" for x, y, z in vertices]
    lines[3] = "v nan 0 0"
    return "\n".join([*lines, *(f"f {a + 1} {b + 1} {c + 1}" for a, b, c in BLOCK.faces)]).encode()


def _zip() -> bytes:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr("scan.stl", b"\0" * 30_000_000)
    return out.getvalue()


BROKEN = {
    "empty": (b"", "empty"),
    "blank": (b" \n ", "empty"),
    "truncated binary STL": (FILES["binary STL"][:-70], "breaks off"),
    "truncated PLY": (FILES["binary PLY"][:-30], "cannot be read"),
    "truncated GLB": (FILES["GLB"][:-40], "cannot be read"),
    "GLB header alone": (b"glTF" + b"\xff" * 16, "cannot be read"),
    "packed": (_zip(), "packed"),
    "a picture named .stl": (b"\x89PNG\r\n\x1a\n" + b"\0" * 100, "breaks off|no STL"),
    "text": (b"hello, this is a letter", "no STL"),
    "NaN": (_nan(), "no number"),
    "OBJ without faces": (b"v 0 0 0\nv 1 0 0\nv 0 1 0\n", "no triangles|cannot be read"),
    "OBJ with a corner that is not there": (b"v 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 9\n", "not there|cannot be read"),
    "flat": (b"v 0 0 0\nv 1 0 0\nv 2 0 0\nf 1 2 3\n", "has an area"),
    "huge figures": (b"v 0 0 0\nv 1e12 0 0\nv 0 1e12 0\nf 1 2 3\n", "larger than any vehicle"),
    "smaller than its tolerance": (exported("obj", trimesh.creation.box((0.001, 0.001, 0.001))), "unit right"),
}  # fmt: skip


@pytest.mark.parametrize("what", BROKEN)
def test_what_is_broken_says_why(what: str) -> None:
    data, message = BROKEN[what]
    with pytest.raises(FileRefused, match=message):
        read_scan(data, None if what.startswith(("GLB", "truncated GLB")) else "mm", 2.0)


BALL = trimesh.creation.icosphere(subdivisions=5, radius=0.3)


@pytest.mark.parametrize("inside", [False, True])
@pytest.mark.parametrize("tolerance", [0.0, 3.0])
@pytest.mark.parametrize("far", [0.0, 150.0, 270.0, 285.0, 330.0, 500.0])
def test_gaps_to_a_scanned_ball_are_never_optimistic(inside: bool, tolerance: float, far: float) -> None:
    """A block of 10 mm about a spot: the true gap is known, inside and out."""
    scan = read_scan(exported("stl", BALL), "m", tolerance)
    ball = placed_mesh(MeshSolid(type="mesh", file="0" * 64, tolerance_mm=tolerance, inside=inside), scan.mesh)
    small = block((far - 5.0, -5.0, -5.0), (far + 5.0, 5.0, 5.0))
    corner = np.hypot(far + 5, np.hypot(5, 5))
    true = max(far - 5 - 300, 300 - corner)  # out of the ball, or within it
    metal = (far < 300) == inside
    gap = nearest(small, ball).gap_mm
    if metal:
        assert true - 2 * tolerance - 0.4 <= gap <= true + 1e-3
    else:
        assert gap < 0


@pytest.mark.parametrize("wall", [1.0, 4.0, 15.0])
@pytest.mark.parametrize("tolerance", [2.0, 5.0, 10.0])
def test_a_thin_shell_is_hollow_however_coarsely_it_is_kept(wall: float, tolerance: float) -> None:
    """Its two layers may fall together; what stands in the hollow is not in the metal, and never nearer than told."""
    outer = trimesh.creation.icosphere(subdivisions=5, radius=0.2)
    inner = trimesh.creation.icosphere(subdivisions=5, radius=0.2 - wall / 1000)
    inner.invert()
    scan = read_scan(exported("stl", trimesh.util.concatenate([outer, inner])), "m", tolerance)
    shell = placed_mesh(MeshSolid(type="mesh", file="0" * 64, tolerance_mm=tolerance), scan.mesh)
    for far in (0.0, 60.0, 120.0):
        small = block((far - 5.0, -5.0, -5.0), (far + 5.0, 5.0, 5.0))
        true = 200 - wall - np.hypot(far + 5, np.hypot(5, 5))
        gap = nearest(small, shell).gap_mm
        assert true - 2 * tolerance - 0.5 <= gap <= true + 1e-3
    outside = nearest(block((300.0, -5.0, -5.0), (310.0, 5.0, 5.0)), shell).gap_mm
    assert 100 - 2 * tolerance - 0.5 <= outside <= 100 + 1e-3
