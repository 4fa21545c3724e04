"""Fit studies from the question to the proposals, over a real queue and worker."""

import threading
import time
from typing import Any

import pytest
from fastapi.testclient import TestClient

from levelcradle.core.fit.wishes import Weights
from levelcradle.jobs import run_worker
from levelcradle.jobs.queue import Leaving, run_study
from levelcradle.store import Store

WISHES: dict[str, Any] = {"kinds": ["flagstone"], "bays": ["bonnet", "tank"], "modules": 9}


def test_a_study_is_asked_made_and_applied_as_one_edit(client: TestClient, store: Store, car: str) -> None:
    asked = client.post(f"/api/projects/{car}/studies", json=WISHES)
    assert asked.status_code == 202
    assert asked.json()["state"] == "waiting"
    run_worker(store, wait=False)
    done = client.get(f"/api/studies/{asked.json()['id']}").json()
    assert done["state"] == "done"
    assert [p["modules"] for p in done["proposals"]] == [9] * len(done["proposals"])
    best = done["proposals"][0]
    before = client.get(f"/api/projects/{car}").json()
    edited = client.patch(f"/api/projects/{car}", json={"patch": best["patch"]}, headers={"If-Match": "1"}).json()
    gaps = [f for f in edited["analysis"]["findings"] if f["code"] == "gap"]
    assert not [f for f in gaps if f["state"] == "foul"]
    assert sum(b["modules"] for b in edited["analysis"]["boxes"].values()) == 9
    assert edited["analysis"]["level"]["ready"]["front_percent"] == pytest.approx(best["front_percent"])
    client.post(f"/api/projects/{car}/undo")
    assert client.get(f"/api/projects/{car}").json()["document"] == before["document"]


def test_asked_twice_it_is_made_once(client: TestClient, store: Store, car: str) -> None:
    one, two = (client.post(f"/api/projects/{car}/studies", json=WISHES).json() for _ in range(2))
    assert one["id"] == two["id"]
    run_worker(store, wait=False)
    again = client.post(f"/api/projects/{car}/studies", json=WISHES).json()
    assert again["state"] == "done"
    assert again["proposals"]


def test_it_can_be_stopped_and_keeps_what_it_has(client: TestClient, store: Store, car: str) -> None:
    wishes = {"kinds": ["ingot"], "bays": ["bonnet"], "more_than_the_shelf": True}
    key = client.post(f"/api/projects/{car}/studies", json=wishes).json()["id"]
    worker = threading.Thread(target=run_study, args=(store, key, lambda: False))
    worker.start()
    _until(lambda: bool(store.studies.get(key).found))
    client.post(f"/api/studies/{key}/stop")
    worker.join(30)
    done = client.get(f"/api/studies/{key}").json()
    assert done["state"] == "stopped"
    assert done["proposals"]
    assert client.post(f"/api/projects/{car}/studies", json=wishes).json()["state"] == "waiting"  # taken up again


def test_a_worker_that_has_to_leave_gives_its_study_back(store: Store, client: TestClient, car: str) -> None:
    key = client.post(f"/api/projects/{car}/studies", json=WISHES).json()["id"]
    with pytest.raises(Leaving):
        run_study(store, key, lambda: True)
    assert store.studies.get(key).state == "waiting"
    run_worker(store, wait=False)
    assert store.studies.get(key).state == "done"


def test_a_study_is_made_on_the_revision_it_was_asked_of(client: TestClient, store: Store, car: str) -> None:
    key = client.post(f"/api/projects/{car}/studies", json=WISHES).json()["id"]
    patch = [{"op": "replace", "path": "/boxes/tank/bay", "value": None}, {"op": "remove", "path": "/bays/tank"}]
    assert client.patch(f"/api/projects/{car}", json={"patch": patch}, headers={"If-Match": "1"}).status_code == 200
    run_worker(store, wait=False)
    done = client.get(f"/api/studies/{key}").json()
    assert done["state"] == "done"
    late = client.patch(
        f"/api/projects/{car}", json={"patch": done["proposals"][0]["patch"]}, headers={"If-Match": "1"}
    )
    assert late.status_code in (412, 422)  # the bay of its box went away meanwhile: told, and nothing done


@pytest.mark.parametrize(
    ("change", "path", "message"),
    [
        ({"bays": ["attic"]}, "/bays/0", "there is no bay “attic” any more"),
        ({"kinds": ["gone"]}, "/kinds/0", "there is no module kind “gone” any more"),
        ({"weights": dict.fromkeys(Weights.model_fields, 0.0)}, "/weights", "must not all be zero"),
        ({"window_v": [300.0, 450.0]}, "", "leave one of the two out"),
        ({"modules": 9, "parallel": 2}, "", "do not make 2 equal strings"),
        ({"modules": 0}, "/modules", ""),
    ],
)
def test_what_cannot_be_wished_is_told_at_its_place(
    client: TestClient, car: str, change: dict[str, Any], path: str, message: str
) -> None:
    answer = client.post(f"/api/projects/{car}/studies", json=WISHES | change)
    assert answer.status_code == 422
    errors = answer.json()["errors"]
    assert any(e["path"] == path and message in e["message"] for e in errors), errors


def test_news_of_an_edit_reaches_the_other_screens(store: Store, car: str) -> None:
    import asyncio

    from levelcradle.store import listen

    async def hear() -> dict[str, Any]:
        async for news in listen(store.address):
            if news:
                return news
            patch = [{"op": "replace", "path": "/name", "value": "renamed"}]
            await asyncio.to_thread(store.edit, car, patch, base=1, session="other")
        raise AssertionError("the connection broke")

    assert asyncio.run(asyncio.wait_for(hear(), 10)) == {"project": car, "revision": 2}


def _until(holds: Any) -> None:
    for _ in range(400):
        if holds():
            return
        time.sleep(0.02)
    pytest.fail("it never came")
