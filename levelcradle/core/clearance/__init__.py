"""Gaps between boxes and everything around them, and inside the boxes; the tape between two things."""

from levelcradle.core.clearance.access import access_findings, hand_before
from levelcradle.core.clearance.align import align_to_face
from levelcradle.core.clearance.bonding import bonding_findings
from levelcradle.core.clearance.compartments import Compartment, compartments_of
from levelcradle.core.clearance.fillers import filler_findings
from levelcradle.core.clearance.flags import flag_findings
from levelcradle.core.clearance.gaps import around, gap_findings
from levelcradle.core.clearance.inside import inside_findings
from levelcradle.core.clearance.mating import mating_findings
from levelcradle.core.clearance.moves import meets
from levelcradle.core.clearance.needs import need_of_boxes, need_of_thing
from levelcradle.core.clearance.openings import opening_findings
from levelcradle.core.clearance.outside_bay import outside_bay
from levelcradle.core.clearance.relief import relief_findings
from levelcradle.core.clearance.rooms import room_findings, room_of
from levelcradle.core.clearance.snap_points import SnapPoint, snap_points
from levelcradle.core.clearance.stack_rows import rows_through
from levelcradle.core.clearance.stackup import Axis, StackRow, StackUp, Surface, stack_up
from levelcradle.core.clearance.tape import Taped, move_to, tape_between
from levelcradle.core.clearance.tolerances import gap_tolerance_mm, tape_tolerance_mm
from levelcradle.core.clearance.ways_out import as_obstacles

__all__ = [
    "filler_findings",
    "mating_findings",
    "Compartment",
    "compartments_of",
    "Axis",
    "SnapPoint",
    "StackRow",
    "StackUp",
    "Surface",
    "Taped",
    "access_findings",
    "align_to_face",
    "around",
    "as_obstacles",
    "bonding_findings",
    "flag_findings",
    "gap_findings",
    "gap_tolerance_mm",
    "hand_before",
    "inside_findings",
    "relief_findings",
    "meets",
    "move_to",
    "opening_findings",
    "need_of_boxes",
    "need_of_thing",
    "outside_bay",
    "room_findings",
    "room_of",
    "rows_through",
    "snap_points",
    "stack_up",
    "tape_between",
    "tape_tolerance_mm",
]
