"""Edits: JSON Patch (RFC 6902) with add, remove, replace and test, and the inverse worked out while applying.

``add`` on a thing that exists is refused; lists are replaced whole or figure by figure.
"""

import copy
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Any

from levelcradle.core.design.carried import carried_along
from levelcradle.core.design.operation import Op, OpName
from levelcradle.core.design.pins import refuse_moving_pinned
from levelcradle.core.design.pointer import find, split, touches
from levelcradle.core.design.readings import reconcile_readings
from levelcradle.core.design.refused import refuse_brittle_bolts, refuse_meeting_edges
from levelcradle.core.design.twins import twins_follow
from levelcradle.core.design.with_blocks import holders_go
from levelcradle.core.errors import PatchError

__all__ = ["Applied", "Op", "apply", "clashes"]


@dataclass(frozen=True, slots=True)
class Applied:
    """A patched tree, the patch as it took effect (with what keeps readings true), and the patch that undoes it."""

    tree: dict[str, Any]
    patch: tuple[Op, ...]
    inverse: tuple[Op, ...]


def apply(tree: dict[str, Any], patch: Sequence[Op], *, as_given: bool = False, back: bool = False) -> Applied:
    """Applies a patch to a copy of the tree. Raises PatchError, and DesignError where a pinned thing
    would move; the tree given is left alone. ``as_given``: nothing follows what is changed, as in a whole document;
    ``back``: it was so before, and nothing of it is refused that a stored car may have.

    Only what lies on the way to a change is copied; the rest is shared with the tree given.

    >>> apply({'name': 'a'}, [{'op': 'replace', 'path': '/name', 'value': 'b'}]).inverse
    ({'op': 'replace', 'path': '/name', 'value': 'a'},)
    """
    changed = dict(tree)
    done: list[Op] = []
    undo: list[Op] = []
    for op in patch:
        _step(changed, op, done, undo)
    for follow in () if as_given else (carried_along, twins_follow, holders_go, reconcile_readings):
        for op in list(follow(tree, changed)):
            _step(changed, op, done, undo)
    refuse_moving_pinned(tree, changed)
    for refuse in () if back else (refuse_brittle_bolts, refuse_meeting_edges):
        refuse(tree, changed)
    return Applied(changed, tuple(done), tuple(reversed(undo)))


def _step(tree: dict[str, Any], op: Op, done: list[Op], undo: list[Op]) -> None:
    path, kind = op["path"], op["op"]
    if kind == "test":
        if not _same(find(tree, path), op.get("value")):
            raise PatchError(path, "no longer holds what the edit expected")
        return
    steps = split(path)
    if not steps:
        raise PatchError(path, "the whole document is not replaced by an edit")
    parent = _own(tree, path, steps[:-1])
    undo.append(_change(parent, steps[-1], path, kind, copy.deepcopy(op.get("value"))))
    done.append(op)


def _own(tree: dict[str, Any], path: str, steps: list[str]) -> Any:
    """The container at the end of the steps, each one on the way replaced by a copy that may be changed."""
    here: Any = tree
    for step in steps:
        key: Any = step
        if isinstance(here, list) and step.isdecimal() and int(step) < len(here):
            key = int(step)
        elif not (isinstance(here, dict) and step in here):
            raise PatchError(path, "is not there")
        here[key] = copy.copy(here[key])
        here = here[key]
    return here


def _same(here: Any, there: Any) -> bool:
    """Equal as JSON: true is not 1."""
    if isinstance(here, bool) or isinstance(there, bool):
        return here is there
    if isinstance(here, dict) and isinstance(there, dict):
        return here.keys() == there.keys() and all(_same(v, there[k]) for k, v in here.items())
    if isinstance(here, list) and isinstance(there, list):
        return len(here) == len(there) and all(_same(a, b) for a, b in zip(here, there, strict=True))
    return bool(here == there)


def _change(parent: Any, key: str, path: str, kind: OpName, value: Any) -> Op:
    """Does one operation and returns its inverse."""
    if isinstance(parent, list):
        if kind != "replace" or not key.isdecimal() or int(key) >= len(parent):
            raise PatchError(path, "a list is replaced whole, or figure by figure")
        old, parent[int(key)] = parent[int(key)], value
        return {"op": "replace", "path": path, "value": old}
    if not isinstance(parent, dict):
        raise PatchError(path, "is not there")
    there = key in parent
    if kind == "add":
        if there and parent[key] is not None:
            raise PatchError(path, "exists already")
        old = parent.get(key)
        parent[key] = value
        return {"op": "replace", "path": path, "value": old} if there else {"op": "remove", "path": path}
    if not there:
        raise PatchError(path, "is not there")
    if kind == "replace":
        old, parent[key] = parent[key], value
        return {"op": "replace", "path": path, "value": old}
    return {"op": "add", "path": path, "value": parent.pop(key)}


def clashes(patch: Iterable[Op], since: Iterable[Op]) -> list[str]:
    """Paths of a late patch that hold, are or lie in a path changed since."""
    changed = [op["path"] for op in since]
    return sorted({op["path"] for op in patch if any(touches(op["path"], path) for path in changed)})
