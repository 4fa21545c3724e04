"""Vehicle axes: which way things turn, and that quarter turns are exact."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from levelcradle.core.axes import Placement, cross, rotation

ANGLES = st.floats(-360, 360, allow_nan=False)


def test_the_axes_are_right_handed() -> None:
    assert cross((1, 0, 0), (0, 1, 0)) == (0, 0, 1)


def test_positive_pitch_lifts_the_nose() -> None:
    """The nose is ahead: negative aft."""
    nose = Placement(rotation(0, 10, 0), (0, 0, 0)).point((-100, 0, 0))
    assert nose[2] > 0


def test_positive_roll_lifts_the_right_side() -> None:
    right = Placement(rotation(0, 0, 10), (0, 0, 0)).point((0, 100, 0))
    assert right[2] > 0


@given(ANGLES, ANGLES, ANGLES)
def test_a_turn_keeps_lengths_and_handedness(yaw: float, pitch: float, roll: float) -> None:
    matrix = rotation(yaw, pitch, roll)
    assert np.allclose(matrix @ matrix.T, np.eye(3), atol=1e-12)
    assert np.linalg.det(matrix) == pytest.approx(1.0)


@pytest.mark.parametrize("axis", [0, 1, 2])
def test_four_quarter_turns_return_every_figure_exactly(axis: int) -> None:
    angles = [0.0, 0.0, 0.0]
    angles[axis] = 90.0
    quarter = rotation(*angles)
    assert np.array_equal(quarter @ quarter @ quarter @ quarter, np.eye(3))


@given(ANGLES, st.tuples(*[st.floats(-1e4, 1e4)] * 3), st.tuples(*[st.floats(-1e4, 1e4)] * 3))
def test_the_anchor_stays_where_it_is_whatever_the_turn(
    yaw: float, anchor: tuple[float, float, float], at: tuple[float, float, float]
) -> None:
    assert Placement.about(anchor, at, rotation(yaw, 5, -3)).point(anchor) == pytest.approx(at, abs=1e-6)
