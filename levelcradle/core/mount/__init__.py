"""What carries a box: load cases, reactions, the uses of every mount."""

from levelcradle.core.mount.crossmembers import CrossmemberResult, bolted, crossmember_result
from levelcradle.core.mount.findings import NOT_CHECKED, mount_findings
from levelcradle.core.mount.frame_tubes import tube_results
from levelcradle.core.mount.holes import APART_HOLES, drilled
from levelcradle.core.mount.let_go import LetGo, let_go
from levelcradle.core.mount.one_sided import can_hold, held_all_ways, one_sided_envelope
from levelcradle.core.mount.reactions import Support, envelope, judge_support
from levelcradle.core.mount.result import (
    Loads,
    MountResult,
    SupportResult,
    UtilisationRow,
    loads_of,
    solve_names,
    support_result,
)
from levelcradle.core.mount.unsure import unsure

__all__ = [
    "APART_HOLES",
    "NOT_CHECKED",
    "CrossmemberResult",
    "LetGo",
    "Loads",
    "MountResult",
    "Support",
    "SupportResult",
    "UtilisationRow",
    "bolted",
    "can_hold",
    "crossmember_result",
    "drilled",
    "envelope",
    "held_all_ways",
    "judge_support",
    "let_go",
    "loads_of",
    "mount_findings",
    "one_sided_envelope",
    "solve_names",
    "support_result",
    "tube_results",
    "unsure",
]
