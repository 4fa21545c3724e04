"""What kinds of mounts have in common of their solids."""

import math

from levelcradle.core.design.tables import BoltSize

__all__ = ["STEEL_KG_MM3", "head_kg"]

STEEL_KG_MM3 = 7850e-9


def head_kg(bolt: BoltSize) -> float:
    """Of a bolt's head and its washer [kg]; its shank fills the hole."""
    hexagon = math.sqrt(3) / 2 * bolt.across_flats_mm**2 * bolt.head_mm
    washer = math.pi / 4 * (bolt.washer_mm**2 - bolt.washer_hole_mm**2) * bolt.washer_thick_mm
    return (hexagon + washer) * STEEL_KG_MM3
