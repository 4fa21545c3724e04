"""A 1024-wide screen under fingers: one view, a drawer, held presses, two fingers, a space taken with the pad."""

from collections.abc import Iterator

import pytest
from playwright.sync_api import Browser, CDPSession, Page, expect

from levelcradle.demo import demo_design
from levelcradle.store import Store
from tests.web.conftest import PATIENCE_MS, Bench, watched


@pytest.fixture
def touch(browser: Browser, address: str, store: Store) -> Iterator[Bench]:
    context = browser.new_context(viewport={"width": 1024, "height": 768}, base_url=address, has_touch=True)
    context.set_default_timeout(PATIENCE_MS)
    yield Bench(watched(context.new_page()), store, store.create(demo_design(), "start", id_="ouzel"))
    context.close()


Spot = tuple[float, float]


class Fingers:
    """Real touches, sent as a screen sends them."""

    def __init__(self, page: Page) -> None:
        self.page = page
        self.line: CDPSession = page.context.new_cdp_session(page)

    def send(self, kind: str, *spots: Spot) -> None:
        points = [{"x": x, "y": y, "id": n} for n, (x, y) in enumerate(spots)]
        self.line.send("Input.dispatchTouchEvent", {"type": kind, "touchPoints": points})

    def drag(self, start: Spot, by: Spot, held_ms: int = 0) -> None:
        self.send("touchStart", start)
        self.page.wait_for_timeout(held_ms)
        for n in range(1, 7):
            self.send("touchMove", (start[0] + by[0] * n / 6, start[1] + by[1] * n / 6))
        self.send("touchEnd")


def small(page: Page) -> list[str]:
    """What is pressed and lower than 48 px."""
    found: list[str] = page.evaluate(
        """[...document.querySelectorAll('main :is(button, select, input:not([type=file]))')]
        .filter(e => {
          const r = e.getBoundingClientRect()
          // of a tick it is what takes the press: its label, and the room round it
          const room = e.role === 'checkbox' ? parseFloat(getComputedStyle(e, '::after').height) : r.height
          const label = e.role === 'checkbox' ? e.closest('label')?.getBoundingClientRect().height ?? room : room
          return r.width > 1 && e.checkVisibility() && Math.min(room, label) < 47.5
        }).map(e => e.outerHTML.slice(0, 90))"""
    )
    return found


def test_one_view_a_drawer_and_large_targets(touch: Bench) -> None:
    for station in ("survey", "stock", "place", "box", "mount", "level"):
        touch.go(station)
        touch.page.get_by_role("button", name="Ledger", exact=True).tap()
        touch.page.get_by_role("complementary", name="Ledger").wait_for()
        assert small(touch.page) == []
    touch.go("place")
    touch.page.get_by_role("button", name="Ledger", exact=True).tap()
    touch.page.get_by_role("button", name="How many fit?").tap()
    touch.page.get_by_role("button", name="Question").tap()
    ticks = touch.page.get_by_role("checkbox")
    expect(ticks.first).to_be_visible()
    assert small(touch.page) == []
    assert max(box["height"] for box in (tick.bounding_box() for tick in ticks.all()) if box) <= 28, "a mark, no block"
    touch.go("place")
    expect(touch.view("plan")).to_be_visible()
    expect(touch.view("side")).to_have_count(0)
    touch.page.get_by_role("button", name="from the side").tap()
    expect(touch.view("side")).to_be_visible()


def test_a_held_press_drags_and_a_quick_one_pans(touch: Bench) -> None:
    touch.go("place")
    touch.page.get_by_role("button", name="tank space").tap()
    fingers = Fingers(touch.page)
    before = touch.place()
    spot = touch.middle("plan", "boxes/tank", "tray")
    fingers.drag(spot, (60, 0))  # not selected: the view moves
    moved = touch.middle("plan", "boxes/tank", "tray")
    assert moved[0] - spot[0] == pytest.approx(60, abs=12)
    assert touch.place() == before
    touch.page.touchscreen.tap(*moved)
    fingers.drag(moved, (40, 0))  # selected, but not held
    assert touch.place() == before
    fingers.drag(touch.middle("plan", "boxes/tank", "tray"), (40, 0), held_ms=400)
    touch.saved(2)
    assert touch.place()[0] > before[0]
    assert touch.place()[1:] == before[1:]


def test_a_corner_of_a_section_is_dragged_by_a_finger_beside_it(touch: Bench) -> None:
    """Its target is 48 px, though it is drawn smaller."""
    touch.go("survey")
    touch.page.get_by_role("button", name="Spaces").tap()
    grip = touch.page.get_by_role("button", name="station 1, right top: drag it, or arrow keys")
    box = grip.bounding_box()
    assert box
    assert min(box["width"], box["height"]) >= 48
    key = next(iter(touch.tree["bays"]["bonnet"]["stations"]))
    before = touch.tree["bays"]["bonnet"]["stations"][key]["right_top_mm"]
    Fingers(touch.page).drag((box["x"] + 6, box["y"] + 24), (-30, 0))
    touch.saved(2)
    assert touch.tree["bays"]["bonnet"]["stations"][key]["right_top_mm"] < before


def test_two_fingers_only_zoom(touch: Bench) -> None:
    touch.go("place")
    tray = touch.view("plan").locator('g[data-path="boxes/bonnet"][data-kind="tray"] polygon').first
    before = tray.bounding_box()
    fingers = Fingers(touch.page)
    fingers.send("touchStart", (400, 350))
    fingers.send("touchStart", (400, 350), (500, 350))
    for n in range(1, 6):
        fingers.send("touchMove", (400 - 10 * n, 350), (500 + 10 * n, 350))
    fingers.send("touchEnd")
    after = tray.bounding_box()
    assert before
    assert after
    assert after["width"] / before["width"] == pytest.approx(2.0, abs=0.3)
    assert touch.revision == 1


def test_the_pad_nudges(touch: Bench) -> None:
    touch.go("place")
    touch.page.get_by_role("button", name="tank space").tap()
    touch.page.touchscreen.tap(*touch.middle("plan", "boxes/tank", "tray"))
    pad = touch.page.get_by_role("group", name="Nudge the selected box")
    pad.get_by_role("button", name="by 10 mm").tap()
    before = touch.place()
    for _ in range(2):
        pad.get_by_role("button", name="aft", exact=True).tap()
    touch.saved(2)
    assert touch.place() == [before[0] + 20, before[1], before[2]]


def test_a_space_by_touch_with_take_measurements(touch: Bench) -> None:
    """In inches and sixteenths, one blank at a time, the next by one press."""
    page = touch.page
    touch.go("survey")
    page.get_by_role("button", name="Spaces").tap()
    page.get_by_role("button", name="Another space").tap()
    touch.saved(2)
    page.get_by_role("button", name="Ledger", exact=True).tap()
    page.get_by_role("button", name="in", exact=True).tap()
    touch.saved(3)
    page.get_by_role("button", name="Take measurements").tap()
    page.get_by_label("Taking").select_option("new space")
    pad = page.get_by_role("group", name="Pad")
    said = {
        "aft": ("4", ""),
        "floor, up": ("−8", "1/2"),
        "top left, up": ("3", "13/16"),
        "top right, up": ("4", ""),
        "left at floor": ("−14", "5/8"),
        "left at top": ("−14", ""),
        "right at floor": ("14", "5/8"),
        "right at top": ("14", "1/4"),
    }
    for label, (whole, part) in said.items():
        expect(page.get_by_role("heading", name=f"station 1, {label}")).to_be_visible()
        for key in whole:
            pad.get_by_role("button", name=key, exact=True).tap()
        if part:
            pad.get_by_role("button", name=part, exact=True).tap()
        assert small(page) == []
        page.get_by_role("button", name="Take it, next").tap()
    expect(page.get_by_role("heading", name="station 2, aft")).to_be_visible()
    page.get_by_role("button", name="Done for now").tap()
    bay = touch.tree["bays"]["space"]
    station = bay["stations"]["a"]
    hook = touch.tree["references"][bay["measured_from"]]["at_mm"]
    assert station["aft_mm"] == pytest.approx(hook[0] + 4 * 25.4)
    assert station["floor_mm"] == pytest.approx(hook[2] - 8.5 * 25.4)
    assert station["left_floor_mm"] == pytest.approx(hook[1] - 14.625 * 25.4)
    reading = touch.tree["readings"]["/bays/space/stations/a/left_floor_mm"]
    assert (reading["text"], reading["unit"], reading["basis"]) == ("-14 5/8", "in", "measured")
