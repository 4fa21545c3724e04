"""What sits on the faces of a box: openings and what stands out of them, each measured from two edges of its face."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Protocol

from levelcradle.core.axes import Vec
from levelcradle.core.box.made import Made
from levelcradle.core.box.piece import Outside
from levelcradle.core.design.base import Face
from levelcradle.core.design.box import FACE_AT, Box
from levelcradle.core.solids import block

__all__ = ["SEEN", "FaceHole", "before_face", "on_face", "openings_of", "outward", "protruding"]


# of each face: the ways that run right and up as one sees it who stands outside before it
SEEN: dict[str, tuple[Vec, Vec]] = {
    "left": ((1.0, 0.0, 0.0), (0.0, 0.0, 1.0)),
    "right": ((-1.0, 0.0, 0.0), (0.0, 0.0, 1.0)),
    "front": ((0.0, -1.0, 0.0), (0.0, 0.0, 1.0)),
    "aft": ((0.0, 1.0, 0.0), (0.0, 0.0, 1.0)),
    "base": ((1.0, 0.0, 0.0), (0.0, -1.0, 0.0)),
    "top": ((1.0, 0.0, 0.0), (0.0, 1.0, 0.0)),
}


def outward(face: str) -> Vec:
    """The way that a face of a box looks, in its own frame: of length 1."""
    axis, far = FACE_AT[face]
    way = [0.0, 0.0, 0.0]
    way[axis] = 1.0 if far else -1.0
    return way[0], way[1], way[2]


@dataclass(frozen=True, slots=True)
class FaceHole:
    """A hole in a face: its centre on the outside in the box's frame. ``seat_mm``: as much of the wall as it takes,
    with what sits in it."""

    name: str
    face: str
    at: Vec
    diameter_mm: float
    seat_mm: float = 0.0


class OnFace(Protocol):
    """What sits on a face, measured from two named edges of it."""

    @property
    def face(self) -> Face: ...
    @property
    def from_(self) -> tuple[Face, Face]: ...
    @property
    def u_mm(self) -> float: ...
    @property
    def v_mm(self) -> float: ...


def on_face(thing: OnFace, outer: Vec) -> Vec:
    """Its middle on the outside of its face, measured from two edges."""
    axis, side = FACE_AT[thing.face]
    at = [outer[i] / 2 for i in range(3)]
    at[axis] = outer[axis] * side
    for edge, distance in zip(thing.from_, (thing.u_mm, thing.v_mm), strict=True):
        along, end = FACE_AT[edge]
        at[along] = outer[along] - distance if end else distance
    return at[0], at[1], at[2]


def openings_of(box: Box, outer: Vec) -> Iterator[FaceHole]:
    """The openings placed by hand, on the outside of their faces."""
    for name, hole in sorted(box.openings.items()):
        yield FaceHole(name, hole.face, on_face(hole, outer), hole.diameter_mm, hole.seat_mm)


def protruding(box: Box, made: Made) -> Iterator[Outside]:
    """The room of everything that stands out of the faces, as blocks; it begins on what closes the face."""
    for thing in box.protrusions.values():
        yield _standing_out(thing.name, thing, thing.across_mm, thing.reach_mm, made)
    for hole in box.openings.values():
        if hole.fitted and hole.fitted.reach_mm:
            yield _standing_out(hole.name, hole, hole.seat_mm, hole.fitted.reach_mm, made)


def _standing_out(name: str, thing: OnFace, across_mm: float, reach_mm: float, made: Made) -> Outside:
    face = made.proud_mm(thing.face)
    low, high = before_face(thing, made.outer_mm, across_mm, (face, face + reach_mm))
    return Outside(name, "protrusion", block(low, high))


def before_face(thing: OnFace, outer: Vec, across_mm: float, out_mm: tuple[float, float]) -> tuple[Vec, Vec]:
    """Corners of a block before a place on a face, between two distances off it; inward they are negative."""
    axis, side = FACE_AT[thing.face]
    at, (near, far) = on_face(thing, outer), out_mm
    low, high = [v - across_mm / 2 for v in at], [v + across_mm / 2 for v in at]
    low[axis], high[axis] = (at[axis] + near, at[axis] + far) if side else (at[axis] - far, at[axis] - near)
    return (low[0], low[1], low[2]), (high[0], high[1], high[2])
