"""The shelf: modules compared per cell, and what the table of starters offers."""

from levelcradle.core.stock.findings import stock_findings
from levelcradle.core.stock.shelf import ShelfResult, ShelfRow, shelf_result
from levelcradle.core.stock.starters import STARTERS, starter_kinds, starters
from levelcradle.core.stock.windows import common_window

__all__ = [
    "STARTERS",
    "ShelfResult",
    "ShelfRow",
    "common_window",
    "shelf_result",
    "starter_kinds",
    "starters",
    "stock_findings",
]
