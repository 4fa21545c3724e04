"""How much is left under points of a car over a hump, the top of a ramp and its foot: a rigid body on wheels that stay
on the road. Lengths in millimetres; aft of the front axle, up from the ground that the wheels stand on when it is flat.

          ___---___                 top        p
   ──O──╱── hump ──╲──O──     ──O───▲───O──╲      the foot: O───O──╱ p
"""

import math
from dataclasses import dataclass

import numpy as np

from levelcradle.core.axes import Matrix
from levelcradle.core.design.vehicle import Hump

__all__ = ["at_the_foot", "over_hump", "over_top"]

STEP_MM = 10.0  # the hump is tried so near to its last place
PARTS = 41  # of a tyre's width along the road that may stand on it


def over_top(aft: Matrix, up: Matrix, wheelbase_mm: float, slope: float) -> Matrix:
    """(n,) What is left under points between the axles where a ramp of that slope ends, with its top under each in
    turn: z − p x (L − x) / L. Others are left as high as they are.

    Valid for: wheels as points, which lets the car down a little further than it goes. Source: plane geometry.

    >>> over_top(np.array([1250.0, -300.0]), np.array([200.0, 200.0]), 2500.0, 0.2).tolist()
    [75.0, 200.0]
    """
    inside = np.clip(aft, 0.0, wheelbase_mm)
    return np.asarray(up - slope * inside * (wheelbase_mm - inside) / wheelbase_mm)


def at_the_foot(aft: Matrix, up: Matrix, wheelbase_mm: float, slope: float) -> Matrix:
    """(n,) What is left under points ahead of the front axle where it comes to a ramp of that slope, and behind the
    rear one where it leaves one: z − p e. Others are left as high as they are. Valid for and source: as ``over_top``.

    >>> at_the_foot(np.array([-500.0, 1000.0, 3000.0]), np.array([250.0, 250.0, 250.0]), 2500.0, 0.2).tolist()
    [150.0, 250.0, 150.0]
    """
    beyond = np.maximum(np.maximum(-aft, aft - wheelbase_mm), 0.0)
    return np.asarray(up - slope * beyond)


@dataclass(frozen=True, slots=True)
class _Arc:
    """A hump as a part of a circle, about its middle."""

    half_mm: float
    high_mm: float

    @staticmethod
    def of(hump: Hump) -> "_Arc":
        return _Arc(hump.long_mm / 2, hump.high_mm)

    def height(self, along: Matrix) -> Matrix:
        radius = (self.half_mm**2 + self.high_mm**2) / (2 * self.high_mm)
        round_ = np.sqrt(np.maximum(radius**2 - along**2, 0.0)) - (radius - self.high_mm)
        return np.where(np.abs(along) < self.half_mm, np.maximum(round_, 0.0), 0.0)

    def wheel(self, along: Matrix, radius_mm: float) -> Matrix:
        """How far a round wheel over it is lifted: the most that any part of it asks."""
        parts = np.linspace(-radius_mm, radius_mm, PARTS)
        sunk = radius_mm - np.sqrt(np.maximum(radius_mm**2 - parts**2, 0.0))
        return np.asarray((self.height(along[:, None] + parts) - sunk).max(axis=1))


def over_hump(aft: Matrix, up: Matrix, wheelbase_mm: float, hump: Hump, tyre_mm: float) -> Matrix:
    """(n,) The least that is left under points of a car that rolls over a hump on round wheels, slowly. Source: plane
    geometry, in steps of 10 mm."""
    arc, beyond = _Arc.of(hump), hump.long_mm / 2 + tyre_mm
    first, last = min(float(aft.min()), 0.0) - beyond, max(float(aft.max()), wheelbase_mm) + beyond
    steps = np.linspace(first, last, math.ceil((last - first) / STEP_MM) + 1)
    places = np.concatenate([steps, np.unique(aft)])  # and with its top right under each of them
    front, rear = arc.wheel(-places, tyre_mm), arc.wheel(wheelbase_mm - places, tyre_mm)
    share = aft / wheelbase_mm
    lifted = front[:, None] * (1 - share) + rear[:, None] * share
    left = up + lifted - arc.height(aft - places[:, None])
    return np.asarray(left.min(axis=0))
