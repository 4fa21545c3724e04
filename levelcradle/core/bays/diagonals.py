"""Check diagonals: what the stations give, what the tape says, and how far out of square that means."""

import math
from dataclasses import dataclass

from levelcradle.core.bays.sections import corner_of
from levelcradle.core.design.bay import Bay, Diagonal

__all__ = ["DiagonalResult", "diagonal_result", "out_of_square_deg"]


@dataclass(frozen=True, slots=True)
class DiagonalResult:
    """One check: by the stations, by the tape, the misfit (tape less stations) and the angle it implies, if it has
    one."""

    id: str
    by_stations_mm: float
    by_tape_mm: float
    misfit_mm: float
    out_of_square_deg: float | None


def diagonal_result(bay: Bay) -> list[DiagonalResult]:
    """Of those that were taken."""
    out = []
    for key, diagonal in bay.diagonals.items():
        if diagonal.length_mm is None:
            continue
        one, other = (corner_of(bay, end.station, end.corner) for end in (diagonal.one, diagonal.other))
        given = math.dist(one, other)
        out.append(
            DiagonalResult(
                key, given, diagonal.length_mm, diagonal.length_mm - given, _implied(bay, diagonal, diagonal.length_mm)
            )
        )
    return out


def _implied(bay: Bay, diagonal: Diagonal, length_mm: float) -> float | None:
    """By how much the corner between the two sides that the diagonal spans differs from what the stations give."""
    one, other = diagonal.one, diagonal.other
    if one.station != other.station:
        return None
    sides, heights = (
        (one.corner.split("_")[0], other.corner.split("_")[0]),
        (one.corner.split("_")[1], other.corner.split("_")[1]),
    )
    if sides[0] == sides[1] or heights[0] == heights[1]:
        return None
    between = f"{sides[1]}_{heights[0]}"
    a, b, c = (corner_of(bay, one.station, corner) for corner in (one.corner, between, other.corner))
    given = out_of_square_deg(math.dist(a, b), math.dist(b, c), math.dist(a, c))
    taped = out_of_square_deg(math.dist(a, b), math.dist(b, c), length_mm)
    return None if given is None or taped is None else taped - given


def out_of_square_deg(one_mm: float, other_mm: float, diagonal_mm: float) -> float | None:
    """How much more than a right angle two sides enclose: d² = a² + b² − 2ab cos(90° + out of square).

    None where no triangle has these sides. Source: the law of cosines.
    """
    if one_mm <= 0 or other_mm <= 0:
        return None
    cosine = (one_mm**2 + other_mm**2 - diagonal_mm**2) / (2 * one_mm * other_mm)
    return math.degrees(math.acos(cosine)) - 90.0 if abs(cosine) <= 1 else None
