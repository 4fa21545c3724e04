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
from levelcradle.core.design.mount import Angle, Mount, OnHardPoint, Welded
from levelcradle.core.design.tables import Tables
from levelcradle.core.part import Bend, FlatPart, Hole, Stand, bend_allowance_mm, bend_deduction_mm
from levelcradle.core.solids import block, rod

__all__ = ["AngleFrame", "AngleMount", "angle_pieces", "bracket_parts"]

STEEL_KG_MM3 = 7850e-9
SQUARE_WITHIN = math.sin(math.radians(2.0))


@dataclass(frozen=True, slots=True)
class AngleMount:
    """A mount whose shape is an angle: the document lets no other hold or landing stand with it."""

    name: str
    face: str
    shape: Angle
    to_box: Welded
    lands_on: OnHardPoint

    @staticmethod
    def of(mount: Mount) -> "AngleMount":
        shape, weld, on = cast(Angle, mount.shape), cast(Welded, mount.to_box), cast(OnHardPoint, mount.lands_on)
        return AngleMount(mount.name, mount.face, shape, weld, on)


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
        return AngleFrame(hard_point, d, cross(n, d), n, reach - doubler_mm, abs(lean) <= SQUARE_WITHIN)


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
    key: str, mount: AngleMount, frame: AngleFrame, tables: Tables, wall_density_kg_m3: float
) -> Iterator[MountPiece]:
    """Both legs, doubler, bolt head and washer. The sheet's mass is that of the flat before its hole; the bolt fills
    it."""
    bracket, bolt = mount.shape, tables.bolts[mount.lands_on.bolt.size]
    t, half, c = bracket.thickness_mm, bracket.width_mm / 2, frame.c_mm
    density = tables.materials[bracket.material].density_kg_m3 * 1e-9
    leg_a, leg_b = c + bracket.toe_mm, bracket.leg_b_mm
    sheet_kg = max(_flat_length_mm(mount, c, tables), 1.0) * bracket.width_mm * t * density
    share = leg_a / (leg_a + leg_b)
    place, angle = frame.placement, _angle(key)
    yield MountPiece("leg A", block((-c, -half, 0), (bracket.toe_mm, half, t)).moved(place), sheet_kg * share, angle)
    upright = block((-c, -half, t), (-c + t, half, leg_b)).moved(place)
    yield MountPiece("leg B", upright, sheet_kg * (1 - share), angle, welded=True)
    if plate := mount.to_box.doubler:
        low = (-c - plate.thickness_mm, -plate.along_w_mm / 2, plate.from_contact_mm)
        high = (-c, plate.along_w_mm / 2, plate.from_contact_mm + plate.along_n_mm)
        mass = plate.thickness_mm * plate.along_w_mm * plate.along_n_mm * wall_density_kg_m3 * 1e-9
        yield MountPiece("doubler", block(low, high).moved(place), mass, _doubler(key), welded=True)
    top = t + bolt.washer_thick_mm + bolt.head_mm
    ends = place.points(np.array([(0.0, 0.0, t), (0.0, 0.0, top)]))
    head = rod(tuple(ends[0]), tuple(ends[1]), bolt.washer_mm / 2)
    yield MountPiece("bolt head", head, _head_kg(mount, tables))


def _angle(key: str) -> str:
    return f"{key}-angle"


def _doubler(key: str) -> str:
    return f"{key}-doubler"


def _head_kg(mount: AngleMount, tables: Tables) -> float:
    bolt = tables.bolts[mount.lands_on.bolt.size]
    hexagon = math.sqrt(3) / 2 * bolt.across_flats_mm**2 * bolt.head_mm
    washer = math.pi / 4 * (bolt.washer_mm**2 - bolt.washer_hole_mm**2) * bolt.washer_thick_mm
    return (hexagon + washer) * STEEL_KG_MM3


def bracket_parts(
    key: str, mount: AngleMount, frame: AngleFrame, box_name: str, wall_material: str, tables: Tables
) -> Iterator[FlatPart]:
    """Flat pattern of the angle (leg B first, bolt hole at e from the toe) and the doubler."""
    bracket, material = mount.shape, tables.materials[mount.shape.material]
    deduction, c_mm = _bend_deduction_mm(mount, tables), frame.c_mm
    leg_a = c_mm + bracket.toe_mm
    length, width = _flat_length_mm(mount, c_mm, tables), bracket.width_mm
    bend_at = length - (leg_a - deduction / 2)
    bolt_hole_mm = tables.bolts[mount.lands_on.bolt.size].clearance_hole_mm
    # the hole would cut the blank in two: it is foul, and never drawn
    if min(width / 2, bracket.toe_mm) <= bolt_hole_mm / 2:
        return
    hole = Hole((length - bracket.toe_mm, width / 2), bolt_hole_mm, mount.lands_on.bolt.size)
    notes = (
        f"Leg A {leg_a:.1f} outside with the hole, leg B {bracket.leg_b_mm:.1f} outside, welded to {box_name}",
        f"Inside radius {bracket.bend_radius_mm:g}, bend deduction {deduction:.2f}: K {material.k_factor:g} "
        f"({material.k_source})",
        f"Two fillet welds, leg {mount.to_box.leg_mm:g}, {mount.to_box.length_mm:g} long, "
        f"from {mount.to_box.from_mm:g} off the contact plane",
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
        (hole,),
        (_bend_at(mount, bend_at, tables),),
        notes,
        Stand((length, width / 2), _frame_at(frame, (bracket.toe_mm - length, -width / 2, 0.0), (frame.d, frame.w))),
    )
    if plate := mount.to_box.doubler:
        w, n, wall = plate.along_w_mm, plate.along_n_mm, tables.materials[wall_material]
        yield FlatPart(
            _doubler(key),
            f"{mount.name} doubler",
            1,
            wall_material,
            wall.name,
            plate.thickness_mm,
            wall.density_kg_m3,
            ((0.0, 0.0), (w, 0.0), (w, n), (0.0, n)),
            (),
            (),
            (f"Welded all round to {box_name}; {w:g} along the bend line, {n:g} along the bolt",),
            Stand(
                (w / 2, n / 2),
                _frame_at(frame, (-c_mm - plate.thickness_mm, -w / 2, plate.from_contact_mm), (frame.w, frame.n)),
            ),
        )


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
