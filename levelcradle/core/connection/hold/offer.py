"""How a bracket's plate is held on a wall when it is asked how a box can hang: as far as the wall's flat lets it."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from math import ceil, floor, inf
from typing import Any

import numpy as np

from levelcradle.core.axes import AXES, Vec, dot, minus
from levelcradle.core.box import Wall
from levelcradle.core.connection.connection import Seat
from levelcradle.core.connection.recipes import IN_ALUMINIUM, LENGTHS, ROUND_MM, ROUND_UP_MM, Recipe
from levelcradle.core.connection.spot import Spot
from levelcradle.core.design.mount import Behind, Bolt, Bolted, Doubler, OnCrossmember, OnHardPoint, Tab, Welded
from levelcradle.core.design.tables import BoltSize, Tables
from levelcradle.core.strength import can_be_welded, class_like, yield_beside_weld

__all__ = [
    "LEAST_WELD_MM",
    "RIM_MM",
    "Held",
    "Room",
    "across_a_tube",
    "fitting",
    "hold_of",
    "landed",
    "metal_of",
    "narrowed",
    "thread_of",
    "up_to_5",
]

LARGEST_LEG_MM = {"steel": 4.0, "aluminium": 8.0}  # of a weld that is run once, or twice: common practice, no source
RIM_MM = 10.0  # of a doubler round the weld, at least
BEYOND_MM = 6.0  # a plate beyond its welds
LEAST_WELD_MM = 45.0
LARGEST_SHARE = 0.85  # of the wall's height: as far as the wall's rule goes
THROUGH = ("M8", "M10")  # bolts through a wall, by a plate up to 6 mm and by a thicker one: common practice, no source
EDGE = 1.5  # times their hole, to the edges of the plate
UNKNOWN_THREAD = "M10"
NARROWEST_MM = 40.0  # of a bracket that makes way on a side


@dataclass(frozen=True, slots=True)
class Room:
    """What is free on the wall's flat, seen from the hard point: to either side across a plate, and from where to where
    along it; and how much of either the wall's rule lets it take."""

    before_mm: float
    behind_mm: float
    near_mm: float
    far_mm: float
    most_across_mm: float
    most_along_mm: float

    @staticmethod
    def of(at: Vec, along: Vec, seat: Seat) -> "Room":
        """``along``: the plate's way from its bolt, in vehicle axes."""
        wall = seat.wall
        assert wall is not None
        local = seat.placement.turn.T @ np.array(minus(at, seat.placement.origin))
        level, up = (seat.placement.direction(AXES[axis]) for axis in (seat.runs, seat.rises))
        share = LARGEST_SHARE * wall.height_mm
        over = (wall.start_mm - local[seat.runs], wall.end_mm - local[seat.runs])
        high = (wall.flat_from_mm - local[seat.rises], wall.flat_to_mm - local[seat.rises])
        upright = abs(dot(along, up)) > abs(dot(along, level))
        ahead, beside = (high, over) if upright else (over, high)
        sign = dot(along, up if upright else level)
        near, far = sorted(float(mm * sign) for mm in ahead)
        most = (inf, share) if upright else (share, inf)
        return Room(float(-beside[0]), float(beside[1]), near, far, *most)

    @property
    def beside_mm(self) -> float:
        """To the nearer side."""
        return min(self.before_mm, self.behind_mm)


@dataclass(frozen=True, slots=True)
class Held:
    """What a shape asks of what holds it: off its bolt welds begin so far at least, bolts so far, and either no more
    than so much further."""

    welds_mm: float
    bolts_mm: Callable[[BoltSize], float]
    further_mm: float


def fitting(recipe: Recipe, wall: Wall) -> Recipe | None:
    """A recipe for a wall: aluminium is welded to aluminium, and steel bolted to it; steel is welded to steel."""
    if wall.material.weldable_with == "steel":
        return None if recipe.bolted else recipe
    thicker = IN_ALUMINIUM[recipe.plate_mm] if recipe.plate_mm and not recipe.bolted else recipe.plate_mm
    return replace(recipe, plate_mm=thicker)


def metal_of(recipe: Recipe, wall: Wall, tables: Tables) -> str | None:
    """The usual sheet for brackets where that may be, else the strongest that can be welded to the wall."""
    usual = Tab().material
    fits = {key: metal for key, metal in tables.materials.items() if can_be_welded(metal, wall.material)}
    if usual in tables.materials and (recipe.bolted or usual in fits):
        return usual
    return max(fits, key=lambda key: (yield_beside_weld(fits[key], 0.0), key), default=None)


def hold_of(
    recipe: Recipe, room: Room, wall: Wall, asked: Held, tables: Tables
) -> tuple[Welded | Bolted, float] | None:
    """What holds it, and how long its plate is for that; None where there is no room."""
    if wall.what != "wall":
        return _on_a_tube(recipe, room, wall, asked)
    return _bolted(recipe, room, asked, tables) if recipe.bolted else _welded(recipe, room, wall, asked)


def _on_a_tube(recipe: Recipe, room: Room, wall: Wall, asked: Held) -> tuple[Welded, float] | None:
    """One length, and no plate between."""
    plain = not (recipe.bolted or recipe.plate_mm) and recipe.held_mm == LENGTHS[0]
    further = room.near_mm - asked.welds_mm
    if not plain or not 0 <= further <= asked.further_mm or recipe.width_mm / 2 > room.beside_mm:
        return None
    return across_a_tube(room, min(LARGEST_LEG_MM[wall.material.weldable_with], float(int(recipe.thickness_mm * 0.7))))


def across_a_tube(room: Room, leg_mm: float) -> tuple[Welded, float]:
    """What holds a plate over all of a tube's flat, welded at both its edges, and how long the plate is for that."""
    start, end = ceil(room.near_mm * 10 - 1e-6) / 10, floor(room.far_mm * 10 + 1e-6) / 10
    long = round(end - start, 1)
    return Welded(from_mm=start, length_mm=long, leg_mm=leg_mm, across_end=True, across_start=True), end


def _welded(recipe: Recipe, room: Room, wall: Wall, asked: Held) -> tuple[Welded, float] | None:
    rim = RIM_MM if recipe.plate_mm else 0.0
    start = max(asked.welds_mm, room.near_mm + rim)
    weld = min(recipe.held_mm, room.far_mm - rim - start, room.most_along_mm - 2 * rim)
    across = recipe.width_mm + 2 * rim
    if weld < LEAST_WELD_MM or start > asked.welds_mm + asked.further_mm:
        return None
    if across / 2 > room.beside_mm or across > room.most_across_mm:
        return None
    leg_mm = min(LARGEST_LEG_MM[wall.material.weldable_with], float(int(recipe.thickness_mm * 0.7)))
    welded = Welded(from_mm=round(start, 1), length_mm=float(int(weld)), leg_mm=leg_mm)
    if recipe.plate_mm:
        welded = welded.model_copy(update={"doubler": _doubler(recipe, welded, room)})
    return welded, round(start + weld + BEYOND_MM, 1)


def _doubler(recipe: Recipe, weld: Welded, room: Room) -> Doubler:
    """Round the weld, as far as the flat and the wall's rule let it, and no further along the wall than its nearer
    end."""
    near = max(weld.from_mm - ROUND_UP_MM, room.near_mm)
    far = min(weld.from_mm + weld.length_mm + ROUND_UP_MM, room.far_mm, near + room.most_along_mm)
    wide = min(recipe.width_mm + 2 * ROUND_MM, 2 * room.beside_mm, room.most_across_mm)
    plate = Doubler(thickness_mm=recipe.plate_mm or 0.0, along_w_mm=float(int(wide)), along_n_mm=float(int(far - near)))
    return plate.model_copy(update={"from_contact_mm": round(near, 1)})


def _bolted(recipe: Recipe, room: Room, asked: Held, tables: Tables) -> tuple[Bolted, float] | None:
    """Four bolts, and a plate behind the wall."""
    through = THROUGH[recipe.thickness_mm > 6]
    bolt = tables.bolts.get(through)
    if bolt is None:
        return None
    edge, least, washer = ceil(EDGE * bolt.clearance_hole_mm), asked.bolts_mm(bolt), bolt.washer_mm / 2
    start = ceil(max(least, room.near_mm + washer + RIM_MM))
    pitch = min(recipe.held_mm - 2 * edge, room.far_mm - start - washer - RIM_MM)
    apart, middle = recipe.width_mm - 2 * edge, start + pitch / 2
    too_near = min(pitch, apart) < max(2.4 * bolt.clearance_hole_mm, bolt.washer_mm + 2)
    if too_near or start > least + asked.further_mm or recipe.width_mm / 2 > room.beside_mm:
        return None
    across = min(apart + 2 * ROUND_MM, 2 * room.beside_mm, room.most_across_mm)
    along = min(pitch + 2 * ROUND_UP_MM, 2 * (middle - room.near_mm), 2 * (room.far_mm - middle), room.most_along_mm)
    size_mm = float(int(across)), float(int(along))
    behind = Behind(thickness_mm=recipe.plate_mm, size_mm=size_mm) if recipe.plate_mm else None
    hold = Bolted(
        bolt=Bolt(size=through), from_mm=float(start), pitch_mm=float(int(pitch)), apart_mm=float(apart), behind=behind
    )
    return hold, float(ceil(start + pitch + edge))


def narrowed(made: dict[str, Any], to_mm: float) -> dict[str, Any] | None:
    """A bracket, and what lies on the wall for it, narrower on both sides alike; None where too little is left."""
    shape, hold = made["shape"], made["to_box"]
    by = max(shape["width_mm"] - to_mm, 0.0)
    if to_mm < NARROWEST_MM or (hold["type"] == "bolted" and hold["apart_mm"] - by <= 0):
        return None
    doubler = hold.get("doubler")
    if hold["type"] == "bolted":
        hold = {**hold, "apart_mm": hold["apart_mm"] - by}
    elif doubler:
        hold = {**hold, "doubler": {**doubler, "along_w_mm": doubler["along_w_mm"] - by}}
    return {**made, "shape": {**shape, "width_mm": shape["width_mm"] - by}, "to_box": hold}


def landed(spot: Spot, recipe: Recipe, tables: Tables) -> dict[str, Any]:
    size = thread_of(spot, tables)
    bolt = Bolt(size=size, property_class=class_like(tables.bolts[size], recipe.property_class, tables.bolt_classes))
    collection, key = spot.path.split("/")
    if collection == "crossmembers":  # where along it, whoever sizes it knows
        return OnCrossmember(crossmember=key, along_mm=0.0, bolt=bolt).model_dump(mode="json")
    return OnHardPoint(hardpoint=key, bolt=bolt, sleeve=spot.clamps_closed).model_dump(mode="json")


def thread_of(spot: Spot, tables: Tables) -> str:
    return spot.thread if spot.thread in tables.bolts else UNKNOWN_THREAD


def up_to_5(mm: float) -> float:
    return float(-(-mm // 5) * 5)
