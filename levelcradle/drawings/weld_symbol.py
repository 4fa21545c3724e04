"""A weld as it is drawn by ISO 2553 (system A, from memory): an arrow to the joint, a reference line with the fillet's
triangle, its leg before it and its length behind, a ring where it goes all round; in words beside it.

        z4 ◺ 90
   ╱○──────────
  ╱
"""

from dataclasses import dataclass

from levelcradle.core.design.mount import ToBox, Welded
from levelcradle.drawings.sheet import Point, Sheet

__all__ = ["SYMBOL_MM", "WeldSymbol", "draw_weld", "symbols_of"]

SYMBOL_MM = (31.0, 9.0)  # wide and tall, with its words
LINE_MM = 25.0
CLEAR_MM = 7.0  # of words and triangle from where the arrow leaves
SIDE_MM = 2.6  # of the triangle
RING_MM = 1.2
DASH_BELOW_MM = 0.9
TEXT_MM = 2.6


@dataclass(frozen=True, slots=True)
class WeldSymbol:
    """A fillet: its leg, its length (None where it goes all round), and what it is in words."""

    leg_mm: float
    long_mm: float | None
    words: str


def symbols_of(hold: ToBox) -> tuple[WeldSymbol, ...]:
    """Of what is welded: the two fillets beside a plate, and the one round its doubler."""
    if not isinstance(hold, Welded):
        return ()
    beside = WeldSymbol(hold.leg_mm, hold.length_mm, "either side")
    plate = hold.doubler
    return (beside, WeldSymbol(plate.weld_leg_mm, None, "doubler, all round")) if plate else (beside,)


def draw_weld(sheet: Sheet, symbol: WeldSymbol, at: Point, to: Point | None) -> None:
    """From the left end of its reference line, with an arrow to where the weld is."""
    x, y = at
    end = (x + LINE_MM, y)
    sheet.line(at, end, weight_mm=0.25)
    sheet.line((x, y - DASH_BELOW_MM), (x + LINE_MM, y - DASH_BELOW_MM), weight_mm=0.18, dashed=True)
    if to is not None:
        sheet.line(at, to, weight_mm=0.25)
        _head(sheet, at, to)
    if symbol.long_mm is None:
        sheet.ring(at, RING_MM, 0.25)
    middle = x + CLEAR_MM + 6.0
    sheet.outline([(middle, y), (middle + SIDE_MM, y), (middle, y + SIDE_MM)], 0.35)
    sheet.words((x + CLEAR_MM, y + 0.9), f"z{symbol.leg_mm:g}", TEXT_MM)
    if symbol.long_mm is not None:
        sheet.words((middle + SIDE_MM + 0.8, y + 0.9), f"{symbol.long_mm:g}", TEXT_MM)
    sheet.words((x + 2.2, y - DASH_BELOW_MM - TEXT_MM - 0.3), symbol.words, TEXT_MM)


def _head(sheet: Sheet, start: Point, tip: Point) -> None:
    dx, dy = tip[0] - start[0], tip[1] - start[1]
    long = (dx * dx + dy * dy) ** 0.5
    if long < 3:
        return
    u, v = dx / long, dy / long
    x, y = tip[0] - 2.4 * u, tip[1] - 2.4 * v
    sheet.outline([tip, (x - 0.6 * v, y + 0.6 * u), (x + 0.6 * v, y - 0.6 * u)], 0.18, fill="#000000")
