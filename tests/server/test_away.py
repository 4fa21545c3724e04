"""The database goes away and comes back: every address says so in the same words, and all heals by itself."""

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from typing import Any

import pytest
from fastapi.testclient import TestClient


@contextmanager
def nobody_gets_in(database_url: str, admin: Callable[[str], None]) -> Iterator[None]:
    """The database refuses connections, and those it had are cut."""
    name = database_url.rsplit("/", 1)[1]
    admin(f'ALTER DATABASE "{name}" ALLOW_CONNECTIONS false')
    admin(f"SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = '{name}'")
    try:
        yield
    finally:
        admin(f'ALTER DATABASE "{name}" ALLOW_CONNECTIONS true')


@pytest.fixture
def asked(car: str) -> list[tuple[str, str, dict[str, Any]]]:
    edit = {"json": {"patch": [{"op": "replace", "path": "/name", "value": "later"}]}, "headers": {"If-Match": "1"}}
    return [
        ("GET", "/api/health", {}),
        ("GET", "/api/projects", {}),
        ("GET", f"/api/projects/{car}", {}),
        ("PATCH", f"/api/projects/{car}", edit),
        ("POST", f"/api/projects/{car}/undo", {"headers": {"If-Match": "1"}}),
    ]


def test_while_the_database_is_away_everything_says_so_and_then_goes_on(
    client: TestClient,
    database_url: str,
    admin: Callable[[str], None],
    car: str,
    asked: list[tuple[str, str, dict[str, Any]]],
) -> None:
    with nobody_gets_in(database_url, admin):
        for method, path, more in asked:
            answer = client.request(method, path, **more)
            assert (answer.status_code, answer.headers["Retry-After"]) == (503, "1"), path
            assert answer.headers["content-type"] == "application/problem+json"
            assert "Nothing was lost" in answer.json()["detail"]
    assert client.get(f"/api/projects/{car}").json()["revision"] == 1
    assert client.request(*asked[3][:2], **asked[3][2]).status_code == 200
    assert client.get("/api/health").json()["database"] == "there"
