"""Habits of typing, through the screen: what is read in a size and in a place, in lists of millimetres and of
inches."""

import re
from typing import Any

import pytest
from playwright.sync_api import Locator, expect

from tests.web.conftest import Bench

REFUSED = None
SIZES: dict[str, tuple[float | None, float | None]] = {  # what is typed: in a list of mm, in a list of inches
    '24 1/2"': (622.3, 622.3), "2' 3\"": (685.8, 685.8), "15 3/16": (385.7625, 385.7625), "61.5 cm": (615.0, 615.0),
    "1,200": (1200.0, 30480.0), "12+3/8 in": (314.325, 314.325), "610-25": (585.0, 14859.0), "0": (0.0, 0.0),
    "--3": (REFUSED, REFUSED), "abc": (REFUSED, REFUSED), "": (REFUSED, REFUSED), "236 L": (REFUSED, REFUSED),
    "2600 aft 300 left 350 up": (REFUSED, REFUSED),
}  # fmt: skip
PLACES: dict[str, tuple[float | None, float | None]] = {  # of a blank for a place aft
    "15 3/16": (385.7625, 385.7625),
    "1,200": (1200.0, 30480.0),
    "610-25": (585.0, 14859.0),
    "12 aft": (12.0, 304.8),
    "840 aft, 120 R, 310 up": (840.0, 21336.0),
    "2600 aft 300 left 350 up": (2600.0, 66040.0),
    "30 fore": (-30.0, -762.0),
    "236 L": (REFUSED, REFUSED),
    "--3": (REFUSED, REFUSED),
    "abc": (REFUSED, REFUSED),
}


def told(field: Locator, text: str) -> str:
    """What the screen says of a text at its blank."""
    field.fill(text)
    message = field.page.locator(f"#{field.get_attribute('id')}-message".replace(":", "\\:"))
    expect(message).not_to_be_empty()
    return message.inner_text()


def read_of(words: str) -> float | None:
    found = re.match(r"(-?[\d.]+) mm · ", words)
    return float(found.group(1)) if found else REFUSED


@pytest.mark.parametrize(("unit", "column"), [("mm", 0), ("in", 1)])
def test_what_is_typed_in_survey_and_stock_is_read_the_same_everywhere(bench: Bench, unit: str, column: int) -> None:
    units = [{"op": "replace", "path": f"/units/{name}", "value": unit} for name in ("survey", "stock", "place")]
    if unit == "in":
        bench.store.edit(bench.car, units, base=1, session="start")
    bench.go("survey")
    _table(bench.page.get_by_label("Front overhang", exact=True), SIZES, column)
    bench.page.get_by_role("button", name="Spaces").click()
    bench.page.get_by_role("button", name="bonnet", exact=True).first.click()
    _table(bench.page.get_by_label("station 1, aft"), PLACES, column)
    bench.go("stock")
    bench.page.get_by_role("button", name=re.compile("^Flagstone")).first.click()
    _table(bench.page.get_by_label("Length (end A to end B)").first, SIZES, column)


def _table(field: Locator, rows: dict[str, tuple[float | None, float | None]], column: int) -> None:
    for text, values in rows.items():
        want, words = values[column], told(field, text)
        got = read_of(words)
        assert (got is None) == (want is None), (text, words)
        if want is not None and got is not None:
            assert got == pytest.approx(want, abs=0.051), (text, words)
        field.press("Escape")


@pytest.mark.parametrize(
    ("axis", "typed", "place"),
    [
        ("across", "236 L", (2670.5, -236.0, 352.0)),  # a word is a place
        ("across", "-5", (2670.5, -355.0, 352.0)),  # a sign is a move
        ("up", "+12", (2670.5, -350.0, 364.0)),
        ("aft", "2600 aft 300 left 350 up", (2600.0, -300.0, 350.0)),
        ("aft", "+12 aft", (2682.5, -350.0, 352.0)),
        ("aft", "1,200", (1200.0, -350.0, 352.0)),
    ],
)
def test_in_place_a_word_is_a_place_and_a_sign_is_a_move(bench: Bench, axis: str, typed: str, place: Any) -> None:
    bench.go("place")
    bench.press(*bench.middle("plan", "boxes/tank", "tray"))
    bench.page.keyboard.press("=")
    field = bench.page.get_by_role("dialog", name="Place of Tank box").get_by_label(re.compile(f"^{axis}"))
    field.fill(typed)
    field.press("Enter")
    bench.saved(2)
    assert bench.place() == pytest.approx(list(place))


def test_a_bare_fraction_is_of_inches_and_its_blank_shows_both_afterwards(bench: Bench) -> None:
    bench.go("survey")
    field = bench.page.get_by_label("Front overhang", exact=True)
    field.fill("27 3/16")
    expect(bench.page.get_by_text('690.6 mm · 27 3/16"')).to_be_visible()
    field.press("Enter")
    bench.saved(2)
    assert bench.tree["vehicle"]["overall"]["overhang_front_mm"] == pytest.approx(690.5625)
    expect(field).to_have_value("690.6")
    expect(bench.page.get_by_text("typed 27 3/16 in")).to_be_visible()
    bench.store.edit(bench.car, [{"op": "replace", "path": "/units/survey", "value": "in"}], base=2, session="other")
    expect(field).to_have_value("27 3/16")


def test_a_list_that_changes_its_unit_changes_what_its_blanks_show_not_what_was_meant(bench: Bench) -> None:
    bench.go("survey")
    field = bench.page.get_by_label("Front overhang", exact=True)
    field.fill("698.5")
    field.press("Enter")
    bench.saved(2)
    bench.page.get_by_role("button", name="in", exact=True).first.click()
    bench.saved(3)
    expect(field).to_have_value('27 1/2"')
    expect(bench.page.get_by_text("typed 698.5 mm")).to_be_visible()
    assert bench.tree["vehicle"]["overall"]["overhang_front_mm"] == 698.5


def test_left_of_the_centreline_is_what_a_bare_number_means_at_the_left(bench: Bench) -> None:
    bench.go("survey")
    bench.page.get_by_role("button", name="Spaces").click()
    bench.page.get_by_role("button", name="bonnet", exact=True).first.click()
    field = bench.page.get_by_label("station 1, left at top")
    before = float(bench.tree["bays"]["bonnet"]["stations"]["a"]["left_top_mm"])
    assert not field.input_value().startswith("-")
    field.fill("425")
    field.press("Enter")
    bench.saved(2)
    assert bench.tree["bays"]["bonnet"]["stations"]["a"]["left_top_mm"] == -425.0 != before
    expect(field).to_have_value("425")
