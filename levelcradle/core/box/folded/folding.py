"""A blank folded up: its flats and bends as solids, in the axes of the pan (middle of the base, up).

Every flat is a piece of the blank with the sheet's thickness; every bend is as heavy as the strip of the blank it is
made from, so that what stands in the car weighs what is cut; tabs and notches are weighed, not drawn. Solids of a bend
are wedges with the outside radius of the bend at their corners."""

import math
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise

from levelcradle.core.axes import Vec
from levelcradle.core.box.folded.flat_pattern import FlatPattern, Side
from levelcradle.core.box.folded.separate import separate_ring
from levelcradle.core.box.folded.tabs import notches_mm2, tabs_mm2
from levelcradle.core.part import Flat
from levelcradle.core.solids import Solid, hull

__all__ = ["Strip", "folded_up"]

WEDGE_DEG = 30.0
ENDS = ("front", "aft")
NEAR_MM = 1e-6  # on either side of a cut a flat is as long as it is there


@dataclass(frozen=True, slots=True)
class Strip:
    """A flat or a bend of a folded blank, or a panel welded on. ``face``: of the wall it belongs to, "" for the base;
    ``area_mm2`` of the blank; ``centre`` and ``solids`` in the axes of the pan."""

    face: str
    kind: str  # base | bend | slope | wall
    area_mm2: float
    thickness_mm: float
    centre: Vec
    solids: Callable[[], tuple[Solid, ...]]


def folded_up(pan: FlatPattern) -> Iterator[Strip]:
    """Base, then of each side its bends and flats from the base to the rim."""
    ring, t = pan.base_ring(), pan.base_mm or pan.bend.thickness_mm
    area, (x, y) = _area(ring)
    yield Strip(
        "",
        "base",
        area - notches_mm2(pan),
        t,
        (x, y, t / 2),
        lambda: (hull([(a, b, u) for a, b in ring for u in (0.0, t)]),),
    )
    for face, side in pan.sides.items():
        if face in pan.separate:
            wall = _flat(pan, face, "wall", separate_ring(pan, face), 0.0, (side.base_half_mm, 0.0), math.pi / 2)
            yield replace(wall, area_mm2=wall.area_mm2 + tabs_mm2(pan, face))
        else:
            yield from _side(pan, face, side)


def _side(pan: FlatPattern, face: str, side: Side) -> Iterator[Strip]:
    """Bend by bend: each begins where the flat before it ends, tangent to it."""
    at, turned = (side.base_half_mm, 0.0), 0.0
    ring, start = pan.side_ring(face), side.base_half_mm
    for n, (middle, angle) in enumerate(side.bends):
        width = pan.bend.allowance_mm_at(abs(angle))
        near, far = middle - width / 2, middle + width / 2
        if near > start + 1e-9:  # a slope, flat between two bends
            flat = _between(ring, start, near)
            yield _flat(pan, face, "slope", flat, start, at, turned)
            at = (at[0] + (near - start) * math.cos(turned), at[1] + (near - start) * math.sin(turned))
        reach = pan.bend_reach(face, on_base=n == 0)
        bend = _Bend(pan, face, at, turned, math.radians(angle), reach)
        yield Strip(face, "bend", width * (reach[1] - reach[0]), pan.bend.thickness_mm, bend.centre, bend.solids)
        at, turned, start = bend.end, turned + math.radians(angle), far
    yield _flat(pan, face, "wall", _between(ring, start, math.inf), start, at, turned)


def _flat(
    pan: FlatPattern, face: str, kind: str, ring: Sequence[Flat], start_mm: float, at: Flat, turned_mm: float
) -> Strip:
    """A flat whose outside begins at a point (out, up) of the section and leans by ``turned_mm`` from the base."""
    cos, sin, t = math.cos(turned_mm), math.sin(turned_mm), pan.bend.thickness_mm

    def place(out_mm: float, along_mm: float, depth_mm: float) -> Vec:
        s = out_mm - start_mm
        return _turned(face, at[0] + s * cos - depth_mm * sin, along_mm, at[1] + s * sin + depth_mm * cos)

    area, (out, along) = _area(ring)
    return Strip(
        face,
        kind,
        area,
        t,
        place(out, along, t / 2),
        lambda: tuple(hull([place(o, a, d) for o, a in part for d in (0.0, t)]) for part in _convex(pan, face, ring)),
    )


def _convex(pan: FlatPattern, face: str, ring: Sequence[Flat]) -> list[list[Flat]]:
    """A side's flat as convex rings: parted where it grows longer over the steps beside it."""
    if not ring:
        return []
    outs = [out for out, _ in ring]
    side = pan.sides[face]
    shelves = {pan.shelf_mm(face, other) for other in pan.steps if (other in ENDS) != (face in ENDS)} - {None}
    at = {up if face in pan.separate else side.at(up) for up in shelves if up is not None}
    cuts = [min(outs), *sorted(cut for cut in at if min(outs) < cut < max(outs)), max(outs)]
    if len(cuts) == 2:
        return [list(ring)]
    return [_between(ring, low + NEAR_MM, high - NEAR_MM) for low, high in pairwise(cuts)]


@dataclass(frozen=True, slots=True)
class _Bend:
    """A bend that begins at a point (out, up) of the section, ``turned`` from the base, and turns by ``angle`` more."""

    pan: FlatPattern
    face: str
    at: Flat
    turned: float
    angle: float
    reach: Flat

    @property
    def way(self) -> int:
        """1 where it closes the box, −1 where it goes back: the outside is then the inside of the bend."""
        return 1 if self.angle > 0 else -1

    @property
    def skin_mm(self) -> float:
        """The radius of its outside."""
        return self.pan.bend.setback_mm if self.angle > 0 else self.pan.bend.radius_mm

    @property
    def middle(self) -> Flat:
        radius = self.skin_mm * self.way
        return self.at[0] - radius * math.sin(self.turned), self.at[1] + radius * math.cos(self.turned)

    def point(self, radius_mm: float, angle: float) -> Flat:
        """``angle``: how far it has turned by then, whichever way."""
        (o, u), way, radius = self.middle, self.turned + self.way * angle, radius_mm * self.way
        return o + radius * math.sin(way), u - radius * math.cos(way)

    @property
    def end(self) -> Flat:
        return self.point(self.skin_mm, abs(self.angle))

    @property
    def _strip_area(self) -> float:
        return self.pan.bend.allowance_mm_at(abs(math.degrees(self.angle))) * self.pan.bend.thickness_mm

    @property
    def centre(self) -> Vec:
        """Of a ring sector: 2/3 sin(a/2)/(a/2) (R² + Rr + r²)/(R + r), r as its area asks (plane geometry)."""
        outer, half = self.pan.bend.setback_mm, abs(self.angle) / 2
        inner = math.sqrt(max(outer**2 - self._strip_area / half, 0.0))
        radius = 2 / 3 * math.sin(half) / half * (outer**2 + outer * inner + inner**2) / (outer + inner)
        out, up = self.point(radius, half)
        return _turned(self.face, out, sum(self.reach) / 2, up)

    def solids(self) -> tuple[Solid, ...]:
        """Wedges, their inner corners where all together have the strip's area; none where a deduction leaves no
        strip."""
        if self._strip_area <= 0:
            return ()
        turned, outer = abs(self.angle), self.pan.bend.setback_mm
        count = max(2, math.ceil(math.degrees(turned) / WEDGE_DEG))
        step = turned / count
        inner = math.sqrt(max(outer**2 - 2 * self._strip_area / (count * math.sin(step)), 0.0))
        return tuple(self._wedge(n * step, (n + 1) * step, inner, outer) for n in range(count))

    def _wedge(self, start: float, end: float, inner_mm: float, outer_mm: float) -> Solid:
        section = [self.point(radius, way) for radius in (inner_mm, outer_mm) for way in (start, end)]
        return hull([_turned(self.face, out, along, up) for out, up in section for along in self.reach])


def _turned(face: str, out_mm: float, along_mm: float, up_mm: float) -> Vec:
    """From (out, along, up) of a side to the pan's axes."""
    return {
        "aft": (out_mm, along_mm, up_mm),
        "front": (-out_mm, along_mm, up_mm),
        "right": (along_mm, out_mm, up_mm),
        "left": (along_mm, -out_mm, up_mm),
    }[face]


def _between(ring: Sequence[Flat], low_mm: float, high_mm: float) -> list[Flat]:
    """A convex ring of (out, along) between two outs."""
    for limit, sign in ((low_mm, 1.0), (high_mm, -1.0)):
        kept: list[Flat] = []
        for (a, p), (b, q) in zip(ring, (*ring[1:], *ring[:1]), strict=True):
            over, next_over = sign * (a - limit), sign * (b - limit)
            if over >= 0:
                kept.append((a, p))
            if (over > 0 > next_over) or (over < 0 < next_over):
                kept.append((limit, p + (q - p) * over / (over - next_over)))
        ring = kept
    return list(ring)


def _area(ring: Sequence[Flat]) -> tuple[float, Flat]:
    """(area, centroid) of a ring, whichever way it runs (shoelace formula)."""
    if not ring:
        return 0.0, (0.0, 0.0)
    twice = x = y = 0.0
    for (a, p), (b, q) in zip(ring, (*ring[1:], ring[0]), strict=True):
        part = a * q - b * p
        twice, x, y = twice + part, x + (a + b) * part, y + (p + q) * part
    if abs(twice) < 1e-9:
        return 0.0, ring[0]
    return abs(twice) / 2, (x / (3 * twice), y / (3 * twice))
