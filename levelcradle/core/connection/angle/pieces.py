"""The welded angle with one bolt.

box wall │← c →│← e →│          leg A lies on the vehicle's metal, bolt at P
         │      P     │  toe     leg B is welded to the box wall or to a doubler on it
  ┌──────┴──────┼─────┤  ─ contact plane          n  from the metal into the bracket
  │ R           bolt               d  outward from the box wall, square to n
  │ leg B, outside length B        w  = n × d, along the bend line
"""

import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import cast

import numpy as np

from levelcradle.core.axes import Placement, Vec, cross, dot, minus, scaled, unit
from levelcradle.core.connection.connection import MountPiece
from levelcradle.core.connection.hold import HeldPlate
from levelcradle.core.connection.pieces import head_kg, opened_for
from levelcradle.core.design.mount import Angle, Bolted, BoltedOn, Mount, Welded
from levelcradle.core.design.tables import Tables
from levelcradle.core.part import Bend, FlatPart, Hole, Stand, bend_allowance_mm, bend_deduction_mm
from levelcradle.core.solids import block, rod
from levelcradle.core.strength import BoltHole

RUBBER_KG_MM3 = 1.2e-6  # common practice, no source

__all__ = ["AngleFrame", "AngleMount", "angle_pieces", "bracket_parts"]

SQUARE_WITHIN = math.sin(math.radians(2.0))


@dataclass(frozen=True, slots=True)
class AngleMount:
    """A mount whose shape is an angle: the document lets no other hold or landing stand with it."""

    name: str
    face: str
    shape: Angle
    to_box: Welded | Bolted
    lands_on: BoltedOn

    @staticmethod
    def of(mount: Mount) -> "AngleMount":
        shape, hold, on = (
            cast(Angle, mount.shape),
            cast(Welded | Bolted, mount.to_box),
            cast(BoltedOn, mount.lands_on),
        )
        return AngleMount(mount.name, mount.face, shape, hold, on)

    @property
    def lift_mm(self) -> float:
        """From the vehicle's metal to leg A: what packs it off that, and rubber."""
        return self.shape.packing_mm + (self.lands_on.isolator.thick_mm if self.lands_on.isolator else 0.0)


@dataclass(frozen=True, slots=True)
class AngleFrame:
    """Where an angle stands: its hard point and the directions d, w, n in vehicle axes.

    Attributes:
        c_mm: from the face the bracket is welded to, to the bolt, along d.
        square: whether the box's face stands square to the hard point's direction, within 2 degrees.
    """

    at: Vec
    d: Vec
    w: Vec
    n: Vec
    c_mm: float
    square: bool

    @property
    def placement(self) -> Placement:
        """From (d, w, n), zero at the hard point, to vehicle axes."""
        return Placement(np.array([self.d, self.w, self.n]).T, self.at)

    @staticmethod
    def of(
        hard_point: Vec, direction: Vec, wall_point: Vec, wall_normal: Vec, doubler_mm: float
    ) -> "AngleFrame | None":
        """The frame of an angle between a wall and a hard point; None where the wall faces along the bolt."""
        n = unit(direction)
        lean = dot(wall_normal, n)
        flat = minus(wall_normal, scaled(n, lean))
        if dot(flat, flat) < 0.25:
            return None
        d = unit(flat)
        reach = dot(minus(hard_point, wall_point), wall_normal) / dot(d, wall_normal)
        c_mm = round(reach - doubler_mm, 9)  # so that those to the left and right are alike
        return AngleFrame(hard_point, d, cross(n, d), n, c_mm, abs(lean) <= SQUARE_WITHIN)


def _bend_deduction_mm(mount: AngleMount, tables: Tables) -> float:
    """Bend deduction of the angle [mm]."""
    bracket = mount.shape
    return bend_deduction_mm(
        angle_deg=90,
        radius_mm=bracket.bend_radius_mm,
        thickness_mm=bracket.thickness_mm,
        k=tables.materials[bracket.material].k_factor,
    )


def _flat_length_mm(mount: AngleMount, c_mm: float, tables: Tables) -> float:
    return c_mm + mount.shape.toe_mm + mount.shape.leg_b_mm - _bend_deduction_mm(mount, tables)


def angle_pieces(
    key: str, mount: AngleMount, frame: AngleFrame, plate: HeldPlate, tables: Tables
) -> Iterator[MountPiece]:
    """Both legs, what holds leg B, bolt head and washer. The sheet's mass is that of the flat before its holes; the
    bolts fill them."""
    bracket, bolt = mount.shape, tables.bolts[mount.lands_on.bolt.size]
    t, half, c = bracket.thickness_mm, bracket.width_mm / 2, frame.c_mm
    density = tables.materials[bracket.material].density_kg_m3 * 1e-9
    leg_a, leg_b = c + bracket.toe_mm, bracket.leg_b_mm
    sheet_kg = max(_flat_length_mm(mount, c, tables), 1.0) * bracket.width_mm * t * density
    share = leg_a / (leg_a + leg_b)
    place, angle = frame.placement, _angle(key)
    yield MountPiece("leg A", block((-c, -half, 0), (bracket.toe_mm, half, t)).moved(place), sheet_kg * share, angle)
    upright = block((-c, -half, t), (-c + t, half, leg_b)).moved(place)
    yield MountPiece("leg B", upright, sheet_kg * (1 - share), angle, on_wall=True)
    if bracket.packing_mm:
        near, far = _packing_mm(mount, c)
        pad = block((near, -half, -bracket.packing_mm), (far, half, 0.0)).moved(place)
        mass = (far - near) * bracket.width_mm * bracket.packing_mm * density
        yield MountPiece("packing", pad, mass, f"{key}-packing")
    if soft := mount.lands_on.isolator:
        radius, low = min(bracket.toe_mm, half), -bracket.packing_mm
        rubber = rod(place.point((0.0, 0.0, low - soft.thick_mm)), place.point((0.0, 0.0, low)), radius)
        yield MountPiece("isolator", rubber, math.pi * radius**2 * soft.thick_mm * RUBBER_KG_MM3)
    yield from plate.pieces(key, place)
    top = t + bolt.washer_thick_mm + bolt.head_mm
    ends = place.points(np.array([(0.0, 0.0, t), (0.0, 0.0, top)]))
    head = rod(tuple(ends[0]), tuple(ends[1]), bolt.washer_mm / 2)
    yield MountPiece("bolt head", head, head_kg(bolt))


def _packing_mm(mount: AngleMount, c_mm: float) -> tuple[float, float]:
    """From where to where off the bolt its packing lies: under what is flat of leg A, as far behind the bolt as
    before it."""
    toe, flat = mount.shape.toe_mm, c_mm - mount.shape.thickness_mm - mount.shape.bend_radius_mm
    return -min(toe, flat), toe


def _packing(key: str, mount: AngleMount, frame: AngleFrame, tables: Tables) -> Iterator[FlatPart]:
    bracket, material = mount.shape, tables.materials[mount.shape.material]
    if not bracket.packing_mm:
        return
    (near, far), wide, size = _packing_mm(mount, frame.c_mm), bracket.width_mm, mount.lands_on.bolt.size
    long, hole = far - near, tables.bolts[size].clearance_hole_mm
    corner = (near, -wide / 2, -bracket.packing_mm)
    yield FlatPart(
        f"{key}-packing", f"{mount.name} packing", 1, bracket.material, material.name, bracket.packing_mm,
        material.density_kg_m3, ((0.0, 0.0), (long, 0.0), (long, wide), (0.0, wide)),
        (Hole((-near, wide / 2), hole, size),), (), ("Between leg A and the vehicle's metal",),
        Stand((long / 2, wide / 4), _frame_at(frame, corner, (frame.d, frame.w))),
    )  # fmt: skip


def _angle(key: str) -> str:
    return f"{key}-angle"


def bracket_parts(
    key: str, mount: AngleMount, frame: AngleFrame, plate: HeldPlate, box_name: str, tables: Tables
) -> Iterator[FlatPart]:
    """Flat pattern of the angle (leg B first, bolt hole at e from the toe) and what is behind leg B."""
    bracket, material = mount.shape, tables.materials[mount.shape.material]
    deduction, c_mm = _bend_deduction_mm(mount, tables), frame.c_mm
    leg_a = c_mm + bracket.toe_mm
    length, width = _flat_length_mm(mount, c_mm, tables), bracket.width_mm
    bend_at = length - (leg_a - deduction / 2)
    size = mount.lands_on.bolt.size
    hole = BoltHole.of(tables.bolts[size], bracket.hole)
    # the hole would cut the blank in two: it is foul, and never drawn
    if width <= hole.across_mm or bracket.toe_mm <= hole.away_mm / 2:
        return
    bolts, slots = opened_for(hole, (length - bracket.toe_mm, width / 2), size)
    held = [Hole((bracket.leg_b_mm - n, width / 2 + w), mm, what) for n, w, mm, what in plate.holes()]
    if not all(_in_leg(hole, bend_at, width) for hole in held):
        return
    notes = (
        f"Leg A {leg_a:.1f} outside with the hole, leg B {bracket.leg_b_mm:.1f} outside, on {box_name}",
        f"Inside radius {bracket.bend_radius_mm:g}, bend deduction {deduction:.2f}: K {material.k_factor:g} "
        f"({material.k_source})",
        plate.note(box_name),
    )
    yield FlatPart(
        _angle(key),
        f"{mount.name} angle",
        1,
        bracket.material,
        material.name,
        bracket.thickness_mm,
        material.density_kg_m3,
        ((0.0, 0.0), (length, 0.0), (length, width), (0.0, width)),
        (*bolts, *held),
        (_bend_at(mount, bend_at, tables),),
        notes,
        Stand((length, width / 2), _frame_at(frame, (bracket.toe_mm - length, -width / 2, 0.0), (frame.d, frame.w))),
        cutouts=slots,
    )
    yield from _packing(key, mount, frame, tables)
    yield from plate.parts(key, mount.name, box_name, frame.placement)


def _in_leg(hole: Hole, long_mm: float, wide_mm: float) -> bool:
    """Whether all of a hole is in leg B: one that is not is foul, and never drawn."""
    (x, y), r = hole.at, hole.diameter_mm / 2
    return r < x < long_mm - r and r < y < wide_mm - r


def _bend_at(mount: AngleMount, at_mm: float, tables: Tables) -> Bend:
    bracket = mount.shape
    k = tables.materials[bracket.material].k_factor
    allowance = bend_allowance_mm(
        angle_deg=90, radius_mm=bracket.bend_radius_mm, thickness_mm=bracket.thickness_mm, k=k
    )
    return Bend((at_mm, 0.0), (at_mm, bracket.width_mm), 90.0, bracket.bend_radius_mm, True, allowance)


def _frame_at(frame: AngleFrame, dwn_mm: Vec, axes: tuple[Vec, Vec]) -> Placement:
    """The frame of a flat whose corner is at a place (d, w, n) and whose first two axes are given."""
    return Placement(np.array([*axes, cross(*axes)]).T, frame.placement.point(dwn_mm))
