"""One tier of identical rectangles against published pallet loading cases.

Source: hard "Cover II" cases of the pallet loading literature (from memory); each optimum is also the area bound, and
was reached by a layout that was checked. A pinwheel is needed in the second list, where cuts from edge to edge stay one
to three short."""

import pytest

from levelcradle.core.fit import Tile, pack_tier

HARD = {  # length, width, piece length, piece width: optimum
    (43, 26, 7, 3): 53, (49, 28, 8, 3): 57, (57, 34, 7, 4): 69, (63, 44, 8, 5): 69, (61, 35, 10, 3): 71, (67, 37, 11,
    3): 75,
    (67, 40, 11, 3): 81, (61, 38, 6, 5): 77, (61, 38, 10, 3): 77, (74, 49, 11, 4): 82, (93, 46, 13, 4): 82, (106, 59,
    13, 5): 96,
    (141, 71, 13, 8): 96,
}  # fmt: skip
PINWHEELS = {
    (96, 37, 10, 7): 50, (83, 32, 17, 5): 31, (59, 37, 15, 7): 20, (78, 78, 15, 8): 50, (40, 25, 7, 3): 47, (22, 16, 5,
    3): 23,
    (12, 10, 5, 2): 12,
}  # fmt: skip


def count(case: tuple[int, int, int, int], **how: int) -> int:
    """How many were packed, each of them checked to lie in the room and on no other."""
    length, width, a, b = case
    tiles = pack_tier(*case, **how)
    rows = [_corners(t, a, b) for t in tiles]
    for x0, y0, x1, y1 in rows:
        assert x0 >= 0
        assert y0 >= 0
        assert x1 <= length + 1e-9
        assert y1 <= width + 1e-9
    for i, one in enumerate(rows):
        for two in rows[:i]:
            assert (
                one[2] <= two[0] + 1e-9 or two[2] <= one[0] + 1e-9 or one[3] <= two[1] + 1e-9 or two[3] <= one[1] + 1e-9
            )
    return len(tiles)


def _corners(t: Tile, a: float, b: float) -> tuple[float, float, float, float]:
    along, wide = (b, a) if t.across else (a, b)
    return t.x, t.y, t.x + along, t.y + wide


@pytest.mark.parametrize(("case", "best"), HARD.items())
def test_the_hard_cases_at_their_optimum(case: tuple[int, int, int, int], best: int) -> None:
    assert count(case) == best


@pytest.mark.parametrize(("case", "best"), HARD.items())
def test_the_hard_cases_are_one_short_at_most_without_staircase_cuts(
    case: tuple[int, int, int, int], best: int
) -> None:
    assert count(case, steps=0) >= best - 1


@pytest.mark.parametrize(("case", "best"), PINWHEELS.items())
def test_the_pinwheel_cases(case: tuple[int, int, int, int], best: int) -> None:
    assert count(case, steps=0) == best


def test_a_plain_grid_both_ways() -> None:
    """300 × 150 in 1180 × 760: 15 along, 14 across, 19 by area (arithmetic); mixed turns lie between."""
    assert 15 <= count((1180, 760, 300, 150)) <= 19
