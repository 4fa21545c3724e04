"""Blocks of modules: turns, counts, gaps, growth; what their faces ask for."""

from levelcradle.core.modules.blocks import WAYS, Laid, NeighbourGap, PlacedModule, lay_out
from levelcradle.core.modules.orientations import (
    DIRECTIONS,
    RAKE_DEG,
    Resting,
    Turned,
    orientations_for,
    rests,
    turned,
    turned_about,
)
from levelcradle.core.modules.rearranged import Order, needed_between_mm, rearranged
from levelcradle.core.modules.string import PackResult, StringResult, pack_result, per_cell_v, string_result, strings_in
from levelcradle.core.modules.terminals import terminal_plates

__all__ = [
    "DIRECTIONS",
    "WAYS",
    "RAKE_DEG",
    "Laid",
    "NeighbourGap",
    "Order",
    "PackResult",
    "PlacedModule",
    "Resting",
    "StringResult",
    "Turned",
    "lay_out",
    "needed_between_mm",
    "orientations_for",
    "pack_result",
    "per_cell_v",
    "rearranged",
    "rests",
    "string_result",
    "strings_in",
    "terminal_plates",
    "turned",
    "turned_about",
]
