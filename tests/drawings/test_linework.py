"""Lines of solids: what is hidden is left out, wherever the reader stands."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from levelcradle.core.axes import Placement, Vec, rotation
from levelcradle.core.solids import Solid, block, planes_of, rod, surface_of
from levelcradle.drawings.linework import PLAN, SIDE, Body, Look, SeenLine, seen_lines


def length(lines: list[SeenLine]) -> float:
    return float(sum(np.hypot(line.end[0] - line.start[0], line.end[1] - line.start[1]) for line in lines))


def test_what_stands_behind_is_not_seen_and_what_is_half_behind_half_is() -> None:
    plate = block((0, 0, 100), (200, 200, 110))
    around = length(seen_lines([Body((plate,))], PLAN))
    assert around == pytest.approx(800)
    for x, seen in ((50.0, 0.0), (150.0, 2 * 50 + 100.0), (250.0, 400.0)):
        below = block((x, 50, 0), (x + 100, 150, 50))
        assert length(seen_lines([Body((plate,)), Body((below,))], PLAN)) == pytest.approx(around + seen, abs=0.5)


def test_seams_between_pieces_of_one_body_are_not_drawn() -> None:
    pieces = (block((0, 0, 0), (100, 50, 10)), block((100, 0, 0), (200, 50, 10)))
    assert length(seen_lines([Body(pieces)], PLAN)) == pytest.approx(500, abs=0.1)
    assert length(seen_lines([Body((p,)) for p in pieces], PLAN)) == pytest.approx(550, abs=0.1)


def test_a_round_bar_is_two_lines_and_its_ends() -> None:
    bar = rod((0, 0, 0), (300, 0, 0), 20)
    lines = seen_lines([Body((bar,))], SIDE)
    assert length(lines) == pytest.approx(2 * 300 + 2 * 40, rel=0.02)


solids = st.builds(
    lambda low, size, turn: block((0, 0, 0), size).moved(Placement(rotation(*turn), low)),
    st.tuples(*[st.floats(-150, 150)] * 3),
    st.tuples(*[st.floats(20, 200)] * 3),
    st.tuples(*[st.floats(-180, 180)] * 3),
)


@settings(max_examples=25)
@given(st.lists(solids, min_size=2, max_size=5), st.tuples(st.floats(-1, 1), st.floats(-1, 1), st.floats(-0.8, 0.8)))
def test_no_ray_from_a_seen_line_to_the_reader_meets_a_solid_and_one_from_a_hidden_line_does(
    found: list[Solid], way: Vec
) -> None:
    """Asked by marching along the ray, which is how one would look."""
    if np.hypot(way[0], way[1]) < 0.1:
        way = (1.0, 0.3, way[2])
    look = Look.against(way)
    axes = np.array([look.right, look.up, look.towards])
    bodies = [Body((solid,)) for solid in found]
    lines = seen_lines(bodies, look, hidden=True)
    for line in lines[::7]:
        if np.hypot(line.end[0] - line.start[0], line.end[1] - line.start[1]) < 5:
            continue
        share = 0.5
        at = np.array(line.start) * (1 - share) + np.array(line.end) * share
        depths = [_on_edge(found[line.of], axes, line, at)]
        covered = any(_enters(solid, axes, at, depth) for solid in found for depth in depths)
        assert covered == line.hidden


def _on_edge(solid: Solid, axes: np.ndarray, line: SeenLine, at: np.ndarray) -> float:  # type: ignore[type-arg]
    """How near to the reader the edge is that is drawn as this line: of all edges of the solid that lie on it the
    nearest, if it is seen, else the farthest."""
    points, triangles = surface_of(solid)
    flat = points @ axes.T
    depths = []
    for triangle in triangles:
        for a, b in ((0, 1), (1, 2), (2, 0)):
            p, q = flat[triangle[a]], flat[triangle[b]]
            way = q[:2] - p[:2]
            long = np.hypot(*way)
            if long < 1e-6:
                continue
            share = float((at - p[:2]) @ way / long**2)
            if -1e-6 <= share <= 1 + 1e-6 and np.hypot(*(p[:2] + share * way - at)) < 2e-3:
                ends = np.array([line.start, line.end]) - p[:2]
                off = abs(ends[:, 0] * way[1] - ends[:, 1] * way[0]) / long
                if off.max() < 5e-3:
                    depths.append(float(p[2] + share * (q[2] - p[2])))
    return min(depths) if line.hidden else max(depths)


def _enters(solid: Solid, axes: np.ndarray, at: np.ndarray, depth: float) -> bool:  # type: ignore[type-arg]
    planes = planes_of(solid)
    start = np.array([at[0], at[1], depth]) @ axes
    steps = np.linspace(0.2, 900.0, 9000)[:, None] * axes[2] + start
    return bool(((steps @ planes[:, :3].T) <= planes[:, 3] - 0.05).all(axis=1).any())
