"""Figures that stand only so that something can be drawn: nobody took them yet, and no check counts on one.

A part that may be missing (tracks, overall sizes, a weighing, a thing's mass) counts as missing until all of it was
taken; of what must be there (a place, a space's stations, a kind's size) the checks ask the assembly for ``guesses``
and say *not known*."""

from collections import defaultdict
from collections.abc import Iterator, Mapping
from typing import Any

from levelcradle.core.design.accepted import under
from levelcradle.core.design.design import Design
from levelcradle.core.design.operation import Op, OpName
from levelcradle.core.design.pointer import join, split
from levelcradle.core.design.readings import NOT_TAKEN, kind_of

__all__ = ["ASIDE", "COUNTED", "as_taken", "begun", "not_taken", "untaken_things"]

_MAY_BE_MISSING = ("track_mm", "overall", "cg_height", "wheel_rates", "bump_mm", "target")
ASIDE = ("tolerance_mm", "tol_kg", "rise_tol_mm", "step_kg", "direction")
"""What has a usual value, or says which way."""
COUNTED = ("series", "parallel")
"""Figures of a thing that are no measures."""


def not_taken(design: Design) -> tuple[str, ...]:
    """Paths of all figures that nobody took."""
    return tuple(path for path, reading in design.readings.items() if reading.basis == NOT_TAKEN)


def untaken_things(design: Design) -> Mapping[str, list[str]]:
    """Their paths by the thing they are of: "bays/tank", "vehicle/track_mm", "weighings/as-found"."""
    found: dict[str, list[str]] = defaultdict(list)
    for path in not_taken(design):
        found["/".join(split(path)[:2])].append(path)
    return found


def as_taken(design: Design) -> Design:
    """The design without the parts that may be missing and are not taken yet."""
    paths = not_taken(design)
    if not paths:
        return design
    gone = {name: None for name in _MAY_BE_MISSING if any(under(p, f"/vehicle/{name}") for p in paths)}
    return design.model_copy(
        update={
            "vehicle": design.vehicle.model_copy(update=gone),
            "items": {key: _item(key, item, paths) for key, item in design.items.items()},
            "weighings": {
                key: row
                for key, row in design.weighings.items()
                if not any(under(p, f"/weighings/{key}/read") for p in paths)
            },
        }
    )


def _item(key: str, item: Any, paths: tuple[str, ...]) -> Any:
    fields = ("mass_kg", "fluid", "at_mm")
    gone = {name: None for name in fields if any(under(p, f"/items/{key}/{name}") for p in paths)}
    return item.model_copy(update=gone) if gone else item


def begun(design: Design, path: str, value: Any, how: str = "") -> Iterator[Op]:
    """Operations that say of every figure of something that nobody took it yet, and how it came about."""
    for key in _figures(path, value):
        op: OpName = "replace" if key in design.readings else "add"
        yield {"op": op, "path": join("readings", key), "value": {"text": how, "basis": NOT_TAKEN}}


def _figures(path: str, value: Any) -> Iterator[str]:
    if isinstance(value, dict):
        for key, inner in value.items():
            if key not in ASIDE:
                yield from _figures(path + join(key), inner)
    elif isinstance(value, list):
        for index, inner in enumerate(value):
            yield from _figures(f"{path}/{index}", inner)
    elif (
        isinstance(value, (int, float))
        and not isinstance(value, bool)
        and (kind_of(path) != "number" or path.endswith(COUNTED))
    ):
        yield path
