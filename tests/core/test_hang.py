"""How can it hang: what is proposed holds with everything else there, and what is said to be missing is what is
missing."""

from copy import deepcopy
from functools import cache
from typing import Any

import pytest

from levelcradle.core.design import validate
from levelcradle.core.design.mount import OnHardPoint
from levelcradle.core.edits import edited
from levelcradle.core.errors import UnknownThing
from levelcradle.core.finding import TIGHT_UTILISATION
from levelcradle.core.hang import Answer, how_it_hangs, size_one
from tests.conftest import DEMO
from tests.core.hung import of_box, tabs
from tests.plain import analysed


def hanging(tree: dict[str, Any], box: str = "tank") -> Answer:
    return how_it_hangs(validate(tree), box, meshes={})


@cache
def of_the_demo() -> Answer:
    return hanging(DEMO)


def without(*points: str) -> dict[str, Any]:
    """The demo without some hard points and what hangs on them."""
    tree = deepcopy(DEMO)
    for point in points:
        del tree["hardpoints"][point]
    tree["mounts"] = {k: m for k, m in tree["mounts"].items() if m["lands_on"]["hardpoint"] not in points}
    return tree


@pytest.mark.parametrize("box", ["bonnet", "tank"])
def test_whatever_is_proposed_holds_and_makes_nothing_foul(box: str) -> None:
    before = {f.id for f in analysed(DEMO).findings if f.state == "foul"}
    ways = (of_the_demo() if box == "tank" else hanging(DEMO, box)).ways
    assert {len(way.on) for way in ways} == {3, 4}
    for way in ways:
        design = edited(validate(DEMO), way.patch)
        analysis = analysed(design.model_dump(mode="json", by_alias=True))
        assert {f.id for f in analysis.findings if f.state == "foul"} <= before
        (support,) = (s for s in analysis.supports if s.box == box)
        carriers = [m for m in design.mounts.values() if m.box == box]
        assert {
            design.hardpoints[m.lands_on.hardpoint].name for m in carriers if isinstance(m.lands_on, OnHardPoint)
        } == set(way.on)
        assert len(carriers) == len(way.on)
        assert max(row.utilisation for m in support.mounts for row in m.rows) == pytest.approx(way.utilisation)
        assert way.utilisation <= 1.0


@pytest.mark.parametrize("each_kg", [2.0, -4.0])
def test_nothing_is_used_beyond_clear_where_it_may_be_clear(each_kg: float, monkeypatch: pytest.MonkeyPatch) -> None:
    """Of the four under the tank box, however light they are taken for while they are sized; that of the wall is rough
    and never clear."""
    monkeypatch.setattr("levelcradle.core.hang.hang.EACH_KG", each_kg)
    way = next(way for way in hanging(DEMO).ways if len(way.on) == 4)
    analysis = analysed(edited(validate(DEMO), way.patch).model_dump(mode="json", by_alias=True))
    rows = [row for s in analysis.supports if s.box == "tank" for m in s.mounts for row in m.rows]
    assert all(row.utilisation <= TIGHT_UTILISATION for row in rows if row.check not in ("wall", "doubler patch"))


def test_a_heavier_box_asks_for_heavier_mounts() -> None:
    """Or for more of them, or none would do."""
    light = min(way.mass_kg for way in of_the_demo().ways)
    tree = deepcopy(DEMO)
    tree["module_kinds"]["flagstone"]["mass_kg"] = 40.0
    assert all(way.mass_kg > light for way in hanging(tree).ways)


def test_a_point_beyond_the_wall_says_by_how_much_it_misses_and_is_not_offered() -> None:
    tree = deepcopy(DEMO)
    wall_end = 2670.5 + 394
    for key in ("tail-lr", "tail-rr"):
        tree["hardpoints"][key]["at_mm"][0] = wall_end + 57.0
        tree["mounts"] = {k: m for k, m in tree["mounts"].items() if m["lands_on"]["hardpoint"] != key}
    answer = hanging(tree)
    missing = {row.path: row for row in answer.within if row.misses_mm > 0}
    assert {"hardpoints/tail-lr", "hardpoints/tail-rr"} == set(missing)
    assert answer.ways == ()
    row = missing["hardpoints/tail-lr"]
    axis, inward = (
        (0, -1) if row.face == "left" else (1, 1)
    )  # along the wall it would hang on, towards the middle of the box
    for more, misses in ((-1.0, 1.0), (1.0, 0.0)):
        moved = deepcopy(tree)
        moved["hardpoints"]["tail-lr"]["at_mm"][axis] += inward * (row.misses_mm + more)
        assert next(r for r in hanging(moved).within if r.path == row.path).misses_mm == pytest.approx(misses)


def test_a_point_that_carries_another_box_is_not_offered() -> None:
    tree = without("tail-lf")
    tree["boxes"]["bonnet"]["pose"]["at_mm"] = [2670.5, -350, 1352]
    tree["mounts"]["bonnet-lf"]["lands_on"]["hardpoint"] = "tail-rf"
    row = next(row for row in hanging(tree).within if row.path == "hardpoints/tail-rf")
    assert row.why == "carries the Bonnet box already"


def test_where_one_more_point_would_do_it_does() -> None:
    tree = without("tail-lf", "tail-lr")
    assert ["one more on any wall would not do" in m.message for m in hanging(tree).missing] == [
        True
    ]  # three would tire
    tree["module_kinds"]["flagstone"]["mass_kg"] = 18.0  # three carry that much without tiring
    answer = hanging(tree)
    assert answer.ways == ()
    row = next(m for m in answer.missing if m.message.startswith("A point left of it"))
    first, last, up = (f.value for f in row.figures)
    for aft in (first, (first + last) / 2, last):
        tree["hardpoints"]["new"] = {"name": "new", "at_mm": [aft, -350.0 - 60.0, up], "direction": [0, 0, -1]}
        assert len(hanging(tree).ways) > 0


@pytest.mark.parametrize("points", [[], [[2700, -400, 540]], [[2700, -400, 540], [2850, -400, 540], [3000, -400, 540]]])
def test_points_in_a_line_hold_nothing(points: list[list[float]]) -> None:
    tree = without("tail-lf", "tail-lr", "tail-rf", "tail-rr")
    for n, at in enumerate(points):
        tree["hardpoints"][f"p{n}"] = {"name": f"p{n}", "at_mm": at, "direction": [0, 0, -1]}
    answer = hanging(tree)
    assert answer.ways == ()
    assert answer.missing


def test_what_stands_in_the_way_is_said() -> None:
    tree = deepcopy(DEMO)
    for key, side in (("l", -1), ("r", 1)):
        low, high = sorted((side * 460.0, side * 424.0))
        tree["items"][f"wall-{key}"] = {"name": "beam", "state": "stays", "gap_class": "other", "order": 1,
                                        "solid": {"type": "block", "low_mm": [2600, low, 300], "high_mm": [3100, high,
                                        535]}}  # fmt: skip
    answer = hanging(tree)
    assert answer.ways == ()
    assert "Tank box to beam" in answer.missing[0].message


def test_what_nobody_measured_is_hung_on_nothing() -> None:
    tree = deepcopy(DEMO)
    tree["readings"]["/module_kinds/flagstone/mass_kg"] = {"text": "", "basis": "not taken"}
    answer = hanging(tree)
    assert answer.ways == ()
    assert "Flagstone 12s3p: mass" in answer.missing[0].message


def test_there_must_be_such_a_box() -> None:
    with pytest.raises(UnknownThing):
        hanging(DEMO, "nowhere")


@pytest.mark.parametrize(
    "thin",
    [{"thickness_mm": 4.0, "bend_radius_mm": 4.0}, {"width_mm": 60.0, "thickness_mm": 5.0, "bend_radius_mm": 5.0}],
)
def test_what_would_mend_a_weak_mount_holds_and_leaves_the_rest_alone(thin: dict[str, float]) -> None:
    tree = deepcopy(DEMO)
    tree["mounts"]["tank-lf"]["shape"] |= thin
    foul = {f.id for f in analysed(tree).findings if f.state == "foul"}
    assert "mount:tank-lf" in foul
    mends = size_one(validate(tree), "tank-lf", meshes={}).sizes
    assert mends
    for mend in mends:
        after = edited(validate(tree), mend.patch)
        analysis = analysed(after.model_dump(mode="json", by_alias=True))
        assert {f.id for f in analysis.findings if f.state == "foul"} < foul
        assert max(
            row.utilisation for s in analysis.supports for m in s.mounts if m.id == "tank-lf" for row in m.rows
        ) == pytest.approx(mend.utilisation)
        assert all(after.mounts[key] == validate(tree).mounts[key] for key in tree["mounts"] if key != "tank-lf")


def test_of_what_holds_there_the_lightest_comes_first_with_its_true_mass() -> None:
    sized = size_one(validate(deepcopy(DEMO)), "tank-lf", meshes={})
    clear = [row.mass_kg for row in sized.sizes]
    assert len(clear) == 3
    assert clear == sorted(clear)
    for row in sized.sizes:
        after = analysed(edited(validate(deepcopy(DEMO)), row.patch).model_dump(mode="json", by_alias=True))
        own = next(m for s in after.supports for m in s.mounts if m.id == "tank-lf")
        assert row.mass_kg == pytest.approx(sum(p.mass_kg for p in own.connection.pieces))
    now = next(m for s in analysed(deepcopy(DEMO)).supports for m in s.mounts if m.id == "tank-lf")
    assert sized.now_kg == pytest.approx(sum(p.mass_kg for p in now.connection.pieces))


def test_what_would_hold_but_stands_in_somethings_way_is_no_size() -> None:
    """A thing close beside the bracket: wide ones and doublers would stand in it."""
    tree = deepcopy(DEMO)
    tree["items"]["pump-x"] = {
        "name": "pump",
        "state": "stays",
        "gap_class": "same",
        "solid": {"type": "block", "low_mm": [2823, -390, 400], "high_mm": [2835, -356, 520]},
    }
    tree["mounts"]["tank-lf"]["shape"]["width_mm"] = 70.0
    tree["mounts"]["tank-lf"]["to_box"]["doubler"] = None
    foul = {f.id for f in analysed(tree).findings if f.state == "foul"}
    assert not {i for i in foul if "pump-x" in i}
    sized = size_one(validate(tree), "tank-lf", meshes={})
    for row in sized.sizes:
        after = edited(validate(tree), row.patch)
        now = {f.id for f in analysed(after.model_dump(mode="json", by_alias=True)).findings if f.state == "foul"}
        assert now <= foul
    assert sized.sizes or "stands in the way" in sized.why


@pytest.mark.parametrize(
    ("change", "words"),
    [
        (lambda t: t["module_kinds"]["flagstone"].update(mass_kg=90.0), "None of the list holds there"),
        (lambda t: t["hardpoints"]["tail-lf"].update(at_mm=[2770, -358, 540]), "can stand between"),
        (lambda t: t["mounts"]["tank-lf"].update(face="base", shape={"type": "rest"}, to_box={"type": "loose"}),
         "others are not"),
    ],
)  # fmt: skip
def test_where_nothing_holds_it_says_why(change: Any, words: str) -> None:
    tree = deepcopy(DEMO)
    change(tree)
    sized = size_one(validate(tree), "tank-lf", meshes={})
    assert (sized.sizes, words in sized.why) == ((), True)
    assert all(figure.value > 1 for figure in sized.figures)


def test_where_no_bracket_would_hold_none_is_offered() -> None:
    tree = deepcopy(DEMO)
    tree["mounts"] = {"tank-lf": tree["mounts"]["tank-lf"]}  # alone it holds nothing, however strong it is
    sized = size_one(validate(tree), "tank-lf", meshes={})
    assert sized.sizes == ()
    assert "needs more mounts" in sized.why
    with pytest.raises(UnknownThing):
        size_one(validate(tree), "nothing", meshes={})


def test_on_the_very_points_that_carry_it_now_and_no_others() -> None:
    """A strap stays, and so do the points; three of six are asked for three."""
    tree = deepcopy(DEMO)
    for n, (aft, right) in enumerate(((2730.0, -400.0), (2730.0, 400.0))):
        tree["hardpoints"][f"more-{n}"] = {**tree["hardpoints"]["tail-lf"], "name": f"more {n}", "mirror_of": None,
                                           "at_mm": [aft, right, 540.0]}  # fmt: skip
    answer = how_it_hangs(validate(tree), "tank", meshes={}, where_it_hangs=True)
    now = {"tail-lf", "tail-rf", "tail-lr", "tail-rr"}
    assert {row.path.removeprefix("hardpoints/") for row in answer.within} == now
    assert answer.ways
    for way in answer.ways:
        added = [op["value"] for op in way.patch if op["op"] == "add"]
        assert {row["lands_on"]["hardpoint"] for row in added} == now
    del tree["mounts"]["tank-lf"]
    three = how_it_hangs(validate(tree), "tank", meshes={}, where_it_hangs=True)
    assert len(three.within) == 3


def test_on_aluminium_it_hangs_by_bolted_steel_or_by_aluminium() -> None:
    """A stranger's box with room for nuts beside its modules; snug, its nuts would stand in them."""
    for lining, bolted in ((32.0, True), (4.0, False)):
        tree = {**tabs(of_box("al5083", 4.0, lining)), "mounts": {}}
        ways = how_it_hangs(validate(tree), "x", meshes={}).ways
        assert ways
        made = [op["value"] for op in ways[0].patch]
        assert {(row["to_box"]["type"], row["shape"]["material"]) for row in made} == {
            ("bolted", "s355") if bolted else ("welded", "al5083")
        }
