"""The built front end is served beside the API."""

from pathlib import Path

import pytest
from fastapi.testclient import TestClient

from levelcradle.server.__main__ import FRONT_END
from levelcradle.store import Store
from tests.serving import app_over


@pytest.fixture
def site(store: Store) -> TestClient:
    return TestClient(app_over(store, FRONT_END), base_url="http://127.0.0.1")


@pytest.mark.parametrize("path", ["/", "/car/ouzel/place", "/somewhere"])
def test_every_page_is_the_start_page(site: TestClient, path: str) -> None:
    answer = site.get(path)
    assert answer.status_code == 200
    assert '<div id="root">' in answer.text


@pytest.mark.parametrize(
    "path", ["/api/nothing", "/assets/none.js", "/api/projects/none", "/sheet.pdf", "/car/ouzel/logo.png"]
)
def test_what_is_not_there_is_no_page(site: TestClient, path: str) -> None:
    answer = site.get(path, headers={"X-Session": "x"})
    assert answer.status_code == 404
    assert answer.headers["content-type"] == "application/problem+json"


def test_nothing_outside_the_folder_is_served(site: TestClient) -> None:
    for path in ("/../pyproject.toml", "/..%2f..%2fpyproject.toml", "/assets/..%2f..%2f..%2fREADME.md"):
        assert "level-cradle" not in site.get(path).text


def test_the_first_screen_is_light(site: TestClient) -> None:
    """What the start page loads at once: at most 200 kB of JavaScript when compressed."""
    import gzip
    import re

    page = site.get("/").text
    scripts = re.findall(r'(?:src|href)="(/assets/[^"]+\.js)"', page)
    assert scripts
    size = sum(len(gzip.compress((FRONT_END / Path(s).relative_to("/")).read_bytes())) for s in scripts)
    assert size <= 200_000


def test_fonts_come_with_the_build(site: TestClient) -> None:
    fonts = list((FRONT_END / "assets").glob("*.woff2"))
    assert fonts
    assert "http://" not in (FRONT_END / "index.html").read_text().replace("http://www.w3.org", "")
