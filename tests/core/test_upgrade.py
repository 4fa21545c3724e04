"""A car of an earlier format opens as it was: every figure where it belongs now, every reading beside its figure."""

import contextlib
import json
from collections import Counter
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from levelcradle.core.analysis import analyse
from levelcradle.core.design import dump, load, tree_of
from levelcradle.core.design.pointer import find
from levelcradle.core.design.upgrade import FORMAT, upgraded
from levelcradle.core.errors import DesignError

FORMATS = Path(__file__).parents[1] / "formats"
OLD = (FORMATS / "format-1.cradle.json").read_text()


def figures(tree: Any) -> list[float]:
    """Every figure of a document, in order of size."""
    if isinstance(tree, dict):
        return sorted(f for key, part in tree.items() if key != "format" for f in figures(part))
    if isinstance(tree, list):
        return sorted(f for part in tree for f in figures(part))
    return [float(tree)] if isinstance(tree, int | float) and not isinstance(tree, bool) else []


def test_no_figure_is_lost_and_no_reading_leaves_its_figure() -> None:
    before, after = json.loads(OLD), tree_of(load(OLD))
    assert after["format"] == FORMAT
    assert not Counter(figures(before)) - Counter(figures(after))
    assert len(after["readings"]) == len(before["readings"])
    for path, reading in after["readings"].items():
        assert find(after, path) == float(reading["text"]), path


def test_what_was_said_of_the_lid_is_said_of_the_top() -> None:
    after = tree_of(load(OLD))
    tank = after["boxes"]["tank"]
    assert after["boxes"]["bonnet"]["pose"]["anchor"] == "aft-right-top"
    assert (tank["openings"]["hv"]["face"], tank["openings"]["drain"]["from"]) == ("top", ["front", "top"])
    assert after["items"]["fuse"]["place"]["face"] == after["items"]["fuse"]["keep_clear"]["a"]["face"] == "top"


def test_it_is_answered_as_it_was() -> None:
    """Format 1 said, of this very file: the tank box 10.5 off the axle, 5 agreed with the hanger, 587 weighed again."""
    found = {f.id: f for f in analyse(load(OLD), {}).findings}
    assert found["gap:boxes/tank:items/axle"].value == pytest.approx(10.5)
    assert found["gap:boxes/tank:items/silencer-hanger"].limit == 5.0
    assert found["level:weighed:finished:front axle"].value == 587.0
    assert {f for f in found if f.startswith("mount:")} >= {"mount:tank-lf", "mount:spot:tail-lf", "mount:bonnet-rr"}


@pytest.mark.parametrize("number", range(1, FORMAT))
def test_upgraded_once_it_stays(number: int) -> None:
    once = dump(load((FORMATS / f"format-{number}.cradle.json").read_text()))
    assert dump(load(once)) == once
    assert json.loads(once)["format"] == FORMAT


@pytest.mark.parametrize("number", range(2, FORMAT))
def test_of_formats_from_2_on_everything_stands_where_it_stood(number: int) -> None:
    text = (FORMATS / f"format-{number}.cradle.json").read_text()
    before, after = json.loads(text), tree_of(load(text))
    added = {"mirror_of", "keep_clear", "sheets", "cut_parts", "fitted", "rim_mm", "format"}
    added |= {"liners", "layers", "hold_down", "holders", "from_ends_mm", "from_sides_mm", "sunk_mm", "readings"}
    added |= {"settles_percent", "conducts", "burns", "limit_c", "chambers", "chamber", "hinge"}
    added |= {"weld_class", "bond_ohm", "longest_bend_mm", "deepest_mm", "shortest_mm", "service_panels", "fillers"}
    added |= {"key", "density_kg_m3", "series", "bend_radii", "grain", "bend_source", "lightening", "corners"}
    added |= {"sides", "tabs"}
    added |= {"approved", "backing", "sleeve"} if number < 9 else set()
    added |= {"welded_yield_mpa", "welded_ultimate_mpa", "weld_metal_mpa", "welded_source"}
    added |= {"thread", "road", "tested_n", "hole", "crossmembers"}
    added |= {
        "gussets",
        "packing_mm",
        "isolator",
        "rails_at_mm",
        "load_factor",
        "vehicle_stiffness_n_per_mm",
        "least_hz",
        "across_end",
        "across_start",
    }
    added |= {"window"} if number < 7 else set()

    def without(tree: Any) -> Any:
        """A figure that nobody gave says nothing."""
        if isinstance(tree, dict):
            kept = {key: part for key, part in tree.items() if part is not None}
            return {
                key: without(part) for key, part in kept.items() if key not in added or (key == "keep_clear" and part)
            }
        return [without(part) for part in tree] if isinstance(tree, list) else tree

    assert without(after) == without(before)


def test_liners_stand_face_by_face_and_what_holds_block_by_block() -> None:
    """Format 4 had one liner on all walls, one on the floor (none under the bonnet box), and a word for what holds."""
    text = (FORMATS / "format-4.cradle.json").read_text()
    before, after = json.loads(text), tree_of(load(text))
    assert before["boxes"]["bonnet"]["liners"] == {"wall_mm": 4.0, "floor_mm": 0.0}
    bonnet, tank = after["boxes"]["bonnet"], after["boxes"]["tank"]
    assert {face: [row["thickness_mm"] for row in rows.values()] for face, rows in tank["layers"].items()} == {
        "front": [4.0], "aft": [4.0], "left": [4.0], "right": [4.0], "base": [8.0],
    }  # fmt: skip
    assert set(bonnet["layers"]) == {"front", "aft", "left", "right"}
    assert after["readings"]["/boxes/tank/layers/left/liner/thickness_mm"]["text"] == "4"
    assert not any("bonnet/l" in path for path in after["readings"])
    assert [(h["type"], h["block"]) for h in tank["holders"].values()] == [("straps", "a")]
    assert [h["type"] for h in bonnet["holders"].values()] == ["rods"]
    states = {f.id: (f.state, f.message) for f in analyse(load(text), {}).findings}
    assert states["held:boxes/tank:holder:hold-a"] == ("unknown", "Tank box: nobody has said which straps")


NAMES = [
    "boxes",
    "mounts",
    "items",
    "vehicle",
    "readings",
    "lid",
    "bracket",
    "pose",
    "place",
    "openings",
    "from",
    "face",
]
ANYTHING = st.recursive(
    st.none() | st.booleans() | st.integers() | st.text(max_size=3),
    lambda part: st.lists(part, max_size=2) | st.dictionaries(st.sampled_from(NAMES), part, max_size=4), max_leaves=12,
)  # fmt: skip


@given(ANYTHING)
def test_a_tree_that_is_wrong_anywhere_is_refused_and_never_breaks_the_upgrade(part: Any) -> None:
    tree = {**json.loads(OLD), **(part if isinstance(part, dict) else {"boxes": part})}
    assert upgraded(tree)["format"] == FORMAT
    with contextlib.suppress(DesignError):
        load(json.dumps(tree))


def test_rows_that_came_with_it_say_what_format_7_asks_and_others_say_nothing() -> None:
    """A liner of the shop's own, and one that it renamed, are left for it to say."""
    tree = json.loads((FORMATS / "format-6.cradle.json").read_text())
    liners = tree["tables"]["liners"]
    liners["mine"] = {**liners["board-2"], "name": "mine"}
    liners["felt-3"]["name"] = "another felt"
    after = tree_of(load(json.dumps(tree)))["tables"]
    dense = {key: row["density_kg_m3"] for key, row in after["liners"].items()}
    assert (dense["board-2"], dense["mine"], dense["felt-3"]) == (1850.0, None, None)
    assert (after["materials"]["al5083"]["series"], after["materials"]["s235"]["series"]) == ("5xxx", None)


def test_metals_that_came_with_it_say_how_tight_they_are_bent_and_a_shops_own_is_asked() -> None:
    tree = json.loads((FORMATS / "format-7.cradle.json").read_text())
    tree["tables"]["materials"]["mine"] = {**tree["tables"]["materials"]["s235"], "name": "mine"}
    tree["boxes"]["bonnet"]["material"] = "mine"
    after = load(json.dumps(tree))
    rows = after.tables.materials
    assert (rows["s235"].bend_radii, rows["al5083"].grain, rows["mine"].bend_radii) == (1.0, "yes", None)
    found = [f for f in analyse(after, {}).findings if f.id == "make:boxes/bonnet:bend radius"]
    assert [f.state for f in found] == ["unknown"]


def test_aluminium_that_came_with_it_says_how_soft_it_is_beside_a_weld() -> None:
    tree = json.loads((FORMATS / "format-9.cradle.json").read_text())
    tree["tables"]["materials"]["mine"] = {**tree["tables"]["materials"]["al5754"], "name": "mine"}
    rows = load(json.dumps(tree)).tables.materials
    assert (rows["al5754"].welded_yield_mpa, rows["mine"].welded_yield_mpa, rows["s355"].weld_metal_mpa) == (
        80.0, None, None,
    )  # fmt: skip
    assert "from memory" in rows["al5754"].welded_source
