"""A figure told by its thing's name and its own."""

import re
from typing import Any

from levelcradle.core.design.pointer import find
from levelcradle.core.design.readings import KINDS

__all__ = ["words_of"]

_WORDS = {"cg": "CG", "lf": "left front", "rf": "right front", "lr": "left rear", "rr": "right rear"}
_WHICH = {"low_mm": ("fore", "left", "lower"), "high_mm": ("aft", "right", "upper")}


def words_of(tree: dict[str, Any], path: str) -> str:
    """A figure by its thing's name and its own: “tank: top left of station 2”."""
    steps = path[1:].split("/")
    thing = find(tree, "/" + "/".join(steps[:2]))
    name = thing["name"] if isinstance(thing, dict) and "name" in thing else _plain(steps[1])
    last = steps[-1]
    if last in ("0", "1", "2") and steps[-2] in _WHICH:
        return f"{name}: its {_WHICH[steps[-2]][int(last)]} face"
    if steps[-2] == "size_mm" and last in ("0", "1", "2"):
        return f"{name}: {('length', 'width', 'height')[int(last)]}"
    if last in ("0", "1", "2"):
        return f"{name}: {_plain(steps[-2])} {('aft', 'across', 'up')[int(last)]}"
    station = ""
    if "stations" in steps:
        order = sorted(thing["stations"], key=lambda k: float(thing["stations"][k]["aft_mm"]))
        station = f" at station {order.index(steps[3]) + 1}"
    return f"{name}: {_plain(last)}{station}"


def _plain(key: str) -> str:
    """A key of the document without its unit."""
    unit = next((ending for ending, _ in KINDS if key.endswith(ending)), "")
    return " ".join(_WORDS.get(word, word) for word in re.split("[_-]", key.removesuffix(unit)))
