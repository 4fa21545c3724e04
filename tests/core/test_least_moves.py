"""The move that clears a box is no longer than needed: to a step less it is not clear, and there it is."""

from typing import Any

from hypothesis import example, given, settings
from hypothesis import strategies as st

from levelcradle.core.fit.space import ClearanceConstraint
from levelcradle.core.fit.stand import STEP_MM, least_travel_mm
from levelcradle.core.solids import Solid, block, hull, nearest, rod

spot = st.tuples(*[st.floats(-150, 150)] * 3)
size = st.tuples(*[st.floats(20, 160)] * 3)


def leaned(at: Any, of: Any) -> Solid:
    x, y, z = at
    a, b, c = of
    return hull([(x, y, z), (x + a, y + b / 3, z), (x, y + b, z), (x + a / 2, y, z + c), (x + a, y + b, z + c)])


things = st.one_of(
    st.builds(lambda at, of: block(at, tuple(a + b for a, b in zip(at, of, strict=True))), spot, size),  # type: ignore[arg-type]
    st.builds(leaned, spot, size),
    st.builds(lambda at, of: rod(at, (at[0] + of[0], at[1] + of[1], at[2]), of[2] / 3), spot, size),
)


ROUND = rod((116.5, 0.0, 0.0), (166.9, 44.4, 0.0), 33.3)  # whose end tells its nearest point only roughly


@settings(max_examples=80)
@example([ROUND], 1, 1.0, 2.25)
@given(st.lists(things, min_size=1, max_size=4), st.integers(0, 2), st.sampled_from([-1.0, 1.0]), st.floats(0, 12))
def test_a_remedy_clears_and_is_the_least(around: list[Solid], axis: int, sign: float, need: float) -> None:
    piece = block((0.0, 0.0, 0.0), (120.0, 90.0, 60.0))
    hindrances = [ClearanceConstraint(solid, need, "items/t", "t") for solid in around]
    far = least_travel_mm([piece], hindrances, axis, sign, 2000.0)
    assert far is not None

    def gap(by: float) -> float:
        way = tuple(sign * by if i == axis else 0.0 for i in range(3))
        moved = block(way, tuple(a + b for a, b in zip((120.0, 90.0, 60.0), way, strict=True)))  # type: ignore[arg-type]
        return min(nearest(moved, solid).gap_mm for solid in around)

    assert gap(far) >= need - 0.01
    tried = 0.0
    while tried < far - STEP_MM - 0.02:
        assert gap(tried) < need
        tried += max((far - STEP_MM) / 40, 0.5)
