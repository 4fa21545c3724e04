"""How far a gap or a place may be off, as it was taped and as its box is welded."""

from math import hypot

from levelcradle.core.assembly import Assembly, Obstacle, PlacedBox
from levelcradle.core.box import welded_by

__all__ = ["gap_tolerance_mm", "tape_tolerance_mm"]

DEFAULT_TOLERANCE_MM = 3.0  # a reached-in tape and the box as welded: common practice, no source


def gap_tolerance_mm(assembly: Assembly, box: PlacedBox, thing: Obstacle | PlacedBox) -> float:
    """How far a gap between a box and a thing may be off: what the thing was measured to, and half of what the longest
    side of the box may be off as welded, as the root of their squares; 3 mm either way covers both where nothing was
    said.

    Source: independent errors add as the root of their squares; ISO 13920 for the box, class A where none is said.
    """
    stated = assembly.stated_mm(thing)
    return DEFAULT_TOLERANCE_MM if stated is None else hypot(stated, welded_by(box.box, max(box.shell.outer_mm))[0] / 2)


def tape_tolerance_mm(assembly: Assembly, thing: Obstacle) -> float:
    """How far the place of a thing may be off, else 3 mm either way."""
    stated = assembly.stated_mm(thing)
    return DEFAULT_TOLERANCE_MM if stated is None else stated
