"""What the inside of a box is lined with, piece by piece."""

from collections.abc import Iterator
from dataclasses import dataclass

from levelcradle.core.axes import Vec
from levelcradle.core.design.box import Liners

__all__ = ["LinerPiece", "liner_pieces"]


@dataclass(frozen=True, slots=True)
class LinerPiece:
    """One rectangle of liner, where it lies and how many are alike."""

    where: str
    quantity: int
    size_mm: tuple[float, float]
    thickness_mm: float


def liner_pieces(liners: Liners, inner_mm: Vec) -> Iterator[LinerPiece]:
    """Left and right are lined whole, front and aft between them, all from the base to the rim; the runner lies between
    all four. None where there is no liner, or no room for one."""
    length, width, height = inner_mm
    wall, between = liners.wall_mm, width - 2 * liners.wall_mm
    if wall:
        yield LinerPiece("left and right", 2, (length, height), wall)
        if between > 0:
            yield LinerPiece("front and aft", 2, (between, height), wall)
    if liners.floor_mm and between > 0 and length > 2 * wall:
        yield LinerPiece("floor", 1, (length - 2 * wall, between), liners.floor_mm)
