"""Strings side by side: a proposal writes them, none is longer in volts, no module moves for it; of two strings the
voltage is one's."""

from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from levelcradle.core.analysis import analyse
from levelcradle.core.design import Design, validate
from levelcradle.core.design.box import Block, Box
from levelcradle.core.edits import edited
from levelcradle.core.fit.strings import told_off
from levelcradle.core.modules import lay_out, strings_in
from tests.core.test_fit import asked, bay_design, bay_tree

DESIGN = bay_design((700, 500, 300), [])


def a_box(blocks: list[tuple[int, int, int]]) -> Box:
    made: dict[str, Any] = {}
    for n, (aft, across, up) in enumerate(blocks):
        counts = {"aft": aft, "across": across, "up": up}
        made[f"b{n}"] = {
            "kind": "brick", "turn": {"down": "base", "aft": "side_b"}, "counts": counts, "origin_mm": [0, 0, 300 * n],
            "alternate": None,
        }  # fmt: skip
    first = next(iter(edited(DESIGN, asked(DESIGN, modules=1).proposals[0].patch).boxes.values()))
    return first.model_copy(update={"blocks": {key: Block.model_validate(b) for key, b in made.items()}})


def places(design: Design, boxes: list[Box]) -> list[tuple[int, ...]]:
    """The corner of every module, box by box."""
    found = []
    for n, box in enumerate(boxes):
        for block in box.blocks.values():
            for module in lay_out(block, design.module_kinds[block.kind]).modules:
                corner = (round(a + b, 6) for a, b in zip(module.low, block.origin_mm, strict=True))
                found.append((n, *corner))
    return sorted(found)  # type: ignore[arg-type]


grids = st.lists(st.tuples(st.integers(1, 4), st.integers(1, 3), st.integers(1, 3)), min_size=1, max_size=3)


@settings(max_examples=10)
@given(st.lists(grids, min_size=1, max_size=3), st.integers(2, 3))
def test_strings_are_alike_and_no_module_moves(layouts: list[list[tuple[int, int, int]]], parallel: int) -> None:
    boxes = [a_box(blocks) for blocks in layouts]
    total = sum(b.counts.total for box in boxes for b in box.blocks.values())
    if total % parallel:
        return
    adds, told = told_off(DESIGN, boxes, parallel)
    design = edited(DESIGN, adds)
    strings = strings_in(told, design.module_kinds, design.strings)
    assert len(strings) == parallel
    assert {s.modules for s in strings.values()} == {total // parallel}
    assert places(DESIGN, told) == places(DESIGN, boxes)


@pytest.mark.parametrize(("modules", "parallel"), [(6, 2), (10, 2), (9, 3)])
def test_a_proposal_in_the_car_shows_the_voltage_it_was_proposed_with(modules: int, parallel: int) -> None:
    design = bay_design((700, 500, 300), [])
    found = asked(design, modules=modules, parallel=parallel).proposals
    assert found
    for proposal in found:
        analysis = analyse(edited(design, proposal.patch), {})
        assert analysis.string.full_v == pytest.approx(proposal.string.full_v)
        assert analysis.string.energy_kwh == (proposal.string.energy_kwh and pytest.approx(proposal.string.energy_kwh))
        assert analysis.string.modules == modules
        assert not [
            f
            for f in analysis.findings
            if f.code.startswith("string.") or (f.state == "foul" and f.code.startswith("inside"))
        ]


def two_strings(one: int, other: int, parallel: int = 1) -> Any:
    tree = bay_tree((700, 500, 300), [])
    box = edited(DESIGN, asked(DESIGN, modules=1).proposals[0].patch).boxes
    block = next(iter(next(iter(box.values())).blocks.values())).model_dump(mode="json", by_alias=True)
    made = next(iter(box.values())).model_dump(mode="json", by_alias=True)
    made["blocks"] = {
        "a": block | {"counts": {"aft": one, "across": 1, "up": 1}, "string": "s1", "parallel": parallel},
        "b": block
        | {
            "counts": {"aft": other, "across": 1, "up": 1},
            "origin_mm": [0, 300, 0],
            "string": "s2",
            "parallel": parallel,
        },
    }
    tree["strings"] = {"s1": {"name": "left one", "order": 1}, "s2": {"name": "right one", "order": 2}}
    tree["boxes"] = {"x": made | {"bay": None}}
    return analyse(validate(tree), {})


def test_strings_of_unlike_voltage_are_foul() -> None:
    assert not [f for f in two_strings(2, 2).findings if f.code == "string.alike"]
    (said,) = [f for f in two_strings(2, 3).findings if f.code == "string.alike"]
    assert said.state == "foul"
    assert said.margin is not None
    assert said.margin < 0


def test_modules_side_by_side_count_once_in_volts_and_each_in_capacity() -> None:
    single, paired = two_strings(2, 2).string, two_strings(4, 4, parallel=2).string
    assert paired.full_v == pytest.approx(single.full_v)
    assert paired.energy_kwh == (single.energy_kwh and pytest.approx(2 * single.energy_kwh))
    assert [f.code for f in two_strings(3, 3, parallel=2).findings if f.code == "string.uneven"] == [
        "string.uneven"
    ] * 2
