"""A hole that is drilled beside another leaves metal between them, or the first is welded shut."""

from typing import Any

import pytest

from tests.core.hung import angles
from tests.plain import analysed

WELDED = {"type": "welded", "from_mm": 22.0, "length_mm": 90.0}


def beside(off: tuple[float, float, float], **point: Any) -> dict[str, Any]:
    """A car with one hole more, so far off one that carries the box."""
    tree = angles(to_box=WELDED, width_mm=90.0)
    at = tree["hardpoints"]["left0"]["at_mm"]
    first = {"name": "the first", "direction": [0, 0, 1], "at_mm": [a + b for a, b in zip(at, off, strict=True)]}
    tree["hardpoints"]["first"] = first | {"uncut": False} | point
    return tree


def told(tree: dict[str, Any]) -> list[str]:
    return [f.id for f in analysed(tree).findings if f.code == "survey.holes" and f.state == "foul"]


@pytest.mark.parametrize(("apart_mm", "foul"), [(14.0, True), (32.9, True), (33.1, False)])
def test_a_hole_is_drilled_three_of_it_off_another(apart_mm: float, foul: bool) -> None:
    """33 of an M10 (common practice, no source), whichever way along the sheet and whichever of the two is drilled."""
    assert bool(told(beside((apart_mm, 0, 0)))) == foul
    assert bool(told(beside((0.6 * apart_mm, 0.8 * apart_mm, 0)))) == foul
    swapped = beside((0, -apart_mm, 0), uncut=True)
    swapped["hardpoints"]["left0"]["uncut"] = False
    assert bool(told(swapped)) == foul


def test_a_wider_bolt_that_is_said_for_the_other_asks_for_more() -> None:
    assert not told(beside((38.0, 0, 0)))
    assert told(beside((38.0, 0, 0), thread="M12"))  # 13.5 wide


@pytest.mark.parametrize(
    ("off", "point"),
    [
        ((14.0, 0, 0), {"uncut": True}),  # as the vehicle came
        ((14.0, 0, 0), {"kind": "stud"}),
        ((14.0, 0, 0), {"direction": [1, 0, 0]}),  # in another sheet
        ((14.0, 0, 10.0), {}),
        ((0.0, 0, 0), {}),  # written down twice
    ],
)
def test_what_is_no_second_hole_is_not_told(off: tuple[float, float, float], point: dict[str, Any]) -> None:
    assert not told(beside(off, **point))


def test_two_that_carry_nothing_are_nobodys_business() -> None:
    tree = beside((14.0, 0, 0))
    for key in list(tree["mounts"]):
        if tree["mounts"][key]["lands_on"]["hardpoint"] == "left0":
            del tree["mounts"][key]
    assert not told(tree)
