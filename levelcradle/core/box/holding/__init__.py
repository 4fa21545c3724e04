"""What holds the modules of a box: in the box's own frame, before anybody asks what a crash does to it."""

from levelcradle.core.box.holding.bolted import sheet_check
from levelcradle.core.box.holding.fit import PLAY_MM, FaceHeld, FitHeld, settles
from levelcradle.core.box.holding.kinds import KINDS, Held, room_of
from levelcradle.core.box.holding.stack import Check, Forces, Grip, Holding, Placed, Stack, tool_mm

__all__ = [
    "KINDS",
    "PLAY_MM",
    "Check",
    "FaceHeld",
    "FitHeld",
    "Forces",
    "Grip",
    "Held",
    "Holding",
    "Placed",
    "Stack",
    "room_of",
    "settles",
    "sheet_check",
    "tool_mm",
]
