"""The stack-up: every allowance along a line through a box, from the car's metal on one side to that on the other.

    metal ┤ gap │ head │ wall │ liner │ module │ … │ wall │ lid │ gap │ the next box, opened │ gap ├ metal

What is asked is the sum of the rows; what is there is the distance between the surfaces. Worst case adds all tolerances
and biases and decides; the root of the squares is told beside it. Where one thing stands in another on the line, it is
foul whatever the sum says. The line that is shown is the one with least to spare of all that matter: through the lid's
edge, screw heads, brackets, what stands out of the box and what is fixed on it."""

import itertools
import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Literal

import numpy as np

from levelcradle.core.assembly import Assembly, Obstacle, PlacedBox
from levelcradle.core.axes import Matrix, Placement, Vec, minus, plus, scaled
from levelcradle.core.box import StackRow
from levelcradle.core.clearance.gaps import around
from levelcradle.core.clearance.needs import lies_on, need_of_boxes, need_of_thing, twist_mm_of
from levelcradle.core.clearance.stack_rows import Span, modules_before, rows_on_line
from levelcradle.core.clearance.tolerances import tape_tolerance_mm
from levelcradle.core.errors import UnknownThing
from levelcradle.core.finding import State
from levelcradle.core.solids import Nearest, Solid, bounds, line_spans, planes_of

__all__ = ["StackRow", "StackUp", "Surface", "stack_up"]

Axis = Literal["aft", "across", "up"]
WAYS: tuple[Axis, ...] = ("aft", "across", "up")
TAPE_BIAS_MM = 1.0  # a tape reached into a space reads long, common practice, no source
STANDS_IN_MM = 1e-3
MOST_LINES = 8  # so many of the tightest lines are measured
Spot = tuple[float, float]


@dataclass(frozen=True, slots=True)
class Surface:
    """An end of the chain: what stands there, and where the line meets it (None: open)."""

    name: str
    path: str
    at_mm: Vec | None


@dataclass(frozen=True, slots=True)
class StackUp:
    """A whole chain. ``there_mm`` and what follows from it are None where an end is open; ``stands_in`` names what
    overlaps on the line."""

    way: Axis
    rows: tuple[StackRow, ...]
    ends: tuple[Surface, Surface]
    asked_mm: float
    there_mm: float | None
    spare_mm: float | None
    worst_mm: float
    root_mm: float
    state: State
    stands_in: tuple[str, ...] = ()


def stack_up(
    assembly: Assembly, box_id: str, way: Axis, at_mm: Spot | None = None, module: int | None = None
) -> StackUp:
    """The chain along one way of a box.

    Args:
        at_mm: where the line crosses the box, in its own frame, along the two other ways in the order aft, across, up;
            None for the line that has least to spare.
        module: through the middle of this module, by its number through all boxes.
    Raises: UnknownThing.
    """
    box = assembly.boxes.get(box_id)
    if box is None:
        raise UnknownThing("box", box_id)
    chain = _Chain(assembly, box, WAYS.index(way))
    if module is not None:
        at_mm = chain.through(module)
    found = [
        row for spot in ([at_mm] if at_mm is not None else chain.spots()) if (row := chain.along(spot)) is not None
    ]
    if not found:
        raise UnknownThing("box on this line", box_id)
    return min(found, key=_tightest)


def _tightest(chain: "StackUp") -> tuple[bool, float, bool]:
    """What overlaps first, then what has least to spare; of equal ones the line that runs through a module."""
    spare = math.inf if chain.spare_mm is None else round(chain.spare_mm, 6)
    return not chain.stands_in, spare, not any(row.kind == "module" for row in chain.rows)


@dataclass(frozen=True, slots=True)
class _Link:
    """A box on the line, its frame's axis along it and which way round, where on the line it begins and ends, and its
    rows."""

    box: PlacedBox
    low: float
    high: float
    rows: tuple[StackRow, ...]


@dataclass(frozen=True, slots=True)
class _Met:
    """What the line meets next to a box: another box, or a thing; from where to where on the line, and the gap it
    needs."""

    what: Obstacle | PlacedBox
    low: float
    high: float
    need_mm: float
    rationale: str
    twist_mm: float = 0.0

    @property
    def name(self) -> str:
        return self.what.name


class _Chain:
    """One way through one box: everything about it, and the lines that matter."""

    def __init__(self, assembly: Assembly, box: PlacedBox, axis: int) -> None:
        self.assembly, self.box, self.axis = assembly, box, axis
        self.others = (axis + 1) % 3, (axis + 2) % 3
        if self.others[0] > self.others[1]:
            self.others = self.others[::-1]
        unit = [0.0, 0.0, 0.0]
        unit[axis] = 1.0
        self.way = box.placement.direction((unit[0], unit[1], unit[2]))

    # --- one line ---

    def along(self, spot: Spot) -> StackUp | None:
        """The chain on one line; None where the line misses the box."""
        local = [0.0, 0.0, 0.0]
        local[self.others[0]], local[self.others[1]] = spot
        origin = self.box.placement.point((local[0], local[1], local[2]))
        start = self._link(self.box, origin)
        if start is None:
            return None
        low_links, low_end = self._walk(start, origin, -1.0)
        high_links, high_end = self._walk(start, origin, 1.0)
        rows: list[StackRow] = []
        for met, link in reversed(low_links):
            rows += [*(link.rows if link else ()), *self._gap(met)]
        rows += start.rows
        for met, link in high_links:
            rows += [*self._gap(met), *(link.rows if link else ())]
        rows += self._by_hand()
        chained = [(None, start), *((met, link) for met, link in (*low_links, *high_links))]
        stands_in = tuple(
            dict.fromkeys(met.name for met, _ in chained if met and self._overlaps(met, start, low_links, high_links))
        )
        ends = (self._surface(low_end, origin, -1.0), self._surface(high_end, origin, 1.0))
        there = None if low_end is None or high_end is None else high_end.low - low_end.high
        return _summed(WAYS[self.axis], rows, ends, there, stands_in)

    def _walk(self, start: _Link, origin: Vec, sign: float) -> tuple[list[tuple[_Met, _Link | None]], _Met | None]:
        """From a box outward: what is met and, where that is a box, its link, until a thing of the car ends it (or
        nothing does)."""
        found: list[tuple[_Met, _Link | None]] = []
        link, seen = start, {start.box.id}
        while True:
            met = self._next(link, origin, sign, seen)
            if met is None:
                return found, None
            if not isinstance(met.what, PlacedBox):
                found.append((met, None))
                return found, met
            seen.add(met.what.id)
            opened = self._link(met.what, origin)
            if opened is None:
                return found, None
            found.append((met, opened))
            link = opened

    def _next(self, link: _Link, origin: Vec, sign: float, seen: set[str]) -> _Met | None:
        """What lies on one side of a box on the line with least to spare; what stands in the box lies on the side of
        its middle."""
        best: _Met | None = None
        middle = (link.low + link.high) / 2
        for met in self._met_by(link.box, origin, seen):
            if ((met.low + met.high) / 2 - middle) * sign <= 0:
                continue
            if best is None or self._spare(met, link, sign) < self._spare(best, link, sign):
                best = met
        return best

    @staticmethod
    def _spare(met: _Met, link: _Link, sign: float) -> float:
        return (met.low - link.high if sign > 0 else link.low - met.high) - met.need_mm - met.twist_mm

    def _met_by(self, box: PlacedBox, origin: Vec, seen: set[str]) -> Iterator[_Met]:
        assembly = self.assembly
        for thing in around(self.assembly, box):
            if thing.crush or not _near_line(thing.solid, origin, self.way):
                continue
            if any(m.sits_on(thing.solid) for m in box.mounts) and not self._touches_without_mounts(box, thing, origin):
                continue
            if lies_on(box, thing.solid):
                continue
            need = need_of_thing(assembly, box, thing)
            for low, high in line_spans(thing.solid, origin, self.way):
                yield _Met(thing, low, high, need.mm, need.rationale)
        for other in assembly.boxes.values():
            if other.id in seen:
                continue
            spans = self._spans(other, origin)
            if spans:
                need = need_of_boxes(assembly, box, other)
                low, high = min(s.start for s in spans), max(s.end for s in spans)
                here, there = (plus(origin, scaled(self.way, v)) for v in (low, low + 1.0))
                yield _Met(
                    other, low, high, need.mm, need.rationale, twist_mm_of(box, other, Nearest(1.0, here, there))
                )

    def _touches_without_mounts(self, box: PlacedBox, thing: Obstacle, origin: Vec) -> bool:
        """A bracket lies on what carries it by intent: that thing counts only where the box itself is on the line."""
        return any(p.mount is None and line_spans(p.solid, origin, self.way) for p in box.pieces)

    def _overlaps(
        self,
        met: _Met,
        start: _Link,
        low: Sequence[tuple[_Met, _Link | None]],
        high: Sequence[tuple[_Met, _Link | None]],
    ) -> bool:
        links = [start, *(link for _, link in (*low, *high) if link)]
        return any(
            link.box is not met.what and min(link.high, met.high) - max(link.low, met.low) > STANDS_IN_MM
            for link in links
        )

    def _spans(self, box: PlacedBox, origin: Vec) -> list[Span]:
        return [
            Span(p, low, high)
            for p in box.pieces
            if _near_line(p.solid, origin, self.way)
            for low, high in line_spans(p.solid, origin, self.way)
        ]

    def _link(self, box: PlacedBox, origin: Vec) -> _Link | None:
        """A box on the line: opened into its rows where the line runs along one of its own ways, else as a whole."""
        spans = self._spans(box, origin)
        if not spans:
            return None
        low, high = min(s.start for s in spans), max(s.end for s in spans)
        back = box.placement.inverse
        way, at = back.direction(self.way), back.point(origin)
        axis = max(range(3), key=lambda i: abs(way[i]))
        if abs(way[axis]) < 1 - 1e-9:
            return _Link(
                box,
                low,
                high,
                (StackRow(f"{box.box.name}, across its lean", high - low, 1.0, 0.0, "as drawn", "other", box.path),),
            )
        sign, zero = way[axis], at[axis]
        local = [Span(s.piece, *sorted((zero + sign * s.start, zero + sign * s.end))) for s in spans]
        one, other = (at[i] for i in range(3) if i != axis)
        rows = tuple(rows_on_line(self.assembly, box, axis, (one, other), local))
        return _Link(box, low, high, rows if sign > 0 else rows[::-1])

    def _gap(self, met: _Met) -> Iterator[StackRow]:
        path = met.what.path
        tape = 0.0 if isinstance(met.what, PlacedBox) else tape_tolerance_mm(self.assembly, met.what)
        bias = 0.0 if isinstance(met.what, PlacedBox) else TAPE_BIAS_MM
        yield StackRow(f"gap to {met.name}", met.need_mm, tape, bias, f"{met.rationale}; tape ± {tape:g}", "gap", path)
        if met.twist_mm:
            yield StackRow(
                "twist of the frame",
                met.twist_mm,
                0.0,
                0.0,
                "1° a metre between the mounts, common practice, no source",
                "gap",
                path,
            )

    def _by_hand(self) -> Iterator[StackRow]:
        for key, chain in self.assembly.chains.items():
            if chain.box == self.box.id and chain.axis == WAYS[self.axis]:
                for row, spec in sorted(chain.rows.items()):
                    yield StackRow(
                        spec.words, spec.mm, spec.tol_mm, 0.0, "entered by hand", "other", f"chains/{key}/rows/{row}"
                    )

    def _surface(self, met: _Met | None, origin: Vec, sign: float) -> Surface:
        if met is None:
            return Surface("open", "", None)
        return Surface(met.name, met.what.path, plus(origin, scaled(self.way, met.low if sign > 0 else met.high)))

    # --- which lines ---

    def through(self, number: int) -> Spot:
        """Through the middle of a module. Raises UnknownThing."""
        before = modules_before(self.assembly, self.box)
        for m in self.box.shell.modules:
            if before + m.number == number:
                one, other = (round((m.low[i] + m.high[i]) / 2, 2) for i in self.others)
                return one, other
        raise UnknownThing("module in this box", str(number))

    def spots(self) -> list[Spot]:
        """The lines that could have least to spare, the tightest first: on both sides and in the middle of every strip
        into which the edges of the box's pieces and of what is near divide it; and the middle of each module."""
        u, v = (self._strips(i) for i in self.others)
        grid = np.stack(np.meshgrid(u, v, indexing="ij"), axis=-1).reshape(-1, 2)
        judged = [self._judged(grid, *pair) for pair in ((self._shell, self._theirs), (self._own, self._not_carrying))]
        order = [n for row in judged for n in np.argsort(row, kind="stable")[:MOST_LINES]]
        best = list(dict.fromkeys((round(float(a), 3), round(float(b), 3)) for a, b in grid[order]))
        modules = [
            (round((m.low[i] + m.high[i]) / 2, 2), round((m.low[j] + m.high[j]) / 2, 2))
            for i, j in [self.others]
            for m in self.box.shell.modules[:60]
        ]
        i, j = self.others
        return [*best, *(modules or [(self.box.shell.outer_mm[i] / 2, self.box.shell.outer_mm[j] / 2)])]

    def _strips(self, axis: int) -> Matrix:
        lows = np.concatenate([self._own.low[:, axis], self._theirs.low[:, axis]])
        highs = np.concatenate([self._own.high[:, axis], self._theirs.high[:, axis]])
        least, most = self._own.low[:, axis].min(), self._own.high[:, axis].max()
        found = sorted({round(float(v), 1) for v in (*lows, *highs, least, most) if least <= v <= most})
        strips = [(a, b) for a, b in itertools.pairwise(found) if b - a > 0.05]
        return np.array([v for a, b in strips for v in (a + EDGE_MM, (a + b) / 2, b - EDGE_MM)])

    @cached_property
    def _own(self) -> "_Cloud":
        return _Cloud.of([(p.solid, 0.0) for p in self.box.pieces], self.box.placement.inverse)

    @cached_property
    def _shell(self) -> "_Cloud":
        """The box without its brackets, which lie on what carries them."""
        return _Cloud.of([(p.solid, 0.0) for p in self.box.pieces if p.mount is None], self.box.placement.inverse)

    @cached_property
    def _theirs(self) -> "_Cloud":
        return self._cloud(carrying=True)

    @cached_property
    def _not_carrying(self) -> "_Cloud":
        return self._cloud(carrying=False)

    def _cloud(self, *, carrying: bool) -> "_Cloud":
        """Everything about the box with its gap; with or without what its brackets lie on."""
        assembly, box = self.assembly, self.box
        rows = [
            (o.solid, need_of_thing(assembly, box, o).mm)
            for o in around(assembly, box)
            if not o.crush and (carrying or not any(m.sits_on(o.solid) for m in box.mounts))
        ]
        for other in assembly.boxes.values():
            if other is not box:
                need = need_of_boxes(assembly, box, other).mm
                rows += [(p.solid, need) for p in other.pieces]
        return _Cloud.of(rows, box.placement.inverse)

    def _judged(self, grid: Matrix, own: "_Cloud", theirs: "_Cloud") -> Matrix:
        """(n,) the room left on each line: exact but for scans, which are taken as the blocks round them. Of so many
        lines at a time that a design of many boxes does not fill the memory."""
        theirs = theirs.crossed_by(grid, self.axis)
        parts = max(1, math.ceil(len(grid) * (len(own.low) + len(theirs.low)) / MOST_CROSSINGS))
        return np.concatenate([self._judged_at_once(part, own, theirs) for part in np.array_split(grid, parts)])

    def _judged_at_once(self, grid: Matrix, own: "_Cloud", theirs: "_Cloud") -> Matrix:
        begins, ends = own.spans(grid, self.axis)
        lows, highs = theirs.spans(grid, self.axis)
        begin, end = np.nanmin(begins, axis=1, initial=np.inf), np.nanmax(ends, axis=1, initial=-np.inf)
        on = begin < end
        begin, end = np.where(on, begin, 0.0), np.where(on, end, 0.0)
        below = (lows + highs) / 2 < (begin + end)[:, None] / 2
        needs = theirs.needs
        under = np.nanmin(np.where(below, begin[:, None] - highs - needs, np.nan), axis=1, initial=1e6)
        over = np.nanmin(np.where(~below, lows - end[:, None] - needs, np.nan), axis=1, initial=1e6)
        stands_in = ((highs - STANDS_IN_MM > begin[:, None]) & (lows + STANDS_IN_MM < end[:, None])).any(axis=1)
        return np.asarray(np.where(on, under + over - 1e9 * stands_in, np.inf))


MOST_CROSSINGS = 2_000_000  # lines times solids that are looked at in one go
EDGE_MM = 0.02  # so far inside the edge of a strip its lines run


@dataclass(frozen=True, slots=True)
class _Cloud:
    """Solids in a box's frame: bounding boxes, the planes of those that are convex and no blocks, and the gap each
    needs."""

    low: Matrix
    high: Matrix
    planes: tuple[Matrix | None, ...]  # (k, 4) each: n · p <= d
    needs: Matrix

    @staticmethod
    def of(rows: Sequence[tuple[Solid, float]], back: Placement) -> "_Cloud":
        moved = [solid.moved(back) for solid, _ in rows]
        low, high = bounds(moved)
        planes = tuple(None if s.upright or s.surface else planes_of(s) for s in moved)
        return _Cloud(low, high, planes, np.array([need for _, need in rows]))

    def crossed_by(self, grid: Matrix, axis: int) -> "_Cloud":
        """Those that stand where lines along an axis run at all."""
        others = [i for i in range(3) if i != axis]
        least, most = grid.min(axis=0), grid.max(axis=0)
        near = ((self.low[:, others] <= most) & (self.high[:, others] >= least)).all(axis=1)
        planes = tuple(planes for planes, there in zip(self.planes, near, strict=True) if there)
        return _Cloud(self.low[near], self.high[near], planes, self.needs[near])

    def spans(self, grid: Matrix, axis: int) -> tuple[Matrix, Matrix]:
        """(n, m) from and to where lines along an axis run inside each solid; not a number where they miss it."""
        one, other = (i for i in range(3) if i != axis)
        u, v = grid[:, :1], grid[:, 1:]
        on = (self.low[:, one] <= u) & (u <= self.high[:, one]) & (self.low[:, other] <= v) & (v <= self.high[:, other])
        begin = np.where(on, self.low[:, axis], np.nan)
        end = np.where(on, self.high[:, axis], np.nan)
        for n, planes in enumerate(self.planes):
            rows = np.nonzero(on[:, n])[0] if planes is not None else ()
            if planes is not None and len(rows):
                rest = planes[:, 3] - u[rows] * planes[:, one] - v[rows] * planes[:, other]
                slope = planes[:, axis]
                with np.errstate(divide="ignore", invalid="ignore"):
                    t = rest / slope
                high = np.where(slope > 1e-9, t, np.inf).min(axis=1)
                low = np.where(slope < -1e-9, t, -np.inf).max(axis=1)
                good = (low < high) & ~((np.abs(slope) <= 1e-9) & (rest < -1e-9)).any(axis=1)
                begin[rows, n], end[rows, n] = np.where(good, low, np.nan), np.where(good, high, np.nan)
        return begin, end


def _near_line(solid: Solid, origin: Vec, way: Vec) -> bool:
    """Whether a line comes through the ball round a solid: most do not, and need no more measuring."""
    middle = scaled(plus(solid.low, solid.high), 0.5)
    off = minus(middle, origin)
    along = sum(a * b for a, b in zip(off, way, strict=True))
    reach = sum((h - v) ** 2 for h, v in zip(solid.high, solid.low, strict=True)) / 4
    return sum(v * v for v in off) - along**2 <= reach + 1e-6


def _summed(
    way: Axis, rows: list[StackRow], ends: tuple[Surface, Surface], there_mm: float | None, stands_in: tuple[str, ...]
) -> StackUp:
    asked = sum(row.mm for row in rows)
    worst = sum(row.tol_mm + row.bias_mm for row in rows)
    root = math.sqrt(sum(row.tol_mm**2 for row in rows))
    spare = None if there_mm is None else there_mm - asked
    state: State = "note" if spare is None else "foul" if spare < -1e-9 else "tight" if spare < worst else "clear"
    if stands_in:
        state = "foul"
    return StackUp(way, tuple(rows), ends, asked, there_mm, spare, worst, root, state, stands_in)
