"""Letters of single lines."""

import string
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from levelcradle.drawings.engraved import CAPITAL, engraved
from levelcradle.drawings.sheet import Point, Sheet, Stroke, Words

HERE = Words((40.0, 60.0), "H", 10.0)


def lines(words: Words) -> list[tuple[Point, ...]]:
    marks = engraved(Sheet("x", "x", marks=[words])).marks
    assert all(isinstance(mark, Stroke) and not mark.closed and not mark.fill for mark in marks)
    return [mark.points for mark in marks if isinstance(mark, Stroke)]


def extent(drawn: list[tuple[Point, ...]]) -> tuple[float, float, float, float]:
    xs, ys = [x for line in drawn for x, _ in line], [y for line in drawn for _, y in line]
    return min(xs), min(ys), max(xs), max(ys)


def test_a_capital_stands_on_its_line_as_tall_as_on_the_sheet() -> None:
    left, low, right, high = extent(lines(HERE))
    assert (low, high - low) == pytest.approx((60.0, CAPITAL * 10.0))
    assert 40.0 < left < right < 50.0


@given(st.text(string.ascii_letters, min_size=1, max_size=8))
def test_a_text_ends_or_has_its_middle_where_it_is_wanted(text: str) -> None:
    start, middle, end = (
        extent(lines(replace(HERE, text=text, anchor=anchor))) for anchor in ("start", "middle", "end")
    )
    assert start[0] - middle[0] == pytest.approx(middle[0] - end[0]), "by half of its width, and by the other half"
    assert end[2] <= 40.0 <= start[0] + 1.0


def test_turned_it_reads_upward() -> None:
    level, turned = lines(HERE), lines(replace(HERE, turned=True))
    for line, other in zip(level, turned, strict=True):
        assert [pytest.approx((40.0 - (y - 60.0), 60.0 + (x - 40.0))) for x, y in line] == list(other)


@pytest.mark.parametrize("letter", sorted(set(string.printable) - set(string.whitespace)))
def test_every_plain_letter_is_drawn_and_is_its_own(letter: str) -> None:
    drawn = lines(replace(HERE, text=letter))
    assert drawn
    others = set(string.ascii_letters + string.digits) - {letter, *("Il" if letter in "Il" else "")}
    assert all(lines(replace(HERE, text=other)) != drawn for other in others)


@pytest.mark.parametrize(("letter", "plain"), list(zip("äéèêñåçčÖÜ", "aeeenaccOU", strict=True)))
def test_an_accent_is_drawn_with_its_letter(letter: str, plain: str) -> None:
    without, drawn = lines(replace(HERE, text=plain)), lines(replace(HERE, text=letter))
    assert drawn[: len(without)] == without
    assert len(drawn) > len(without)


@pytest.mark.parametrize("letter", "中ن🔥Ж")
def test_a_letter_that_it_has_not_is_an_empty_square_not_nothing(letter: str) -> None:
    (square,) = lines(replace(HERE, text=letter))
    assert len(square) == 5
    assert square[0] == square[-1]
