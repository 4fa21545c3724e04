"""Things fixed in and on a box: asked like everything else, part of its outside, turned and weighed with it."""

import copy
from typing import Any

import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from levelcradle.core.assembly import resolve
from levelcradle.core.design import validate
from levelcradle.core.edits import edited, into_box, out_of_box, removing
from tests.plain import a_block, analysed, box_at, found, plain_car, said

AT = (1000.0, 0.0, 300.0)


def fixed(
    face: str, edges: tuple[str, str], u: float, v: float, off: float, size: tuple[float, float, float], **more: Any
) -> dict[str, Any]:
    place = {"type": "box", "box": "x", "face": face, "from": list(edges), "u_mm": u, "v_mm": v, "off_mm": off}
    return a_block((0, 0, 0), size, place=place, **more)


def car(gear: dict[str, Any] | None = None, **more: Any) -> dict[str, Any]:
    return plain_car(boxes={"x": box_at(AT)}, items={"g": gear} if gear else {}, **more)


def test_a_thing_laid_through_the_modules_is_foul() -> None:
    (row,) = found(car(fixed("base", ("front", "left"), 20, 20, 20, (100, 60, 30), mass_kg=9)), "inside.gear")
    assert row.state == "foul"
    assert "module" in said(car(fixed("base", ("front", "left"), 20, 20, 20, (100, 60, 30))), "inside.gear")[0]


@settings(max_examples=40)
@given(off=st.floats(-200, 400) | st.floats(-64, -50) | st.floats(120, 140))
def test_a_thing_that_reaches_through_a_wall_is_never_passed(off: float) -> None:
    """A block that goes 60 inward is foul wherever it cuts sheet or brick, from the left wall to the right one."""
    assume(min(abs(off + 60), abs(off - 134)) > 0.6)  # what only touches may stand there
    rows = found(car(fixed("left", ("front", "base"), 60, 30, off, (40, 60, 40))), "inside.gear")
    assert any(r.state == "foul" for r in rows) == (-60 < off < 134)


def chamber(off: float = -150.0) -> dict[str, Any]:
    return fixed("left", ("front", "base"), 40, 20, off, (60, 150, 60), name="chamber", mass_kg=12.0)


def test_what_sits_on_a_box_is_part_of_its_outside() -> None:
    """A post 20 mm from a chamber that stands 150 out of the left wall: it is the chamber that comes near it."""
    low = resolve(validate(car(chamber())), {}).boxes["x"].pieces
    reach = min(p.solid.low[1] for p in low if p.gear)
    assert reach == pytest.approx(-150, abs=1)
    post = a_block((1030, reach - 40, 300), (1110, reach - 20, 420), name="post")
    tree = car(chamber())
    (gap,) = [f for f in found({**tree, "items": {**tree["items"], "post": post}}, "gap") if "items/post" in f.subjects]
    assert gap.value == pytest.approx(20, abs=0.01)


def test_it_turns_with_the_box() -> None:
    tree = car(chamber())
    tree["boxes"]["x"]["pose"]["yaw_deg"] = 180.0
    pieces = [p.solid for p in resolve(validate(tree), {}).boxes["x"].pieces if p.gear]
    before = [p.solid for p in resolve(validate(car(chamber())), {}).boxes["x"].pieces if p.gear]
    centre = [2 * v for v in AT[:2]]
    for one, other in zip(before, pieces, strict=True):
        assert [centre[i] - one.high[i] for i in range(2)] == pytest.approx(list(other.low[:2]), abs=1e-6)


@settings(max_examples=20)
@given(kg=st.floats(0.5, 80))
def test_it_is_lifted_hung_and_balanced_with_the_box(kg: float) -> None:
    bare = analysed(car()).boxes["x"]
    held = analysed(
        car(fixed("left", ("front", "base"), 40, 20, -150, (60, 150, 60), mass_kg=kg, at_mm=[30, 75, 30]))
    ).boxes["x"]
    assert held.hung_kg == pytest.approx(bare.hung_kg + kg, abs=1e-6)
    assert held.hung_cg_mm[1] < bare.hung_cg_mm[1]
    assert held.full_kg == pytest.approx(bare.full_kg)


@pytest.mark.parametrize("turn", [{}, {"yaw_deg": 30.0}, {"roll_deg": 90.0}, {"yaw_deg": 180.0, "pitch_deg": 12.0}])
def test_into_a_box_and_out_again_it_stands_where_it_stood(turn: dict[str, float]) -> None:
    tree = plain_car(boxes={"x": box_at(AT)}, items={"g": a_block((1050, -160, 310), (1090, -20, 350))})
    tree["boxes"]["x"]["pose"].update(turn)
    design = validate(tree)
    there = edited(design, into_box(resolve(design, {}), "g", "x"))
    back = edited(there, out_of_box(resolve(there, {}), "g"))

    def points(d: Any) -> list[float]:
        assembly = resolve(d, {})
        solids = [o.solid for o in assembly.obstacles if o.path == "items/g"] or [
            p.solid for p in assembly.boxes["x"].pieces if p.gear
        ]
        return [*solids[0].low, *solids[0].high]

    middle = [sum(pair) / 2 for pair in zip(points(there)[:3], points(there)[3:], strict=True)]
    assert middle == pytest.approx(
        [1070, -90, 330], abs=0.01
    )  # a block turned by no quarter turn keeps its sizes and its middle
    assert points(back) == pytest.approx(points(design), abs=0.01)


def test_a_box_that_is_named_everywhere_can_be_taken_out() -> None:
    tree = car(fixed("left", ("front", "base"), 40, 20, -150, (60, 150, 60)))
    tree["items"]["post"] = a_block((1500, 0, 300), (1600, 100, 400))
    tree["agreed_gaps"] = {"a": {"one": "boxes/x", "other": "items/post", "need_mm": 3, "reason": "felt"}}
    tree["pins"] = {"p": {"what": "boxes/x", "why": "cut"}}
    tree["tapes"] = {"t": {"one": "boxes/x", "other": "items/post"}}
    tree["chains"] = {"c": {"box": "x", "axis": "aft", "rows": {"r": {"words": "felt", "mm": 2.0, "tol_mm": 0.5}}}}
    design = validate(copy.deepcopy(tree))
    left = edited(design, removing(design, ["x"]))
    assert not left.boxes
    assert (set(left.items), left.agreed_gaps, left.pins, left.tapes, left.chains) == ({"g", "post"}, {}, {}, {}, {})
