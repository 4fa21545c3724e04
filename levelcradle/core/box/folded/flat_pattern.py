"""A rectangle of sheet with four sides turned up: where each flat and bend of the blank begins.

Two opposite sides, left and right, run over the whole length; front and aft stand between them. At each corner the
sheet is cut back to where the bends begin, so that it does not tear, and the corner is welded.

            ┌──────────────┐  right wall, over the whole length
        ┌───┘              └───┐
        │  ┌ ─ ─ bend ─ ─ ─ ┐  │
        │                      │  front and aft walls, between the long ones
        │  └ ─ ─ ─ ─ ─ ─ ─ ─┘  │
        └───┐              ┌───┘
            └──────────────┘  left wall

An edge of the base that is cut off makes two bends of one: base, slope, wall. An upright edge that is cut off ends both
walls early and takes the corner off the base; a plate of its own is welded into it. An edge of the rim that is cut off
ends its wall lower and takes the upper corners off the two beside it. A step, an edge of the base cut out square, makes
three bends of one: base, riser, shelf, wall; the middle one goes back.

A side may be a panel of its own: the base then goes out to its outside, the panel stands on it and is welded on.
"""

import math
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property
from itertools import combinations

from levelcradle.core.part import Bend, Flat, bend_setback_mm

__all__ = ["FIT_UP_MM", "FlatPattern", "SheetBend", "Slope", "edge_profile", "pan_bends", "pan_outline"]

SAME_MM = 1e-6
FIT_UP_MM = 0.5  # gap at a welded corner, common practice, no source
FACES = ("front", "aft", "left", "right")
_QUARTERS = (
    (("aft", 1), ("right", 1)),
    (("front", -1), ("right", 1)),
    (("front", -1), ("left", -1)),
    (("aft", 1), ("left", -1)),
)


@dataclass(frozen=True, slots=True)
class SheetBend:
    """The bend of one sheet: deduction and allowance at 90 degrees, and where the figure comes from."""

    radius_mm: float
    thickness_mm: float
    deduction_mm: float
    source: str

    @property
    def setback_mm(self) -> float:
        """From the outside apex back to where the bend begins."""
        return self.radius_mm + self.thickness_mm

    @property
    def allowance_mm(self) -> float:
        return 2 * self.setback_mm - self.deduction_mm

    def setback_mm_at(self, angle_deg: float) -> float:
        return bend_setback_mm(angle_deg, self.setback_mm)

    def allowance_mm_at(self, angle_deg: float) -> float:
        """The neutral fibre is as long as the bend is wide."""
        return self.allowance_mm * angle_deg / 90

    def deduction_mm_at(self, angle_deg: float) -> float:
        return 2 * self.setback_mm_at(angle_deg) - self.allowance_mm_at(angle_deg)


@dataclass(frozen=True, slots=True)
class Slope:
    """An edge of the base cut off: so far along the base and up the wall."""

    base_mm: float
    wall_mm: float

    @property
    def long_mm(self) -> float:
        return math.hypot(self.base_mm, self.wall_mm)

    @property
    def angles_deg(self) -> tuple[float, float]:
        """From the base to the slope, and from the slope to the wall."""
        first = math.degrees(math.atan2(self.wall_mm, self.base_mm))
        return first, 90 - first


@dataclass(frozen=True, slots=True)
class Side:
    """A side of the blank, outward from the middle of the base.

    Attributes:
        base_half: the base that stays flat; strip_start: where the first bend ends.
        wall_start, wall_from: where the flat of the wall begins, and its height off the outside of the base there.
        bends: middle of each bend, and its angle.
    """

    base_half_mm: float
    strip_start_mm: float
    wall_start_mm: float
    wall_from_mm: float
    bends: tuple[tuple[float, float], ...]

    def at(self, height_mm: float) -> float:
        return self.wall_start_mm + height_mm - self.wall_from_mm


@dataclass(frozen=True)
class FlatPattern:
    """A rectangle with four turned sides, by its outside size; flat coordinates start at the middle of the base.

    ``slopes``: edges of the base cut off, by the wall's face. ``corners``: upright edges cut off, by the faces of the
    end wall and the long wall: so far along the long wall and along the end wall. ``separate``: sides that are panels
    of their own; ``base_mm``: of a base thicker than the walls, which are all separate then; ``tabbed``: they stand in
    notches of the base. ``tops``: edges of the rim cut off, by the wall's face: so far inward along the top and down
    the wall. ``heights``: of walls that are not as high as all. ``steps``: edges of the base cut out square, by the
    wall's face: so far inward along the base and up the wall."""

    length_mm: float
    width_mm: float
    height_mm: float
    bend: SheetBend
    slopes: Mapping[str, Slope] = field(default_factory=dict)
    corners: Mapping[tuple[str, str], Flat] = field(default_factory=dict)
    separate: frozenset[str] = frozenset()
    base_mm: float | None = None
    tabbed: bool = False
    tops: Mapping[str, Flat] = field(default_factory=dict)
    heights: Mapping[str, float] = field(default_factory=dict)
    steps: Mapping[str, Flat] = field(default_factory=dict)

    @property
    def bent_twice(self) -> frozenset[str]:
        """The sides with more than one bend: they are never cut apart."""
        return frozenset(self.slopes) | frozenset(self.steps)

    def shelf_mm(self, face: str, other: str) -> float | None:
        """The height at which a side grows longer, over the step of another; None where that has none."""
        if other not in self.steps:
            return None
        return self.steps[other][1] + (self.bend.thickness_mm + FIT_UP_MM if face in ("front", "aft") else 0.0)

    def high_mm(self, face: str) -> float:
        """From the outside of the base to the rim of a wall."""
        return self.heights.get(face, self.height_mm)

    @property
    def foot_mm(self) -> float:
        """From the outside of the base to a panel that stands on it."""
        return (self.base_mm or self.bend.thickness_mm) + FIT_UP_MM

    @cached_property
    def sides(self) -> dict[str, Side]:
        return {face: _side(self, face) for face in FACES}

    def on_side(self, face: str, along_mm: float, height_mm: float) -> Flat:
        """A point on a wall, by its place along the wall from the middle and its height off the outside of the base."""
        out = self.sides[face].at(height_mm)
        return {"front": (-out, along_mm), "aft": (out, along_mm), "left": (along_mm, -out), "right": (along_mm, out)}[
            face
        ]

    def base_ring(self) -> list[Flat]:
        """What stays of the base between its bends, a convex ring."""
        quarters = []
        for (end, x), (long, y) in _QUARTERS:
            half = (self.sides[end].base_half_mm, self.sides[long].base_half_mm)
            cut = self.corners.get((end, long))
            whole = (self.length_mm / 2, self.width_mm / 2)
            corner = list(_off_the_base(cut, whole, half)) if cut else [half]
            quarters.append([(x * a, y * b) for a, b in (corner if x == y else reversed(corner))])
        return [point for quarter in quarters for point in quarter]

    def side_ring(self, face: str) -> list[Flat]:
        """A side of the blank from the end of its first bend to its rim: a ring of (out, along), convex but beside a
        step."""
        if face in ("front", "aft"):
            right, left = (list(_end_edge(self, face, long)) for long in ("right", "left"))
        else:
            right, left = (
                [(out, along) for along, out in _long_edge(self, end, face)][::-1] for end in ("aft", "front")
            )
        return [*((out, -along) for out, along in left), *reversed(right)]

    def bend_reach(self, face: str, *, on_base: bool) -> Flat:
        """From where to where along it a bend of a side goes."""
        low, high = ("left", "right") if face in ("front", "aft") else ("front", "aft")
        return -_reach(self, face, low, on_base=on_base), _reach(self, face, high, on_base=on_base)

    def ends(self, end: str, long: str) -> Flat:
        """How far the long wall and the end wall reach at a corner, from the middle of the base: along, across."""
        if cut := self.corners.get((end, long)):
            return self.length_mm / 2 - cut[0] - FIT_UP_MM, self.width_mm / 2 - cut[1] - FIT_UP_MM
        return self.length_mm / 2, self.width_mm / 2 - self.bend.thickness_mm - FIT_UP_MM


def _side(pan: FlatPattern, face: str) -> Side:
    half, bend = (pan.length_mm if face in ("front", "aft") else pan.width_mm) / 2, pan.bend
    slope = pan.slopes.get(face)
    if face in pan.separate:
        return Side(half, half, half, 0.0, ())
    if face in pan.steps:
        return _stepped(pan, face, half)
    if slope is None:
        base, start = half - bend.setback_mm, half - bend.setback_mm + bend.allowance_mm
        return Side(base, start, start, bend.setback_mm, (((base + start) / 2, 90.0),))
    first, second = slope.angles_deg
    base = half - slope.base_mm - bend.setback_mm_at(first)
    strip = base + bend.allowance_mm_at(first)
    end = strip + slope.long_mm - bend.setback_mm_at(first) - bend.setback_mm_at(second)
    wall = end + bend.allowance_mm_at(second)
    height = slope.wall_mm + bend.setback_mm_at(second)
    return Side(
        base,
        strip,
        wall,
        height,
        (((base + strip) / 2, first), ((end + wall) / 2, second)),
    )


def _stepped(pan: FlatPattern, face: str, half_mm: float) -> Side:
    """Up, back and up again: of the bend back the outside is the inside of the bend, and as far from its apex as its
    radius."""
    (in_, up), bend = pan.steps[face], pan.bend
    out, back, width = bend.setback_mm, bend.radius_mm, bend.allowance_mm
    base = half_mm - in_ - out
    riser = base + width
    shelf = riser + (up - out - back) + width
    wall = shelf + (in_ - back - out) + width
    middles = ((base + width / 2, 90.0), (shelf - width / 2, -90.0), (wall - width / 2, 90.0))
    return Side(base, riser, wall, up + out, middles)


def pan_outline(pan: FlatPattern) -> tuple[Flat, ...]:
    """Outline of the blank, counter-clockwise, each corner once."""
    aft_right, front_left = list(_corner(pan, "aft", "right")), list(_corner(pan, "front", "left"))
    front_right, aft_left = list(_corner(pan, "front", "right")), list(_corner(pan, "aft", "left"))
    ring = (
        *aft_right,
        *((-x, y) for x, y in reversed(front_right)),
        *((-x, -y) for x, y in front_left),
        *((x, -y) for x, y in reversed(aft_left)),
    )
    # where the wall ends level with the base there is no step between them
    return tuple(at for n, at in enumerate(ring) if math.dist(at, ring[n - 1]) > SAME_MM)


def _corner(pan: FlatPattern, end: str, long: str) -> Iterator[Flat]:
    """From the rim of the end wall to the rim of the long wall, as if both lay on the positive sides."""
    if end not in pan.separate:
        yield from _end_edge(pan, end, long)
    yield from _base_corner(pan, end, long)
    if long not in pan.separate:
        yield from _long_edge(pan, end, long)


def _end_edge(pan: FlatPattern, end: str, long: str) -> Iterator[Flat]:
    """The edge of an end wall towards a long one, from its rim to where its first bend ends: (out, across)."""
    yield from reversed(_edge(pan, end, long))


def _base_corner(pan: FlatPattern, end: str, long: str) -> Iterator[Flat]:
    """From one bend to the other round the corner of the base."""
    x, y = pan.sides[end], pan.sides[long]
    cut = pan.corners.get((end, long))
    reach_x, reach_y = pan.ends(end, long)
    if end not in pan.separate:
        yield (x.base_half_mm, reach_y) if cut or long in pan.separate else (x.strip_start_mm, y.base_half_mm)
    if cut:
        yield from _off_the_base(cut, (pan.length_mm / 2, pan.width_mm / 2), (x.base_half_mm, y.base_half_mm))
    else:
        yield x.base_half_mm, y.base_half_mm
    if long not in pan.separate:
        yield (reach_x, y.base_half_mm) if cut or end in pan.separate else (x.base_half_mm, y.strip_start_mm)


def _long_edge(pan: FlatPattern, end: str, long: str) -> Iterator[Flat]:
    """The edge of a long wall towards an end one, from where its first bend ends to its rim: (along, out)."""
    yield from ((along, out) for out, along in _edge(pan, long, end))


def _edge(pan: FlatPattern, face: str, other: str) -> list[Flat]:
    """The edge of a side towards another, from where its first bend ends to its rim: (out, along)."""
    wall = pan.sides[face]
    (_, foot), *above = edge_profile(pan, face, other, wall.wall_from_mm)
    return [(wall.strip_start_mm, foot), *((wall.at(height), along) for height, along in above)]


def edge_profile(pan: FlatPattern, face: str, other: str, low_mm: float) -> list[Flat]:
    """The edge of a side towards another, upward from a height to its rim: (height off the outside of the base, along).

    An end wall stands on the inside of the long wall's slope, a fit-up off, which is met at half a width less
    ``base_mm`` plus ``base_mm / wall_mm`` for each millimetre up; a long wall ends flush with the outside of the end
    wall's. Both end flush with what is cut off the rim."""
    is_end, high = face in ("front", "aft"), pan.high_mm(face)
    half = (pan.width_mm if is_end else pan.length_mm) / 2
    lines = [(pan.ends(face, other)[1] if is_end else pan.ends(other, face)[0], 0.0)]
    if slope := pan.slopes.get(other):
        in_ = (pan.bend.thickness_mm + FIT_UP_MM) * slope.long_mm / slope.wall_mm if is_end else 0.0
        lines.append((half - slope.base_mm - in_, slope.base_mm / slope.wall_mm))
    if top := pan.tops.get(other):
        lean = top[0] / top[1]
        lines.append((half - top[0] + pan.height_mm * lean, -lean))

    shelf = pan.shelf_mm(face, other)
    if shelf is not None and shelf > low_mm:
        foot = half - pan.steps[other][0] - (shelf - pan.steps[other][1])
        return [(low_mm, foot), (shelf, foot), *_least(lines, shelf, high)]
    return _least(lines, low_mm, high)


def _least(lines: Sequence[Flat], low_mm: float, high_mm: float) -> list[Flat]:
    """The least of some lines between two heights, corner by corner."""
    if len(lines) == 1:  # nearly always
        ((start, rise),) = lines
        return [(height, start + rise * height) for height in (low_mm, high_mm)]

    def along(height_mm: float) -> float:
        return min(start + rise * height_mm for start, rise in lines)

    crossings = ((b - a) / (p - q) for (a, p), (b, q) in combinations(lines, 2) if p != q)
    turns = {h for h in crossings if low_mm < h < high_mm and _is_corner(lines, along, h)}
    return [(height, along(height)) for height in sorted({low_mm, *turns, high_mm})]


def _is_corner(lines: Sequence[Flat], along: Callable[[float], float], height_mm: float) -> bool:
    """Whether two of the lines end the wall there."""
    return sum(abs(start + rise * height_mm - along(height_mm)) < SAME_MM for start, rise in lines) > 1


def _off_the_base(cut: Flat, half: Flat, flat: Flat) -> Iterator[Flat]:
    """The slanting edge of the base, between what stays flat of it either way."""
    along, across = cut
    yield flat[0], half[1] - across * (1 - (half[0] - flat[0]) / along)
    yield half[0] - along * (1 - (half[1] - flat[1]) / across), flat[1]


def pan_bends(pan: FlatPattern) -> Iterator[Bend]:
    """Bend lines: next to the base between its other sides, beyond a slope as long as the wall."""
    for face in ("aft", "front", "right", "left"):
        end = face in ("front", "aft")
        sign = 1 if face in ("aft", "right") else -1
        for n, (out, angle) in enumerate(pan.sides[face].bends):
            line = [(sign * out, along) for along in pan.bend_reach(face, on_base=n == 0)]
            start, stop = line if end else [(b, a) for a, b in line]
            yield Bend(start, stop, abs(angle), pan.bend.radius_mm, angle > 0, pan.bend.allowance_mm_at(abs(angle)))


def _reach(pan: FlatPattern, face: str, other: str, *, on_base: bool) -> float:
    """How far a bend of a side goes towards another."""
    end, long = (face, other) if face in ("front", "aft") else (other, face)
    along, across = pan.ends(end, long)
    wall = across if face == end else along
    return min(pan.sides[other].base_half_mm, wall) if on_base else wall
