"""Load cases and gaps that every new design copies: stated in a national low-volume set (from memory) or common
practice with no source. A case is one throw with the weight in it: upside down the weight adds, 10 + 1 = 11."""

import pytest

from levelcradle.core.design import standard_tables

TABLES = standard_tables()


@pytest.mark.parametrize(
    ("case", "throw"),
    [("front", (-20, 0, -1)), ("rear", (10, 0, -1)), ("side-right", (0, 15, -1)), ("side-left", (0, -15, -1)),
     ("down", (0, 0, -11)), ("roll-over", (0, 0, 11)), ("bump", (0, 0, -3)), ("rebound", (0, 0, 1)), ("brake", (-1, 0,
     -1))],
)  # fmt: skip
def test_throws(case: str, throw: tuple[float, ...]) -> None:
    row = TABLES.load_cases[case]
    assert (row.aft_g, row.right_g, row.up_g) == throw


def test_gap_classes() -> None:
    """6, 15, 20, 25, 25, 75, 90 mm: common practice, no source."""
    needs = [TABLES.gaps[name].need_mm for name in ("same", "other", "moving", "axle", "warm", "hot", "hand")]  # type: ignore[index]
    assert needs == [6, 15, 20, 25, 25, 75, 90]
    assert all("no source" in row.source for row in TABLES.gaps.values())
