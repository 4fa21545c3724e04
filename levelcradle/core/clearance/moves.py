"""What pieces meet while they are moved or turned: the hull of a piece before and after holds every place on the
way."""

import math
from collections.abc import Iterator, Sequence

import numpy as np
from numpy.typing import NDArray

from levelcradle.core.assembly import Obstacle
from levelcradle.core.axes import Matrix, Vec, plus, scaled
from levelcradle.core.solids import Solid, block, bounds, hull, touches
from levelcradle.core.sweeps import turned_through

__all__ = ["free_travel_mm", "meets", "meets_each", "swept", "turning"]

MEETS_MM = -0.5  # what only touches does not hold it


def meets(solids: Sequence[Solid], things: Sequence[Obstacle], by: Vec) -> list[Obstacle]:
    """Things that the pieces meet while they are moved in a straight line."""
    return meets_each(solids, things, (by,))[0]


def meets_each(solids: Sequence[Solid], things: Sequence[Obstacle], moves: Sequence[Vec]) -> list[list[Obstacle]]:
    """The same for each of several moves; where the pieces and the things are is looked up once."""
    if not things or not solids:
        return [[] for _ in moves]
    low, high = bounds(solids)
    others = bounds(o.solid for o in things)
    by = np.array(moves)[:, None]
    low, high = np.minimum(low, low + by), np.maximum(high, high + by)
    # most things are near no piece at all
    about = _meet(low.min(axis=1, keepdims=True), high.max(axis=1, keepdims=True), others)[:, 0]
    rows = zip(moves, low, high, about, strict=True)
    return [_met(solids, things, by, (low, high), others, np.flatnonzero(close)) for by, low, high, close in rows]


Bounds = tuple[Matrix, Matrix]


def _meet(low: Matrix, high: Matrix, others: Bounds) -> NDArray[np.bool_]:
    """Which bounding boxes (…, n, 3) meet which others (m, 3): (…, n, m)."""
    apart = np.maximum(others[0] - high[..., None, :], low[..., None, :] - others[1])
    return np.asarray((apart < MEETS_MM).all(axis=-1))


def _met(
    solids: Sequence[Solid],
    things: Sequence[Obstacle],
    by: Vec,
    ours: Bounds,
    others: Bounds,
    close: NDArray[np.intp],
) -> list[Obstacle]:
    if not close.size:
        return []
    near = _meet(*ours, (others[0][close], others[1][close]))
    found, spaces = {}, dict[int, Solid]()
    for i, j in zip(*(rows.tolist() for rows in np.nonzero(near)), strict=True):
        thing = things[close[j]]
        if thing.path in found:
            continue
        if i not in spaces:  # most pieces come near nothing: their space is not made
            spaces[i] = swept(solids[i], by)
        if touches(spaces[i], thing.solid, -MEETS_MM):
            found[thing.path] = thing
    return list(found.values())


def swept(solid: Solid, by: Vec) -> Solid:
    if not any(by):
        return solid
    if solid.upright and sum(v != 0 for v in by) == 1:
        low = tuple(min(v, v + d) for v, d in zip(solid.low, by, strict=True))
        high = tuple(max(v, v + d) for v, d in zip(solid.high, by, strict=True))
        return block(low, high)  # type: ignore[arg-type]
    points = [(float(x), float(y), float(z)) for x, y, z in solid.points]
    return hull([*points, *(plus(p, by) for p in points)])


def free_travel_mm(solids: Sequence[Solid], things: Sequence[Obstacle], way: Vec, most_mm: float) -> float:
    """How far the pieces move one way before they meet something: exactly where blocks meet blocks along an axis, else
    to a millimetre."""
    met = meets(solids, things, scaled(way, most_mm))
    if not met:
        return most_mm
    # what is not met on the whole way is met on no part of it; of what is made of several pieces any may be first
    paths = {thing.path for thing in met}
    about = [thing for thing in things if thing.path in paths]
    low, high = 0.0, most_mm
    if sum(v != 0 for v in way) == 1 and all(s.upright for s in (*solids, *(thing.solid for thing in about))):
        return min(most_mm, *(_blocks_travel_mm(a, thing.solid, way) for a in solids for thing in about))
    while high - low > 1.0:
        middle = (low + high) / 2
        low, high = (low, middle) if meets(solids, about, scaled(way, middle)) else (middle, high)
    return low


def _blocks_travel_mm(a: Solid, b: Solid, way: Vec) -> float:
    """How far one block moves along an axis before it meets another; infinite where it never does."""
    axis = next(i for i in range(3) if way[i])
    within = [min(a.high[i] - b.low[i], b.high[i] - a.low[i]) for i in range(3)]
    ahead = b.high[axis] - a.low[axis] if way[axis] > 0 else a.high[axis] - b.low[axis]
    if ahead <= -MEETS_MM or any(within[i] <= -MEETS_MM for i in range(3) if i != axis):
        return math.inf
    return max(-within[axis] - MEETS_MM, 0.0) / abs(way[axis])


def turning(solids: Sequence[Solid], about: Vec, axis: Vec, angle_deg: float) -> Iterator[Solid]:
    """The space that pieces sweep while they are turned, in steps."""
    for solid in solids:
        corners = [(float(x), float(y), float(z)) for x, y, z in solid.points]
        yield from (hull(points) for points in turned_through(corners, about, axis, 0.0, angle_deg))
