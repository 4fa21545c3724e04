"""What checks and views hand on: margins have their sign, a place its axis, a rule its unit, a cut its shape."""

import math
from typing import Any

import numpy as np
import pytest
import shapely

from levelcradle.core.assembly import Obstacle, resolve
from levelcradle.core.axes import Placement, rotation
from levelcradle.core.clearance import stack_up
from levelcradle.core.clearance.moves import meets
from levelcradle.core.clearance.needs import twist_mm_of
from levelcradle.core.clearance.ways_out import sling
from levelcradle.core.cuts import cut_at
from levelcradle.core.design import validate
from levelcradle.core.design.patch import apply
from levelcradle.core.design.sentence import sentence
from levelcradle.core.design.solid import PathSolid
from levelcradle.core.projections import shapes
from levelcradle.core.solids import Nearest, block, mesh_solid, nearest, surface_of
from levelcradle.core.survey import depth_behind, still_to_measure
from levelcradle.core.sweeps import pieces_of
from levelcradle.core.tolerances import tolerance_by
from tests.plain import BRICK, a_block, analysed, as_found, box_at, found, held, plain_car

AT = (1000.0, 0.0, 400.0)


def test_a_margin_is_what_lies_between_value_and_limit(tree: dict[str, Any]) -> None:
    """Whatever the check: as far from the limit as the value is, below zero where it is foul."""
    tree["hardpoints"]["tail-lf"]["carried_kg"] = 20.0
    tree["modules"]["f01"]["altered"] = {"what": "longer leads", "size_mm": [640.0, 226.0, 92.0]}
    rows = [f for f in analysed(tree).findings if f.margin is not None and f.value is not None and f.limit is not None]
    assert {f.code for f in rows} >= {"gap", "inside", "mount.use", "survey.carried", "stock.altered"}
    for row in rows:
        if row.code not in ("level.target", "level.again", "survey.axles", "mount.support", "stock.volts"):
            assert abs(row.margin or 0.0) == pytest.approx(abs((row.value or 0.0) - (row.limit or 0.0)), abs=1e-6), (
                row.id
            )
        if row.state == "foul":
            assert (row.margin or 0.0) <= 0, row.id
    carried = next(f for f in rows if f.code == "survey.carried")
    assert carried.margin == pytest.approx(20.0 - (carried.value or 0.0))
    assert next(f for f in rows if f.code == "stock.altered").margin == -28.0


@pytest.mark.parametrize(("way", "takes"), [((0.0, 1.0, 0.0), 100.0), ((0.0, 0.0, 1.0), 300.0), ((0.0, 1.0, 1.0),
200.0 / math.sqrt(2)),
                                            ((1.0, 0.0, 0.0), 0.0)])  # fmt: skip
def test_a_twist_is_the_turn_times_the_arm_square_to_the_gap(way: Any, takes: float) -> None:
    """Two boxes 1 m apart on a frame, the gap 300 right and 100 over the mounts: 1° × |n · (x̂ × r)|."""
    hard = {f"h{n}": {"name": f"h{n}", "at_mm": [1000.0 + 1000 * n, -60.0, 500.0], "direction": [0, 0, -1],
    "structure": "frame"}
            for n in range(2)}  # fmt: skip
    mounts = {"m0": held("x", "h0"), "m1": held("y", "h1")}
    tree = plain_car(boxes={"x": box_at(AT), "y": box_at((2000.0, 0.0, 400.0))}, hardpoints=hard, mounts=mounts)
    assembly = resolve(validate(tree), {})
    here = (1500.0, 300.0, 600.0)
    there = tuple(h + 2e-6 * w for h, w in zip(here, way, strict=True))
    near = Nearest(1.0, here, (there[0], there[1], there[2]))
    found_mm = twist_mm_of(assembly.boxes["x"], assembly.boxes["y"], near)
    assert found_mm == pytest.approx(math.radians(1.0) * takes, rel=1e-3, abs=1e-6)


@pytest.mark.parametrize(("op", "message"), [
    ({"op": "replace", "path": "/boxes/tank/finish/beads_ground", "value": False}, "Tank box: beads ground changed"),
    ({"op": "replace", "path": "/shelf_rule", "value": {}}, "shelf_rule: shelf rule changed"),
])  # fmt: skip
def test_a_tick_and_a_whole_part_are_named_without_a_figure(
    tree: dict[str, Any], op: dict[str, Any], message: str
) -> None:
    assert sentence(tree, apply(tree, [op]).tree, [op]) == message


def test_room_kept_is_drilled_through_to_what_is_behind_it() -> None:
    room = {"a": {"face": "right", "depth_mm": 60.0}}
    items = {
        "a": {**a_block((0, 0, 0), (100, 100, 100)), "keep_clear": room},
        "b": a_block((0, 200, 0), (100, 300, 100)),
    }
    hit = depth_behind(resolve(validate(plain_car(items=items)), {}), (50.0, 130.0, 50.0), (0.0, 1.0, 0.0))
    assert hit is not None
    assert (hit.path, hit.depth_mm) == ("items/b", pytest.approx(70.0))


def test_below_the_first_length_of_a_table_its_first_row_holds() -> None:
    for rule in ("cut", *(f"welded {kind}" for kind in "ABCD")):
        least = tolerance_by(rule, 0.0)
        assert least == tolerance_by(rule, 1.0)
        assert isinstance(least[0], float)
        assert isinstance(least[1], str)
        assert least[0] <= tolerance_by(rule, 1000.0)[0]


@pytest.mark.parametrize(("off", "state"), [(5.2, "clear"), (5.3, "unknown")])
def test_weighed_again_is_right_within_the_root_of_both_plus_minus_squared(off: float, state: str) -> None:
    """Predicted to ± 2.5, read in steps of 8, which is ± 4.62: right by as much as 5.25."""
    tree = plain_car(weighings=as_found({"type": "axles", "front_kg": 500.0, "rear_kg": 500.0, "step_kg": 0.001}))
    tree["items"] = {
        "load": {"name": "load", "state": "in", "mass_kg": 100.0, "tol_kg": 5.0, "at_mm": [1250.0, 0.0, 300.0]}
    }
    read = {"type": "axles", "front_kg": 550.0 + off, "rear_kg": 550.0, "step_kg": 8.0}
    tree["weighings"]["finished"] = {"kind": "finished", "read": read}
    assert [f.state for f in found(tree, "level.weighed") if "front" in f.id] == [state]


def test_a_guessed_split_moves_an_axle_by_its_share_of_the_car() -> None:
    total = {"type": "total", "total_kg": 1000.0, "step_kg": 10.0, "front_percent": 50.0, "front_tol_percent": 4.0}
    rows = still_to_measure(validate(plain_car(weighings=as_found(total))), "level")
    assert next(row.moves for row in rows if row.why == "the split is assumed") == pytest.approx(40.0)


def test_moved_slantwise_a_block_does_not_sweep_the_corner_it_passes() -> None:
    """From 0 to 1,000 aft and right at once: what lies off that line is not met, what lies on it is."""
    moved = [block((0, 0, 0), (100, 100, 100))]
    beside, on = (Obstacle("items/t", "t", block(low, high), "same") for low, high in
                  (((700, 100, 0), (800, 200, 100)), ((500, 500, 0), (600, 600, 100))))  # fmt: skip
    assert meets(moved, [beside], (1000.0, 1000.0, 0.0)) == []
    assert meets(moved, [on], (1000.0, 1000.0, 0.0)) == [on]


def test_terminals_are_drawn_on_their_module() -> None:
    rows = shapes(resolve(validate(plain_car(boxes={"x": box_at(AT)})), {}))
    (module,) = [s for s in rows if s.kind == "module"]
    plates = [s for s in rows if s.kind == "terminal"]
    assert len(plates) == 2
    for plate in plates:
        for drawn, whole in ((plate.plan, module.plan), (plate.side, module.side)):
            assert shapely.Polygon(whole).buffer(1e-6).covers(shapely.Polygon(drawn))


def test_a_corridor_is_as_wide_as_it_is_said() -> None:
    spec = PathSolid(type="path", points_mm=((0.0, 0.0, 100.0), (500.0, 0.0, 100.0)), width_mm=60.0, height_mm=40.0)
    (solid,) = pieces_of(spec)
    assert (solid.high[1] - solid.low[1], solid.high[2] - solid.low[2]) == pytest.approx((60.0, 40.0))


def test_a_section_between_two_stations_lies_between_them() -> None:
    def station(aft: float, half: float) -> dict[str, Any]:
        return {"type": "sides", "aft_mm": aft, "floor_mm": 100.0, "top_left_mm": 500.0, "top_right_mm": 500.0,
        "left_floor_mm": -half,
                "left_top_mm": -half, "right_floor_mm": half, "right_top_mm": half}  # fmt: skip

    sides = {side: {"is": "metal", "gap_class": "same"} for side in ("fore", "aft", "left", "right", "floor", "top")}
    bays = {"b": {"name": "b", "stations": {"a": station(1000.0, 200.0), "z": station(1400.0, 400.0)}, "sides": sides}}
    (cut,) = cut_at(resolve(validate(plain_car(bays=bays)), {}), 1100.0)
    assert max(p[0] for p in cut.outline) == pytest.approx(250.0)


def test_a_turned_thing_is_cut_where_the_plane_meets_it() -> None:
    """A box turned by 30° about up: half a metre of it, 134 / cos 30° wide; its own pieces are told as the box's."""
    tree = plain_car(boxes={"x": box_at(AT, (3, 1, 1))})
    tree["boxes"]["x"]["pose"]["yaw_deg"] = 30.0
    box = resolve(validate(tree), {}).boxes["x"]
    cuts = cut_at(resolve(validate(tree), {}), box.cg[0])
    modules = [c for c in cuts if c.kind == "module"]
    assert modules
    assert all(c.path.startswith("boxes/x#") for c in modules)
    assert {c.path for c in cuts if c.kind == "metal"} == {"boxes/x"}
    (floor,) = [shapely.Polygon(c.outline) for c in cuts if c.name == "floor"]
    wide = 134 - 2 * 6.0
    assert floor.area == pytest.approx(3.0 * wide / math.cos(math.radians(30.0)), rel=1e-3)


def cube(size: float) -> Any:
    points, triangles = surface_of(block((0, 0, 0), (size, size, size)))
    return mesh_solid(np.array(points), np.array(triangles), slack_mm=0.0, closed=True, inside=False)


def test_a_scan_is_drawn_by_its_outline() -> None:
    outline = shapely.Polygon(cube(200.0).outline(0, 1))
    assert outline.symmetric_difference(shapely.box(0, 0, 200, 200)).area < 0.02 * 200**2


def test_a_scan_that_was_moved_is_still_a_scan() -> None:
    """A corner cut off a cube stays cut off: what stands there has its gap."""
    points = np.array([(0, 0, 0), (200, 0, 0), (0, 200, 0), (0, 0, 200)], dtype=float)
    triangles = np.array([(0, 2, 1), (0, 1, 3), (0, 3, 2), (1, 2, 3)])
    wedge = mesh_solid(points, triangles, slack_mm=0.0, closed=True, inside=False)
    moved = wedge.moved(Placement(rotation(0, 0, 0), (1000.0, 0.0, 0.0)))
    assert nearest(block((1150, 150, 150), (1180, 180, 180)), moved).gap_mm == pytest.approx(
        (450 - 200) / math.sqrt(3), abs=0.01
    )


@pytest.mark.parametrize(("above", "state"), [(28.0, "note"), (32.0, "note"), (118.0, "note"), (122.0, "clear")])
def test_a_module_needs_its_own_height_above_the_lids_lift(above: float, state: str) -> None:
    """25 of the lid's edge and 5 to spare for the lid; for a module of 90 so much more."""
    top = 400.0 + 101.0 + 3.0
    over = a_block((900.0, -100.0, top + above), (1400.0, 300.0, top + above + 50.0))
    (lid,) = found(plain_car(boxes={"x": box_at(AT)}, items={"over": over}), "access.lid")
    assert lid.state == state
    assert lid.limit == (30.0 if above < 30 else 120.0 if state == "note" else 30.0)


def test_a_thing_on_the_lid_stands_on_the_lid() -> None:
    place = {"type": "box", "box": "x", "face": "top", "from": ["front", "left"], "u_mm": 60.0, "v_mm": 60.0}
    thing = {
        **a_block((0, 0, 0), (40, 40, 30)),
        "state": "in",
        "mass_kg": 1.0,
        "at_mm": [20.0, 20.0, 15.0],
        "place": place,
    }
    box = resolve(validate(plain_car(boxes={"x": box_at(AT)}, items={"t": thing})), {}).boxes["x"]
    assert box.gear[0].solids[0].low[2] == pytest.approx(400 + box.shell.over_mm[2])


@pytest.mark.parametrize(("eyes", "legs"), [(0, 4), (1, 4), (2, 2), (4, 4)])
def test_a_sling_holds_at_two_eyes_or_more_else_at_the_corners(eyes: int, legs: int) -> None:
    rows = {f"e{n}": {"name": "eye", "kind": "lifting eye", "face": "top", "from": ["front", "left"],
    "u_mm": 20.0 + 40 * n, "v_mm": 60.0,
                      "across_mm": 20.0, "out_mm": 30.0} for n in range(eyes)}  # fmt: skip
    heavy = {**BRICK, "mass_kg": 80.0}
    tree = plain_car(boxes={"x": {**box_at(AT), "protrusions": rows}}, module_kinds={"brick": heavy})
    box = resolve(validate(tree), {}).boxes["x"]
    assert box.hung_kg > 60
    assert len(list(sling(box))) == legs


@pytest.mark.parametrize(("off_mv", "out"), [(39.0, False), (41.0, True)])
def test_a_module_is_out_of_step_beyond_the_shops_floor(off_mv: float, out: bool) -> None:
    """Five read alike, so their spread is nothing, and the floor of 40 mV a cell decides."""
    kind = {**BRICK, "cells": {"series": 1, "parallel": 1}}
    rows = {f"m{n}": {"name": f"m{n}", "kind": "brick", "reading_v": 3.7} for n in range(5)}
    rows["odd"] = {"name": "odd", "kind": "brick", "reading_v": 3.7 - off_mv / 1000}
    tree = plain_car(modules=rows, module_kinds={"brick": kind}, shelf_rule={"floor_mv": 40.0})
    figures = analysed(tree).shelf
    assert figures.limit_v == pytest.approx(0.040)
    assert [row.id for row in figures.rows if row.out_of_step] == (["odd"] if out else [])


def test_the_chain_of_an_empty_box_runs_through_its_middle() -> None:
    """Nothing in it: the line that is drawn is that through the middle, with what stands there."""
    tree = plain_car(boxes={"x": {**box_at(AT), "blocks": {}}})
    outer = resolve(validate(tree), {}).boxes["x"].shell.outer_mm
    side = 2.0
    x, y = 1000 + outer[0] / 2, outer[1] / 2
    under = a_block((x - side, y - side, 300), (x + side, y + side, 350), gap_class="same")
    assembly = resolve(validate({**tree, "items": {"t": under}}), {})
    assert stack_up(assembly, "x", "up").ends[0].name == "thing"
