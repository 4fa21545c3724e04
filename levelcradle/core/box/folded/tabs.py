"""Tabs of walls that are cut apart, and the notches in the edge of the base that they stand in."""

from collections.abc import Iterator

from shapely.geometry import Polygon, box
from shapely.geometry.polygon import orient

from levelcradle.core.box.folded.flat_pattern import FlatPattern
from levelcradle.core.box.folded.separate import separate_ring
from levelcradle.core.part import Flat

__all__ = ["notched", "notches_mm2", "tabbed", "tabs_mm2", "tabs_of"]

TAB_MM, APART_MM = 20.0, 150.0  # how wide, and about so far from one to the next: common practice, no source
LEAST_THICKNESSES = 3.0  # of a tab, in its sheet: common practice, no source
CLEAR_MM = 0.2  # of a tab in its notch on each side, cut by laser: common practice, no source


def tabs_of(pan: FlatPattern, face: str) -> list[Flat]:
    """From where to where along a side its tabs go; none of a side that is folded or too short for two."""
    if not pan.tabbed or face not in pan.separate:
        return []
    foot = [along for up, along in separate_ring(pan, face) if abs(up - pan.foot_mm) < 1e-6]
    start, long = min(foot), max(foot) - min(foot)
    wide, count = max(TAB_MM, LEAST_THICKNESSES * pan.bend.thickness_mm), max(2, round(long / APART_MM))
    if long < 2 * count * wide:
        return []
    middles = (start + long * (n + 0.5) / count for n in range(count))
    return [(middle - wide / 2, middle + wide / 2) for middle in middles]


def tabs_mm2(pan: FlatPattern, face: str) -> float:
    return sum((end - start) * pan.foot_mm for start, end in tabs_of(pan, face))


def tabbed(pan: FlatPattern, face: str, ring: Polygon) -> Polygon:
    """A side, (height, along) from the outside of the base, with its tabs down to that; one that crosses itself as it
    is, for the folder's check to refuse."""
    for start, end in tabs_of(pan, face) if ring.is_valid else ():
        ring = ring.union(box(0.0, start, pan.foot_mm, end))
    return ring


def _notches(pan: FlatPattern) -> Iterator[Polygon]:
    """In the blank, open at the edge of the base."""
    deep = pan.bend.thickness_mm + CLEAR_MM
    for face in pan.sides:
        for start, end in tabs_of(pan, face):
            low, high = start - CLEAR_MM, end + CLEAR_MM
            half = (pan.length_mm if face in ("front", "aft") else pan.width_mm) / 2
            near, far = (half - deep, half + 1.0) if face in ("aft", "right") else (-half - 1.0, -half + deep)
            yield box(near, low, far, high) if face in ("front", "aft") else box(low, near, high, far)


def notches_mm2(pan: FlatPattern) -> float:
    deep = pan.bend.thickness_mm + CLEAR_MM
    return sum((end - start + 2 * CLEAR_MM) * deep for face in pan.sides for start, end in tabs_of(pan, face))


def notched(pan: FlatPattern, outline: tuple[Flat, ...]) -> tuple[Flat, ...]:
    """The outline of a blank with the notches in its base."""
    left = Polygon(outline)
    for notch in _notches(pan) if left.is_valid else ():
        left = left.difference(notch)
    if left.geom_type != "Polygon" or left.equals(Polygon(outline)):
        return outline
    return tuple((float(x), float(y)) for x, y in orient(left, 1.0).exterior.coords[:-1])
