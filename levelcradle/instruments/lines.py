"""What an instrument's line says: value, unit, channel; in that order, parted by blanks, commas, semicolons or tabs."""

import math
import re

__all__ = ["LONGEST", "read_line"]

LONGEST = 200
_LINE = re.compile(r"^\s*([-+]?\d+(?:\.\d+)?|[-+]?\.\d+)[\s,;]*([A-Za-zµΩ°\"']{0,6})[\s,;]*([\w .-]{0,40}?)\s*$")
_UNITS = {"lbs": "lb", "inch": "in", '"': "in", "v": "V", "mv": "mV"} | {
    u: u for u in ("", "kg", "lb", "mm", "cm", "m", "in")
}


def read_line(line: str) -> tuple[float, str, str] | None:
    """(value, unit, channel) of a line, None where it is none. A comma between figures is a decimal comma."""
    if len(line) > LONGEST:
        return None
    found = _LINE.match(re.sub(r"^(\s*[-+]?\d+),(\d+)(?=[\s;]|$)", r"\1.\2", line))
    if found is None or found[2].lower() not in _UNITS:
        return None
    value = float(found[1])
    return (value, _UNITS[found[2].lower()], found[3].strip()) if math.isfinite(value) else None
