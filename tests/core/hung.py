"""A small box of a stranger's car, and points of the vehicle about it."""

import copy
from typing import Any

from levelcradle.core.assembly import PlacedBox, resolve
from levelcradle.core.design import validate
from levelcradle.core.mount import MountResult
from tests.plain import analysed, box_at, held, lined, plain_car

__all__ = ["AT", "angles", "mounts_of", "of_box", "tabs"]

AT = (1000.0, -117.0, 400.0)
COUNTS = (2, 2, 2)


def of_box(metal: str = "s235", thickness_mm: float = 3.0, lining_mm: float = 4.0) -> dict[str, Any]:
    folded = {"type": "folded", "thickness_mm": thickness_mm, "bend_radius_mm": 3.0 if metal == "s235" else 8.0}
    return {**box_at(AT, COUNTS, material=metal, layers=lined(lining_mm, 8.0)), "construction": folded}


def placed(box: dict[str, Any]) -> PlacedBox:
    return resolve(validate(plain_car(boxes={"x": box})), {}).boxes["x"]


def tabs(
    box: dict[str, Any] | None = None,
    *,
    to_box: dict[str, Any] | None = None,
    facing: int = 1,
    gap_mm: float = 0.0,
    below_mm: float = 30.0,
    **shape: Any,
) -> dict[str, Any]:
    """On two long walls, below the box: the metal faces as the wall does, or against it, and stands so far behind the
    wall's face, or off it."""
    box = box or of_box()
    length, width, _ = placed(box).shell.outer_mm
    sides = {"left": (AT[1], -1), "right": (AT[1] + width, 1)}
    points = {
        f"{side}{n}": {"name": f"{side}{n}", "thread": "M10", "direction": [0, out * facing, 0],
                       "at_mm": [AT[0] + along, wall - out * facing * gap_mm, AT[2] - below_mm]}
        for side, (wall, out) in sides.items() for n, along in enumerate((90.0, length - 90.0))
    }  # fmt: skip
    hold = to_box or {"type": "welded", "from_mm": below_mm + 8.0, "length_mm": 90.0}
    mount = {"shape": {"type": "tab", "long_mm": 150.0, **shape}, "to_box": hold}
    hung = {key: held("x", key, key[:-1], **copy.deepcopy(mount)) for key in points}
    return plain_car(boxes={"x": box}, hardpoints=points, mounts=hung)


def angles(box: dict[str, Any] | None = None, *, to_box: dict[str, Any], **shape: Any) -> dict[str, Any]:
    """On rails beside its long walls, their bolts up."""
    box = box or of_box()
    length, width, _ = placed(box).shell.outer_mm
    points = {
        f"{side}{n}": {"name": f"{side}{n}", "thread": "M10", "direction": [0, 0, 1],
                       "at_mm": [AT[0] + along, wall, AT[2] + 6.0]}
        for side, wall in (("left", AT[1] - 60.0), ("right", AT[1] + width + 60.0))
        for n, along in enumerate((90.0, length - 90.0))
    }  # fmt: skip
    mount = {"shape": {"type": "angle", "leg_b_mm": 120.0, **shape}, "to_box": to_box}
    hung = {key: held("x", key, key[:-1], **copy.deepcopy(mount)) for key in points}
    return plain_car(boxes={"x": box}, hardpoints=points, mounts=hung)


def mounts_of(tree: dict[str, Any]) -> dict[str, MountResult]:
    return {m.id: m for support in analysed(tree).supports for m in support.mounts}
