"""Room for the pull of welds: inside every welded box, on either side of what stands in it, and in every sum of it;
what else welds do, and the bond that they are none of."""

from typing import Any

import pytest

from levelcradle.core.analysis import analyse
from levelcradle.core.assembly import resolve
from levelcradle.core.clearance import stack_up
from levelcradle.core.design import validate
from levelcradle.core.design.base import FACES
from levelcradle.core.finding import ORDER
from tests.plain import a_block, box_at, found, plain_car

AT = (1000.0, 0.0, 400.0)
FRAMED = {
    "construction": {"type": "framed", "tube_mm": 25, "tube_wall_mm": 2, "rails": 2, "cladding_mm": 1.5},
    "closures": {"lid": {"type": "panel"}},
}
EXISTING = {
    "construction": {"type": "existing", "size_mm": [300, 200, 150], "mass_kg": 4,
                     **dict.fromkeys(("wall_mm", "base_mm", "top_mm"), 3)},
    "closures": {},
    "inner": {"type": "fixed", "size_mm": [294, 194, 144]},
}  # fmt: skip


def car(weld_class: str | None, **more: Any) -> dict[str, Any]:
    return plain_car(boxes={"x": {**box_at(AT, more.pop("counts", (3, 1, 1)), **more), "weld_class": weld_class}})


def shell(tree: dict[str, Any]) -> Any:
    return resolve(validate(tree), {}).boxes["x"].shell


@pytest.mark.parametrize(
    ("made", "pulls"),
    [({}, (3.0, 2.0, 0.0)), (FRAMED, (3.0, 2.0, 2.0)), (EXISTING, (0.0, 0.0, 0.0))],
    ids=["folded", "framed", "existing"],
)
def test_a_welded_box_is_so_much_larger_inside(made: dict[str, Any], pulls: tuple[float, ...]) -> None:
    """Class B of ISO 13920: 608 + 8 inside along, 120 + 8 across, 90 + 8 high; a folded tray is bent in height, a case
    that is there is measured."""
    without, with_room = (shell(car(kind, **made)) for kind in (None, "B"))
    grown = [b - a for a, b in zip(without.outer_mm, with_room.outer_mm, strict=True)]
    assert grown == pytest.approx(list(pulls))
    assert with_room.pull_mm == pulls
    assert without.pull_mm == (0.0, 0.0, 0.0)


def test_it_stands_half_on_either_side_and_the_truer_the_less() -> None:
    rooms = []
    for kind in "ABCD":
        found_ = shell(car(kind))
        low = found_.modules[0].low[0] - found_.made.start_mm[0]
        high = found_.made.start_mm[0] + found_.inner_mm[0] - found_.modules[-1].high[0]
        assert low == pytest.approx(high)
        rooms.append(low)
    assert rooms == sorted(set(rooms))


def test_every_sum_through_the_box_has_its_room() -> None:
    """Between two walls it takes so much more of what is there, said in rows of its own."""
    walls = {
        f"w{n}": {**a_block((aft, -300, 300), (aft + 50, 400, 900)), "name": f"w{n}"}
        for n, aft in enumerate((800, 1900))
    }

    def chain(kind: str | None) -> Any:
        return stack_up(resolve(validate({**car(kind), "items": walls}), {}), "x", "aft")

    without, with_room = chain(None), chain("C")
    rows = [row for row in with_room.rows if row.what == "room for the pull of welds"]
    assert [row.mm for row in rows] == [3.0, 3.0]
    assert without.spare_mm - with_room.spare_mm == pytest.approx(6.0)
    assert not [row for row in without.rows if row.what == "room for the pull of welds"]


def test_a_given_inside_must_have_it_too() -> None:
    size = [float(mm) for mm in shell(car(None)).inner_mm]
    for more, state in ((3.0, "clear"), (2.9, "foul")):
        inner = {"type": "fixed", "size_mm": [size[0] + more, size[1] + 2, size[2]]}
        rows = [f for f in analyse(validate(car("B", inner=inner)), {}).findings if "room left aft" in f.message]
        assert [f.state for f in rows] == [state]


def test_what_fits_between_walls_is_packed_out_and_holds_as_ever() -> None:
    """Hard boards all round: what the welds leave of their room is packed out."""
    layers = {face: {"l": {"type": "sheet", "material": "board-4", "thickness_mm": 4.0}} for face in FACES}
    holders = {
        "fit": {"type": "fit", "block": "a", "between": "board-4"},
        "own": {"type": "straps", "block": "a", "strap": {"count": 3, "along": "across", "bolts": {"into": "nut"}}},
    }
    states = [
        sorted({f.state for f in found(car(kind, layers=layers, holders=holders), "inside.held") if ":aft" in f.id})
        for kind in (None, "D")
    ]
    assert states[0] == states[1] != ["foul"]


def test_where_nobody_said_how_true_it_is_noted_and_nothing_more() -> None:
    notes = {kind: [f.state for f in found(car(kind), "inside.welds")] for kind in (None, "B")}
    assert notes == {None: ["note"], "B": []}
    assert found(car(None, **EXISTING), "inside.welds") == []
    assert ORDER["note"] > ORDER["tight"]


def test_a_welded_corner_of_aluminium_holds_no_wall_from_turning() -> None:
    """Soft beside its weld; a bend is not. A wall of it carries less than what it yields at would say, its base not."""
    folded = {"construction": {"type": "folded", "thickness_mm": 3}}
    boxes = [shell(car(None, material=metal, **folded)) for metal in ("s235", "al5083")]
    for face, as_strong in (("base", True), ("front", False)):
        steel, soft = (
            box.made.bearing_at(face).carries_n((100.0, 60.0)) / box.made.bearing_at(face).material.yield_mpa
            for box in boxes
        )
        assert (soft == pytest.approx(steel)) is as_strong
        assert soft <= steel * (1 + 1e-9)


@pytest.mark.parametrize(("ohm", "state"), [(None, "note"), (0.0, "clear"), (0.1, "clear"), (0.101, "foul")])
def test_a_bonding_strap_is_measured_and_bought(ohm: float | None, state: str) -> None:
    tree = car(None)
    tree["boxes"]["x"]["bond_ohm"] = ohm
    assert [f.state for f in found(tree, "box.bond")] == [state]
    assert ("bonding strap, from a box to the body", 1) in list(shell(tree).bought())
