"""News to open screens over a real connection: an edit, a study, and after a broken connection a look again."""

import json
import threading
import time
from collections.abc import Iterator
from typing import Any

import httpx
import pytest

from levelcradle.demo import demo_design
from levelcradle.store import Store
from tests.serving import app_over, served


@pytest.fixture
def address(store: Store) -> Iterator[str]:
    store.create(demo_design(), "start", id_="ouzel")
    store.create(demo_design(), "start", id_="other")
    with served(app_over(store)) as here:
        yield here


class Listener:
    """An open screen: everything it has heard."""

    def __init__(self, address: str, car: str) -> None:
        self.car, self._all = car, list[dict[str, Any]]()
        self._client = httpx.Client(timeout=30)
        self._thread = threading.Thread(target=self._listen, args=(f"{address}/api/events",), daemon=True)
        self._thread.start()

    def _listen(self, url: str) -> None:
        try:
            with self._client.stream("GET", url) as answer:
                for line in answer.iter_lines():
                    if line.startswith("data:"):
                        self._all.append(json.loads(line.removeprefix("data:")))
        except httpx.HTTPError:
            return

    @property
    def heard(self) -> list[dict[str, Any]]:
        """What a tab with this car takes of the browser's one stream."""
        return [news for news in self._all if news.get("project", self.car) == self.car]

    def until(self, wanted: dict[str, Any]) -> None:
        for _ in range(200):
            if any(wanted.items() <= news.items() for news in self.heard):
                return
            time.sleep(0.05)
        pytest.fail(f"never heard {wanted}: {self.heard}")

    def close(self) -> None:
        self._client.close()


def test_an_edit_and_a_study_are_heard_by_the_screens_of_that_car_alone(address: str, store: Store) -> None:
    here, elsewhere = Listener(address, "ouzel"), Listener(address, "other")
    for listener in (here, elsewhere):
        listener.until({"resync": True})
    time.sleep(0.3)  # the server's own listening has begun
    store.edit("ouzel", [{"op": "replace", "path": "/name", "value": "renamed"}], base=1, session="someone")
    here.until({"revision": 2})
    assert not any("someone" in str(news) for news in here.heard), (
        "whose edit it was would let a listener undo as that session"
    )
    asked, _ = store.studies.ask("ouzel", 2, '{"kinds": ["flagstone"], "bays": ["tank"]}')
    store.studies.told(asked.id, "running", "trying", 3, 1)
    here.until({"study": asked.id})
    store.studies.stop(asked.id)
    assert not any("revision" in news or "study" in news for news in elsewhere.heard)
    for listener in (here, elsewhere):
        listener.close()


def test_an_edit_that_is_refused_is_not_told(address: str, store: Store) -> None:
    here = Listener(address, "ouzel")
    here.until({"resync": True})
    time.sleep(0.3)
    with pytest.raises(Exception, match="gone"):
        store.edit("ouzel", [{"op": "replace", "path": "/boxes/tank/bay", "value": "gone"}], base=1, session="someone")
    store.edit("ouzel", [{"op": "replace", "path": "/name", "value": "renamed"}], base=1, session="someone")
    here.until({"revision": 2})
    assert [news["revision"] for news in here.heard if "revision" in news] == [2]
    here.close()
