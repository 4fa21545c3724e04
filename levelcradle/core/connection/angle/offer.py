"""Welded angles of usual sheet and bolts, tried when it is asked how a box can hang: all of one box alike, but for what
its place makes different."""

from dataclasses import dataclass, replace
from itertools import product
from math import ceil
from typing import Any

from levelcradle.core.axes import dot, minus
from levelcradle.core.box import Wall
from levelcradle.core.connection.angle.pieces import AngleFrame
from levelcradle.core.connection.connection import Seat
from levelcradle.core.connection.offers import Place, Reach
from levelcradle.core.connection.spot import Spot
from levelcradle.core.design.mount import Angle, Behind, Bolt, Bolted, Doubler, OnHardPoint, Welded
from levelcradle.core.design.tables import BoltSize, Tables
from levelcradle.core.strength import can_be_welded, yield_beside_weld

__all__ = ["AngleOffer"]

FARTHEST_MM = 160.0  # from the wall to the bolt: longer legs bend too much to be worth it; common practice, no source
RADII = {
    4: 4.0,
    5: 5.0,
    6: 8.0,
    8: 10.0,
    10: 12.0,
    12: 16.0,
}  # inside radius by thickness, as shops fold S355: common practice, no source
WIDTHS = (60.0, 90.0, 105.0, 120.0)
NARROWEST_MM = 40.0  # of an angle that makes way on a side
LENGTHS = (60.0, 90.0, 120.0, 180.0)  # of the welds: on a high wall a long one keeps it from bulging
DOUBLERS = (None, 3.0, 4.0, 6.0)
IN_ALUMINIUM = {3.0: 4.0, 4.0: 6.0, 6.0: 8.0}  # doublers of aluminium instead: common practice, no source
LARGEST_LEG_MM = {"steel": 4.0, "aluminium": 8.0}  # of a weld that is run once, or twice: common practice, no source
CLASSES = ("8.8", "10.9")
TOE = 1.8  # times the bolt's hole, from the bolt to the free end
ROUND_MM, ROUND_UP_MM = 30.0, 50.0  # a doubler beyond the bracket on either side, and beyond its welds up and down
RIM_MM = 10.0  # and round the weld, at least
BEYOND_MM = 6.0  # leg B beyond its welds
LEAST_WELD_MM = 45.0
LARGEST_SHARE = 0.85  # of the wall's height: as far as the wall's rule goes
UNKNOWN_THREAD = "M10"
THROUGH = ("M8", "M10")  # bolts through a wall, by a leg up to 6 mm and by a thicker one: common practice, no source
EDGE = 1.5  # times their hole, to the edges of the leg


@dataclass(frozen=True, slots=True)
class _Room:
    """What is free on the wall's flat, seen from the hard point: to either side along it, and from where to where along
    n."""

    before_mm: float
    behind_mm: float
    near_mm: float
    far_mm: float

    @staticmethod
    def of(frame: AngleFrame, seat: Seat) -> "_Room":
        wall = seat.wall
        assert wall is not None
        local = seat.placement.turn.T @ minus(frame.at, seat.placement.origin)
        axis = 0 if abs(dot(seat.normal, seat.placement.direction((0.0, 1.0, 0.0)))) > 0.5 else 1
        up = dot(frame.n, seat.placement.direction((0.0, 0.0, 1.0)))
        ends = sorted(((wall.flat_from_mm - local[2]) * up, (wall.flat_to_mm - local[2]) * up))
        rows = (local[axis] - wall.start_mm, wall.end_mm - local[axis], *ends)
        return _Room(*(float(row) for row in rows))


@dataclass(frozen=True, slots=True)
class _Recipe:
    """What all angles of a box have in common. ``held_mm``: so long are the welds, or so far from end to end are the
    bolts with their metal; ``plate_mm``: the doubler, or the plate behind the wall."""

    thickness_mm: float
    width_mm: float
    held_mm: float
    plate_mm: float | None
    property_class: str
    bolted: bool

    @property
    def mass_kg(self) -> float:
        """About in proportion to its mass; a stronger bolt costs a little, so that it is not taken for nothing."""
        plate = (self.width_mm + 2 * ROUND_MM) * (self.held_mm + 2 * ROUND_UP_MM) * (self.plate_mm or 0.0)
        sheet = self.thickness_mm * self.width_mm * (self.held_mm + 130)
        return (sheet + plate) * (1.02 if self.property_class != CLASSES[0] else 1.0)


_RECIPES = sorted(
    (_Recipe(*row) for row in product(RADII, WIDTHS, LENGTHS, DOUBLERS, CLASSES, (False, True))),
    key=lambda recipe: recipe.mass_kg,
)
_SHAPES = list(dict.fromkeys(replace(recipe, property_class="") for recipe in _RECIPES))
_SHAPE_OF = [_SHAPES.index(replace(recipe, property_class="")) for recipe in _RECIPES]


class AngleOffer:
    """Proposes welded angles."""

    @staticmethod
    def reach(spot: Spot, seat: Seat, tables: Tables) -> Reach | None:
        """What a hard point is to a wall; None where the wall faces along its bolt."""
        frame = AngleFrame.of(spot.at, spot.n, seat.point, seat.normal, 0.0)
        if frame is None or seat.wall is None:
            return None
        bolt = tables.bolts[_thread(spot, tables)]
        thinnest = min(RADII)
        least = thinnest + RADII[thinnest] + max(bolt.washer_mm / 2 + 1, bolt.clearance_hole_mm / 2 + 2 * thinnest)
        room = _Room.of(frame, seat)
        off = (
            (least - frame.c_mm, "is {0} too near the wall"),
            (frame.c_mm - FARTHEST_MM, "is {0} further off than a bracket reaches"),
            (WIDTHS[0] / 2 - min(room.before_mm, room.behind_mm), "stands beyond the wall's end and misses by {0}"),
            (
                LEAST_WELD_MM + RADII[thinnest] + thinnest - room.far_mm,
                "stands beyond the wall's flat and misses by {0}",
            ),
            (room.near_mm - (3 * 12 + RADII[12]), "stands short of the wall's flat and misses by {0}"),
        )
        misses, why = max(off)
        return Reach(frame.c_mm, max(misses, 0.0), why if misses > 0 or not frame.square else "", frame.square)

    @staticmethod
    def shape_of(number: int) -> int:
        """Of two that are made with the same number here only the bolt differs."""
        return _SHAPE_OF[number]

    @staticmethod
    def width(made: dict[str, Any]) -> float:
        return float(made["shape"]["width_mm"])

    @staticmethod
    def narrowed(made: dict[str, Any], to_mm: float) -> dict[str, Any] | None:
        """An angle and its doubler, narrower on both sides alike."""
        if to_mm < NARROWEST_MM:
            return None
        by, doubler = max(AngleOffer.width(made) - to_mm, 0.0), made["to_box"]["doubler"]
        plate = {**doubler, "along_w_mm": doubler["along_w_mm"] - by} if doubler else None
        return {
            **made,
            "shape": {**made["shape"], "width_mm": AngleOffer.width(made) - by},
            "to_box": {**made["to_box"], "doubler": plate},
        }

    numbers = range(len(_RECIPES))

    @staticmethod
    def made(number: int, place: Place, tables: Tables) -> dict[str, Any] | None:
        """Shape, hold and landing for a place, the lightest first, in one order for all places: None where it would not
        keep its own shape's rules or the wall's flat there. Whether it is strong enough is for others to say."""
        return _at(_RECIPES[number], place, tables)


def _at(recipe: _Recipe, place: Place, tables: Tables) -> dict[str, Any] | None:
    """Aluminium is welded to aluminium, and steel bolted to it; steel is welded to steel."""
    wall = place.seat.wall
    family = wall.material.weldable_with if wall else "steel"
    if wall is None or (recipe.bolted and family == "steel"):
        return None
    if family == "aluminium" and recipe.plate_mm and not recipe.bolted:
        recipe = replace(recipe, plate_mm=IN_ALUMINIUM[recipe.plate_mm])
    off_mm = 0.0 if recipe.bolted else recipe.plate_mm or 0.0
    frame = AngleFrame.of(place.spot.at, place.spot.n, place.seat.point, place.seat.normal, off_mm)
    metal = Angle().material if recipe.bolted else _metal(place.seat, tables)
    if frame is None or metal not in tables.materials:
        return None
    thread = _thread(place.spot, tables)
    bolt, t = tables.bolts[thread], recipe.thickness_mm
    radius = max(RADII[int(t)], float(ceil((tables.materials[metal].bend_radii or 0.0) * t)))
    if not _holed(bolt, frame.c_mm, t, radius):
        return None
    make = _bolted if recipe.bolted else _welded
    hold = make(recipe, _Room.of(frame, place.seat), wall, t + radius, tables)
    if hold is None:
        return None
    to_box, leg_mm = hold
    return {
        "shape": Angle(
            material=metal,
            thickness_mm=t,
            bend_radius_mm=radius,
            width_mm=recipe.width_mm,
            toe_mm=_up_to_5(TOE * bolt.clearance_hole_mm),
            leg_b_mm=leg_mm,
        ).model_dump(mode="json"),
        "to_box": to_box.model_dump(mode="json"),
        "lands_on": OnHardPoint(
            hardpoint=place.spot.path.removeprefix("hardpoints/"),
            bolt=Bolt(size=thread, property_class=recipe.property_class),
            sleeve=place.spot.clamps_closed,
        ).model_dump(mode="json"),
    }


def _welded(recipe: _Recipe, room: _Room, wall: Wall, bend_mm: float, tables: Tables) -> tuple[Welded, float] | None:
    """The welds from the bend on, as far as the wall lets them, with a doubler; and leg B for them."""
    t, rim = recipe.thickness_mm, RIM_MM if recipe.plate_mm else 0.0
    start = max(bend_mm, room.near_mm + rim)
    weld = min(recipe.held_mm, room.far_mm - rim - start, LARGEST_SHARE * wall.height_mm - 2 * rim)
    side = recipe.width_mm / 2 + rim
    if weld < LEAST_WELD_MM or start > 2 * t + bend_mm or side > min(room.before_mm, room.behind_mm):
        return None
    leg_mm = min(LARGEST_LEG_MM[wall.material.weldable_with], float(int(t * 0.7)))
    welded = Welded(from_mm=round(start, 1), length_mm=float(int(weld)), leg_mm=leg_mm)
    if recipe.plate_mm:
        welded = welded.model_copy(update={"doubler": _doubler(recipe, welded, room, wall.height_mm)})
    return welded, round(start + weld + BEYOND_MM, 1)


def _bolted(recipe: _Recipe, room: _Room, wall: Wall, bend_mm: float, tables: Tables) -> tuple[Bolted, float] | None:
    """Four bolts from the bend on, with a plate behind the wall; and leg B for them."""
    t, through = recipe.thickness_mm, THROUGH[recipe.thickness_mm > 6]
    bolt = tables.bolts.get(through)
    if bolt is None:
        return None
    edge, hole = ceil(EDGE * bolt.clearance_hole_mm), bolt.clearance_hole_mm
    least = bend_mm + max(bolt.washer_mm / 2 + 1, hole / 2 + 2 * t)
    start = ceil(max(least, room.near_mm + bolt.washer_mm / 2 + RIM_MM))
    pitch = min(recipe.held_mm - 2 * edge, room.far_mm - start - bolt.washer_mm / 2 - RIM_MM)
    apart, middle = recipe.width_mm - 2 * edge, start + pitch / 2
    too_near = min(pitch, apart) < max(2.4 * hole, bolt.washer_mm + 2)
    if too_near or start > least + 2 * t or recipe.width_mm / 2 > min(room.before_mm, room.behind_mm):
        return None
    wide = min(apart + 2 * ROUND_MM, 2 * min(room.before_mm, room.behind_mm))
    long = 2 * min(
        pitch / 2 + ROUND_UP_MM, middle - room.near_mm, room.far_mm - middle, LARGEST_SHARE * wall.height_mm / 2
    )
    behind = (
        Behind(thickness_mm=recipe.plate_mm, size_mm=(float(int(wide)), float(int(long)))) if recipe.plate_mm else None
    )
    hold = Bolted(
        bolt=Bolt(size=through), from_mm=float(start), pitch_mm=float(int(pitch)), apart_mm=float(apart), behind=behind
    )
    return hold, float(ceil(start + pitch + edge))


def _metal(seat: Seat, tables: Tables) -> str | None:
    """What can be welded to the wall: the usual sheet for brackets where that can, else the strongest of the table."""
    if seat.wall is None:
        return None
    usual, wall = Angle().material, seat.wall.material
    fits = {key: metal for key, metal in tables.materials.items() if can_be_welded(metal, wall)}
    return usual if usual in fits else max(fits, key=lambda key: (yield_beside_weld(fits[key], 0.0), key), default=None)


def _holed(bolt: BoltSize, c: float, t: float, radius_mm: float) -> bool:
    """Whether bolt and washer stand clear of the bend."""
    flat = c - t - radius_mm
    return flat >= bolt.washer_mm / 2 + 1 and flat - bolt.clearance_hole_mm / 2 >= 2 * t


def _doubler(recipe: _Recipe, weld: Welded, room: _Room, wall_mm: float) -> Doubler:
    """Round the weld, as far as the flat and the wall's rule let it, and no further along the wall than its nearer
    end."""
    near = max(weld.from_mm - ROUND_UP_MM, room.near_mm)
    far = min(weld.from_mm + weld.length_mm + ROUND_UP_MM, room.far_mm, near + LARGEST_SHARE * wall_mm)
    wide = min(recipe.width_mm + 2 * ROUND_MM, 2 * min(room.before_mm, room.behind_mm))
    plate = Doubler(thickness_mm=recipe.plate_mm or 0.0, along_w_mm=float(int(wide)), along_n_mm=float(int(far - near)))
    return plate.model_copy(update={"from_contact_mm": round(near, 1)})


def _thread(spot: Spot, tables: Tables) -> str:
    return spot.thread if spot.thread in tables.bolts else UNKNOWN_THREAD


def _up_to_5(mm: float) -> float:
    return float(-(-mm // 5) * 5)
