"""Boxes against items, keep-outs, the sides of bays and each other.

Every gap is the exact distance between real pieces. Bounding boxes only decide what need not be measured.
"""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np

from levelcradle.core.assembly import Assembly, Obstacle, PlacedBox, PlacedPiece, outside_of
from levelcradle.core.axes import Matrix, minus
from levelcradle.core.clearance.needs import (
    LIES_MM,
    TWIST_DEG_PER_M,
    lies_on,
    need_of_boxes,
    need_of_thing,
    twist_mm_of,
)
from levelcradle.core.clearance.tolerances import gap_tolerance_mm
from levelcradle.core.finding import Figure, Finding, State, Step, Working, gap_state, plain
from levelcradle.core.solids import Nearest, Solid, bounds, bounds_apart, nearest

__all__ = ["around", "gap_findings", "is_taken", "untaken_around"]

SHOWN_WITHIN_MM = 100.0  # a clear pair further apart than this beyond its need is not worth a row
MOST_CLEAR = 8  # clear pairs listed for one box


@dataclass(frozen=True, slots=True)
class _Pair:
    """A box and what is near it: the nearest piece, how near, and what is needed."""

    box: PlacedBox
    thing: Obstacle | PlacedBox
    piece: PlacedPiece
    near: Nearest
    need_mm: float
    rationale: str
    at_least: bool = False  # of an overlap: the least way out is no shorter, but may be longer
    twist_mm: float = 0.0

    @property
    def crush(self) -> bool:
        return isinstance(self.thing, Obstacle) and self.thing.crush


def gap_findings(assembly: Assembly) -> list[Finding]:
    """Every pair that is foul, tight or not known, and the nearest clear ones of each box."""
    found: list[Finding] = []
    boxes = list(assembly.boxes.values())
    for index, box in enumerate(boxes):
        pairs = [*_to_things(assembly, box, around(assembly, box)), *_to_boxes(assembly, box, boxes[index + 1 :])]
        all_ = [_finding(assembly, pair) for pair in _worst_of_each(pairs)]
        clear = sorted((f for f in all_ if f.state == "clear"), key=lambda f: f.margin or 0.0)
        found += [f for f in all_ if f.state != "clear"] + clear[:MOST_CLEAR]
        found += _unmeasured(assembly, box)
        found += _untaken(assembly, box)
    return found


def around(assembly: Assembly, box: PlacedBox) -> list[Obstacle]:
    """Everything a box must keep clear of but other boxes: things, the sides of its own bay, and those of others."""
    bay = box.box.bay
    own = assembly.own_sides.get(bay, ()) if bay else ()
    things = (o for o in assembly.obstacles if o.fixed_to != box.id)
    return [*things, *own, *(side for side in assembly.sides if side.bay != bay)]


def _bounds_apart(box: PlacedBox, around: list[Obstacle]) -> Matrix:
    """How far each thing's bounding box is from the one round all pieces of a box."""
    low, high = outside_of(box)
    other_low, other_high = bounds(o.solid for o in around)
    between = np.maximum(np.maximum(other_low - high, low - other_high), 0.0)
    return np.asarray(np.sqrt((between**2).sum(axis=1)))


_Hit = tuple[PlacedPiece, Nearest, bool]  # the last: whether an overlap is at least so deep


@lru_cache(maxsize=20_000)
def _to_thing(box: PlacedBox, solid: Solid, within_mm: float) -> _Hit | None:
    """The nearest piece of a box to a thing. A mount's own pieces are left out where it sits on that thing."""
    excused = {mount.id for mount in box.mounts if mount.sits_on(solid)}
    pieces = [p for p in box.pieces if p.mount is None or p.mount not in excused]
    return _closest(pieces, [solid], bounds_apart([p.solid for p in pieces], [solid]), within_mm)


@lru_cache(maxsize=20_000)
def _to_box(box: PlacedBox, other: PlacedBox, within_mm: float) -> _Hit | None:
    solids = [p.solid for p in other.pieces if p.gear is None]  # what is fixed to it has a row of its own
    return _closest(box.pieces, solids, bounds_apart([p.solid for p in box.pieces], solids), within_mm)


def _closest(ours: Sequence[PlacedPiece], theirs: Sequence[Solid], apart: Matrix, within_mm: float) -> _Hit | None:
    """The nearest of all pairs of pieces, nearest bounding boxes first; None when all are further than ``within``. Last
    comes whether an overlap is at least so deep: of a mesh, and where more than one pair overlaps, one pair's way out
    need not be enough."""
    best: tuple[PlacedPiece, Nearest] | None = None
    overlaps = 0
    for flat in np.argsort(apart, axis=None):
        i, j = divmod(int(flat), len(theirs))
        # of overlaps the deepest is wanted: all are looked at
        if apart[i, j] > (max(best[1].gap_mm, 0.0) if best else within_mm):
            break
        near = nearest(ours[i].solid, theirs[j])
        if near.gap_mm < 0:
            overlaps += 2 if theirs[j].surface or ours[i].solid.surface else 1
        if best is None or near.gap_mm < best[1].gap_mm:
            best = ours[i], near
    return (*best, overlaps > 1) if best else None


def _to_things(assembly: Assembly, box: PlacedBox, around: list[Obstacle]) -> Iterator[_Pair]:
    around = [o for o in around if is_taken(assembly, o)] if assembly.untaken else around
    if not around:
        return
    apart = _bounds_apart(box, around)
    for column in np.flatnonzero(apart <= assembly.widest_gap_mm + SHOWN_WITHIN_MM).tolist():
        thing = around[column]
        need = need_of_thing(assembly, box, thing)
        within = need.mm + SHOWN_WITHIN_MM
        if apart[column] <= within and (hit := _to_thing(box, thing.solid, within)):
            if hit[1].gap_mm > -LIES_MM and lies_on(box, thing.solid):
                continue
            yield _Pair(box, thing, *hit[:2], need.mm, need.rationale, hit[2])


def _to_boxes(assembly: Assembly, box: PlacedBox, others: list[PlacedBox]) -> Iterator[_Pair]:
    for other in others:
        need = need_of_boxes(assembly, box, other)
        if hit := _to_box(box, other, need.mm + SHOWN_WITHIN_MM):
            twist = twist_mm_of(box, other, hit[1])
            words = f"; {TWIST_DEG_PER_M:g}° a metre of twist of the frame takes {twist:.1f} more" if twist else ""
            yield _Pair(box, other, *hit[:2], need.mm + twist, need.rationale + words, hit[2], twist_mm=twist)


def _worst_of_each(pairs: Iterable[_Pair]) -> list[_Pair]:
    """One row a thing: a side of a bay has many panels."""
    worst: dict[str, _Pair] = {}
    for pair in pairs:
        held = worst.get(pair.thing.path)
        several = held is not None and held.near.gap_mm < 0 and pair.near.gap_mm < 0
        if held is None or pair.near.gap_mm < held.near.gap_mm:
            worst[pair.thing.path] = pair
        if several:
            worst[pair.thing.path] = replace(worst[pair.thing.path], at_least=True)
    return list(worst.values())


def _finding(assembly: Assembly, pair: _Pair) -> Finding:
    gap, tolerance = pair.near.gap_mm, gap_tolerance_mm(assembly, pair.box, pair.thing)
    state: State = gap_state(gap, pair.need_mm, tolerance)
    rationale, assumed = pair.rationale, assembly.assumed(pair.thing) or assembly.assumed(pair.box)
    if pair.crush and state == "foul" and not pair.box.shell.modules:
        state = "note"
    if assumed and state in ("clear", "tight"):
        state, rationale = "unknown", f"{assumed} is not measured"
    name, thing = plain(pair.box.name), plain(pair.thing.name)
    figures = (Figure(gap, "mm", "down"), Figure(pair.need_mm, "mm", "up"))
    message = f"{name} to {thing}: {{0}}, needs {{1}}"
    if gap < 0:
        figures = (Figure(-gap, "mm", "up"), Figure(pair.need_mm, "mm", "up"))
        message = f"{name} overlaps {thing} by {'at least ' if pair.at_least else ''}{{0}}, needs {{1}} clear"
    return Finding(
        id=f"gap:{pair.box.path}:{pair.thing.path}",
        code="gap.crush" if pair.crush else "gap",
        station="place",
        state=state,
        subjects=(pair.box.path, pair.thing.path),
        message=message,
        figures=figures,
        value=gap,
        limit=pair.need_mm,
        margin=gap - pair.need_mm,
        unit="mm",
        tolerance=tolerance,
        rationale=rationale,
        points_mm=(pair.near.here, pair.near.there),
        label=pair.thing.name,
        working=lambda: _working(pair, tolerance),
    )


def _working(pair: _Pair, tolerance_mm: float) -> Working:
    here, there = pair.near.here, pair.near.there
    apart = minus(there, here)
    where = ", ".join(f"{v:.1f}" for v in here)
    other = ", ".join(f"{v:.1f}" for v in there)
    steps = [
        Step(
            f"nearest point of {pair.piece.name}",
            f"({where})",
            here[0],
            "mm aft",
            "exact distance between convex solids",
        ),
        Step(
            f"nearest point of {pair.thing.name}",
            f"({other})",
            there[0],
            "mm aft",
            "exact distance between convex solids",
        ),
        Step("gap", f"√({apart[0]:.2f}² + {apart[1]:.2f}² + {apart[2]:.2f}²)", pair.near.gap_mm, "mm"),
    ]
    if pair.twist_mm:
        rule = "φ |n · (x̂ × r)|, r from the frame's middle line"
        steps.append(Step("of it for the frame's twist", rule, pair.twist_mm, "mm", "common practice, no source"))
    ways = "√(readings of the thing² + half of what the box may be off²); unsaid, 3"
    return (
        *steps,
        Step("needed", pair.rationale, pair.need_mm, "mm", pair.rationale),
        Step("margin", f"{pair.near.gap_mm:.3f} − {pair.need_mm:g}", pair.near.gap_mm - pair.need_mm, "mm"),
        Step("may be off by", ways, tolerance_mm, "mm", "tape, common practice, no source; ISO 13920 A"),
    )


def _unmeasured(assembly: Assembly, box: PlacedBox) -> Iterator[Finding]:
    bay = assembly.bay_of(box)
    if bay is None:
        return
    for side in bay.sides.not_measured:
        path = f"bays/{box.box.bay}/sides/{side}"
        yield Finding(
            id=f"gap:{box.path}:{path}",
            code="gap.unmeasured",
            station="place",
            state="unknown",
            subjects=(box.path, path),
            message=f"{plain(box.box.name)} to {plain(bay.name)}: its {side} side was not measured",
            rationale="what nobody measured is never clear",
            label=f"{bay.name} {side}",
        )


def _untaken(assembly: Assembly, box: PlacedBox) -> Iterator[Finding]:
    """What was begun and not taken stands nowhere yet: nothing is said of how near it is."""
    for thing, figure in untaken_around(assembly, box).items():
        message = f"{plain(box.box.name)}: not taken yet is {plain(assembly.words_of(figure))}"
        yield Finding(
            id=f"gap:{box.path}:{thing}:untaken",
            code="gap.untaken",
            station="place",
            state="unknown",
            subjects=(box.path, thing),
            message=message,
            rationale="what nobody measured is never clear",
            label="not taken",
        )


def untaken_around(assembly: Assembly, box: PlacedBox) -> dict[str, str]:
    """Things that stand nowhere yet, each with the first figure of it that nobody took."""
    things = assembly.untaken
    near = dict.fromkeys(_thing_of(o) for o in around(assembly, box)) if things else {}
    return {thing: things[thing][0] for thing in near if thing in things}


def is_taken(assembly: Assembly, obstacle: Obstacle) -> bool:
    return not assembly.untaken or _thing_of(obstacle) not in assembly.untaken


def _thing_of(obstacle: Obstacle) -> str:
    """The thing that an obstacle is, or belongs to."""
    return f"bays/{obstacle.bay}" if obstacle.bay else "/".join(obstacle.path.split("/")[:2])
