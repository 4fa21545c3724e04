"""Where a tab stands.

The metal faces as the wall does        The metal faces the wall
(the tab lies outside of both):         (the tab lies between them):

      ▒▒▒▒│packing                        wall │      ▒▒▒▒
      ▒▒▒▒│  ┃ ○ bolt                          ┃packing│▒▒▒▒
          │  ┃ tab                             ┃ ○ bolt▒▒▒▒
     wall │  ┃                            tab ─┃
"""

import math
from dataclasses import dataclass

import numpy as np

from levelcradle.core.axes import Placement, Vec, cross, dot, minus, scaled, unit
from levelcradle.core.connection.connection import Seat
from levelcradle.core.connection.spot import Spot
from levelcradle.core.design.box import FACE_AT
from levelcradle.core.design.mount import Tab

__all__ = ["TOUCHES_MM", "TabFrame"]

SQUARE_WITHIN = math.cos(math.radians(2.0))
TOUCHES_MM = 1.0  # what the tab may stand off the wall, to be drawn to it: common practice, no source


@dataclass(frozen=True, slots=True)
class TabFrame:
    """Its bolt and its ways in vehicle axes: d outward from the wall, n along the tab from the bolt to the box, w.

    Attributes:
        outside: whether the metal faces as the wall does.
        off_mm: from the vehicle's metal to the wall's face, or the doubler's on it, along d.
        upright: whether it goes up or down the wall.
        edge_mm: from the bolt along n to the outside of the box.
        proud_mm: how far what closes the box stands proud of the wall where the tab passes it; 0 where it does not.
    """

    at: Vec
    d: Vec
    w: Vec
    n: Vec
    outside: bool
    off_mm: float
    upright: bool
    edge_mm: float
    proud_mm: float

    @property
    def placement(self) -> Placement:
        """From (d, w, n), zero at the bolt on the vehicle's metal, to vehicle axes."""
        return Placement(np.array([self.d, self.w, self.n]).T, self.at)

    def needs_mm(self, shape: Tab) -> float:
        """What ``off_mm`` must be for a tab: there its plate begins, along d."""
        return shape.packing_mm if self.outside else -(shape.packing_mm + shape.thickness_mm)

    @staticmethod
    def of(spot: Spot, seat: Seat, doubler_mm: float) -> "TabFrame | str":
        """In words why none can stand there."""
        lean = dot(seat.normal, spot.n)
        if abs(lean) < SQUARE_WITHIN or seat.wall is None:
            return "the box's wall does not face along the bolt (within 2°)"
        d = unit(scaled(spot.n, 1.0 if lean > 0 else -1.0))
        local = seat.placement.turn.T @ np.array(minus(spot.at, seat.placement.origin))
        low, high = seat.over
        beyond = [
            (float(reach), axis, sign)
            for axis in (seat.runs, seat.rises)
            for reach, sign in ((local[axis] - high[axis], -1.0), (low[axis] - local[axis], 1.0))
        ]
        reach, axis, sign = max(beyond)
        if reach <= 0:
            return "the hard point is not beyond an edge of the wall"
        way = [0.0, 0.0, 0.0]
        way[axis] = sign
        towards = seat.placement.direction((way[0], way[1], way[2]))
        n = unit(minus(towards, scaled(d, dot(towards, d))))
        off = dot(minus(seat.point, spot.at), seat.normal) / dot(d, seat.normal) + doubler_mm
        passed = FACE_BY[axis, sign < 0]
        proud = _proud_mm(seat) if passed == seat.closed else 0.0
        return TabFrame(spot.at, d, cross(n, d), n, lean > 0, off, axis == seat.rises, reach, proud)


FACE_BY = {row: face for face, row in FACE_AT.items()}


def _proud_mm(seat: Seat) -> float:
    """How far what closes the box stands proud of the wall."""
    local = seat.placement.turn.T @ np.array(minus(seat.point, seat.placement.origin))
    normal = seat.placement.turn.T @ np.array(seat.normal)
    axis = int(np.argmax(np.abs(normal)))
    low, high = seat.over
    return float(high[axis] - local[axis] if normal[axis] > 0 else local[axis] - low[axis])
