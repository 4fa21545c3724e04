"""Axle and corner loads, centre of gravity, load states."""

from levelcradle.core.level.balance import Corners, Lean, MassRow, WheelLoads, corner_loads, found_loads, loads_after
from levelcradle.core.level.findings import level_findings
from levelcradle.core.level.ground import ground_findings
from levelcradle.core.level.restated import WeighedBy, weighed_by
from levelcradle.core.level.result import LevelResult, LoadRow, level_result
from levelcradle.core.level.uncertainty import PlusMinus
from levelcradle.core.level.weighings import WeighedRow, weighed_rows

__all__ = [
    "Corners",
    "Lean",
    "LevelResult",
    "LoadRow",
    "MassRow",
    "PlusMinus",
    "WeighedBy",
    "WeighedRow",
    "WheelLoads",
    "corner_loads",
    "found_loads",
    "ground_findings",
    "level_findings",
    "level_result",
    "loads_after",
    "weighed_by",
    "weighed_rows",
]
