"""The place of a thing that came out, offered as a space."""

from levelcradle.core.design.bay import Bay, Side, Sides, Station
from levelcradle.core.solids import Solid

__all__ = ["bay_of_block"]


def bay_of_block(name: str, solid: Solid) -> Bay:
    """A bay as large as a solid's upright block; what lies round it was not measured."""
    (x0, y0, z0), (x1, y1, z1) = solid.low, solid.high

    def at(aft: float) -> Station:
        return Station(
            aft_mm=aft, floor_mm=z0, top_left_mm=z1, top_right_mm=z1,
            left_floor_mm=y0, left_top_mm=y0, right_floor_mm=y1, right_top_mm=y1,
        )  # fmt: skip

    unknown = Side.model_validate({"is": "not measured"})
    sides = Sides(fore=unknown, aft=unknown, left=unknown, right=unknown, floor=unknown, top=unknown)
    return Bay(name=name, stations={"a": at(x0), "b": at(x1)}, sides=sides)
