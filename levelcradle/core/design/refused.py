"""What an edit may not bring in, though a stored car that has it stays readable."""

from collections.abc import Mapping
from itertools import combinations
from typing import Any

from levelcradle.core.design.box import FACE_AT, edges_meet
from levelcradle.core.design.pointer import join
from levelcradle.core.errors import DesignError, Problem

__all__ = ["STRONGEST_MPA", "refuse_brittle_bolts", "refuse_meeting_edges"]

STRONGEST_MPA = 1040.0  # class 10.9 at its least: ISO 898-1 table 3, from memory


def refuse_brittle_bolts(before: dict[str, Any], after: dict[str, Any]) -> None:
    """Raises DesignError where an edit adds or changes a property class to one above 10.9; one that a stored car has
    stays readable."""
    old, new = ((tree.get("tables") or {}).get("bolt_classes") or {} for tree in (before, after))
    rows = new.items() if isinstance(new, dict) else ()
    problems = tuple(
        Problem(join("tables", "bolt_classes", name), "classes above 10.9 are not used here: they break brittle")
        for name, row in rows
        if row != old.get(name)
        and isinstance(row, dict)
        and isinstance(row.get("ultimate_mpa"), int | float)
        and row["ultimate_mpa"] > STRONGEST_MPA
    )
    if problems:
        raise DesignError(problems)


def refuse_meeting_edges(before: dict[str, Any], after: dict[str, Any]) -> None:
    """Raises DesignError where an edit cuts off an edge of a folded box beside one that is cut off already: two that
    meet in a corner are not unfolded."""
    old, new = (_mapping(tree.get("boxes")) for tree in (before, after))
    problems = tuple(
        Problem(
            join("boxes", key, "chamfers", pair[1], "edge"),
            f"meets {' '.join(edges[pair[0]])} in a corner of the box: two edges that meet cannot be cut off both",
        )
        for key, box in new.items()
        if _mapping(_mapping(box).get("construction")).get("type", "folded") == "folded"
        for edges in [_edges(box)]
        for pair in sorted(_meeting(edges) - _meeting(_edges(old.get(key))))
    )
    if problems:
        raise DesignError(problems)


def _mapping(value: Any) -> Mapping[str, Any]:
    return value if isinstance(value, dict) else {}


def _edges(box: Any) -> dict[str, tuple[str, str]]:
    """Those of the cut-off edges of a tree that nobody has checked yet which name two faces."""
    rows = ((key, _mapping(row).get("edge")) for key, row in _mapping(_mapping(box).get("chamfers")).items())
    return {
        key: (edge[0], edge[1])
        for key, edge in rows
        if isinstance(edge, list | tuple) and len(edge) == 2 and all(isinstance(f, str) and f in FACE_AT for f in edge)
    }


def _meeting(edges: Mapping[str, tuple[str, str]]) -> set[tuple[str, str]]:
    return {(one, other) for one, other in combinations(sorted(edges), 2) if edges_meet(edges[one], edges[other])}
