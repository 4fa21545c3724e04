"""Whose work the application is built of."""

from starlette.testclient import TestClient

from levelcradle.server.notices import LOCK


def test_every_package_it_runs_with_is_told_with_its_licence(client: TestClient) -> None:
    rows = {row["name"]: row for row in client.get("/api/notices").json()}
    pinned = dict(
        line.split(" ")[0].split("==") for line in LOCK.read_text().splitlines() if "==" in line and line[0].isalpha()
    )
    assert set(rows) <= set(pinned)
    assert {"fastapi", "numpy", "peewee", "fpdf2"} <= set(rows)
    for name, row in rows.items():
        assert row["version"] == pinned[name]
        assert row["licence"]
    assert "Permission" in rows["fastapi"]["text"]
