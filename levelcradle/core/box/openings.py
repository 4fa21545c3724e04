"""Round holes in the faces of a box: openings placed by hand, and the screws of the lid."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Protocol

from levelcradle.core.axes import Vec
from levelcradle.core.box.chamfers import beyond
from levelcradle.core.box.piece import Piece
from levelcradle.core.design.base import Face
from levelcradle.core.design.box import FACE_AT, Box
from levelcradle.core.design.construction import LidScrews

__all__ = ["FaceHole", "hole_places", "lid_screw_up", "lid_screws", "on_face", "protruding", "screw_places"]

CLEAR_MM = 10.0  # of a lid screw to a cut-off edge: common practice, no source


@dataclass(frozen=True, slots=True)
class FaceHole:
    """A hole in a face: its centre on the outside in the box's frame."""

    name: str
    face: str
    at: Vec
    diameter_mm: float


def screw_places(length_mm: float, screws: LidScrews) -> list[float]:
    """Places of the lid's screws along an edge, from its middle: pairs at half a spacing and whole spacings on.

    None comes nearer to a corner than ``corner_mm``; a short edge has one in the middle.
    """
    most = length_mm / 2 - screws.corner_mm
    places = []
    at = screws.spacing_mm / 2
    while at <= most + 1e-9:
        places += [-at, at]
        at += screws.spacing_mm
    return sorted(places) or [0.0]


def lid_screw_up(box: Box, outer: Vec) -> float:
    """Height of the lid's screws above the tray's outside base: mid-way between the edge's rim and the tray's rim."""
    return (outer[2] + box.construction.thickness_mm - box.cap.edge_mm + outer[2]) / 2


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


def protruding(box: Box, outer: Vec) -> Iterator[Piece]:
    """The room of everything that stands out of the faces, as blocks; on the lid it begins on the lid's top."""
    for thing in box.protrusions.values():
        axis, side = FACE_AT[thing.face]
        at = on_face(thing, outer)
        low, high = [v - thing.across_mm / 2 for v in at], [v + thing.across_mm / 2 for v in at]
        start = at[axis] + (box.construction.thickness_mm if thing.face == "top" else 0.0)
        low[axis], high[axis] = (start, start + thing.reach_mm) if side else (start - thing.reach_mm, start)
        yield Piece(thing.name, (low[0], low[1], low[2]), (high[0], high[1], high[2]), 0.0)


def hole_places(box: Box, outer: Vec) -> Iterator[FaceHole]:
    """Every hole through the tray and lid, on the outside of its face: the openings, then the lid's screws."""
    for name, hole in sorted(box.openings.items()):
        yield FaceHole(name, hole.face, on_face(hole, outer), hole.diameter_mm)
    yield from lid_screws(box, outer)


def lid_screws(box: Box, outer: Vec) -> Iterator[FaceHole]:
    """The lid's screws, by their holes in the tray, without those that would sit where an edge is cut off."""
    for screw in _screws(box, outer):
        if all(beyond(chamfer, outer, screw.at) < -CLEAR_MM for chamfer in box.chamfers.values()):
            yield screw


def _screws(box: Box, outer: Vec) -> Iterator[FaceHole]:
    up, nut = lid_screw_up(box, outer), box.cap.screws.rivet_nut_hole_mm
    for at_x in screw_places(outer[0], box.cap.screws):
        for face, y in (("left", 0.0), ("right", outer[1])):
            yield FaceHole("lid screw", face, (outer[0] / 2 + at_x, y, up), nut)
    for at_y in screw_places(outer[1], box.cap.screws):
        for face, x in (("front", 0.0), ("aft", outer[0])):
            yield FaceHole("lid screw", face, (x, outer[1] / 2 + at_y, up), nut)
