"""An existing case: checked like any box, weighed as it was weighed, never cut."""

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from levelcradle.core.assembly import resolve
from levelcradle.core.design import tree_of, validate
from levelcradle.core.edits import built_as, edited
from levelcradle.core.errors import DesignError
from levelcradle.core.fabricate import parts_of
from levelcradle.core.solids import nearest
from tests.plain import a_block, analysed, box_at, found, plain_car

AT = (1000.0, 0.0, 400.0)


def case(size: tuple[float, float, float] = (214.0, 134.0, 104.0), kg: float = 5.0, **more: Any) -> dict[str, Any]:
    figures = {"size_mm": list(size), "wall_mm": 3.0, "base_mm": 3.0, "top_mm": 3.0, "mass_kg": kg, **more}
    return {"construction": {"type": "existing", **figures}, "closures": {}}


def car(**more: Any) -> dict[str, Any]:
    return plain_car(boxes={"x": {**box_at(AT), **case(**more)}})


@given(st.tuples(*[st.floats(60, 900)] * 3), st.floats(0.5, 12), st.floats(1, 80))
def test_it_weighs_what_was_weighed_and_its_solids_fill_its_outside(size: Any, wall: float, kg: float) -> None:
    box = resolve(validate(car(size=size, kg=kg, wall_mm=wall, base_mm=wall, top_mm=wall)), {}).boxes["x"]
    assert box.shell.shell_kg == pytest.approx(kg)
    assert [max(s.high[i] for p in box.shell.pieces for s in p.solids) for i in range(3)] == pytest.approx(list(size))
    pieces = [s for p in box.shell.pieces for s in p.solids]
    assert all(nearest(a, b).gap_mm > -1e-6 for n, a in enumerate(pieces) for b in pieces[n + 1 :])
    if len(set(size)) == 3:
        assert box.shell.inner_mm == pytest.approx([v - 2 * wall for v in size])


def test_what_stands_by_it_is_measured_to_its_outside() -> None:
    """A block 20 before it, one 7 over its lid: no heads, no lid's edge stands out of it."""
    things = {
        "a": a_block((800, 0, 400), (980, 134, 500), gap_class="same"),
        "b": a_block((1000, 0, 511), (1200, 134, 600), gap_class="same"),
    }
    gaps = {f.subjects[1]: f.value for f in found({**car(), "items": things}, "gap")}
    assert gaps == pytest.approx({"items/a": 20.0, "items/b": 7.0})


@pytest.mark.parametrize(("axis", "name"), [(0, "aft"), (1, "across"), (2, "up")])
def test_modules_that_ask_for_more_than_it_has_are_foul(axis: int, name: str) -> None:
    """Round one brick 214 × 134 × 104 is just enough; a millimetre less along one way is foul along that way alone."""
    size = [214.0, 134.0, 104.0]
    assert not [f for f in found(car(), "inside") if f.state == "foul"]
    size[axis] -= 1.0
    foul = [f for f in found(car(size=tuple(size)), "inside") if f.state == "foul"]
    assert [f.id for f in foul] == [f"inside:boxes/x:case-{name}"]
    assert foul[0].margin == pytest.approx(-1.0)


def test_nothing_of_it_is_cut_and_its_edges_stay() -> None:
    assert not list(parts_of(resolve(validate(car()), {})))
    tree = car()
    tree["boxes"]["x"]["chamfers"] = {"c": {"edge": ["left", "base"], "mm": [20.0, 20.0]}}
    assert any(f.state == "foul" and "edges are cut off" in f.message for f in found(tree, "box.make"))
    thick = found(car(wall_mm=70.0), "box.make")
    assert [f.state for f in thick] == ["foul"]


def test_a_folded_box_taken_for_an_existing_case_keeps_its_size_and_mass_and_back() -> None:
    design = validate(plain_car(boxes={"x": box_at(AT)}))
    before = resolve(design, {}).boxes["x"]
    there = edited(design, built_as(design, "x", "existing"))
    after = resolve(there, {}).boxes["x"]
    assert after.shell.outer_mm[:2] == pytest.approx(before.shell.outer_mm[:2], abs=0.05)
    assert after.shell.over_mm[2] == pytest.approx(before.shell.over_mm[2], abs=0.05)
    assert [f.margin for f in analysed(tree_of(there)).findings if "case-" in f.id] == pytest.approx(
        [0.0] * 3, abs=0.05
    )
    assert after.full_kg == pytest.approx(before.full_kg, abs=0.006)
    assert resolve(edited(there, built_as(there, "x", "folded")), {}).boxes["x"].shell.outer_mm == pytest.approx(
        before.shell.outer_mm
    )


def test_a_lid_of_its_own_goes_with_what_has_one() -> None:
    for box in ({**box_at(AT), "closures": {}}, {**box_at(AT), **case(), "closures": {"lid": {"type": "cap"}}}):
        with pytest.raises(DesignError, match="of its own"):
            validate(plain_car(boxes={"x": box}))


def test_its_chain_is_its_walls_and_what_is_in_it() -> None:
    from levelcradle.core.clearance import stack_up

    chain = stack_up(resolve(validate(car()), {}), "x", "up", at_mm=(107.0, 67.0))
    assert sum(row.mm for row in chain.rows if row.kind != "gap") == pytest.approx(104.0)
    assert not any("bend" in row.what for row in chain.rows)
    assert analysed(car()).boxes["x"].over_lid_mm == (214.0, 134.0, 104.0)
