"""The routes of Survey, Stock and instruments, with a real database; bad input is a sentence and never a 500."""

import io
import time
from typing import Any

import ezdxf
import pytest
import trimesh
from fastapi.testclient import TestClient
from PIL import Image

from levelcradle.demo import demo_design
from levelcradle.instruments.simulated import devices, start
from levelcradle.jobs.scan_import import read_in
from levelcradle.store import Store

from .test_api import patch


def kept_scan(client: TestClient, car: str, data: bytes, **query: str | float) -> dict[str, Any]:
    """Sends a scan and reads it as a worker does."""
    started = client.post(f"/api/projects/{car}/scans", params={"name": "scan.stl", **query}, content=data)
    assert started.status_code == 202
    key, store = started.json()["id"], client.app.state.store  # type: ignore[attr-defined]
    assert client.get(f"/api/scans/{key}").json()["message"] == "waiting for a worker"
    sent = store.scan_imports.take(key)
    assert sent is not None
    read_in(store, key, sent)
    found: dict[str, Any] = client.get(f"/api/scans/{key}").json()
    assert found["done"]
    return found


def stl(metres: tuple[float, float, float] = (0.4, 0.2, 0.1)) -> bytes:
    data = trimesh.creation.box(metres).export(file_type="stl")
    assert isinstance(data, bytes)
    return data


def corners(at: tuple[float, float, float]) -> dict[str, Any]:
    """Three corners of the block, in the file and on the car."""
    file = {"a": (-200, -100, -50), "b": (200, -100, -50), "c": (-200, 100, -50)}
    return {k: {"name": k, "file_mm": f, "at_mm": [a + b for a, b in zip(f, at, strict=True)]} for k, f in file.items()}


def test_a_scan_becomes_an_obstacle_where_its_three_points_are(client: TestClient, car: str) -> None:
    scan = kept_scan(client, car, stl(), unit="m")
    assert scan["size_mm"] == pytest.approx([400, 200, 100], abs=0.01)
    assert (scan["triangles_before"], scan["closed"]) == (12, True)
    solid = {"type": "mesh", "file": scan["file"], "tolerance_mm": 2.0, "ties": corners((1500.0, 0.0, 300.0))}
    answer = patch(
        client,
        car,
        [{"op": "add", "path": "/items/block", "value": {"name": "scanned block", "state": "stays", "solid": solid}}],
    )
    assert answer.status_code == 200
    analysis = answer.json()["analysis"]
    drawn = next(s for s in analysis["shapes"] if s["path"] == "items/block")
    assert min(x for x, _ in drawn["plan"]) == pytest.approx(1300, abs=3)
    residual = next(f for f in analysis["findings"] if "items/block" in f["subjects"] and f["station"] == "survey")
    assert residual["state"] in ("clear", "note")


@pytest.mark.parametrize(
    ("data", "query", "message"),
    [(b"", {"unit": "m"}, "empty"), (stl(), {}, "unit"), (b"PK\x03\x04" + b"0" * 99, {"unit": "m"}, "")],
)
def test_a_scan_that_is_none_is_refused_with_its_reason(
    client: TestClient, car: str, data: bytes, query: dict[str, str], message: str
) -> None:
    if not data:
        assert client.post(
            f"/api/projects/{car}/scans", params={"name": "x.stl"} | query, content=data
        ).status_code in (202, 422)
        return
    refused = kept_scan(client, car, data, **query)["refused"]
    assert refused
    assert message in refused


def test_pictures_are_kept_and_only_pictures(client: TestClient, car: str) -> None:
    out = io.BytesIO()
    Image.new("RGB", (8, 8), "red").save(out, "PNG")
    kept = client.post(f"/api/projects/{car}/pictures", params={"name": "rust.png"}, content=out.getvalue())
    shown = client.get(f"/api/pictures/{kept.json()['file']}")
    assert (shown.headers["content-type"], shown.content) == ("image/png", out.getvalue())
    assert client.post(f"/api/projects/{car}/pictures", params={"name": "x.png"}, content=b"<svg/>").status_code == 422
    assert client.get(f"/api/pictures/{'0' * 64}").status_code == 404


SHELF = "Serial;Type;Volts;Date\nA1;flagstone;44,6;2026-03-01\nA2;flagstone;x;2026-03-01\n"


def test_a_table_with_semicolons_and_commas_shows_what_it_will_become(client: TestClient, car: str) -> None:
    kind = next(iter(demo_design().module_kinds))
    found = client.post(
        f"/api/projects/{car}/shelf-preview", params={"kind": kind}, content=SHELF.encode("cp1252")
    ).json()
    assert [bool(r["refused"]) for r in found["rows"]] == [False, True]
    assert patch(client, car, found["patch"]).status_code == 200
    assert "44.6" in client.get(f"/api/projects/{car}/shelf.csv").text
    wrong = client.post(f"/api/projects/{car}/shelf-preview", params={"mapping": "[1]"}, content=SHELF.encode())
    assert wrong.status_code == 422


def test_swung_tapes_meet(client: TestClient, car: str) -> None:
    refs = demo_design().references
    a, b = list(refs)[:2]
    spot = (2000.0, 300.0, 400.0)
    tapes = {
        k: {"hooked": k, "length_mm": sum((p - q) ** 2 for p, q in zip(refs[k].at_mm, spot, strict=True)) ** 0.5}
        for k in (a, b)
    }
    found = client.post(f"/api/projects/{car}/swing", json={"tapes": tapes, "guess_mm": [1990, 310, 400]}).json()
    assert found["at_mm"] == pytest.approx(spot, abs=0.01)
    assert found["misfit_mm"] == pytest.approx(0, abs=0.01)
    tapes[a]["hooked"] = "nowhere"
    assert client.post(f"/api/projects/{car}/swing", json={"tapes": tapes, "guess_mm": [0, 0, 0]}).status_code == 404


def test_lists_of_the_survey(client: TestClient, car: str) -> None:
    for goal in ("clearances", "loads", "level"):
        rows = client.get(f"/api/projects/{car}/to-measure", params={"goal": goal}).json()
        known = [r["moves"] for r in rows if r["moves"] is not None]
        assert known == sorted(known, reverse=True)
    assert any(r["why"] == "turns motor" for r in client.get(f"/api/projects/{car}/twice").json())
    near = client.get(f"/api/projects/{car}/carriers/tank").json()
    assert {"left rear rail, fore", "right rear rail, aft"} <= {r["name"] for r in near}
    blanks = client.get(f"/api/projects/{car}/blanks").json()
    assert [b["number"] for b in blanks] == list(range(1, len(blanks) + 1))
    sheet = client.get(f"/api/projects/{car}/survey-sheet.pdf")
    assert sheet.content.startswith(b"%PDF")
    deep = client.post(f"/api/projects/{car}/behind", json={"at_mm": [600, 0, 900], "direction": [0, 0, -1]}).json()
    assert deep["depth_mm"] > 0
    assert (
        client.post(f"/api/projects/{car}/behind", json={"at_mm": [0, 0, 0], "direction": [0, 0, 0]}).status_code == 422
    )


def test_a_station_is_copied_mirrored_and_said_in_widths(client: TestClient, car: str) -> None:
    key = next(iter(demo_design().bays["tank"].stations))
    for what in ("copy", "mirror", "widths"):
        revision = client.get(f"/api/projects/{car}").json()["revision"]
        found = client.post(f"/api/projects/{car}/restate", json={"bay": "tank", "station": key, "do": what}).json()
        assert patch(client, car, found["patch"], base=revision).status_code == 200
    bay = client.get(f"/api/projects/{car}").json()["document"]["bays"]["tank"]
    assert len(bay["stations"]) == 3
    assert bay["stations"][key]["type"] == "widths"


def test_the_place_of_what_came_out_becomes_a_space(client: TestClient, car: str) -> None:
    assert client.post(f"/api/projects/{car}/freed/engine").status_code == 422  # it has no size yet
    block = {"type": "block", "low_mm": [0, -200, 300], "high_mm": [500, 200, 700]}
    patch(client, car, [{"op": "replace", "path": "/items/engine/solid", "value": block}])
    found = client.post(f"/api/projects/{car}/freed/engine").json()
    assert patch(client, car, found["patch"], base=2).json()["analysis"]["bays"][found["id"]][
        "litres"
    ] == pytest.approx(80.0)


def test_the_shops_own_rows_are_offered_to_its_other_cars(client: TestClient, car: str, store: Store) -> None:
    row = {"name": "own rubber", "thickness_mm": 6, "creeps": "yes", "source": "measured here", "own": True}
    assert patch(client, car, [{"op": "add", "path": "/tables/liners/own-rubber", "value": row}]).status_code == 200
    store.create(demo_design(), "tester", id_="other")
    assert [(r["subject"], r["id"], r["car"]) for r in client.get("/api/own-rows").json()] == [
        ("liners", "own-rubber", demo_design().name)
    ]


@pytest.mark.parametrize("subject", ["typical-masses", "fluids", "cg-heights", "keepouts", "liners"])
def test_every_row_to_start_from_names_its_source(client: TestClient, subject: str) -> None:
    rows = client.get(f"/api/starters/{subject}").json()
    assert rows
    assert all(r["source"] for r in rows)
    assert client.get("/api/starters/passwords").status_code == 404


def test_generic_kinds_go_into_a_design_and_say_they_are_made_up(client: TestClient, car: str) -> None:
    kinds = client.get("/api/starter-kinds").json()
    ops = [{"op": "add", "path": f"/module_kinds/{k}", "value": v} for k, v in kinds.items()]
    assert patch(client, car, ops).status_code == 200
    assert all(k["made_up"] and k["source"] for k in kinds.values())


def test_instruments_are_listened_to_and_left(client: TestClient) -> None:
    server, port = start(devices()[4703])
    address = f"127.0.0.1:{port}"
    assert client.post("/api/instruments", json={"address": address}).status_code == 201
    channels: list[Any] = []
    for _ in range(100):
        channels = client.get("/api/instruments").json()[0]["channels"]
        if channels and channels[0]["steady"]:
            break
        time.sleep(0.05)
    assert channels[0]["name"] == "volts"
    assert channels[0]["value"] == pytest.approx(44.62, abs=0.05)
    assert client.delete("/api/instruments", params={"address": address}).status_code == 204
    assert client.get("/api/instruments").json() == []
    refused = client.post("/api/instruments", json={"address": "93.184.216.34:80"})
    assert (refused.status_code, "own network" in refused.json()["detail"]) == (422, True)
    server.shutdown()
    server.server_close()


def test_a_wall_too_flat_for_an_angle_is_told_at_the_station(client: TestClient, car: str) -> None:
    key = next(iter(demo_design().bays["tank"].stations))
    path = f"/bays/tank/stations/{key}"
    flat = [
        {"op": "replace", "path": f"{path}/{name}", "value": v}
        for name, v in (("top_left_mm", 340.0), ("left_top_mm", -1500.0))
    ]
    floor = demo_design().bays["tank"].stations[key].model_dump()["floor_mm"]
    flat[0]["value"] = floor + 20.0
    assert patch(client, car, flat).status_code == 200
    answer = client.post(f"/api/projects/{car}/restate", json={"bay": "tank", "station": key, "do": "leans"})
    assert answer.status_code == 422
    assert "lean too far" in answer.json()["errors"][0]["message"]


def test_a_design_whose_scan_was_left_behind_says_so_and_still_opens(client: TestClient, car: str) -> None:
    scan = kept_scan(client, car, stl(), unit="m")
    item = {
        "name": "scanned block",
        "state": "stays",
        "solid": {"type": "mesh", "file": scan["file"], "tolerance_mm": 2.0},
    }
    patch(client, car, [{"op": "add", "path": "/items/block", "value": item}])
    tree = client.get(f"/api/projects/{car}").json()["document"]
    tree["items"]["block"]["solid"]["file"] = "f" * 64  # as it comes from another machine
    made = client.post("/api/projects/import?another=true", json=tree)
    assert made.status_code == 201
    analysis = client.get(f"/api/projects/{made.json()['id']}").json()["analysis"]
    told = [f for f in analysis["findings"] if "items/block" in f["subjects"] and f["state"] == "unknown"]
    assert told
    assert "scanned block" in told[0]["message"]


def test_a_photo_goes_with_its_fault_and_out_with_undo(client: TestClient, car: str) -> None:
    out = io.BytesIO()
    Image.new("RGB", (8, 8), "red").save(out, "JPEG")
    kept = client.post(f"/api/projects/{car}/pictures", params={"name": "rust.jpg"}, content=out.getvalue()).json()[
        "file"
    ]
    snag = {"name": "rust at the sill", "photo": kept, "at_mm": [1500, 700, 300]}
    assert (
        patch(client, car, [{"op": "add", "path": "/snags/rust", "value": snag}]).json()["sentence"]
        == "added fault rust at the sill"
    )
    analysis = client.get(f"/api/projects/{car}").json()["analysis"]
    assert any("rust at the sill" in f["message"] for f in analysis["findings"] if f["station"] == "survey")
    assert client.post(f"/api/projects/{car}/undo").status_code == 200
    assert client.get(f"/api/projects/{car}").json()["document"]["snags"] == {}
    assert client.get(f"/api/pictures/{kept}").status_code == 200  # redo needs it


def test_outlines_come_in_millimetres_with_what_was_left_out(client: TestClient) -> None:
    document = ezdxf.new("R2010", units=5)  # centimetres
    space = document.modelspace()
    space.add_lwpolyline([(0, 0), (40, 0), (40, 25), (0, 25)], close=True)
    space.add_circle((60, 0), 5)
    space.add_line((0, 0), (1, 0))
    text = io.StringIO()
    document.write(text)
    found = client.post("/api/outlines", content=text.getvalue().encode()).json()
    assert found["unit"] == "cm"
    assert sorted(round(o["area_mm2"]) for o in found["outlines"])[-1] == 100_000
    assert any(o["off_mm"] > 0 for o in found["outlines"])
    assert found["notes"]
    assert client.post("/api/outlines", content=b"0\nSECTION\n").status_code == 422
