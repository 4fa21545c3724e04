"""Readings stand beside the figures: they go when their figure goes or no longer is what was typed, and what was
taken from a reference point moves with it."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from levelcradle.core.design.operation import Op
from levelcradle.core.design.pointer import find, join, resolves
from levelcradle.core.errors import ReadingError
from levelcradle.core.quantity import PlaceAxis, QuantityKind, meant, read_place

__all__ = [
    "KINDS",
    "NOT_TAKEN",
    "SIZES",
    "WAYS",
    "Read",
    "axis_of",
    "kind_of",
    "reads_as",
    "reconcile_readings",
    "way_of",
]

SAME_WITHIN = 1e-6
NOT_TAKEN = "not taken"
KINDS: tuple[tuple[str, QuantityKind], ...] = (
    ("_mm", "length"),
    ("_kg", "mass"),
    ("_deg", "angle"),
    ("_nm", "torque"),
    ("_v", "voltage"),
)


def kind_of(path: str) -> QuantityKind:
    """What a figure's field name says it is; a figure of a place is a length."""
    for step in reversed(path.split("/")):
        for ending, kind in KINDS:
            if step.endswith(ending):
                return kind
    return "length" if "/track_mm/" in path or path.endswith(("/mm", "/mm/0", "/mm/1")) else "number"


WAYS: dict[str, PlaceAxis] = {
    "0": "aft",
    "1": "across",
    "2": "up",
    "aft": "aft",
    "fore": "aft",
    "left": "across",
    "right": "across",
    "across": "across",
    "floor": "up",
    "top": "up",
    "up": "up",
    "low": "up",
    "high": "up",
    "left_floor_mm": "left",
    "left_top_mm": "left",
    "right_floor_mm": "right",
    "right_top_mm": "right",
}
"""What a bare number means, by the whole name of its field, else by its first word."""
SIZES = ("size_mm", "mm", "stock_mm")
"""Whose numbered figures are sizes and no places."""
_AXES: dict[PlaceAxis, int] = {"aft": 0, "across": 1, "left": 1, "right": 1, "up": 2}


def way_of(path: str) -> PlaceAxis | None:
    """Along what a figure is a place; None where it is none."""
    *_, owner, last = path.split("/")
    if owner in SIZES:
        return None
    return WAYS.get(last, WAYS.get(last.split("_")[0])) if kind_of(path) == "length" else None


def axis_of(path: str) -> int | None:
    """0 aft, 1 right, 2 up, or None where a figure is no place."""
    way = way_of(path)
    return None if way is None else _AXES[way]


@dataclass(frozen=True, slots=True)
class Read:
    """A figure as it was typed; the unit of its bare numbers; whether it was a move of the figure that stood."""

    value: float
    unit: str
    by: bool = False


def reads_as(path: str, text: str, unit: str, base: list[float] | None, now: float | None = None) -> Read:
    """The figure that a typed text gives at a path, counted from a reference point's place where one is given. A sign
    moves the figure that stands there ``now``; where nothing stands yet it is the figure's own.

    Raises: ReadingError.
    """
    way, axis = way_of(path), axis_of(path)
    if way is None or axis is None:
        return Read(*meant(text, kind_of(path), unit))
    name: PlaceAxis = ("aft", "across", "up")[axis]
    said = getattr(read_place(text, way, unit or "mm"), name)
    if said is None:
        raise ReadingError(text, f"That says nothing about {name}.")
    if said.by and now is not None:
        return Read(now + said.value_mm, said.unit, by=True)
    if said.by:
        said = getattr(read_place(text, name, unit or "mm"), name)  # a sign alone is the axis's own
    return Read(said.value_mm + (base[axis] if base else 0.0), said.unit)


def reconcile_readings(before: dict[str, Any], after: dict[str, Any]) -> Iterator[Op]:
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
        if reading.get("basis") == NOT_TAKEN and (
            _is_new(before, path, reading) or _unchanged(before, path, find(after, path))
        ):
            continue
        origin = reading.get("from")
        gives = _gives(path, reading, references)
        figure = find(after, path)
        if origin in moved and gives is not None and _unchanged(before, path, figure):
            yield {"op": "replace", "path": path, "value": gives}
        elif gives is None or not isinstance(figure, (int, float)) or abs(gives - figure) > SAME_WITHIN:
            yield {"op": "remove", "path": key}


def _is_new(before: dict[str, Any], path: str, reading: dict[str, Any]) -> bool:
    held = before.get("readings")
    return not isinstance(held, dict) or held.get(path) != reading


def _place(tree: dict[str, Any], key: str) -> Any:
    return _place_of(tree.get("references", {}).get(key))


def _place_of(reference: Any) -> Any:
    return reference.get("at_mm") if isinstance(reference, dict) else None


def _unchanged(before: dict[str, Any], path: str, figure: Any) -> bool:
    return resolves(before, path) and find(before, path) == figure


def _gives(path: str, reading: dict[str, Any], references: dict[str, Any]) -> float | None:
    base = _place_of(references.get(str(reading["from"]))) if reading.get("from") else None
    try:
        return reads_as(path, str(reading.get("text")), str(reading.get("unit") or ""), base).value
    except (ReadingError, TypeError, IndexError):
        return None
