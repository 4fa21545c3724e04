"""What is missing where nothing within reach would hold a box: one more point, and from where to where it would do."""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import groupby

import numpy as np

from levelcradle.core.assembly import PlacedBox
from levelcradle.core.axes import vec
from levelcradle.core.connection import Spot
from levelcradle.core.design.base import Side
from levelcradle.core.design.box import FACE_AT
from levelcradle.core.finding import Figure
from levelcradle.core.hang.within_reach import SIDES, Within, place_on

__all__ = ["Missing", "missing_points"]

OFF_MM = 60.0  # a new point so far from the wall
STEPS = 8  # along a wall so many places are tried
IN_FROM_MM = 60.0  # none nearer to its ends


@dataclass(frozen=True, slots=True)
class Missing:
    """A sentence with slots for its figures."""

    message: str
    figures: tuple[Figure, ...] = ()


def missing_points(box: PlacedBox, usable: Sequence[Within], holds: Callable[[Within], bool]) -> list[Missing]:
    """Where one more point would do. It stands as the nearest one does: as high, and its metal facing the same way.

    Args:
        holds: whether a set that has this point in it would hold.
    """
    if not usable:
        return [Missing("No hard point is within reach: it needs three that are not in a line, beside its walls")]
    like = next((row.place.spot for row in usable if row.kind == "angle"), None)
    found = list(_ranges(box, like, holds)) if like else []
    if found:
        return found
    count = len(usable)
    points = "One hard point is" if count == 1 else f"{count} hard points are"
    return [
        Missing(
            f"{points} within reach, and one more on any wall would not do: it needs three or four spread around it"
        )
    ]


def _ranges(box: PlacedBox, like: Spot, holds: Callable[[Within], bool]) -> Iterator[Missing]:
    """On each wall the longest stretch of which every place that was tried would do."""
    for face in SIDES:
        axis = 1 - FACE_AT[face][0]
        runs = [[p.place.spot.at for p in run] for good, run in groupby(_along(box, face, like), key=holds) if good]
        if not runs:
            continue
        run = max(runs, key=len)
        first, last = run[0][axis], run[-1][axis]
        where = (
            f"at {{0}} {_word(axis, first)}"
            if len(run) == 1
            else f"between {{0}} {_word(axis, first)} and {{1}} {_word(axis, last)}"
        )
        figures = (Figure(abs(first), "mm"), Figure(abs(last), "mm"), Figure(like.at[2], "mm"))
        yield Missing(f"A point {_beside(face)} it {where}, {{2}} up, would do", figures)


def _beside(face: Side) -> str:
    return {"left": "left of", "right": "right of", "front": "ahead of", "aft": "behind"}[face]


def _word(axis: int, value: float) -> str:
    return (("aft", "fore"), ("R", "L"))[axis][value < 0]


def _along(box: PlacedBox, face: Side, like: Spot) -> Iterator[Within]:
    """Points that are not there, along a wall."""
    out, far = FACE_AT[face]
    axis, length = 1 - out, box.shell.outer_mm[1 - out]
    height = float((box.placement.turn.T @ (np.array(like.at) - np.array(box.placement.origin)))[2])
    for n, off in enumerate(np.linspace(IN_FROM_MM, length - IN_FROM_MM, STEPS) if length > 2 * IN_FROM_MM else ()):
        local = np.zeros(3)
        local[axis], local[2] = off, height
        local[out] = box.shell.outer_mm[out] + OFF_MM if far else -OFF_MM
        spot = replace(
            like, path=f"hardpoints/{face}-{n}", name="a new point", at=box.placement.point(vec(local)), thread=None
        )
        yield Within("angle", spot.path, spot.name, face, OFF_MM, 0.0, "", place_on(box, spot, face))
