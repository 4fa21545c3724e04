"""The folded-sheet box: a tray folded from one sheet, with a cap over it or a flat lid on a flange."""

from levelcradle.core.box.folded.box import FoldedBox
from levelcradle.core.box.folded.feasible import Makeable, least_chamfer
from levelcradle.core.box.folded.flat_parts import tray_part
from levelcradle.core.box.folded.flat_pattern import SheetBend
from levelcradle.core.box.folded.sheet import Sheet

__all__ = ["FoldedBox", "Makeable", "Sheet", "SheetBend", "least_chamfer", "tray_part"]
