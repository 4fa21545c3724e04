"""The fabrication pack from the asking to the files, over a real queue and worker."""

import copy
import io
import zipfile

import pytest
from fastapi.testclient import TestClient

from levelcradle.core.design import validate
from levelcradle.drawings import touched
from levelcradle.jobs import run_worker
from levelcradle.jobs.queue import run_pack
from levelcradle.store import Store
from levelcradle.store.tables import PackRow
from tests.conftest import DEMO, one_box


@pytest.fixture
def car(store: Store) -> str:
    return store.create(validate(one_box(copy.deepcopy(DEMO))), "tester", id_="ouzel")


def edit(client: TestClient, car: str, path: str, value: object, at: int) -> None:
    patch = [{"op": "replace", "path": path, "value": value}]
    answer = client.patch(f"/api/projects/{car}", json={"patch": patch}, headers={"If-Match": str(at)})
    assert answer.status_code == 200, answer.text


def test_a_pack_is_asked_made_taken_away_and_told_out_of_date(client: TestClient, store: Store, car: str) -> None:
    base = f"/api/projects/{car}/pack"
    assert client.get(base).json() == {"revision": 1, "made": None, "asked": None}
    asked = client.post(base)
    assert asked.status_code == 202
    assert asked.json()["asked"]["state"] == "waiting"
    run_worker(store, wait=False)
    made = client.get(base).json()["made"]
    assert (made["revision"], made["released"]) == (1, False)
    assert not [s for g in made["groups"] for s in g["sheets"] if s["changed"]]
    assert client.post(base).json()["asked"] is None  # it is there: nothing is made twice
    here = f"{base}/{made['id']}"
    whole = zipfile.ZipFile(io.BytesIO(client.get(f"{here}/whole.zip").content))
    assert sorted(whole.namelist()) == made["files"]
    assert whole.read("drawings.pdf") == client.get(f"{here}/files/drawings.pdf").content
    sheets = [sheet for group in made["groups"] for sheet in group["sheets"]]
    assert client.get(f"{here}/sheets/{sheets[0]['name']}").headers["content-type"] == "image/svg+xml"
    for lost in (f"{here}/files/none.dxf", f"{here}/sheets/none", f"{base}/{'0' * 24}/whole.zip"):
        assert client.get(lost).status_code == 404
    cut = next(sheet["cut"] for sheet in sheets if sheet["cut"])
    dxf = client.get(f"/api/projects/{car}/cut/{cut}.dxf")
    assert dxf.headers["content-type"] == "image/vnd.dxf"
    assert dxf.content == whole.read(f"cut/{cut}.dxf")
    assert client.get(f"/api/projects/{car}/cut/other.dxf").status_code == 404

    edit(client, car, "/boxes/tank/construction/thickness_mm", 2.5, 1)
    changed = {s["name"]: s["changed"] for g in client.get(base).json()["made"]["groups"] for s in g["sheets"]}
    assert "revision 2" in changed["A-box"]
    assert "revision 2" in changed["A1"]
    assert "revision 2" in changed["arrangement"]
    patch = client.post(f"/api/projects/{car}/cut-parts", json={"mark": "A1", "state": "cut"}).json()["patch"]
    edited = client.patch(f"/api/projects/{car}", json={"patch": patch}, headers={"If-Match": "2"})
    assert edited.status_code == 200
    metal = {s["name"]: s["in_metal"] for g in client.get(base).json()["made"]["groups"] for s in g["sheets"]}
    assert metal["A1"] == metal["A-exploded"] == ["Tank box tray is cut"]
    assert metal["A2"] == []
    asked, _ = store.packs.ask(car, 3, "2026-03-01")
    store.packs.done(asked.id, '{"released": true, "groups": []}', {"a.txt": b"x"})
    assert client.get(base).json()["made"]["revision"] == 3
    assert client.get(f"{here}/whole.zip").status_code == 404  # the earlier one is gone


def test_a_pack_of_another_car_is_not_served(client: TestClient, store: Store, car: str) -> None:
    other = store.create(store.open(car).design, "tester", id_="other")
    asked, _ = store.packs.ask(car, 1, "2026-03-01")
    store.packs.done(asked.id, '{"released": true, "groups": []}', {"a.txt": b"x"})
    assert client.get(f"/api/projects/{car}/pack/{asked.id}/files/a.txt").content == b"x"
    assert client.get(f"/api/projects/{other}/pack/{asked.id}/files/a.txt").status_code == 404


def test_a_pack_that_takes_too_much_is_refused_and_can_be_asked_again(
    client: TestClient, store: Store, car: str, monkeypatch: pytest.MonkeyPatch
) -> None:
    asked, _ = store.packs.ask(car, 1, "no day")  # its process fails on it
    run_pack(store, asked.id)
    told = client.get(f"/api/projects/{car}/pack").json()
    assert told["asked"]["state"] == "refused"
    assert "could not be made" in told["asked"]["message"]
    assert client.post(f"/api/projects/{car}/pack").json()["asked"]["state"] == "waiting"


@pytest.mark.parametrize(
    ("about", "path", "found"),
    [
        (("boxes/tank",), "/boxes/tank/name", True),
        (("boxes/tank",), "/boxes/bonnet/name", False),
        (("boxes/tank",), "/items/axle/at_mm", False),
        (("boxes/tank",), "/module_kinds/flagstone/size_mm", True),
        (("boxes/tank",), "/tables/materials", True),
        (("boxes/tank", "mounts/a"), "/hardpoints/x/at_mm", True),
        (("boxes/tank", "mounts/a"), "/mounts/b", False),
        ((), "/items/axle/at_mm", True),
        ((), "/cut_parts/tank-tray", False),
        (("boxes/tank",), "/readings/~1boxes", False),
        (("car",), "/boxes/tank/pose", True),
        (("boxes/tank",), "", True),
        (("boxes/tank",), "/something-new/x", True),
    ],
)
def test_what_a_change_may_touch(about: tuple[str, ...], path: str, found: bool) -> None:
    assert touched(about, path) == found


def test_a_pack_that_an_earlier_program_kept_is_made_again(client: TestClient, store: Store, car: str) -> None:
    asked, _ = store.packs.ask(car, 1, "2026-03-01")
    store.packs.done(asked.id, '{"of": "another form"}', {})
    with store.packs._db.connection_context():
        PackRow.update(form=0, id="0" * 24).where(PackRow.id == asked.id).execute()
    told = client.get(f"/api/projects/{car}/pack").json()
    assert told["made"] is told["asked"] is None
    assert client.post(f"/api/projects/{car}/pack").json()["asked"]["state"] == "waiting"
