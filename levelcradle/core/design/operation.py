"""One operation of a patch."""

from typing import Any, Literal, NotRequired

from typing_extensions import TypedDict  # Pydantic asks for this one before Python 3.12

__all__ = ["Op", "OpName"]

OpName = Literal["add", "remove", "replace", "test"]


class Op(TypedDict):
    """One operation of a patch (RFC 6902), its path a JSON Pointer."""

    op: OpName
    path: str
    value: NotRequired[Any]
