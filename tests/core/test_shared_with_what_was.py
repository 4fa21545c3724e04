"""A document that differs little from another is read by what differs: with the same outcome, whatever that is."""

from typing import Any

import pytest

from levelcradle.core.design import tree_of, validate
from levelcradle.core.design.patch import Op, apply
from levelcradle.core.errors import DesignError
from tests.conftest import DEMO

EDITS: dict[str, list[Op]] = {
    "a box moved": [{"op": "replace", "path": "/boxes/tank/pose/at_mm/0", "value": 2700.0}],
    "a mount made thicker": [{"op": "replace", "path": "/mounts/tank-lf/shape/thickness_mm", "value": 10.0}],
    "a thing taken out": [{"op": "remove", "path": "/items/charger"}],
    "one put in": [{"op": "add", "path": "/references/new", "value": {"name": "new", "at_mm": [0.0, 0.0, 0.0]}}],
    "the car's name": [{"op": "replace", "path": "/name", "value": "another"}],
    "its wheelbase": [{"op": "replace", "path": "/vehicle/wheelbase_mm", "value": 2600.0}],
    "a table": [{"op": "replace", "path": "/tables/load_factor", "value": 1.2}],
    "a unit": [{"op": "replace", "path": "/units/place", "value": "in"}],
    "a wrong figure": [{"op": "replace", "path": "/boxes/tank/pose/at_mm/0", "value": "far"}],
    "a figure out of range": [{"op": "replace", "path": "/mounts/tank-lf/shape/thickness_mm", "value": -1.0}],
    "a row that is no row": [{"op": "replace", "path": "/boxes/tank", "value": 3}],
    "what is named and not there": [{"op": "replace", "path": "/boxes/tank/bay", "value": "nowhere"}],
}


def outcome(tree: dict[str, Any], *like: Any) -> Any:
    try:
        return validate(tree, *like)
    except DesignError as error:
        return error.problems


@pytest.mark.parametrize("edit", EDITS)
def test_the_outcome_is_that_of_the_whole(edit: str) -> None:
    design = validate(DEMO)
    before = tree_of(design)
    after = apply(before, EDITS[edit]).tree
    assert outcome(after, (before, design)) == outcome(after)


def test_what_was_not_touched_is_the_very_same() -> None:
    """So what follows from it is found where it is kept; and what was touched is read anew."""
    design = validate(DEMO)
    before = tree_of(design)
    after = validate(apply(before, EDITS["a box moved"]).tree, (before, design))
    assert after.tables is design.tables
    assert all(after.mounts[key] is mount for key, mount in design.mounts.items())
    assert after.boxes["bonnet"] is design.boxes["bonnet"]
    assert after.boxes["tank"].pose.at_mm[0] == 2700.0
