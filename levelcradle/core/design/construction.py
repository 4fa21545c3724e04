"""How a box is built and closed: unions, one model a kind. What each kind is made of is said in
``levelcradle.core.box``."""

from typing import Annotated, ClassVar, Literal

from pydantic import BeforeValidator, Field, ValidationInfo, field_validator, model_validator

from levelcradle.core.design.base import (
    FACE_AT,
    DocumentModel,
    Face,
    Line,
    NonNegativeLength,
    PositiveLength,
    Size3,
    Text,
    _as_tuple,
)

__all__ = [
    "Cap",
    "Closure",
    "Construction",
    "Existing",
    "Flange",
    "Folded",
    "FoldingShop",
    "Framed",
    "LidScrews",
    "Panel",
    "Racked",
    "Screws",
    "WeldClass",
]

WeldClass = Literal["A", "B", "C", "D"]
"""How true a welder keeps a length: the classes of ISO 13920."""


class FoldingShop(DocumentModel):
    """Who folds the sheet, his own bend deduction where he gave one, and what his machine takes: the longest bend, the
    deepest tray (its four walls go up between the fingers), the shortest flange, the largest sheet, one way and the
    other. None: not asked. What he does not take in one piece is cut apart and welded."""

    name: Text = ""
    deduction_mm: NonNegativeLength | None = None
    longest_bend_mm: PositiveLength | None = None
    deepest_mm: PositiveLength | None = None
    shortest_mm: PositiveLength | None = None
    sheet_long_mm: PositiveLength | None = None
    sheet_wide_mm: PositiveLength | None = None

    @property
    def limited(self) -> bool:
        """Whether there is anything that he does not take."""
        return any((self.longest_bend_mm, self.deepest_mm, self.sheet_long_mm, self.sheet_wide_mm))


class Folded(DocumentModel):
    """A tray folded from one sheet, its corners welded, with a cap over it or a flat lid on a flange. ``base_mm``: of a
    thicker base, a plate of its own that the four walls are welded on. ``tabs``: walls that are cut apart stand in
    notches of the base's edge, so that nobody measures where they go."""

    closed_by: ClassVar[tuple[str, ...]] = ("cap", "flange")
    welded: ClassVar[tuple[bool, bool, bool]] = (True, True, False)  # aft, across, up
    type: Literal["folded"] = "folded"
    thickness_mm: Annotated[float, Field(gt=0, le=20)] = 3.0
    bend_radius_mm: Annotated[float, Field(ge=0, le=50)] = 3.0
    base_mm: Annotated[float, Field(gt=0, le=20)] | None = None
    tabs: bool = False
    folder: FoldingShop = FoldingShop()


class Existing(DocumentModel):
    """A case that is there: its outside with its lid closed, its thicknesses and its mass as measured. It is checked,
    not made."""

    closed_by: ClassVar[tuple[str, ...]] = ()  # its lid is part of it
    welded: ClassVar[tuple[bool, bool, bool]] = (False, False, False)
    type: Literal["existing"]
    size_mm: Size3
    wall_mm: PositiveLength
    base_mm: PositiveLength
    top_mm: PositiveLength
    mass_kg: Annotated[float, Field(gt=0, le=10_000)]
    tol_mm: NonNegativeLength = 1.0


class Framed(DocumentModel):
    """A frame of square tube with a flat panel of sheet on each face but one, and one that comes off on that.

    ``corners``: how the tubes of its two rings meet, or whether each ring is one tube, notched and folded; ``rails``:
    tubes across under what stands in it, evenly, or with their middles at ``rails_at_mm`` from the outside of the
    frame; ``fastener``: what holds the panels, ``fastener_mm`` thick."""

    closed_by: ClassVar[tuple[str, ...]] = ("panel",)
    welded: ClassVar[tuple[bool, bool, bool]] = (True, True, True)
    type: Literal["framed"]
    tube_mm: Annotated[float, Field(ge=10, le=100)] = 25.0
    tube_wall_mm: Annotated[float, Field(gt=0, le=6)] = 2.0
    corners: Literal["butt", "mitre", "notch"] = "butt"
    rails: Annotated[int, Field(ge=0, le=12)] = 2
    rails_at_mm: Annotated[tuple[PositiveLength, ...], BeforeValidator(_as_tuple), Field(max_length=12)] = ()
    cladding_mm: Annotated[float, Field(gt=0, le=6)] = 1.5
    fastener: Literal["rivet", "rivet nut", "tapped"] = "rivet"
    fastener_mm: Annotated[float, Field(ge=2, le=10)] = 4.8
    pitch_mm: Annotated[float, Field(ge=20, le=500)] = 80.0

    @field_validator("tube_wall_mm")
    @classmethod
    def _hollow(cls, wall: float, info: ValidationInfo) -> float:
        if 4 * wall > info.data.get("tube_mm", wall * 4):
            raise ValueError("must be at most a quarter of the tube: its corners are rounded by twice as much")
        return wall


class Racked(DocumentModel):
    """An open rack for dry places: a frame of angles welded round an insert, a snug tray folded from thin sheet. It has
    no lid; what holds the modules holds them upward too."""

    closed_by: ClassVar[tuple[str, ...]] = ()
    welded: ClassVar[tuple[bool, bool, bool]] = (True, True, False)
    type: Literal["racked"]
    angle_mm: Annotated[float, Field(ge=15, le=80)] = 30.0
    angle_wall_mm: Annotated[float, Field(ge=2, le=8)] = 3.0
    insert_mm: Annotated[float, Field(gt=0, le=4)] = 2.5
    bend_radius_mm: Annotated[float, Field(ge=0, le=10)] = 2.5


Construction = Annotated[Folded | Existing | Framed | Racked, Field(discriminator="type")]


class Screws(DocumentModel):
    """Screws into rivet nuts, no further apart than ``spacing_mm``."""

    size: Line = "M5"
    hole_mm: PositiveLength = 5.5
    rivet_nut_hole_mm: PositiveLength = 7.0
    head_high_mm: PositiveLength = 3.0
    head_across_mm: PositiveLength = 9.0
    spacing_mm: PositiveLength = 140.0


class LidScrews(Screws):
    """Sideways through the lid's edge, the rivet nuts in the tray's wall; none nearer to a corner than said."""

    corner_mm: NonNegativeLength = 60.0


class Cap(DocumentModel):
    """A lid over the tray, its edges turned down. ``main``: the one that the box is filled through; ``thickness_mm``:
    None where it is of the tray's sheet."""

    type: Literal["cap"] = "cap"
    face: Literal["top"] = "top"
    main: Literal[True] = True
    thickness_mm: Annotated[float, Field(gt=0, le=20)] | None = None
    clearance_mm: NonNegativeLength = 0.5
    edge_mm: PositiveLength = 25.0
    screws: LidScrews = LidScrews()


class Flange(DocumentModel):
    """A flat lid on a flange: strips of the tray's sheet, ``wide_mm``, welded round its rim, outward or ``inward``;
    screws down through both into rivet nuts. ``thickness_mm``: of the lid, None where it is of the tray's sheet;
    ``gasket_mm``: as it is pressed; ``hinge``: the edge that it turns on, once its screws are out; ``window``: the lid
    is clear polycarbonate, bought."""

    type: Literal["flange"]
    face: Literal["top"] = "top"
    main: Literal[True] = True
    wide_mm: Annotated[float, Field(ge=8, le=100)] = 25.0
    inward: bool = False
    thickness_mm: Annotated[float, Field(gt=0, le=20)] | None = None
    gasket_mm: Annotated[float, Field(ge=0, le=20)] = 3.0
    hinge: Literal["front", "aft", "left", "right"] | None = None
    window: bool = False
    screws: Screws = Screws(spacing_mm=80.0)


class Panel(DocumentModel):
    """A flat panel on a gasket, screwed into rivet nuts in the frame: a lid, or a side or base that comes off.
    ``gasket_mm``: as it is pressed. ``hinge``: the edge of its face that it turns on, once its screws are out; None
    where it is taken away. ``window``: it is clear polycarbonate, bought."""

    type: Literal["panel"]
    face: Face = "top"
    hinge: Face | None = None
    main: Literal[True] = True
    thickness_mm: Annotated[float, Field(gt=0, le=10)] = 2.0
    gasket_mm: Annotated[float, Field(ge=0, le=20)] = 2.0
    window: bool = False
    screws: Screws = Screws()

    @model_validator(mode="after")
    def _turns_on_an_edge(self) -> "Panel":
        if self.hinge is not None and FACE_AT[self.hinge][0] == FACE_AT[self.face][0]:
            raise ValueError(f"turns on an edge of its face: the {self.face} has none with the {self.hinge}")
        return self


Closure = Annotated[Cap | Flange | Panel, Field(discriminator="type")]
