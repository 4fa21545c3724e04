"""What pieces meet while they are moved or turned: the hull of a piece before and after holds every place on the
way."""

from collections.abc import Iterator, Sequence

import numpy as np

from levelcradle.core.assembly import Obstacle
from levelcradle.core.axes import Vec, plus, scaled
from levelcradle.core.solids import Solid, block, bounds, hull, touches
from levelcradle.core.sweeps import turned_through

__all__ = ["free_travel_mm", "meets", "swept", "turning"]

MEETS_MM = -0.5  # what only touches does not hold it


def meets(solids: Sequence[Solid], things: Sequence[Obstacle], by: Vec) -> list[Obstacle]:
    """Things that the pieces meet while they are moved in a straight line."""
    if not things:
        return []
    low, high = bounds(solids)
    low, high = np.minimum(low, low + by), np.maximum(high, high + by)
    other_low, other_high = bounds(o.solid for o in things)
    # most things are near no piece at all
    about = np.maximum(other_low - high.max(axis=0), low.min(axis=0) - other_high) < MEETS_MM
    close = np.flatnonzero(about.all(axis=1))
    if not close.size:
        return []
    near = (np.maximum(other_low[close] - high[:, None], low[:, None] - other_high[close]) < MEETS_MM).all(axis=2)
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
    """How far the pieces move one way before they meet something, to a millimetre."""
    if not meets(solids, things, scaled(way, most_mm)):
        return most_mm
    low, high = 0.0, most_mm
    while high - low > 1.0:
        middle = (low + high) / 2
        low, high = (low, middle) if meets(solids, things, scaled(way, middle)) else (middle, high)
    return low


def turning(solids: Sequence[Solid], about: Vec, axis: Vec, angle_deg: float) -> Iterator[Solid]:
    """The space that pieces sweep while they are turned, in steps."""
    for solid in solids:
        corners = [(float(x), float(y), float(z)) for x, y, z in solid.points]
        yield from (hull(points) for points in turned_through(corners, about, axis, 0.0, angle_deg))
