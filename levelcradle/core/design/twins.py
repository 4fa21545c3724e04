"""Mirror twins: a row that is another's mirror image about the centreline, tied until it is cut loose. Whichever of the
two is changed, the other follows in the same edit."""

from collections.abc import Iterator
from typing import Any

from levelcradle.core.design.operation import Op
from levelcradle.core.design.pointer import join
from levelcradle.core.design.readings import NOT_TAKEN

__all__ = ["OWN", "TWINNED", "image_of", "twins_follow"]

Tree = dict[str, Any]

TWINNED = ("hardpoints", "members", "items", "keepouts")
OWN = ("name", "note", "order", "mirror_of", "member", "fixed_to", "carried", "carried_kg", "reason")
"""What each of the two has for itself."""
_PLACES = ("at_mm", "start_mm", "end_mm", "pivot_mm", "about_mm", "direction", "from_by_mm", "to_by_mm")
_RUNS = ("points_mm", "outline_mm")
_SIDES = {"left": "right", "right": "left"}


def image_of(row: Tree) -> Tree:
    """The mirror image of a hard point, member, thing or keep-out, without what it has for itself. Raises ValueError
    where it has none."""
    if (row.get("solid") or {}).get("type") == "mesh":
        raise ValueError("a scan has no mirror twin: read the other side in")
    if (row.get("place") or {}).get("type") == "box":
        raise ValueError("it sits in or on a box: it has no twin across the car")
    return {key: _image(key, value) for key, value in row.items() if key not in OWN}


def _image(name: str, value: Any) -> Any:
    if isinstance(value, dict):
        inner = {key: _image(key, part) for key, part in value.items()}
        if value.get("type") == "block":  # its corners stay the left and the right one
            (x0, y0, z0), (x1, y1, z1) = value["low_mm"], value["high_mm"]
            inner |= {"low_mm": [x0, -y1 + 0.0, z0], "high_mm": [x1, -y0 + 0.0, z1]}
        return inner
    if value is None:
        return None
    if name in _PLACES:
        return _across(value)
    if name in _RUNS:
        return [_across(point) for point in value]
    if name == "axis":  # turning the other way about the mirrored line
        return [-value[0] + 0.0, value[1], -value[2] + 0.0]
    return _SIDES.get(value, value) if name == "face" else value


def _across(point: list[float]) -> list[float]:
    return [point[0], -point[1] + 0.0, *point[2:]]  # + 0.0: no minus nought


def twins_follow(before: Tree, after: Tree) -> Iterator[Op]:
    """Operations that make twins alike again after an edit: the one that was left alone follows, and where its pair is
    gone it is loose."""
    for collection in TWINNED:
        rows = after.get(collection)
        if not isinstance(rows, dict):
            continue  # for the document's own check to refuse
        for key, row in rows.items():
            if not isinstance(row, dict) or not row.get("mirror_of"):
                continue
            pair = row["mirror_of"]
            if not isinstance(pair, str) or not isinstance(rows.get(pair, {}), dict):
                continue  # for the document's own check to refuse
            if pair not in rows:
                yield {"op": "replace", "path": join(collection, key, "mirror_of"), "value": None}
                continue
            old = before.get(collection, {})
            led = old.get(pair) == rows[pair] and (old.get(key) or {}).get("mirror_of") == pair
            leads, follows = (key, pair) if led else (pair, key)
            yield from _alike(join(collection, follows), rows[leads], rows[follows])
            for one, other in ((key, pair), (pair, key)):
                yield from _taken_alike(join(collection, one), join(collection, other), after.get("readings"))


def _taken_alike(one: str, other: str, readings: Any) -> Iterator[Op]:
    """What was taken of the one is taken of the other."""
    for path, reading in list(readings.items()) if isinstance(readings, dict) else ():
        if path.startswith(f"{other}/") and _not_taken(reading):
            same = one + path.removeprefix(other)
            if not _not_taken(readings.get(same)):
                yield {"op": "remove", "path": join("readings", path)}


def _not_taken(reading: Any) -> bool:
    return isinstance(reading, dict) and reading.get("basis") == NOT_TAKEN


def _alike(path: str, leads: Any, follows: Any) -> Iterator[Op]:
    try:
        image = image_of(leads)
    except (ValueError, TypeError, IndexError, KeyError, AttributeError):
        return  # for the document's own check to refuse
    for name, value in image.items():
        if follows.get(name) != value:
            yield {"op": "replace" if name in follows else "add", "path": path + join(name), "value": value}
