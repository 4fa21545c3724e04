"""The fatigue screen of a bracket's welds: what shakes a box on the road, on a stranger's car too."""

import copy
from typing import Any

import numpy as np
import pytest

from levelcradle.core.assembly import resolve
from levelcradle.core.design import validate
from levelcradle.core.mount import MountResult, loads_of
from levelcradle.core.strength import SHAKEN_G
from tests.conftest import DEMO
from tests.plain import analysed, box_at, held, plain_car

AT = (1000.0, -117.0, 400.0)


def mounts(tree: dict[str, Any]) -> dict[str, MountResult]:
    return {m.id: m for support in analysed(tree).supports for m in support.mounts}


def shaken(tree: dict[str, Any]) -> dict[tuple[str, str], float]:
    """Of each mount and weld, how far it is used."""
    return {(key, r.check): r.utilisation for key, m in mounts(tree).items() for r in m.rows if r.kind == "shaken"}


def car(**shape: float) -> dict[str, Any]:
    """A small box on four rails' bolts beside its long walls."""
    length, width = 418.0, 258.0
    spots = {f"{side}{n}": (AT[0] + along, AT[1] + off) for n, along in enumerate((70.0, length - 70.0))
             for side, off in (("left", -60.0), ("right", width + 60.0))}  # fmt: skip
    points = {key: {"name": key, "at_mm": [*at, AT[2] - 6.0], "direction": [0, 0, 1], "thread": "M10"}
              for key, at in spots.items()}  # fmt: skip
    hung = {key: held("x", key, key[:-1], shape={"type": "angle", "leg_b_mm": 90.0, **shape},
                      to_box={"type": "welded", "from_mm": 22.0, "length_mm": 60.0}) for key in spots}  # fmt: skip
    return plain_car(boxes={"x": box_at(AT, (2, 2, 1))}, hardpoints=points, mounts=hung)


def test_every_weld_of_a_bracket_is_asked_and_twice_the_mass_uses_it_twice() -> None:
    once, twice = car(), car()
    full = next(iter(analysed(once).boxes.values())).hung_kg
    twice["boxes"]["x"]["fittings"] = {"per_module_kg": 1.0, "box_kg": 1.5 + full}
    was, now = shaken(once), shaken(twice)
    assert {check for _, check in was} == {"fatigue at the weld's toe", "fatigue in the weld"}
    heavier = next(iter(analysed(twice).boxes.values())).hung_kg
    for key, used in was.items():
        assert now[key] == pytest.approx(used * heavier / full, rel=0.1)  # what is added lies in the modules' middle
    with_plate = car()
    for mount in with_plate["mounts"].values():
        mount["to_box"]["doubler"] = {}
    assert "fatigue in the doubler's weld" in {check for _, check in shaken(with_plate)}


def test_a_mount_that_fatigue_alone_speaks_against_is_foul() -> None:
    """No crash case and no check of a road case does: the tank box of the demo with heavier modules."""
    tree = copy.deepcopy(DEMO)
    tree["module_kinds"]["flagstone"]["mass_kg"] = 33.0
    worst = {key: m.rows[0] for key, m in mounts(tree).items() if key.startswith("tank")}
    others = [r.utilisation for key in worst for r in mounts(tree)[key].rows if r.kind != "shaken"]
    assert max(others) < 1.0
    tired = [key for key, row in worst.items() if row.utilisation > 1]
    assert tired
    assert {worst[key].check for key in tired} == {"fatigue at the weld's toe"}
    told = {f.id: f.state for f in analysed(tree).findings}
    assert all(told[f"mount:{key}"] == "foul" for key in tired)


def test_a_thicker_leg_tires_less_and_a_longer_reach_more() -> None:
    toe = "fatigue at the weld's toe"
    thin, thick = (max(v for (_, c), v in shaken(car(thickness_mm=mm)).items() if c == toe) for mm in (5.0, 8.0))
    assert thick < thin * (5 / 8) ** 1.5
    far = car()
    for key, point in far["hardpoints"].items():
        point["at_mm"][1] += 20.0 if key.startswith("right") else -20.0
    assert max(v for (_, c), v in shaken(far).items() if c == toe) > max(
        v for (_, c), v in shaken(car()).items() if c == toe
    )


def test_a_box_that_lies_on_pads_besides_is_shaken_too() -> None:
    """What pads press with changes with the shaking; the welds of the brackets beside them tire less for it."""
    alone, beside = car(), car()
    beside["hardpoints"]["pad"] = {"name": "pad", "at_mm": [AT[0] + 209.0, AT[1] + 129.0, AT[2] - 6.0],
                                   "direction": [0, 0, 1]}  # fmt: skip
    beside["mounts"]["pad"] = held("x", "pad", "base", shape={"type": "rest"}, to_box={"type": "loose"})
    was, now = shaken(alone), shaken(beside)
    assert was.keys() == now.keys()
    assert all(now[key] < was[key] for key in was if key[1] == "fatigue at the weld's toe")


def test_it_is_shaken_three_ways_and_the_heavier_the_higher_the_more_sideways() -> None:
    """Common practice, no source: 1 g up and down, 0.4 g level. A weight high above the box tears at it sideways."""
    assert sorted(tuple(abs(g) for g in way) for way in SHAKEN_G.values()) == [(0, 0, 1), (0, 0.4, 0), (0.4, 0, 0)]

    def governs(tree: dict[str, Any]) -> set[str]:
        return {r.case for m in mounts(tree).values() for r in m.rows if r.check == "fatigue in the weld"}

    tree = car()
    mast = {"name": "mast", "state": "in", "fixed_to": "x", "mass_kg": 60.0}
    tree["items"] = {"mast": {**mast, "at_mm": [AT[0] + 209.0, AT[1] + 129.0, AT[2] + 1500.0]}}
    assert governs(tree) <= {"shaken fore and aft", "shaken left and right"}
    assert governs(car()) == {"shaken up and down"}


@pytest.mark.parametrize("pads", [False, True])
def test_to_either_side_it_is_shaken_by_what_it_carries_standing(pads: bool) -> None:
    """1 g up and down: as much as its weight, the other way; on pads too, where nothing lifts off them."""
    tree = car()
    if pads:
        at = [AT[0] + 209.0, AT[1] + 129.0, AT[2] - 6.0]
        tree["hardpoints"]["pad"] = {"name": "pad", "at_mm": at, "direction": [0, 0, 1]}
        tree["mounts"]["pad"] = held("x", "pad", "base", shape={"type": "rest"}, to_box={"type": "loose"})
    assembly = resolve(validate(tree), {})
    loads = loads_of(assembly.boxes["x"], assembly.tables)
    standing = [case.name for case in assembly.tables.load_cases.values()].index("standing")
    assert np.allclose(loads.shaken[:, 0].sum(axis=1), -loads.thrown[:, standing].sum(axis=1))
    if not pads:
        assert np.allclose(loads.shaken[:, 0], -loads.thrown[:, standing])
