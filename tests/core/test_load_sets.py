"""By whose rules a crash is: one set at a time, with its source; the shop's own cases and those of the road stay."""

import copy
from typing import Any

import pytest

from levelcradle.core.design import tree_of, validate
from levelcradle.core.edits import active_set, edited, load_sets, with_load_set
from levelcradle.core.errors import DesignError, UnknownThing
from tests.conftest import DEMO
from tests.plain import analysed

# UN Regulation 100, annexes 8C and 9C, tables 1 to 3: along and across [g] (from memory)
SHOCKS = {"r100-m1-n1": (20.0, 8.0), "r100-m2-n2": (10.0, 5.0), "r100-m3-n3": (6.6, 5.0)}


def taken(name: str, tree: dict[str, Any] | None = None) -> dict[str, Any]:
    design = validate(tree or DEMO)
    return tree_of(edited(design, with_load_set(design, name)))


def thrown(tree: dict[str, Any]) -> dict[str, tuple[float, float, float]]:
    rows = tree["tables"]["load_cases"]
    return {key: (row["aft_g"], row["right_g"], row["up_g"]) for key, row in rows.items() if row["kind"] == "crash"}


@pytest.mark.parametrize(("name", "g"), SHOCKS.items())
def test_the_shocks_go_either_way_along_and_across_times_what_a_rigid_answer_wants(
    name: str, g: tuple[float, float]
) -> None:
    cases = thrown(taken(name))
    along, across = round(g[0] * 1.7, 9), round(g[1] * 1.7, 9)
    assert {(round(a, 9), round(r, 9), u) for a, r, u in cases.values()} == {
        (-along, 0.0, -1.0), (along, 0.0, -1.0), (0.0, -across, -1.0), (0.0, across, -1.0),
        (0.0, 0.0, -11.0), (0.0, 0.0, 11.0),
    }  # fmt: skip
    rows = taken(name)["tables"]["load_cases"]
    assert all("UN Regulation 100" in row["source"] for key, row in rows.items() if "shock" in row["name"])


def test_a_new_design_is_by_the_national_set_and_there_and_back_nothing_is_lost() -> None:
    assert active_set(validate(DEMO)) == "national"
    there = taken("r100-m2-n2")
    assert active_set(validate(there)) == "r100-m2-n2"
    back = taken("national", there)
    assert back["tables"]["load_cases"] == tree_of(validate(DEMO))["tables"]["load_cases"]
    road = {key: row for key, row in DEMO["tables"]["load_cases"].items() if row["kind"] == "road"}
    assert {key: row for key, row in there["tables"]["load_cases"].items() if row["kind"] == "road"} == road


def test_what_the_shop_added_stays_and_the_set_is_then_its_own() -> None:
    tree = copy.deepcopy(DEMO)
    tree["tables"]["load_cases"]["mine"] = {**tree["tables"]["load_cases"]["front"], "name": "mine", "own": True}
    assert active_set(validate(tree)) is None
    after = taken("r100-m1-n1", tree)
    assert after["tables"]["load_cases"]["mine"] == tree["tables"]["load_cases"]["mine"]
    assert thrown(after)["front"][0] == -34.0


def test_every_use_is_of_the_set_that_was_taken() -> None:
    """Of the lightest shocks every mount is used less; what is thrown forward is called so."""

    def uses(tree: dict[str, Any]) -> dict[str, float]:
        supports = analysed(tree).supports
        mounts = (m for s in supports for m in s.mounts)
        return {m.id: max(row.utilisation for row in m.rows if row.kind != "shaken") for m in mounts}

    national, shocks = uses(DEMO), uses(taken("r100-m3-n3"))
    assert all(shocks[key] < national[key] for key in national)
    heavy = uses(taken("r100-m1-n1"))
    assert max(heavy.values()) > max(national.values())
    assert any("shock (thrown" in f.message for f in analysed(taken("r100-m1-n1")).findings if f.code == "mount.use")


def test_there_is_no_set_of_another_name() -> None:
    with pytest.raises(UnknownThing):
        with_load_set(validate(DEMO), "none")
    assert set(load_sets()) == {"national", *SHOCKS, *(f"{name}-stiff" for name in SHOCKS)}


@pytest.mark.parametrize("factor", [1.0, 1.5])
def test_the_shops_factor_goes_on_every_case_and_not_on_what_shakes(factor: float) -> None:
    """Of mounts, of what holds modules, of what a strap must hold; a factor below 1 is refused."""
    plain, loaded = copy.deepcopy(DEMO), copy.deepcopy(DEMO)
    loaded["tables"]["load_factor"] = factor
    before, after = analysed(plain), analysed(loaded)
    rows = [
        {(m.id, r.check): (r.utilisation, r.kind) for s in found.supports for m in s.mounts for r in m.rows}
        for found in (before, after)
    ]
    crash = {key: use for key, (use, kind) in rows[0].items() if kind == "crash" and "bolt" not in key[1]}
    assert crash
    for key, use in crash.items():
        assert rows[1][key][0] == pytest.approx(factor * use, rel=1e-6)
    for key, (use, kind) in rows[0].items():
        if kind == "shaken":
            assert rows[1][key][0] == pytest.approx(use)
    held = [{f.id: f.value for f in found.findings if f.code == "inside.held" and f.unit == "use"}
            for found in (before, after)]  # fmt: skip
    assert held[0]
    assert all((held[1][key] or 0.0) >= factor * (use or 0.0) - 1e-6 for key, use in held[0].items())
    loaded["tables"]["load_factor"] = 0.9
    with pytest.raises(DesignError):
        validate(loaded)
