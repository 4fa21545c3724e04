"""Lines of weld and plugs under one plate, and the largest force on each."""

from dataclasses import dataclass
from functools import cached_property, lru_cache

import numpy as np

from levelcradle.core.axes import Matrix
from levelcradle.core.connection.connection import ForceArray
from levelcradle.core.connection.hold.plate import Load

__all__ = ["WeldGroup", "weld_group"]

Place = tuple[float, float]
Line = tuple[Place, Place]


@dataclass(frozen=True)
class WeldGroup:
    """Fillets by their ends (w, n), and plugs by their middles, each worth ``plug_mm`` of fillet; even about w = 0.
    Made by ``weld_group``.

    Plugs share what shears the plate along the wall, and nothing that pulls it off or tips it: EN 1993-1-8 4.3.5 (2),
    from memory."""

    lines: tuple[Line, ...]
    plugs: tuple[Place, ...] = ()
    plug_mm: float = 0.0

    def fillet(self, load: Load, c_mm: float) -> ForceArray:
        """Largest force per length at the ends of the fillets [N/mm]. ``c_mm``: from the face that is welded to where
        the bolt's force passes, along d. Source: line-weld method (statics)."""
        n, d, w = load
        pw, pn = _along(self._ends, np.ndim(d))
        long, middle, i_w, i_n = self._pulled
        q_d = d / long - (middle * d + c_mm * n) / i_w * (pn - middle) - c_mm * w / i_n * pw
        q_w, q_n = self._sheared(n, w, pw, pn)
        return np.asarray(np.sqrt((q_d * q_d + q_w * q_w + q_n * q_n).max(axis=0)))

    def plug(self, load: Load) -> ForceArray:
        """Largest force on a plug along the wall [N]. Source: as for a fillet as long as it is worth."""
        n, _, w = load
        pw, pn = _along(np.array(self.plugs), np.ndim(n))
        return np.asarray(np.hypot(*self._sheared(n, w, pw, pn)).max(axis=0) * self.plug_mm)

    def _sheared(self, n: ForceArray, w: ForceArray, pw: Matrix, pn: Matrix) -> tuple[ForceArray, ForceArray]:
        """Along w and n at places [N/mm]."""
        long, middle, polar = self._twisted
        turn = middle / polar * w
        return w / long - turn * (pn - middle), n / long + turn * pw

    @cached_property
    def _ends(self) -> Matrix:
        return np.array(sorted({end for line in self.lines for end in line}))

    @cached_property
    def _pulled(self) -> tuple[float, float, float, float]:
        """Of the fillets: their length, the height of their middle, second moments about it along w, and about n
        [mm, mm, mm³, mm³]."""
        long, mid, own = self._rows
        height = float((long * mid[:, 1]).sum() / long.sum())
        about_w = float((long * (mid[:, 1] - height) ** 2 + own[:, 1]).sum())
        return float(long.sum()), height, about_w, float((long * mid[:, 0] ** 2 + own[:, 0]).sum())

    @cached_property
    def _twisted(self) -> tuple[float, float, float]:
        """Of fillets and plugs: their length, the height of their middle, and the polar second moment about it."""
        long, mid, own = self._rows
        worth, plugs = np.full(len(self.plugs), self.plug_mm), np.array(self.plugs).reshape(-1, 2)
        every, at = np.concatenate([long, worth]), np.concatenate([mid, plugs])
        height = float((every * at[:, 1]).sum() / every.sum())
        polar = (every * (at[:, 0] ** 2 + (at[:, 1] - height) ** 2)).sum() + own.sum()
        return float(every.sum()), height, float(polar)

    @property
    def _rows(self) -> tuple[Matrix, Matrix, Matrix]:
        """Of each fillet: its length, its middle, its own second moments along w and n."""
        ends = np.array(self.lines)
        run = ends[:, 1] - ends[:, 0]
        long = np.hypot(run[:, 0], run[:, 1])
        return long, ends.mean(axis=1), long[:, None] * run**2 / 12


def _along(places: Matrix, dims: int) -> tuple[Matrix, Matrix]:
    """w and n of places, each over arrays of so many dimensions."""
    shape = (-1, *([1] * dims))
    return places[:, 0].reshape(shape), places[:, 1].reshape(shape)


weld_group = lru_cache(maxsize=512)(WeldGroup)
