"""Distances between boxes against values exact by hand and against another library.

Source: vector geometry, worked by hand; SciPy's bounded least squares as second opinion, which shares no code with the
geometry kernel: two boxes are c + R s with |s| within the half sizes, the distance is the least |difference|.
"""

import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.optimize import lsq_linear

from levelcradle.core.axes import Placement
from levelcradle.core.solids import Solid, block, nearest

S2, S3 = math.sqrt(0.5), 1 / math.sqrt(3)
STRAIGHT = np.eye(3)
TURN_Z45 = np.array([[S2, -S2, 0], [S2, S2, 0], [0, 0, 1]])
TURN_Z30 = np.array([[0.8660254, -0.5, 0], [0.5, 0.8660254, 0], [0, 0, 1]])
ON_CORNER = np.array([[0.78867513, -0.21132487, -S3], [-0.21132487, 0.78867513, -S3], [S3, S3, S3]])
ABOUT_X45 = np.array([[1, 0, 0], [0, S2, -S2], [0, S2, S2]])
ABOUT_Y45 = np.array([[S2, 0, S2], [0, 1, 0], [-S2, 0, S2]])


def box(size: tuple[float, ...], centre: tuple[float, ...], turn: np.ndarray = STRAIGHT) -> Solid:
    half = tuple(s / 2 for s in size)
    solid = block(tuple(-h for h in half), half)  # type: ignore[arg-type]
    return solid.moved(Placement(turn, centre))  # type: ignore[arg-type]


CASES = {
    "faces parallel": (box((100, 60, 40), (0, 0, 0)), box((80, 60, 40), (120, 10, -5)), 30.0),
    "edge to edge": (box((100, 60, 40), (0, 0, 0)), box((80, 60, 40), (130, 100, 0)), math.hypot(40, 40)),
    "corner to corner": (
        box((100, 60, 40), (0, 0, 0)),
        box((80, 60, 40), (110, 80, 100)),
        math.sqrt(20**2 + 20**2 + 60**2),
    ),
    "edge to face": (
        box((100, 100, 40), (0, 0, 0)),
        box((60, 60, 40), (150, 0, 0), TURN_Z45),
        150 - 50 - 30 * math.sqrt(2),
    ),
    "cube on its corner": (
        box((200, 200, 10), (0, 0, 0)),
        box((60, 60, 60), (0, 0, 100), ON_CORNER),
        95 - 30 * math.sqrt(3),
    ),
    "crossing edges": (
        box((200, 40, 40), (0, 0, 0), ABOUT_X45),
        box((40, 200, 40), (0, 0, 90), ABOUT_Y45),
        90 - 40 * math.sqrt(2),
    ),
    "wedge corner to face": (box((100, 400, 40), (0, 0, 0)), box((80, 60, 40), (140, 0, 0), TURN_Z30), 40.359),
    "apart in aft and up": (box((80, 380, 360), (0, 0, 0)), box((360, 360, 80), (-400, 0, -480)), 316.228),
    "apart in aft and right": (box((340, 220, 340), (0, 0, 0)), box((120, 300, 300), (-580, -320, 0)), 355.106),
}


@pytest.mark.parametrize("name", CASES)
def test_cases_exact_by_hand(name: str) -> None:
    one, other, distance = CASES[name]
    assert nearest(one, other).gap_mm == pytest.approx(distance, abs=1e-3)


def test_overlapping_boxes_have_no_gap() -> None:
    one, other = box((100, 60, 40), (0, 0, 0)), box((80, 60, 40), (60, 0, 0), TURN_Z30)
    assert nearest(one, other).gap_mm < 0


def about(axis: tuple[float, ...], angle_deg: float) -> np.ndarray:
    """Rotation by the right-hand rule about an axis (Rodrigues)."""
    x, y, z = np.array(axis) / np.linalg.norm(axis)
    skew = np.array([[0, -z, y], [z, 0, -x], [-y, x, 0]])
    a = math.radians(angle_deg)
    return np.eye(3) + math.sin(a) * skew + (1 - math.cos(a)) * skew @ skew


def test_a_general_position_that_two_libraries_agree_on() -> None:
    one = box((380, 210, 140), (0, 0, 0), about((1, 2, 3), 25))
    other = box((300, 160, 90), (330, 190, 120), about((-2, 1, 1), 40))
    assert nearest(one, other).gap_mm == pytest.approx(64.7006, abs=1e-2)


ROUND = st.integers(2, 20).map(lambda n: n * 20.0)
PLACE = st.integers(-30, 30).map(lambda n: n * 20.0)
ANGLE = st.sampled_from([0, 15, 30, 45, 90, 130, 173])


@settings(max_examples=150, deadline=None)
@given(st.tuples(ROUND, ROUND, ROUND), st.tuples(ROUND, ROUND, ROUND), st.tuples(PLACE, PLACE, PLACE), ANGLE, ANGLE)
def test_round_sizes_and_symmetric_places_against_least_squares(
    size: tuple[float, ...], other_size: tuple[float, ...], centre: tuple[float, ...], turn: float, other_turn: float
) -> None:
    """Symmetric positions with round figures are where distance code goes wrong."""
    a, b = about((0, 0, 1), turn), about((1, 1, 0), other_turn)
    matrix = np.hstack([a, -b])
    half = np.array([*size, *other_size]) / 2
    least = lsq_linear(matrix, np.array(centre), bounds=(-half, half), method="bvls", tol=1e-12)
    distance = float(np.linalg.norm(matrix @ least.x - np.array(centre)))
    gap = nearest(box(size, (0, 0, 0), a), box(other_size, centre, b)).gap_mm
    assert max(gap, 0.0) == pytest.approx(distance, abs=0.01)
