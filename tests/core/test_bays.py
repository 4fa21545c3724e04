"""A space in every way of measuring gives the same metal; what reaches in is never lost."""

import math
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import Polygon

from levelcradle.core.bays import diagonal_result, metal, sections
from levelcradle.core.design import Bay, validate
from levelcradle.core.errors import DesignError
from levelcradle.core.solids import block, nearest
from levelcradle.core.survey import bay_result

METAL = {side: {"is": "metal", "gap_class": "same"} for side in ("fore", "aft", "left", "right", "floor", "top")}
SIDES = {
    "type": "sides", "floor_mm": 300.0, "top_left_mm": 700.0, "top_right_mm": 720.0,
    "left_floor_mm": -250.0, "left_top_mm": -330.0, "right_floor_mm": 350.0, "right_top_mm": 430.0,
}  # fmt: skip


def bay(*stations: dict[str, Any], **more: Any) -> Bay:
    rows = {f"s{n}": {"aft_mm": 1000.0 + 500.0 * n, **station} for n, station in enumerate(stations)}
    return Bay.model_validate({"name": "space", "stations": rows, "sides": METAL, **more})


def points(*places: tuple[float, float]) -> dict[str, Any]:
    return {
        "type": "points",
        "points": {f"p{n}": {"across_mm": float(x), "up_mm": float(z), "order": n} for n, (x, z) in enumerate(places)},
    }


def gap(space: Bay, low: tuple[float, float, float], high: tuple[float, float, float]) -> float:
    """Gap of a block to the nearest metal of its own bay."""
    return min(nearest(block(low, high), piece.solid).gap_mm for piece in metal(space, own_bay=True))


SAME_SECTION = {
    "widths": {
        "type": "widths", "floor_mm": 300.0, "top_left_mm": 700.0, "top_right_mm": 720.0,
        "width_floor_mm": 600.0, "width_top_mm": 760.0, "offset_mm": 50.0,
    },
    "leans": {
        "type": "leans", "floor_mm": 300.0, "top_left_mm": 700.0, "top_right_mm": 720.0, "width_floor_mm": 600.0,
        "offset_mm": 50.0,
        "left_lean_deg": math.degrees(math.atan2(80, 400)), "right_lean_deg": math.degrees(math.atan2(80, 420)),
    },
    "points": points((-250, 300), (-330, 700), (430, 720), (350, 300)),
}  # fmt: skip


@pytest.mark.parametrize("way", SAME_SECTION)
def test_every_way_of_measuring_gives_the_same_section(way: str) -> None:
    one, other = sections(bay(SIDES, SIDES)), sections(bay(SAME_SECTION[way], SIDES))
    for a, b in zip(one[0].ring, other[0].ring, strict=True):
        assert a == pytest.approx(b, abs=1e-9)
    assert other[0].sides == ("floor", "right", "top", "left")


def test_one_station_and_a_depth_is_a_straight_bay() -> None:
    straight = bay(SIDES, depth_mm=500.0)
    assert [s.ring for s in sections(straight)] == [s.ring for s in sections(bay(SIDES, SIDES))]
    assert bay_result(straight).litres == pytest.approx(bay_result(bay(SIDES, SIDES)).litres)


def test_litres_of_a_frustum() -> None:
    """Between squares of 400 and 200, 500 long: h/3 (A + √(AB) + B)."""
    wide = points((-200, 0), (200, 0), (200, 400), (-200, 400))
    narrow = points((-100, 100), (100, 100), (100, 300), (-100, 300))
    assert bay_result(bay(wide, narrow)).litres == pytest.approx(0.5 / 3 * (160_000 + 80_000 + 40_000) / 1e3)


TUNNEL = points((-400, 300), (-100, 300), (-100, 450), (100, 450), (100, 300), (400, 300), (400, 700), (-400, 700))


def test_what_reaches_into_a_space_is_metal() -> None:
    """A floor with a tunnel 200 wide and 150 high."""
    space = bay(TUNNEL, TUNNEL)
    assert gap(space, (1100, -390, 310), (1400, -110, 600)) == pytest.approx(10.0)
    assert gap(space, (1100, -300, 470), (1400, 300, 600)) == pytest.approx(20.0)
    assert gap(space, (1100, -50, 320), (1400, 50, 420)) < 0


@given(
    across=st.floats(-390, 350),
    up=st.floats(301, 640),
    left=st.floats(-300, -20),
    right=st.floats(20, 300),
    high=st.floats(310, 640),
)
def test_a_bulging_space_never_overstates_its_room(
    across: float, up: float, left: float, right: float, high: float
) -> None:
    """A small block is clear exactly where it lies in the outline."""
    ring = points(
        (-400, 300), (left, 300), (left, high), (right, high), (right, 300), (400, 300), (400, 700), (-400, 700)
    )
    low, top = (1200.0, across, up), (1250.0, across + 40, up + 40)
    inside = (
        across >= -400
        and across + 40 <= 400
        and up + 40 <= 700
        and not (across + 40 > left and across < right and up < high)
    )
    found = gap(bay(ring, ring), low, top)
    assert (found >= -1e-6) if inside else (found <= 1e-3)


def test_a_straight_edge_finds_the_floor_below_it() -> None:
    depths = {
        f"d{n}": {"across_mm": x, "depth_mm": d}
        for n, (x, d) in enumerate([(-200.0, 60.0), (0.0, 140.0), (200.0, 60.0)])
    }
    space = bay(*[{"type": "edge", "up_mm": 500.0, "depths": depths}] * 2)
    assert gap(space, (1100, -5, 400), (1400, 5, 450)) == pytest.approx(
        40 * math.cos(math.atan2(80, 200)) - 5 * math.sin(math.atan2(80, 200)), abs=0.01
    )


def test_a_lump_stands_proud_and_a_hollow_goes_deep() -> None:
    lump = {
        "name": "bracket",
        "side": "floor",
        "fore_mm": 1100.0,
        "aft_mm": 1200.0,
        "left_mm": -50.0,
        "right_mm": 50.0,
        "proud_mm": 30.0,
    }
    upright = {**SIDES, "left_top_mm": -250.0, "right_top_mm": 350.0, "top_right_mm": 700.0}
    space = bay(upright, upright, lumps={"a": lump})
    assert gap(space, (1120, -20, 345), (1150, 20, 600)) == pytest.approx(15.0)
    assert gap(space, (1300, -20, 345), (1400, 20, 600)) == pytest.approx(45.0)
    deep = bay(upright, upright, lumps={"a": {**lump, "hollow": True, "proud_mm": 40.0}})
    assert gap(deep, (1120, -20, 270), (1180, 20, 400)) == pytest.approx(10.0)  # over its bottom
    assert gap(deep, (1110, -45, 290), (1190, 20, 400)) == pytest.approx(5.0)  # to its flank
    assert gap(deep, (1050, -45, 290), (1190, 20, 400)) < 0  # the floor beside it is still there


def test_a_lump_on_a_leaning_wall_is_square_to_it() -> None:
    lump = {
        "name": "seam",
        "side": "right",
        "fore_mm": 1000.0,
        "aft_mm": 1500.0,
        "low_mm": 320.0,
        "high_mm": 690.0,
        "proud_mm": 10.0,
    }
    plain, with_lump = bay(SIDES, SIDES), bay(SIDES, SIDES, lumps={"a": lump})
    spot = (1200.0, 300.0, 480.0), (1210.0, 310.0, 490.0)
    assert gap(with_lump, *spot) == pytest.approx(gap(plain, *spot) - 10.0, abs=1e-3)


def diagonal(length: float | None) -> dict[str, Any]:
    one, other = ({"station": "s0", "corner": corner} for corner in ("left_floor", "right_top"))
    return {"one": one, "other": other, "length_mm": length}


def test_check_diagonal_out_of_square() -> None:
    """A rectangle 600 × 450 whose diagonal reads 760 for 750."""
    square = {**SIDES, "left_top_mm": -250.0, "right_top_mm": 350.0, "top_left_mm": 750.0, "top_right_mm": 750.0}
    square["right_floor_mm"] = square["right_top_mm"] = 350.0
    (row,) = diagonal_result(bay(square, square, diagonals={"a": diagonal(760.0), "not-taken": diagonal(None)}))
    assert (row.by_stations_mm, row.misfit_mm) == (pytest.approx(750.0), pytest.approx(10.0))
    assert row.out_of_square_deg == pytest.approx(
        math.degrees(math.acos((600**2 + 450**2 - 760**2) / (2 * 600 * 450))) - 90
    )


@pytest.mark.parametrize(
    ("change", "path"),
    [
        ({"stations": {}}, "/bays/tank/stations"),
        (
            {"lumps": {"a": {"name": "x", "side": "left", "left_mm": 0.0, "right_mm": 9.0, "proud_mm": 5.0}}},
            "/bays/tank/lumps/a",
        ),
        ({"diagonals": {"a": diagonal(700.0)}}, "/bays/tank/diagonals/a/one/station"),
    ],
)
def test_nonsense_is_refused_at_its_place(tree: dict[str, Any], change: dict[str, Any], path: str) -> None:
    tree["bays"]["tank"] |= change
    with pytest.raises(DesignError) as refused:
        validate(tree)
    assert path in [p.path for p in refused.value.problems]


def test_a_station_of_another_way_names_the_figure_that_is_wrong(tree: dict[str, Any]) -> None:
    tree["bays"]["tank"]["stations"]["x"] = {"aft_mm": 2900.0, **SAME_SECTION["widths"], "width_top_mm": -1.0}
    with pytest.raises(DesignError) as refused:
        validate(tree)
    assert [p.path for p in refused.value.problems] == ["/bays/tank/stations/x/width_top_mm"]


EDGE = {"type": "edge", "up_mm": 500.0, "depths": {f"d{n}": {"across_mm": x, "depth_mm": d} for n, (x, d) in enumerate(
    ((-300.0, 120.0), (-100.0, 200.0), (250.0, 160.0)))}}  # fmt: skip
KINDS = {"sides": SIDES, "edge": EDGE, **SAME_SECTION}
BULGING = points((-250, 300), (-120, 280), (350, 300), (470, 500), (430, 720), (60, 760), (-330, 700), (-390, 520))


@pytest.mark.parametrize("kind", KINDS)
def test_a_station_keeps_its_own_outline_whatever_corners_the_next_one_has(kind: str) -> None:
    """Corners that only the next station has are put on this one's own sides: its outline is the same line, and so is
    its area."""
    alone, between = sections(bay(KINDS[kind], KINDS[kind]))[0], sections(bay(KINDS[kind], BULGING))[0]
    assert len(between.ring) > len(alone.ring)
    own, other = Polygon(alone.ring), Polygon(between.ring)
    assert other.is_valid
    assert other.area == pytest.approx(own.area)
    assert other.symmetric_difference(own).area == pytest.approx(0, abs=1e-3)
