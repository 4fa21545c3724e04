"""The application over a fresh database, and a demo car in it."""

from collections.abc import Iterator

import pytest
from fastapi.testclient import TestClient

from levelcradle.demo import demo_design
from levelcradle.store import Store
from tests.serving import app_over


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
