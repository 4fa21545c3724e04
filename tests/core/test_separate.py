"""Sides that a folder does not take in one piece: cut apart by his limits, of the same box, and nothing of it lost."""

import math
from itertools import combinations
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import Point, Polygon

from levelcradle.core.analysis import analyse
from levelcradle.core.assembly import PlacedBox, resolve
from levelcradle.core.design import validate
from levelcradle.core.fold import fold
from levelcradle.core.part import FlatPart
from levelcradle.core.solids import corner_points, nearest
from tests.plain import box_at, plain_car

WAYS = {(): {}, ("front", "aft"): {"deepest_mm": 50.0}, ("left", "right"): {"longest_bend_mm": 240.0}}
NEVER = [("all", ("base", "left")), ("all", ("base", "aft"))]  # a slope is folded
CUTS = [None, ("front", "left"), ("base", "left"), ("base", "aft"), ("top", "left"), ("top", "front")]


def car(construction: dict[str, Any], cut: tuple[str, str] | None = None, **more: Any) -> dict[str, Any]:
    chamfers = {"a": {"edge": cut, "mm": (25.0, 32.0)}} if cut else {}
    box = box_at((0, 0, 300), (1, 1, 2), construction={"type": "folded", **construction}, chamfers=chamfers, **more)
    return plain_car(boxes={"x": box})


def made(tree: dict[str, Any]) -> tuple[PlacedBox, dict[str, FlatPart]]:
    box = resolve(validate(tree), {}).boxes["x"]
    return box, {part.id: part for part in box.shell.made.parts("x", "X")}


def folded(limits: dict[str, float], **more: Any) -> dict[str, Any]:
    return {"thickness_mm": 2.0, "bend_radius_mm": 3.0, "folder": limits, **more}


@given(
    limits=st.fixed_dictionaries(
        {},
        optional={
            "longest_bend_mm": st.floats(150, 320),
            "deepest_mm": st.floats(100, 250),
            "sheet_long_mm": st.floats(250, 800),
            "sheet_wide_mm": st.floats(200, 700),
        },
    ),
    cut=st.sampled_from(CUTS),
)
def test_what_is_cut_is_taken_by_him_and_no_more_is_cut_apart_than_must_be(
    limits: dict[str, float], cut: tuple[str, str] | None
) -> None:
    """Asked of the parts themselves: their bends, their sizes, whether four sides go up between his fingers."""
    box, parts = made(car(folded(limits), cut))
    if not parts:
        findings = [f for f in box.shell.made.findings("boxes/x", "X") if f.state == "foul"]
        assert {f.label for f in findings} & {"longest bend", "deepest tray", "sheet length", "sheet width"}
        return
    for part in parts.values():
        assert taken(part, limits)
    tray = parts["x-tray"]
    if len(four_sides(tray)) < 4:  # in one piece he would not take it
        whole, _ = made(car(folded({}), cut))
        assert not taken(next(p for p in whole.shell.made.parts("x", "X") if p.id == "x-tray"), limits, box)


def four_sides(part: FlatPart) -> set[tuple[bool, bool]]:
    """Which ways its bends lie off the middle."""
    mids = [((b.start[0] + b.end[0]) / 2, (b.start[1] + b.end[1]) / 2) for b in part.bends]
    return {(abs(x) > abs(y), (x if abs(x) > abs(y) else y) > 0) for x, y in mids}


def taken(part: FlatPart, limits: dict[str, float], box: PlacedBox | None = None) -> bool:
    long, wide = sorted(part.size_mm, reverse=True)
    four = len(four_sides(part)) == 4 and part.id == "x-tray"
    deep = fold_height(part) if four else 0.0
    asked = {
        "longest_bend_mm": max((math.dist(b.start, b.end) for b in part.bends), default=0.0),
        "deepest_mm": deep, "sheet_long_mm": long, "sheet_wide_mm": wide,
    }  # fmt: skip
    return all(asked[name] <= most + 1e-6 for name, most in limits.items())


def fold_height(part: FlatPart) -> float:
    points = corner_points(list(fold(part).solids()))
    return float(points[:, 2].max() - points[:, 2].min())


@pytest.mark.parametrize("cut", CUTS)
@pytest.mark.parametrize("way", [*WAYS, "all"])
@pytest.mark.parametrize("lid_mm", [None, 3.0])
def test_the_box_is_the_same_its_parts_weigh_what_it_does_and_none_stands_in_another(
    way: Any, cut: tuple[str, str] | None, lid_mm: float | None
) -> None:
    limits = {**WAYS[("left", "right")], "sheet_long_mm": 330.0} if way == "all" else WAYS[way]
    lid = {"lid": {"type": "cap", "thickness_mm": lid_mm}}
    box, parts = made(car(folded(limits), cut, closures=lid))
    whole, _ = made(car(folded({}), cut, closures=lid))
    if not parts:
        assert (way, cut) in NEVER
        return
    assert box.shell.outer_mm == whole.shell.outer_mm
    assert box.shell.inner_mm == whole.shell.inner_mm
    assert box.shell.over_mm == whole.shell.over_mm
    metal = [p for p in box.shell.pieces if p.role != "fastener"]
    assert sum(p.mass_kg for p in metal) == pytest.approx(sum(p.mass_kg for p in parts.values()), rel=1e-9)
    for one, other in combinations(metal, 2):
        if (one.role == "closure") != (other.role == "closure") or "bend" in one.name + other.name:
            continue
        gaps = [nearest(a, b).gap_mm for a in one.solids for b in other.solids]
        assert min(gaps) > -1e-3, (one.name, other.name)
    low, high = box.shell.made.over
    for piece in metal:
        points = corner_points(list(piece.solids))
        assert (points.min(axis=0) >= [v - 1e-6 for v in low]).all()
        assert (points.max(axis=0) <= [v + 1e-6 for v in high]).all()
    for part in parts.values():
        blank = Polygon(part.outline)
        assert blank.is_valid
        assert blank.exterior.is_ccw
        assert all(blank.contains(Point(h.at).buffer(h.diameter_mm / 2)) for h in part.holes)


@pytest.mark.parametrize("way", ["ends", "all"])
def test_a_panel_stands_where_its_solids_do_and_its_holes_are_where_the_box_has_them(way: str) -> None:
    limits = WAYS[("front", "aft")] if way == "ends" else {"longest_bend_mm": 1.0}
    hole = {"name": "gland", "face": "front", "from": ["left", "base"], "u_mm": 40.0, "v_mm": 60.0, "diameter_mm": 20.0}
    box, parts = made(car(folded(limits), openings={"g": hole}, closures={"lid": {"type": "cap", "edge_mm": 25.0}}))
    solids: dict[str, list[Any]] = {}
    for piece in box.shell.made.pieces():
        solids.setdefault(piece.part, []).extend(piece.solids)
    panels = [part for part in parts.values() if part.id.endswith(("-wall", "-edge"))]
    assert len(panels) == (2 if way == "ends" else 8)
    for part in panels:
        there, found = corner_points(solids[part.id[2:]]), corner_points(list(fold(part).solids()))
        assert found.min(axis=0) == pytest.approx(there.min(axis=0), abs=1e-6)
        assert found.max(axis=0) == pytest.approx(there.max(axis=0), abs=1e-6)
    front = parts["x-front-wall"]
    assert front.stand
    (gland,) = [h for h in front.holes if h.diameter_mm == 20.0]
    assert front.stand.placement.point((*gland.at, 0.0)) == pytest.approx((0.0, 40.0, 60.0))
    screws = [h for part in parts.values() for h in part.holes if h.purpose == "lid screw"]
    assert len(screws) == 2 * len([p for p in box.shell.outside if p.role == "fastener"])


def test_a_base_of_its_own_is_a_plate_as_thick_as_said_with_four_walls_on_it() -> None:
    thin, _ = made(car(folded({})))
    box, parts = made(car(folded({}, base_mm=6.0)))
    assert box.shell.inner_mm == thin.shell.inner_mm
    assert box.shell.outer_mm[2] == pytest.approx(thin.shell.outer_mm[2] + 4.0)
    assert parts["x-tray"].thickness_mm == 6.0
    assert not parts["x-tray"].bends
    assert {p for p in parts if p.endswith("-wall")} == {f"x-{f}-wall" for f in ("front", "aft", "left", "right")}
    assert sum(p.mass_kg for p in box.shell.pieces if p.role != "fastener") == pytest.approx(
        sum(p.mass_kg for p in parts.values())
    )
    low = min(m.low[2] for m in box.shell.modules)
    assert low - min(m.low[2] for m in thin.shell.modules) == pytest.approx(4.0)


def test_a_base_of_its_own_has_no_edges_cut_off() -> None:
    tree = car(folded({}, base_mm=6.0), ("base", "left"))
    assert any(f.state == "foul" and f.label == "base of its own" for f in analyse(validate(tree), {}).findings)
    assert not made(tree)[1]


@pytest.mark.parametrize("metal", ["s235", "al5754"])
def test_what_is_welded_holds_a_wall_from_turning_in_steel_alone(metal: str) -> None:
    """A welded edge of aluminium is soft: the panel carries less than the folded wall did. EN 1999-1-1, 6.1.6."""
    whole, apart = (made(car(folded(limits), material=metal))[0] for limits in ({}, WAYS[("front", "aft")]))
    carries = [box.shell.made.bearing_at("front").carries_n((50.0, 50.0)) for box in (whole, apart)]  # type: ignore[union-attr]
    floor = [box.shell.made.bearing_at("base").carries_n((50.0, 50.0)) for box in (whole, apart)]  # type: ignore[union-attr]
    if metal == "s235":
        assert carries[0] == carries[1]
        assert floor[0] == floor[1]
    else:
        assert carries[0] > carries[1]
        assert floor[0] > floor[1]


@given(radius=st.floats(1.0, 6.0), clearance=st.floats(0.0, 5.0), up=st.floats(0.0, 6.0))
def test_a_lid_lies_on_the_rim_or_is_said_to_ride_as_far_up_as_its_round_bends_make_it(
    radius: float, clearance: float, up: float
) -> None:
    """The rim's sharp corner, ``clearance`` inside the lid's edge, against the circle inside its bend: lifted by what
    is said it is clear of that, by less it is in it."""
    lid = {"lid": {"type": "cap", "clearance_mm": clearance}}
    box, _ = made(car({"thickness_mm": 2.0, "bend_radius_mm": radius}, closures=lid))
    rides = [f.value or 0.0 for f in box.shell.made.findings("boxes/x", "X") if f.label == "lid on the rim"]
    off_middle = math.hypot(radius - clearance, radius - up)
    in_the_bend = clearance < radius and up < radius and off_middle > radius + 1e-9
    assert in_the_bend == (up < (rides[0] if rides else 0.0) - 1e-9) or off_middle == pytest.approx(radius)


@pytest.mark.parametrize("way", [*WAYS, "all"])
@pytest.mark.parametrize("base_mm", [None, 6.0])
def test_tabs_stand_in_notches_of_the_base_and_weigh_what_they_are(way: Any, base_mm: float | None) -> None:
    """Each part as it stands: a tab goes down to the outside of the base and nowhere into its metal."""
    limits = {**WAYS[("left", "right")], "sheet_long_mm": 330.0} if way == "all" else WAYS[way]
    box, parts = made(car(folded(limits, tabs=True, base_mm=base_mm)))
    walls = [part for key, part in parts.items() if key.endswith("-wall")]
    tray = parts["x-tray"]
    assert tray.stand
    blank = Polygon(tray.outline)
    assert blank.is_valid
    back, tabs, foot = tray.stand.placement.inverse, 0, 0.0
    for wall in walls:
        assert wall.stand
        place = back.after(wall.stand.placement)
        corners = [(x, y) for x, y in wall.outline if y < tray.thickness_mm]
        assert min(y for _, y in wall.outline) == pytest.approx(foot), "down to the outside"
        for (a, _), (b, _) in zip(corners[::2], corners[1::2], strict=True):
            tabs += 1
            ring = [place.point((x, 1.0, z))[:2] for x, z in ((a, 0.0), (b, 0.0), (b, 2.0), (a, 2.0))]
            assert blank.intersection(Polygon(ring)).area < 1e-6
            assert blank.buffer(0.5).intersects(Polygon(ring)), "in a notch, not beside the base"
    assert tabs >= 2 * len(walls)
    metal = [p for p in box.shell.pieces if p.role != "fastener"]
    assert sum(p.mass_kg for p in metal) == pytest.approx(sum(p.mass_kg for p in parts.values()), rel=1e-9)


def test_walls_that_are_welded_on_ask_for_no_brake() -> None:
    """A base too narrow, and walls too low, to be folded."""
    for size in ((300.0, 20.0, 100.0), (300.0, 200.0, 12.0)):
        inner = {"type": "fixed", "size_mm": list(size)}
        lid = {"lid": {"type": "cap", "edge_mm": 18.0}}
        whole, _ = made(car({"thickness_mm": 3.0}, inner=inner, closures=lid))
        apart, _ = made(car({"thickness_mm": 3.0, "folder": {"longest_bend_mm": 1.0}}, inner=inner, closures=lid))
        told = [{f.label for f in box.shell.made.findings("x", "X")} & {"base", "wall"} for box in (whole, apart)]
        assert (len(told[0]), told[1]) == (1, set()), size
