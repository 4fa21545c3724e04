"""Boxes: what is in them, and round that the shell their construction makes: solids, mass, parts, findings."""

from levelcradle.core.box.chambers import ChamberMade
from levelcradle.core.box.chamfers import inside_chamfer, largest_chamfer, lined_beside, meeting
from levelcradle.core.box.cut_out import notched
from levelcradle.core.box.lightening import Lightened
from levelcradle.core.box.liners import LinerPiece, board_pieces, in_one_strip, liner_pieces, runner_count
from levelcradle.core.box.made import Layers, Made, StackRow, Wall
from levelcradle.core.box.openings import SEEN, OnFace, before_face, on_face, openings_of, outward
from levelcradle.core.box.piece import Outside, Piece, Role
from levelcradle.core.box.plates import divider_part
from levelcradle.core.box.service_panels import ServicePanelMade
from levelcradle.core.box.shell import InnerGap, Shell, ShellModule, shell_of
from levelcradle.core.box.welding import welded_by

__all__ = [
    "SEEN",
    "ChamberMade",
    "InnerGap",
    "Layers",
    "Lightened",
    "Made",
    "Outside",
    "ServicePanelMade",
    "Piece",
    "Role",
    "Shell",
    "ShellModule",
    "StackRow",
    "Wall",
    "divider_part",
    "notched",
    "in_one_strip",
    "inside_chamfer",
    "largest_chamfer",
    "lined_beside",
    "meeting",
    "on_face",
    "LinerPiece",
    "OnFace",
    "board_pieces",
    "liner_pieces",
    "before_face",
    "openings_of",
    "outward",
    "runner_count",
    "shell_of",
    "welded_by",
]
