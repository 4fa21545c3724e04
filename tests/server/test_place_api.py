"""What the Place station asks over the API: chains, sections, bodies, blocks, laying against, the tape, what it would
take."""

from typing import Any

import pytest
from fastapi.testclient import TestClient

from levelcradle.core.design.upgrade import FORMAT
from levelcradle.store import Store


def ask(client: TestClient, car: str, what: str, **body: Any) -> Any:
    return client.post(f"/api/projects/{car}/{what}", json={"patch": [], **body})


def edit(client: TestClient, car: str, patch: list[dict[str, Any]], revision: int = 1) -> Any:
    return client.patch(f"/api/projects/{car}", json={"patch": patch}, headers={"If-Match": str(revision)})


def axle_of(client: TestClient, car: str) -> str:
    items = client.get(f"/api/projects/{car}").json()["document"]["items"]
    return next(f"items/{k}" for k, i in items.items() if i["name"] == "axle at full bump")


def test_a_chain_of_allowances(client: TestClient, car: str) -> None:
    chain = ask(client, car, "stack-up", box="tank", way="up").json()
    assert (chain["asked_mm"], chain["there_mm"], chain["spare_mm"], chain["state"]) == (283, 295, 12, "clear")
    assert [end["path"] for end in chain["ends"]] == ["items/anti-roll-bar", "bays/tank/sides/top"]
    there = ask(client, car, "stack-up", box="tank", way="up", at_mm=[300.0, 350.0]).json()
    assert there["there_mm"] is None  # open below at that place


def test_a_section_and_the_bodies(client: TestClient, car: str) -> None:
    cuts = ask(client, car, "section", aft_mm=2760.0).json()["cuts"]
    assert {c["kind"] for c in cuts} >= {"bay", "item", "metal", "module"}
    found = client.get(f"/api/projects/{car}/bodies").json()
    assert found["revision"] == 1
    assert sum(b["kind"] == "module" for b in found["bodies"]) == 9
    beyond = ask(client, car, "section", aft_mm=15_000.0).json()
    assert beyond["cuts"] == []


def test_blocks_by_order_as_a_patch(client: TestClient, car: str) -> None:
    answer = ask(client, car, "blocks", box="tank", order={"do": "split", "block": "a", "way": "aft", "at": 2}).json()
    assert edit(client, car, answer["patch"]).status_code == 200
    blocks = client.get(f"/api/projects/{car}").json()["document"]["boxes"]["tank"]["blocks"]
    assert [b["counts"]["aft"] for b in blocks.values()] == [2, 2]


def test_laid_against_and_the_tape_made_to_read(client: TestClient, car: str) -> None:
    axle = axle_of(client, car)
    laid = ask(client, car, "lay-against", box="tank", other=axle).json()["patch"]
    assert edit(client, car, laid).json()["sentence"] == "Tank box 14.5 mm aft"
    tape = ask(client, car, "tape", one="boxes/tank", other=axle, want_mm=30.0).json()
    assert tape["distance_mm"] == 25.0
    assert tape["move_mm"] == pytest.approx([5.0, 0.0, 0.0], abs=0.01)


def test_a_preview_tells_where_the_dragged_box_is_caught(client: TestClient, car: str) -> None:
    patch = [{"op": "replace", "path": "/boxes/tank/pose/at_mm/0", "value": 2672.5}]
    answer = ask(client, car, "preview", patch=patch).json()
    fore = [c for c in answer["snap_points"] if c["axis"] == 0 and c["towards"] == -1]
    assert [(c["at_mm"], c["state"]) for c in fore] == [(2688.0, "clear"), (2685.0, "tight")]
    assert ask(client, car, "preview").json()["snap_points"] == []


def test_a_set_of_crash_cases_is_taken_and_each_mount_let_go(client: TestClient, car: str) -> None:
    sets = client.get(f"/api/projects/{car}/load-sets").json()
    assert [row["id"] for row in sets if row["now"]] == ["national"]
    gone = client.get(f"/api/projects/{car}/let-go").json()
    lightest = next(row for row in sets if row["id"] == "r100-m3-n3")
    assert edit(client, car, lightest["patch"]).status_code == 200
    after = client.get(f"/api/projects/{car}/load-sets").json()
    assert [row["id"] for row in after if row["now"]] == ["r100-m3-n3"]
    less = client.get(f"/api/projects/{car}/let-go").json()
    assert len(gone) == len(less) == 8
    assert less[0]["utilisation"] < gone[0]["utilisation"]


def test_what_it_would_take_with_its_costs(client: TestClient, car: str) -> None:
    answer = ask(client, car, "would-take", box="tank").json()
    first = answer["fixes"][0]
    assert (first["kind"], first["whole"]) == ("move", True)
    assert edit(client, car, first["patch"]).status_code == 200
    again = ask(client, car, "would-take", box="tank").json()
    assert again["fits"]
    more = ask(client, car, "would-take", box="tank", more="up").json()
    assert not more["fits"]
    assert all(c["patch"] is None for c in more["fixes"] if not c["whole"])


@pytest.mark.parametrize(
    ("what", "body", "status", "message"),
    [
        ("stack-up", {"box": "gone", "way": "up"}, 404, "no box"),
        ("stack-up", {"box": "tank", "way": "sideways"}, 422, ""),
        ("stack-up", {"box": "tank", "way": "up", "at_mm": [1.0]}, 422, ""),
        ("section", {"aft_mm": 1e9}, 422, ""),
        ("section", {"aft_mm": "here"}, 422, ""),
        ("blocks", {"box": "gone", "order": {"do": "copy", "block": "a"}}, 404, "no box"),
        ("blocks", {"box": "tank", "order": {"do": "copy", "block": "z"}}, 422, "no block"),
        ("blocks", {"box": "tank", "order": {"do": "split", "block": "a", "way": "aft", "at": 4}}, 422, "keep fewer"),
        ("blocks", {"box": "tank", "order": {"do": "juggle", "block": "a"}}, 422, ""),
        ("lay-against", {"box": "tank", "other": "items/gone"}, 404, "no thing"),
        ("lay-against", {"box": "gone", "other": "items/axle"}, 404, "no box"),
        ("tape", {"one": "boxes/tank", "other": "boxes/gone"}, 404, "no thing"),
        ("would-take", {"box": "gone"}, 404, "no box"),
        ("would-take", {"box": "tank", "more": "down"}, 422, ""),
    ],
)
def test_what_makes_no_sense_is_told_and_never_a_500(
    client: TestClient, car: str, what: str, body: Any, status: int, message: str
) -> None:
    answer = ask(client, car, what, **body)
    assert answer.status_code == status
    told = answer.json()
    words = " ".join([told["detail"], *(e["message"] for e in told.get("errors", []))])
    assert message in words


def test_pinned_and_agreed_over_the_api(client: TestClient, car: str) -> None:
    pin = {"op": "add", "path": "/pins/p", "value": {"what": "boxes/tank", "why": "bolted in", "by": "M."}}
    assert edit(client, car, [pin]).json()["sentence"] == "added pin of Tank box"
    move = [{"op": "replace", "path": "/boxes/tank/pose/at_mm/0", "value": 2700}]
    refused = edit(client, car, move, 2)
    assert refused.status_code == 422
    assert refused.json()["errors"] == [
        {"path": "/boxes/tank", "message": "Tank box is pinned by M.: bolted in. Unpin it first."}
    ]
    gap = {"one": "boxes/tank", "other": axle_of(client, car), "need_mm": 10, "reason": "bump stop raised"}
    done = edit(client, car, [{"op": "add", "path": "/agreed_gaps/g", "value": gap}], 2).json()
    assert [f["limit"] for f in done["analysis"]["findings"] if f["id"] == f"gap:boxes/tank:{gap['other']}"] == [10]
    nothing = edit(client, car, [{"op": "add", "path": "/agreed_gaps/h", "value": gap | {"reason": ""}}], 3)
    assert nothing.json()["errors"][0]["path"] == "/agreed_gaps/h/reason"


def test_the_document_as_it_stood(client: TestClient, store: Store, car: str) -> None:
    first = store.at(car, 1)
    for revision, name in enumerate(("one", "two", "three"), 1):
        edit(client, car, [{"op": "replace", "path": "/name", "value": name}], revision)
    assert store.at(car, 1) == first
    assert store.at(car, 3)["name"] == "two"


# --- wishes that become patches ---


def test_a_box_is_built_another_way_and_back(client: TestClient, car: str) -> None:
    patch = client.post(f"/api/projects/{car}/boxes/tank/built-as/existing").json()["patch"]
    done = edit(client, car, patch)
    assert done.status_code == 200, done.text
    box = done.json()["analysis"]["boxes"]["tank"]
    assert (box["outer_mm"], box["over_lid_mm"]) == ([394, 700, 248], [394, 700, 248])
    back = edit(client, car, client.post(f"/api/projects/{car}/boxes/tank/built-as/folded").json()["patch"], 2)
    assert back.json()["analysis"]["boxes"]["tank"]["over_lid_mm"] == [401, 707, 248]
    for box_id, kind in (("gone", "folded"), ("tank", "cardboard")):
        assert client.post(f"/api/projects/{car}/boxes/{box_id}/built-as/{kind}").status_code == 404


def test_what_holds_the_modules_is_sized_or_refused_with_its_reason(client: TestClient, car: str) -> None:
    taken = edit(client, car, [{"op": "replace", "path": "/boxes/tank/holders", "value": {}}])
    unsaid = [f for f in taken.json()["analysis"]["findings"] if f["code"] == "inside.hold_down"]
    assert [f["state"] for f in unsaid] == ["unknown"]
    patch = client.post(f"/api/projects/{car}/boxes/tank/held-by/any").json()["patch"]
    found = edit(client, car, patch, 2).json()["analysis"]["findings"]
    ways = [f for f in found if f["code"] == "inside.held" and "boxes/tank" in f["subjects"]]
    assert len(ways) == 6
    assert {f["state"] for f in ways} <= {"clear", "tight"}
    for box_id, kind in (("gone", "any"), ("tank", "glue")):
        assert client.post(f"/api/projects/{car}/boxes/{box_id}/held-by/{kind}").status_code == 404
    refused = client.post(f"/api/projects/{car}/boxes/tank/held-by/own-holes")
    assert refused.status_code < 500
    assert "holes from base to top" in refused.text


def test_a_mount_is_hung_like_the_last_one_and_doubled(client: TestClient, car: str) -> None:
    point = {"name": "seat bolt", "at_mm": [2900.0, -400.0, 540.0], "direction": [0, 0, -1], "thread": "M12"}
    assert edit(client, car, [{"op": "add", "path": "/hardpoints/seat", "value": point}]).status_code == 200
    body = {"box": "tank", "kind": "angle", "on": "hardpoints/seat", "face": "left"}
    answer = client.post(f"/api/projects/{car}/hung", json=body).json()
    made = answer["patch"][0]["value"]
    assert made["lands_on"] == {
        "type": "hardpoint",
        "hardpoint": "seat",
        "bolt": {"size": "M12", "property_class": "8.8"},
    }
    assert (made["shape"]["thickness_mm"], made["to_box"]["doubler"]["along_n_mm"]) == (8, 170), (
        "as the tank box's others"
    )
    assert edit(client, car, answer["patch"], 2).status_code == 200
    patch = client.post(f"/api/projects/{car}/mounts/{answer['id']}/doubler").json()["patch"]
    plate = edit(client, car, patch, 3).json()["document_patch"][0]["value"]
    assert (plate["along_w_mm"], plate["along_n_mm"], plate["from_contact_mm"]) == (150, 150, 10), (
        "30 round the weld, 12 before it"
    )


@pytest.mark.parametrize(("change", "status"), [
    ({"box": "gone"}, 404), ({"kind": "glue"}, 404), ({"on": "hardpoints/none"}, 404), ({"on": "items/axle"}, 404),
    ({"face": "up"}, 422),
    ({"on": "nowhere"}, 422),
])  # fmt: skip
def test_a_mount_on_nothing_is_told(client: TestClient, car: str, change: dict[str, str], status: int) -> None:
    body = {"box": "tank", "kind": "angle", "on": "hardpoints/tail-lf", "face": "left"} | change
    assert client.post(f"/api/projects/{car}/hung", json=body).status_code == status
    assert client.post(f"/api/projects/{car}/mounts/none/doubler").status_code == 404


def test_a_file_of_format_1_is_taken_and_given_back_in_this_one(client: TestClient) -> None:
    from pathlib import Path

    old = (Path(__file__).parents[1] / "formats" / "format-1.cradle.json").read_bytes()
    made = client.post("/api/projects/import", content=old).json()["id"]
    given = client.get(f"/api/projects/{made}/export").json()
    assert given["format"] == FORMAT
    assert given["boxes"]["tank"]["openings"]["hv"]["face"] == "top"
    again = client.post("/api/projects/import?another=true", content=client.get(f"/api/projects/{made}/export").content)
    assert again.status_code == 201
