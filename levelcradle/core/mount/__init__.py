"""What carries a box: load cases, reactions, the uses of every mount."""

from levelcradle.core.mount.drawn import DrawnMount, drawn_mount
from levelcradle.core.mount.findings import mount_findings
from levelcradle.core.mount.let_go import LetGo, let_go
from levelcradle.core.mount.one_sided import can_hold, held_all_ways, one_sided_envelope
from levelcradle.core.mount.reactions import Support, envelope, judge_support
from levelcradle.core.mount.result import MountResult, SupportResult, UtilisationRow, support_result

__all__ = [
    "DrawnMount",
    "LetGo",
    "MountResult",
    "Support",
    "SupportResult",
    "UtilisationRow",
    "can_hold",
    "drawn_mount",
    "envelope",
    "held_all_ways",
    "judge_support",
    "let_go",
    "mount_findings",
    "one_sided_envelope",
    "support_result",
]
