"""Boxes that hold two grids: of two kinds, or of one kind on two resting faces, the second after the first along,
across or up."""

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from itertools import permutations
from math import prod

from levelcradle.core.axes import Vec, vec
from levelcradle.core.design.box import Block, Counts, Orientation
from levelcradle.core.design.stock import ModuleKind
from levelcradle.core.fit.grids import Triple
from levelcradle.core.modules import Laid, lay_out, needed_between_mm

__all__ = ["Pair", "pairs"]

MOST_ALONG = 40
MOST_GRIDS = 40  # so many of the first kind's counts are looked at, spread over all


@dataclass(frozen=True, slots=True)
class Pair:
    """Two blocks, how many modules they hold, and the room inside a box that they and their faces ask for."""

    blocks: Mapping[str, Block]
    modules: int
    inside_mm: Vec


@dataclass(frozen=True, slots=True)
class _Part:
    """A kind in a turn: one module laid out, and what each further one adds each way."""

    key: str
    kind: ModuleKind
    turn: Orientation
    one: Laid
    pitch: Vec

    @staticmethod
    def of(key: str, kind: ModuleKind, turn: Orientation) -> "_Part":
        one = lay_out(Block(kind=key, turn=turn), kind)
        x, y, z = (s + g for s, g in zip(one.size_mm, one.turned.neighbour_mm, strict=True))
        return _Part(key, kind, turn, one, (x, y, z))

    def needed_mm(self, counts: Triple, axis: int) -> float:
        """With the room before both ends."""
        return (
            self.one.size_mm[axis]
            + (counts[axis] - 1) * self.pitch[axis]
            + sum(self.one.turned.face_clearance_mm[2 * axis : 2 * axis + 2])
        )

    def most(self, axis: int, room_mm: float) -> int:
        """How many go one way into a room."""
        left = room_mm - self.needed_mm((1, 1, 1), axis)
        return 0 if left < -1e-6 else min(MOST_ALONG, int((left + 1e-6) // self.pitch[axis]) + 1)

    def block(self, counts: Triple, origin: Vec) -> Block:
        aft, across, up = counts
        return Block(kind=self.key, turn=self.turn, counts=Counts(aft=aft, across=across, up=up), origin_mm=origin)


def pairs(
    turns: Iterable[tuple[str, Orientation]],
    kinds: Mapping[str, ModuleKind],
    grids: Mapping[tuple[str, Orientation], Sequence[Triple]],
    room_mm: Vec,
    left: Mapping[str, int],
    above: int,
) -> Iterator[Pair]:
    """Two grids one after the other that differ in their kind or in the face they rest on, the second as full as the
    first one's cross-section lets it be, that hold more than ``above``.

    Args:
        grids: counts of each turn that could stand alone.
        room_mm: the largest inside a box there could have.
        left: no more of a kind than these.
    """
    parts = [_Part.of(key, kinds[key], turn) for key, turn in turns]
    for one, two in permutations(parts, 2):
        alike = one.key == two.key
        if alike and one.turn.down == two.turn.down:
            continue
        for axis in range(3):
            for counts in thinned(grids[(one.key, one.turn)]):
                if prod(counts) <= left[one.key]:
                    more = left[two.key] - (prod(counts) if alike else 0)
                    yield from _after(one, counts, two, axis, room_mm, more, above)


def thinned(counts: Sequence[Triple]) -> Sequence[Triple]:
    return counts[:: max(1, len(counts) // MOST_GRIDS)]


def _after(one: _Part, counts: Triple, two: _Part, axis: int, room_mm: Vec, most: int, above: int) -> Iterator[Pair]:
    size = [one.needed_mm(counts, i) for i in range(3)]
    rows = [two.most(i, size[i]) for i in range(3)]
    gap = needed_between_mm(one.one, two.one, axis, (one.kind, two.kind))
    # of the second, from where the first one's room begins
    start = size[axis] - one.one.turned.face_clearance_mm[2 * axis + 1] + gap
    before = two.one.turned.face_clearance_mm[2 * axis]
    deep = two.most(axis, room_mm[axis] - start + before)
    slice_ = prod(rows[i] for i in range(3) if i != axis)
    for row in range(deep, 0, -1):
        number = slice_ * row
        if not number or prod(counts) + number <= above:
            return
        if number > most:
            continue
        theirs = (row if axis == 0 else rows[0], row if axis == 1 else rows[1], row if axis == 2 else rows[2])
        size[axis] = start + two.needed_mm(theirs, axis) - before
        firsts, seconds = ([p.one.turned.face_clearance_mm[2 * i] for i in range(3)] for p in (one, two))
        seconds[axis] = start
        blocks = {"a": one.block(counts, vec(firsts)), "b": two.block(theirs, vec(seconds))}
        yield Pair(blocks, prod(counts) + number, vec(size))
