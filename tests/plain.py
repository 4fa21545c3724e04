"""A plain car to try rules on: no bays, no things but those a test puts in. All figures made up."""

import copy
from collections.abc import Iterable, Mapping
from typing import Any

from levelcradle.core.analysis import Analysis, analyse
from levelcradle.core.box import Wall
from levelcradle.core.design import validate
from levelcradle.core.design.layers import WALLS
from levelcradle.core.design.tables import Material
from levelcradle.core.finding import Finding, message_text
from tests.conftest import DEMO

EMPTY = ("weighings", 
    "boxes", "mounts", "items", "keepouts", "members", "load_states", "readings", "duties", "bays", "hardpoints",
    "openings",
    "snags", "references", "pins", "tapes", "agreed_gaps", "modules", "stacks",
)  # fmt: skip
BRICK = {**DEMO["module_kinds"]["flagstone"], "name": "brick", "size_mm": [200, 120, 90], "may_rest_on": ["base"],
"face_gap_mm": {},
         "above_mm": 0, "neighbour_gap_mm": 4, "mass_kg": 6.0}  # fmt: skip


def plain_car(**parts: Any) -> dict[str, Any]:
    own = {**{name: {} for name in EMPTY}, "module_kinds": {"brick": BRICK}, "tables": copy.deepcopy(DEMO["tables"])}
    tree: dict[str, Any] = {**DEMO, **own}
    tree["vehicle"] = {"wheelbase_mm": 2500.0, "tyre_height_mm": DEMO["vehicle"].get("tyre_height_mm")}
    tree["vehicle"] = {k: v for k, v in tree["vehicle"].items() if v is not None}
    return {**tree, **parts}


def box_at(at: tuple[float, float, float], counts: tuple[int, int, int] = (1, 1, 1), **more: Any) -> dict[str, Any]:
    """A box of bricks, its front, left, base corner at a place; of one brick 214 × 134 × 101 outside."""
    turn = {"down": "base", "aft": "end_b"}
    block = {"kind": "brick", "turn": turn, "counts": dict(zip(("aft", "across", "up"), counts, strict=True))}
    return {"name": "X", "pose": {"anchor": "front-left-base", "at_mm": list(at)}, "blocks": {"a": block}, **more}


def lined(wall: float = 4.0, floor: float = 8.0) -> dict[str, Any]:
    """Liners of a box: so thick on all walls, so thick on the floor; 0 for none."""
    layers = {face: {"liner": {"type": "sheet", "thickness_mm": wall}} for face in WALLS if wall}
    return {**layers, **({"base": {"runner": {"type": "sheet", "thickness_mm": floor}}} if floor else {})}


def a_block(low: tuple[float, float, float], high: tuple[float, float, float], **more: Any) -> dict[str, Any]:
    return {
        "name": "thing",
        "state": "stays",
        "solid": {"type": "block", "low_mm": list(low), "high_mm": list(high)},
        **more,
    }


SIDES = ("fore", "aft", "left", "right", "floor", "top")


def space(
    aft: tuple[float, float],
    halves: tuple[float, float],
    up: tuple[float, float] = (300.0, 900.0),
    *,
    open_sides: Iterable[str] = (),
    **more: Any,
) -> dict[str, Any]:
    """A space between two stations, so far to either side of the middle at each, metal but for the sides that are
    open."""
    stations = {
        key: {"type": "sides", "aft_mm": at, "floor_mm": up[0], "top_left_mm": up[1], "top_right_mm": up[1],
              "left_floor_mm": -half, "left_top_mm": -half, "right_floor_mm": half, "right_top_mm": half}
        for key, at, half in zip("ab", aft, halves, strict=True)
    }  # fmt: skip
    sides = {side: {"is": "open" if side in open_sides else "metal"} for side in SIDES}
    return {"name": "b", "stations": stations, "sides": sides, **more}


def held(box: str, hardpoint: str, face: str = "left", **more: Any) -> dict[str, Any]:
    """An angle that holds a box on a hard point."""
    return {"name": hardpoint, "carries": {f"boxes/{box}": True}, "face": face,
            "lands_on": {"type": "hardpoint", "hardpoint": hardpoint}, **more}  # fmt: skip


def as_found(read: Mapping[str, Any]) -> dict[str, Any]:
    """What a car weighed as found."""
    return {"as-found": {"kind": "as found", "read": read}}


def analysed(tree: Mapping[str, Any]) -> Analysis:
    return analyse(validate(dict(tree)), {})


def found(tree: Mapping[str, Any], code: str) -> list[Finding]:
    return [f for f in analysed(tree).findings if f.code == code]


def said(tree: Mapping[str, Any], code: str) -> list[str]:
    return [message_text(f) for f in found(tree, code)]


def wall_of(metal: Material, thickness_mm: float, height_mm: float) -> Wall:
    """A wall that is a metre long and flat all over."""
    return Wall(0.0, 1000.0, 0.0, height_mm, height_mm, thickness_mm, metal)
