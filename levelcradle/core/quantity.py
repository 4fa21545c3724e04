"""What a tape, a scale or a data sheet shows: read it, and write it back.

One reader serves every blank. It takes what people write: ``372``, ``37.2 cm``, ``37,2 cm``, ``14 5/8``, ``14-5/8``,
``12+3/8``, ``2' 3 1/2"``, ``⅝``, ``3/16" + 6 mm``, ``1,200``, ``47 lb``. A bare number is in the unit of its list; but
a fraction that names no unit is of inches, whatever the list, since nobody reads sixteenths of a millimetre off a tape.
"""

import math
import re
import unicodedata
from collections.abc import Callable
from dataclasses import dataclass, field
from fractions import Fraction
from typing import Literal

from levelcradle.core.errors import ReadingError

__all__ = [
    "INCH_MM",
    "POUND_KG",
    "Move",
    "Place",
    "PlaceAxis",
    "QuantityKind",
    "meant",
    "read",
    "read_place",
    "write_along",
    "write_length",
    "write_mass",
]

INCH_MM = 25.4  # exact: international yard and pound agreement, 1959
FOOT_MM = 304.8  # exact: the same agreement
POUND_KG = 0.45359237  # exact: the same agreement
POUND_FOOT_NM = POUND_KG * 9.80665 * 0.3048  # exact product

QuantityKind = Literal["length", "mass", "angle", "torque", "voltage", "number"]

UNITS: dict[QuantityKind, dict[str, float]] = {
    "length": {
        "mm": 1,
        "cm": 10,
        "m": 1000,
        "in": INCH_MM,
        "inch": INCH_MM,
        "inches": INCH_MM,
        '"': INCH_MM,
        "ft": FOOT_MM,
        "foot": FOOT_MM,
        "feet": FOOT_MM,
        "'": FOOT_MM,
    },
    "mass": {"kg": 1, "g": 0.001, "t": 1000, "lb": POUND_KG, "lbs": POUND_KG, "oz": POUND_KG / 16},
    "angle": {"deg": 1, "°": 1},
    "torque": {"nm": 1, "n·m": 1, "lbf·ft": POUND_FOOT_NM, "lbft": POUND_FOOT_NM},
    "voltage": {"v": 1, "mv": 0.001},
    "number": {},
}
DEFAULT_UNIT: dict[QuantityKind, str] = {
    "length": "mm",
    "mass": "kg",
    "angle": "deg",
    "torque": "nm",
    "voltage": "v",
    "number": "",
}
LARGEST = 1e9
LONGEST_TEXT = 200

_SAME = str.maketrans(
    {"′": "'", "’": "'", "‘": "'", "″": '"', "”": '"', "“": '"', "−": "-", "–": "-", "×": "*", "⁄": "/"}
)
_NUMBER = re.compile(r"\d+(?:[.,]\d+)*|[.,]\d+")
_UNIT = re.compile(r"[a-z°·]+|''|[\"']")
_FRACTION = re.compile(r"(\d+)\s*/\s*(\d+)")
_MIXED = re.compile(r"(\d+)(?:\s+|\s*-\s*|\+)(\d+)\s*/\s*(\d+)")
_BARE_FRACTION = re.compile(r"\d\s*/\s*\d+(?!\s*[\d\"'a-z])")


def read(text: str, kind: QuantityKind = "length", unit: str = "") -> float:
    """The value of a typed text in the core's unit (mm, kg, degrees, N·m, V).

    Args:
        text: what was typed; sums (``+``, ``-``) and a whole-number factor (``3 x 25``) are worked out.
        kind: what the blank asks for.
        unit: the unit of a number that names none; "" stands for the core's own.
    Raises: ReadingError with a sentence for the person at the blank.

    >>> read('14 5/8', unit='in')
    371.475
    >>> read("2 ft 3 1/2 in")
    698.5
    >>> read('3 x 25 + 6')
    81.0
    """
    return meant(text, kind, unit)[0]


def meant(text: str, kind: QuantityKind = "length", unit: str = "") -> tuple[float, str]:
    """As ``read``, with the unit that its bare numbers were taken to be in. Raises: ReadingError.

    >>> meant('372')
    (372.0, 'mm')
    >>> meant('1/8')
    (3.175, 'in')
    """
    unit = unit or DEFAULT_UNIT[kind]
    if unit and unit not in UNITS[kind]:
        raise ReadingError(text, f"“{unit}” is no unit of {kind}.")
    reader = _Reader(text, kind, unit)
    value = reader.whole()
    if not math.isfinite(value) or abs(value) > LARGEST:
        raise ReadingError(text, "That number is too large.")
    return value, reader.unit


class _Reader:
    """Reads left to right; ``at`` is how far it has come."""

    def __init__(self, text: str, kind: QuantityKind, unit: str) -> None:
        self.original, self.kind, self.unit, self.at = text, kind, unit, 0
        if len(text) > LONGEST_TEXT:
            raise self.wrong("That is too long to be a number.")
        self.text = _plain(text)
        if not self.text:
            raise self.wrong("Type a number.")
        if kind == "length" and unit == "mm" and _BARE_FRACTION.search(self.text):
            self.unit = "in"

    def wrong(self, message: str) -> ReadingError:
        return ReadingError(self.original, message)

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
        if self.text[self.at] in "+-":
            sign, self.at = (-1 if self.text[self.at] == "-" else 1), self.at + 1
            self.skip()
        if self.at < len(self.text) and self.text[self.at] in "+-":
            raise self.wrong("Two signs stand together.")
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
        """Point or comma before decimals; a comma before exactly three digits parts thousands, as the screens write
        them."""
        if re.fullmatch(r"[1-9]\d{0,2}(,\d{3})+(\.\d+)?", digits):
            return digits.replace(",", "")
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


PlaceAxis = Literal["aft", "across", "up", "left", "right"]
"""What a bare number in a blank says: a place along an axis; of a wall at the left or right, so far to that side."""


@dataclass(frozen=True, slots=True)
class Move:
    """One axis of a typed place: a new figure, or a change (``by``) of the one that stands. ``unit``: what its bare
    numbers were taken to be in; ``text``: what of the whole text said it."""

    value_mm: float
    by: bool = False
    unit: str = field(default="mm", compare=False)
    text: str = field(default="", compare=False)


@dataclass(frozen=True, slots=True)
class Place:
    """A typed place: what is said about each axis, None where nothing is said."""

    aft: Move | None = None
    across: Move | None = None
    up: Move | None = None


_AXIS_OF: dict[PlaceAxis, tuple[str, float]] = {
    "aft": ("aft", 1),
    "across": ("across", 1),
    "up": ("up", 1),
    "left": ("across", -1),
    "right": ("across", 1),
}
_WAYS: dict[str, tuple[str, float]] = {
    "aft": ("aft", 1),
    "a": ("aft", 1),
    "fore": ("aft", -1),
    "forward": ("aft", -1),
    "fwd": ("aft", -1),
    "f": ("aft", -1),
    "r": ("across", 1),
    "right": ("across", 1),
    "l": ("across", -1),
    "left": ("across", -1),
    "up": ("up", 1),
    "u": ("up", 1),
    "down": ("up", -1),
    "d": ("up", -1),
}
_WAY_AT_END = re.compile(r"\s+([a-z]+)$|(?<=\d)([a-z]+)$")
_AFTER_A_WAY = re.compile(
    rf"(?<=[\s\d\"'])(?P<way>{'|'.join(sorted(_WAYS, key=len, reverse=True))})\s+(?=[-+.\d])", re.IGNORECASE
)


def read_place(text: str, way: PlaceAxis = "aft", unit: str = "mm") -> Place:
    """A place or a move as the trade says it.

    ``840 aft, 120 R, 310 up`` names all three, with or without commas; parts without a direction are taken in the order
    aft, across, up, starting at ``way``. A word without a sign is a place: ``236 L``, ``12 aft``. A sign is a move:
    ``+12``, ``-5``, ``+12 aft``. Raises: ReadingError.

    >>> read_place('840 aft, 120 L').across.value_mm
    -120.0
    """
    parts = list(_parts(text))
    if not parts:
        raise ReadingError(text, "Type a place, such as 840 aft, 120 R, 310 up.")
    first, turn = _AXIS_OF[way]
    order = ["aft", "across", "up"][["aft", "across", "up"].index(first) :]
    said: dict[str, Move] = {}
    for part in parts:
        word, value, own, signed = _one_axis(part, unit)
        name, sign = _WAYS[word] if word else (next((a for a in order if a not in said), ""), 1.0)
        if not word and name == first:
            sign = turn
        if not name or name in said:
            raise ReadingError(text, f"“{part}” says an axis twice." if name else f"“{part}” is one figure too many.")
        said[name] = Move(sign * value, signed, own, part)
    return Place(**said)


def _parts(text: str) -> list[str]:
    """A text cut at commas, and after each word that names a direction."""
    cut = _AFTER_A_WAY.sub(r"\g<way>;", text)
    return [part.strip() for part in re.split(r";|,\s+|,$", cut.strip()) if part.strip()]


def _one_axis(part: str, unit: str) -> tuple[str, float, str, bool]:
    """(direction word or "", value in mm, the unit of its bare numbers, whether a sign stood before it)."""
    plain = _plain(part)
    found, signed = _WAY_AT_END.search(plain), plain[:1] in ("+", "-")
    word = (found.group(1) or found.group(2)) if found else ""
    if found is None or word not in _WAYS:
        return "", *meant(part, "length", unit), signed
    return word, *meant(plain[: found.start()], "length", unit), signed


def write_along(value_mm: float, way: PlaceAxis, unit: Literal["mm", "in"]) -> str:
    """A place along one axis as it is typed, so that no sign is needed: ``840``, ``125 fore``, ``350 L``, ``5 down``;
    of a wall at the left ``425``. What is written reads back as the same place.

    >>> write_along(-350.0, 'across', 'mm')
    '350 L'
    """
    axis, turn = _AXIS_OF[way]
    size = write_length(abs(value_mm), unit)
    if size in ("0", '0"'):
        return size
    back = {"aft": "fore", "across": "L" if turn > 0 else "R", "up": "down"}[axis]
    ahead = "R" if way == "across" else ""
    return f"{size} {ahead if value_mm * turn > 0 else back}".strip()


def write_length(
    value_mm: float,
    unit: Literal["mm", "in"],
    *,
    division: int = 32,
    digits: int = 1,
    toward: Callable[[float], int] | None = None,
) -> str:
    """A length as a shop writes it: ``372``, ``10.5``, ``14 5/8"``.

    Args:
        division: inch fractions are rounded to 1/division.
        digits: most decimals of a millimetre figure.
        toward: math.floor or math.ceil to round to one side (gaps go down, demands up); nearest if None.
    What is written reads back within half a division (one whole division when rounded to one side).

    >>> write_length(371.475, 'in')
    '14 5/8"'
    >>> write_length(371.475, 'mm')
    '371.5'
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
    return f"{value:,.1f} {unit}"
