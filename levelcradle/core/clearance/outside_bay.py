"""A box that stands out of the space it is said to belong to, or out of the car."""

from collections.abc import Iterator
from functools import lru_cache
from itertools import pairwise

import numpy as np
from shapely.geometry import LineString, Point, Polygon

from levelcradle.core.assembly import Assembly, PlacedBox, outside_of, side_word
from levelcradle.core.axes import Matrix, Vec, plus, scaled, vec
from levelcradle.core.bays import Section, sections
from levelcradle.core.design.bay import Bay, BaySide
from levelcradle.core.finding import Figure, Finding, plain
from levelcradle.core.solids import corner_points

__all__ = ["outside_bay"]


OUT_MM = 0.05  # less is rounding
TYRE_MM = 160.0  # width of a tyre where nobody measured the body: common practice, no source


def outside_bay(assembly: Assembly) -> Iterator[Finding]:
    """What stands beyond a wall altogether, how far a box stands out of its space through an open side, and what stands
    out of the car: open says that nothing stands there, not that a box may hang out unseen."""
    for box in assembly.boxes.values():
        yield from _beyond_a_wall(assembly, box)
        out = list(_out_of_its_space(assembly, box))
        yield from out
        yield from _out_of_the_car(assembly, box, hangs_out=bool(out))


def _out_of_its_space(assembly: Assembly, box: PlacedBox) -> Iterator[Finding]:
    bay = assembly.bay_of(box)
    if bay is None:
        return
    for side, (far, at) in _reaches(bay, _corners(box)).items():
        if far > OUT_MM and getattr(bay.sides, side).is_ == "open":
            path = f"bays/{box.box.bay}/sides/{side}"
            yield Finding(
                id=f"out:{box.path}:{path}",
                code="place.out",
                station="place",
                state="note",
                subjects=(box.path, path),
                message=f"{plain(box.box.name)} stands {{0}} out of the {plain(bay.name)}, through its open "
                f"{side_word(side)}",
                figures=(Figure(far, "mm", "up"),),
                value=far,
                limit=0.0,
                margin=-far,
                unit="mm",
                points_mm=(at,),
                label="out of its space",
                rationale="open says that nothing stands there; what is beyond was not measured with this space",
            )


Reach = tuple[float, Vec]


def _reaches(bay: Bay, corners: Matrix) -> dict[BaySide, Reach]:
    """How far the corners reach beyond each side of a bay, and which of them reaches farthest."""
    found, most = sections(bay), dict[BaySide, Reach]()

    def told(side: BaySide, far: Matrix, at: Matrix) -> None:
        n = int(far.argmax())
        if far[n] > most.get(side, (0.0, (0.0, 0.0, 0.0)))[0]:
            most[side] = float(far[n]), vec(at[n])

    fore, aft = found[0].aft_mm, found[-1].aft_mm
    told("fore", fore - corners[:, 0], corners)
    told("aft", corners[:, 0] - aft, corners)
    along = np.clip(corners[:, 0], fore, aft)
    for near, far in pairwise(found):
        here = (along >= near.aft_mm) & (along <= far.aft_mm)
        if here.any():
            share = (along[here] - near.aft_mm) / (far.aft_mm - near.aft_mm)
            rings = np.array(near.ring) + share[:, None, None] * (np.array(far.ring) - np.array(near.ring))
            beyond = _beyond_edges(rings, corners[here][:, 1:], convex=near.convex and far.convex)
            for n, side in enumerate(near.sides):
                told(side, beyond[:, n], corners[here])
    return most


def _beyond_edges(rings: Matrix, spots: Matrix, *, convex: bool) -> Matrix:
    """(k, n) how far each spot lies outside each edge of its own ring, which runs counter-clockwise; 0 or less inside.
    Of a ring that bulges inward only the nearest edge of a spot outside counts."""
    edges = np.roll(rings, -1, axis=1) - rings
    length = np.maximum(np.linalg.norm(edges, axis=2), 1e-9)
    arms = spots[:, None] - rings
    beyond = (arms[:, :, 0] * edges[:, :, 1] - arms[:, :, 1] * edges[:, :, 0]) / length
    if convex:
        return np.asarray(beyond)
    out = np.zeros(beyond.shape)
    for n, (ring, spot) in enumerate(zip(rings, spots, strict=True)):
        outline, point = Polygon(ring), Point(spot)
        if outline.is_valid and not outline.covers(point):
            apart = [LineString([a, b]).distance(point) for a, b in zip(ring, np.roll(ring, -1, axis=0), strict=True)]
            out[n, apart.index(min(apart))] = min(apart)
    return out


@lru_cache(maxsize=512)
def _corners(box: PlacedBox) -> Matrix:
    """(n, 3) corners of a box and of what stands out of it, without its brackets."""
    return corner_points(p.solid for p in box.pieces if p.mount is None)


def _out_of_the_car(assembly: Assembly, box: PlacedBox, *, hangs_out: bool) -> Iterator[Finding]:
    """Beyond the body's outline as measured; where nobody measured it, beyond the wheels."""
    vehicle, corners = assembly.vehicle, _corners(box)
    low, high = (vec(pick) for pick in (corners.min(axis=0), corners.max(axis=0)))
    overall, name = vehicle.overall, plain(box.box.name)
    if overall is not None:
        half = overall.width_mm / 2
        rows = {
            "ahead of the car": -overall.overhang_front_mm - low[0],
            "behind the car": high[0] - vehicle.wheelbase_mm - overall.overhang_rear_mm,
            "left of the car": -half - low[1],
            "right of the car": high[1] - half,
            "above the car": high[2] - overall.height_mm,
        }
        why = "the body's outline, from its overall sizes"
    elif vehicle.track_mm is not None:
        half = max(vehicle.track_mm.front, vehicle.track_mm.rear) / 2 + TYRE_MM / 2
        rows = {"out past the wheels, left": -half - low[1], "out past the wheels, right": high[1] - half}
        why = f"half the track and half a tyre of {TYRE_MM:g} (common practice, no source); the body was not measured"
    else:
        rows, why = {}, ""
    for words, far in rows.items():
        if far > OUT_MM:
            yield Finding(
                id=f"out:{box.path}:{words.replace(' ', '-')}",
                code="place.outline",
                station="place",
                state="foul",
                subjects=(box.path,),
                message=f"{name} stands {{0}} {words}",
                figures=(Figure(far, "mm", "up"),),
                value=far,
                limit=0.0,
                margin=-far,
                unit="mm",
                rationale=why,
                label="outline",
            )
    if hangs_out and overall is None:
        yield Finding(
            id=f"out:{box.path}:outline",
            code="place.outline",
            station="place",
            state="unknown",
            subjects=(box.path, "vehicle/overall"),
            message=f"{name} stands out of its space, and the outline of the car is not known",
            rationale="say the car's overhangs, width and height in Survey",
            label="outline",
        )


def _beyond_a_wall(assembly: Assembly, box: PlacedBox) -> Iterator[Finding]:
    """Gaps reach only so far behind a wall: what was put beyond it altogether must not pass for clear."""
    if box.box.bay is not None:
        bay = assembly.bays[box.box.bay]
        side = _left_by(bay, _middle(box))
        if side is None or getattr(bay.sides, side).is_ == "open":
            return
        path = f"bays/{box.box.bay}/sides/{side}"
        yield Finding(
            id=f"gap:{box.path}:{path}:outside",
            code="gap.outside",
            station="place",
            state="foul",
            subjects=(box.path, path),
            message=f"{plain(box.box.name)} stands outside the {plain(bay.name)}, beyond its {side} side",
            rationale="a box belongs within the space it is hung in; say so where it belongs to another, or to none",
            label=f"{bay.name} {side}",
        )


def _middle(box: PlacedBox) -> Vec:
    return scaled(plus(*outside_of(box)), 0.5)


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
    return [
        (a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share) for a, b in zip(near.ring, far.ring, strict=True)
    ]
