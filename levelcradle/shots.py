"""docs/screenshots/ afresh from a running demo: ``python -m levelcradle.shots ADDRESS``."""

import sys
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

__all__ = ["BROWSER", "FLAGS", "WEBGL", "main"]

BROWSER = "/usr/bin/chromium"
# the views are SVG: without a GPU process pages open in two thirds of the time; and the browser makes two hidden pages
# of its own
# for the address bar of every window, which nobody sees here
FLAGS = (
    "--no-sandbox",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--disable-gpu",
    "--disable-features=WebUIOmniboxPopup,WebUIOmniboxAimPopup",
)
WEBGL = ("--use-angle=swiftshader", "--enable-unsafe-swiftshader")
FOLDER = Path(__file__).parents[1] / "docs" / "screenshots"
STATIONS = ("survey", "stock", "place", "box", "mount", "level", "drawings")


def main(address: str, folder: Path) -> None:
    """One picture of each main view at 1280 × 800, and one under fingers at 1024 × 768."""
    folder.mkdir(parents=True, exist_ok=True)
    with sync_playwright() as play:
        browser = play.chromium.launch(executable_path=BROWSER, args=list(FLAGS))
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(address)
        page.get_by_role("heading", name="New car").wait_for()
        page.wait_for_load_state("networkidle")  # the plan of each car is a picture of its own
        page.screenshot(path=folder / "cars.png")
        for station in STATIONS:
            _station(page, address, station, PARTS.get(station))
            if station == "place":
                page.get_by_role("region", name="What would it take").wait_for()
            page.screenshot(path=folder / f"{station}.png")
        for name, (station, part) in MORE.items():
            _station(page, address, station, part)
            if name == "take":
                page.get_by_role("button", name="Take measurements").click()
                page.get_by_role("button", name="Leave it, next").click()
                page.wait_for_timeout(400)
            page.screenshot(path=folder / f"{name}.png")
        _station(page, address, "box", "Tank box")
        page.get_by_role("region", name="cut across").scroll_into_view_if_needed()
        page.wait_for_timeout(400)
        page.screenshot(path=folder / "cut.png")
        _station(page, address, "survey", "Hard points", car="pell")
        page.screenshot(path=folder / "next.png")
        _station(page, address, "mount", "Look for brackets that hold")
        page.get_by_role("button", name="Hang it so").first.wait_for()
        page.screenshot(path=folder / "hang.png")
        _study(page, address)
        page.screenshot(path=folder / "fit.png")
        _station(page, address, "place", "Tank box")
        page.get_by_role("button", name="tank space", exact=True).click()
        page.get_by_role("button", name="section", exact=True).click()
        page.get_by_role("region", name="Watch strip").get_by_role("button", name="axle at full bump").first.click()
        page.wait_for_timeout(600)
        page.screenshot(path=folder / "section.png")
        _drawn(page, address)
        page.screenshot(path=folder / "drawings.png")
        small = browser.new_context(viewport={"width": 1024, "height": 768}, has_touch=True).new_page()
        small.goto(f"{address}/car/demo/place")
        small.get_by_role("button", name="tank space").tap()
        small.wait_for_timeout(400)
        small.screenshot(path=folder / "touch.png")
        browser.close()
        painted = play.chromium.launch(
            executable_path=BROWSER, args=[*(f for f in FLAGS if f != "--disable-gpu"), *WEBGL]
        )
        page = painted.new_page(viewport={"width": 1280, "height": 800})
        _station(page, address, "place", "Walk round")
        page.wait_for_timeout(2500)
        page.screenshot(path=folder / "walk.png")
        painted.close()


PARTS = {"place": "Tank box", "survey": "Spaces"}
MORE = {
    "things": ("survey", "Things"),
    "take": ("survey", "Spaces"),
    "shelf": ("stock", "Shelf"),
    "bracket": ("mount", "Bonnet box mount, left fore"),
}


def _study(page: Page, address: str) -> None:
    """The demo asked for exactly nine in series."""
    _station(page, address, "place", "How many fit?")
    page.get_by_label("Wanted").select_option("exactly")
    page.get_by_label("in series").fill("9")
    page.get_by_role("button", name="Ask", exact=True).click()
    page.get_by_text("none beaten by another").wait_for(timeout=60_000)
    page.wait_for_timeout(500)


def _drawn(page: Page, address: str) -> None:
    """The pack made, and the sheet that says most of a box."""
    _station(page, address, "drawings", None)
    page.get_by_role("button", name="Draw the sheets").click()
    page.get_by_role("button", name="Taken apart").first.click(timeout=120_000)
    page.wait_for_timeout(700)


def _station(page: Page, address: str, station: str, part: str | None, car: str = "demo") -> None:
    page.goto(f"{address}/car/{car}/{station}")
    page.get_by_role("complementary", name="Ledger").wait_for()
    if part:
        page.get_by_role("button", name=part).first.click()
    page.wait_for_timeout(700)


if __name__ == "__main__":
    main(sys.argv[1], Path(sys.argv[2]) if len(sys.argv) > 2 else FOLDER)
