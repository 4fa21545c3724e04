"""Room that a face of a box keeps: measured to whatever is first there, kept when the box moves and turns."""

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from levelcradle.core.design.box import FACE_AT
from levelcradle.core.errors import DesignError
from levelcradle.core.finding import Finding
from tests.plain import a_block, box_at, found, plain_car
from tests.stranger import stranger_tree

OUTSIDE = (214.0, 134.0, 101.0)
FACES = ("front", "aft", "left", "right", "base", "top")


def room(tree: dict[str, Any], face: str, needs: float = 90.0) -> Finding:
    tree["boxes"]["b"]["keep_clear"] = {"r": {"face": face, "depth_mm": needs, "reason": "a hand"}}
    (row,) = found(tree, "gap.room")
    return row


def before(face: str, at: tuple[float, float, float], off: float, over: float) -> dict[str, Any]:
    """A thing so far off a face of a box that stands upright at a place."""
    axis, far = FACE_AT[face]
    low, high = [a - 300 for a in at], [a + s + 300 for a, s in zip(at, OUTSIDE, strict=True)]
    edge = at[axis] + (OUTSIDE[axis] + (over if axis == 2 else 0.0) if far else 0.0)
    low[axis], high[axis] = (edge + off, edge + off + 50) if far else (edge - off - 50, edge - off)
    return a_block((low[0], low[1], low[2]), (high[0], high[1], high[2]))


@given(st.sampled_from(FACES), st.integers(1, 110), st.tuples(*[st.integers(-400, 900)] * 3))
def test_it_is_as_deep_as_the_first_thing_is_off_wherever_the_box_stands(
    face: str, off: int, at: tuple[float, float, float]
) -> None:
    tree = plain_car(boxes={"b": box_at(at)}, items={"t": before(face, at, off, 3.0)})  # its lid lies 3 over the tray
    row = room(tree, face)
    assert row.value == pytest.approx(min(off, 120.0), abs=0.1)
    assert row.state == ("foul" if off < 90 else "tight" if off <= 93 else "clear")


def test_nothing_there_is_clear_and_a_thing_beside_the_room_is_not_in_it() -> None:
    at = (1000.0, 0.0, 400.0)
    assert room(plain_car(boxes={"b": box_at(at)}), "aft").state == "clear"
    beside = a_block((1230, 140, 400), (1260, 200, 500))
    assert room(plain_car(boxes={"b": box_at(at)}, items={"t": beside}), "aft").state == "clear"


def test_it_turns_with_the_box_and_another_box_ends_it() -> None:
    box = box_at((1000.0, 0.0, 400.0))
    box["pose"]["yaw_deg"] = 90.0  # its aft face looks right
    tree = plain_car(boxes={"b": box, "c": box_at((850.0, 264.0, 400.0))})
    row = room(tree, "aft")
    assert row.value == pytest.approx(50.0 - 3.5 - 3.0, abs=0.1)  # its lid stands over, and a screw's head on that
    assert row.subjects == ("boxes/b", "boxes/c")
    assert row.state == "foul"


NOT_TAKEN = {"text": "", "basis": "not taken"}


@pytest.mark.parametrize(("off", "state"), [(50, "foul"), (110, "unknown"), (400, "clear")])
def test_what_hangs_on_a_guess_is_never_clear_and_a_foul_stays_one(off: int, state: str) -> None:
    at = (1000.0, 0.0, 400.0)
    tree = plain_car(boxes={"b": box_at(at)}, items={"t": before("aft", at, off, 3.0)})
    tree["readings"] = {
        "/items/t/solid/low_mm/0": {"text": str(tree["items"]["t"]["solid"]["low_mm"][0]), "basis": "assumed"}
    }
    assert room(tree, "aft").state == state  # what is far away ends no room
    tree["readings"] = {
        "/items/t/solid/low_mm/0": NOT_TAKEN
    }  # it stands nowhere yet: so it ends no room, and nobody knows
    assert room(tree, "aft").state == "unknown"


def test_in_a_space_that_was_not_measured_nobody_knows() -> None:
    sides = {side: {"is": "open"} for side in ("fore", "aft", "left", "right", "floor", "top")}
    tree = stranger_tree()
    tree["bays"]["boot"]["sides"] = sides | {"left": {"is": "not measured"}}
    tree["boxes"] = {"b": {**box_at((2600.0, 0.0, 600.0)), "bay": "boot", "blocks": {}}}
    assert room(tree, "aft").state == "unknown"
    tree["bays"]["boot"]["sides"] = sides
    assert room(tree, "aft").state == "clear"


BESIDE = [(face, edge) for face in FACES for edge in FACES if FACE_AT[face][0] != FACE_AT[edge][0]]


@given(st.sampled_from(BESIDE), st.integers(10, 60), st.booleans())
def test_a_run_beside_a_face_asks_for_its_cross_section_and_no_more(
    run: tuple[str, str], wide: int, within: bool
) -> None:
    """A thing that stands before the face is in its way within the run's width of the edge, and not beyond it."""
    (face, beside), at = run, (1000.0, 0.0, 400.0)
    thing = before(face, at, 20.0, 3.0)
    axis, far = FACE_AT[beside]
    edge, inward = at[axis] + far * OUTSIDE[axis], -1 if far else 1
    near = edge + inward * (wide - 2 if within else wide + 2)
    span = sorted((near, edge + inward * 600))
    thing["solid"]["low_mm"][axis], thing["solid"]["high_mm"][axis] = span
    tree = plain_car(boxes={"b": box_at(at)}, items={"t": thing})
    tree["boxes"]["b"]["keep_clear"] = {
        "r": {"face": face, "depth_mm": 60.0, "run": {"beside": beside, "wide_mm": wide}}
    }
    (row,) = found(tree, "gap.room")
    assert row.state == ("foul" if within else "clear")
    if within:
        assert row.value == pytest.approx(20.0, abs=0.1)


def test_a_run_beside_a_face_it_does_not_meet_is_refused() -> None:
    tree = plain_car(boxes={"b": box_at((1000.0, 0.0, 400.0))})
    tree["boxes"]["b"]["keep_clear"] = {
        "r": {"face": "aft", "depth_mm": 60.0, "run": {"beside": "front", "wide_mm": 50.0}}
    }
    with pytest.raises(DesignError, match="along an edge of the aft face"):
        found(tree, "gap.room")
