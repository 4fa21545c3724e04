"""What stands on every sheet: what it is, how large, its cautions, and whether it may be cut from."""

from collections.abc import Sequence

from levelcradle.drawings.sheet import Sheet

__all__ = ["border"]

CAUTIONS = (
    "Never weld on a box with cells in it; keep swarf off modules. Weld in short runs apart from each other.",
    "Lift with rated gear; nobody under a load on a jack. Crash loads are many times the weight: have the mounting",
    "checked and the vehicle inspected as local rules require. Engineering estimates; local codes prevail.",
)
BARS = (1000, 500, 200, 100, 50, 20, 10)


def border(
    sheet: Sheet, design: str, title: str, facts: Sequence[str], notes: Sequence[str], *, released: bool, scale: float
) -> None:
    """Frame, title, facts, notes, cautions, a length bar and a 100 mm check line."""
    wide, tall = sheet.paper.wide_mm, sheet.paper.tall_mm
    sheet.outline([(8, 8), (wide - 8, 8), (wide - 8, tall - 8), (8, tall - 8)], 0.5)
    sheet.line((8, 44), (wide - 8, 44), weight_mm=0.35)
    sheet.words((12, 37), title[:60], 5.5, bold=True)
    sheet.words((12, 31), design[:60], 3.4)
    for number, fact in enumerate(facts):
        sheet.words((12, 25.5 - 4.4 * number), fact, 3.2)
    for number, note in enumerate(notes[:4]):
        sheet.words((104, 38.4 - 3.9 * number), note[:110], 3.0)
    for number, caution in enumerate(CAUTIONS):
        sheet.words((104, 23 - 3.9 * number), caution, 2.6)
    _bar(sheet, scale)
    sheet.line((wide - 112, 11.5), (wide - 12, 11.5), weight_mm=0.35)
    sheet.words((wide - 114, 10.6), "check line 100 mm", 2.6, "end")
    if not released:
        sheet.words((wide / 2, tall - 16), "NOT RELEASED", 7, "middle", bold=True)


def _bar(sheet: Sheet, scale: float) -> None:
    """The drawing's own length bar: never a printed ratio."""
    length = next((b for b in BARS if b * scale <= 60), 10)
    x, y = 104.0, 48.5
    sheet.line((x, y), (x + length * scale, y), weight_mm=0.6)
    for end in (x, x + length * scale):
        sheet.line((end, y - 1.2), (end, y + 1.2), weight_mm=0.35)
    sheet.words((x + length * scale + 2, y - 1), f"{length} mm in this drawing; all figures in mm", 2.8)
