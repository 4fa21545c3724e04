"""A framed box on tabs that are welded across the tubes of its lower ring."""

from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.geometry import Point, Polygon, box

from levelcradle.core.assembly import resolve
from levelcradle.core.bar import Tube
from levelcradle.core.design import tree_of, validate
from levelcradle.core.edits import edited, hung
from levelcradle.core.errors import DesignError
from levelcradle.core.fabricate import parts_of
from levelcradle.core.finding import Finding
from levelcradle.core.hang import how_it_hangs
from levelcradle.core.mount.beam import Beam, BeamState, Thrown, beam_checks
from levelcradle.core.solids import nearest, touches
from tests.core.hung import AT, mounts_of, of_box, placed
from tests.plain import box_at, found, plain_car

SIDES = ("left", "right")


def framed(tube_mm: float = 40.0, wall_mm: float = 3.0, **more: Any) -> dict[str, Any]:
    construction = {"type": "framed", "tube_mm": tube_mm, "tube_wall_mm": wall_mm, **more}
    made = {"construction": construction, "closures": {"lid": {"type": "panel"}}}
    return {**box_at(AT, (3, 2, 2)), **made}


def points_under(
    it: dict[str, Any], along_mm: float = 60.0, beyond_mm: float = 30.0, below_mm: float = 8.0
) -> dict[str, Any]:
    """Of rails under its long sides, their metal facing up: so far from its ends, beyond its edges, below its tubes."""
    length, width, _ = placed(it).shell.outer_mm
    under = it["construction"].get("cladding_mm", 1.5)
    return {
        f"{side}{n}": {"name": f"{side}{n}", "thread": "M10", "direction": [0, 0, 1],
                       "at_mm": [AT[0] + along, across, AT[2] + under - below_mm]}
        for side, across in (("left", AT[1] - beyond_mm), ("right", AT[1] + width + beyond_mm))
        for n, along in enumerate((along_mm, length - along_mm))
    }  # fmt: skip


def car(it: dict[str, Any] | None = None, **where: float) -> dict[str, Any]:
    """Each tab put there as on the screen."""
    it = it or framed()
    points = points_under(it, **where)
    design = validate(plain_car(boxes={"x": it}, hardpoints=points))
    for key in points:
        design = edited(design, hung(design, "x", "tab", f"hardpoints/{key}", "base")[1])
    return tree_of(design)


def tubes(tree: dict[str, Any]) -> dict[str, Finding]:
    return {f.label: f for f in found(tree, "mount.tube")}


def test_it_is_drawn_to_the_tube_when_it_is_put_there() -> None:
    """It lies under the tube's flat, over all of it, and stands in neither the tube nor the vehicle."""
    tree = car()
    rows = mounts_of(tree)
    assert len(rows) == 4
    assert not found(tree, "mount.unfit")
    assert not [text for m in rows.values() for text, fits in m.geometry if not fits]
    it = resolve(validate(tree), {}).boxes["x"]
    frame = [s.moved(it.placement) for p in it.shell.pieces if p.role == "frame" for s in p.solids]
    for mount in it.mounts:
        tab = next(p.solid for p in mount.pieces if p.name == "tab")
        assert min(nearest(tab, solid).gap_mm for solid in frame) == pytest.approx(0.0, abs=1e-3)
        assert not any(touches(tab, solid, 1e-3) for solid in frame)
        assert tab.low[2] == pytest.approx(mount.spot.at[2])
        assert min(tab.high[1] - AT[1], AT[1] + placed(framed()).shell.outer_mm[1] - tab.low[1]) > 28.0


def test_between_it_and_metal_that_is_further_down_lies_packing() -> None:
    tree = car(below_mm=14.0)
    assert {m["shape"]["packing_mm"] for m in tree["mounts"].values()} == {6.0}
    assert not found(tree, "mount.unfit")


@pytest.mark.parametrize("it", [of_box(), {**of_box(), "construction": {"type": "racked"}, "closures": {}}])
def test_without_a_tube_there_it_cannot_stand(it: dict[str, Any]) -> None:
    """Another construction has none; nor has a frame where its base comes off."""
    tree = car()
    for other in (it, {**framed(), "closures": {"lid": {"type": "panel", "face": "base"}}}):
        words = [f.message for f in found({**tree, "boxes": {"x": other}}, "mount.unfit")]
        assert len(words) == 4
        assert all("there is none" in text for text in words)


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"to_box": {"type": "bolted"}}, "welded to a tube"),
        ({"face": "left"}, "comes over the edge"),
        ({"shape": {"type": "angle"}}, "front or aft"),
    ],
)
def test_what_does_not_go_with_it_is_refused(change: dict[str, Any], words: str) -> None:
    tree = car()
    tree["mounts"]["x-left0"] |= change
    with pytest.raises(DesignError, match=words):
        validate(tree)


def test_off_the_tubes_flat_it_is_foul() -> None:
    tree = car()
    hold = tree["mounts"]["x-left0"]["to_box"]
    hold["from_mm"] -= 4.0
    broken = [text for text, fits in mounts_of(tree)["x-left0"].geometry if not fits]
    assert any("across the lower left tube" in text for text in broken)


def test_a_tube_too_narrow_for_welds_beside_it_counts_those_across_alone() -> None:
    """What is left out bears nothing: with both edges welded, whatever stands beside is not asked for its length."""
    tree = car(framed(30.0, 2.5))
    assert not [text for m in mounts_of(tree).values() for text, fits in m.geometry if not fits]
    one = mounts_of(tree)["x-left0"].rows
    for edge in ("across_start", "across_end"):
        less = car(framed(30.0, 2.5))
        less["mounts"]["x-left0"]["to_box"][edge] = False
        row = mounts_of(less)["x-left0"]
        assert any("weld length" in text for text, fits in row.geometry if not fits)
        weld = [next(r.utilisation for r in rows if r.check == "weld") for rows in (one, row.rows)]
        assert weld[1] > weld[0]


def test_a_tube_bears_all_that_is_welded_to_it_and_least_in_its_middle() -> None:
    near, far = tubes(car(along_mm=60.0)), tubes(car(along_mm=180.0))
    assert set(near) == {"lower left tube", "lower right tube"}
    for name, row in near.items():
        assert sum(path.startswith("mounts/") for path in row.subjects) == 2
        assert (row.value or 0.0) < (far[name].value or 0.0)
    for tube, wall in ((50.0, 3.0), (40.0, 4.0)):
        assert (tubes(car(framed(tube, wall), along_mm=180.0))["lower left tube"].value or 0.0) < (
            far["lower left tube"].value or 0.0
        )


def test_two_loads_on_a_tube_bend_it_more_than_either() -> None:
    """As the books have it: two like loads bend it by F a, at a from each end; one by F a (L − a) / L."""
    load, cases = 1000.0, list(validate(plain_car()).tables.load_cases.values())[:1]
    beam = Beam(Tube(40.0, 3.0), 600.0, 235.0)
    rows = {}
    for places in ((100.0,), (500.0,), (100.0, 500.0)):
        at = np.array([(x, 0.0, 20.0) for x in places])
        forces = np.broadcast_to(np.array((0.0, 0.0, load)), (1, 1, len(places), 3))
        state = BeamState.of(beam, Thrown(forces, at), np.array(places))
        rows[places] = next(c for c in beam_checks(beam, (state,), cases) if "bent" in c.check).working[0].value
    assert rows[100.0, 500.0] == pytest.approx(load * 100.0)
    assert [rows[(100.0,)], rows[(500.0,)]] == pytest.approx([load * 100.0 * 500.0 / 600.0] * 2)


def test_never_better_than_tight_and_not_known_where_its_load_is_not() -> None:
    tree = car(framed(60.0, 4.0))
    assert {f.state for f in tubes(tree).values()} == {"tight"}
    tree["readings"]["/hardpoints/left0/at_mm/2"] = {"text": "394", "basis": "assumed"}
    assert tubes(tree)["lower left tube"].state == "unknown"
    assert tubes(tree)["lower right tube"].state == "tight"


@settings(deadline=None, max_examples=15)
@given(along=st.floats(60.0, 200.0), tube=st.sampled_from([(30.0, 2.5), (40.0, 3.0), (50.0, 4.0)]))
def test_the_base_panel_makes_way_for_its_tabs(along: float, tube: tuple[float, float]) -> None:
    """What is cut out is what the tabs take with room for their welds, from the panel's edge; no hole is cut into."""
    tree = car(framed(*tube), along_mm=along)
    parts = [one for part in parts_of(resolve(validate(tree), {})) for one in part.each]
    panel = next(p for p in parts if p.id == "x-base-panel")
    whole = next(p for p in parts_of(resolve(validate({**tree, "mounts": {}}), {})) if p.id == "x-base-panel")
    sheet = Polygon(panel.outline)
    flat = tube[0] - 4 * tube[1]
    tab_mm = tree["mounts"]["x-left0"]["shape"]["width_mm"]
    deep = 1.5 + 2 * tube[1] + flat + 6.0
    assert Polygon(whole.outline).area - sheet.area == pytest.approx(4 * deep * (tab_mm + 12.0), rel=0.01)
    assert sheet.is_valid
    assert not sheet.interiors
    for hole in panel.holes:
        assert sheet.contains(Point(hole.at).buffer(hole.diameter_mm / 2))
    assert box(*sheet.bounds).area == pytest.approx(Polygon(whole.outline).area)


def test_how_it_hangs_proposes_it_before_what_lies_on_its_cladding() -> None:
    it = framed(50.0, 4.0)
    answer = how_it_hangs(validate(plain_car(boxes={"x": it}, hardpoints=points_under(it, 50.0))), "x", meshes={})
    assert {row.face for row in answer.within} == {"base"}
    assert answer.ways
    assert answer.ways[0].utilisation <= 1.0
