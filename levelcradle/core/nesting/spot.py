"""Where a piece lies on a sheet."""

from dataclasses import dataclass

from levelcradle.core.part import Flat, FlatPart

__all__ = ["Spot", "quarters_of"]


@dataclass(frozen=True, slots=True)
class Spot:
    """Which piece, how many quarters it is turned to the left, and where the lower left corner of the rectangle round
    it comes."""

    piece: int
    at: Flat
    quarters: int


def quarters_of(part: FlatPart) -> tuple[int, ...]:
    """How many quarters a part may be turned by: a sheet is rolled along its length."""
    return {"": (0, 1, 2, 3), "across": (0, 2), "up": (1, 3)}[part.rolled]
