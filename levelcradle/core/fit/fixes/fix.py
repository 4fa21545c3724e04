"""What a question of "what would it take" is answered with."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from levelcradle.core.analysis import Analysis
from levelcradle.core.axes import Vec
from levelcradle.core.design.patch import Op
from levelcradle.core.finding import Figure, plain

__all__ = ["Answer", "Axis", "Cost", "Does", "Fix", "costs_of", "in_order"]

Axis = Literal["aft", "across", "up"]
Does = Literal["box", "vehicle", "rule"]


@dataclass(frozen=True, slots=True)
class Cost:
    """What a change does elsewhere: a sentence with slots, and its state where it is a verdict."""

    message: str
    figures: tuple[Figure, ...]
    state: str = "note"


@dataclass(frozen=True, slots=True)
class Fix:
    """One change, or a small set of changes that clear only together. ``whole``: it has been run through all checks and
    leaves nothing foul that was not foul before.

    Attributes:
        does: what is changed: the box, the vehicle, or the rule.
        size: how many millimetres are moved, cut off or taken away, for sorting within one kind.
        patch: what makes it; None for what has to be done to the vehicle first and then measured again.
        left: sentences of what stays or becomes foul.
    """

    kind: str
    does: Does
    message: str
    figures: tuple[Figure, ...]
    size: float
    whole: bool
    costs: tuple[Cost, ...]
    left: tuple[str, ...]
    patch: tuple[Op, ...] | None
    at_mm: Vec | None


@dataclass(frozen=True, slots=True)
class Answer:
    """What is asked about, whether it fits as it is, the fixes, whole ones first, and what is foul without them."""

    question: str
    fits: bool
    patch: tuple[Op, ...]
    fixes: tuple[Fix, ...]
    foul: tuple[str, ...] = ()


_KINDS = (
    "move",
    "chamfer",
    "turn",
    "liner",
    "sheet",
    "spacing",
    "laid",
    "wedge",
    "thing",
    "wall",
    "fewer",
    "room",
    "gap",
)


def in_order(fix: Fix) -> tuple[bool, int, float]:
    """Whole ones first, what is nearest to hand before what is cut, what is agreed away last."""
    return not fix.whole, _KINDS.index(fix.kind), fix.size


def costs_of(before: Analysis, after: Analysis, box: str) -> Iterator[Cost]:
    """Gaps of the box that became tighter than tight or clear, axle loads, mounts."""
    own, old = f"boxes/{box}", {f.id: f for f in before.findings}
    gaps = [f for f in after.findings if f.code == "gap" and own in f.subjects and f.state == "tight"]
    for f in sorted(gaps, key=lambda f: f.margin or 0.0)[:3]:
        was = old.get(f.id)
        if was is None or was.value is None or f.value is None or abs(was.value - f.value) >= 0.05:
            yield Cost(
                f"{plain(f.label)} {{0}}, needs {{1}}",
                (Figure(f.value or 0.0, "mm", "down"), Figure(f.limit or 0.0, "mm", "up")),
                f.state,
            )
    then, now = before.level.ready, after.level.ready
    if then and now:
        for word, a, b in (("front", then.front_kg, now.front_kg), ("rear", then.rear_kg, now.rear_kg)):
            if abs(b - a) >= 0.05:
                yield Cost(f"{word} axle {'+' if b > a else '−'}{{0}}", (Figure(abs(b - a), "kg"),))
    worst = [
        max((f.value or 0.0 for f in a.findings if f.code == "mount.use" and own in f.subjects), default=0.0)
        for a in (before, after)
    ]
    if abs(worst[1] - worst[0]) >= 0.01:
        yield Cost("worst use of its mounts {0} → {1}", (Figure(worst[0], "use"), Figure(worst[1], "use")))
