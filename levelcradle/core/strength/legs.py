"""A flat leg of a bracket that is bent, sheared along, pulled and pressed."""

import math

import numpy as np
from numpy.typing import NDArray

from levelcradle.core.design.tables import Material
from levelcradle.core.strength.bolts import GAMMA_M0

__all__ = ["ROAD_FACTOR", "STIFF_MPA", "buckles", "leg_capacity"]

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


STIFF_MPA = {"steel": 210_000.0, "aluminium": 70_000.0}  # EN 1993-1-1 3.2.6, EN 1999-1-1 3.2.5
CURVE_C = 0.49  # of solid sections: EN 1993-1-1 table 6.2


def buckles(metal: Material, thickness_mm: float, free_mm: float, yield_mpa: float) -> float:
    """χ: the share of its yield that a flat leg bears which is pressed along and free for so much, taken as free to
    sway at one end: twice as long. Source: EN 1993-1-1 6.3.1, curve c.

    >>> from levelcradle.core.design import standard_tables
    >>> steel = standard_tables().materials["s355"]
    >>> buckles(steel, 8.0, 8.0, 355.0), round(buckles(steel, 8.0, 150.0, 355.0), 2)
    (1.0, 0.26)
    """
    slender = 2 * free_mm / (thickness_mm / math.sqrt(12))
    relative = slender / (math.pi * math.sqrt(STIFF_MPA[metal.weldable_with] / yield_mpa))
    if relative <= 0.2:
        return 1.0
    phi = 0.5 * (1 + CURVE_C * (relative - 0.2) + relative**2)
    return 1 / (phi + math.sqrt(phi**2 - relative**2))
