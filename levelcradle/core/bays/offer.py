"""The place of a thing that came out, offered as a space."""

from levelcradle.core.design.base import FARTHEST_MM
from levelcradle.core.design.bay import Bay, Side, Sides, SurveySection
from levelcradle.core.errors import DesignError, Problem
from levelcradle.core.solids import Solid

__all__ = ["bay_of_block"]

LEAST_MM = 1.0  # a tape shows no less


def bay_of_block(name: str, solid: Solid) -> Bay:
    """A bay as large as a solid's upright block; what lies round it was not measured. Raises DesignError where no bay
    is like that."""
    (x0, y0, z0), (x1, y1, z1) = solid.low, solid.high
    if min(x1 - x0, y1 - y0, z1 - z0) < LEAST_MM:
        raise DesignError((Problem("/size_mm", f"a space is at least {LEAST_MM:g} mm long, wide and high"),))
    if max(map(abs, (*solid.low, *solid.high))) > FARTHEST_MM:
        raise DesignError((Problem("/at_mm", f"a space lies within {FARTHEST_MM / 1000:g} m of the front axle line"),))

    def at(aft_mm: float) -> SurveySection:
        return SurveySection(
            aft_mm=aft_mm,
            floor_mm=z0,
            top_left_mm=z1,
            top_right_mm=z1,
            left_floor_mm=y0,
            left_top_mm=y0,
            right_floor_mm=y1,
            right_top_mm=y1,
        )

    unknown = Side.model_validate({"is": "not measured"})
    sides = Sides(fore=unknown, aft=unknown, left=unknown, right=unknown, floor=unknown, top=unknown)
    return Bay(name=name, stations={"a": at(x0), "b": at(x1)}, sides=sides)
