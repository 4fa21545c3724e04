"""Mirror twins go together until they are cut loose; a copy's place is still to be taken."""

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from levelcradle.core.analysis import analyse
from levelcradle.core.assembly import resolve
from levelcradle.core.design import validate
from levelcradle.core.design.patch import apply
from levelcradle.core.design.taken import not_taken
from levelcradle.core.edits import copied, edited, twinned
from levelcradle.core.errors import DesignError, UnknownThing
from tests.conftest import DEMO
from tests.stranger import stranger_tree

MADE = ("hardpoints/tail-lf", "items/junction-box", "items/steering-column", "keepouts/crush-front")
Tree = dict[str, Any]


def with_twin(path: str) -> tuple[Tree, str]:
    design = validate(DEMO)
    made, patch = twinned(design, path)
    return apply(DEMO, patch).tree, made


def at(tree: Tree, path: str) -> Any:
    collection, key = path.split("/")
    return tree[collection][key]


def solids_of(tree: Tree, path: str) -> list[tuple[Any, ...]]:
    return sorted((o.solid.low, o.solid.high) for o in resolve(validate(tree), {}).obstacles if o.path == path)


@pytest.mark.parametrize("path", MADE)
def test_a_twin_lies_across_the_centreline_and_so_do_its_solids(path: str) -> None:
    tree, made = with_twin(path)
    ours, theirs = solids_of(tree, path), solids_of(tree, made)
    flipped = sorted(((lo[0], -hi[1], lo[2]), (hi[0], -lo[1], hi[2])) for lo, hi in ours)
    for got, wanted in zip(theirs, flipped, strict=True):
        assert [*got[0], *got[1]] == pytest.approx([*wanted[0], *wanted[1]])
    for name in ("thread", "gap_class", "mass_kg", "wall_mm"):
        assert at(tree, made).get(name) == at(tree, path).get(name)


POINT = "hardpoints/tail-lf"


@given(st.lists(st.tuples(st.booleans(), st.integers(0, 2), st.integers(-900, 900)), min_size=1, max_size=6))
def test_whichever_of_the_two_is_moved_the_other_follows_and_undo_puts_both_back(
    moves: list[tuple[bool, int, int]],
) -> None:
    tree, made = with_twin(POINT)
    start, undo = tree, []
    for twin, axis, value in moves:
        done = apply(
            tree, [{"op": "replace", "path": f"/{made if twin else POINT}/at_mm/{axis}", "value": float(value)}]
        )
        tree = done.tree
        undo.append(done.inverse)
        (x, y, z), (a, b, c) = at(tree, POINT)["at_mm"], at(tree, made)["at_mm"]
        assert (x, y, z) == (a, -b, c)
        assert at(tree, made if twin else POINT)["at_mm"][axis] == value
    for inverse in reversed(undo):
        tree = apply(tree, inverse).tree
    assert (tree["hardpoints"], tree["readings"]) == (start["hardpoints"], start["readings"])


def test_cut_loose_or_left_alone_it_stays_where_it_is() -> None:
    tree, made = with_twin(POINT)
    loose = apply(tree, [{"op": "replace", "path": f"/{made}/mirror_of", "value": None}]).tree
    moved = apply(loose, [{"op": "replace", "path": f"/{POINT}/at_mm/0", "value": 5.0}]).tree
    assert at(moved, made)["at_mm"] == at(tree, made)["at_mm"]
    held = [
        {"op": "remove", "path": f"/mounts/{k}"}
        for k, m in DEMO["mounts"].items()
        if POINT.split("/")[1] in str(m["lands_on"])
    ]
    gone = apply(tree, [*held, {"op": "remove", "path": f"/{POINT}"}]).tree
    assert at(gone, made)["mirror_of"] is None
    assert validate(gone)


def test_names_change_sides_and_a_second_twin_is_refused() -> None:
    tree = stranger_tree()
    made, patch = twinned(validate(tree), "hardpoints/engine-left")
    twin = edited(validate(tree), patch)
    assert at(apply(tree, patch).tree, made)["name"] == "engine right"
    for path in ("hardpoints/engine-left", made):
        with pytest.raises(DesignError, match="already"):
            twinned(twin, path)
    with pytest.raises(UnknownThing):
        twinned(twin, "boxes/nothing")


def test_a_twin_of_what_nobody_took_is_not_taken_either_until_the_other_is() -> None:
    tree = stranger_tree()
    path = "/hardpoints/engine-left/at_mm/1"
    tree["readings"] = {path: {"text": "", "basis": "not taken"}}
    made, patch = twinned(validate(tree), "hardpoints/engine-left")
    tree = apply(tree, patch).tree
    assert f"/{made}/at_mm/1" in not_taken(validate(tree))
    value = tree["hardpoints"]["engine-left"]["at_mm"][1]  # the tape reads just what was drawn
    reading = {
        "op": "replace",
        "path": f"/readings/{path.replace('/', '~1')}",
        "value": {"text": f"{-value:g} L", "unit": "mm"},
    }
    tree = apply(tree, [{"op": "replace", "path": path, "value": value}, reading]).tree
    assert not_taken(validate(tree)) == ()


def test_a_copy_has_the_figures_but_not_the_place() -> None:
    tree = stranger_tree()
    made, patch = copied(validate(tree), "hardpoints/engine-left")
    design = edited(validate(tree), patch)
    copy = design.hardpoints[made.split("/")[1]]
    assert (copy.name, copy.thread, copy.kind) == ("engine left 2", "M12", "captive nut")
    assert {f"/{made}/at_mm/{i}" for i in range(3)} <= set(not_taken(design))
    assert any(f.state == "unknown" and made in f.subjects for f in analyse(design, {}).findings)
    assert copied(design, made)[1][0]["value"]["name"] == "engine left 3"


def test_what_nobody_took_of_a_row_nobody_took_of_its_copy() -> None:
    tree = stranger_tree()
    tree["hardpoints"]["engine-left"]["wall_mm"] = 2.0
    tree["readings"] = {"/hardpoints/engine-left/wall_mm": {"text": "", "basis": "not taken"}}
    made, patch = copied(validate(tree), "hardpoints/engine-left")
    assert f"/{made}/wall_mm" in not_taken(edited(validate(tree), patch))


def test_a_copied_thing_is_nowhere_until_somebody_says_where() -> None:
    tree = stranger_tree()
    made, patch = copied(validate(tree), "items/motor")
    thing = edited(validate(tree), patch).items[made.split("/")[1]]
    assert (thing.mass_kg, thing.tol_kg, thing.at_mm, thing.solid) == (75.0, 2.0, None, None)
