"""The real interface in headless Chromium, over the real server and a fresh database."""

import re
import threading
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from typing import Any
from weakref import WeakKeyDictionary

import pytest
from playwright.sync_api import (
    Browser,
    ConsoleMessage,
    Error,
    Locator,
    Page,
    Request,
    ViewportSize,
    expect,
    sync_playwright,
)

from levelcradle.demo import demo_design
from levelcradle.jobs import run_worker
from levelcradle.server.__main__ import FRONT_END
from levelcradle.shots import BROWSER, FLAGS
from levelcradle.store import Store
from tests.serving import app_over, free_port, served

AT_THE_DESK: ViewportSize = {"width": 1280, "height": 800}
PATIENCE_MS = 20_000  # before something is taken never to come: two run at once on a slow machine
POLL_MS = 15
AS_WRITTEN = "--js-flags=--no-maglev --no-turbofan"  # no page of a test lives long enough to be worth translating twice
expect.set_options(timeout=PATIENCE_MS)


@pytest.fixture(scope="session")
def browser() -> Iterator[Browser]:
    with sync_playwright() as play:
        found = play.chromium.launch(executable_path=BROWSER, args=[*FLAGS, AS_WRITTEN])
        yield found
        found.close()


@pytest.fixture(scope="session")
def port() -> int:
    """One after the other the servers of all tests answer here, so that what the browser made of the front end serves
    the next."""
    return free_port()


@pytest.fixture
def address(store: Store, port: int) -> Iterator[str]:
    assert (FRONT_END / "index.html").exists(), "the front end is built by ./cradle test"
    with served(app_over(store, FRONT_END), port) as here:
        yield here


@pytest.fixture(scope="module")
def window(browser: Browser, port: int) -> Iterator[Page]:
    """Opened once a file: a new one costs twice what the page in it does, and one that is never closed holds half a
    gigabyte in the end."""
    with opened(browser, port) as found:
        yield found


@contextmanager
def opened(browser: Browser, port: int) -> Iterator[Page]:
    context = browser.new_context(viewport=AT_THE_DESK, base_url=f"http://127.0.0.1:{port}")
    context.set_default_timeout(PATIENCE_MS)
    yield watched(context.new_page())
    context.close()


@pytest.fixture
def page(window: Page, address: str) -> Iterator[Page]:
    """A page that fails its test on any error in the browser, and finds nothing that another left behind."""
    errors: list[str] = []

    def failed(error: Error) -> None:
        errors.append(str(error))

    def told(message: ConsoleMessage) -> None:
        if message.type == "error" and "status of 4" not in message.text:
            errors.append(message.text)

    window.on("pageerror", failed)
    window.on("console", told)
    yield window
    window.remove_listener("pageerror", failed)
    window.remove_listener("console", told)
    _leave(window)
    assert errors == []


def _leave(window: Page) -> None:
    """The page goes first: what follows would be drawn on it."""
    window.goto("/api/health")
    for other in window.context.pages:
        if other != window:
            other.close()
    window.unroute_all()
    window.set_viewport_size(AT_THE_DESK)
    window.emulate_media(media="null", reduced_motion="null")
    window.mouse.up()
    window.mouse.move(0, 0)
    window.evaluate("() => { localStorage.clear(); sessionStorage.clear() }")
    ASKED[window].clear()


ASKED: WeakKeyDictionary[Page, set[Request]] = WeakKeyDictionary()


def watched(page: Page) -> Page:
    """Keeps what the page has asked of the server and has no answer to; the news that it listens to is no question."""
    asked = ASKED[page] = set()
    page.on("request", lambda request: asked.add(request) if request.method != "GET" else None)
    page.on("requestfinished", lambda request: asked.discard(request))
    page.on("requestfailed", lambda request: asked.discard(request))
    return page


def settled(page: Page) -> None:
    """Until what was typed or pressed has been answered: one answer may ask the next."""
    quiet = 0
    for _ in range(PATIENCE_MS // POLL_MS):
        page.wait_for_timeout(POLL_MS)
        quiet = 0 if ASKED[page] else quiet + 1
        if quiet == 3:
            return expect(page.get_by_text("saving …")).to_have_count(0)
    pytest.fail(f"no answer: {[r.url for r in ASKED[page]]}")


def worked_off(page: Page, store: Store) -> None:
    """A worker that takes what is on the queues and leaves when nothing is left to do; what the page has just asked for
    is put there first."""
    settled(page)
    worker = threading.Thread(target=run_worker, args=(store,), kwargs={"wait": False})
    worker.start()
    worker.join(180)


@dataclass
class Bench:
    """The demo on the screen, and what its document says meanwhile."""

    page: Page
    store: Store
    car: str

    def go(self, station: str) -> None:
        self.page.goto(f"/car/{self.car}/{station}")
        expect(self.page.get_by_role("navigation", name="Stations")).to_be_visible()

    @property
    def tree(self) -> dict[str, Any]:
        return self.store.open(self.car).tree

    @property
    def revision(self) -> int:
        return self.store.open(self.car).revision

    def change(self, patch: list[dict[str, Any]]) -> None:
        """From elsewhere: before the page is opened, or by somebody else."""
        self.store.edit(self.car, patch, base=self.revision, session="another")

    def place(self, box: str = "tank") -> list[float]:
        at: list[float] = self.tree["boxes"][box]["pose"]["at_mm"]
        return at

    def view(self, name: str) -> Locator:
        return self.page.locator(f'[data-view="{name}"]')

    def middle(self, view: str, path: str, kind: str) -> tuple[float, float]:
        """The middle of a drawn thing on the page."""
        box = self.view(view).locator(f'g[data-path="{path}"][data-kind="{kind}"] polygon').first.bounding_box()
        assert box
        return box["x"] + box["width"] / 2, box["y"] + box["height"] / 2

    def middle_of_thing(self, view: str, path: str) -> tuple[float, float]:
        """The middle of a thing in the way, as drawn."""
        sheets = self.page.locator(f'g[data-path="{path}"]')  # plan, then side
        box = sheets.nth(0 if view == "plan" else 1).locator("polygon").first.bounding_box()
        assert box
        return box["x"] + box["width"] / 2, box["y"] + box["height"] / 2

    def press(self, x: float, y: float) -> None:
        self.page.mouse.click(x, y)

    def drag(self, start: tuple[float, float], by: tuple[float, float], *, release: bool = True) -> None:
        self.page.mouse.move(*start)
        self.page.mouse.down()
        for n in range(1, 7):
            self.page.mouse.move(start[0] + by[0] * n / 6, start[1] + by[1] * n / 6)
        if release:
            self.page.mouse.up()

    def settle(self) -> None:
        """Long enough for what a page asks for when it opens; the news it listens to never ends."""
        self.page.wait_for_timeout(400)

    def until(self, holds: Callable[[], bool], what: str) -> None:
        for _ in range(PATIENCE_MS // 50):
            if holds():
                return
            self.page.wait_for_timeout(50)
        pytest.fail(f"never: {what}")

    def saved(self, revision: int) -> None:
        self.until(lambda: self.revision >= revision, f"revision {revision}")
        expect(
            self.page.get_by_role("status").filter(has_text=re.compile(rf"saved · rev\. {revision}"))
        ).to_be_visible()


@pytest.fixture
def bench(page: Page, store: Store) -> Bench:
    return Bench(page, store, store.create(demo_design(), "start", id_="ouzel"))
