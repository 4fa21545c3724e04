"""Free space on a grid: what is blocked is marked once and summed once; then every size is tried by table look-up.

A cell counts as blocked when its middle is nearer to a thing than their gap. A box is held against the cells that lie
in it whatever its place between two grid lines, so that no place is missed; whether it truly stands there is decided
exactly elsewhere (``stand``)."""

import math
from collections.abc import Iterable
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from levelcradle.core.axes import Matrix, Vec
from levelcradle.core.solids import Solid, distances

__all__ = ["ClearanceConstraint", "Space", "free_space"]

Cells = NDArray[np.bool_]
MOST_CELLS = 8_000_000


@dataclass(frozen=True, eq=False, slots=True)
class ClearanceConstraint:
    """Something a box keeps clear of by ``need_mm``; ``what`` is its path, ``name`` what it is called."""

    solid: Solid
    need_mm: float
    what: str
    name: str


@dataclass(frozen=True, eq=False)
class Space:
    """A block of cells from its low corner, and which of them are blocked."""

    low: Vec
    step_mm: float
    blocked: Cells

    @cached_property
    def sums(self) -> NDArray[np.int32]:
        """``sums[i, j, k]`` counts the blocked cells before i, j, k."""
        sums = np.zeros(tuple(n + 1 for n in self.blocked.shape), np.int32)
        sums[1:, 1:, 1:] = self.blocked
        for axis in range(3):
            np.cumsum(sums, axis=axis, out=sums)
        return sums

    def beside(self, hindrances: Iterable[ClearanceConstraint]) -> "Space":
        """The same space with more in it."""
        blocked = self.blocked.copy()
        middles = [low + self.step_mm * (np.arange(n) + 0.5) for low, n in zip(self.low, blocked.shape, strict=True)]
        for thing in hindrances:
            _mark(blocked, middles, thing)
        return Space(self.low, self.step_mm, blocked)

    def places(self, size: Vec, *, spare: int = -1) -> Cells:
        """(a, b, c): whether a box of a size (aft, right, up), its low corner at each cell's corner, covers no blocked
        cell.

        Args:
            spare: cells beyond its whole ones that must be free too; −1 asks only for what it covers wherever between
                the grid lines it stands.
        """
        sums = self.sums
        for axis in range(3):
            n = max(1, math.floor(size[axis] / self.step_mm + 1e-9) + spare)
            if n >= sums.shape[axis]:
                return np.zeros((0, 0, 0), bool)
            behind, before = ([slice(None)] * 3 for _ in range(2))
            behind[axis], before[axis] = slice(n, None), slice(None, -n)
            sums = sums[tuple(behind)] - sums[tuple(before)]
        return np.asarray(sums == 0)

    def corner(self, cell: Iterable[int]) -> Vec:
        x, y, z = (low + int(i) * self.step_mm for low, i in zip(self.low, cell, strict=True))
        return x, y, z


def free_space(low: Vec, high: Vec, hindrances: Iterable[ClearanceConstraint], step_mm: float = 5.0) -> Space:
    """The cells between two corners, those blocked that are nearer to a hindrance than its need. The step widens where
    the block would hold too many cells."""
    volume = (high[0] - low[0]) * (high[1] - low[1]) * (high[2] - low[2])
    step = max(step_mm, (volume / MOST_CELLS) ** (1 / 3))
    shape = tuple(max(1, math.ceil((h - lo) / step - 1e-9)) for lo, h in zip(low, high, strict=True))
    return Space(low, step, np.zeros(shape, bool)).beside(hindrances)


def _mark(blocked: Cells, middles: list[Matrix], thing: ClearanceConstraint) -> None:
    window = []
    for axis in range(3):
        first = int(np.searchsorted(middles[axis], thing.solid.low[axis] - thing.need_mm))
        last = int(np.searchsorted(middles[axis], thing.solid.high[axis] + thing.need_mm, side="right"))
        if first >= last:
            return
        window.append(slice(first, last))
    near = [middles[axis][window[axis]] for axis in range(3)]
    blocked[tuple(window)] |= distances(thing.solid, near[0], near[1], near[2], thing.need_mm) < max(
        thing.need_mm, 1e-9
    )
