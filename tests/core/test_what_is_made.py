"""What is made of a box, a bracket, a case: the metal where its drawing says it is, and each material as strong as its
sheet allows."""

import math
from typing import Any

import manifold3d
import numpy as np
import pytest
import trimesh
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import Polygon

from levelcradle.core.assembly import PlacedBox, resolve
from levelcradle.core.clearance import stack_up
from levelcradle.core.clearance.ways_out import sling
from levelcradle.core.design import validate
from levelcradle.core.design.solid import MeshSolid
from levelcradle.core.edits import built_as, edited
from levelcradle.core.fabricate import parts_of
from levelcradle.core.meshes import Mesh, placed_mesh
from levelcradle.core.modules import strings_in
from levelcradle.core.projections import shapes
from levelcradle.core.solids import Solid, nearest, projections, rod
from tests.conftest import DEMO
from tests.plain import BRICK, box_at, lined, plain_car, space

AT = (1000.0, 0.0, 400.0)


def made(**more: Any) -> PlacedBox:
    return resolve(validate(plain_car(boxes={"x": box_at(AT, (2, 2, 2), **more)})), {}).boxes["x"]


def volume(solid: Solid) -> float:
    return float(manifold3d.Manifold.hull_points(solid.points).volume())


@pytest.mark.parametrize("edge", [["front", "left"], ["front", "right"], ["aft", "left"], ["aft", "right"]])
@pytest.mark.parametrize("cut", [[40, 60], [60, 40]])
def test_a_corner_plate_is_as_thick_as_its_sheet(edge: list[str], cut: list[int]) -> None:
    """Its solid holds what is cut, less the two bevels: half of t² tan and t² cot of the slope along each long edge."""
    box = made(chamfers={"c": {"edge": edge, "mm": cut}})
    t = box.shell.made.wall_mm
    plates = [piece for piece in box.shell.pieces if "corner" in piece.name]
    assert len(plates) == 2
    slope = math.atan2(cut[0], cut[1])
    bevels = t * t * (math.tan(slope) + 1 / math.tan(slope)) / 2
    for plate in plates:
        (solid,) = plate.solids
        cut_mm3 = plate.mass_kg / 7850e-9
        high = solid.high[2] - solid.low[2]
        assert cut_mm3 - volume(solid) <= bevels * high + 1.0
        assert volume(solid) <= cut_mm3 + 1e-6
    cut_kg = sum(part.mass_kg for part in box.shell.made.parts("x", "X") if "corner" in part.name)
    assert cut_kg == pytest.approx(sum(plate.mass_kg for plate in plates), rel=1e-6)


def test_a_bend_is_made_of_wedges_that_lie_beside_each_other() -> None:
    box = made()
    for piece in box.shell.pieces:
        for n, one in enumerate(piece.solids):
            for other in piece.solids[n + 1 :]:
                assert nearest(one, other).gap_mm > -1e-6, piece.name


@pytest.mark.parametrize("along", ["aft", "across", "up"])
def test_a_divider_stands_between_modules_and_in_none(along: str) -> None:
    block = {**box_at(AT, (2, 2, 2))["blocks"]["a"], "dividers": {"along": along, "every": 1, "thickness_mm": 2.0}}
    box = made(blocks={"a": block}, layers=lined(5.0))
    plates = [solid for piece in box.shell.pieces if piece.role == "divider" for solid in piece.solids]
    axis = ("aft", "across", "up").index(along)
    assert len(plates) == 1
    for module in box.shell.modules:
        low, high = module.low[axis], module.high[axis]
        assert plates[0].high[axis] <= low + 1e-6 or plates[0].low[axis] >= high - 1e-6
    assert min(m.low[axis] for m in box.shell.modules) < plates[0].low[axis]  # with modules on both sides
    assert plates[0].high[axis] < max(m.high[axis] for m in box.shell.modules)


def test_a_bracket_folds_to_the_legs_it_was_drawn_with() -> None:
    """From either end of the blank the bend lies so far that the leg is as long outside as it should be, less half of
    the deduction."""
    design = validate(DEMO)
    found = {p.id.removesuffix("-angle"): p for p in parts_of(resolve(design, {})) if p.id.endswith("-angle")}
    assert len(found) == 2  # four alike each
    for key, part in found.items():
        shape: Any = design.mounts[key].shape
        (bend,) = part.bends
        (hole,) = part.holes
        length = max(x for x, _ in part.outline)
        deduction = shape.leg_b_mm + float(part.notes[0].split()[2]) - length
        assert bend.start[0] == pytest.approx(shape.leg_b_mm - deduction / 2, abs=0.06)
        assert length - bend.start[0] > shape.toe_mm > length - hole.at[0] - 1e-9


def test_a_case_of_the_same_size_is_as_large_as_the_box_was_to_the_tenth() -> None:
    design = validate(plain_car(boxes={"x": box_at(AT, (2, 2, 2), layers=lined(2.3, 1.2))}))
    before = resolve(design, {}).boxes["x"].shell
    after = resolve(edited(design, built_as(design, "x", "existing")), {}).boxes["x"].shell
    assert after.outer_mm[:2] == pytest.approx(before.outer_mm[:2], abs=0.05)
    assert any(abs(size - round(size)) > 0.05 for size in after.outer_mm)
    assert after.over_mm[2] == pytest.approx(before.over_mm[2], abs=0.05)


def test_a_case_is_as_thick_as_it_was_measured_each_way() -> None:
    """Floor and lid up, walls along and across; its walls are flat from the floor."""
    case = {
        "type": "existing",
        "size_mm": [500.0, 400.0, 300.0],
        "wall_mm": 3.0,
        "base_mm": 5.0,
        "top_mm": 7.0,
        "mass_kg": 9.0,
    }
    assembly = resolve(validate(plain_car(boxes={"x": box_at(AT, construction=case, closures={})})), {})
    for way, thick in (("aft", [3.0, 3.0]), ("across", [3.0, 3.0]), ("up", [5.0, 7.0])):
        metal = [row.mm for row in stack_up(assembly, "x", way).rows if row.kind == "metal"]  # type: ignore[arg-type]
        assert metal == thick, way
    wall = assembly.boxes["x"].shell.made.wall_at("left")
    assert wall is not None
    assert (wall.start_mm, wall.end_mm, wall.flat_from_mm, wall.flat_to_mm) == (0.0, 500.0, 5.0, 293.0)


@pytest.mark.parametrize(("way", "pulled"), [("aft", True), ("across", True), ("up", False)])
def test_welding_pulls_a_box_in_along_and_across_and_not_in_height(way: Any, pulled: bool) -> None:
    assembly = resolve(validate(plain_car(boxes={"x": box_at(AT)})), {})
    welded = next(row for row in stack_up(assembly, "x", way).rows if row.what == "box as welded")
    assert (welded.bias_mm > 0) == pulled


@pytest.mark.parametrize("thick", [0.5, 3.0, 16.0, 16.1, 25.0])
def test_thick_metal_is_as_strong_as_its_own_row_says_and_unknown_where_it_says_nothing(thick: float) -> None:
    materials = validate(DEMO).tables.materials.values()
    assert [m.yield_mpa_at(thick) for m in materials] == [
        m.yield_mpa if thick <= 16 else m.yield_over_16_mpa for m in materials
    ]
    assert [m.yield_mpa for m in materials] != [m.yield_over_16_mpa for m in materials]


def test_the_outline_of_a_space_is_drawn_to_the_tenth() -> None:
    tree = plain_car(bays={"b": space((1000.2, 1500.8), (300.4, 300.4), (300.3, 700.6))})
    (bay,) = [shape for shape in shapes(resolve(validate(tree), {})) if shape.kind == "bay"]
    assert {a for a, _ in bay.plan} == {1000.2, 1500.8}
    assert {b for _, b in bay.plan} == {-300.4, 300.4}
    assert {b for _, b in bay.side} == {300.3, 700.6}


def test_of_modules_side_by_side_the_empty_voltage_is_one_modules_too() -> None:
    kind = {**BRICK, "nominal_v": 22.0, "full_v": 25.0, "empty_v": 18.0}
    design = validate(plain_car(boxes={"x": box_at(AT, (2, 1, 1))}, module_kinds={"brick": kind}))
    block = design.boxes["x"].blocks["a"].model_copy(update={"parallel": 2})
    box = design.boxes["x"].model_copy(update={"blocks": {"a": block}})
    (figures,) = strings_in([box], design.module_kinds, design.strings).values()
    assert (figures.nominal_v, figures.full_v, figures.empty_v) == pytest.approx((22.0, 25.0, 18.0))


@pytest.mark.parametrize("way", [(1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0), (0.6, 0.8, 0.0)])
def test_a_rod_reaches_as_far_as_its_ends_and_its_radius_and_no_farther(way: tuple[float, float, float]) -> None:
    """A round end reaches r√(1 − n²) past its middle along an axis that the rod makes the cosine n with (geometry)."""
    solid = rod((0.0, 0.0, 0.0), (way[0] * 500, way[1] * 500, way[2] * 500), 30.0)
    for axis, n in enumerate(way):
        reach = 30.0 * math.sqrt(1 - n * n)
        assert solid.low[axis] == pytest.approx(min(0.0, 500 * n) - reach, abs=1e-6)
        assert solid.high[axis] == pytest.approx(max(0.0, 500 * n) + reach, abs=1e-6)


def test_a_scans_shadow_is_drawn_to_an_eightieth_of_its_size() -> None:
    """Two blocks that make an angle: in plan the angle, from the side a block."""
    legs = [
        trimesh.creation.box(bounds=[[0, 0, 0], [400, 60, 100]]),
        trimesh.creation.box(bounds=[[0, 0, 0], [60, 400, 100]]),
    ]
    angle = trimesh.util.concatenate(legs)
    scan = MeshSolid.model_validate({"type": "mesh", "file": "a" * 64, "tolerance_mm": 1.0})
    plan, side = projections(placed_mesh(scan, Mesh(np.array(angle.vertices), np.array(angle.faces), True)))
    assert Polygon(plan).area == pytest.approx(400 * 60 + 340 * 60, rel=0.03)
    assert Polygon(side).area == pytest.approx(400 * 100, rel=0.03)


@pytest.mark.parametrize("eyes", [0, 4])
def test_the_hook_of_a_sling_is_over_the_middle_of_what_it_lifts(eyes: int) -> None:
    heavy = {**BRICK, "mass_kg": 30.0}
    spots = {f"e{n}": {"name": f"eye {n}", "kind": "lifting eye", "face": "top", "from": ["front", "left"],
    "u_mm": 30.0 + 200 * (n % 2),
                       "v_mm": 20.0 + 180 * (n // 2), "across_mm": 20.0,
                       "out_mm": 20.0} for n in range(eyes)}  # fmt: skip
    tree = plain_car(boxes={"x": box_at(AT, (2, 2, 1), protrusions=spots)}, module_kinds={"brick": heavy})
    box = resolve(validate(tree), {}).boxes["x"]
    legs = list(sling(box))
    assert len(legs) == 4
    tops = [leg.points[leg.points[:, 2] > leg.high[2] - 1e-6].mean(axis=0) for leg in legs]
    feet = [leg.points[leg.points[:, 2] < leg.low[2] + 1e-6].mean(axis=0) for leg in legs]
    assert np.ptp(tops, axis=0) == pytest.approx([0.0, 0.0, 0.0], abs=1e-6)
    assert tops[0][:2] == pytest.approx(np.mean(feet, axis=0)[:2])
    assert not list(sling(resolve(validate(plain_car(boxes={"x": box_at(AT)})), {}).boxes["x"]))  # two people lift that


@given(st.floats(150, 700), st.floats(150, 700), st.floats(90, 300))
def test_a_trays_bends_run_along_the_four_sides_of_its_base(length: float, width: float, height: float) -> None:
    """Two across the car and two along it, each pair as far apart as the base is long or wide, less half a deduction at
    either end."""
    inner = {"type": "fixed", "size_mm": [length, width, height]}
    box = resolve(validate(plain_car(boxes={"x": box_at(AT, inner=inner)})), {}).boxes["x"]
    tray = next(part for part in box.shell.made.parts("x", "X") if "tray" in part.id)
    across = sorted(bend.start[0] for bend in tray.bends if bend.start[0] == bend.end[0])
    along = sorted(bend.start[1] for bend in tray.bends if bend.start[1] == bend.end[1])
    assert (len(across), len(along)) == (2, 2)
    for apart, outside in (
        (across[1] - across[0], box.shell.outer_mm[0]),
        (along[1] - along[0], box.shell.outer_mm[1]),
    ):
        assert outside - 15.0 < apart < outside
