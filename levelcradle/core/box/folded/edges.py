"""Cut-off edges of a folded box: which walls they end, and how far they go along the lid."""

import math

from levelcradle.core.box.folded.flat_pattern import Slope
from levelcradle.core.design.box import Chamfer
from levelcradle.core.part import Flat

__all__ = ["ends_of", "lengthened", "over_the_lid", "slope_of", "step_of", "top_of"]


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


def step_of(chamfer: Chamfer) -> tuple[str, Flat]:
    """Of an edge of the base that is cut out square: its wall, and how far it goes inward and up."""
    wall, slope = slope_of(chamfer)
    return wall, (slope.base_mm, slope.wall_mm)


def top_of(chamfer: Chamfer) -> tuple[str, Flat]:
    """Of an edge of the rim: its wall, and how far it goes inward along the top and down the wall."""
    mm = chamfer.along_mm
    wall = next(face for face in chamfer.edge if face != "top")
    return wall, (mm["top"], mm[wall])


def over_the_lid(top: Flat, thick_mm: float, out_mm: float) -> Slope:
    """The slope of a lid that lies on a cut-off edge of the rim, along its own top and edge, whose outsides lie its
    thickness above the rim and ``out_mm`` off the wall (plane geometry)."""
    in_, down = top
    back = 1 - thick_mm * math.hypot(1 / in_, 1 / down)
    return Slope(out_mm + in_ * (back + thick_mm / down), thick_mm + down * (back + out_mm / in_))


def lengthened(cut: Flat, out_mm: float) -> Flat:
    """A cut of an upright edge as long as its slope is ``out_mm`` further out."""
    a, b = cut
    share = 1 + out_mm * (1 / a + 1 / b - math.hypot(1 / a, 1 / b))
    return a * share, b * share
