"""Pinned, sent and built things stay where they are: an edit that moves one is refused, and says who pinned it and
why."""

from collections.abc import Iterator
from typing import Any

from levelcradle.core.design.design import Design
from levelcradle.core.errors import DesignError, Problem

__all__ = ["pinned", "refuse_moving_pinned"]


def pinned(design: Design, path: str) -> bool:
    """Whether a thing or a part of it is pinned, sent or built."""
    return any(pin.what == path or pin.what.startswith(f"{path}/") for pin in design.pins.values())


_SHAPE = (
    "pose",
    "blocks",
    "inner",
    "layers",
    "holders",
    "chambers",
    "service_panels",
    "lightening",
    "construction",
    "chamfers",
    "closures",
)
_WORDS = {"pinned": "is pinned", "sent": "is at the cutter's", "built": "is built"}


def refuse_moving_pinned(before: dict[str, Any], after: dict[str, Any]) -> None:
    """Raises DesignError where something that was pinned, and still is, stands otherwise or is gone."""
    problems = tuple(_moved(before, after))
    if problems:
        raise DesignError(problems)


def _moved(before: dict[str, Any], after: dict[str, Any]) -> Iterator[Problem]:
    still = after.get("pins")
    for key, pin in (before.get("pins") or {}).items():
        if not isinstance(still, dict) or still.get(key) != pin:
            continue
        path = str(pin["what"])
        old, new = _at(before, path), _at(after, path)
        if old != new and (new is None or _stands(old, path) != _stands(new, path)):
            who = f" by {pin['by']}" if pin.get("by") else ""
            name = (old or {}).get("name") or path.rsplit("/", 1)[-1]
            yield Problem(f"/{path}", f"{name} {_WORDS[pin['state']]}{who}: {pin['why']}. Unpin it first.")


def _at(tree: dict[str, Any], path: str) -> Any:
    here: Any = tree
    for step in path.split("/"):
        if not isinstance(here, dict) or step not in here:
            return None
        here = here[step]
    return here


def _stands(thing: Any, path: str) -> Any:
    """What of a thing says where and how large it is; of a block everything does."""
    if not isinstance(thing, dict) or "/blocks/" in path:
        return thing
    return {name: thing.get(name) for name in _SHAPE}
