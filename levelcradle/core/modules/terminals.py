"""Where the terminals of a module are drawn."""

from collections.abc import Iterator, Sequence

from levelcradle.core.axes import Vec
from levelcradle.core.design.base import ModuleFace
from levelcradle.core.design.stock import ModuleKind

__all__ = ["terminal_plates"]

PLATE_MM, HALF_MM = 9.0, 12.0


def terminal_plates(
    low: Vec, high: Vec, looks: Sequence[ModuleFace], kind: ModuleKind
) -> Iterator[tuple[str, Vec, Vec]]:
    """(sign, low, high) of two plates, each on its face of a module between two corners.

    ``looks``: which face looks front, aft, left, right, down, up. A quarter in from the ends of the face's longer edge,
    the plus towards the face that it was said to stand towards; where on the face they really sit is not asked for, so
    this is how they are drawn, no more.
    """
    for sign, face in (("+", kind.terminals), ("−", kind.minus or kind.terminals)):
        yield _plate(sign, low, high, looks.index(face), _across(low, high, looks, face, kind))


def _across(low: Vec, high: Vec, looks: Sequence[ModuleFace], face: ModuleFace, kind: ModuleKind) -> tuple[int, bool]:
    """The axis along which the two stand apart, and whether the plus is at its upper end."""
    axis = looks.index(face) // 2
    if kind.plus_towards is not None:
        towards = looks.index(kind.plus_towards)
        if towards // 2 != axis:
            return towards // 2, towards % 2 == 1
    return max((i for i in range(3) if i != axis), key=lambda i: high[i] - low[i]), False


def _plate(sign: str, low: Vec, high: Vec, way: int, apart: tuple[int, bool]) -> tuple[str, Vec, Vec]:
    axis, (across, plus_is_high) = way // 2, apart
    third = 3 - axis - across
    share = 0.75 if (sign == "+") == plus_is_high else 0.25
    a, b = list(low), list(high)
    a[axis], b[axis] = (high[axis] - PLATE_MM, high[axis]) if way % 2 else (low[axis], low[axis] + PLATE_MM)
    for i, middle in (
        (across, low[across] + share * (high[across] - low[across])),
        (third, (low[third] + high[third]) / 2),
    ):
        a[i], b[i] = middle - HALF_MM, middle + HALF_MM
    return sign, (a[0], a[1], a[2]), (b[0], b[1], b[2])
