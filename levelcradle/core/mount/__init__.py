"""What carries a box: load cases, reactions, the uses of every mount."""

from levelcradle.core.mount.figures import MountFigures, SupportFigures, UseRow, support_figures
from levelcradle.core.mount.findings import mount_findings
from levelcradle.core.mount.reactions import Support, envelope, judge_support

__all__ = ["MountFigures", "Support", "SupportFigures", "UseRow", "envelope", "judge_support", "mount_findings", "support_figures"]
