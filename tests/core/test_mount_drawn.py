"""A mount as it is drawn: its own lengths, the right way about, with what it carries in each case."""

import copy
from typing import Any

import pytest

from levelcradle.core.assembly import resolve
from levelcradle.core.design import validate
from levelcradle.core.errors import UnknownThing
from levelcradle.core.mount import support_result
from levelcradle.core.mount_drawn import DrawnMount, MountView, drawn_mount
from levelcradle.core.strength import SHAKEN_G
from tests.conftest import DEMO


def drawn(key: str, tree: dict[str, Any] = DEMO) -> DrawnMount:
    return drawn_mount(resolve(validate(copy.deepcopy(tree)), {}), key)


def reach(view: MountView, name: str) -> tuple[float, float, float, float]:
    """Left, right, foot and head of a piece."""
    points = [at for piece in view.pieces if piece.name == name for at in piece.ring]
    (left, *_, right), (foot, *_, head) = (sorted(at[n] for at in points) for n in (0, 1))
    return left, right, foot, head


@pytest.mark.parametrize("key", ["bonnet-lf", "tank-rr"])
def test_it_is_dimensioned_by_its_own_figures_at_their_places(key: str) -> None:
    mount, beside, at_wall = DEMO["mounts"][key], *drawn(key).views
    lengths = {row.words: row.mm for row in beside.measures}
    assert lengths["bolt to toe"] == pytest.approx(mount["shape"]["toe_mm"])
    assert lengths["leg on the box"] == pytest.approx(mount["shape"]["leg_b_mm"])
    assert lengths["weld"] == pytest.approx(mount["to_box"]["length_mm"])
    left, right, foot, head = reach(beside, "leg A")
    assert right - left == pytest.approx(lengths["wall to bolt"] + lengths["bolt to toe"], abs=0.01)
    assert head - foot == pytest.approx(mount["shape"]["thickness_mm"], abs=0.01)
    left, right, *_ = reach(at_wall, "leg B")
    assert right - left == pytest.approx(mount["shape"]["width_mm"], abs=0.01)
    wide = next(row for row in at_wall.measures if row.words == "wide")
    assert sorted((wide.start[0], wide.end[0])) == pytest.approx([left, right], abs=0.01)


@pytest.mark.parametrize(("key", "below", "toe_at", "hands"), [
    ("bonnet-lf", True, "left", ("FORE", "AFT")), ("bonnet-rf", True, "right", ("AFT", "FORE")),
    ("tank-lr", False, "left", ("FORE", "AFT")), ("tank-rr", False, "right", ("AFT", "FORE")),
])  # fmt: skip
def test_up_is_up_and_the_cars_left_is_at_the_left(
    key: str, toe_at: str, hands: tuple[str, str], *, below: bool
) -> None:
    """Looking forward; at the wall one stands outside it."""
    beside, at_wall = drawn(key).views
    assert (beside.looking, beside.left, beside.right) == ("looking forward", "LEFT", "RIGHT")
    assert at_wall.looking == ("looking right" if toe_at == "left" else "looking left")
    assert (at_wall.left, at_wall.right) == hands
    assert beside.metal == at_wall.metal == ("below" if below else "above")
    left, right, foot, head = reach(beside, "leg A")
    assert (abs(left) < abs(right)) is (toe_at == "left")  # the toe is nearer to the bolt than the wall is
    assert (foot >= -1e-6) if below else (head <= 1e-6)
    assert beside.ways[1] == pytest.approx((-1 if toe_at == "left" else 1, 0))
    assert beside.ways[0] == pytest.approx((0, 1 if below else -1))
    assert (beside.ways[2], at_wall.ways[1]) == ((0, 0), (0, 0))


def test_each_case_tells_the_worst_of_its_solves_and_the_first_of_all_cases() -> None:
    assembly = resolve(validate(copy.deepcopy(DEMO)), {})
    of = {m.id: m for s in support_result(assembly) for m in s.mounts}
    worst, *cases = drawn_mount(assembly, "tank-lf").cases
    assert [case.case for case in cases] == [*(row.name for row in assembly.tables.load_cases.values()), *SHAKEN_G]
    for row in worst.mounts:
        rows = of[row.mount].rows
        assert (row.check, row.case, row.utilisation) == (rows[0].check, rows[0].case, rows[0].utilisation)
        assert (row.off_n, row.away_n, row.along_n) == (rows[0].n, rows[0].d, rows[0].w)
        same = [one for case in cases for one in case.mounts if one.mount == row.mount]
        assert max(one.utilisation or 0.0 for one in same) == row.utilisation


def test_a_pad_is_drawn_and_what_cannot_stand_is_not() -> None:
    tree = copy.deepcopy(DEMO)
    tree["mounts"]["tank-lf"] |= {"face": "base", "shape": {"type": "rest"}, "to_box": {"type": "loose"}}
    tree["hardpoints"]["tail-lf"] |= {"direction": [0, 0, 1], "at_mm": [2770, -100, 346]}
    beside, at_wall = drawn("tank-lf", tree).views
    assert {row.words: row.mm for row in (*beside.measures, *at_wall.measures)} == pytest.approx(
        {"pad": 6.0, "long": 80.0, "wide": 60.0}
    )
    tree["mounts"]["tank-rr"]["face"] = "left"  # the wall on the other side of the box
    assert drawn("tank-rr", tree).views == ()
    with pytest.raises(UnknownThing):
        drawn("nothing")
