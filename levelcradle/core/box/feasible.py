"""Whether a box can be folded and drilled as drawn."""

from collections.abc import Iterator
from dataclasses import dataclass

from levelcradle.core.axes import Vec
from levelcradle.core.box.openings import hole_places
from levelcradle.core.design.box import Box

__all__ = ["Makeable", "makeable"]

_AXES = {"front": (1, 2), "aft": (1, 2), "left": (0, 2), "right": (0, 2), "base": (0, 1), "lid": (0, 1)}


@dataclass(frozen=True, slots=True)
class Makeable:
    """One demand of the folder or driller: what there is, what is needed, and the words."""

    name: str
    says: str
    has_mm: float
    needs_mm: float


def makeable(box: Box, outer: Vec) -> Iterator[Makeable]:
    """Shortest sides for the press brake and free sheet round every hole.

    Source: shortest flange about 0.7 V with V = 8 t, hole edge at least 2 t from an edge and 2 t + R from a bend:
    common practice, no source.
    """
    t, radius = box.thickness_mm, box.bend_radius_mm
    shortest = max(5.6 * t, t + radius)
    yield Makeable("lid edge", "lid edge for the press brake", box.lid.edge_mm, shortest)
    yield Makeable("wall", "wall height for the press brake", outer[2], max(shortest, box.lid.edge_mm))
    base = 2 * (t + radius) + shortest
    yield Makeable("base", "width of the base between its bends", min(outer[0], outer[1]), base)
    from_bend, from_rim = 3 * t + radius, 2 * t
    for hole in hole_places(box, outer):
        if hole.name == "lid screw":
            continue
        sides = [(hole.at[i], from_bend) for i in _AXES[hole.face]]
        sides += [(outer[i] - hole.at[i], from_rim if i == 2 else from_bend) for i in _AXES[hole.face]]
        has, needs = min(((d - hole.diameter_mm / 2, need) for d, need in sides), key=lambda row: row[0] - row[1])
        yield Makeable(f"hole {hole.name}", f"sheet beside hole {hole.name}", has, needs)
