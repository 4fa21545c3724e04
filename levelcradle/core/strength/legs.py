"""A flat leg of a bracket that is bent, sheared along and pulled."""

import numpy as np
from numpy.typing import NDArray

from levelcradle.core.strength.bolts import GAMMA_M0

__all__ = ["ROAD_FACTOR", "leg_capacity"]

ROAD_FACTOR = 1.5  # elastic, on yield: common practice, no source


def leg_capacity(
    width_mm: float, thickness_mm: float, yield_mpa: float, *, road: bool | NDArray[np.bool_]
) -> tuple[NDArray[np.float64], NDArray[np.float64], NDArray[np.float64]]:
    """(M_Rd out of its plane, M_s in it, N_Rd): plastic fy/γM0 in a crash, elastic fy/1.5 on the road [N·mm, N].

    >>> [round(float(row)) for row in leg_capacity(90.0, 6.0, 355.0, road=False)]
    [261409, 3921136, 174273]
    """
    shape, stress = np.where(road, 6.0, 4.0), np.where(road, yield_mpa / ROAD_FACTOR, yield_mpa / GAMMA_M0)
    t, w = thickness_mm, width_mm
    return w * t**2 / shape * stress, t * w**2 / shape * stress, w * t * stress
