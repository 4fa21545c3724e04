"""How far loads may be off: every ± is an expanded uncertainty (about 95 %, k = 2).

What one cause does is added with its sign first (modules of one kind, one person aboard while weighed and riding
again); causes that know nothing of each other are then added as the root of their squares. Each result has its own
sensitivities.
Source: law of propagation of uncertainty (JCGM 100, from memory); a half step d/2 is a bound and enters as 2 (d/2) /
√3."""

from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass
from operator import add

import numpy as np

from levelcradle.core.axes import Matrix

__all__ = ["Causes", "Effect", "PlusMinus", "combined", "plus_minus", "seen_by"]

Effect = tuple[float, float, float, float, float, float, float, float]
"""What a cause at its whole ± does to: front, rear [kg], side and height moment [kg·mm], the four corners LF, RF, LR,
RR [kg]."""
Causes = Mapping[str, Effect]


@dataclass(frozen=True, slots=True)
class PlusMinus:
    """The ± of each result; None where the result itself is not known."""

    front_kg: float
    rear_kg: float
    total_kg: float
    aft_mm: float
    across_mm: float | None
    up_mm: float | None
    corners_kg: tuple[float, float, float, float] | None


def combined(found: Causes, keys: Sequence[str], effects: Matrix) -> dict[str, Effect]:
    """Causes and further ones put together; what one cause does in several places adds with its sign."""
    out = dict(found)
    for key, effect in zip(keys, map(tuple, effects.tolist()), strict=True):
        held = out.get(key)
        out[key] = effect if held is None else tuple(map(add, held, effect))
    return out


def seen_by(
    work: Callable[[tuple[float, ...]], tuple[float, ...]], readings: tuple[float, ...], tols: Iterable[float]
) -> list[Effect]:
    """What each reading at its ± does to the eight figures that follow from all readings: by differences."""
    base, found = work(readings), []
    for n, tol in enumerate(tols):
        off = work((*readings[:n], readings[n] + tol, *readings[n + 1 :]))
        found.append(tuple(a - b for a, b in zip(off, base, strict=True)))
    return found  # type: ignore[return-value]


def plus_minus(
    causes: Causes,
    front_kg: float,
    rear_kg: float,
    across_mm: float | None,
    up_mm: float | None,
    wheelbase_mm: float,
    *,
    corners: bool,
) -> PlusMinus:
    """The ± of every result: the root of the squares of what the causes do to it."""
    rows = np.array(list(causes.values())).reshape(-1, 8).T
    front, rear, side, height = rows[:4]
    total, mass = front + rear, front_kg + rear_kg
    aft = (rear * front_kg - front * rear_kg) * (wheelbase_mm / mass**2)
    across, up = ((moment - (at or 0.0) * total) / mass for moment, at in ((side, across_mm), (height, up_mm)))
    results = np.vstack([front, rear, total, aft, across, up, rows[4:]])
    off_front, off_rear, off_total, off_aft, off_across, off_up, *wheels = np.sqrt((results**2).sum(axis=1)).tolist()
    lf, rf, lr, rr = wheels
    return PlusMinus(
        off_front,
        off_rear,
        off_total,
        off_aft,
        None if across_mm is None else off_across,
        None if up_mm is None else off_up,
        (lf, rf, lr, rr) if corners else None,
    )
