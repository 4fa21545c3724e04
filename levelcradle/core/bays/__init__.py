"""Surveyed spaces: stations in every way of measuring → sections → the flat panels and the metal behind them."""

from levelcradle.core.bays.diagonals import DiagonalResult, diagonal_result
from levelcradle.core.bays.metal import Metal, metal
from levelcradle.core.bays.offer import bay_of_block
from levelcradle.core.bays.openings import pierced
from levelcradle.core.bays.panels import Panel, faces, panels
from levelcradle.core.bays.restated import MeasuringMethod, mirrored, restated
from levelcradle.core.bays.sections import Section, extent, sections

__all__ = [
    "DiagonalResult",
    "MeasuringMethod",
    "Metal",
    "Panel",
    "Section",
    "bay_of_block",
    "diagonal_result",
    "extent",
    "faces",
    "metal",
    "mirrored",
    "panels",
    "pierced",
    "restated",
    "sections",
]
