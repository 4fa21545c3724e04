"""No violation that axe-core finds, of whatever impact, on what is opened on the stations; on the stations see
test_access."""

import re
from collections.abc import Callable
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

from tests.web.conftest import Bench
from tests.web.contrast import pale_words

AXE = (Path(__file__).parents[2] / "web" / "node_modules" / "axe-core" / "axe.min.js").read_text()
RUN = """async () => (await axe.run(document, {resultTypes: ['violations']})).violations
  .flatMap(({id, nodes}) => nodes.slice(0, 3).map(n => `${id}: ${n.html.slice(0, 160)}`))"""


def told(page: Page) -> list[str]:
    if not page.evaluate("'axe' in window"):
        page.evaluate(AXE)
    found: list[str] = page.evaluate(RUN)
    return found


def box(page: Page) -> None:
    page.get_by_role("button", name="Tank box").first.click()
    expect(page.get_by_role("heading", name="Tank box")).to_be_visible()


def finding(page: Page) -> None:
    page.get_by_role("region", name="Watch strip").get_by_role("button", name=re.compile("axle")).first.click()
    page.get_by_role("button", name="show the working").click()


def hangs(page: Page) -> None:
    page.get_by_role("button", name="Look for brackets that hold").click()
    expect(page.get_by_role("button", name="Hang it so").first).to_be_visible()


OPENED: dict[str, tuple[str, Callable[[Page], None]]] = {
    "a box": ("place", box), "a finding": ("place", finding),
    "how many fit": ("place", lambda page: page.get_by_role("button", name="How many fit?").click()),
    "a section": ("place", lambda page: page.get_by_role("button", name="section").click()),
    "a space": ("place", lambda page: page.get_by_role("button", name="tank space").click()),
    "the survey's drawing": ("survey", lambda page: page.get_by_role("button", name="Drawing", exact=True).click()),
    "find": ("place", lambda page: page.get_by_role("button", name="Find").click()),
    "the key card": ("place", lambda page: page.keyboard.press("?")),
    "its place": ("place", lambda page: (box(page), page.keyboard.press("="))[0]),
    "take measurements": ("survey", lambda page: page.get_by_role("button", name="Take measurements").click()),
    "how it hangs": ("mount", hangs),
    "a mount": ("mount", lambda page: page.get_by_role("button", name="Tank box mount, left fore").first.click()),
}  # fmt: skip


@pytest.mark.parametrize("name", OPENED)
def test_what_is_opened_on_them(bench: Bench, name: str) -> None:
    station, opened = OPENED[name]
    bench.go(station)
    bench.page.get_by_role("complementary", name="Ledger").wait_for()
    opened(bench.page)
    bench.settle()
    assert told(bench.page) == []
    assert pale_words(bench.page) == []


def test_the_list_of_cars(bench: Bench) -> None:
    bench.page.goto("/")
    bench.page.get_by_role("button", name="More of").click()
    bench.page.get_by_role("button", name="Copy as a variant").click()
    bench.page.get_by_role("button", name="Variants of").first.click()
    expect(bench.page.get_by_role("table", name="Side by side")).to_contain_text("variant 1")
    assert told(bench.page) == []


def test_the_licences_of_others_open_from_the_foot(bench: Bench) -> None:
    bench.page.goto("/")
    bench.page.get_by_role("link", name="Licences of others").click()
    expect(bench.page.get_by_role("region", name="In the browser")).to_contain_text("OFL-1.1")
    server = bench.page.get_by_role("region", name="On the server")
    server.get_by_text("fastapi", exact=True).click()
    expect(server).to_contain_text("Permission is hereby granted")
