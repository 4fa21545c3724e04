"""A surveyed space: stations in the ways people measure them, lumps and hollows, check diagonals."""

from itertools import pairwise
from typing import Annotated, Any, Literal

from pydantic import Discriminator, Field, Tag, field_validator, model_validator

from levelcradle.core.design.base import (
    DocumentModel,
    GapClass,
    Id,
    Length,
    Line,
    NonNegativeLength,
    PositiveLength,
    Structure,
)

__all__ = [
    "Bay",
    "BayCorner",
    "BayDepth",
    "BaySide",
    "Diagonal",
    "EdgeStation",
    "LeanStation",
    "PointStation",
    "SectionPoint",
    "Side",
    "Sides",
    "SurveySection",
    "SurveySectionSpec",
    "WallFeature",
    "WidthStation",
]

BaySide = Literal["fore", "aft", "left", "right", "floor", "top"]
Corner = Literal["left_floor", "left_top", "right_floor", "right_top"]
Lean = Annotated[float, Field(ge=-80, le=80)]


class SurveySection(DocumentModel):
    """A section of a bay, in vehicle axes."""

    type: Literal["sides"] = "sides"
    aft_mm: Length
    floor_mm: Length
    top_left_mm: Length
    top_right_mm: Length
    left_floor_mm: Length
    left_top_mm: Length
    right_floor_mm: Length
    right_top_mm: Length

    @field_validator("top_left_mm", "top_right_mm")
    @classmethod
    def _above_the_floor(cls, top: float, info: object) -> float:
        floor = getattr(info, "data", {}).get("floor_mm")
        if floor is not None and top <= floor:
            raise ValueError("must be above the floor; where both are wrong, type the other one first")
        return top

    @field_validator("right_floor_mm", "right_top_mm")
    @classmethod
    def _right_of_left(cls, right: float, info: object) -> float:
        data = getattr(info, "data", {})
        left = data.get(str(getattr(info, "field_name", "")).replace("right", "left"))
        if left is not None and right <= left:
            raise ValueError("must be right of the left side")
        return right


class _Widths(DocumentModel):
    aft_mm: Length
    floor_mm: Length
    width_floor_mm: PositiveLength
    top_left_mm: Length
    top_right_mm: Length
    offset_mm: Length = 0.0

    @field_validator("top_left_mm", "top_right_mm")
    @classmethod
    def _above_the_floor(cls, top: float, info: object) -> float:
        floor = getattr(info, "data", {}).get("floor_mm")
        if floor is not None and top <= floor:
            raise ValueError("must be above the floor; where both are wrong, type the other one first")
        return top


class WidthStation(_Widths):
    """Two widths about a middle that stands ``offset_mm`` right of the centreline."""

    type: Literal["widths"]
    width_top_mm: PositiveLength


class LeanStation(_Widths):
    """The width at the floor, and how far each wall leans outward from upright, by an angle finder zeroed on the
    sill."""

    type: Literal["leans"]
    left_lean_deg: Lean
    right_lean_deg: Lean


class SectionPoint(DocumentModel):
    across_mm: Length
    up_mm: Length
    order: int


class PointStation(DocumentModel):
    """Free points round the section, in order either way round."""

    type: Literal["points"]
    aft_mm: Length
    points: Annotated[dict[Id, SectionPoint], Field(min_length=3, max_length=120)]


class BayDepth(DocumentModel):
    across_mm: Length
    depth_mm: NonNegativeLength


class EdgeStation(DocumentModel):
    """Depths below a straight-edge laid across the space; its two ends are the walls."""

    type: Literal["edge"]
    aft_mm: Length
    up_mm: Length
    depths: Annotated[dict[Id, BayDepth], Field(min_length=2, max_length=60)]

    @field_validator("depths")
    @classmethod
    def _a_profile(cls, depths: dict[str, BayDepth]) -> dict[str, BayDepth]:
        places = sorted(d.across_mm for d in depths.values())
        if any(b - a < 1 for a, b in pairwise(places)):
            raise ValueError("must be taken at places at least 1 mm apart")
        if not any(d.depth_mm > 0 for d in depths.values()):
            raise ValueError("must be deeper than the straight-edge somewhere")
        return depths


def _way(value: Any) -> str:
    return str((value.get("type") if isinstance(value, dict) else getattr(value, "type", None)) or "sides")


SurveySectionSpec = Annotated[
    Annotated[SurveySection, Tag("sides")]
    | Annotated[WidthStation, Tag("widths")]
    | Annotated[LeanStation, Tag("leans")]
    | Annotated[PointStation, Tag("points")]
    | Annotated[EdgeStation, Tag("edge")],
    Discriminator(_way),
]


class Side(DocumentModel):
    """``opens``: metal that is a lid, door or panel: closed a box keeps its gap to it, opened it lets a box in and
    out."""

    is_: Annotated[Literal["metal", "open", "not measured"], Field(alias="is")]
    gap_class: GapClass = "other"
    opens: bool = False


class Sides(DocumentModel):
    fore: Side
    aft: Side
    left: Side
    right: Side
    floor: Side
    top: Side

    @property
    def not_measured(self) -> tuple[str, ...]:
        return tuple(name for name in type(self).model_fields if getattr(self, name).is_ == "not measured")


_NEEDS: dict[str, tuple[str, str]] = {
    "left": ("aft", "up"),
    "right": ("aft", "up"),
    "floor": ("aft", "across"),
    "top": ("aft", "across"),
    "fore": ("across", "up"),
    "aft": ("across", "up"),
}


class WallFeature(DocumentModel):
    """A lump on a wall or a hollow in it: where on the wall, and how far it stands proud or goes deep.

    Of the three pairs the two that lie in the wall are given: aft and up on the left and right sides, aft and across
    on floor and top, across and up on the ends.
    """

    name: Line
    side: BaySide
    hollow: bool = False
    fore_mm: Length | None = None
    aft_mm: Length | None = None
    left_mm: Length | None = None
    right_mm: Length | None = None
    low_mm: Length | None = None
    high_mm: Length | None = None
    proud_mm: PositiveLength

    @property
    def spans(self) -> tuple[tuple[float, float], tuple[float, float]]:
        """The two spans in the wall, in the order aft, across, up."""
        pairs = {
            "aft": (self.fore_mm, self.aft_mm),
            "across": (self.left_mm, self.right_mm),
            "up": (self.low_mm, self.high_mm),
        }
        (a0, a1), (b0, b1) = (pairs[way] for way in _NEEDS[self.side])
        return (a0 or 0.0, a1 or 0.0), (b0 or 0.0, b1 or 0.0)

    @model_validator(mode="after")
    def _on_its_wall(self) -> "WallFeature":
        pairs = {
            "aft": (self.fore_mm, self.aft_mm),
            "across": (self.left_mm, self.right_mm),
            "up": (self.low_mm, self.high_mm),
        }
        for way in _NEEDS[self.side]:
            low, high = pairs[way]
            if low is None or high is None or high - low < 1:
                raise ValueError(f"needs where it starts and ends {way}, at least 1 mm apart")
        return self


class BayCorner(DocumentModel):
    station: Id
    corner: Corner


class Diagonal(DocumentModel):
    """A check: the tape from one corner to another; no length while it is not taken."""

    one: BayCorner
    other: BayCorner
    length_mm: PositiveLength | None = None


class Bay(DocumentModel):
    """Two or more stations joined, or one and a depth. ``tolerance_mm``: tape 1, reached in 3."""

    name: Line
    measured_from: Id | None = None
    stations: Annotated[dict[Id, SurveySectionSpec], Field(max_length=60)]
    depth_mm: PositiveLength | None = None
    sides: Sides
    lumps: Annotated[dict[Id, WallFeature], Field(max_length=100)] = {}
    diagonals: Annotated[dict[Id, Diagonal], Field(max_length=100)] = {}
    tolerance_mm: NonNegativeLength | None = None
    structure: Structure = "body"
    flags: dict[Literal["passenger", "crush", "wet", "hot", "luggage"], Literal[True]] = {}
