"""A part is sent out, cut, or only drawn again."""

from typing import Literal

from levelcradle.core.assembly import Assembly
from levelcradle.core.design.patch import Op
from levelcradle.core.design.pointer import join
from levelcradle.core.errors import UnknownThing
from levelcradle.core.fabricate import parts_of

__all__ = ["as_cut"]


def as_cut(assembly: Assembly, mark: str, state: Literal["drawn", "sent", "cut"]) -> list[Op]:
    """All parts of a mark as they are drawn now. Raises UnknownThing."""
    part = next((part for part in parts_of(assembly) if part.mark == mark), None)
    if part is None:
        raise UnknownThing("part", mark[:20])
    kept = assembly.design.cut_parts
    if state == "drawn":
        return [{"op": "remove", "path": join("cut_parts", one.id)} for one in part.each if one.id in kept]
    return [
        {
            "op": "replace" if one.id in kept else "add",
            "path": join("cut_parts", one.id),
            "value": {"state": state, "shape": one.shape, "name": one.name, "of": list(one.of)},
        }
        for one in part.each
    ]
