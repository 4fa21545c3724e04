"""Solids as lines on paper, what is hidden left out: seen edges are found exactly, for convex solids.

A point of an edge is hidden by a convex solid where the ray from it to the reader enters the solid: where some s > 0
keeps every plane's n · (p + t d + s v) <= b. Taking s out of the inequalities (Fourier and Motzkin) leaves one run of t
for each solid; what no run covers is seen.
"""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, field
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from levelcradle.core.axes import Matrix, Vec, cross, dot, unit
from levelcradle.core.solids import Solid, joined, planes_of, surface_of
from levelcradle.drawings.sheet import Point

__all__ = ["AFTER", "CORNER", "FORE", "INTO", "PLAN", "SIDE", "Body", "Look", "SeenLine", "extent", "seen_lines"]

SHARP = np.cos(np.radians(20.0))  # faces that turn less are one round surface
INSET_MM = 0.05  # so far an edge may lie in a solid and is not hidden by it: its own
BEFORE_MM = 0.05
GLIMPSE_MM = 1.0


Mesh = tuple[Matrix, NDArray[np.int64]]


@dataclass(frozen=True, slots=True)
class Look:
    """A view by the ways that run right and up on the page; the third points at the reader."""

    right: Vec
    up: Vec

    @property
    def towards(self) -> Vec:
        return cross(self.right, self.up)

    def at(self, point: Vec) -> Point:
        return dot(point, self.right), dot(point, self.up)

    @staticmethod
    def against(towards: Vec) -> "Look":
        """Seen against a way that is not upright, with up upward."""
        right = unit(cross((0.0, 0.0, 1.0), towards))
        return Look(right, cross(unit(towards), right))


PLAN = Look((1.0, 0.0, 0.0), (0.0, 1.0, 0.0))
SIDE = Look((1.0, 0.0, 0.0), (0.0, 0.0, 1.0))
AFTER = Look((0.0, 1.0, 0.0), (0.0, 0.0, 1.0))  # from behind
FORE = Look((0.0, -1.0, 0.0), (0.0, 0.0, 1.0))  # from before
CORNER = Look.against((-1.0, -1.0, 0.85))
INTO = Look.against((1.0, -1.0, 0.85))  # of a part as its blank lies: into what is bent up


@dataclass(frozen=True, slots=True, eq=False)
class Body:
    """What is drawn as one: its convex solids, which hide what is behind them, without the seams between them.
    ``mesh``: its outside, where that is finer than its solids, as of a sheet with holes."""

    solids: tuple[Solid, ...]
    weight_mm: float = 0.25
    mesh: Mesh | None = None


@dataclass(frozen=True, slots=True)
class SeenLine:
    """A line on the page in model millimetres; ``of``: which of the bodies it is an edge of."""

    start: Point
    end: Point
    weight_mm: float
    hidden: bool = False
    of: int = field(default=0, compare=False)  # an edge that two bodies share is drawn once


def extent(bodies: Iterable[Body], look: Look) -> tuple[Point, Point]:
    """Lower left and upper right corner of bodies in a view. Raises ValueError where there are none."""
    points = np.concatenate([_corners(solid) for body in bodies for solid in body.solids])
    flat = points @ np.array([look.right, look.up]).T
    low, high = flat.min(axis=0), flat.max(axis=0)
    return (float(low[0]), float(low[1])), (float(high[0]), float(high[1]))


def seen_lines(bodies: Sequence[Body], look: Look, *, hidden: bool = False) -> list[SeenLine]:
    """Every edge of the bodies that is seen; with ``hidden`` also what is not, told apart."""
    cover = _Cover([solid for body in bodies for solid in body.solids], look)
    rows = dict[SeenLine, None]()
    for number, body in enumerate(bodies):
        for start, end, faces_reader in _edges(body, look):
            if not faces_reader and not hidden:
                continue
            for low, high, seen in cover.runs(start, end):
                if seen or hidden:
                    a, b = (start + (end - start) * t for t in (low, high))
                    rows.setdefault(_line(a, b, look, body.weight_mm, hidden=not seen, of=number))
    return list(rows)


def _line(a: Matrix, b: Matrix, look: Look, weight_mm: float, *, hidden: bool, of: int) -> SeenLine:
    ends = sorted((round(float(p @ look.right), 3), round(float(p @ look.up), 3)) for p in (a, b))
    return SeenLine(ends[0], ends[1], weight_mm, hidden, of)


def _edges(body: Body, look: Look) -> Iterator[tuple[Matrix, Matrix, bool]]:
    """Sharp edges of a body's outside, and those where its round surfaces turn away; each with whether one of its
    faces looks at the reader."""
    points, triangles = body.mesh or _outside(body.solids)
    corners = points[triangles]
    normals = np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0])
    normals /= np.maximum(np.linalg.norm(normals, axis=1, keepdims=True), 1e-12)
    facing = normals @ np.array(look.towards)
    sides = np.sort(triangles[:, [[0, 1], [1, 2], [2, 0]]].reshape(-1, 2), axis=1)
    owner = np.repeat(np.arange(len(triangles)), 3)
    order = np.lexsort((sides[:, 1], sides[:, 0]))
    sides, owner = sides[order], owner[order]
    for n in np.flatnonzero((sides[:-1] == sides[1:]).all(axis=1)):
        one, other = owner[n], owner[n + 1]
        turns_away = (facing[one] > 1e-6) != (facing[other] > 1e-6)
        if normals[one] @ normals[other] < SHARP or (turns_away and normals[one] @ normals[other] < 1 - 1e-9):
            yield points[sides[n, 0]], points[sides[n, 1]], bool(max(facing[one], facing[other]) > 1e-6)


@lru_cache(maxsize=2048)
def _outside(solids: tuple[Solid, ...]) -> Mesh:
    return surface_of(solids[0]) if len(solids) == 1 else joined(solids)


@lru_cache(maxsize=8192)
def _planes(solid: Solid) -> Matrix:
    """Its planes, once for all views: a solid is known by identity."""
    return planes_of(solid)


@lru_cache(maxsize=8192)
def _corners(solid: Solid) -> Matrix:
    return surface_of(solid)[0]


class _Cover:
    """The solids of a view as what hides: their planes in one array, and their bounds on the page and in depth."""

    def __init__(self, solids: Sequence[Solid], look: Look) -> None:
        self._axes = np.array([look.right, look.up, look.towards])
        rows = [_planes(solid) for solid in solids if solid.surface is None]
        deep = max((len(r) for r in rows), default=0)
        self._normals, self._reach = np.zeros((len(rows), deep, 3)), np.ones((len(rows), deep))
        for n, planes in enumerate(rows):
            self._normals[n, : len(planes)], self._reach[n, : len(planes)] = planes[:, :3], planes[:, 3] - INSET_MM
        seen = [_corners(solid) @ self._axes.T for solid in solids if solid.surface is None]
        self._low, self._high = (np.array([f(s, axis=0) for s in seen]).reshape(-1, 3) for f in (np.min, np.max))
        self._away = self._normals @ self._axes[2]

    def runs(self, start: Matrix, end: Matrix) -> Iterator[tuple[float, float, bool]]:
        """From where to where along an edge it is seen, and where not."""
        hides = sorted(self._hidden(start, end))
        # a glimpse between two solids that touch is none
        glimpse = max(1e-6, GLIMPSE_MM / max(float(np.linalg.norm(end - start)), 1e-9)) if hides else 1e-6
        at = 0.0
        for low, high in hides:
            if low > at + glimpse:
                yield at, low, True
            if high > at:
                yield max(low, at), high, False
                at = high
        if at < 1 - glimpse:
            yield at, 1.0, True

    def _hidden(self, start: Matrix, end: Matrix) -> list[tuple[float, float]]:
        ends = np.array([start, end]) @ self._axes.T
        low, high = ends.min(axis=0), ends.max(axis=0)
        near = (self._low[:, :2] < high[:2]).all(axis=1) & (self._high[:, :2] > low[:2]).all(axis=1)
        which = np.flatnonzero(near & (self._high[:, 2] > low[2]))
        if not len(which):
            return []
        along = self._normals[which] @ (end - start)
        rest = self._reach[which] - self._normals[which] @ start
        return _runs_inside(along, self._away[which], rest)


def _runs_inside(along: Matrix, away: Matrix, rest: Matrix) -> list[tuple[float, float]]:
    """Of each solid the run of t in [0, 1] for which some s >= BEFORE_MM keeps along t + away s <= rest."""
    count = len(rest)
    # s >= BEFORE_MM is one plane more
    along = np.column_stack((along, np.zeros(count)))
    away = np.column_stack((away, -np.ones(count)))
    rest = np.column_stack((rest, np.full(count, -BEFORE_MM)))
    flat, divide = np.abs(away) < 1e-9, np.where(np.abs(away) < 1e-9, 1.0, away)
    base, slope = rest / divide, -along / divide
    upper, lower = (away > 0) & ~flat, (away < 0) & ~flat
    pair = lower[:, :, None] & upper[:, None, :]
    factor = np.where(pair, slope[:, :, None] - slope[:, None, :], 0.0).reshape(count, -1)
    most = np.where(pair, base[:, None, :] - base[:, :, None], 1.0).reshape(count, -1)
    factor = np.column_stack((factor, np.where(flat, along, 0.0)))
    most = np.column_stack((most, np.where(flat, rest, 1.0)))
    still = np.abs(factor) < 1e-12
    bound = most / np.where(still, 1.0, factor)
    first = np.where((factor < 0) & ~still, bound, 0.0).max(axis=1, initial=0.0)
    last = np.where((factor > 0) & ~still, bound, 1.0).min(axis=1, initial=1.0)
    inside = ~(still & (most < 0)).any(axis=1) & (last - first > 1e-9)
    return [(float(a), float(b)) for a, b in zip(first[inside], last[inside], strict=True)]
