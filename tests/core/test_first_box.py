"""“Put a box in this bay”: what it proposes stands, and says what stops the next row."""

from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from levelcradle.core.analysis import analyse
from levelcradle.core.design import Design, validate
from levelcradle.core.design.box import Orientation
from levelcradle.core.errors import UnknownThing
from levelcradle.core.finding import message_text
from levelcradle.core.fit import first_box, what_it_takes

ROOMY_MM = 4.0  # a place with room to spare takes so much more than the need
CROSSWISE = Orientation(down="side_a", aft="top")


def bare(design: Design) -> Design:
    """The spaces alone, with nothing in them."""
    return design.model_copy(
        update={name: {} for name in ("boxes", "mounts", "items", "keepouts", "members", "load_states", "duties")}
    )


def alone(tree: dict[str, Any], box: Any) -> dict[str, Any]:
    """A design with the proposed box only, nothing else in its way."""
    tree["boxes"] = {"new": box.model_dump(mode="json", by_alias=True)}
    tree["mounts"], tree["items"], tree["keepouts"], tree["load_states"] = {}, {}, {}, {}
    return tree


def test_it_fills_the_tank_space_and_stands_off_its_metal(tree: dict[str, Any], demo: Design) -> None:
    found = first_box(bare(demo), "tank", "flagstone", CROSSWISE, most=99, meshes={})
    assert found.modules == 5
    analysis = analyse(validate(alone(tree, found.box)), {})
    gaps = {f.subjects[1]: f for f in analysis.findings if f.code == "gap"}
    assert gaps["bays/tank/sides/aft"].value == pytest.approx(15.0, abs=ROOMY_MM)
    assert gaps["bays/tank/sides/aft"].state != "foul"
    assert all(f.state in ("tight", "clear") for f in gaps.values() if f.subjects[1].startswith("bays/tank"))


def test_a_leaning_wall_is_respected(tree: dict[str, Any]) -> None:
    for station in tree["bays"]["tank"]["stations"].values():
        station["top_left_mm"], station["left_top_mm"] = 625, -340
    tree["bays"]["tank"]["sides"]["left"] = {"is": "metal", "gap_class": "same"}
    design = validate(tree)
    found = first_box(bare(design), "tank", "flagstone", Orientation(down="base", aft="side_a"), meshes={})
    assert not [
        f for f in analyse(validate(alone(tree, found.box)), {}).findings if f.code == "gap" and f.state == "foul"
    ]


def test_what_the_next_row_would_take(tree: dict[str, Any]) -> None:
    """Five along: 5 × 96 + 10 = 490 wide, 3 for the pull of welds, 13 more for lid and heads, in 530 less 15 at either
    end: 6 short, 3 at either end of where four stand. The open front lets it out."""
    for fore, wanted, short in (("metal", 4, 3.0), ("open", 5, None)):
        tree["bays"]["tank"]["sides"]["fore"] = {"is": fore, "gap_class": "other"}
        design = bare(validate(tree))
        found = first_box(design, "tank", "flagstone", CROSSWISE, most=99, meshes={})
        assert found.modules == wanted
        answer = what_it_takes(design.model_copy(update={"boxes": {"new": found.box}}), "new", "aft", meshes={})
        assert not answer.fits, "over what the space holds, or out of it"
        assert ("stands" in answer.question and "through its open front" in answer.question) == (short is None)
        assert {c.size for c in answer.fixes if c.kind == "wall"} == (set() if short is None else {short})


def test_no_more_modules_than_stand_on_the_shelf(demo: Design) -> None:
    """Eleven, nine of them placed: in the bonnet, once its own box is out, five and the two that are left."""
    emptied = demo.model_copy(update={"boxes": {"tank": demo.boxes["tank"]}})
    assert first_box(emptied, "bonnet", "flagstone", demo.boxes["bonnet"].blocks["a"].turn, meshes={}).modules <= 7
    two = bare(demo).model_copy(update={"modules": dict(list(demo.modules.items())[:2])})
    assert first_box(two, "tank", "flagstone", CROSSWISE, meshes={}).modules == 2


def test_what_stands_in_the_bay_is_kept_clear_of(demo: Design) -> None:
    """With the tank box and all else in it, not one more goes in: one is put there foul, so that it can be asked what
    it takes."""
    found = first_box(demo, "tank", "flagstone", CROSSWISE, meshes={})
    assert not found.fits
    assert found.message == "Not one module fits in tank space in this turn."
    design = demo.model_copy(update={"boxes": {**demo.boxes, "new": found.box}})
    assert what_it_takes(design, "new", meshes={}).foul


def test_where_nothing_fits_it_says_so(demo: Design) -> None:
    assert not first_box(demo, "well", "flagstone", CROSSWISE, meshes={}).fits


@pytest.mark.parametrize(("bay", "kind"), [("attic", "flagstone"), ("tank", "granite")])
def test_what_is_not_there_is_named(demo: Design, bay: str, kind: str) -> None:
    with pytest.raises(UnknownThing):
        first_box(demo, bay, kind, CROSSWISE, meshes={})


NEED_MM = {"same": 6.0, "other": 15.0}
LEAN = st.integers(-60, 60).map(float)


@st.composite
def bays(draw: st.DrawFn) -> dict[str, Any]:
    """A space with leaning walls, a sloping top, and any of its sides metal or open."""
    wide, high = draw(st.integers(250, 500)), draw(st.integers(260, 700))
    stations = {}
    for key, aft in (("a", 2600.0), ("b", 2600.0 + draw(st.integers(300, 900)))):
        top = 300.0 + high + draw(LEAN)
        stations[key] = {
            "aft_mm": aft, "floor_mm": 300.0, "top_left_mm": top, "top_right_mm": top,
            "left_floor_mm": -wide + draw(LEAN), "left_top_mm": -wide + draw(LEAN),
            "right_floor_mm": wide + draw(LEAN), "right_top_mm": wide + draw(LEAN),
        }  # fmt: skip
    sides = {
        side: {"is": draw(st.sampled_from(["metal", "open"])), "gap_class": draw(st.sampled_from(sorted(NEED_MM)))}
        for side in ("fore", "aft", "left", "right", "floor", "top")
    }
    return {"name": "space", "stations": stations, "sides": sides}


@settings(max_examples=12, deadline=None)
@given(
    bays(),
    st.sampled_from(
        [
            Orientation(down="side_a", aft="top"),
            Orientation(down="base", aft="end_b"),
            Orientation(down="base", aft="side_a"),
        ]
    ),
)
def test_what_is_proposed_in_any_bay_is_never_foul(bay: dict[str, Any], turn: Orientation) -> None:
    """The checks that every design goes through say so, not the search itself."""
    from levelcradle.core.design import tree_of
    from levelcradle.demo import demo_design

    tree = tree_of(demo_design())
    tree["bays"] = {"space": bay}
    tree["boxes"], tree["mounts"] = {}, {}
    found = first_box(bare(validate(tree)), "space", "flagstone", turn, meshes={})
    if not found.fits:
        return
    analysis = analyse(validate(alone(tree, found.box)), {})
    assert [message_text(f) for f in analysis.findings if f.code == "gap" and f.state == "foul"] == []
    assert analysis.boxes["new"].modules == found.modules


@settings(max_examples=8, deadline=None)
@given(bays(), st.integers(20, 200))
def test_a_longer_bay_never_takes_fewer_modules(bay: dict[str, Any], longer: int) -> None:
    from levelcradle.core.design import tree_of
    from levelcradle.demo import demo_design

    tree = tree_of(demo_design())
    tree["boxes"], tree["mounts"] = {}, {}
    for station in bay["stations"].values():  # square, so that longer is larger
        station |= {"left_floor_mm": -400.0, "left_top_mm": -400.0, "right_floor_mm": 400.0, "right_top_mm": 400.0}
        station |= {"top_left_mm": 700.0, "top_right_mm": 700.0}
    counts = []
    for extra in (0, longer):
        bay["stations"]["b"]["aft_mm"] += extra
        tree["bays"] = {"space": bay}
        found = first_box(bare(validate(tree)), "space", "flagstone", CROSSWISE, meshes={})
        counts.append(found.modules if found.fits else 0)
    assert counts[0] <= counts[1]
