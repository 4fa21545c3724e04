"""All mounts of a box made like one of them."""

from typing import Any

import pytest

from levelcradle.core.design import validate
from levelcradle.core.edits import alike, edited
from levelcradle.core.errors import UnknownThing
from tests.core.hung import angles, mounts_of, tabs

WELDED = {"type": "welded", "from_mm": 22.0, "length_mm": 80.0}


def made(tree: dict[str, Any], key: str = "left0") -> dict[str, Any]:
    design = validate(tree)
    return edited(design, alike(design, key)).model_dump(mode="json", by_alias=True)


def test_the_others_are_cut_and_held_as_it_is() -> None:
    tree = angles(to_box=WELDED)
    tree["mounts"]["left0"] |= {
        "shape": {"type": "angle", "thickness_mm": 8.0, "width_mm": 110.0},
        "to_box": {"type": "bolted", "from_mm": 45.0},
    }
    tree["mounts"]["left0"]["lands_on"]["bolt"] = {"size": "M10", "property_class": "10.9"}
    tree["hardpoints"]["right1"]["thread"] = "M12"
    tree["mounts"]["right1"]["lands_on"]["bolt"] = {"size": "M12", "property_class": "8.8"}
    after = made(tree)["mounts"]
    for part in ("shape", "to_box"):
        assert all(mount[part] == after["left0"][part] for mount in after.values())
    bolts = {key: mount["lands_on"]["bolt"] for key, mount in after.items()}
    assert bolts["right1"] == {"size": "M12", "property_class": "10.9"}
    assert alike(validate(made(tree)), "left0") == []


def test_what_lies_under_a_tab_is_its_points_and_other_boxes_and_kinds_stay() -> None:
    tree = tabs(gap_mm=3.0, packing_mm=3.0)
    tree["hardpoints"]["right1"]["at_mm"][1] -= 2.0
    tree["mounts"]["right1"]["shape"]["packing_mm"] = 5.0
    tree["mounts"]["left0"]["shape"]["thickness_mm"] = 10.0
    tree["mounts"]["left1"] |= {"face": "base", "shape": {"type": "rest"}, "to_box": {"type": "loose"}}
    after = made(tree)["mounts"]
    shape = after["right1"]["shape"]
    assert (shape["thickness_mm"], shape["packing_mm"]) == (10.0, 5.0)
    assert after["left1"]["shape"]["type"] == "rest"
    assert not [m for m in mounts_of(made(tree)).values() if m.connection.unfit]


def test_an_inch_bolt_takes_the_grade_that_is_as_strong() -> None:
    tree = angles(to_box=WELDED)
    tree["mounts"]["right0"]["lands_on"]["bolt"] = {"size": "3/8-16", "property_class": "grade 5"}
    tree["mounts"]["left0"]["lands_on"]["bolt"] = {"size": "M10", "property_class": "10.9"}
    assert made(tree)["mounts"]["right0"]["lands_on"]["bolt"] == {"size": "3/8-16", "property_class": "grade 8"}
    with pytest.raises(UnknownThing):
        alike(validate(tree), "none")
