"""Service panels: what is cut out of a wall is out of its mass, its solids and its flat part alike; the cover lies on
flat wall, stands in nothing, comes off and lets a hand in."""

import math
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.spatial import ConvexHull
from shapely.geometry import Point, Polygon

from levelcradle.core.assembly import resolve
from levelcradle.core.design import validate
from levelcradle.core.design.base import FACE_AT
from levelcradle.core.design.box import EDGES_OF
from levelcradle.core.fold import fold
from levelcradle.core.part import Cutout
from tests.plain import a_block, box_at, found, plain_car

AT = (1000.0, 0.0, 400.0)
FRAMED = {
    "construction": {"type": "framed", "tube_mm": 15.0, "cladding_mm": 1.5, "rails": 0},
    "closures": {"lid": {"type": "panel"}},
}
APART = {"construction": {"type": "folded", "folder": {"deepest_mm": 50.0}}}
BOXES: dict[str, dict[str, Any]] = {"folded": {}, "apart": APART, "framed": FRAMED}


def panel(face: str = "left", size: tuple[float, float] = (120.0, 90.0), **more: Any) -> dict[str, Any]:
    (one, _), (two, _) = EDGES_OF[face]
    return {
        "name": "hatch",
        "face": face,
        "from": [one, two],
        "u_mm": 200.0,
        "v_mm": 150.0,
        "size_mm": list(size),
        **more,
    }


def car(*panels: dict[str, Any], things: dict[str, Any] | None = None, **more: Any) -> dict[str, Any]:
    box = box_at(AT, (2, 3, 3), service_panels={f"p{n}": one for n, one in enumerate(panels)}, **more)
    return plain_car(boxes={"x": box}, items=things or {})


def shell(tree: dict[str, Any]) -> Any:
    return resolve(validate(tree), {}).boxes["x"].shell


def told(tree: dict[str, Any], code: str = "box.panel") -> list[tuple[str, str]]:
    return [(f.id.rsplit(":", 1)[-1], f.state) for f in found(tree, code)]


@settings(max_examples=20)
@given(
    kind=st.sampled_from(list(BOXES)),
    face=st.sampled_from(["front", "aft", "left", "right", "base"]),
    size=st.tuples(st.floats(40, 150), st.floats(40, 150)),
    window=st.booleans(),
)
def test_the_wall_and_its_part_lose_the_same_metal_and_the_cover_brings_its_own(
    kind: str, face: str, size: tuple[float, float], window: bool
) -> None:
    bare, cut = shell(car(**BOXES[kind])), shell(car(panel(face, size, window=window), **BOXES[kind]))
    t, dense = (1.5 if kind == "framed" else 3.0), 7850e-9
    (made,) = cut.service_panels
    out = size[0] * size[1] + len(made.screws) * math.pi / 4 * 7.0**2
    wide, tall = size[0] + 40, size[1] + 40
    drilled = len(made.screws) * math.pi / 4 * 5.5**2
    cover = (wide * tall - drilled) * 2.0 * (1200e-9 if window else dense)
    heads = len(made.screws) * math.pi / 4 * 9.0**2 * 3.0 * dense
    assert cut.shell_kg - bare.shell_kg == pytest.approx(cover + heads - out * t * dense)
    before, after = (sum(p.mass_kg for p in one.parts("x", "X")) for one in (bare, cut))
    assert after - before == pytest.approx((0 if window else cover) - out * t * dense)
    solids = [[s for p in one.pieces if p.role in ("wall", "base", "top") for s in p.solids] for one in (bare, cut)]
    volumes = [sum(float(ConvexHull(s.points).volume) for s in rows) for rows in solids]
    assert volumes[0] - volumes[1] == pytest.approx(size[0] * size[1] * t, rel=1e-6)


@pytest.mark.parametrize("kind", BOXES)
@pytest.mark.parametrize("face", ["front", "aft", "left", "right", "base"])
def test_folded_up_the_hole_in_the_part_is_where_the_cover_lies(kind: str, face: str) -> None:
    """Just behind the cover: no sheet within the opening, the wall beside it."""
    one = shell(car(panel(face), **BOXES[kind]))
    (made,), parts = one.service_panels, list(one.parts("x", "X"))
    assert any(part.cutouts for part in parts)
    walls = [part for part in parts if not part.id.endswith("-cover")]
    flats = [(flat, part) for part in walls for flat in fold(part).flats]

    def metal(x: float) -> bool:
        """Whether a wall is right behind the cover, so far along from its middle."""
        at = made.frame.point((x, 0.0, -0.5))
        for flat, part in flats:
            u, v, up = flat.placement.inverse.point(at)
            whole = Polygon(flat.ring.exterior.coords, [cut.outline for cut in part.cutouts if inside(cut, flat.ring)])
            if 0 < up < part.thickness_mm and whole.contains(Point(u, v)):
                return True
        return False

    half = made.spec.size_mm[0] / 2
    assert [metal(x) for x in (-half - 1, -half + 1, 0.0, half - 1, half + 1)] == [True, False, False, False, True]
    for part in parts:
        blank = Polygon(part.outline, [cut.outline for cut in part.cutouts])
        assert blank.is_valid
        assert all(blank.contains(Point(h.at).buffer(h.diameter_mm / 2)) for h in part.holes)
        assert part.area_mm2 == pytest.approx(blank.area - sum(math.pi / 4 * h.diameter_mm**2 for h in part.holes))


def inside(cut: Cutout, ring: Polygon) -> bool:
    return bool(ring.contains(Point(cut.middle)))


@pytest.mark.parametrize(("kind", "least"), [("folded", 6.0), ("framed", 16.5)])
def test_its_cover_lies_on_flat_wall(kind: str, least: float) -> None:
    """Off a bend's beginning, or the tube behind the cladding: just on it, and a tenth less."""
    for edge, at in (("front", 80.0 + least), ("aft", 80.0 + least)):
        spec = panel("left", u_mm=at) | {"from": [edge, "base"]}
        assert told(car(spec, **BOXES[kind])) == []
        assert told(car({**spec, "u_mm": at - 0.1}, **BOXES[kind])) == [("over", "foul")]
    lid = panel("top")
    assert told(car(lid, **BOXES[kind]))[0] == ("wall", "foul")


def test_rails_leave_no_room_in_a_base() -> None:
    railed = {**FRAMED, "construction": {**FRAMED["construction"], "rails": 2}}
    assert told(car(panel("base"), **railed)) == [("wall", "foul")]


def test_it_stands_in_nothing_else_and_over_no_opening() -> None:
    first = panel("left", u_mm=90.0)
    assert told(car(first, panel("left", u_mm=90.0 + 160.1))) == []
    assert told(car(first, panel("left", u_mm=90.0 + 159.9))) == [("hatch", "foul")]
    hole = {"name": "gland", "face": "left", "from": ["front", "base"], "v_mm": 150.0, "diameter_mm": 20.0}
    for u, states in ((200.0 + 80 + 10.1, []), (200.0 + 80 + 9.9, [("g", "foul")])):
        assert told(car(panel("left"), openings={"g": {**hole, "u_mm": u}})) == states
    assert told(car(panel("left"), openings={"g": {**hole, "u_mm": 200.0, "face": "right"}})) == []


def test_screws_keep_off_the_edge_and_a_sealed_box_asks_for_its_gasket() -> None:
    assert told(car(panel(overlap_mm=16.8))) == []
    assert told(car(panel(overlap_mm=16.7))) == [("edge", "foul")]
    assert told(car(panel(gasket_mm=0.0))) == []
    assert told(car(panel(gasket_mm=0.0), sealing="gasket")) == [("seal", "foul")]


@pytest.mark.parametrize("face", ["front", "aft", "left", "right", "base"])
def test_it_comes_off_and_a_hand_goes_in_where_there_is_room_before_it(face: str) -> None:
    """5 off, and 90 for the hand, before the cover; what is met by half a millimetre or less does not count."""
    axis, far = FACE_AT[face]
    outer = shell(car()).outer_mm

    def state(room: float, size: tuple[float, float] = (120.0, 90.0)) -> str:
        low, high = [v - 2000 for v in AT], [v + 2000 for v in AT]
        if far:
            low[axis] = AT[axis] + outer[axis] + room + 4.0
        else:
            high[axis] = AT[axis] - room - 4.0
        thing = a_block((low[0], low[1], low[2]), (high[0], high[1], high[2]))
        (one,) = found(car(panel(face, size), things={"w": thing}), "access.panel")
        return one.state

    assert state(95.1) == "clear"
    assert state(94.4) == "note"
    assert state(500.0, (120.0, 59.9)) == "note"


def test_what_it_takes_is_bought() -> None:
    rows = dict(shell(car(panel(window=True, thickness_mm=4.0))).bought())
    assert rows["M5 screw and rivet nut: hatch"] == 8
    assert rows["gasket strip, 0.50 m: hatch"] == 1
    assert rows["clear polycarbonate 4 mm, 160 × 130: hatch"] == 1
    assert not any("polycarbonate" in what for what, _ in shell(car(panel())).bought())


@pytest.mark.parametrize("kind", ["folded", "apart", "racked", "case"])
@pytest.mark.parametrize("face", ["front", "left", "base"])
def test_a_wall_with_an_opening_carries_less_and_the_others_as_much(kind: str, face: str) -> None:
    """Wider one way or the other, or two beside each other: always less; as wide as the wall nothing."""
    case = {"type": "existing", "size_mm": [500, 450, 330], "wall_mm": 2, "base_mm": 2, "top_mm": 2, "mass_kg": 9}
    made = {
        "racked": {"construction": {"type": "racked"}, "closures": {}},
        "case": {"construction": case, "closures": {}},
    }
    spec = {**BOXES, **made}[kind]

    def carries(at: str, *panels: dict[str, Any]) -> float:
        return float(shell(car(*panels, **spec)).made.bearing_at(at).carries_n((60.0, 60.0)))

    whole, one = carries(face), carries(face, panel(face, (120.0, 90.0)))
    assert one < whole
    assert carries(face, panel(face, (150.0, 90.0))) < one or carries(face, panel(face, (120.0, 120.0))) < one
    assert carries(face, panel(face, (120.0, 90.0)), panel(face, (60.0, 60.0))) < one
    assert carries(face, panel(face, (2000.0, 90.0))) == 0.0
    assert carries("right", panel(face, (120.0, 90.0))) == carries("right")
