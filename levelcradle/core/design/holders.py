"""What holds the modules of a box: one model a kind, each for one block. What was not said yet is None, and is asked
for."""

from collections.abc import Iterator
from typing import Annotated, Literal

from pydantic import Field

from levelcradle.core.design.base import DocumentModel, Id, Line, NonNegativeLength, PositiveLength

__all__ = [
    "Bolts",
    "Feet",
    "Fit",
    "FreeWidths",
    "Holder",
    "Ledge",
    "Ledges",
    "OwnHoles",
    "Plates",
    "Pressed",
    "Rods",
    "Stop",
    "Stops",
    "Strap",
    "Straps",
    "refers",
]

Few = Annotated[int, Field(ge=1, le=24)]
Thick = Annotated[float, Field(gt=0, le=20)]


class Bolts(DocumentModel):
    """Bolts into a box. ``into``: a nut on its outside, a stud welded to its inside, a rivet nut, a thread or a
    threaded insert in it; ``tested_n``: what one of the last three held in the shop's own pull test. Without one they
    count for nothing in a crash."""

    size: Line = "M8"
    property_class: Line = "8.8"
    into: Literal["nut", "stud", "rivet nut", "thread", "insert"] = "nut"
    tested_n: Annotated[float, Field(gt=0, le=1e6)] | None = None


class OwnHoles(DocumentModel):
    """Bolts through the modules' own holes, through the whole stack where several stand behind each other, into the
    face of the box that their base or top looks at. ``used``: so many of each module's holes, all where None."""

    type: Literal["own_holes"]
    block: Id
    bolts: Bolts | None = None
    used: Few | None = None


class Feet(DocumentModel):
    """Angles that stand at both ends of the modules, in gaps between them or at the ends of the stack: rods pass
    through the upright leg, the other lies on the floor under the modules and is bolted where it stands out before
    them.

    Attributes:
        at: in the gaps, or before and behind the stack.
        pairs: in so many places along the rods.
        up_to: whether all rods pass through the upright leg, or those of the lowest row.
        wide_mm: how far the angle reaches along the module from its end.
        tab_mm: how far it stands out before the end; there it is bolted.
        leg_mm: its leg on the floor, along the rods.
        each: bolts of one angle.
    """

    at: Literal["gaps", "ends"] = "gaps"
    pairs: Few = 2
    up_to: Literal["all", "lowest"] = "all"
    material: Id = "s235"
    thickness_mm: Thick = 4.0
    bend_radius_mm: NonNegativeLength = 4.0
    wide_mm: PositiveLength = 60.0
    tab_mm: PositiveLength = 20.0
    leg_mm: PositiveLength = 60.0
    bolts: Bolts = Bolts(into="stud", property_class="4.8")
    each: Few = 2


class Rods(DocumentModel):
    """Threaded rods through the holes of a stack, which make one piece of it, on feet."""

    type: Literal["rods"]
    block: Id
    size: Line | None = None
    property_class: Line = "8.8"
    feet: Feet | None = None


class Strap(DocumentModel):
    """Bands over a stack, bolted to the floor at both ends; ``welded``: at its one end to the box instead, while that
    is empty."""

    count: Few = 2
    along: Literal["aft", "across"] = "across"
    material: Id = "s235"
    thickness_mm: Thick = 1.5
    wide_mm: PositiveLength = 30.0
    welded: bool = False
    bolts: Bolts = Bolts(into="stud", property_class="4.8")
    each: Few = 1


class Straps(DocumentModel):
    """Straps hold down, and nothing sideways."""

    type: Literal["straps"]
    block: Id
    strap: Strap | None = None


class Stop(DocumentModel):
    """Angles on the floor, their backs to the stack, evenly between its ends; bolted, or ``welded`` to the floor while
    the box is empty."""

    count: Few = 2
    material: Id = "s235"
    thickness_mm: Thick = 5.0
    bend_radius_mm: NonNegativeLength = 5.0
    high_mm: PositiveLength = 40.0
    wide_mm: PositiveLength = 80.0
    leg_mm: PositiveLength = 40.0
    welded: bool = False
    bolts: Bolts = Bolts(into="stud", property_class="4.8")
    each: Few = 2


class Stops(DocumentModel):
    """Stops before one side of a block."""

    type: Literal["stops"]
    block: Id
    against: Literal["front", "aft", "left", "right"]
    stop: Stop | None = None


class Ledge(DocumentModel):
    """Angles along two walls, under each tier above the lowest: one leg up the wall, welded to it while the box is
    empty (of a frame to its posts), the other under the tier.

    Attributes:
        leg_mm: under the tier, outside, from the wall.
        up_mm: up the wall, outside.
        slide_mm: how thick the strips are that a tier slides in on; 0 where it is lifted in.
        lowest: whether the lowest tier stands on ledges too, and not on the base.
        bolts: down through the modules' own holes; None where something else holds them up.
    """

    material: Id = "s235"
    thickness_mm: Thick = 3.0
    bend_radius_mm: NonNegativeLength = 3.0
    leg_mm: PositiveLength = 40.0
    up_mm: PositiveLength = 30.0
    slide_mm: Annotated[float, Field(ge=0, le=20)] = 0.0
    lowest: bool = False
    bolts: Bolts | None = None


class Ledges(DocumentModel):
    """Ledges along the box or across it."""

    type: Literal["ledges"]
    block: Id
    along: Literal["aft", "across"] = "aft"
    ledge: Ledge | None = None


class FreeWidths(DocumentModel):
    """How wide a stack is before it is pressed, where its modules spring back and bulge: at a strap of their own,
    between two, at the edge. None where it was not measured."""

    strap_mm: PositiveLength | None = None
    between_mm: PositiveLength | None = None
    edge_mm: PositiveLength | None = None


class Plates(DocumentModel):
    """The two plates a stack is pressed between; ``each``: so many screws in a row press on the one."""

    material: Id = "s235"
    thickness_mm: Thick = 6.0
    screws: Bolts = Bolts(size="M10")
    each: Few = 2


class Pressed(DocumentModel):
    """A stack pressed along one way with a force that its modules' maker says, by wedges or by screws through the
    wall. Where no width was measured its modules' own free size counts."""

    type: Literal["pressed"]
    block: Id
    along: Literal["aft", "across"] = "across"
    by: Literal["wedges", "screws"] = "wedges"
    force_n: Annotated[float, Field(gt=0, le=1e6)] | None = None
    widths: FreeWidths = FreeWidths()
    plates: Plates | None = None


class Fit(DocumentModel):
    """Pure fit: the block presses through the layers on the walls, base and lid. ``between``: the row of the table of
    liners that fills the gaps between neighbours."""

    type: Literal["fit"]
    block: Id
    between: Id | None = None


Holder = Annotated[OwnHoles | Rods | Straps | Stops | Ledges | Pressed | Fit, Field(discriminator="type")]


_NAMES = {
    "material": ("tables/materials", "there is no material “{}”"),
    "size": ("tables/bolts", "there is no bolt size “{}”"),
    "property_class": ("tables/bolt_classes", "property class “{}” is not used here"),
    "between": ("tables/liners", "there is no liner “{}”"),
}


def refers(part: DocumentModel) -> Iterator[tuple[str, str, str, str]]:
    """Of every figure that names a row of the design's tables: its path, the table, the row, and the words where it is
    not there."""
    for name in type(part).model_fields:
        value = getattr(part, name)
        if isinstance(value, DocumentModel):
            yield from ((f"{name}/{path}", *row) for path, *row in refers(value))  # type: ignore[misc]
        elif name in _NAMES and isinstance(value, str):
            yield name, _NAMES[name][0], value, _NAMES[name][1]
