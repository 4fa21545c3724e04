"""Ways in and out of a space, built of plain blocks, so that each way is known beforehand."""

from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from levelcradle.core.analysis import analyse
from levelcradle.core.assembly import Obstacle, PlacedBox, resolve
from levelcradle.core.axes import Vec, plus, scaled
from levelcradle.core.clearance.moves import free_travel_mm, meets, swept, turning
from levelcradle.core.clearance.ways_out import best_exit, sling
from levelcradle.core.design import Design, validate
from levelcradle.core.solids import Solid, block, hull, nearest
from tests.core.test_fit import SIDES, bay_tree


def thing(
    name: str, low: tuple[float, float, float], high: tuple[float, float, float], *, metal: bool = False
) -> Obstacle:
    return Obstacle(f"{'members' if metal else 'items'}/{name}", name, block(low, high), "same")


def placed(at: tuple[float, float, float] = (0.0, 0.0, 300.0)) -> PlacedBox:
    """A box of one brick, 214 × 134 × 101 outside, at a place."""
    tree = bay_tree((900, 900, 900), [])
    one = {"kind": "brick", "turn": {"down": "base", "aft": "end_b"}}
    tree["boxes"] = {"x": {"name": "X", "pose": {"anchor": "front-left-base", "at_mm": list(at)}, "blocks": {"a": one}}}
    return resolve(validate(tree), {}).boxes["x"]


def walls(*, leave: str = "", metal: bool = True) -> list[Obstacle]:
    """Six plates 30 off the box; ``leave`` names one that is not there."""
    low, high = (-37.0, -37.0, 270.0), (251.0, 171.0, 434.0)
    (x0, y0, z0), (x1, y1, z1) = low, high
    rows = {
        "fore": ((x0 - 10, y0, z0), (x0, y1, z1)), "aft": ((x1, y0, z0), (x1 + 10, y1, z1)),
        "left": ((x0, y0 - 10, z0), (x1, y0, z1)), "right": ((x0, y1, z0), (x1, y1 + 10, z1)),
        "floor": ((x0, y0, z0 - 10), (x1, y1, z0)), "top": ((x0, y0, z1), (x1, y1, z1 + 10)),
    }  # fmt: skip
    return [thing(name, *corners, metal=metal) for name, corners in rows.items() if name != leave]


WAYS = {
    "fore": "forward",
    "aft": "aft",
    "left": "to the left",
    "right": "to the right",
    "floor": "downward",
    "top": "upward",
}


@pytest.mark.parametrize(("leave", "words"), WAYS.items())
def test_out_through_the_side_that_is_open(leave: str, words: str) -> None:
    found = best_exit(placed(), tuple(walls(leave=leave)))
    assert (found.words, found.off, found.fixed) == (words, (), False)


def test_closed_on_all_sides_by_metal_no_way_is_left_by_things_one_comes_off() -> None:
    assert best_exit(placed(), tuple(walls())).fixed
    found = best_exit(placed(), tuple(walls(metal=False)))
    assert not found.fixed
    assert len(found.off) == 1


def test_over_a_low_edge_with_a_short_first_leg() -> None:
    """Open above and aft, but a sill 25 high stands aft: up first, then over it; the way up further is barred."""
    rows = [w for w in walls(leave="aft") if w.name not in ("top",)]
    rows += [
        thing("sill", (251, -37, 270), (261, 171, 325), metal=True),
        thing("roof", (-37, -37, 480), (251, 171, 490), metal=True),
    ]
    found = best_exit(placed(), tuple(rows))
    assert found.words == "60 upward, then aft"
    assert not found.fixed


def test_leaned_it_passes_what_it_does_not_pass_upright() -> None:
    """A bar before the way up that leaves room beside it only for a box whose nose is lowered."""
    rows = tuple(w for w in walls() if w.name != "top") + (thing("bar", (-37, -37, 430), (20, 171, 440)),)
    found = best_exit(placed(), rows)
    assert not found.fixed
    assert found.off in ((), ("bar",))


def test_turned_it_passes_a_gap_that_only_its_narrow_side_goes_through() -> None:
    """Standing across a slot 190 wide that leads to the right: 214 long it does not pass, 134 wide it does."""
    metal = [w for w in walls(leave="right") if w.name in ("floor", "top")]
    far = 400.0
    rows = (("fore", (-210, -210, 270), (-200, far, 434)), ("aft", (410, -210, 270), (420, far, 434)),
            ("left", (-210, -210, 270), (420, -200, 434)), ("jamb", (-200, 230, 270), (12, 240, 434)),
            ("other jamb", (202, 230, 270), (410, 240, 434)))  # fmt: skip
    metal += [thing(name, low, high, metal=True) for name, low, high in rows]
    wide = [
        thing("floor", (-210, -210, 260), (420, far, 270), metal=True),
        thing("top", (-210, -210, 434), (420, far, 444), metal=True),
    ]
    found = best_exit(placed(), tuple(metal + wide))
    assert found.free
    assert found.words in (
        "turned 90°, its aft end to the right, then to the right",
        "turned 90°, its aft end to the left, then to the right",
    )


def heavy(**more: Any) -> PlacedBox:
    """Two bricks of 40 kg, which two people do not lift."""
    tree = bay_tree((900, 900, 900), [])
    tree["module_kinds"]["brick"]["mass_kg"] = 40.0
    block_ = {"kind": "brick", "turn": {"down": "base", "aft": "end_b"}, "counts": {"across": 2}}
    at = {"anchor": "front-left-base", "at_mm": [0.0, 0.0, 300.0]}
    tree["boxes"] = {"x": {"name": "X", "pose": at, "blocks": {"a": block_}, **more}}
    return resolve(validate(tree), {}).boxes["x"]


def test_a_heavy_box_goes_up_with_its_sling() -> None:
    """Over a sill as above: with a roof 200 over its lid the sling of a heavy box finds no room, that of a light one is
    not needed."""
    assert not list(sling(placed()))
    box = heavy()
    length, width, height = box.shell.outer_mm
    top = max(s.high[2] for s in sling(box))
    assert top - 300 - height == pytest.approx(((length / 2) ** 2 + (width / 2) ** 2) ** 0.5 * 3**0.5, abs=0.1)
    far, side = length + 37, width + 37
    rows = [((-47, -37, 260), (-37, side, 900)), ((-37, -47, 260), (far, -37, 900)), ((-37, side, 260), (far, side + 10,
    900)),
            ((-37, -37, 260), (far, side, 270)), ((far, -37, 260), (far + 10, side, 325))]  # fmt: skip
    around = [thing(f"wall {n}", *corners, metal=True) for n, corners in enumerate(rows)]
    for gap, fixed in ((200, True), (500, False)):
        roof = thing("roof", (-37, -37, 300 + height + gap), (far, side, 300 + height + gap + 10), metal=True)
        assert best_exit(box, (*around, roof)).fixed == fixed


def test_lifting_eyes_set_how_high_the_hook_stands() -> None:
    eye = {
        "name": "eye",
        "kind": "lifting eye",
        "face": "top",
        "from": ["front", "left"],
        "across_mm": 20.0,
        "out_mm": 30.0,
    }
    box = heavy(protrusions={"a": {**eye, "u_mm": 60.0, "v_mm": 60.0}, "b": {**eye, "u_mm": 160.0, "v_mm": 60.0}})
    top, feet = max(s.high[2] for s in sling(box)), box.shell.outer_mm[2]
    assert top - 300 - feet == pytest.approx(50 * 3**0.5, abs=box.box.construction.thickness_mm + 0.1)


number = st.floats(-150, 150)
size = st.floats(10, 120)


@settings(max_examples=60)
@given(st.tuples(number, number, number), st.tuples(size, size, size), st.tuples(number, number, number))
def test_what_a_sweep_misses_is_missed_all_the_way(
    low: tuple[float, ...], sides: tuple[float, ...], by: tuple[float, ...]
) -> None:
    """Every place on the way keeps clear of what the sweep keeps clear of."""
    high = tuple(a + b for a, b in zip(low, sides, strict=True))
    still: Solid = block((-20.0, -20.0, -20.0), (20.0, 20.0, 20.0))
    for moved in (
        block(low, high),
        hull([low, high, (low[0], high[1], low[2]), (high[0], low[1], low[2]), (low[0], low[1], high[2])]),
    ):  # type: ignore[arg-type, list-item]
        space = swept(moved, (by[0], by[1], by[2]))
        gap = nearest(space, still).gap_mm
        for share in (0.0, 0.25, 0.5, 1.0):
            step = tuple(v * share for v in by)
            there = hull([tuple(float(c) for c in p + step) for p in moved.points])  # type: ignore[misc, arg-type]
            if gap > 0:
                assert nearest(there, still).gap_mm >= gap - 0.01


@settings(max_examples=40)
@given(
    st.tuples(number, number, number),
    st.sampled_from([(1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0)]),
    st.floats(1, 90),
)
def test_what_is_met_standing_still_is_met_on_every_way(by: Vec, axis: Vec, angle: float) -> None:
    """So a box that stands in something takes no free first leg, lean or turn, and none is tried."""
    box = placed()
    pieces, things = [p.solid for p in box.pieces], [thing("in it", (200.0, 50.0, 350.0), (260.0, 90.0, 360.0))]
    assert meets(pieces, things, (0.0, 0.0, 0.0)) == things
    assert meets(pieces, things, by) == things
    assert meets(list(turning(pieces, box.cg, axis, angle)), things, (0.0, 0.0, 0.0)) == things


WAYS = [(0.0, 0.0, 1.0), (0.0, 0.0, -1.0), (1.0, 0.0, 0.0), (0.0, -1.0, 0.0), (0.6, 0.8, 0.0)]


@given(st.sampled_from(WAYS), st.floats(-150, 600), st.tuples(*[st.floats(-140, 140)] * 2), st.floats(20, 700))
def test_how_far_it_moves_before_it_meets_something(
    way: Vec, ahead: float, aside: tuple[float, float], most: float
) -> None:
    """So far it meets nothing, and a little further it does; along an axis that is exact."""
    tray = next(p.solid for p in placed().pieces if p.name == "tray")
    middle = scaled(plus(tray.low, tray.high), 0.5)
    x, y, z = plus(plus(middle, scaled(way, ahead)), (aside[0] * (1 - abs(way[0])), aside[1] * (1 - abs(way[1])), 0.0))
    things = [thing("wall", (x - 30, y - 20, z - 15), (x + 30, y + 20, z + 15))]
    moved, exact = free_travel_mm([tray], things, way, most), sum(v != 0 for v in way) == 1
    if moved > 0:
        assert not meets([tray], things, scaled(way, moved - 1e-6))
    assert moved == most or meets([tray], things, scaled(way, moved + (1e-6 if exact else 1.01)))


def test_what_lies_behind_it_holds_it_no_more_than_it_would_alone() -> None:
    """Of a thing in two pieces one may lie the other way."""
    tray = next(p.solid for p in placed().pieces if p.name == "tray")
    x, y, top = scaled(plus(tray.low, tray.high), 0.5)[0], scaled(plus(tray.low, tray.high), 0.5)[1], tray.high[2]
    above = thing("both", (x - 30, y - 20, top + 200), (x + 30, y + 20, top + 230))
    below = thing("both", (x - 30, y - 20, tray.low[2] - 40), (x + 30, y + 20, tray.low[2] - 10))
    up = (0.0, 0.0, 1.0)
    assert free_travel_mm([tray], [below, above], up, 500.0) == free_travel_mm([tray], [above], up, 500.0)


def test_what_only_touches_does_not_hold_it() -> None:
    pieces = [p.solid for p in placed().pieces if p.name == "tray"]
    assert meets(pieces, [thing("seat", (0, 0, 280), (214, 134, 300))], (0.0, 0.0, 50.0)) == []
    assert [o.name for o in meets(pieces, [thing("seat", (0, 0, 280), (214, 134, 302))], (0.0, 0.0, 50.0))] == ["seat"]


# --- as findings ---


def boxed(height: float = 260, **sides: str) -> Design:
    tree: dict[str, Any] = bay_tree((300, 220, height), [])
    given_ = {
        name: {"is": "open" if what == "open" else "metal", "gap_class": "same", "opens": what == "opens"}
        for name, what in sides.items()
    }
    tree["bays"]["b"]["sides"] = {**SIDES, **given_}
    pose = {"anchor": "front-left-base", "at_mm": [43.0, 43.0, 310.0]}
    one = {"kind": "brick", "turn": {"down": "base", "aft": "end_b"}}
    tree["boxes"] = {"x": {"name": "X", "bay": "b", "pose": pose, "blocks": {"a": one}}}
    return validate(tree)


def finding(design: Design, code: str) -> Any:
    return next(f for f in analyse(design, {}).findings if f.code == code)


@pytest.mark.parametrize(("side", "words"), [("top", "upward"), ("aft", "aft"), ("floor", "downward")])
def test_a_panel_that_opens_lets_it_out(side: str, words: str) -> None:
    closed = {"top": "metal"}
    assert finding(boxed(**closed), "access.box").state == "foul"
    assert finding(boxed(**(closed | {side: "opens"})), "access.box").message == f"X comes out {words}"
    assert finding(boxed(**(closed | {side: "open"})), "access.box").state == "clear"


def test_a_lid_under_a_panel_that_opens_comes_off_in_place() -> None:
    assert finding(boxed(top="opens"), "access.lid").state == "clear"
    low = boxed(170, top="metal", aft="open")
    told = finding(low, "access.lid")
    assert told.state == "note"
    assert "filled with the box out" in told.message


def test_a_box_of_nothing_is_not_asked() -> None:
    tree = bay_tree((300, 220, 260), [])
    tree["boxes"] = {
        "x": {"name": "X", "bay": "b", "pose": {"anchor": "front-left-base", "at_mm": [43.0, 43.0, 310.0]}}
    }
    assert not [f for f in analyse(validate(tree), {}).findings if f.code.startswith("access")]
