"""Openings of the vehicle in the metal round its spaces: one that is there opens, one to be cut takes its metal
away."""

from collections.abc import Iterator, Sequence

from levelcradle.core.axes import Vec, cross, dot, minus, plus, scaled, unit
from levelcradle.core.design.survey import VehicleOpening
from levelcradle.core.solids import Solid, block, clipped, nearest

__all__ = ["pierced"]

IN_IT_MM = (
    30.0  # an opening whose middle is no further off metal than this is an opening of it: common practice, no source
)


def pierced(solid: Solid, openings: Sequence[VehicleOpening]) -> Iterator[tuple[Solid, bool]]:
    """The pieces of a convex piece of metal round its openings, and, where one is there already, the panel in it that
    opens.

    Yields: each piece, and whether it opens.
    """
    pieces, panels = [solid], list[Solid]()
    for opening in openings:
        rest: list[Solid] = []
        for piece in pieces:
            inner, around = _cut(piece, opening)
            rest += around
            if inner is not None and opening.cut == "existing":
                panels.append(inner)
        pieces = rest
    yield from ((piece, False) for piece in pieces)
    yield from ((panel, True) for panel in panels)


def _cut(solid: Solid, opening: VehicleOpening) -> tuple[Solid | None, list[Solid]]:
    """What of a piece lies in an opening, and up to four pieces round it."""
    at = opening.at_mm
    dot_ = block(minus(at, (0.05, 0.05, 0.05)), plus(at, (0.05, 0.05, 0.05)))
    if nearest(dot_, solid).gap_mm > IN_IT_MM:
        return None, [solid]
    inner: Solid | None = solid
    around: list[Solid] = []
    for way, half in _edges(opening):
        if inner is None:
            return None, [solid]
        beyond = clipped(inner, scaled(way, -1.0), -(dot(way, at) + half))
        inner = clipped(inner, way, dot(way, at) + half)
        if beyond is not None:
            around.append(beyond)
    return (None, [solid]) if inner is None else (inner, around)


def _edges(opening: VehicleOpening) -> Iterator[tuple[Vec, float]]:
    """The four ways out of an opening in its own plane, and how far its edge is: width level (across, where it looks up
    or down), height square to it."""
    n = unit(opening.direction)
    wide = unit((-n[1], n[0], 0.0)) if abs(n[2]) < 0.9 else (0.0, 1.0, 0.0)
    high = unit(cross(n, wide))
    for way, half in ((wide, opening.width_mm / 2), (high, opening.height_mm / 2)):
        yield way, half
        yield scaled(way, -1.0), half
