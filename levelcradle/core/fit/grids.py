"""Grids of one kind in one turn: how large their box is, and those whose last row is not full."""

import math
from dataclasses import dataclass

from levelcradle.core.axes import Vec
from levelcradle.core.design.box import Block, Counts, Orientation

__all__ = ["Grid", "Triple", "blocks_of", "last_row", "one_slice"]

Triple = tuple[int, int, int]


@dataclass(frozen=True, slots=True)
class Grid:
    """A box of a grid in one turn: its outside for one module, and what each further one adds each way."""

    kind: str
    turn: Orientation
    base: Vec
    pitch: Vec

    def outer(self, counts: Triple) -> Vec:
        x, y, z = (b + (n - 1) * p for b, n, p in zip(self.base, counts, self.pitch, strict=True))
        return x, y, z


def one_slice(counts: Triple) -> int:
    """How many modules the last row along the longest count holds."""
    return math.prod(counts) // max(counts)


def last_row(counts: Triple, missing: int) -> Triple | None:
    """The last row with so many missing, as a grid; None where it would be none."""
    axis = counts.index(max(counts))
    p, q = (counts[i] for i in range(3) if i != axis)
    left = p * q - missing
    for a, b in ((left, 1), (left // q, q)):
        if left > 0 and a * b == left and a <= p and b <= q:
            row = [a, b]
            row.insert(axis, 1)
            return row[0], row[1], row[2]
    return None


def blocks_of(grid: Grid, counts: Triple, missing: int) -> dict[str, Block]:
    """One block, or the full rows and a last one that is not full beside them."""
    if not missing:
        return {"a": _block(grid, counts, (0.0, 0.0, 0.0))}
    axis = counts.index(max(counts))
    full, at = list(counts), [0.0, 0.0, 0.0]
    full[axis] -= 1
    at[axis] = full[axis] * grid.pitch[axis]
    row = last_row(counts, missing)
    assert row is not None
    return {
        "a": _block(grid, (full[0], full[1], full[2]), (0.0, 0.0, 0.0)),
        "b": _block(grid, row, (at[0], at[1], at[2])),
    }


def _block(grid: Grid, counts: Triple, origin: Vec) -> Block:
    aft, across, up = counts
    return Block(kind=grid.kind, turn=grid.turn, counts=Counts(aft=aft, across=across, up=up), origin_mm=origin)
