"""What the views draw is where the things are."""

from typing import Any

import pytest

from levelcradle.core.analysis import analyse
from levelcradle.core.assembly import resolve
from levelcradle.core.design import Design, validate
from levelcradle.core.projections import Shape, shapes


def drawn(design: Design, kind: str) -> list[Shape]:
    return [s for s in shapes(resolve(design, {})) if s.kind == kind]


def span(shape: Shape, view: str, axis: int) -> tuple[float, float]:
    values = [p[axis] for p in getattr(shape, view)]
    return min(values), max(values)


def test_a_box_is_drawn_where_it_stands(demo: Design) -> None:
    tray = next(s for s in drawn(demo, "tray") if s.path == "boxes/tank")
    assert span(tray, "plan", 0) == (2670.5, 3064.5)
    assert span(tray, "plan", 1) == (-350.0, 350.0)
    assert span(tray, "side", 1) == (352.0, 597.0)


def test_modules_are_numbered_through_all_boxes(demo: Design) -> None:
    assert [s.label for s in drawn(demo, "module")] == [str(n) for n in range(1, 10)]


def test_terminals_stand_on_the_end_they_look_from(demo: Design) -> None:
    """The tank's modules look left with their terminals."""
    plates = [s for s in drawn(demo, "terminal") if s.owner == "boxes/tank"]
    assert len(plates) == 8
    assert {s.label for s in plates} == {"+", "−"}
    assert all(span(s, "plan", 1)[0] == pytest.approx(-350 + 3 + 4 + 60) for s in plates)


def test_every_side_of_a_bay_says_what_it_is(demo: Design) -> None:
    sides = {s.path.rsplit("/", 1)[1]: s.label for s in drawn(demo, "bay side") if s.owner == "bays/tank"}
    assert sides == {"left": "open", "right": "open", "floor": "open", "top": "metal", "fore": "open", "aft": "metal"}


def test_a_turned_box_is_drawn_turned(tree: dict[str, Any]) -> None:
    tree["boxes"]["tank"]["pose"]["yaw_deg"] = 90.0
    tray = next(s for s in drawn(validate(tree), "tray") if s.path == "boxes/tank")
    assert span(tray, "plan", 0) == (pytest.approx(2670.5 - 700), pytest.approx(2670.5))
    tree["boxes"]["tank"]["pose"]["yaw_deg"] = 45.0
    leaning = next(s for s in drawn(validate(tree), "tray") if s.path == "boxes/tank")
    assert len(leaning.plan) == 4
    assert len({p[0] for p in leaning.plan}) > 2


def test_what_came_out_is_drawn_as_gone(tree: dict[str, Any]) -> None:
    tree["items"]["charger"]["state"] = "out"
    assert [s.path for s in drawn(validate(tree), "gone")] == ["items/charger"]


def test_moving_one_box_leaves_the_others_shapes_as_they_are(tree: dict[str, Any]) -> None:
    """What does not depend on the moved box is the same object, not merely equal."""
    before = analyse(validate(tree), {})
    tree["boxes"]["tank"]["pose"]["at_mm"][0] += 1
    after = analyse(validate(tree), {})
    keep = [(a, b) for a, b in zip(before.shapes, after.shapes, strict=True) if a.owner == "boxes/bonnet"]
    assert keep
    assert all(a is b for a, b in keep)
    moved = [
        (a, b)
        for a, b in zip(before.shapes, after.shapes, strict=True)
        if a.owner == "boxes/tank" and a.kind == "module"
    ]
    assert all(a != b for a, b in moved)


def test_a_cached_answer_is_the_answer_of_a_fresh_look(tree: dict[str, Any]) -> None:
    """There and back again: the second analysis of the same content says the same."""
    first = analyse(validate(tree), {})
    tree["boxes"]["tank"]["construction"]["thickness_mm"] = 2.0
    other = analyse(validate(tree), {})
    tree["boxes"]["tank"]["construction"]["thickness_mm"] = 3.0
    again = analyse(validate(tree), {})
    assert again.findings == first.findings
    assert again.level == first.level
    assert other.boxes["tank"].shell_kg < first.boxes["tank"].shell_kg


@pytest.mark.parametrize(
    ("change", "what"),
    [
        (("module_kinds", "flagstone", "mass_kg", 30.0), "full"),
        (("tables", "materials", "s235", {"density_kg_m3": 8000.0}), "shell"),
        (("hardpoints", "tail-lf", "at_mm", [2770, -405, 540]), "c"),
    ],
)
def test_no_cache_outlives_what_it_was_made_from(tree: dict[str, Any], change: tuple[Any, ...], what: str) -> None:
    before = analyse(validate(tree), {})
    *way, last, value = change
    place = tree
    for step in way:
        place = place[step]
    place[last] = {**place[last], **value} if isinstance(value, dict) else value
    after = analyse(validate(tree), {})

    def figure(analysis: Any) -> float:
        tank = next(s for s in analysis.supports if s.box == "tank")
        return {
            "full": analysis.boxes["tank"].full_kg,
            "shell": analysis.boxes["tank"].shell_kg,
            "c": tank.mounts[0].connection.reach_mm,
        }[what]

    assert figure(after) != figure(before)
