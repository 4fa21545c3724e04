"""Hostile input gets clear answers, never a 500, and is never echoed."""

import json
from typing import Any

import pytest
import schemathesis
from fastapi.testclient import TestClient
from hypothesis import HealthCheck, Phase, given, settings
from hypothesis import strategies as st

from levelcradle.core.design import dump
from levelcradle.core.design.mount import Angle
from levelcradle.demo import demo_design

CAR = "/api/projects/ouzel"
SMALL = dump(demo_design())

BODIES = {
    "empty": b"",
    "truncated": b'{"patch": [{"op": "repl',
    "not json": b"\x00\xff\xfe",
    "a list": b"[]",
    "null": b"null",
    "nested": b'{"patch": ' + b"[" * 5000 + b"]" * 5000 + b"}",
    "nan": b'{"patch": [{"op": "replace", "path": "/name", "value": NaN}]}',
    "infinite": b'{"patch": [{"op": "replace", "path": "/boxes/tank/construction/thickness_mm", "value": 1e999}]}',
    "control": b'{"patch": [{"op": "replace", "path": "/name", "value": "a\\u0000b"}]}',
    "surrogate": b'{"patch": [{"op": "replace", "path": "/name", "value": "\\ud800"}]}',
    "unknown op": b'{"patch": [{"op": "copy", "from": "/boxes", "path": "/boxes/x"}]}',
    "unknown field": b'{"patch": [], "extra": 1}',
    "root": b'{"patch": [{"op": "replace", "path": "", "value": {}}]}',
    "no path": b'{"patch": [{"op": "remove", "path": "boxes"}]}',
    "huge number": b'{"patch": [{"op": "replace", "path": "/boxes/tank/construction/thickness_mm", "value": '
    + b"9" * 400
    + b"}]}",
    "deep value": b'{"patch": [{"op": "add", "path": "/items/x", "value": '
    + b'{"a":' * 150
    + b"1"
    + b"}" * 150
    + b"}]}",
    "wrong type": b'{"patch": [{"op": "replace", "path": "/boxes", "value": 7}]}',
    "tables gone": b'{"patch": [{"op": "remove", "path": "/tables"}]}',
    "readings a list": b'{"patch": [{"op": "replace", "path": "/readings", "value": []}]}',
    "twin of no name": b'{"patch": [{"op": "replace", "path": "/items/motor-frame/mirror_of", "value": {}}]}',
    "reading nonsense": b'{"patch": [{"op": "add", "path": "/readings/~1name", "value": 5}]}',
}


@pytest.mark.parametrize("name", BODIES)
def test_bodies_that_are_no_edit(client: TestClient, car: str, name: str) -> None:
    headers = {"If-Match": "1", "Content-Type": "application/json"}
    answer = client.patch(f"/api/projects/{car}", content=BODIES[name], headers=headers)
    assert answer.status_code == 422, answer.text
    assert answer.headers["content-type"] == "application/problem+json"
    assert answer.json()["errors"]
    assert client.get(CAR).json()["revision"] == 1


def test_a_patch_over_two_megabytes_or_two_thousand_operations_is_refused(client: TestClient, car: str) -> None:
    headers = {"If-Match": "1"}
    big = json.dumps({"patch": [{"op": "replace", "path": "/name", "value": "x" * 2_100_000}]})
    assert client.patch(f"/api/projects/{car}", content=big, headers=headers).status_code == 413
    many = {"patch": [{"op": "test", "path": "/name", "value": "x"}] * 2001}
    assert client.patch(f"/api/projects/{car}", json=many, headers=headers).status_code == 422


def test_a_file_over_ten_megabytes_is_refused(client: TestClient) -> None:
    assert client.post("/api/projects/import", content=b" " * 10_000_001).status_code == 413


@pytest.mark.parametrize("cut", [1, 500, 5000, len(SMALL) - 1])
def test_a_truncated_file_says_where_it_breaks_off(client: TestClient, cut: int) -> None:
    answer = client.post("/api/projects/import", content=SMALL[:cut].encode())
    assert answer.status_code == 422
    assert "breaks off or is wrong at line 1" in answer.json()["errors"][0]["message"]


def test_the_input_is_never_echoed(client: TestClient, car: str) -> None:
    secret = "sesame-opens"
    headers = {"If-Match": "1"}
    for value in ({secret: secret}, [secret], {"format": secret}):
        body = {"patch": [{"op": "replace", "path": "/boxes/tank", "value": value}]}
        answer = client.patch(f"/api/projects/{car}", json=body, headers=headers)
        assert answer.status_code == 422
        assert f'"says":"{secret}' not in answer.text


def test_answers_forbid_foreign_scripts(client: TestClient) -> None:
    headers = client.get("/api/health").headers
    assert "default-src 'self'" in headers["content-security-policy"]
    assert headers["x-content-type-options"] == "nosniff"


JSON = st.recursive(
    st.none() | st.booleans() | st.floats() | st.integers() | st.text(max_size=12),
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(st.text(max_size=8), inner, max_size=3),
    max_leaves=8,
)
PATHS = st.sampled_from(
    ["/name", "/boxes/tank", "/boxes/tank/pose/at_mm/0", "/boxes/tank/blocks/a/counts", "/items/axle/solid",
    "/vehicle/weighing",
     "/bays/tank/stations/a/floor_mm", "/mounts/tank-lf/shape/thickness_mm", "/hardpoints/tail-lf/direction",
     "/tables/bolts/M10",
     "/module_kinds/flagstone/size_mm", "/readings", "/references/seat-seam/at_mm", "/boxes/tank/inner", "/load_states"]
)  # fmt: skip
FIGURES = st.floats(-2e4, 2e4) | st.integers(-20000, 20000) | st.sampled_from([0, -0.0, 1e-9, 20000.0])


@settings(max_examples=40, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(path=PATHS, value=JSON | FIGURES)
def test_any_value_at_any_place_is_taken_or_refused(client: TestClient, car: str, path: str, value: Any) -> None:
    body = json.dumps({"patch": [{"op": "replace", "path": path, "value": value}]})
    answer = client.post(f"{CAR}/preview", content=body)
    assert answer.status_code in (200, 422), answer.text


def pointers(tree: Any, at: str = "") -> list[str]:
    """Every place of a document."""
    steps = tree.items() if isinstance(tree, dict) else enumerate(tree) if isinstance(tree, list) else ()
    return [
        at,
        *(
            p
            for key, value in steps
            for p in pointers(value, at + "/" + str(key).replace("~", "~0").replace("/", "~1"))
        ),
    ]


@settings(max_examples=60, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(st.data())
def test_anything_taken_away_or_swapped_anywhere_is_answered(client: TestClient, car: str, data: st.DataObject) -> None:
    places = pointers(json.loads(SMALL))[1:]
    one, other = data.draw(st.sampled_from(places)), data.draw(st.sampled_from(places))
    donor = data.draw(st.sampled_from(places))
    value = json.loads(SMALL)
    for step in donor.split("/")[1:]:
        value = value[int(step)] if isinstance(value, list) else value[step.replace("~1", "/").replace("~0", "~")]
    ops = [{"op": "remove", "path": one}, {"op": "replace", "path": other, "value": value}]
    answer = client.post(f"{CAR}/preview", json={"patch": ops[data.draw(st.integers(0, 1)) :][:1]})
    assert answer.status_code in (200, 422), answer.text


@settings(max_examples=25, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(st.lists(st.tuples(st.sampled_from(["thickness_mm", "bend_radius_mm", "width_mm", "toe_mm", "leg_b_mm",
"from_mm",
                                           "length_mm", "leg_mm"]), st.floats(0.001, 500)), max_size=4),
       st.tuples(*[st.floats(-180, 180)] * 3))  # fmt: skip
def test_any_bracket_on_any_leaning_box_is_analysed(
    client: TestClient, car: str, figures: list[tuple[str, float]], turn: tuple[float, ...]
) -> None:
    ops = [
        {
            "op": "replace",
            "path": f"/mounts/tank-lf/{'shape' if name in Angle.model_fields else 'to_box'}/{name}",
            "value": v,
        }
        for name, v in figures
    ]
    ops += [
        {"op": "replace", "path": f"/boxes/tank/pose/{k}_deg", "value": a}
        for k, a in zip(("yaw", "pitch", "roll"), turn, strict=True)
    ]
    answer = client.post(f"{CAR}/preview", json={"patch": ops})
    assert answer.status_code in (200, 422), answer.text
    supports = answer.json()["analysis"]["supports"] if answer.status_code == 200 else []
    assert all(isinstance(row["utilisation"], float) for s in supports for m in s["mounts"] for row in m["rows"]), (
        "no use is infinite or nothing"
    )


def test_every_operation_fuzzed_from_the_apis_own_description(client: TestClient, car: str) -> None:
    """Requests made from the OpenAPI description, right and wrong ones: no answer is a server error."""
    api = schemathesis.openapi.from_dict(client.get("/api/openapi.json").json())
    seen, asked = set[str](), set[str]()

    def one(operation: Any) -> None:
        @settings(
            max_examples=5,
            deadline=None,
            phases=[Phase.generate],
            suppress_health_check=list(HealthCheck),
            derandomize=True,
        )
        @given(case=operation.as_strategy())
        def run(case: Any) -> None:
            if "{project}" in operation.path:
                case.path_parameters["project"] = car
            request = case.as_transport_kwargs(base_url="http://127.0.0.1")
            request.pop("cookies", None)
            if repr(request) in asked:  # many a question has no more to it than its address
                return
            asked.add(repr(request))
            answer = client.request(**request)
            assert answer.status_code < 500, (operation.label, answer.text[:300])

        run()
        seen.add(operation.label)

    for result in api.get_all_operations():
        one(result.ok())
    assert len(seen) >= 20


NONSENSE: tuple[Any, ...] = (None, [], {}, 7, "x", {"tapes": {}}, {"tapes": {"a": {"hooked": "../x", "length_mm": -1}},
"guess_mm": [0, 0]},
                             {"at_mm": ["a", 0, 0], "direction": [0, 0, 1]}, {"at_mm": [1e308, 0, 0],
                             "direction": [1e308, 0, 0]},
                             {"bay": "tank", "station": "nowhere", "do": "copy"}, {"bay": "nowhere", "station": "a",
                             "do": "explode"},
                             {"address": 7}, {"address": "x" * 5000}, {"address": "127.0.0.1:4701; rm"})  # fmt: skip


@pytest.mark.parametrize("address", ["swing", "behind", "restate", "freed/nothing"])
@pytest.mark.parametrize("body", NONSENSE, ids=str)
def test_survey_routes_refuse_nonsense(client: TestClient, car: str, address: str, body: Any) -> None:
    answer = client.post(f"/api/projects/{car}/{address}", json=body)
    assert answer.status_code in (404, 422), answer.text
    assert answer.headers["content-type"] == "application/problem+json"


@pytest.mark.parametrize("body", NONSENSE, ids=str)
def test_instruments_refuse_nonsense(client: TestClient, body: Any) -> None:
    assert client.post("/api/instruments", json=body).status_code == 422


@pytest.mark.parametrize("query", ["goal=everything", "goal=", "goal=loads&goal=nothing"])
def test_unknown_goals(client: TestClient, car: str, query: str) -> None:
    assert client.get(f"/api/projects/{car}/to-measure?{query}").status_code == 422


@pytest.mark.parametrize(
    "query",
    [
        "unit=parsec",
        "tolerance_mm=-1",
        "tolerance_mm=nan",
        "tolerance_mm=1e9",
        f"name={'x' * 500}",
        "name=a%00b",
        "name=",
    ],
)
def test_scans_with_wrong_wishes(client: TestClient, car: str, query: str) -> None:
    named = query if "name=" in query else f"name=x.stl&{query}"
    assert client.post(f"/api/projects/{car}/scans?{named}", content=b"solid x").status_code == 422


def test_files_over_their_size_are_refused(client: TestClient, car: str) -> None:
    assert client.post(f"/api/projects/{car}/pictures?name=x.png", content=b"0" * 8_000_001).status_code == 413
    assert client.post(f"/api/projects/{car}/shelf-preview", content=b"0" * 5_000_001).status_code == 413
    assert client.post("/api/outlines", content=b"0" * 20_000_001).status_code == 413


@pytest.mark.parametrize("key", ["0123", "..%2f..", "A" * 70, "%00"])
def test_readings_and_pictures_that_are_not_there(client: TestClient, key: str) -> None:
    assert client.get(f"/api/scans/{key}").status_code in (404, 422)
    assert client.get(f"/api/pictures/{key}").status_code in (404, 422)
