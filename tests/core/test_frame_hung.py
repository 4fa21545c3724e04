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
from levelcradle.core.mount import loads_of
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


def alone(tree: dict[str, Any], **throw: float) -> dict[str, Any]:
    """With one crash case."""
    case = {"name": "one", "kind": "crash", "source": "of a test", "aft_g": 0.0, "right_g": 0.0, "up_g": 0.0, **throw}
    return {**tree, "tables": {**tree["tables"], "load_cases": {"one": case}}}


def steps(tree: dict[str, Any], tube: str) -> dict[str, float]:
    return {step.what: float(step.value) for step in tubes(tree)[tube].working()}


@pytest.mark.parametrize(("along", "beyond", "check"), [(180.0, 30.0, "bent"), (60.0, 110.0, "twisted")])
def test_a_tube_is_bent_and_twisted_by_both_its_tabs_as_the_books_have_it(
    along: float, beyond: float, check: str
) -> None:
    """Free to turn at the middles of its posts: each load bends it by F x (L − y) / L, x and y the nearer and the
    further of place and load; held there against twist, each gives an end its share."""
    tree = alone(car(framed(40.0, 2.0), along_mm=along, beyond_mm=beyond), up_g=-11.0)
    told = steps(tree, "lower left tube")
    it = resolve(validate(tree), {}).boxes["x"]
    loads = loads_of(it, validate(tree).tables)
    long = it.shell.outer_mm[0] - 2 * 1.5
    span, middle = long - 40.0, AT[1] + 1.5 + 20.0
    on = [n for n, m in enumerate(loads.standing) if m.id.startswith("x-left")]
    force = loads.thrown[:, 0, on, 2]
    at = np.array([loads.standing[n].spot.at for n in on])
    x, arm = at[:, 0] - (AT[0] + 1.5 + 20.0), at[:, 1] - middle
    if check == "bent":
        moments = [abs((force * np.minimum(p, x) * (span - np.maximum(p, x)) / span).sum(axis=1)).max() for p in x]
        assert told["moment, up and down"] == pytest.approx(max(moments), rel=1e-3)
    else:
        ends = [abs((force * arm * share).sum(axis=1)).max() for share in (x / span, 1 - x / span)]
        assert told["twist"] == pytest.approx(max(ends), rel=1e-3)


def bent_and_twisted(force: tuple[float, float, float], at: tuple[float, float, float]) -> dict[str, float]:
    beam = Beam(Tube(40.0, 3.0), 600.0, 235.0)
    cases = list(validate(alone(plain_car())).tables.load_cases.values())
    row = Thrown(np.array(force).reshape(1, 1, 1, 3), np.array([at]))
    state = BeamState.of(beam, row, np.array([at[0]]))
    return {c.check.rsplit(" ", 1)[-1]: c.utilisation for c in beam_checks(beam, (state,), cases)}


def test_a_tube_is_drawn_and_twisted_as_the_books_have_it() -> None:
    """EN 10219-2 table B.2 (from memory): 40 × 40 × 3 has 4.21 cm² (its corners rounded); drawn as if one end held all
    of it; Bredt: T / 2 A t."""
    drawn = bent_and_twisted((10_000.0, 0.0, 0.0), (300.0, 0.0, 20.0))
    assert drawn["bent"] == pytest.approx(10_000.0 / (421.0 * 235.0 / 1.1), rel=5e-3)
    twisted = bent_and_twisted((0.0, 0.0, 1000.0), (0.0, 200.0, 20.0))
    shear_mpa = 1000.0 * 200.0 / (2 * 37.0**2 * 3.0) + 1000.0 / 210.5
    assert twisted["twisted"] == pytest.approx(shear_mpa / (235.0 / 1.1 / 3**0.5), rel=1e-2)


def test_welding_leaves_less_of_a_tube_of_aluminium() -> None:
    metals = validate(plain_car()).tables.materials
    key = next(
        k for k, m in metals.items() if m.weldable_with == "aluminium" and (m.welded_yield_mpa or 1e9) < m.yield_mpa
    )
    tree = alone(car({**framed(60.0, 4.0), "material": key}), right_g=15.0)
    tree["mounts"] = {k: {**m, "shape": {**m["shape"], "material": key}} for k, m in tree["mounts"].items()}
    told = steps(tree, "lower left tube")
    stress = told.get("may be stressed", told.get("may be sheared", 0.0) * 3**0.5)
    assert 0.0 < stress <= (metals[key].welded_yield_mpa or 0.0) / 1.1 + 1e-6


def test_a_tab_too_narrow_to_be_welded_across_is_foul() -> None:
    tree = car(framed(30.0, 2.5))
    tree["mounts"]["x-left0"]["shape"]["width_mm"] = 30.0
    assert any("weld across it 30.0" in text for text, fits in mounts_of(tree)["x-left0"].geometry if not fits)


def test_never_better_than_tight_and_not_known_where_its_load_is_not() -> None:
    tree = car(framed(60.0, 4.0))
    assert {f.state for f in tubes(tree).values()} == {"tight"}
    tree["readings"]["/hardpoints/left0/at_mm/2"] = {"text": "394", "basis": "assumed"}
    assert tubes(tree)["lower left tube"].state == "unknown"
    assert tubes(tree)["lower right tube"].state == "tight"
    tree["boxes"]["x"] = framed(40.0, 1.2)
    assert tubes(tree)["lower left tube"].state == "foul"


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
