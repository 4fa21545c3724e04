"""Flat rectangular plates of a box: dividers, plates welded into cut-off edges, and its walls as what bears on them
meets them."""

import numpy as np

from levelcradle.core.axes import Placement, Vec, vec
from levelcradle.core.design.base import FACE_AT, Face
from levelcradle.core.design.box import Box
from levelcradle.core.design.tables import Material
from levelcradle.core.part import FlatPart, Stand
from levelcradle.core.strength import Plate

__all__ = ["WINDOW_KG_M3", "divider_part", "plate_part", "wall_plate", "window_bought"]

WINDOW_KG_M3 = 1200.0  # polycarbonate: handbooks, from memory

Held = tuple[tuple[bool, bool], tuple[bool, bool]]


def plate_part(
    id_: str,
    name: str,
    of: tuple[str, Material],
    thickness_mm: float,
    size_mm: tuple[float, float],
    notes: tuple[str, ...],
    placement: Placement | None = None,
) -> FlatPart:
    """A rectangle of sheet without holes, its middle at the origin of ``placement``. ``of``: id of its material, and
    the material."""
    (a, b), (key, material) = (v / 2 for v in size_mm), of
    outline = ((-a, -b), (a, -b), (a, b), (-a, b))
    stand = Stand((0.0, 0.0), placement) if placement else None
    return FlatPart(
        id_, name, 1, key, material.name, thickness_mm, material.density_kg_m3, outline, (), (), notes, stand
    )


def divider_part(box_id: str, name: str, number: int, low: Vec, high: Vec, of: tuple[str, Material]) -> FlatPart:
    """A flat plate between modules, by its corners in the box."""
    thick = min(range(3), key=lambda i: high[i] - low[i])
    a, b = (high[i] - low[i] for i in range(3) if i != thick)
    notes = ("Stands across the whole inside of the box",)
    first, second = (i for i in range(3) if i != thick)
    axes = np.eye(3)[[first, second]]
    corner = [(v + h) / 2 for v, h in zip(low, high, strict=True)]
    normal = np.cross(*axes)
    corner[thick] = low[thick] if normal[thick] > 0 else high[thick]
    placement = Placement(np.array([*axes, normal]).T, vec(corner))
    return plate_part(
        f"{box_id}-divider-{number}", f"{name} divider {number}", of, high[thick] - low[thick], (a, b), notes, placement
    )


def window_bought(thickness_mm: float, size_mm: tuple[float, float], of: str) -> tuple[str, int]:
    """What is bought for a window, and how many of it."""
    wide, tall = size_mm
    return f"clear polycarbonate {thickness_mm:g} mm, {wide:g} × {tall:g}: {of}", 1


def wall_plate(box: Box, face: Face, inner: Vec, thickness_mm: float, material: Material, held: Held) -> Plate:
    """A wall or the base between its edges, less the openings of the service panels in it and a row of its lightening
    holes. ``held``: of its first way's
    two edges, and its second's, which hold it from turning."""
    one, other = (mm for i, mm in enumerate(inner) if i != FACE_AT[face][0])
    cut = [panel.size_mm for panel in box.service_panels.values() if panel.face == face]
    shares = [min(sum(a for a, _ in cut) / one, 1.0), min(sum(b for _, b in cut) / other, 1.0)] if cut else [0.0]
    holes = [row.diameter_mm / row.apart_mm for row in box.lightening.values() if row.face == face]
    left = (1 - max(shares)) * (1 - min(max(holes, default=0.0), 1.0))
    return Plate((one, other), thickness_mm, material, held, 1 - left)
