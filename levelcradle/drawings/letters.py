"""How wide letters come, so that no text runs over what stands beside it."""

import re

__all__ = ["BOLD", "letters_mm", "shortened", "wrapped"]

BOLD = 1.18  # how much wider bold letters come
BREAKS = re.compile(r"[ \t\r\n]+")  # a space that does not break keeps a figure together
NARROW, WIDE = "fijlrtI.,;:'!|()[] -", "mwMW@%—"


def letters_mm(text: str, size_mm: float) -> float:
    """How wide a text comes at most, by the kind of its letters, as DejaVu Sans draws them (measured), a wide font;
    what is of another alphabet counts as its widest."""
    return size_mm * sum(_width(letter) for letter in text)


def _width(letter: str) -> float:
    if letter in NARROW:
        return 0.42
    if not letter.isascii():
        return 1.15
    return 1.0 if letter in WIDE else 0.8 if letter.isupper() else 0.64


def wrapped(text: str, width_mm: float, size_mm: float, lines: int) -> list[str]:
    """A text in so many lines at most, broken between words where it can be; what does not go in ends with an
    ellipsis."""
    rows, rest = list[str](), BREAKS.split(text.strip())
    while rest and len(rows) < lines:
        row = rest.pop(0)
        while rest and letters_mm(f"{row} {rest[0]}", size_mm) <= width_mm:
            row += f" {rest.pop(0)}"
        whole = row
        while len(row) > 1 and letters_mm(row, size_mm) > width_mm:
            row = row[:-1]
        if row != whole:
            rest.insert(0, whole[len(row) :])
        rows.append(row)
    if rest:
        while rows[-1] and letters_mm(f"{rows[-1]} …", size_mm) > width_mm:
            rows[-1] = rows[-1][:-1]
        rows[-1] = f"{rows[-1]} …".strip()
    return rows


def shortened(text: str, width_mm: float, size_mm: float) -> str:
    """A text in one line, with an ellipsis where it is longer.

    >>> shortened("left front mount", 20, 3)
    'left front …'
    """
    return next(iter(wrapped(text, width_mm, size_mm, 1)), "")
