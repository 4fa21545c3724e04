"""One mount of a box lets go: the others carry what a box on them alone would, or it is told how it moves."""

import copy
from typing import Any

import pytest

from levelcradle.core.assembly import resolve
from levelcradle.core.design import validate
from levelcradle.core.mount import LetGo, let_go, support_result
from tests.conftest import DEMO
from tests.stranger import stranger_tree


def gone(tree: dict[str, Any]) -> dict[str, LetGo]:
    return {row.mount: row for row in let_go(resolve(validate(tree), {}))}


def worst(tree: dict[str, Any], box: str) -> tuple[float, str]:
    (support,) = (s for s in support_result(resolve(validate(tree), {})) if s.box == box)
    rows = (row for mount in support.mounts for row in mount.rows if row.kind != "shaken")
    return max((row.utilisation, row.check) for row in rows)


@pytest.mark.parametrize("key", sorted(DEMO["mounts"]))
def test_the_others_carry_what_a_box_on_them_alone_would(key: str) -> None:
    """Its bracket hangs on: a box from which it is taken off as well is lighter by that and no more."""
    row = gone(DEMO)[key]
    tree = copy.deepcopy(DEMO)
    box = next(iter(tree["mounts"].pop(key)["carries"])).removeprefix("boxes/")
    tree["readings"] = {path: r for path, r in tree["readings"].items() if f"/mounts/{key}/" not in path}
    use, check = worst(tree, box)
    assert row.box == box
    assert row.other != tree["mounts"].get(key, {}).get("name")
    assert row.check == check
    assert row.utilisation is not None
    assert use < row.utilisation < 1.05 * use
    assert row.utilisation > worst(DEMO, box)[0], "of four one more is a help"


def test_of_two_left_it_turns_and_of_one_it_falls() -> None:
    tree = copy.deepcopy(DEMO)
    for key in ("tank-rr", "tank-lr"):
        del tree["mounts"][key]
    tree["readings"] = {}
    rows = gone(tree)
    assert {key: row.utilisation for key, row in rows.items() if key.startswith("tank")} == {
        "tank-lf": None, "tank-rf": None,
    }  # fmt: skip
    assert rows["tank-lf"].words == "free to turn about the bolt, three ways"
    assert [row.state for row in let_go(resolve(validate(tree), {}))][:2] == ["foul", "foul"], "worst first"
    del tree["mounts"]["tank-rf"]
    assert gone(tree)["tank-lf"].words == "held by nothing"


def test_of_a_strangers_car_too_and_of_one_without_mounts_nothing() -> None:
    tree = stranger_tree()
    assert gone({**tree, "mounts": {}, "readings": {}}) == {}
    for row in gone(tree).values():
        assert (row.utilisation is None) == bool(row.words) or row.state == "unknown"
