"""Cut-off edges of a folded box: which walls they end, and how far they go along the lid."""

import math

from levelcradle.core.box.folded.flat_pattern import Slope
from levelcradle.core.design.box import Chamfer
from levelcradle.core.part import Flat

__all__ = ["ends_of", "lengthened", "slope_of"]


def ends_of(chamfer: Chamfer) -> tuple[tuple[str, str], Flat]:
    """Of an upright edge: its end wall and long wall, and what goes along the long one and along the end one."""
    mm = chamfer.along_mm
    end = next(face for face in chamfer.edge if face in ("front", "aft"))
    long = next(face for face in chamfer.edge if face != end)
    return (end, long), (mm[long], mm[end])


def slope_of(chamfer: Chamfer) -> tuple[str, Slope]:
    """Of an edge of the base: its wall, and the slope."""
    mm = chamfer.along_mm
    wall = next(face for face in chamfer.edge if face != "base")
    return wall, Slope(mm["base"], mm[wall])


def lengthened(cut: Flat, out_mm: float) -> Flat:
    """A cut of an upright edge as long as its slope is ``out_mm`` further out."""
    a, b = cut
    share = 1 + out_mm * (1 / a + 1 / b - math.hypot(1 / a, 1 / b))
    return a * share, b * share
