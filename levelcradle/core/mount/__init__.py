"""What carries a box: load cases, reactions, the uses of every mount."""

from levelcradle.core.mount.findings import mount_findings
from levelcradle.core.mount.reactions import Support, envelope, judge_support
from levelcradle.core.mount.result import MountResult, SupportResult, UtilisationRow, support_result

__all__ = [
    "MountResult",
    "Support",
    "SupportResult",
    "UtilisationRow",
    "envelope",
    "judge_support",
    "mount_findings",
    "support_result",
]
