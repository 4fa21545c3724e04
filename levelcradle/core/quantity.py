"""What a tape, a scale or a data sheet shows: read it, and write it back.

One reader serves every blank. It takes what people write: ``372``, ``37.2 cm``, ``37,2 cm``, ``14 5/8``,
``14-5/8``, ``2' 3 1/2"``, ``⅝``, ``3/16" + 6 mm``, ``47 lb``. A bare number is in the unit of its list.
"""

import math
import re
import unicodedata
from collections.abc import Callable
from dataclasses import dataclass
from fractions import Fraction
from typing import Literal

from levelcradle.core.errors import ReadingError

__all__ = ["INCH_MM", "Kind", "Move", "POUND_KG", "Place", "read", "read_place", "write_length", "write_mass"]

INCH_MM = 25.4  # exact: international yard and pound agreement, 1959
FOOT_MM = 304.8  # exact: the same agreement
POUND_KG = 0.45359237  # exact: the same agreement
POUND_FOOT_NM = POUND_KG * 9.80665 * 0.3048  # exact product

Kind = Literal["length", "mass", "angle", "torque", "voltage", "number"]

UNITS: dict[Kind, dict[str, float]] = {
    "length": {"mm": 1, "cm": 10, "m": 1000, "in": INCH_MM, "inch": INCH_MM, "inches": INCH_MM, '"': INCH_MM,
               "ft": FOOT_MM, "foot": FOOT_MM, "feet": FOOT_MM, "'": FOOT_MM},
    "mass": {"kg": 1, "g": 0.001, "t": 1000, "lb": POUND_KG, "lbs": POUND_KG, "oz": POUND_KG / 16},
    "angle": {"deg": 1, "°": 1},
    "torque": {"nm": 1, "n·m": 1, "lbf·ft": POUND_FOOT_NM, "lbft": POUND_FOOT_NM},
    "voltage": {"v": 1, "mv": 0.001},
    "number": {},
}  # fmt: skip
DEFAULT_UNIT: dict[Kind, str] = {
    "length": "mm", "mass": "kg", "angle": "deg", "torque": "nm", "voltage": "v", "number": "",
}  # fmt: skip
LARGEST = 1e9
LONGEST_TEXT = 200

_SAME = str.maketrans({"′": "'", "’": "'", "‘": "'", "″": '"', "”": '"', "“": '"', "−": "-", "–": "-", "×": "*", "⁄": "/"})
_NUMBER = re.compile(r"\d+(?:[.,]\d+)*|[.,]\d+")
_UNIT = re.compile(r"[a-z°·]+|''|[\"']")
_FRACTION = re.compile(r"(\d+)\s*/\s*(\d+)")
_MIXED = re.compile(r"(\d+)(?:\s+|\s*-\s*)(\d+)\s*/\s*(\d+)")


def read(text: str, kind: Kind = "length", unit: str = "") -> float:
    """The value of a typed text in the core's unit (mm, kg, degrees, N·m, V).

    Args:
        text: what was typed; sums (``+``, ``-``) and a whole-number factor (``3 x 25``) are worked out.
        kind: what the blank asks for.
        unit: the unit of a number that names none; "" stands for the core's own.
    Raises: ReadingError with a sentence for the person at the blank.
    """
    unit = unit or DEFAULT_UNIT[kind]
    if unit and unit not in UNITS[kind]:
        raise ReadingError(text, f"“{unit}” is no unit of {kind}.")
    value = _Reader(text, kind, unit).whole()
    if not math.isfinite(value) or abs(value) > LARGEST:
        raise ReadingError(text, "That number is too large.")
    return value


class _Reader:
    """Reads left to right; ``at`` is how far it has come."""

    def __init__(self, text: str, kind: Kind, unit: str) -> None:
        self.original, self.kind, self.unit, self.at = text, kind, unit, 0
        if len(text) > LONGEST_TEXT:
            raise self.wrong("That is too long to be a number.")
        self.text = _plain(text)
        if not self.text:
            raise self.wrong("Type a number.")

    def wrong(self, says: str) -> ReadingError:
        return ReadingError(self.original, says)

    def whole(self) -> float:
        """Worked out in fractions, so that 14 5/8 in is 371.475 mm and not a rounding error less."""
        total = self.signed_term()
        while self.at < len(self.text):
            if self.text[self.at] not in "+-":
                raise self.wrong(f"“{self.text[self.at :]}” was not understood.")
            total += self.signed_term()
        return float(total) if abs(total) <= LARGEST else math.inf

    def signed_term(self) -> Fraction:
        sign = 1
        while self.at < len(self.text) and self.text[self.at] in "+-":
            sign, self.at = (-sign if self.text[self.at] == "-" else sign), self.at + 1
            self.skip()
        return sign * self.term()

    def term(self) -> Fraction:
        number = self.number()
        if self.take(re.compile(r"[*x](?![a-z])")):
            factor, number = number, self.number()
            if factor != int(factor):
                raise self.wrong("A factor must be a whole number, as in 3 x 25.")
            return factor * self.measured(number)
        return self.measured(number)

    def measured(self, number: Fraction) -> Fraction:
        """A number with its unit, and what follows without a sign: ``2' 3 1/2"``, ``3 lb 4 oz``."""
        units = UNITS[self.kind]
        found = self.take(_UNIT)
        if found is None:
            return number * (_exact(units[self.unit]) if self.unit else 1)
        name = {"''": '"', "lbf": "lbf·ft"}.get(found.group(), found.group())
        if name not in units:
            raise self.wrong(f"“{found.group()}” is no unit of {self.kind}." if units else "No unit belongs here.")
        value = number * _exact(units[name])
        smaller = {"'": '"', "ft": "in", "feet": "in", "foot": "in", "lb": "oz", "lbs": "oz"}.get(name)
        if smaller and self.at < len(self.text) and self.text[self.at].isdigit():
            rest = self.number()
            unit = self.take(_UNIT)
            return value + rest * _exact(units[_unit_name(unit.group(), units, self) if unit else smaller])
        return value

    def number(self) -> Fraction:
        if mixed := self.take(_MIXED):
            whole, top, bottom = (int(part) for part in mixed.groups())
            return whole + self.ratio(top, bottom)
        if simple := self.take(_FRACTION):
            return self.ratio(int(simple.group(1)), int(simple.group(2)))
        if plain := self.take(_NUMBER):
            return Fraction(self.decimal(plain.group()))
        rest = self.text[self.at :]
        raise self.wrong(f"A number is missing before “{rest}”." if rest else "A number is missing at the end.")

    def ratio(self, top: int, bottom: int) -> Fraction:
        if bottom == 0:
            raise self.wrong("A fraction cannot have 0 below the line.")
        return Fraction(top, bottom)

    def decimal(self, digits: str) -> str:
        """Point or comma before decimals; a comma before exactly three digits could mean either, so it is refused."""
        if re.fullmatch(r"[1-9]\d{0,2}(,\d{3})+\.\d+|[1-9]\d{0,2}(,\d{3}){2,}", digits):
            return digits.replace(",", "")
        if re.fullmatch(r"[1-9]\d{0,2},\d{3}", digits):
            joined, split = digits.replace(",", ""), digits.replace(",", ".")
            raise self.wrong(f"“{digits}” can mean {joined} or {split}. Leave the comma out, or use a point.")
        if digits.count(".") + digits.count(",") > 1:
            raise self.wrong(f"“{digits}” has more than one decimal point.")
        return digits.replace(",", ".")

    def take(self, pattern: re.Pattern[str]) -> re.Match[str] | None:
        found = pattern.match(self.text, self.at)
        if found:
            self.at = found.end()
            self.skip()
        return found

    def skip(self) -> None:
        while self.at < len(self.text) and self.text[self.at] == " ":
            self.at += 1


def _exact(factor: float) -> Fraction:
    return Fraction(str(factor))


def _unit_name(name: str, units: dict[str, float], reader: _Reader) -> str:
    name = {"''": '"'}.get(name, name)
    if name not in units:
        raise reader.wrong(f"“{name}” is no unit of {reader.kind}.")
    return name


def _plain(text: str) -> str:
    """Lower case, one kind of quote, dash and space, vulgar fractions written out (``2½`` → ``2 1/2``)."""
    out = []
    for char in text.translate(_SAME):
        shape = unicodedata.decomposition(char)
        if shape.startswith("<fraction>"):
            out.append(" " + unicodedata.normalize("NFKC", char).replace("⁄", "/"))
        else:
            out.append(" " if char.isspace() else char)
    return re.sub(" +", " ", "".join(out)).strip().lower()


@dataclass(frozen=True, slots=True)
class Move:
    """One axis of a typed place: a new figure, or a change (``by``) of the one that stands."""

    value_mm: float
    by: bool = False


@dataclass(frozen=True, slots=True)
class Place:
    """A typed place: what is said about each axis, None where nothing is said."""

    aft: Move | None = None
    across: Move | None = None
    up: Move | None = None


_WAYS: dict[str, tuple[str, float]] = {
    "aft": ("aft", 1), "a": ("aft", 1), "fore": ("aft", -1), "forward": ("aft", -1), "fwd": ("aft", -1), "f": ("aft", -1),
    "r": ("across", 1), "right": ("across", 1), "l": ("across", -1), "left": ("across", -1),
    "up": ("up", 1), "u": ("up", 1), "down": ("up", -1), "d": ("up", -1),
}  # fmt: skip
_WAY_AT_END = re.compile(r"\s+([a-z]+)$|(?<=\d)([a-z]+)$")


def read_place(text: str, axis: Literal["aft", "across", "up"] = "aft", unit: str = "mm") -> Place:
    """A place or a move as the trade says it.

    ``840 aft, 120 R, 310 up`` names all three; parts without a direction are taken in the order aft, across, up,
    starting at ``axis``. ``+12`` moves by 12 along ``axis``; ``12 aft`` alone moves 12 aft.
    Raises: ReadingError.
    """
    parts = [part.strip() for part in re.split(r"[;]|,\s+|,$", text.strip()) if part.strip()]
    if not parts:
        raise ReadingError(text, "Type a place, such as 840 aft, 120 R, 310 up.")
    order = ["aft", "across", "up"][["aft", "across", "up"].index(axis) :]
    said: dict[str, Move] = {}
    for part in parts:
        way, value, signed = _one_axis(part, unit)
        name, sign = _WAYS[way] if way else (next((a for a in order if a not in said), ""), 1.0)
        if not name or name in said:
            raise ReadingError(text, f"“{part}” says an axis twice." if name else f"“{part}” is one figure too many.")
        by = (signed and not way) or (len(parts) == 1 and way != "")
        said[name] = Move(sign * value, by=by)
    return Place(**said)


def _one_axis(part: str, unit: str) -> tuple[str, float, bool]:
    """(direction word or "", value in mm, whether a plus sign stood before it)."""
    plain = _plain(part)
    found = _WAY_AT_END.search(plain)
    word = (found.group(1) or found.group(2)) if found else ""
    if word not in _WAYS:
        return "", read(part, "length", unit), plain.startswith("+")
    assert found is not None
    return word, read(plain[: found.start()], "length", unit), plain.startswith("+")


def write_length(value_mm: float, unit: Literal["mm", "in"], *, division: int = 32, digits: int = 1,
                 toward: Callable[[float], int] | None = None) -> str:  # fmt: skip
    """A length as a shop writes it: ``372``, ``10.5``, ``14 5/8"``.

    Args:
        division: inch fractions are rounded to 1/division.
        digits: most decimals of a millimetre figure.
        toward: math.floor or math.ceil to round to one side (gaps go down, demands up); nearest if None.
    What is written reads back within half a division (one whole division when rounded to one side).
    """
    turn = toward or round
    if unit == "mm":
        steps = turn(round(value_mm * 10**digits, 6))
        text = f"{steps / 10**digits:.{digits}f}"
        text = text.rstrip("0").rstrip(".") if digits else text
        return "0" if text == "-0" else text
    steps = turn(round(value_mm / INCH_MM * division, 6))
    sign, steps = ("-" if steps < 0 else ""), abs(steps)
    whole, part = divmod(steps, division)
    fraction = Fraction(part, division)
    if not part:
        return f'{sign}{whole}"' if whole else '0"'
    return f'{sign}{whole} {fraction}"' if whole else f'{sign}{fraction}"'


def write_mass(value_kg: float, unit: Literal["kg", "lb"]) -> str:
    """A mass to a tenth of its unit."""
    value = value_kg if unit == "kg" else value_kg / POUND_KG
    return f"{value:.1f} {unit}"
