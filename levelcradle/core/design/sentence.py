"""What an edit did, in one sentence: thing, change and amount ("tank box 12 mm aft")."""

from collections.abc import Iterator, Sequence
from typing import Any

from levelcradle.core.design.operation import Op
from levelcradle.core.design.pointer import find, resolves, split
from levelcradle.core.quantity import write_length

__all__ = ["sentence"]

_SORTS = {
    "items": "thing",
    "keepouts": "keep-out",
    "load_states": "load state",
    "bays": "bay",
    "hardpoints": "hard point",
    "module_kinds": "module kind",
    "modules": "module",
    "boxes": "box",
    "mounts": "mount",
    "references": "reference point",
    "stations": "station",
    "blocks": "block",
    "openings": "opening",
    "members": "member",
    "crossmembers": "crossmember",
    "duties": "duty",
    "snags": "fault",
    "stacks": "stack",
    "hardware": "hardware",
    "tests": "test of",
    "aboard": "aboard",
    "tapes": "tape to",
    "ties": "point",
    "lumps": "lump",
    "diagonals": "diagonal of",
    "keep_clear": "room at",
    "points": "point of",
    "depths": "depth of",
    "materials": "material",
    "bolts": "bolt size",
    "bolt_classes": "bolt class",
    "liners": "liner",
    "layers": "layer on",
    "holders": "holder of",
    "chambers": "chamber",
    "service_panels": "service panel",
    "lightening": "lightening holes",
    "load_cases": "load case",
    "weighings": "weighing",
    "chamfers": "chamfer of",
    "protrusions": "protrusion",
    "agreed_gaps": "agreed gap",
    "pins": "pin of",
}
_DONE = {"add": "added", "remove": "removed", "replace": "changed"}
_WAYS = (("aft", "forward"), ("to the right", "to the left"), ("up", "down"))


def sentence(before: dict[str, Any], after: dict[str, Any], patch: Sequence[Op], unit: str = "mm") -> str:
    """Speaks of the first thing an edit touched, and says how many more there are."""
    said = list(dict.fromkeys(s for op in patch if (s := _one(before, after, op, unit))))
    if not said:
        return "nothing changed"
    return said[0] if len(said) == 1 else f"{said[0]} and {len(said) - 1} more"


def _one(before: dict[str, Any], after: dict[str, Any], op: Op, unit: str) -> str:
    steps = split(op["path"])
    if steps[0] == "readings" or op["op"] == "test":
        return ""
    if steps[0] == "cut_parts" and len(steps) == 2:
        state = {"sent": "sent out", "cut": "cut"}.get((op.get("value") or {}).get("state", ""), "only drawn")
        return f"{_name(before if op['op'] == 'remove' else after, steps)} {state}"
    if len(steps) == 4 and steps[2] == "blocks":
        return f"{_name(after, steps)}: block {steps[3]} {_DONE[op['op']]}"
    if op["op"] in ("add", "remove") and len(steps) >= 2 and steps[-2] in _SORTS:
        tree = after if op["op"] == "add" else before
        return f"{'added' if op['op'] == 'add' else 'removed'} {_SORTS[steps[-2]]} {_name(tree, steps)}"
    name = _name(after, steps)
    if "pose" in steps:
        moved = _moved(before, after, "/" + "/".join(steps[: steps.index("pose") + 1]), unit)
        return f"{name} {moved}" if moved else ""
    if steps[-1] == "origin_mm" and resolves(before, op["path"]):
        return f"{name}: block {steps[-2]} {', '.join(_travel(find(before, op['path']), op['value'], unit))}"
    what = _plain(steps[-1] if not steps[-1].isdecimal() else steps[-2])
    return f"{name}: {what}{_values(before, op, unit)}"


def _name(tree: dict[str, Any], steps: list[str]) -> str:
    """The nearest name on the way down, the design's own for its plain fields."""
    name = {"vehicle": "vehicle", "units": "units", "name": "design", "tables": "tables"}.get(steps[0], "")
    here: Any = tree
    for step in steps:
        if not isinstance(here, dict) or step not in here:
            break
        here = here[step]
        if isinstance(here, dict) and isinstance(here.get("what"), str):
            return _name(tree, here["what"].split("/"))
        if isinstance(here, dict) and isinstance(here.get("name"), str):
            name = here["name"]
    return name or (steps[1] if len(steps) > 1 else steps[0])


def _moved(before: dict[str, Any], after: dict[str, Any], path: str, unit: str) -> str:
    if not (resolves(before, path) and resolves(after, path)):
        return ""
    old, new = find(before, path), find(after, path)
    parts = list(_travel(old["at_mm"], new["at_mm"], unit))
    for key, words in (("yaw_deg", "turned"), ("pitch_deg", "nose raised"), ("roll_deg", "right side raised")):
        by = new[key] - old[key]
        if by:
            parts.append(f"{words} {by:+g}°")
    if not parts and new["anchor"] != old["anchor"]:
        parts.append(f"anchored at {new['anchor'].replace('-', ' ')}")
    return ", ".join(parts)


def _travel(old: Sequence[float], new: Sequence[float], unit: str) -> Iterator[str]:
    for start, end, (plus, minus) in zip(old, new, _WAYS, strict=True):
        if abs(end - start) > 1e-9:
            written = write_length(abs(end - start), "in" if unit == "in" else "mm")
            yield f"{written}{'' if unit == 'in' else ' mm'} {plus if end > start else minus}"


def _plain(field: str) -> str:
    words = field.replace("_", " ")
    for ending in (" mm", " kg", " deg", " v", " n per mm"):
        words = words.removesuffix(ending)
    return words


def _values(before: dict[str, Any], op: Op, unit: str) -> str:
    value = op.get("value")
    if op["op"] == "remove" or value is None:
        return " cleared"
    if isinstance(value, bool) or not isinstance(value, (int, float, str)):
        return " changed"
    shown = (
        write_length(value, "in" if unit == "in" else "mm")
        if op["path"].endswith("_mm") and not isinstance(value, str)
        else value
    )
    old = find(before, op["path"]) if resolves(before, op["path"]) else None
    if isinstance(old, (int, float)) and op["path"].endswith("_mm"):
        old = write_length(old, "in" if unit == "in" else "mm")
    return f" {old} → {shown}" if isinstance(old, (int, float, str)) else f" {shown}"
