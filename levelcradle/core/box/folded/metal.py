"""The metal of a folded box as real solids: blanks folded up, plates in cut-off edges."""

import math
from collections.abc import Callable, Iterator, Sequence
from dataclasses import replace

from levelcradle.core.axes import Vec
from levelcradle.core.box.chamfers import plane_of
from levelcradle.core.box.folded.edges import ends_of
from levelcradle.core.box.folded.flat_pattern import FIT_UP_MM, Slope
from levelcradle.core.box.folded.folding import Strip, folded_up
from levelcradle.core.box.folded.sheet import Sheet
from levelcradle.core.box.openings import FaceHole
from levelcradle.core.box.piece import Piece, Role
from levelcradle.core.design.box import FACE_AT, Chamfer
from levelcradle.core.design.tables import Material
from levelcradle.core.solids import Solid, corner_points, hull

__all__ = ["corner_plate", "folded_pieces", "strip_piece"]

Put = Callable[[Vec], Vec]


def folded_pieces(sheet: Sheet, holes: Sequence[FaceHole]) -> Iterator[Piece]:
    """The tray and its corner plates, less the holes through it."""
    length, width, height = sheet.outer_mm

    def in_tray(p: Vec) -> Vec:
        return length / 2 + p[0], width / 2 + p[1], p[2]

    for strip in folded_up(sheet.tray):
        face = strip.face or "base"
        through = [h for h in holes if h.face == face] if strip.kind in ("base", "wall") else []
        part = f"{face}-wall" if strip.face in sheet.tray.separate else "tray"
        name = "floor" if strip.kind == "base" else f"{strip.face} {strip.kind}"
        yield replace(strip_piece(strip, name, _TRAY[strip.kind], in_tray, through, sheet.material), part=part)
    for chamfer in sheet.upright:
        (end, long), cut = ends_of(chamfer)
        up = (sheet.tray.foot_mm, height)
        yield corner_plate(sheet, chamfer, f"corner {end} {long}", "slope", cut, (0.0, sheet.t), up)


_TRAY: dict[str, Role] = {"base": "base", "wall": "wall", "slope": "slope", "bend": "bend"}


def strip_piece(strip: Strip, name: str, role: Role, put: Put, holes: Sequence[FaceHole], material: Material) -> Piece:
    """A strip as a piece of the box. A hole takes its round away at its place."""
    t = strip.thickness_mm
    per_mm2 = t * material.density_kg_m3 * 1e-9
    rows = [
        (strip.area_mm2, put(strip.centre)),
        *((-math.pi / 4 * h.diameter_mm**2, _in_the_sheet(h, t)) for h in holes),
    ]
    area = sum(row[0] for row in rows)
    x, y, z = (sum(a * at[i] for a, at in rows) / area if area else rows[0][1][i] for i in range(3))
    solids = strip.solids

    def build() -> tuple[Solid, ...]:
        return tuple(hull([put((p[0], p[1], p[2])) for p in corner_points([solid]).tolist()]) for solid in solids())

    return Piece(name, role, area * per_mm2, (x, y, z), build)


def _in_the_sheet(hole: FaceHole, t: float) -> Vec:
    """The middle of a hole, half a sheet inward of its face."""
    axis, far = FACE_AT[hole.face]
    at = list(hole.at)
    at[axis] += (-t if far else t) / 2
    return at[0], at[1], at[2]


def corner_plate(
    sheet: Sheet,
    chamfer: Chamfer,
    name: str,
    role: Role,
    cut: tuple[float, float],
    out_and_thick_mm: tuple[float, float],
    up: tuple[float, float],
) -> Piece:
    """The plate in an upright edge that is cut off, flush with the slope so far outside the tray's, so thick, its long
    edges bevelled."""
    out_mm, t = out_and_thick_mm
    normal, _ = plane_of(chamfer, sheet.outer_mm, out_mm)
    (end, long), _ = ends_of(chamfer)
    corner = [FACE_AT[end][1] * sheet.outer_mm[0], FACE_AT[long][1] * sheet.outer_mm[1]]
    signs = [1 if FACE_AT[face][1] else -1 for face in (end, long)]
    starts = (
        (corner[0] + signs[0] * (out_mm - cut[0]), corner[1] + signs[1] * out_mm),
        (corner[0] + signs[0] * out_mm, corner[1] + signs[1] * (out_mm - cut[1])),
    )
    slope = Slope(*cut)
    along = ((starts[1][0] - starts[0][0]) / slope.long_mm, (starts[1][1] - starts[0][1]) / slope.long_mm)
    bevels = [
        t * math.tan(math.radians(angle)) for angle in slope.angles_deg
    ]  # its edges stand square to the walls they meet

    def at(from_start_mm: float, from_end_mm: float, depth_mm: float) -> list[tuple[float, float]]:
        rows = ((starts[0], from_start_mm), (starts[1], -from_end_mm))
        return [
            (p[0] + along[0] * s - normal[0] * depth_mm, p[1] + along[1] * s - normal[1] * depth_mm) for p, s in rows
        ]

    ring = [*at(FIT_UP_MM, FIT_UP_MM, 0.0), *at(FIT_UP_MM + bevels[0], FIT_UP_MM + bevels[1], t)]
    wide = slope.long_mm - 2 * FIT_UP_MM
    volume = wide * t * (up[1] - up[0])  # as cut, before its edges are bevelled
    x, y = (sum(p[i] for p in ring) / 4 for i in (0, 1))
    return Piece(
        name,
        role,
        volume * sheet.material.density_kg_m3 * 1e-9,
        (x, y, sum(up) / 2),
        lambda: (hull([(a, b, z) for a, b in ring for z in up]),),
    )
