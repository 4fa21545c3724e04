"""The figures by which one arrangement is laid beside another."""

from dataclasses import dataclass

from levelcradle.core.analysis import Analysis
from levelcradle.core.finding import Figure, Finding, State

__all__ = ["Compared", "compared"]


@dataclass(frozen=True, slots=True)
class Worst:
    """A finding in short."""

    message: str
    figures: tuple[Figure, ...]
    state: State


@dataclass(frozen=True, slots=True)
class Compared:
    """What a car weighs ready for the road, how its axles share that, what it holds, and where it is worst. None:
    nobody knows yet."""

    total_kg: float | None
    front_kg: float | None
    rear_kg: float | None
    modules: int
    worst_gap: Worst | None
    worst_mount: Worst | None


def compared(analysis: Analysis) -> Compared:
    ready = analysis.level.ready
    return Compared(
        ready.total_kg if ready else None,
        ready.front_kg if ready else None,
        ready.rear_kg if ready else None,
        analysis.string.modules,
        _worst(analysis, "gap"),
        _worst(analysis, "mount.use"),
    )


def _worst(analysis: Analysis, code: str) -> Worst | None:
    """Of one rule; findings come worst first, and of one state that with the least margin counts."""
    rows: list[Finding] = [f for f in analysis.findings if f.code == code and f.margin is not None]
    worst = min(rows, key=lambda f: f.margin or 0.0, default=None)
    return Worst(worst.message, worst.figures, worst.state) if worst else None
