"""What an edit of Survey and Stock is called: thing, change and amount, as undo shows it."""

from typing import Any

import pytest

from levelcradle.core.design.patch import apply
from levelcradle.core.design.sentence import sentence

EDITS: list[tuple[dict[str, Any], str]] = [
    ({"op": "add", "path": "/members/rail", "value": {"name": "left rail"}}, "added member left rail"),
    ({"op": "add", "path": "/duties/vacuum", "value": {"name": "brake vacuum"}}, "added duty brake vacuum"),
    ({"op": "add", "path": "/snags/rust", "value": {"name": "rust hole"}}, "added fault rust hole"),
    ({"op": "add", "path": "/stacks/a", "value": {"name": "front stack"}}, "added stack front stack"),
    ({"op": "add", "path": "/tables/liners/cork", "value": {"name": "cork"}}, "added liner cork"),
    (
        {"op": "replace", "path": "/boxes/tank/blocks/a/origin_mm", "value": [0, 20, 0]},
        "Tank box: block a 20 mm to the right",
    ),
    ({"op": "remove", "path": "/boxes/tank/blocks/a"}, "Tank box: block a removed"),
    ({"op": "remove", "path": "/items/motor"}, "removed thing motor"),
    ({"op": "replace", "path": "/items/motor/mass_kg", "value": 50}, "motor: mass"),
    ({"op": "replace", "path": "/vehicle/wheelbase_mm", "value": 2500}, "vehicle: wheelbase"),
    ({"op": "replace", "path": "/units/survey", "value": "in"}, "units: survey"),
]


@pytest.mark.parametrize(("op", "message"), EDITS)
def test_an_edit_is_named(tree: dict[str, Any], op: dict[str, Any], message: str) -> None:
    assert sentence(tree, apply(tree, [op]).tree, [op]).startswith(message)


def test_readings_are_not_spoken_of(tree: dict[str, Any]) -> None:
    op = {"op": "add", "path": "/readings/~1vehicle~1wheelbase_mm", "value": {"text": "2480"}}
    assert sentence(tree, tree, [op]) == "nothing changed"
