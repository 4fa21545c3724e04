"""What stands in and on the vehicle: reference points, things, spaces that are no thing, hard points, members,
openings, duties and faults. ``mirror_of``: the row of the same list that it is the mirror image of."""

from typing import Annotated, Literal

from pydantic import Field, field_validator, model_validator

from levelcradle.core.axes import Vec
from levelcradle.core.design.base import (
    FACE_AT,
    Direction,
    DocumentModel,
    Face,
    GapClass,
    Id,
    Kg,
    Length,
    Line,
    NonNegativeLength,
    Point,
    PositiveLength,
    Structure,
    Text,
)
from levelcradle.core.design.solid import SolidSpec, Sweep
from levelcradle.core.design.vehicle import Fluid

__all__ = [
    "Accepted",
    "Duty",
    "HardPoint",
    "InBox",
    "InVehicle",
    "Item",
    "KeepClear",
    "Keepout",
    "LoadState",
    "Member",
    "Reading",
    "Reference",
    "Snag",
    "SwungTape",
    "VehicleOpening",
]


class SwungTape(DocumentModel):
    """A tape from a known reference point to the one that is being placed."""

    hooked: Id
    length_mm: PositiveLength


class Reference(DocumentModel):
    """A named point that the tape is hooked on. With ``tapes`` it was found by swinging them from known points: two
    where its height is known, three or more else; ``at_mm`` is where they meet."""

    name: Line
    at_mm: Point
    found: Text = ""
    tapes: Annotated[dict[Id, SwungTape], Field(max_length=12)] = {}


class Run(DocumentModel):
    """A strip of a face along the edge it has with another, the whole length of that edge: the cross-section of a run
    of cables or pipes is ``wide_mm`` by the depth of the room."""

    beside: Face
    wide_mm: PositiveLength


class KeepClear(DocumentModel):
    """Room that a face of a thing or a box asks for: a plug, a lead, a hand; before the whole of it, or along one
    edge."""

    face: Face
    depth_mm: PositiveLength
    run: Run | None = None
    reason: Text = ""

    @model_validator(mode="after")
    def _meets(self) -> "KeepClear":
        if self.run and FACE_AT[self.run.beside][0] == FACE_AT[self.face][0]:
            raise ValueError(
                f"runs along an edge of the {self.face} face: beside the {self.run.beside} face it has none"
            )
        return self

    def before(self, low: Vec, high: Vec, depth_mm: float) -> tuple[Vec, Vec]:
        """The room of a depth before an upright block from ``low`` to ``high``, by its own two corners."""
        axis, far = FACE_AT[self.face]
        lows, highs = list(low), list(high)
        lows[axis], highs[axis] = (high[axis], high[axis] + depth_mm) if far else (low[axis] - depth_mm, low[axis])
        if self.run:
            axis, far = FACE_AT[self.run.beside]
            wide_mm = min(self.run.wide_mm, high[axis] - low[axis])
            lows[axis], highs[axis] = (high[axis] - wide_mm, high[axis]) if far else (low[axis], low[axis] + wide_mm)
        return (lows[0], lows[1], lows[2]), (highs[0], highs[1], highs[2])


class InVehicle(DocumentModel):
    """It stands in the vehicle: its solid and its place are in vehicle axes."""

    type: Literal["vehicle"] = "vehicle"


class InBox(DocumentModel):
    """It is fixed in or on a box, and goes and turns with it. Its solid and its place are in its own axes, which are
    the box's, turned by ``turn`` about the face's own axis; they begin ``off_mm`` inward of the face, at a place from
    two of its edges. ``chamber``: the face and its edges are those of a chamber of the box, in that one's axes."""

    type: Literal["box"]
    box: Id
    chamber: Id | None = None
    face: Face
    from_: Annotated[tuple[Face, Face], Field(alias="from", strict=False)]
    u_mm: Length
    v_mm: Length
    off_mm: Length = 0.0
    turn: Literal[0, 90, 180, 270] = 0


Place = Annotated[InVehicle | InBox, Field(discriminator="type")]


Role = Literal[
    "motor",
    "motor control",
    "charger",
    "dc-dc",
    "heater",
    "junction",
    "contactors",
    "battery controller",
    "inlet",
    "small battery",
    "pump",
    "valve",
    "tank",
    "radiator",
    "fan",
    "chiller",
    "cabin core",
    "other",
]
Volts = Annotated[float, Field(ge=0, le=2000)]


class Item(DocumentModel):
    """One row for every physical thing that is no module, box or mount.

    Its mass counts where it comes out, goes in or rides along; with a solid it is an obstacle unless it comes out. A
    liquid weighs by volume and density where no mass is given. A hot part that is ``shielded`` needs the gap of a warm
    one."""

    name: Line
    state: Literal["stays", "out", "in", "payload"]
    mass_kg: Kg | None = None
    fluid: Fluid | None = None
    tol_kg: Kg = 0.0
    at_mm: Point | None = None
    solid: SolidSpec | None = None
    sweep: Sweep | None = None
    keep_clear: Annotated[dict[Id, KeepClear], Field(max_length=12)] = {}
    gap_class: GapClass = "other"
    shielded: bool = False
    structure: Structure = "body"
    fixed_to: Id | None = None
    place: Place = InVehicle()
    role: Role | None = None
    least_v: Volts | None = None
    most_v: Volts | None = None
    heat_w: Annotated[float, Field(ge=0, le=1e6)] | None = None
    fuel: bool = False
    mirror_of: Id | None = None
    order: int = 0
    note: Text = ""

    @property
    def weighs_kg(self) -> float | None:
        return self.fluid.mass_kg if self.mass_kg is None and self.fluid else self.mass_kg

    @property
    def held_by(self) -> str | None:
        """The box it is fixed in or on, whichever way that is said."""
        return self.place.box if isinstance(self.place, InBox) else self.fixed_to

    @model_validator(mode="after")
    def _fixed_once(self) -> "Item":
        if isinstance(self.place, InBox) and self.fixed_to is not None:
            raise ValueError("is placed in a box: “fixed to” is not said beside it")
        if isinstance(self.place, InBox) and self.state not in ("in", "stays"):
            raise ValueError("is placed in a box: it can only go in or stay")
        return self


class Keepout(DocumentModel):
    """A space that is no thing."""

    name: Line
    kind: Literal["crush", "hand", "tool", "airflow", "sight", "lowest", "corridor", "other"]
    solid: SolidSpec
    gap_class: GapClass = "other"
    reason: Text = ""
    mirror_of: Id | None = None


class LoadState(DocumentModel):
    """Which payload is aboard."""

    name: Line
    aboard: dict[Id, Literal[True]]
    order: int = 0


SpotKind = Literal[
    "hole", "captive nut", "rivet nut", "insert", "tapped thread", "stud", "strap point", "seat or belt point"
]


class HardPoint(DocumentModel):
    """An existing hole, nut, thread, stud or strap point. ``direction`` is n: from the metal into the bracket.

    ``tested_n``: what one like it, in metal like this, held in the shop's own pull test. ``carried_kg`` is what it held
    before: evidence for road cases up to that weight, none for a crash. ``approved``: who approved it to carry
    something else, where it holds a seat or a belt.
    """

    name: Line
    at_mm: Point
    direction: Direction
    kind: SpotKind = "hole"
    tested_n: Annotated[float, Field(gt=0, le=1e6)] | None = None
    thread: Line | None = None
    wall_mm: PositiveLength | None = None
    carried_kg: Kg | None = None
    carried: Text = ""
    approved: Text = ""
    uncut: bool = True
    member: Id | None = None
    structure: Structure = "body"
    mirror_of: Id | None = None
    note: Text = ""


class Member(DocumentModel):
    """A rail, crossmember or beam of the vehicle, along a line through the middle of its section."""

    name: Line
    start_mm: Point
    end_mm: Point
    width_mm: PositiveLength
    height_mm: PositiveLength
    section: Literal["closed", "open channel", "angle", "tube", "plate"] = "closed"
    wall_mm: PositiveLength | None = None
    material: Id | None = None
    main: bool = True
    condition: Literal["not looked at", "sound", "surface rust", "rusted through", "cracked", "repaired"] = (
        "not looked at"
    )
    structure: Structure = "body"
    mirror_of: Id | None = None
    note: Text = ""

    @field_validator("end_mm")
    @classmethod
    def _has_a_length(cls, end: Point, info: object) -> Point:
        start = getattr(info, "data", {}).get("start_mm")
        if start and all(abs(a - b) < 1 for a, b in zip(start, end, strict=True)):
            raise ValueError("must not be where the member starts")
        return end


class VehicleOpening(DocumentModel):
    """A door, hatch or panel of the vehicle, or one to be cut, with the clear size that passes it. ``rim_mm``: how wide
    the frame is that is let in round it; 0 of one without."""

    name: Line
    at_mm: Point
    direction: Direction
    width_mm: PositiveLength
    height_mm: PositiveLength
    cut: Literal["existing", "to be cut"] = "existing"
    gives: Text = ""
    lost: Text = ""
    framed: Text = ""
    rim_mm: NonNegativeLength = 0.0


class Duty(DocumentModel):
    """What came out that carried load or did a job, and what does it now; empty is “nothing yet”."""

    name: Line
    kind: Literal["structure", "heat", "vacuum", "holding", "gauge", "other"]
    was: Id | None = None
    now: Text = ""
    done_by: Id | None = None


class Snag(DocumentModel):
    """A fault found, with a picture where there is one."""

    name: Line
    state: Literal["found", "mended", "left"] = "found"
    at_mm: Point | None = None
    photo: Annotated[str, Field(pattern=r"^[0-9a-f]{64}$")] | None = None
    note: Text = ""


class Accepted(DocumentModel):
    """Somebody answers for a figure that nobody measured, with how far it may be off."""

    by: Line
    plus_minus: NonNegativeLength


class Reading(DocumentModel):
    """How a figure came to be: the text as typed, from where, how sure. Stands beside the figure, by its path.

    ``again_mm`` is what a second tape gave, taken without seeing the first; ``source`` names the instrument. *Not
    taken* is a figure that stands only so that something can be drawn."""

    text: Annotated[Text, Field(max_length=200)]
    unit: Literal["mm", "in", "kg", "lb", ""] = ""
    from_: Annotated[Id | None, Field(alias="from")] = None
    tolerance: NonNegativeLength | None = None
    again_mm: Length | None = None
    source: Annotated[Text, Field(max_length=80)] = ""
    basis: Literal["measured", "typed", "assumed", "catalogue", "not taken"] = "typed"
    accepted: Accepted | None = None
    when: Line | None = None
    by: Line | None = None
