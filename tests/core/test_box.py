"""The shell round the blocks, and the flat parts it is folded from."""

import math

import manifold3d
import numpy as np
import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from levelcradle.core.box import Shell, shell_of
from levelcradle.core.box.folded import FoldedBox
from levelcradle.core.box.folded.cap import CapLid, screw_places
from levelcradle.core.box.folded.flat_pattern import FIT_UP_MM, FlatPattern, pan_bends, pan_outline
from levelcradle.core.design import Box, Design, standard_tables
from levelcradle.core.design.box import Chamfer
from levelcradle.core.design.construction import Cap, Folded, FoldingShop, LidScrews
from levelcradle.core.part import FlatPart

STEEL = standard_tables().materials["s235"]


def made(box: Box, inner: tuple[float, float, float] = (388.0, 694.0, 242.0)) -> FoldedBox:
    return FoldedBox.round(box, box.construction, inner, STEEL)


def shell(design: Design, key: str, **more: object) -> tuple[Box, Shell]:
    box = design.boxes[key].model_copy(update=more)
    return box, shell_of(box, design.module_kinds, standard_tables())


def test_a_wrapped_box_adds_up_every_allowance(demo: Design) -> None:
    """3 wall + 4 liner + 60 terminals + 612 + 14 plug + 4 + 3; 7 + 5 × 92 + 4 × 4 + 7; 3 + 8 + 226 + 8."""
    _, found = shell(demo, "bonnet")
    assert found.outer_mm == (700.0, 490.0, 245.0)
    assert found.over_mm == (707.0, 497.0, 248.0)
    assert found.shell_kg == pytest.approx(30.79, abs=0.005)
    assert found.full_kg == pytest.approx(160.29, abs=0.005)


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


@pytest.mark.parametrize(
    ("length", "places"), [(700.0, [-210, -70, 70, 210]), (490.0, [-70, 70]), (394.0, [-70, 70]), (100.0, [0.0])]
)
def test_lid_screws_keep_their_spacing_and_off_the_corners(length: float, places: list[float]) -> None:
    assert screw_places(length, LidScrews()) == places


def test_a_hole_is_placed_by_two_distances_from_two_edges(demo: Design) -> None:
    hole = {"name": "gland", "face": "aft", "from": ["right", "base"], "u_mm": 80.0, "v_mm": 60.0, "diameter_mm": 20.0}
    box = Box.model_validate(demo.boxes["tank"].model_dump(by_alias=True) | {"openings": {"gland": hole}})
    place = next(h for h in made(box).holes if h.name == "gland")
    assert place.at == (394.0, 620.0, 60.0)


def test_a_hole_too_near_the_bend_is_told(demo: Design) -> None:
    hole = {"name": "drain", "face": "aft", "from": ["right", "base"], "u_mm": 80.0, "v_mm": 15.0, "diameter_mm": 20.0}
    box = Box.model_validate(demo.boxes["tank"].model_dump(by_alias=True) | {"openings": {"drain": hole}})
    row = next(r for r in made(box).asked if r.name == "hole drain")
    assert (row.has_mm, row.needs_mm) == (5.0, 12.0)


# --- folding -----------------------------------------------------------------------------------------------------


edge = st.sampled_from([("left", "base"), ("aft", "base"), ("front", "left"), ("aft", "right")])


@given(edge, st.floats(14, 60), st.floats(14, 60), st.floats(1, 4), st.floats(1, 8), st.floats(20, 40))
@settings(max_examples=15)
def test_its_solids_weigh_what_is_cut_and_lie_in_its_outside(
    edge: tuple[str, str], one: float, other: float, sheet: float, radius: float, rim: float
) -> None:
    """Folded up, tray and lid weigh their blanks; no two pieces stand in each other; none stands out of what gaps are
    measured to."""
    from levelcradle.demo import demo_design

    box = demo_design().boxes["tank"].model_copy(update={
        "construction": Folded(thickness_mm=sheet, bend_radius_mm=radius), "closures": {"lid": Cap(edge_mm=rim)},
        "chamfers": {"c": Chamfer(edge=edge, mm=(one, other))},
    })  # fmt: skip
    assume(all(row.has_mm >= row.needs_mm for row in made(box).asked))
    found = made(box)
    pieces, parts = [p for p in found.pieces() if p.role != "fastener"], list(found.parts("x", "X"))
    assume(parts)
    cut = sum(part.mass_kg for part in parts)
    assert sum(p.mass_kg for p in pieces) == pytest.approx(cut, rel=1e-6)
    halves = []
    for lid in (True, False):
        solids = [
            manifold3d.Manifold.hull_points(s.points) for p in pieces for s in p.solids if (p.role == "closure") == lid
        ]
        halves.append(manifold3d.Manifold.batch_boolean(solids, manifold3d.OpType.Add))
        apart = sum(s.volume() for s in solids)
        assert apart - halves[-1].volume() == pytest.approx(0.0, abs=(1e-5 if "base" in edge else 1e-4) * apart)
    holes = sum(math.pi / 4 * h.diameter_mm**2 for part in parts for h in part.holes) * sheet
    assert sum(half.volume() for half in halves) == pytest.approx(
        cut / 7850e-9 + holes, rel=1e-3 if "base" in edge else 3e-3
    )
    whole = halves[0] + halves[1]
    outside = [manifold3d.Manifold.hull_points(p.solid.points) for p in found.outside()]
    left = whole - manifold3d.Manifold.batch_boolean(outside, manifold3d.OpType.Add)
    assert left.volume() == pytest.approx(0.0, abs=1.0)
    low, high = np.array(whole.bounding_box()).reshape(2, 3)
    assert np.allclose((low, high), found.over, atol=1e-6)


def test_the_centre_of_a_box_is_that_of_its_solids(demo: Design) -> None:
    """Of tray and lid without heads and holes: by the volumes of the kernel, not by the figures of the pieces."""
    pieces = [p for p in made(demo.boxes["tank"].model_copy(update={"openings": {}})).pieces() if p.role != "fastener"]
    rows = [(manifold3d.Manifold.hull_points(s.points), s) for p in pieces for s in p.solids]
    volumes = np.array([m.volume() for m, _ in rows])
    middles = np.array([s.points.mean(axis=0) for _, s in rows])
    by_kernel = (volumes[:, None] * middles).sum(axis=0) / volumes.sum()
    masses = np.array([p.mass_kg for p in pieces])
    by_figures = (masses[:, None] * np.array([p.centre for p in pieces])).sum(axis=0) / masses.sum()
    assert np.allclose(by_kernel, by_figures, atol=0.2)


def both(pan: FlatPattern, what: str) -> tuple[float, float]:
    """A figure of the blank along and across."""
    return getattr(pan.sides["aft"], what), getattr(pan.sides["right"], what)


def parts(design: Design, key: str, **more: object) -> tuple[Box, Shell, FlatPart, FlatPart]:
    box, found = shell(design, key, **more)
    tray, lid = found.made.parts(key, box.name)
    return box, found, tray, lid


def test_the_blank_is_the_outside_less_its_deductions(demo: Design) -> None:
    _, found, tray, _ = parts(demo, "bonnet")
    deduction = 12 - math.pi / 2 * (3 + 0.42 * 3)
    assert tray.size_mm == pytest.approx((700 + 2 * 245 - 2 * deduction, 490 + 2 * 245 - 2 * deduction))
    assert tray.mass_kg < found.shell_kg


def test_the_folders_own_deduction_is_used_and_stands_on_the_sheet(demo: Design) -> None:
    _, _, tray, _ = parts(
        demo, "bonnet", construction=Folded(folder=FoldingShop(name="Mill Lane Folding", deduction_mm=5.0))
    )
    assert tray.size_mm == pytest.approx((1180.0, 970.0))
    assert any("deduction given by Mill Lane Folding" in note for note in tray.notes)


def test_holes_of_lid_and_tray_meet_when_folded(demo: Design) -> None:
    """Each lid hole sits as high over the base as the tray's rivet-nut hole behind it."""
    box, found, tray, lid = parts(demo, "tank", openings={})
    bend = made(box).sheet.bend
    deck = FlatPattern(found.outer_mm[0], found.outer_mm[1], found.outer_mm[2], bend)
    cap = FlatPattern(found.over_mm[0], found.over_mm[1], box.lid.edge_mm, bend)
    deep, low = (pan.sides["right"].wall_start_mm for pan in (deck, cap))
    heights = {round(abs(h.at[1]) - deep + bend.setback_mm, 6) for h in tray.holes if abs(h.at[1]) > deep}
    drops = {round(abs(h.at[1]) - low + bend.setback_mm, 6) for h in lid.holes if abs(h.at[1]) > low}
    (height,), (drop,) = heights, drops
    assert height == pytest.approx(found.over_mm[2] - drop)
    assert len(tray.holes) == len(lid.holes) == 12


@given(st.floats(60, 900), st.floats(60, 900), st.floats(30, 300))
def test_a_blank_is_symmetric_and_its_area_is_its_pieces(length: float, width: float, height: float) -> None:
    from levelcradle.demo import demo_design

    design = demo_design()
    bend = made(design.boxes["tank"]).sheet.bend
    pan = FlatPattern(length, width, height, bend)
    outline = pan_outline(pan)
    assert {(round(-x, 9), round(y, 9)) for x, y in outline} == {(round(x, 9), round(y, 9)) for x, y in outline}
    part = FlatPart("x", "x", 1, "s235", "", 3.0, 7850.0, outline, (), ())
    (a, b), rise = both(pan, "base_half_mm"), height - bend.setback_mm
    end = width / 2 - 3.0 - FIT_UP_MM
    area = 4 * a * b + 4 * bend.allowance_mm * (a + b) + 2 * rise * (length + 2 * end)
    assert part.area_mm2 == pytest.approx(area)


@pytest.mark.parametrize(
    ("limit", "name", "parts"),
    [("longest_bend_mm", "lid edges apart", 4), ("deepest_mm", "walls apart", 4), ("shortest_mm", "lid edge", 0)],
)
def test_what_the_folders_machine_does_not_take_is_cut_apart_or_nothing_is_cut(
    limit: str, name: str, parts: int
) -> None:
    """Just what he takes is taken whole; a tenth less, or more of a flange than there is, is not."""
    from levelcradle.demo import demo_design

    box = demo_design().boxes["bonnet"]
    sheet, lid = made(box).sheet, made(box).lid
    assert isinstance(lid, CapLid)

    def told(mm: float | None) -> tuple[list[str], int]:
        his = box.model_copy(update={"construction": Folded(folder=FoldingShop.model_validate({limit: mm}))})
        found = made(his)
        labels = [f.label for f in found.findings("boxes/x", "X") if f.label != "lid on the rim"]
        return labels, sum(1 for _ in found.parts("x", "X"))

    assert told(None) == ([], 2)
    lines = [math.dist(bend.start, bend.end) for pan in (sheet.tray, lid.pan) for bend in pan_bends(pan)]
    just, less = {
        "longest_bend_mm": (max(lines), max(lines) - 0.1),
        "deepest_mm": (sheet.outer_mm[2], sheet.outer_mm[2] - 0.1),
        "shortest_mm": (lid.cap.edge_mm, lid.cap.edge_mm + 0.1),
    }[limit]
    assert told(just) == ([], 2)
    assert told(less) == ([name], parts)
