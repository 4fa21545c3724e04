"""Steps in the floor of a folded box: the blank folds up round them, room outside is won, and modules stand on them."""

from itertools import combinations
from typing import Any

import numpy as np
import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st
from scipy.spatial import ConvexHull

from levelcradle.core.assembly import PlacedBox, resolve
from levelcradle.core.design import validate
from levelcradle.core.design.base import FACE_AT
from levelcradle.core.errors import DesignError
from levelcradle.core.fold import fold
from levelcradle.core.part import FlatPart
from levelcradle.core.solids import corner_points, nearest
from tests.plain import a_block, analysed, box_at, found, plain_car

AT = (1000.0, 0.0, 400.0)
WALLS = ("front", "aft", "left", "right")
OPPOSITE = {"front": "aft", "aft": "front", "left": "right", "right": "left"}
T, RADIUS = 3.0, 3.0


def box(steps: dict[str, tuple[float, float]], **more: Any) -> dict[str, Any]:
    """``steps``: of each wall, how far inward along the base and up the wall."""
    chamfers = {face: {"edge": ["base", face], "mm": list(mm), "square": True} for face, mm in steps.items()}
    made = {"type": "folded", **more.pop("made", {})}
    return box_at(AT, more.pop("counts", (2, 2, 2)), construction=made, chamfers=chamfers, **more)


def placed(of: dict[str, Any]) -> tuple[PlacedBox, dict[str, FlatPart]]:
    one = resolve(validate(plain_car(boxes={"x": of})), {}).boxes["x"]
    return one, {part.id: part for part in one.shell.made.parts("x", "X")}


cut = st.tuples(st.floats(25, 120), st.floats(25, 110))


@settings(max_examples=40)
@given(st.sampled_from(WALLS), cut, st.booleans(), cut, st.sampled_from([{}, {"folder": {"longest_bend_mm": 300.0}}]))
def test_the_blank_folds_up_round_the_step_and_weighs_what_the_solids_do(
    face: str, mm: tuple[float, float], both: bool, other: tuple[float, float], made: dict[str, Any]
) -> None:
    """The parts themselves, folded: nothing of them in the step, its riser, shelf and wall where they are drawn, and
    nothing stands in anything else."""
    steps = {face: mm, **({OPPOSITE[face]: other} if both else {})}
    one, parts = placed(box(steps, made=made))
    assume(parts)
    outer = one.shell.outer_mm
    folded = {key: corner_points(list(fold(part).solids())) for key, part in parts.items() if "lid" not in key}
    for side, (in_, up) in steps.items():
        axis, far = FACE_AT[side]
        for points in folded.values():
            inward = outer[axis] - points[:, axis] if far else points[:, axis]
            round_ = (inward > in_ - RADIUS) & (points[:, 2] > up - RADIUS)  # of the bend back
            assert not ((inward < in_ - 0.05) & (points[:, 2] < up - 0.05) & ~round_).any()
        tray = folded["x-tray"]
        inward = outer[axis] - tray[:, axis] if far else tray[:, axis]
        assert inward.min() == pytest.approx(0.0, abs=0.05)
        shelf = tray[(inward < in_ - T - 1)]
        assert shelf[:, 2].min() == pytest.approx(up, abs=0.05)
        assert tray[inward < 0.05, 2].max() == pytest.approx(outer[2], abs=0.05)
    metal = [p for p in one.shell.pieces if p.role not in ("fastener", "closure")]
    mass = sum(part.mass_kg for key, part in parts.items() if "lid" not in key)
    assert sum(p.mass_kg for p in metal) == pytest.approx(mass, rel=1e-9)
    for piece in metal:
        bodies = [ConvexHull(solid.points) for solid in piece.solids]
        middles = [
            np.mean(solid.points[body.vertices], axis=0) for solid, body in zip(piece.solids, bodies, strict=True)
        ]
        middle = np.average(middles, axis=0, weights=[body.volume for body in bodies])
        assert piece.centre == pytest.approx(tuple(middle), abs=0.6 if "bend" in piece.name else 30.0), piece.name
    for a, b in combinations(metal, 2):
        if "bend" not in a.name + b.name:
            assert min(nearest(s, t).gap_mm for s in a.solids for t in b.solids) > -0.05, (a.name, b.name)


def gap(of: dict[str, Any], low: tuple[float, float, float], high: tuple[float, float, float]) -> float:
    tree = plain_car(boxes={"x": of}, items={"b": a_block(low, high, gap_class="same")})
    return min(float(f.value) for f in found(tree, "gap") if f.value is not None)


@pytest.mark.parametrize("yaw", [0.0, 90.0])
def test_what_stands_in_the_step_is_as_far_from_the_box_as_from_its_riser_and_shelf(yaw: float) -> None:
    """A bar under the left edge, 12 off the riser and 9 under the shelf."""
    pose = {"anchor": "front-left-base", "at_mm": list(AT), "yaw_deg": yaw}
    one, _ = placed(box({"left": (60.0, 50.0)}, pose=pose))
    bar = [(50.0, 20.0, -40.0), (300.0, 48.0, 41.0)]
    a, b = (one.placement.point(corner) for corner in bar)
    low, high = zip(*(sorted(pair) for pair in zip(a, b, strict=True)), strict=True)
    assert gap(box({"left": (60.0, 50.0)}, pose=pose), low, high) == pytest.approx(9.0)
    assert gap(box({"left": (61.0, 60.0)}, pose=pose), low, high) == pytest.approx(13.0)
    assert gap(box({}, pose=pose), low, high) < 0


def test_modules_stand_on_the_shelf_and_are_asked_about_the_step_where_they_do_not() -> None:
    """Two blocks side by side, each under its strap, the left one a step of 40 higher."""

    def told(up: float, step: dict[str, tuple[float, float]]) -> tuple[set[str], set[str]]:
        """Which blocks nothing holds down, and how the modules stand to the step."""
        kind = {"kind": "brick", "turn": {"down": "base", "aft": "end_b"}}
        blocks = {"a": {**kind, "origin_mm": [0, 0, up]}, "b": {**kind, "origin_mm": [0, 130, 0], "order": 1}}
        straps = {key: {"type": "straps", "block": key, "strap": {"along": "aft"}} for key in "ab"}
        tree = plain_car(boxes={"x": {**box(step), "blocks": blocks, "holders": straps}})
        findings = analysed(tree).findings
        loose = {f.id.split(":")[2] for f in findings if f.id.startswith("held:") and f.id.endswith(":base")}
        return loose, {f.state for f in findings if f.id == "inside:boxes/x:chamfer-left"}

    assert told(0.0, {}) == (set(), set())
    assert told(40.0, {"left": (129.0, 40.0)}) == (set(), {"clear"})
    assert told(40.0, {}) == ({"a"}, set())
    assert told(40.0, {"left": (120.0, 40.0)})[0] == {"a"}, "it does not reach so far"
    assert told(0.0, {"left": (129.0, 40.0)})[1] == {"foul"}


def test_a_bracket_and_a_hole_keep_out_of_it_and_it_is_as_large_as_its_bends_need() -> None:
    one, _ = placed(box({"left": (60.0, 50.0)}))
    wall = one.shell.made.wall_at("left")
    assert (wall.flat_from_mm, wall.height_mm) == (50.0 + 6.0, one.shell.outer_mm[2] - 50.0)
    assert one.shell.made.wall_at("front").flat_from_mm >= 50.0 + T
    hole = {"name": "h", "face": "left", "from": ["front", "base"], "u_mm": 100.0, "v_mm": 30.0, "diameter_mm": 10.0}
    for at, kept in ((30.0, False), (100.0, True)):
        _, parts = placed(box({"left": (60.0, 50.0)}, openings={"h": {**hole, "v_mm": at}}))
        assert bool(parts) == kept
    assert placed(box({"left": (21.0, 21.0)}))[1], "radii and thickness, and four thicknesses of flat"
    for small in ((20.9, 40.0), (40.0, 20.9)):
        assert not placed(box({"left": small}))[1]


def test_only_an_edge_of_the_base_is_a_step() -> None:
    for edge in (["top", "left"], ["front", "left"]):
        with pytest.raises(DesignError):
            placed(box_at(AT, chamfers={"a": {"edge": edge, "mm": [30.0, 30.0], "square": True}}))


NEEDS_MM = 16.8 + 2 * 6.0  # the shortest side that is turned up, 5.6 thicknesses, and two bends


@pytest.mark.parametrize("kind", ["slope", "step", "rim"])
@pytest.mark.parametrize("face", WALLS)
def test_base_and_top_keep_as_much_between_their_bends_as_the_brake_needs(kind: str, face: str) -> None:
    """And the wall its own, above or below what is cut off."""
    one, _ = placed(box({}, counts=(3, 2, 2)))
    across = one.shell.outer_mm[FACE_AT[face][0]]
    tall = one.shell.outer_mm[2]

    def made(along: float, up: float) -> bool:
        edge = "top" if kind == "rim" else "base"
        cut = {"edge": [edge, face], "mm": [along, up], "square": kind == "step"}
        of = box({}, counts=(3, 2, 2))
        return bool(placed({**of, "chamfers": {"c": cut}})[1])

    assert made(across - NEEDS_MM - 0.1, 60.0)
    assert not made(across - NEEDS_MM + 0.1, 60.0)
    left = 22.8  # the shortest side and a bend, more than the lid's edge takes
    assert made(60.0, tall - left - 0.1)
    assert not made(60.0, tall - left + 0.1)
