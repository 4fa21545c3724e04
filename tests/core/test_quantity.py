"""Reading what a tape shows, and writing it back."""

import math
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from levelcradle.core.errors import ReadingError
from levelcradle.core.quantity import (
    Move,
    Place,
    PlaceAxis,
    meant,
    read,
    read_place,
    write_along,
    write_length,
    write_mass,
)

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
        ("1,200", "mm", 1200.0),
        ("2,480,000", "mm", 2_480_000.0),
        ('24 1/2"', "mm", 622.3),
        ("61.5 cm", "mm", 615.0),
        ("610-25", "mm", 585.0),
        ("15 3/16", "mm", 385.7625),  # a fraction that names no unit is of inches
        ("14 5/8", "mm", 371.475),
        ("14-5/8", "mm", 371.475),
        ("⅝", "mm", 15.875),
        ("15 3/16 - 2", "mm", 334.9625),
        ("12+3/8 in", "mm", 314.325),
        ("12+3/8", "in", 314.325),
        ("12 + 3/8 in", "in", 314.325),
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
    ("text", "message"),
    [
        ("", "Type a number."),
        ("   ", "Type a number."),
        ("abc", "A number is missing before “abc”."),
        ("12 +", "A number is missing at the end."),
        ("5 kg", "“kg” is no unit of length."),
        ("1/0", "A fraction cannot have 0 below the line."),
        ("--3", "Two signs stand together."),
        ("610--25", "Two signs stand together."),
        ("1.2.3", "“1.2.3” has more than one decimal point."),
        ("12 ; 13", "“; 13” was not understood."),
        ("2.5 x 10", "A factor must be a whole number, as in 3 x 25."),
        ("9" * 30, "That number is too large."),
        ("9" * 300, "That is too long to be a number."),
    ],
)
def test_what_cannot_be_read_says_why(text: str, message: str) -> None:
    with pytest.raises(ReadingError) as caught:
        read(text)
    assert caught.value.message == message


@given(st.text(max_size=40))
def test_any_text_is_read_or_refused_in_words(text: str) -> None:
    try:
        value, message = read(text), "."
    except ReadingError as error:
        value, message = 0.0, error.message
    assert math.isfinite(value)
    assert message.endswith(".")


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
        ("12 aft", "up", Place(aft=Move(12))),
        ("236 L", "across", Place(across=Move(-236))),
        ("12 forward", "aft", Place(aft=Move(-12))),
        ("+12 aft", "up", Place(aft=Move(12, by=True))),
        ("+12 L", "aft", Place(across=Move(-12, by=True))),
        ("-5", "up", Place(up=Move(-5, by=True))),
        ("425", "left", Place(across=Move(-425))),
        ("425", "right", Place(across=Move(425))),
        ("30 R", "left", Place(across=Move(30))),
        ("+12", "left", Place(across=Move(-12, by=True))),
        ("2600 aft 300 left 350 up", "aft", Place(Move(2600), Move(-300), Move(350))),
        ("2,600 aft, 15 3/16 R", "aft", Place(Move(2600), Move(385.7625))),
        ("33 1/16\" aft 4 3/4\" R 2 ft 3 in up", "aft", Place(Move(839.7875), Move(120.65), Move(685.8))),
        ("33 1/16\" aft, 4 3/4\" R", "aft", Place(Move(839.7875), Move(120.65))),
        ("-350", "across", Place(across=Move(-350, by=True))),
    ],
)  # fmt: skip
def test_a_place_is_read_as_the_trade_says_it(text: str, axis: str, place: Place) -> None:
    assert read_place(text, axis) == place  # type: ignore[arg-type]


@pytest.mark.parametrize("text", ["", "840 aft, 12 aft", "1, 2, 3, 4", "aft", "840 sideways"])
def test_a_place_that_makes_no_sense_is_refused(text: str) -> None:
    with pytest.raises(ReadingError):
        read_place(text)


def test_the_unit_that_was_meant_is_told() -> None:
    assert [meant(text, "length", "mm")[1] for text in ("15 3/16", "15", "61.5 cm", '3/16" + 6 mm')] == [
        "in",
        "mm",
        "mm",
        "mm",
    ]
    assert meant("1/2", "mass", "kg") == (0.5, "kg")


@given(MILLIMETRES, st.sampled_from(["aft", "across", "up", "left", "right"]), st.sampled_from(["mm", "in"]))
def test_a_place_along_an_axis_reads_back_without_a_sign(value: float, way: PlaceAxis, unit: str) -> None:
    text = write_along(value, way, unit)  # type: ignore[arg-type]
    axis = "across" if way in ("left", "right") else way
    found = getattr(read_place(text, way, unit), axis)
    assert not text.startswith(("-", "+"))
    assert not found.by
    assert abs(found.value_mm - value) <= (0.05 if unit == "mm" else INCH_MM / 64) + 1e-6


@pytest.mark.parametrize("unit", ["mm", "in"])
@pytest.mark.parametrize("nothing", [0.0, -0.0, 1e-9, -1e-9])
def test_nothing_has_no_sign(nothing: float, unit: Any) -> None:
    assert not write_length(nothing, unit).startswith("-")
