"""What every part of the document has in common: strictness, ids, and the kinds of numbers."""

from typing import Annotated, Any, Literal

from pydantic import AfterValidator, BaseModel, BeforeValidator, ConfigDict, Field, StringConstraints

__all__ = [
    "FACE_AT",
    "Side",
    "FACES",
    "FACE_PAIRS",
    "FARTHEST_MM",
    "Angle",
    "Count",
    "Direction",
    "DocumentModel",
    "Face",
    "GapClass",
    "Id",
    "Kg",
    "Length",
    "Line",
    "ModuleFace",
    "NonNegativeLength",
    "Point",
    "PositiveLength",
    "Size3",
    "Structure",
    "Text",
    "ThingPath",
]

FARTHEST_MM = 20_000.0


class DocumentModel(BaseModel):
    """A part of the document: unknown fields are refused, values are never coerced, nothing is infinite."""

    model_config = ConfigDict(
        extra="forbid", strict=True, allow_inf_nan=False, frozen=True, ser_json_inf_nan="constants"
    )


def _as_tuple(value: Any) -> Any:
    return tuple(value) if isinstance(value, list) else value


def _printable(text: str) -> str:
    if text.isprintable():  # nearly always, and quick
        return text
    if any((ord(c) < 32 and c not in "\n\t") or ord(c) == 127 or 0xD800 <= ord(c) <= 0xDFFF for c in text):
        raise ValueError("holds characters that cannot be printed")
    return text


Id = Annotated[str, StringConstraints(pattern=r"^[a-z0-9][a-z0-9-]{0,59}$")]
ThingPath = Annotated[str, Field(pattern=r"^[a-z_]+/[a-z0-9-]+(/[a-z_]+/[a-z0-9-]+)*$", max_length=200)]
Line = Annotated[str, StringConstraints(min_length=1, max_length=120), AfterValidator(_printable)]
Text = Annotated[str, StringConstraints(max_length=2000), AfterValidator(_printable)]
Length = Annotated[float, Field(ge=-FARTHEST_MM, le=FARTHEST_MM)]
PositiveLength = Annotated[float, Field(gt=0, le=FARTHEST_MM)]
NonNegativeLength = Annotated[float, Field(ge=0, le=FARTHEST_MM)]
Kg = Annotated[float, Field(ge=0, le=100_000)]
Angle = Annotated[float, Field(ge=-360, le=360)]
Count = Annotated[int, Field(ge=1, le=500)]
Point = Annotated[tuple[Length, Length, Length], BeforeValidator(_as_tuple)]
Size3 = Annotated[tuple[PositiveLength, PositiveLength, PositiveLength], BeforeValidator(_as_tuple)]

ModuleFace = Literal["end_a", "end_b", "side_a", "side_b", "base", "top"]
Face = Literal["front", "aft", "left", "right", "base", "top"]
Side = Literal["front", "aft", "left", "right"]
FACE_AT: dict[str, tuple[int, float]] = {
    "front": (0, 0.0),
    "aft": (0, 1.0),
    "left": (1, 0.0),
    "right": (1, 1.0),
    "base": (2, 0.0),
    "top": (2, 1.0),
}
"""Axis of each face, and where along it the face is, as a share of the outside size."""
FACES: tuple[Face, ...] = ("front", "aft", "left", "right", "base", "top")
FACE_PAIRS: tuple[tuple[Face, Face], ...] = (("front", "aft"), ("left", "right"), ("base", "top"))
"""The faces that look along each axis, the near one first."""
Structure = Literal["body", "frame", "subframe", "axle"]
GapClass = Literal["same", "other", "moving", "axle", "warm", "hot", "hand"]


def _of_length_1(way: tuple[float, float, float]) -> tuple[float, float, float]:
    size = sum(v * v for v in way) ** 0.5
    if not 0.99 < size < 1.01:
        raise ValueError("must be a direction of length 1, such as 0, 0, 1 for up")
    return way


Direction = Annotated[tuple[float, float, float], BeforeValidator(_as_tuple), AfterValidator(_of_length_1)]
