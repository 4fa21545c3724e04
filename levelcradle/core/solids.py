"""Solids in vehicle axes: the only door to the geometry kernel.

A solid is a convex hull of points, a round rod, or the surface of a triangle mesh. Distances are exact for hulls
(coal, GJK) and to every triangle of a mesh; a rod's are never more than 0.005 mm too large. Everything that leaves here
is a plain float.
"""

import math
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, field
from functools import lru_cache
from typing import Any

import coal
import manifold3d
import numpy as np
import shapely
from numpy.typing import NDArray

from levelcradle.core.axes import Matrix, Placement, Vec, cross, dot, minus, plus, scaled, unit, vec

__all__ = [
    "Nearest",
    "Solid",
    "block",
    "block_projections",
    "bounds",
    "bounds_apart",
    "clipped",
    "convex_ring",
    "corner_points",
    "distances",
    "hull",
    "hull_corners",
    "joined",
    "line_spans",
    "mesh_kernel",
    "mesh_solid",
    "nearest",
    "planes_of",
    "point",
    "prism",
    "projections",
    "ray_hits",
    "rod",
    "surface_of",
    "touches",
]

_CORNERS = np.array([[x, y, z] for x in (0.0, 1.0) for y in (0.0, 1.0) for z in (0.0, 1.0)])
_WHICH = (3 * _CORNERS + (0, 1, 2)).astype(int)  # of six bounds those that are each corner's
FLAT_MM = TINY_MM = 1e-3
KERNEL_DIGITS = 4  # the kernel iterates to a millionth; a gap at its need must not miss it by that


@dataclass(frozen=True, eq=False, slots=True)
class Surface:
    """What makes a solid a mesh: its (m, 3) triangles, how far off its gaps may be, and on which side of it there is
    metal (``thing``: inside, ``space``: outside, "": it is a skin only).

    ``coarse`` is the same surface with fewer triangles, to be drawn.
    """

    triangles: NDArray[np.int64]
    slack_mm: float
    metal: str
    coarse: "Coarse"


@dataclass(frozen=True, eq=False, slots=True)
class Solid:
    """A convex solid, or a mesh where ``surface`` is given.

    Attributes:
        points: (n, 3) its corners; for a rod the two ends of its axis.
        radius_mm: of a rod; 0 for a hull.
        low, high: corners of its bounding box.
        upright: a hull that is exactly its bounding box.
    """

    points: Matrix
    radius_mm: float
    low: Vec
    high: Vec
    upright: bool
    _shape: list[Any] = field(default_factory=list, repr=False)
    surface: Surface | None = None

    def moved(self, placement: Placement) -> "Solid":
        if self.upright and _square(placement.turn):
            return block(*placement.points(np.array([self.low, self.high])).tolist())
        points = placement.points(self.points)
        if self.surface:
            return _moved_mesh(points, self.surface, placement)
        return _solid(points, self.radius_mm, upright=False)

    def outline(self, first: int, second: int) -> list[tuple[float, float]]:
        """Its shadow along the third axis: a convex polygon in the two given axes (0 aft, 1 right, 2 up)."""
        if self.radius_mm:
            return _rod_outline(self, first, second)
        if self.surface:
            return _mesh_outline(self, self.surface, first, second)
        if self.upright:
            (a0, b0), (a1, b1) = (self.low[first], self.low[second]), (self.high[first], self.high[second])
            return [(a0, b0), (a1, b0), (a1, b1), (a0, b1)]
        return convex_ring([(float(p[first]), float(p[second])) for p in self.points])


def _moved_mesh(points: Matrix, surface: Surface, placement: "Placement") -> Solid:
    vertices, triangles = surface.coarse
    moved = Surface(surface.triangles, surface.slack_mm, surface.metal, (placement.points(vertices), triangles))
    return Solid(points, 0.0, _floats(points.min(axis=0)), _floats(points.max(axis=0)), False, surface=moved)


def block(low: Vec, high: Vec) -> Solid:
    """An upright block between two opposite corners [mm].

    >>> block((0, 0, 0), (300, 200, 100)).high
    (300.0, 200.0, 100.0)
    """
    x0, y0, z0, x1, y1, z1 = map(float, (*low, *high))
    if x0 > x1 or y0 > y1 or z0 > z1:
        return block((min(x0, x1), min(y0, y1), min(z0, z1)), (max(x0, x1), max(y0, y1), max(z0, z1)))
    # its bounds are known, not looked for among the corners: a design makes thousands of blocks
    return Solid(np.array((x0, y0, z0, x1, y1, z1))[_WHICH], 0.0, (x0, y0, z0), (x1, y1, z1), True)


def point(at: Vec) -> Solid:
    """A place as a solid that distances are taken to."""
    x, y, z = at
    return block((x - TINY_MM, y - TINY_MM, z - TINY_MM), (x + TINY_MM, y + TINY_MM, z + TINY_MM))


def hull(points: Iterable[Vec]) -> Solid:
    """The convex hull of four or more points that do not lie in one plane; of the corners of an upright block, that.

    >>> hull([(x, y, z) for x in (0, 300) for y in (0, 200) for z in (0, 100)]).upright
    True
    """
    rows = list(points)
    if len(rows) == 8 and len(set(rows)) == 8 and all(len(set(values)) == 2 for values in zip(*rows, strict=True)):
        return block(rows[0], max(rows, key=lambda p: math.dist(p, rows[0])))
    return _solid(np.array(rows, dtype=float), 0.0, upright=False)


def prism(outline: Sequence[tuple[float, float]], low_up_mm: float, high_up_mm: float) -> Solid:
    """A convex plan outline (aft, right) between two heights."""
    return hull([(x, y, z) for z in (low_up_mm, high_up_mm) for x, y in outline])


def rod(start: Vec, end: Vec, radius_mm: float) -> Solid:
    """A round bar with flat ends."""
    return _solid(np.array([start, end], dtype=float), radius_mm, upright=False)


Coarse = tuple[Matrix, NDArray[np.int64]]


def mesh_solid(
    vertices: Matrix,
    triangles: NDArray[np.int64],
    *,
    slack_mm: float,
    closed: bool,
    inside: bool,
    coarse: Coarse | None = None,
    kernel: tuple[Any, Matrix, Matrix] | None = None,
) -> Solid:
    """The surface of a mesh. A closed one is a thing, or with ``inside`` the inside of a space; an open one only a
    skin.

    ``kernel``: its model in axes of its own, with the turn and shift that bring it to where the vertices are.
    """
    low, high = vertices.min(axis=0), vertices.max(axis=0)
    metal = "" if not closed else "space" if inside else "thing"
    surface = Surface(triangles, slack_mm, metal, coarse or (vertices, triangles))
    solid = Solid(vertices, 0.0, _floats(low), _floats(high), False, surface=surface)
    if kernel:
        solid._shape.append((kernel[0], coal.Transform3s(kernel[1], kernel[2])))
    return solid


def _solid(points: Matrix, radius_mm: float, *, upright: bool) -> Solid:
    x, y, z = points.T.tolist()  # of a handful of points Python finds the least and most sooner than numpy
    low, high = (min(x), min(y), min(z)), (max(x), max(y), max(z))
    if radius_mm:
        axis = (x[1] - x[0], y[1] - y[0], z[1] - z[0])
        squared = dot(axis, axis)
        reach = vec([radius_mm * math.sqrt(max(1 - a * a / squared, 0.0)) for a in axis])
        low, high = minus(low, reach), plus(high, reach)
    return Solid(points, radius_mm, low, high, upright)


def _floats(values: Matrix) -> Vec:
    return float(values[0]), float(values[1]), float(values[2])


@dataclass(frozen=True, slots=True)
class Nearest:
    """Two solids: the clear distance (negative: how deep they overlap) and a nearest point of each [mm]."""

    gap_mm: float
    here: Vec
    there: Vec


def bounds(solids: Iterable[Solid]) -> tuple[Matrix, Matrix]:
    """(n, 3) low and (n, 3) high corners of the bounding boxes; kept for the same solids, so not to be written into."""
    return _bounds(tuple(solids))


@lru_cache(maxsize=4096)
def _bounds(solids: tuple[Solid, ...]) -> tuple[Matrix, Matrix]:
    return np.array([s.low for s in solids]).reshape(-1, 3), np.array([s.high for s in solids]).reshape(-1, 3)


def bounds_apart(ours: Iterable[Solid], theirs: Iterable[Solid]) -> Matrix:
    """(n, m) distances between bounding boxes: never more than the true gaps, 0 where they meet."""
    (low, high), (other_low, other_high) = bounds(ours), bounds(theirs)
    between = np.maximum(other_low[None] - high[:, None], low[:, None] - other_high[None])
    return np.asarray(np.sqrt((np.maximum(between, 0.0) ** 2).sum(axis=2)))


def nearest(a: Solid, b: Solid) -> Nearest:
    """Gap between two convex solids with the nearest two points.

    Upright blocks are answered in closed form, all else by the kernel. Of an overlap the depth is the shortest
    way out, and the points are its two ends.

    >>> nearest(block((0, 0, 0), (10, 10, 10)), block((14, 13, 0), (20, 20, 10))).gap_mm
    5.0
    """
    if a.upright and b.upright:
        return _nearest_blocks(a, b)
    if b.surface:
        return _nearest_mesh(a, b, b.surface)
    if a.surface:
        return _swapped(_nearest_mesh(b, a, a.surface))
    return _measured(a, b)


def touches(a: Solid, b: Solid, deeper_than_mm: float) -> bool:
    """Whether two solids overlap by more than a length: the same as asking the depth, and of a mesh a hundred times
    sooner."""
    if a.upright and b.upright:  # asked thousands of times where something is moved: where is not asked
        return all(min(a.high[i] - b.low[i], b.high[i] - a.low[i]) > deeper_than_mm for i in range(3))
    mesh, other = (b, a) if b.surface else (a, b)
    if mesh.surface is None:
        return nearest(a, b).gap_mm < -deeper_than_mm
    margin = mesh.surface.slack_mm - deeper_than_mm
    if margin < 0:  # the kernel knows no negative margin
        return nearest(a, b).gap_mm < -deeper_than_mm
    return _comes_within(other, mesh, margin) or _in_its_metal(other, mesh, mesh.surface)


def _comes_within(a: Solid, b: Solid, margin_mm: float) -> bool:
    request = coal.CollisionRequest()
    request.security_margin, request.num_max_contacts, request.enable_contact = margin_mm, 1, False
    return bool(coal.collide(*_kernel(a), *_kernel(b), request, coal.CollisionResult()))


def _no_further_than(a: Solid, mesh: Solid) -> float:
    """A length that a mesh is not further off than. The kernel's search for the least distance goes through thousands
    of triangles unless it is told where to stop; whether something comes within a length it says at once."""
    far_mm = 0.1
    while far_mm < 1e5 and not _comes_within(a, mesh, far_mm):
        far_mm *= 4
    return far_mm * 1.01


def _measured(a: Solid, b: Solid, at_most_mm: float = math.inf) -> Nearest:
    request, result = coal.DistanceRequest(), coal.DistanceResult()
    request.enable_signed_distance = True
    if at_most_mm < math.inf:
        result.min_distance = at_most_mm
    gap = round(float(coal.distance(*_kernel(a), *_kernel(b), request, result)), KERNEL_DIGITS)
    if gap >= at_most_mm:  # it was told too little and found no points
        return _measured(a, b)
    return Nearest(gap, _floats(result.getNearestPoint1()), _floats(result.getNearestPoint2()))


def _swapped(near: Nearest) -> Nearest:
    return Nearest(near.gap_mm, near.there, near.here)


def _nearest_mesh(a: Solid, mesh: Solid, surface: Surface) -> Nearest:
    """Gap to a mesh, its slack taken off. On the metal side of a closed surface the gap is negative."""
    near = _measured(a, mesh, _no_further_than(a, mesh))
    if near.gap_mm > 0 and _in_its_metal(a, mesh, surface):
        return Nearest(-near.gap_mm - surface.slack_mm, near.here, near.there)
    return Nearest(near.gap_mm - surface.slack_mm, near.here, near.there)


def _in_its_metal(a: Solid, mesh: Solid, surface: Surface) -> bool:
    """Whether a solid that does not touch a closed surface lies on the side of it where there is metal."""
    middle = _floats(a.points.mean(axis=0))
    within = all(mesh.low[i] < middle[i] < mesh.high[i] for i in range(3)) and _winds_round(mesh, middle)
    return bool(surface.metal) and within == (surface.metal == "thing")


ASIDE_MM = (0.000713, 0.000397)  # a ray never runs along an edge that was drawn in round figures


def _winds_round(mesh: Solid, point: Vec) -> bool:
    """Whether a closed surface winds round a point: a ray up from it goes out through it more often than in, or the
    other way, as its faces look. Source: winding number by signed crossings of a ray (textbook)."""
    assert mesh.surface is not None
    low, high = _columns(mesh)
    x, y = point[0] + ASIDE_MM[0], point[1] + ASIDE_MM[1]
    near = np.flatnonzero((low[0] <= x) & (high[0] >= x) & (low[1] <= y) & (high[1] >= y) & (high[2] >= point[2]))
    corners = mesh.points[mesh.surface.triangles[near]] - (x, y, point[2])
    following, last = np.roll(corners, -1, axis=1), np.roll(corners, -2, axis=1)
    areas = following[..., 0] * last[..., 1] - following[..., 1] * last[..., 0]
    whole = areas.sum(axis=1)
    above = (areas * corners[..., 2]).sum(axis=1) * np.sign(whole) > 0
    hit = ((areas >= 0).all(axis=1) | (areas <= 0).all(axis=1)) & (whole != 0) & above
    return bool(np.sign(whole[hit]).sum() != 0)


@lru_cache(maxsize=16)
def _columns(mesh: Solid) -> tuple[Matrix, Matrix]:
    """(3, m) least and largest figures of each triangle of a mesh."""
    assert mesh.surface is not None
    corners = mesh.points[mesh.surface.triangles]
    return np.ascontiguousarray(corners.min(axis=1).T), np.ascontiguousarray(corners.max(axis=1).T)


def ray_hits(solid: Solid, start: Vec, way: Vec) -> float | None:
    """How far along a direction of length 1 a ray first meets a solid; None where it never does."""
    triangles = solid.points[solid.surface.triangles] if solid.surface else _faces(solid)
    return next((t for t in _line_hits(triangles, np.array(start), np.array(way)) if t > 1e-6), None)


def line_spans(solid: Solid, origin: Vec, way: Vec) -> list[tuple[float, float]]:
    """Where a line (``way`` of length 1) runs inside a solid, from and to, measured along it from the origin.

    Of an open skin each crossing is a span of no length; of what is metal outside a surface, both ends run out without
    end."""
    if solid.upright:
        return _through_block(solid, origin, way)
    ts = _line_hits(
        solid.points[solid.surface.triangles] if solid.surface else _faces(solid), np.array(origin), np.array(way)
    )
    if not ts:
        return []
    if solid.surface is None:
        return [(ts[0], ts[-1])] if ts[-1] - ts[0] > 1e-9 else []
    if solid.surface.metal == "":
        return [(t, t) for t in ts]
    ends = [-math.inf, *ts, math.inf] if solid.surface.metal == "space" else ts
    return [(a, b) for a, b in zip(ends[::2], ends[1::2], strict=False)]


def _through_block(solid: Solid, origin: Vec, way: Vec) -> list[tuple[float, float]]:
    low, high = -math.inf, math.inf
    for i in range(3):
        if abs(way[i]) < 1e-12:
            if not solid.low[i] <= origin[i] <= solid.high[i]:
                return []
            continue
        a, b = sorted(((solid.low[i] - origin[i]) / way[i], (solid.high[i] - origin[i]) / way[i]))
        low, high = max(low, a), min(high, b)
    return [(low, high)] if low < high else []


def _line_hits(triangles: Matrix, origin: Matrix, way: Matrix) -> list[float]:
    """Where a line crosses triangles, each place once. Source: Möller and Trumbore, 1997, from memory."""
    edge, other = triangles[:, 1] - triangles[:, 0], triangles[:, 2] - triangles[:, 0]
    across = np.cross(way, other)
    det = np.einsum("ij,ij->i", edge, across)
    with np.errstate(divide="ignore", invalid="ignore", over="ignore"):
        arm = origin - triangles[:, 0]
        u = np.einsum("ij,ij->i", arm, across) / det
        q = np.cross(arm, edge)
        v = q @ way / det
        t = np.einsum("ij,ij->i", other, q) / det
        hit = (np.abs(det) > 1e-12) & (u >= -1e-9) & (v >= -1e-9) & (u + v <= 1 + 1e-9)
    return sorted({round(float(x), 6) for x in t[hit]})


def surface_of(solid: Solid) -> tuple[Matrix, NDArray[np.int64]]:
    """(n, 3) points and (m, 3) triangles of a solid's outside; a rod as a bar of 24 sides."""
    if solid.surface:
        return solid.points, solid.surface.triangles
    points = solid.points
    if solid.radius_mm:
        points = np.array(_rod_rims(solid)[0] + _rod_rims(solid)[1])
    mesh = manifold3d.Manifold.hull_points(points).to_mesh64()
    return np.asarray(mesh.vert_properties, dtype=float)[:, :3], np.asarray(mesh.tri_verts, dtype=np.int64)


Plate = tuple[shapely.Polygon, float, Placement]
SLIVER_MM = 0.02  # what joining leaves thinner than this has no direction of its own


def joined(solids: Iterable[Solid], plates: Iterable[Plate] = ()) -> tuple[Matrix, NDArray[np.int64]]:
    """(n, 3) points and (m, 3) triangles of the outside of solids and plates together, without what lies between them.

    A plate is an outline with its holes, pushed up by a thickness in the frame of its placement.
    """
    bodies = [manifold3d.Manifold.hull_points(surface_of(solid)[0]) for solid in solids]
    bodies += [_plate_body(*plate) for plate in plates]
    together = bodies[0] if len(bodies) == 1 else manifold3d.Manifold.batch_boolean(bodies, manifold3d.OpType.Add)
    mesh = together.simplify(SLIVER_MM).to_mesh64()
    return np.asarray(mesh.vert_properties, dtype=float)[:, :3], np.asarray(mesh.tri_verts, dtype=np.int64)


def _plate_body(outline: shapely.Polygon, thickness_mm: float, placement: Placement) -> Any:
    rings = [list(ring.coords)[:-1] for ring in (outline.exterior, *outline.interiors)]
    flat = manifold3d.CrossSection(rings, manifold3d.FillRule.EvenOdd)
    frame = np.column_stack((placement.turn, placement.origin))
    return manifold3d.Manifold.extrude(flat, thickness_mm).transform(frame)


def hull_corners(solid: Solid) -> list[Vec]:
    """Corners of the convex hull of a solid; of one that is flat, of the upright block round it."""
    if _is_flat(solid.points):
        return [_floats(np.array(solid.low) + c * (np.array(solid.high) - solid.low)) for c in _CORNERS]
    mesh = manifold3d.Manifold.hull_points(np.asarray(solid.points, dtype=float)).to_mesh64()
    return [_floats(p) for p in np.asarray(mesh.vert_properties, dtype=float)[:, :3]]


def corner_points(solids: Iterable[Solid]) -> Matrix:
    """(n, 3) corners of solids; of a rod those of the upright block round it."""
    rows = list(solids)
    rods = [np.array(s.low) + _CORNERS * (np.array(s.high) - s.low) for s in rows if s.radius_mm]
    return np.concatenate([*(s.points for s in rows if not s.radius_mm), *rods])


def clipped(solid: Solid, normal: Vec, reach_mm: float) -> Solid | None:
    """The part of a convex solid where ``normal`` · p is at most ``reach_mm``; None where there is none."""
    over = solid.points @ np.array(normal) - reach_mm
    if (over <= 1e-9).all():
        return solid
    if (over >= -1e-9).all():
        return None
    mesh = manifold3d.Manifold.hull_points(np.asarray(solid.points, dtype=float)).trim_by_plane(
        tuple(-v for v in normal), -reach_mm
    )
    points = np.asarray(mesh.to_mesh64().vert_properties, dtype=float)[:, :3]
    return hull([_floats(p) for p in points]) if len(points) > 3 else None


def _faces(solid: Solid) -> Matrix:
    """(m, 3, 3) triangles round a convex solid."""
    points, triangles = surface_of(solid)
    return np.asarray(points[triangles])


def planes_of(solid: Solid) -> Matrix:
    """(k, 4) planes of a convex solid: n of length 1 and d, inside is n · p <= d."""
    triangles = _faces(solid)
    normals = np.cross(triangles[:, 1] - triangles[:, 0], triangles[:, 2] - triangles[:, 0])
    size = np.linalg.norm(normals, axis=1, keepdims=True)
    normals, triangles = (normals / np.maximum(size, 1e-12))[size[:, 0] > 1e-9], triangles[size[:, 0] > 1e-9]
    reach = np.einsum("ij,ij->i", normals, triangles[:, 0])
    return np.unique(np.column_stack((normals, reach)).round(6), axis=0)


def distances(solid: Solid, xs: Matrix, ys: Matrix, zs: Matrix, within_mm: float) -> Matrix:
    """(a, b, c) distances from the points of a grid to a solid, 0 inside it; those beyond ``within_mm`` may be given as
    less, never as less than ``within_mm``. To a mesh they are off by no more than the grid's own step."""
    if solid.surface:
        return _mesh_distances(solid, solid.surface, xs, ys, zs, within_mm)
    if solid.upright or _fills_its_bounds(solid):
        apart = [
            np.maximum(np.maximum(solid.low[i] - v, v - solid.high[i]), 0.0) ** 2 for i, v in enumerate((xs, ys, zs))
        ]
        return np.asarray(np.sqrt(apart[0][:, None, None] + apart[1][None, :, None] + apart[2][None, None, :]))
    if solid.radius_mm:
        return _rod_distances(solid, xs, ys, zs)
    return _hull_distances(solid, xs, ys, zs, within_mm)


def _fills_its_bounds(solid: Solid) -> bool:
    """Whether a hull is a block after all, as the panels of a square bay are."""
    ends = np.isclose(solid.points, solid.low) | np.isclose(solid.points, solid.high)
    return not solid.radius_mm and bool(ends.all()) and len(np.unique(solid.points.round(6), axis=0)) == 8


def _rod_distances(solid: Solid, xs: Matrix, ys: Matrix, zs: Matrix) -> Matrix:
    start, end = solid.points
    length = float(np.linalg.norm(end - start))
    way = (end - start) / length
    x, y, z = xs[:, None, None] - start[0], ys[None, :, None] - start[1], zs[None, None, :] - start[2]
    along = x * way[0] + y * way[1] + z * way[2]
    off = np.sqrt(np.maximum(x**2 + y**2 + z**2 - along**2, 0.0))
    beyond = np.maximum(np.maximum(-along, along - length), 0.0)
    return np.asarray(np.hypot(beyond, np.maximum(off - solid.radius_mm, 0.0)))


def _hull_distances(solid: Solid, xs: Matrix, ys: Matrix, zs: Matrix, within_mm: float) -> Matrix:
    """The largest distance to a plane of the hull is the distance beside a face and less than it off edges and corners:
    there it is measured to the triangles."""
    triangles, planes = _faces(solid), planes_of(solid)
    least = np.full((len(xs), len(ys), len(zs)), -np.inf)
    for a, b, c, d in planes:
        np.maximum(least, (a * xs - d)[:, None, None] + (b * ys)[None, :, None] + (c * zs)[None, None, :], out=least)
    least = np.maximum(least, 0.0)
    i, j, k = np.nonzero((least > 0) & (least < within_mm))
    points = np.column_stack((xs[i], ys[j], zs[k]))
    off = _off_the_faces(points, planes)
    i, j, k = i[off], j[off], k[off]
    least[i, j, k] = np.maximum(least[i, j, k], _to_triangles(points[off], triangles))
    return np.asarray(least)


def _off_the_faces(points: Matrix, planes: Matrix) -> NDArray[np.bool_]:
    """(n,) which points outside a hull do not look straight at the face whose plane is furthest from them."""
    beyond = points @ planes[:, :3].T - planes[:, 3]
    furthest = beyond.argmax(axis=1)
    foot = points - beyond.max(axis=1)[:, None] * planes[furthest, :3]
    return np.asarray((foot @ planes[:, :3].T - planes[:, 3]).max(axis=1) > 1e-6)


def _to_triangles(points: Matrix, triangles: Matrix) -> Matrix:
    """(n,) distances from points outside a surface to the nearest of its triangles."""
    best = np.full(len(points), np.inf)
    for a, b, c in triangles:
        ab, ac, normal = b - a, c - a, np.cross(b - a, c - a)
        size = float(normal @ normal)
        if size < 1e-12:
            continue
        arm = points - a
        u, v = np.cross(arm, ac) @ normal / size, np.cross(ab, arm) @ normal / size
        over = np.abs(arm @ normal) / math.sqrt(size)
        inside = (u >= 0) & (v >= 0) & (u + v <= 1)
        rim = np.minimum.reduce([_to_segment(points, p, q) for p, q in ((a, b), (b, c), (c, a))])
        best = np.minimum(best, np.where(inside, over, rim))
    return best


def _to_segment(points: Matrix, start: Matrix, end: Matrix) -> Matrix:
    way = end - start
    share = np.clip((points - start) @ way / float(way @ way), 0.0, 1.0)
    return np.asarray(np.linalg.norm(points - start - share[:, None] * way, axis=1))


def _mesh_distances(solid: Solid, surface: Surface, xs: Matrix, ys: Matrix, zs: Matrix, within_mm: float) -> Matrix:
    """By the cells that the surface runs through; what a closed surface has metal on is filled."""
    from scipy import ndimage  # dear to import, and scans are rare

    step = float(xs[1] - xs[0]) if len(xs) > 1 else 1.0
    low = np.array((xs[0], ys[0], zs[0])) - step / 2
    border = math.ceil(within_mm / step) + 1
    shape = (len(xs) + 2 * border, len(ys) + 2 * border, len(zs) + 2 * border)
    cells = np.floor((_samples(solid.points[surface.triangles], step) - low) / step).astype(int) + border
    cells = cells[((cells >= 0) & (cells < shape)).all(axis=1)]
    on = np.zeros(shape, bool)
    on[tuple(cells.T)] = True
    away = ndimage.distance_transform_edt(~on) * step if on.any() else np.full(shape, np.inf)
    cut = (slice(border, -border),) * 3
    out = np.asarray(away[cut], dtype=float)
    if surface.metal:
        x, y, z = np.meshgrid(xs, ys, zs, indexing="ij")
        labels, count = ndimage.label(~on[cut])
        for label in range(1, count + 1):
            spot = np.argwhere(labels == label)[0]
            inside = _winds_round(solid, (float(x[tuple(spot)]), float(y[tuple(spot)]), float(z[tuple(spot)])))
            if inside == (surface.metal == "thing"):
                out[labels == label] = 0.0
    return out


def _samples(triangles: Matrix, step_mm: float) -> Matrix:
    """Points on triangles, no further apart than half a step: each triangle is halved along its longest side until it
    is small."""
    out = []
    while len(triangles):
        sides = np.linalg.norm(triangles - np.roll(triangles, -1, axis=1), axis=2)
        small = sides.max(axis=1) <= step_mm / 2
        out.append(triangles[small].reshape(-1, 3))
        rest, longest = triangles[~small], sides[~small].argmax(axis=1)
        rows = np.arange(len(rest))
        a, b, c = rest[rows, longest], rest[rows, (longest + 1) % 3], rest[rows, (longest + 2) % 3]
        middle = (a + b) / 2
        triangles = np.concatenate((np.stack((a, middle, c), axis=1), np.stack((middle, b, c), axis=1)))
    return np.concatenate(out)


def _nearest_blocks(a: Solid, b: Solid) -> Nearest:
    apart = [max(b.low[i] - a.high[i], a.low[i] - b.high[i]) for i in range(3)]
    here, there = [0.0] * 3, [0.0] * 3
    for i in range(3):
        if apart[i] > 0:
            here[i], there[i] = (a.high[i], b.low[i]) if b.low[i] > a.high[i] else (a.low[i], b.high[i])
        else:
            here[i] = there[i] = (max(a.low[i], b.low[i]) + min(a.high[i], b.high[i])) / 2
    if max(apart) > 0:
        return Nearest(math.sqrt(sum(max(d, 0.0) ** 2 for d in apart)), tuple(here), tuple(there))  # type: ignore[arg-type]
    way = apart.index(max(apart))  # the shallowest axis is the shortest way out
    here[way], there[way] = (
        (a.high[way], b.low[way]) if b.low[way] - a.high[way] == apart[way] else (a.low[way], b.high[way])
    )
    return Nearest(apart[way], tuple(here), tuple(there))  # type: ignore[arg-type]


def _kernel(solid: Solid) -> tuple[Any, Any]:
    """The kernel's shape and its transform, made once."""
    if not solid._shape:
        if solid.surface:
            solid._shape.append((mesh_kernel(solid.points, solid.surface.triangles), coal.Transform3s.Identity()))
        elif solid.radius_mm:
            solid._shape.append(_cylinder(solid))
        elif solid.upright or _is_flat(solid.points):
            solid._shape.append(_box(solid))
        else:
            points = coal.StdVec_Vec3s()
            for point in solid.points:
                points.append(point)
            solid._shape.append((coal.Convex.convexHull(points, True, "Qt"), coal.Transform3s.Identity()))
    return solid._shape[0]  # type: ignore[no-any-return]


def _cylinder(solid: Solid) -> tuple[Any, Any]:
    start, end = (_floats(p) for p in solid.points)
    along = unit(minus(end, start))
    side = unit(cross(along, (0.0, 0.0, 1.0) if abs(along[2]) < 0.9 else (1.0, 0.0, 0.0)))
    turn = np.array([side, cross(along, side), along]).T
    shape = coal.Cylinder(solid.radius_mm, float(np.linalg.norm(solid.points[1] - solid.points[0])))
    return shape, coal.Transform3s(turn, solid.points.mean(axis=0))


def mesh_kernel(vertices: Matrix, triangles: NDArray[np.int64]) -> Any:
    """The kernel's model of a surface in the axes of its vertices: dear to make, moved for nothing."""
    model = coal.BVHModelOBBRSS()
    model.beginModel(len(triangles), len(vertices))
    model.addVertices(np.ascontiguousarray(vertices, dtype=float))
    model.addTriangles(np.ascontiguousarray(triangles, dtype=np.uint32))
    model.endModel()
    return model


def _box(solid: Solid) -> tuple[Any, Any]:
    size = (max(high - low, FLAT_MM) for low, high in zip(solid.low, solid.high, strict=True))
    return coal.Box(*size), coal.Transform3s(_UNTURNED, np.array(scaled(plus(solid.low, solid.high), 0.5)))


_UNTURNED = np.eye(3)


def _is_flat(points: Matrix) -> bool:
    """Thinner than a thousandth some way: the kernel's hull would bring the process down. Such a thing is taken as the
    upright block round it, never less than itself."""
    return float(np.linalg.svd(points - points.mean(axis=0), compute_uv=False)[-1]) < FLAT_MM


Polygon = tuple[tuple[float, float], ...]


def block_projections(lows: Matrix, highs: Matrix, placement: Placement) -> Iterator[tuple[Polygon, Polygon, float]]:
    """(plan, side, highest point) of many blocks at once, given by their (n, 3) corners in one frame.

    The same as ``projections`` of each block moved; a design holds hundreds of modules.
    """
    if _square(placement.turn):
        corners = lows[:, None] + _CORNERS * (highs - lows)[:, None]
        points = (corners @ placement.turn.T + np.array(placement.origin)).round(3)
        for (x0, y0, z0), (x1, y1, z1) in zip(points.min(axis=1).tolist(), points.max(axis=1).tolist(), strict=True):
            yield ((x0, y0), (x1, y0), (x1, y1), (x0, y1)), ((x0, z0), (x1, z0), (x1, z1), (x0, z1)), z1
        return
    alike: dict[tuple[float, ...], list[int]] = {}  # those of one size differ in their place alone
    for n, size in enumerate((highs - lows).round(6).tolist()):
        alike.setdefault(tuple(size), []).append(n)
    places, out = placement.points(lows), dict[int, tuple[Polygon, Polygon, float]]()
    for key, rows in alike.items():
        eight = (_CORNERS * key @ placement.turn.T).tolist()
        at, tops = places[rows], (places[rows][:, 2] + max(p[2] for p in eight)).round(3).tolist()
        rings = (np.array(convex_ring([(p[0], p[i]) for p in eight])) + at[:, None, [0, i]] for i in (1, 2))
        plans, sides = ([tuple([(x, y) for x, y in ring]) for ring in found.round(3).tolist()] for found in rings)
        out.update(zip(rows, zip(plans, sides, tops, strict=True), strict=True))
    yield from (out[n] for n in range(len(lows)))


def _square(turn: Matrix) -> bool:
    """Whether a turn is made of quarter turns, so that an upright block stays upright."""
    return all(abs(v) < 1e-12 or abs(v) > 1 - 1e-12 for row in turn.tolist() for v in row)


def projections(solid: Solid) -> tuple[Polygon, Polygon]:
    """Outlines in plan (aft, right) and from the side (aft, up), to a thousandth."""
    plan, side = (tuple([(round(a, 3), round(b, 3)) for a, b in solid.outline(0, other)]) for other in (1, 2))
    return plan, side


def convex_ring(points: Sequence[tuple[float, float]]) -> list[tuple[float, float]]:
    """Corners of the convex hull, counter-clockwise (monotone chain). Of points nearer together than a millionth one is
    taken: else the order of two that stand over each other would be noise, and a corner lost. shapely takes four times
    as long for eight points.

    >>> convex_ring([(0, 0), (2, 0), (1, 1), (2, 2), (0, 2)])
    [(0, 0), (2, 0), (2, 2), (0, 2)]
    """
    rows = sorted({(round(x, 6), round(y, 6)) for x, y in points})
    if len(rows) < 3:
        return rows

    def half(run: Iterable[tuple[float, float]]) -> list[tuple[float, float]]:
        out: list[tuple[float, float]] = []
        for p in run:
            while len(out) > 1 and _turn(out[-2], out[-1], p) <= 1e-9:
                out.pop()
            out.append(p)
        return out[:-1]

    return half(rows) + half(reversed(rows))


def _turn(a: tuple[float, float], b: tuple[float, float], c: tuple[float, float]) -> float:
    return (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])


@lru_cache(maxsize=1)
def _ring() -> tuple[tuple[float, float], ...]:
    return tuple((math.cos(k * math.tau / 24), math.sin(k * math.tau / 24)) for k in range(24))


def _rod_outline(solid: Solid, first: int, second: int) -> list[tuple[float, float]]:
    start, end = (_floats(p) for p in solid.points)
    along = unit(minus(end, start))
    if abs(along[3 - first - second]) > 1 - 1e-9:  # seen end-on
        return [(start[first] + solid.radius_mm * c, start[second] + solid.radius_mm * s) for c, s in _ring()]
    if max(abs(v) for v in along) > 1 - 1e-9:  # seen square from the side
        (a0, b0), (a1, b1) = (solid.low[first], solid.low[second]), (solid.high[first], solid.high[second])
        return [(a0, b0), (a1, b0), (a1, b1), (a0, b1)]
    return convex_ring([(p[first], p[second]) for rim in _rod_rims(solid) for p in rim])


def _rod_rims(solid: Solid) -> tuple[list[Vec], list[Vec]]:
    """Points round both ends of a rod."""
    start, end = (_floats(p) for p in solid.points)
    along = unit(minus(end, start))
    side = unit(cross(along, (0.0, 0.0, 1.0) if abs(along[2]) < 0.9 else (1.0, 0.0, 0.0)))
    other, r = cross(along, side), solid.radius_mm

    def rim(p: Vec) -> list[Vec]:
        x, y, z = (tuple(p[i] + r * (c * side[i] + s * other[i]) for c, s in _ring()) for i in range(3))
        return list(zip(x, y, z, strict=True))

    return rim(start), rim(end)


DRAWN_CELLS = 80  # a scan's shadow is drawn to an eightieth of its size


def _mesh_outline(solid: Solid, surface: Surface, first: int, second: int) -> list[tuple[float, float]]:
    """The largest outline of a mesh's shadow, coarsely: only for drawing."""
    vertices, triangles = surface.coarse
    flat = vertices[:, [first, second]]
    cell = max(float((flat.max(axis=0) - flat.min(axis=0)).max()) / DRAWN_CELLS, 1e-6)
    snapped = np.round(flat / cell) * cell
    corners = np.unique(snapped[triangles].reshape(-1, 6).round(6), axis=0).reshape(-1, 3, 2)
    a, b = corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0]
    area = a[:, 0] * b[:, 1] - a[:, 1] * b[:, 0]
    seen = area > 0 if surface.metal else area != 0  # of a closed surface the near half casts the whole shadow
    found = shapely.unary_union(shapely.polygons(corners[seen]))
    parts = sorted(getattr(found, "geoms", [found]), key=lambda g: -g.area)
    if not parts or parts[0].is_empty:
        return convex_ring([(float(a), float(b)) for a, b in flat])
    return [(float(a), float(b)) for a, b in parts[0].simplify(cell / 2).exterior.coords[:-1]]
