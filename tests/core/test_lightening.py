"""Lightening holes: what they take off is what is cut, they keep clear of everything, and weaken what they are in."""

import math
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.geometry import Point, Polygon

from levelcradle.core.assembly import PlacedBox, resolve
from levelcradle.core.design import validate
from levelcradle.core.part import FlatPart
from tests.plain import box_at, found, held, plain_car, space

AT = (1000.0, 0.0, 400.0)
MADE = {
    "folded": {"construction": {"type": "folded"}},
    "apart": {"construction": {"type": "folded", "folder": {"longest_bend_mm": 1.0}}},
    "framed": {"construction": {"type": "framed"}, "closures": {"lid": {"type": "panel"}}},
    "racked": {"construction": {"type": "racked"}, "closures": {}},
}
FACES = ("front", "aft", "left", "right", "base")


def box(face: str = "left", how: str = "folded", more: dict[str, Any] | None = None, **holes: Any) -> dict[str, Any]:
    return {**box_at(AT, (3, 2, 2)), **MADE[how], "lightening": {"a": {"face": face, **holes}}, **(more or {})}


def placed(of: dict[str, Any]) -> tuple[PlacedBox, list[FlatPart]]:
    one = resolve(validate(plain_car(boxes={"x": of})), {}).boxes["x"]
    return one, list(one.shell.parts("x", "X"))


@settings(max_examples=40)
@given(
    how=st.sampled_from(list(MADE)),
    face=st.sampled_from(FACES),
    across=st.floats(10, 60),
    apart=st.floats(20, 150),
    edge=st.floats(6, 40),
)
def test_what_it_loses_is_what_is_cut(how: str, face: str, across: float, apart: float, edge: float) -> None:
    spec = {"diameter_mm": across, "apart_mm": max(apart, 1.5 * across), "edge_mm": edge}
    light, parts = placed(box(face, how, **spec))
    whole, solid = placed({**box(face, how), "lightening": {}})
    (row,) = light.shell.lightened
    holes = [(part, hole) for part in parts for hole in part.holes if hole.purpose == "lightening"]
    assert len(holes) == len(row.at)
    lost = whole.shell.shell_kg - light.shell.shell_kg
    assert lost == pytest.approx(sum(p.mass_kg for p in solid) - sum(p.mass_kg for p in parts), abs=1e-9)
    assert (lost > 0) == bool(holes)
    for part, hole in holes:
        assert Polygon(part.outline).contains(Point(hole.at).buffer(across / 2 + edge - 0.1)), part.name
        for other in part.holes:
            if other is not hole:
                left = math.dist(hole.at, other.at) - (across + other.diameter_mm) / 2
                assert left >= min(spec["apart_mm"] - across, edge) - 1e-6
        for bend in part.bends:
            a, b = Point(bend.start), Point(bend.end)
            assert Point(hole.at).distance(a.union(b).envelope) >= across / 2 + edge
    moment = sum(p.mass_kg * p.centre[1] for p in whole.shell.pieces if p.role != "holder")
    now = sum(p.mass_kg * p.centre[1] for p in light.shell.pieces if p.role != "holder")
    if lost and face in ("left", "right"):
        wide = light.shell.outer_mm[1]
        assert (moment - now) / lost == pytest.approx(0.0 if face == "left" else wide, abs=6), "out of that wall"


def test_they_keep_clear_of_openings_and_covers_and_come_back_without_them() -> None:
    hole = {"name": "gland", "face": "left", "from": ["front", "base"], "u_mm": 200.0, "v_mm": 100.0,
            "diameter_mm": 40.0}  # fmt: skip
    cover = {"name": "hand", "face": "left", "from": ["front", "base"], "u_mm": 450.0, "v_mm": 100.0,
             "size_mm": [90.0, 70.0]}  # fmt: skip
    none, _ = placed(box())
    both, _ = placed(box(more={"openings": {"g": hole}, "service_panels": {"p": cover}}))
    left, all_of_them = set(both.shell.lightened[0].at), set(none.shell.lightened[0].at)
    gone = {(x, z) for x, _, z in all_of_them - left}
    assert left < all_of_them
    for x, _, z in left:
        assert math.dist((x, z), (200.0, 100.0)) >= 15 + 15 + 20
        assert not (450 - 65 - 30 < x < 450 + 65 + 30 and 100 - 55 - 15 < z < 100 + 55 + 15)
    near = {(x, z) for x, z in gone if math.dist((x, z), (200.0, 100.0)) < 50 or (355 < x < 545 and 15 < z < 185)}
    assert gone == near, "nothing goes that was in no way"


def test_a_wall_with_holes_carries_so_much_less() -> None:
    whole, _ = placed({**box(), "lightening": {}})

    def carries(across: float) -> float:
        one, _ = placed(box(diameter_mm=across, apart_mm=60.0))
        bearing = one.shell.made.bearing_at("left")
        assert bearing is not None
        return bearing.carries_n((100.0, 100.0))

    bearing = whole.shell.made.bearing_at("left")
    assert bearing is not None
    assert carries(15.0) == pytest.approx(0.75 * bearing.carries_n((100.0, 100.0)))
    assert carries(30.0) < carries(15.0)


def told(more: dict[str, Any] | None = None, flags: Any = (), **holes: Any) -> dict[str, str]:
    bays = {"b": space((900, 1700), (400, 400), flags=dict.fromkeys(flags, True))} if flags is not None else {}
    of = {**box(more=more, **holes), **({"bay": "b"} if bays else {})}
    tree = plain_car(boxes={"x": of}, bays=bays)
    rows = {f.id.split(":")[-1]: f.state for code in ("box.lightening", "box.space") for f in found(tree, code)}
    return {key: state for key, state in rows.items() if key != "count"}


def test_only_what_stands_dry_and_open_has_them() -> None:
    assert told() == {"open": "clear"}
    assert told(flags=["wet"]) == {"open": "foul"}
    assert told(flags=["passenger"]) == {"open": "foul"}
    assert told(flags=None) == {"open": "unknown"}
    assert told({"sealing": "gasket"})["open"] == "foul"


def test_sheet_is_left_between_and_beside_them_and_too_many_are_none() -> None:
    assert told(diameter_mm=40.0, apart_mm=60.0) == {"open": "clear"}
    assert told(diameter_mm=40.0, apart_mm=59.9)["apart"] == "foul"
    assert told(edge_mm=6.0) == {"open": "clear"}
    assert told(edge_mm=5.9)["edge"] == "foul"
    assert told(diameter_mm=10.0, apart_mm=12.0)["none"] == "foul"
    assert told(diameter_mm=200.0, apart_mm=400.0)["none"] == "foul"


def test_a_bracket_is_welded_to_sheet_and_not_over_holes() -> None:
    hard = {"name": "H", "at_mm": [1300.0, -60.0, 450.0], "direction": [0, 0, 1], "thread": "M10"}
    tree = plain_car(boxes={"x": box()}, hardpoints={"h": hard}, mounts={"m": held("x", "h", "left")})
    assert [f.id for f in found(tree, "box.lightening") if f.state == "foul"] == ["lightening:boxes/x:a:bracket m"]
    tree["boxes"]["x"]["lightening"]["a"]["face"] = "right"
    assert not [f for f in found(tree, "box.lightening") if f.state == "foul"]


@pytest.mark.parametrize(("off", "state"), [(15.1, "clear"), (14.9, "foul")])
def test_a_hole_may_end_where_a_bracket_begins(off: float, state: str) -> None:
    """Of 30 across, its middle so far from the doubler's edge."""
    hard = {"name": "H", "at_mm": [1300.0, -60.0, 450.0], "direction": [0, 0, 1], "thread": "M10"}
    tree = plain_car(boxes={"x": box()}, hardpoints={"h": hard}, mounts={"m": held("x", "h", "left")})
    one = resolve(validate(tree), {}).boxes["x"]
    end = max(piece.solid.high[0] for mount in one.mounts for piece in mount.pieces if piece.on_wall)
    start = one.placement.inverse.point((end, 0.0, 0.0))[0] + off - 15.0
    tree["boxes"]["x"]["lightening"]["a"] |= {"from_mm": start, "to_mm": start + 30.0}
    assert resolve(validate(tree), {}).boxes["x"].shell.lightened[0].at
    states = {f.state for f in found(tree, "box.lightening") if "bracket" in f.id}
    assert states == ({"foul"} if state == "foul" else set())


def test_they_come_only_between_the_places_that_are_said() -> None:
    whole, _ = placed(box())
    some, _ = placed(box(from_mm=250.0, to_mm=450.0))
    xs = [x for x, _, _ in some.shell.lightened[0].at]
    assert 0 < len(xs) < len(whole.shell.lightened[0].at)
    assert min(xs) >= 250 + 15
    assert max(xs) <= 450 - 15
    assert placed(box(from_mm=250.0, to_mm=260.0))[0].shell.lightened[0].at == ()
