"""Dividers between modules: boards weigh and are cut as boards, and every compartment blows off by its own side."""

import copy
from typing import Any

import pytest

from levelcradle.core.assembly import resolve
from levelcradle.core.box import board_pieces
from levelcradle.core.design import tree_of, validate
from levelcradle.core.edits import edited, relieved
from levelcradle.core.errors import OutOfRange
from levelcradle.core.fabricate import parts_of
from tests.plain import box_at, found, plain_car

AT = (1000.0, 0.0, 400.0)
ALONG = {"aft": (3, 1, 1), "across": (1, 3, 1), "up": (1, 1, 3)}
ROOMY = {"aft": 90.0, "across": 90.0, "up": 90.0}


def car(along: str, relief: str | None = None, **dividers: Any) -> dict[str, Any]:
    box = box_at(AT, ALONG[along], sealing="gasket")
    block = box["blocks"]["a"]
    block |= {
        "gap_mm": ROOMY,
        "dividers": {"along": along, "every": 1, "thickness_mm": 2.0, "relief": relief, **dividers},
    }
    return plain_car(boxes={"x": box})


def put(tree: dict[str, Any]) -> dict[str, Any]:
    design = validate(tree)
    return tree_of(edited(design, relieved(resolve(design, {}), "x", "a")))


def states(tree: dict[str, Any]) -> list[str]:
    return [f.state for f in found(tree, "box.compartments")]


@pytest.mark.parametrize(("along", "face"), [("aft", "left"), ("across", "front"), ("up", "right"), ("aft", "base")])
def test_each_compartment_needs_one_of_its_own(along: str, face: str) -> None:
    """Three compartments: put into each it is clear; one away, on another face, or two in one compartment, and it is
    not."""
    assert states(car(along)) == ["note"]
    assert states(car(along, face)) == ["foul"]
    tree = put(car(along, face))
    assert len(tree["boxes"]["x"]["openings"]) == 3
    assert states(tree) == ["clear"]
    assert not [f for f in found(tree, "box.opening") + found(tree, "box.make") if f.state == "foul"]
    for key in tree["boxes"]["x"]["openings"]:
        less = copy.deepcopy(tree)
        del less["boxes"]["x"]["openings"][key]
        assert states(less) == ["foul"]
        assert states(put(less)) == ["clear"]
        plain = copy.deepcopy(tree)
        plain["boxes"]["x"]["openings"][key]["fitted"]["kind"] = "cable gland"
        assert states(plain) == ["foul"]
    other = copy.deepcopy(tree)
    other["boxes"]["x"]["blocks"]["a"]["dividers"]["relief"] = "aft" if face != "aft" else "front"
    assert states(other) == ["foul"]


def test_one_relief_is_of_one_compartment_alone() -> None:
    """Moved over the divider it leaves its own without, though the number of reliefs is the same."""
    tree = put(car("aft", "left"))
    box = tree["boxes"]["x"]
    plates = resolve(validate(tree), {}).boxes["x"].shell.plates
    first = min((hole for hole in box["openings"].values()), key=lambda hole: hole["u_mm"])
    first["u_mm"] = plates[0][1][0] - 0.1
    assert states(tree) == ["clear"]
    first["u_mm"] = plates[0][2][0] + 0.1
    assert states(tree) == ["foul"]


def test_an_end_wall_is_the_last_ones_alone() -> None:
    tree, sides = car("aft", "front"), put(car("aft", "left"))
    with pytest.raises(OutOfRange):
        put(tree)
    hole = next(iter(sides["boxes"]["x"]["openings"].values()))
    tree["boxes"]["x"]["openings"] = {
        f"o{n}": {**hole, "face": "front", "from": ["left", "base"], "u_mm": at, "v_mm": 60.0}
        for n, at in enumerate((40.0, 105.0, 170.0))
    }
    (told,) = found(tree, "box.compartments")
    assert (told.state, "2 of 3" in told.message) == ("foul", True)


def test_nothing_is_asked_of_what_is_not_divided_nor_put_where_no_side_is_chosen() -> None:
    whole = plain_car(boxes={"x": box_at(AT, (3, 1, 1))})
    assert states(whole) == []
    with pytest.raises(OutOfRange):
        put(whole)
    with pytest.raises(OutOfRange):
        put(car("aft"))


@pytest.mark.parametrize("along", ["aft", "up"])
def test_boards_weigh_as_boards_and_are_cut_from_boards(along: str) -> None:
    sheet, board = (resolve(validate(car(along, **more)), {}).boxes["x"] for more in ({}, {"material": "board-2"}))
    table = validate(car(along)).tables
    row = table.liners["board-2"].model_copy(update={"density_kg_m3": 1000.0})
    (one, _), (_, low, high) = sheet.shell.plates, sheet.shell.plates[0]
    volume = 2 * (high[0] - low[0]) * (high[1] - low[1]) * (high[2] - low[2])
    assert row.density_kg_m3
    dense = table.liners["board-2"].density_kg_m3 or 0.0
    assert sheet.shell.shell_kg - board.shell.shell_kg == pytest.approx(volume * (7850 - dense) * 1e-9)
    pieces = list(board_pieces(board.box, board.shell.plates))
    assert sum(piece.quantity * piece.size_mm[0] * piece.size_mm[1] * piece.thickness_mm for piece in pieces) == (
        pytest.approx(volume)
    )
    for tree, cut in ((car(along), 2), (car(along, material="board-2"), 0)):
        parts = [p for p in parts_of(resolve(validate(tree), {})) if "divider" in p.id]
        assert sum(part.quantity for part in parts) == cut
    assert one[0] == "a"


def test_a_board_that_nobody_weighed_is_said_and_one_that_burns_too() -> None:
    tree = car("aft", material="felt-3")
    assert "unknown" not in states(tree)
    tree["tables"] = copy.deepcopy(tree_of(validate(tree))["tables"])
    tree["tables"]["liners"]["felt-3"]["density_kg_m3"] = None
    assert "unknown" in states(tree)
    assert [f.state for f in found(car("aft", material="rubber-4"), "inside.liner")] == ["note"]


def test_a_divider_names_a_liner_that_is_there() -> None:
    with pytest.raises(ValueError, match="there is no liner"):
        validate(car("aft", material="cardboard"))
