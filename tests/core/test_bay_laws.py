"""Laws of a space: another way of saying it, its mirror image and its offer change no metal."""

import copy
from typing import Any

import pytest
from hypothesis import given, reject
from hypothesis import strategies as st
from shapely.geometry import Polygon

from levelcradle.core.assembly import resolve
from levelcradle.core.bays import MeasuringMethod, bay_of_block, mirrored, restated, sections
from levelcradle.core.design import Bay, validate
from levelcradle.core.errors import DesignError
from levelcradle.core.solids import block
from levelcradle.core.survey import bay_result, carriers_near, depth_behind

SIDES = {side: {"is": "metal", "gap_class": "same"} for side in ("fore", "aft", "left", "right", "floor", "top")}
MM = st.integers(50, 600).map(float)


@st.composite
def spaces(draw: st.DrawFn) -> Bay:
    """Two stations that lean and taper as they like, right way round."""

    def station(aft: float) -> dict[str, Any]:
        floor = draw(MM)
        return {
            "aft_mm": aft, "floor_mm": floor, "top_left_mm": floor + draw(MM), "top_right_mm": floor + draw(MM),
            "left_floor_mm": -draw(MM), "left_top_mm": -draw(MM), "right_floor_mm": draw(MM), "right_top_mm": draw(MM),
        }  # fmt: skip

    return Bay.model_validate(
        {"name": "space", "stations": {"a": station(1000.0), "b": station(1400.0)}, "sides": SIDES}
    )


def with_station(space: Bay, key: str, station: Any) -> Bay:
    tree = space.model_dump(mode="json", by_alias=True)
    tree["stations"][key] = station.model_dump(mode="json")
    return Bay.model_validate(tree)


@given(spaces(), st.sampled_from(["sides", "leans", "points"]))
def test_said_another_way_it_is_the_same_space(space: Bay, way: MeasuringMethod) -> None:
    again = with_station(space, "a", said_as(space, way))
    for one, other in zip(sections(space), sections(again), strict=True):
        assert Polygon(one.ring).symmetric_difference(Polygon(other.ring)).area == pytest.approx(0, abs=1e-3)
    assert bay_result(again).litres == pytest.approx(bay_result(space).litres, rel=1e-9)


def said_as(space: Bay, way: MeasuringMethod) -> Any:
    """Station a in another way; a wall that leans beyond 80° cannot be said by its angle and is refused, never more."""
    try:
        return restated(space, "a", way)
    except DesignError:
        reject()


@given(spaces())
def test_two_widths_say_only_what_stands_in_the_middle(space: Bay) -> None:
    station = space.stations["a"]
    assert station.type == "sides"
    off = (station.left_top_mm + station.right_top_mm) / 2 - (station.left_floor_mm + station.right_floor_mm) / 2
    if abs(off) > 0.06:
        with pytest.raises(DesignError, match=r"two widths cannot say that|wrong"):
            restated(space, "a", "widths")
    elif abs(off) < 0.04:
        again = with_station(space, "a", restated(space, "a", "widths"))
        assert bay_result(again).litres == pytest.approx(bay_result(space).litres, rel=1e-6)


@given(spaces(), st.sampled_from(["sides", "leans", "points", "edge"]))
def test_mirrored_twice_it_is_as_it_was(space: Bay, way: MeasuringMethod) -> None:
    said = with_station(space, "a", said_as(space, way))
    once = with_station(said, "a", mirrored(said, "a"))
    twice = with_station(once, "a", mirrored(once, "a"))
    assert Polygon(sections(twice)[0].ring).equals_exact(Polygon(sections(said)[0].ring), 1e-9)
    left = min(x for x, _ in sections(said)[0].ring)
    assert max(x for x, _ in sections(once)[0].ring) == pytest.approx(-left)


@given(st.tuples(*[st.integers(-800, 800).map(float)] * 3), st.tuples(*[MM] * 3))
def test_the_place_of_a_thing_is_as_large_as_the_thing(low: tuple[float, ...], size: tuple[float, ...]) -> None:
    thing = block(low, tuple(a + b for a, b in zip(low, size, strict=True)))  # type: ignore[arg-type]
    offered = bay_of_block("where it was", thing)
    assert bay_result(offered).litres == pytest.approx(size[0] * size[1] * size[2] / 1e6)
    assert {side.is_ for side in (offered.sides.fore, offered.sides.top, offered.sides.left)} == {"not measured"}


@given(spaces(), st.integers(1, 400).map(float))
def test_moved_aft_its_room_stays(space: Bay, by: float) -> None:
    tree = space.model_dump(mode="json", by_alias=True)
    for station in tree["stations"].values():
        station["aft_mm"] += by
    assert bay_result(Bay.model_validate(tree)).litres == pytest.approx(bay_result(space).litres)


def test_what_could_carry_a_box_says_what_is_known_of_it(tree: dict[str, Any]) -> None:
    tree["hardpoints"]["tail-lf"] |= {"wall_mm": 2.5, "carried_kg": 60.0, "uncut": False, "kind": "captive nut"}
    tree["members"] = {
        "rail": {
            "name": "left rail", "start_mm": [2600, -420, 450], "end_mm": [3300, -420, 450], "width_mm": 60,
            "height_mm": 90,
            "main": False, "condition": "cracked",
        },
        "far": {"name": "far rail", "start_mm": [0, -420, 450], "end_mm": [500, -420, 450], "width_mm": 60,
        "height_mm": 90},
    }  # fmt: skip
    rows = {c.path: c for c in carriers_near(validate(tree), "tank")}
    assert "captive nut" in rows["hardpoints/tail-lf"].message
    assert "wall 2.5 mm, carried 60 kg before, reuse cuts the vehicle" in rows["hardpoints/tail-lf"].message
    assert rows["members/rail"].message == "closed, bolted on, wall not known, cracked"
    assert "members/far" not in rows


def test_what_a_point_carried_before_is_evidence_for_the_road_only(tree: dict[str, Any]) -> None:
    from levelcradle.core.analysis import analyse

    for before, words in ((60.0, "evidence for the road, none for a crash"), (20.0, "more than it is known to hold")):
        changed = copy.deepcopy(tree)
        changed["hardpoints"]["tail-lf"]["carried_kg"] = before
        found = [f for f in analyse(validate(changed), {}).findings if f.code == "survey.carried"]
        assert len(found) == 1
        assert words in found[0].message
        hung = resolve(validate(changed), {}).boxes["tank"].hung_kg
        assert found[0].value == pytest.approx(hung / 4)
        assert hung > 130.6 + 4, "with its brackets and doublers"
        assert found[0].state == "note"


def test_drilling_meets_what_is_nearest(tree: dict[str, Any]) -> None:
    tree["items"]["plate"] = {
        "name": "plate", "state": "stays", "solid": {"type": "block", "low_mm": [1500, 500, 300], "high_mm": [1700, 600,
        310]},
    }  # fmt: skip
    assembly = resolve(validate(tree), {})
    found = depth_behind(assembly, (1600.0, 550.0, 360.0), (0.0, 0.0, -2.0))
    assert found
    assert (found.name, found.depth_mm) == ("plate", pytest.approx(50.0))
    assert depth_behind(assembly, (1600.0, 550.0, 5000.0), (0.0, 0.0, 1.0)) is None


def test_an_older_file_without_a_table_of_liners_gets_the_rows_of_this_version(tree: dict[str, Any]) -> None:
    del tree["tables"]["liners"]
    liners = validate(tree).tables.liners
    assert liners["rubber-4"].thickness_mm == 4
    assert {row.creeps for row in liners.values()} == {"yes", "no"}
    assert not any(row.own for row in liners.values())
