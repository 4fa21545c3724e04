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

__all__ = ["SEEN", "FaceHole", "on_face", "openings_of", "protruding"]


# of each face: the ways that run right and up as one sees it who stands outside before it
SEEN: dict[str, tuple[Vec, Vec]] = {
    "left": ((1.0, 0.0, 0.0), (0.0, 0.0, 1.0)),
    "right": ((-1.0, 0.0, 0.0), (0.0, 0.0, 1.0)),
    "front": ((0.0, -1.0, 0.0), (0.0, 0.0, 1.0)),
    "aft": ((0.0, 1.0, 0.0), (0.0, 0.0, 1.0)),
    "base": ((1.0, 0.0, 0.0), (0.0, -1.0, 0.0)),
    "top": ((1.0, 0.0, 0.0), (0.0, 1.0, 0.0)),
}


@dataclass(frozen=True, slots=True)
class FaceHole:
    """A hole in a face: its centre on the outside in the box's frame."""

    name: str
    face: str
    at: Vec
    diameter_mm: float


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
        yield FaceHole(name, hole.face, on_face(hole, outer), hole.diameter_mm)


def protruding(box: Box, made: Made) -> Iterator[Outside]:
    """The room of everything that stands out of the faces, as blocks; it begins on what closes the face."""
    for thing in box.protrusions.values():
        axis, side = FACE_AT[thing.face]
        at = on_face(thing, made.outer_mm)
        low, high = [v - thing.across_mm / 2 for v in at], [v + thing.across_mm / 2 for v in at]
        reach = made.proud_mm(thing.face)
        near, far = at[axis] + (reach if side else -reach), reach + thing.reach_mm
        low[axis], high[axis] = (near, at[axis] + far) if side else (at[axis] - far, near)
        yield Outside(thing.name, "protrusion", block((low[0], low[1], low[2]), (high[0], high[1], high[2])))
