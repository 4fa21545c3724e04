"""What happens to a car, told to every screen that has it open, by server-sent events."""

import asyncio
import contextlib
from collections.abc import AsyncIterator
from typing import Annotated, Any

from fastapi import APIRouter, Depends, Request
from fastapi.sse import EventSourceResponse, ServerSentEvent

from levelcradle.server.routes import ProjectId
from levelcradle.store import Store, listen

__all__ = ["News", "router"]

AGAIN_S = 1.0
MOST_WAITING = 200
LOOK_UP_S = 5.0  # so often it is looked whether the screen is still there


class News:
    """One listening connection a process, and a queue for each open screen."""

    def __init__(self, store: Store) -> None:
        self._store = store
        self._screens: dict[str, set[asyncio.Queue[dict[str, Any]]]] = {}

    async def run(self) -> None:
        """Listens for as long as the server runs. After a broken connection every screen is told to look again."""
        while True:
            with contextlib.suppress(Exception):  # the database is away: try again
                async for news in listen(self._store.address):
                    self._hand_on(news)
            await asyncio.sleep(AGAIN_S)

    def _hand_on(self, news: dict[str, Any]) -> None:
        project = news.get("project")
        rows = self._screens.get(project, set()) if project else {q for all_ in self._screens.values() for q in all_}
        for queue in rows:
            if queue.full():
                continue
            queue.put_nowait({key: value for key, value in news.items() if key != "project"} or {"resync": True})

    @contextlib.asynccontextmanager
    async def of(self, project: str) -> AsyncIterator[asyncio.Queue[dict[str, Any]]]:
        queue: asyncio.Queue[dict[str, Any]] = asyncio.Queue(MOST_WAITING)
        self._screens.setdefault(project, set()).add(queue)
        try:
            yield queue
        finally:
            self._screens[project].discard(queue)


def _news(request: Request) -> News:
    news: News = request.app.state.news
    return news


router = APIRouter()


@router.get("/projects/{project}/events", response_class=EventSourceResponse, include_in_schema=False)  # it never ends
async def events(project: ProjectId, request: Request, news: Annotated[News, Depends(_news)]) -> AsyncIterator[ServerSentEvent]:
    """New revisions and studies of a car, as they come."""
    async with news.of(project) as queue:
        yield ServerSentEvent(data={"resync": True})
        while not await request.is_disconnected():
            with contextlib.suppress(TimeoutError):
                yield ServerSentEvent(data=await asyncio.wait_for(queue.get(), LOOK_UP_S))
