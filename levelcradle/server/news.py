"""What happens to a car, told to every screen that has it open, by server-sent events."""

import asyncio
import contextlib
import logging
from collections.abc import AsyncIterator
from typing import Annotated, Any

from fastapi import APIRouter, Depends, Request
from fastapi.sse import EventSourceResponse, ServerSentEvent

from levelcradle.store import GONE, Store, listen

__all__ = ["News", "router"]

log = logging.getLogger(__name__)
AGAIN_S = 1.0
MOST_WAITING = 200
LOOK_UP_S = 5.0  # so often it is looked whether the screen is still there


class News:
    """One listening connection a process, and a queue for each browser that listens."""

    def __init__(self, store: Store) -> None:
        self._store = store
        self._browsers: set[asyncio.Queue[dict[str, Any]]] = set()

    async def run(self) -> None:
        """Listens for as long as the server runs. After a broken connection everybody is told to look again."""
        while True:
            try:
                async for news in listen(self._store.address):
                    self._hand_on(news or {"resync": True})
            except GONE:  # the database is away: try again
                pass
            except Exception:  # whatever it was, browsers must hear the next news
                log.exception("the news broke off")
            await asyncio.sleep(AGAIN_S)

    def _hand_on(self, news: dict[str, Any]) -> None:
        """To everybody; one that does not keep up is told to look again once it does."""
        for queue in self._browsers:
            if queue.full():
                while not queue.empty():
                    queue.get_nowait()
                queue.put_nowait({"resync": True})
            else:
                queue.put_nowait(news)

    @contextlib.asynccontextmanager
    async def heard(self) -> AsyncIterator[asyncio.Queue[dict[str, Any]]]:
        queue: asyncio.Queue[dict[str, Any]] = asyncio.Queue(MOST_WAITING)
        self._browsers.add(queue)
        try:
            yield queue
        finally:
            self._browsers.discard(queue)


def _news(request: Request) -> News:
    news: News = request.app.state.news
    return news


router = APIRouter()


@router.get("/events", response_class=EventSourceResponse, include_in_schema=False)  # it never ends
async def events(request: Request, news: Annotated[News, Depends(_news)]) -> AsyncIterator[ServerSentEvent]:
    """New revisions and studies of all cars, as they come: one stream a browser, whatever its tabs have open."""
    async with news.heard() as queue:
        yield ServerSentEvent(data={"resync": True})
        while not await request.is_disconnected():
            with contextlib.suppress(TimeoutError):
                yield ServerSentEvent(data=await asyncio.wait_for(queue.get(), LOOK_UP_S))
