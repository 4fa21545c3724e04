"""The document: what it refuses, where it says so, and that a file reads back as it was written."""

import json
from typing import Any

import pytest

from levelcradle.core.design import Design, dump, load, new_design, validate
from levelcradle.core.design.files import DEEPEST
from levelcradle.core.design.pointer import find, join, split
from levelcradle.core.errors import DesignError, PatchError


def refusal(tree: Any) -> dict[str, str]:
    with pytest.raises(DesignError) as caught:
        validate(tree)
    return {p.path: p.message for p in caught.value.problems}


def put(tree: dict[str, Any], path: str, value: Any) -> dict[str, Any]:
    steps = split(path)
    find(tree, join(*steps[:-1]))[steps[-1]] = value
    return tree


def test_a_design_reads_back_as_it_was_written(demo: Design) -> None:
    assert load(dump(demo)) == demo
    assert dump(load(dump(demo))) == dump(demo)


def test_a_new_design_carries_its_own_tables_with_their_sources() -> None:
    design = new_design("Heron van", 2650.0)
    rows = [*design.tables.materials.values(), *design.tables.bolts.values(), *design.tables.gaps.values()]
    assert all(row.source for row in rows)
    assert all(case.source for case in design.tables.load_cases.values())


@pytest.mark.parametrize(
    ("path", "value", "where", "message"),
    [
        ("/items/charger/mass_kg", -1, "/items/charger/mass_kg", "must be at least 0"),
        ("/items/charger/colour", "red", "/items/charger/colour", "is not part of a design"),
        ("/vehicle/wheelbase_mm", "2480", "/vehicle/wheelbase_mm", "must be a number"),
        ("/vehicle/wheelbase_mm", 0, "/vehicle/wheelbase_mm", "must be more than 0"),
        ("/weighings/as-found/read/lf_kg", None, "/weighings/as-found/read/lf_kg", "must be a number"),
        ("/weighings/as-found/read/type", "guess", "/weighings/as-found/read", "input tag 'guess'"),
        ("/items/charger/solid/high_mm", [3150, 0, 0], "/items/charger/solid/high_mm", "must be aft of"),
        ("/items/charger/at_mm", [25_000, 0, 0], "/items/charger/at_mm/0", "must be at most 20000"),
        ("/bays/tank/stations/a/top_left_mm", 100, "/bays/tank/stations/a/top_left_mm", "must be above the floor;"),
        ("/bays/tank/stations/a/right_floor_mm", -400, "/bays/tank/stations/a/right_floor_mm", "must be right of"),
        (
            "/boxes/tank/blocks/a/turn",
            {"down": "base", "aft": "top"},
            "/boxes/tank/blocks/a/turn/aft",
            "cannot look aft",
        ),
        ("/boxes/tank/blocks/a/kind", "granite", "/boxes/tank/blocks/a/kind", "no module kind"),
        ("/boxes/tank/bay", "attic", "/boxes/tank/bay", "there is no bay"),
        ("/boxes/tank/material", "gold", "/boxes/tank/material", "there is no material"),
        (
            "/mounts/tank-lf/lands_on/hardpoint",
            "nowhere",
            "/mounts/tank-lf/lands_on/hardpoint",
            "there is no hard point",
        ),
        (
            "/mounts/tank-lf/lands_on/bolt/property_class",
            "12.9",
            "/mounts/tank-lf/lands_on/bolt/property_class",
            "is not used here",
        ),
        ("/hardpoints/tail-lf/direction", [0, 0, 2], "/hardpoints/tail-lf/direction", "must be a direction"),
        ("/load_states/driver/aboard/ghost", True, "/load_states/driver/aboard/ghost", "there is no thing"),
        ("/name", "bell\u0007", "/name", "cannot be printed"),
        ("/items/Bad Id", {"name": "x", "state": "in"}, "/items/Bad Id", "must be lower-case letters"),
        ("/format", 13, "/format", "reads formats 1 to 12"),
    ],
)
def test_nonsense_is_refused_with_its_path_and_a_sentence(
    tree: dict[str, Any], path: str, value: Any, where: str, message: str
) -> None:
    found = refusal(put(tree, path, value))
    assert where in found, found
    assert message in found[where]


def test_a_hole_needs_two_edges_that_meet(tree: dict[str, Any]) -> None:
    hole = {"name": "gland", "face": "aft", "from": ["left", "right"], "u_mm": 50, "v_mm": 50, "diameter_mm": 20}
    assert "/boxes/tank/openings/gland/from" in refusal(put(tree, "/boxes/tank/openings/gland", hole))


def test_a_rod_needs_a_length_and_an_outline_must_not_cross_itself(tree: dict[str, Any]) -> None:
    put(tree, "/items/charger/solid", {"type": "rod", "start_mm": [0, 0, 0], "end_mm": [0, 0, 0], "radius_mm": 5})
    bow = {"type": "prism", "outline_mm": [[0, 0], [100, 100], [100, 0], [0, 100]], "low_up_mm": 0, "high_up_mm": 10}
    put(tree, "/items/inverter/solid", bow)
    assert set(refusal(tree)) == {"/items/charger/solid/end_mm", "/items/inverter/solid/outline_mm"}


def test_a_bay_needs_two_stations(tree: dict[str, Any]) -> None:
    del tree["bays"]["tank"]["stations"]["b"]
    assert "/bays/tank/stations" in refusal(tree)


@pytest.mark.parametrize(("collection", "most"), [("boxes", 100), ("items", 2000), ("modules", 2000)])
def test_there_is_a_most_of_everything(tree: dict[str, Any], collection: str, most: int) -> None:
    one = next(iter(tree[collection].values()))
    tree[collection] = {f"n{i}": one for i in range(most + 1)}
    assert f"/{collection}" in refusal(tree)


def test_more_than_two_thousand_placed_modules_are_refused(tree: dict[str, Any]) -> None:
    tree["boxes"]["tank"]["blocks"]["a"]["counts"] = {"aft": 40, "across": 10, "up": 6}
    assert "/boxes" in refusal(tree)


@pytest.mark.parametrize(
    ("text", "message"),
    [
        ('{"format": 1, "name": ', "breaks off"),
        ("", "breaks off"),
        ("[]", "a JSON object"),
        ("null", "a JSON object"),
        ('{"format": NaN}', "NaN is no number"),
        ('{"format": Infinity}', "Infinity is no number"),
        ("[" * (DEEPEST + 1), "nested deeper"),
        ('{"format": 1, "name": "\\ud800"}', "vehicle: is missing"),
        ('{"format": ' + "9" * 5000 + "}", "cannot be read"),
    ],
)
def test_files_that_are_no_design_are_refused_in_words(text: str, message: str) -> None:
    with pytest.raises(DesignError, match=message):
        load(text)


def test_brackets_inside_texts_are_no_nesting(demo: Design) -> None:
    odd = demo.model_copy(update={"name": "[" * 100 + '\\"'})
    assert load(dump(odd)).name == odd.name


def test_a_file_over_ten_megabytes_is_refused_before_it_is_read() -> None:
    with pytest.raises(DesignError, match="larger than 10 MB"):
        load(b" " * 10_000_001)


def test_bytes_that_are_no_text_are_refused() -> None:
    with pytest.raises(DesignError, match="not UTF-8"):
        load(b"\xff\xfe\x00")


def test_pointers_escape_slashes_and_tildes() -> None:
    assert split(join("a/b", "c~d")) == ["a/b", "c~d"]
    with pytest.raises(PatchError):
        split("no-slash")


def test_minus_zero_and_key_order_survive(tree: dict[str, Any]) -> None:
    tree["items"]["charger"]["at_mm"][1] = -0.0
    text = dump(validate(tree))
    assert '"at_mm": [3265.0, -0.0, 398.0]' in text
    assert list(json.loads(text)["items"]) == list(tree["items"])
