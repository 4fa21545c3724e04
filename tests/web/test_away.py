"""Nothing is lost: the net is switched off, the server dies, or answers after two seconds; ten figures each, a
reload, a closed tab."""

import asyncio
import re
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from typing import Any

import pytest
from playwright.sync_api import Browser, BrowserContext, Locator, Page, expect

from levelcradle.demo import demo_design
from levelcradle.server.__main__ import FRONT_END
from levelcradle.store import Store
from tests.serving import app_over, free_port, served
from tests.web.conftest import PATIENCE_MS, settled, watched

FIGURES = {
    "Wheelbase": ("/vehicle/wheelbase_mm", "2,490"),
    "Track, front": ("/vehicle/track_mm/front", "1312"),
    "Track, rear": ("/vehicle/track_mm/rear", "50 3/4"),
    "Front overhang": ("/vehicle/overall/overhang_front_mm", "70 cm"),
    "Rear overhang": ("/vehicle/overall/overhang_rear_mm", "1031"),
    "Width": ("/vehicle/overall/width_mm", "1601"),
    "Height": ("/vehicle/overall/height_mm", "1246"),
    "Tyre radius": ("/vehicle/overall/tyre_radius_mm", "291"),
    "Left front": ("/weighings/as-found/read/lf_kg", "270"),
    "Right rear": ("/weighings/as-found/read/rr_kg", "226"),
}
WANT = [2490.0, 1312.0, 1289.05, 700.0, 1031.0, 1601.0, 1246.0, 291.0, 270.0, 226.0]


@pytest.fixture
def context(browser: Browser) -> Iterator[BrowserContext]:
    """Where the net fails on purpose, so that errors on the console are none of the page's."""
    found = browser.new_context(viewport={"width": 1280, "height": 800})
    found.set_default_timeout(PATIENCE_MS)
    yield found
    found.close()


@pytest.fixture
def car(store: Store) -> str:
    return store.create(demo_design(), "start", id_="ouzel")


def opened(context: BrowserContext, address: str, station: str = "survey") -> Page:
    page = watched(context.new_page())
    page.goto(f"{address}/car/ouzel/{station}")
    expect(page.get_by_role("navigation", name="Stations")).to_be_visible()
    return page


def field(page: Page, label: str) -> Locator:
    return page.get_by_label(label, exact=True)


def type_in(page: Page, figures: dict[str, tuple[str, str]] = FIGURES) -> None:
    for label, (_, text) in figures.items():
        field(page, label).fill(text)
        field(page, label).press("Enter")


def station(page: Page, name: str) -> None:
    page.get_by_role("navigation", name="Stations").get_by_role("link", name=re.compile(f"^{name}")).click()


def told(page: Page) -> Locator:
    return page.get_by_role("status").filter(has_text=re.compile("^(not )?sav"))


def stored(store: Store) -> list[float]:
    tree = store.open("ouzel").tree
    return [_at(tree, path) for path, _ in FIGURES.values()]


def _at(tree: Any, path: str) -> Any:
    for step in path.split("/")[1:]:
        tree = tree[step]
    return tree


def until(page: Page, holds: Callable[[], bool], what: str) -> None:
    for _ in range(PATIENCE_MS * 3 // 100):
        if holds():
            return
        page.wait_for_timeout(100)
    pytest.fail(f"never: {what}")


def test_ten_figures_typed_without_the_net_wait_survive_a_closed_tab_and_go_in_in_order(
    context: BrowserContext, store: Store, car: str
) -> None:
    with served(app_over(store, FRONT_END)) as address:
        page = opened(context, address)
        page.wait_for_timeout(1500)  # the other stations are fetched at leisure
        context.set_offline(True)
        type_in(page)
        expect(told(page)).to_have_text("not saved, 10 waiting")
        expect(page.get_by_text("The server is away.")).to_be_visible()
        station(page, "Level")
        station(page, "Survey")
        expect(field(page, "Track, rear")).to_have_value("50 3/4")
        expect(page.get_by_text("not saved", exact=True)).to_have_count(10)
        assert store.open(car).revision == 1
        page.close()
        context.set_offline(False)
        page = watched(context.new_page())
        page.goto(address)
        page.get_by_role("link", name="not saved, 10 waiting: open it").click()
        expect(told(page)).to_have_text("saved · rev. 11")
        station(page, "Survey")
        assert stored(store) == WANT
        said = [row.sentence for row in reversed(store.history(car))][1:]
        assert [
            s for s, word in zip(said, ("wheelbase", "front", "rear", "overhang front"), strict=False) if word not in s
        ] == []
        expect(page.get_by_text("not saved", exact=True)).to_have_count(0)


def test_a_server_that_dies_and_comes_back_gets_all_ten_and_the_other_screens_edit_stands(
    context: BrowserContext, store: Store, car: str
) -> None:
    port = free_port()
    with served(app_over(store, FRONT_END), port) as address:
        page = opened(context, address)
        expect(field(page, "Wheelbase")).to_be_visible()
    store.edit(
        car,
        [{"op": "replace", "path": "/vehicle/overall/width_mm", "value": 1610.0}],
        base=1,
        session="other",
        who="Ann",
    )
    type_in(page)
    expect(told(page)).to_have_text("not saved, 10 waiting")
    page.get_by_role("button", name=re.compile("^Undo")).click()
    expect(told(page)).to_have_text("not saved, 9 waiting")
    with served(app_over(store, FRONT_END), port):
        expect(told(page)).to_have_text("not saved, 1 refused")
        clash = "Ann was first"
        expect(field(page, "Width").locator("xpath=ancestor::span[2]")).to_contain_text(clash)
        assert stored(store) == [*WANT[:5], 1610.0, *WANT[6:9], 225.0]
        told(page).get_by_role("button").click()
        sheet = page.get_by_role("dialog", name="What is saved")
        expect(sheet).to_contain_text("1610 stands here, yours is 1601")
        sheet.get_by_role("button", name="put mine all the same").click()
        expect(told(page)).to_have_text("saved · rev. 11")
        assert stored(store)[5] == 1601.0


def test_far_from_its_neighbours_it_is_asked_about_when_it_is_sent(
    context: BrowserContext, store: Store, car: str
) -> None:
    with served(app_over(store, FRONT_END)) as address:
        page = opened(context, address)
        expect(field(page, "Wheelbase")).to_be_visible()
        context.set_offline(True)
        field(page, "Track, front").fill("13120")
        field(page, "Track, front").press("Enter")
        expect(told(page)).to_have_text("not saved, 1 waiting")
        context.set_offline(False)
        expect(page.get_by_text("not saved: Over three times its neighbours.")).to_be_visible()
        field(page, "Track, front").press("Enter")
        expect(told(page)).to_have_text("saved · rev. 2")
        assert stored(store)[1] == 13120.0


@contextmanager
def slow(store: Store, seconds: float) -> Iterator[str]:
    """A server that answers everything that is typed or done after a while."""
    app = app_over(store, FRONT_END)

    async def slowly(scope: Any, receive: Any, send: Any) -> None:
        if scope["type"] == "http" and scope["method"] in ("POST", "PATCH"):
            await asyncio.sleep(seconds)
        await app(scope, receive, send)

    with served(slowly) as address:
        yield address


def test_a_slow_server_loses_nothing_typed_faster_than_it_answers_nor_by_a_reload(
    context: BrowserContext, store: Store, car: str
) -> None:
    with slow(store, 1.2) as address:
        page = opened(context, address)
        type_in(page)
        expect(told(page)).to_have_text("saving …")
        page.reload()
        until(page, lambda: stored(store) == WANT, "all ten stored")
        expect(told(page)).to_have_text("saved · rev. 11", timeout=3 * PATIENCE_MS)


def test_a_figure_that_is_on_its_way_is_not_sent_again_by_who_comes_back_to_it(
    context: BrowserContext, store: Store, car: str
) -> None:
    with slow(store, 1.2) as address:
        page = opened(context, address)
        field(page, "Width").fill("1590")
        field(page, "Width").press("Enter")
        station(page, "Level")
        station(page, "Survey")
        expect(field(page, "Width")).to_have_value("1590")
        field(page, "Width").press("Enter")
        until(page, lambda: store.open(car).revision > 1, "stored")
        page.wait_for_timeout(1700)
        assert store.open(car).revision == 2


def test_a_reload_or_the_way_back_while_typing_loses_nothing(context: BrowserContext, store: Store, car: str) -> None:
    with served(app_over(store, FRONT_END)) as address:
        page = opened(context, address, "level")
        station(page, "Survey")
        field(page, "Width").fill("1,5")
        page.reload()
        expect(field(page, "Width")).to_have_value("1,5")
        expect(page.get_by_text("Not saved yet.")).to_be_visible()
        field(page, "Width").fill("1590")
        page.go_back()  # from inside the blank
        expect(field(page, "Width")).to_have_count(0)
        station(page, "Survey")
        expect(field(page, "Width")).to_have_value("1590")
        field(page, "Width").press("Enter")
        expect(told(page)).to_have_text("saved · rev. 2")
        field(page, "Height").fill("1250")
        field(page, "Height").press("Escape")
        page.reload()
        expect(field(page, "Height")).to_have_value("1245")


def test_a_new_car_and_a_place_that_are_half_typed_outlive_a_reload(
    context: BrowserContext, store: Store, car: str
) -> None:
    with served(app_over(store, FRONT_END)) as address:
        page = watched(context.new_page())
        page.goto(address)
        for label, text in (("Name", "Heron van"), ("Wheelbase (mm)", "2,4")):
            field(page, label).press_sequentially(text)
        page.reload()
        expect(field(page, "Name")).to_have_value("Heron van")
        expect(field(page, "Wheelbase (mm)")).to_have_value("2,4")
        page.get_by_role("link", name="Calder Ouzel 1500").click()
        station(page, "Place")
        page.get_by_role("button", name="Find").click()
        page.keyboard.type("Tank box")
        page.keyboard.press("Enter")
        page.keyboard.press("=")
        field(page, "aft (mm)").fill("2,69")
        page.reload()
        expect(page.get_by_role("heading", name="Tank box")).to_be_visible()
        page.keyboard.press("=")
        expect(field(page, "aft (mm)")).to_have_value("2,69")
        field(page, "aft (mm)").fill("2,690")
        field(page, "aft (mm)").press("Enter")
        expect(told(page)).to_have_text("saved · rev. 2")
        assert store.open(car).tree["boxes"]["tank"]["pose"]["at_mm"][0] == 2690.0


def test_a_station_that_was_not_fetched_before_the_net_went_is_fetched_when_it_is_back(
    context: BrowserContext, store: Store, car: str
) -> None:
    with served(app_over(store, FRONT_END)) as address:
        page = context.new_page()
        page.route("**/assets/Level*", lambda route: route.abort())
        page.goto(f"{address}/car/ouzel/place")
        station(page, "Level")
        expect(page.get_by_text("The server is away.")).to_be_visible()
        page.unroute("**/assets/Level*")
        expect(page.get_by_text("Masses that count")).to_be_visible()


def test_a_nudge_followed_at_once_by_a_reload_is_stored(context: BrowserContext, store: Store, car: str) -> None:
    with served(app_over(store, FRONT_END)) as address:
        page = opened(context, address, "place")
        page.get_by_role("button", name="Find").click()
        page.keyboard.type("Tank box")
        page.keyboard.press("Enter")
        page.locator('[data-view="plan"]').first.focus()
        page.keyboard.press("ArrowRight")
        page.reload()
        until(page, lambda: store.open(car).revision == 2, "the nudge stored")
        assert store.open(car).tree["boxes"]["tank"]["pose"]["at_mm"][0] > 2670.5


def test_measurements_are_taken_without_the_net(context: BrowserContext, store: Store, car: str) -> None:
    with served(app_over(store, FRONT_END)) as address:
        page = opened(context, address)
        expect(page.get_by_role("button", name="Take measurements")).to_be_visible()
        settled(page)
        page.wait_for_timeout(500)
        context.set_offline(True)
        page.get_by_role("button", name="Take measurements").click()
        for text in ("270", "266"):
            page.keyboard.type(text)
            page.keyboard.press("Enter")
        expect(page.get_by_text("3 of", exact=False).first).to_be_visible()
        page.get_by_role("button", name="Back").click()
        expect(page.get_by_text("taken: 266, not saved yet")).to_be_visible()
        context.set_offline(False)
        expect(told(page)).to_have_text("saved · rev. 3")
        assert stored(store)[8] == 270.0


def test_two_in_one_field_the_later_sees_who_was_first_and_both_values(
    context: BrowserContext, store: Store, car: str
) -> None:
    with served(app_over(store, FRONT_END)) as address:
        ann, ben = opened(context, address), opened(context, address)
        told(ann).get_by_role("button").click()
        ann.get_by_label("Who works here").fill("Ann")
        ann.get_by_role("button", name="close").click()
        field(ben, "Width").fill("1595")
        field(ann, "Width").fill("1610")
        field(ann, "Width").press("Enter")
        expect(ben.get_by_text("1610 stands here by now.")).to_be_visible()
        field(ben, "Width").press("Enter")
        message = ben.get_by_role("alert").filter(has_text="Ann was first")
        expect(message).to_contain_text("1610 stands here, yours is 1595. Enter again puts yours.")
        assert stored(store)[5] == 1610.0
        expect(field(ben, "Width")).to_have_value("1595")
        field(ben, "Width").press("Enter")
        expect(told(ben)).to_have_text("saved · rev. 3")
        assert stored(store)[5] == 1595.0
