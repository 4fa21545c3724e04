"""How a box could hang: what is within reach of its walls, and how mounts of a kind are made for it."""

from dataclasses import dataclass

from levelcradle.core.connection.connection import Seat
from levelcradle.core.connection.spot import Spot
from levelcradle.core.design.base import Face

__all__ = ["Place", "Reach"]


@dataclass(frozen=True, eq=False, slots=True)
class Place:
    """A spot of the vehicle and the wall of a box that a mount there would hold."""

    spot: Spot
    face: Face
    seat: Seat


@dataclass(frozen=True, slots=True)
class Reach:
    """What a spot is to a wall: how far off it, by how much a mount there would miss (0: it can be made), and why, with
    a slot for the length."""

    off_mm: float
    misses_mm: float
    why: str
    square: bool
