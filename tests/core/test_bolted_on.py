"""Brackets that are bolted through the wall of a box: their bolts, the wall, and their nuts inside."""

import copy
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from levelcradle.core.analysis import analyse
from levelcradle.core.assembly import resolve
from levelcradle.core.connection.hold import BoltedPlate
from levelcradle.core.design import validate
from levelcradle.core.edits import edited, joined_by
from levelcradle.core.errors import DesignError, UnknownThing
from levelcradle.core.fabricate import parts_of
from levelcradle.core.strength import bolt_group
from tests.core.hung import angles, mounts_of, of_box
from tests.plain import found, said

BOLTED = {"type": "bolted", "from_mm": 42.0, "pitch_mm": 45.0, "apart_mm": 55.0}
WIDE = of_box("al5083", 4.0, 32.0)  # room for nuts beside its modules


def bolted(box: dict[str, Any] | None = None, **hold: Any) -> dict[str, Any]:
    return angles(box or WIDE, to_box={**BOLTED, **hold}, thickness_mm=8.0)


def most(tree: dict[str, Any], check: str) -> float:
    return max(row.utilisation for m in mounts_of(tree).values() for row in m.rows if row.check == check)


def plate(tree: dict[str, Any]) -> BoltedPlate:
    found = next(iter(mounts_of(tree).values())).connection.joint.plate  # type: ignore[attr-defined]
    assert isinstance(found, BoltedPlate)
    return found


def test_steel_is_bolted_to_aluminium_and_everything_of_it_is_asked() -> None:
    """Nothing of the bracket is soft, for nothing is welded, and no weld is asked what it bears."""
    tree = bolted()
    assert [f.state for f in found(tree, "mount.use")] == ["tight"] * 4
    for mount in mounts_of(tree).values():
        checks = {row.check for row in mount.rows}
        assert checks >= {"bolt", "leg B", "bolts on the box", "bearing at the box", "pulled through the wall", "wall"}
        assert not any("weld" in check for check in checks)
        assert all(fits for _, fits in mount.geometry)


@pytest.mark.parametrize(
    ("change", "check", "grows"),
    [
        ({"behind": None}, "wall", True),
        ({"behind": {"thickness_mm": 8.0}}, "wall", False),
        ({"behind": {"thickness_mm": 1.0}}, "pulled through the wall", True),
        ({"bolt": {"size": "M6"}}, "bolts on the box", True),
        ({"bolt": {"size": "M8", "property_class": "4.6"}}, "bolts on the box", True),
        ({"rows": 3, "pitch_mm": 30.0, "bolt": {"size": "M6"}}, "bolts on the box", True),
        ({"apart_mm": 35.0}, "bolts on the box", True),
        ({"from_mm": 50.0}, "leg B", True),
    ],
)
def test_less_metal_is_used_more(change: dict[str, Any], check: str, *, grows: bool) -> None:
    was, now = most(bolted(), check), most(bolted(**change), check)
    assert (now > was * 1.02) if grows else (now < was * 0.98)


def test_a_thinner_or_softer_wall_bears_less() -> None:
    thick = most(bolted(of_box("al5083", 5.0, 32.0)), "wall")
    assert most(bolted(of_box("al5083", 3.0, 32.0)), "wall") > thick * 1.3
    assert most(bolted(of_box("al5754", 5.0, 32.0)), "wall") > thick * 1.3
    assert most(bolted(of_box("al5083", 2.0, 32.0)), "bearing at the box") > most(bolted(), "bearing at the box")


def test_larger_holes_leave_less_of_the_leg() -> None:
    assert most(bolted(bolt={"size": "M12"}), "leg B") > most(bolted(), "leg B") * 1.05


def test_on_a_soft_wall_nuts_are_drawn_no_further_than_it_yields_but_for_a_plate_under_them() -> None:
    """M8 10.9: 0.75 × 830 × 36.6 = 22,784 N; the ring of its washer, 137.4 mm², bears 17,867 N at 130 MPa."""
    box, bolt = of_box("al5754", 4.0, 32.0), {"size": "M8", "property_class": "10.9"}
    assert plate(bolted(box, bolt=bolt)).preload_n == pytest.approx(22_784, rel=1e-3)
    assert plate(bolted(box, bolt=bolt, behind=None)).preload_n == pytest.approx(17_867, rel=1e-3)


@given(load=st.tuples(*[st.floats(-9000, 9000)] * 3))
def test_the_bolts_of_a_plate_are_in_balance_with_what_it_throws_on_them(load: tuple[float, float, float]) -> None:
    """Summed up apart from the rule: what draws less what presses, and the moments about the group's middle."""
    of = plate(BASE)
    n, d, w = load
    places = np.array(of.places_mm)
    moments = of.moments(tuple(np.array(v) for v in load))  # type: ignore[arg-type]
    off, along_w, along_n = bolt_group(of.places_mm, (np.array(d), np.array(w), np.array(n)), moments)
    forces = np.array([off, along_w, along_n]).T
    arms = np.column_stack([np.zeros(len(places)), places])
    assert forces.sum(axis=0) == pytest.approx((d, w, n), abs=1e-6)
    arm = np.array([of.c_mm, 0.0, -of.middle_mm])
    assert np.cross(arms, forces).sum(axis=0) == pytest.approx(np.cross(arm, (d, w, n)), abs=1e-3)


BASE = bolted()


def test_what_presses_the_plate_on_the_wall_draws_no_bolt() -> None:
    of = plate(BASE)
    zero = np.array(0.0)
    pressed, _ = of.each((zero, np.array(1000.0), zero))  # the box pushes it outward
    drawn, _ = of.each((zero, np.array(-1000.0), zero))
    assert float(drawn.max()) > float(pressed.max())
    assert float(drawn.sum() - pressed.sum()) == pytest.approx(1000.0)


@pytest.mark.parametrize(("lining", "state"), [(4.0, "foul"), (12.0, "foul"), (32.0, "clear")])
def test_nuts_stand_in_no_module(lining: float, state: str) -> None:
    rows = found(bolted(of_box("al5083", 4.0, lining)), "inside.bolted")
    assert [f.state for f in rows] == [state] * 4
    assert all(f.station == "mount" for f in rows)


@pytest.mark.parametrize("lining", [14.0, 16.0, 18.0, 20.0, 22.0])
def test_nuts_keep_off_a_module_as_its_neighbours_do(lining: float) -> None:
    for row in found(bolted(of_box("al5083", 4.0, lining)), "inside.bolted"):
        assert row.value is not None
        assert row.limit == 4.0
        assert row.state == ("foul" if row.value < 4.0 else "clear")


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"from_mm": 30.0}, "held from"),
        ({"pitch_mm": 12.0}, "rows on the box"),
        ({"apart_mm": 14.0}, "bolts of a row"),
        ({"apart_mm": 80.0}, "bolts on the box to the bracket's side"),
        ({"pitch_mm": 75.0}, "bolts on the box to the bracket's end"),
        ({"behind": {"size_mm": [60.0, 60.0]}}, "bolts to the edge of the plate behind"),
        ({"behind": {"size_mm": [500.0, 90.0]}}, "plate behind it from"),
    ],
)
def test_a_hold_that_cannot_be_made_is_told(change: dict[str, Any], words: str) -> None:
    told = [text for m in mounts_of(bolted(**change)).values() for text, fits in m.geometry if not fits]
    assert any(text.startswith(words) for text in told), told


def test_bolts_that_break_brittle_are_not_checked_on_a_box_either() -> None:
    tree = bolted(bolt={"size": "M8", "property_class": "12.9"})
    tree["tables"] = copy.deepcopy(tree["tables"])
    tree["tables"]["bolt_classes"]["12.9"] = {**tree["tables"]["bolt_classes"]["10.9"], "ultimate_mpa": 1200.0}
    assert [f.state for f in found(tree, "mount.use")] == ["unknown"] * 4
    tree["mounts"]["left0"]["to_box"]["bolt"]["property_class"] = "none"
    with pytest.raises(DesignError, match="to_box/bolt/property_class"):
        validate(tree)


def test_bolts_on_a_box_come_in_classes_of_their_own_thread() -> None:
    told = [text for m in mounts_of(bolted(bolt={"size": "M8", "property_class": "grade 5"})).values()
            for text, fits in m.geometry if not fits]  # fmt: skip
    assert any(text.startswith("M8 of class grade 5") for text in told)
    inch = bolted(bolt={"size": "5/16-18", "property_class": "grade 5"})
    assert not [text for m in mounts_of(inch).values() for text, fits in m.geometry if not fits and "class" in text]


def test_its_parts_are_drilled_alike() -> None:
    """The bracket's holes and those of the plate behind the wall are as far apart."""
    parts = {p.name: p for p in parts_of(resolve(validate(bolted()), {}))}
    bracket, behind = (next(p for name, p in parts.items() if end in name) for end in ("angle", "behind"))
    holes = [h.at for h in bracket.holes if h.purpose == "M8"]
    assert len(holes) == len(behind.holes) == 4
    for at in (holes, [h.at for h in behind.holes]):
        spans = [max(p[i] for p in at) - min(p[i] for p in at) for i in (0, 1)]
        assert sorted(spans) == pytest.approx([45.0, 55.0])
    assert any("through these holes" in note for note in bracket.notes)


def test_welds_are_exchanged_for_bolts_and_back() -> None:
    tree = angles(to_box={"type": "welded", "from_mm": 22.0, "length_mm": 80.0})
    design = validate(tree)
    once = edited(design, joined_by(design, "left0", "bolted"))
    assert once.mounts["left0"].to_box.type == "bolted"
    assert not [w for w in said_of(once, "left0") if not w[1]]
    again = edited(once, joined_by(once, "left0", "welded"))
    assert again.mounts["left0"].to_box.type == "welded"
    assert not [w for w in said_of(again, "left0") if not w[1]]
    assert joined_by(once, "left0", "bolted") == []
    with pytest.raises(UnknownThing):
        joined_by(once, "none", "welded")


def said_of(design: Any, key: str) -> tuple[tuple[str, bool], ...]:
    return next(m.geometry for s in analyse(design, {}).supports for m in s.mounts if m.id == key)


def test_the_buying_list_counts_its_bolts() -> None:
    words = [row for m in mounts_of(bolted()).values() for row in m.connection.bought()]
    assert sum("through a box's wall" in row for row in words) == 16
    assert said(bolted(), "inside.bolted")
