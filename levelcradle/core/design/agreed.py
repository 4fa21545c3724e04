"""What was agreed on beside the shapes: gaps that differ from the rule, things that stay where they are, kept tapes."""

from typing import Annotated, Literal

from pydantic import Field, field_validator

from levelcradle.core.design.base import DocumentModel, Id, Length, Line, NonNegativeLength, Text, ThingPath

__all__ = ["AgreedGap", "Chain", "HandRow", "Pin", "TapeKept"]


class AgreedGap(DocumentModel):
    """A gap between two things that somebody answers for, in place of the rule's."""

    one: ThingPath
    other: ThingPath
    need_mm: NonNegativeLength
    reason: Line

    @field_validator("other")
    @classmethod
    def _two_things(cls, other: str, info: object) -> str:
        if other == getattr(info, "data", {}).get("one"):
            raise ValueError("a gap lies between two things")
        return other


class HandRow(DocumentModel):
    """A row of a stack-up entered by hand: a gasket of one's own, a bolt head, a shim."""

    words: Line
    mm: Length
    tol_mm: NonNegativeLength = 0.0


class Chain(DocumentModel):
    """Rows by hand along one way of a box; they stay whatever the box becomes."""

    box: Id
    axis: Literal["aft", "across", "up"]
    rows: Annotated[dict[Id, HandRow], Field(max_length=40)] = {}


class Pin(DocumentModel):
    """A box or a block that stays where it is; ``built`` and ``sent`` ones are cut or at the cutter's."""

    what: ThingPath
    why: Line
    by: Text = ""
    state: Literal["pinned", "sent", "built"] = "pinned"


class TapeKept(DocumentModel):
    """A tape between two things that is kept as a live row; ``want_mm`` is what it should read."""

    one: ThingPath
    other: ThingPath
    want_mm: Length | None = None
    order: int = 0
