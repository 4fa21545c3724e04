"""How tight a sheet is bent, which way it was rolled, in what order its bends go; and what stock costs, where that is
said."""

import copy
import math
from typing import Any

import pytest

from levelcradle.core.assembly import resolve
from levelcradle.core.design import validate
from levelcradle.core.fabricate import parts_of
from levelcradle.drawings.sheets.lists import buying_list
from levelcradle.drawings.subject import subject_of
from tests.conftest import DEMO
from tests.plain import box_at, found, plain_car

AT = (1000.0, 0.0, 400.0)


def car(construction: dict[str, Any], radii: float | None = 1.5, grain: str = "no", **more: Any) -> dict[str, Any]:
    tree = plain_car(boxes={"x": box_at(AT, (2, 2, 1), construction=construction, **more)})
    tree["tables"] = copy.deepcopy(DEMO["tables"])
    tree["tables"]["materials"]["s235"].update(bend_radii=radii, grain=grain)
    return tree


def told(tree: dict[str, Any]) -> dict[str, str]:
    return {f.label: f.state for f in found(tree, "box.make") if f.label in ("bend radius", "lid bend radius")}


@pytest.mark.parametrize("kind", ["folded", "racked"])
def test_a_sheet_is_bent_no_tighter_than_it_takes(kind: str) -> None:
    thick = {"folded": "thickness_mm", "racked": "insert_mm"}[kind]
    shut = {"closures": {}} if kind == "racked" else {}

    def made(radius: float) -> dict[str, str]:
        return told(car({"type": kind, thick: 2.0, "bend_radius_mm": radius}, **shut))

    assert made(3.0) == {}
    assert made(2.9) == {"bend radius": "foul"}


def test_a_radius_larger_than_an_edge_is_foul_and_breaks_nothing() -> None:
    tree = car({"type": "folded", "thickness_mm": 8.0, "bend_radius_mm": 24.0})
    assert not found(tree, "failed")
    assert {"lid edge"} <= {f.label for f in found(tree, "box.make") if f.state == "foul"}


def test_a_thicker_lid_asks_for_more_and_walls_that_are_welded_on_for_nothing() -> None:
    two = {"type": "folded", "thickness_mm": 2.0, "bend_radius_mm": 3.0}
    thicker = {"lid": {"type": "cap", "thickness_mm": 2.5}}
    assert told(car(two, closures=thicker)) == {"lid bend radius": "foul"}
    welded = {**two, "bend_radius_mm": 1.0, "folder": {"longest_bend_mm": 1.0}}
    assert told(car(welded)) == {}


def test_where_nobody_has_said_how_tight_it_is_not_known() -> None:
    assert told(car({"type": "folded"}, None)) == {"bend radius": "unknown"}


def test_bends_that_run_one_way_lie_across_the_rolling_direction_and_both_ways_is_told() -> None:
    both = car({"type": "folded", "bend_radius_mm": 5.0}, grain="yes")
    one = car({"type": "folded", "bend_radius_mm": 5.0, "folder": {"deepest_mm": 50.0}}, grain="yes")

    def rolling(tree: dict[str, Any]) -> tuple[bool, dict[str, str]]:
        labels = {f.label for f in found(tree, "box.make")}
        parts = {part.id: part.rolled for part in parts_of(resolve(validate(tree), {})) if part.bends}
        return "rolling direction" in labels, parts

    assert rolling(both) == (True, {"x-tray": "", "x-lid": ""})
    told_, parts = rolling(one)
    assert not told_
    for part in parts_of(resolve(validate(one), {})):
        for bend in part.bends:
            along = abs(bend.start[0] - bend.end[0]) > abs(bend.start[1] - bend.end[1])
            assert parts["x-tray"] == ("up" if along else "across") or part.id != "x-tray"
    assert rolling(car({"type": "folded", "bend_radius_mm": 5.0, "folder": {"deepest_mm": 50.0}}))[1]["x-tray"] == ""


def test_of_a_side_what_lies_further_out_is_bent_first() -> None:
    slope = {"a": {"edge": ["base", "left"], "mm": [40.0, 40.0]}}
    tree = car({"type": "folded"}, 1.0, chamfers=slope)
    (tray,) = (part for part in parts_of(resolve(validate(tree), {})) if part.id == "x-tray")
    assert sorted(map(id, tray.bends_in_order)) == sorted(map(id, tray.bends))
    left = [b for b in tray.bends_in_order if b.start[1] == pytest.approx(b.end[1]) and b.start[1] < 0]
    assert len(left) == 2
    assert left[0].start[1] < left[1].start[1] < 0


def bought(tree: dict[str, Any]) -> Any:
    return buying_list(subject_of(resolve(validate(tree), {})))


def test_a_price_stands_beside_what_has_one_and_their_sum_below() -> None:
    tree = copy.deepcopy(DEMO)
    assert not any(column.title.startswith("price") for column in bought(tree).columns)
    for material in tree["tables"]["materials"].values():
        material["price_per_kg"] = 2.0
    tree["sheets"]["currency"] = "kr"
    table = bought(tree)
    assert table.columns[-1].title == "price kr"
    *rows, (words, *_, total) = table.rows
    assert words == "what has a price, together"
    priced = {row[0]: row[-1] for row in rows if row[-1] is not None}
    assert priced
    assert all(what.startswith("sheet ") for what in priced)
    assert sum(priced.values()) == pytest.approx(total)
    stock = {row[0]: row[1] for row in rows}
    for what, price in priced.items():
        thick = float(what.rsplit(", ", 1)[1].removesuffix(" mm"))
        assert price == pytest.approx(stock[what] * math.prod((2.5, 1.25, thick / 1000)) * 7850 * 2.0)
    for liner in tree["tables"]["liners"].values():
        liner["price_per_m2"] = 10.0
    assert bought(tree).rows[-1][-1] > total
