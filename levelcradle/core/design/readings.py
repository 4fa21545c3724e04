"""Readings stand beside the figures: they go when their figure goes or no longer is what was typed, and what was
taken from a reference point moves with it."""

from collections.abc import Iterator
from typing import Any

from levelcradle.core.design.pointer import find, join, resolves
from levelcradle.core.errors import ReadingError
from levelcradle.core.quantity import Kind, read, read_place

__all__ = ["AXES", "axis_of", "kind_of", "reads_as", "upkeep"]

SAME_WITHIN = 1e-6
_KINDS: tuple[tuple[str, Kind], ...] = (("_mm", "length"), ("_kg", "mass"), ("_deg", "angle"), ("_nm", "torque"), ("_v", "voltage"))


def kind_of(path: str) -> Kind:
    """What a figure's field name says it is; a figure of a place is a length."""
    for step in reversed(path.split("/")):
        for ending, kind in _KINDS:
            if step.endswith(ending):
                return kind
    return "length" if "/track_mm/" in path or path.endswith(("/mm", "/mm/0", "/mm/1")) else "number"


AXES = {"aft": 0, "fore": 0, "left": 1, "right": 1, "across": 1, "floor": 2, "top": 2, "up": 2, "low": 2, "high": 2}


def axis_of(path: str) -> int | None:
    """0 aft, 1 right, 2 up, or None where a figure is no place."""
    last = path.rsplit("/", 1)[-1]
    if last in ("0", "1", "2"):
        return int(last)
    return AXES.get(last.split("_")[0])


def reads_as(path: str, text: str, unit: str, base: list[float] | None) -> float:
    """The figure that a typed text gives at a path, counted from a reference point's place where one is given.

    Raises: ReadingError.
    """
    kind, axis = kind_of(path), axis_of(path)
    if kind == "length" and axis is not None:
        name = ("aft", "across", "up")[axis]
        said = getattr(read_place(text, name, unit or "mm"), name)  # type: ignore[arg-type]
        if said is None:
            raise ReadingError(text, f"That says nothing about {name}.")
        return float(said.value_mm) + (base[axis] if base else 0.0)
    return read(text, kind, unit)


def upkeep(before: dict[str, Any], after: dict[str, Any]) -> Iterator[dict[str, Any]]:
    """Operations that make readings true again after an edit."""
    readings, references = after.get("readings"), after.get("references")
    if not isinstance(readings, dict) or not isinstance(references, dict):
        return
    moved = {key for key, ref in references.items() if _place(before, key) not in (None, _place_of(ref))}
    for path, reading in list(readings.items()):
        key = join("readings", path)
        if not isinstance(reading, dict):
            continue  # for the document's own check to refuse
        if not resolves(after, path):
            yield {"op": "remove", "path": key}
            continue
        origin = reading.get("from")
        gives = _gives(path, reading, references)
        figure = find(after, path)
        if origin in moved and gives is not None and _unchanged(before, path, figure):
            yield {"op": "replace", "path": path, "value": gives}
        elif gives is None or not isinstance(figure, (int, float)) or abs(gives - figure) > SAME_WITHIN:
            yield {"op": "remove", "path": key}


def _place(tree: dict[str, Any], key: str) -> Any:
    return _place_of(tree.get("references", {}).get(key))


def _place_of(reference: Any) -> Any:
    return reference.get("at_mm") if isinstance(reference, dict) else None


def _unchanged(before: dict[str, Any], path: str, figure: Any) -> bool:
    return resolves(before, path) and find(before, path) == figure


def _gives(path: str, reading: dict[str, Any], references: dict[str, Any]) -> float | None:
    base = _place_of(references.get(str(reading["from"]))) if reading.get("from") else None
    try:
        return reads_as(path, str(reading.get("text")), str(reading.get("unit") or ""), base)
    except (ReadingError, TypeError, IndexError):
        return None
