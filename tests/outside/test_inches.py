"""Inch fractions against the inch of 25.4 mm exactly (international yard and pound agreement, 1959) and a general
unit library's pound; the fractions are the decimal equivalents printed on every drill chart."""

import pytest
from scipy.constants import foot, inch, lb

from levelcradle.core.quantity import read, write_length


@pytest.mark.parametrize(
    ("fraction", "decimal"),
    [("1/32", 0.03125), ("3/32", 0.09375), ("5/32", 0.15625), ("3/16", 0.1875), ("7/32", 0.21875), ("9/32", 0.28125),
     ("5/16", 0.3125), ("3/8", 0.375), ("7/16", 0.4375), ("17/32", 0.53125), ("9/16", 0.5625), ("5/8", 0.625),
     ("11/16", 0.6875), ("23/32", 0.71875), ("13/16", 0.8125), ("7/8", 0.875), ("31/32", 0.96875)],
)  # fmt: skip
def test_drill_chart(fraction: str, decimal: float) -> None:
    assert read(fraction, "length", "in") == pytest.approx(decimal * 25.4, rel=1e-12)
    assert write_length(decimal * 25.4, "in") == f'{fraction}"'


def test_units_of_the_library_of_constants() -> None:
    assert read("1 in") == pytest.approx(inch * 1000)
    assert read("1 ft") == pytest.approx(foot * 1000)
    assert read("1 lb", "mass") == pytest.approx(lb)
