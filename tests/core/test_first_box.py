"""“Put a box in this bay”: what it proposes stands, and says what stops the next row."""

from typing import Any

import pytest

from levelcradle.core.analysis import analyse
from levelcradle.core.design import Design, validate
from levelcradle.core.design.box import Turn
from levelcradle.core.errors import UnknownThing
from levelcradle.core.fit import first_box

CROSSWISE = Turn(down="side_a", aft="top")


def alone(tree: dict[str, Any], box: Any) -> dict[str, Any]:
    """A design with the proposed box only, nothing else in its way."""
    tree["boxes"] = {"new": box.model_dump(mode="json", by_alias=True)}
    tree["mounts"], tree["items"], tree["keepouts"], tree["load_states"] = {}, {}, {}, {}
    return tree


def test_it_fills_the_tank_space_and_stands_off_its_metal(tree: dict[str, Any], demo: Design) -> None:
    found = first_box(demo, "tank", "flagstone", CROSSWISE)
    assert found is not None
    assert found.modules == 5
    analysis = analyse(validate(alone(tree, found.box)))
    gaps = {f.subjects[1]: f for f in analysis.findings if f.code == "gap"}
    assert gaps["bays/tank/sides/aft"].value == pytest.approx(15.0)
    assert all(f.state in ("tight", "clear") for f in gaps.values() if f.subjects[1].startswith("bays/tank"))


def test_a_leaning_wall_is_respected(tree: dict[str, Any]) -> None:
    for station in tree["bays"]["tank"]["stations"].values():
        station["top_left_mm"], station["left_top_mm"] = 625, -340
    tree["bays"]["tank"]["sides"]["left"] = {"is": "metal", "gap_class": "same"}
    design = validate(tree)
    found = first_box(design, "tank", "flagstone", Turn(down="base", aft="side_a"))
    assert found is None or not [f for f in analyse(validate(alone(tree, found.box))).findings if f.code == "gap" and f.state == "foul"]


def test_the_next_row_says_by_how_much_it_is_foul(demo: Design) -> None:
    found = first_box(demo, "tank", "flagstone", CROSSWISE)
    assert found is not None
    short = {s.way: s.short_mm for s in found.next_steps}
    # one more along: 6 × 96 + 10 = 586 wide, 13 more for lid and heads, in 530 less 15 at the metal end
    assert short["aft"] == pytest.approx(586 + 13 - 515, abs=0.02)
    assert short["up"] == pytest.approx(245 + 3 + 234 - 285, abs=0.02)


def test_no_more_modules_than_there_are(demo: Design) -> None:
    found = first_box(demo, "tank", "flagstone", CROSSWISE, most=2)
    assert found is not None
    assert found.modules == 2


def test_where_nothing_fits_it_says_so(demo: Design) -> None:
    assert first_box(demo, "well", "flagstone", CROSSWISE) is None


@pytest.mark.parametrize(("bay", "kind"), [("attic", "flagstone"), ("tank", "granite")])
def test_what_is_not_there_is_named(demo: Design, bay: str, kind: str) -> None:
    with pytest.raises(UnknownThing):
        first_box(demo, bay, kind, CROSSWISE)
