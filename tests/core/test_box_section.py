"""A box cut across: its layers make up its outside, and what is drawn lies where they say."""

import copy
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from levelcradle.core.assembly import resolve
from levelcradle.core.box_section import BoxSection, box_section
from levelcradle.core.design import validate
from levelcradle.core.errors import UnknownThing
from tests.conftest import DEMO
from tests.plain import box_at, plain_car

FRAMED = {"construction": {"type": "framed", "tube_mm": 25, "tube_wall_mm": 2, "rails": 2, "cladding_mm": 1.5},
          "closures": {"lid": {"type": "panel"}}}  # fmt: skip


def cut(box: dict[str, Any], through: int | None = None) -> tuple[BoxSection, Any]:
    assembly = resolve(validate(plain_car(boxes={"x": box})), {})
    return box_section(assembly, "x", through), assembly.boxes["x"].shell


def layer(mm: float, kind: str = "sheet", **more: Any) -> dict[str, Any]:
    return {"a": {"type": kind, "thickness_mm": mm, **more}}


@given(
    made=st.sampled_from([{}, FRAMED]),
    counts=st.tuples(*[st.integers(1, 3)] * 3),
    mm=st.floats(0.5, 20),
    weld=st.sampled_from([None, "B"]),
)
def test_its_layers_make_up_its_outside(
    made: dict[str, Any], counts: tuple[int, int, int], mm: float, weld: str | None
) -> None:
    """Across from wall to wall; up from the base to what closes it."""
    layers = {"left": layer(mm), "base": layer(2 * mm), "top": layer(1.0)}
    found, shell = cut({**box_at((0, 0, 300), counts), **made, "layers": layers, "weld_class": weld})
    assert sum(row.mm for row in found.across) == pytest.approx(shell.outer_mm[1])
    assert sum(row.mm for row in found.up) == pytest.approx(shell.outer_mm[2] + shell.made.proud_mm("top"))
    for rows, alike in ((found.across, found.across_sum), (found.up, found.up_sum)):
        assert sum(row.count * row.mm for row in alike) == pytest.approx(sum(row.mm for row in rows))
        assert rows[0].start_mm == 0
    assert sum(row.count for row in found.across_sum if row.name == "module") == counts[1]
    assert sum(row.count for row in found.up_sum if row.name == "module") == counts[2]
    assert len([piece for piece in found.pieces if piece.role == "module"]) == counts[1] * counts[2]


def test_modules_are_drawn_where_their_layers_are() -> None:
    found, _ = cut({**box_at((0, 0, 300), (2, 3, 1)), "layers": {"left": layer(7.0)}})
    drawn = sorted(min(y for y, _ in piece.ring) for piece in found.pieces if piece.role == "module")
    assert drawn == pytest.approx([row.start_mm for row in found.across if row.name == "module"])
    liners = [piece for piece in found.pieces if piece.role == "liner"]
    assert [(min(y for y, _ in p.ring), max(y for y, _ in p.ring)) for p in liners] == [pytest.approx((3.0, 10.0))]


def test_runners_along_the_box_are_cut_each_by_itself() -> None:
    for along, strips in (("first", 2), ("second", 1)):
        row = layer(8.0, "runners", wide_mm=30, between_mm=40, along=along)
        found, shell = cut({**box_at((0, 0, 300), (1, 1, 1)), "layers": {"base": row}})
        rings = [piece.ring for piece in found.pieces if piece.role == "liner"]
        assert len(rings) == strips
        low, high = min(y for ring in rings for y, _ in ring), max(y for ring in rings for y, _ in ring)
        assert low - shell.made.start_mm[1] == pytest.approx(shell.outer_mm[1] - 3 - high)


def test_it_is_cut_through_the_module_that_is_asked_for() -> None:
    demo = resolve(validate(copy.deepcopy(DEMO)), {})
    whole = box_section(demo, "tank")
    assert (whole.through, whole.choices) == (1, (1, 2, 3, 4))
    third = box_section(demo, "tank", 3)
    assert [piece.name for piece in third.pieces if piece.role == "module"] == ["3"]
    with pytest.raises(UnknownThing):
        box_section(demo, "tank", 9)
    with pytest.raises(UnknownThing):
        box_section(demo, "nowhere")


def test_what_sits_in_the_box_is_cut_with_it() -> None:
    thing = {
        "name": "fuse", "state": "in", "solid": {"type": "block", "low_mm": [0, 0, 0], "high_mm": [60, 40, 30]},
        "place": {"type": "box", "box": "x", "face": "top", "from": ["front", "left"], "u_mm": 60, "v_mm": 20,
                  "off_mm": 0},
    }  # fmt: skip
    tree = plain_car(boxes={"x": box_at((0, 0, 300), (1, 1, 1))}, items={"fuse": thing})
    found = box_section(resolve(validate(tree), {}), "x")
    (ring,) = [piece.ring for piece in found.pieces if piece.role == "gear"]
    assert max(y for y, _ in ring) - min(y for y, _ in ring) == pytest.approx(40.0)


def test_an_empty_box_is_cut_in_its_middle() -> None:
    found, shell = cut({**box_at((0, 0, 300)), "blocks": {}})
    assert (found.through, found.choices) == (None, ())
    assert sum(row.mm for row in found.across) == pytest.approx(shell.outer_mm[1])


def test_what_lines_a_box_ends_at_a_step_and_at_a_slope_of_the_lid() -> None:
    """No layer lies in the step, or over what is cut off the rim."""
    cuts = {
        "s": {"edge": ["base", "left"], "mm": [60.0, 50.0], "square": True},
        "t": {"edge": ["top", "right"], "mm": [50, 40]},
    }
    tree = plain_car(boxes={"x": box_at((1000.0, 0.0, 400.0), (2, 3, 2), chamfers=cuts)})
    assembly = resolve(validate(tree), {})
    _, wide, tall = assembly.boxes["x"].shell.outer_mm
    rings = [piece.ring for piece in box_section(assembly, "x").pieces if piece.role == "liner"]
    assert len(rings) == 3
    for y, z in (point for ring in rings for point in ring):
        assert y >= 63.0 - 1e-6 or z >= 53.0 - 1e-6
        assert (wide - y) / 50 + (tall - z) / 40 >= 1 - 1e-6
