"""The API as the screens use it."""

import json
from datetime import datetime
from typing import Any

import pytest
from fastapi.testclient import TestClient
from jsonschema import Draft202012Validator

from levelcradle.core.design import dump, tree_of
from levelcradle.demo import demo_design
from levelcradle.server.views import AnalysisOut

AFT = "/boxes/tank/pose/at_mm/0"


def patch(client: TestClient, car: str, ops: list[dict[str, Any]], base: int = 1, **headers: str) -> Any:
    return client.patch(f"/api/projects/{car}", json={"patch": ops}, headers={"If-Match": str(base)} | headers)


def moved(value: float) -> list[dict[str, Any]]:
    return [{"op": "replace", "path": AFT, "value": value}]


def test_a_new_car_from_two_axle_readings(client: TestClient) -> None:
    weighing = {"type": "axles", "front_kg": 520, "rear_kg": 480, "step_kg": 20}
    body = {"name": "Heron van", "wheelbase_mm": 2650, "track_mm": {"front": 1400, "rear": 1390}, "weighing": weighing}
    made = client.post("/api/projects", json=body)
    assert made.status_code == 201
    opened = client.get(f"/api/projects/{made.json()['id']}").json()
    assert opened["document"]["weighings"]["as-found"]["read"]["front_kg"] == 520
    assert opened["analysis"]["level"]["found"]["front_percent"] == pytest.approx(52.0)
    assert opened["undo"] is None


def test_what_is_opened_fits_what_the_api_promises(client: TestClient, car: str) -> None:
    opened = client.get(f"/api/projects/{car}").json()
    AnalysisOut.model_validate_json(json.dumps(opened["analysis"]))
    Draft202012Validator(client.get("/api/schema").json()).validate(opened["document"])


def test_an_edit_answers_with_its_analysis_and_without_working(client: TestClient, car: str) -> None:
    answer = patch(client, car, moved(2685.0))
    assert answer.status_code == 200
    body = answer.json()
    assert (body["revision"], body["sentence"], body["undo"]) == (2, "Tank box 14.5 mm aft", "Tank box 14.5 mm aft")
    assert body["document_patch"] == [{"op": "replace", "path": AFT, "value": 2685.0}]
    assert body["analysis"]["released"]
    assert "working" not in answer.text.replace("has_working", "")


@pytest.mark.parametrize("quoted", ["1", '"1"'])
def test_if_match_is_taken_with_and_without_quotes(client: TestClient, car: str, quoted: str) -> None:
    assert patch(client, car, moved(2685.0), **{"If-Match": quoted}).status_code == 200


def test_an_edit_without_if_match_or_session_is_refused(client: TestClient, car: str) -> None:
    assert client.patch(f"/api/projects/{car}", json={"patch": moved(1.0)}).status_code == 422
    assert patch(client, car, moved(1.0), **{"X-Session": "bad session!"}).status_code == 422


def test_a_refused_edit_names_the_field(client: TestClient, car: str) -> None:
    answer = patch(client, car, [{"op": "replace", "path": "/boxes/tank/construction/thickness_mm", "value": -3}])
    assert answer.status_code == 422
    assert answer.headers["content-type"] == "application/problem+json"
    assert answer.json()["errors"] == [
        {"path": "/boxes/tank/construction/thickness_mm", "message": "must be more than 0"}
    ]
    assert client.get(f"/api/projects/{car}").json()["revision"] == 1


def test_a_clash_answers_412_with_both_values(client: TestClient, car: str) -> None:
    patch(client, car, moved(2685.0), **{"X-Who": "J%C3%B8rn"})
    answer = patch(client, car, moved(2700.0), base=1)
    assert answer.status_code == 412
    (clash,) = answer.json()["clashes"]
    assert {**clash, "at": ""} == {"path": AFT, "theirs": 2685.0, "yours": 2700.0, "who": "Jørn", "at": ""}
    assert datetime.fromisoformat(clash["at"])


def test_an_edit_sent_twice_under_its_key_is_stored_once(client: TestClient, car: str) -> None:
    body = {"patch": moved(2685.0), "once": "a-key-of-its-own"}
    first, again = (client.patch(f"/api/projects/{car}", json=body, headers={"If-Match": "1"}) for _ in range(2))
    assert (first.json()["revision"], again.json()["revision"]) == (2, 2)
    assert [op["path"] for op in again.json()["patches_since"]] == [AFT]
    assert again.json()["document_patch"] == []


def test_undo_and_redo(client: TestClient, car: str) -> None:
    patch(client, car, moved(2685.0))
    undone = client.post(f"/api/projects/{car}/undo").json()
    assert (undone["revision"], undone["undo"], undone["redo"]) == (3, None, "Tank box 14.5 mm aft")
    assert client.post(f"/api/projects/{car}/redo").json()["undo"] == "Tank box 14.5 mm aft"
    assert client.post(f"/api/projects/{car}/redo").status_code == 422


def test_a_preview_saves_nothing(client: TestClient, car: str) -> None:
    answer = client.post(f"/api/projects/{car}/preview", json={"patch": moved(2685.0)}).json()
    axle = next(f for f in answer["analysis"]["findings"] if f["id"].endswith("items/axle"))
    assert axle["value"] == pytest.approx(25.0)
    assert client.get(f"/api/projects/{car}").json()["revision"] == 1


def test_the_working_of_one_finding_as_stored_and_as_previewed(client: TestClient, car: str) -> None:
    def margin(ops: list[dict[str, Any]]) -> float:
        body = {"patch": ops, "finding": "gap:boxes/tank:items/axle"}
        steps = client.post(f"/api/projects/{car}/working", json=body).json()["steps"]
        return float(next(s["value"] for s in steps if s["what"] == "margin"))

    assert margin([]) == pytest.approx(-14.5)
    assert margin(moved(2685.0)) == pytest.approx(0.0)
    missing = {"patch": [], "finding": "nothing"}
    assert client.post(f"/api/projects/{car}/working", json=missing).status_code == 404


def test_every_finding_that_says_it_has_a_working_shows_one(client: TestClient, car: str) -> None:
    found = client.get(f"/api/projects/{car}").json()["analysis"]["findings"]
    for finding in [f for f in found if f["has_working"]][::4]:
        body = {"patch": [], "finding": finding["id"]}
        assert client.post(f"/api/projects/{car}/working", json=body).json()["steps"]


def test_the_tape(client: TestClient, car: str) -> None:
    body = {"patch": [], "one": "boxes/tank", "other": "items/axle"}
    answer = client.post(f"/api/projects/{car}/tape", json=body).json()
    assert answer["distance_mm"] == pytest.approx(10.5)
    assert client.post(f"/api/projects/{car}/tape", json=body | {"one": "boxes/x"}).status_code == 404


def test_a_box_is_proposed_as_a_patch(client: TestClient, car: str) -> None:
    body = {"bay": "tank", "kind": "flagstone", "turn": {"down": "side_a", "aft": "top"}, "most": 3}
    answer = client.post(f"/api/projects/{car}/first-box", json=body).json()
    assert (answer["fits"], answer["modules"]) == (False, 1), "the tank box stands there"
    assert answer["patch"][0]["path"] == "/boxes/tank-2"
    assert patch(client, car, answer["patch"]).status_code == 200
    gone = [{"op": "remove", "path": f"/boxes/{key}"} for key in ("tank-2", "tank")]
    mounts = [
        {"op": "remove", "path": f"/mounts/{key}"}
        for key, m in tree_of(demo_design())["mounts"].items()
        if "boxes/tank" in m["carries"]
    ]
    assert patch(client, car, [*mounts, *gone], base=2).status_code == 200
    answer = client.post(f"/api/projects/{car}/first-box", json=body).json()
    assert (answer["fits"], answer["modules"]) == (True, 3)


@pytest.mark.parametrize(
    ("body", "value"),
    [
        ({"text": "14 5/8", "kind": "length", "unit": "in"}, 371.475),
        ({"text": "47 lb", "kind": "mass"}, 21.31884139),
        ({"text": "120 L", "path": "/hardpoints/h/at_mm/1", "base_mm": [1610, 10, 540]}, -110.0),
    ],
)
def test_texts_are_read_by_the_core(client: TestClient, body: dict[str, Any], value: float) -> None:
    assert client.post("/api/read", json=body).json()["value"] == pytest.approx(value)


def test_what_cannot_be_read_says_why(client: TestClient) -> None:
    answer = client.post("/api/read", json={"text": "12 x"})
    assert (answer.status_code, answer.json()["errors"][0]["message"]) == (422, "A number is missing at the end.")
    place = client.post("/api/read-place", json={"text": "840 aft, 120 R"}).json()
    aft, across = (
        {"value_mm": mm, "by": False, "unit": "mm", "text": text} for mm, text in ((840, "840 aft"), (120, "120 R"))
    )
    assert place == {"aft": aft, "across": across, "up": None}


def test_a_file_goes_out_and_comes_in_again(client: TestClient, car: str) -> None:
    text = client.get(f"/api/projects/{car}/export").content
    made = client.post("/api/projects/import?another=true", content=text)
    assert made.status_code == 201
    assert client.get(f"/api/projects/{made.json()['id']}/export").content == text


def test_the_history_tells_every_step(client: TestClient, car: str) -> None:
    patch(client, car, moved(2685.0))
    rows = client.get(f"/api/projects/{car}/history").json()
    assert [(r["number"], r["kind"]) for r in rows] == [(2, "edit"), (1, "start")]


def test_a_page_from_elsewhere_may_not_edit(client: TestClient, car: str) -> None:
    assert patch(client, car, moved(1.0), Origin="http://evil.example").status_code == 403
    assert patch(client, car, moved(2685.0), Origin="http://127.0.0.1").status_code == 200


def test_cars_are_listed_newest_first(client: TestClient, car: str) -> None:
    client.post("/api/projects", json={"name": "Heron van", "wheelbase_mm": 2650})
    assert [p["name"] for p in client.get("/api/projects").json()] == ["Heron van", "Calder Ouzel 1500"]
    assert dump(demo_design())
