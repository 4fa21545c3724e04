"""What parts and bars are cut from: sheets of stock and lengths of bar, so that little is left over."""

from levelcradle.core.nesting.bars import StockBar, cut_from_bars
from levelcradle.core.nesting.rectangles import off_a_roll
from levelcradle.core.nesting.sheets import GAP_MM, Laid, Nest, nests

__all__ = ["GAP_MM", "Laid", "Nest", "StockBar", "cut_from_bars", "nests", "off_a_roll"]
