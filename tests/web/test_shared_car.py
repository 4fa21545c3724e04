"""One car and another, one tab and eight: an edit reaches the car it was made in, and every tab hears of it."""

import re
import time

from playwright.sync_api import Route, expect

from levelcradle.demo import demo_design
from levelcradle.store import Store
from tests.web.conftest import Bench, settled
from tests.web.test_fit import select


def test_an_edit_that_is_still_on_its_way_reaches_the_car_it_was_made_in(bench: Bench, store: Store) -> None:
    """The line is slow, and one goes on to the next car meanwhile."""
    store.create(demo_design().model_copy(update={"name": "Other"}), "start", id_="other")
    bench.go("place")

    def slowly(route: Route) -> None:
        if route.request.method == "PATCH":
            time.sleep(0.7)
        route.continue_()

    bench.page.route("**/api/projects/**", slowly)
    select(bench, "Tank box")
    for _ in range(3):
        bench.page.get_by_role("button", name="one more up").click()
    bench.page.evaluate("history.pushState({}, '', '/car/other/place'); dispatchEvent(new PopStateEvent('popstate'))")
    expect(bench.page.get_by_text("Other").first).to_be_visible()
    settled(bench.page)
    assert bench.tree["boxes"]["tank"]["blocks"]["a"]["counts"]["up"] == 4
    assert store.open("other").revision == 1


def test_seven_tabs_open_and_each_hears_the_news(bench: Bench) -> None:
    """A browser keeps six connections to one server: listening must not hold one a tab."""
    pages = [bench.page, *(bench.page.context.new_page() for _ in range(6))]
    for page in pages:
        page.goto(f"/car/{bench.car}/place")
        expect(page.get_by_role("navigation", name="Stations")).to_be_visible()
    select(bench, "Tank box")
    pages[0].get_by_role("button", name="one more up").click()
    bench.saved(2)
    bench.store.edit(
        bench.car, [{"op": "replace", "path": "/name", "value": "Renamed elsewhere"}], base=2, session="other"
    )
    for page in pages:
        expect(page.get_by_text("Renamed elsewhere").first).to_be_visible()


def test_a_box_named_by_pins_gaps_and_tapes_is_removed(bench: Bench, store: Store) -> None:
    tree = bench.tree
    tree["agreed_gaps"] = {"a": {"one": "boxes/tank", "other": "boxes/bonnet", "need_mm": 3, "reason": "felt"}}
    tree["chains"] = {"c": {"box": "tank", "axis": "aft", "rows": {"r": {"words": "felt", "mm": 2.0, "tol_mm": 0.5}}}}
    patch = [
        {"op": "add", "path": f"/{name}/{key}", "value": row}
        for name in ("agreed_gaps", "chains")
        for key, row in tree[name].items()
    ]
    store.edit(bench.car, patch, session="start", base=1)
    bench.go("place")
    select(bench, "Tank box")
    bench.page.get_by_role("button", name=re.compile("Remove this box")).click()
    bench.saved(3)
    assert set(bench.tree["boxes"]) == {"bonnet"}
    assert bench.tree["agreed_gaps"] == bench.tree["chains"] == {}


def test_what_is_off_to_the_left_stands_on_the_side_that_the_words_say(bench: Bench, store: Store) -> None:
    thing = {
        "name": "left thing",
        "state": "stays",
        "solid": {"type": "block", "low_mm": [2800, -420, 500], "high_mm": [2860, -400, 560]},
    }
    store.edit(bench.car, [{"op": "add", "path": "/items/left", "value": thing}], session="start", base=1)
    bench.go("place")
    select(bench, "Tank box")
    bench.page.get_by_role("button", name="section", exact=True).click()
    section = bench.page.get_by_role("region", name="Section")
    for _ in range(2):
        drawn = section.locator('[data-path="items/left"]').first.bounding_box()
        sheet = section.locator('[data-view="section"]').bounding_box()
        word = section.locator("text", has_text=re.compile("^LEFT$")).bounding_box()
        assert drawn
        assert sheet
        assert word
        middle = sheet["x"] + sheet["width"] / 2
        assert (drawn["x"] < middle) == (word["x"] < middle)
        words = section.inner_text()
        assert ("looking forward" in words.split(" at ")[0]) == (word["x"] < middle)
        section.get_by_role("button", name=re.compile("^looking")).click()
