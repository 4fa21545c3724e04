"""Every control has a name, no text is too small or too pale, axe-core finds nothing, and a drag shows its gap while
it goes on."""

import pytest

from tests.web.conftest import Bench
from tests.web.contrast import pale_words
from tests.web.test_axe import told

STATIONS = ("survey", "stock", "place", "box", "mount", "level", "drawings")
UNNAMED = """() => [...document.querySelectorAll('button, a, input, select, [role=button]')]
  .filter(e => !(e.getAttribute('aria-label') || e.textContent.trim() || e.title || (e.labels && e.labels.length)))
  .map(e => e.outerHTML.slice(0, 120))"""
SMALL = """() => [...document.querySelectorAll('body *')]
  .filter(e => [...e.childNodes].some(n => n.nodeType === 3 && n.textContent.trim()))
  .filter(e => e.getClientRects().length && parseFloat(getComputedStyle(e).fontSize) < 12)
  .map(e => e.outerHTML.slice(0, 120))"""


@pytest.mark.parametrize("station", STATIONS)
def test_every_control_has_a_name_and_every_text_can_be_read(bench: Bench, station: str) -> None:
    bench.go(station)
    bench.page.get_by_role("complementary", name="Ledger").wait_for()
    assert bench.page.evaluate(UNNAMED) == []
    assert bench.page.evaluate(SMALL) == []
    assert pale_words(bench.page) == []
    assert told(bench.page) == []


def test_the_first_list_of_cars_is_named_and_readable_too(bench: Bench) -> None:
    bench.page.goto("/")
    bench.page.get_by_role("heading", name="New car").wait_for()
    assert bench.page.evaluate(UNNAMED) == []
    assert bench.page.evaluate(SMALL) == []


def test_reduced_motion_is_respected(bench: Bench) -> None:
    bench.page.emulate_media(reduced_motion="reduce")
    bench.go("place")
    moving = (
        "() => [...document.querySelectorAll('*')]"
        ".filter(e => parseFloat(getComputedStyle(e).transitionDuration) > 0).length"
    )
    assert bench.page.evaluate(moving) == 0


def test_it_fits_a_1024_wide_tablet(bench: Bench) -> None:
    bench.page.set_viewport_size({"width": 1024, "height": 768})
    for station in STATIONS:
        bench.go(station)
        bench.page.get_by_role("button", name="Ledger", exact=True).wait_for()
        assert bench.page.evaluate("document.documentElement.scrollWidth") <= 1024
        assert bench.page.evaluate("document.documentElement.scrollHeight") <= 768


PARTS = {
    "survey": (
        "Weights",
        "Things",
        "Reference points",
        "Spaces",
        "Keep-outs",
        "Hard points",
        "Duties, faults",
        "Files",
        "Still to measure",
    ),
    "stock": ("Kinds", "Shelf", "Stacks and hardware", "Tables"),
}


@pytest.mark.parametrize("station", PARTS)
def test_every_part_of_survey_and_stock_has_names_and_can_be_read(bench: Bench, station: str) -> None:
    bench.go(station)
    for part in PARTS[station]:
        bench.page.get_by_role("button", name=part, exact=True).click()
        bench.settle()
        for button in bench.page.locator('main button[aria-expanded="false"]').all()[:3]:
            button.click()
        assert bench.page.evaluate(UNNAMED) == [], part
        assert bench.page.evaluate(SMALL) == [], part
        assert pale_words(bench.page) == [], part
        assert told(bench.page) == [], part
        assert bench.page.evaluate("document.documentElement.scrollWidth") <= 1280, part


def test_taking_measurements_and_instruments_have_names_and_can_be_read(bench: Bench) -> None:
    bench.go("survey")
    bench.page.get_by_role("button", name="instruments").click()
    bench.page.get_by_role("button", name="Take measurements").click()
    bench.page.get_by_role("group", name="Pad").wait_for()
    assert bench.page.evaluate(UNNAMED) == []
    assert bench.page.evaluate(SMALL) == []
    assert pale_words(bench.page) == []
    assert told(bench.page) == []
