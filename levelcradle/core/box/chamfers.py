"""Edges of a box cut off: the shape that is left, the room beside the modules.

A chamfer is a plane through two lines on the outside, each so far from the edge along its own face.
"""

import math
from collections.abc import Iterator, Sequence
from itertools import combinations, product

import numpy as np

from levelcradle.core.axes import Matrix, Vec, dot, vec
from levelcradle.core.design.base import Face
from levelcradle.core.design.box import FACE_AT, Box, Chamfer, edges_meet
from levelcradle.core.solids import Solid, hull

__all__ = [
    "along_edge",
    "beside_steps",
    "beyond",
    "chamfered",
    "inside_chamfer",
    "largest_chamfer",
    "lined_beside",
    "meeting",
    "plane_of",
]

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


def chamfered(
    low: Vec, high: Vec, box: Box, outer: Vec, out_mm: float, above_mm: float = 0.0
) -> tuple[Vec, ...] | None:
    """Corners of a block with the box's chamfers cut off it, so far outside the tray's, those of its rim so far above
    that; None where none touches it. Steps stay."""
    corners = np.array(list(product(*zip(low, high, strict=True))))
    touched = False
    for chamfer in box.chamfers.values():
        if chamfer.square:
            continue
        normal, reach = plane_of(chamfer, outer, above_mm if "top" in chamfer.edge else out_mm)
        over = corners @ np.array(normal) - reach
        if over.max() > 1e-9:
            touched, corners = True, _clipped(corners, over)
    return tuple(vec(corner) for corner in corners) if touched else None


def _clipped(corners: Matrix, over: Matrix) -> Matrix:
    """A convex body's corners after a cut: those inside, and where lines from inside to outside cross. Lines that are
    no edges cross within the cut face, which adds no corner to the hull. The mesh kernel takes four times as long, for
    every module."""
    inside, outside = over < -1e-9, over > 1e-9
    share = over[inside][:, None] / (over[inside][:, None] - over[outside][None, :])
    across = corners[inside][:, None] + (corners[outside][None] - corners[inside][:, None]) * share[..., None]
    return np.concatenate([corners[~outside], across.reshape(-1, 3)])


def beyond(chamfer: Chamfer, outer: Vec, at: Vec) -> float:
    """How far a point lies outside what is cut off; below zero inside it."""
    if chamfer.square:
        off = _off_the_step(chamfer, outer, at, at)
        return min(-off[0], -off[1]) if max(off) < 0 else -math.hypot(*(max(mm, 0.0) for mm in off))
    normal, reach = plane_of(chamfer, outer)
    return dot(normal, at) - reach


def _off_the_step(chamfer: Chamfer, outer: Vec, low: Vec, high: Vec) -> tuple[float, float]:
    """How far an upright block lies beyond a step: inward of its riser, and above its shelf."""
    wall = next(face for face in chamfer.edge if face != "base")
    (axis, far), mm = FACE_AT[wall], chamfer.along_mm
    return (outer[axis] - high[axis] if far else low[axis]) - mm["base"], low[2] - mm[wall]


def along_edge(face: str, section: Sequence[tuple[float, float]], outer: Vec, ends: tuple[float, float]) -> Solid:
    """A convex section beside a wall, (inward of its outside, up), drawn out along it from end to end."""
    axis, far = FACE_AT[face]
    corners = []
    for inward, up in section:
        for end in ends:
            at = [0.0, 0.0, up]
            at[axis], at[1 - axis] = (outer[axis] - inward if far else inward), end
            corners.append((at[0], at[1], at[2]))
    return hull(corners)


def beside_steps(low: Vec, high: Vec, box: Box, outer: Vec) -> list[tuple[Vec, Vec]]:
    """A block parted at the steps of a box: what of it lies above their shelves, and what inward of their risers."""
    blocks = [(low, high)]
    for chamfer in box.chamfers.values():
        if chamfer.square:
            wall = next(face for face in chamfer.edge if face != "base")
            (axis, far), mm = FACE_AT[wall], chamfer.along_mm
            at = outer[axis] - mm["base"] if far else mm["base"]
            blocks = [part for block in blocks for part in _parted(*block, (axis, far > 0, at, mm[wall]))]
    return blocks


def _parted(low: Vec, high: Vec, step: tuple[int, bool, float, float]) -> Iterator[tuple[Vec, Vec]]:
    axis, far, at, up = step
    shelf = min(max(up, low[2]), high[2])
    if shelf < high[2]:
        yield (low[0], low[1], shelf), high
    if low[2] < shelf:
        start, end = list(low), [high[0], high[1], shelf]
        (end if far else start)[axis] = min(end[axis], at) if far else max(start[axis], at)
        if start[axis] < end[axis]:
            yield (start[0], start[1], start[2]), (end[0], end[1], end[2])


def meeting(box: Box) -> bool:
    """Whether two cut-off edges meet in a corner, or are the same."""
    return any(edges_meet(one.edge, other.edge) for one, other in combinations(box.chamfers.values(), 2))


def inside_chamfer(chamfer: Chamfer, wall_mm: float, outer: Vec, low: Vec, high: Vec) -> float:
    """Distance from the inside of the sloped wall to an upright block; below zero where it cuts in. Over an edge of the
    rim that is cut off lies the lid, outside it."""
    if chamfer.square:
        off = [mm - wall_mm for mm in _off_the_step(chamfer, outer, low, high)]
        return max(off) if max(off) < 0 else math.hypot(*(max(mm, 0.0) for mm in off))
    normal, reach = plane_of(chamfer, outer)
    far = sum(n * (high[k] if n > 0 else low[k]) for k, n in enumerate(normal))
    return reach - (0.0 if "top" in chamfer.edge else wall_mm) - far


def lined_beside(box: Box, edge: tuple[Face, Face]) -> float:
    """How thick the liner beside an edge is: of the walls that meet in it, the thicker."""
    return max(box.lined_mm(face) for face in edge if face != "base")


def largest_chamfer(
    edge: tuple[Face, Face],
    wall_mm: float,
    liner_mm: float,
    outer: Vec,
    blocks: Sequence[tuple[Vec, Vec]],
    slope: tuple[float, float],
) -> tuple[float, float]:
    """How far the largest cut of an edge goes along each of its two faces, so that the liner's room is left to every
    block in the box; at or below zero where there is none. ``slope``: the cut face looks so much the one face's way, so
    much the other's."""
    (i, i_far), (j, j_far) = (FACE_AT[face] for face in edge)
    size = math.hypot(*slope)
    a, b = slope[0] / size, slope[1] / size
    free = [
        a * ((outer[i] - high[i]) if i_far else low[i]) + b * ((outer[j] - high[j]) if j_far else low[j])
        for low, high in blocks
    ]
    deep = min(free, default=0.0) - wall_mm - liner_mm
    return deep / b, deep / a
