"""A tab's solids and the flat parts that it is cut from."""

from collections.abc import Iterator

import numpy as np

from levelcradle.core.axes import Placement, Vec, cross
from levelcradle.core.connection.connection import MountPiece
from levelcradle.core.connection.pieces import head_kg, opened_for
from levelcradle.core.connection.tab.checks import TabJoint
from levelcradle.core.part import Cutout, FlatPart, Hole, Stand
from levelcradle.core.solids import block, rod

__all__ = ["tab_parts", "tab_pieces"]


def _packing_mm(joint: TabJoint) -> tuple[float, float]:
    """From where to where along the tab its packing lies: about the bolt, and clear of the box."""
    toe = joint.shape.toe_mm
    return -toe, min(toe, max(joint.frame.edge_mm, joint.bolt.washer_mm / 2))


def tab_pieces(key: str, joint: TabJoint) -> Iterator[MountPiece]:
    """Plate, packing, what holds it on the wall, bolt head and washer. The bolts fill its holes."""
    shape, frame, bolt = joint.shape, joint.frame, joint.bolt
    place, half, start, t = frame.placement, shape.width_mm / 2, frame.needs_mm(shape), shape.thickness_mm
    density = joint.plate.metal.density_kg_m3 * 1e-9
    plate = block((start, -half, -shape.toe_mm), (start + t, half, shape.long_mm)).moved(place)
    mass = shape.width_mm * t * (shape.toe_mm + shape.long_mm) * density
    yield MountPiece("tab", plate, mass, f"{key}-tab", on_wall=True)
    if shape.packing_mm:
        low, high = sorted((0.0, shape.packing_mm if frame.outside else -shape.packing_mm))
        near, far = _packing_mm(joint)
        solid = block((low, -half, near), (high, half, far)).moved(place)
        mass = shape.width_mm * shape.packing_mm * (far - near) * density
        yield MountPiece("packing", solid, mass, f"{key}-packing")
    yield from joint.plate.pieces(key, place)
    outer = start + t if frame.outside else start
    top = outer + (1 if frame.outside else -1) * (bolt.washer_thick_mm + bolt.head_mm)
    ends = place.points(np.array([(outer, 0.0, 0.0), (top, 0.0, 0.0)]))
    yield MountPiece("bolt head", rod(tuple(ends[0]), tuple(ends[1]), bolt.washer_mm / 2), head_kg(bolt))


def tab_parts(key: str, name: str, joint: TabJoint, box_name: str) -> Iterator[FlatPart]:
    """The tab, from its free end on, and its packing."""
    shape, bolt, frame = joint.shape, joint.bolt, joint.frame
    held = [Hole((shape.toe_mm + n, shape.width_mm / 2 + w), mm, what) for n, w, mm, what in joint.plate.holes()]
    long, wide = shape.toe_mm + shape.long_mm, shape.width_mm
    bolts, slots = opened_for(joint.hole, (shape.toe_mm, wide / 2), joint.named.size)
    # a hole that would cut an edge is foul, and never drawn
    if min(joint.edges_mm) <= joint.hole.narrow_mm / 2 or not all(_in_tab(hole, long, wide) for hole in held):
        return
    corner = (frame.needs_mm(shape), -wide / 2, -shape.toe_mm)
    yield _flat(key, "tab", name, joint, (long, wide, shape.thickness_mm), (*bolts, *held), corner, (
        f"Flat, on {box_name} beyond its edge", joint.plate.note(box_name),
    ), slots)  # fmt: skip
    if shape.packing_mm:
        near, far = _packing_mm(joint)
        hole = (Hole((-near, wide / 2), bolt.clearance_hole_mm, joint.named.size),)
        at = (0.0 if frame.outside else -shape.packing_mm, -wide / 2, near)
        yield _flat(key, "packing", name, joint, (far - near, wide, shape.packing_mm), hole, at, (
            "Between the tab and the vehicle's metal",
        ))  # fmt: skip


def _flat(
    key: str,
    what: str,
    name: str,
    joint: TabJoint,
    size: Vec,
    holes: tuple[Hole, ...],
    corner: Vec,
    notes: tuple[str, ...],
    slots: tuple[Cutout, ...] = (),
) -> FlatPart:
    """A rectangle: long, wide, thick; its corner in (d, w, n)."""
    (long, wide, thick), metal, place = size, joint.plate.metal, joint.frame.placement
    along, across = joint.frame.n, joint.frame.w
    # seen from the side that its thickness grows to
    turn = np.array([along, across, cross(along, across)]).T
    lifted = corner if np.dot(turn[:, 2], joint.frame.d) > 0 else (corner[0] + thick, corner[1], corner[2])
    stand = Placement(turn, place.point(lifted))
    return FlatPart(
        f"{key}-{what}",
        f"{name} {what}",
        1,
        joint.shape.material,
        metal.name,
        thick,
        metal.density_kg_m3,
        ((0.0, 0.0), (long, 0.0), (long, wide), (0.0, wide)),
        holes,
        (),
        notes,
        Stand((long / 2, wide / 2), stand),
        cutouts=slots,
    )


def _in_tab(hole: Hole, long_mm: float, wide_mm: float) -> bool:
    (x, y), r = hole.at, hole.diameter_mm / 2
    return r < x < long_mm - r and r < y < wide_mm - r
