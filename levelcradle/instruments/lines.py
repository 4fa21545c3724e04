"""What an instrument's line says: value, unit, channel; in that order, parted by blanks, commas, semicolons or tabs."""

import math
import re

__all__ = ["LONGEST", "read_line"]

LONGEST = 200
_LINE = re.compile(r"^\s*([-+]?\d+(?:\.\d+)?|[-+]?\.\d+)[\s,;]*([A-Za-zµΩ°\"']{0,6})[\s,;]*([\w .-]{0,40}?)\s*$")
_UNITS = {"lbs": "lb", "inch": "in", '"': "in", "v": "V", "mv": "mV"} | {u: u for u in ("", "kg", "lb", "mm", "cm", "m", "in")}


def read_line(line: str) -> tuple[float, str, str] | None:
    """(value, unit, channel) of a line, None where it is none. A decimal comma is taken where nothing else fits."""
    for text in (line, re.sub(r"^(\s*[-+]?\d+),(\d+)(?=[\s;\t]|$)", r"\1.\2", line)):
        found = _LINE.match(text[:LONGEST])
        if found and found[2].lower() in _UNITS:
            value = float(found[1])
            return (value, _UNITS[found[2].lower()], found[3].strip()) if math.isfinite(value) else None
    return None
