"""What a leaning wall gives, and how tolerances add up."""

import math

import pytest

from levelcradle.core.fit import wedge_travel_mm
from levelcradle.core.tolerances import tolerance_by


@pytest.mark.parametrize(("angle", "travel"), [(66.0, 2.246), (71.0, 2.90421)])
def test_travel_won_along_a_wall(angle: float, travel: float) -> None:
    """Trigonometry; the rule of thumb 2.904 at 71° is the trade's (common practice, no source)."""
    assert wedge_travel_mm(angle) == pytest.approx(travel, rel=2e-4)
    assert 12 * wedge_travel_mm(71) == pytest.approx(34.8505, rel=1e-4)


ISO_2768_M = {2: 0.1, 5: 0.1, 30: 0.2, 31: 0.3, 120: 0.3, 226: 0.5, 400: 0.5, 612: 0.8, 1000: 0.8, 1500: 1.2, 3000: 2.0}
ISO_13920 = {
    "A": {30: 1, 120: 1, 400: 1, 401: 2, 1000: 2, 1500: 3, 3000: 4},
    "B": {30: 1, 31: 2, 400: 2, 401: 3, 1000: 3, 1500: 4, 3000: 6},
    "C": {30: 1, 31: 3, 400: 4, 401: 6, 1000: 6, 1500: 8, 3000: 11},
    "D": {30: 1, 31: 4, 400: 7, 401: 9, 1000: 9, 1500: 12, 3000: 16},
}


def test_general_tolerances() -> None:
    """ISO 2768-1 table 1 class m and ISO 13920 table 1, all from memory."""
    for length, tol in ISO_2768_M.items():
        assert tolerance_by("cut", length)[0] == tol
    for kind, rows in ISO_13920.items():
        for length, tol in rows.items():
            assert tolerance_by(f"welded {kind}", length)[0] == tol


def test_root_of_squares_of_the_tank_boxs_chain_by_hand() -> None:
    """3, 0.1, 0.5, 0.5, 0.1, 1, 0.8, 3: the root of the sum of squares."""
    from levelcradle.core.assembly import resolve
    from levelcradle.core.clearance import stack_up
    from levelcradle.demo import demo_design

    chain = stack_up(resolve(demo_design(), {}), "tank", "up")
    tols = [3, 0.1, 0.5, 0.5, 0.1, 1, 0.8, 3]
    assert sorted(r.tol_mm for r in chain.rows if r.tol_mm) == sorted(tols)
    assert chain.root_mm == pytest.approx(math.sqrt(sum(t * t for t in tols)))
