"""An open rack: angles and insert weigh what is drawn, none of it twice; only where it is dry and nobody sits."""

from typing import Any

import manifold3d
import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.geometry import Point, Polygon

from levelcradle.core.assembly import PlacedBox, resolve
from levelcradle.core.design import tree_of, validate
from levelcradle.core.edits import built_as, edited, held_by
from levelcradle.core.fabricate import bars_of, parts_of
from levelcradle.core.opened import opened
from levelcradle.core.solids import corner_points
from tests.plain import a_block, box_at, found, plain_car, space

AT = (1000.0, 0.0, 400.0)
racks = st.fixed_dictionaries(
    {
        "angle_mm": st.floats(20, 50),
        "angle_wall_mm": st.floats(2, 5),
        "insert_mm": st.floats(0.8, 3),
        "bend_radius_mm": st.floats(0.5, 4),
    }
)
insides = st.tuples(st.floats(250, 900), st.floats(250, 900), st.floats(150, 500))


def car(rack: dict[str, Any] | None = None, things: dict[str, Any] | None = None, **more: Any) -> dict[str, Any]:
    made = {"construction": {"type": "racked", **(rack or {})}, "closures": {}}
    return plain_car(boxes={"x": box_at(AT, (2, 2, 2), **made, **more)}, items=things or {})


def placed(tree: dict[str, Any]) -> PlacedBox:
    return resolve(validate(tree), {}).boxes["x"]


@settings(max_examples=15)
@given(racks, insides)
def test_no_metal_is_there_twice_it_reaches_to_its_outside_and_bars_and_insert_weigh_as_much(
    rack: dict[str, Any], size: tuple[float, float, float]
) -> None:
    tree = car(rack, inner={"type": "fixed", "size_mm": list(size)})
    box, assembly = placed(tree), resolve(validate(tree), {})
    angles = [p for p in box.shell.pieces if p.role == "frame"]
    flats = [p for p in box.shell.pieces if p.role in ("frame", "base", "wall")]
    bodies = [manifold3d.Manifold.hull_points(corner_points([s])) for p in flats for s in p.solids]
    together = manifold3d.Manifold.batch_boolean(bodies, manifold3d.OpType.Add)
    assert together.volume() == pytest.approx(sum(body.volume() for body in bodies), rel=1e-6)
    points = corner_points([s for p in flats for s in p.solids])
    assert points.min(axis=0) == pytest.approx([0, 0, 0], abs=1e-6)
    assert points.max(axis=0) == pytest.approx(box.shell.outer_mm)
    assert box.shell.inner_mm == pytest.approx(size)
    bars = [one for bar in bars_of(assembly) for one in bar.each]
    assert sum(bar.mass_kg for bar in bars) == pytest.approx(sum(p.mass_kg for p in angles))
    assert sorted(str(bar.section).split()[0] for bar in bars) == ["angle"] * 8 + ["flat"] * 4
    (insert,) = parts_of(assembly)
    rest = sum(p.mass_kg for p in box.shell.pieces if p.role != "frame")
    assert insert.mass_kg == pytest.approx(rest)
    for bar in bars:
        long = max(np.ptp(corner_points(p.solids), axis=0).max() for p in angles if bar.name.endswith(p.name))
        assert bar.length_mm == pytest.approx(long)


FLAGS: list[tuple[list[str], str]] = [([], "clear"), (["wet"], "foul"), (["passenger"], "foul"), (["hot"], "clear")]


@pytest.mark.parametrize(("flags", "state"), FLAGS)
def test_it_stands_where_it_is_dry_and_nobody_sits(flags: list[str], state: str) -> None:
    tree = car(bay="b")
    tree["bays"] = {"b": space((800, 1900), (600, 600), flags=dict.fromkeys(flags, True))}
    assert [f.state for f in found(tree, "box.space")] == [state]
    tree["boxes"]["x"]["sealing"] = "gasket"
    assert {f.state for f in found(tree, "box.space")} >= {"foul"}


def test_in_no_measured_space_nobody_knows() -> None:
    assert [f.state for f in found(car(), "box.space")] == ["unknown"]


def test_modules_are_drawn_out_of_its_open_top() -> None:
    """A module is 90 high: a ceiling that far over them, and nearer."""
    top = AT[2] + placed(car()).shell.outer_mm[2]
    module = max(m.high[2] for m in placed(car()).shell.modules)

    def state(room: float) -> str:
        up = AT[2] + module + room
        thing = a_block((0, -900, max(up, top + 0.1)), (3000, 900, up + 200))
        (told,) = found(car(things={"roof": thing}), "access.lid")
        return told.state

    assert state(92.0) == "clear"
    assert state(88.0) == "note"


@pytest.mark.parametrize(("u", "state"), [(30.0 + 14.0, None), (30.0 + 13.9, "foul")])
def test_openings_go_through_the_insert_between_the_angles(u: float, state: str | None) -> None:
    hole = {"name": "gland", "face": "left", "from": ["front", "base"], "u_mm": u, "v_mm": 60.0, "diameter_mm": 20.5}
    seat = {"kind": "cable gland", "size": "M20", "seat_mm": 28.0, "out_mm": 24.0, "in_mm": 10.0}
    tree = car(openings={"g": {**hole, "fitted": seat}})
    foul = [f.state for f in found(tree, "box.make") if "opening" in f.label]
    assert foul == ([state] if state else [])
    (insert,) = parts_of(resolve(validate(tree), {}))
    (cut,) = insert.holes
    assert Polygon(insert.outline).contains(Point(cut.at))
    assert insert.stand
    x, y = cut.at
    assert x == pytest.approx(u - placed(tree).shell.outer_mm[0] / 2)
    assert y < -placed(tree).shell.outer_mm[1] / 2


def test_laid_open_it_has_no_lid() -> None:
    assembly = resolve(validate(car()), {})
    assert [face.face for face in opened(assembly, "x").faces] == ["base", "right", "left", "front", "aft"]


def test_cut_edges_and_an_opening_in_what_is_open_are_refused_and_nothing_is_cut_for_the_first() -> None:
    cut = car(chamfers={"a": {"edge": ["left", "base"], "mm": [20, 20]}})
    assert "edges" in [f.label for f in found(cut, "box.make")]
    assert not parts_of(resolve(validate(cut), {}))
    assert not bars_of(resolve(validate(cut), {}))
    hole = {"name": "h", "face": "top", "from": ["left", "front"], "u_mm": 60, "v_mm": 60, "diameter_mm": 20}
    assert [f.label for f in found(car(openings={"h": hole}), "box.make")] == ["opening h"]


def test_a_folded_box_is_made_as_a_rack_and_its_modules_held_in_it() -> None:
    tree = plain_car(boxes={"x": box_at(AT, (2, 2, 1), bay="b")}, bays={"b": space((800, 1900), (600, 600))})
    design = validate(tree)
    racked = edited(design, built_as(design, "x", "racked"))
    assert placed(tree_of(racked)).shell.inner_mm == placed(tree).shell.inner_mm
    held = edited(racked, held_by(racked, "x", "straps", {}))
    states = {f.id: f.state for f in found(tree_of(held), "inside.held")}
    assert states
    assert "foul" not in states.values()


@pytest.mark.parametrize(("height", "told"), [(120.0 - 5.5, []), (119.9 - 5.5, ["angles"])])
def test_its_posts_are_long_enough_to_be_welded(height: float, told: list[str]) -> None:
    """Two legs of 30 below and above, and two more of post between: 120 outside, 5.5 of it angle and insert."""
    tree = car(inner={"type": "fixed", "size_mm": [500.0, 400.0, height]})
    assert [f.label for f in found(tree, "box.make")] == told


def test_a_chamber_lies_on_the_insert_between_the_angles() -> None:
    spec = {"name": "c", "face": "left", "from": ["front", "base"], "v_mm": 100.0, "size_mm": [100.0, 80.0, 60.0]}

    def states(u: float) -> list[str]:
        return [f.state for f in found(car(chambers={"c": {**spec, "u_mm": u}}), "box.chamber")]

    assert states(30.0 + 50.1) == []
    assert states(30.0 + 49.9) == ["foul"]


def test_what_stands_in_is_measured_from_the_insert_behind_the_angles() -> None:
    """The same opening, the same way in, angles half a centimetre thicker: so much nearer to what is inside."""

    def has(wall: float) -> float:
        hole = {"name": "g", "face": "left", "from": ["front", "base"], "u_mm": 110, "v_mm": 100, "diameter_mm": 20.5}
        seat = {"kind": "cable gland", "size": "M20", "seat_mm": 28.0, "out_mm": 24.0, "in_mm": 1.0}
        rack = {"angle_wall_mm": wall, "insert_mm": 2.0}
        (told,) = found(car(rack, openings={"g": {**hole, "fitted": seat}}), "box.opening")
        assert told.value is not None
        return told.value

    liner = 4.0
    assert has(3.0) == pytest.approx(has(8.0)) == pytest.approx(liner - 1.0)
