"""What sits in the openings of boxes."""

from typing import Literal

from levelcradle.core.design.base import DocumentModel, NonNegativeLength, PositiveLength, Text

__all__ = ["Fitted", "FittedKind"]

FittedKind = Literal[
    "cable gland",
    "connector",
    "coolant bulkhead",
    "vent",
    "pressure relief",
    "service disconnect",
    "tap plug",
    "drain",
]


class Fitted(DocumentModel):
    """What sits in an opening: as wide as it lies on the wall on either side, as far as it stands out and in.

    A cable or hose through it, ``line_mm`` thick at most, bends outside before it may meet anything:
    ``bend_radius_mm`` is its maker's least, on its middle line. ``pole`` and ``key``: of a connector, what it carries
    and how it is keyed, so that no other plug of its size goes in."""

    kind: FittedKind
    size: Text = ""
    seat_mm: PositiveLength
    out_mm: NonNegativeLength
    in_mm: NonNegativeLength
    line_mm: NonNegativeLength = 0.0
    bend_radius_mm: NonNegativeLength = 0.0
    pole: Literal["plus", "minus"] | None = None
    key: Text = ""

    @property
    def reach_mm(self) -> float:
        """How far off the face its room goes: itself, then the bend to the line's outside."""
        return self.out_mm + (self.bend_radius_mm + self.line_mm / 2 if self.bend_radius_mm else 0.0)

    @property
    def words(self) -> str:
        return f"{self.kind} {self.size}".strip()
