"""The walk-round view, in a browser that draws in three dimensions."""

from collections.abc import Iterator

import pytest
from playwright.sync_api import Browser, Page, expect

from levelcradle.demo import demo_design
from levelcradle.shots import BROWSER, FLAGS, WEBGL
from levelcradle.store import Store
from tests.web.conftest import opened


@pytest.fixture
def window(browser: Browser, port: int) -> Iterator[Page]:
    flags = [flag for flag in FLAGS if flag != "--disable-gpu"]
    painting = browser.browser_type.launch(executable_path=BROWSER, args=[*flags, *WEBGL])
    with opened(painting, port) as found:
        yield found
    painting.close()


def test_it_shows_the_same_assembly_with_the_same_selection(page: Page, store: Store) -> None:
    car = store.create(demo_design(), "start", id_="ouzel")
    page.goto(f"/car/{car}/place")
    page.get_by_role("button", name="Walk round").click()
    canvas = page.locator("canvas")
    expect(canvas).to_be_visible()
    page.wait_for_timeout(1500)
    whole = canvas.screenshot()
    page.get_by_role("slider", name="cut away before").fill("1500")
    page.wait_for_timeout(800)
    expect(page.get_by_text("1500 aft")).to_be_visible()
    cut = canvas.screenshot()
    assert cut != whole
    page.get_by_role("button", name="whole", exact=True).click()
    box = canvas.bounding_box()
    assert box
    for share in (0.35, 0.4, 0.3, 0.45):  # a press somewhere on the bonnet box
        page.mouse.click(box["x"] + box["width"] * share * 0.72, box["y"] + box["height"] * 0.56)
        page.wait_for_timeout(300)
        if page.get_by_role("heading", name="Everything placed").count() == 0:
            break
    expect(page.get_by_role("heading", name="Everything placed")).to_have_count(0)
    canvas.focus()
    page.keyboard.press("ArrowLeft")
    page.wait_for_timeout(600)
    assert canvas.screenshot() != cut


def test_one_box_is_walked_round_by_itself_and_taken_apart(page: Page, store: Store) -> None:
    car = store.create(demo_design(), "start", id_="ouzel")
    page.goto(f"/car/{car}/box")
    page.get_by_role("button", name="Walk round, taken apart").click()
    canvas = page.locator("canvas")
    expect(canvas).to_be_visible()
    page.wait_for_timeout(1500)
    whole = canvas.screenshot()
    page.get_by_role("slider", name="take the Bonnet box apart").fill("80")
    page.wait_for_timeout(800)
    assert canvas.screenshot() != whole
    page.get_by_role("button", name="Opened", exact=True).click()
    expect(canvas).to_have_count(0)
