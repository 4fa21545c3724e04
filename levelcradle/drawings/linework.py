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
PORTION = 256  # so many at once: each takes the square of its planes


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
    edges = [_edges(body, look, turned_away=hidden) for body in bodies]
    start, end = (np.concatenate([pair[n] for pair in edges] or [np.zeros((0, 3))]) for n in (0, 1))
    of = np.repeat(np.arange(len(bodies)), [len(first) for first, _ in edges])
    axes = np.array([look.right, look.up]).T
    rows = dict[SeenLine, None]()
    for number, runs in enumerate(cover.runs(start, end)):
        body = int(of[number])
        for low, high, seen in runs:
            if seen or hidden:
                ends = (start[number] + np.outer((low, high), end[number] - start[number])) @ axes
                rows.setdefault(_line(ends, bodies[body].weight_mm, hidden=not seen, of=body))
    return list(rows)


def _line(ends: Matrix, weight_mm: float, *, hidden: bool, of: int) -> SeenLine:
    first, last = sorted((round(x, 3), round(y, 3)) for x, y in ends.tolist())
    return SeenLine(first, last, weight_mm, hidden, of)


def _edges(body: Body, look: Look, *, turned_away: bool) -> tuple[Matrix, Matrix]:
    """Both ends of the sharp edges of a body's outside, and of those where its round surfaces turn away; of edges no
    face of which looks at the reader only with ``turned_away``."""
    points, triangles = body.mesh or _outside(body.solids)
    corners = points[triangles]
    normals = np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0])
    normals /= np.maximum(np.linalg.norm(normals, axis=1, keepdims=True), 1e-12)
    facing = normals @ np.array(look.towards) > 1e-6
    sides = np.sort(triangles[:, [[0, 1], [1, 2], [2, 0]]].reshape(-1, 2), axis=1)
    order = np.lexsort((sides[:, 1], sides[:, 0]))
    sides, owner = sides[order], np.repeat(np.arange(len(triangles)), 3)[order]
    shared = np.flatnonzero((sides[:-1] == sides[1:]).all(axis=1))
    one, other = owner[shared], owner[shared + 1]
    turn = np.einsum("ij,ij->i", normals[one], normals[other])
    drawn = (turn < SHARP) | ((facing[one] != facing[other]) & (turn < 1 - 1e-9))
    if not turned_away:
        drawn &= facing[one] | facing[other]
    ends = sides[shared[drawn]]
    return points[ends[:, 0]], points[ends[:, 1]]


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

    def runs(self, start: Matrix, end: Matrix) -> Iterator[list[tuple[float, float, bool]]]:
        """Of each edge, from where to where along it it is seen, and where not."""
        hides: list[list[tuple[float, float]]] = [[] for _ in start]
        for first in range(0, len(start), PORTION):
            for edge, run in self._hidden(start[first : first + PORTION], end[first : first + PORTION]):
                hides[first + edge].append(run)
        for length, runs in zip(np.linalg.norm(end - start, axis=1), hides, strict=True):
            yield list(_told_apart(sorted(runs), float(length)))

    def _hidden(self, start: Matrix, end: Matrix) -> Iterator[tuple[int, tuple[float, float]]]:
        """The runs that solids hide, each with its edge."""
        ends = np.array([start, end]) @ self._axes.T
        low, high = ends.min(axis=0)[:, None, :], ends.max(axis=0)[:, None, :]
        near = (self._low[:, :2] < high[:, :, :2]).all(axis=2) & (self._high[:, :2] > low[:, :, :2]).all(axis=2)
        edges, solids = np.nonzero(near & (self._high[:, 2] > low[:, :, 2]))
        for first in range(0, len(edges), PORTION):
            edge, solid = (which[first : first + PORTION] for which in (edges, solids))
            along = np.einsum("ijk,ik->ij", self._normals[solid], (end - start)[edge])
            rest = self._reach[solid] - np.einsum("ijk,ik->ij", self._normals[solid], start[edge])
            for n, run in _runs_inside(along, self._away[solid], rest):
                yield int(edge[n]), run


def _told_apart(hides: Sequence[tuple[float, float]], length_mm: float) -> Iterator[tuple[float, float, bool]]:
    """What is seen and what is not of an edge, by the runs that are hidden, in their order; a glimpse between two
    solids that touch is none."""
    glimpse = max(1e-6, GLIMPSE_MM / max(length_mm, 1e-9)) if hides else 1e-6
    at = 0.0
    for low, high in hides:
        if low > at + glimpse:
            yield at, low, True
        if high > at:
            yield max(low, at), high, False
            at = high
    if at < 1 - glimpse:
        yield at, 1.0, True


def _runs_inside(along: Matrix, away: Matrix, rest: Matrix) -> Iterator[tuple[int, tuple[float, float]]]:
    """Of each row the run of t in [0, 1] for which some s >= BEFORE_MM keeps along t + away s <= rest, where there is
    one."""
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
    for n in np.flatnonzero(inside):
        yield int(n), (float(first[n]), float(last[n]))
