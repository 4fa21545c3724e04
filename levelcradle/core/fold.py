"""A flat part folded along its bend lines: its flats in place and the bends between them, for pictures and solid files.

It knows nothing of boxes or brackets: only the outline, the bend lines and their allowances, so that what comes out is
what the folder gets from the blank."""

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace

import numpy as np
import shapely
from numpy.typing import NDArray
from shapely.geometry import LineString, Point, Polygon

from levelcradle.core.axes import Matrix, Placement, Vec, vec
from levelcradle.core.errors import OutOfRange
from levelcradle.core.part import Bend, Flat, FlatPart
from levelcradle.core.solids import Solid, hull, joined

__all__ = ["FoldedFlat", "FoldedPart", "TurnedStrip", "fold"]

WEDGE_DEG = 15.0
CLOSE_MM = 1e-3
SIDES = 24  # of a hole in the solids


@dataclass(frozen=True, slots=True, eq=False)
class FoldedFlat:
    """What stays flat: its piece of the blank, and where the blank's own frame comes to lie with it."""

    ring: Polygon
    placement: Placement


@dataclass(frozen=True, slots=True, eq=False)
class TurnedStrip:
    """A bend: ``placement`` puts the strip's own frame (x along the bend line, y outward, z up from the lower side;
    origin where the bend begins) where it is; it turns by ``angle_deg`` about a line at ``axis_mm`` up."""

    length_mm: float
    angle_deg: float
    axis_mm: float
    placement: Placement


@dataclass(frozen=True, slots=True, eq=False)
class FoldedPart:
    part: FlatPart
    flats: tuple[FoldedFlat, ...]
    strips: tuple[TurnedStrip, ...]

    def in_own_frame(self) -> "FoldedPart":
        """The same part, the frame of its blank lying where its root lies."""
        root = self.part.stand.placement.inverse if self.part.stand else Placement(np.eye(3), (0.0, 0.0, 0.0))
        flats = tuple(FoldedFlat(f.ring, root.after(f.placement)) for f in self.flats)
        return FoldedPart(self.part, flats, tuple(replace(s, placement=root.after(s.placement)) for s in self.strips))

    def solids(self) -> Iterator[Solid]:
        """Convex solids that fill it, holes left out, bends as wedges."""
        t = self.part.thickness_mm
        for flat in self.flats:
            for ring in _convex(flat.ring):
                corners = np.array([(x, y, z) for x, y in ring for z in (0.0, t)])
                yield hull([vec(p) for p in flat.placement.points(corners)])
        yield from self._bends()

    def mesh(self) -> tuple[Matrix, NDArray[np.int64]]:
        """(n, 3) points and (m, 3) triangles of its outside, with its holes."""
        t = self.part.thickness_mm
        return joined(self._bends(), [(_pierced(flat, self.part), t, flat.placement) for flat in self.flats])

    def _bends(self) -> Iterator[Solid]:
        for strip in self.strips:
            yield from _wedges(strip, self.part.thickness_mm)


def fold(part: FlatPart) -> FoldedPart:
    """Folds every bend by its angle, from the flat that holds the part's root (its largest, where it has none).

    Raises: OutOfRange where a bend does not part the blank in two.
    """
    strips = {bend: _strip(bend) for bend in part.bends}
    whole = Polygon(part.outline)
    left = whole.difference(shapely.union_all(list(strips.values())))
    rings = [ring for ring in getattr(left, "geoms", [left]) if ring.area > 1.0]
    start = part.stand.placement if part.stand else Placement(np.eye(3), (0.0, 0.0, 0.0))
    first = min(rings, key=lambda r: r.distance(Point(part.stand.root)) if part.stand else -r.area)
    placed, turned, waiting = {id(first): FoldedFlat(first, start)}, list[TurnedStrip](), [first]
    while waiting:
        ring = waiting.pop(0)
        for bend in part.bends:
            found = _across(bend, ring, [r for r in rings if id(r) not in placed])
            if found:
                other, out = found
                frame = placed[id(ring)].placement.after(_edge_frame(bend, out))
                turned.append(_turned_strip(bend, part.thickness_mm, frame))
                placed[id(other)] = FoldedFlat(other, _folded_over(placed[id(ring)].placement, bend, out, part))
                waiting.append(other)
    if len(placed) != len(rings) or len(turned) != len(part.bends):
        raise OutOfRange(f"{part.name}: a bend line does not part the blank in two")
    return FoldedPart(part, tuple(placed.values()), tuple(turned))


def _strip(bend: Bend) -> Polygon:
    return LineString([bend.start, bend.end]).buffer(bend.allowance_mm / 2, cap_style="flat")


def _across(bend: Bend, ring: Polygon, others: list[Polygon]) -> tuple[Polygon, Flat] | None:
    """What lies beyond a bend that begins at a flat, and the way there."""
    (x0, y0), (x1, y1) = bend.start, bend.end
    long = math.hypot(x1 - x0, y1 - y0)
    middle, half = ((x0 + x1) / 2, (y0 + y1) / 2), bend.allowance_mm / 2
    for sign in (1, -1):
        out = (sign * (y1 - y0) / long, -sign * (x1 - x0) / long)
        near = Point(middle[0] - out[0] * half, middle[1] - out[1] * half)
        far = Point(middle[0] + out[0] * half, middle[1] + out[1] * half)
        if ring.distance(near) < CLOSE_MM:
            beyond = next((other for other in others if other.distance(far) < CLOSE_MM), None)
            if beyond is not None:
                return beyond, out
    return None


def _edge_frame(bend: Bend, out: Flat) -> Placement:
    """The strip's own frame in the blank: x along the line so that y goes outward and z up."""
    along = (out[1], -out[0])
    start = min((bend.start, bend.end), key=lambda p: p[0] * along[0] + p[1] * along[1])
    half = bend.allowance_mm / 2
    turn = np.array([(*along, 0.0), (*out, 0.0), (0.0, 0.0, 1.0)]).T
    return Placement(turn, (start[0] - out[0] * half, start[1] - out[1] * half, 0.0))


def _turned_strip(bend: Bend, thickness_mm: float, frame: Placement) -> TurnedStrip:
    length = math.dist(bend.start, bend.end)
    axis = thickness_mm + bend.radius_mm if bend.up else -bend.radius_mm
    return TurnedStrip(length, bend.angle_deg if bend.up else -bend.angle_deg, axis, frame)


def _folded_over(before: Placement, bend: Bend, out: Flat, part: FlatPart) -> Placement:
    """Where the blank's frame comes to lie beyond a bend: drawn in by the allowance, then turned about the axis."""
    frame = _edge_frame(bend, out)
    strip = _turned_strip(bend, part.thickness_mm, frame)
    turn = _about_x(strip.angle_deg)
    axis = np.array([0.0, 0.0, strip.axis_mm])
    drawn_in = np.array([0.0, -bend.allowance_mm, 0.0])
    turned = Placement(turn, vec(axis + turn @ (drawn_in - axis)))
    return before.after(frame).after(turned).after(frame.inverse)


def _about_x(angle_deg: float) -> Matrix:
    cos, sin = math.cos(math.radians(angle_deg)), math.sin(math.radians(angle_deg))
    return np.array([[1.0, 0.0, 0.0], [0.0, cos, -sin], [0.0, sin, cos]])


def _wedges(strip: TurnedStrip, thickness_mm: float) -> Iterator[Solid]:
    count = max(1, math.ceil(abs(strip.angle_deg) / WEDGE_DEG))
    for n in range(count):
        points: list[Vec] = []
        for angle in (strip.angle_deg * n / count, strip.angle_deg * (n + 1) / count):
            turn = _about_x(angle)
            for z in (0.0, thickness_mm):
                _, y, up = turn @ np.array([0.0, 0.0, z - strip.axis_mm])
                points += [(x, float(y), float(up) + strip.axis_mm) for x in (0.0, strip.length_mm)]
        yield hull([vec(p) for p in strip.placement.points(np.array(points))])


def _pierced(flat: FoldedFlat, part: FlatPart) -> Polygon:
    quarter = SIDES // 4
    round_ = [Point(h.at).buffer(h.diameter_mm / 2, quad_segs=quarter) for h in part.holes]
    out = [*round_, *(Polygon(cut.outline) for cut in part.cutouts)]
    return flat.ring.difference(shapely.union_all([r for r in out if r.intersects(flat.ring)]))


def _convex(ring: Polygon) -> Iterator[list[Flat]]:
    """A flat as convex rings."""
    hulled = ring.convex_hull
    if not ring.interiors and hulled.area - ring.area < CLOSE_MM:
        yield list(hulled.exterior.coords)[:-1]
        return
    for triangle in shapely.constrained_delaunay_triangles(ring).geoms:
        yield list(triangle.exterior.coords)[:-1]
