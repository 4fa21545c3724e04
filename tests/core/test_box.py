"""The shell round the blocks, and the flat parts it is folded from."""

import math

import manifold3d
import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from levelcradle.core.box import Shell, hole_places, lid_part, makeable, sheet_bend, shell_of, tray_part
from levelcradle.core.box.openings import screw_places
from levelcradle.core.box.pan import FIT_UP_MM, Pan, pan_outline
from levelcradle.core.design import Box, Design
from levelcradle.core.design.construction import Folded, Folder, LidScrews
from levelcradle.core.part import FlatPart

STEEL = 7850.0


def shell(design: Design, key: str, **more: object) -> tuple[Box, Shell]:
    box = design.boxes[key].model_copy(update=more)
    return box, shell_of(box, design.module_kinds, STEEL)


def test_a_wrapped_box_adds_up_every_allowance(demo: Design) -> None:
    """3 wall + 4 liner + 60 terminals + 612 + 14 plug + 4 + 3; 7 + 5 × 92 + 4 × 4 + 7; 3 + 8 + 226 + 8."""
    _, found = shell(demo, "bonnet")
    assert found.outer_mm == (700.0, 490.0, 245.0)
    assert found.over_lid_mm == (707.0, 497.0, 248.0)
    assert found.shell_kg == pytest.approx(31.1, abs=0.05)
    assert found.full_kg == pytest.approx(160.6, abs=0.05)


def test_modules_stand_inside_the_liners(demo: Design) -> None:
    _, found = shell(demo, "tank")
    assert min(m.low[1] for m in found.modules) == 3 + 4 + 60
    assert max(m.high[2] for m in found.modules) == 3 + 8 + 226
    assert [m.number for m in found.modules] == [1, 2, 3, 4]


@given(st.integers(1, 12), st.integers(1, 12))
def test_a_box_grows_with_its_blocks(few: int, more: int) -> None:
    from levelcradle.demo import demo_design

    design = demo_design()
    sizes = []
    for count in sorted((few, few + more)):
        block = design.boxes["tank"].blocks["a"]
        grown = block.model_copy(update={"counts": block.counts.model_copy(update={"aft": count})})
        sizes.append(shell(design, "tank", blocks={"a": grown})[1])
    assert sizes[0].outer_mm[0] < sizes[1].outer_mm[0]
    assert sizes[0].full_kg < sizes[1].full_kg
    assert sizes[0].outer_mm[1:] == sizes[1].outer_mm[1:]


def test_a_given_case_tells_what_is_left_and_what_is_missing(demo: Design) -> None:
    from levelcradle.core.design.box import Fixed

    _, found = shell(demo, "tank", inner=Fixed(type="fixed", size_mm=(400.0, 690.0, 242.0)))
    left = {gap.name: gap.has_mm for gap in found.gaps if gap.name.startswith("case")}
    assert left == {"case-aft": 12.0, "case-across": -4.0, "case-up": 0.0}


def test_two_blocks_in_a_box_are_held_against_each_other(demo: Design) -> None:
    block = demo.boxes["tank"].blocks["a"]
    beside = block.model_copy(update={"origin_mm": (0.0, 700.0, 0.0)})
    _, found = shell(demo, "tank", blocks={"a": block, "b": beside})
    gap = next(g for g in found.gaps if g.name == "a-b")
    assert (gap.has_mm, gap.needs_mm) == (88.0, 60.0)


@pytest.mark.parametrize(("length", "places"), [(700.0, [-210, -70, 70, 210]), (490.0, [-70, 70]), (394.0, [-70, 70]), (100.0, [0.0])])
def test_lid_screws_keep_their_spacing_and_off_the_corners(length: float, places: list[float]) -> None:
    assert screw_places(length, LidScrews()) == places


def test_a_hole_is_placed_by_two_distances_from_two_edges(demo: Design) -> None:
    hole = {"name": "gland", "face": "aft", "from": ["right", "base"], "u_mm": 80.0, "v_mm": 60.0, "diameter_mm": 20.0}
    box = Box.model_validate(demo.boxes["tank"].model_dump(by_alias=True) | {"openings": {"gland": hole}})
    place = next(h for h in hole_places(box, (394.0, 700.0, 245.0)) if h.name == "gland")
    assert place.at == (394.0, 620.0, 60.0)


def test_a_hole_too_near_the_bend_is_told(demo: Design) -> None:
    hole = {"name": "drain", "face": "aft", "from": ["right", "base"], "u_mm": 80.0, "v_mm": 15.0, "diameter_mm": 20.0}
    box = Box.model_validate(demo.boxes["tank"].model_dump(by_alias=True) | {"openings": {"drain": hole}})
    row = next(r for r in makeable(box, (394.0, 700.0, 245.0)) if r.name == "hole drain")
    assert (row.has_mm, row.needs_mm) == (5.0, 12.0)


# --- folding -----------------------------------------------------------------------------------------------------


def cuboid(low: tuple[float, ...], high: tuple[float, ...]) -> manifold3d.Manifold:
    size = np.subtract(high, low)
    return manifold3d.Manifold.cube(size).translate(low)


def quarter_bend(length: float, radius: float, t: float) -> manifold3d.Manifold:
    """A quarter of a pipe along y, from straight down to straight aft, its centre at the origin."""
    outer = manifold3d.Manifold.cylinder(length, radius + t, radius + t, 256)
    inner = manifold3d.Manifold.cylinder(length, radius, radius, 256)
    corner = cuboid((0, -radius - t, 0), (radius + t, 0, length))
    return ((outer - inner) ^ corner).rotate((90, 0, 0)).translate((0, length, 0))


def both(pan: Pan, what: str) -> tuple[float, float]:
    """A figure of the blank along and across."""
    return getattr(pan.sides["aft"], what), getattr(pan.sides["right"], what)


def folded(pan: Pan) -> list[manifold3d.Manifold]:
    """Base, four bends and four walls as solids, from the blank's own figures; outside corner of the base at zero."""
    t, r, back = pan.bend.thickness_mm, pan.bend.radius_mm, pan.bend.setback_mm
    length, width, height = pan.length_mm, pan.width_mm, pan.height_mm
    (a, b), (hx, hy), (sx, sy) = both(pan, "base_half"), both(pan, "rim"), both(pan, "wall_start")
    rise = (hx - sx, hy - sy)
    end = t + FIT_UP_MM
    base = cuboid((back, back, 0), (back + 2 * a, back + 2 * b, t))
    aft = quarter_bend(2 * b, r, t).translate((length - back, back, back))
    front = quarter_bend(2 * b, r, t).mirror((1, 0, 0)).translate((back, back, back))
    right = quarter_bend(2 * a, r, t).rotate((0, 0, 90)).translate((back + 2 * a, width - back, back))
    left = quarter_bend(2 * a, r, t).mirror((1, 0, 0)).rotate((0, 0, 90)).translate((back + 2 * a, back, back))
    walls = [
        cuboid((0, end, back), (t, width - end, back + rise[0])),
        cuboid((length - t, end, back), (length, width - end, back + rise[0])),
        cuboid((0, 0, back), (length, t, back + rise[1])),
        cuboid((0, width - t, back), (length, width, back + rise[1])),
    ]
    assert back + rise[0] == pytest.approx(height)
    return [base, aft, front, right, left, *walls]


@pytest.mark.parametrize("key", ["bonnet", "tank"])
@pytest.mark.parametrize("which", ["tray", "lid"])
def test_the_folded_blank_has_the_outside_size_and_no_overlap(demo: Design, key: str, which: str) -> None:
    box, found = shell(demo, key)
    bend = sheet_bend(box, demo.tables.materials["s235"])
    size = found.outer_mm if which == "tray" else (found.over_lid_mm[0], found.over_lid_mm[1], box.cap.edge_mm)
    pieces = folded(Pan(*size, bend))
    assert all(piece.status() == manifold3d.Error.NoError for piece in pieces)
    whole = manifold3d.Manifold.batch_boolean(pieces, manifold3d.OpType.Add)
    low, high = np.array(whole.bounding_box()).reshape(2, 3)
    assert np.allclose(high - low, size, atol=1e-6)
    assert sum(p.volume() for p in pieces) - whole.volume() == pytest.approx(0.0, abs=1.0)


def parts(design: Design, key: str, **more: object) -> tuple[Box, Shell, FlatPart, FlatPart]:
    box, found = shell(design, key, **more)
    material = design.tables.materials[box.material]
    return (
        box,
        found,
        tray_part(key, box, found.outer_mm, material),
        lid_part(key, box, found.outer_mm, found.over_lid_mm, material),
    )


def test_the_blank_is_the_outside_less_its_deductions(demo: Design) -> None:
    _, found, tray, _ = parts(demo, "bonnet")
    deduction = 12 - math.pi / 2 * (3 + 0.42 * 3)
    assert tray.size_mm == pytest.approx((700 + 2 * 245 - 2 * deduction, 490 + 2 * 245 - 2 * deduction))
    assert tray.mass_kg < found.shell_kg


def test_the_folders_own_deduction_is_used_and_stands_on_the_sheet(demo: Design) -> None:
    _, _, tray, _ = parts(demo, "bonnet", construction=Folded(folder=Folder(name="Mill Lane Folding", deduction_mm=5.0)))
    assert tray.size_mm == pytest.approx((1180.0, 970.0))
    assert any("deduction given by Mill Lane Folding" in note for note in tray.notes)


def test_holes_of_lid_and_tray_meet_when_folded(demo: Design) -> None:
    """Each lid hole sits as high over the base as the tray's rivet-nut hole behind it."""
    box, found, tray, lid = parts(demo, "tank")
    bend = sheet_bend(box, demo.tables.materials["s235"])
    deck = Pan(found.outer_mm[0], found.outer_mm[1], found.outer_mm[2], bend)
    cap = Pan(found.over_lid_mm[0], found.over_lid_mm[1], box.cap.edge_mm, bend)
    deep, low = (pan.sides["right"].wall_start for pan in (deck, cap))
    heights = {round(abs(h.at[1]) - deep + bend.setback_mm, 6) for h in tray.holes if abs(h.at[1]) > deep}
    drops = {round(abs(h.at[1]) - low + bend.setback_mm, 6) for h in lid.holes if abs(h.at[1]) > low}
    (height,), (drop,) = heights, drops
    assert height == pytest.approx(found.over_lid_mm[2] - drop)
    assert len(tray.holes) == len(lid.holes) == 12


@given(st.floats(60, 900), st.floats(60, 900), st.floats(30, 300))
def test_a_blank_is_symmetric_and_its_area_is_its_pieces(length: float, width: float, height: float) -> None:
    from levelcradle.demo import demo_design

    design = demo_design()
    bend = sheet_bend(design.boxes["tank"], design.tables.materials["s235"])
    pan = Pan(length, width, height, bend)
    outline = pan_outline(pan)
    assert {(round(-x, 9), round(y, 9)) for x, y in outline} == {(round(x, 9), round(y, 9)) for x, y in outline}
    part = FlatPart("x", "x", 1, "s235", "", 3.0, STEEL, outline, (), ())
    (a, b), rise = both(pan, "base_half"), height - bend.setback_mm
    end = width / 2 - 3.0 - FIT_UP_MM
    area = 4 * a * b + 4 * bend.allowance_mm * (a + b) + 2 * rise * (length + 2 * end)
    assert part.area_mm2 == pytest.approx(area)
