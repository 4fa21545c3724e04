"""Holes in a wall of a box that only take weight off it."""

from typing import Annotated

from pydantic import Field

from levelcradle.core.design.base import DocumentModel, Face, NonNegativeLength

__all__ = ["Lightening"]


class Lightening(DocumentModel):
    """Round holes in rows over what is flat and free of a face.

    Attributes:
        apart_mm: from middle to middle, both ways.
        from_mm, to_mm: they come only between these places along the face's first way (aft before across before up), so
            that brackets have sheet; None for as far as it goes.
        edge_mm: of sheet left from a hole to where the flat ends, and to whatever else is in that face.
    """

    face: Face
    diameter_mm: Annotated[float, Field(ge=10, le=200)] = 30.0
    apart_mm: Annotated[float, Field(ge=10, le=500)] = 60.0
    edge_mm: Annotated[float, Field(ge=0, le=200)] = 15.0
    from_mm: NonNegativeLength | None = None
    to_mm: NonNegativeLength | None = None
