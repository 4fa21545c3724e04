"""Shapes as convex solids, and the space a moving thing sweeps.

A slide of a convex solid is exact: the hull of its two ends. A turn is cut into steps; each step is the hull of both
positions and of the points where the tangents of every corner's arc meet, so it holds the arc itself and stands off
the true sweep by at most ``BOUND_MM``. A round bar that turns is taken as the 24-sided bar round it.
"""

import math
from collections.abc import Iterable, Iterator, Sequence
from functools import lru_cache
from itertools import pairwise

import numpy as np
import shapely

from levelcradle.core.axes import Matrix, Vec, cross, dot, minus, plus, scaled, unit
from levelcradle.core.design.solid import (
    AxleTravel,
    BelowSolid,
    BlockSolid,
    Guard,
    Hinge,
    MeshSolid,
    PathSolid,
    PrismSolid,
    RodSolid,
    SolidSpec,
    Sweep,
    Travel,
    WheelTravel,
)
from levelcradle.core.solids import Solid, block, hull, hull_corners, prism, rod

__all__ = ["BOUND_MM", "pieces_of", "scan_swept", "turned_through"]

BOUND_MM = 1.0
SIDES = 24  # of the bar round a rod
BELOW_MM = 1000.0  # how far a space below a line goes down

Points = Sequence[Vec]


@lru_cache(maxsize=4096)
def pieces_of(spec: SolidSpec, sweep: Sweep | None = None) -> tuple[Solid, ...]:
    """The convex solids of a shape, swept through its movement if it has one. Cached by content; none for a mesh."""
    if isinstance(spec, MeshSolid):
        return ()
    if sweep is None:
        return tuple(_still(spec))
    if isinstance(sweep, Guard):
        return tuple(_guarded(spec, sweep.guard_mm))
    pieces = list(_corners(spec))
    middle = _middle([p for corners in pieces for p in corners])
    return tuple(hull(points) for corners in pieces for points in _moved(corners, sweep, middle))


def scan_swept(scan: Solid, sweep: Sweep, slack_mm: float) -> tuple[Solid, ...]:
    """The space a scanned thing sweeps: of its convex hull, larger all round by what the scan may be off. A scan is no
    sum of convex pieces, and the hull is never less than it."""
    by = slack_mm + (sweep.guard_mm if isinstance(sweep, Guard) else 0.0)
    grown = [
        plus(p, (a * by, b * by, c * by)) for p in hull_corners(scan) for a in (-1, 1) for b in (-1, 1) for c in (-1, 1)
    ]
    if isinstance(sweep, Guard):
        return (hull(grown),)
    corners = hull_corners(hull(grown))
    return tuple(hull(points) for points in _moved(corners, sweep, _middle(corners)))


def _middle(points: Points) -> Vec:
    """The middle of the upright block round points: of the whole thing, whatever pieces it is made of."""
    x, y, z = ((min(p[i] for p in points) + max(p[i] for p in points)) / 2 for i in range(3))
    return x, y, z


def _still(spec: SolidSpec) -> Iterator[Solid]:
    if isinstance(spec, BlockSolid):
        yield block(spec.low_mm, spec.high_mm)
    elif isinstance(spec, RodSolid):
        yield rod(spec.start_mm, spec.end_mm, spec.radius_mm)
    elif isinstance(spec, PrismSolid):
        yield from (prism(plan, spec.low_up_mm, spec.high_up_mm) for plan in _convex_plans(spec))
    else:
        yield from (hull(corners) for corners in _corners(spec))


def _corners(spec: SolidSpec) -> Iterator[list[Vec]]:
    """Each convex piece of a shape by its corners."""
    if isinstance(spec, BlockSolid):
        (x0, y0, z0), (x1, y1, z1) = spec.low_mm, spec.high_mm
        yield [(x, y, z) for x in (x0, x1) for y in (y0, y1) for z in (z0, z1)]
    elif isinstance(spec, RodSolid):
        yield _bar(spec)
    elif isinstance(spec, PrismSolid):
        for plan in _convex_plans(spec):
            yield [(x, y, z) for z in (spec.low_up_mm, spec.high_up_mm) for x, y in plan]
    elif isinstance(spec, PathSolid):
        yield from (_run(a, b, spec.width_mm, spec.height_mm) for a, b in pairwise(spec.points_mm))
    elif isinstance(spec, BelowSolid):
        half = spec.width_mm / 2
        for a, b in pairwise(spec.points_mm):
            side = _level_side(minus(b, a))
            yield [
                (p[0] + s * half * side[0], p[1] + s * half * side[1], p[2] - d)
                for p in (a, b)
                for s in (-1, 1)
                for d in (0, BELOW_MM)
            ]


def _convex_plans(spec: PrismSolid) -> list[list[tuple[float, float]]]:
    """The outline itself where it is convex, else the triangles it is made of."""
    ring = shapely.Polygon(spec.outline_mm)
    if ring.convex_hull.area - ring.area < 1e-6 * ring.area:
        return [list(spec.outline_mm)]
    return [
        [(float(x), float(y)) for x, y in part.exterior.coords[:3]]
        for part in shapely.constrained_delaunay_triangles(ring).geoms
    ]


def _bar(spec: RodSolid) -> list[Vec]:
    along = unit(minus(spec.end_mm, spec.start_mm))
    side = unit(cross(along, (0.0, 0.0, 1.0) if abs(along[2]) < 0.9 else (1.0, 0.0, 0.0)))
    other, reach = cross(along, side), spec.radius_mm / math.cos(math.pi / SIDES)
    ring = [(math.cos(k * math.tau / SIDES), math.sin(k * math.tau / SIDES)) for k in range(SIDES)]
    return [
        plus(end, plus(scaled(side, reach * c), scaled(other, reach * s)))
        for end in (spec.start_mm, spec.end_mm)
        for c, s in ring
    ]


def _level_side(way: Vec) -> Vec:
    """Level and square to a direction; to the right for one that goes straight up."""
    flat = math.hypot(way[0], way[1])
    return (-way[1] / flat, way[0] / flat, 0.0) if flat > 1e-9 else (0.0, 1.0, 0.0)


def _run(start: Vec, end: Vec, width_mm: float, height_mm: float) -> list[Vec]:
    """A straight piece of a corridor, carried on at both ends by half its larger side so that bends are filled."""
    along = unit(minus(end, start))
    side = _level_side(along)
    up = cross(along, side)
    more = scaled(along, max(width_mm, height_mm) / 2)
    ends = (minus(start, more), plus(end, more))
    return [
        plus(p, plus(scaled(side, s * width_mm / 2), scaled(up, t * height_mm / 2)))
        for p in ends
        for s in (-1, 1)
        for t in (-1, 1)
    ]


def _guarded(spec: SolidSpec, guard_mm: float) -> Iterator[Solid]:
    """Larger all round; at the corners by up to √3 times as much."""
    if isinstance(spec, RodSolid):
        along = scaled(unit(minus(spec.end_mm, spec.start_mm)), guard_mm)
        yield rod(minus(spec.start_mm, along), plus(spec.end_mm, along), spec.radius_mm + guard_mm)
    elif isinstance(spec, BlockSolid):
        by = (guard_mm, guard_mm, guard_mm)
        yield block(minus(spec.low_mm, by), plus(spec.high_mm, by))
    else:
        steps = [(a, b, c) for a in (-1, 1) for b in (-1, 1) for c in (-1, 1)]
        yield from (hull([plus(p, scaled(s, guard_mm)) for p in corners for s in steps]) for corners in _corners(spec))


def _moved(corners: Points, sweep: Sweep, middle: Vec) -> Iterator[list[Vec]]:
    """Convex pieces of what a piece passes through. ``middle``: of the whole thing, about which an axle rocks as
    one."""
    if isinstance(sweep, Travel):
        yield _slid(corners, sweep.from_by_mm, sweep.to_by_mm)
    elif isinstance(sweep, Hinge):
        yield from turned_through(corners, sweep.about_mm, unit(sweep.axis), sweep.from_deg, sweep.to_deg)
    elif isinstance(sweep, WheelTravel):
        steered: Iterable[list[Vec]] = [list(corners)]
        if sweep.lock_deg and sweep.pivot_mm:
            steered = turned_through(corners, sweep.pivot_mm, (0.0, 0.0, 1.0), -sweep.lock_deg, sweep.lock_deg)
        yield from (_slid(step, (0.0, 0.0, -sweep.droop_mm), (0.0, 0.0, sweep.bump_mm)) for step in steered)
    elif isinstance(sweep, AxleTravel):
        turn = sweep.articulation_deg
        rocked = turned_through(corners, middle, (1.0, 0.0, 0.0), -turn, turn) if turn else [list(corners)]
        yield from (_slid(step, (0.0, 0.0, -sweep.droop_mm), (0.0, 0.0, sweep.bump_mm)) for step in rocked)


def _slid(corners: Points, start: Vec, end: Vec) -> list[Vec]:
    return [plus(p, by) for by in (start, end) for p in corners]


def turned_through(corners: Points, about: Vec, axis: Vec, from_deg: float, to_deg: float) -> Iterator[list[Vec]]:
    """Steps of a turn, each with the tangent points of every corner's arc."""
    arms = [minus(p, about) for p in corners]
    reach = max(math.sqrt(max(dot(a, a) - dot(a, axis) ** 2, 0.0)) for a in arms)
    span = math.radians(to_deg - from_deg)
    # r (1 / cos(d/2) − cos(d/2)) is about r d² / 4
    steps = max(1, math.ceil(abs(span) / min(2 * math.sqrt(BOUND_MM / max(reach, BOUND_MM)) * 0.99, math.radians(30))))
    local = np.array(arms)
    along = np.outer(local @ np.array(axis), axis)
    for k in range(steps):
        a, b = (math.radians(from_deg) + span * n / steps for n in (k, k + 1))
        middle = along + (local - along) / math.cos((b - a) / 2)
        found = [_about(local, axis, a), _about(local, axis, b), _about(middle, axis, (a + b) / 2)]
        yield [plus(about, (float(x), float(y), float(z))) for rows in found for x, y, z in rows]


def _about(points: Matrix, axis: Vec, angle: float) -> Matrix:
    """Points turned about an axis through the origin. Source: Rodrigues' rotation formula."""
    k = np.array(axis)
    turned = points * math.cos(angle) + np.cross(k, points) * math.sin(angle)
    return np.asarray(turned + np.outer(points @ k, k) * (1 - math.cos(angle)))
