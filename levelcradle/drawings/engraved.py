"""Letters as single lines, for a machine that engraves: no fills, no fonts of the machine's own."""

import unicodedata
from collections.abc import Iterator, Sequence
from dataclasses import replace
from functools import cache
from typing import Any

from levelcradle.drawings.sheet import Point, Ring, Sheet, Stroke, Words

__all__ = ["engraved"]

CAPITAL = 0.73  # height of a capital beside the size of its letters, as on the sheets
# in units of the font: 21 from the baseline to the top of a capital, 28 to the bottom of what hangs below
CAPITAL_UNITS, LINE_UNITS = 21.0, 28.0
ALIKE = str.maketrans(
    {"−": "-", "–": "-", "—": "-", "·": ".", "“": '"', "”": '"', "„": '"', "’": "'", "‘": "'", "ß": "ss"}
    | {"⌀": "O", "Ø": "O", "ø": "o", "×": "x", "±": "+-", "°": "deg", "\u00a0": " "}
)
# what stands over a letter, from the middle of its top; what hangs below, from its foot
ACCENTS: dict[str, tuple[tuple[Point, ...], ...]] = {
    "\u0300": (((-2, 6), (2, 2)),),
    "\u0301": (((-2, 2), (2, 6)),),
    "\u0302": (((-3, 2), (0, 6), (3, 2)),),
    "\u0303": (((-4, 3), (-2, 5), (2, 3), (4, 5)),),
    "\u0308": (((-3, 3), (-3, 4)), ((3, 3), (3, 4))),
    "\u030a": (((-2, 2), (2, 2), (2, 6), (-2, 6), (-2, 2)),),
    "\u030c": (((-3, 6), (0, 2), (3, 6)),),
    "\u0327": (((0, 0), (1, -3), (-2, -5)),),
}


def engraved(sheet: Sheet) -> Sheet:
    """The same drawing of open lines and circles alone. A letter that nothing is known of is an empty square, so that
    nobody takes the text for whole."""
    marks: list[Stroke | Ring | Words] = []
    for mark in sheet.marks:
        if isinstance(mark, Words):
            marks += [Stroke(line) for line in _lines(mark)]
        else:
            marks.append(replace(mark, fill=""))
    return replace(sheet, marks=marks)


def _lines(words: Words) -> Iterator[tuple[Point, ...]]:
    """A text in its place on the sheet."""
    unit = CAPITAL * words.size_mm / CAPITAL_UNITS
    drawn = list(_letters(words.text))
    wide = sum(width for width, _ in drawn)
    x = -wide * {"start": 0.0, "middle": 0.5, "end": 1.0}[words.anchor]
    for width, lines in drawn:
        for line in lines:
            yield tuple(_at(words, (x + px) * unit, py * unit) for px, py in line)
        x += width


def _at(words: Words, along: float, up: float) -> Point:
    x, y = words.at
    return (x - up, y + along) if words.turned else (x + along, y + up)


def _letters(text: str) -> Iterator[tuple[float, Sequence[Sequence[Point]]]]:
    """Width and lines of each letter with what stands over it, in units of the font, from the baseline."""
    plain = unicodedata.normalize("NFKD", text.translate(ALIKE))
    at = 0
    while at < len(plain):
        width, lines = _letter(plain[at])
        at += 1
        while at < len(plain) and unicodedata.combining(plain[at]):
            over = ACCENTS.get(plain[at], ())
            top = max((y for line in lines for _, y in line), default=CAPITAL_UNITS)
            lines = [*lines, *([(width / 2 + x, y + top if y > 0 else y) for x, y in line] for line in over)]
            at += 1
        yield width, lines


@cache
def _letter(letter: str) -> tuple[float, Sequence[Sequence[Point]]]:
    glyphs = list(_font().glyphs_for_text(letter)) if letter.isascii() else []
    if not glyphs:
        return 16.0, [[(2.0, 0.0), (14.0, 0.0), (14.0, CAPITAL_UNITS), (2.0, CAPITAL_UNITS), (2.0, 0.0)]]
    below = LINE_UNITS - CAPITAL_UNITS  # it counts from there, not from the baseline
    lines = [[(float(x), float(y) - below) for x, y in line] for line in _font().strokes_for_text(letter)]
    return float(glyphs[0].char_width), lines


@cache
def _font() -> Any:
    """The simplex letters that A. V. Hershey drew in 1967, of single lines."""
    from HersheyFonts import HersheyFonts

    font = HersheyFonts()
    font.load_default_font("futural")
    font.normalize_rendering(LINE_UNITS)  # a unit is a unit
    return font
