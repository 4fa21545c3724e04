"""A box on rubber: as stiff as its maker says, no further than its stop, and held in a crash by what is captive."""

import copy
from typing import Any

import pytest

from levelcradle.core.assembly import resolve
from levelcradle.core.design import validate
from levelcradle.core.errors import DesignError
from tests.core.hung import angles, mounts_of, tabs
from tests.plain import a_block, analysed, found

WELDED = {"type": "welded", "from_mm": 22.0, "length_mm": 90.0}
SOFT = {"thick_mm": 20.0, "stiffness_n_per_mm": 800.0, "travel_mm": 4.0, "captive": True}


def hung(soft: dict[str, Any] | None, only: tuple[str, ...] = ()) -> dict[str, Any]:
    """On isolators as thick as the hard points are lower, so that the brackets stand where they would."""
    tree = angles(to_box=WELDED)
    for key, mount in tree["mounts"].items():
        if soft and (not only or key in only):
            mount["lands_on"]["isolator"] = dict(soft)
            tree["hardpoints"][key]["at_mm"][2] -= soft["thick_mm"]
    return tree


def uses(tree: dict[str, Any], key: str = "left0") -> dict[str, float]:
    return {row.check: row.utilisation for row in mounts_of(tree)[key].rows}


def test_rubber_is_asked_for_its_travel_on_the_road_and_its_bolt_in_a_crash() -> None:
    rows = {row.check: row for row in mounts_of(hung(SOFT))["left0"].rows}
    assert rows["isolator's travel"].kind == "road"
    assert rows["bolt, bent in its isolator"].kind == "crash"
    stiff, thick = hung({**SOFT, "stiffness_n_per_mm": 1600.0}), hung({**SOFT, "thick_mm": 40.0})
    assert uses(stiff)["isolator's travel"] == pytest.approx(rows["isolator's travel"].utilisation / 2)
    bent = "bolt, bent in its isolator"
    assert uses(thick)[bent] == pytest.approx(2 * rows[bent].utilisation, rel=0.02)
    assert not {"isolator's travel", bent} & set(uses(hung(None)))


def test_without_a_captive_stop_it_counts_for_nothing_in_a_crash() -> None:
    rows = mounts_of(hung({**SOFT, "captive": False}))["left0"].geometry
    assert [words for words, fits in rows if not fits] == [
        "isolator without a captive stop: it counts for nothing in a crash"
    ]
    states = {f.state for f in found(hung({**SOFT, "captive": False}), "mount.use")}
    assert states == {"foul"}


def test_soft_mounts_beside_hard_ones_are_not_known_and_all_alike_are_as_equal_springs() -> None:
    mixed = found(hung(SOFT, ("left0", "right0")), "mount.isolated")
    assert [f.state for f in mixed] == ["unknown"]
    assert found(hung(SOFT), "mount.isolated") == found(hung(None), "mount.isolated") == []
    packed = hung(None)
    for key, mount in packed["mounts"].items():
        mount["shape"]["packing_mm"] = SOFT["thick_mm"]
        packed["hardpoints"][key]["at_mm"][2] -= SOFT["thick_mm"]
    assert uses(hung(SOFT))["leg B"] == pytest.approx(uses(packed)["leg B"], rel=0.02)  # rubber is lighter than steel


def test_a_stiffer_isolator_takes_more() -> None:
    tree = hung(SOFT)
    before = uses(tree)["leg B"]
    tree["mounts"]["left0"]["lands_on"]["isolator"]["stiffness_n_per_mm"] = 3200.0
    assert uses(tree)["leg B"] > before * 1.1


def test_what_moves_on_isolators_keeps_so_much_more_from_everything() -> None:
    needs = []
    for soft in (None, SOFT):
        tree = hung(soft)
        box = resolve(validate(tree), {}).boxes["x"]
        low, high = box.pieces[0].solid.low, box.pieces[0].solid.high
        above = (low[0], low[1], high[2] + 40.0), (high[0], high[1], high[2] + 80.0)
        tree["items"] = {"t": a_block(*above, gap_class="other")}
        needs.append(next(f.limit for f in analysed(tree).findings if f.id == "gap:boxes/x:items/t"))
    assert needs[1] == pytest.approx((needs[0] or 0.0) + SOFT["travel_mm"])


def test_an_angle_stands_on_it_and_a_tab_does_not() -> None:
    tree = hung(SOFT)
    mount = resolve(validate(tree), {}).boxes["x"].mounts[0]
    names = [piece.name for piece in mount.pieces]
    assert "isolator" in names
    leg, rubber = (next(p for p in mount.pieces if p.name == name) for name in ("leg A", "isolator"))
    assert leg.solid.low[2] == pytest.approx(rubber.solid.high[2])
    assert rubber.solid.low[2] == pytest.approx(mount.spot.at[2])
    flat = copy.deepcopy(tabs())
    next(iter(flat["mounts"].values()))["lands_on"]["isolator"] = SOFT
    with pytest.raises(DesignError, match="only an angle"):
        validate(flat)
