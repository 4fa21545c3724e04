"""The assembly cut square to the aft axis, and as bodies to walk round."""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise

import numpy as np

from levelcradle.core.apart import BRACKET_MM, closure_off, holders_off, modules_off, mount_off, side_off, sides_apart
from levelcradle.core.assembly import Assembly, PlacedBox
from levelcradle.core.axes import Matrix, Vec
from levelcradle.core.bays import sections
from levelcradle.core.solids import Polygon, Solid, block, convex_ring, surface_of

__all__ = ["Body", "Cut", "bodies", "cut_at", "rings_at"]


STILL: Vec = (0.0, 0.0, 0.0)


@dataclass(frozen=True, slots=True)
class Cut:
    """What the plane meets of one thing: a closed outline in (right, up), or the pieces of line of a scan."""

    path: str
    kind: str
    name: str
    outline: Polygon
    gap_class: str = ""
    owner: str = ""
    label: str = ""


@dataclass(frozen=True, slots=True)
class Body:
    """One piece as triangles: points [mm] and three indices each. ``apart_mm``: how far it goes when its box is taken
    apart."""

    path: str
    kind: str
    name: str
    points: tuple[Vec, ...]
    triangles: tuple[tuple[int, int, int], ...]
    gap_class: str = ""
    owner: str = ""
    label: str = ""
    apart_mm: Vec = STILL


def cut_at(assembly: Assembly, aft_mm: float) -> tuple[Cut, ...]:
    """Every thing that a plane at so far aft meets; bays first, boxes last."""
    return (*_bays(assembly, aft_mm), *_things(assembly, aft_mm), *_boxes(assembly, aft_mm))


def _bays(assembly: Assembly, aft_mm: float) -> Iterator[Cut]:
    for key, bay in assembly.bays.items():
        found = sections(bay)
        for near, far in pairwise(found):
            if near.aft_mm <= aft_mm <= far.aft_mm:
                share = (aft_mm - near.aft_mm) / (far.aft_mm - near.aft_mm)
                ring = tuple(
                    (a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share)
                    for a, b in zip(near.ring, far.ring, strict=True)
                )
                yield Cut(f"bays/{key}", "bay", bay.name, _rounded(ring))
                break


def _things(assembly: Assembly, aft_mm: float) -> Iterator[Cut]:
    for thing in assembly.obstacles:
        kind = KINDS[thing.kind]
        for ring in rings_at(thing.solid, aft_mm):
            yield Cut(thing.path, kind, thing.name, ring, "crush" if thing.crush else thing.gap_class)


KINDS = {"thing": "item", "room": "item", "space": "keepout", "member": "member"}


def _boxes(assembly: Assembly, aft_mm: float) -> Iterator[Cut]:
    for owner, piece in _box_pieces(assembly):
        for ring in rings_at(piece.solid, aft_mm):
            yield Cut(_path(owner, piece), piece.kind, piece.name, ring, owner=owner, label=piece.label)


def _path(owner: str, piece: "_Piece") -> str:
    return f"{owner}#{piece.label}" if piece.label else owner


def _box_pieces(assembly: Assembly) -> Iterator[tuple[str, "_Piece"]]:
    before = 0
    for box in assembly.in_order():
        for piece in _pieces_of(box, before):
            yield box.path, piece
        before += len(box.shell.modules)


@dataclass(frozen=True, eq=False, slots=True)
class _Piece:
    """A solid of a box, and how far it goes when the box is taken apart."""

    kind: str
    name: str
    label: str
    solid: Solid
    apart_mm: Vec = STILL


@lru_cache(maxsize=64)
def _pieces_of(box: PlacedBox, before: int) -> tuple[_Piece, ...]:
    rows, turn = [], box.placement.direction
    off = {piece.part: side_off(box, piece.centre) for piece in sides_apart(box)}
    for piece in box.shell.pieces:
        by = closure_off(box) if piece.role in ("closure", "fastener") else off.get(piece.part, STILL)
        if piece.role == "holder":
            by = holders_off(box)
        rows += [_Piece("metal", piece.name, "", solid.moved(box.placement), turn(by)) for solid in piece.solids]
    spots = {mount.id: box.placement.inverse.point(mount.spot.at) for mount in box.mounts}
    for outside in box.pieces:
        if outside.role not in ("body", "closure", "fastener", "chamber", "panel"):
            by = mount_off(box, spots[outside.mount], BRACKET_MM) if outside.mount in spots else STILL
            rows.append(_Piece("bracket", outside.name, "", outside.solid, turn(by)))
    for module in box.shell.modules:
        number, solid = str(before + module.number), block(module.low, module.high).moved(box.placement)
        rows.append(_Piece("module", f"module {number}", number, solid, turn(modules_off(box))))
    return tuple(rows)


def rings_at(solid: Solid, aft_mm: float) -> Iterator[Polygon]:
    """Where a plane square to the aft axis meets a solid, in (right, up)."""
    if not solid.low[0] <= aft_mm <= solid.high[0]:
        return
    if solid.upright:
        (_, y0, z0), (_, y1, z1) = solid.low, solid.high
        yield _rounded(((y0, z0), (y1, z0), (y1, z1), (y0, z1)))
        return
    points, triangles = surface_of(solid)
    segments = _crossings(points[triangles], aft_mm)
    if solid.surface:
        yield from (_rounded(((a[0], a[1]), (b[0], b[1]))) for a, b in segments.tolist())
    elif len(segments):
        yield _rounded(tuple(convex_ring([(float(y), float(z)) for y, z in segments.reshape(-1, 2)])))


def _crossings(triangles: Matrix, aft_mm: float) -> Matrix:
    """(n, 2, 2): the line in which each triangle meets the plane, in (right, up). The mesh kernel slices closed bodies
    only; the sides of a space and most scans are open."""
    over = triangles[:, :, 0] - aft_mm
    hit = (over.min(axis=1) <= 0) & (over.max(axis=1) >= 0) & (np.ptp(over, axis=1) > 1e-9)
    out = []
    for corners, sides in zip(triangles[hit], over[hit], strict=True):
        ends = []
        for i, j in ((0, 1), (1, 2), (2, 0)):
            if (sides[i] <= 0 < sides[j]) or (sides[j] <= 0 < sides[i]):
                share = sides[i] / (sides[i] - sides[j])
                ends.append(corners[i, 1:] + (corners[j, 1:] - corners[i, 1:]) * share)
        if len(ends) == 2:
            out.append(ends)
    return np.array(out).reshape(-1, 2, 2)


def _rounded(ring: Polygon) -> Polygon:
    return tuple((round(a, 2), round(b, 2)) for a, b in ring)


def bodies(assembly: Assembly) -> tuple[Body, ...]:
    """Everything as triangles."""
    return (*_thing_bodies(assembly), *_box_bodies(assembly))


def _thing_bodies(assembly: Assembly) -> Iterator[Body]:
    for thing in assembly.obstacles:
        gap_class = "crush" if thing.crush else thing.gap_class
        yield Body(thing.path, KINDS[thing.kind], thing.name, *_triangles(thing.solid), gap_class)


def _box_bodies(assembly: Assembly) -> Iterator[Body]:
    for owner, piece in _box_pieces(assembly):
        shape, path = _triangles(piece.solid), _path(owner, piece)
        yield Body(path, piece.kind, piece.name, *shape, owner=owner, label=piece.label, apart_mm=piece.apart_mm)


@lru_cache(maxsize=4096)
def _triangles(solid: Solid) -> tuple[tuple[Vec, ...], tuple[tuple[int, int, int], ...]]:
    points, triangles = surface_of(solid)
    rows = tuple((round(float(x), 2), round(float(y), 2), round(float(z), 2)) for x, y, z in points)
    return rows, tuple((int(a), int(b), int(c)) for a, b, c in triangles)
