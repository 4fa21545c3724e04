"""Laying a box against something: turned so that its nearest wall lies along it, and moved until the needed gap is just
kept."""

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from levelcradle.core.assembly import Assembly, Obstacle, PlacedBox, PlacedPiece, anchor_of, stands
from levelcradle.core.axes import Matrix, Placement, Vec, dot, minus, plus, rotation, scaled, unit, vec
from levelcradle.core.clearance.gaps import around
from levelcradle.core.clearance.needs import need_of_boxes, need_of_thing
from levelcradle.core.design.box import Pose
from levelcradle.core.errors import DesignError, Problem, UnknownThing
from levelcradle.core.solids import Nearest, Solid, nearest, surface_of

__all__ = ["align_to_face"]

MOST_LEAN_DEG = 45.0
ROUNDING_MM = 0.03  # a pose is written in hundredths and thousandths of a degree: the gap must outlast that
WALLS: tuple[Vec, ...] = ((-1, 0, 0), (1, 0, 0), (0, -1, 0), (0, 1, 0), (0, 0, -1), (0, 0, 1))


@dataclass(frozen=True, slots=True)
class _Side:
    """A piece of what the box is laid against, and the gap it needs."""

    solid: Solid
    need_mm: float


def align_to_face(assembly: Assembly, box_id: str, other: str, *, turn: bool = True) -> Pose:
    """The pose of a box laid against a wall of its bay, a thing or another box, by their paths.

    The wall of the box that looks most at it is turned to lie along the nearest face of it (not with ``turn`` off),
    about the box's anchor; then the box is moved straight along that face's normal until the nearest gap is the needed
    one.
    Raises: UnknownThing; DesignError where that asks for a lean beyond 45 degrees.
    """
    box = assembly.boxes.get(box_id)
    if box is None:
        raise UnknownThing("box", box_id)
    sides = _sides(assembly, box, other)
    near, side = min(((nearest(p.solid, s.solid), s) for p in _own(box) for s in sides), key=lambda row: row[0].gap_mm)
    normal = _normal(side.solid, near)
    placement = _turned(box, normal) if turn else box.placement
    local = _in_its_frame(box)
    pose = _pose(box, _moved(local, placement, sides, normal, room_mm=0.0))
    written = stands(pose, box.shell.outer_mm)
    # lost to the rounding of what is written down
    if max(_lack(s.moved(written), side) for s in local for side in sides) > 0:
        pose = _pose(box, _moved(local, placement, sides, normal, room_mm=ROUNDING_MM))
    return pose


def _lack(solid: Solid, side: _Side) -> float:
    return side.need_mm - nearest(solid, side.solid).gap_mm


def _own(box: PlacedBox) -> list[PlacedPiece]:
    return [p for p in box.pieces if p.mount is None]


def _in_its_frame(box: PlacedBox) -> list[Solid]:
    """The box's pieces in its own frame: of the shell as they were made, so that one that comes to stand straight is
    measured as the checks will measure it, not as a straight block turned there and back."""
    fixed = [p.solid.moved(box.placement.inverse) for p in box.pieces if p.gear]
    return [*(p.solid for p in box.shell.outside), *fixed]


def _sides(assembly: Assembly, box: PlacedBox, other: str) -> list[_Side]:
    if (found := assembly.box_at(other)) and found is not box:
        return [_Side(p.solid, need_of_boxes(assembly, box, found).mm) for p in found.pieces]
    things: list[Obstacle] = [o for o in around(assembly, box) if o.path == other]
    if not things:
        raise UnknownThing("thing with a shape near this box", other)
    return [_Side(o.solid, need_of_thing(assembly, box, o).mm) for o in things]


def _normal(solid: Solid, near: Nearest) -> Vec:
    """Away from the face of a solid that the nearest point lies on; between edges the way from point to point."""
    points, triangles = surface_of(solid)
    way = minus(near.here, near.there) if near.gap_mm > 0 else minus(near.there, near.here)
    best: tuple[float, Vec] | None = None
    for a, b, c in points[triangles]:
        n = np.cross(b - a, c - a)
        size = float(np.linalg.norm(n))
        if size < 1e-9:
            continue
        n = n / size
        off = abs(float(n @ (np.array(near.there) - a)))
        looks = float(n @ np.array(way))
        if off < 0.05 and looks >= -1e-9 and (best is None or looks > best[0]):
            best = looks, (float(n[0]), float(n[1]), float(n[2]))
    return best[1] if best else _apart(near, (0.0, 0.0, 1.0))


def _turned(box: PlacedBox, normal: Vec) -> Placement:
    """The box turned by the least angle that brings its wall facing the thing square to the normal, about its
    anchor."""
    turn = box.placement.turn
    wall = min(WALLS, key=lambda w: dot(vec(turn @ np.array(w)), normal))
    looks = vec(turn @ np.array(wall))
    between = _between(looks, scaled(normal, -1.0))
    anchor = anchor_of(box.box.pose, box.shell.outer_mm)
    return Placement.about(anchor, box.box.pose.at_mm, between @ turn)


def _between(a: Vec, b: Vec) -> Matrix:
    """The least rotation that takes one direction to another (Rodrigues). Raises DesignError beyond 45 degrees."""
    v, c = np.cross(a, b), dot(a, b)
    if c < np.cos(np.radians(MOST_LEAN_DEG)):
        raise DesignError(
            (
                Problem(
                    "", f"it would have to be turned by more than {MOST_LEAN_DEG:g}°: turn it by quarter turns first"
                ),
            )
        )
    k = np.array([[0, -v[2], v[1]], [v[2], 0, -v[0]], [-v[1], v[0], 0]])
    return np.asarray(np.eye(3) + k + k @ k / (1 + c))


FAR_MM = 60_000.0  # beyond any car
FOUND_MM = 0.02


def _moved(local: list[Solid], placement: Placement, sides: list[_Side], normal: Vec, *, room_mm: float) -> Placement:
    """Moved straight along the normal to where the gap is the needed one and ``room_mm``; where that way passes by,
    along the shortest way. ``local``: the box's pieces in its own frame.

    What is lacking grows towards the thing and falls away from it without end, so the place is found by halving.
    Raises: DesignError where no straight move ends there.
    """

    def at(way: Vec, far_mm: float) -> Placement:
        return Placement(placement.turn, plus(placement.origin, scaled(way, far_mm)))

    def lacks(way: Vec, far_mm: float) -> float:
        placed = [s.moved(at(way, far_mm)) for s in local]
        return max(_lack(s, side) for s in placed for side in sides) + room_mm

    placed = [s.moved(placement) for s in local]
    near = min((nearest(s, side.solid) for s in placed for side in sides), key=lambda n: n.gap_mm)
    for way in (normal, _apart(near, normal)):
        far = _where(lambda far, way=way: lacks(way, far))  # type: ignore[misc]
        if far is not None:
            return at(way, far)
    raise DesignError((Problem("", "no straight move ends with that gap: it would pass by"),))


def _apart(near: Nearest, otherwise: Vec) -> Vec:
    """From the thing to the box, where the two stand nearest."""
    way = minus(near.here, near.there) if near.gap_mm > 0 else minus(near.there, near.here)
    return unit(way) if dot(way, way) > 1e-12 else otherwise


def _where(lacks: Callable[[float], float]) -> float | None:
    """How far away from the thing nothing lacks any more, seen from where something does; None where the way never
    comes so near."""
    near = 0.0
    # further off than needed: towards it in growing steps, none of them so long as to pass it unseen
    if lacks(0.0) < 0:
        step = -lacks(0.0)
        while lacks(near) < 0:
            step = max(-lacks(near), FOUND_MM)
            near -= step
            if near < -FAR_MM:
                return None
    far = max(near, 0.0) + 1.0
    while lacks(far) > 0:
        far = far * 2 + 1.0
        if far > FAR_MM:
            return None
    while far - near > FOUND_MM / 20:
        middle = (near + far) / 2
        near, far = (middle, far) if lacks(middle) > 0 else (near, middle)
    return far


def _pose(box: PlacedBox, placement: Placement) -> Pose:
    """Yaw, pitch and roll of a turn, and where the anchor is then; to a hundredth of a millimetre, the angles to a
    thousandth."""
    t = placement.turn
    pitch = float(np.degrees(np.arcsin(np.clip(-t[2, 0], -1, 1))))
    yaw, roll = float(np.degrees(np.arctan2(t[1, 0], t[0, 0]))), float(np.degrees(np.arctan2(t[2, 1], t[2, 2])))
    angles = [round(v, 3) + 0.0 for v in (yaw % 360 if abs(yaw) > 1e-9 else 0.0, pitch, roll)]
    exact = Placement(rotation(*angles), placement.origin)
    at = exact.point(anchor_of(box.box.pose, box.shell.outer_mm))
    return Pose(
        anchor=box.box.pose.anchor,
        at_mm=(round(at[0], 2), round(at[1], 2), round(at[2], 2)),
        yaw_deg=angles[0] % 360,
        pitch_deg=angles[1],
        roll_deg=angles[2],
    )
