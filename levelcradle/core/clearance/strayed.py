"""A box that stands outside the space it is said to belong to, beyond a side that is not open."""

from collections.abc import Iterator
from itertools import pairwise

from shapely.geometry import LineString, Point, Polygon

from levelcradle.core.assembly import Assembly, PlacedBox
from levelcradle.core.axes import Vec
from levelcradle.core.bays import Section, sections
from levelcradle.core.design.bay import Bay, BaySide
from levelcradle.core.finding import Finding, plain

__all__ = ["strayed"]


def strayed(assembly: Assembly) -> Iterator[Finding]:
    """Gaps reach only so far behind a wall: what was put beyond it altogether must not pass for clear."""
    for box in assembly.boxes.values():
        bay = assembly.design.bays.get(box.box.bay or "")
        if bay is None:
            continue
        side = _left_by(bay, _middle(box))
        if side is None or getattr(bay.sides, side).is_ == "open":
            continue
        path = f"bays/{box.box.bay}/sides/{side}"
        yield Finding(
            id=f"gap:{box.path}:{path}:outside", code="gap.outside", station="place", state="foul", subjects=(box.path, path),
            says=f"{plain(box.box.name)} stands outside the {plain(bay.name)}, beyond its {side} side",
            because="a box belongs within the space it is hung in; say so where it belongs to another, or to none",
            shows=f"{bay.name} {side}",
        )  # fmt: skip


def _middle(box: PlacedBox) -> Vec:
    low = [min(p.solid.low[i] for p in box.pieces) for i in range(3)]
    high = [max(p.solid.high[i] for p in box.pieces) for i in range(3)]
    return (low[0] + high[0]) / 2, (low[1] + high[1]) / 2, (low[2] + high[2]) / 2


def _left_by(bay: Bay, at: Vec) -> BaySide | None:
    """The side through which a point lies outside a bay, None where it lies within."""
    found = sections(bay)
    if at[0] < found[0].aft_mm:
        return "fore"
    if at[0] > found[-1].aft_mm:
        return "aft"
    near, far = next((a, b) for a, b in pairwise(found) if at[0] <= b.aft_mm)
    ring = _between(near, far, at[0])
    spot, outline = Point(at[1], at[2]), Polygon(ring)
    if not outline.is_valid or outline.covers(spot):  # an outline that crosses itself is told for itself
        return None
    edges = [LineString([a, b]).distance(spot) for a, b in zip(ring, [*ring[1:], ring[0]], strict=True)]
    return near.sides[edges.index(min(edges))]


def _between(near: Section, far: Section, aft_mm: float) -> list[tuple[float, float]]:
    share = (aft_mm - near.aft_mm) / (far.aft_mm - near.aft_mm)
    return [(a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share) for a, b in zip(near.ring, far.ring, strict=True)]
