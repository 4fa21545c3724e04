"""Triangle meshes from scanners and drawing programs: STL, OBJ, PLY, GLB; binary and text.

What a file is, its first bytes say, not its name. Nothing is guessed: a format without a unit is asked for one.
"""

import io
import json
import re
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, Literal

import numpy as np

from levelcradle.core.axes import Matrix, Vec
from levelcradle.core.meshes import Mesh, simplified
from levelcradle.exchange.errors import FileRefused

__all__ = [
    "LARGEST_BYTES",
    "MOST_TRIANGLES",
    "UNITS_MM",
    "LengthUnit",
    "Scan",
    "mesh_from_bytes",
    "mesh_to_bytes",
    "read_scan",
]

LARGEST_BYTES = 50_000_000
MOST_TRIANGLES = 1_000_000
MOST_KEPT = 400_000  # a surface kept finer than this answers too slowly while something is dragged
LengthUnit = Literal["mm", "cm", "m", "in", "ft"]
UNITS_MM: dict[str, float] = {"mm": 1.0, "cm": 10.0, "m": 1000.0, "in": 25.4, "ft": 304.8}
Progress = Callable[[float, str], None]


@dataclass(frozen=True, slots=True)
class Scan:
    """A scan as it is kept: its mesh in millimetres, how many triangles it had, and what was found about it."""

    mesh: Mesh
    triangles_before: int
    size_mm: Vec
    tolerance_mm: float
    notes: tuple[str, ...]


def read_scan(
    data: bytes, unit: LengthUnit | None, tolerance_mm: float, progress: Progress = lambda share, message: None
) -> Scan:
    """A mesh file made small to a tolerance. Raises FileRefused with the reason.

    Args:
        unit: of the file's figures; None only for GLB, which is in metres by its own standard.
        tolerance_mm: how far the kept surface may stand off the scan's.
    """
    kind = _kind(data)
    if unit is None and kind != "glb":
        raise FileRefused("The file does not say its unit. Say whether it is in mm, cm, m, inches or feet.")
    progress(0.05, "reading the triangles")
    vertices, triangles = _loaded(data, kind)
    vertices = vertices * UNITS_MM[unit or "m"]
    notes = [f"read as {kind.upper()}"]
    progress(0.45, f"joining the corners of {len(triangles):,} triangles")
    vertices, triangles = _joined(vertices, triangles)
    flat = _with_area(vertices, triangles)
    if not flat.all():
        notes.append(f"{int((~flat).sum()):,} triangles without area left out")
    triangles = triangles[flat]
    if len(triangles) == 0:
        raise FileRefused("None of its triangles has an area.")
    closed, open_edges = _closed(triangles)
    mesh = Mesh(vertices, triangles, closed)
    notes += _told(mesh, open_edges)
    if closed and mesh.volume_mm3 < 0:
        mesh = Mesh(vertices, triangles[:, ::-1].copy(), closed)
    progress(0.75, f"simplifying to {tolerance_mm:g} mm")
    small = simplified(mesh, tolerance_mm)
    if len(small.triangles) == 0:
        raise FileRefused(f"Nothing of it is larger than the tolerance of {tolerance_mm:g} mm. Is the unit right?")
    if len(small.triangles) > MOST_KEPT:
        raise FileRefused(
            f"{len(small.triangles):,} triangles are left at {tolerance_mm:g} mm; {_would_do(mesh, tolerance_mm):g} "
            f"mm would do."
        )
    size = vertices.max(axis=0) - vertices.min(axis=0)
    progress(0.95, "keeping it")
    return Scan(small, len(triangles), (float(size[0]), float(size[1]), float(size[2])), tolerance_mm, tuple(notes))


def _would_do(mesh: Mesh, tolerance_mm: float) -> float:
    """The next round tolerance at which few enough triangles are left."""
    wider = next(
        t
        for t in (1, 2, 5, 10, 20, 50, 100, 1e9)
        if t > tolerance_mm and len(simplified(mesh, t).triangles) <= MOST_KEPT
    )
    return float(wider)


def _kind(data: bytes) -> str:
    """stl, obj, ply or glb, by content. Raises FileRefused."""
    if not data.strip():
        raise FileRefused("The file is empty.")
    if len(data) > LARGEST_BYTES:
        raise FileRefused("The file is larger than 50 MB.")
    head = data[:4096].lstrip()
    if data[:2] == b"PK" or data[:2] == b"\x1f\x8b" or data[:6] == b"7z\xbc\xaf\x27\x1c":
        raise FileRefused("The file is packed (zip, gz or 7z). Unpack it first.")
    if data[:4] == b"glTF":
        return "glb"
    if head.startswith(b"ply"):
        return "ply"
    if _binary_stl(data):
        return "stl"
    if head[:5].lower() == b"solid" and b"facet" in data[:100_000]:
        return "stl"
    if re.search(rb"(?m)^\s*v\s+[-+.\d]", data[:200_000]) and b"\0" not in head:
        return "obj"
    if len(data) >= 84 and b"\0" in head:
        raise FileRefused("The file breaks off: it holds fewer triangles than it says, or is no STL, OBJ, PLY or GLB.")
    raise FileRefused("This is no STL, OBJ, PLY or GLB mesh.")


def _binary_stl(data: bytes) -> int:
    """How many triangles a binary STL says it holds and has room for; 0 for anything else."""
    count = int.from_bytes(data[80:84], "little") if len(data) >= 84 else 0
    return count if 84 + 50 * count <= len(data) else 0


def _loaded(data: bytes, kind: str) -> tuple[Matrix, Any]:
    """(n, 3) vertices and (m, 3) triangles in the file's own unit. Raises FileRefused."""
    import trimesh  # loaded only where used: it takes a second

    if kind == "stl" and _binary_stl(data) > MOST_TRIANGLES:
        raise FileRefused(f"It holds more than {MOST_TRIANGLES:,} triangles.")
    if kind == "glb" and _instanced(data) > MOST_TRIANGLES:
        raise FileRefused(f"Its instances unfold to more than {MOST_TRIANGLES:,} triangles.")
    more: dict[str, Any] = {"skip_materials": True} if kind == "obj" else {}
    try:
        found = trimesh.load_scene(io.BytesIO(data), file_type=kind, process=False, **more).to_mesh()
        vertices, triangles = np.asarray(found.vertices, dtype=float), np.asarray(found.faces, dtype=np.int64)
    except MemoryError:
        raise FileRefused("The file asks for more memory than there is.") from None
    except Exception as error:  # the reader raises whatever a broken file makes it stumble over
        raise FileRefused(f"The {kind.upper()} file cannot be read: it breaks off or is damaged.") from error
    if len(triangles) == 0:
        raise FileRefused("The file holds no triangles.")
    if len(triangles) > MOST_TRIANGLES:
        raise FileRefused(f"It holds {len(triangles):,} triangles; {MOST_TRIANGLES:,} are the most.")
    if triangles.min() < 0 or triangles.max() >= len(vertices):
        raise FileRefused("A triangle names a corner that is not there: the file breaks off or is damaged.")
    used = vertices[np.unique(triangles)]
    if not np.isfinite(used).all():
        raise FileRefused("A corner of it is no number (NaN or infinite).")
    if np.abs(used).max() > 1e7:
        raise FileRefused("Its figures are larger than any vehicle. Is it this file?")
    return vertices, triangles


def _instanced(data: bytes) -> int:
    """How many triangles a GLB unfolds to, its meshes counted as often as its nodes name them, without unfolding any.

    Source: glTF 2.0, chunk layout and node tree, from memory. Raises FileRefused.
    """
    try:
        length = int.from_bytes(data[12:16], "little")
        tree = json.loads(data[20 : 20 + length])
        accessors, meshes, nodes = (tree.get(name, []) for name in ("accessors", "meshes", "nodes"))

        def triangles(mesh: dict[str, Any]) -> int:
            named = [p.get("indices", p.get("attributes", {}).get("POSITION")) for p in mesh.get("primitives", [])]
            return sum(int(accessors[n]["count"]) // 3 for n in named if n is not None)

        each = [triangles(mesh) for mesh in meshes]
        counts: dict[int, int] = {}

        def under(node: int, open_: frozenset[int]) -> int:
            if node in open_:
                raise FileRefused("A node of the GLB file holds itself.")
            if node not in counts:
                row = nodes[node]
                own = each[row["mesh"]] if "mesh" in row else 0
                copies = _copies(row, accessors)
                counts[node] = own * copies + sum(under(child, open_ | {node}) for child in row.get("children", []))
            return counts[node]

        scenes = tree.get("scenes", [])
        roots = [n for scene in scenes for n in scene.get("nodes", [])] or list(range(len(nodes)))
        return sum(under(n, frozenset()) for n in roots)
    except (ValueError, KeyError, IndexError, TypeError, AttributeError, RecursionError) as error:
        raise FileRefused("The GLB file cannot be read: it breaks off or is damaged.") from error


def _copies(node: dict[str, Any], accessors: list[dict[str, Any]]) -> int:
    """How often a node's mesh is drawn where it is instanced by attributes."""
    attributes = node.get("extensions", {}).get("EXT_mesh_gpu_instancing", {}).get("attributes", {})
    return max([int(accessors[n]["count"]) for n in attributes.values()], default=1)


def _joined(vertices: Matrix, triangles: Any) -> tuple[Matrix, Any]:
    """Corners at the same place, to a thousandth, become one, and those no triangle uses are left out. The corners
    given are written over: of a million triangles a copy is 70 MB."""
    import trimesh

    low = vertices.min(axis=0)
    vertices -= low
    mesh = trimesh.Trimesh(vertices, triangles, process=False)
    mesh.merge_vertices(merge_tex=True, merge_norm=True, digits_vertex=3)
    mesh.remove_unreferenced_vertices()
    return np.asarray(mesh.vertices) + low, np.asarray(mesh.faces)


def _with_area(vertices: Matrix, triangles: Any) -> Any:
    a, b, c = (vertices[triangles[:, i]] for i in range(3))
    return np.linalg.norm(np.cross(b - a, c - a), axis=1) > 1e-9


def _closed(triangles: Any) -> tuple[bool, int]:
    """Whether every edge joins triangles in pairs, and how many edges do not. trimesh would call a mesh open where two
    closed bodies touch along an edge, with four triangles there."""
    edges = np.sort(triangles[:, [0, 1, 1, 2, 2, 0]].reshape(-1, 2), axis=1)
    keys = edges[:, 0] * (triangles.max() + 1) + edges[:, 1]
    _, counts = np.unique(keys, return_counts=True)
    odd = int((counts % 2 == 1).sum())
    return odd == 0, odd


def _told(mesh: Mesh, open_edges: int) -> list[str]:
    if open_edges:
        return [f"open: {open_edges:,} edges end in nothing, so it counts as a skin without an inside"]
    return ["closed" + (", inside out: turned" if mesh.volume_mm3 < 0 else "")]


def mesh_to_bytes(mesh: Mesh) -> bytes:
    """A mesh as it is kept: numpy's own packed file."""
    out = io.BytesIO()
    np.savez_compressed(
        out,
        vertices=mesh.vertices.astype(np.float64),
        triangles=mesh.triangles.astype(np.int32),
        closed=np.array([mesh.closed]),
    )
    return out.getvalue()


def mesh_from_bytes(data: bytes) -> Mesh:
    with np.load(io.BytesIO(data), allow_pickle=False) as kept:
        return Mesh(kept["vertices"], kept["triangles"].astype(np.int64), bool(kept["closed"][0]))
