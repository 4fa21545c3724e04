"""The newcomer's job from an empty page to every cut file, each step taken as a person would and counted: a blank
filled, a press, a pick or
a shortcut is one action. All made up. It took 559 when it was first tried: new car 10, weights 23, stock 17, spaces
80, hard points 65,
how many fit 39, brackets 311, level and files 14."""

import io
import re
import zipfile
from collections import Counter
from collections.abc import Iterator
from pathlib import Path

import ezdxf
import pytest
from playwright.sync_api import Browser, Locator, Page, expect

from levelcradle.core.analysis import analyse
from levelcradle.store import Store
from tests.web.conftest import PATIENCE_MS, settled, watched, worked_off

MOST = 200
FAR = 250  # so many presses of Tab at most: further than any station is long
# so many stops it is from what has the focus: to go the shorter way round
STOPS_AWAY = """e => {
  const stops = [...document.querySelectorAll('a[href], button, input, select, textarea, summary, [tabindex="0"]')]
    .filter(s => !s.disabled && s.tabIndex >= 0 && s.checkVisibility())
  const stop = stops.indexOf(e) < 0 ? e.closest('[tabindex="0"]') : e // of a row of toggles the row is the stop
  return stops.indexOf(stop) - Math.max(0, stops.indexOf(document.activeElement))
}"""
IN_ITS_ROW = "e => e.closest('[data-radix-collection-item]')?.parentElement.contains(document.activeElement) ?? false"


class Hand:
    """What a person does on the page with a mouse and keys, counted by step."""

    def __init__(self, page: Page) -> None:
        self.page, self.did, self.step = page, Counter[str](), ""

    def _done(self) -> None:
        settled(self.page)
        self.did[self.step] += 1

    def _blank(self, blank: Locator | str) -> Locator:
        return self.page.get_by_label(blank, exact=True) if isinstance(blank, str) else blank

    def type(self, blank: Locator | str, text: str) -> None:
        """Into one of several blanks of a form."""
        self._blank(blank).fill(text)
        self._done()

    def fill(self, blank: Locator | str, text: str) -> None:
        field = self._blank(blank)
        field.fill(text)
        field.press("Enter")
        self._done()

    def press(self, button: Locator | str) -> None:
        self._press(self.page.get_by_role("button", name=button, exact=True) if isinstance(button, str) else button)
        self._done()

    def _press(self, button: Locator) -> None:
        button.click()

    def pick(self, blank: Locator | str, label: str) -> None:
        self._blank(blank).select_option(label=label)
        self._done()

    def station(self, name: str) -> None:
        self.press(
            self.page.get_by_role("navigation", name="Stations").get_by_role("link", name=re.compile(f"^{name}"))
        )

    def next(self) -> None:
        self.press(self.page.get_by_role("region", name="Next").get_by_role("button", name="Go there"))


class Fingers(Hand):
    """On a tablet: what is not on the screen is in the drawer at its edge."""

    def _press(self, button: Locator) -> None:
        self._seen(button).tap()

    def _blank(self, blank: Locator | str) -> Locator:
        return self._seen(super()._blank(blank))

    def _seen(self, part: Locator) -> Locator:
        drawer = self.page.locator("button[aria-expanded=false]").filter(has_text=re.compile("^(Ledger|Question)$"))
        if not part.count() and drawer.count():
            drawer.tap()
            self.did[self.step] += 1
        return part


class Keys(Hand):
    """Without a mouse: everything is reached by Tab, in a row of toggles by an arrow; the way there is not counted."""

    def _reach(self, part: Locator) -> None:
        part.wait_for()
        away = part.evaluate(STOPS_AWAY)
        for _ in range(abs(away)):
            self.page.keyboard.press("Tab" if away > 0 else "Shift+Tab")
        for _ in range(FAR):
            if part.evaluate("e => e === document.activeElement"):
                return
            self.page.keyboard.press("ArrowRight" if part.evaluate(IN_ITS_ROW) else "Tab")
        raise AssertionError(f"not reached by Tab: {part}")

    def type(self, blank: Locator | str, text: str) -> None:
        self._reach(self._blank(blank))
        self.page.keyboard.press("Control+A")
        self.page.keyboard.type(text)
        self._done()

    def fill(self, blank: Locator | str, text: str) -> None:
        self._reach(self._blank(blank))
        self.page.keyboard.press("Control+A")
        self.page.keyboard.type(text)
        self.page.keyboard.press("Enter")
        self._done()

    def _press(self, button: Locator) -> None:
        self._reach(button)
        self.page.keyboard.press("Space" if button.get_attribute("role") == "checkbox" else "Enter")

    def pick(self, blank: Locator | str, label: str) -> None:
        field = self._blank(blank)
        self._reach(field)
        field.select_option(label=label)  # a list that is open belongs to the browser, not to the page
        self._done()


def new_car(hand: Hand) -> None:
    hand.page.goto("/")
    for label, text in (
        ("Name", "Pell Dunnock 1300"),
        ("Wheelbase (mm)", "2410"),
        ("Track, front (mm)", "1270"),
        ("Track, rear (mm)", "1250"),
        ("Front axle (kg)", "480"),
        ("Rear axle (kg)", "425"),
    ):
        hand.type(label, text)
    hand.fill("The scale's step (kg)", "1")
    expect(hand.page).to_have_url(re.compile(r"/survey(\?|$)"))


def weights(hand: Hand) -> None:
    for label, text in (("Front axle, at most", "580"), ("Rear axle, at most", "660"), ("Whole car, at most", "1200")):
        hand.fill(label, text)
    hand.pick("It is", "assumed from its type")
    hand.fill("Up from the ground", "560")
    hand.fill("±", "60")


def things(hand: Hand) -> None:
    hand.press("Things")
    for words, name, mass, place in (
        ("comes out", "engine and gearbox", "168", "150 aft, 0, 420 up"),
        ("comes out", "exhaust", "14", "1500 aft, 200 L, 220 up"),
        ("comes out", "tank", "9", "2600 aft, 300 L, 350 up"),
        ("goes in", "motor with reduction gear", "75", "900 aft, 0, 330 up"),
    ):
        hand.fill(f"Another that {words}", name)
        hand.fill(f"{name}, mass", mass)
        hand.fill(f"{name}, where", place)
    hand.press("motor with reduction gear")
    hand.fill("Mass, ±", "2")
    hand.fill("Another that stays, in the way", "heater box")
    hand.fill("heater box, where", "340 aft, 200 L, 690 up")
    hand.fill("heater box, size", "150 x 210 x 130")
    hand.fill("Another that stays, in the way", "steering column")
    hand.press("steering column")
    hand.pick(hand.page.get_by_label("Shape").last, "rod or pipe")
    for end, spot in (("from", ("430", "250 R", "640")), ("to", ("-60", "290 R", "410"))):
        for axis, text in zip(("aft", "across", "up"), spot, strict=True):
            hand.fill(f"{end}, {axis}", text)
    hand.fill("diameter", "40")


def reference(hand: Hand) -> None:
    hand.press("Reference points")
    hand.fill("Its name", "boot floor front edge")
    hand.fill("Where it is", "2460 aft, 0, 505 up")


def boot(hand: Hand) -> None:
    hand.press("Spaces")
    hand.press("Measure the first space")
    hand.fill("Name", "boot")
    for label, text in (
        ("aft", "10"),
        ("floor, up", "0"),
        ("top left, up", "420"),
        ("top right, up", "420"),
        ("left at floor", "450 L"),
        ("left at top", "425 L"),
        ("right at floor", "450 R"),
        ("right at top", "425 R"),
    ):
        hand.fill(f"station 1, {label}", text)
    hand.pick("station 2, measured by", "widths")
    for label, text in (
        ("aft", "480"),
        ("floor, up", "0"),
        ("width at floor", "820"),
        ("width at top", "740"),
        ("top left, up", "380"),
        ("top right, up", "380"),
        ("middle, right of centreline", "0"),
    ):
        hand.fill(f"station 2, {label}", text)
    hand.press("metal all round")
    hand.pick("aft", "open")
    hand.pick("top", "open")
    hand.press(hand.page.get_by_label("luggage space"))


def bonnet(hand: Hand) -> None:
    hand.press("Another space")
    hand.fill("Name", "bonnet")
    hand.pick("The tape is hooked on", "front axle line, centreline and ground")
    hand.press("one station and a depth")
    for label, text in (
        ("aft", "-130"),
        ("floor, up", "390"),
        ("top left, up", "770"),
        ("top right, up", "770"),
        ("left at floor", "325 L"),
        ("left at top", "325 L"),
        ("right at floor", "310 R"),
        ("right at top", "310 R"),
    ):
        hand.fill(f"station 1, {label}", text)
    hand.fill("Straight for a depth of", "560")
    hand.press("metal all round")
    hand.pick("floor", "open")
    sides = hand.page.get_by_role("region", name="Its sides")
    for n in (2, 3):  # left, right
        hand.pick(sides.get_by_label("Gap it needs").nth(n), "6 mm: fixed to the same structure")
    hand.press(sides.get_by_label("it opens").last)


def hard_points(hand: Hand) -> None:
    hand.press("Hard points")
    points = (
        ("engine mount left", "40 aft, 288 L, 385 up"), ("engine mount right", "40 aft, 276 R, 385 up"),
        ("gearbox mount left", "180 aft, 288 L, 385 up"), ("gearbox mount right", "180 aft, 276 R, 385 up"),
        ("boot floor front left", "2572 aft, 282 L, 505 up"), ("boot floor front right", "2572 aft, 282 R, 505 up"),
        ("boot floor rear left", "2760 aft, 282 L, 505 up"), ("boot floor rear right", "2760 aft, 282 R, 505 up"),
    )  # fmt: skip
    for number, (name, where) in enumerate(points):
        hand.type("Its name", name)
        hand.fill("Where it is", where)
        if number in (0, 4):
            hand.press(hand.page.get_by_role("main").get_by_role("button", name=name))
            hand.pick("It is a", "captive nut" if number == 0 else "hole")
            if number == 0:
                hand.pick("Thread", "M12")


def stock(hand: Hand) -> None:
    hand.station("Stock")
    hand.press("Measure a module")
    for label, text in (
        ("Name", "Grey 6S brick"),
        ("Length (end A to end B)", "385"),
        ("Width (side A to side B)", "152"),
        ("Height (base to top)", "108"),
        ("Mass", "12.1"),
        ("Cells in series", "6"),
        ("Cells in parallel", "1"),
        ("Nominal", "22.2"),
        ("Full", "25.2"),
        ("Empty", "18"),
        ("Capacity (Ah)", "56"),
        ("To a neighbour", "4"),
        ("Room before end A", "60"),
    ):
        hand.fill(label, text)
    hand.pick("Terminals", "plus and minus")
    for side in ("side A", "side B"):
        hand.press(hand.page.get_by_role("button", name=side).first)
        hand.press(hand.page.get_by_role("checkbox", name="May be down"))
    hand.press("Shelf")
    hand.fill("Make", "12")


def how_many(hand: Hand, store: Store) -> None:
    hand.next()
    hand.pick("Wanted", "exactly so many")
    hand.fill("in series", "12")
    hand.press("Ask")
    worked_off(hand.page, store)
    proposals = hand.page.get_by_role("table", name="Proposals")
    expect(proposals).to_contain_text("hangs on")
    hand.press(proposals.get_by_role("button", name="Put it in the car").first)


def brackets(hand: Hand) -> None:
    for _ in range(2):
        hand.next()
        hand.press("Look for brackets that hold")
        hand.press(hand.page.get_by_role("button", name="Hang it so").first)


def boxes(hand: Hand) -> None:
    for _ in range(2):
        hand.next()
        hand.press("Another hole there")
        hand.press("Size it")


def level(hand: Hand) -> None:
    hand.station("Level")
    hand.pick("Weigh", "the car stripped")
    hand.type("Front axle (kg)", "321")
    hand.type("Rear axle (kg)", "394")
    hand.press("Put it beside what was expected")


def files(hand: Hand, store: Store, tmp_path: Path) -> None:
    hand.station("Drawings")
    expect(hand.page.get_by_role("link", name="Drawings clear")).to_be_visible()
    hand.press("Draw the sheets")
    worked_off(hand.page, store)
    for name in ("Whole pack", "All sheets, PDF"):
        with hand.page.expect_download() as download:
            hand.press(hand.page.get_by_role("link", name=name))
        download.value.save_as(tmp_path / name)
    with zipfile.ZipFile(io.BytesIO((tmp_path / "Whole pack").read_bytes())) as pack:
        cut = [pack.read(name).decode() for name in pack.namelist() if name.endswith(".dxf")]
    assert len(cut) >= 6
    for text in cut:
        assert not ezdxf.read(io.StringIO(text)).audit().errors


@pytest.fixture
def tablet(browser: Browser, address: str) -> Iterator[Page]:
    context = browser.new_context(viewport={"width": 1024, "height": 768}, base_url=address, has_touch=True)
    context.set_default_timeout(PATIENCE_MS)
    yield watched(context.new_page())
    context.close()


def carried_through(hand: Hand, store: Store, tmp_path: Path) -> None:
    steps = {
        "new car": new_car,
        "weights": weights,
        "things": things,
        "reference": reference,
        "boot": boot,
        "bonnet": bonnet,
        "hard points": hard_points,
        "stock": stock,
        "how many fit": lambda h: how_many(h, store),
        "brackets": brackets,
        "boxes": boxes,
        "level": level,
        "files": lambda h: files(h, store, tmp_path),
    }
    for hand.step, take in steps.items():
        take(hand)
    print(f"\n{hand.did.total()} actions: " + ", ".join(f"{step} {n}" for step, n in hand.did.items()))
    design = store.open(store.all()[0].id).design
    assert {f.id for f in analyse(design, {}).findings if f.state == "foul"} == set()
    assert (len(design.boxes), sum(b.counts.total for box in design.boxes.values() for b in box.blocks.values())) == (
        2,
        12,
    )
    assert len(design.mounts) >= 6
    assert hand.did.total() <= MOST


def test_the_newcomers_job_with_the_mouse(page: Page, store: Store, tmp_path: Path) -> None:
    carried_through(Hand(page), store, tmp_path)


@pytest.mark.every_hand
def test_the_newcomers_job_by_keys_alone(page: Page, store: Store, tmp_path: Path) -> None:
    carried_through(Keys(page), store, tmp_path)


@pytest.mark.every_hand
def test_the_newcomers_job_under_fingers(tablet: Page, store: Store, tmp_path: Path) -> None:
    carried_through(Fingers(tablet), store, tmp_path)
