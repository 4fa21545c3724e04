"""The application over a fresh database, and a demo car in it."""

import asyncio
from collections.abc import Iterator

import pytest
from fastapi.testclient import TestClient

from levelcradle.demo import demo_design
from levelcradle.store import Store
from tests.serving import app_over


@pytest.fixture(autouse=True)
def _its_own_loop() -> Iterator[None]:
    """A browser test before it in the same process has left a loop that counts as running."""
    left = asyncio._get_running_loop()
    asyncio._set_running_loop(None)
    yield
    asyncio._set_running_loop(left)


@pytest.fixture
def client(store: Store) -> Iterator[TestClient]:
    headers = {"X-Session": "tester"}
    with TestClient(
        app_over(store), base_url="http://127.0.0.1", headers=headers, raise_server_exceptions=False
    ) as found:
        yield found


@pytest.fixture
def car(store: Store) -> str:
    return store.create(demo_design(), "tester", id_="ouzel")
