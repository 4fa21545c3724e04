"""A box taken apart: how far each piece is drawn off from where it belongs, in the box's own frame."""

import math
from collections import Counter
from collections.abc import Iterator

import numpy as np

from levelcradle.core.assembly import PlacedBox
from levelcradle.core.axes import Vec, scaled
from levelcradle.core.box import Piece, outward
from levelcradle.core.design.base import FACE_AT

__all__ = [
    "BRACKET_MM",
    "PLATE_MM",
    "closure_off",
    "holders_off",
    "modules_off",
    "mount_off",
    "side_off",
    "sides_apart",
]

MODULES, HOLDERS, CLOSURE, CLOSURE_ALONE = 1.15, 0.6, 2.4, 1.2  # of how deep the box is where it is filled
PLATE_MM, BRACKET_MM = 70.0, 160.0
STILL: Vec = (0.0, 0.0, 0.0)


def modules_off(box: PlacedBox) -> Vec:
    """Modules go out where the box is filled."""
    return _out(box, MODULES + _more(box))


def closure_off(box: PlacedBox) -> Vec:
    """What closes it, further than the modules."""
    return _out(box, CLOSURE + _more(box) if box.shell.modules else CLOSURE_ALONE)


def _out(box: PlacedBox, share: float) -> Vec:
    face = box.shell.made.closed_face
    return scaled(outward(face), share * box.shell.outer_mm[FACE_AT[face][0]])


def sides_apart(box: PlacedBox) -> Iterator[Piece]:
    """Sides and base that are each a part of their own; none of a tray that is folded from one sheet."""
    sides = [p for p in box.shell.pieces if p.role in ("base", "wall", "top")]
    of = Counter(piece.part for piece in sides)
    yield from (piece for piece in sides if of[piece.part] == 1)


def holders_off(box: PlacedBox) -> Vec:
    """What holds the modules, between the box and them."""
    return _out(box, MODULES)


def _more(box: PlacedBox) -> float:
    """How much further the rest goes where something holds the modules."""
    return HOLDERS if box.shell.held.pieces else 0.0


def side_off(box: PlacedBox, centre: Vec) -> Vec:
    """A side goes straight off what it is fixed to."""
    return _outward(box, centre, BRACKET_MM, ways=3)


def mount_off(box: PlacedBox, at: Vec, by_mm: float) -> Vec:
    """A bracket goes off the wall that it holds."""
    return _outward(box, at, by_mm, ways=2)


def _outward(box: PlacedBox, at: Vec, by_mm: float, *, ways: int) -> Vec:
    """The way of aft, right (and up) in which a place is nearest to the outside."""
    middle = np.array(box.shell.outer_mm) / 2
    away = ((np.array(at) - middle) / np.maximum(middle, 1.0))[:ways]
    axis = int(np.abs(away).argmax())
    by = [0.0, 0.0, 0.0]
    by[axis] = math.copysign(by_mm, away[axis])
    return by[0], by[1], by[2]
