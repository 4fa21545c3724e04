"""How every check speaks: a finding with a state, figures and the working behind them."""

import math
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Literal

from levelcradle.core.axes import Vec

__all__ = [
    "ORDER",
    "Figure",
    "Finding",
    "State",
    "Step",
    "Unit",
    "Working",
    "gap_state",
    "message_text",
    "plain",
    "utilisation_state",
    "write",
]

State = Literal["clear", "tight", "foul", "unknown", "note"]
ORDER: dict[State, int] = {"foul": 0, "unknown": 1, "tight": 2, "note": 3, "clear": 4}
Unit = Literal["mm", "kg", "use", "V", "N", "%", "N·m", ""]
HOLDS_BACK = ("place", "box", "mount")  # stations whose figures the cut sizes rest on
HOLDS_BACK_TOO = ("failed", "survey.scan")  # and what was not asked at all, wherever it belongs
TIGHT_UTILISATION = 0.8  # common practice, no source: the last fifth of a capacity is tight


@dataclass(frozen=True, slots=True)
class Step:
    """One line of a calculation: what, as symbols, as numbers, the answer, and where the rule comes from."""

    what: str
    rule: str
    value: float
    unit: str
    source: str = ""


@dataclass(frozen=True, slots=True)
class Figure:
    """A quantity inside a sentence; the screen writes it in the list's own unit."""

    value: float
    unit: Unit
    round: Literal["down", "up", "near"] = "near"


Working = tuple[Step, ...]


@dataclass(frozen=True, slots=True)
class Finding:
    """What one check has to say about one thing or pair.

    Attributes:
        id: stable while the things it speaks of stay the same.
        code: the rule, such as ``gap.item``.
        station: the screen it belongs to.
        subjects: paths of the things it speaks of, such as ``boxes/tank``.
        value, limit, margin: unrounded; margin is negative by how much the limit is missed.
        tolerance: how far the value may be off either way; None where it has no meaning.
        says: one sentence with slots ``{0}``, filled from figures.
        because: why the limit is what it is.
        points_mm: the nearest two points in vehicle axes, or nothing.
        shows: a short name for a flag on a drawing.
    """

    id: str
    code: str
    station: str
    state: State
    subjects: tuple[str, ...]
    message: str
    figures: tuple[Figure, ...] = ()
    value: float | None = None
    limit: float | None = None
    margin: float | None = None
    unit: Unit = ""
    tolerance: float | None = None
    rationale: str = ""
    points_mm: tuple[Vec, ...] = ()
    label: str = ""
    working: Callable[[], Working] | None = field(default=None, repr=False, compare=False)

    @property
    def holds_back(self) -> bool:
        """Whether, not known, it keeps the drawings back."""
        return self.station in HOLDS_BACK or self.code in HOLDS_BACK_TOO


def gap_state(gap_mm: float, need_mm: float, tolerance_mm: float) -> State:
    """Foul below the need, tight within the tolerance above it (at the need it is tight), else clear.

    >>> [gap_state(gap, need_mm=25.0, tolerance_mm=5.0) for gap in (24.9, 25.0, 29.9, 30.0)]
    ['foul', 'tight', 'tight', 'clear']
    """
    margin = round(gap_mm - need_mm, 9)  # a sum of decimals must not miss its own need by a rounding error
    if margin < 0:
        return "foul"
    return "tight" if margin < tolerance_mm or math.isclose(margin, 0.0, abs_tol=1e-9) else "clear"


def utilisation_state(utilisation: float) -> State:
    """State of a strength check by its use = demand / capacity.

    >>> [utilisation_state(u) for u in (0.8, 0.81, 1.0, 1.01)]
    ['clear', 'tight', 'tight', 'foul']
    """
    if utilisation > 1.0:
        return "foul"
    return "tight" if utilisation > TIGHT_UTILISATION else "clear"


def plain(name: str) -> str:
    """A free name for use inside a sentence with slots: its braces become parentheses."""
    return name.replace("{", "(").replace("}", ")")


def message_text(finding: Finding) -> str:
    """The sentence with its figures written in millimetres and kilograms, for terminals and sheets."""
    return finding.message.format(*(write(figure) for figure in finding.figures))


def write(figure: Figure) -> str:
    """A figure as text. Gaps go down, demands up; to a tenth, uses to two places.

    >>> write(Figure(10.49, 'mm', 'down')), write(Figure(0.701, 'use', 'up'))
    ('10.4 mm', '0.71')
    """
    digits = 2 if figure.unit == "use" else 1
    scale = 10**digits
    ways: dict[str, Callable[[float], int]] = {"down": math.floor, "up": math.ceil, "near": round}
    turn = ways[figure.round]
    text = f"{turn(round(figure.value * scale, 6)) / scale:{',' if figure.unit in ('kg', 'N') else ''}.{digits}f}"
    return text if figure.unit in ("use", "") else f"{text} {figure.unit}"
