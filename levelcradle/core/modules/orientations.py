"""The 24 ways a module can stand: which face is down, which looks aft."""

import math
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from levelcradle.core.axes import Matrix, Vec, cross
from levelcradle.core.design.base import ModuleFace
from levelcradle.core.design.box import Orientation
from levelcradle.core.design.stock import ModuleKind

__all__ = [
    "DIRECTIONS",
    "RAKE_DEG",
    "Resting",
    "Turned",
    "every_orientation",
    "orientations_for",
    "rests",
    "turned",
    "turned_about",
]

OPPOSITE: dict[ModuleFace, ModuleFace] = {
    "end_a": "end_b",
    "end_b": "end_a",
    "side_a": "side_b",
    "side_b": "side_a",
    "base": "top",
    "top": "base",
}
DIRECTIONS = ("front", "aft", "left", "right", "down", "up")
"""The six ways a face can look in the box's frame: − and + of aft, right, up."""

_NORMAL: dict[str, Vec] = {
    "end_a": (-1, 0, 0),
    "end_b": (1, 0, 0),
    "side_a": (0, -1, 0),
    "side_b": (0, 1, 0),
    "base": (0, 0, -1),
    "top": (0, 0, 1),
}
_FACES: tuple[ModuleFace, ...] = ("end_a", "end_b", "side_a", "side_b", "base", "top")


@dataclass(frozen=True, slots=True)
class Turned:
    """A module kind in one turn, in box axes.

    Attributes:
        size_mm: (aft, across, up), grown to the widest state.
        looks: which module face looks front, aft, left, right, down, up.
        face_clearance_mm: free space each of those faces asks for before it.
        neighbour_mm: gap to a neighbour of the same block along aft, across, up, as the two faces ask.
    """

    size_mm: Vec
    looks: tuple[ModuleFace, ...]
    face_clearance_mm: tuple[float, ...]
    neighbour_mm: Vec


def turned(kind: ModuleKind, turn: Orientation, *, either_way: bool = False) -> Turned:
    """A kind as it stands in a turn. Where two faces of neighbours look at each other, the larger demand counts.

    ``either_way``: some of them are turned about, so that each end and side may be any of the two.
    """
    matrix = _matrix(turn.down, turn.aft)
    grown = np.array(kind.size_mm) + np.array([kind.grows_mm(axis) for axis in range(3)])
    size = np.abs(matrix) @ grown
    looks = _looks(turn)
    asks = [kind.face_gap_mm.get(face, 0.0) for face in looks]
    asks[5] = max(asks[5], kind.above_mm)
    if either_way:
        asks[:4] = [max(asks[0], asks[1])] * 2 + [max(asks[2], asks[3])] * 2
    neighbour = [max(asks[2 * axis], asks[2 * axis + 1], kind.neighbour_gap_mm) for axis in range(3)]
    return Turned(
        (float(size[0]), float(size[1]), float(size[2])), looks, tuple(asks), (neighbour[0], neighbour[1], neighbour[2])
    )


def turned_about(turn: Orientation) -> Orientation:
    """Half a turn round the upright."""
    return Orientation(down=turn.down, aft=OPPOSITE[turn.aft])


def orientations_for(kind: ModuleKind, stands: Matrix | None = None) -> list[Orientation]:
    """Every turn in its box that the kind may rest in. ``stands``: the (3, 3) turn of the box in the vehicle; None for
    upright."""
    turns = every_orientation()
    if stands is None:
        return sorted((t for t, _ in turns if t.down in kind.may_rest_on), key=lambda t: kind.may_rest_on.index(t.down))
    return list(_allowed(kind.may_rest_on, stands.tobytes()))


@lru_cache(maxsize=1024)
def _allowed(may_rest_on: tuple[ModuleFace, ...], stands: bytes) -> tuple[Orientation, ...]:
    turn = np.frombuffer(stands).reshape(3, 3)
    return tuple(t for t, looks in every_orientation() if _rests(looks, may_rest_on, turn).allowed)


@lru_cache(maxsize=1)
def every_orientation() -> tuple[tuple[Orientation, tuple[ModuleFace, ...]], ...]:
    """All 24, each with which face looks which way."""
    pairs = [(down, aft) for down in _FACES for aft in _FACES if aft not in (down, OPPOSITE[down])]
    return tuple((turn, _looks(turn)) for down, aft in pairs for turn in [Orientation(down=down, aft=aft)])


RAKE_DEG = 20.0  # a module on a rake this steep still rests on the face: common practice, no source


@dataclass(frozen=True, slots=True)
class Resting:
    """The face of a module that is nearest to down as its box stands, how far off down it looks, and whether the kind
    may rest so."""

    face: ModuleFace
    off_deg: float
    allowed: bool


def rests(looks: tuple[ModuleFace, ...], kind: ModuleKind, stands: Matrix) -> Resting:
    """On what a module rests. ``looks``: its faces in the six ways of its box, ``stands``: the (3, 3) turn of the
    box."""
    return _rests(looks, kind.may_rest_on, stands)


def _rests(looks: tuple[ModuleFace, ...], may_rest_on: tuple[ModuleFace, ...], stands: Matrix) -> Resting:
    down = -stands[2]  # the vehicle's down, in the box's frame
    share = [float(down[way // 2]) * (1 if way % 2 else -1) for way in range(6)]
    way = share.index(max(share))
    off = math.degrees(math.acos(min(share[way], 1.0)))
    return Resting(looks[way], off, looks[way] in may_rest_on and off <= RAKE_DEG + 1e-9)


def _looks(turn: Orientation) -> tuple[ModuleFace, ...]:
    return _looking(turn.down, turn.aft)


@lru_cache(maxsize=64)
def _looking(down: str, aft: str) -> tuple[ModuleFace, ...]:
    matrix = _matrix(down, aft)
    return tuple(_face_towards(matrix, way) for way in range(6))


@lru_cache(maxsize=64)
def _matrix(down: str, aft: str) -> Matrix:
    """(3, 3) from module axes to box axes: rows are box aft, right and up written in module axes."""
    aft_m, up_m = _NORMAL[aft], tuple(-v for v in _NORMAL[down])
    right_m = cross((up_m[0], up_m[1], up_m[2]), aft_m)
    return np.array([aft_m, right_m, up_m], dtype=float)


def _face_towards(matrix: Matrix, way: int) -> ModuleFace:
    axis, sign = way // 2, 1 if way % 2 else -1
    wanted = matrix[axis] * sign
    return next(face for face in _FACES if np.allclose(_NORMAL[face], wanted))
