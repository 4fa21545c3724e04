"""Where a box stands exactly: moved until every piece of it keeps its gap to everything.

The distance between two convex solids grows at least as fast as its slope where one is moved in a straight line, so a
place that keeps all slopes keeps all gaps; each step is a small linear programme over the three moves. Meshes are no
convex solids: there the place is only taken once it has been measured.
"""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from levelcradle.core.axes import Matrix, Placement, Vec, dot, minus, scaled
from levelcradle.core.fit.space import ClearanceConstraint
from levelcradle.core.solids import Nearest, Solid, bounds, nearest

__all__ = ["STEP_MM", "Pressing", "Settled", "free_along", "least_travel_mm", "pressing", "solve_placement"]

TRUST_MM = 20.0  # a step goes no further than this
STEPS = 12
STUCK = 2  # steps that win nothing before a place is given up
GAIN_MM = 0.01
ROOM_MM = 0.05  # wanted beyond a need, so that a place outlasts being rounded
SOLVED_MM = 1e-6  # what the solver may be off by; the rounded place is measured again
UPRIGHT = np.eye(3)


@dataclass(frozen=True, slots=True)
class Pressing:
    """One thing near a box: how much room there is beyond the need, and the way from it to the box."""

    thing: ClearanceConstraint
    spare_mm: float
    away: Vec


@dataclass(frozen=True, slots=True)
class Settled:
    """Where the pieces came to, and what they lack there of their gaps, all told; 0 where every gap is kept."""

    at: Vec
    lack_mm: float

    @property
    def holds(self) -> bool:
        return self.lack_mm == 0.0


def solve_placement(
    pieces: Sequence[Solid],
    things: Sequence[ClearanceConstraint],
    start: Vec,
    low: Vec,
    high: Vec,
    prefer: Vec,
    *,
    roomy_mm: float = 3.0,
) -> Settled:
    """The place near ``start`` where the pieces keep every gap: with ``roomy_mm`` to spare where that can be had, then
    lowest, then nearest to where it is preferred; where none was found, the one it came to, which lacks little.

    Args:
        pieces: in the box's frame, whose origin is what is placed.
        low, high: where the origin may be.
    """
    at, found, least_lack, stuck = start, None, math.inf, 0
    for _ in range(STEPS):
        near = pressing(pieces, things, at, TRUST_MM * 2)
        held = all(p.spare_mm >= -SOLVED_MM for p in near)
        lack = sum(max(-p.spare_mm, 0.0) for p in near)
        stuck, least_lack = (0 if lack < least_lack - GAIN_MM else stuck + 1), min(lack, least_lack)
        if held:
            found = at
        elif stuck == STUCK:  # squeezed from two sides: it goes to and fro
            break
        step = _step(near, at, low, high, prefer, roomy_mm, cautious=not held)
        if step is None or max(abs(v) for v in step) < 0.02:
            break
        at = (at[0] + step[0], at[1] + step[1], at[2] + step[2])
    return Settled(at, least_lack) if found is None else Settled(found, 0.0)


def pressing(
    pieces: Sequence[Solid], things: Sequence[ClearanceConstraint], at: Vec, within_mm: float
) -> list[Pressing]:
    """Everything nearer than its need and ``within_mm``, once a pair of piece and thing."""
    return list(_pressing(pieces, things, at, within_mm))


def _pressing(
    pieces: Sequence[Solid], things: Sequence[ClearanceConstraint], at: Vec, within_mm: float
) -> Iterator[Pressing]:
    for piece, thing, near in _near(pieces, things, at, within_mm):
        yield Pressing(
            thing, near.gap_mm - thing.need_mm, _away(near.gap_mm, near.here, near.there, piece, at, thing.solid)
        )


def _near(
    pieces: Sequence[Solid], things: Sequence[ClearanceConstraint], at: Vec, within_mm: float
) -> Iterator[tuple[Solid, ClearanceConstraint, Nearest]]:
    """Each piece and thing nearer than its need and ``within_mm``, the pieces moved by ``at``."""
    if not things:
        return
    low, high, other_low, other_high, needs = _bounds(tuple(pieces), tuple(things))
    shift = np.array(at)
    apart = np.maximum(other_low[None] - high[:, None] - shift, low[:, None] + shift - other_high[None]).max(axis=2)
    there: dict[int, Solid] = {}
    for i, j in np.argwhere(apart < needs[None] + within_mm):
        thing = things[j]
        if i not in there:
            there[i] = pieces[i].moved(Placement(UPRIGHT, at))
        near = nearest(there[i], thing.solid)
        if near.gap_mm - thing.need_mm < within_mm:
            yield pieces[i], thing, near


STEP_MM = 0.5  # a way is said in half millimetres, always enough
NEWTON = 40  # steps, of which most ways take four
SETTLED_MM = 1e-7
MOST_FREED = 12  # so many places along one way
MARCH_MM = 1.0  # past a mesh, whose shape says nothing of what comes


def free_along(pieces: Sequence[Solid], things: Sequence[ClearanceConstraint], axis: int, sign: float) -> list[float]:
    """0, and where on its way along an axis a box gets free of one thing after the other; no further than where it
    first keeps every gap."""
    found: list[float] = []
    ahead = {0.0}
    while ahead and len(found) < MOST_FREED:
        far = min(ahead)
        ahead.remove(far)
        found.append(far)
        lacking = _lacking(pieces, things, axis, sign, far)
        if not lacking:
            break
        ahead |= {_on_the_step(_beyond(piece, thing, axis, sign, far), far) for piece, thing in lacking}
    return found


def least_travel_mm(
    pieces: Sequence[Solid], things: Sequence[ClearanceConstraint], axis: int, sign: float, most_mm: float
) -> float | None:
    """How far the pieces have to go along an axis until every gap is kept; 0 where they are, None where no such place
    is near enough.

    A convex piece moved in a straight line lacks its gap to a convex thing over one stretch only (their Minkowski
    difference is convex), so the first place beyond the stretches it stands in is the least."""
    far = 0.0
    while far <= most_mm:
        lacking = _lacking(pieces, things, axis, sign, far)
        if not lacking:
            return far
        far = _on_the_step(max(_beyond(piece, thing, axis, sign, far) for piece, thing in lacking), far)
    return None


def _lacking(
    pieces: Sequence[Solid], things: Sequence[ClearanceConstraint], axis: int, sign: float, far_mm: float
) -> list[tuple[Solid, ClearanceConstraint]]:
    """Which piece lacks its gap to what, so far along an axis."""
    by = [0.0, 0.0, 0.0]
    by[axis] = sign * far_mm
    return [
        (p, t) for p, t, near in _near(pieces, things, (by[0], by[1], by[2]), 0.0) if near.gap_mm < t.need_mm - 1e-9
    ]


def _on_the_step(beyond_mm: float, far_mm: float) -> float:
    return max(math.ceil(round(beyond_mm / STEP_MM, 6)) * STEP_MM, far_mm + STEP_MM)


def _beyond(piece: Solid, thing: ClearanceConstraint, axis: int, sign: float, far_mm: float) -> float:
    """Where the stretch in which a piece lacks its gap to a thing ends.

    The distance of convex solids is a convex function of the travel, so that Newton's steps back from beyond do not go
    too far; where the nearest points of round ends say otherwise, the stretch is halved."""
    if thing.solid.surface or piece.surface:
        return far_mm + MARCH_MM

    def near_at(travel_mm: float) -> Nearest:
        by = [0.0, 0.0, 0.0]
        by[axis] = sign * travel_mm
        return nearest(piece.moved(Placement(UPRIGHT, (by[0], by[1], by[2]))), thing.solid)

    solid = thing.solid
    high = (solid.high[axis] - piece.low[axis] if sign > 0 else piece.high[axis] - solid.low[axis]) + thing.need_mm
    low, at = far_mm, max(high, far_mm)
    near = near_at(at)
    for _ in range(NEWTON):
        slope = sign * minus(near.here, near.there)[axis] / near.gap_mm if near.gap_mm > 0 else 0.0
        back = (near.gap_mm - thing.need_mm) / slope if slope > 1e-6 else math.inf
        if back < SETTLED_MM or at - low < SETTLED_MM:
            break
        tried = at - back if at - back > low else (low + at) / 2
        found = near_at(tried)
        if found.gap_mm < thing.need_mm - 1e-9:
            low = tried
        else:
            at, near = tried, found
    return at


@lru_cache(maxsize=64)
def _bounds(
    pieces: tuple[Solid, ...], things: tuple[ClearanceConstraint, ...]
) -> tuple[Matrix, Matrix, Matrix, Matrix, Matrix]:
    return (*bounds(pieces), *bounds(t.solid for t in things), np.array([t.need_mm for t in things]))


def _away(gap_mm: float, here: Vec, there: Vec, piece: Solid, at: Vec, other: Solid) -> Vec:
    """The direction in which the piece gains most; of an overlap the shortest way out."""
    way = minus(here, there) if gap_mm > 0 else minus(there, here)
    size = dot(way, way) ** 0.5
    if size < 1e-6:
        middle = [(piece.low[i] + piece.high[i]) / 2 + at[i] - (other.low[i] + other.high[i]) / 2 for i in range(3)]
        way = (middle[0], middle[1], middle[2])
        size = dot(way, way) ** 0.5 or 1.0
    return scaled(way, 1 / size)


def _step(
    near: list[Pressing], at: Vec, low: Vec, high: Vec, prefer: Vec, roomy_mm: float, *, cautious: bool
) -> Vec | None:
    """Moves (x, y, z), then how far x and y are from where they are preferred, then for each thing what is still
    missing and what there is to spare: each its own, since one that cannot be helped must not excuse the others."""
    from ortools.linear_solver import pywraplp  # dear to import, and only studies need it

    reach = [(max(-TRUST_MM, low[i] - at[i]), min(TRUST_MM, high[i] - at[i])) for i in range(3)]
    if any(a > b for a, b in reach):
        return None
    solver = pywraplp.Solver("step", pywraplp.Solver.CLP_LINEAR_PROGRAMMING)
    move, goal = [solver.NumVar(a, b, "") for a, b in reach], solver.Objective()
    goal.SetCoefficient(move[2], 1.0)
    for axis in range(2):
        off = solver.NumVar(0.0, math.inf, "")
        goal.SetCoefficient(off, 0.2)
        for sign in (1.0, -1.0):
            row = solver.Constraint(-math.inf, sign * (prefer[axis] - at[axis]))
            row.SetCoefficient(move[axis], sign)
            row.SetCoefficient(off, -1.0)
    for p in near:
        missing, spare = solver.NumVar(0.0, math.inf, ""), solver.NumVar(0.0, ROOM_MM if cautious else roomy_mm, "")
        goal.SetCoefficient(missing, 2000.0)
        goal.SetCoefficient(spare, -20.0)
        row = solver.Constraint(-math.inf, p.spare_mm)
        for var, value in zip((*move, missing, spare), (*(-v for v in p.away), -1.0, 1.0), strict=True):
            row.SetCoefficient(var, value)
    goal.SetMinimization()
    if solver.Solve() != pywraplp.Solver.OPTIMAL:
        return None
    return move[0].solution_value(), move[1].solution_value(), move[2].solution_value()
