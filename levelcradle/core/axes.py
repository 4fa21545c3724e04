"""Vehicle axes and poses.

x is aft of the front axle line, y right of the centreline, z up from the ground in the surveyed stance:
a right-handed frame in millimetres. Tuples are always (aft, right, up).
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

__all__ = ["AXES", "Matrix", "Placement", "Vec", "cross", "dot", "minus", "plus", "rotation", "scaled", "unit", "vec"]

Vec = tuple[float, float, float]
Matrix = NDArray[np.float64]

AXES: tuple[Vec, Vec, Vec] = ((1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0))
_QUARTERS = {0: (1.0, 0.0), 90: (0.0, 1.0), 180: (-1.0, 0.0), 270: (0.0, -1.0)}


def _cos_sin(angle_deg: float) -> tuple[float, float]:
    """Cosine and sine; exact at quarter turns, so that four of them return every figure."""
    turn = angle_deg % 360.0
    if turn in _QUARTERS:
        return _QUARTERS[int(turn)]
    return math.cos(math.radians(turn)), math.sin(math.radians(turn))


def rotation(yaw_deg: float, pitch_deg: float, roll_deg: float) -> Matrix:
    """(3, 3) matrix that turns box axes into vehicle axes.

    Yaw about up, then pitch about the turned right, then roll about the twice turned aft, each by the right-hand rule:
    + pitch lifts the nose, + roll lifts the right side. Worked out here, for a quarter turn must be exact: scipy's has
    1e-16 in it."""
    (cy, sy), (cp, sp), (cr, sr) = _cos_sin(yaw_deg), _cos_sin(pitch_deg), _cos_sin(roll_deg)
    yaw = np.array([[cy, -sy, 0], [sy, cy, 0], [0, 0, 1.0]])
    pitch = np.array([[cp, 0, sp], [0, 1.0, 0], [-sp, 0, cp]])
    roll = np.array([[1.0, 0, 0], [0, cr, -sr], [0, sr, cr]])
    return np.asarray(yaw @ pitch @ roll)


@dataclass(frozen=True, eq=False, slots=True)
class Placement:
    """Where a local frame stands in the vehicle: point = origin + turn @ local."""

    turn: Matrix  # (3, 3) rotation
    origin: Vec

    def points(self, local: Matrix) -> Matrix:
        """(n, 3) local points to (n, 3) vehicle points."""
        return np.asarray(local @ self.turn.T + np.array(self.origin))

    def point(self, local: Vec) -> Vec:
        return vec(self.points(np.array([local]))[0])

    def direction(self, local: Vec) -> Vec:
        return vec(self.turn @ np.array(local))

    @property
    def inverse(self) -> "Placement":
        """From the vehicle to the local frame."""
        return Placement(self.turn.T, vec(-self.turn.T @ np.array(self.origin)))

    def after(self, first: "Placement") -> "Placement":
        """Both at once: first the one, then this."""
        return Placement(self.turn @ first.turn, self.point(first.origin))

    @staticmethod
    def about(anchor_local: Vec, at: Vec, turn: Matrix) -> "Placement":
        """The placement that turns about an anchor and puts that anchor at a vehicle point."""
        return Placement(turn, minus(at, vec(turn @ np.array(anchor_local))))


def vec(values: Matrix | Sequence[float]) -> Vec:
    """Three numbers as plain floats."""
    return float(values[0]), float(values[1]), float(values[2])


def plus(a: Vec, b: Vec) -> Vec:
    return a[0] + b[0], a[1] + b[1], a[2] + b[2]


def minus(a: Vec, b: Vec) -> Vec:
    return a[0] - b[0], a[1] - b[1], a[2] - b[2]


def scaled(a: Vec, factor: float) -> Vec:
    return a[0] * factor, a[1] * factor, a[2] * factor


def dot(a: Vec, b: Vec) -> float:
    return a[0] * b[0] + a[1] * b[1] + a[2] * b[2]


def cross(a: Vec, b: Vec) -> Vec:
    return a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]


def unit(a: Vec) -> Vec:
    """The direction of a vector. Raises ZeroDivisionError for a zero vector."""
    return scaled(a, 1.0 / math.sqrt(dot(a, a)))
