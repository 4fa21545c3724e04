"""A weld as it is drawn by ISO 2553 (system A, from memory): an arrow to the joint, a reference line with the fillet's
triangle or a plug's open box, its leg or hole before it and its length or how many behind, a ring where it goes all
round; in words beside it.

        z4 ◺ 90
   ╱○──────────
  ╱
"""

from collections.abc import Iterator
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
    """What is written before its sign and behind it, whether that goes all round, what it is in words, and which of
    the mount's drawn welds it is (None: the one round its doubler)."""

    before: str
    behind: str
    words: str
    drawn: int | None
    plug: bool = False


def symbols_of(hold: ToBox) -> tuple[WeldSymbol, ...]:
    """Of what is welded: the two fillets beside a plate, those across it, plugs, and the one round its
    doubler."""
    return tuple(_symbols(hold)) if isinstance(hold, Welded) else ()


def _symbols(hold: Welded) -> Iterator[WeldSymbol]:
    leg = f"z{hold.leg_mm:g}"
    yield WeldSymbol(leg, f"{hold.length_mm:g}", "either side", 0)
    if hold.across_end:
        yield WeldSymbol(leg, "", "across its end", 2)
    if hold.across_start:
        yield WeldSymbol(leg, "", "across, at the edge", 3 if hold.across_end else 2)
    if plugs := hold.plugs:
        first = 2 + hold.across_end + hold.across_start
        yield WeldSymbol(f"{plugs.hole_mm:g}", f"{plugs.count}×", "plugs, filled", first, plug=True)
    if plate := hold.doubler:
        yield WeldSymbol(f"z{plate.weld_leg_mm:g}", "", "doubler, all round", None)


def draw_weld(sheet: Sheet, symbol: WeldSymbol, at: Point, to: Point | None) -> None:
    """From the left end of its reference line, with an arrow to where the weld is."""
    x, y = at
    end = (x + LINE_MM, y)
    sheet.line(at, end, weight_mm=0.25)
    sheet.line((x, y - DASH_BELOW_MM), (x + LINE_MM, y - DASH_BELOW_MM), weight_mm=0.18, dashed=True)
    if to is not None:
        sheet.line(at, to, weight_mm=0.25)
        _head(sheet, at, to)
    if symbol.drawn is None:
        sheet.ring(at, RING_MM, 0.25)
    middle = x + CLEAR_MM + 6.0
    if symbol.plug:
        up = y + 0.7 * SIDE_MM
        sheet.line((middle, y), (middle, up), (middle + SIDE_MM, up), (middle + SIDE_MM, y), weight_mm=0.35)
    else:
        sheet.outline([(middle, y), (middle + SIDE_MM, y), (middle, y + SIDE_MM)], 0.35)
    sheet.words((x + CLEAR_MM, y + 0.9), symbol.before, TEXT_MM)
    sheet.words((middle + SIDE_MM + 1.2, y + 0.9), symbol.behind, TEXT_MM)
    sheet.words((x + 2.2, y - DASH_BELOW_MM - TEXT_MM - 0.3), symbol.words, TEXT_MM)


def _head(sheet: Sheet, start: Point, tip: Point) -> None:
    dx, dy = tip[0] - start[0], tip[1] - start[1]
    long = (dx * dx + dy * dy) ** 0.5
    if long < 3:
        return
    u, v = dx / long, dy / long
    x, y = tip[0] - 2.4 * u, tip[1] - 2.4 * v
    sheet.outline([tip, (x - 0.6 * v, y + 0.6 * u), (x + 0.6 * v, y - 0.6 * u)], 0.18, fill="#000000")
