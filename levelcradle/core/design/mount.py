"""Mounts: what each carries, its shape, how it holds the box, and what it lands on. The last three are unions, one
model a kind."""

from collections.abc import Iterator
from typing import Annotated, Literal

from pydantic import BeforeValidator, Field, StringConstraints, model_validator

from levelcradle.core.design.base import (
    DocumentModel,
    Id,
    Length,
    Line,
    NonNegativeLength,
    PositiveLength,
    _as_tuple,
)

__all__ = [
    "Angle",
    "Backing",
    "Behind",
    "Bolt",
    "Bolted",
    "BoltedOn",
    "Doubler",
    "Gussets",
    "HoleKind",
    "Isolator",
    "LandsOn",
    "Loose",
    "Mount",
    "OnCrossmember",
    "OnHardPoint",
    "OnMember",
    "OnTwo",
    "Rest",
    "Shape",
    "Strap",
    "Tab",
    "ToBox",
    "Plugs",
    "Welded",
]


Refers = tuple[str, str, str, str]
"""Of a figure that names something: its path, the collection it is in, its id, and the words where it is not there."""


HoleKind = Literal["round", "oversize", "slot along", "slot across"]
"""Of the hole for the vehicle's bolt: a slot along the bend, or across it."""


class Gussets(DocumentModel):
    """Triangles of its own metal welded into the corner of an angle: one in the middle, or one at either edge; so far
    along leg A and up leg B."""

    count: Annotated[int, Field(ge=1, le=2)] = 2
    thickness_mm: Annotated[float, Field(gt=0, le=20)] = 5.0
    along_mm: PositiveLength = 40.0
    up_mm: PositiveLength = 60.0
    weld_leg_mm: PositiveLength = 4.0


class Angle(DocumentModel):
    """A bent angle: leg A lies on the vehicle, leg B on the box; ``packing_mm``: a pad under leg A, that clears what
    stands proud there."""

    type: Literal["angle"] = "angle"
    material: Id = "s355"
    thickness_mm: Annotated[float, Field(gt=0, le=30)] = 6.0
    bend_radius_mm: Annotated[float, Field(ge=0, le=60)] = 10.0
    width_mm: PositiveLength = 90.0
    toe_mm: PositiveLength = 25.0  # e: bolt to the free end of leg A
    leg_b_mm: PositiveLength = 120.0  # B: outside length of the welded leg
    hole: HoleKind = "round"
    packing_mm: Annotated[float, Field(ge=0, le=60)] = 0.0
    gussets: Gussets | None = None

    def refers(self) -> Iterator[Refers]:
        yield "material", "tables/materials", self.material, "there is no material “{}”"


class Tab(DocumentModel):
    """A flat plate that lies on the vehicle's metal with its bolt and on the box's wall, beyond one of its edges.

    ``toe_mm``: from the bolt to its free end; ``long_mm``: to its end on the box; ``packing_mm``: a pad between it and
    the vehicle's metal, that clears what stands proud there."""

    type: Literal["tab"] = "tab"
    material: Id = "s355"
    thickness_mm: Annotated[float, Field(gt=0, le=30)] = 8.0
    width_mm: PositiveLength = 80.0
    toe_mm: PositiveLength = 25.0
    long_mm: PositiveLength = 150.0
    hole: HoleKind = "round"
    packing_mm: Annotated[float, Field(ge=0, le=60)] = 0.0

    def refers(self) -> Iterator[Refers]:
        yield "material", "tables/materials", self.material, "there is no material “{}”"


class Rest(DocumentModel):
    """A pad that the box lies on; ``bears_mpa``: what its material may be pressed with."""

    type: Literal["rest"] = "rest"
    pad_mm: Annotated[float, Field(ge=0, le=200)] = 6.0
    length_mm: PositiveLength = 80.0
    width_mm: PositiveLength = 60.0
    bears_mpa: Annotated[float, Field(gt=0, le=1000)] = 5.0  # hard rubber; common practice, no source

    def refers(self) -> Iterator[Refers]:
        return iter(())


class Strap(DocumentModel):
    """A steel strap under a box or over it, from one hard point to another: it only holds what has come off its mounts.

    ``tested_n``: what one like it held in the shop's own test; None where nobody tried."""

    type: Literal["strap"] = "strap"
    material: Id = "s235"
    thickness_mm: Annotated[float, Field(gt=0, le=10)] = 2.0
    width_mm: PositiveLength = 30.0
    tested_n: Annotated[float, Field(gt=0, le=1e6)] | None = None

    def refers(self) -> Iterator[Refers]:
        yield "material", "tables/materials", self.material, "there is no material “{}”"


Shape = Annotated[Angle | Tab | Rest | Strap, Field(discriminator="type")]


class Bolt(DocumentModel):
    size: Line = "M10"
    property_class: Line = "8.8"

    def refers(self, at: str) -> Iterator[Refers]:
        yield f"{at}/size", "tables/bolts", self.size, "there is no bolt size “{}”"
        yield f"{at}/property_class", "tables/bolt_classes", self.property_class, "property class “{}” is not used here"


class Doubler(DocumentModel):
    """A plate welded to the wall under the bracket."""

    thickness_mm: Annotated[float, Field(gt=0, le=20)] = 4.0
    along_w_mm: PositiveLength = 150.0
    along_n_mm: PositiveLength = 160.0
    from_contact_mm: Length = 0.0  # its first edge, along n from the contact plane
    weld_leg_mm: PositiveLength = 4.0  # welded to the wall all round


class Plugs(DocumentModel):
    """Holes in a bracket along its middle, spread evenly over its welds, that are filled with weld."""

    hole_mm: Annotated[float, Field(gt=0, le=50)] = 16.0
    count: Annotated[int, Field(ge=1, le=6)] = 2


class Welded(DocumentModel):
    """Two fillets, one on each side of leg B, to the wall or to a doubler on it; where asked for another across its
    end, or across it where it comes over the edge of what it lies on, and plugs."""

    type: Literal["welded"] = "welded"
    from_mm: PositiveLength = 22.0  # zs: start of the welds, off the contact plane
    length_mm: PositiveLength = 90.0
    leg_mm: PositiveLength = 4.0
    across_end: bool = False
    across_start: bool = False
    plugs: Plugs | None = None
    doubler: Doubler | None = None

    def refers(self) -> Iterator[Refers]:
        return iter(())


class Behind(DocumentModel):
    """A plate behind the box's wall under the nuts, in the middle of the bolts: its size across the bracket and
    along it."""

    material: Id = "s355"
    thickness_mm: Annotated[float, Field(gt=0, le=20)] = 4.0
    size_mm: Annotated[tuple[PositiveLength, PositiveLength], BeforeValidator(_as_tuple)] = (120.0, 100.0)


class Bolted(DocumentModel):
    """Bolts through the bracket and the box's wall: so many rows along the bracket, so many bolts in each."""

    type: Literal["bolted"] = "bolted"
    bolt: Bolt = Bolt(size="M8")
    from_mm: PositiveLength = 40.0  # from the contact plane, or the vehicle's bolt, to the first row
    rows: Annotated[int, Field(ge=2, le=6)] = 2
    pitch_mm: PositiveLength = 40.0
    across: Annotated[int, Field(ge=2, le=6)] = 2
    apart_mm: PositiveLength = 50.0
    behind: Behind | None = Behind()

    def refers(self) -> Iterator[Refers]:
        yield from self.bolt.refers("bolt")
        if self.behind:
            yield "behind/material", "tables/materials", self.behind.material, "there is no material “{}”"


class Loose(DocumentModel):
    """Nothing holds it to the box, which lies on it."""

    type: Literal["loose"] = "loose"

    def refers(self) -> Iterator[Refers]:
        return iter(())


ToBox = Annotated[Welded | Bolted | Loose, Field(discriminator="type")]


class Backing(DocumentModel):
    """A plate behind the vehicle's sheet with a captive nut on it, where no hand reaches: so long, so wide, so thick.

    ``entry_mm``: across the hole that it is passed in by, None where nobody has said; ``stop``: an end is bent, so that
    it cannot fall in or turn."""

    material: Id = "s355"
    thickness_mm: Annotated[float, Field(gt=0, le=20)] = 6.0
    size_mm: Annotated[tuple[PositiveLength, PositiveLength], BeforeValidator(_as_tuple)] = (80.0, 40.0)
    entry_mm: PositiveLength | None = None
    stop: bool = True


class Isolator(DocumentModel):
    """Rubber under a bracket: how thick it is, how many newtons it gives a millimetre for, whichever way, and how far
    to its stop. ``captive``: its bolt and washers hold when the rubber is torn."""

    thick_mm: Annotated[float, Field(gt=0, le=100)] = 20.0
    stiffness_n_per_mm: Annotated[float, Field(gt=0, le=1e5)]
    travel_mm: Annotated[float, Field(gt=0, le=50)] = 3.0
    captive: bool = True


class OnHardPoint(DocumentModel):
    """On an existing hole, captive nut, stud or strap point. ``sleeve``: the bolt goes through a tube that keeps the
    member's walls apart."""

    type: Literal["hardpoint"] = "hardpoint"
    hardpoint: Id
    bolt: Bolt = Bolt()
    backing: Backing | None = None
    sleeve: bool = False
    isolator: Isolator | None = None

    @property
    def path(self) -> str:
        return f"hardpoints/{self.hardpoint}"

    @property
    def paths(self) -> tuple[str, ...]:
        return (self.path,)

    def refers(self) -> Iterator[Refers]:
        yield "hardpoint", "hardpoints", self.hardpoint, "there is no hard point “{}”"
        yield from self.bolt.refers("bolt")
        if self.backing:
            yield "backing/material", "tables/materials", self.backing.material, "there is no material “{}”"


class OnTwo(DocumentModel):
    """From one hard point to another, with a bolt at either."""

    type: Literal["two"] = "two"
    hardpoint: Id
    other: Id
    bolt: Bolt = Bolt(size="M8")

    @model_validator(mode="after")
    def _apart(self) -> "OnTwo":
        if self.hardpoint == self.other:
            raise ValueError("both ends are on one hard point")
        return self

    @property
    def path(self) -> str:
        return f"hardpoints/{self.hardpoint}"

    @property
    def paths(self) -> tuple[str, ...]:
        return self.path, f"hardpoints/{self.other}"

    def refers(self) -> Iterator[Refers]:
        for at, key in (("hardpoint", self.hardpoint), ("other", self.other)):
            yield at, "hardpoints", key, "there is no hard point “{}”"
        yield from self.bolt.refers("bolt")


class OnMember(DocumentModel):
    """On the top of a member, so far from where it starts."""

    type: Literal["member"] = "member"
    member: Id
    along_mm: NonNegativeLength

    @property
    def path(self) -> str:
        return f"members/{self.member}"

    @property
    def paths(self) -> tuple[str, ...]:
        return (self.path,)

    def refers(self) -> Iterator[Refers]:
        yield "member", "members", self.member, "there is no member “{}”"


class OnCrossmember(DocumentModel):
    """On the top of a crossmember or under it, so far from its first hard point."""

    type: Literal["crossmember"] = "crossmember"
    crossmember: Id
    along_mm: Length
    top: bool = True
    bolt: Bolt = Bolt()
    sleeve: bool = True

    @property
    def backing(self) -> Backing | None:
        """None: a bolt goes through it."""
        return None

    @property
    def isolator(self) -> Isolator | None:
        return None

    @property
    def path(self) -> str:
        return f"crossmembers/{self.crossmember}"

    @property
    def paths(self) -> tuple[str, ...]:
        return (self.path,)

    def refers(self) -> Iterator[Refers]:
        yield "crossmember", "crossmembers", self.crossmember, "there is no crossmember “{}”"
        yield from self.bolt.refers("bolt")


BoltedOn = OnHardPoint | OnCrossmember
LandsOn = Annotated[OnHardPoint | OnMember | OnTwo | OnCrossmember, Field(discriminator="type")]
FITS: dict[str, tuple[tuple[str, ...], tuple[str, ...], tuple[str, ...]]] = {
    "angle": (("welded", "bolted"), ("hardpoint", "crossmember"), ("front", "aft", "left", "right")),
    "tab": (("welded", "bolted"), ("hardpoint", "crossmember"), ("front", "aft", "left", "right", "base")),
    "rest": (("loose",), ("hardpoint", "member", "crossmember"), ("base",)),
    "strap": (("loose",), ("two",), ("base", "top")),
}
"""Of each shape: how it holds the box, what it may land on, which faces it carries."""

BoxPath = Annotated[str, StringConstraints(pattern=r"^boxes/[a-z0-9][a-z0-9-]{0,59}$")]


class Mount(DocumentModel):
    """What carries a box at one place. Where it sits on the face follows from the box's pose and what it lands on."""

    name: Line
    carries: Annotated[dict[BoxPath, Literal[True]], Field(min_length=1, max_length=1)]
    face: Literal["front", "aft", "left", "right", "base", "top"]
    shape: Shape = Angle()
    to_box: ToBox = Welded()
    lands_on: LandsOn
    order: int = 0

    @model_validator(mode="after")
    def _goes_together(self) -> "Mount":
        holds, lands, faces = FITS[self.shape.type]
        if self.to_box.type not in holds or self.lands_on.type not in lands or self.face not in faces:
            raise ValueError(
                f"a mount of kind {self.shape.type} is {' or '.join(holds)} to the {' or '.join(faces)} and lands on a "
                f"{' or '.join(lands)}"
            )
        if self.face == "base" and self.to_box.type == "bolted":
            raise ValueError("a tab under the base is welded to a tube of the frame")
        if getattr(self.to_box, "across_start", False) and self.face != "base":
            raise ValueError("only what comes over the edge of a tube is welded across there")
        if getattr(self.lands_on, "isolator", None) is not None and self.shape.type != "angle":
            raise ValueError("only an angle stands on an isolator")
        return self

    @property
    def box(self) -> str:
        """The box it carries."""
        return next(iter(self.carries)).removeprefix("boxes/")
