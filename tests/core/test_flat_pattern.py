"""Blanks of boxes with edges cut off, folded up again on paper: every edge lies where the box has it."""

import copy
import math
from typing import Any

import pytest
from hypothesis import assume, example, given
from hypothesis import strategies as st
from shapely.geometry import LineString, Point, Polygon

from levelcradle.core.analysis import analyse
from levelcradle.core.assembly import resolve
from levelcradle.core.box import inside_chamfer, largest_chamfer, shell_of
from levelcradle.core.box.chamfers import plane_of
from levelcradle.core.box.folded import FoldedBox, least_chamfer, tray_part
from levelcradle.core.box.folded.flat_pattern import FIT_UP_MM, FlatPattern, SheetBend, Slope, pan_bends, pan_outline
from levelcradle.core.design import Design, standard_tables, validate
from levelcradle.core.design.box import FACE_AT, Box, Chamfer
from levelcradle.core.design.construction import Folded
from levelcradle.core.fabricate import parts_of
from levelcradle.core.part import bend_deduction_mm
from tests.conftest import DEMO
from tests.plain import lined

T, R, K = 3.0, 3.0, 0.42
BEND = SheetBend(R, T, bend_deduction_mm(angle_deg=90, radius_mm=R, thickness_mm=T, k=K), "K 0.42")
LENGTH, WIDTH, HEIGHT = 400.0, 300.0, 200.0
cut = st.floats(15, 90)


def deduction(angle: float) -> float:
    return bend_deduction_mm(angle_deg=angle, radius_mm=R, thickness_mm=T, k=K)


@given(cut, cut)
def test_the_blank_is_the_outside_lengths_less_the_deduction_of_every_bend(base: float, wall: float) -> None:
    """Right wall, base, slope, left wall, each to its outside apex; the handbook's rule, not the way the blank is
    built."""
    outline = pan_outline(FlatPattern(LENGTH, WIDTH, HEIGHT, BEND, {"left": Slope(base, wall)}))
    first = math.degrees(math.atan2(wall, base))
    across = (
        HEIGHT
        + (WIDTH - base)
        + math.hypot(base, wall)
        + (HEIGHT - wall)
        - deduction(90)
        - deduction(first)
        - deduction(90 - first)
    )
    ys = [y for _, y in outline]
    assert max(ys) - min(ys) == pytest.approx(across)
    assert max(x for x, _ in outline) - min(x for x, _ in outline) == pytest.approx(
        2 * HEIGHT + LENGTH - 2 * deduction(90)
    )


@given(cut, cut, st.sampled_from(["front", "aft", "left", "right"]), st.floats(0, 1))
def test_neighbours_end_on_the_slope(base: float, wall: float, face: str, share: float) -> None:
    """Walls between the long ones stop on its inside, a fit-up off; long walls end flush with its outside."""
    pan = FlatPattern(LENGTH, WIDTH, HEIGHT, BEND, {face: Slope(base, wall)})
    blank = Polygon(pan_outline(pan))
    assert blank.is_valid
    ends = face in ("front", "aft")
    half, sign = (LENGTH if ends else WIDTH) / 2, 1 if face in ("aft", "right") else -1
    neighbour = pan.sides["left" if ends else "front"]
    height = neighbour.wall_from_mm + 0.01 + share * (HEIGHT - neighbour.wall_from_mm - 0.02)
    out = -neighbour.at(height)
    row = blank.intersection(LineString([(-999, out), (999, out)] if ends else [(out, -999), (out, 999)]))
    reach = max(sign * point[0 if ends else 1] for point in row.coords)
    off = 0.0 if ends else T + FIT_UP_MM  # from the line through (half - base, 0) and (half, wall), square to it
    on_slope = half - base + base / wall * height - off * math.hypot(base, wall) / wall
    assert reach == pytest.approx(min(on_slope, half if ends else half - off), abs=1e-6)


@given(cut, cut)
def test_the_base_is_cut_along_an_upright_slope(along: float, across: float) -> None:
    pan = FlatPattern(LENGTH, WIDTH, HEIGHT, BEND, {}, {("aft", "right"): (along, across)})
    outline = pan_outline(pan)
    assert Polygon(outline).is_valid
    back = BEND.setback_mm
    on_line = [(x, y) for x, y in outline if abs((LENGTH / 2 - x) / along + (WIDTH / 2 - y) / across - 1) < 1e-9]
    assert len(on_line) == 2
    assert on_line[0][0] == pytest.approx(LENGTH / 2 - back)
    assert on_line[1][1] == pytest.approx(WIDTH / 2 - back)
    assert max(x for x, y in outline if y == max(q for _, q in outline)) == pytest.approx(
        LENGTH / 2 - along - FIT_UP_MM
    )


@given(cut, cut, st.sampled_from(["front", "aft", "left", "right"]))
def test_bend_lines_lie_in_the_blank_and_turn_it_square_in_all(base: float, wall: float, face: str) -> None:
    pan = FlatPattern(
        LENGTH,
        WIDTH,
        HEIGHT,
        BEND,
        {face: Slope(base, wall)},
        {("front", "left"): (30.0, 40.0)} if face in ("aft", "right") else {},
    )
    bends = list(pan_bends(pan))
    assert sum(b.angle_deg for b in bends) == pytest.approx(360)
    blank = Polygon(pan_outline(pan)).buffer(1e-6)
    assert all(blank.contains(LineString([b.start, b.end])) for b in bends)


STEEL = standard_tables().materials["s235"]


def made(box: Box, inner: tuple[float, float, float] = (388.0, 694.0, 242.0)) -> FoldedBox:
    """A folded box round an inside, the tank box's of the demo where none is given."""
    return FoldedBox.round(box, box.construction, inner, STEEL)


def box_with(demo: Design, **chamfers: Any) -> Box:
    cut = {k: Chamfer(edge=e, mm=mm) for k, (e, mm) in chamfers.items()}
    return demo.boxes["tank"].model_copy(update={"chamfers": cut, "openings": {}})


@pytest.mark.parametrize(
    "chamfers",
    [{"a": (("left", "base"), (30.0, 40.0))}, {"a": (("front", "base"), (25.0, 25.0)), "b": (("aft", "base"), (40.0,
    30.0))},
     {"a": (("aft", "right"), (40.0, 30.0)), "b": (("front", "left"), (20.0, 20.0))},
     {"a": (("left", "top"), (45.0, 60.0)), "b": (("left", "base"), (30.0, 30.0))},
     {"a": (("top", "aft"), (50.0, 35.0)), "b": (("top", "front"), (30.0, 40.0))}],
)  # fmt: skip
def test_the_parts_weigh_what_the_shell_does_and_their_holes_lie_in_them(demo: Design, chamfers: Any) -> None:
    box = box_with(demo, **chamfers)
    shell = shell_of(box, demo.module_kinds, standard_tables())
    parts = list(made(box).parts("x", "X"))
    tray, lid = (next(part for part in parts if part.id == f"x-{what}") for what in ("tray", "lid"))
    upright = sum(not {"base", "top"} & set(c.edge) for c in box.chamfers.values())
    assert len(parts) == 2 + 2 * upright
    assert parts == list(shell.made.parts("x", "X"))
    for part in (tray, lid):
        blank = Polygon(part.outline)
        assert all(blank.contains(Point(h.at).buffer(h.diameter_mm / 2)) for h in part.holes)
    assert len([h for h in tray.holes if h.purpose == "lid screw"]) == len(
        [h for h in lid.holes if h.purpose == "lid screw"]
    )
    assert len([p for p in shell.outside if p.role == "fastener"]) == len(
        [h for h in tray.holes if h.purpose == "lid screw"]
    )
    assert all(row.has_mm >= row.needs_mm for row in made(box).asked)


def test_a_slope_too_short_to_fold_and_a_hole_in_it_are_told(demo: Design) -> None:
    hole = {
        "name": "drain",
        "face": "left",
        "from": ["front", "base"],
        "u_mm": 200.0,
        "v_mm": 30.0,
        "diameter_mm": 20.0,
    }
    box = Box.model_validate(
        box_with(demo, a=(("left", "base"), (7.0, 7.0))).model_dump(by_alias=True) | {"openings": {"drain": hole}}
    )
    rows = {row.name: row for row in made(box).asked}
    assert rows["cut-off edge left base"].has_mm == pytest.approx(7 * 2**0.5 - 2 * math.tan(math.pi / 8) * 6)
    assert rows["cut-off edge left base"].has_mm < rows["cut-off edge left base"].needs_mm == 9.0
    deep = Box.model_validate(
        box.model_dump(by_alias=True) | {"chamfers": {"a": {"edge": ["left", "base"], "mm": [60.0, 60.0]}}}
    )
    row = next(r for r in made(deep).asked if r.name == "hole drain")
    assert row.has_mm < 0


@pytest.mark.parametrize("edge", [("left", "base"), ("aft", "right")])
def test_the_least_one_that_is_offered_can_be_folded_and_a_smaller_one_not(demo: Design, edge: Any) -> None:
    for sheet in (1.5, 2.0, 3.0, 4.0):
        box = demo.boxes["tank"].model_copy(update={"construction": Folded(thickness_mm=sheet)})
        mm = least_chamfer(made(box).sheet, edge)
        assert folds(box, edge, mm)
        assert mm == 8 or not folds(box, edge, mm - 1)


def folds(box: Box, edge: Any, mm: float) -> bool:
    box = box.model_copy(update={"chamfers": {"a": Chamfer(edge=edge, mm=(mm, mm))}})
    row = next(r for r in made(box).asked if r.name.startswith("cut-off edge"))
    return row.has_mm >= row.needs_mm


def test_a_folders_own_deduction_goes_with_the_angle(demo: Design) -> None:
    bend = made(demo.boxes["tank"]).sheet.bend
    assert bend.allowance_mm_at(90) == bend.allowance_mm
    assert bend.allowance_mm_at(45) == pytest.approx(math.radians(45) * (3 + 0.42 * 3))


@pytest.mark.parametrize("edge", [("left", "base"), ("front", "base"), ("right", "base")])
@pytest.mark.parametrize("along", [(30.0, 60.0), (60.0, 30.0), (12.0, 90.0)])
@pytest.mark.parametrize("radius", [0.5, 1.0, 3.0])
def test_no_blank_that_crosses_itself_is_ever_cut(tree: Any, edge: Any, along: Any, radius: float) -> None:
    """Either its outline is whole, or the box is foul and the part is withheld; never a crossed outline in the
    files."""
    tree["boxes"]["tank"].update(
        construction={"type": "folded", "bend_radius_mm": radius},
        chamfers={"c": {"edge": list(edge), "mm": list(along)}},
    )
    design = validate(tree)
    assembly = resolve(design, {})
    cut = {p.id: p for p in parts_of(assembly)}
    assert all(Polygon(p.outline).is_valid for p in cut.values())
    if "tank-tray" not in cut:
        assert any(f.code == "box.make" and f.state == "foul" for f in analyse(design, {}).findings)


@given(st.floats(0.5, 20))
@example(12.0)  # twice the setback: nothing is left between the flats
def test_a_deduction_that_metal_cannot_have_is_foul(given_mm: float) -> None:
    """t 3, R 3: between K = 1 (2.6) and K = 0 (7.3); 11.4 is another way of counting, and the blank would be short."""
    tree = copy.deepcopy(DEMO)
    tree["boxes"]["tank"].update(construction={"type": "folded", "folder": {"name": "shop", "deduction_mm": given_mm}})
    least, most = 2 * 6 - math.pi / 2 * 6, 2 * 6 - math.pi / 2 * 3
    foul = any(f.code == "box.make" and f.state == "foul" for f in analyse(validate(tree), {}).findings)
    assume(min(abs(given_mm - least), abs(given_mm - most)) > 0.01)
    assert foul == (not least <= given_mm <= most)


@given(st.floats(25, 60), st.floats(25, 60), st.sampled_from(["front", "aft", "left", "right"]), st.booleans())
def test_a_trays_blank_slants_where_its_box_does(base: float, wall: float, face: str, turned: bool) -> None:
    """Of the box as it is entered: so far along the base, so far up that wall, and nothing of the three others."""
    edge, mm = ([face, "base"], [wall, base]) if turned else (["base", face], [base, wall])
    tree = copy.deepcopy(DEMO)
    tree["boxes"]["tank"]["chamfers"] = {"c": {"edge": edge, "mm": mm}}
    design = validate(tree)
    sheet = made(design.boxes["tank"]).sheet
    outer, tray = sheet.outer_mm, tray_part("tank", "Tank box", sheet, made(design.boxes["tank"]).holes)
    bend, first = sheet.bend, math.degrees(math.atan2(wall, base))
    along = 0 if face in ("front", "aft") else 1
    whole = outer[along] + 2 * outer[2] - 2 * deduction(90)
    saved = base + wall - math.hypot(base, wall) + deduction(first) + deduction(90 - first) - deduction(90)
    assert tray.size_mm[along] == pytest.approx(whole - saved)
    assert tray.size_mm[1 - along] == pytest.approx(outer[1 - along] + 2 * outer[2] - 2 * deduction(90))
    assert bend.deduction_mm == pytest.approx(deduction(90))
    sign = 1 if face in ("aft", "right") else -1
    slanted = [b for b in tray.bends if b.angle_deg < 89.9]
    assert sorted(b.angle_deg for b in slanted) == pytest.approx(sorted((first, 90 - first)))
    assert all(sign * b.start[along] > 0 and b.start[along] == pytest.approx(b.end[along]) for b in slanted)


@given(
    st.sampled_from([["left", "base"], ["aft", "base"], ["front", "left"], ["aft", "right"]]),
    st.floats(0, 12),
    st.floats(20, 70),
)
def test_the_largest_edge_that_may_go_leaves_just_the_liner_however_it_slopes(
    edge: list[str], liner: float, deg: float
) -> None:
    tree = copy.deepcopy(DEMO)
    tree["boxes"]["tank"]["layers"] = lined(liner)
    design = validate(tree)
    box = design.boxes["tank"]
    shell = shell_of(box, design.module_kinds, standard_tables())
    sheet = box.construction.thickness_mm
    slope = (math.cos(math.radians(deg)), math.sin(math.radians(deg)))
    modules = [(m.low, m.high) for m in shell.modules]
    most = largest_chamfer((edge[0], edge[1]), sheet, liner, shell.outer_mm, modules, slope)  # type: ignore[arg-type]
    chamfer = Chamfer.model_validate({"edge": edge, "mm": most})
    left = min(inside_chamfer(chamfer, sheet, shell.outer_mm, m.low, m.high) for m in shell.modules)
    assert left == pytest.approx(liner)
    assert [abs(plane_of(chamfer, shell.outer_mm)[0][FACE_AT[face][0]]) for face in edge] == pytest.approx(slope)


@given(st.floats(20, 60), st.floats(20, 60), st.sampled_from(["front", "aft", "left", "right"]))
def test_a_wall_over_a_cut_edge_is_flat_from_where_its_bend_ends(base: float, wall: float, face: str) -> None:
    """tan(angle / 2) (R + t) beyond the slope, the angle being that between slope and wall; the other walls keep their
    height."""
    box = Box.model_validate(
        {**DEMO["boxes"]["tank"], "chamfers": {"c": {"edge": [face, "base"], "mm": [wall, base]}}}, strict=False
    )
    left = made(box).wall_at(face)  # type: ignore[arg-type]
    assert left.flat_from_mm == pytest.approx(wall + math.tan(math.atan2(base, wall) / 2) * (R + T))
    assert left.height_mm == pytest.approx(245 - wall)
    for other in {"front", "aft", "left", "right"} - {face}:
        whole = made(box).wall_at(other)  # type: ignore[arg-type]
        assert (whole.height_mm, whole.flat_from_mm) == pytest.approx((245, R + T))
