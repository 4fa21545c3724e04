"""A chamber for gear on a face of a box, with a lid of its own: gear is reached without opening the cells' side."""

from typing import Annotated

from pydantic import Field

from levelcradle.core.design.base import DocumentModel, Face, Length, Line, NonNegativeLength, Size3
from levelcradle.core.design.construction import Cap

__all__ = ["Chamber"]


class Chamber(DocumentModel):
    """A tray of the box's own material, its base against a face of the box, with a cap that comes off outward.

    Its middle is measured from two edges of the face. In its own axes aft is the first way of the face (aft before
    across before up) and up is outward: its base lies on the box.

    Attributes:
        size_mm: outside of its tray: along the first and the second way of the face, and out to its rim.
        plate_mm: an insulating plate on its base that gear stands on; 0 for none.
    """

    name: Line
    face: Face
    from_: Annotated[tuple[Face, Face], Field(alias="from", strict=False)]
    u_mm: Length
    v_mm: Length
    size_mm: Size3
    thickness_mm: Annotated[float, Field(gt=0, le=10)] = 2.0
    bend_radius_mm: Annotated[float, Field(ge=0, le=50)] = 2.0
    plate_mm: NonNegativeLength = 0.0
    lid: Cap = Cap(edge_mm=20.0)
