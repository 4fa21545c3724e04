"""The tape: shortest distance between two things, with its parts along the axes."""

from collections.abc import Sequence
from dataclasses import dataclass

from levelcradle.core.assembly import Assembly
from levelcradle.core.axes import Vec, minus
from levelcradle.core.errors import UnknownThing
from levelcradle.core.solids import Nearest, Solid, nearest

__all__ = ["Taped", "tape_between"]


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


def _nearest(ours: Sequence[Solid], theirs: Sequence[Solid]) -> Nearest:
    return min((nearest(a, b) for a in ours for b in theirs), key=lambda near: near.gap_mm)


def _solids(assembly: Assembly, path: str) -> list[Solid]:
    if path.startswith("boxes/") and (box := assembly.boxes.get(path[6:])):
        return [piece.solid for piece in box.pieces]
    found = [o.solid for o in (*assembly.obstacles, *assembly.sides) if o.path == path]
    if not found:
        raise UnknownThing("thing with a shape", path)
    return found
