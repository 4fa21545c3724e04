"""How far the welds of a box may pull it in."""

from levelcradle.core.axes import Vec
from levelcradle.core.design.box import Box
from levelcradle.core.tolerances import tolerance_by

__all__ = ["pull_mm", "welded_by"]

UNSAID = "A"  # a length's tolerance where nobody has said a class


def welded_by(box: Box, mm: float) -> tuple[float, str]:
    """How far a welded length of a box may be off either way, and the source of that."""
    return tolerance_by(f"welded {box.weld_class or UNSAID}", mm)


def pull_mm(box: Box, inside_mm: Vec) -> Vec:
    """How much of an inside its welds may take, aft, across and up: as much as a length of that class may be off, for
    welds shrink and all of it may go inward (common practice, no source). Nothing along what is not welded, and where
    nobody has said a class."""
    x, y, z = (
        welded_by(box, mm)[0] if box.weld_class and welded else 0.0
        for mm, welded in zip(inside_mm, box.construction.welded, strict=True)
    )
    return x, y, z
