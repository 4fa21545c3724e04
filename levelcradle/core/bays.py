"""A surveyed space as panels: the inside faces of its sides, in vehicle axes."""

from collections.abc import Iterator
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

from levelcradle.core.axes import Vec, cross, dot, minus, plus, scaled, unit
from levelcradle.core.design.survey import Bay, Station
from levelcradle.core.solids import Solid, hull

__all__ = ["Panel", "SideName", "panels", "stations_in_order"]

SideName = Literal["fore", "aft", "left", "right", "floor", "top"]
FLAT_WITHIN_MM = 0.01
BEHIND_MM = 250.0  # how far behind its panel metal is taken to go on, for a box that belongs in the bay
SHEET_MM = 1.0  # for any other box the panel is a sheet


@dataclass(frozen=True, slots=True)
class Panel:
    """A flat convex piece of a side, with its normal away from the free space."""

    side: SideName
    corners: tuple[Vec, ...]
    outward: Vec

    def solid(self, *, own_bay: bool) -> Solid:
        """The metal behind the panel, as thick as it is for a box of this bay or of another."""
        back = scaled(self.outward, BEHIND_MM if own_bay else SHEET_MM)
        return hull([*self.corners, *(plus(corner, back) for corner in self.corners)])


def stations_in_order(bay: Bay) -> list[Station]:
    return sorted(bay.stations.values(), key=lambda s: s.aft_mm)


def _ring(s: Station) -> dict[str, Vec]:
    return {
        "left floor": (s.aft_mm, s.left_floor_mm, s.floor_mm),
        "left top": (s.aft_mm, s.left_top_mm, s.top_left_mm),
        "right top": (s.aft_mm, s.right_top_mm, s.top_right_mm),
        "right floor": (s.aft_mm, s.right_floor_mm, s.floor_mm),
    }


_EDGES: dict[SideName, tuple[str, str]] = {
    "left": ("left floor", "left top"), "right": ("right floor", "right top"),
    "floor": ("left floor", "right floor"), "top": ("left top", "right top"),
}  # fmt: skip


def panels(bay: Bay) -> Iterator[Panel]:
    """Every side as flat panels. A twisted side is split along the diagonal that lies further inside, so that free
    space is never overstated."""
    rings = [_ring(s) for s in stations_in_order(bay)]
    middle = scaled(_sum([p for ring in rings for p in ring.values()]), 1 / (4 * len(rings)))
    for near, far in pairwise(rings):
        for side, (one, two) in _EDGES.items():
            yield from _quad(side, (near[one], near[two], far[two], far[one]), middle)
    for side_, ring in (("fore", rings[0]), ("aft", rings[-1])):
        side = side_  # type: ignore[assignment]
        yield _panel(side, (ring["left floor"], ring["left top"], ring["right top"], ring["right floor"]), middle)


def _sum(points: list[Vec]) -> Vec:
    total = (0.0, 0.0, 0.0)
    for point in points:
        total = plus(total, point)
    return total


def _panel(side: SideName, corners: tuple[Vec, ...], inside: Vec) -> Panel:
    normal = unit(cross(minus(corners[1], corners[0]), minus(corners[2], corners[0])))
    if dot(normal, minus(inside, corners[0])) > 0:
        normal = scaled(normal, -1.0)
    return Panel(side, corners, normal)


def _quad(side: SideName, q: tuple[Vec, Vec, Vec, Vec], inside: Vec) -> Iterator[Panel]:
    flat = _panel(side, q, inside)
    twist = dot(flat.outward, minus(q[3], q[0]))
    if abs(twist) <= FLAT_WITHIN_MM:
        yield flat
    elif twist > 0:  # the fourth corner lies further out: the diagonal 0-2 bulges inward
        yield flat_triangle(side, (q[0], q[1], q[2]), inside)
        yield flat_triangle(side, (q[0], q[2], q[3]), inside)
    else:
        yield flat_triangle(side, (q[0], q[1], q[3]), inside)
        yield flat_triangle(side, (q[1], q[2], q[3]), inside)


def flat_triangle(side: SideName, corners: tuple[Vec, Vec, Vec], inside: Vec) -> Panel:
    return _panel(side, corners, inside)
