"""The metal round a surveyed space as convex solids: behind its panels, round what reaches in, and its lumps and
hollows.

A space whose sections bulge nowhere inward is walled by its panels. Where one does (a floor with a tunnel, a wall with
a ridge), what lies between the section and a frame round it is cut into triangles, and each triangle is joined with its
fellow at the next station: the solids cover every point outside the space and may reach a little into it where a side
is strongly twisted, never the other way.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise

import shapely
from shapely.geometry import Polygon

from levelcradle.core.axes import Vec, plus, scaled
from levelcradle.core.bays.panels import BEHIND_MM, SHEET_MM, Panel, panels
from levelcradle.core.bays.sections import Point2, Section, extent, sections
from levelcradle.core.design.bay import Bay, BaySide, WallFeature
from levelcradle.core.solids import Solid, hull

__all__ = ["Metal", "metal"]

AXES_OF: dict[BaySide, tuple[int, int]] = {
    "left": (0, 2),
    "right": (0, 2),
    "floor": (0, 1),
    "top": (0, 1),
    "fore": (1, 2),
    "aft": (1, 2),
}


@dataclass(frozen=True, slots=True)
class Metal:
    """One convex piece of what walls a bay; ``lump`` names the lump it is."""

    side: BaySide
    solid: Solid
    lump: str = ""


def metal(bay: Bay, *, own_bay: bool) -> Iterator[Metal]:
    """Every piece of the metal sides. For a box that belongs in the bay, metal goes on behind the panel."""
    found, flat = sections(bay), list(panels(bay))
    hollow = [patch for patch in bay.lumps.values() if patch.hollow]
    depth = BEHIND_MM if own_bay else SHEET_MM
    convex = all(section.convex for section in found)
    for panel in flat:
        if getattr(bay.sides, panel.side).is_ != "metal":
            continue
        if convex or not own_bay or panel.side in ("fore", "aft"):
            if not convex and panel.side in ("fore", "aft"):
                yield Metal(panel.side, _end(bay, panel, depth))
            else:
                cuts = [patch for patch in hollow if patch.side == panel.side]
                yield from (Metal(panel.side, solid) for solid in _walled(panel, cuts, depth))
    if own_bay and not convex:
        yield from _round(bay, found)
    for key, patch in bay.lumps.items():
        if not patch.hollow:
            yield from (Metal(patch.side, solid, key) for solid in _lump(patch, flat))


def _end(bay: Bay, panel: Panel, depth_mm: float) -> Solid:
    """The end of a bulging space is no convex panel: its whole block is taken."""
    low, high = extent(bay)
    aft = panel.corners[0][0]
    back = aft + (depth_mm if panel.side == "aft" else -depth_mm)
    return hull([(x, y, z) for x in (aft, back) for y in (low[1], high[1]) for z in (low[2], high[2])])


def _walled(panel: Panel, hollows: list[WallFeature], depth_mm: float) -> Iterator[Solid]:
    """A panel's metal, its hollows left out and floored at their depth."""
    pieces: list[tuple[Vec, ...]] = [panel.corners]
    for patch in hollows:
        one, other = AXES_OF[panel.side]
        (a0, a1), (b0, b1) = patch.spans
        rest: list[tuple[Vec, ...]] = []
        for piece in pieces:
            middle = _clip(_clip(piece, one, a0, keep_above=True), one, a1, keep_above=False)
            rest += [_clip(piece, one, a0, keep_above=False), _clip(piece, one, a1, keep_above=True)]
            rest += [_clip(middle, other, b0, keep_above=False), _clip(middle, other, b1, keep_above=True)]
            hole = _clip(_clip(middle, other, b0, keep_above=True), other, b1, keep_above=False)
            if len(hole) > 2 and patch.proud_mm < depth_mm:
                floor = Panel(
                    panel.side, tuple(plus(c, scaled(panel.outward, patch.proud_mm)) for c in hole), panel.outward
                )
                yield floor.solid(depth_mm - patch.proud_mm)
        pieces = [piece for piece in rest if len(piece) > 2]
    yield from (Panel(panel.side, piece, panel.outward).solid(depth_mm) for piece in pieces)


def _clip(corners: Sequence[Vec], axis: int, at_mm: float, *, keep_above: bool) -> tuple[Vec, ...]:
    """The part of a flat convex polygon on one side of a plane square to an axis."""
    sign = 1.0 if keep_above else -1.0
    out: list[Vec] = []
    for a, b in zip(corners, [*corners[1:], *corners[:1]], strict=True):
        da, db = sign * (a[axis] - at_mm), sign * (b[axis] - at_mm)
        if da >= 0:
            out.append(a)
        if (da > 0 > db) or (da < 0 < db):
            t = da / (da - db)
            out.append((a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t, a[2] + (b[2] - a[2]) * t))
    spread = max((p[axis] for p in out), default=0.0) - min((p[axis] for p in out), default=0.0)
    return tuple(out) if spread > 1e-6 else ()


def _lump(patch: WallFeature, flat: list[Panel]) -> Iterator[Solid]:
    """What stands proud of a wall: the piece of each panel under it, pushed into the space."""
    one, other = AXES_OF[patch.side]
    (a0, a1), (b0, b1) = patch.spans
    for panel in flat:
        if panel.side != patch.side:
            continue
        under = _clip(_clip(panel.corners, one, a0, keep_above=True), one, a1, keep_above=False)
        under = _clip(_clip(under, other, b0, keep_above=True), other, b1, keep_above=False) if under else under
        if len(under) > 2:
            yield Panel(panel.side, under, scaled(panel.outward, -1.0)).solid(patch.proud_mm)


def _round(bay: Bay, found: Sequence[Section]) -> Iterator[Metal]:
    low, high = extent(bay)
    frame = [
        (low[1] - BEHIND_MM, low[2] - BEHIND_MM),
        (high[1] + BEHIND_MM, low[2] - BEHIND_MM),
        (high[1] + BEHIND_MM, high[2] + BEHIND_MM),
        (low[1] - BEHIND_MM, high[2] + BEHIND_MM),
    ]
    for near, far in pairwise(found):
        near_points, far_points = [*near.ring, *frame], [*far.ring, *frame]
        for triangle in _triangles(near.ring, frame):
            corners = [near_points.index(point) for point in triangle]
            side = _side_of(triangle, near)
            if getattr(bay.sides, side).is_ != "metal":
                continue
            solid = hull(
                [(near.aft_mm, *near_points[i]) for i in corners] + [(far.aft_mm, *far_points[i]) for i in corners]
            )
            yield Metal(side, solid)


def _triangles(ring: Sequence[Point2], frame: Sequence[Point2]) -> Iterator[list[Point2]]:
    """What lies between a section and the frame round it, in triangles that have no corners of their own."""
    between = Polygon(frame, [ring])
    if not between.is_valid:  # an outline that crosses itself bounds nothing: all of its block is taken as metal
        between = Polygon(frame)
    for part in shapely.constrained_delaunay_triangles(between).geoms:
        points = [(float(x), float(y)) for x, y in part.exterior.coords[:3]]
        if all(p in ring or p in frame for p in points):
            yield points


def _side_of(triangle: list[Point2], section: Section) -> BaySide:
    """The side whose edge lies nearest to a triangle's middle."""
    middle = shapely.Point(sum(p[0] for p in triangle) / 3, sum(p[1] for p in triangle) / 3)
    edges = zip(section.sides, section.ring, section.ring[1:] + section.ring[:1], strict=True)
    return min(edges, key=lambda edge: shapely.LineString(edge[1:]).distance(middle))[0]
