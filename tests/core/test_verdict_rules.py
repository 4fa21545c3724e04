"""Verdicts, rule by rule, on a stranger's car: what makes a thing clear, tight, foul or not known, and what may not
soften it.

The gaps and limits stand here as the trade says them (common practice, no source), not as the code reads them.
"""

import copy
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from levelcradle.core.assembly import resolve
from levelcradle.core.clearance import snap_points
from levelcradle.core.design import validate
from levelcradle.core.design.pins import refuse_moving_pinned
from levelcradle.core.design.refused import refuse_brittle_bolts, refuse_meeting_edges
from levelcradle.core.errors import DesignError
from levelcradle.core.finding import Finding
from tests.conftest import DEMO
from tests.plain import a_block, analysed, as_found, box_at, found, plain_car

NEEDS = {"same": 6, "other": 15, "moving": 20, "axle": 25, "warm": 25, "hot": 75, "hand": 90}
TAPE_MM = 3.0
AT = (
    1000.0,
    0.0,
    300.0,
)  # of one brick: 214 along, 134 across, 101 up, its lid's edge 3.5 beyond the walls, screw heads 6.5


def below(gap: float, **more: Any) -> dict[str, Any]:
    """A plate under the box, so far off its floor."""
    return a_block((900, -100, 200), (1400, 300, 300 - gap), **{"gap_class": "same", **more})


def car(thing: dict[str, Any], **more: Any) -> dict[str, Any]:
    return plain_car(boxes={"x": box_at(AT)}, items={"t": thing}, **more)


def to_thing(tree: dict[str, Any]) -> Finding:
    (one,) = [f for f in found(tree, "gap") if f.subjects == ("boxes/x", "items/t")]
    return one


def assumed(**more: Any) -> dict[str, Any]:
    """Somebody guessed a figure of the thing."""
    return {"/items/t/solid/high_mm/2": {"text": "guessed", "basis": "assumed", **more}}


# --- gaps ---


@pytest.mark.parametrize("kind", NEEDS)
def test_each_class_keeps_its_own_gap(kind: str) -> None:
    need = NEEDS[kind]
    states = [
        to_thing(car(below(need + off, gap_class=kind))).state for off in (-0.1, 0.1, TAPE_MM - 0.1, TAPE_MM + 0.1)
    ]
    assert states == ["foul", "tight", "tight", "clear"]


@pytest.mark.parametrize(("kind", "structure", "need"), [
    ("same", "body", 6), ("same", "frame", 15), ("same", "subframe", 15), ("same", "axle", 25), ("moving", "frame", 20),
    ("moving", "axle", 25), ("axle", "body", 25), ("hot", "axle", 75),
])  # fmt: skip
def test_what_hangs_on_another_structure_moves_against_it(kind: str, structure: str, need: float) -> None:
    """The larger of what its class asks and what the two structures ask; a shared one asks nothing more."""
    assert to_thing(car(below(need, gap_class=kind, structure=structure))).limit == need


def test_behind_its_shield_a_hot_part_is_warm() -> None:
    assert [to_thing(car(below(30, gap_class="hot", shielded=shield))).limit for shield in (False, True)] == [75, 25]


@given(need=st.floats(0, 40), gap=st.floats(1, 60), turned=st.booleans())
@settings(max_examples=30)
def test_an_agreed_gap_counts_for_its_own_pair_alone(need: float, gap: float, turned: bool) -> None:
    pair = ("items/t", "boxes/x") if turned else ("boxes/x", "items/t")
    agreed = {"one": pair[0], "other": pair[1], "need_mm": need, "reason": "tried"}
    tree = car(below(gap, gap_class="moving"), agreed_gaps={"a": agreed})
    tree["items"]["u"] = a_block((900, -100, 400 + gap), (1400, 300, 450 + gap), gap_class="moving")
    one = to_thing(tree)
    assert one.limit == need
    assert (one.state == "foul") == (gap < need)
    assert next(f for f in found(tree, "gap") if f.subjects[1] == "items/u").limit == 20


@pytest.mark.parametrize(("gap", "state"), [(5.0, "foul"), (7.0, "unknown"), (60.0, "unknown")])
def test_a_guessed_figure_lets_nothing_pass_and_hides_no_foul(gap: float, state: str) -> None:
    tree = car(below(gap), readings=assumed())
    assert to_thing(tree).state == state


def test_somebody_who_answers_for_a_guess_makes_it_a_figure_with_his_plus_minus() -> None:
    answered = assumed(accepted={"by": "Kes", "plus_minus": 12.0})
    near, far = (to_thing(car(below(gap), readings=copy.deepcopy(answered))).state for gap in (17.0, 22.0))
    assert (near, far) == ("tight", "clear")  # 12, and half of what a small welded box may be off: under 13 together


@given(stated=st.floats(0.5, 30))
@settings(max_examples=20)
def test_a_wider_reading_never_makes_a_gap_surer(stated: float) -> None:
    readings = {"/items/t/solid/high_mm/2": {"text": "280", "basis": "measured", "tolerance": stated}}
    one = to_thing(car(below(20), readings=readings))
    assert one.tolerance is not None
    assert one.tolerance >= stated
    assert one.state == ("clear" if one.tolerance <= 14 else "tight")


# --- mounts ---


def hung(**changes: Any) -> dict[str, Any]:
    tree = copy.deepcopy(DEMO)
    for mount in tree["mounts"].values():
        for name, value in changes.items():
            mount[name] = {**mount[name], **value} if isinstance(value, dict) and mount[name] else value
    return tree


def test_a_mount_is_never_better_than_tight_and_its_wall_never_clear() -> None:
    """However strong: the wall is a rough check, and much is not checked at all."""
    analysis = analysed(hung())
    light = analysed(
        {
            **hung(),
            "module_kinds": {
                **DEMO["module_kinds"],
                "flagstone": {**DEMO["module_kinds"]["flagstone"], "mass_kg": 0.5},
            },
        }
    )
    assert {f.state for f in light.findings if f.code == "mount.use"} == {"tight"}
    for support in (*analysis.supports, *light.supports):
        for mount in support.mounts:
            assert all(row.state != "clear" for row in mount.rows if row.check in ("wall", "doubler patch"))
            assert any(row.state == "clear" for row in mount.rows)


@pytest.mark.parametrize("low", [-200.0, 140.0])
def test_a_doubler_under_the_lids_edge_or_on_the_bend_is_foul(low: float) -> None:
    tree = hung(to_box={"type": "welded", "doubler": {"from_contact_mm": low}})
    states = {f.state for f in analysed(tree).findings if f.code == "mount.use"}
    assert states == {"foul"}


@pytest.mark.parametrize("kind", ["road", "crash"])
def test_every_kind_of_case_is_asked(kind: str) -> None:
    """With cases of one kind alone a mount still has its uses; ten times the throw is over its capacity."""
    tree = hung()
    cases = {key: row for key, row in tree["tables"]["load_cases"].items() if row["kind"] == kind}
    tree["tables"] = {**tree["tables"], "load_cases": {k: {**r, "up_g": 40.0} for k, r in cases.items()}}
    rows = [row for support in analysed(tree).supports for mount in support.mounts for row in mount.rows]
    assert {row.kind for row in rows} == {kind, "shaken"}  # shaken it is whatever the table says
    assert max(row.utilisation for row in rows if row.kind == kind) > 1


# --- axle loads ---


def weighed(**more: Any) -> dict[str, Any]:
    tree = plain_car(boxes={"x": box_at(AT)})
    tree["vehicle"].update(more)
    tree["weighings"] = as_found({"type": "axles", "front_kg": 500.0, "rear_kg": 450.0, "step_kg": 10.0})
    return tree


def rating(tree: dict[str, Any], axle: str) -> Finding:
    return next(f for f in found(tree, "level.rating") if f.id.endswith(f"ready:{axle}"))


@pytest.mark.parametrize("axle", ["front axle", "rear axle", "gross mass"])
def test_a_rating_is_clear_only_by_more_than_its_plus_minus(axle: str) -> None:
    key = {"front axle": "front_kg", "rear axle": "rear_kg", "gross mass": "gross_kg"}[axle]
    loose = rating(weighed(ratings={key: 2000.0}), axle)
    assert loose.value is not None
    assert loose.tolerance is not None
    off = (-0.1, 0.0, loose.tolerance * 0.9, loose.tolerance + 0.2)
    states = [rating(weighed(ratings={key: loose.value + more}), axle).state for more in off]
    assert states == ["foul", "tight", "tight", "clear"]


@pytest.mark.parametrize(("aft", "axle"), [(-4000.0, "rear axle"), (9000.0, "front axle")])
def test_an_axle_that_lifts_is_foul_whatever_its_rating(aft: float, axle: str) -> None:
    tree = weighed(ratings={"front_kg": 9000.0, "rear_kg": 9000.0})
    tree["items"]["anvil"] = {"name": "anvil", "state": "in", "mass_kg": 500.0, "at_mm": [aft, 0.0, 500.0]}
    one = rating(tree, axle)
    assert one.value is not None
    assert one.value < 0
    assert one.state == "foul"


def test_a_thing_without_its_mass_or_place_leaves_no_rating_clear() -> None:
    for lacking in ({"mass_kg": None, "at_mm": [500, 0, 500]}, {"mass_kg": 5.0, "at_mm": None}):
        tree = weighed(ratings={"front_kg": 2000.0})
        assert rating(tree, "front axle").state == "clear"
        tree["items"]["pump"] = {"name": "pump", "state": "in", **lacking}
        assert rating(tree, "front axle").state == "unknown"


# --- above the ground ---


def grounded(up: float, **more: Any) -> dict[str, Finding]:
    tree = weighed(**more)
    tree["boxes"]["x"]["pose"]["at_mm"][2] = up
    return {f.id.rsplit(":", 1)[1]: f for f in found(tree, "ground")}


RATES = {"front_n_per_mm": 20.0, "rear_n_per_mm": 20.0}
SIZE = {
    "overhang_front_mm": 700.0,
    "overhang_rear_mm": 900.0,
    "width_mm": 1600.0,
    "height_mm": 1300.0,
    "tyre_radius_mm": 300.0,
}


def test_what_the_ground_rests_on_is_named_while_it_is_missing() -> None:
    assert {f.state for f in grounded(200.0).values()} == {"unknown"}
    assert grounded(200.0, wheel_rates=RATES)["laden"].state != "unknown"
    assert (
        grounded(200.0, bump_mm={"front": 60.0, "rear": 60.0})["bump"].state == "unknown"
    )  # the tyre's radius is missing


@given(bump=st.floats(0, 120), up=st.floats(100, 320))
@settings(max_examples=20)
def test_at_full_bump_on_a_flat_tyre_fifty_are_left(bump: float, up: float) -> None:
    one = grounded(up, bump_mm={"front": bump, "rear": bump}, overall=SIZE)["bump"]
    assert one.value == pytest.approx(up - bump - 75, abs=0.01)
    assert (one.state == "foul") == (up - bump - 75 < 50 - 1e-6)


def test_laden_it_hangs_lower_and_asks_a_hundred_and_forty() -> None:
    people = {"p": {"name": "people", "state": "payload", "mass_kg": 300.0, "at_mm": [1250.0, 0.0, 600.0]}}
    alone = grounded(200.0, wheel_rates=RATES)["laden"]
    tree = weighed(wheel_rates=RATES)
    tree["boxes"]["x"]["pose"]["at_mm"][2] = 200.0
    tree["items"], tree["load_states"] = people, {"full": {"name": "full", "aboard": {"p": True}}}
    laden = next(f for f in found(tree, "ground") if f.id.endswith("laden"))
    assert alone.value is not None
    assert laden.value == pytest.approx(
        alone.value - 300 * 9.80665 / 4 / 20, abs=0.01
    )  # in the middle: all four springs alike
    assert laden.limit == alone.limit == 140


# --- pins ---

CHANGES: list[tuple[str, Any, bool]] = [
    ("pose/at_mm/0", 1001.0, True), ("pose/yaw_deg", 90.0, True), ("construction/thickness_mm", 2.0, True),
    ("layers/left/liner/thickness_mm", 2.0, True),
    ("closures/lid/edge_mm", 30.0, True), ("inner", {"type": "fixed", "size_mm": [300, 300, 300]}, True),
    ("blocks/a/counts/aft", 2, True),
    ("chamfers", {"c": {"edge": ["left", "base"], "mm": [9, 9]}}, True), ("name", "Other", False), ("order", 4, False),
    ("holders", {"h": {"type": "fit", "block": "a"}}, True), ("sealing", "gasket", False),
]  # fmt: skip


@pytest.mark.parametrize(("path", "value", "kept"), CHANGES)
def test_a_pinned_box_keeps_its_place_and_its_size_and_nothing_else(path: str, value: Any, kept: bool) -> None:
    before = validate(car(below(50), pins={"p": {"what": "boxes/x", "why": "cut"}})).model_dump(
        mode="json", by_alias=True
    )
    after = copy.deepcopy(before)
    *steps, last = path.split("/")
    here: Any = after["boxes"]["x"]
    for step in steps:
        here = here[step]
    here[int(last) if isinstance(here, list) else last] = value
    if kept:
        with pytest.raises(DesignError, match="pinned"):
            refuse_moving_pinned(before, after)
    else:
        refuse_moving_pinned(before, after)


# --- overlaps, and what is not cut through ---


@pytest.mark.parametrize("deep", [20.0, 60.0])
def test_of_one_block_the_least_way_out_is_told_and_of_several_pieces_at_least(deep: float) -> None:
    """A plate that stands in the floor; then the same metal as a run with a bend, whose two pieces overlap the box."""
    one = to_thing(car(a_block((900, -100, 200), (1400, 300, 300 + deep), gap_class="same")))
    assert one.value == pytest.approx(-deep)
    assert "at least" not in one.message
    run = {
        "type": "path",
        "points_mm": [[900, 67, 200], [1100, 67, 300], [1400, 67, 200]],
        "width_mm": 500.0,
        "height_mm": 2 * deep,
    }
    bent = to_thing(car({"name": "run", "state": "stays", "gap_class": "same", "solid": run}))
    assert bent.state == "foul"
    assert "at least" in bent.message


def test_a_thing_that_is_touched_catches_the_box_on_its_own_side() -> None:
    """Standing on it with no gap at all, the box is caught upward, where its need is kept."""
    design = validate(car(a_block((907, -133, 200), (1307, 267, 300), gap_class="same")))
    up = [c for c in snap_points(resolve(design, {}), "x") if c.name == "thing" and c.axis == 2]
    assert {c.state: c.at_mm for c in up if c.towards == -1} == {
        "tight": pytest.approx(306.0),
        "clear": pytest.approx(309.0),
    }


# --- bolts that break without warning ---


@pytest.mark.parametrize(("mpa", "refused"), [(1040.0, False), (1040.5, True), (1220.0, True)])
def test_an_edit_brings_in_no_class_above_ten_nine(mpa: float, refused: bool) -> None:
    row = {"ultimate_mpa": mpa}
    for before in ({"tables": {"bolt_classes": {}}}, {"tables": {"bolt_classes": {"mine": {"ultimate_mpa": 400.0}}}}):
        after = {"tables": {"bolt_classes": {"mine": row}}}
        if refused:
            with pytest.raises(DesignError, match="break brittle"):
                refuse_brittle_bolts(before, after)
        else:
            refuse_brittle_bolts(before, after)
        refuse_brittle_bolts(after, after)  # what a stored car has stays readable


# --- edges that meet in a corner ---


def cut_box(*edges: tuple[str, str], **more: Any) -> dict[str, Any]:
    chamfers = {f"c{n}": {"edge": list(edge), "mm": [30, 30]} for n, edge in enumerate(edges)}
    return {"boxes": {"x": {"chamfers": chamfers, **more}}}


@pytest.mark.parametrize("other", [("left", "base"), ("front", "left"), ("front", "base")])
def test_an_edge_that_meets_one_cut_off_already_is_refused_at_its_field(other: tuple[str, str]) -> None:
    one, both = cut_box(("front", "base")), cut_box(("front", "base"), other)
    with pytest.raises(DesignError, match="meets front base in a corner") as refused:
        refuse_meeting_edges(one, both)
    assert [p.path for p in refused.value.problems] == ["/boxes/x/chamfers/c1/edge"]
    refuse_meeting_edges(both, both)  # what a stored car has stays readable
    refuse_meeting_edges(one, cut_box(("front", "base"), other, construction={"type": "existing"}))


@pytest.mark.parametrize("other", [("aft", "base"), ("aft", "left"), ("aft", "top")])
def test_edges_apart_from_each_other_are_cut_off_both(other: tuple[str, str]) -> None:
    refuse_meeting_edges(cut_box(("front", "base")), cut_box(("front", "base"), other))


@pytest.mark.parametrize("chamfers", [None, [], {"a": 3}, {"a": {"edge": ["front"]}, "b": {"edge": [{}, "base"]}}])
def test_what_is_no_edge_at_all_is_left_to_those_who_read_it(chamfers: Any) -> None:
    refuse_meeting_edges({}, {"boxes": {"x": {"chamfers": chamfers}, "y": chamfers}})
