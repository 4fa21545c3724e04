"""Blocks by hand, chamfers and dividers, what a pair needs, chains of allowances, snap points, access, sections, pins,
the tape."""

import math
from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from levelcradle.core.analysis import analyse
from levelcradle.core.assembly import resolve
from levelcradle.core.box import shell_of
from levelcradle.core.clearance import align_to_face, move_to, snap_points, stack_up, tape_between
from levelcradle.core.cuts import bodies, cut_at
from levelcradle.core.design import Design, standard_tables, validate
from levelcradle.core.design.box import Block, Chamfer, Counts, Dividers, Orientation
from levelcradle.core.design.patch import apply
from levelcradle.core.edits import edited
from levelcradle.core.errors import DesignError
from levelcradle.core.fabricate import parts_of
from levelcradle.core.modules import Order, lay_out, rearranged
from levelcradle.core.solids import block, line_spans, surface_of
from levelcradle.demo import demo_design

STEEL = standard_tables().materials["s235"]

DEMO_DESIGN = demo_design()
EDGE = Orientation(down="side_a", aft="end_b")


def one(design: Design, code: str, *subjects: str) -> Any:
    return next(f for f in analyse(design, {}).findings if f.code == code and all(s in f.subjects for s in subjects))


def replaced(tree: dict[str, Any], path: str, value: Any) -> Design:
    return validate(apply(tree, [{"op": "replace", "path": path, "value": value}]).tree)


# --- blocks by hand ---


def four(demo: Design) -> tuple[dict[str, Block], Any]:
    return {"a": demo.boxes["tank"].blocks["a"]}, demo.module_kinds


def places(blocks: Any, kinds: Any) -> list[tuple[float, ...]]:
    return sorted(
        tuple(round(o + v, 4) for o, v in zip(b.origin_mm, m.low, strict=True))
        for b in blocks.values()
        for m in lay_out(b, kinds[b.kind]).modules
    )


def test_split_and_joined_again_every_module_stands_where_it_stood(demo: Design) -> None:
    blocks, kinds = four(demo)
    split = rearranged(blocks, kinds, Order(do="split", block="a", way="aft", at=1))
    assert len(split) == 2
    assert places(split, kinds) == places(blocks, kinds)
    joined = rearranged(split, kinds, Order(do="join", block="a", other="b"))
    assert joined == {"a": blocks["a"]}


def test_copy_stands_beside_with_its_gap(demo: Design) -> None:
    blocks, kinds = four(demo)
    made = rearranged(blocks, kinds, Order(do="copy", block="a", way="aft"))
    a, b = (lay_out(x, kinds[x.kind]) for x in made.values())
    assert made["b"].origin_mm[0] - a.size_mm[0] == kinds["flagstone"].neighbour_gap_mm
    ends = rearranged(blocks, kinds, Order(do="copy", block="a", way="across"))
    assert ends["b"].origin_mm[1] - b.size_mm[1] == 60  # terminals look there: the larger demand
    design = demo.model_copy(
        update={"boxes": {**demo.boxes, "tank": demo.boxes["tank"].model_copy(update={"blocks": ends})}}
    )
    gap = one(design, "inside", "boxes/tank", "boxes/tank/blocks/a")
    assert gap is not None
    assert any(
        "the larger of the two demands counts" in f.rationale
        for f in analyse(design, {}).findings
        if f.code == "inside"
    )


def test_mirrored_twice_is_as_before(demo: Design) -> None:
    blocks, kinds = four(demo)
    order = Order(do="mirror", block="a", way="across")
    once = rearranged(blocks, kinds, order)
    assert once["a"].turn != blocks["a"].turn  # the terminals look to the other side
    assert rearranged(once, kinds, order) == blocks


def test_lined_up_spread_and_refused_with_a_reason(demo: Design) -> None:
    blocks, kinds = four(demo)
    made = rearranged(
        rearranged(blocks, kinds, Order(do="copy", block="a", way="aft")), kinds, Order(do="copy", block="b", way="aft")
    )
    pushed = made | {"b": made["b"].model_copy(update={"origin_mm": (made["b"].origin_mm[0] + 3, 11.0, 0.0)})}
    assert (
        rearranged(pushed, kinds, Order(do="line up", block="b", other="a", way="across", end="low"))["b"].origin_mm[1]
        == 0
    )
    assert rearranged(pushed, kinds, Order(do="spread", block="a", way="aft"))["b"].origin_mm[0] == pytest.approx(
        made["b"].origin_mm[0]
    )
    for order, message in (
        (Order(do="spread", block="a", way="aft"), "three blocks"), (Order(do="join", block="a"), "which block"),
        (Order(do="split", block="a", way="aft", at=9), "keep fewer"), (Order(do="mirror", block="a", way="up"),
        "along or across"),
    ):  # fmt: skip
        with pytest.raises(DesignError, match=message):
            rearranged(blocks, kinds, order)
    with pytest.raises(DesignError, match="do not make one block"):
        rearranged(pushed, kinds, Order(do="join", block="a", other="b"))


def test_turned_about_in_turn_the_terminals_alternate_and_both_ends_have_room(demo: Design) -> None:
    kind = demo.module_kinds["flagstone"]
    laid = lay_out(
        Block(kind="flagstone", turn=Orientation(down="side_a", aft="base"), counts=Counts(aft=4), alternate="aft"),
        kind,
    )
    sides = [m.looks.index("end_a") for m in laid.modules]
    assert sides == [sides[0], 5 - sides[0], sides[0], 5 - sides[0]]
    assert laid.turned.face_clearance_mm[2] == laid.turned.face_clearance_mm[3] == 60


@given(st.integers(1, 9), st.integers(1, 5), st.floats(0.5, 6))
def test_dividers_take_their_thickness_and_the_gap_on_both_sides(count: int, every: int, thick: float) -> None:
    from tests.conftest import DEMO

    kind = validate(DEMO).module_kinds["flagstone"]
    plain = lay_out(Block(kind="flagstone", turn=EDGE, counts=Counts(across=count)), kind)
    dividers = Dividers(along="across", every=every, thickness_mm=thick)
    laid = lay_out(Block(kind="flagstone", turn=EDGE, counts=Counts(across=count), dividers=dividers), kind)
    plates = (count - 1) // every
    assert len(laid.plates) == plates
    assert laid.size_mm[1] == pytest.approx(plain.size_mm[1] + plates * (thick + 4))
    for start in laid.plates:
        assert all(m.high[1] <= start - 4 + 1e-9 or m.low[1] >= start + thick + 4 - 1e-9 for m in laid.modules)


def test_a_divider_is_cut_and_weighs(tree: dict[str, Any]) -> None:
    value = {"along": "aft", "every": 2, "thickness_mm": 2.0}
    design = replaced(tree, "/boxes/tank/blocks/a/dividers", value)
    plates = [p for p in parts_of(resolve(design, {})) if "divider" in p.name]
    assert len(plates) == 1
    box = resolve(design, {}).boxes["tank"].shell
    assert box.outer_mm[0] == pytest.approx(394 + 2 + 4)
    bare = resolve(validate(tree), {}).boxes["tank"].shell
    assert box.shell_kg - bare.shell_kg > box.inner_mm[1] * box.inner_mm[2] * 2 * 7850e-9 * 0.99


# --- chamfers ---


@given(st.floats(8, 60), st.floats(8, 60))
def test_a_chamfer_takes_a_prism_off_and_nothing_else(a: float, b: float) -> None:
    from tests.conftest import DEMO

    design = validate(DEMO)
    box = design.boxes["tank"].model_copy(update={"chamfers": {"x": Chamfer(edge=("left", "base"), mm=(a, b))}})
    shell = shell_of(box, design.module_kinds, standard_tables())
    tray = next(p for p in shell.outside if p.role == "body")
    points, triangles = surface_of(tray.solid)
    volume = abs(
        np.einsum("ij,ij->i", points[triangles[:, 0]], np.cross(points[triangles[:, 1]], points[triangles[:, 2]])).sum()
        / 6
    )
    x, y, z = shell.outer_mm
    assert volume == pytest.approx(x * y * z - a * b / 2 * x, rel=1e-9)


def test_a_chamfer_into_the_modules_is_foul_and_slopes_that_meet_hold_the_drawings_back(tree: dict[str, Any]) -> None:
    value = {"x": {"edge": ["right", "base"], "mm": [60.0, 60.0]}}
    design = replaced(tree, "/boxes/tank/chamfers", value)
    found = [f for f in analyse(design, {}).findings if f.code == "inside" and "chamfer" in f.id]
    assert found[0].state == "foul"
    assert not any("meet in a corner" in f.message for f in analyse(design, {}).findings)
    edges = {"x": {"edge": ["right", "base"], "mm": [20, 20]}, "y": {"edge": ["front", "base"], "mm": [20, 20]}}
    with pytest.raises(DesignError, match="meets right base in a corner"):
        replaced(tree, "/boxes/tank/chamfers", edges)
    tree["boxes"]["tank"]["chamfers"] = edges  # as a car has it that was stored before
    meeting = validate(tree)
    assert any("meet in a corner" in f.message and f.state == "unknown" for f in analyse(meeting, {}).findings)
    assert not [p for p in parts_of(resolve(meeting, {})) if p.name.startswith("Tank box tray")]
    with pytest.raises(DesignError, match="two faces that meet"):
        replaced(tree, "/boxes/tank/chamfers", {"x": {"edge": ["right", "left"], "mm": [9, 9]}})


# --- what stands out ---


def test_a_gland_asks_for_itself_and_the_bend_of_its_cable(tree: dict[str, Any]) -> None:
    """35 out, then a radius of 60 and half of 30 across: 110 in front of the wall; the axle stands 10.5 before it."""
    gland = {"name": "gland", "kind": "gland", "face": "left", "from": ["front", "base"], "u_mm": 200, "v_mm": 100,
    "across_mm": 30,
             "out_mm": 35, "bend_radius_mm": 60}  # fmt: skip
    tree["boxes"]["tank"]["protrusions"] = {"g": gland}
    box = resolve(validate(tree), {}).boxes["tank"]
    solid = next(p.solid for p in box.pieces if p.name == "gland")
    assert (solid.low[1], solid.high[1], solid.high[0] - solid.low[0]) == (-350 - 110, -350, 30)
    gland["bend_radius_mm"] = 0
    straight = resolve(validate(tree), {}).boxes["tank"]
    assert next(p.solid for p in straight.pieces if p.name == "gland").low[1] == -385
    tree["boxes"]["tank"]["protrusions"] = {"h": gland | {"name": "handle", "face": "top", "from": ["front", "left"]}}
    handle = next(p.solid for p in resolve(validate(tree), {}).boxes["tank"].pieces if p.name == "handle")
    assert (handle.low[2], handle.high[2]) == (352 + 245 + 3, 352 + 245 + 3 + 35)
    finding = one(validate(tree), "gap", "boxes/tank", "bays/tank/sides/top")
    assert finding.state == "foul"  # the boot floor was 25 above the lid
    with pytest.raises(DesignError, match="two edges of the top that meet"):
        replaced(tree, "/boxes/tank/protrusions/h/from", ["front", "aft"])


# --- what a pair needs ---


def test_a_box_on_one_structure_near_another_needs_more(tree: dict[str, Any]) -> None:
    tree["items"]["silencer-hanger"]["structure"] = "frame"
    assert one(validate(tree), "gap", "boxes/tank", "items/silencer-hanger").limit == 15
    tree["items"]["silencer-hanger"]["structure"] = "axle"
    finding = one(validate(tree), "gap", "boxes/tank", "items/silencer-hanger")
    assert finding.limit == 25
    assert "one on the body, one on the axle" in finding.rationale


def test_a_hot_part_with_and_without_its_shield(tree: dict[str, Any]) -> None:
    hanger = tree["items"]["silencer-hanger"]
    hanger["gap_class"] = "hot"
    bare = one(validate(tree), "gap", "boxes/tank", "items/silencer-hanger")
    hanger["shielded"] = True
    shielded = one(validate(tree), "gap", "boxes/tank", "items/silencer-hanger")
    assert (bare.limit, shielded.limit) == (75, 25)
    assert "25 behind a heat shield" in bare.rationale
    assert "75 without one" in shielded.rationale


def test_an_agreed_gap_counts_and_names_its_reason(tree: dict[str, Any]) -> None:
    tree["agreed_gaps"] = {
        "g": {"one": "items/axle", "other": "boxes/tank", "need_mm": 10, "reason": "bump stop raised"}
    }
    tree["agreed_gaps"]["g"]["one"] = next(
        f"items/{k}" for k, i in tree["items"].items() if i["name"] == "axle at full bump"
    )
    finding = one(validate(tree), "gap", "boxes/tank", tree["agreed_gaps"]["g"]["one"])
    assert (finding.limit, finding.state) == (10, "tight")
    assert "bump stop raised" in finding.rationale
    tree["agreed_gaps"]["g"]["other"] = "boxes/gone"
    with pytest.raises(DesignError, match="there is no “boxes/gone”"):
        validate(tree)


# --- chains, snap points, tape, lay against ---


@pytest.mark.parametrize("way", ["aft", "across", "up"])
@pytest.mark.parametrize("box", ["tank", "bonnet"])
def test_a_chain_adds_up(demo: Design, box: str, way: Any) -> None:
    chain = stack_up(resolve(demo, {}), box, way)
    assert chain.asked_mm == pytest.approx(sum(r.mm for r in chain.rows))
    inside = sum(r.mm for r in chain.rows if r.kind != "gap")
    assert inside >= resolve(demo, {}).boxes[box].shell.outer_mm[("aft", "across", "up").index(way)] - 1e-9
    if chain.there_mm is not None:
        assert chain.spare_mm == pytest.approx(chain.there_mm - chain.asked_mm)


@settings(max_examples=60)
@given(
    st.sampled_from(["tank", "bonnet"]),
    st.sampled_from(["aft", "across", "up"]),
    st.floats(0.01, 0.99),
    st.floats(0.01, 0.99),
)
def test_wherever_the_line_runs_its_rows_are_the_whole_box(
    name: str, way: Any, share: float, other_share: float
) -> None:
    """Every millimetre from its first outside to its last; the root of the squares is never more than the worst
    case."""
    assembly, axis = resolve(DEMO_DESIGN, {}), ("aft", "across", "up").index(way)
    shell = assembly.boxes[name].shell
    one, other = (i for i in range(3) if i != axis)
    spot = (shell.outer_mm[one] * share, shell.outer_mm[other] * other_share)
    chain = stack_up(assembly, name, way, at_mm=spot)
    local = [0.0, 0.0, 0.0]
    local[one], local[other] = spot
    box, unit = assembly.boxes[name], tuple(float(i == axis) for i in range(3))
    line = box.placement.point((local[0], local[1], local[2])), box.placement.direction(unit)  # type: ignore[arg-type]
    on_it = [span for p in box.pieces for span in line_spans(p.solid, *line)]
    whole = max(high for _, high in on_it) - min(low for low, _ in on_it)
    assert sum(r.mm for r in chain.rows if r.kind != "gap") == pytest.approx(whole)
    assert chain.root_mm <= chain.worst_mm
    if chain.ends[0].at_mm and chain.ends[1].at_mm:
        assert chain.there_mm == pytest.approx(math.dist(chain.ends[0].at_mm, chain.ends[1].at_mm))


def test_up_through_the_tank_box_as_the_demo_says(demo: Design) -> None:
    chain = stack_up(resolve(demo, {}), "tank", "up")
    assert (chain.asked_mm, chain.there_mm, chain.spare_mm) == (283, 295, 12)
    assert [r.what for r in chain.rows if r.kind == "module"] == ["module 6"]


def test_coats_and_beads_are_rows(tree: dict[str, Any]) -> None:
    design = replaced(tree, "/boxes/tank/finish", {"coats": 2, "coat_mm": 0.1, "beads_ground": False, "bead_mm": 2.0})
    rows = {r.what: r.mm for r in stack_up(resolve(design, {}), "tank", "across").rows}
    assert rows["coating, 2 coats on two faces"] == pytest.approx(0.4)
    assert rows["weld beads, not ground"] == 4


def test_a_drag_catches_where_the_axle_is_just_kept_clear(demo: Design) -> None:
    """25 needed, 10.5 there: 14.5 aft it is tight, 3 further clear."""
    rows = [c for c in snap_points(resolve(demo, {}), "tank") if c.axis == 0 and c.towards == -1]
    assert [(c.at_mm, c.gap_mm, c.state) for c in rows] == [(2688.0, 28.0, "clear"), (2685.0, 25.0, "tight")]


@given(st.floats(8, 30))
def test_the_tape_made_to_read_what_is_wanted(want: float) -> None:
    from tests.conftest import DEMO

    design = validate(DEMO)
    axle = next(f"items/{k}" for k, i in design.items.items() if i.name == "axle at full bump")
    by = move_to(resolve(design, {}), "boxes/tank", axle, want)
    at = [a + b for a, b in zip(design.boxes["tank"].pose.at_mm, by, strict=True)]
    moved = edited(design, [{"op": "replace", "path": "/boxes/tank/pose/at_mm", "value": at}])
    assert tape_between(resolve(moved, {}), "boxes/tank", axle).distance_mm == pytest.approx(want, abs=0.01)


def test_laid_against_a_sloping_panel_it_leans_with_it_and_keeps_the_gap(demo: Design) -> None:
    pose = align_to_face(resolve(demo, {}), "bonnet", "bays/bonnet/sides/top")
    assert pose.pitch_deg == pytest.approx(-math.degrees(math.atan(105 / 870)), abs=0.002)  # 785 to 890 over 870
    moved = edited(demo, [{"op": "replace", "path": "/boxes/bonnet/pose", "value": pose.model_dump(mode="json")}])
    gap = one(moved, "gap", "boxes/bonnet", "bays/bonnet/sides/top")
    assert 15 <= gap.value <= 15.05


# --- in and out ---


def test_the_tank_box_comes_out_downward_once_the_bar_is_off(demo: Design) -> None:
    finding = one(demo, "access.box", "boxes/tank")
    assert (finding.state, finding.message) == (
        "note",
        "Tank box comes out downward, once off: anti-roll bar through its travel",
    )


def test_walled_in_on_all_sides_it_comes_out_no_way(tree: dict[str, Any]) -> None:
    for side in tree["bays"]["tank"]["sides"].values():
        side["is"] = "metal"
    assert one(validate(tree), "access.box", "boxes/tank").state == "foul"
    for side in ("floor", "left", "right"):  # its brackets reach out sideways
        tree["bays"]["tank"]["sides"][side]["is"] = "open"
    del tree["items"]["anti-roll-bar"]
    assert one(validate(tree), "access.box", "boxes/tank").state == "clear"


def test_a_hand_before_an_opening(tree: dict[str, Any]) -> None:
    hole = {"name": "gland", "face": "front", "from": ["left", "base"], "u_mm": 350, "v_mm": 60, "diameter_mm": 25}
    tree["boxes"]["tank"]["openings"] = {"gland": hole}
    assert one(validate(tree), "access.reach", "boxes/tank").state == "foul"  # the axle is before it
    hole["face"] = "left"
    hole["from"] = ["front", "base"]
    hole["u_mm"] = 200
    assert one(validate(tree), "access.reach", "boxes/tank").state == "clear"
    tree["boxes"]["tank"]["openings"] = {}
    tail = {"name": "hose tail", "kind": "hose tail", "face": "front", "from": ["left", "base"], "u_mm": 350,
    "v_mm": 60, "across_mm": 25,
            "out_mm": 5}  # fmt: skip
    tree["boxes"]["tank"]["protrusions"] = {"t": tail}
    assert (
        one(validate(tree), "access.reach", "boxes/tank").message
        == "Tank box: no hand reaches hose tail, axle at full bump is before it"
    )


def test_above_the_ground(tree: dict[str, Any]) -> None:
    """200 up at 2,670 aft: full bump 80 and a quarter of 290 leave 47.5."""
    tree["boxes"]["tank"]["pose"]["at_mm"][2] = 200
    assert {f.state for f in analyse(validate(tree), {}).findings if f.code == "ground" and "bump" in f.id} == {
        "unknown"
    }
    tree["vehicle"]["bump_mm"] = {"front": 80, "rear": 80}
    bump = next(f for f in analyse(validate(tree), {}).findings if f.id == "ground:boxes/tank:bump")
    assert (bump.state, round(bump.value or 0, 2)) == ("foul", 47.5)
    laden = next(f for f in analyse(validate(tree), {}).findings if f.id == "ground:boxes/tank:laden")
    assert laden.value < 200
    assert laden.limit <= 140


# --- sections, bodies, pins ---


def test_a_section_shows_what_stands_there_at_its_true_size(demo: Design) -> None:
    cuts = cut_at(resolve(demo, {}), 2760.0)
    module = next(c for c in cuts if c.kind == "module")
    rights, ups = zip(*module.outline, strict=True)
    assert (max(rights) - min(rights), max(ups) - min(ups)) == (612, 226)
    assert {c.path for c in cuts} >= {"items/anti-roll-bar", "bays/tank"}
    assert not [c for c in cuts if c.owner == "boxes/bonnet"]


def test_bodies_are_closed_round_what_they_show(demo: Design) -> None:
    found = bodies(resolve(demo, {}))
    assert sum(b.kind == "module" for b in found) == 9
    for body in found:
        edges = [tuple(sorted((t[i], t[(i + 1) % 3]))) for t in body.triangles for i in range(3)]
        assert all(edges.count(e) == 2 for e in edges)
    assert len(surface_of(block((0, 0, 0), (1, 2, 3)))[1]) == 12


def test_pinned_it_does_not_move_and_says_who_pinned_it(tree: dict[str, Any]) -> None:
    tree["pins"] = {"p": {"what": "boxes/tank", "why": "brackets are welded", "by": "M.", "state": "built"}}
    validate(tree)
    move = {"op": "replace", "path": "/boxes/tank/pose/at_mm/0", "value": 2700}
    with pytest.raises(DesignError, match=r"Tank box is built by M\.: brackets are welded\. Unpin it first"):
        apply(tree, [move])
    assert (
        apply(tree, [{"op": "replace", "path": "/boxes/tank/name", "value": "Rear box"}]).tree["boxes"]["tank"]["name"]
        == "Rear box"
    )
    assert apply(tree, [{"op": "remove", "path": "/pins/p"}, move]).tree["boxes"]["tank"]["pose"]["at_mm"][0] == 2700
