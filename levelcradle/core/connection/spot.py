"""Where a mount lands on the vehicle: a place, which way the metal faces, and what is known of it."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any

from levelcradle.core.axes import Vec
from levelcradle.core.design import Design
from levelcradle.core.design.mount import LandsOn, OnHardPoint

__all__ = ["Spot", "spot_of"]


@dataclass(frozen=True, slots=True)
class Spot:
    """A place that carries a mount. ``n``: from the vehicle's metal into the mount, length 1."""

    path: str
    name: str
    at: Vec
    n: Vec
    structure: str
    thread: str | None = None
    carried_kg: float | None = None


def spot_of(lands_on: LandsOn, design: Design) -> Spot:
    return _SPOTS[lands_on.type](lands_on, design)


def _hard_point(lands_on: OnHardPoint, design: Design) -> Spot:
    point = design.hardpoints[lands_on.hardpoint]
    return Spot(lands_on.path, point.name, point.at_mm, point.direction, point.structure, point.thread, point.carried_kg)


_SPOTS: Mapping[str, Callable[[Any, Design], Spot]] = {"hardpoint": _hard_point}
