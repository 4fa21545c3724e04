"""Flat tabs of usual sheet and bolts, tried when it is asked how a box can hang."""

from functools import lru_cache
from typing import Any

from levelcradle.core.connection.connection import Seat
from levelcradle.core.connection.hold.offer import (
    LEAST_WELD_MM,
    Held,
    Room,
    fitting,
    hold_of,
    landed,
    metal_of,
    thread_of,
    up_to_5,
)
from levelcradle.core.connection.offers import Place, Reach
from levelcradle.core.connection.recipes import IN_ALUMINIUM, RADII, WIDTHS, Recipe
from levelcradle.core.connection.spot import Spot
from levelcradle.core.connection.tab.frame import TabFrame
from levelcradle.core.design.mount import Tab
from levelcradle.core.design.tables import Tables
from levelcradle.core.strength import MOST_PACKING_D

__all__ = ["TabOffer"]

FARTHEST_MM = 160.0  # from the bolt to the wall's flat: longer ones bend too much; common practice, no source
TOE = 1.8  # times the bolt's hole, from the bolt to the free end
THICKEST_MM = max(IN_ALUMINIUM.values())  # of a doubler
LEAST_PACKING_MM = 1.0  # thinner ones are no sheet: what is missing is drawn in


class TabOffer:
    """Proposes tabs."""

    long = "long_mm"
    words = "tabs"

    @staticmethod
    def reach(spot: Spot, seat: Seat, tables: Tables) -> Reach | None:
        """What a hard point is to a wall; None where the wall does not face along its bolt or the point is not beyond
        one of its edges."""
        frame = TabFrame.of(spot, seat, 0.0)
        if isinstance(frame, str) or seat.wall is None:
            return None
        bolt, room = tables.bolts[thread_of(spot, tables)], Room.of(frame.at, frame.n, seat)
        least, most = _between(frame)
        least_weld = LEAST_WELD_MM if seat.wall.what == "wall" else 0.0
        off = (
            (-most, "is {0} too near the wall's face"),
            (least - MOST_PACKING_D * bolt.d_mm, "is {0} further off the wall's face than packing reaches"),
            (room.near_mm - FARTHEST_MM, "is {0} further off than a tab reaches"),
            (WIDTHS[0] / 2 - room.beside_mm, "stands beyond the wall's end and misses by {0}"),
            (least_weld - (room.far_mm - room.near_mm), "has {0} too little of the wall's flat before it"),
        )
        misses, why = max(off)
        return Reach(frame.edge_mm, max(misses, 0.0), why if misses > 0 else "", square=True)

    @staticmethod
    def made(recipe: Recipe, place: Place, tables: Tables) -> dict[str, Any] | None:
        """Shape, hold and landing for a place: None where it would not keep its own shape's rules or the wall's flat
        there. Whether it is strong enough is for others to say."""
        spot, wall = place.spot, place.seat.wall
        of = fitting(recipe, wall) if wall else None
        if wall is None or of is None:
            return None
        frame, room = _stands(place, 0.0 if of.bolted else of.plate_mm or 0.0)
        if frame is None or room is None:
            return None
        metal, bolt = metal_of(of, wall, tables), tables.bolts[thread_of(spot, tables)]
        packing = frame.off_mm if frame.outside else -frame.off_mm - of.thickness_mm
        packing = round(packing, 1) if packing >= LEAST_PACKING_MM else 0.0 if packing > -LEAST_PACKING_MM else -1.0
        if metal is None or not 0 <= packing <= MOST_PACKING_D * bolt.d_mm:
            return None
        clear = bolt.washer_mm / 2 + 1
        asked = Held(clear, lambda b: clear + b.washer_mm / 2 + 1, FARTHEST_MM)
        if (held := hold_of(of, room, wall, asked, tables)) is None:
            return None
        to_box, long_mm = held
        shape = Tab(
            material=metal,
            thickness_mm=of.thickness_mm,
            width_mm=of.width_mm,
            toe_mm=up_to_5(TOE * bolt.clearance_hole_mm),
            long_mm=long_mm,
            packing_mm=packing,
        )
        return {
            "shape": shape.model_dump(mode="json"),
            "to_box": to_box.model_dump(mode="json"),
            "lands_on": landed(spot, of, tables),
        }


@lru_cache(maxsize=256)
def _stands(place: Place, plate_mm: float) -> tuple[TabFrame | None, Room | None]:
    """Where a tab on a plate so thick stands, and its room on the wall; asked of a place hundreds of times."""
    frame = TabFrame.of(place.spot, place.seat, plate_mm)
    return (None, None) if isinstance(frame, str) else (frame, Room.of(frame.at, frame.n, place.seat))


def _between(frame: TabFrame) -> tuple[float, float]:
    """The least and the most room for packing that any tab leaves, with any doubler or none."""
    if frame.outside:
        return frame.off_mm, frame.off_mm + THICKEST_MM
    return -frame.off_mm - THICKEST_MM - max(RADII), -frame.off_mm - min(RADII)
