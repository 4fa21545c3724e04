"""One tier of identical rectangular pieces, each along or across: as many as go in, and where.

Three ways of dividing the room, each reaching what the one before cannot: cuts from edge to edge (a table over all
smaller rooms), a ring of four rooms round a fifth (the pinwheel), and cuts along a staircase into two L-shaped rooms.
Only rooms whose sides are sums of piece sides matter, since every layout can be pushed to the front left corner.

Sources: five-block and L-shaped recursion for identical rectangles: Morabito and Morales 1998, Lins, Lins and Morabito
2003; area bound by rods: Barnes 1979 (all from memory).
"""

import math
from collections.abc import Iterator
from dataclasses import dataclass, field
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from levelcradle.core.fit.staircase import FRAMES, ROOMS, cuts, joined

__all__ = ["Tile", "pack_tier"]

Ints = NDArray[np.int64]
FINEST = 1e-6
MOST_RING_WORK = 250_000_000  # beyond this improving every smaller room takes longer than it is worth
MOST_COLOURS = 20  # the bound by colours is worth its table only for small whole numbers
DEEP = 20_000


@dataclass(frozen=True, slots=True)
class Tile:
    """A piece in the tier: its front left corner, and whether its length lies across."""

    x: float
    y: float
    across: bool


def pack_tier(
    length_mm: float, width_mm: float, piece_length_mm: float, piece_width_mm: float, *, steps: int = DEEP
) -> tuple[Tile, ...]:
    """The fullest tier found in a room of length × width, in the unit of the sizes (to a tenth of a unit).

    Args:
        steps: how many L-shaped rooms may be looked into where the simpler ways stay below the bound; 0 for none.
    """
    sizes = [math.floor(length_mm * 10 + FINEST), math.floor(width_mm * 10 + FINEST)]
    piece = [math.ceil(piece_length_mm * 10 - FINEST), math.ceil(piece_width_mm * 10 - FINEST)]
    unit = math.gcd(*piece)
    x, y = (size // unit for size in sizes)
    long, short = max(piece) // unit, min(piece) // unit
    rooms = _Rooms(x, y, long, short)
    found = rooms.fullest(steps)
    lengthwise = piece[0] >= piece[1]
    scale = unit / 10
    return tuple(Tile(a * scale, b * scale, turned == lengthwise) for a, b, turned in found)


Place = tuple[int, int, bool]  # x, y, whether the long side lies along y
LShape = tuple[int, int, int, int]  # an L: X × Y without its far corner, which begins at (x, y)


@dataclass(eq=False)
class _Rooms:
    """How many pieces every room of a container holds, in whole units."""

    length: int
    width: int
    long: int
    short: int
    full: dict[tuple[LShape, int], tuple[LShape, int, LShape, int, tuple[int, ...]]] = field(default_factory=dict)
    failed: dict[LShape, int] = field(default_factory=dict)
    left: int = 0

    def fullest(self, steps: int) -> list[Place]:
        x, y = self.length, self.width
        if min(x, y) < self.short or max(x, y) < self.long:
            return []
        best, most = self.at(x, y), self.most(x, y)
        if best < most:
            a, b = self.index[[x, y]]
            best = max(best, self._ring(a, b)[0])
            self.held[a, b] = self.held[b, a] = best
        if best < most and self._pinwheels():
            best = self.at(x, y)
        self.left = steps
        while best < most and self.left > 0 and self.holds(self._snug((x, y, x, y)), best + 1, best):
            best += 1
        return list(self._places((x, y, x, y), best, 0, 0))

    @property
    def area(self) -> int:
        return self.long * self.short

    @cached_property
    def points(self) -> Ints:
        """Sums of piece sides up to the longest side, 0 first."""
        longest = max(self.length, self.width)
        reached = np.zeros(longest + 1, bool)
        reached[0] = True
        for side in (self.long, self.short):
            for k in range(side, longest + 1):
                reached[k] |= reached[k - side]
        return np.flatnonzero(reached)

    @cached_property
    def index(self) -> Ints:
        """For each length the place in ``points`` of the greatest one that is not longer."""
        return np.asarray(np.searchsorted(self.points, np.arange(max(self.length, self.width) + 1), side="right") - 1)

    @cached_property
    def rest(self) -> Ints:
        """(n, n): index of what is left of points[a] beside points[b]."""
        left = self.points[:, None] - self.points[None]
        return np.asarray(np.where(left >= 0, self.index[np.maximum(left, 0)], 0))

    @cached_property
    def held(self) -> Ints:
        """(n, n): how many pieces rooms of points[a] × points[b] hold by cuts from edge to edge."""
        n = len(self.points)
        held = np.zeros((n, n), np.int64)
        narrow = int(self.index[min(self.length, self.width)])
        for a in range(1, n):
            most = min(a, narrow)
            held[a, : most + 1] = self._one_row(held, a, most)
            held[: most + 1, a] = held[a, : most + 1]
        return held

    def _one_row(self, held: Ints, a: int, most: int) -> Ints:
        """What rooms of points[a] × points[0 … most] hold, all smaller ones known."""
        x, y = self.points[a], self.points[: most + 1]
        row = held[a - 1, : most + 1].copy()
        row = np.maximum(row, (np.minimum(x, y) >= self.short) & (np.maximum(x, y) >= self.long))
        cut = self._halves(a)
        if len(cut):
            row = np.maximum(row, (held[cut, : most + 1] + held[self.rest[a, cut], : most + 1]).max(axis=0))
        if most == a:  # the square itself is cut along its other side in the same way
            row[a] = max(row[a], self._by_cuts(held, a, a))
        for b in range(1, most + 1):
            cut = self._halves(b)
            row[b] = max(row[b], row[b - 1], (row[cut] + row[self.rest[b, cut]]).max(initial=0))
        return np.asarray(row)

    def _halves(self, a: int) -> Ints:
        return np.arange(1, int(self.half[a]) + 1)

    @cached_property
    def half(self) -> Ints:
        return np.asarray(np.searchsorted(self.points, self.points // 2, side="right") - 1)

    def _by_cuts(self, held: Ints, a: int, b: int) -> int:
        x, y = self.points[a], self.points[b]
        best = int(max(held[a, b], held[a - 1, b], held[a, b - 1]))
        if min(x, y) >= self.short and max(x, y) >= self.long:
            best = max(best, 1)
        for i, other, way in ((a, b, 0), (b, a, 1)):
            cut = self._halves(i)
            if len(cut):
                sums = (
                    held[cut, other] + held[self.rest[i, cut], other]
                    if way == 0
                    else held[other, cut] + held[other, self.rest[i, cut]]
                )
                best = max(best, int(sums.max()))
        return best

    def at(self, x: int, y: int) -> int:
        return int(self.held[self.index[x], self.index[y]])

    def most(self, x: int, y: int) -> int:
        """Never less than what a room holds: area without what rods of one unit must leave."""

        def waste(side: int) -> int:
            a, b = x % side, y % side
            return min(a * b, (side - a) * (side - b))

        return (x * y - max(waste(self.long), waste(self.short))) // self.area

    @cached_property
    def bound(self) -> Ints:
        return np.array([[self.most(int(a), int(b)) for b in self.points] for a in self.points])

    def _ring(self, a: int, b: int) -> tuple[int, tuple[int, int, int, int]]:
        """The best ring of four rooms round a fifth: count, and the two cuts each way as indices."""
        (x1, x2), (y1, y2) = self._pairs(a, half=True), self._pairs(b, half=False)
        if not len(x1) or not len(y1):
            return 0, (0, 0, 0, 0)
        held, rest = self.held, self.rest
        sums = held[x2[:, None], y1] + held[rest[a, x2][:, None], y2]
        sums += held[rest[a, x1][:, None], rest[b, y2]] + held[x1[:, None], rest[b, y1]]
        sums += held[rest[x2, x1][:, None], rest[y2, y1]]
        i, j = divmod(int(sums.argmax()), sums.shape[1])
        return int(sums[i, j]), (int(x1[i]), int(x2[i]), int(y1[j]), int(y2[j]))

    def _pairs(self, a: int, *, half: bool) -> tuple[Ints, Ints]:
        """Two cuts, the first not after the second; half of them where the other half is the same turned about."""
        first, second = (i + 1 for i in np.triu_indices(max(a - 1, 0)))
        if half:
            keep = self.points[first] + self.points[second] <= self.points[a]
            first, second = first[keep], second[keep]
        return first, second

    def _pinwheels(self) -> bool:
        """Improves every smaller room by rings, the smallest first; whether it was worth it."""
        far = sorted(int(v) for v in self.index[[self.length, self.width]])
        cells = [(a, b) for b in range(1, far[0] + 1) for a in range(b, far[1] + 1)]
        work = sum((a * b) ** 2 for a, b in cells if self.held[a, b] < self.bound[a, b])
        if work > MOST_RING_WORK:
            return False
        for a, b in sorted(cells, key=lambda c: int(self.points[c[0]] * self.points[c[1]])):
            best = self._by_cuts(self.held, a, b)
            if best < self.bound[a, b]:
                best = max(best, self._ring(a, b)[0])
            self.held[a, b] = self.held[b, a] = best
        return True

    # --- L-shaped rooms ---

    def holds(self, room: LShape, wanted: int, least: int) -> bool:
        """Whether a snug room that holds ``least`` for certain holds so many; remembers how."""
        if wanted <= least or (room, wanted) in self.full:
            return True
        if self._fails(room, wanted) or self.left <= 0:
            return False
        self.left -= 1
        for one, other, shares, (low, high), cut in self._cuts(room, wanted):
            for share in shares:
                if self._fails(one, share) or self._fails(other, wanted - share):
                    continue
                parts = sorted(((one, share, low), (other, wanted - share, high)), key=lambda part: _cells(part[0]))
                if all(self.holds(*part) for part in parts):  # the smaller first: its no is cheaper
                    self.full[room, wanted] = (one, share, other, wanted - share, self._frames(room, cut))
                    return True
        if self.left > 0:
            self.failed[_either_way(room)] = wanted - 1
        return False

    def _fails(self, room: LShape, wanted: int) -> bool:
        """Whether it is known to hold fewer."""
        return wanted > self.failed.get(_either_way(room), wanted)

    def _snug(self, room: LShape) -> LShape:
        """The smallest room that holds as much, a rectangle written as (x, y, x, y)."""
        x, y, a, b = (int(self.points[self.index[v]]) for v in room)
        if a in (0, x):
            y, a, b = (b, x, b) if a == 0 else (y, x, y)
        elif b in (0, y):
            x, a, b = (a, a, y) if b == 0 else (x, x, y)
        return x, y, a, b

    def _limits(self, rooms: Ints) -> tuple[Ints, Ints]:
        """(least, most) of (4, n) snug rooms."""
        x, y, a, b = self.index[rooms]
        held, rest = self.held, self.rest
        least = np.maximum(held[a, y] + held[rest[x, a], b], held[x, b] + held[a, rest[y, b]])
        most = np.minimum(self._by_area(rooms), self.bound[x, y])
        return least, np.minimum(most, self._by_colours(rooms))

    def _by_area(self, rooms: Ints) -> Ints:
        x, y, a, b = rooms
        return np.asarray((x * b + a * (y - b)) // self.area)

    @cached_property
    def _colours(self) -> tuple[tuple[int, int, Ints], ...]:
        """Cells coloured in stripes as wide as a rod is long: each rod covers every colour once, so the rarest colour
        says how many rods go in. Rows: rod, other side, table of what odd cells add to the rarest colour by the sides
        modulo the rod."""
        rods = ((self.long, self.short), (self.short, self.long))
        return tuple(
            (rod, other, np.minimum(_odd_cells(rod, 1), _odd_cells(rod, -1)))
            for rod, other in rods
            if rod <= MOST_COLOURS
        )

    def _by_colours(self, rooms: Ints) -> Ints:
        x, y, a, b = rooms
        high = y - b
        most = self._by_area(rooms)
        for rod, other, odd in self._colours:
            i, j, k, m = x % rod, b % rod, a % rod, high % rod
            even = (x * b - i * j + a * high - k * m) // rod
            most = np.minimum(most, (even + odd[i, j, k, m]) // other)
        return most

    def _frames(self, room: LShape, cut: int) -> tuple[int, ...]:
        """How the two rooms of a cut lie in the room."""
        return tuple(cuts(self.points, room, FRAMES)[:, cut].tolist())

    def _cuts(self, room: LShape, wanted: int) -> Iterator[tuple[LShape, LShape, range, tuple[int, int], int]]:
        """Ways to divide a room into two that could hold so many together, those that lack least first; last comes
        which cut it is."""
        rows = cuts(self.points, room, ROOMS)
        one, other = self._all_snug(rows[:4]), self._all_snug(rows[4:])
        kept = np.flatnonzero(self._by_area(one) + self._by_area(other) >= wanted)
        one, other = one[:, kept], other[:, kept]
        (least, most), (low, high) = self._limits(one), self._limits(other)
        could = np.flatnonzero(most + high >= wanted)
        order = could[np.argsort((wanted - least - low)[could], kind="stable")]
        limits = np.stack((least, most, low, high, kept))[:, order].T.tolist()
        rooms = zip(_rooms(one[:, order]), _rooms(other[:, order]), limits, strict=True)
        for first, second, (sure, top, other_sure, other_top, cut) in rooms:
            shares = range(min(top, wanted - other_sure), max(wanted - other_top, sure) - 1, -1)
            if sure + other_sure >= wanted:
                shares = range(sure, sure + 1)
            yield first, second, shares, (sure, other_sure), cut

    def _all_snug(self, rooms: Ints) -> Ints:
        x, y, a, b = self.points[self.index[rooms]]
        thin, flat = (a == 0) | (a == x), (b == 0) | (b == y)
        x, y = np.where(flat & ~thin & (b == 0), a, x), np.where(thin & (a == 0), b, y)
        return np.stack((x, y, np.where(thin | flat, x, a), np.where(thin | flat, y, b)))

    # --- where the pieces go ---

    def _places(self, room: LShape, wanted: int, at_x: int, at_y: int) -> Iterator[Place]:
        room = self._snug(room)
        if wanted <= 0:
            return
        if (room, wanted) in self.full:
            one, share, other, rest, cut = self.full[room, wanted]
            for part, count, frame in ((one, share, cut[:6]), (other, rest, cut[6:])):
                for x, y, turned in self._places(part, count, 0, 0):
                    yield joined(frame, x, y, turned, self.long, self.short, (at_x, at_y))
            return
        x, y, a, b = room
        if a == x:
            yield from self._in_rectangle(x, y, at_x, at_y)
        elif self.at(a, y) + self.at(x - a, b) >= wanted:
            yield from self._in_rectangle(a, y, at_x, at_y)
            yield from self._in_rectangle(x - a, b, at_x + a, at_y)
        else:
            yield from self._in_rectangle(x, b, at_x, at_y)
            yield from self._in_rectangle(a, y - b, at_x, at_y + b)

    def _in_rectangle(self, x: int, y: int, at_x: int, at_y: int) -> Iterator[Place]:
        a, b = int(self.index[x]), int(self.index[y])
        wanted = int(self.held[a, b])
        if wanted == 0:
            return
        if wanted == self.held[a - 1, b] or wanted == self.held[a, b - 1]:
            i, j = (a - 1, b) if wanted == self.held[a - 1, b] else (a, b - 1)
            yield from self._in_rectangle(int(self.points[i]), int(self.points[j]), at_x, at_y)
            return
        for i, other, along in ((a, b, True), (b, a, False)):
            for cut in range(1, i):
                rest = int(self.rest[i, cut])
                if self.held[cut, other] + self.held[rest, other] == wanted:
                    size, beyond, side = int(self.points[cut]), int(self.points[rest]), int(self.points[other])
                    if along:
                        yield from self._in_rectangle(size, side, at_x, at_y)
                        yield from self._in_rectangle(beyond, side, at_x + size, at_y)
                    else:
                        yield from self._in_rectangle(side, size, at_x, at_y)
                        yield from self._in_rectangle(side, beyond, at_x, at_y + size)
                    return
        if wanted == 1:
            yield at_x, at_y, not (self.points[a] >= self.long and self.points[b] >= self.short)
            return
        yield from self._in_ring(a, b, at_x, at_y)

    def _in_ring(self, a: int, b: int, at_x: int, at_y: int) -> Iterator[Place]:
        _, cuts = self._ring(a, b)
        x1, x2, y1, y2 = (int(self.points[c]) for c in cuts)
        x, y = int(self.points[a]), int(self.points[b])
        parts = ((0, 0, x2, y1), (x2, 0, x, y2), (x1, y2, x, y), (0, y1, x1, y), (x1, y1, x2, y2))
        for left, low, right, high in parts:
            yield from self._in_rectangle(right - left, high - low, at_x + left, at_y + low)


def _rooms(columns: Ints) -> list[LShape]:
    return [(x, y, a, b) for x, y, a, b in columns.T.tolist()]


def _cells(room: LShape) -> int:
    x, y, a, b = room
    return x * b + a * (y - b)


def _either_way(room: LShape) -> LShape:
    """The same for a room and for the one with its sides changed over."""
    x, y, a, b = room
    return min(room, (y, x, b, a))


def _odd_cells(rod: int, slope: int) -> Ints:
    """(rod, rod, rod, rod): how many cells of the rarest colour lie in the odd corners of a room, i × j and k × m, the
    second beyond the first; stripes of a slope of 1 or -1."""
    n = np.arange(rod)
    colour = (n[:, None] + slope * n[None]) % rod
    odd = np.zeros((rod, rod, rod), np.int64)
    for k in range(rod):
        odd[1:, 1:, k] = np.cumsum(np.cumsum(colour == k, 0), 1)[:-1, :-1]
    beyond = odd[:, :, (n[None] - slope * n[:, None]) % rod]  # k, m, j, colour
    return np.asarray((odd[:, :, None, None] + beyond.transpose(2, 0, 1, 3)[None]).min(axis=4))
