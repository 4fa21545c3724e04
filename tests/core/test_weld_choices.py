"""Which welds a bracket needs: more of them never hold less, plugs never help what pulls, and the first that holds is
called enough."""

from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from levelcradle.core.assembly import resolve
from levelcradle.core.connection.hold.weld_group import WeldGroup
from levelcradle.core.design import validate
from levelcradle.core.edits import edited
from levelcradle.core.fabricate import parts_of
from levelcradle.core.hang import WeldChoice, welds_compared
from tests.core.hung import angles, mounts_of, tabs

SIDES = (((-30.0, 20.0), (-30.0, 90.0)), ((30.0, 20.0), (30.0, 90.0)))
END = ((-30.0, 110.0), (30.0, 110.0))
PLUGS = ((0.0, 40.0), (0.0, 70.0))


def welded(**more: Any) -> dict[str, Any]:
    return {"type": "welded", "from_mm": 22.0, "length_mm": 90.0, **more}


def hung(**more: Any) -> dict[str, Any]:
    return angles(to_box=welded(**more), width_mm=90.0)


def compared(tree: dict[str, Any]) -> dict[str, WeldChoice]:
    return {row.words: row for row in welds_compared(validate(tree), "left0", meshes={})}


def broken(tree: dict[str, Any]) -> list[str]:
    return [words for words, fits in mounts_of(tree)["left0"].geometry if not fits]


def load(*newton: float) -> tuple[Any, Any, Any]:
    return tuple(np.array(part) for part in newton)  # type: ignore[return-value]


forces = st.floats(-5000, 5000)


@given(forces, forces, forces)
def test_a_group_feels_a_load_and_its_opposite_alike_and_twice_the_load_twice(n: float, d: float, w: float) -> None:
    group = WeldGroup((*SIDES, END), PLUGS, 80.0)
    for most in (lambda load: group.fillet(load, 60.0), group.plug):
        once = float(most(load(n, d, w)))
        assert float(most(load(-n, -d, -w))) == pytest.approx(once)
        assert float(most(load(2 * n, 2 * d, 2 * w))) == pytest.approx(2 * once)
        assert float(most(load(n, d, -w))) == pytest.approx(once)  # it is even about its middle


@given(forces)
def test_plugs_share_what_shears_the_plate_and_nothing_that_pulls_it_off(d: float) -> None:
    bare, plugged = WeldGroup(SIDES), WeldGroup(SIDES, PLUGS, 80.0)
    assert float(plugged.fillet(load(0, d, 0), 60.0)) == pytest.approx(float(bare.fillet(load(0, d, 0), 60.0)))
    assert float(plugged.plug(load(0, d, 0))) == 0.0


def test_along_the_plate_every_millimetre_bears_alike() -> None:
    group = WeldGroup(SIDES, PLUGS, 80.0)
    assert float(group.fillet(load(1000, 0, 0), 0.0)) == pytest.approx(1000 / (140 + 160))
    assert float(group.plug(load(1000, 0, 0))) == pytest.approx(80 * 1000 / (140 + 160))


@pytest.mark.parametrize("tree", [hung(), tabs()], ids=["angle", "tab"])
def test_more_weld_is_used_less_and_the_first_that_holds_is_enough(tree: dict[str, Any]) -> None:
    rows = compared(tree)
    alone, end, plugs, all_of_them = rows.values()
    assert [row.now for row in rows.values()] == [True, False, False, False]
    assert [row.enough for row in rows.values()] == [True, False, False, False]
    use = [row.utilisation or 0.0 for row in (all_of_them, end, plugs, alone)]
    assert 0 < use[0] <= min(use[1:3])
    assert max(use[1:3]) <= use[3]
    assert end.fillet_mm > alone.fillet_mm == plugs.fillet_mm
    assert not any(row.why for row in rows.values())


def test_what_does_not_hold_is_not_enough_and_the_patch_makes_what_is_said() -> None:
    """So heavy that edges alone do not hold."""
    tree = hung(leg_mm=1.0)
    tree["tables"] = {**tree["tables"], "load_factor": 1.3}
    rows = compared(tree)
    assert rows["edges alone"].state == "foul"
    taken = next(row for row in rows.values() if row.enough)
    assert taken.words != "edges alone"
    assert taken.state != "foul"
    after = welds_compared(edited(validate(tree), list(taken.patch)), "left0", meshes={})
    assert next(row for row in after if row.now).words == taken.words
    assert next(row for row in after if row.now).utilisation == taken.utilisation


def test_a_guessed_spot_lets_no_weld_be_called_enough_and_hides_no_foul() -> None:
    guessed = {"readings": {"/hardpoints/left0/at_mm/2": {"text": "406", "basis": "assumed"}}}
    rows = compared({**hung(), **guessed}).values()
    assert {(row.state, row.enough) for row in rows} == {("unknown", False)}
    assert all("not measured" in row.why for row in rows)
    weak = hung(leg_mm=1.0) | guessed
    weak["tables"] = {**weak["tables"], "load_factor": 1.3}
    assert compared(weak)["edges alone"].state == "foul"


@pytest.mark.parametrize(
    ("plugs", "words"),
    [
        ({"hole_mm": 12.0, "count": 2}, "plug of 12, at least"),
        ({"hole_mm": 20.0, "count": 5}, "of sheet beside a plug"),
        ({"hole_mm": 20.0, "count": 3}, "10.0 of sheet beside a plug, at least 12"),
        ({"hole_mm": 50.0, "count": 1}, ""),
    ],
)
def test_a_plug_has_a_hole_to_fill_and_sheet_beside_it(plugs: dict[str, Any], words: str) -> None:
    found = broken(hung(plugs=plugs))
    assert any(words in row for row in found) if words else not found


def test_a_plug_behind_a_gusset_is_refused() -> None:
    gusset = {"count": 1, "thickness_mm": 5.0, "along_mm": 25.0, "up_mm": 60.0, "weld_leg_mm": 4.0}
    plugs = {"hole_mm": 16.0, "count": 2}
    tree = angles(to_box=welded(plugs=plugs), width_mm=90.0, gussets=gusset)
    assert "plug weld behind a gusset" in broken(tree)
    tree = angles(to_box=welded(plugs=plugs), width_mm=90.0, gussets={**gusset, "count": 2, "up_mm": 45.0})
    assert "plug weld behind a gusset" not in broken(tree)


def test_the_bracket_is_cut_with_the_holes_that_are_filled() -> None:
    for tree in (hung(plugs={"hole_mm": 16.0, "count": 2}), tabs(to_box=welded(plugs={"hole_mm": 16.0, "count": 2}))):
        every = [one for part in parts_of(resolve(validate(tree), {})) for one in part.each]
        filled = [
            h.diameter_mm
            for part in every
            if part.id.startswith("left0")
            for h in part.holes
            if h.purpose == "plug weld"
        ]
        assert filled == [16.0, 16.0]


def test_nobody_has_told_what_plugs_bear_two_million_times() -> None:
    rows = [mounts_of(hung(plugs=plugs))["left0"].rows for plugs in (None, {"hole_mm": 16.0, "count": 2})]
    bare, plugged = ({row.check: row.utilisation for row in found} for found in rows)
    assert plugged["fatigue in the weld"] == pytest.approx(bare["fatigue in the weld"])
    assert set(plugged) - set(bare) == {"plugs"}


def test_what_is_bolted_has_no_welds_to_compare() -> None:
    bolted = {"type": "bolted", "bolt": {"size": "M8", "property_class": "8.8"}, "from_mm": 40.0}
    assert welds_compared(validate(angles(to_box=bolted, width_mm=90.0)), "left0", meshes={}) == ()
