"""Angles of usual sheet and bolts, tried when it is asked how a box can hang."""

from functools import lru_cache
from math import ceil
from typing import Any

from levelcradle.core.connection.angle.pieces import AngleFrame
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
from levelcradle.core.connection.recipes import RADII, WIDTHS, Recipe
from levelcradle.core.connection.spot import Spot
from levelcradle.core.design.mount import Angle
from levelcradle.core.design.tables import BoltSize, Tables

__all__ = ["AngleOffer"]

FARTHEST_MM = 160.0  # from the wall to the bolt: longer legs bend too much to be worth it; common practice, no source
TOE = 1.8  # times the bolt's hole, from the bolt to the free end


class AngleOffer:
    """Proposes angles."""

    long = "leg_b_mm"
    words = "angles"

    @staticmethod
    def reach(spot: Spot, seat: Seat, tables: Tables) -> Reach | None:
        """What a hard point is to a wall; None where the wall faces along its bolt."""
        frame = AngleFrame.of(spot.at, spot.n, seat.point, seat.normal, 0.0)
        if frame is None or seat.wall is None:
            return None
        bolt = tables.bolts[thread_of(spot, tables)]
        thinnest = min(RADII)
        least = thinnest + RADII[thinnest] + max(bolt.washer_mm / 2 + 1, bolt.clearance_hole_mm / 2 + 2 * thinnest)
        room = Room.of(frame.at, frame.n, seat)
        off = (
            (least - frame.c_mm, "is {0} too near the wall"),
            (frame.c_mm - FARTHEST_MM, "is {0} further off than a bracket reaches"),
            (WIDTHS[0] / 2 - room.beside_mm, "stands beyond the wall's end and misses by {0}"),
            (
                LEAST_WELD_MM + RADII[thinnest] + thinnest - room.far_mm,
                "stands beyond the wall's flat and misses by {0}",
            ),
            (room.near_mm - (3 * 12 + RADII[12]), "stands short of the wall's flat and misses by {0}"),
        )
        misses, why = max(off)
        return Reach(frame.c_mm, max(misses, 0.0), why if misses > 0 or not frame.square else "", frame.square)

    @staticmethod
    def made(recipe: Recipe, place: Place, tables: Tables) -> dict[str, Any] | None:
        """Shape, hold and landing for a place: None where it would not keep its own shape's rules or the wall's flat
        there. Whether it is strong enough is for others to say."""
        spot, wall = place.spot, place.seat.wall
        of = fitting(recipe, wall) if wall else None
        if wall is None or of is None:
            return None
        frame, room = _stands(place, 0.0 if of.bolted else of.plate_mm or 0.0)
        metal = metal_of(of, wall, tables)
        if frame is None or room is None or metal is None:
            return None
        bolt, t = tables.bolts[thread_of(spot, tables)], of.thickness_mm
        least = 0.0 if metal == Angle().material else (tables.materials[metal].bend_radii or 0.0) * t
        radius = max(RADII[int(t)], float(ceil(least)))
        if not _holed(bolt, frame.c_mm, t, radius):
            return None
        bend = t + radius
        asked = Held(bend, lambda b: bend + max(b.washer_mm / 2 + 1, b.clearance_hole_mm / 2 + 2 * t), 2 * t)
        if (held := hold_of(of, room, wall, asked, tables)) is None:
            return None
        to_box, leg_mm = held
        shape = Angle(
            material=metal,
            thickness_mm=t,
            bend_radius_mm=radius,
            width_mm=of.width_mm,
            toe_mm=up_to_5(TOE * bolt.clearance_hole_mm),
            leg_b_mm=leg_mm,
        )
        return {
            "shape": shape.model_dump(mode="json"),
            "to_box": to_box.model_dump(mode="json"),
            "lands_on": landed(spot, of, tables),
        }


@lru_cache(maxsize=256)
def _stands(place: Place, plate_mm: float) -> tuple[AngleFrame | None, Room | None]:
    """Where an angle on a plate so thick stands, and its room on the wall; asked of a place hundreds of times."""
    spot, seat = place.spot, place.seat
    frame = AngleFrame.of(spot.at, spot.n, seat.point, seat.normal, plate_mm)
    return frame, Room.of(frame.at, frame.n, seat) if frame else None


def _holed(bolt: BoltSize, c: float, t: float, radius_mm: float) -> bool:
    """Whether bolt and washer stand clear of the bend."""
    flat = c - t - radius_mm
    return flat >= bolt.washer_mm / 2 + 1 and flat - bolt.clearance_hole_mm / 2 >= 2 * t
