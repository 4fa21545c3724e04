"""Bringing the whole full box in and out of the vehicle: the way with least to take off first.

Straight where one way at least is not barred by metal; else over a short first leg; else leaned; else turned about its
upright. What stands in the way of the best move and could be taken off is named, and so are other boxes, which have to
be out first; sides of metal cannot be taken off. A box too heavy for two people goes up in a sling, which goes with it;
one that goes down stands on a jack or table, one that goes out level is slid on what it stands on."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field, replace
from functools import lru_cache
from itertools import count
from math import dist, radians, tan
from threading import Lock

import numpy as np

from levelcradle.core.assembly import Obstacle, PlacedBox, outside_of
from levelcradle.core.axes import Placement, Vec, dot, plus, rotation, scaled, vec
from levelcradle.core.box import on_face
from levelcradle.core.clearance.moves import meets, meets_each, turning
from levelcradle.core.solids import Solid, bounds, hull

__all__ = ["LEVEL_DEG", "OUT_MM", "TWO_PEOPLE_KG", "Exit", "as_obstacles", "best_exit", "sling"]

OUT_MM = 900.0  # moved so far it is out of its space: common practice, no source
LIFT_MM = 60.0  # a short first leg: over or under an edge
TILTS_DEG = (8.0, 16.0)
TURNS_DEG = (45.0, 90.0)
TWO_PEOPLE_KG = 50.0  # 25 each: common practice, no source
LEVEL_DEG = 60.0  # of a sling's legs to the level: common practice, no source
WAYS: dict[str, Vec] = {
    "downward": (0, 0, -1),
    "upward": (0, 0, 1),
    "forward": (-1, 0, 0),
    "aft": (1, 0, 0),
    "to the left": (0, -1, 0),
    "to the right": (0, 1, 0),
}
UPRIGHT: Vec = (0.0, 0.0, 1.0)
STILL: Vec = (0.0, 0.0, 0.0)


Leg = tuple[tuple[Solid, ...], Vec]  # pieces, and how far they go in a straight line


@dataclass(frozen=True, eq=False, slots=True)
class Path:
    """What goes along a way out, leg by leg. Known by identity, so that what it meets is kept while nothing of it
    moves."""

    legs: tuple[Leg, ...]


@dataclass(frozen=True, slots=True)
class Exit:
    """A way out: in words, what has to be off first, and which other boxes have to be out. ``path``: what goes along
    it."""

    words: str
    off: tuple[str, ...]
    fixed: bool  # something that cannot be taken off stands in it
    out: tuple[str, ...] = ()
    path: Path = field(default=Path(()), repr=False, compare=False)

    @property
    def free(self) -> bool:
        return not self.off and not self.out and not self.fixed


@dataclass(frozen=True, slots=True)
class _Held:
    """The pieces of a box, what lifts it where it goes up, and how it got there, in words."""

    pieces: tuple[Solid, ...]
    gear: tuple[Solid, ...]
    words: str = ""
    legs: tuple[Leg, ...] = ()

    @property
    def tray(self) -> Solid:
        """The largest piece: what it meets the box meets."""
        return self.pieces[0]

    def moved(self, placed: Placement, words: str, leg: Leg) -> "_Held":
        pieces, gear = (tuple(s.moved(placed) for s in group) for group in (self.pieces, self.gear))
        return _Held(pieces, gear, f"{self.words}{words}, then ", (*self.legs, leg))


def best_exit(box: PlacedBox, things: tuple[Obstacle, ...], others: Sequence[PlacedBox] = ()) -> Exit:
    """The way with least to take off first, and with fewest ``others`` to be out: boxes that hang there as well."""
    best: Exit | None = None
    for way in _search(box, things).exits():
        if best is None or _worth(way) < _worth(best):  # boxes in it make it no better
            way = replace(way, out=_barring(way, others))
            best = way if best is None or _worth(way) < _worth(best) else best
            if best.free:
                break
    assert best is not None, "there are always straight ways"
    return best


def _worth(way: Exit) -> tuple[bool, int]:
    return way.fixed, len(way.off) + len(way.out)


def _barring(way: Exit, others: Sequence[PlacedBox]) -> tuple[str, ...]:
    """Boxes that stand in a way."""
    return tuple(other.box.name for other in others if _bars(way.path, other))


@lru_cache(maxsize=4096)
def _bars(path: Path, other: PlacedBox) -> bool:
    low, high = outside_of(other)
    for (pieces, by), (from_, to) in zip(path.legs, _spaces(path), strict=True):
        if all(from_[i] < high[i] and low[i] < to[i] for i in range(3)) and meets(pieces, as_obstacles(other), by):
            return True
    return False


@lru_cache(maxsize=1024)
def _spaces(path: Path) -> tuple[tuple[Vec, Vec], ...]:
    """The upright block round what goes along each leg, on the whole way."""
    found = []
    for pieces, by in path.legs:
        low, high = bounds(pieces)
        start, end = low.min(axis=0), high.max(axis=0)
        found.append((vec(np.minimum(start, start + by)), vec(np.maximum(end, end + by))))
    return tuple(found)


@lru_cache(maxsize=512)
def as_obstacles(box: PlacedBox) -> tuple[Obstacle, ...]:
    """A box as others meet it."""
    return tuple(Obstacle(box.path, box.box.name, p.solid, "same") for p in box.pieces if p.role != "fastener")


@lru_cache(maxsize=256)
def _search(box: PlacedBox, things: tuple[Obstacle, ...]) -> "_Search":
    return _Search(box, things)


class _Search:
    """The ways out of what stands round a box but other boxes, found as far as somebody asked, and kept: other boxes
    come and go."""

    def __init__(self, box: PlacedBox, things: tuple[Obstacle, ...]) -> None:
        self._found: list[Exit] = []
        self._more = _ways(box, things)
        self._lock = Lock()

    def exits(self) -> Iterator[Exit]:
        for n in count():
            with self._lock:
                if n == len(self._found):
                    way = next(self._more, None)
                    if way is None:
                        return
                    self._found.append(way)
            yield self._found[n]


def _ways(box: PlacedBox, things: tuple[Obstacle, ...]) -> Iterator[Exit]:
    """Straight ones; where metal bars all of them over a short first leg, then leaned, then turned."""
    held = _Held(tuple(p.solid for p in box.pieces if p.role != "fastener"), tuple(sling(box)))
    fixed = True
    for exit_ in _straight(held, things):
        fixed = fixed and exit_.fixed
        yield exit_
    if fixed and not meets(held.pieces, things, STILL):  # what stands in something takes no free first leg
        for more in (_two_legs, _leaned, _turned):
            if fixed:
                for exit_ in more(box, held, things):
                    fixed = fixed and exit_.fixed
                    yield exit_


def sling(box: PlacedBox) -> Iterator[Solid]:
    """From its lifting eyes, else the corners of its lid, to a hook over their middle; none for what two people
    lift."""
    if box.hung_kg <= TWO_PEOPLE_KG:
        return
    length, width, height = box.shell.outer_mm
    eyes = [on_face(p, box.shell.outer_mm) for p in box.box.protrusions.values() if p.kind == "lifting eye"]
    corners: list[Vec] = [(x, y, height) for x in (0.0, length) for y in (0.0, width)]
    feet = [box.placement.point(p) for p in (eyes if len(eyes) > 1 else corners)]
    middle = scaled((sum(p[0] for p in feet), sum(p[1] for p in feet), sum(p[2] for p in feet)), 1 / len(feet))
    up = max(dist(p, middle) for p in feet) * tan(radians(LEVEL_DEG))
    for foot in feet:
        yield hull([plus(foot, by) for by in LEG] + [plus(plus(middle, (0.0, 0.0, up)), by) for by in LEG])


LEG: tuple[Vec, ...] = (
    (-8, -8, 0),
    (8, -8, 0),
    (8, 8, 0),
    (-8, 8, 0),
)  # of a chain or webbing: common practice, no source


def _straight(held: _Held, things: Sequence[Obstacle], along: Vec = STILL) -> Iterator[Exit]:
    """Every way out but those along a leg that was just gone."""
    ways = {word: way for word, way in WAYS.items() if not dot(way, along)}
    moves = [scaled(way, OUT_MM) for way in ways.values()]
    for (word, way), by, found in zip(ways.items(), moves, meets_each([held.tray], things, moves), strict=True):
        if not any(_is_metal(o) for o in found):
            found = [*found, *meets([*held.pieces[1:], *_lifting(held, way)], _other(things, found), by)]
        off = tuple(dict.fromkeys(o.name for o in found if not _is_metal(o)))
        leg = (*held.pieces, *_lifting(held, way)), by
        yield Exit(f"{held.words}{word}", off, any(_is_metal(o) for o in found), path=Path((*held.legs, leg)))


def _other(things: Sequence[Obstacle], found: Sequence[Obstacle]) -> Sequence[Obstacle]:
    """Things but those that were met already."""
    paths = {thing.path for thing in found}
    return [thing for thing in things if thing.path not in paths] if paths else things


def _lifting(held: _Held, way: Vec) -> tuple[Solid, ...]:
    return held.gear if way[2] > 0 else ()


def _two_legs(box: PlacedBox, held: _Held, things: Sequence[Obstacle]) -> Iterator[Exit]:
    for first, leg in WAYS.items():
        by = scaled(leg, LIFT_MM)
        if meets([held.tray], things, by) or meets([*held.pieces[1:], *_lifting(held, leg)], things, by):
            continue
        there = held.moved(Placement(np.eye(3), by), f"{LIFT_MM:g} {first}", ((*held.pieces, *_lifting(held, leg)), by))
        yield from _straight(there, things, leg)


LEANS: tuple[tuple[str, Vec, float], ...] = (
    ("nose raised", (0.0, 1.0, 0.0), 1.0),
    ("nose lowered", (0.0, 1.0, 0.0), -1.0),
    ("right side raised", (1.0, 0.0, 0.0), 1.0),
    ("left side raised", (1.0, 0.0, 0.0), -1.0),
)


def _leaned(box: PlacedBox, held: _Held, things: Sequence[Obstacle]) -> Iterator[Exit]:
    """About its centre of gravity, nose up or down or to a side, free all through the lean."""
    for tilt in TILTS_DEG:
        for words, axis, sign in LEANS:
            yield from _after(box, held, things, axis, sign * tilt, f"{words} {tilt:g}°")


def _turned(box: PlacedBox, held: _Held, things: Sequence[Obstacle]) -> Iterator[Exit]:
    """About its upright, where it stands or a short leg up or down, free all through the turn."""
    for first in ("", "upward", "downward"):
        there = held
        if first:
            by = scaled(WAYS[first], LIFT_MM)
            if meets([*held.pieces, *_lifting(held, WAYS[first])], things, by):
                continue
            there = held.moved(Placement(np.eye(3), by), f"{LIFT_MM:g} {first}", (held.pieces, by))
        for turn in TURNS_DEG:
            for word, sign in (("right", 1.0), ("left", -1.0)):
                yield from _after(
                    box, there, things, UPRIGHT, sign * turn, f"turned {turn:g}°, its aft end to the {word}"
                )


def _after(
    box: PlacedBox, held: _Held, things: Sequence[Obstacle], axis: Vec, angle_deg: float, words: str
) -> Iterator[Exit]:
    """Straight out once it has been turned. The turn itself is looked at last: it is dear, and mostly the end of it
    tells."""
    angles = (angle_deg, 0.0, 0.0) if axis == UPRIGHT else (0.0, angle_deg, 0.0) if axis[1] else (0.0, 0.0, angle_deg)
    placed = Placement.about(box.cg, box.cg, rotation(*angles))
    if meets([held.tray.moved(placed)], things, STILL):
        return
    there = held.moved(placed, words, (held.pieces, STILL))
    if meets(there.pieces, things, STILL):
        return
    ways = [e for e in _straight(there, things) if not e.fixed]
    if not ways:
        return
    turned = tuple(turning(held.pieces, box.cg, axis, angle_deg))
    if not meets(turned, things, STILL):
        yield from (replace(e, path=Path((*e.path.legs, (turned, STILL)))) for e in ways)


def _is_metal(thing: Obstacle) -> bool:
    return thing.path.startswith(("bays/", "members/"))
