"""What the routes take. Bodies are read strictly from the bytes: no coercion, no infinities."""

import re
from collections.abc import Awaitable, Callable, Iterator
from typing import Annotated, Any, Literal, TypeVar

from fastapi import Request
from pydantic import BaseModel, ConfigDict, Field, ValidationError

from levelcradle.core.design.base import Id, Length, Line, PositiveLength, ThingPath
from levelcradle.core.design.box import Orientation
from levelcradle.core.design.files import problems_of
from levelcradle.core.design.survey import SwungTape
from levelcradle.core.design.vehicle import Track, Weighing
from levelcradle.core.edits import Shape
from levelcradle.core.fit import Wishes
from levelcradle.core.modules import Order
from levelcradle.server.problems import TooLarge, WrongBody

__all__ = [
    "BODIES",
    "BehindBody",
    "BlocksBody",
    "CutPartsBody",
    "FirstBoxBody",
    "CrossedBody",
    "HungBody",
    "LayBody",
    "ListenBody",
    "NewCar",
    "Operation",
    "PatchBody",
    "PlaceThingBody",
    "PreviewBody",
    "ReadBody",
    "ReadPlaceBody",
    "RemoveBoxBody",
    "ReshapeBody",
    "RestateBody",
    "RowBody",
    "SectionBody",
    "ShownBody",
    "SpaceBody",
    "StackUpBody",
    "SwingBody",
    "TapeBody",
    "WorkingBody",
    "WouldTakeBody",
    "json_body",
    "raw_body",
]

PATCH_BYTES = 2_000_000


class Body(BaseModel):
    model_config = ConfigDict(extra="forbid", strict=True, allow_inf_nan=False)


Pointer = Annotated[str, Field(max_length=600, pattern=r"^(/[^/]*)+$")]


class Operation(Body):
    op: Literal["add", "remove", "replace", "test"]
    path: Pointer
    value: Any = None


Unit = Annotated[float, Field(ge=-1, le=1)]
Patch = Annotated[list[Operation], Field(max_length=2000)]


class PatchBody(Body):
    """``seen``: the revision that was before the eyes of whoever made it, where that is older than If-Match. ``once``:
    the edit's own key, under which it is stored no more than once however often it is sent."""

    patch: Patch
    seen: Annotated[int, Field(ge=1, le=999_999_999)] | None = None
    once: Annotated[str, Field(pattern=r"^[A-Za-z0-9-]{8,64}$")] | None = None


class PreviewBody(Body):
    patch: Patch = []


class ShownBody(PreviewBody):
    """``shapes``: the drawing is wanted too, where what is dragged does not simply follow the hand."""

    shapes: bool = False


class WorkingBody(PreviewBody):
    finding: Annotated[str, Field(max_length=400)]


class TapeBody(PreviewBody):
    """``want_mm``: what the tape should read; the first thing, a box, is moved for it."""

    one: Annotated[str, Field(max_length=200)]
    other: Annotated[str, Field(max_length=200)]
    want_mm: Length | None = None


class WouldTakeBody(PreviewBody):
    """``more``: what one more row or tier would take; without it, what would clear the box. ``together``: also what
    clears only together, which takes longer to find."""

    box: Id
    more: Literal["aft", "across", "up"] | None = None
    together: bool = True


class CutPartsBody(Body):
    mark: Annotated[str, Field(pattern=r"^[A-Z]{1,3}[0-9]{1,4}$")]
    state: Literal["drawn", "sent", "cut"]


class BlocksBody(PreviewBody):
    """An order to the blocks of a box."""

    box: Id
    order: Order


class LayBody(PreviewBody):
    """A box laid against a wall, a thing or another box; ``turn``: leaned or turned to lie along it."""

    box: Id
    other: Annotated[str, Field(max_length=200)]
    turn: bool = True


class RemoveBoxBody(PreviewBody):
    box: Id


class PlaceThingBody(PreviewBody):
    """A thing put in or on a box, or with None out of it again."""

    item: Id
    box: Id | None


class StackUpBody(PreviewBody):
    """``at_mm``: where the line crosses the box, in its own frame; ``module``: through the middle of that one; without
    either, where there is least to spare."""

    box: Id
    way: Literal["aft", "across", "up"]
    at_mm: tuple[Length, Length] | None = None
    module: Annotated[int, Field(ge=1, le=2000)] | None = None


class SectionBody(PreviewBody):
    aft_mm: Length


class HungBody(Body):
    """``on``: the hard point, member or crossmember, as a path; ``other``: where its other end is, of what has two."""

    box: Id
    kind: Id
    on: ThingPath
    face: Literal["front", "aft", "left", "right", "base", "top"] = "left"
    other: ThingPath | None = None


class CrossedBody(Body):
    """The two hard points that a crossmember is laid on, by their ids."""

    one: Id
    other: Id


class RowBody(Body):
    """``mirrored``: a twin on the other side, instead of a copy."""

    path: ThingPath
    mirrored: bool = False


class SpaceBody(Body):
    """``size_mm``: along × across × up; ``at_mm``: the middle of its fore edge, on its floor; ``open``: the sides that
    are no metal."""

    name: Line
    size_mm: Annotated[tuple[PositiveLength, PositiveLength, PositiveLength], Field(strict=False)]
    at_mm: Annotated[tuple[Length, Length, Length], Field(strict=False)]
    open: Annotated[
        tuple[Literal["fore", "aft", "left", "right", "floor", "top"], ...], Field(max_length=6, strict=False)
    ] = ()
    measured_from: Id | None = None


class NewCar(Body):
    name: Line
    wheelbase_mm: PositiveLength
    track_mm: Track | None = None
    weighing: Weighing | None = None


class FirstBoxBody(Body):
    bay: Id
    kind: Id
    turn: Orientation
    most: Annotated[int, Field(ge=1, le=2000)] | None = None


class SwingBody(Body):
    """Tapes to swing, and about where they meet; two tapes meet at the guess's height."""

    tapes: Annotated[dict[Id, SwungTape], Field(min_length=2, max_length=12)]
    guess_mm: Annotated[tuple[Length, Length, Length], Field(strict=False)]


class ListenBody(Body):
    """Where an instrument sends its lines: host and port."""

    address: Annotated[str, Field(min_length=3, max_length=60)]


class BehindBody(Body):
    at_mm: Annotated[tuple[Length, Length, Length], Field(strict=False)]
    direction: Annotated[tuple[Unit, Unit, Unit], Field(strict=False)]


class ReshapeBody(Body):
    """``path`` of a solid, such as items/column/solid."""

    path: Annotated[str, Field(max_length=200, pattern=r"^[^/]+(/[^/]+)+$")]
    shape: Shape


class RestateBody(Body):
    bay: Id
    station: Id
    do: Literal["copy", "mirror", "sides", "widths", "leans", "points", "edge"]


Short = Annotated[str, Field(max_length=400)]


class ReadBody(Body):
    """``path`` says which figure is typed (then its name gives the kind), ``base_mm`` where the tape is hooked,
    ``now_mm`` the figure of a place that stands there, which a sign moves."""

    text: Short
    path: Pointer | None = None
    base_mm: Annotated[tuple[Length, Length, Length], Field(strict=False)] | None = None
    now_mm: Length | None = None
    kind: Literal["length", "mass", "angle", "torque", "voltage", "number"] = "length"
    unit: Annotated[str, Field(max_length=10)] = ""


class ReadPlaceBody(Body):
    text: Short
    axis: Literal["aft", "across", "up"] = "aft"
    unit: Literal["mm", "in"] = "mm"


BODIES: tuple[type[BaseModel], ...] = (
    BehindBody,
    BlocksBody,
    CutPartsBody,
    FirstBoxBody,
    CrossedBody,
    HungBody,
    LayBody,
    ListenBody,
    NewCar,
    PatchBody,
    PlaceThingBody,
    PreviewBody,
    ReadBody,
    ReadPlaceBody,
    RemoveBoxBody,
    ReshapeBody,
    RestateBody,
    RowBody,
    SectionBody,
    ShownBody,
    SpaceBody,
    StackUpBody,
    SwingBody,
    TapeBody,
    Wishes,
    WorkingBody,
    WouldTakeBody,
)

B = TypeVar("B", bound=BaseModel)
_UNPRINTABLE = re.compile(r"[\x00-\x08\x0b\x0c\x0e-\x1f\x7f\ud800-\udfff]")


def raw_body(most: int) -> Callable[[Request], Awaitable[bytes]]:
    """A dependency that reads the body, refusing more than ``most`` bytes while it arrives. The framework's own limit
    answers in plain text and does not say how much would be taken."""

    async def read(request: Request) -> bytes:
        parts, size = [], 0
        async for part in request.stream():
            size += len(part)
            if size > most:
                raise TooLarge(most)
            parts.append(part)
        return b"".join(parts)

    return read


def json_body(model: type[B], most: int = PATCH_BYTES) -> Callable[[Request], Awaitable[B]]:
    """A dependency that reads a body of one model."""
    read = raw_body(most)

    async def parse(request: Request) -> B:
        raw = await read(request)
        try:
            body = model.model_validate_json(raw)
        except ValidationError as error:
            raise WrongBody([{"path": p.path, "message": p.message} for p in problems_of(error)]) from None
        _refuse_unprintable(body)
        return body

    return parse


def _refuse_unprintable(body: BaseModel) -> None:
    """PostgreSQL's text and every screen refuse control characters; so do we, at the door."""
    try:
        found = any(_UNPRINTABLE.search(text) for text in _texts(body.model_dump(mode="python")))
    except RecursionError:
        raise WrongBody([{"path": "", "message": "is nested too deeply"}]) from None
    if found:
        raise WrongBody([{"path": "", "message": "holds characters that cannot be printed"}])


def _texts(value: Any) -> Iterator[str]:
    """Every text in a parsed JSON value, keys included."""
    if isinstance(value, str):
        yield value
    elif isinstance(value, dict):
        for key, inner in value.items():
            yield str(key)
            yield from _texts(inner)
    elif isinstance(value, list):
        for inner in value:
            yield from _texts(inner)
