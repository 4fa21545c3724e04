"""A flat lid on a flange: the ring is whole, every screw finds its nut, and what stands out and in is asked there."""

import math
from itertools import combinations, pairwise
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import Point, Polygon
from shapely.ops import unary_union

from levelcradle.core.assembly import PlacedBox, resolve
from levelcradle.core.box.folded.flange import NUT_MM
from levelcradle.core.design import validate
from levelcradle.core.errors import DesignError
from levelcradle.core.fold import fold
from levelcradle.core.part import FlatPart
from levelcradle.core.solids import corner_points, nearest
from tests.plain import a_block, box_at, found, plain_car

AT, T = (1000.0, 0.0, 400.0), 3.0
CUTS = [None, ("front", "left"), ("base", "left")]


def box(cut: tuple[str, str] | None = None, counts: tuple[int, int, int] = (2, 2, 1), **lid: Any) -> dict[str, Any]:
    chamfers = {"a": {"edge": cut, "mm": (62.0, 75.0)}} if cut else {}
    flange = {"type": "flange", **lid}
    return box_at(AT, counts, construction={"type": "folded"}, chamfers=chamfers, closures={"lid": flange})


def placed(of: dict[str, Any], **more: Any) -> tuple[PlacedBox, dict[str, FlatPart]]:
    one = resolve(validate(plain_car(boxes={"x": {**of, **more}})), {}).boxes["x"]
    return one, {part.id: part for part in one.shell.made.parts("x", "X")}


def ring_of(part: FlatPart) -> Polygon:
    """Its outline where it stands, from above."""
    assert part.stand
    return Polygon([part.stand.placement.point((x, y, 0.0))[:2] for x, y in part.outline])


def holes_of(part: FlatPart, purpose: str) -> list[tuple[float, ...]]:
    assert part.stand
    rows = (part.stand.placement.point((*h.at, 0.0)) for h in part.holes if h.purpose == purpose)
    return sorted((round(x, 6), round(y, 6)) for x, y, _ in rows)


@pytest.mark.parametrize("cut", CUTS)
@pytest.mark.parametrize("inward", [False, True])
@pytest.mark.parametrize("window", [False, True])
def test_the_ring_is_whole_and_the_parts_weigh_what_the_box_does(
    cut: tuple[str, str] | None, inward: bool, window: bool
) -> None:
    one, parts = placed(box(cut, inward=inward, window=window))
    capped, _ = placed({**box(cut), "closures": {"lid": {"type": "cap"}}})
    assert one.shell.outer_mm == capped.shell.outer_mm
    assert one.shell.inner_mm == capped.shell.inner_mm
    strips = [ring_of(part) for key, part in parts.items() if "flange" in key]
    assert len(strips) == (5 if cut == ("front", "left") else 4)
    whole = unary_union([strip.buffer(1e-4) for strip in strips])
    assert len(whole.interiors) == 1
    assert sum(strip.area for strip in strips) == pytest.approx(whole.area, rel=1e-3), "none lies on another"
    metal = [p for p in one.shell.pieces if p.role != "fastener" and (p.part or p.role == "slope")]
    assert sum(p.mass_kg for p in metal) == pytest.approx(sum(p.mass_kg for p in parts.values()), rel=1e-9)
    assert ("x-lid" in parts) != window
    assert window == any("polycarbonate" in what for what, _ in one.shell.bought())
    for a, b in combinations([p for p in one.shell.pieces if p.role != "fastener"], 2):
        if "bend" not in a.name + b.name:
            assert min(nearest(s, t).gap_mm for s in a.solids for t in b.solids) > -1e-3, (a.name, b.name)


@pytest.mark.parametrize("cut", CUTS)
@pytest.mark.parametrize("inward", [False, True])
def test_a_part_stands_where_its_solid_does(cut: tuple[str, str] | None, inward: bool) -> None:
    one, parts = placed(box(cut, inward=inward))
    low, high = one.shell.made.over
    for piece in one.shell.made.pieces():
        if piece.part.startswith(("flange", "lid")):
            there, folded = (
                corner_points(list(piece.solids)),
                corner_points(list(fold(parts[f"x-{piece.part}"]).solids())),
            )
            assert folded.min(axis=0) == pytest.approx(there.min(axis=0), abs=1e-6)
            assert folded.max(axis=0) == pytest.approx(there.max(axis=0), abs=1e-6)
            assert (there.min(axis=0) >= [v - 1e-6 for v in low]).all()
            assert (there.max(axis=0) <= [v + 1e-6 for v in high]).all()


def test_what_is_opened_in_its_top_goes_through_the_lid_and_heads_stand_on_it() -> None:
    hole = {"name": "gland", "from": ["front", "left"], "u_mm": 90.0, "v_mm": 70.0, "diameter_mm": 40.0}
    bare, whole = placed(box())
    holes = {"t": {**hole, "face": "top"}, "l": {**hole, "face": "left", "from": ["front", "base"]}}
    one, parts = placed(box(hinge="aft"), openings=holes)
    (at,) = holes_of(parts["x-lid"], "t")
    assert at == (90.0, 70.0)
    lost = whole["x-lid"].mass_kg - parts["x-lid"].mass_kg
    assert lost == pytest.approx(math.pi / 4 * 40.0**2 * T * 7850e-9)
    metal = [p for p in one.shell.pieces if p.role != "fastener"]
    assert sum(p.mass_kg for p in metal) == pytest.approx(sum(p.mass_kg for p in parts.values()), rel=1e-9)
    top = one.shell.made.over[1][2]
    heads = [p for p in one.shell.pieces if p.role == "fastener"]
    assert len(heads) == bare.shell.made.fastened
    for head in heads:
        assert head.centre[2] == pytest.approx(top + 1.5)
        assert min(math.dist(head.centre[:2], at) for at in holes_of(parts["x-lid"], "lid screw")) < 1e-5
    assert dict(one.shell.bought())["hinge, its leaves on lid and flange"] == 2
    assert not any("hinge" in what for what, _ in bare.shell.bought())


@given(
    cut=st.sampled_from(CUTS),
    inward=st.booleans(),
    wide=st.floats(17, 60),
    spacing=st.floats(20, 300),
)
def test_every_screw_has_its_nut_under_it_and_none_is_further_from_the_next_than_said(
    cut: tuple[str, str] | None, inward: bool, wide: float, spacing: float
) -> None:
    of = box(cut, wide_mm=wide, inward=inward, screws={"spacing_mm": spacing})
    one, parts = placed(of)
    if not parts:
        assert any(row.label.startswith("flange") for row in one.shell.made.findings("boxes/x", "X"))
        return
    strips = [part for key, part in parts.items() if "flange" in key]
    nuts = sorted(at for part in strips for at in holes_of(part, "rivet nut"))
    assert all(math.dist(a, b) < 1e-5 for a, b in zip(nuts, holes_of(parts["x-lid"], "lid screw"), strict=True))
    assert one.shell.made.fastened == len(nuts)
    lid = ring_of(parts["x-lid"])
    assert all(lid.contains(Point(at).buffer(2.75)) for at in nuts)
    for part in strips:
        row, ring = holes_of(part, "rivet nut"), Polygon(part.outline)
        assert all(ring.contains(Point(h.at).buffer(1.2 * h.diameter_mm - 1e-6)) for h in part.holes)
        gaps = [math.dist(a, b) for a, b in pairwise(row)]
        assert all(gap <= spacing + 1e-5 for gap in gaps)
        along = [x for x, _ in part.outline]
        ends = sorted(h.at[0] for h in part.holes)
        if not cut:
            assert ends[0] + ends[-1] == pytest.approx(min(along) + max(along), abs=1e-5), "as far from either end"


def test_a_flange_has_metal_enough_round_its_nuts() -> None:
    """1.2 of a hole of 7 either way."""
    for wide, kept in ((16.8, True), (16.7, False)):
        one, parts = placed(box(wide_mm=wide))
        told = [f.label for f in one.shell.made.findings("boxes/x", "X") if f.state == "foul"]
        assert (told == []) == kept == bool(parts)


def gap_to(wall_low: tuple[float, float, float], wall_high: tuple[float, float, float], of: dict[str, Any]) -> float:
    tree = plain_car(boxes={"x": of}, items={"w": a_block(wall_low, wall_high, gap_class="same")})
    return min(float(f.value) for f in found(tree, "gap") if f.value is not None)


@pytest.mark.parametrize("inward", [False, True])
def test_gaps_are_asked_of_the_flange_its_nuts_and_the_heads_over_the_lid(inward: bool) -> None:
    of = box(inward=inward, wide_mm=30.0, gasket_mm=4.0, thickness_mm=2.0)
    one, _ = placed(of)
    length, width, height = one.shell.outer_mm
    x, y, z = AT
    proud = 0.0 if inward else 30.5
    rim = (z + height - 1.0, z + height + 1.0)
    beside = gap_to((x, y + width + 50, rim[0]), (x + length, y + width + 90, rim[1]), of)
    assert beside == pytest.approx(50 - proud)
    above = gap_to((x, y, z + height + 40), (x + length, y + width, z + height + 60), of)
    assert above == pytest.approx(40 - 4.0 - 2.0 - 3.0)
    low = z + height - 3.0 - NUT_MM - 10
    under = gap_to((x, y + width + 10, low - 20), (x + length, y + width + 20, low), of)
    assert under == pytest.approx(10.0), "the wall is nearer than the nuts, or as near"


def test_modules_go_straight_down_past_a_flange_that_is_turned_inward() -> None:
    """The liner of 4 leaves no room for it; a gap of its own width does."""

    def told(layers: float, **more: Any) -> list[str]:
        rows = {f: {"a": {"type": "sheet", "thickness_mm": layers}} for f in ("front", "aft", "left", "right")}
        tree = plain_car(boxes={"x": {**box(inward=True, wide_mm=20.0), "layers": rows, **more}})
        return [f.label for f in found(tree, "box.make") if f.state == "foul"]

    assert told(4.0) == ["mouth"]
    assert told(20.6) == []
    tree = plain_car(boxes={"x": {**box(wide_mm=20.0)}})
    assert not [f for f in found(tree, "box.make") if f.state == "foul"], "outward it is in no way"


def test_it_swings_on_an_edge_of_the_top_and_a_bracket_stays_below_its_nuts() -> None:
    one, _ = placed(box(hinge="left"))
    assert one.shell.made.hinge == "left"
    (row,) = found(plain_car(boxes={"x": box(hinge="left")}), "access.lid")
    assert "swings" in row.message
    assert one.shell.made.wall_at("left").flat_to_mm == one.shell.outer_mm[2] - 3.0 - NUT_MM
    with pytest.raises(DesignError, match="closures/lid"):
        placed(box(hinge="top"))


def test_a_folded_box_has_one_lid_of_its_own_and_a_frame_no_flange() -> None:
    flange = {"lid": {"type": "flange"}}
    for wrong in (
        {"construction": {"type": "framed"}, "closures": flange},
        {"construction": {"type": "folded"}, "closures": {}},
        {"construction": {"type": "folded"}, "closures": {**flange, "b": {"type": "cap"}}},
    ):
        with pytest.raises(DesignError):
            placed({**box_at(AT), **wrong})
