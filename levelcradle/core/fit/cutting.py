"""How much of the vehicle boxes have to cut: mounting points that are not there yet and have to be drilled or
welded."""

from collections.abc import Iterable, Sequence
from math import dist

from levelcradle.core.axes import Vec
from levelcradle.core.design import Design

__all__ = ["POINTS", "points_to_make"]

POINTS = 4  # that a box hangs on: common practice, no source
REACH_MM = 150.0  # what a bracket of common size bridges: common practice, no source


def points_to_make(design: Design, outsides: Iterable[tuple[Vec, Vec]]) -> int:
    """New mounting points for boxes with these (low, high) corners. A hard point within a bracket's reach that no mount
    uses yet carries the box it is nearest to."""
    boxes = list(outsides)
    used = {path for mount in design.mounts.values() for path in mount.lands_on.paths}
    there = [0] * len(boxes)
    for key, point in design.hardpoints.items():
        if f"hardpoints/{key}" not in used and boxes:
            far, nearest = min((_from(point.at_mm, box), n) for n, box in enumerate(boxes))
            there[nearest] += far <= REACH_MM
    return sum(max(0, POINTS - n) for n in there)


def _from(point: Sequence[float], box: tuple[Vec, Vec]) -> float:
    return dist(point, [min(max(v, low), high) for v, low, high in zip(point, *box, strict=True)])
