"""Axle and corner loads, centre of gravity, load states."""

from levelcradle.core.level.balance import Corners, Lean, Loads, MassRow, corner_loads, found_loads, loads_after
from levelcradle.core.level.figures import LevelFigures, LoadRow, level_figures
from levelcradle.core.level.findings import level_findings
from levelcradle.core.level.ground import ground_findings
from levelcradle.core.level.restated import WeighedBy, weighed_by
from levelcradle.core.level.uncertainty import PlusMinus
from levelcradle.core.level.weighings import WeighedRow, weighed_rows

__all__ = [
    "Corners", "Lean", "LevelFigures", "LoadRow", "Loads", "MassRow", "PlusMinus", "WeighedBy", "WeighedRow", "corner_loads",
    "found_loads", "ground_findings", "level_figures", "level_findings", "loads_after", "weighed_by", "weighed_rows",
]  # fmt: skip
