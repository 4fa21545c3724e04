"""A small box of a stranger's car on two crossmembers between rails, held on them by brackets at its ends."""

from typing import Any

from tests.core.hung import AT, of_box, placed
from tests.plain import plain_car

__all__ = ["RAILS_MM", "crossed"]

RAILS_MM = 400.0  # the rails are so far to either side of the middle


def crossed(bar: dict[str, Any] | None = None, *, lands: dict[str, Any] | None = None, **more: Any) -> dict[str, Any]:
    """Both bars alike, one under each end of the box, which stands 6 above them; a bracket on either wall at each."""
    length, width, _ = placed(of_box()).shell.outer_mm
    spec = {"section": "tube", "size_mm": 40, "wall_mm": 3, "bolt": {"size": "M10", "property_class": "8.8"}} | (
        bar or {}
    )
    high = spec["size_mm"] if spec["section"] == "tube" else spec["wall_mm"]
    level = AT[2] - 6.0 - high
    points, bars, mounts = {}, {}, {}
    for n, along in enumerate((90.0, length - 90.0)):
        for side, sign in (("left", -1), ("right", 1)):
            points[f"{side}{n}"] = {"name": f"rail {side} {n}", "thread": "M10", "direction": [0, 0, 1],
                                    "at_mm": [AT[0] + along, sign * RAILS_MM, level]}  # fmt: skip
            beyond = AT[1] - 60.0 if side == "left" else AT[1] + width + 60.0
            mounts[f"{side}{n}"] = {
                "name": f"{side}{n}", "carries": {"boxes/x": True}, "face": side,
                "shape": {"type": "angle", "leg_b_mm": 120.0},
                "to_box": {"type": "welded", "from_mm": 22, "length_mm": 90},
                "lands_on": {"type": "crossmember", "crossmember": f"bar{n}", "along_mm": beyond + RAILS_MM,
                             **(lands or {})},
            }  # fmt: skip
        bars[f"bar{n}"] = {"name": f"bar {n}", "hardpoints": [f"left{n}", f"right{n}"], **spec}
    return plain_car(boxes={"x": of_box()}, hardpoints=points, crossmembers=bars, mounts=mounts, **more)
