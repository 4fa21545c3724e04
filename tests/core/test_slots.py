"""Holes with more play than a round one: what they cost, how they are cut, and what a box may have of them."""

import math
from typing import Any

import pytest

from levelcradle.core.design import standard_tables, validate
from levelcradle.core.strength import BoltHole
from tests.core.hung import angles, mounts_of, tabs
from tests.plain import found

WELDED = {"type": "welded", "from_mm": 22.0, "length_mm": 80.0}
CARS = {"angle": lambda **shape: angles(to_box=WELDED, **shape), "tab": lambda **shape: tabs(**shape)}


def holed(tree: dict[str, Any], **holes: str) -> dict[str, Any]:
    for key, hole in holes.items():
        tree["mounts"][key]["shape"]["hole"] = hole
    return tree


def use(tree: dict[str, Any], check: str, key: str = "left0") -> float:
    return next(row.utilisation for row in mounts_of(tree)[key].rows if row.check == check)


@pytest.mark.parametrize(
    ("size", "oversize", "long"),
    [("M10", 13.0, 14.0), ("M12", 15.0, 16.0), ("M16", 20.0, 22.0), ("1/2-13", 15.7, 16.7)],
)
def test_how_large_they_are(size: str, oversize: float, long: float) -> None:
    """EN 1090-2 table 11: + 3 and a slot of + 4 up to M14, + 4 and + 6 above; from memory."""
    bolt = standard_tables().bolts[size]
    wide, slot = BoltHole.of(bolt, "oversize"), BoltHole.of(bolt, "slot across")
    assert (wide.across_mm, wide.away_mm) == pytest.approx((oversize, oversize))
    assert (slot.across_mm, slot.away_mm) == pytest.approx((bolt.clearance_hole_mm, long))


@pytest.mark.parametrize("kind", CARS)
@pytest.mark.parametrize(("hole", "bears", "slips"), [("oversize", 0.8, 0.85), ("slot along", 0.6, 0.76)])
def test_friction_and_bearing_are_less(kind: str, hole: str, bears: float, slips: float) -> None:
    """EN 1993-1-8 tables 3.4 and 3.6, from memory; the edges are nearer too."""
    plain, loose = CARS[kind](toe_mm=45.0, width_mm=120.0), holed(CARS[kind](toe_mm=45.0, width_mm=120.0), left0=hole)
    assert use(loose, "bearing") == pytest.approx(use(plain, "bearing") / bears, rel=1e-6)
    for tree in (plain, loose):  # on the road alone
        tree["tables"] = {**tree["tables"], "load_cases": {
            key: row for key, row in tree["tables"]["load_cases"].items() if row["kind"] == "road"}}  # fmt: skip
    assert use(loose, "bolt") == pytest.approx(use(plain, "bolt") / slips, rel=1e-6)


@pytest.mark.parametrize("kind", CARS)
def test_a_slot_takes_from_the_section_that_it_crosses(kind: str) -> None:
    check = "leg A at the bolt" if kind == "angle" else "tab at the bolt"
    plain = use(CARS[kind](), check)
    assert use(holed(CARS[kind](), left0="slot along"), check) > plain
    assert use(holed(CARS[kind](), left0="slot across"), check) == pytest.approx(plain)


@pytest.mark.parametrize("kind", CARS)
def test_it_is_cut_as_it_is_checked(kind: str) -> None:
    for hole, (away, across) in {"slot along": (11.0, 14.0), "slot across": (14.0, 11.0)}.items():
        tree = holed(CARS[kind](), left0=hole)
        part = next(iter(mounts_of(tree)["left0"].connection.parts(validate(tree).tables)))
        (slot,) = part.cutouts
        assert slot.size_mm == pytest.approx((away, across))
        assert [h for h in part.holes if h.purpose == "M10"] == []
        area = 3.0 * 11.0 + math.pi / 4 * 11.0**2
        xs = slot.outline
        shoelace = sum(a[0] * b[1] - b[0] * a[1] for a, b in zip(xs, (*xs[1:], xs[0]), strict=True)) / 2
        assert shoelace == pytest.approx(area, rel=0.01)
    wide = holed(CARS[kind](), left0="oversize")
    part = next(iter(mounts_of(wide)["left0"].connection.parts(validate(wide).tables)))
    assert [h.diameter_mm for h in part.holes if h.purpose == "M10"] == [13.0]


def test_an_edge_is_nearer_to_the_end_of_a_slot() -> None:
    tree = holed(angles(to_box=WELDED, toe_mm=14.0), left0="slot across")
    told = {key: [text for text, fits in m.geometry if not fits] for key, m in mounts_of(tree).items()}
    assert told == {"left0": ["bolt to toe 12.5, at least 13.2"], "left1": [], "right0": [], "right1": []}


def slots(tree: dict[str, Any]) -> set[str]:
    return {f.id for f in found(tree, "mount.slot") if f.state == "foul"}


def test_two_round_holes_hold_a_box_in_its_place() -> None:
    wide = {"left0": "oversize", "left1": "oversize"}
    assert slots(holed(angles(to_box=WELDED), **wide)) == set()
    assert slots(holed(angles(to_box=WELDED), **wide, right0="oversize")) == {"mount:round:x"}


@pytest.mark.parametrize(("hole", "throw", "foul"), [
    ("slot along", {"aft_g": -20.0}, True), ("slot across", {"aft_g": -20.0}, False),
    ("slot along", {"right_g": 20.0}, False), ("slot across", {"right_g": 20.0}, True),
])  # fmt: skip
def test_no_slot_lies_the_way_that_a_crash_throws_it_most(hole: str, throw: dict[str, float], *, foul: bool) -> None:
    """The bends of brackets on the long walls run along the car."""
    tree = holed(angles(to_box=WELDED), left0=hole)
    case = {"name": "throw", "kind": "crash", "source": "made up", "aft_g": 0.0, "right_g": 0.0, "up_g": -1.0, **throw}
    road = {key: row for key, row in tree["tables"]["load_cases"].items() if row["kind"] == "road"}
    tree["tables"] = {**tree["tables"], "load_cases": {**road, "throw": case}}
    assert slots(tree) == ({"mount:slot:left0"} if foul else set())


def test_slots_are_not_asked_where_there_are_none() -> None:
    assert found(angles(to_box=WELDED), "mount.slot") == []
