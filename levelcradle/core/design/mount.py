"""Mounts: what each carries, its shape, how it holds the box, and what it lands on. The last three are unions, one model a kind."""

from collections.abc import Iterator
from typing import Annotated, Literal

from pydantic import Field, StringConstraints

from levelcradle.core.design.base import Id, Length, Line, Part, Positive

__all__ = ["Angle", "Bolt", "Doubler", "LandsOn", "Mount", "OnHardPoint", "Shape", "ToBox", "Welded"]


Refers = tuple[str, str, str, str]
"""Of a figure that names something: its path, the collection it is in, its id, and the words where it is not there."""


class Angle(Part):
    """A bent angle: leg A lies on the vehicle, leg B on the box."""

    type: Literal["angle"] = "angle"
    material: Id = "s355"
    thickness_mm: Annotated[float, Field(gt=0, le=30)] = 6.0
    bend_radius_mm: Annotated[float, Field(ge=0, le=60)] = 10.0
    width_mm: Positive = 90.0
    toe_mm: Positive = 25.0  # e: bolt to the free end of leg A
    leg_b_mm: Positive = 120.0  # B: outside length of the welded leg

    def refers(self) -> Iterator[Refers]:
        yield "material", "tables/materials", self.material, "there is no material “{}”"


Shape = Angle


class Doubler(Part):
    """A plate welded to the wall under the bracket."""

    thickness_mm: Annotated[float, Field(gt=0, le=20)] = 4.0
    along_w_mm: Positive = 150.0
    along_n_mm: Positive = 160.0
    from_contact_mm: Length = 0.0  # its first edge, along n from the contact plane
    weld_leg_mm: Positive = 4.0  # welded to the wall all round


class Welded(Part):
    """Two fillets, one on each side of leg B, to the wall or to a doubler on it."""

    type: Literal["welded"] = "welded"
    from_mm: Positive = 22.0  # zs: start of the welds, off the contact plane
    length_mm: Positive = 90.0
    leg_mm: Positive = 4.0
    doubler: Doubler | None = None


ToBox = Welded


class Bolt(Part):
    size: Line = "M10"
    property_class: Line = "8.8"


class OnHardPoint(Part):
    """On an existing hole, captive nut, stud or strap point."""

    type: Literal["hardpoint"] = "hardpoint"
    hardpoint: Id
    bolt: Bolt = Bolt()

    @property
    def path(self) -> str:
        return f"hardpoints/{self.hardpoint}"

    def refers(self) -> Iterator[Refers]:
        yield "hardpoint", "hardpoints", self.hardpoint, "there is no hard point “{}”"
        yield "bolt/size", "tables/bolts", self.bolt.size, "there is no bolt size “{}”"
        yield "bolt/property_class", "tables/bolt_classes", self.bolt.property_class, "property class “{}” is not used here"


LandsOn = OnHardPoint

BoxPath = Annotated[str, StringConstraints(pattern=r"^boxes/[a-z0-9][a-z0-9-]{0,59}$")]


class Mount(Part):
    """What carries a box at one place. Where it sits on the face follows from the box's pose and what it lands on."""

    name: Line
    carries: Annotated[dict[BoxPath, Literal[True]], Field(min_length=1, max_length=1)]
    face: Literal["front", "aft", "left", "right"]
    shape: Shape = Angle()
    to_box: ToBox = Welded()
    lands_on: LandsOn
    order: int = 0

    @property
    def box(self) -> str:
        """The box it carries."""
        return next(iter(self.carries)).removeprefix("boxes/")
