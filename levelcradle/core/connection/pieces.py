"""What kinds of mounts have in common of their solids."""

import math
from collections.abc import Iterator

from levelcradle.core.design.mount import Bolt
from levelcradle.core.design.tables import BoltSize, Tables

__all__ = ["STEEL_KG_MM3", "class_asks", "head_kg", "usual_class"]

STEEL_KG_MM3 = 7850e-9


def head_kg(bolt: BoltSize) -> float:
    """Of a bolt's head and its washer [kg]; its shank fills the hole."""
    hexagon = math.sqrt(3) / 2 * bolt.across_flats_mm**2 * bolt.head_mm
    washer = math.pi / 4 * (bolt.washer_mm**2 - bolt.washer_hole_mm**2) * bolt.washer_thick_mm
    return (hexagon + washer) * STEEL_KG_MM3


def class_asks(bolt: Bolt, tables: Tables) -> Iterator[tuple[str, bool]]:
    """Whether bolts of a size are made of a class: metric ones of classes, inch ones of grades. Said where not."""
    size, grade = tables.bolts[bolt.size], tables.bolt_classes[bolt.property_class]
    if size.thread != grade.thread:
        yield f"{bolt.size} of class {bolt.property_class}: that is a class of {grade.thread} bolts", False


def usual_class(size: BoltSize, like: str = "8.8") -> str:
    """The class that a bolt of a size is asked for in, or as strong as a metric one."""
    return like if size.thread == "metric" else {"8.8": "grade 5", "10.9": "grade 8"}.get(like, "grade 5")
