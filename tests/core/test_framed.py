"""A frame with cladding: its tubes fill its edges and hang together, its panels lie on them, its fixings hit them."""

import itertools
import math
from typing import Any

import manifold3d
import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.spatial import ConvexHull

from levelcradle.core.assembly import PlacedBox, resolve
from levelcradle.core.bar import Bar
from levelcradle.core.design import tree_of, validate
from levelcradle.core.design.base import FACE_AT
from levelcradle.core.edits import built_as, edited
from levelcradle.core.errors import DesignError
from levelcradle.core.fabricate import bars_of, parts_of
from levelcradle.core.part import FlatPart
from levelcradle.core.solids import Solid, corner_points
from levelcradle.drawings import subject_of
from levelcradle.drawings.sheet import Words
from levelcradle.drawings.sheets.frame import frame_sheets
from tests.plain import a_block, box_at, found, plain_car

AT = (1000.0, 0.0, 400.0)
DEEP_MM = 2.0


def car(frame: dict[str, Any] | None = None, lid: dict[str, Any] | None = None, **more: Any) -> dict[str, Any]:
    made = {
        "construction": {"type": "framed", **(frame or {})},
        "closures": {"lid": {"type": "panel", **(lid or {})}},
    }
    return plain_car(boxes={"x": {**box_at(AT), **made, **more}})


def made(tree: dict[str, Any]) -> tuple[PlacedBox, list[FlatPart], list[Bar]]:
    assembly = resolve(validate(tree), {})
    flats = [one for part in parts_of(assembly) for one in part.each]
    return assembly.boxes["x"], flats, [one for bar in bars_of(assembly) for one in bar.each]


def volume(solids: list[Solid]) -> float:
    return sum(float(ConvexHull(s.points).volume) for s in solids)


frames = st.fixed_dictionaries(
    {
        "tube_mm": st.floats(15, 50),
        "tube_wall_mm": st.floats(1, 3),
        "corners": st.sampled_from(["butt", "mitre"]),
        "rails": st.integers(0, 3),
        "cladding_mm": st.floats(0.8, 3),
        "pitch_mm": st.floats(40, 200),
    }
)
closed = st.sampled_from(list(FACE_AT))
insides = st.tuples(st.floats(250, 900), st.floats(250, 900), st.floats(150, 500))


def inside(size: tuple[float, float, float]) -> dict[str, Any]:
    return {"inner": {"type": "fixed", "size_mm": list(size)}}


@settings(max_examples=12)
@given(frames, insides, closed)
def test_its_solids_weigh_what_it_weighs_reach_to_its_outside_and_do_not_cut_into_each_other(
    frame: dict[str, Any], size: tuple[float, float, float], face: str
) -> None:
    box, *_ = made(car(frame, {"face": face}, **inside(size)))
    pieces = [p for p in box.shell.pieces if p.role != "fastener"]
    solids = [s for p in pieces for s in p.solids]
    assert volume(solids) * 7850e-9 == pytest.approx(sum(p.mass_kg for p in pieces), rel=1e-6)
    bodies = [manifold3d.Manifold.hull_points(corner_points([solid])) for solid in solids]
    together = manifold3d.Manifold.batch_boolean(bodies, manifold3d.OpType.Add)
    assert together.volume() == pytest.approx(volume(solids), rel=1e-6), "no metal is there twice"
    points = corner_points(solids)
    low, high = box.shell.made.over
    assert (points.min(axis=0), points.max(axis=0)) == (pytest.approx(low), pytest.approx(high))
    assert box.shell.inner_mm == pytest.approx(size)


@settings(max_examples=20)
@given(frames, insides, closed)
def test_its_tubes_are_one_frame_and_as_long_as_the_saw_list_says(
    frame: dict[str, Any], size: tuple[float, float, float], face: str
) -> None:
    box, _, bars = made(car(frame, {"face": face}, **inside(size)))
    tubes = [p for p in box.shell.pieces if p.role == "frame"]
    assert len(tubes) == len(bars) == 12 + frame["rails"]
    by_id = {bar.id: bar for bar in bars}
    for tube in tubes:
        bar = by_id[f"x-{tube.name.replace(' ', '-')}"]
        points = corner_points(tube.solids)
        long = points.max(axis=0) - points.min(axis=0)
        assert max(long) == pytest.approx(bar.length_mm) or bar.length_mm < frame["tube_mm"]
        assert tube.mass_kg == pytest.approx(bar.mass_kg)
    ends = [corner_points(tube.solids) for tube in tubes]
    low, high = (np.array([f(rows, axis=0) for rows in ends]) for f in (np.min, np.max))
    touch = ((low[:, None] <= high[None] + 1e-6) & (high[:, None] >= low[None] - 1e-6)).all(axis=2)
    reached, todo = {0}, [0]
    while todo:
        for n in set(np.flatnonzero(touch[todo.pop()]).tolist()) - reached:
            reached.add(n)
            todo.append(n)
    assert len(reached) == len(tubes)


def on_tubes(box: PlacedBox, part: FlatPart, at: tuple[float, float]) -> list[tuple[np.ndarray[Any, Any], float, int]]:
    """Of each tube behind a place on a panel: where along it that is, how far off its middle, and which it is."""
    assert part.stand
    place = box.placement.inverse.after(part.stand.placement)
    point = np.array(place.point((*at, -DEEP_MM)))
    hit = []
    for number, tube in enumerate(p for p in box.shell.pieces if p.role == "frame"):
        rows = corner_points(tube.solids)
        low, high = rows.min(axis=0), rows.max(axis=0)
        if ((low < point + 1e-6) & (high > point - 1e-6)).all():
            axis = int((high - low).argmax())
            off = [abs(point[i] - (low[i] + high[i]) / 2) for i in range(3) if i != axis]
            hit.append((point, min(off), number))
    return hit


@settings(max_examples=15)
@given(frames, insides, closed)
def test_every_fixing_hits_the_middle_of_a_tube_and_none_meets_another_panels(
    frame: dict[str, Any], size: tuple[float, float, float], face: str
) -> None:
    box, flats, _ = made(car(frame, {"face": face}, **inside(size)))
    assert len(flats) == 6
    hits: dict[int, list[tuple[str, np.ndarray[Any, Any]]]] = {}
    for part in flats:
        assert len(part.holes) >= 8
        for at in (hole.at for hole in part.holes):
            (place, off, number), *others = on_tubes(box, part, at)
            assert not others, "on a joint of two tubes"
            assert off < 1e-6
            hits.setdefault(number, []).append((part.id, place))
    for places in hits.values():
        for (one, a), (other, b) in itertools.combinations(places, 2):
            if one != other:
                assert np.abs(a - b).max() > 5.0, "two fixings in one place of a tube"


@settings(max_examples=20)
@given(frames, insides, closed, st.floats(30, 250))
def test_fixings_along_an_edge_are_no_further_apart_than_the_pitch(
    frame: dict[str, Any], size: tuple[float, float, float], face: str, spacing: float
) -> None:
    lid = {"face": face, "screws": {"spacing_mm": spacing}}
    _, flats, _ = made(car(frame, lid, **inside(size)))
    for part in flats:
        pitch = frame["pitch_mm"] if part.id.endswith("-panel") else spacing
        holes = [hole.at for hole in part.holes]
        for axis in (0, 1):
            for side in {round(at[1 - axis], 3) for at in holes}:
                row = sorted(at[axis] for at in holes if round(at[1 - axis], 3) == side)
                if len(row) > 2:
                    assert max(b - a for a, b in itertools.pairwise(row)) <= pitch + 1e-6


def test_a_panel_lies_where_its_part_says(  # the blank at its stand is the piece of the box
) -> None:
    box, flats, _ = made(car(openings={"o": {"name": "cable", "face": "left", "from": ["front", "base"], "u_mm": 120.0,
                                             "v_mm": 80.0, "diameter_mm": 20.0}}))  # fmt: skip
    for part in flats:
        assert part.stand
        piece = next(p for p in box.shell.pieces if p.part and part.id == f"x-{p.part}")
        blank = [(*p, z) for p in part.outline for z in (0.0, part.thickness_mm)]
        there = np.array([part.stand.placement.point(p) for p in blank])
        assert ConvexHull(there).volume == pytest.approx(volume(list(piece.solids)))
        low, high = (f(there, axis=0) for f in (np.min, np.max))
        corners = box.placement.points(corner_points(piece.solids))
        assert (low, high) == (pytest.approx(corners.min(axis=0)), pytest.approx(corners.max(axis=0)))
    (left,) = [part for part in flats if part.id == "x-left-panel"]
    (hole,) = [hole for hole in left.holes if hole.purpose == "cable"]
    assert left.stand
    place = box.placement.inverse.after(left.stand.placement).point((*hole.at, left.thickness_mm))
    assert place == pytest.approx((120.0, 0.0, 80.0), abs=1e-6)


@settings(max_examples=15)
@given(frames, insides, closed)
def test_the_chain_of_allowances_adds_up_to_the_outside(
    frame: dict[str, Any], size: tuple[float, float, float], face: str
) -> None:
    """What stands from outside to inside, the inside, and out again: over all, whichever way."""
    box, *_ = made(car(frame, {"gasket_mm": 4.0, "thickness_mm": 3.0, "face": face}, **inside(size)))
    for axis in range(3):
        rows = box.shell.made.stack_rows(axis, "x")
        metal = sum(row.mm for row in (*rows.first, *rows.last, *rows.whole))
        assert metal + size[axis] == pytest.approx(box.shell.over_mm[axis])
        assert all(row.tol_mm > 0 and row.source for row in (*rows.first, *rows.last, *rows.whole))


def fouls(tree: dict[str, Any]) -> list[str]:
    return [f.label for f in found(tree, "box.make") if f.state == "foul"]


def test_a_frame_of_common_tube_can_be_made() -> None:
    assert fouls(car()) == []


@pytest.mark.parametrize(("material", "diameters"), [("s235", 1.0), ("al5754", 2.0)])
def test_thin_sheet_holds_no_thread(material: str, diameters: float) -> None:
    """So many diameters of thread are enough, a tenth of a millimetre less is foul, and a rivet nut asks for none."""
    tapped = {"fastener": "tapped", "fastener_mm": 2.0}
    assert fouls(car({**tapped, "tube_wall_mm": 2.0 * diameters}, material=material)) == []
    assert fouls(car({**tapped, "tube_wall_mm": 2.0 * diameters - 0.1}, material=material)) == ["thread"]
    assert fouls(car({**tapped, "fastener": "rivet nut", "tube_wall_mm": 1.0}, material=material)) == []


def test_a_fixing_keeps_one_and_a_half_diameters_from_the_edge() -> None:
    assert fouls(car({"tube_mm": 15.0, "tube_wall_mm": 1.5, "fastener_mm": 5.0})) == []
    assert fouls(car({"tube_mm": 15.0, "tube_wall_mm": 1.5, "fastener_mm": 5.1})) == ["edge distance"]


@pytest.mark.parametrize(
    ("face", "edges"), [("left", ("front", "base")), ("aft", ("right", "base")), ("top", ("front", "left"))]
)
def test_an_opening_goes_through_the_cladding_between_the_tubes(face: str, edges: tuple[str, str]) -> None:
    """Its rim may touch the tube behind: 25 of tube and 1.5 of cladding from the edge; a tenth nearer is foul."""

    def at(middle: float) -> list[str]:
        hole = {"name": "gland", "face": face, "from": list(edges), "u_mm": middle, "v_mm": 80.0, "diameter_mm": 20.0}
        return fouls(car(openings={"o": hole}, **inside((300, 300, 200))))

    assert at(36.5) == []
    assert at(36.4) == ["opening o"]


def test_an_opening_in_the_base_keeps_off_the_rails() -> None:
    def at(middle: float) -> list[str]:
        hole = {"name": "drain", "face": "base", "from": ["front", "left"], "u_mm": middle, "v_mm": 176.5,
                "diameter_mm": 20.0}  # fmt: skip
        return fouls(car({"rails": 1}, openings={"o": hole}, **inside((300, 300, 200))))

    rail = 26.5 + 150.0  # in the middle of the inside
    assert at(rail) == ["opening o"]
    assert at(rail - 12.5 - 10.0) == []
    assert at(rail - 12.5 - 9.9) == ["opening o"]


def test_more_rails_than_go_in_and_tubes_too_short_to_weld_are_foul() -> None:
    assert fouls(car({"rails": 12}, **inside((301, 300, 200)))) == []
    assert fouls(car({"rails": 12}, **inside((299, 300, 200)))) == ["rails"]
    assert fouls(car({"tube_mm": 25.0, "rails": 0}, **inside((300, 300, 75.1)))) == []
    assert fouls(car({"tube_mm": 25.0, "rails": 0}, **inside((300, 300, 74.9)))) == ["tubes"]


def test_its_edges_are_not_cut_off_and_then_nothing_is_made() -> None:
    tree = car(chamfers={"c": {"edge": ["left", "base"], "mm": [20.0, 20.0]}})
    assert "edges" in fouls(tree)
    _, flats, bars = made(tree)
    assert not flats
    assert not bars


@pytest.mark.parametrize(
    ("construction", "closures"),
    [
        ({"type": "framed"}, {"lid": {"type": "cap"}}),
        ({"type": "folded"}, {"lid": {"type": "panel"}}),
        ({"type": "framed"}, {}),
        ({"type": "framed", "tube_mm": 11.0, "tube_wall_mm": 3.0}, {"lid": {"type": "panel"}}),
    ],
)
def test_what_cannot_be_is_refused(construction: dict[str, Any], closures: dict[str, Any]) -> None:
    with pytest.raises(DesignError):
        validate(plain_car(boxes={"x": {**box_at(AT), "construction": construction, "closures": closures}}))


def test_a_box_made_as_a_frame_holds_the_same_and_comes_back_of_sheet() -> None:
    was = validate(plain_car(boxes={"x": box_at(AT)}))
    framed = edited(was, built_as(was, "x", "framed"))
    inside_of = [resolve(validate(tree_of(d)), {}).boxes["x"].shell.inner_mm for d in (was, framed)]
    assert inside_of[0] == pytest.approx(inside_of[1])
    back = edited(framed, built_as(framed, "x", "folded")).boxes["x"].construction
    assert back.type == "folded"
    assert back.thickness_mm == framed.boxes["x"].construction.cladding_mm  # type: ignore[union-attr]


def test_marks_of_bars_go_on_from_those_of_the_parts_and_alike_ones_are_one_row() -> None:
    assembly = resolve(validate(car({"rails": 2}, **inside((400, 400, 200)))), {})
    parts, bars = parts_of(assembly), bars_of(assembly)
    marks = [row.mark for row in (*parts, *bars)]
    assert len(set(marks)) == len(marks)
    assert sum(bar.quantity for bar in bars) == 14
    assert len({(round(bar.length_mm, 3)) for bar in bars}) == len(bars) == 3


@pytest.mark.parametrize(("frame", "head_mm"), [({}, 2.016), ({"fastener": "rivet nut", "fastener_mm": 10.0}, 5.5)])
def test_heads_stand_out_of_the_cladding_and_count_for_gaps(frame: dict[str, Any], head_mm: float) -> None:
    """A block that stands 20 before the cladding is nearer to its heads, the thicker the more; one 20 over the lid to
    its screws."""
    shell = made(car(frame))[0].shell
    (length, width, _), top = shell.outer_mm, shell.over_mm[2]
    things = {
        "a": a_block((800, 0, 400), (980, width, 500), gap_class="same"),
        "b": a_block((1000, 0, 420 + top), (1000 + length, width, 600 + top), gap_class="same"),
    }
    gaps = {f.subjects[1]: f.value for f in found({**car(frame), "items": things}, "gap")}
    assert gaps == pytest.approx({"items/a": 20.0 - head_mm, "items/b": 20.0 - 3.0})


def test_a_screw_is_one_that_there_is() -> None:
    assert fouls(car({"fastener": "rivet nut", "fastener_mm": 5.0})) == []
    assert fouls(car({"fastener": "rivet nut", "fastener_mm": 4.8})) == ["screws"]


def test_the_lid_is_screwed_down_beside_the_rivets_of_the_sides() -> None:
    box, flats, _ = made(car(**inside((400, 400, 200))))
    (lid,) = [part for part in flats if part.id == "x-lid"]
    heads = [p for p in box.shell.pieces if p.role == "fastener"]
    assert len(heads) == len(lid.holes) == dict(box.shell.made.bought())["M5 screw and rivet nut, closing the box"]
    assert all(math.hypot(*(a - b for a, b in zip(one.centre, other.centre, strict=True))) > 20
               for one, other in itertools.combinations(heads, 2))  # fmt: skip


def test_a_notched_ring_is_one_tube_and_its_metal_what_it_was() -> None:
    mitre, _, cut = made(car({"corners": "mitre"}))
    notch, _, whole = made(car({"corners": "notch"}))
    assert notch.shell.shell_kg == pytest.approx(mitre.shell.shell_kg)
    rings = [bar for bar in whole if "ring" in bar.id]
    assert len(whole) == len(cut) - 8 + 2 == len(rings) + 4 + 2
    assert sum(bar.mass_kg for bar in whole) == pytest.approx(sum(bar.mass_kg for bar in cut))
    by_id = {bar.id: bar.length_mm for bar in cut}
    long, wide = by_id["x-lower-left-tube"], by_id["x-lower-front-tube"]
    assert [bar.length_mm for bar in rings] == [pytest.approx(2 * (long + wide))] * 2
    assert rings[0].ends[0].endswith(f"notched at {long:.1f}, {long + wide:.1f}, {2 * long + wide:.1f}")
    sheet = next(frame_sheets(subject_of(resolve(validate(car({"corners": "notch"})), {})), "A", notch))
    marks = {words.text for words in sheet.marks if isinstance(words, Words)}
    assert {bar.mark for bar in bars_of(resolve(validate(car({"corners": "notch"})), {}))} <= marks


def test_cladding_of_a_sealed_frame_lies_in_a_bead() -> None:
    def beads(sealing: str | None) -> float:
        box, *_ = made(car(sealing=sealing))
        told = [what for what, _ in box.shell.bought() if "m of bead" in what]
        return float(told[0].split(", ")[1].split()[0]) if told else 0.0

    box, flats, _ = made(car())
    cladding = sum(2 * sum(part.size_mm) for part in flats if not part.id.endswith("lid")) / 1000
    assert (beads(None), beads("open")) == (0.0, 0.0)
    assert beads("gasket") == pytest.approx(cladding, abs=0.01)
    assert beads("sealant") == pytest.approx(cladding + 2 * sum(box.shell.inner_mm[:2]) / 1000, abs=0.01)


def test_mitred_rings_are_sawn_longer_and_weigh_the_same() -> None:
    """Each ring has the same middle line, and its cross tubes reach to the outside."""
    butt, _, straight = made(car({"corners": "butt"}))
    mitre, _, cut = made(car({"corners": "mitre"}))
    assert mitre.shell.outer_mm == butt.shell.outer_mm
    tube = butt.shell.made.wall_mm - 1.5
    across = [{bar.id: bar for bar in rows}["x-lower-front-tube"] for rows in (straight, cut)]
    assert across[1].length_mm - across[0].length_mm == pytest.approx(2 * tube)
    assert sum(bar.mass_kg for bar in cut) == pytest.approx(sum(bar.mass_kg for bar in straight))
    assert {bar.ends for bar in cut if "tube" in bar.id} == {("mitred at 45°, long side out",) * 2}
