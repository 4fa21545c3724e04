"""A row made from another: its copy, whose place is still to be taken, or its mirror twin."""

import re
from collections.abc import Iterator
from typing import Any

from levelcradle.core.design import Design
from levelcradle.core.design.files import tree_of
from levelcradle.core.design.ids import free_id
from levelcradle.core.design.patch import Op
from levelcradle.core.design.pointer import join, resolves
from levelcradle.core.design.readings import NOT_TAKEN
from levelcradle.core.design.taken import begun, not_taken
from levelcradle.core.design.twins import TWINNED, image_of
from levelcradle.core.errors import DesignError, Problem, UnknownThing

__all__ = ["copied", "twinned"]

Edit = tuple[str, list[Op]]  # path of what is made, and the patch
COPIED = (*TWINNED, "openings")
_PLACED_BY = ("at_mm", "start_mm", "end_mm", "solid")
"""What says where a thing is, which its copy does not share."""
_SIDES = {"left": "right", "right": "left", "Left": "Right", "Right": "Left", "L": "R", "R": "L"}


def copied(design: Design, path: str) -> Edit:
    """A row with the figures of another, but not its place: nobody took that yet. Raises UnknownThing."""
    collection, key, row = _row(design, path, COPIED)
    name = _numbered(row["name"], {r.name for r in getattr(design, collection).values()})
    if collection == "items":
        row |= {"at_mm": None, "solid": None, "sweep": None, "place": {"type": "vehicle"}}
    value = row | {"name": name} | ({"mirror_of": None} if "mirror_of" in row else {})
    made, new = _made(design, collection, key, value)
    places = list(begun(design, f"/{made}", {part: value[part] for part in _PLACED_BY if value.get(part)}))
    said = {op["path"] for op in places}
    return made, [new, *places, *(op for op in _untaken_too(design, path, made, value) if op["path"] not in said)]


def twinned(design: Design, path: str) -> Edit:
    """The mirror twin of a row about the centreline, tied to it. Raises UnknownThing, and DesignError where it has
    none."""
    collection, key, row = _row(design, path, TWINNED)
    if row["mirror_of"] is not None or any(r.mirror_of == key for r in getattr(design, collection).values()):
        raise DesignError((Problem(f"/{path}", "has a mirror twin already"),))
    try:
        image = image_of(row)
    except ValueError as error:
        raise DesignError((Problem(f"/{path}", str(error)),)) from None
    own = {"name": _other_side(row["name"]), "mirror_of": key, **({"member": None} if "member" in row else {})}
    made, new = _made(design, collection, key, row | image | own)
    return made, [new, *_untaken_too(design, path, made, row | image)]


def _untaken_too(design: Design, path: str, made: str, value: dict[str, Any]) -> Iterator[Op]:
    """What nobody took of a row nobody took of what is made from it."""
    for figure in not_taken(design):
        if figure.startswith(f"/{path}/") and resolves(value, there := figure.removeprefix(f"/{path}")):
            yield {"op": "add", "path": join("readings", f"/{made}{there}"), "value": {"text": "", "basis": NOT_TAKEN}}


def _row(design: Design, path: str, among: tuple[str, ...]) -> tuple[str, str, dict[str, Any]]:
    collection, _, key = path.partition("/")
    rows = getattr(design, collection) if collection in among else {}
    if key not in rows:
        raise UnknownThing("row", path[:80])
    return collection, key, tree_of(design)[collection][key]


def _made(design: Design, collection: str, key: str, value: dict[str, Any]) -> tuple[str, Op]:
    rows = getattr(design, collection)
    if "order" in value:
        value = value | {"order": max(r.order for r in rows.values()) + 1}
    new = free_id(key, rows)
    return f"{collection}/{new}", {"op": "add", "path": f"/{collection}/{new}", "value": value}


def _numbered(name: str, taken: set[str]) -> str:
    """ "nut 3" after "nut 2"; the first that is free."""
    stem, number = re.fullmatch(r"(.*?)(?: (\d{1,3}))?", name, re.DOTALL).groups()  # type: ignore[union-attr]
    count = int(number or 1) + 1
    while f"{stem} {count}" in taken:
        count += 1
    return f"{stem[:115]} {count}"


def _other_side(name: str) -> str:
    """The name with its sides changed over; where it names none, it says that it is the mirrored one."""
    swapped = re.sub(r"\b(left|right|Left|Right|L|R)\b", lambda m: _SIDES[m[0]], name)
    return swapped if swapped != name else f"{name[:110]}, mirrored"
