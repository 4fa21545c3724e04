"""What lies between the walls of a box and its modules, face by face, and what fills the gaps between them."""

from typing import Annotated, Literal

from pydantic import Field

from levelcradle.core.design.base import DocumentModel, Face, Id, NonNegativeLength, PositiveLength

__all__ = ["WALLS", "Layer", "Layers", "Liners", "Runners", "SheetLayer"]

WALLS: tuple[Face, ...] = ("front", "aft", "left", "right")


class SheetLayer(DocumentModel):
    """A layer that covers its face. ``material``: a row of the design's table of liners, None where nobody has said;
    ``order``: from the wall inward."""

    type: Literal["sheet"] = "sheet"
    material: Id | None = None
    thickness_mm: PositiveLength
    order: int = 0


class Runners(DocumentModel):
    """Strips that leave room between them, for a cable or for heat; they lie ``along`` the first or the second way of
    their face (aft before across before up)."""

    type: Literal["runners"]
    material: Id | None = None
    thickness_mm: PositiveLength
    wide_mm: Annotated[float, Field(ge=5, le=1000)] = 40.0
    between_mm: Annotated[float, Field(ge=0, le=1000)] = 80.0
    along: Literal["first", "second"] = "first"
    order: int = 0


Layer = Annotated[SheetLayer | Runners, Field(discriminator="type")]
Layers = dict[Face, Annotated[dict[Id, Layer], Field(max_length=8)]]


class Liners(DocumentModel):
    """How a new box is lined: all walls alike, and the floor; 0 for nothing."""

    wall_mm: NonNegativeLength = 4.0
    floor_mm: NonNegativeLength = 8.0

    def layers(self) -> Layers:
        """Face by face.

        >>> sorted(Liners(wall_mm=0).layers())
        ['base']
        """
        layers: Layers = {face: {"liner": SheetLayer(thickness_mm=self.wall_mm)} for face in WALLS if self.wall_mm}
        if self.floor_mm:
            layers["base"] = {"runner": SheetLayer(thickness_mm=self.floor_mm)}
        return layers
