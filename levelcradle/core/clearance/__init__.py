"""Gaps between boxes and everything around them, and inside the boxes; the tape between two things."""

from levelcradle.core.clearance.gaps import around, gap_findings, tolerance_of
from levelcradle.core.clearance.inside import inside_findings
from levelcradle.core.clearance.needs import need_of_boxes, need_of_thing
from levelcradle.core.clearance.strayed import strayed
from levelcradle.core.clearance.tape import Taped, tape_between

__all__ = [
    "Taped",
    "around",
    "gap_findings",
    "inside_findings",
    "need_of_boxes",
    "need_of_thing",
    "strayed",
    "tape_between",
    "tolerance_of",
]
