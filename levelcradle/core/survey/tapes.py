"""A point placed by swinging tapes from known points."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from levelcradle.core.axes import Matrix, Vec

__all__ = ["MEET_WITHIN_MM", "Swing", "swing"]

MEET_WITHIN_MM = 3.0  # tapes that miss each other by more were misread: reached-in tape, common practice, no source
TO = 1e-15
ON_A_HOOK_MM = 1e-6


@dataclass(frozen=True, slots=True)
class Swing:
    """Where tapes meet, and by how much each misses there (tape less distance) [mm]."""

    at: Vec
    misses_mm: tuple[float, ...]

    @property
    def misfit_mm(self) -> float:
        """The largest miss."""
        return max((abs(m) for m in self.misses_mm), default=0.0)


def swing(hooks: Sequence[Vec], lengths_mm: Sequence[float], guess: Vec) -> Swing | None:
    """The point that swung tapes reach, the one of several that lies nearest to a guess.

    Two tapes place a point at the guess's height; three and more place all three figures, by least squares.

    Args:
        hooks: known points the tapes are hooked on; lengths_mm: what each tape reads, in the same order.
    Returns: None for fewer than two tapes, or where two are hooked on points one above the other.
    Source: intersection of circles and spheres (geometry); Levenberg-Marquardt for the least squares.
    """
    if len(hooks) < 2:
        return None
    axes = 2 if len(hooks) == 2 else 3
    known, lengths = np.array(hooks, dtype=float), np.array(lengths_mm, dtype=float)
    if axes == 2 and math.dist(known[0, :2], known[1, :2]) < 1.0:
        return None
    start = np.array(guess, dtype=float)
    starts = [start] if axes == 2 else [start, *_mirrored(known, start)]
    found = [_settled(known, lengths, s, axes) for s in starts]
    sizes = [round(float(np.abs(lengths - np.linalg.norm(p - known, axis=1)).max()), 3) for p in found]
    best = min(range(len(found)), key=lambda i: (sizes[i] > min(sizes) + 0.01, float(np.linalg.norm(found[i] - start))))
    at = found[best]
    misses = lengths - np.linalg.norm(at - known, axis=1)
    return Swing((float(at[0]), float(at[1]), float(at[2])), tuple(float(m) for m in misses))


def _mirrored(known: Matrix, start: Matrix) -> list[Matrix]:
    """The guess seen in the plane of the first three hooks: tapes reach as well to the other side."""
    normal = np.cross(known[1] - known[0], known[2] - known[0])
    size = np.linalg.norm(normal)
    if size < 1.0:
        return []
    normal /= size
    return [start - 2 * normal * ((start - known[0]) @ normal)]


def _settled(known: Matrix, lengths: Matrix, start: Matrix, axes: int) -> Matrix:
    from scipy.optimize import least_squares  # seldom asked, and slow to load

    at = start.copy()
    if np.linalg.norm(at - known, axis=1).min() < ON_A_HOOK_MM:
        at[:axes] += 1.0  # on a hook itself its tape has no direction

    def arms(placed: Matrix) -> Matrix:
        return np.asarray(np.concatenate([placed, start[axes:]]) - known)

    def misses(placed: Matrix) -> Matrix:
        return np.asarray(np.linalg.norm(arms(placed), axis=1) - lengths)

    def slopes(placed: Matrix) -> Matrix:
        away = arms(placed)
        return np.asarray((away / np.maximum(np.linalg.norm(away, axis=1), ON_A_HOOK_MM)[:, None])[:, :axes])

    found = least_squares(misses, at[:axes], slopes, method="lm", xtol=TO, ftol=TO, gtol=TO)
    return np.concatenate([found.x, start[axes:]])
