"""Reading what a tape shows, and writing it back."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from levelcradle.core.errors import ReadingError
from levelcradle.core.quantity import Move, Place, read, read_place, write_length, write_mass

MILLIMETRES = st.floats(-20_000, 20_000, allow_nan=False)
INCH_MM = 25.4


@pytest.mark.parametrize(
    ("text", "unit", "value_mm"),
    [
        ("372", "mm", 372.0),
        ("37.2 cm", "mm", 372.0),
        ("37,2 cm", "mm", 372.0),
        ("1.2 m", "mm", 1200.0),
        ("14 5/8", "in", 371.475),
        ("14-5/8", "in", 371.475),
        ("14 - 5/8", "in", 371.475),
        ("2' 3 1/2\"", "mm", 698.5),
        ("2′ 3 1/2″", "mm", 698.5),
        ("2 ft 3 in", "mm", 685.8),
        ("3 ft 20 mm", "mm", 934.4),
        ("2' 3", "mm", 685.8),
        ("⅝", "in", 15.875),
        ("2½ in", "mm", 63.5),
        ("1/8", "in", 3.175),
        ("0.625 in", "mm", 15.875),
        ("0,625 in", "mm", 15.875),
        ('3/16" + 6 mm', "mm", 10.7625),
        ("100 - 3 x 25", "mm", 25.0),
        ("3 × 25", "mm", 75.0),
        ("-12", "mm", -12.0),
        ("−12", "mm", -12.0),
        ("1,234.5", "mm", 1234.5),
        ("  372  ", "mm", 372.0),
        (".5", "mm", 0.5),
    ],
)
def test_a_length_is_read_as_it_is_written_in_the_shop(text: str, unit: str, value_mm: float) -> None:
    assert read(text, "length", unit) == value_mm


@pytest.mark.parametrize(
    ("text", "kind", "value"),
    [
        ("47 lb", "mass", 21.31884139),
        ("3 lb 4 oz", "mass", 1.4741752025),
        ("24.6", "mass", 24.6),
        ("250 g", "mass", 0.25),
        ("7.5°", "angle", 7.5),
        ("50.5 N·m", "torque", 50.5),
        ("44.6 V", "voltage", 44.6),
        ("12", "number", 12.0),
    ],
)
def test_other_quantities(text: str, kind: str, value: float) -> None:
    assert read(text, kind) == pytest.approx(value, rel=1e-12)  # type: ignore[arg-type]


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("", "Type a number."),
        ("   ", "Type a number."),
        ("abc", "A number is missing before “abc”."),
        ("12 +", "A number is missing at the end."),
        ("5 kg", "“kg” is no unit of length."),
        ("1/0", "A fraction cannot have 0 below the line."),
        ("2,480", "“2,480” can mean 2480 or 2.480. Leave the comma out, or use a point."),
        ("1.2.3", "“1.2.3” has more than one decimal point."),
        ("12 ; 13", "“; 13” was not understood."),
        ("2.5 x 10", "A factor must be a whole number, as in 3 x 25."),
        ("9" * 30, "That number is too large."),
        ("9" * 300, "That is too long to be a number."),
    ],
)
def test_what_cannot_be_read_says_why(text: str, says: str) -> None:
    with pytest.raises(ReadingError) as caught:
        read(text)
    assert caught.value.says == says


@given(st.text(max_size=40))
def test_any_text_is_read_or_refused_in_words(text: str) -> None:
    try:
        value, says = read(text), "."
    except ReadingError as error:
        value, says = 0.0, error.says
    assert math.isfinite(value)
    assert says.endswith(".")


@given(MILLIMETRES)
def test_millimetres_read_back_within_half_a_division(value: float) -> None:
    assert abs(read(write_length(value, "mm")) - value) <= 0.05 + 1e-6


@given(MILLIMETRES)
def test_inches_read_back_within_half_a_division(value: float) -> None:
    assert abs(read(write_length(value, "in"), "length", "in") - value) <= INCH_MM / 64 + 1e-6


@given(st.floats(0, 20_000, allow_nan=False))
def test_gaps_are_written_down_and_demands_up(value: float) -> None:
    down = read(write_length(value, "mm", toward=math.floor))
    up = read(write_length(value, "mm", toward=math.ceil))
    assert down <= value + 1e-6 <= up + 2e-6
    assert up - down <= 0.1 + 1e-6


@pytest.mark.parametrize(
    ("value_mm", "text"),
    [(371.475, '14 5/8"'), (25.4, '1"'), (0.0, '0"'), (-3.175, '-1/8"'), (698.5, '27 1/2"'), (0.79375, '1/32"')],
)
def test_inch_fractions_are_written_in_lowest_terms(value_mm: float, text: str) -> None:
    assert write_length(value_mm, "in") == text


def test_masses_are_written_to_a_tenth() -> None:
    assert write_mass(130.633, "kg") == "130.6 kg"
    assert write_mass(45.359237, "lb") == "100.0 lb"


@pytest.mark.parametrize(
    ("text", "axis", "place"),
    [
        ("840 aft, 120 R, 310 up", "aft", Place(Move(840), Move(120), Move(310))),
        ("310 up, 120 L", "aft", Place(None, Move(-120), Move(310))),
        ("840, 120 L, 310", "aft", Place(Move(840), Move(-120), Move(310))),
        ("+12", "aft", Place(aft=Move(12, by=True))),
        ("+1/2 in", "up", Place(up=Move(12.7, by=True))),
        ("12 aft", "up", Place(aft=Move(12, by=True))),
        ("12 forward", "aft", Place(aft=Move(-12, by=True))),
        ("33 1/16\" aft, 4 3/4\" R", "aft", Place(Move(839.7875), Move(120.65))),
        ("-350", "across", Place(across=Move(-350))),
    ],
)  # fmt: skip
def test_a_place_is_read_as_the_trade_says_it(text: str, axis: str, place: Place) -> None:
    assert read_place(text, axis) == place  # type: ignore[arg-type]


@pytest.mark.parametrize("text", ["", "840 aft, 12 aft", "1, 2, 3, 4", "aft", "840 sideways"])
def test_a_place_that_makes_no_sense_is_refused(text: str) -> None:
    with pytest.raises(ReadingError):
        read_place(text)
