"""The shell around the blocks: liners, walls, lid, openings; and the flat parts it is folded from."""

from levelcradle.core.box.chamfers import largest_chamfer
from levelcradle.core.box.feasible import Makeable, makeable
from levelcradle.core.box.folded import SheetBend, divider_part, lid_part, sheet_bend, tray_part
from levelcradle.core.box.openings import hole_places, on_face
from levelcradle.core.box.piece import Piece
from levelcradle.core.box.shell import InnerGap, Shell, ShellModule, shell_of

__all__ = [
    "InnerGap", "Makeable", "Piece", "SheetBend", "Shell", "ShellModule", "hole_places", "lid_part", "on_face", "makeable",
    "divider_part", "largest_chamfer", "sheet_bend", "shell_of", "tray_part",
]  # fmt: skip
