"""The shell around the blocks: liners, walls, lid, openings; and the flat parts it is folded from."""

from levelcradle.core.box.chamfers import WallLeft, chamfered, inside_chamfer, largest_chamfer, meeting, wall_left
from levelcradle.core.box.feasible import Makeable, least_chamfer, makeable
from levelcradle.core.box.folded import corner_parts, crossing, deduction_limits, divider_part, lid_part, sheet_bend, tray_part
from levelcradle.core.box.openings import hole_places, on_face
from levelcradle.core.box.pan import SheetBend
from levelcradle.core.box.piece import Piece
from levelcradle.core.box.shell import InnerGap, Shell, ShellModule, shell_of

__all__ = [
    "InnerGap", "Makeable", "Piece", "SheetBend", "Shell", "ShellModule", "WallLeft", "chamfered", "corner_parts", "crossing",
    "deduction_limits", "divider_part", "hole_places",
    "inside_chamfer", "largest_chamfer", "least_chamfer", "lid_part", "makeable", "meeting", "on_face",
    "sheet_bend", "shell_of", "tray_part", "wall_left",
]  # fmt: skip
