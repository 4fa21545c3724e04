"""Mounts that are alike are worked out together: whatever is changed of one, each is used as it would be by itself."""

import copy
from typing import Any

import pytest

from levelcradle.core.assembly import resolve
from levelcradle.core.connection.angle.angle import AngleConnection
from levelcradle.core.design import validate
from levelcradle.core.mount.result import loads_of, support_without
from tests.core.hung import angles

WELDED = {"type": "welded", "from_mm": 24.0, "length_mm": 80.0}
CHANGES: dict[str, dict[str, Any]] = {
    "thickness": {"shape": {"thickness_mm": 8.0}},
    "width": {"shape": {"width_mm": 100.0}},
    "toe": {"shape": {"toe_mm": 40.0}},
    "metal": {"shape": {"material": "s235"}},
    "hole": {"shape": {"hole": "slot along"}},
    "gussets": {"shape": {"gussets": {"count": 2}}},
    "packing": {"shape": {"packing_mm": 4.0}},
    "where its welds begin": {"to_box": {"from_mm": 30.0}},
    "how long they are": {"to_box": {"length_mm": 60.0}},
    "their leg": {"to_box": {"leg_mm": 3.0}},
    "one across its end": {"to_box": {"across_end": True}},
    "plugs": {"to_box": {"plugs": {"count": 2}}},
    "doubler": {"to_box": {"doubler": {"thickness_mm": 4.0, "along_w_mm": 150.0, "along_n_mm": 110.0,
                                       "from_contact_mm": 12.0}}},
    "bolt": {"lands_on": {"bolt": {"size": "M8", "property_class": "8.8"}}},
    "class": {"lands_on": {"bolt": {"size": "M10", "property_class": "10.9"}}},
    "backing": {"lands_on": {"backing": {"thickness_mm": 5.0}}},
}  # fmt: skip
POINTS: dict[str, dict[str, Any]] = {
    "further off the wall": {"at_mm": lambda at: [at[0], at[1] - 7.0, at[2]]},
    "further along": {"at_mm": lambda at: [at[0] + 20.0, at[1], at[2]]},
    "higher": {"at_mm": lambda at: [at[0], at[1], at[2] + 3.0]},
    "a rivet nut that was tried": {"kind": lambda _: "rivet nut", "tested_n": lambda _: 30000.0},
}


def changed(change: dict[str, Any]) -> dict[str, Any]:
    tree = copy.deepcopy(angles(to_box=WELDED))
    for part, figures in change.items():
        tree["mounts"]["left0"].setdefault(part, {}).update(copy.deepcopy(figures))
    return tree


def moved(change: dict[str, Any]) -> dict[str, Any]:
    tree = copy.deepcopy(angles(to_box=WELDED))
    point = tree["hardpoints"]["left0"]
    point.update({name: to(point.get(name)) for name, to in change.items()})
    return tree


TREES = {name: changed(change) for name, change in CHANGES.items()} | {name: moved(to) for name, to in POINTS.items()}


def results(tree: dict[str, Any]) -> dict[str, Any]:
    assembly = resolve(validate(tree), {})
    mounts = support_without(assembly, "x", "").mounts
    return {m.id: (m.rows, m.geometry, m.demands, m.torque_nm, m.unchecked, m.remarks) for m in mounts}


@pytest.mark.parametrize("change", TREES)
def test_each_is_used_as_by_itself(change: str, monkeypatch: pytest.MonkeyPatch) -> None:
    together = results(TREES[change])
    monkeypatch.setattr(AngleConnection, "alike", property(lambda self: self))
    assert together == results(TREES[change])


def groups(tree: dict[str, Any]) -> int:
    assembly = resolve(validate(tree), {})
    return len({m.alike for m in loads_of(assembly.boxes["x"], assembly.tables).standing})


def test_those_to_the_left_and_to_the_right_are_alike() -> None:
    assert groups(angles(to_box=WELDED)) == 1
    assert groups(TREES["thickness"]) == 2
