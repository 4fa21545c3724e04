"""Edges of a box cut off: the shape that is left, the room beside the modules.

A chamfer is a plane through two lines on the outside, each so far from the edge along its own face.
"""

import math

from levelcradle.core.axes import Vec
from levelcradle.core.design.box import FACE_AT, Box, Chamfer

__all__ = ["beyond", "chamfered", "inside_chamfer", "largest_chamfer", "meeting", "plane_of"]

Plane = tuple[Vec, float]  # outward normal n of length 1 and d: inside is n·p <= d


def plane_of(chamfer: Chamfer, outer: Vec, out_mm: float = 0.0) -> Plane:
    """The sloped face, moved outward by ``out_mm`` (as over a lid's edge)."""
    (i, i_far), (j, j_far) = (FACE_AT[face] for face in chamfer.edge)
    # a length along one face is measured off the other face's plane
    along_i, along_j = chamfer.mm[1], chamfer.mm[0]
    size = math.hypot(1 / along_i, 1 / along_j)
    normal = [0.0, 0.0, 0.0]
    normal[i] = (1 if i_far else -1) / along_i / size
    normal[j] = (1 if j_far else -1) / along_j / size
    edge = [0.0, 0.0, 0.0]
    edge[i], edge[j] = outer[i] if i_far else 0.0, outer[j] if j_far else 0.0
    reach = normal[i] * edge[i] + normal[j] * edge[j] - 1 / size
    return (normal[0], normal[1], normal[2]), reach + out_mm


def chamfered(low: Vec, high: Vec, box: Box, outer: Vec, out_mm: float) -> tuple[Vec, ...] | None:
    """Corners of a block with the box's chamfers cut off it; None where none touches it."""
    corners: list[Vec] = [(x, y, z) for x in (low[0], high[0]) for y in (low[1], high[1]) for z in (low[2], high[2])]
    touched = False
    for chamfer in box.chamfers.values():
        normal, reach = plane_of(chamfer, outer, out_mm)
        if all(_over(normal, reach, c) <= 1e-9 for c in corners):
            continue
        touched = True
        corners = _clipped(corners, normal, reach)
    return tuple(corners) if touched else None


def _over(normal: Vec, reach: float, p: Vec) -> float:
    return normal[0] * p[0] + normal[1] * p[1] + normal[2] * p[2] - reach


def _clipped(corners: list[Vec], normal: Vec, reach: float) -> list[Vec]:
    """A convex body's corners after a cut: those inside, and where lines from inside to outside cross. Lines that are no
    edges cross within the cut face, which adds no corner to the hull."""
    over = [_over(normal, reach, c) for c in corners]
    kept = [c for c, d in zip(corners, over, strict=True) if d <= 1e-9]
    for a, da in zip(corners, over, strict=True):
        for b, db in zip(corners, over, strict=True):
            if da < -1e-9 and db > 1e-9:
                t = da / (da - db)
                kept.append((a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t, a[2] + (b[2] - a[2]) * t))
    return kept


def beyond(chamfer: Chamfer, outer: Vec, at: Vec) -> float:
    """How far a point lies outside the sloped face; below zero inside it."""
    return _over(*plane_of(chamfer, outer), at)


def meeting(box: Box) -> bool:
    """Whether two cut-off edges meet in a corner, or are the same."""
    edges = [frozenset(c.edge) for c in box.chamfers.values()]
    pairs = [one | other for n, one in enumerate(edges) for other in edges[:n]]
    return any(len({FACE_AT[face][0] for face in faces}) == len(faces) for faces in pairs)


def inside_chamfer(chamfer: Chamfer, wall_mm: float, outer: Vec, low: Vec, high: Vec) -> float:
    """Distance from the inside of the sloped wall to an upright block; below zero where it cuts in."""
    normal, reach = plane_of(chamfer, outer)
    far = sum(n * (high[k] if n > 0 else low[k]) for k, n in enumerate(normal))
    return reach - wall_mm - far


def largest_chamfer(edge: tuple[str, str], wall_mm: float, liner_mm: float, outer: Vec, blocks: list[tuple[Vec, Vec]]) -> float:
    """The largest equal-sided chamfer of an edge that leaves the liner's room to every block in the box."""
    (i, i_far), (j, j_far) = (FACE_AT[face] for face in edge)
    free = [
        ((outer[i] - high[i]) if i_far else low[i]) + ((outer[j] - high[j]) if j_far else low[j]) for low, high in blocks
    ]  # fmt: skip
    return min(free, default=0.0) - math.sqrt(2) * (wall_mm + liner_mm)
