"""Distances between convex solids: exact cases, symmetry, monotony, overlap, projections."""

import math
from typing import Any

import numpy as np
import pytest
import trimesh
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from levelcradle.core import solids
from levelcradle.core.axes import Placement, rotation
from levelcradle.core.solids import (
    Solid,
    block,
    block_projections,
    bounds_apart,
    hull,
    mesh_solid,
    nearest,
    prism,
    projections,
    rod,
    touches,
)

COORDINATE = st.integers(-500, 500).map(float)
SIZE = st.integers(1, 300).map(float)


@st.composite
def blocks(draw: st.DrawFn) -> Solid:
    low = tuple(draw(COORDINATE) for _ in range(3))
    return block(low, tuple(c + draw(SIZE) for c in low))  # type: ignore[arg-type]


@st.composite
def turned_blocks(draw: st.DrawFn) -> Solid:
    angles = [draw(st.integers(-180, 180)) for _ in range(3)]
    return draw(blocks()).moved(Placement(rotation(*angles), (draw(COORDINATE), 0.0, 0.0)))


def as_hull(solid: Solid) -> Solid:
    """The same block without the knowledge that it is upright, so that the kernel answers."""
    return hull([tuple(p) for p in solid.points])


@given(blocks(), blocks())
def test_the_closed_form_of_upright_blocks_agrees_with_the_kernel(a: Solid, b: Solid) -> None:
    ours, kernel = nearest(a, b).gap_mm, nearest(as_hull(a), as_hull(b)).gap_mm
    if ours > 0:
        assert kernel == pytest.approx(ours, abs=1e-3)
    else:
        assert kernel <= 1e-3


@given(turned_blocks(), turned_blocks())
def test_a_gap_is_the_same_from_both_sides(a: Solid, b: Solid) -> None:
    assert nearest(a, b).gap_mm == pytest.approx(nearest(b, a).gap_mm, abs=0.01)


@given(turned_blocks(), turned_blocks())
def test_bounding_boxes_never_promise_more_than_the_true_gap(a: Solid, b: Solid) -> None:
    gap = nearest(a, b).gap_mm
    assert bounds_apart([a], [b])[0, 0] <= max(gap, 0.0) + 1e-4  # a gap is rounded to that


@given(turned_blocks(), turned_blocks())
def test_the_nearest_points_lie_as_far_apart_as_the_gap(a: Solid, b: Solid) -> None:
    near = nearest(a, b)
    if near.gap_mm > 0:
        assert math.dist(near.here, near.there) == pytest.approx(near.gap_mm, abs=1e-3)


@given(blocks(), st.integers(1, 200))
def test_growing_a_block_never_widens_a_gap(a: Solid, by: int) -> None:
    other = block((600, 600, 600), (700, 700, 700))
    larger = block(a.low, tuple(c + by for c in a.high))  # type: ignore[arg-type]
    assert nearest(larger, other).gap_mm <= nearest(a, other).gap_mm + 1e-9


def test_an_overlap_reports_the_shortest_way_out() -> None:
    near = nearest(block((0, 0, 0), (100, 100, 100)), block((90, 20, 20), (200, 80, 80)))
    assert near.gap_mm == pytest.approx(-10.0)
    turned = nearest(as_hull(block((0, 0, 0), (100, 100, 100))), as_hull(block((90, 20, 20), (200, 80, 80))))
    assert turned.gap_mm == pytest.approx(-10.0, abs=0.01)


def test_touching_is_no_gap_and_no_overlap() -> None:
    assert nearest(block((0, 0, 0), (1, 1, 1)), block((1, 0, 0), (2, 1, 1))).gap_mm == 0.0


def test_a_rod_is_round() -> None:
    """A rod along aft, radius 10, 30 above a floor: 20; beside a corner at 45 degrees: hypot(30, 40) - 10."""
    bar = rod((0, 0, 30), (500, 0, 30), 10)
    assert nearest(bar, block((-100, -100, -50), (600, 100, 0))).gap_mm == pytest.approx(20.0, abs=0.005)
    assert nearest(bar, block((-100, 30, 70), (600, 100, 90))).gap_mm == pytest.approx(40.0, abs=0.005)


def test_what_is_too_flat_for_a_hull_is_taken_as_the_block_round_it() -> None:
    sheet = hull([(0, 0, 0), (10, 0, 0), (0, 10, 0), (10, 10, 0)])
    assert nearest(sheet, rod((0, 0, 20), (10, 0, 20), 5)).gap_mm == pytest.approx(15.0, abs=0.01)


def test_a_quarter_turn_keeps_a_block_upright() -> None:
    moved = block((0, 0, 0), (10, 20, 30)).moved(Placement(rotation(90, 0, 0), (0.0, 0.0, 0.0)))
    assert moved.upright
    assert np.allclose(moved.low, (-20, 0, 0))
    assert np.allclose(moved.high, (0, 10, 30))


def test_a_leaning_block_is_not_upright() -> None:
    assert not block((0, 0, 0), (10, 20, 30)).moved(Placement(rotation(0, 1, 0), (0.0, 0.0, 0.0))).upright


def test_shadows() -> None:
    wedge = prism([(0, 0), (100, 0), (0, 50)], 10, 40)
    plan, side = projections(wedge)
    assert set(plan) == {(0, 0), (100, 0), (0, 50)}
    assert set(side) == {(0, 10), (100, 10), (100, 40), (0, 40)}


@given(st.tuples(*[st.integers(-180, 180)] * 3), st.lists(blocks(), min_size=1, max_size=4))
def test_the_shadows_of_many_blocks_are_those_of_each(angles: tuple[int, int, int], some: list[Solid]) -> None:
    placement = Placement(rotation(*angles), (10.0, 20.0, 30.0))
    together = block_projections(np.array([b.low for b in some]), np.array([b.high for b in some]), placement)
    for (plan, side, top), alone in zip(together, some, strict=True):
        moved = alone.moved(placement)
        for view, other in zip((plan, side), projections(moved), strict=True):
            for axis in (0, 1):
                assert min(p[axis] for p in view) == pytest.approx(min(p[axis] for p in other), abs=2e-3)
                assert max(p[axis] for p in view) == pytest.approx(max(p[axis] for p in other), abs=2e-3)
        assert top == pytest.approx(moved.high[2], abs=2e-3)


@pytest.mark.parametrize("end", [(0.0, 0.0, 100.0), (100.0, 0.0, 0.0), (60.0, 0.0, 80.0)])
def test_the_shadow_of_a_rod_holds_its_ends(end: tuple[float, float, float]) -> None:
    for view in projections(rod((0, 0, 0), end, 10)):
        xs, ys = [p[0] for p in view], [p[1] for p in view]
        assert max(xs) - min(xs) >= 20 - 1e-3 or max(ys) - min(ys) >= 20 - 1e-3


def bumpy_ball(radius: float = 100.0) -> Solid:
    ball = trimesh.creation.icosphere(3, radius)
    points = np.array(ball.vertices) * (1 + 0.1 * np.sin(7 * np.array(ball.vertices)[:, :1] / radius))
    return mesh_solid(points, np.array(ball.faces), slack_mm=1.0, closed=True, inside=False)


BALL = bumpy_ball()


@settings(max_examples=80)
@given(st.tuples(*[st.floats(-160, 160)] * 3), st.tuples(*[st.floats(4, 90)] * 3), st.booleans())
def test_a_mesh_is_met_where_its_distance_says_and_nowhere_else(at: Any, size: Any, turned: bool) -> None:
    """The quick question and the full distance agree, and the distance is that of an exhaustive search."""
    thing = block(at, tuple(a + b for a, b in zip(at, size, strict=True)))
    if turned:
        thing = thing.moved(Placement.about(at, at, rotation(31.0, 12.0, -20.0)))
    near = nearest(thing, BALL)
    assert touches(thing, BALL, 0.5) == (near.gap_mm < -0.5)
    if near.gap_mm > -1.0:
        assert near.gap_mm == pytest.approx(solids._measured(thing, BALL).gap_mm - 1.0, abs=1e-3)


@settings(max_examples=100)
@given(st.tuples(*[st.floats(-140, 140)] * 3))
def test_inside_is_told_by_a_ray_as_by_the_solid_angle(spot: Any) -> None:
    """Against the sum of the triangles' solid angles (Van Oosterom and Strackee, 1983, from memory)."""
    tip = block(spot, tuple(v + 1e-3 for v in spot))
    apart = nearest(tip, BALL).gap_mm
    a, b, c = np.moveaxis(BALL.points[BALL.surface.triangles] - spot, 1, 0)  # type: ignore[union-attr]
    la, lb, lc = (np.linalg.norm(v, axis=1) for v in (a, b, c))
    top = np.einsum("ij,ij->i", a, np.cross(b, c))
    below = la * lb * lc + (a * b).sum(1) * lc + (b * c).sum(1) * la + (c * a).sum(1) * lb
    inside = abs(float(np.arctan2(top, below).sum())) / math.tau > 0.5
    if abs(apart + 1.0) > 0.01:
        assert (apart < -1.0) == inside


@given(st.tuples(*[st.floats(-300, 300)] * 3), st.tuples(*[st.floats(-300, 300)] * 3), st.floats(2, 80))
def test_the_block_round_a_rod_holds_its_rims_and_no_more(start: Any, end: Any, radius: float) -> None:
    """What bounding boxes hide is never measured: a leaning rod reaches as far as its rims do."""
    way = np.array(end) - np.array(start)
    length = float(np.linalg.norm(way))
    assume(length > 5)
    way = way / length
    side = np.cross(way, (0.0, 0.0, 1.0) if abs(way[2]) < 0.9 else (1.0, 0.0, 0.0))
    side = side / np.linalg.norm(side)
    turn = np.linspace(0, 2 * np.pi, 721)[:, None]
    rim = radius * (np.cos(turn) * side + np.sin(turn) * np.cross(way, side))
    points = np.concatenate([rim + start, rim + end])
    found = rod(start, end, radius)
    assert np.array(found.low) == pytest.approx(points.min(axis=0), abs=radius * 1e-4)
    assert np.array(found.high) == pytest.approx(points.max(axis=0), abs=radius * 1e-4)
