"""Gaps between boxes and everything around them, and inside the boxes; the tape between two things."""

from levelcradle.core.clearance.access import access_findings
from levelcradle.core.clearance.catches import Catch, catches
from levelcradle.core.clearance.flags import flag_findings
from levelcradle.core.clearance.gaps import around, gap_findings
from levelcradle.core.clearance.inside import inside_findings
from levelcradle.core.clearance.lay import lay_against
from levelcradle.core.clearance.needs import need_of_boxes, need_of_thing
from levelcradle.core.clearance.rooms import room_findings, room_of
from levelcradle.core.clearance.stackup import StackRow, StackUp, Surface, stack_up
from levelcradle.core.clearance.strayed import strayed
from levelcradle.core.clearance.tape import Taped, move_to, tape_between
from levelcradle.core.clearance.tolerances import gap_tolerance, tape_tolerance

__all__ = [
    "Catch",
    "StackRow",
    "StackUp",
    "Surface",
    "Taped",
    "access_findings",
    "around",
    "catches",
    "flag_findings",
    "gap_findings",
    "gap_tolerance",
    "inside_findings",
    "lay_against",
    "move_to",
    "need_of_boxes",
    "need_of_thing",
    "room_findings",
    "room_of",
    "stack_up",
    "strayed",
    "tape_between",
    "tape_tolerance",
]
