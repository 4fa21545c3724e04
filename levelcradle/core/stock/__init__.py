"""The shelf: modules compared per cell, and what the table of starters offers."""

from levelcradle.core.stock.findings import stock_findings
from levelcradle.core.stock.shelf import ShelfFigures, ShelfRow, shelf_figures
from levelcradle.core.stock.starters import STARTERS, starter_kinds, starters
from levelcradle.core.stock.windows import common_window

__all__ = ["STARTERS", "ShelfFigures", "ShelfRow", "common_window", "shelf_figures", "starter_kinds", "starters", "stock_findings"]
