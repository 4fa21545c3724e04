"""Scans: triangle meshes made small to a stated tolerance, and placed by points that are known on the vehicle."""

from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from levelcradle.core.axes import Matrix, Vec
from levelcradle.core.design import Design
from levelcradle.core.design.solid import MeshSolid
from levelcradle.core.errors import DesignError, Problem
from levelcradle.core.memo import Memo
from levelcradle.core.solids import Solid, mesh_kernel, mesh_solid

__all__ = ["Mesh", "Registration", "placed_mesh", "register_points", "scans_of", "simplified"]

Triangles = NDArray[np.int64]


@dataclass(frozen=True, eq=False, slots=True)
class Mesh:
    """A triangle mesh in its own axes [mm]: (n, 3) vertices and (m, 3) corners of its triangles.

    ``closed``: every edge joins two triangles, so it has an inside. Compared by identity: it is loaded once.
    """

    vertices: Matrix
    triangles: Triangles
    closed: bool

    @property
    def volume_mm3(self) -> float:
        """Of a closed mesh, by signed tetrahedra: negative where its faces look inward."""
        a, b, c = (self.vertices[self.triangles[:, i]] for i in range(3))
        return float(np.einsum("ij,ij->i", a, np.cross(b, c)).sum() / 6)


def simplified(mesh: Mesh, tolerance_mm: float) -> Mesh:
    """Vertices drawn together on a grid, so that no point of the surface moves by more than the tolerance.

    A cell's vertices move to their mean, which is never further than the cell's diagonal; the cell is chosen so that
    the diagonal is the tolerance. Triangles that fall together are left out. Source: vertex clustering (a vertex moves
    at most one cell diagonal, and a point of a triangle no more than its corners)."""
    if tolerance_mm <= 0:
        return mesh
    cell = tolerance_mm / np.sqrt(3.0)
    low = mesh.vertices.min(axis=0)
    keys = np.floor((mesh.vertices - low) / cell).astype(np.int64)
    reach = keys.max(axis=0) + 1
    flat = (keys[:, 0] * reach[1] + keys[:, 1]) * reach[2] + keys[:, 2]
    _, where, counts = np.unique(flat, return_inverse=True, return_counts=True)
    sums = np.stack([np.bincount(where, weights=mesh.vertices[:, i], minlength=len(counts)) for i in range(3)], axis=1)
    vertices = sums / counts[:, None]
    triangles = where[mesh.triangles]
    whole = (
        (triangles[:, 0] != triangles[:, 1])
        & (triangles[:, 1] != triangles[:, 2])
        & (triangles[:, 0] != triangles[:, 2])
    )
    return Mesh(vertices, _merged(triangles[whole]), mesh.closed)


def _merged(triangles: Triangles) -> Triangles:
    """Triangles that fell upon each other, each kind once, so that the surface winds round every point as often as
    before.

    Of those that look opposite ways as many cancel as can; where all do, one each way is left: the metal is still
    there."""
    low = triangles.argmin(axis=1)
    turned = np.take_along_axis(triangles, (low[:, None] + np.arange(3)) % 3, axis=1)
    forward = turned[:, 1] < turned[:, 2]
    kinds, kind = np.unique(np.sort(triangles, axis=1), axis=0, return_inverse=True)
    net = np.bincount(kind.ravel(), weights=np.where(forward, 1.0, -1.0), minlength=len(kinds)).astype(np.int64)
    ahead = np.where(net == 0, 1, np.maximum(net, 0))
    back = np.where(net == 0, 1, np.maximum(-net, 0))
    return np.concatenate([np.repeat(kinds, ahead, axis=0), np.repeat(kinds, back, axis=0)[:, [0, 2, 1]]])


@dataclass(frozen=True, eq=False, slots=True)
class Registration:
    """vehicle point = turn @ file point + shift, and how far each tie point misses [mm]."""

    turn: Matrix
    shift: Matrix
    misses_mm: tuple[float, ...]

    @property
    def residual_mm(self) -> float:
        """Root mean square of the misses."""
        return float(np.sqrt(np.mean(np.square(self.misses_mm)))) if self.misses_mm else 0.0


def register_points(file_mm: list[Vec], at_mm: list[Vec]) -> Registration:
    """The rigid move that brings points of a file nearest to where they are on the vehicle.

    Source: least squares (the Kabsch algorithm), without scaling or mirroring.
    Raises: DesignError for fewer than three points, or points in one line.
    """
    from scipy.spatial.transform import Rotation  # dear to import, and scans are rare

    here, there = np.array(file_mm, dtype=float).reshape(-1, 3), np.array(at_mm, dtype=float).reshape(-1, 3)
    if len(here) < 3 or _in_a_line(here) or _in_a_line(there):
        raise DesignError((Problem("", "needs three points or more that do not lie in one line"),))
    a, b = here.mean(axis=0), there.mean(axis=0)
    turn = np.asarray(Rotation.align_vectors(there - b, here - a)[0].as_matrix())
    shift = b - turn @ a
    misses = np.linalg.norm(here @ turn.T + shift - there, axis=1)
    return Registration(turn, shift, tuple(float(m) for m in misses))


def _in_a_line(points: Matrix) -> bool:
    return bool(np.linalg.svd(points - points.mean(axis=0), compute_uv=False)[1] < 1.0)


def scans_of(design: Design) -> set[str]:
    """The files of every scan a design speaks of."""
    specs = [thing.solid for things in (design.items, design.keepouts) for thing in things.values()]
    return {spec.file for spec in specs if isinstance(spec, MeshSolid)}


def placed_mesh(spec: MeshSolid, mesh: Mesh) -> Solid:
    """A scan in vehicle axes, its tolerance taken off every gap. Where no points tie it, its own axes are the
    vehicle's."""
    ties = tuple((t.file_mm, t.at_mm) for t in spec.ties.values())
    return _PLACED.get((mesh, ties, spec.tolerance_mm, spec.inside), lambda: _placed(spec, mesh))


COARSE_MM = 8.0  # no point of what is drawn is further off
_PLACED: Memo[Solid] = Memo(64)
_COARSE: Memo[Mesh] = Memo(16)
_KERNELS: Memo[Any] = Memo(16)


def _placed(spec: MeshSolid, mesh: Mesh) -> Solid:
    """Only what depends on its place is made anew when a tie point moves."""
    rough = _COARSE.get(mesh, lambda: simplified(mesh, COARSE_MM))
    model = _KERNELS.get(mesh, lambda: mesh_kernel(mesh.vertices, mesh.triangles))
    ties = list(spec.ties.values())
    fit = (
        register_points([t.file_mm for t in ties], [t.at_mm for t in ties])
        if ties
        else Registration(np.eye(3), np.zeros(3), ())
    )
    vertices, few = (v @ fit.turn.T + fit.shift for v in (mesh.vertices, rough.vertices))
    return mesh_solid(
        vertices,
        mesh.triangles,
        slack_mm=spec.tolerance_mm,
        closed=mesh.closed,
        inside=spec.inside,
        coarse=(few, rough.triangles),
        kernel=(model, fit.turn, fit.shift),
    )
