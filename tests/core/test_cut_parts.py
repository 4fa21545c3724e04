"""A part knows that it is cut: a change that alters it says so, one that does not says nothing."""

import copy
from typing import Any

import pytest

from levelcradle.core.analysis import analyse
from levelcradle.core.assembly import resolve
from levelcradle.core.design import Design, tree_of, validate
from levelcradle.core.design.patch import apply
from levelcradle.core.design.sentence import sentence
from levelcradle.core.edits import as_cut, pattern_of
from levelcradle.core.errors import UnknownThing
from tests.conftest import DEMO


def marked(mark: str, state: Any, tree: dict[str, Any] | None = None) -> dict[str, Any]:
    tree = copy.deepcopy(tree or DEMO)
    return apply(tree, as_cut(resolve(validate(tree), {}), mark, state)).tree


def told(tree: dict[str, Any]) -> dict[str, str]:
    return {f.subjects[0]: f.state for f in analyse(validate(tree), {}).findings if f.code == "drawings.cut"}


def test_nothing_is_said_while_what_is_cut_is_what_is_drawn() -> None:
    for mark in ("A1", "A3", "B2"):
        assert told(marked(mark, "cut")) == {}


def test_a_change_that_alters_a_cut_part_is_foul_and_of_a_sent_one_tight() -> None:
    tree = marked("A1", "sent", marked("B1", "cut"))
    for box in ("tank", "bonnet"):
        tree["boxes"][box]["construction"]["thickness_mm"] = 4.0
    assert told(tree) == {"cut_parts/tank-tray": "foul", "cut_parts/bonnet-tray": "tight"}
    assert not analyse(validate(tree), {}).released


@pytest.mark.parametrize(
    ("path", "value"),
    [
        (("boxes", "tank", "name"), "Another name"),
        (("boxes", "tank", "order"), 7),
        (("boxes", "tank", "pose", "yaw_deg"), 90.0),
        (("name",), "Another car"),
    ],
)
def test_what_does_not_alter_the_blank_says_nothing(path: tuple[str, ...], value: Any) -> None:
    tree = marked("B1", "cut")
    at = tree
    for step in path[:-1]:
        at = at[step]
    at[path[-1]] = value
    assert told(tree) == {}


@pytest.mark.parametrize(("state", "said"), [("sent", "sent out"), ("cut", "cut"), ("drawn", "only drawn")])
def test_the_log_says_what_became_of_it(state: Any, said: str) -> None:
    before = marked("B1", "sent" if state == "drawn" else "drawn")
    patch = as_cut(resolve(validate(before), {}), "B1", state)
    assert sentence(before, apply(before, patch).tree, patch) == f"Tank box tray {said}"


def test_one_of_those_alike_that_is_moved_away_is_named_by_itself() -> None:
    tree = marked("B3", "cut")
    assert len(tree["cut_parts"]) == 4
    tree["mounts"]["tank-lf"]["shape"]["leg_b_mm"] += 5
    assert told(tree) == {"cut_parts/tank-lf-angle": "foul"}
    del tree["mounts"]["tank-lf"]
    assert told(tree) == {"cut_parts/tank-lf-angle": "foul"}


def test_it_can_be_taken_back_and_a_mark_that_is_not_there_is_refused() -> None:
    tree = marked("B3", "cut")
    assert marked("B3", "drawn", tree)["cut_parts"] == {}
    with pytest.raises(UnknownThing):
        as_cut(resolve(validate(tree), {}), "Z9", "cut")


def test_the_same_again_keeps_what_was_drawn_and_nothing_that_was_measured(demo: Design) -> None:
    again = tree_of(pattern_of(validate(marked("B1", "cut"))))
    before = tree_of(demo)
    for name in ("boxes", "mounts", "items", "bays", "hardpoints", "members", "module_kinds", "tables", "vehicle"):
        assert again[name] == before[name]
    for name in ("readings", "weighings", "modules", "stacks", "snags", "tapes", "pins", "agreed_gaps", "cut_parts"):
        assert again[name] == {}
    assert validate(again)
