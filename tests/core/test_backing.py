"""What a bolt lands on: a plate behind the sheet, a closed section, a point that holds a seat or a belt."""

import copy
import math
from typing import Any

import numpy as np
import pytest

from levelcradle.core.assembly import resolve
from levelcradle.core.connection import Governing
from levelcradle.core.connection.backing import backing_utilisation, smallest_outline_mm
from levelcradle.core.design import standard_tables, validate
from levelcradle.core.design.mount import Backing
from levelcradle.core.edits import hung
from levelcradle.core.errors import DesignError
from levelcradle.core.fabricate import parts_of
from levelcradle.core.fold import fold
from levelcradle.core.hang import how_it_hangs, size_one
from levelcradle.core.mount import MountResult
from tests.conftest import DEMO
from tests.plain import analysed

PLATE = {"thickness_mm": 6.0, "size_mm": [60, 40]}


def car(point: dict[str, Any] | None = None, **lands_on: Any) -> dict[str, Any]:
    """The demo, its tank box on a point that is otherwise at the left front."""
    tree = copy.deepcopy(DEMO)
    tree["hardpoints"]["tail-lf"] |= point or {}
    tree["mounts"]["tank-lf"]["lands_on"] |= lands_on
    return tree


def mount(tree: dict[str, Any], key: str = "tank-lf") -> MountResult:
    return next(m for s in analysed(tree).supports for m in s.mounts if m.id == key)


def broken(tree: dict[str, Any]) -> list[str]:
    return [words for words, fits in mount(tree).geometry if not fits]


def state(tree: dict[str, Any]) -> str:
    return next(f.state for f in analysed(tree).findings if f.id == "mount:tank-lf")


def test_a_point_that_holds_people_is_never_counted_without_its_own_approval() -> None:
    seat = {"kind": "seat or belt point"}
    assert state(car()) == "tight"
    assert state(car(seat)) == state(car({**seat, "approved": "  "})) == "unknown"
    assert state(car({**seat, "approved": "J. Doe, inspector"})) == "tight"
    assert any(f.code == "drawings.release" and f.state != "clear" for f in analysed(car(seat)).findings)
    within = {row.path: row.why for row in how_it_hangs(validate(car(seat)), "tank", meshes={}).within}
    assert "its own approval" in within["hardpoints/tail-lf"]
    assert within["hardpoints/tail-rf"] == ""


MEMBER = {"name": "rail", "start_mm": [2100, -400, 575], "end_mm": [3400, -400, 575], "width_mm": 50, "height_mm": 70}


@pytest.mark.parametrize(("section", "kind", "asks"), [("closed", "hole", True), ("tube", "hole", True),
                                                      ("open channel", "hole", False),
                                                      ("closed", "captive nut", False)])  # fmt: skip
def test_a_bolt_that_clamps_a_closed_section_is_in_a_sleeve(section: str, kind: str, *, asks: bool) -> None:
    tree = car({"member": "rail", "kind": kind})
    tree["members"]["rail"] = {**MEMBER, "section": section}
    assert (broken(tree) == ["bolt through a closed section, in a sleeve that keeps its walls apart"]) is asks
    assert (state(tree) == "foul") is asks
    for mended in ({"sleeve": True}, {"backing": PLATE}):
        other = copy.deepcopy(tree)
        other["mounts"]["tank-lf"]["lands_on"] |= mended
        assert broken(other) == []


def test_a_backing_plate_is_asked_in_every_case_and_drawn() -> None:
    rows = {r.check: r for r in mount(car(backing=PLATE)).rows}
    assert rows["backing plate"].kind in ("road", "crash")
    assert "backing plate" not in {r.check for r in mount(car()).rows}
    steps = {step.what: step.value for step in mount(car(backing=PLATE)).connection.working(
        Governing("backing plate", rows["backing plate"].utilisation, "down", "equal springs",
                  (rows["backing plate"].n, rows["backing plate"].d, rows["backing plate"].w)))}  # fmt: skip
    used = steps["moment at the washer's edge"] / steps["bears"]
    assert used == pytest.approx(rows["backing plate"].utilisation)
    assert steps["pressed on evenly q"] == pytest.approx(steps["bolt's pull T"] / 2400)
    thin = mount(car(backing={**PLATE, "thickness_mm": 1.5}))
    assert thin.rows[0].check == "backing plate"
    assert thin.rows[0].utilisation > 1
    assert state(car(backing={**PLATE, "thickness_mm": 1.5})) == "foul"
    parts = [p for p in parts_of(resolve(validate(car(backing=PLATE)), {})) if "backing" in p.name]
    assert [(p.quantity, p.thickness_mm, len(p.holes), len(p.bends)) for p in parts] == [(1, 6.0, 1, 1)]
    low, high = (f(x) for f in (min, max) for x in [[y for _, y in parts[0].outline]])
    assert high - low == pytest.approx(40.0)
    assert fold(parts[0]).solids


@pytest.mark.parametrize(("entry", "fits"), [(41.4, False), (41.5, True), (None, True)])
def test_it_passes_the_hole_it_enters_by(entry: float | None, *, fits: bool) -> None:
    """40 wide and 6 thick: 40.45 across its corners, and 1 to spare."""
    assert (broken(car(backing={**PLATE, "entry_mm": entry})) == []) is fits
    assert smallest_outline_mm(Backing(size_mm=(60.0, 40.0), thickness_mm=6.0)) == pytest.approx(math.hypot(40, 6))


def test_it_neither_falls_in_nor_turns_and_keeps_metal_beside_the_bolt() -> None:
    assert ["stop" in words for words in broken(car(backing={**PLATE, "stop": False}))] == [True]
    narrow = broken(car(backing={**PLATE, "size_mm": [60, 26.3]}))  # M10: 1.2 × 11 to either side
    assert ["edge of its backing plate" in words for words in narrow] == [True]
    assert broken(car(backing={**PLATE, "size_mm": [60, 26.4]})) == []


def test_twice_the_thickness_bears_four_times_and_a_longer_plate_less() -> None:
    tables = standard_tables()
    bolt, pull = tables.bolts["M10"], np.array(8000.0)

    def used(thick: float, long: float, *, road: bool = False) -> float:
        plate = Backing(material="s235", thickness_mm=thick, size_mm=(long, 40.0))
        return float(backing_utilisation(plate, bolt, pull, tables, road=road))

    assert used(4.0, 60.0) == pytest.approx(4 * used(8.0, 60.0))
    assert used(4.0, 60.0, road=True) > used(4.0, 60.0)
    assert used(4.0, 90.0) > used(4.0, 60.0) > used(4.0, 30.0)
    # by hand: 8000 / (60 × 40) = 3.333; (60 − 20)² / 8 = 200; 666.7 over 16 / 4 × 235 / 1.1 = 854.5
    assert used(4.0, 60.0) == pytest.approx(0.780, abs=0.001)


def test_bad_figures_are_refused_at_their_field() -> None:
    for row in ({"size_mm": [0, 40]}, {"thickness_mm": 0}, {"material": "cheese"}, {"entry_mm": -3}):
        with pytest.raises(DesignError) as refused:
            validate(car(backing={**PLATE, **row}))
        assert refused.value.problems[0].path.startswith("/mounts/tank-lf/lands_on/backing/")


def bought(tree: dict[str, Any]) -> list[str]:
    return list(mount(tree).connection.bought())


def test_a_bolt_is_as_long_as_what_it_clamps_asks() -> None:
    """M10 through a leg of 8, a sheet of 3 and two washers of 2: 15, a nut of 9.5 and two threads of 1.5 make 27.5."""
    assert bought(car()) == ["M10 bolt, class 8.8, with nut and washers; its length by the metal there"]
    assert bought(car({"wall_mm": 3.0})) == ["M10 bolt, class 8.8, 30 long, with nut and washers"]
    assert bought(car({"wall_mm": 5.6})) == ["M10 bolt, class 8.8, 35 long, with nut and washers"]
    assert bought(car({"wall_mm": 3.0, "kind": "captive nut"})) == ["M10 bolt, class 8.8, 25 long, with washer"]
    assert bought(car({"kind": "stud"})) == ["nut M10 and washer, on a stud"]
    plated = bought(car({"wall_mm": 3.0}, backing=PLATE))  # 8 + 3 + 6 + 2, a nut and two threads
    assert plated == ["M10 bolt, class 8.8, 35 long, with washer"]
    through = car({"member": "rail"}, sleeve=True)
    through["members"]["rail"] = MEMBER  # upright, 70 high: 8 + 70 + 4 + 12.5
    assert bought(through) == ["M10 bolt, class 8.8, 100 long, with nut and washers"]
    through["members"]["rail"] = {**MEMBER, "height_mm": 170}
    assert bought(through) == ["M10 bolt, class 8.8, threaded rod for 182, with nut and washers"]


def test_how_a_box_can_hang_gives_a_closed_section_its_sleeve_and_a_mend_leaves_the_plate() -> None:
    rails = {side: {**MEMBER, "name": side, "start_mm": [2100, at, 575], "end_mm": [3400, at, 575]}
             for side, at in (("left", -400), ("right", 400))}  # fmt: skip
    tree = copy.deepcopy(DEMO)
    tree["members"] |= rails
    for key, point in tree["hardpoints"].items():
        if key.startswith("tail"):
            point["member"] = "left" if key[5] == "l" else "right"
    ways = how_it_hangs(validate(tree), "tank", meshes={}, most=1).ways
    made = [op["value"] for op in ways[0].patch if op["op"] == "add"]
    assert {row["lands_on"]["sleeve"] for row in made} == {True}

    weak = car(backing=PLATE)
    weak["mounts"]["tank-lf"]["shape"]["thickness_mm"] = 4.0
    weak["mounts"]["tank-lf"]["shape"]["bend_radius_mm"] = 4.0
    mends = size_one(validate(weak), "tank-lf", meshes={}).sizes
    assert mends
    put = {op["path"]: op["value"] for op in mends[0].patch}["/mounts/tank-lf/lands_on"]
    assert put["backing"]["size_mm"] == [60.0, 40.0]


@pytest.mark.parametrize(("size", "grade", "told"), [
    ("3/8-16", "grade 5", False), ("3/8-16", "8.8", True), ("M10", "grade 8", True), ("M10", "8.8", False),
])  # fmt: skip
def test_inch_bolts_come_in_grades_and_metric_ones_in_classes(size: str, grade: str, *, told: bool) -> None:
    tree = copy.deepcopy(DEMO)
    for mount in tree["mounts"].values():
        mount["lands_on"]["bolt"] = {"size": size, "property_class": grade}
    for point in tree["hardpoints"].values():
        point["thread"] = size
    analysis = analysed(tree)
    asks = [text for s in analysis.supports for m in s.mounts for text, fits in m.geometry if not fits]
    assert any("that is a class of" in text for text in asks) is told
    bought = [row for s in analysis.supports for m in s.mounts for row in m.connection.bought()]
    assert all(size in row for row in bought)


def test_an_inch_point_is_hung_by_inch_bolts_of_their_grades() -> None:
    tree = copy.deepcopy(DEMO)
    for key, point in tree["hardpoints"].items():
        point["thread"] = "7/16-20" if key.startswith("tail") else point["thread"]
    ways = how_it_hangs(validate(tree), "tank", meshes={}).ways
    assert ways
    bolts = [op["value"]["lands_on"]["bolt"] for op in ways[0].patch if op["op"] == "add"]
    assert {row["size"] for row in bolts} == {"7/16-20"}
    assert {row["property_class"] for row in bolts} <= {"grade 5", "grade 8"}
    size, patch = hung(validate({**tree, "mounts": {}}), "tank", "angle", "hardpoints/tail-lf", "left")
    assert patch[0]["value"]["lands_on"]["bolt"] == {"size": "7/16-20", "property_class": "grade 5"}
    assert size


@pytest.mark.parametrize("kind", ["rivet nut", "insert", "tapped thread"])
def test_what_is_only_as_good_as_its_metal_counts_for_what_one_like_it_held(kind: str) -> None:
    """Nothing without a pull test; with one, pull and shear together against it, on the road too."""
    untested = car({"kind": kind})
    told = [text for text, fits in mount(untested).geometry if not fits]
    assert any("without a pull test" in text for text in told)
    assert next(f for f in analysed(untested).findings if f.id == "mount:tank-lf").state == "foul"
    weak, strong = mount(car({"kind": kind, "tested_n": 6_000.0})), mount(car({"kind": kind, "tested_n": 60_000.0}))
    assert (weak.rows[0].check, weak.rows[0].utilisation > 1) == (kind, True)
    row = next(r for r in strong.rows if r.check == kind)
    assert row.utilisation == pytest.approx(weak.rows[0].utilisation / 10)
    steps = strong.connection.working(Governing(kind, row.utilisation, row.case, row.solve, (row.n, row.d, row.w)))
    pull, shear = (step.value for step in steps[:2])
    assert (pull + shear) / 60_000.0 == pytest.approx(row.utilisation)
    pushed = (np.array(0.0), np.array(3000.0), np.array(4000.0))
    assert dict(strong.connection.utilisations(pushed, road=False))[kind] == pytest.approx(5000 / 60_000.0)
    assert not [r for r in mount(car({"tested_n": 10.0})).rows if r.check == "hole"]  # a hole bears what its bolt does


def test_a_rivet_nut_that_nobody_tried_is_not_offered() -> None:
    tree = car({"kind": "rivet nut"})
    within = {row.name: row.why for row in how_it_hangs(validate(tree), "tank", meshes={}).within}
    assert any("pull test" in why for why in within.values())
    tree["hardpoints"]["tail-lf"]["tested_n"] = 50_000.0
    assert not any("pull test" in row.why for row in how_it_hangs(validate(tree), "tank", meshes={}).within)
