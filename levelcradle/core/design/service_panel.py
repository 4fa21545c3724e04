"""A cover over an opening in a wall of a box, with a seal of its own: what is behind it is reached without opening the
cells' side."""

from typing import Annotated

from pydantic import BeforeValidator, Field

from levelcradle.core.design.base import (
    DocumentModel,
    Face,
    Length,
    Line,
    NonNegativeLength,
    PositiveLength,
    _as_tuple,
)
from levelcradle.core.design.construction import Screws

__all__ = ["ServicePanel"]


class ServicePanel(DocumentModel):
    """A flat cover on a gasket, screwed into rivet nuts round a rectangular opening.

    Its middle is measured from two edges of the face.

    Attributes:
        size_mm: of the opening, along the first and the second way of the face (aft before across before up).
        overlap_mm: how far the cover lies on the wall all round.
        thickness_mm: of the cover; ``gasket_mm``: as it is pressed, 0 for none.
        window: the cover is clear polycarbonate, bought; else of the box's own metal.
    """

    name: Line
    face: Face
    from_: Annotated[tuple[Face, Face], Field(alias="from", strict=False)]
    u_mm: Length
    v_mm: Length
    size_mm: Annotated[tuple[PositiveLength, PositiveLength], BeforeValidator(_as_tuple)]
    overlap_mm: Annotated[float, Field(ge=5, le=100)] = 20.0
    thickness_mm: Annotated[float, Field(gt=0, le=20)] = 2.0
    gasket_mm: NonNegativeLength = 2.0
    window: bool = False
    screws: Screws = Screws(spacing_mm=100.0)
