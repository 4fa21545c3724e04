"""The folded-sheet box: a tray folded from one sheet with a cap of the same over it."""

from levelcradle.core.box.folded.box import FoldedBox
from levelcradle.core.box.folded.feasible import Makeable, least_chamfer, makeable
from levelcradle.core.box.folded.flat_parts import corner_parts, lid_part, separate_parts, tray_part
from levelcradle.core.box.folded.flat_pattern import SheetBend
from levelcradle.core.box.folded.screws import hole_places
from levelcradle.core.box.folded.sheet import Sheet

__all__ = [
    "FoldedBox",
    "Makeable",
    "Sheet",
    "SheetBend",
    "corner_parts",
    "hole_places",
    "least_chamfer",
    "lid_part",
    "separate_parts",
    "makeable",
    "tray_part",
]
