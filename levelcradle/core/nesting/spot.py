"""Where a piece lies on a sheet."""

from dataclasses import dataclass

from levelcradle.core.part import Flat

__all__ = ["Spot"]


@dataclass(frozen=True, slots=True)
class Spot:
    """Which piece, how many quarters it is turned to the left, and where the lower left corner of the rectangle round
    it comes."""

    piece: int
    at: Flat
    quarters: int
