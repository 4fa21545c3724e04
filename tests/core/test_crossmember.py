"""A bar of the shop's between two hard points carries what boxes throw on it, and says what its ends must hold."""

import copy
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from levelcradle.core.analysis import analyse
from levelcradle.core.assembly import resolve
from levelcradle.core.design import tree_of, validate
from levelcradle.core.edits import crossed as laid
from levelcradle.core.edits import edited, hung, uncrossed
from levelcradle.core.errors import DesignError, OutOfRange, UnknownThing
from levelcradle.core.fabricate import bars_of, bought_for_crossmembers
from levelcradle.core.finding import Finding, message_text
from levelcradle.core.hang import size_one
from levelcradle.core.level import level_result
from levelcradle.core.mount import CrossmemberResult, crossmember_result
from levelcradle.core.mount.beam import end_forces
from levelcradle.core.mount.crossmembers import sag_mm
from tests.core.crossed import RAILS_MM, crossed
from tests.core.hung import AT, of_box
from tests.plain import analysed, as_found

STRONG = {"size_mm": 60, "wall_mm": 5}


def results(tree: dict[str, Any]) -> dict[str, CrossmemberResult]:
    return {row.bar.id: row for row in crossmember_result(resolve(validate(tree), {}))}


def uses(tree: dict[str, Any]) -> dict[str, float]:
    """Of the first bar, by check."""
    return {row.check: row.utilisation for row in results(tree)["bar0"].checks}


def told(tree: dict[str, Any], key: str = "bar0") -> list[Finding]:
    return [f for f in analysed(tree).findings if f.id.startswith(f"crossmember:{key}:")]


numbers = st.floats(-1e4, 1e4)
places = st.tuples(st.floats(0, 900), st.floats(-60, 60), st.floats(-60, 60))
loads = st.lists(st.tuples(st.tuples(numbers, numbers, numbers), places), min_size=1, max_size=5)


@given(loads)
def test_the_ends_balance_every_load_and_every_moment_across_the_bar(rows: list[Any]) -> None:
    forces, at, span = np.array([row[0] for row in rows]), np.array([row[1] for row in rows]), 900.0
    near, far = end_forces(forces, at, span)
    assert near + far == pytest.approx(forces.sum(axis=0), abs=1e-6)
    balance = np.cross(at, forces).sum(axis=0) - np.cross((span, 0.0, 0.0), far)
    assert balance[1:] == pytest.approx([0.0, 0.0], abs=1e-3)


def test_a_stronger_bar_is_used_less_and_a_longer_one_sags_more() -> None:
    thin, thick = uses(crossed()), uses(crossed({"wall_mm": 5}))
    assert all(thick[check] < thin[check] for check in ("bar, bent", "bar, sheared and twisted", "end hole"))
    assert results(crossed())["bar0"].sag_mm > results(crossed(STRONG))["bar0"].sag_mm  # type: ignore[operator]


def test_twice_the_mass_bends_it_twice() -> None:
    one, two = crossed(STRONG), crossed(STRONG)
    for tree, kg in ((one, 4.0), (two, 8.0)):
        tree["module_kinds"]["brick"] = {**tree["module_kinds"]["brick"], "mass_kg": kg}
    light, heavy = (resolve(validate(tree), {}).boxes["x"].hung_kg for tree in (one, two))
    # where its CG is moves a little: the shell and the brackets stay as heavy
    assert uses(two)["bar, bent"] / uses(one)["bar, bent"] == pytest.approx(heavy / light, rel=0.02)


def test_both_sides_of_a_box_in_the_middle_are_alike_and_the_hard_points_are_told() -> None:
    tree = crossed(STRONG)
    rows = results(tree)["bar0"]
    ends = [max(d.pull_n for d in demands) for demands in rows.demands]
    assert min(ends) > 0
    spots = {f.subjects[0] for f in analysed(tree).findings if f.code == "mount.spot"}
    assert spots == {f"hardpoints/{side}{n}" for side in ("left", "right") for n in (0, 1)}


def test_two_boxes_on_one_bar_count_together() -> None:
    alone = crossed(STRONG)
    both = copy.deepcopy(alone)
    other = {**of_box(), "name": "Y"}
    other["pose"] = {"anchor": "front-left-base", "at_mm": [AT[0], AT[1], AT[2] - 400.0]}
    both["boxes"]["y"] = other
    for key, mount in alone["mounts"].items():
        under = {**mount, "carries": {"boxes/y": True}, "name": f"y {key}"}
        under["lands_on"] = {**mount["lands_on"], "top": False}
        both["mounts"][f"y-{key}"] = under
    one, two = results(alone)["bar0"], results(both)["bar0"]
    assert len(two.boxes) == 2
    assert {row.check: row.utilisation for row in two.checks}["bar, bent"] > 1.5 * max(
        row.utilisation for row in one.checks if row.check == "bar, bent"
    )


@pytest.mark.parametrize(
    ("bar", "words"),
    [
        ({"sleeve": False}, "sleeves that keep its walls apart"),
        ({"beyond_mm": 10}, "hard point to its end 10.0"),
        ({"bolt": {"size": "M8", "property_class": "8.8"}}, "bolt M8 in a hard point M10"),
        ({"section": "flat", "size_mm": 20, "wall_mm": 8}, "bolt to its edge 10.0"),
    ],
)
def test_an_end_that_cannot_hold_is_foul(bar: dict[str, Any], words: str) -> None:
    rows = [message_text(f) for f in told(crossed(bar)) if f.state == "foul"]
    assert any(words in row for row in rows), rows


def test_one_is_never_better_than_tight_and_not_known_on_what_nobody_measured_or_approved() -> None:
    strong = crossed({"size_mm": 80, "wall_mm": 6, "bolt": {"size": "M10", "property_class": "10.9"}})
    assert [f.state for f in told(strong) if f.unit == "use"] == ["tight"]
    for changes in ({"kind": "seat or belt point"},):
        tree = copy.deepcopy(strong)
        tree["hardpoints"]["left0"] |= changes
        assert [f.state for f in told(tree) if f.unit == "use"] == ["unknown"]
        assert [f.state for f in told(tree, "bar1") if f.unit == "use"] == ["tight"]
    guessed = {**strong, "readings": {"/hardpoints/left0/at_mm/2": {"text": "394", "basis": "assumed"}}}
    assert [f.state for f in told(guessed) if f.unit == "use"] == ["unknown"]


def test_what_does_not_lie_flat_or_lands_beyond_its_ends_has_no_use() -> None:
    tilted = crossed(STRONG)
    tilted["hardpoints"]["left0"]["direction"] = [0, 1, 0]
    assert [f.state for f in told(tilted)] == ["foul"]
    beyond = crossed(STRONG)
    beyond["mounts"]["left0"]["lands_on"]["along_mm"] = -40.0
    assert [(f.state, "beyond its hard points" in f.message) for f in told(beyond)] == [("unknown", True)]
    bare = {**crossed(STRONG), "mounts": {}}
    assert [f.state for f in told(bare)] == ["note"]


def test_a_box_that_nothing_holds_gives_its_bar_no_clear_figure() -> None:
    tree = crossed(STRONG)
    tree["mounts"] = {key: row for key, row in tree["mounts"].items() if key.endswith("0")}
    assert [(f.state, "does not hold it" in f.message) for f in told(tree)] == [("unknown", True)]


def test_sag_beyond_a_five_hundredth_is_foul() -> None:
    rows = {f.label: f.state for f in told(crossed({"section": "flat", "size_mm": 60, "wall_mm": 10}))}
    assert rows["sag"] == "foul"
    assert {f.label: f.state for f in told(crossed(STRONG))}["sag"] == "clear"


def test_a_hole_weakens_a_bar_and_a_pad_does_not() -> None:
    bolted = crossed(STRONG)
    pads = copy.deepcopy(bolted)
    for key in ("left0", "right0"):
        pads["mounts"][f"pad-{key}"] = {
            "name": key, "carries": {"boxes/x": True}, "face": "base", "shape": {"type": "rest", "pad_mm": 6.0},
            "to_box": {"type": "loose"},
            "lands_on": {"type": "crossmember", "crossmember": "bar0",
                         "along_mm": RAILS_MM + (-60.0 if key == "left0" else 60.0)},
        }  # fmt: skip
        # nothing is bolted to this bar any more: brackets stand on the other, and on a third
        pads["mounts"][key]["lands_on"]["crossmember"] = "bar2"
    for side, sign in (("left", -1), ("right", 1)):
        pads["hardpoints"][f"{side}2"] = {**pads["hardpoints"][f"{side}0"], "at_mm": [AT[0] + 190.0, sign * RAILS_MM,
                                          pads["hardpoints"][f"{side}0"]["at_mm"][2]]}  # fmt: skip
    pads["crossmembers"]["bar2"] = {**pads["crossmembers"]["bar0"], "hardpoints": ["left2", "right2"]}
    found = results(pads)
    assert {row.check for row in found["bar0"].checks} == {row.check for row in found["bar2"].checks}
    left = {
        key: next(s.value for row in found[key].checks for s in row.working if s.what == "left beside its holes")
        for key in ("bar0", "bar2")
    }
    assert left["bar0"] == 1.0
    assert left["bar2"] < 1.0


def test_a_crossmember_is_weighed_sawn_drilled_and_bought_for() -> None:
    tree = {**crossed(STRONG), "weighings": as_found({"type": "axles", "front_kg": 500, "rear_kg": 450, "step_kg": 1})}
    assembly = resolve(validate(tree), {})
    bar = assembly.crossmembers["bar0"]
    masses = {row.path: row.mass_kg for row in level_result(assembly).masses}
    assert masses["crossmembers/bar0"] == pytest.approx(bar.mass_kg)
    (sawn,) = [row for row in bars_of(assembly) if row.mark.startswith("CM")]
    assert sawn.quantity == 2
    assert sawn.length_mm == 2 * RAILS_MM + 2 * bar.spec.beyond_mm
    holes = [float(word.strip(" ,")) for word in sawn.ends[0].split(" at ")[1].split(" from ")[0].split(", ")]
    own = [tree["mounts"][key]["lands_on"]["along_mm"] + 25.0 for key in ("left0", "right0")]
    assert holes == pytest.approx(sorted([25.0, 25.0 + 2 * RAILS_MM, *own]), abs=0.051)
    bought = [what for what, _ in bought_for_crossmembers(assembly)]
    assert sum("sleeve" in what for what in bought) == 8
    assert sum("bolt" in what for what in bought) == 4


def test_a_box_keeps_its_gap_to_a_bar_and_a_bracket_that_lands_on_it_does_not() -> None:
    gaps = {f.subjects[1]: f.value for f in analysed(crossed()).findings if f.code == "gap"}
    assert gaps["crossmembers/bar0"] == pytest.approx(6.0)


def test_one_is_laid_with_bolts_of_its_points_and_taken_away_with_what_is_on_it() -> None:
    design = validate(crossed())
    key, ops = laid(design, "left0", "right1")
    after = edited(design, ops)
    assert after.crossmembers[key].bolt.size == "M10"
    assert len(analyse(after, {}).findings) > 0
    gone = edited(design, uncrossed(design, "bar0"))
    assert set(gone.crossmembers) == {"bar1"}
    assert set(gone.mounts) == {"left1", "right1"}
    for one, other, error in (("left0", "left0", OutOfRange), ("left0", "nowhere", UnknownThing)):
        with pytest.raises(error):
            laid(design, one, other)
    with pytest.raises(UnknownThing):
        uncrossed(design, "nowhere")


@pytest.mark.parametrize(("kind", "face"), [("angle", "left"), ("rest", "base")])
def test_a_mount_begins_on_a_bar_where_it_can_stand(kind: str, face: str) -> None:
    design = validate({**crossed(STRONG), "mounts": {}})
    key, ops = hung(design, "x", kind, "crossmembers/bar0", face)
    mount = resolve(edited(design, ops), {}).boxes["x"].mounts[0]
    assert mount.id == key
    assert not mount.unfit
    assert 0 <= mount.mount.lands_on.along_mm <= 2 * RAILS_MM  # type: ignore[union-attr]
    if kind == "angle":
        assert mount.reach_mm == pytest.approx(50.0, abs=0.1)


def test_a_mount_on_a_bar_is_sized_where_it_lands() -> None:
    design = validate(crossed({"size_mm": 80, "wall_mm": 6}))
    found = size_one(design, "left0", meshes={})
    assert found.sizes, found.why
    for size in found.sizes:
        after = edited(design, size.patch)
        assert after.mounts["left0"].lands_on.path == "crossmembers/bar0"
        assert after.mounts["left0"].lands_on.along_mm == design.mounts["left0"].lands_on.along_mm  # type: ignore[union-attr]


@pytest.mark.parametrize(
    ("changes", "path"),
    [
        ({"hardpoints": ["left0", "left0"]}, "/crossmembers/bar0"),
        ({"hardpoints": ["left0", "gone"]}, "/crossmembers/bar0/hardpoints/1"),
        ({"wall_mm": 12}, "/crossmembers/bar0"),
        ({"material": "cheese"}, "/crossmembers/bar0/material"),
    ],
)
def test_nonsense_is_refused_at_its_field(changes: dict[str, Any], path: str) -> None:
    tree = tree_of(validate(crossed()))
    tree["crossmembers"]["bar0"] |= changes
    with pytest.raises(DesignError) as refused:
        validate(tree)
    assert refused.value.problems[0].path.startswith(path)


def test_sag_is_least_where_the_load_stands_at_an_end() -> None:
    middle, aside, end = (sag_mm(np.array([-1000.0]), np.array([at]), 800.0, 2e10) for at in (400.0, 200.0, 1.0))
    assert middle > aside > end


@pytest.mark.parametrize(("apart_mm", "foul"), [(0.0, True), (20.0, True), (32.9, True), (33.1, False)])
def test_two_holes_of_a_bar_leave_metal_between_them(apart_mm: float, foul: bool) -> None:
    """Three times the wider hole (common practice, no source): 33 of an M10."""
    tree = crossed(STRONG)
    near, far = (tree["mounts"][key]["lands_on"] for key in ("left0", "right0"))
    far["along_mm"] = near["along_mm"] + apart_mm
    assert any(f.label == "holes" and f.state == "foul" for f in told(tree)) == foul
    assert not any(f.label == "holes" for f in told(tree, "bar1"))


def test_of_two_holes_the_wider_asks() -> None:
    """40.5 of an M12 beside an M10."""
    tree = crossed(STRONG)
    near, far = (tree["mounts"][key]["lands_on"] for key in ("left0", "right0"))
    far["along_mm"] = near["along_mm"] + 38.0
    assert not any(f.label == "holes" for f in told(tree))
    far["bolt"] = {"size": "M12", "property_class": "8.8"}
    assert any(f.label == "holes" and f.state == "foul" for f in told(tree))


def test_what_twists_a_bar_pulls_at_its_end_bolts() -> None:
    """A crash throws the box, over the bar's middle, along the car: each end is lifted, and turned besides."""
    bolt = next(row for row in results(crossed())["bar0"].checks if row.check == "end bolt")
    steps = {step.what: step.value for step in bolt.working}
    assert steps["pull T"] > 1.1 * steps["lifted with"]
