"""Boxes and the blocks in them."""

from typing import Annotated, Literal

from pydantic import BeforeValidator, Field, field_validator, model_validator

from levelcradle.core.design.base import (
    FACE_AT,
    FACE_PAIRS,
    Angle,
    Count,
    DocumentModel,
    Face,
    Id,
    Kg,
    Length,
    Line,
    ModuleFace,
    NonNegativeLength,
    Point,
    PositiveLength,
    Size3,
    _as_tuple,
)
from levelcradle.core.design.chamber import Chamber
from levelcradle.core.design.construction import Cap, Closure, Construction, Folded, WeldClass
from levelcradle.core.design.fitted import Fitted
from levelcradle.core.design.holders import Holder
from levelcradle.core.design.layers import Layer, Layers, Liners
from levelcradle.core.design.lightening import Lightening
from levelcradle.core.design.service_panel import ServicePanel
from levelcradle.core.design.survey import KeepClear

__all__ = [
    "ANCHORS",
    "EDGES_OF",
    "FACE_AT",
    "Anchor",
    "Block",
    "Box",
    "Chamfer",
    "Counts",
    "Dividers",
    "Finish",
    "Fittings",
    "Fixed",
    "Gaps",
    "Inner",
    "Opening",
    "Orientation",
    "Pose",
    "Protrusion",
    "Wrap",
    "edges_meet",
]

Anchor = Literal[
    "front-left-base",
    "front-right-base",
    "aft-left-base",
    "aft-right-base",
    "front-left-top",
    "front-right-top",
    "aft-left-top",
    "aft-right-top",
    "front",
    "aft",
    "left",
    "right",
    "base",
    "top",
]
_MID = 0.5

EDGES_OF = {face: tuple(pair for i, pair in enumerate(FACE_PAIRS) if i != axis) for face, (axis, _) in FACE_AT.items()}
"""The two pairs of edges of each face that a place on it is measured from."""


def edges_meet(one: tuple[str, str], other: tuple[str, str]) -> bool:
    """Whether two edges meet in a corner of the box, or are the same.

    >>> edges_meet(("front", "base"), ("left", "base")), edges_meet(("front", "base"), ("aft", "base"))
    (True, False)
    """
    faces = {*one, *other}
    return len({FACE_AT[face][0] for face in faces}) == len(faces)


def _share(anchor: str) -> tuple[float, float, float]:
    at = [_MID, _MID, _MID]
    for word in anchor.split("-"):
        axis, share = FACE_AT[word]
        at[axis] = share
    return at[0], at[1], at[2]


ANCHORS: dict[str, tuple[float, float, float]] = {name: _share(name) for name in Anchor.__args__}  # type: ignore[attr-defined]
"""Where each anchor sits, as shares of the outside size from its front, left, base corner."""


class Pose(DocumentModel):
    """The anchor's place; the box is turned about it by yaw, then pitch, then roll."""

    anchor: Anchor
    at_mm: Point
    yaw_deg: Angle = 0.0
    pitch_deg: Angle = 0.0
    roll_deg: Angle = 0.0


Axis = Literal["aft", "across", "up"]


class Orientation(DocumentModel):
    """Which module face is down and which looks aft, in the box's frame."""

    down: ModuleFace
    aft: ModuleFace

    @field_validator("aft")
    @classmethod
    def _square(cls, aft: str, info: object) -> str:
        down = getattr(info, "data", {}).get("down")
        if down and _AXIS[aft] == _AXIS[down]:
            raise ValueError(f"cannot look aft while {down} is down")
        return aft


_AXIS = {"end_a": 0, "end_b": 0, "side_a": 1, "side_b": 1, "base": 2, "top": 2}


class Counts(DocumentModel):
    aft: Count = 1
    across: Count = 1
    up: Count = 1

    @property
    def total(self) -> int:
        return self.aft * self.across * self.up


class Gaps(DocumentModel):
    """Gap between neighbours in a block; None is what their faces ask for."""

    aft: NonNegativeLength | None = None
    across: NonNegativeLength | None = None
    up: NonNegativeLength | None = None


class Dividers(DocumentModel):
    """Plates between modules of a block along one way, one after every ``every`` modules, bottom to lid; between tiers
    where they go up.

    ``material``: a row of the table of liners; None where they are of the box's own sheet. ``relief``: the face by
    which each of the compartments between them blows off; None where nobody has said."""

    along: Axis
    every: Count
    thickness_mm: PositiveLength
    material: Id | None = None
    relief: Face | None = None


class Block(DocumentModel):
    """A grid of one kind. ``alternate``: along that way every second module is turned about, so that links stay short.
    ``string``: which one its modules are in, where there are several; ``parallel``: so many of them stand side by side
    as one."""

    kind: Id
    turn: Orientation
    counts: Counts = Counts()
    gap_mm: Gaps = Gaps()
    origin_mm: Point = (0.0, 0.0, 0.0)
    alternate: Axis | None = None
    dividers: Dividers | None = None
    string: Id | None = None
    parallel: Annotated[int, Field(ge=1, le=24)] = 1
    order: int = 0


class Wrap(DocumentModel):
    """The inner size follows from the blocks."""

    type: Literal["wrap"] = "wrap"


class Fixed(DocumentModel):
    """The inner size is given (an existing case); the blocks are checked against it from its front, left, base
    corner."""

    type: Literal["fixed"]
    size_mm: Size3


Inner = Annotated[Wrap | Fixed, Field(discriminator="type")]


class Opening(DocumentModel):
    """A round hole in a face, measured from two named edges of that face, and what sits in it."""

    name: Line
    face: Face
    from_: Annotated[tuple[Face, Face], Field(alias="from", strict=False)]
    u_mm: Length
    v_mm: Length
    diameter_mm: PositiveLength
    fitted: Fitted | None = None

    @property
    def joined(self) -> bool:
        """Whether something is joined there in place; a breather or a drain is left to itself."""
        return self.fitted is None or self.fitted.kind not in ("vent", "pressure relief", "drain")

    @property
    def seat_mm(self) -> float:
        """As much of the wall as it takes, across."""
        return max(self.diameter_mm, self.fitted.seat_mm if self.fitted else 0.0)


class Protrusion(DocumentModel):
    """What stands out of a face, measured like an opening. A cable or hose that leaves it bends before it may meet
    anything: ``bend_radius_mm`` is its maker's least, on its middle line."""

    name: Line
    kind: Literal["gland", "hose tail", "plug", "bleed screw", "handle", "lifting eye", "other"] = "other"
    face: Face
    from_: Annotated[tuple[Face, Face], Field(alias="from", strict=False)]
    u_mm: Length
    v_mm: Length
    across_mm: PositiveLength
    out_mm: PositiveLength
    bend_radius_mm: NonNegativeLength = 0.0

    @property
    def reach_mm(self) -> float:
        """How far off the face its room goes: itself, then the bend to the cable's outside."""
        return self.out_mm + (self.bend_radius_mm + self.across_mm / 2 if self.bend_radius_mm else 0.0)


class Fittings(DocumentModel):
    """Links, liners and clamps, carried at the middle of the blocks; what of it is drawn is part of it."""

    per_module_kg: Kg = 1.0
    box_kg: Kg = 1.5


class Chamfer(DocumentModel):
    """An edge of the outside cut off: so far along each of the two faces that meet in it. ``square``: of the base, cut
    out square, a step that what stands on it is lifted by."""

    edge: Annotated[tuple[Face, Face], BeforeValidator(_as_tuple)]
    mm: Annotated[tuple[PositiveLength, PositiveLength], BeforeValidator(_as_tuple)]
    square: bool = False

    @property
    def words(self) -> str:
        """What it is called."""
        one, other = self.edge
        if self.square:
            return f"step at the {one if other == 'base' else other}"
        return f"lid's slope {one} {other}" if "top" in self.edge else f"chamfer {one} {other}"

    @property
    def along_mm(self) -> dict[str, float]:
        """How much goes along each of the two faces."""
        return dict(zip(self.edge, self.mm, strict=True))

    @field_validator("edge")
    @classmethod
    def _an_edge(cls, edge: tuple[Face, Face]) -> tuple[Face, Face]:
        if FACE_AT[edge[0]][0] == FACE_AT[edge[1]][0]:
            raise ValueError("names two faces that meet")
        return edge

    @model_validator(mode="after")
    def _a_step(self) -> "Chamfer":
        if self.square and "base" not in self.edge:
            raise ValueError("only an edge of the base is cut out square")
        return self


class Finish(DocumentModel):
    """What is put on the metal: coats on each face, and whether the weld beads outside are ground flush."""

    coats: Annotated[int, Field(ge=0, le=6)] = 0
    coat_mm: Annotated[float, Field(gt=0, le=2)] = 0.08
    beads_ground: bool = True
    bead_mm: Annotated[float, Field(ge=0, le=10)] = 2.0


class Box(DocumentModel):
    """``weld_class``: how true its welds are kept; so much room is left inside for their pull. None where nobody has
    said, and no room is left. ``filler``: what it is welded with, a row of the design's table. ``bond_ohm``: measured
    from the box to the body, over its bonding strap. ``one_strip``: what lies next to the metal of the base and of the
    two walls at either end of that way is one piece, folded up. ``sides``: faces that keep out no more than splashes,
    or nothing, whatever the others do."""

    name: Line
    bay: Id | None = None
    pose: Pose
    construction: Construction = Folded()
    weld_class: WeldClass | None = None
    filler: Id | None = None
    material: Id = "s235"
    layers: Layers = Liners().layers()
    one_strip: Literal["aft", "across"] | None = None
    blocks: Annotated[dict[Id, Block], Field(max_length=200)] = {}
    inner: Inner = Wrap()
    chamfers: Annotated[dict[Id, Chamfer], Field(max_length=8)] = {}
    closures: Annotated[dict[Id, Closure], Field(max_length=1)] = {"lid": Cap()}
    openings: Annotated[dict[Id, Opening], Field(max_length=200)] = {}
    protrusions: Annotated[dict[Id, Protrusion], Field(max_length=100)] = {}
    chambers: Annotated[dict[Id, Chamber], Field(max_length=8)] = {}
    service_panels: Annotated[dict[Id, ServicePanel], Field(max_length=12)] = {}
    lightening: Annotated[dict[Id, Lightening], Field(max_length=6)] = {}
    keep_clear: Annotated[dict[Id, KeepClear], Field(max_length=12)] = {}
    sealing: Literal["open", "gasket", "sealant"] | None = None
    sides: dict[Face, Literal["splash", "open"]] = {}
    vented_outside: bool | None = None
    bond_ohm: Annotated[float, Field(ge=0, le=1e6)] | None = None
    holders: Annotated[dict[Id, Holder], Field(max_length=200)] = {}
    fittings: Fittings = Fittings()
    finish: Finish = Finish()
    order: int = 0

    @model_validator(mode="after")
    def _closed(self) -> "Box":
        wanted = self.construction.closed_by
        if len(self.closures) != min(len(wanted), 1) or any(c.type not in wanted for c in self.closures.values()):
            lid = " or ".join(f"a {kind}" for kind in wanted) or "no lid"
            raise ValueError(f"its construction is closed by {lid} of its own")
        return self

    def lining(self, face: Face) -> list[tuple[str, Layer]]:
        """The layers of a face, from the wall inward."""
        return sorted(self.layers.get(face, {}).items(), key=lambda row: (row[1].order, row[0]))

    def lined_mm(self, face: Face) -> float:
        """How thick the layers of a face are together."""
        return sum(layer.thickness_mm for _, layer in self.lining(face))

    @property
    def sealed(self) -> bool:
        """Whether it is said to be sealed, but for what ``sides`` says."""
        return self.sealing in ("gasket", "sealant")

    @property
    def lid(self) -> Closure:
        """What it is filled through. Raises StopIteration of a box that is closed by itself."""
        return next(iter(self.closures.values()))
