"""Axle and corner loads, centre of gravity, load states."""

from levelcradle.core.level.balance import Corners, Lean, Loads, MassRow, corner_loads, found_loads, loads_after
from levelcradle.core.level.figures import LevelFigures, LoadRow, level_figures
from levelcradle.core.level.findings import level_findings

__all__ = [
    "Corners", "Lean", "LevelFigures", "LoadRow", "Loads", "MassRow", "corner_loads", "found_loads", "level_figures",
    "level_findings", "loads_after",
]  # fmt: skip
