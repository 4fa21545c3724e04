"""Every control has a name, no text is too small or too pale, axe-core finds nothing, and a drag shows its gap while it goes on."""

import pytest

from tests.web.conftest import Bench
from tests.web.test_axe import told

STATIONS = ("survey", "stock", "place", "box", "mount", "level", "drawings")
UNNAMED = """() => [...document.querySelectorAll('button, a, input, select, [role=button]')]
  .filter(e => !(e.getAttribute('aria-label') || e.textContent.trim() || e.title || (e.labels && e.labels.length)))
  .map(e => e.outerHTML.slice(0, 120))"""
SMALL = """() => [...document.querySelectorAll('body *')]
  .filter(e => [...e.childNodes].some(n => n.nodeType === 3 && n.textContent.trim()))
  .filter(e => e.getClientRects().length && parseFloat(getComputedStyle(e).fontSize) < 12)
  .map(e => e.outerHTML.slice(0, 120))"""
PALE = """() => {
  const lum = c => { const [r, g, b] = c.map(v => { v /= 255; return v <= 0.03928 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4 })
    return 0.2126 * r + 0.7152 * g + 0.0722 * b }
  const rgb = text => (text.match(/[\\d.]+/g) || []).map(Number)
  const ground = e => { for (let n = e; n; n = n.parentElement) { const c = rgb(getComputedStyle(n).backgroundColor)
    if (c.length === 3 || c[3] > 0.9) return c.slice(0, 3); if (getComputedStyle(n).backgroundImage !== 'none') return [201, 205, 207] }
    return [245, 242, 234] }
  return [...document.querySelectorAll('main *, aside *, section *')]
    .filter(e => !e.closest('svg') && !e.matches(':disabled, option') && [...e.childNodes].some(n => n.nodeType === 3 && n.textContent.trim()))
    .filter(e => e.getClientRects().length)
    .map(e => { const [a, b] = [lum(rgb(getComputedStyle(e).color).slice(0, 3)), lum(ground(e))].sort((x, y) => y - x)
      return [(a + 0.05) / (b + 0.05), e.textContent.slice(0, 40)] })
    .filter(([ratio]) => ratio < 4.5).slice(0, 5)
}"""


@pytest.mark.parametrize("station", STATIONS)
def test_every_control_has_a_name_and_every_text_can_be_read(bench: Bench, station: str) -> None:
    bench.go(station)
    bench.page.get_by_role("complementary", name="Ledger").wait_for()
    assert bench.page.evaluate(UNNAMED) == []
    assert bench.page.evaluate(SMALL) == []
    assert bench.page.evaluate(PALE) == []
    assert told(bench.page) == []


def test_the_first_list_of_cars_is_named_and_readable_too(bench: Bench) -> None:
    bench.page.goto("/")
    bench.page.get_by_role("heading", name="New car").wait_for()
    assert bench.page.evaluate(UNNAMED) == []
    assert bench.page.evaluate(SMALL) == []


def test_reduced_motion_is_respected(bench: Bench) -> None:
    bench.page.emulate_media(reduced_motion="reduce")
    bench.go("place")
    moving = "() => [...document.querySelectorAll('*')].filter(e => parseFloat(getComputedStyle(e).transitionDuration) > 0).length"
    assert bench.page.evaluate(moving) == 0


def test_it_fits_a_1024_wide_tablet(bench: Bench) -> None:
    bench.page.set_viewport_size({"width": 1024, "height": 768})
    for station in STATIONS:
        bench.go(station)
        bench.page.get_by_role("button", name="Ledger", exact=True).wait_for()
        assert bench.page.evaluate("document.documentElement.scrollWidth") <= 1024
        assert bench.page.evaluate("document.documentElement.scrollHeight") <= 768


PARTS = {
    "survey": ("Weights", "Things", "Reference points", "Spaces", "Keep-outs", "Hard points", "Duties, faults", "Files", "Still to measure"),
    "stock": ("Kinds", "Shelf", "Stacks and hardware", "Tables"),
}


@pytest.mark.parametrize(("station", "part"), [(s, p) for s, parts in PARTS.items() for p in parts])
def test_every_part_of_survey_and_stock_has_names_and_can_be_read(bench: Bench, station: str, part: str) -> None:
    bench.go(station)
    bench.page.get_by_role("button", name=part, exact=True).click()
    bench.settle()
    for button in bench.page.locator('main button[aria-expanded="false"]').all()[:3]:
        button.click()
    assert bench.page.evaluate(UNNAMED) == []
    assert bench.page.evaluate(SMALL) == []
    assert bench.page.evaluate(PALE) == []
    assert told(bench.page) == []
    assert bench.page.evaluate("document.documentElement.scrollWidth") <= 1280


def test_taking_measurements_and_instruments_have_names_and_can_be_read(bench: Bench) -> None:
    bench.go("survey")
    bench.page.get_by_role("button", name="instruments").click()
    bench.page.get_by_role("button", name="Take measurements").click()
    bench.page.get_by_role("group", name="Pad").wait_for()
    assert bench.page.evaluate(UNNAMED) == []
    assert bench.page.evaluate(SMALL) == []
    assert bench.page.evaluate(PALE) == []
    assert told(bench.page) == []
