"""A flat tab between a box's wall and metal that faces along it or against it."""

from dataclasses import replace
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from levelcradle.core.assembly import resolve
from levelcradle.core.connection.tab import TabConnection
from levelcradle.core.design import validate
from levelcradle.core.fabricate import parts_of
from levelcradle.core.hang import how_it_hangs
from levelcradle.core.mount_drawn import drawn_mount
from levelcradle.core.solids import nearest
from tests.core.hung import AT, mounts_of, of_box, placed, tabs
from tests.plain import found


def tab(tree: dict[str, Any], key: str = "left0") -> TabConnection:
    made = mounts_of(tree)[key].connection
    assert isinstance(made, TabConnection)
    return made


def broken(tree: dict[str, Any]) -> list[str]:
    return [text for m in mounts_of(tree).values() for text, fits in m.geometry if not fits]


def why(tree: dict[str, Any]) -> list[str]:
    return [f.message for f in found(tree, "mount.unfit")]


def used(tree: dict[str, Any]) -> dict[str, float]:
    """Of each check the most."""
    rows = [row for m in mounts_of(tree).values() for row in m.rows]
    return {row.check: max(r.utilisation for r in rows if r.check == row.check) for row in rows}


STANDS = {
    "outside": tabs(),
    "outside, packed": tabs(gap_mm=5.0, packing_mm=5.0),
    "outside, on a doubler": tabs(gap_mm=-4.0, to_box={
        "type": "welded", "from_mm": 55.0, "length_mm": 60.0,
        "doubler": {"thickness_mm": 4.0, "along_w_mm": 110.0, "along_n_mm": 90.0, "from_contact_mm": 43.0}}),
    "between": tabs(facing=-1, gap_mm=8.0),
    "between, packed": tabs(facing=-1, gap_mm=12.0, packing_mm=4.0),
    "bolted": tabs(of_box("al5083", 4.0, 32.0), to_box={
        "type": "bolted", "from_mm": 75.0, "pitch_mm": 45.0, "apart_mm": 50.0}),
}  # fmt: skip


@pytest.mark.parametrize("how", STANDS)
def test_it_stands_flat_on_the_wall_and_on_the_metal(how: str) -> None:
    """Its plate touches the wall and stands in nothing; the packing fills what is between it and the metal."""
    tree = STANDS[how]
    assert not why(tree)
    assert not broken(tree)
    box, mount = placed(tree["boxes"]["x"]), tab(tree)
    pieces = {p.name: p.solid for p in mount.pieces}
    walls = [s.moved(box.placement) for p in box.shell.pieces if p.role == "wall" for s in p.solids]
    on_it = pieces.get("doubler", pieces["tab"])
    assert min(nearest(on_it, wall).gap_mm for wall in walls) == pytest.approx(0.0, abs=1e-3)
    assert nearest(pieces["tab"], on_it).gap_mm <= 1e-3
    under = pieces.get("packing", pieces["tab"])
    to_metal = [sign * mount.spot.n[1] * (face - mount.spot.at[1]) for sign, face in
                ((1, under.low[1]), (1, under.high[1]))]  # fmt: skip
    assert min(to_metal) == pytest.approx(0.0, abs=1e-6)
    assert all(f.state == "tight" for f in found(tree, "mount.use"))


def test_mirrored_it_carries_alike() -> None:
    rows = mounts_of(STANDS["outside"])
    by_side = [{r.check: r.utilisation for r in rows[key].rows} for key in ("left0", "right0")]
    assert by_side[0] == pytest.approx(by_side[1], rel=1e-6)


@given(force=st.tuples(*[st.floats(-9000, 9000)] * 3))
def test_what_its_checks_are_told_is_the_whole_force(force: tuple[float, float, float]) -> None:
    for how in ("outside", "between"):
        parts = tab(STANDS[how]).parts_of(np.array([force]))
        assert np.linalg.norm([p[0] for p in parts]) == pytest.approx(np.linalg.norm(force), abs=1e-6)
        off = float(np.dot(force, tab(STANDS[how]).spot.n))
        assert float(parts[0][0]) == pytest.approx(off, abs=1e-6)


@pytest.mark.parametrize("how", ["outside", "between"])
def test_off_the_metal_its_bolt_is_pulled_and_onto_it_is_not(how: str) -> None:
    mount = tab(STANDS[how])
    n = np.array(mount.spot.n)
    for sign, pulled in ((1000.0, True), (-1000.0, False)):
        pull, shear = mount.pull_and_shear(mount.parts_of(sign * n[None]))
        assert (float(pull[0]) >= 1000.0) is pulled
        assert float(shear[0]) == pytest.approx(0.0, abs=1e-9)


def test_its_free_end_levers_and_a_longer_reach_bends_it_more() -> None:
    near, far = used(tabs(below_mm=25.0)), used(tabs(below_mm=60.0))
    for check in ("tab", "weld", "bolt"):
        assert far[check] > near[check]
    short, long = used(tabs(toe_mm=20.0)), used(tabs(toe_mm=45.0))
    assert long["bolt"] < short["bolt"]


def test_pressed_along_it_buckles() -> None:
    """Twice as thin it bears a quarter bent, and pressed along less than half."""
    mount, thin = tab(tabs(below_mm=90.0)), tab(tabs(below_mm=90.0, thickness_mm=4.0))
    pressed = np.array([[0.0, 0.0, -5000.0]])  # the box is above it, and pushes down
    pulled = -pressed
    for of in (mount, thin):
        rows = {way: dict(of.utilisations(of.parts_of(load), road=False))["tab"][0]
                for way, load in (("pressed", pressed), ("pulled", pulled))}  # fmt: skip
        assert rows["pressed"] > rows["pulled"]
    slender = dict(thin.utilisations(thin.parts_of(pressed), road=False))["tab"][0]
    stout = dict(mount.utilisations(mount.parts_of(pressed), road=False))["tab"][0]
    assert slender > 3 * stout


def test_thick_packing_takes_from_its_bolt() -> None:
    """EN 1993-1-8 3.6.1 (12), from memory: M10 in packing of 10 is sheared at 90 / 110 of what it bears."""
    assert tab(tabs(gap_mm=3.0, packing_mm=3.0)).joint.packed == 1.0
    assert tab(tabs(gap_mm=10.0, packing_mm=10.0)).joint.packed == pytest.approx(90 / 110)
    assert any(text.startswith("packing 15.0") for text in broken(tabs(gap_mm=15.0, packing_mm=15.0)))


@pytest.mark.parametrize(
    ("tree", "words"),
    [
        (tabs(gap_mm=6.0), "with packing of 6.0 it would"),
        (tabs(facing=-1, gap_mm=13.0), "with packing of 5.0 it would"),
        (tabs(facing=-1, gap_mm=5.0), "3.0 too little room"),
        (tabs(gap_mm=-4.0), "4.0 too little room"),
        (tabs(below_mm=-60.0, to_box={"type": "welded"}), "not beyond an edge"),
    ],
)
def test_where_it_cannot_lie_on_both_it_says_what_would_help(tree: dict[str, Any], words: str) -> None:
    assert any(words in text for text in why(tree)), why(tree)


def test_square_to_the_wall_there_is_none() -> None:
    tree = tabs()
    for point in tree["hardpoints"].values():
        point["direction"] = [0, 0, 1]
    assert all("does not face along the bolt" in text for text in why(tree))


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"toe_mm": 10.0}, "bolt to the tab's end"),
        ({"width_mm": 20.0}, "edge distance across"),
        ({"long_mm": 100.0}, "welds end at"),
        ({"to_box": {"type": "welded", "from_mm": 8.0, "length_mm": 90.0}}, "bolt to where the tab is held"),
        ({"to_box": {"type": "welded", "from_mm": 20.0, "length_mm": 90.0}}, "weld from"),
        ({"facing": -1, "gap_mm": 8.0, "below_mm": 6.0}, "bolt beyond the box's edge"),
    ],
)
def test_a_shape_that_cannot_be_made_is_told(change: dict[str, Any], words: str) -> None:
    told = broken(tabs(**change))
    assert any(text.startswith(words) for text in told), told


def test_past_what_closes_the_box_it_stands_off_the_wall() -> None:
    """The lid's edge stands proud of the wall: a doubler at least as thick lets the tab pass it."""
    top = placed(of_box()).shell.made.over[1][2]
    for thick, passes in ((None, False), (2.0, False), (6.0, True)):
        doubler = {"thickness_mm": thick, "along_w_mm": 110.0, "along_n_mm": 100.0, "from_contact_mm": 75.0}
        hold = {"type": "welded", "from_mm": 85.0, "length_mm": 80.0, "doubler": doubler if thick else None}
        tree = tabs(gap_mm=-(thick or 0.0), below_mm=-(top + 30.0), to_box=hold, long_mm=170.0)
        told = [text for text in broken(tree) if "what closes the box" in text]
        assert bool(told) is not passes


def test_its_parts_are_the_tab_and_its_packing() -> None:
    tree = tabs(gap_mm=4.0, packing_mm=4.0)
    made = mounts_of(tree)["left0"].connection
    parts = {p.name.rsplit(" ", 1)[-1]: p for p in made.parts(validate(tree).tables)}
    assert set(parts) == {"tab", "packing"}
    xs, ys = zip(*parts["tab"].outline, strict=True)
    assert (max(xs), max(ys), parts["tab"].thickness_mm) == (175.0, 80.0, 8.0)
    assert parts["tab"].holes[0].at == (25.0, 40.0)
    assert parts["packing"].thickness_mm == 4.0
    solids = {p.name: p for p in made.pieces}
    for name, part in parts.items():  # the solid is the flat before its hole
        hole = np.pi / 4 * 11.0**2 * part.thickness_mm * part.density_kg_m3 * 1e-9
        assert solids[name].mass_kg == pytest.approx(part.mass_kg + hole)
        low, high = solids[name].solid.low, solids[name].solid.high
        assert part.stand is not None
        corners = [part.stand.placement.point((x, y, z)) for x, y in part.outline for z in (0.0, part.thickness_mm)]
        for i in range(3):
            assert min(c[i] for c in corners) == pytest.approx(low[i], abs=1e-6)
            assert max(c[i] for c in corners) == pytest.approx(high[i], abs=1e-6)
    assert len(parts_of(resolve(validate(tree), {}))) >= 4


@pytest.mark.parametrize("how", ["outside", "between"])
def test_it_is_drawn_upright_with_the_metal_beside_it(how: str) -> None:
    beside, at_wall = drawn_mount(resolve(validate(STANDS[how]), {}), "left0").views
    assert beside.looking == "looking forward"
    assert beside.metal == ("right" if how == "outside" else "left")
    assert at_wall.metal == "behind"
    lengths = {row.words: row.mm for row in at_wall.measures}
    assert lengths == pytest.approx({"bolt to end": 25.0, "bolt to its end on the box": 150.0, "wide": 80.0})
    upright = [row for row in at_wall.measures if row.words == "bolt to its end on the box"]
    assert abs(upright[0].start[1] - upright[0].end[1]) == pytest.approx(150.0)
    assert upright[0].end[1] > upright[0].start[1]  # the box is above it


@pytest.mark.parametrize("how", ["outside", "outside, packed", "between, packed"])
def test_how_it_can_hang_proposes_tabs_where_the_metal_faces_so(how: str) -> None:
    tree = {**STANDS[how], "mounts": {}}
    answer = how_it_hangs(validate(tree), "x", meshes={})
    assert {row.kind for row in answer.within} == {"tab"}
    assert answer.ways
    assert "tabs" in answer.ways[0].message
    hung = validate({**tree, "mounts": {op["path"].rsplit("/", 1)[1]: op["value"] for op in answer.ways[0].patch}})
    assert {m.shape.type for m in hung.mounts.values()} == {"tab"}


def test_a_level_tab_stands_beyond_an_end() -> None:
    """Turned about: on a point beyond the front end the wall is pulled along its height as one beyond the base pulls it
    along its length."""
    tree = tabs()
    length = placed(of_box()).shell.outer_mm[0]
    for key, point in tree["hardpoints"].items():
        point["at_mm"] = [
            AT[0] - 30.0 if key.endswith("0") else AT[0] + length + 30.0,
            point["at_mm"][1],
            AT[2] + 100.0,
        ]
    assert not why(tree)
    assert not broken(tree)
    assert not tab(tree).joint.plate.upright
    patch = dict(tab(tree).joint.plate.patches())["wall"]
    assert (patch.width_mm, patch.height_mm) == (90.0, 80.0)


def test_a_level_tab_turns_the_wall_about_the_way_up_where_an_upright_one_turns_it_along() -> None:
    """The same patch of the same wall, pulled by one force beside it or above it: each moment has its own capacity."""
    upright = tab(tabs(to_box={"type": "welded", "from_mm": 38.0, "length_mm": 80.0})).joint.plate
    level = replace(upright, upright=False)
    patch = dict(upright.patches())["wall"]
    assert patch == dict(level.patches())["wall"]  # as wide as it is long
    pull = (np.array(0.0), np.array(1000.0), np.array(0.0))
    n0, about_up, about_along = upright.patch_capacity(patch)
    arm = upright.middle_mm * 1000.0
    assert float(upright.patch_utilisation(patch, pull)) == pytest.approx(1000 / n0 + arm / about_along)
    assert float(level.patch_utilisation(patch, pull)) == pytest.approx(1000 / n0 + arm / about_up)
    assert about_up != pytest.approx(about_along, rel=0.01)
