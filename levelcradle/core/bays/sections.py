"""What a tape, an angle finder or a straight-edge found at each station, as one closed outline.

A section runs left floor → right floor → right top → left top, so its sides come in the order floor, right, top,
left. All sections of a bay are given the same number of corners, so that neighbours can be joined edge to edge::

        left top ┌───────────┐ right top
                 │           │
                 │           │        seen looking forward
      left floor └───────────┘ right floor
"""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise

from levelcradle.core.axes import Vec
from levelcradle.core.design.base import DocumentModel
from levelcradle.core.design.bay import (
    Bay,
    BaySide,
    EdgeStation,
    LeanStation,
    PointStation,
    SurveySection,
    WidthStation,
)
from levelcradle.core.memo import Memo, written

__all__ = ["SIDES_ROUND", "Point2", "Section", "corner_of", "extent", "sections"]

Point2 = tuple[float, float]  # (right, up)
SIDES_ROUND: tuple[BaySide, BaySide, BaySide, BaySide] = ("floor", "right", "top", "left")
SAME_MM = 1e-6
BENT = 1e-6  # sine of the angle by which a corner may turn inward and still count as straight


@dataclass(frozen=True, slots=True)
class Section:
    """One station's outline: ``ring[i]`` to ``ring[i + 1]`` is an edge of ``sides[i]``. ``key`` names the station."""

    key: str
    aft_mm: float
    ring: tuple[Point2, ...]
    sides: tuple[BaySide, ...]

    @property
    def points(self) -> list[Vec]:
        return [(self.aft_mm, across, up) for across, up in self.ring]

    @property
    def convex(self) -> bool:
        """Whether no corner turns inward."""
        ring = [p for p, q in zip(self.ring, self.ring[1:] + self.ring[:1], strict=True) if math.dist(p, q) > SAME_MM]
        for a, b, c in zip(ring, ring[1:] + ring[:1], ring[2:] + ring[:2], strict=True):
            turn = (b[0] - a[0]) * (c[1] - b[1]) - (b[1] - a[1]) * (c[0] - b[0])
            if turn < -BENT * math.dist(a, b) * math.dist(b, c):
                return False
        return True


Chains = tuple[list[Point2], list[Point2], list[Point2], list[Point2]]


_held: Memo[tuple[Section, ...]] = Memo(256)


def sections(bay: Bay) -> tuple[Section, ...]:
    """The sections of a bay from front to rear, corner matched to corner; of a single station and a depth, two
    alike."""
    return _held.get(written(bay), lambda: tuple(_sections(bay)))


def _sections(bay: Bay) -> Iterator[Section]:
    rows = sorted(bay.stations.items(), key=lambda row: row[1].aft_mm)
    found = [(key, station.aft_mm, _chains(station)) for key, station in rows]
    if len(found) == 1 and bay.depth_mm is not None:
        key, aft, chains = found[0]
        found.append((key, aft + bay.depth_mm, chains))
    shares = [_shares([chains[side] for _, _, chains in found]) for side in range(4)]
    for key, aft, chains in found:
        ring = [point for side in range(4) for point in _resampled(chains[side], shares[side])[:-1]]
        sides = [SIDES_ROUND[side] for side in range(4) for _ in shares[side][1:]]
        yield Section(key, aft, tuple(ring), tuple(sides))


def extent(bay: Bay) -> tuple[Vec, Vec]:
    """Corners of the upright block round a bay."""
    points = [point for section in sections(bay) for point in section.points]
    low, high = (tuple(pick(p[i] for p in points) for i in range(3)) for pick in (min, max))
    return (low[0], low[1], low[2]), (high[0], high[1], high[2])


def corner_of(bay: Bay, station: str, corner: str) -> Vec:
    """A named corner of a station in vehicle axes."""
    found = bay.stations[station]
    side, end = {"left_floor": (0, 0), "right_floor": (1, 0), "right_top": (2, 0), "left_top": (3, 0)}[corner]
    across, up = _chains(found)[side][end]
    return found.aft_mm, across, up


def _chains(station: DocumentModel) -> Chains:
    """The four sides of one station, each a run of points: floor, right, top, left."""
    if isinstance(station, PointStation):
        return _of_points([(p.across_mm, p.up_mm) for p in sorted(station.points.values(), key=lambda p: p.order)])
    if isinstance(station, EdgeStation):
        floor = [
            (d.across_mm, station.up_mm - d.depth_mm)
            for d in sorted(station.depths.values(), key=lambda d: d.across_mm)
        ]
        left, right = (floor[0][0], station.up_mm), (floor[-1][0], station.up_mm)
        return floor, [floor[-1], right], [right, left], [left, floor[0]]
    return _of_corners(*_corners(station))


def _corners(station: DocumentModel) -> tuple[Point2, Point2, Point2, Point2]:
    """Left floor, right floor, right top, left top."""
    if isinstance(station, SurveySection):
        return (
            (station.left_floor_mm, station.floor_mm),
            (station.right_floor_mm, station.floor_mm),
            (station.right_top_mm, station.top_right_mm),
            (station.left_top_mm, station.top_left_mm),
        )
    assert isinstance(station, (WidthStation, LeanStation))
    middle, half = station.offset_mm, station.width_floor_mm / 2
    left_floor, right_floor = (middle - half, station.floor_mm), (middle + half, station.floor_mm)
    if isinstance(station, WidthStation):
        left, right = middle - station.width_top_mm / 2, middle + station.width_top_mm / 2
    else:
        left = left_floor[0] - (station.top_left_mm - station.floor_mm) * math.tan(math.radians(station.left_lean_deg))
        right = right_floor[0] + (station.top_right_mm - station.floor_mm) * math.tan(
            math.radians(station.right_lean_deg)
        )
    return left_floor, right_floor, (right, station.top_right_mm), (left, station.top_left_mm)


def _of_corners(left_floor: Point2, right_floor: Point2, right_top: Point2, left_top: Point2) -> Chains:
    return [left_floor, right_floor], [right_floor, right_top], [right_top, left_top], [left_top, left_floor]


def _of_points(points: list[Point2]) -> Chains:
    """Free points cut into four sides at the corners that lie furthest towards each corner of the block round them."""
    if _area(points) < 0:
        points = points[::-1]
    wide = max(p[0] for p in points) - min(p[0] for p in points) or 1.0
    high = max(p[1] for p in points) - min(p[1] for p in points) or 1.0
    scaled = [(p[0] / wide, p[1] / high) for p in points]

    def furthest(x: float, y: float) -> int:
        return max(range(len(points)), key=lambda i: round(scaled[i][0] * x + scaled[i][1] * y, 9))

    marks = _four(scaled) if len(points) == 4 else [furthest(-1, -1), furthest(1, -1), furthest(1, 1), furthest(-1, 1)]

    def run(start: int, end: int) -> list[Point2]:
        steps = (end - start) % len(points)
        return [points[(start + k) % len(points)] for k in range(steps + 1)]

    return tuple(run(marks[i], marks[(i + 1) % 4]) for i in range(4))  # type: ignore[return-value]


def _four(points: list[Point2]) -> list[int]:
    """Which of four points is the left floor, right floor, right top and left top: as they go round, nearest to the
    block's corners."""
    (x0, x1), (z0, z1) = ((min(p[i] for p in points), max(p[i] for p in points)) for i in (0, 1))
    block = ((x0, z0), (x1, z0), (x1, z1), (x0, z1))
    turns = [[(start + k) % 4 for k in range(4)] for start in range(4)]
    return min(
        turns,
        key=lambda turn: round(
            sum(math.dist(points[i], corner) ** 2 for i, corner in zip(turn, block, strict=True)), 9
        ),
    )


def _area(points: Sequence[Point2]) -> float:
    return sum(a[0] * b[1] - b[0] * a[1] for a, b in zip(points, [*points[1:], points[0]], strict=True)) / 2


def _along(chain: list[Point2]) -> list[float]:
    """How far along a chain each of its points lies, 0 to 1."""
    lengths = [math.dist(a, b) for a, b in pairwise(chain)]
    total = sum(lengths)
    if total <= SAME_MM:
        return [0.0] * (len(chain) - 1) + [1.0]
    done = [0.0]
    for length in lengths:
        done.append(done[-1] + length / total)
    return [*done[:-1], 1.0]


def _shares(chains: list[list[Point2]]) -> list[float]:
    """Where any of the sections has a corner on this side."""
    found: list[float] = []
    for share in sorted(s for chain in chains if len(chain) > 1 for s in _along(chain)):
        if not found or share - found[-1] > 1e-6:
            found.append(share)
    return found or [0.0, 1.0]


def _resampled(chain: list[Point2], shares: list[float]) -> list[Point2]:
    if len(chain) == 1:
        return [chain[0]] * len(shares)
    along, out = _along(chain), []
    for share in shares:
        i = next((k for k in range(len(along) - 1) if share <= along[k + 1] + 1e-9), len(along) - 2)
        span = along[i + 1] - along[i]
        t = (share - along[i]) / span if span > 0 else 1.0
        a, b = chain[i], chain[i + 1]
        out.append(a if t <= 1e-9 else b if t >= 1 - 1e-9 else (a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t))
    return out
