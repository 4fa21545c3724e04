"""The routes of the list of cars."""

import json
from xml.etree import ElementTree

import pytest
from starlette.testclient import TestClient

from levelcradle.core.design import dump
from levelcradle.demo import demo_design

CAR = json.loads(dump(demo_design()))


def names(client: TestClient) -> list[str]:
    return [row["name"] for row in client.get("/api/projects").json()]


def test_variants_lie_side_by_side(client: TestClient, car: str) -> None:
    copy = client.post(f"/api/projects/{car}/copy").json()
    client.patch(
        f"/api/projects/{copy['id']}", json={"patch": [{"op": "replace", "path": "/boxes/tank/pose/at_mm/0",
        "value": 2685.0}]},
        headers={"If-Match": "1"},
    )  # fmt: skip
    first, variant = (row["figures"] for row in client.get(f"/api/projects/{car}/variants").json())
    assert (first["worst_gap"]["state"], variant["worst_gap"]["state"]) == ("foul", "tight")
    assert variant["rear_kg"] > first["rear_kg"]
    assert variant["total_kg"] == pytest.approx(first["total_kg"])
    assert first["modules"] == 9
    assert first["worst_mount"]["state"] == "tight"


def test_deleted_and_brought_back(client: TestClient, car: str) -> None:
    assert client.delete(f"/api/projects/{car}").status_code == 204
    assert client.get(f"/api/projects/{car}").status_code == 404
    assert [row["id"] for row in client.get("/api/deleted").json()] == [car]
    assert client.post(f"/api/deleted/{car}/back").status_code == 204
    assert names(client) == ["Calder Ouzel 1500"]
    assert client.post(f"/api/deleted/{car}/back").status_code == 404


def test_a_file_of_a_car_that_is_there_is_asked_about(client: TestClient, car: str) -> None:
    newer = {**CAR, "boxes": {**CAR["boxes"], "tank": {**CAR["boxes"]["tank"], "name": "Rear box"}}}
    asked = client.post("/api/projects/import", json=newer)
    assert (asked.status_code, asked.json()["same"]) == (409, car)
    assert names(client) == ["Calder Ouzel 1500"]
    assert client.post(f"/api/projects/{car}/renewed", json=newer).json()["revision"] == 2
    assert client.get(f"/api/projects/{car}").json()["document"]["boxes"]["tank"]["name"] == "Rear box"
    assert client.get(f"/api/projects/{car}/history").json()[0]["sentence"] == "a newer version from a file"
    assert client.post("/api/projects/import?another=true", json=newer).status_code == 201
    assert len(names(client)) == 2


def test_a_bad_file_is_told_with_its_line(client: TestClient) -> None:
    text = json.dumps(CAR, indent=1).replace('"mass_kg": 134.0', '"mass_kg": "much"', 1)
    line = next(n for n, row in enumerate(text.split("\n"), start=1) if '"much"' in row)
    (error,) = client.post("/api/projects/import", content=text).json()["errors"]
    assert error == {"path": "/items/engine/mass_kg", "message": f"must be a number (line {line})"}
    broken = client.post("/api/projects/import", content=text[: len(text) // 2]).json()["errors"][0]["message"]
    assert "line" in broken


def test_an_older_revision_comes_back_and_its_plan_is_a_picture(client: TestClient, car: str) -> None:
    client.patch(
        f"/api/projects/{car}",
        json={"patch": [{"op": "replace", "path": "/name", "value": "Other"}]},
        headers={"If-Match": "1"},
    )
    assert client.post(f"/api/projects/{car}/revisions/1/take-back").json()["name"] == "Calder Ouzel 1500"
    drawn = ElementTree.fromstring(client.get(f"/api/projects/{car}/plan.svg?revision=1").text)
    assert len(drawn.findall("{http://www.w3.org/2000/svg}polygon")) > 10
    assert client.post(f"/api/projects/{car}/revisions/99/take-back").status_code == 404


def test_an_older_revision_is_looked_at_and_opened_as_a_variant_before_it_is_taken_back(
    client: TestClient, car: str
) -> None:
    at = f"/api/projects/{car}"
    patch = [{"op": "remove", "path": "/boxes/bonnet/blocks/a"}, {"op": "replace", "path": "/name", "value": "Other"}]
    assert client.patch(at, json={"patch": patch}, headers={"If-Match": "1"}).status_code == 200
    then, now = client.get(f"{at}/revisions/1").json()
    assert (then["name"], then["revision"], now["name"], now["revision"]) == ("Calder Ouzel 1500", 1, "Other", 2)
    assert then["figures"]["modules"] > now["figures"]["modules"]
    assert client.get(f"{at}/plan.svg?revision=1").text != client.get(f"{at}/plan.svg?revision=2").text
    variant = client.post(f"{at}/copy?revision=1").json()
    assert client.get(f"/api/projects/{variant['id']}").json()["document"]["boxes"] == CAR["boxes"]
    assert client.get(at).json()["document"]["name"] == "Other"  # looking changed nothing
    for gone in (f"{at}/revisions/3", f"{at}/plan.svg?revision=3"):
        assert client.get(gone).status_code == 404
    assert client.post(f"{at}/copy?revision=3").status_code == 404
