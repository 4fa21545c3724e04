"""Modules are held in all six ways, or it is said where not; and a crash uses what holds them as statics says."""

import copy
import math
from typing import Any

import numpy as np
import pytest
from hypothesis import event, given, settings
from hypothesis import strategies as st
from shapely.geometry import Point

from levelcradle.core.analysis import analyse
from levelcradle.core.assembly import PlacedBox, resolve
from levelcradle.core.box.holding import KINDS
from levelcradle.core.design import validate
from levelcradle.core.design.base import FACE_AT, FACES
from levelcradle.core.edits import edited, held_by
from levelcradle.core.errors import OutOfRange, UnknownThing
from levelcradle.core.fabricate import parts_of
from levelcradle.core.finding import Finding, message_text
from levelcradle.core.fold import fold
from levelcradle.core.solids import block, bounds, nearest
from tests.plain import BRICK, box_at, found, plain_car

AT = (1000.0, 0.0, 400.0)
HOLES = {"count": 4, "diameter_mm": 9, "from_ends_mm": 15, "from_sides_mm": 15, "sunk_mm": 10}
STUDS = {"size": "M6", "property_class": "4.8", "into": "stud"}
NUTS = {"size": "M8", "property_class": "8.8", "into": "nut"}
OWN = {"type": "own_holes", "bolts": NUTS}
FEET = {"at": "gaps", "pairs": 2, "up_to": "lowest", "material": "s235", "thickness_mm": 4, "bend_radius_mm": 4,
        "wide_mm": 60, "tab_mm": 20, "leg_mm": 50, "bolts": STUDS, "each": 2}  # fmt: skip
RODS = {"type": "rods", "size": "M8", "feet": FEET}
STRAP = {"count": 2, "along": "across", "material": "s235", "thickness_mm": 2, "wide_mm": 40, "bolts": NUTS, "each": 1}
STRAPS = {"type": "straps", "strap": STRAP}
STOP = {"count": 1, "material": "s235", "thickness_mm": 6, "bend_radius_mm": 6, "high_mm": 50, "wide_mm": 60,
        "leg_mm": 50, "bolts": NUTS, "each": 2}  # fmt: skip
LEDGE = {"material": "s235", "thickness_mm": 3, "bend_radius_mm": 3, "leg_mm": 45, "up_mm": 30, "slide_mm": 0,
         "lowest": True, "bolts": NUTS}  # fmt: skip
PLATES = {"material": "s235", "thickness_mm": 6, "screws": NUTS, "each": 2}
PRESSED = {"type": "pressed", "along": "aft", "by": "wedges", "force_n": 3000, "plates": PLATES,
           "widths": {"between_mm": 412, "strap_mm": 404}}  # fmt: skip
APART, TOUCHING = {"neighbour_gap_mm": 24}, {"neighbour_gap_mm": 0}
FIT = {"type": "fit", "between": "board-4"}
CUT = {"c": {"edge": ["front", "base"], "mm": [30.0, 30.0]}}
EDGEWISE = {"down": "side_a", "aft": "top"}


def stops(face: str, **more: Any) -> dict[str, Any]:
    return {"type": "stops", "against": face, "stop": {**STOP, **more}}


def hard(faces: tuple[str, ...] = FACES, material: str = "board-4", mm: float = 4.0) -> dict[str, Any]:
    return {face: {"l": {"type": "sheet", "material": material, "thickness_mm": mm}} for face in faces}


def car(*holders: dict[str, Any], kind: dict[str, Any] | None = None, **more: Any) -> dict[str, Any]:
    """A box of two bricks behind each other, on a plain car. ``kind``: what its bricks are otherwise."""
    turn = more.pop("turn", {"down": "base", "aft": "end_b"})
    box = box_at(AT, more.pop("counts", (2, 1, 1)), **more)
    box["blocks"]["a"]["turn"] = turn
    box["holders"] = {f"h{n}": {"block": "a", **row} for n, row in enumerate(holders)}
    bricks = {**BRICK, "mount_holes": HOLES, "may_rest_on": ["base", "side_a"], **(kind or {})}
    return plain_car(boxes={"x": box}, module_kinds={"brick": bricks})


def told(tree: dict[str, Any]) -> list[Finding]:
    return found(tree, "inside.held")


def ledges(along: str = "aft", **more: Any) -> dict[str, Any]:
    return {"type": "ledges", "along": along, "ledge": {**LEDGE, **more}}


def drawers(*holders: dict[str, Any]) -> dict[str, Any]:
    """A frame filled through its front, two tiers in it."""
    tree = car(*holders, counts=(1, 1, 2), kind=APART)
    tree["boxes"]["x"] |= {"construction": {"type": "framed"}, "closures": {"p": {"type": "panel", "face": "front"}}}
    return tree


def loose(tree: dict[str, Any]) -> set[str]:
    """The faces towards which nothing holds it."""
    rows = [f.id.rsplit(":", 1)[-1] for f in told(tree) if f.state == "foul" and "nothing holds it" in f.message]
    return set(rows)


def extent(solids: list[Any]) -> Any:
    low, high = bounds(solids)
    return np.concatenate([low.min(axis=0), high.max(axis=0)])


def uses(tree: dict[str, Any]) -> dict[str, float]:
    return {f.id.rsplit(":", 1)[-1]: f.value or 0.0 for f in told(tree) if f.unit == "use"}


def held_box(tree: dict[str, Any]) -> PlacedBox:
    return resolve(validate(tree), {}).boxes["x"]


WHOLE = {
    "own holes": car(OWN),
    "rods": car(RODS, turn=EDGEWISE, counts=(3, 1, 1), kind={"face_gap_mm": {"end_a": 30, "end_b": 30}}),
    "rods at the ends": car({**RODS, "feet": {**FEET, "at": "ends"}}, turn=EDGEWISE),
    "straps and boards": car(STRAPS, FIT, stops("left"), stops("right"), layers=hard(("front", "aft", "base"))),
    "stops, welded": car(STRAPS, FIT, stops("left", welded=True), stops("right", welded=True),
                         layers=hard(("front", "aft", "base"))),
    "ledges": car(ledges(), counts=(1, 1, 2), kind=APART),
    "slides in a frame": drawers(ledges(slide_mm=2)),
    "pressed by wedges": car(PRESSED, STRAPS, stops("left"), stops("right"), kind=TOUCHING),
    "pressed by screws": car({**PRESSED, "by": "screws"}, STRAPS, stops("left"), stops("right"), kind=TOUCHING),
    "straps, welded": car({**STRAPS, "strap": {**STRAP, "welded": True}}, FIT, stops("right"),
                          layers=hard(("front", "aft", "left", "base"))),
}  # fmt: skip


@pytest.mark.parametrize("how", WHOLE)
def test_what_holds_all_six_ways_says_so_with_a_use_each(how: str) -> None:
    assert set(uses(WHOLE[how])) == set(FACES)
    assert not [message_text(f) for f in told(WHOLE[how]) if f.state in ("foul", "unknown")]


def test_what_nobody_has_said_is_not_known_and_holds_the_drawings_back() -> None:
    assert [f.state for f in found(car(), "inside.hold_down")] == ["unknown"]
    for kind in KINDS:
        row = {"type": kind, **({"against": "aft"} if kind == "stops" else {})}
        if kind != "fit":
            assert [f.state for f in told(car(row))] == ["unknown"], kind
    without = told(car(OWN, kind={"mount_holes": None}))
    assert [(f.state, "no holes of its own" in f.message) for f in without] == [("unknown", True)]


def fouls(tree: dict[str, Any]) -> list[str]:
    return [message_text(f) for f in told(tree) if f.state == "foul"]


@pytest.mark.parametrize(
    ("holders", "counts", "gap", "words"),
    [
        ([ledges(leg_mm=18)], (1, 1, 2), 24, "lie on the left ledges"),
        ([ledges(thickness_mm=6, bend_radius_mm=6)], (1, 1, 2), 4, "ledges 6 thick in gaps"),
        ([ledges()], (1, 1, 2), 10, "for nuts and heads"),
        ([ledges()], (1, 2, 2), 24, "2 modules side by side"),
        ([ledges(slide_mm=2)], (1, 1, 2), 24, "filled another way"),
        ([ledges(material="al5083")], (1, 1, 2), 24, "steel to steel"),
        ([ledges(bolts=None)], (1, 1, 2), 24, "nothing in it"),
        ([ledges(lowest=False, bolts=None), STRAPS], (1, 1, 1), 24, "nothing stands on them"),
        ([ledges(bolts={**NUTS, "size": "M10"})], (1, 1, 2), 30, "bolts 10 thick in holes of 9"),
    ],
)
def test_a_ledge_that_bears_or_holds_nothing_is_told(
    holders: list[dict[str, Any]], counts: tuple[int, int, int], gap: float, words: str
) -> None:
    rows = fouls(car(*holders, counts=counts, kind={"neighbour_gap_mm": gap}))
    assert any(words in row for row in rows), rows


def test_a_thinner_ledge_bears_less_and_one_between_posts_bends_as_a_bar() -> None:
    def checks(tree: dict[str, Any]) -> dict[str, float]:
        return {check.name: float(check.utilisation.max()) for check in _checks_of(tree)}

    thick, thin = (checks(car(ledges(thickness_mm=t), counts=(1, 1, 2), kind=APART)) for t in (3, 2))
    assert thin["ledges at their bend"] == pytest.approx(thick["ledges at their bend"] * 9 / 4, rel=0.05)
    assert "ledges between posts" not in thick
    frame = {up: checks(drawers(ledges(up_mm=up)))["ledges between posts"] for up in (20, 40)}
    assert frame[20] == pytest.approx(4 * frame[40])


def _checks_of(tree: dict[str, Any]) -> list[Any]:
    """Every check of its only holder under a kilonewton each way on each grip."""
    held = held_box(tree).shell.held.by_holder["h0"]
    pushed = np.tile(np.array([0.0, 0.0, -1000.0]), (1, 1, len(held.grips()), 1))
    return list(held.checks(pushed))


def test_a_box_is_as_much_longer_as_the_stack_is_wider_before_it_is_pressed() -> None:
    def tree(mm: float) -> dict[str, Any]:
        return car({**PRESSED, "widths": {"edge_mm": mm}}, STRAPS, stops("left"), stops("right"),
                   kind=TOUCHING)  # fmt: skip

    sizes = [held_box(tree(mm)).shell.outer_mm[0] for mm in (408, 420)]
    assert sizes[1] - sizes[0] == pytest.approx(12)
    given_inside = tree(420)
    inner = list(held_box(tree(408)).shell.inner_mm)
    given_inside["boxes"]["x"]["inner"] = {"type": "fixed", "size_mm": inner}
    assert any("for a stack 420.0 wide at its edge" in row for row in fouls(given_inside))


def test_the_wall_carries_what_presses_and_what_is_thrown_besides() -> None:
    def used(force: float) -> float:
        rows = {check.name: check for check in _checks_of(car({**PRESSED, "force_n": force}, kind=TOUCHING))}
        return float(rows["front under what presses"].utilisation.max())

    assert used(4000) - used(2000) == pytest.approx(used(6000) - used(4000))
    assert used(2000) > (used(4000) - used(2000)) * (1 - 1e-9)


def test_what_presses_needs_modules_that_touch_and_figures_that_somebody_said() -> None:
    assert any("gaps of 4.0 between modules that are pressed" in row for row in fouls(car(PRESSED)))
    for gone in ("force_n", "plates"):
        rows = told(car({**PRESSED, gone: None}, kind=TOUCHING))
        assert [f.state for f in rows if "nobody has said" in f.message] == ["unknown"]
    rows = told(car({**PRESSED, "widths": {}}, kind=TOUCHING))
    assert any("nobody has measured how wide" in f.message for f in rows)
    springs = {**TOUCHING, "compression": {"axis": "length", "free_mm": 205}}
    assert not [f for f in told(car({**PRESSED, "widths": {}}, kind=springs)) if f.state == "unknown"]


@pytest.mark.parametrize(("holder", "axis", "pressed"), [(PRESSED, "length", True), (PRESSED, "width", False),
                                                         (OWN, "length", False)])  # fmt: skip
def test_modules_that_must_be_pressed_say_so_where_nothing_presses_them_that_way(
    holder: dict[str, Any], axis: str, pressed: bool
) -> None:
    free = {"length": 205, "width": 125}[axis]
    kind = {**TOUCHING, "clamp": True, "compression": {"axis": axis, "free_mm": free}}
    rows = [f for f in told(car(holder, kind=kind)) if "held under compression" in f.message]
    assert [f.state for f in rows] == ([] if pressed else ["unknown"])


def test_plates_that_press_stay_when_the_rest_is_sized() -> None:
    design = validate(car(PRESSED, kind=TOUCHING))
    sized = edited(design, held_by(design, "x", "straps", {}))
    assert sized.boxes["x"].holders["h0"] == design.boxes["x"].holders["h0"]
    assert "h0" in {key for key, row in sized.boxes["x"].holders.items() if row.type == "pressed"}
    assert len(sized.boxes["x"].holders) > 1


def test_ledges_are_sized_as_slides_where_a_box_is_filled_that_way() -> None:
    for tree, slides in ((drawers(), True), (car(counts=(1, 1, 2), kind=APART), False)):
        design = validate(tree)
        sized = edited(design, held_by(design, "x", "ledges", {}))
        (row,) = sized.boxes["x"].holders.values()
        assert row.type == "ledges"
        assert row.ledge is not None
        assert (row.ledge.slide_mm > 0) is slides
    tight = validate(car(counts=(1, 1, 2)))
    with pytest.raises(OutOfRange, match="between ledges and tier"):
        held_by(tight, "x", "ledges", {})


@pytest.mark.parametrize("how", [how for how in WHOLE if how not in ("ledges", "pressed by wedges")])
def test_walls_are_cut_with_the_holes_of_what_is_bolted_through_them(how: str) -> None:
    """Each hole lies where its bolt is once the sheet is folded; into the tubes of a frame nothing is cut."""
    shell = held_box(WHOLE[how]).shell
    wanted = [(hole.name, hole.diameter_mm, hole.at) for hole in shell.held.holes()]
    bolts = [bolt.bolts.into for holder in shell.held.by_holder.values() for bolt in holder.bolted()]
    assert len(wanted) == (0 if "frame" in how else len([into for into in bolts if into != "stud"]))
    cut = []
    for part in shell.parts("x", "X"):
        for flat in fold(part).flats if part.stand else ():
            cut += [(hole.purpose, hole.diameter_mm, flat.placement.point((*hole.at, 0.0))) for hole in part.holes
                    if flat.ring.contains(Point(hole.at))]  # fmt: skip
    for name, diameter, at in wanted:
        near = [place for purpose, mm, place in cut if (purpose, mm) == (name, diameter)]
        assert min(math.dist(at, place) for place in near) < 4.0  # the sheet's thickness, and no more


def test_a_nut_stands_where_the_foot_of_a_strap_is_bolted() -> None:
    """Beside the stack, not under its edge."""
    box = held_box(WHOLE["straps and boards"])
    placed = box.shell.held.stacks["a"]
    feet = [bolt.at[1] for bolt in box.shell.held.by_holder["h0"].bolted()]
    assert all(not placed.low[1] <= at <= placed.high[1] for at in feet)
    nuts = [solid for row in box.shell.outside if row.name == "nut" for solid in [row.solid]]
    assert all(any(nut.low[1] < at < nut.high[1] for nut in nuts) for at in feet)


def framed(*holders: dict[str, Any], rails: tuple[float, ...] = (), **more: Any) -> dict[str, Any]:
    tree = car(*holders, **more)
    spec = {"type": "framed", "rails_at_mm": list(rails)}
    tree["boxes"]["x"] |= {"construction": spec, "closures": {"lid": {"type": "panel"}}}
    return tree


def test_a_bolt_into_a_frame_comes_on_a_tube_or_is_foul() -> None:
    between = fouls(framed(OWN))
    assert any("sheet between bars" in row for row in between)
    box = held_box(framed(OWN))
    at = sorted({round(bolt.at[0], 3) for bolt in box.shell.held.by_holder["h0"].bolted()})
    front = box.shell.made.along_walls(0)[0]
    assert fouls(framed(OWN, rails=tuple(x - front for x in at))) == []
    off = tuple(x - front + 12.0 for x in at)
    assert any("sheet between bars" in row for row in fouls(framed(OWN, rails=off)))


@pytest.mark.parametrize("kind", ["own_holes", "straps"])
def test_a_frame_gets_rails_under_what_is_sized_into_it(kind: str) -> None:
    design = validate(framed())
    sized = edited(design, held_by(design, "x", kind, {}))
    made = sized.boxes["x"].construction
    assert made.type == "framed"
    assert made.rails_at_mm
    assert not [f for f in analyse(sized, {}).findings if f.state == "foul" and f.code in ("inside.held", "box.make")]


def test_a_strap_bolted_where_an_opening_is_is_foul() -> None:
    tree = copy.deepcopy(WHOLE["straps and boards"])
    foot = next(held_box(tree).shell.held.by_holder["h0"].bolted())
    tree["boxes"]["x"]["openings"] = {
        "o": {"name": "drain", "face": "base", "from": ["front", "left"], "u_mm": foot.at[0], "v_mm": foot.at[1],
              "diameter_mm": 12.0}
    }  # fmt: skip
    assert any("comes on drain" in row for row in fouls(tree))


SIDES = {"front", "aft", "left", "right"}


@pytest.mark.parametrize(
    ("tree", "free"),
    [
        (car(STRAPS), SIDES),
        (car(FIT, layers=hard()), {"top"}),
        (car(FIT, stops("aft"), layers=hard()), {"top"}),
        (car(STRAPS, stops("aft")), SIDES - {"aft"}),
        (car(STRAPS, FIT, stops("left"), layers=hard(("front", "aft", "base"))), {"right"}),
    ],
)
def test_each_way_that_nothing_holds_is_named(tree: dict[str, Any], free: set[str]) -> None:
    """Straps hold down and nothing sideways; stops one way; what fits presses, and a lid holds nothing in a crash."""
    assert loose(tree) == free
    assert uses(tree) == {}


def test_every_module_of_a_stack_has_its_rods_on_feet() -> None:
    """Of two stacks end to end the inner ends have none; of two tiers the upper one only where feet reach all rods."""

    def fouls(counts: tuple[int, int, int], up_to: str) -> list[str]:
        kind = {"face_gap_mm": {"end_a": 30, "end_b": 30}}
        rods = {**RODS, "feet": {**FEET, "up_to": up_to}}
        rows = told(car(rods, turn=EDGEWISE, counts=counts, kind=kind))
        return [f.message for f in rows if f.state == "foul" and f.unit != "use"]

    assert fouls((3, 1, 1), "lowest") == fouls((3, 1, 2), "all") == []
    assert ["end to end" in row for row in fouls((3, 2, 1), "lowest")] == [True]
    assert ["of 2 tiers" in row for row in fouls((3, 1, 2), "lowest")] == [True]


def test_holders_stand_in_no_other() -> None:
    """Two stops at thirds of the length meet the straps at quarters of it; one in the middle passes between them."""

    def clashes(count: int) -> bool:
        tree = car(STRAPS, FIT, stops("left", count=count), stops("right"), layers=hard(("front", "aft", "base")))
        return any(f.state == "foul" and "in one another" in f.message for f in told(tree))

    assert not clashes(1)
    assert clashes(2)


@pytest.mark.parametrize(("beside", "meets"), [(6.0, False), (5.5, True)])
def test_holders_stand_in_no_module_of_another_block(beside: float, meets: bool) -> None:
    """A stop's upright of 6 stands between two blocks; its leg lies in the height of the runners."""
    tree = car(stops("right"))
    box = tree["boxes"]["x"]
    box["blocks"]["b"] = {**box["blocks"]["a"], "origin_mm": [0.0, 120.0 + beside, 0.0]}
    assert any(f.state == "foul" and "modules of block b" in f.message for f in told(tree)) is meets


@pytest.mark.parametrize(("wide", "held"), [(44.0, True), (43.9, False)])
def test_a_stop_stands_twenty_before_each_row(wide: float, held: bool) -> None:
    """In the middle of two bricks with 4 between them it laps each by half its width less 2."""
    tree = car(STRAPS, FIT, stops("left", wide_mm=wide, each=1), stops("right"), layers=hard(("front", "aft", "base")))
    assert (not any("stops before row" in f.message for f in told(tree))) is held


def test_taking_away_a_holder_never_holds_more() -> None:
    whole = WHOLE["straps and boards"]
    for name in whole["boxes"]["x"]["holders"]:
        less = copy.deepcopy(whole)
        del less["boxes"]["x"]["holders"][name]
        assert loose(less) or any("between them" in f.message for f in told(less)), name


# --- liners, gaps ---


@pytest.mark.parametrize(
    ("material", "mm", "play"), [("board-4", 4.0, None), ("foam-5", 5.0, 1.5), ("rubber-4", 4.0, 0.4)]
)
def test_a_liner_that_settles_carries_nothing_and_leaves_its_play(material: str, mm: float, play: float | None) -> None:
    tree = car(STRAPS, FIT, stops("left"), stops("right"), layers={**hard(), **hard(("front", "aft"), material, mm)})
    assert loose(tree) == (set() if play is None else {"front", "aft"})
    rows = [f.message for f in told(tree) if "settles in time" in f.message]
    assert [f"leaves {play:.1f}" in row for row in rows] == [True] * (0 if play is None else 2)


def test_two_that_settle_leave_the_play_of_both_and_what_nobody_has_said_is_asked() -> None:
    both = {key: {"type": "sheet", "material": "foam-5", "thickness_mm": 5.0} for key in ("a", "b")}
    tree = car(STRAPS, FIT, stops("left"), stops("right"), layers={**hard(), "front": both})
    assert any("leaves 3.0" in f.message for f in told(tree))
    tree["boxes"]["x"]["layers"]["front"] = {"a": {"type": "sheet", "thickness_mm": 4.0}}
    assert any("nobody has said what its liner is" in f.message for f in told(tree))


@pytest.mark.parametrize(("ask", "held"), [(0.0, True), (0.5, True), (0.51, False)])
def test_it_fits_where_it_lies_within_half_a_millimetre(ask: float, held: bool) -> None:
    kind = {"face_gap_mm": {"end_b": ask}}
    tree = car(STRAPS, FIT, stops("left"), stops("right"), layers=hard(), kind=kind, counts=(1, 1, 1))
    assert ("aft" not in loose(tree)) is held


@pytest.mark.parametrize(
    ("gap", "between", "says"),
    [
        (4.0, None, "nothing in it"), (4.0, "board-4", ""), (4.5, "board-4", ""), (4.51, "board-4", "in gaps of 4.5"),
        (3.99, "board-4", "in gaps of 4.0"), (5.0, "foam-5", "settles in time"), (0.0, None, ""),
    ],
)  # fmt: skip
def test_gaps_between_neighbours_are_filled_by_what_fits_in_them(gap: float, between: str | None, says: str) -> None:
    kind = {"neighbour_gap_mm": gap}
    tree = car(STRAPS, {"type": "fit", "between": between}, stops("left"), stops("right"), layers=hard(), kind=kind)
    fouls = [f.message for f in told(tree) if f.state == "foul"]
    assert bool(fouls) is bool(says)
    assert all(says in row or "settles" in row for row in fouls)


@pytest.mark.parametrize(
    ("row", "state"),
    [
        ({"limit_c": 59.0}, "foul"), ({"limit_c": 60.0}, None), ({"conducts": "yes"}, "tight"),
        ({"burns": "yes"}, "note"),
        ({"conducts": "yes", "burns": "yes", "limit_c": 40.0}, "foul"), ({}, None),
    ],
)  # fmt: skip
def test_a_liner_that_conducts_burns_or_stands_no_warmth_says_so(row: dict[str, Any], state: str | None) -> None:
    tree = car(OWN, layers=hard(("left",), "own"))
    plain = {"name": "own", "thickness_mm": 4.0, "creeps": "no", "source": "a test"}
    tree["tables"] = {**tree["tables"], "liners": {**tree["tables"]["liners"], "own": plain | row}}
    assert [f.state for f in found(tree, "inside.liner")] == ([state] if state else [])


# --- strength ---


@pytest.mark.parametrize("how", [how for how in WHOLE if "pressed" not in how])  # what presses is there without any
def test_twice_the_mass_uses_twice_as_much(how: str) -> None:
    """Statics is linear, also where contacts only push; links and clamps are thrown with the modules."""
    one, two = copy.deepcopy(WHOLE[how]), copy.deepcopy(WHOLE[how])
    for tree, share in ((one, 1.0), (two, 2.0)):
        tree["module_kinds"]["brick"]["mass_kg"] = 1.5 * share
        tree["boxes"]["x"]["fittings"] = {"per_module_kg": 0.5 * share, "box_kg": 0.0}
    before, after = uses(one), uses(two)
    assert after == {face: pytest.approx(2 * used, rel=1e-4) for face, used in before.items()}


@pytest.mark.parametrize(("use", "state"), [(0.79, "clear"), (0.81, "tight"), (0.999, "tight"), (1.001, "foul")])
@pytest.mark.parametrize("how", ["rods", "straps, welded"])
def test_a_use_is_tight_from_four_fifths_and_foul_beyond_all(how: str, use: float, state: str) -> None:
    tree = copy.deepcopy(WHOLE[how])
    tree["boxes"]["x"]["fittings"] = {"per_module_kg": 0.0}
    rows = [f for f in told(tree) if f.unit == "use" and "as a whole" not in f.message]
    worst = max(rows, key=lambda f: f.value or 0)
    tree["module_kinds"]["brick"]["mass_kg"] *= use / (worst.value or 1.0)
    again = next(f for f in told(tree) if f.id == worst.id)
    if "as a whole" not in again.message:
        assert (again.value, again.state) == (pytest.approx(use, rel=1e-6), state)


@pytest.mark.parametrize("how", ["rods", "rods at the ends"])
def test_bolts_beside_a_lifted_leg_are_pulled_by_more_than_lifts_it(how: str) -> None:
    """Each foot turns about its toe: the nearest of its two bolts is pulled by more than half of the lift, the more so
    the farther it stands off; a third bolt takes some of it."""

    def pulled(**foot: Any) -> float:
        tree = copy.deepcopy(WHOLE[how])
        tree["boxes"]["x"]["holders"]["h0"]["feet"] |= foot
        holding = held_box(tree).shell.held.by_holder["h0"]
        lift = np.zeros((1, 1, len(holding.grips()), 3))
        lift[..., 2] = 1000.0 / foot.get("each", 2)
        bolts = next(check for check in holding.checks(lift) if check.name == "bolts to the base")
        return float(bolts.steps(0, 0)[0].value)

    bend = pulled(bend_radius_mm=4.0)
    assert pulled(bend_radius_mm=20.0, leg_mm=66.0) > bend > 1.2 * 500.0
    assert pulled(each=3) < bend


@pytest.mark.parametrize("how", ["rods", "straps and boards"])
def test_a_hole_nearer_to_the_edge_of_its_foot_bears_less(how: str) -> None:
    def rim(mm: float) -> float:
        tree = copy.deepcopy(WHOLE[how])
        holder, own = ("h0", ("feet", "tab_mm")) if how == "rods" else ("h2", ("stop", "leg_mm"))
        tree["boxes"]["x"]["holders"][holder][own[0]][own[1]] = mm
        holding = held_box(tree).shell.held.by_holder[holder]
        sideways = np.full((1, 1, len(holding.grips()), 3), 100.0)
        row = next(c for c in holding.checks(sideways) if c.name.startswith("rim") and c.name[-4:] in ("feet", "tops"))
        return float(row.utilisation.max())

    near, far = (16.0, 40.0) if how == "rods" else (34.0, 60.0)
    assert rim(near) > 1.3 * rim(far)


@pytest.mark.parametrize(("tab", "leg", "held"), [(15.9, 34.0, True), (15.8, 34.0, False), (15.9, 33.5, False)])
def test_what_is_bolted_keeps_its_edge_and_room_for_a_socket(tab: float, leg: float, held: bool) -> None:
    """M6 in a tab, its hole 6.6; M8 in the leg of a stop, 6 thick bent round 6, its hole 9: 1.2 d0 either side."""
    gaps = {"end_a": 30, "end_b": 30}
    rods = car({**RODS, "feet": {**FEET, "tab_mm": tab}}, turn=EDGEWISE, counts=(3, 1, 1), kind={"face_gap_mm": gaps})
    stopped = car(STRAPS, FIT, stops("left", leg_mm=leg), stops("right"), layers=hard(("front", "aft", "base")))
    assert (bool(uses(rods)) and bool(uses(stopped))) is held


@pytest.mark.parametrize(("wide", "held"), [(64.8, True), (64.7, False)])
def test_a_stop_is_as_wide_as_its_bolts_want(wide: float, held: bool) -> None:
    """Three of M8, 1.2 d0 = 10.8 either side of each."""
    row = stops("left", wide_mm=wide, each=3)
    tree = car(STRAPS, FIT, row, stops("right"), layers=hard(("front", "aft", "base")))
    assert bool(uses(tree)) is held


@pytest.mark.parametrize(("leg", "held"), [(90.0, True), (90.1, False)])
def test_a_foots_leg_lies_under_its_own_module(leg: float, held: bool) -> None:
    """90 along the rods, on edge."""
    gaps = {"end_a": 30, "end_b": 30}
    rods = car({**RODS, "feet": {**FEET, "leg_mm": leg}}, turn=EDGEWISE, counts=(3, 1, 1), kind={"face_gap_mm": gaps})
    assert bool(uses(rods)) is held


def test_a_rough_check_is_clear_only_to_half_of_what_it_says() -> None:
    """The wall that a fitted stack is thrown against, by yield lines."""
    states = {}
    for kg in (6.0, 17.0, 18.5, 20.0, 30.0):
        tree = copy.deepcopy(WHOLE["straps and boards"])
        tree["module_kinds"]["brick"]["mass_kg"] = float(kg)
        row = next(f for f in told(tree) if f.id.endswith(":front"))
        if "front as a whole" in row.message:
            states[row.value or 0.0] = row.state
    assert {state for used, state in states.items() if 0.47 < used <= 0.5} == {"clear"}
    assert {state for used, state in states.items() if 0.5 < used <= 0.53} == {"tight"}


def test_a_rivet_nut_counts_for_nothing_without_a_test_and_then_for_what_it_held() -> None:
    row = {"size": "M8", "property_class": "8.8", "into": "rivet nut"}
    (foul,) = told(car({**OWN, "bolts": row}))
    assert (foul.state, "count for nothing in a crash" in foul.message) == ("foul", True)
    held = [uses(car({**OWN, "bolts": {**row, "tested_n": newton}})) for newton in (100.0, 200.0)]
    assert held[0]["top"] == pytest.approx(2 * held[1]["top"])


def test_soft_metal_wants_inserts_as_long_as_their_bolt_is_thick() -> None:
    """Of steel a thread is cut in the sheet; of aluminium it is not, and the insert wants 8 of it for M8."""

    def against(into: str, material: str, thick: float) -> set[str]:
        row = {"size": "M8", "property_class": "8.8", "into": into, "tested_n": 20_000.0}
        made = {"type": "folded", "thickness_mm": thick, "bend_radius_mm": 3 * thick}
        rows = told(car({**OWN, "bolts": row}, material=material, construction=made))
        return {f.message for f in rows if f.state == "foul" and ("thread" in f.message or "insert" in f.message)}

    assert not against("thread", "s235", 8.0)
    assert any("worn out" in message for message in against("thread", "al5754", 8.0))
    assert not against("insert", "al5754", 8.0)
    assert any("at least 8.0" in message for message in against("insert", "al5754", 7.9))


def test_the_way_a_box_stands_decides_what_a_crash_throws_where() -> None:
    """Nose to the right, the modules of the box are thrown at its side in a frontal impact; a leaning box is thrown
    partly down."""

    def case(face: str, **pose: float) -> str:
        tree = car(OWN, pose={"anchor": "front-left-base", "at_mm": list(AT), **pose})
        return next(f.message for f in told(tree) if f.id.endswith(f":{face}"))

    assert "front impact" in case("front")
    assert "front impact" in case("right", yaw_deg=90.0)
    assert "front impact" in case("left", yaw_deg=-90.0)
    assert "roll-over" in case("base", roll_deg=180.0)


def test_without_a_crash_case_it_is_said_what_holds_and_no_use() -> None:
    tree = copy.deepcopy(WHOLE["rods"])
    cases = {key: row for key, row in tree["tables"]["load_cases"].items() if row["kind"] == "road"}
    tree["tables"] = {**tree["tables"], "load_cases": cases}
    rows = told(tree)
    assert [(f.state, f.value) for f in rows] == [("clear", None)] * 6


def test_all_blocks_that_press_on_a_wall_press_together() -> None:
    tree = car(STRAPS, FIT, stops("left"), stops("right"), layers=hard(), counts=(1, 1, 1), kind={"mass_kg": 3.0})
    alone = uses(tree)["base"]
    box = tree["boxes"]["x"]
    box["blocks"]["b"] = {**box["blocks"]["a"], "origin_mm": [204.0, 0.0, 0.0]}
    box["holders"] |= {f"{key}b": {**row, "block": "b"} for key, row in box["holders"].items()}
    rows = {f.id: f for f in found(tree, "inside.held") if f.unit == "use" and "base as a whole" in f.message}
    for row in rows.values():
        assert row.working is not None
        demand = row.working()[0].value
        assert demand == pytest.approx(2 * (3.0 + 1.0) * 11 * 9.80665, rel=0.02)
    assert alone > 0


# --- what is drawn of it ---


@pytest.mark.parametrize("how", WHOLE)
def test_what_holds_stands_in_the_box_and_in_no_module(how: str) -> None:
    box = held_box(WHOLE[how])
    made = box.shell.made
    pieces = [s for p in box.shell.held.pieces for s in p.solids]
    rods = [s for p in box.shell.held.pieces for s in p.solids if p.name in ("rod", "bolt")]
    low, high = extent(pieces)[:3], extent(pieces)[3:]
    start, end = np.array(made.start_mm), np.array(made.start_mm) + made.inner_mm
    if "frame" in how:  # its ledges reach over the posts
        start[0], end[0] = made.along_walls(0)[:2]
    assert (low >= start - 1e-6).all()
    assert (high <= end + 1e-6).all()
    for module in box.shell.modules:
        solid = block(module.low, module.high)
        assert all(nearest(solid, piece).gap_mm > -1e-3 for piece in pieces if piece not in rods)


@pytest.mark.parametrize("how", ["rods", "rods at the ends", "straps and boards", "straps, welded"])
def test_its_parts_folded_up_are_what_is_drawn(how: str) -> None:
    """Within the rounding of the corners of bends; their holes are where the bolts and rods are."""
    assembly = resolve(validate(WHOLE[how]), {})
    box = assembly.boxes["x"]
    drawn: dict[str, list[Any]] = {}
    for piece in box.shell.held.pieces:
        drawn.setdefault(piece.part, []).extend(piece.solids)
    parts = {part.id: part for part in box.shell.held.parts("x", "X")}
    assert set(parts) == {f"x-{name}" for name in drawn if name}
    for name, solids in drawn.items():
        if name:
            found_at, wanted = extent(list(fold(parts[f"x-{name}"]).solids())), extent(solids)
            assert found_at == pytest.approx(wanted, abs=0.05), name
    cut = [p for p in parts_of(assembly) if p.each[0].id in parts]
    assert sum(p.quantity for p in cut) == len(parts)


def test_it_weighs_no_more_than_was_allowed_for_until_more_is_drawn() -> None:
    tree = copy.deepcopy(WHOLE["rods"])
    shell = held_box(tree).shell
    assert 0 < shell.held_kg < shell.allowed_kg
    assert shell.fittings_kg == shell.allowed_kg
    tree["boxes"]["x"]["fittings"] = {"per_module_kg": 0.0, "box_kg": 0.1}
    less = held_box(tree).shell
    assert less.fittings_kg == pytest.approx(less.held_kg)
    assert less.full_kg == pytest.approx(shell.full_kg - shell.allowed_kg + shell.held_kg)


@pytest.mark.parametrize(
    ("holder", "face", "grows"),
    [
        (OWN, "top", 0.0),  # its nut sinks in the hole
        ({**OWN, "bolts": {**NUTS, "size": "M8"}}, "top", 0.0),
        (stops("aft"), "aft", 46.0),
        (STRAPS, "left", 4 + 24.0 - 4),
        (STRAPS, "top", 2.0),
    ],
)
def test_the_box_grows_round_what_the_liner_leaves_no_room_for(holder: dict[str, Any], face: str, grows: float) -> None:
    axis = FACE_AT[face][0]
    size = [held_box(tree).shell.outer_mm[axis] for tree in (car(), car(holder))]
    both = 2 if face == "left" else 1  # a strap has a foot on either side
    assert size[1] - size[0] == pytest.approx(both * grows)


@pytest.mark.parametrize(("how", "axis", "less", "held"), [
    ("rods at the ends", 0, 0.0, True), ("rods at the ends", 0, 1.0, False), ("rods at the ends", 1, 1.0, False),
    ("stops, welded", 1, 0.0, True), ("stops, welded", 1, 1.0, False),
    ("straps, welded", 2, 0.0, True), ("straps, welded", 2, 1.0, False),
])  # fmt: skip
def test_a_given_inside_leaves_room_for_what_holds_or_it_is_foul(how: str, axis: int, less: float, held: bool) -> None:
    tree = copy.deepcopy(WHOLE[how])
    size = [float(mm) for mm in held_box(tree).shell.made.inner_mm]
    size[axis] -= less
    tree["boxes"]["x"]["inner"] = {"type": "fixed", "size_mm": size}
    assert bool(uses(tree)) is held
    assert any(f.state == "foul" and "there" in f.message for f in told(tree)) is not held


def test_nuts_outside_count_for_gaps_and_studs_inside_do_not() -> None:
    def nuts(bolts: dict[str, Any]) -> int:
        return sum(1 for piece in held_box(car({**OWN, "bolts": bolts})).pieces if piece.name == "nut")

    assert nuts(NUTS) == 2 * 4
    assert nuts({**NUTS, "into": "stud"}) == 0


# --- offered ---


def offered(tree: dict[str, Any], kind: str = "any") -> dict[str, Any]:
    design = validate(tree)
    return edited(design, held_by(design, "x", kind, {})).model_dump(mode="json", by_alias=True)


@settings(max_examples=10)
@given(
    counts=st.sampled_from([(3, 1, 1), (1, 4, 1), (2, 2, 1), (2, 1, 2)]),
    holes=st.booleans(),
    turn=st.sampled_from([EDGEWISE, {"down": "base", "aft": "end_b"}]),
    end=st.sampled_from([0.0, 14.0, 60.0]),
    kg=st.floats(0.5, 9),
)
def test_what_is_offered_holds_six_ways_and_makes_nothing_foul(
    counts: tuple[int, int, int], holes: bool, turn: dict[str, str], end: float, kg: float
) -> None:
    kind = {"face_gap_mm": {"end_a": end}, "mass_kg": kg, **({} if holes else {"mount_holes": None})}
    tree = car(counts=counts, turn=turn, kind=kind)
    before = {f.id for f in analyse(validate(tree), {}).findings if f.state == "foul"}
    try:
        after = offered(tree)
    except OutOfRange:
        event("nothing holds it")
        return
    assert set(uses(after)) == set(FACES)
    assert {f.id for f in analyse(validate(after), {}).findings if f.state == "foul"} <= before


def test_what_is_offered_leaves_hard_layers_as_they_were_said() -> None:
    tree = car(layers=hard(mm=3.5), kind={"mount_holes": None}, counts=(1, 2, 1))
    before, after = tree["boxes"]["x"]["layers"], offered(tree)["boxes"]["x"]["layers"]
    kept = [face for face, rows in before.items() if face in after and set(after[face]) == set(rows)]
    assert len(kept) >= 4
    assert all(after[face]["l"]["thickness_mm"] == 3.5 for face in kept)


def test_what_is_not_measured_yet_is_no_reason_to_offer_nothing_and_stays_not_known() -> None:
    tree = car()
    tree["readings"] = {"/module_kinds/brick/mass_kg": {"text": "6", "unit": "kg", "basis": "assumed"}}
    assert {f.state for f in told(offered(tree)) if f.unit == "use"} == {"unknown"}
    tree["module_kinds"]["brick"]["mass_kg"] = 400.0
    tree["readings"]["/module_kinds/brick/mass_kg"]["text"] = "400"
    with pytest.raises(OutOfRange, match="use"):
        offered(tree, "own_holes")


def test_what_cannot_be_is_refused_with_its_reason() -> None:
    with pytest.raises(OutOfRange, match="holes that lie level"):
        offered(car(), "rods")
    with pytest.raises(UnknownThing, match="way to hold"):
        offered(car(), "glue")
    with pytest.raises(OutOfRange, match="use"):
        offered(car(kind={"mass_kg": 400.0}), "own_holes")


def test_what_held_a_block_goes_with_it() -> None:
    tree = car(OWN)
    tree["boxes"]["x"]["blocks"]["b"] = {**tree["boxes"]["x"]["blocks"]["a"], "origin_mm": [700.0, 0.0, 0.0]}
    after = edited(validate(tree), [{"op": "remove", "path": "/boxes/x/blocks/a"}])
    assert after.boxes["x"].holders == {}


def bolts_of(tree: dict[str, Any]) -> list[tuple[float, float]]:
    held = held_box(tree).shell.held.by_holder["h0"]
    return [(round(grip.at[0], 3), round(grip.at[1], 3)) for grip in held.grips()]


def with_hole(tree: dict[str, Any], at: tuple[float, float], seat_mm: float) -> dict[str, Any]:
    drain = {"name": "drain", "face": "base", "from": ["front", "left"], "u_mm": at[0], "v_mm": at[1],
             "diameter_mm": seat_mm}  # fmt: skip
    changed = copy.deepcopy(tree)
    changed["boxes"]["x"]["openings"] = {"drain": drain}
    return changed


def test_of_the_own_holes_those_are_used_that_nothing_is_in_the_way_of() -> None:
    """Two of four: opposite corners; where something sits in one of these, the others; where too few are left, that is
    said, and what is in the way."""
    two = car({**OWN, "used": 2})
    (first, second), *_ = pairs = [bolts_of(two)[n : n + 2] for n in (0, 2)]
    assert all(a[0] != b[0] and a[1] != b[1] for a, b in pairs)
    blocked = with_hole(two, first, 20.0)
    assert first not in bolts_of(blocked) and len(bolts_of(blocked)) == 4  # noqa: PT018
    assert not [f for f in told(blocked) if f.state == "foul"]
    words = [message_text(f) for f in told(with_hole(car(OWN), second, 20.0)) if f.state == "foul"]
    assert len(words) == 1
    assert "3 of its 4 holes can be used, 4 wanted: one comes on drain" in words[0]


@pytest.mark.parametrize(("beside_mm", "fits"), [(8.01, True), (7.99, False)])
def test_a_bolt_with_its_washer_keeps_off_what_sits_in_the_base(beside_mm: float, *, fits: bool) -> None:
    """M8: a washer of 16, beside an opening of 20."""
    at = bolts_of(car(OWN))[0]
    tree = with_hole(car(OWN), (at[0] + 10.0 + beside_mm, at[1]), 20.0)
    assert ([f for f in told(tree) if f.state == "foul"] == []) is fits


def test_no_own_hole_over_a_bend_of_the_base_is_counted() -> None:
    near = {**HOLES, "from_ends_mm": 1, "from_sides_mm": 1}
    words = [message_text(f) for f in told(car(OWN, kind={"mount_holes": near}, layers={})) if f.state == "foul"]
    assert words
    assert all("one comes on a bend or a rim" in row for row in words)


@pytest.mark.parametrize(("between", "along", "fits"), [(300, "second", True), (301, "second", False),
                                                       (301, "first", True)])  # fmt: skip
def test_a_module_that_is_bolted_has_something_under_its_middle(between: float, along: str, *, fits: bool) -> None:
    """Runners that lie across it are no further apart than that; those along it carry all of it."""
    runners = {"r": {"type": "runners", "thickness_mm": 8, "wide_mm": 40, "between_mm": between, "along": along}}
    words = [message_text(f) for f in told(car(OWN, layers={"base": runners})) if "between the runners" in f.message]
    assert (words == []) is fits


@pytest.mark.parametrize(
    ("ends", "cut", "stands", "modules"),
    [
        (11.01, {}, "", ()),
        (10.99, {}, "a bend or a rim", (1, 2)),
        (38.4, CUT, "", ()),
        (38.2, CUT, "an edge that is cut off", (1,)),
    ],
)
def test_a_washer_keeps_to_what_is_flat_of_the_base(
    ends: float, cut: dict[str, Any], stands: str, modules: tuple[int, ...]
) -> None:
    """Walls of 3, bent round 3, washers of 16: 3 + 11 is 8 off where the bend begins; an edge cut off at 30 is 8 off,
    square to its slope, 11.3 further in."""
    holes = {**HOLES, "from_ends_mm": ends, "from_sides_mm": 40.0}
    tree = car(OWN, kind={"mount_holes": holes}, layers={}, chamfers=cut)
    words = [message_text(f) for f in told(tree) if f.state == "foul"]
    assert len(words) == len(modules)
    for number, row in zip(modules, words, strict=True):
        assert f"module {number}: 2 of its 4 holes can be used, 4 wanted: one comes on {stands}" in row
