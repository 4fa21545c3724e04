"""Distances from a grid of points to a solid, against the exact kernel; and the surfaces solids show."""

import itertools

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from levelcradle.core.axes import Placement, rotation
from levelcradle.core.solids import Solid, block, distances, hull, mesh_solid, nearest, prism, rod, surface_of

XS = np.arange(-30.0, 131.0, 20.0)
number = st.floats(-20, 120)
angle = st.floats(-90, 90)


def exact(solid: Solid, x: float, y: float, z: float) -> float:
    spot = block((x, y, z), (x + 1e-6, y + 1e-6, z + 1e-6))
    return max(nearest(spot, solid).gap_mm, 0.0)


def compare(solid: Solid, within: float, off: float = 2e-3) -> None:
    found = distances(solid, XS, XS, XS, within)
    for i, j, k in itertools.product(range(0, len(XS), 2), repeat=3):
        true = exact(solid, XS[i], XS[j], XS[k])
        if true < within:
            assert found[i, j, k] == pytest.approx(true, abs=off)
        else:
            assert found[i, j, k] >= within - off


@settings(max_examples=15)
@given(st.tuples(number, number, number), st.tuples(st.floats(5, 60), st.floats(5, 60), st.floats(5, 60)))
def test_to_an_upright_block(low: tuple[float, ...], size: tuple[float, ...]) -> None:
    x, y, z = (a + s for a, s in zip(low, size, strict=True))
    compare(block((low[0], low[1], low[2]), (x, y, z)), 40.0)


@settings(max_examples=15)
@given(angle, angle, angle)
def test_to_a_turned_block(yaw: float, pitch: float, roll: float) -> None:
    turned = block((-30, -20, -10), (30, 20, 10)).moved(Placement(rotation(yaw, pitch, roll), (50.0, 45.0, 55.0)))
    compare(turned, 35.0)


@settings(max_examples=10)
@given(st.tuples(number, number, number), st.floats(3, 25))
def test_to_a_rod(end: tuple[float, ...], radius: float) -> None:
    start = (40.0, 41.0, 42.0)
    if max(abs(a - b) for a, b in zip(start, end, strict=True)) > 5:
        compare(rod(start, (end[0], end[1], end[2]), radius), 40.0, off=0.02)


def test_to_a_wedge_off_its_faces_edges_and_corners() -> None:
    compare(hull([(0, 0, 0), (90, 0, 0), (0, 70, 0), (0, 0, 50)]), 60.0)
    compare(prism([(0, 0), (80, 10), (60, 90), (5, 60)], 20.0, 70.0), 60.0)


def cube(size: float, at: float, *, inside: bool, closed: bool = True) -> Solid:
    points, triangles = surface_of(block((at, at, at), (at + size,) * 3))
    return mesh_solid(points, triangles, slack_mm=0.0, closed=closed, inside=inside)


def test_to_a_scan_within_a_step_and_full_where_metal_is() -> None:
    step = 4.0
    xs = np.arange(2.0, 100.0, step)
    thing, space, skin = cube(40, 30, inside=False), cube(60, 20, inside=True), cube(40, 30, inside=False, closed=False)
    middle, corner = np.searchsorted(xs, 50.0), 0
    for solid, at_middle, at_corner in ((thing, True, False), (space, False, True), (skin, False, False)):
        found = distances(solid, xs, xs, xs, 12.0)
        assert (found[middle, middle, middle] == 0.0) == at_middle
        assert (found[corner, corner, corner] == 0.0) == at_corner
    found = distances(skin, xs, xs, xs, 30.0)
    for i, j, k in itertools.product(range(0, len(xs), 5), repeat=3):
        assert found[i, j, k] == pytest.approx(exact(skin, xs[i], xs[j], xs[k]), abs=step * 1.8)


@pytest.mark.parametrize(
    "solid",
    [block((0, 0, 0), (3, 4, 5)), rod((0, 0, 0), (0, 0, 10), 2.0), hull([(0, 0, 0), (9, 0, 0), (0, 9, 0), (0, 0, 9)])],
)
def test_a_surface_is_closed_and_faces_outward(solid: Solid) -> None:
    points, triangles = surface_of(solid)
    edges = {(int(a), int(b)) for t in triangles for a, b in ((t[0], t[1]), (t[1], t[2]), (t[2], t[0]))}
    assert all((b, a) in edges for a, b in edges)
    volume = (
        np.einsum("ij,ij->i", points[triangles[:, 0]], np.cross(points[triangles[:, 1]], points[triangles[:, 2]])).sum()
        / 6
    )
    assert volume > 0
