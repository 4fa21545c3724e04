"""The inside faces of a surveyed space as flat panels, in vehicle axes."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise

from levelcradle.core.axes import Vec, cross, dot, minus, plus, scaled, unit
from levelcradle.core.bays.sections import sections
from levelcradle.core.design.bay import Bay, BaySide
from levelcradle.core.solids import Solid, hull

__all__ = ["BEHIND_MM", "SHEET_MM", "Panel", "panels"]

FLAT_WITHIN_MM = 0.01
BEHIND_MM = 250.0  # how far behind its panel metal is taken to go on, for a box that belongs in the bay
SHEET_MM = 1.0  # for any other box the panel is a sheet
LEAST_AREA_MM2 = 1e-3


@dataclass(frozen=True, slots=True)
class Panel:
    """A flat convex piece of a side, with its normal away from the free space."""

    side: BaySide
    corners: tuple[Vec, ...]
    outward: Vec

    def solid(self, depth_mm: float) -> Solid:
        """The metal behind the panel."""
        back = scaled(self.outward, depth_mm)
        return hull([*self.corners, *(plus(corner, back) for corner in self.corners)])


def panels(bay: Bay) -> Iterator[Panel]:
    """Every side as flat panels. A twisted side is split along the diagonal that lies further inside, so that free
    space is never overstated."""
    for side, corners, inside in _faces(bay):
        yield from _flat(side, corners, inside)


def faces(bay: Bay) -> Iterator[tuple[BaySide, tuple[Vec, ...]]]:
    """Every side from station to station by its own corners, as it was measured: a twisted one is not flat."""
    for side, corners, inside in _faces(bay):
        if any(_flat(side, corners, inside)):  # what has no area is no face
            yield side, corners


def _faces(bay: Bay) -> Iterator[tuple[BaySide, tuple[Vec, ...], Vec]]:
    """(side, corners, a point of the free space before it)."""
    found = sections(bay)
    rings = [section.points for section in found]
    middles = [scaled(_sum(ring), 1 / len(ring)) for ring in rings]
    for (near, far), (here, there) in zip(pairwise(rings), pairwise(middles), strict=True):
        inside = scaled(plus(here, there), 0.5)
        for i, side in enumerate(found[0].sides):
            j = (i + 1) % len(near)
            yield side, (near[i], near[j], far[j], far[i]), inside
    middle = scaled(_sum(middles), 1 / len(middles))
    yield "fore", tuple(rings[0]), middle
    yield "aft", tuple(rings[-1]), middle


def _sum(points: Sequence[Vec]) -> Vec:
    total = (0.0, 0.0, 0.0)
    for point in points:
        total = plus(total, point)
    return total


def _panel(side: BaySide, corners: Sequence[Vec], inside: Vec) -> Panel | None:
    """None for a panel without area. The normal by Newell's sum, so that a doubled corner does no harm."""
    area = _sum([cross(minus(a, corners[0]), minus(b, corners[0])) for a, b in pairwise(corners[1:])])
    if dot(area, area) ** 0.5 < LEAST_AREA_MM2:
        return None
    normal = unit(area)
    if dot(normal, minus(inside, corners[0])) > 0:
        normal = scaled(normal, -1.0)
    return Panel(side, tuple(corners), normal)


def _flat(side: BaySide, q: tuple[Vec, ...], inside: Vec) -> Iterator[Panel]:
    """A face in flat panels: an end is one, a side from station to station may be twisted."""
    if side in ("fore", "aft"):
        yield from filter(None, [_panel(side, q, inside)])
        return
    flat = _panel(side, q[:3], inside) or _panel(side, (q[0], q[2], q[3]), inside)
    if flat is None:
        return
    twist = dot(flat.outward, minus(q[3], q[0]))
    if abs(twist) <= FLAT_WITHIN_MM:
        ways: tuple[tuple[Vec, ...], ...] = (q,)
    elif twist > 0:  # the fourth corner lies further out: the diagonal 0-2 bulges inward
        ways = ((q[0], q[1], q[2]), (q[0], q[2], q[3]))
    else:
        ways = ((q[0], q[1], q[3]), (q[1], q[2], q[3]))
    yield from (panel for way in ways if (panel := _panel(side, way, inside)))
