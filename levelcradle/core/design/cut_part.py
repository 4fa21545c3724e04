"""Parts that are no longer only drawn: sent to who cuts them, or cut."""

from typing import Annotated, Literal

from pydantic import BeforeValidator, Field, StringConstraints

from levelcradle.core.design.base import DocumentModel, Line, _as_tuple

__all__ = ["CutPart", "PartId"]

PartId = Annotated[str, StringConstraints(pattern=r"^[a-z0-9][a-z0-9-]{0,159}$")]


class CutPart(DocumentModel):
    """``shape``: digest of its blank, material and thickness as they were then; ``name``: what it was called; ``of``:
    the box, and the mount, that it is for."""

    state: Literal["sent", "cut"]
    shape: Annotated[str, Field(pattern=r"^[0-9a-f]{16}$")]
    name: Line
    of: Annotated[tuple[Line, ...], BeforeValidator(_as_tuple), Field(max_length=2)]
