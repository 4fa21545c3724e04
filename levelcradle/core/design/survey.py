"""The vehicle as found: weights, references, things, spaces and hard points."""

from typing import Annotated, Literal

from pydantic import BeforeValidator, Field, field_validator

from levelcradle.core.design.base import (
    GapClass,
    Id,
    Kg,
    Length,
    Line,
    Part,
    Point,
    Positive,
    Share,
    Structure,
    Text,
    _as_tuple,
)  # fmt: skip

__all__ = [
    "Axles", "Bay", "BlockSolid", "CgHeight", "Corners", "HardPoint", "Item", "Keepout", "LoadState", "Overall",
    "PrismSolid", "Ratings", "Reading", "Reference", "RodSolid", "Side", "Sides", "SolidSpec", "Station", "Target",
    "Track", "Vehicle", "Weighing", "WheelRates",
]  # fmt: skip


class Corners(Part):
    """Four wheel scales."""

    type: Literal["corners"]
    lf_kg: Kg
    rf_kg: Kg
    lr_kg: Kg
    rr_kg: Kg
    step_kg: Annotated[float, Field(gt=0, le=1000)]


class Axles(Part):
    """Two axle readings, as from a public scale."""

    type: Literal["axles"]
    front_kg: Kg
    rear_kg: Kg
    step_kg: Annotated[float, Field(gt=0, le=1000)]


Weighing = Annotated[Corners | Axles, Field(discriminator="type")]


class Track(Part):
    front: Positive
    rear: Positive


class Overall(Part):
    """What the vehicle is drawn from."""

    overhang_front_mm: Share
    overhang_rear_mm: Share
    width_mm: Positive
    height_mm: Positive
    tyre_radius_mm: Positive


class CgHeight(Part):
    up_mm: Share
    tolerance_mm: Share
    basis: Literal["measured", "axle_lift", "assumed"]


class Ratings(Part):
    front_kg: Kg | None = None
    rear_kg: Kg | None = None
    gross_kg: Kg | None = None


class WheelRates(Part):
    front_n_per_mm: Annotated[float, Field(gt=0, le=10_000)]
    rear_n_per_mm: Annotated[float, Field(gt=0, le=10_000)]


class Target(Part):
    front_percent: Annotated[float, Field(ge=0, le=100)]
    across_mm: Length = 0.0


class Vehicle(Part):
    wheelbase_mm: Positive
    track_mm: Track | None = None
    overall: Overall | None = None
    weighing: Weighing | None = None
    weighed_again: Weighing | None = None
    cg_height: CgHeight | None = None
    ratings: Ratings = Ratings()
    wheel_rates: WheelRates | None = None
    target: Target | None = None


class Reference(Part):
    """A named point that the tape is hooked on."""

    name: Line
    at_mm: Point
    found: Text = ""


class BlockSolid(Part):
    """An upright block between two opposite corners."""

    type: Literal["block"]
    low_mm: Point
    high_mm: Point

    @field_validator("high_mm")
    @classmethod
    def _has_a_size(cls, high: Point, info: object) -> Point:
        low = getattr(info, "data", {}).get("low_mm")
        if low and any(h <= g for g, h in zip(low, high, strict=True)):
            raise ValueError("must be aft of, right of and above the low corner")
        return high


class RodSolid(Part):
    """A round bar, pipe or cable."""

    type: Literal["rod"]
    start_mm: Point
    end_mm: Point
    radius_mm: Positive

    @field_validator("end_mm")
    @classmethod
    def _has_a_length(cls, end: Point, info: object) -> Point:
        start = getattr(info, "data", {}).get("start_mm")
        if start and all(abs(a - b) < 0.01 for a, b in zip(start, end, strict=True)):
            raise ValueError("must not be where the rod starts")
        return end


Plan = Annotated[tuple[Length, Length], BeforeValidator(_as_tuple)]


class PrismSolid(Part):
    """A convex plan outline between two heights."""

    type: Literal["prism"]
    outline_mm: Annotated[tuple[Plan, ...], BeforeValidator(_as_tuple), Field(min_length=3, max_length=40)]
    low_up_mm: Length
    high_up_mm: Length

    @field_validator("outline_mm")
    @classmethod
    def _is_convex(cls, outline: tuple[Plan, ...]) -> tuple[Plan, ...]:
        turns = [
            (b[0] - a[0]) * (c[1] - b[1]) - (b[1] - a[1]) * (c[0] - b[0])
            for a, b, c in zip(outline, outline[1:] + outline[:1], outline[2:] + outline[:2], strict=True)
        ]
        if not (all(t > 1e-6 for t in turns) or all(t < -1e-6 for t in turns)):
            raise ValueError("must be a convex outline, its corners in order")
        return outline

    @field_validator("high_up_mm")
    @classmethod
    def _has_a_height(cls, high: float, info: object) -> float:
        low = getattr(info, "data", {}).get("low_up_mm")
        if low is not None and high <= low:
            raise ValueError("must be above the lower height")
        return high


SolidSpec = Annotated[BlockSolid | RodSolid | PrismSolid, Field(discriminator="type")]


class Item(Part):
    """One row for every physical thing that is no module, box or mount.

    Its mass counts where it comes out, goes in or rides along; with a solid it is an obstacle unless it comes out.
    """

    name: Line
    state: Literal["stays", "out", "in", "payload"]
    mass_kg: Kg | None = None
    tol_kg: Kg = 0.0
    at_mm: Point | None = None
    solid: SolidSpec | None = None
    gap_class: GapClass = "other"
    structure: Structure = "body"
    fixed_to: Id | None = None
    fuel: bool = False
    order: int = 0
    note: Text = ""


class Keepout(Part):
    """A space that is no thing."""

    name: Line
    kind: Literal["crush", "hand", "airflow", "sight", "corridor", "other"]
    solid: SolidSpec
    gap_class: GapClass = "other"
    reason: Text = ""


class LoadState(Part):
    """Which payload is aboard."""

    name: Line
    aboard: dict[Id, Literal[True]]
    order: int = 0


class Station(Part):
    """A section of a bay, in vehicle axes."""

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
            raise ValueError("must be above the floor")
        return top

    @field_validator("right_floor_mm", "right_top_mm")
    @classmethod
    def _right_of_left(cls, right: float, info: object) -> float:
        data = getattr(info, "data", {})
        left = data.get(str(getattr(info, "field_name", "")).replace("right", "left"))
        if left is not None and right <= left:
            raise ValueError("must be right of the left side")
        return right


class Side(Part):
    is_: Annotated[Literal["metal", "open", "not measured"], Field(alias="is")]
    gap_class: GapClass = "other"


class Sides(Part):
    fore: Side
    aft: Side
    left: Side
    right: Side
    floor: Side
    top: Side


class Bay(Part):
    name: Line
    measured_from: Id | None = None
    stations: Annotated[dict[Id, Station], Field(max_length=60)]
    sides: Sides
    structure: Structure = "body"
    flags: dict[Literal["passenger", "crush", "wet", "hot", "luggage"], Literal[True]] = {}


class HardPoint(Part):
    """An existing hole, captive nut, stud or strap point. ``direction`` is n: from the metal into the bracket."""

    name: Line
    at_mm: Point
    direction: Annotated[tuple[float, float, float], BeforeValidator(_as_tuple)]
    thread: Line | None = None
    structure: Structure = "body"
    note: Text = ""

    @field_validator("direction")
    @classmethod
    def _has_a_direction(cls, way: tuple[float, float, float]) -> tuple[float, float, float]:
        size = sum(v * v for v in way) ** 0.5
        if not 0.99 < size < 1.01:
            raise ValueError("must be a direction of length 1, such as 0, 0, 1 for up")
        return way


class Reading(Part):
    """How a figure came to be: the text as typed, from where, how sure. Stands beside the figure, by its path."""

    text: Annotated[Text, Field(max_length=200)]
    unit: Literal["mm", "in", "kg", "lb", ""] = ""
    from_: Annotated[Id | None, Field(alias="from")] = None
    tolerance: Share | None = None
    basis: Literal["measured", "typed", "assumed", "catalogue"] = "typed"
    when: Line | None = None
    by: Line | None = None
