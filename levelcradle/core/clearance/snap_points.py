"""Where a dragged box is caught: the places along each axis at which the nearest gap that way is just kept."""

from collections.abc import Iterator
from dataclasses import dataclass

from levelcradle.core.assembly import Assembly, Obstacle, PlacedBox
from levelcradle.core.axes import Vec, dot, minus, scaled
from levelcradle.core.clearance.gaps import around
from levelcradle.core.clearance.needs import need_of_boxes, need_of_thing, twist_mm_of
from levelcradle.core.clearance.tolerances import gap_tolerance_mm
from levelcradle.core.solids import Nearest, Solid, bounds_apart, nearest

__all__ = ["SnapPoint", "snap_points"]

NEAR_MM = 160.0
SQUARE = 0.35  # a thing met at a flatter slope does not stop a move along that axis


@dataclass(frozen=True, slots=True)
class SnapPoint:
    """``at_mm``: the figure of the box's place on that axis; ``towards``: the way (+1, −1) in which the gap gets
    smaller."""

    axis: int
    at_mm: float
    towards: int
    gap_mm: float
    state: str
    name: str


def snap_points(assembly: Assembly, box_id: str) -> tuple[SnapPoint, ...]:
    """For each axis and way the first thing met: where its gap is need and tolerance, and where it is the need."""
    box = assembly.boxes[box_id]
    rows = list(_pairs(assembly, box))
    found: list[SnapPoint] = []
    for axis in range(3):
        for towards in (1, -1):
            ahead = [(name, need, tol, near, n) for name, need, tol, near, n in rows if n[axis] * towards < -SQUARE]
            if ahead:
                found += _two(box, axis, towards, min(ahead, key=lambda r: (r[3].gap_mm - r[1]) / abs(r[4][axis])))
    return tuple(found)


def _two(box: PlacedBox, axis: int, towards: int, row: tuple[str, float, float, Nearest, Vec]) -> Iterator[SnapPoint]:
    name, need, tol, near, n = row
    for gap, state in ((need + tol, "clear"), (need, "tight")):
        travel = (near.gap_mm - gap) / abs(n[axis]) * towards
        yield SnapPoint(axis, round(box.box.pose.at_mm[axis] + travel, 4), towards, gap, state, name)


def _pairs(assembly: Assembly, box: PlacedBox) -> Iterator[tuple[str, float, float, Nearest, Vec]]:
    """Name, need, tolerance, nearest points and the way from the thing to the box, of what is near."""
    pieces, others = [p for p in box.pieces if p.mount is None], [b for b in assembly.boxes.values() if b is not box]
    rows: list[tuple[Obstacle | PlacedBox, Solid, float]]
    rows = [(thing, thing.solid, need_of_thing(assembly, box, thing).mm) for thing in around(assembly, box)]
    rows += [(other, piece.solid, need_of_boxes(assembly, box, other).mm) for other in others for piece in other.pieces]
    apart = bounds_apart([p.solid for p in pieces], [solid for _, solid, _ in rows]).min(axis=0) if rows else []
    for (thing, solid, need), far in zip(rows, apart, strict=True):
        if far < NEAR_MM:
            near = min((nearest(p.solid, solid) for p in pieces), key=lambda m: m.gap_mm)
            if isinstance(thing, PlacedBox):
                need += twist_mm_of(box, thing, near)
            yield thing.name, need, gap_tolerance_mm(assembly, box, thing), near, _away(near, pieces[0].solid, solid)


def _away(near: Nearest, piece: Solid, solid: Solid) -> Vec:
    way = minus(near.here, near.there) if near.gap_mm > 0 else minus(near.there, near.here)
    size = dot(way, way) ** 0.5
    if size < 1e-6:
        way = tuple((piece.low[i] + piece.high[i] - solid.low[i] - solid.high[i]) / 2 for i in range(3))  # type: ignore[assignment]
        size = dot(way, way) ** 0.5 or 1.0
    return scaled(way, 1 / size)
