"""Shapes of things and of spaces, and how a thing moves."""

from itertools import pairwise
from math import dist
from typing import Annotated, Literal

from pydantic import BeforeValidator, Field, field_validator, model_validator
from shapely.geometry import Polygon

from levelcradle.core.design.base import (
    Direction,
    DocumentModel,
    Id,
    Length,
    Line,
    NonNegativeLength,
    Point,
    PositiveLength,
    _as_tuple,
)

__all__ = [
    "AxleTravel",
    "BelowSolid",
    "BlockSolid",
    "Guard",
    "Hinge",
    "MeshSolid",
    "PathSolid",
    "PrismSolid",
    "RodSolid",
    "SolidSpec",
    "Sweep",
    "TiePoint",
    "Travel",
    "WheelTravel",
]


class BlockSolid(DocumentModel):
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


class RodSolid(DocumentModel):
    """A round bar, pipe or cable."""

    type: Literal["rod"]
    start_mm: Point
    end_mm: Point
    radius_mm: PositiveLength

    @field_validator("end_mm")
    @classmethod
    def _has_a_length(cls, end: Point, info: object) -> Point:
        start = getattr(info, "data", {}).get("start_mm")
        if start and all(abs(a - b) < 0.01 for a, b in zip(start, end, strict=True)):
            raise ValueError("must not be where the rod starts")
        return end


Plan = Annotated[tuple[Length, Length], BeforeValidator(_as_tuple)]


class PrismSolid(DocumentModel):
    """A plan outline between two heights; it may bulge inward, not cross itself."""

    type: Literal["prism"]
    outline_mm: Annotated[tuple[Plan, ...], BeforeValidator(_as_tuple), Field(min_length=3, max_length=400)]
    low_up_mm: Length
    high_up_mm: Length

    @field_validator("outline_mm")
    @classmethod
    def _is_an_outline(cls, outline: tuple[Plan, ...]) -> tuple[Plan, ...]:
        ring = Polygon(outline)
        if not ring.is_valid or ring.area < 1:
            raise ValueError("must be an outline that does not cross itself, its corners in order")
        return outline

    @field_validator("high_up_mm")
    @classmethod
    def _has_a_height(cls, high: float, info: object) -> float:
        low = getattr(info, "data", {}).get("low_up_mm")
        if low is not None and high <= low:
            raise ValueError("must be above the lower height")
        return high


Path = Annotated[tuple[Point, ...], BeforeValidator(_as_tuple), Field(min_length=2, max_length=40)]


def _apart(points: tuple[Point, ...]) -> tuple[Point, ...]:
    if any(max(abs(u - v) for u, v in zip(a, b, strict=True)) < 1 for a, b in pairwise(points)):
        raise ValueError("must not name the same place twice in a row")
    return points


class PathSolid(DocumentModel):
    """A corridor for cables, pipes or a duct: a cross-section along a run of straight pieces."""

    type: Literal["path"]
    points_mm: Path
    width_mm: PositiveLength
    height_mm: PositiveLength

    _runs = field_validator("points_mm")(_apart)


class BelowSolid(DocumentModel):
    """Everything below the line between points: nothing may hang lower than what they are taken on."""

    type: Literal["below"]
    points_mm: Path
    width_mm: PositiveLength

    _runs = field_validator("points_mm")(_apart)


class TiePoint(DocumentModel):
    """A point that is recognised both in the file and on the vehicle."""

    name: Line
    file_mm: Point
    at_mm: Point


def _spans_a_plane(points: list[Point]) -> bool:
    """Whether three of the points make a triangle at least a millimetre high."""
    if len(points) < 3:
        return False
    first, far = points[0], max(points, key=lambda p: dist(p, points[0]))
    base = dist(first, far)
    if base < 1:
        return False

    def height(p: Point) -> float:
        return dist(
            p,
            [
                a + (b - a) * sum((p[i] - first[i]) * (far[i] - first[i]) for i in range(3)) / base**2
                for a, b in zip(first, far, strict=True)
            ],
        )

    return max(height(p) for p in points) >= 1


class MeshSolid(DocumentModel):
    """A scan: a file kept with the design, and where three or more of its points are in vehicle axes.

    ``file`` is the name under which the simplified mesh is kept; ``tolerance_mm`` is how far its surface may stand
    off the scan's. ``inside``: it is the inside of a space and not a thing.
    """

    type: Literal["mesh"]
    file: Annotated[str, Field(pattern=r"^[0-9a-f]{64}$")]
    tolerance_mm: NonNegativeLength
    ties: Annotated[dict[Id, TiePoint], Field(max_length=20)] = {}
    inside: bool = False

    @field_validator("ties")
    @classmethod
    def _fix_it(cls, ties: dict[str, TiePoint]) -> dict[str, TiePoint]:
        """None (the file is in vehicle axes), or three and more that span a plane in both."""
        for points in ([t.file_mm for t in ties.values()], [t.at_mm for t in ties.values()]):
            if ties and not _spans_a_plane(points):
                raise ValueError("needs three points or more that do not lie in one line")
        return ties


SolidSpec = Annotated[
    BlockSolid | RodSolid | PrismSolid | PathSolid | BelowSolid | MeshSolid, Field(discriminator="type")
]


class Travel(DocumentModel):
    """Slides in a straight line between two positions, given from where it is drawn."""

    type: Literal["travel"]
    from_by_mm: Point = (0.0, 0.0, 0.0)
    to_by_mm: Point


class AxleTravel(DocumentModel):
    """A beam axle: up by bump, down by droop, and each side alone (full articulation) about its middle."""

    type: Literal["axle"]
    bump_mm: NonNegativeLength
    droop_mm: NonNegativeLength
    articulation_deg: Annotated[float, Field(ge=0, le=45)]


class WheelTravel(DocumentModel):
    """A wheel through bump, droop and lock to either side about an upright line through ``pivot_mm``."""

    type: Literal["wheel"]
    bump_mm: NonNegativeLength
    droop_mm: NonNegativeLength
    lock_deg: Annotated[float, Field(ge=0, le=60)] = 0.0
    pivot_mm: Point | None = None

    @model_validator(mode="after")
    def _turns_about_something(self) -> "WheelTravel":
        if self.lock_deg and self.pivot_mm is None:
            raise ValueError("a wheel that steers needs the point it turns about")
        return self


class Hinge(DocumentModel):
    """A panel, lever or pedal that turns about a line, from ``from_deg`` to ``to_deg`` by the right-hand rule."""

    type: Literal["hinge"]
    about_mm: Point
    axis: Direction
    from_deg: Annotated[float, Field(ge=-180, le=180)] = 0.0
    to_deg: Annotated[float, Field(ge=-180, le=180)]

    @field_validator("to_deg")
    @classmethod
    def _moves(cls, to: float, info: object) -> float:
        if to == getattr(info, "data", {}).get("from_deg"):
            raise ValueError("must differ from where it starts")
        return to


class Guard(DocumentModel):
    """A belt, pulley or fan with what it throws and flaps, all round."""

    type: Literal["guard"]
    guard_mm: PositiveLength


Sweep = Annotated[Travel | AxleTravel | WheelTravel | Hinge | Guard, Field(discriminator="type")]
