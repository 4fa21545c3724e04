"""Sides of a folded box that are panels of their own, and when they are: what his machine or his sheet does not take is
cut apart, and welded on."""

import math
from collections.abc import Iterator

import numpy as np

from levelcradle.core.axes import Placement, vec
from levelcradle.core.box.folded.flat_pattern import FACES, FIT_UP_MM, FlatPattern, edge_profile, pan_bends, pan_outline
from levelcradle.core.design.construction import FoldingShop
from levelcradle.core.part import Flat, bounding_mm

__all__ = ["SEPARATE_WAYS", "not_taken", "separate_ring", "separate_stand", "seams_mm", "seen_inside"]

SEPARATE_WAYS: tuple[frozenset[str], ...] = (
    frozenset(),
    frozenset(("front", "aft")),
    frozenset(("left", "right")),
    frozenset(FACES),
)
"""Which sides may be panels of their own, least welding first."""
_ALONG = {"front": (0.0, 1.0), "aft": (0.0, -1.0), "left": (-1.0, 0.0), "right": (1.0, 0.0)}  # as seen from inside


def not_taken(pan: FlatPattern, his: FoldingShop) -> Iterator[tuple[str, str, float, float]]:
    """What a folder does not take of a blank: (name, words, his limit, how much it asks) of each.

    A tray of four sides goes up between the fingers; two opposite walls alone do not."""
    longest = max((math.dist(bend.start, bend.end) for bend in pan_bends(pan)), default=0.0)
    long, wide = sorted(bounding_mm(pan_outline(pan)), reverse=True)
    four = not pan.separate
    rows = (
        ("longest bend", "the folder's longest bend", his.longest_bend_mm, longest),
        ("deepest tray", "the folder's deepest tray", his.deepest_mm, pan.height_mm if four else 0.0),
        ("sheet length", "the longer side of his largest sheet", his.sheet_long_mm, long),
        ("sheet width", "the shorter side of his largest sheet", his.sheet_wide_mm, wide),
    )
    for name, words, most, asks in rows:
        if most is not None and asks > most:
            yield name, words, most, asks


def separate_ring(pan: FlatPattern, face: str) -> list[Flat]:
    """A side that is a panel of its own: a ring of (height off the outside of the base, along), from the base it
    stands on to the rim.

    An end stands between the long walls, inside their bends; a long wall covers the ends, within their bends'
    outside."""
    low, high = ("left", "right") if face in ("front", "aft") else ("front", "aft")
    return [
        *((up, along) for along, up in _edge(pan, face, high)),
        *((up, -along) for along, up in reversed(list(_edge(pan, face, low)))),
    ]


def _edge(pan: FlatPattern, face: str, other: str) -> Iterator[Flat]:
    """(along, up) of its edge towards another side, from the base to the rim."""
    is_end, foot = face in ("front", "aft"), pan.foot_mm
    reach = pan.ends(face, other)[1] if is_end else pan.ends(other, face)[0]
    profile = [(along, up) for up, along in edge_profile(pan, face, other, foot)]
    if other in pan.bent_twice or other in pan.separate or _cut(pan, face, other):
        yield from profile
    elif is_end:
        round_ = max(pan.bend.radius_mm - FIT_UP_MM, 0.0)
        yield reach - round_, foot
        if round_:
            yield reach, foot + round_
        yield from profile[1:]
    else:
        back = pan.bend.setback_mm
        yield reach - back + math.sqrt(max(back**2 - (back - min(foot, back)) ** 2, 0.0)), foot
        if foot < back:
            yield reach, back
        yield from profile[1:]


def _cut(pan: FlatPattern, face: str, other: str) -> bool:
    return (face, other) in pan.corners or (other, face) in pan.corners


def seams_mm(pan: FlatPattern) -> float:
    """How much is welded along the corners of a folded blank, and under its panels."""
    total = 0.0
    for end in ("front", "aft"):
        for long in ("left", "right"):
            slopes = [pan.slopes[face] for face in (end, long) if face in pan.slopes]
            up = min(pan.high_mm(end), pan.high_mm(long)) + sum(slope.long_mm - slope.wall_mm for slope in slopes)
            up += sum(pan.steps[face][0] for face in (end, long) if face in pan.steps)
            cut = pan.corners.get((end, long))
            total += 2 * up + math.hypot(*cut) if cut else up
    feet = [separate_ring(pan, face) for face in pan.separate]
    return total + sum(ring[0][1] - ring[-1][1] for ring in feet)


def separate_stand(pan: FlatPattern, face: str) -> Placement:
    """From its own flat, (along, height) as seen from inside, to the axes of the pan."""
    along, up = np.array((*_ALONG[face], 0.0)), np.array((0.0, 0.0, 1.0))
    inward = np.cross(along, up)
    half = pan.length_mm / 2 if face in ("front", "aft") else pan.width_mm / 2
    return Placement(np.array([along, up, inward]).T, vec(-half * inward))


def seen_inside(face: str) -> float:
    """Whether its flat runs as its side's along does, seen from inside, or against it."""
    return sum(_ALONG[face])
