"""Bolts, and the sheet they hold in. Partial factors γM0 1.1 and γM2 1.25 (the first above Eurocode's recommended 1.0:
cautious, no source; the second as EN 1993-1-8)."""

import math

import numpy as np
from numpy.typing import NDArray

from levelcradle.core.design.tables import BoltClass, BoltSize

__all__ = ["GAMMA_M0", "GAMMA_M2", "bearing_n", "bolt_capacity", "pull_and_shear", "pull_through_n"]

GAMMA_M0 = 1.1
GAMMA_M2 = 1.25


def bolt_capacity(bolt: BoltSize, grade: BoltClass) -> tuple[float, float]:
    """(Ft, Fv) tension and shear, threads in the shear plane [N]. Source: EN 1993-1-8 table 3.4."""
    area, fub = bolt.stress_area_mm2, grade.ultimate_mpa
    return 0.9 * fub * area / GAMMA_M2, grade.alpha_v * fub * area / GAMMA_M2


def pull_and_shear(
    pull_n: NDArray[np.float64], shear_n: NDArray[np.float64], ft_n: float, fv_n: float
) -> NDArray[np.float64]:
    """Use of a bolt that is pulled and sheared: max(V/Fv + T/(1.4 Ft), T/Ft). Source: EN 1993-1-8 table 3.4.

    >>> float(pull_and_shear(np.array(50.0), np.array(0.0), 100.0, 60.0))
    0.5
    """
    return np.maximum(shear_n / fv_n + pull_n / (1.4 * ft_n), pull_n / ft_n)


def bearing_n(bolt: BoltSize, bolt_mpa: float, sheet_mpa: float, thickness_mm: float) -> float:
    """A bolt on the rim of its hole in a sheet, well inside its edges: 2.5 αb fu d t / γM2 [N].

    Valid for: holes at least 3 d0 from the edge that they bear towards, 1.5 d0 from the others.
    Source: EN 1993-1-8 table 3.4.
    """
    alpha = min(bolt_mpa / sheet_mpa, 1.0)
    return 2.5 * alpha * sheet_mpa * bolt.d_mm * thickness_mm / GAMMA_M2


def pull_through_n(across_mm: float, sheet_mpa: float, thickness_mm: float) -> float:
    """A head, nut or stud of so much across pulled through a sheet: 0.6 π dm t fu / γM2 [N]. Source: EN 1993-1-8 table
    3.4 (punching shear)."""
    return 0.6 * math.pi * across_mm * thickness_mm * sheet_mpa / GAMMA_M2
