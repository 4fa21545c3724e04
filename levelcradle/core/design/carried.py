"""What is fixed to a box goes along when the box is moved: its place, its shape and how it moves."""

from collections.abc import Iterator
from typing import Any

from levelcradle.core.design.operation import Op

__all__ = ["carried_along", "shifted"]

Vec = tuple[float, ...]
_PLACES = ("low_mm", "high_mm", "start_mm", "end_mm", "pivot_mm", "about_mm")
_RUNS = ("points_mm", "outline_mm")
_HEIGHTS = ("low_up_mm", "high_up_mm")


def carried_along(before: dict[str, Any], after: dict[str, Any]) -> Iterator[Op]:
    """Operations that move each thing fixed to a box by what the box was moved by.

    A thing that the edit itself placed stays where it was put; so does one whose box was turned or took another anchor,
    since a block stands upright whatever it is fixed to."""
    items = after.get("items")
    if not isinstance(items, dict):
        return
    for key, item in items.items():
        old = before.get("items", {}).get(key)
        if not isinstance(item, dict) or not isinstance(old, dict) or not _stands_as_it_stood(old, item):
            continue
        by = _moved(before, after, item.get("fixed_to"))
        if by is not None:
            yield from shifted(f"/items/{key}", item, by)


def _stands_as_it_stood(old: dict[str, Any], new: dict[str, Any]) -> bool:
    return all(old.get(part) == new.get(part) for part in ("at_mm", "solid", "sweep", "fixed_to"))


def _moved(before: dict[str, Any], after: dict[str, Any], box: Any) -> Vec | None:
    """How far a box was moved without being turned; None where it was not, or is not there."""
    if not isinstance(box, str):
        return None
    try:
        old, new = before["boxes"][box]["pose"], after["boxes"][box]["pose"]
        if {k: v for k, v in old.items() if k != "at_mm"} != {k: v for k, v in new.items() if k != "at_mm"}:
            return None
        by = tuple(float(b) - float(a) for a, b in zip(old["at_mm"], new["at_mm"], strict=True))
    except (KeyError, TypeError, ValueError, AttributeError):
        return None  # for the document's own check to refuse
    return by if len(by) == 3 and any(by) else None


def shifted(path: str, item: dict[str, Any], by: Vec) -> Iterator[Op]:
    if item.get("at_mm"):
        yield _replaced(f"{path}/at_mm", _plus(item["at_mm"], by))
    for part in ("solid", "sweep"):
        spec = item.get(part)
        if not isinstance(spec, dict):
            continue
        for name in _PLACES:
            if spec.get(name):
                yield _replaced(f"{path}/{part}/{name}", _plus(spec[name], by))
        for name in _RUNS:
            if name in spec:
                yield _replaced(f"{path}/{part}/{name}", [_plus(point, by) for point in spec[name]])
        for name in _HEIGHTS:
            if name in spec:
                yield _replaced(f"{path}/{part}/{name}", spec[name] + by[2])
        for key, tie in spec.get("ties", {}).items():
            yield _replaced(f"{path}/{part}/ties/{key}/at_mm", _plus(tie["at_mm"], by))


def _plus(point: list[float], by: Vec) -> list[float]:
    """A place moved; an outline in plan has two figures. Sums of decimals lose their rounding tail."""
    return [round(v + b, 6) for v, b in zip(point, by, strict=False)]


def _replaced(path: str, value: Any) -> Op:
    return {"op": "replace", "path": path, "value": value}
