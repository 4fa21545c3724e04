"""Gaps between boxes and everything around them, and inside the boxes; the tape between two things."""

from levelcradle.core.clearance.gaps import gap_findings, tolerance_of
from levelcradle.core.clearance.inside import inside_findings
from levelcradle.core.clearance.strayed import strayed
from levelcradle.core.clearance.tape import Taped, tape_between

__all__ = ["Taped", "gap_findings", "inside_findings", "strayed", "tape_between", "tolerance_of"]
