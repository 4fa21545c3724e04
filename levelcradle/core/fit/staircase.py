"""Cuts along a staircase: an L-shaped room, or a rectangle, into two L-shaped rooms.

An L is (X, Y, x, y): the rectangle X × Y without the part beyond both x and y. Each cut gives two such Ls as they lie
after being mirrored into that position, and for each the frame that puts its pieces back::

        ┌────┐ Y                     frame = (at x, at y, turn x, turn y, size x, size y):
        │    │                       a mirrored part counts from its far side
        │    └─────┐ y
        │          │
        └──────────┘
             x     X
"""

import numpy as np
from numpy.typing import NDArray

__all__ = ["FRAMES", "ROOMS", "cuts", "joined"]

Ints = NDArray[np.int64]
CutColumns = tuple[int | Ints, ...]
ROOMS, FRAMES = slice(0, 8), slice(8, 20)  # of a cut: two rooms, then the frame of each


def joined(
    frame: tuple[int, ...], x: int, y: int, turned: bool, long: int, short: int, at: tuple[int, int]
) -> tuple[int, int, bool]:
    """A piece of a part, in the room's own coordinates moved to ``at``."""
    start_x, start_y, turn_x, turn_y, size_x, size_y = frame
    wide, high = (short, long) if turned else (long, short)
    x = size_x - x - wide if turn_x else x
    y = size_y - y - high if turn_y else y
    return at[0] + start_x + x, at[1] + start_y + y, turned


def cuts(points: Ints, room: tuple[int, int, int, int], part: slice) -> Ints:
    """Every cut of a room, the wanted part of each: (8, n) ``ROOMS`` or (12, n) ``FRAMES``, both in the same order."""
    every = _z_cuts(points, room) if room[0] == room[2] else _l_cuts(points, room)
    return np.concatenate([_rows(row, part) for row in every], axis=1)


def _rows(columns: CutColumns, part: slice) -> Ints:
    wanted, length = columns[part], next(len(c) for c in columns if isinstance(c, np.ndarray))
    out = np.empty((len(wanted), length), np.int64)
    for row, column in zip(out, wanted, strict=True):
        row[:] = column
    return out


def _pairs(first: Ints, second: Ints) -> tuple[Ints, Ints]:
    a, b = np.meshgrid(first, second, indexing="ij")
    return a.ravel(), b.ravel()


def _l_cuts(points: Ints, room: tuple[int, int, int, int]) -> tuple[CutColumns, ...]:
    """Every cut of an L: two rooms, then the frame of each."""
    X, Y, x, y = room

    def between(low: int, high: int) -> Ints:
        return points[(points > low) & (points < high)]

    left, right, low, high = between(0, x), between(x, X), between(0, y), between(y, Y)
    to_x, from_x = np.append(left, x), np.append(x, right)
    to_y, from_y = np.append(low, y), np.append(y, high)
    a, b = _pairs(left, low)
    c, d = _pairs(right, low)
    e, f = _pairs(left, high)
    return (
        # straight from edge to edge
        (to_x, Y, to_x, Y, X - to_x, Y, x - to_x, y, 0, 0, 0, 0, 0, 0, to_x, 0, 0, 0, 0, 0),
        (from_x, Y, x, y, X - from_x, y, X - from_x, y, 0, 0, 0, 0, 0, 0, from_x, 0, 0, 0, 0, 0),
        (X, to_y, X, to_y, X, Y - to_y, x, y - to_y, 0, 0, 0, 0, 0, 0, 0, to_y, 0, 0, 0, 0),
        (X, from_y, x, y, x, Y - from_y, x, Y - from_y, 0, 0, 0, 0, 0, 0, 0, from_y, 0, 0, 0, 0),
        # from the inner corner, one bend
        (X - left, y, X - left, y, x, Y, left, Y - y, left, 0, 0, 0, 0, 0, 0, 0, 0, 1, x, Y),
        (x, Y - low, x, Y - low, X, y, X - x, low, 0, low, 0, 0, 0, 0, 0, 0, 1, 0, X, y),
        (x - left, Y - y, x - left, Y - y, X, Y, left, y, left, y, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0),
        (X - x, y - low, X - x, y - low, X, Y, x, low, x, low, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0),
        # from a ledge, one bend
        (c, Y - d, x, y - d, X, y, X - c, d, 0, d, 0, 0, 0, 0, 0, 0, 1, 0, X, y),
        (X - e, f, x - e, y, x, Y, e, Y - f, e, 0, 0, 0, 0, 0, 0, 0, 0, 1, x, Y),
        # from the inner corner, two bends
        (x, Y, a, Y - b, X - a, y, X - x, b, 0, 0, 0, 1, x, Y, a, 0, 1, 0, X - a, y),
        (c, Y, x, d, X - x, y, X - c, y - d, 0, 0, 0, 0, 0, 0, x, 0, 1, 1, X - x, y),
        (x, Y - b, a, Y - y, X, y, X - a, b, 0, b, 0, 1, x, Y - b, 0, 0, 1, 0, X, y),
        (x, Y - y, x - e, Y - f, X, f, e, y, 0, y, 1, 1, x, Y - y, 0, 0, 0, 0, 0, 0),
    )


def _z_cuts(points: Ints, room: tuple[int, int, int, int]) -> tuple[CutColumns, ...]:
    """Every cut of a rectangle into two Ls by a staircase of three pieces, up or along."""
    X, Y = room[:2]
    near, far, step = _stairs(points, X, Y)
    up = (far, Y, near, step, X - near, Y, X - far, Y - step, 0, 0, 0, 0, 0, 0, near, 0, 1, 1, X - near, Y)
    near, far, step = _stairs(points, Y, X)
    along = (X, far, step, near, X, Y - near, X - step, Y - far, 0, 0, 0, 0, 0, 0, 0, near, 1, 1, X, Y - near)
    return up, along


def _stairs(points: Ints, length: int, width: int) -> tuple[Ints, Ints, Ints]:
    along, across = points[(points > 0) & (points < length)], points[(points > 0) & (points < width)]
    i, j = np.triu_indices(len(along), 1)
    return np.repeat(along[i], len(across)), np.repeat(along[j], len(across)), np.tile(across, len(i))
