"""Where the terminals of a module are drawn."""

from collections.abc import Iterator

from levelcradle.core.axes import Vec

__all__ = ["terminal_plates"]

PLATE_MM = 9.0


def terminal_plates(low: Vec, high: Vec, way: int) -> Iterator[tuple[str, Vec, Vec]]:
    """(sign, low, high) of two plates on the terminal face, a quarter in from either end of its longer edge.

    ``way``: which face of the box the terminals look at, in the order front, aft, left, right, down, up. Where on the
    face they really sit is not asked for: drawn so, common practice, no source.
    """
    axis, outer = way // 2, way % 2
    across = max((i for i in range(3) if i != axis), key=lambda i: high[i] - low[i])
    third = 3 - axis - across
    for sign, share in (("+", 0.25), ("−", 0.75)):
        a, b = list(low), list(high)
        a[axis], b[axis] = (high[axis] - PLATE_MM, high[axis]) if outer else (low[axis], low[axis] + PLATE_MM)
        middle = low[across] + share * (high[across] - low[across])
        a[across], b[across] = middle - 12, middle + 12
        centre = (low[third] + high[third]) / 2
        a[third], b[third] = centre - 12, centre + 12
        yield sign, (a[0], a[1], a[2]), (b[0], b[1], b[2])
