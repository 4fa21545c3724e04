"""Blocks of modules: turns, counts, gaps, growth; what their faces ask for."""

from levelcradle.core.modules.blocks import Laid, PlacedModule, Row, lay_out
from levelcradle.core.modules.string import StringFigures, per_cell_v, string_figures
from levelcradle.core.modules.turns import DIRECTIONS, Turned, turned, turned_about, turns_for

__all__ = [
    "DIRECTIONS", "Laid", "PlacedModule", "Row", "StringFigures", "Turned", "lay_out", "per_cell_v", "string_figures",
    "turned", "turned_about", "turns_for",
]  # fmt: skip
