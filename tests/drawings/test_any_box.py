"""Parts of boxes of every construction and closure, with openings anywhere: either nothing is cut, or what is cut is
whole, opens in another program, and keeps the rules that nothing was said against."""

import io
from itertools import combinations
from typing import Any

import ezdxf
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.geometry import LineString, Point, Polygon

from levelcradle.core.analysis import analyse_assembly
from levelcradle.core.assembly import resolve
from levelcradle.core.design import validate
from levelcradle.core.design.base import FACE_AT
from levelcradle.core.design.box import EDGES_OF
from levelcradle.core.fabricate import parts_of
from levelcradle.core.part import FlatPart
from levelcradle.drawings import part_dxf
from tests.plain import box_at, plain_car

faces = st.sampled_from(list(FACE_AT))
Row = tuple[str, float, float, float, float]  # face, two distances, hole, how much wider its seat is
openings = st.lists(
    st.tuples(faces, st.floats(5, 300), st.floats(5, 200), st.floats(4, 60), st.floats(0, 40)), max_size=5
)
limits = st.fixed_dictionaries({}, optional={"longest_bend_mm": st.floats(100, 500), "deepest_mm": st.floats(80, 300)})
folded = st.builds(
    lambda made, radii: {**made, "bend_radius_mm": radii * made["thickness_mm"]},
    st.fixed_dictionaries(
        {
            "type": st.just("folded"),
            "thickness_mm": st.floats(1, 4),
            "base_mm": st.none() | st.floats(1, 8),
            "tabs": st.booleans(),
            "folder": limits,
        }
    ),
    st.floats(0.8, 2.5),
)
cut_off = st.lists(
    st.tuples(
        st.sampled_from([("base", "left"), ("aft", "base"), ("top", "right"), ("front", "top"), ("front", "left")]),
        st.tuples(st.floats(15, 90), st.floats(15, 90)),
        st.booleans(),
    ),
    max_size=2,
)
light = st.none() | st.fixed_dictionaries(
    {"face": faces, "diameter_mm": st.floats(10, 60), "apart_mm": st.floats(15, 90)}
)
framed = st.fixed_dictionaries(
    {
        "type": st.just("framed"),
        "tube_mm": st.floats(12, 50),
        "tube_wall_mm": st.floats(1, 3),
        "corners": st.sampled_from(["butt", "mitre", "notch"]),
        "rails": st.integers(0, 4),
        "cladding_mm": st.floats(0.8, 3),
        "fastener": st.sampled_from(["rivet", "rivet nut", "tapped"]),
        "pitch_mm": st.floats(30, 300),
    }
)


panels = st.lists(
    st.tuples(faces, st.floats(30, 300), st.floats(30, 200), st.floats(10, 120), st.floats(10, 120)), max_size=2
)


racked = st.fixed_dictionaries(
    {
        "type": st.just("racked"),
        "angle_mm": st.floats(15, 50),
        "angle_wall_mm": st.floats(2, 6),
        "insert_mm": st.floats(0.8, 4),
        "bend_radius_mm": st.floats(0.5, 6),
    }
)


def panels_of(rows: list[Row]) -> dict[str, Any]:
    found = {}
    for n, (face, u, v, long, high) in enumerate(rows):
        edges = [pair[0] for pair in EDGES_OF[face]]
        spec = {"name": f"panel {n}", "face": face, "from": edges, "u_mm": u, "v_mm": v, "size_mm": [long, high]}
        found[f"p{n}"] = spec
    return found


def holes_of(rows: list[Row]) -> dict[str, Any]:
    found = {}
    for n, (face, u, v, across, seat) in enumerate(rows):
        pairs = EDGES_OF[face]
        fitted = {"kind": "connector", "seat_mm": across + seat, "out_mm": 10.0, "in_mm": 0.0} if seat else None
        found[f"o{n}"] = {
            "name": f"hole {n}",
            "face": face,
            "from": [pairs[0][0], pairs[1][0]],
            "u_mm": u,
            "v_mm": v,
            "diameter_mm": across,
            "fitted": fitted,
        }
    return found


@settings(max_examples=30)
@given(st.one_of(folded, framed, racked), faces, openings, panels, st.tuples(*[st.integers(1, 3)] * 3), cut_off, light)
def test_what_is_cut_is_whole_and_keeps_the_rules(
    construction: dict[str, Any],
    face: str,
    rows: list[Row],
    covers: list[Row],
    counts: tuple[int, int, int],
    cuts: list[tuple[tuple[str, str], tuple[float, float], bool]],
    holes: dict[str, Any] | None,
) -> None:
    own = {"type": "cap"} if face in ("top", "base") else {"type": "flange", "inward": face in ("front", "aft")}
    lid = {"folded": {"lid": own}, "framed": {"lid": {"type": "panel", "face": face}}}
    closures = lid.get(construction["type"], {})
    box = {**box_at((1000, 0, 400), counts), "construction": construction, "closures": closures}
    on_it = {
        "openings": holes_of(rows),
        "service_panels": panels_of(covers),
        "lightening": {"l": holes} if holes else {},
    }
    if construction["type"] == "folded":
        on_it["chamfers"] = {
            f"c{n}": {"edge": list(edge), "mm": list(mm), "square": square and "base" in edge}
            for n, (edge, mm, square) in enumerate(cuts)
        }
    assembly = resolve(validate(plain_car(boxes={"x": {**box, **on_it}})), {})
    findings = analyse_assembly(assembly).findings
    assert not [f for f in findings if f.code == "failed"]
    against = {f.code for f in findings if f.state == "foul"} & {
        "box.make",
        "box.openings",
        "box.panel",
        "box.lightening",
    }
    for part in parts_of(assembly):
        _whole(part)
        if not against:
            _keeps_the_rules(part, assembly.boxes["x"].shell.made.wall_at("front").thickness_mm)


def _whole(part: FlatPart) -> None:
    ring = Polygon(part.outline)
    assert ring.is_valid, part.name
    assert ring.area > 0
    assert len(set(part.outline)) == len(part.outline), "no corner twice"
    data = part_dxf(part, released=False, version="R2010")
    doc = ezdxf.read(io.StringIO(data.decode()))
    assert not doc.audit().errors
    assert not doc.audit().fixes
    cut = list(doc.modelspace().query('*[layer=="CUT"]'))
    lines = [e for e in cut if e.dxftype() == "LWPOLYLINE"]
    assert all(line.closed for line in lines)
    areas = [Polygon([(x, y) for x, y, *_ in line.get_points()]).area for line in lines]
    assert areas == pytest.approx([ring.area, *(Polygon(c.outline).area for c in part.cutouts)], rel=1e-6)
    assert len(cut) == len(lines) + len(part.holes)


def _keeps_the_rules(part: FlatPart, sheet_mm: float) -> None:
    """Holes lie in the part and not on each other or on a bend; those that were placed, two thicknesses off each
    other."""
    ring = Polygon(part.outline, [cut.outline for cut in part.cutouts])
    assert ring.is_valid
    assert all(
        not ring.intersects(LineString([bend.start, bend.end])) or ring.covers(LineString([bend.start, bend.end]))
        for bend in part.bends
    ), "no bend runs into a cut-out"
    for hole in part.holes:
        assert ring.contains(Point(hole.at).buffer(hole.diameter_mm / 2)), (part.name, hole)
        for bend in part.bends:
            off = LineString([bend.start, bend.end]).distance(Point(hole.at)) - hole.diameter_mm / 2
            assert off > 0, (part.name, hole)
    for one, other in combinations(part.holes, 2):
        left = Point(one.at).distance(Point(other.at)) - (one.diameter_mm + other.diameter_mm) / 2
        placed = one.purpose.startswith("hole ") and other.purpose.startswith("hole ")
        assert left >= (2 * min(sheet_mm, part.thickness_mm) if placed else 0) - 1e-6, (part.name, one, other)


def test_forty_openings_on_one_face_are_said_and_break_nothing() -> None:
    rows = [("front", 5.0 * n, 40.0, 30.0, 10.0) for n in range(1, 41)]
    tree = plain_car(boxes={"x": {**box_at((1000, 0, 400), (2, 2, 2)), "openings": holes_of(rows)}})
    analysis = analyse_assembly(resolve(validate(tree), {}))
    codes = [f.code for f in analysis.findings if f.state == "foul"]
    assert "box.openings" in codes
    assert "failed" not in codes
