"""Bars of the shop's own from one hard point of the vehicle to another, that boxes lie on or are bolted to."""

from typing import Annotated, Literal

from pydantic import BeforeValidator, Field, model_validator

from levelcradle.core.design.base import DocumentModel, Id, Line, PositiveLength, _as_tuple
from levelcradle.core.design.mount import Bolt, Refers

__all__ = ["Crossmember"]


class Crossmember(DocumentModel):
    """A bar that lies with its ends on two hard points.

    Attributes:
        size_mm: the side of a square tube, the leg of an equal angle, the width of a flat.
        wall_mm: how thick its metal is.
        ends: bolted to the hard points, or welded where it lies on their metal.
        bolt, sleeve: at either end; whether it goes through a tube that keeps its walls apart.
        weld_leg_mm: of welded ends: a fillet along both edges of what lies there.
        beyond_mm: how far it goes on past either hard point.
    """

    name: Line
    hardpoints: Annotated[tuple[Id, Id], BeforeValidator(_as_tuple)]
    section: Literal["tube", "angle", "flat"] = "tube"
    size_mm: Annotated[float, Field(ge=15, le=200)] = 40.0
    wall_mm: Annotated[float, Field(gt=0, le=30)] = 3.0
    material: Id = "s355"
    ends: Literal["bolted", "welded"] = "bolted"
    bolt: Bolt = Bolt()
    sleeve: bool = True
    weld_leg_mm: PositiveLength = 4.0
    beyond_mm: PositiveLength = 25.0
    order: int = 0

    @model_validator(mode="after")
    def _can_be(self) -> "Crossmember":
        if self.hardpoints[0] == self.hardpoints[1]:
            raise ValueError("both ends are on one hard point")
        if self.section == "tube" and (4 * self.wall_mm > self.size_mm or self.wall_mm > 6):
            raise ValueError("a tube's wall is at most a quarter of its side, and 6 mm")
        if 2 * self.wall_mm > self.size_mm:
            raise ValueError("its metal is thicker than half of its size")
        return self

    def refers(self) -> tuple[Refers, ...]:
        """Every figure of it that names something."""
        ends = (
            (f"hardpoints/{n}", "hardpoints", key, "there is no hard point “{}”")
            for n, key in enumerate(self.hardpoints)
        )
        metal = "material", "tables/materials", self.material, "there is no material “{}”"
        return (*ends, metal, *self.bolt.refers("bolt"))
