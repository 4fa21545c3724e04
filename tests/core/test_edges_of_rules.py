"""Rules at their borders and in their other direction: the least that counts, the side that is seldom looked at."""

import math
from copy import deepcopy
from typing import Any

import pytest

from levelcradle.core.analysis import analyse
from levelcradle.core.assembly import resolve
from levelcradle.core.axes import Vec, dot, minus, unit
from levelcradle.core.bays import extent, pierced
from levelcradle.core.bays.diagonals import out_of_square_deg
from levelcradle.core.clearance import stack_up
from levelcradle.core.design import validate
from levelcradle.core.design.files import load
from levelcradle.core.design.mount import Welded
from levelcradle.core.design.survey import VehicleOpening
from levelcradle.core.design.words import words_of
from levelcradle.core.edits import doubled, edited, freed_place, reshaped, square_space, station_said
from levelcradle.core.errors import DesignError, UnknownThing
from levelcradle.core.fabricate import parts_of
from levelcradle.core.finding import message_text
from levelcradle.core.fit import Wishes, study
from levelcradle.core.solids import block
from levelcradle.core.survey import still_to_measure
from tests.conftest import DEMO
from tests.plain import BRICK, a_block, analysed, box_at, plain_car

# --- chains of allowances ---

CUT = {f"{aft}-{side}": {"edge": [aft, side], "mm": [20, 20]} for aft in ("front", "aft") for side in ("left", "right")}
ROUND: tuple[tuple[Any, Any], ...] = (
    ((900, 600, 200), (1700, 620, 900)), ((900, -300, 200), (1700, -280, 900)), ((700, -300, 200), (720, 600, 900)),
    ((1900, -300, 200), (1920, 600, 900)), ((700, -300, 100), (1900, 600, 120)), ((700, -300, 900), (1900, 600, 920)),
)  # fmt: skip


@pytest.mark.parametrize("cut", [{}, CUT])
@pytest.mark.parametrize("way", ["aft", "across", "up"])
def test_what_is_drawn_has_no_tolerance_and_what_was_taped_has(way: Any, cut: dict[str, Any]) -> None:
    """Room and growth are as drawn and as their maker says, between two boxes nothing was taped."""
    brick = {**BRICK, "growth_mm": {"length": 3.0, "width": 3.0, "height": 3.0}}
    walls = {f"w{n}": {**a_block(low, high), "name": f"w{n}"} for n, (low, high) in enumerate(ROUND)}
    boxes = {"x": box_at((1000.0, 0.0, 300.0), (2, 2, 2), chamfers=cut), "y": box_at((1000.0, 320.0, 300.0))}
    rows = stack_up(
        resolve(validate(plain_car(boxes=boxes, items=walls, module_kinds={"brick": brick})), {}), "x", way
    ).rows
    assert {row.kind for row in rows} >= {"gap", "metal", "module", "growth"}
    for row in rows:
        taped = row.kind == "gap" and row.path.startswith("items/")
        drawn = row.kind in ("space", "growth") or row.what == "cut off its edge" or (row.kind == "gap" and not taped)
        assert (row.tol_mm == 0.0) == drawn, row
        assert taped or row.kind == "other" or row.bias_mm == 0.0, row
        assert row.tol_mm <= 3.0


# --- survey ---


@pytest.mark.parametrize("side", [0.4, 0.9, 1.0, 300.0])
def test_a_square_of_any_size_is_square(side: float) -> None:
    assert out_of_square_deg(side, side, side * math.sqrt(2)) == pytest.approx(0.0, abs=1e-6)
    assert out_of_square_deg(0.0, side, side) is None


@pytest.mark.parametrize(
    "direction", [(0.6, 0.8, 0.0), (-0.8, 0.6, 0.0), (1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0)]
)
def test_an_opening_is_as_wide_and_high_as_it_is_said_in_its_own_plane(direction: tuple[float, float, float]) -> None:
    made = {
        "name": "hatch",
        "at_mm": [0, 0, 0],
        "direction": list(direction),
        "width_mm": 80.0,
        "height_mm": 40.0,
        "cut": "existing",
    }
    opening = VehicleOpening.model_validate(made, strict=False)
    panel = next(
        piece for piece, opens in pierced(block((-200.0, -200.0, -200.0), (200.0, 200.0, 200.0)), [opening]) if opens
    )
    n = unit(direction)
    wide = (0.0, 1.0, 0.0) if n[2] else (-n[1], n[0], 0.0)
    high = (1.0, 0.0, 0.0) if n[2] else (0.0, 0.0, 1.0)
    assert max(abs(dot(tuple(p), wide)) for p in panel.points.tolist()) == pytest.approx(40.0)
    assert max(abs(dot(tuple(p), high)) for p in panel.points.tolist()) == pytest.approx(20.0)


@pytest.mark.parametrize("missing", ["lf_mm", "rf_mm", "lr_mm", "rr_mm"])
@pytest.mark.parametrize("when", ["stance", "stance_after"])
def test_how_the_nose_rose_is_said_of_four_arches_taken_twice_or_not_at_all(
    tree: dict[str, Any], when: str, missing: str
) -> None:
    arches = {"lf_mm": 700.0, "rf_mm": 702.0, "lr_mm": 690.0, "rr_mm": 692.0}
    more = {name: value + 20.0 for name, value in arches.items()}
    stands = {"engine": "in", "stands": "wheels"}
    tree["vehicle"] |= {"stance": {**stands, "arches": dict(arches)}, "stance_after": {**stands, "arches": dict(more)}}
    assert "survey:stance-after" in {f.id for f in analysed(tree).findings}
    tree["vehicle"][when]["arches"][missing] = None
    assert "survey:stance-after" not in {f.id for f in analysed(tree).findings}


def test_a_diagonal_is_asked_for_until_one_is_taken_and_a_guess_until_it_is_measured(tree: dict[str, Any]) -> None:
    corners = [{"station": "a", "corner": "left_floor"}, {"station": "a", "corner": "right_top"}]
    path = "/items/axle/solid/high_mm/0"
    tree["readings"][path] = {"text": "2660", "unit": "mm", "basis": "assumed", "tolerance": 4.0}
    tree["readings"]["/items/engine/mass_kg"] = {"text": "134", "unit": "kg", "basis": "assumed"}
    for length, asked in ((None, True), (800.0, False)):
        tree["bays"]["tank"]["diagonals"] = {"d": {"one": corners[0], "other": corners[1], "length_mm": length}}
        rows = {row.path: row for row in still_to_measure(validate(tree), "clearances")}
        assert ("bays/tank" in rows) == asked
        assert rows[path[1:]].moves == 4.0
        assert "items/engine/mass_kg" not in rows


def test_words_are_found_where_a_part_has_no_name_of_its_own() -> None:
    tree = {"vehicle": {"cg_height": {"up_mm": 1.0}, "track_mm": {}}, "weighings": {"as-found": {"read": {}}}}
    assert words_of(tree, "/vehicle/cg_height/up_mm") == "CG height: up"
    assert words_of(tree, "/weighings/as-found/read/lf_kg") == "as found: left front"


@pytest.mark.parametrize(("longer", "state"), [(0.0, "clear"), (25.0, "unknown")])
def test_tapes_that_miss_each_other_fix_no_point(tree: dict[str, Any], longer: float, state: str) -> None:
    hooks = {"a": [0.0, 0.0, 0.0], "b": [400.0, 0.0, 0.0], "c": [0.0, 500.0, 0.0], "d": [300.0, 300.0, 0.0]}
    at = [150.0, 200.0, 350.0]
    tree["references"] |= {key: {"name": key, "at_mm": spot} for key, spot in hooks.items()}
    tapes = {
        key: {"hooked": key, "length_mm": math.dist(spot, at) + (longer if key == "d" else 0.0)}
        for key, spot in hooks.items()
    }
    tree["references"]["p"] = {"name": "p", "at_mm": at, "tapes": tapes}
    found = next(f for f in analysed(tree).findings if f.id == "survey:tapes:p")
    assert found.state == state


# --- edits ---


def test_a_doubler_reaches_beyond_its_weld_all_round(tree: dict[str, Any]) -> None:
    tree["mounts"]["tank-lf"]["to_box"]["doubler"] = None
    design = edited(validate(tree), doubled(validate(tree), "tank-lf"))
    mount = design.mounts["tank-lf"]
    assert isinstance(mount.to_box, Welded)
    plate, weld = mount.to_box.doubler, mount.to_box
    assert plate is not None
    assert plate.along_w_mm - mount.shape.width_mm == pytest.approx(60.0)
    assert plate.along_n_mm - weld.length_mm == pytest.approx(60.0)
    assert 10.0 <= weld.from_mm - plate.from_contact_mm < 60.0
    with pytest.raises(UnknownThing):
        doubled(validate(tree), "nowhere")


def test_the_place_of_a_thing_is_freed_once_it_has_a_size(tree: dict[str, Any]) -> None:
    with pytest.raises(DesignError):
        freed_place(validate(tree), "tank")
    tree["items"]["tank"]["solid"] = {"type": "block", "low_mm": [2600, -300, 400], "high_mm": [3000, 300, 600]}
    key, patch = freed_place(validate(tree), "tank")
    bay = edited(validate(tree), patch).bays[key]
    assert {s.aft_mm for s in bay.stations.values()} == {2600.0, 3000.0}


@pytest.mark.parametrize("open_sides", [(), ("top",), ("fore", "aft")])
def test_a_square_space_is_as_large_as_it_is_said_and_stands_on_its_peg(open_sides: tuple[str, ...]) -> None:
    key, patch = square_space(
        validate(DEMO), "under the seat", (460.0, 330.0, 310.0), (1400.0, 20.0, 300.0), open_sides, "seat-seam"
    )
    bay = edited(validate(DEMO), patch).bays[key]
    low, high = extent(bay)
    assert minus(high, low) == (460.0, 330.0, 310.0)
    assert (low[0], (low[1] + high[1]) / 2, low[2]) == (1400.0, 20.0, 300.0)
    assert {
        side for side in ("fore", "aft", "left", "right", "floor", "top") if getattr(bay.sides, side).is_ == "open"
    } == set(open_sides)
    assert "not measured" not in {
        getattr(bay.sides, side).is_ for side in ("fore", "aft", "left", "right", "floor", "top")
    }


@pytest.mark.parametrize(
    ("size", "where"), [((460.0, 0.0, 310.0), 0.0), ((5e-324, 5e-324, 5e-324), 0.0), ((900.0, 10.0, 10.0), 19_500.0)]
)
def test_a_square_space_without_room_or_beyond_all_cars_is_refused_in_words(size: Vec, where: float) -> None:
    with pytest.raises(DesignError, match="a space"):
        square_space(validate(DEMO), "none", size, (where, 20.0, 300.0), (), None)


@pytest.mark.parametrize(
    ("high", "across", "up"), [((400, 50, 20), 50, 20), ((40, 300, 20), 40, 20), ((40, 50, 600), 40, 50)]
)
def test_a_block_becomes_a_run_along_its_longest_side_as_thick_as_it_was(
    high: tuple[int, ...], across: float, up: float
) -> None:
    tree = plain_car(items={"t": {**a_block((0, 0, 0), high), "name": "t"}})  # type: ignore[arg-type]
    solid = edited(validate(tree), reshaped(validate(tree), "items/t/solid", "path")).items["t"].solid
    assert solid is not None
    assert (solid.width_mm, solid.height_mm) == (across, up)  # type: ignore[union-attr]


def test_a_station_that_was_taken_stays_taken_when_it_is_said_another_way() -> None:
    design = validate(DEMO)
    assert not any(
        op["path"].startswith("/readings")
        for do in ("copy", "mirror", "widths")
        for op in station_said(design, "tank", "a", do)[1]
    )  # type: ignore[arg-type]


# --- parts ---


def test_the_hole_of_a_bracket_lies_its_edge_distance_from_the_free_end() -> None:
    design = validate(DEMO)
    part = next(p for p in parts_of(resolve(design, {})) if p.name.startswith("Tank box mount") and "angle" in p.name)
    shape = design.mounts["tank-lf"].shape
    (hole,) = part.holes
    end = max(x for x, _ in part.outline)
    assert end - hole.at[0] == pytest.approx(shape.toe_mm)  # type: ignore[union-attr]
    assert hole.at[1] == pytest.approx(shape.width_mm / 2)
    assert any(x % 1 > 1e-3 for x, _ in part.outline)  # to the tenth and finer, never whole millimetres


@pytest.mark.parametrize(("holes", "modules", "told"), [(0, 2, True), (1, 2, False), (0, 0, False)])
def test_a_box_that_no_cable_leaves_is_told(holes: int, modules: int, told: bool) -> None:
    hole = {"name": "cable", "face": "front", "from": ["left", "base"], "u_mm": 40.0, "v_mm": 40.0, "diameter_mm": 20.0}
    box = box_at((1000.0, 0.0, 300.0), (1, 1, 2), openings={f"h{n}": hole for n in range(holes)})
    box["blocks"] = box["blocks"] if modules else {}
    states = [f.state for f in analyse(validate(plain_car(boxes={"x": box})), {}).findings if f.code == "box.cable"]
    assert states == (["unknown"] if told else [])


@pytest.mark.parametrize(("width", "told"), [(5.0, True), (6.0, True), (6.5, False)])
def test_a_case_as_thin_as_its_walls_has_no_inside(width: float, told: bool) -> None:
    sizes = {"size_mm": [214.0, width, 104.0], "wall_mm": 3.0, "base_mm": 3.0, "top_mm": 3.0, "mass_kg": 5.0}
    case = {"construction": {"type": "existing", **sizes}, "closures": {}, "blocks": {}}
    analysis = analyse(validate(plain_car(boxes={"x": {**box_at((1000.0, 0.0, 300.0)), **case}})), {})
    assert any(f.state == "foul" and "inside" in message_text(f) for f in analysis.findings) == told


@pytest.mark.parametrize(("deep", "told"), [(32, False), (33, True)])
def test_a_file_is_refused_for_its_depth_only_beyond_what_it_says(deep: int, told: bool) -> None:
    with pytest.raises(DesignError) as refused:
        load("[" * deep + "]" * deep)
    assert ("nested deeper than 32" in str(refused.value)) == told


# --- the study ---


def test_a_study_that_was_stopped_says_nothing_of_what_would_go_in() -> None:
    tree = deepcopy(DEMO)
    tree["boxes"], tree["mounts"] = {}, {}
    stopped = study(validate(tree), Wishes(kinds=("flagstone",), bays=("tank",)), meshes={}, stop=lambda: True)
    assert stopped.stopped
    assert "would go in" not in stopped.message


def test_what_the_demo_says_of_a_gap_is_the_least_of_its_pieces() -> None:
    """Every gap is told between its two nearest points."""
    for finding in analyse(validate(DEMO), {}).findings:
        if finding.code == "gap" and len(finding.points_mm) == 2 and finding.value is not None and finding.value > 0:
            way = minus(finding.points_mm[0], finding.points_mm[1])
            assert math.sqrt(dot(way, way)) == pytest.approx(finding.value, abs=1e-3)
