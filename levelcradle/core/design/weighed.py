"""What a box weighed alone, full and without brackets: it counts in place of what was computed."""

import math
from collections.abc import Mapping
from dataclasses import dataclass

from levelcradle.core.design.design import Design
from levelcradle.core.design.vehicle import Total, Weighed

__all__ = ["WeighedAlone", "half_step", "weighed_alone"]


@dataclass(frozen=True, slots=True)
class WeighedAlone:
    """Mass of a box by the scale, without what was fixed to it then, and its ± [kg]; ``key`` names the weighing."""

    key: str
    kg: float
    tol_kg: float


def half_step(step: float) -> float:
    """The ± of one reading of a scale with this step: a bound of half a step, expanded."""
    return 2 * (step / 2) / math.sqrt(3)


def weighed_alone(design: Design) -> Mapping[str, WeighedAlone]:
    """Of each box that was weighed, the latest weighing that reads more than what was fixed to it."""
    rows = sorted(design.weighings.items(), key=lambda row: (row[1].order, row[0]))
    found = (_alone(design, key, weighed) for key, weighed in rows if weighed.kind == "box")
    return {box: alone for row in found if row for box, alone in [row]}


def _alone(design: Design, key: str, weighed: Weighed) -> tuple[str, WeighedAlone] | None:
    box = next((path.removeprefix("boxes/") for path in weighed.done if path.startswith("boxes/")), None)
    if box not in design.boxes or not isinstance(weighed.read, Total):
        return None
    with_it = [design.items[k] for path in weighed.done if (k := path.removeprefix("items/")) in design.items]
    kg = weighed.read.total_kg - math.fsum(item.weighs_kg or 0.0 for item in with_it)
    tol = math.hypot(half_step(weighed.read.step_kg), *(item.tol_kg for item in with_it))
    return (box, WeighedAlone(key, kg, tol)) if kg > 0 else None
