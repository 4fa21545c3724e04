"""The tape: shortest distance between two things, with its parts along the axes."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from levelcradle.core.assembly import Assembly
from levelcradle.core.axes import Placement, Vec, minus, plus, scaled
from levelcradle.core.errors import DesignError, Problem, UnknownThing
from levelcradle.core.solids import Nearest, Solid, nearest

__all__ = ["Taped", "move_to", "tape_between"]


@dataclass(frozen=True, slots=True)
class Taped:
    """A distance (negative: overlap), the two points it is between, and its aft, across and up parts [mm]."""

    distance_mm: float
    here: Vec
    there: Vec
    parts_mm: Vec


def tape_between(assembly: Assembly, one: str, other: str) -> Taped:
    """Shortest distance between two things, by their paths. Raises UnknownThing."""
    near = _nearest(_solids(assembly, one), _solids(assembly, other))
    return Taped(near.gap_mm, near.here, near.there, minus(near.there, near.here))


def move_to(assembly: Assembly, box: str, other: str, want_mm: float) -> Vec:
    """How a box is moved so that its distance to another thing becomes what is wanted: straight along the tape, looked
    at again until it holds to a hundredth. Raises UnknownThing; DesignError where the two overlap so that no tape goes
    between them."""
    ours, theirs = _solids(assembly, box), _solids(assembly, other)
    by = (0.0, 0.0, 0.0)
    for _ in range(12):
        near = _nearest([s.moved(Placement(np.eye(3), by)) for s in ours], theirs)
        off = near.gap_mm - want_mm
        if abs(off) < 0.005:
            return by
        way = minus(near.there, near.here) if near.gap_mm > 0 else minus(near.here, near.there)
        size = sum(v * v for v in way) ** 0.5
        if size < 1e-9:
            break
        by = plus(by, scaled(way, off / size))
    raise DesignError((Problem("/want_mm", "no straight move along the tape makes it that"),))


def _nearest(ours: Sequence[Solid], theirs: Sequence[Solid]) -> Nearest:
    return min((nearest(a, b) for a in ours for b in theirs), key=lambda near: near.gap_mm)


def _solids(assembly: Assembly, path: str) -> list[Solid]:
    if box := assembly.box_at(path):
        return [piece.solid for piece in box.pieces]
    found = [o.solid for o in (*assembly.obstacles, *assembly.sides) if o.path == path]
    if not found:
        raise UnknownThing("thing with a shape", path)
    return found
