"""Blocks of modules: turns, counts, gaps, growth; what their faces ask for."""

from levelcradle.core.modules.blocks import Laid, PlacedModule, Row, lay_out
from levelcradle.core.modules.rearranged import Order, needed_between, rearranged
from levelcradle.core.modules.string import PackFigures, StringFigures, pack_figures, per_cell_v, string_figures, strings_in
from levelcradle.core.modules.turns import DIRECTIONS, RAKE_DEG, Resting, Turned, rests, turned, turned_about, turns_for

__all__ = [
    "DIRECTIONS", "Laid", "Order", "PackFigures", "PlacedModule", "RAKE_DEG", "Resting", "Row", "StringFigures",
    "Turned", "lay_out", "needed_between",
    "pack_figures", "per_cell_v", "rearranged", "rests", "string_figures", "strings_in", "turned", "turned_about", "turns_for",
]  # fmt: skip
