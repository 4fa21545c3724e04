"""What carries a box: load cases, reactions, bolts, welds, legs, walls."""

from levelcradle.core.mount.angle_checks import AngleJoint, geometry, uses
from levelcradle.core.mount.figures import MountFigures, SupportFigures, UseRow, support_figures
from levelcradle.core.mount.findings import mount_findings
from levelcradle.core.mount.reactions import Support, envelope, judge_support

__all__ = [
    "AngleJoint", "MountFigures", "Support", "SupportFigures", "UseRow", "envelope", "geometry", "judge_support",
    "mount_findings", "support_figures", "uses",
]  # fmt: skip
