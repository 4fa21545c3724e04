"""Signs drawn by us, by the meaning that ISO 7010 gives them: a triangle warns of what stands in it."""

from levelcradle.drawings.sheet import Point, Sheet

__all__ = ["ahead", "live", "no_hands", "weight"]

# in a triangle of side 1, its base at 0 and its tip at 0.866
BOLT = ((0.54, 0.66), (0.40, 0.36), (0.50, 0.39), (0.44, 0.12), (0.60, 0.46), (0.50, 0.43))
KILOGRAMS = ((0.36, 0.14), (0.64, 0.14), (0.58, 0.40), (0.42, 0.40))
EDGE_MM = 0.7


def _triangle(sheet: Sheet, at: Point, side_mm: float) -> None:
    x, y = at
    sheet.outline([(x, y), (x + side_mm, y), (x + side_mm / 2, y + 0.866 * side_mm)], EDGE_MM)


def _inside(sheet: Sheet, at: Point, side_mm: float, shape: tuple[Point, ...]) -> None:
    sheet.outline([(at[0] + u * side_mm, at[1] + v * side_mm) for u, v in shape], 0.25, fill="#000")


def live(sheet: Sheet, at: Point, side_mm: float) -> None:
    """Electricity (W012): a bolt in the triangle; ``at`` is its lower left corner."""
    _triangle(sheet, at, side_mm)
    _inside(sheet, at, side_mm, BOLT)


def weight(sheet: Sheet, at: Point, side_mm: float) -> None:
    """Heavy: a weight with its ring in the triangle."""
    _triangle(sheet, at, side_mm)
    _inside(sheet, at, side_mm, KILOGRAMS)
    sheet.ring((at[0] + 0.5 * side_mm, at[1] + 0.46 * side_mm), 0.055 * side_mm, 0.5)


def no_hands(sheet: Sheet, at: Point, side_mm: float) -> None:
    """Do not open (a ring with a bar, the form of a prohibition): ``at`` is its lower left corner."""
    r = side_mm * 0.433
    x, y = at[0] + side_mm / 2, at[1] + r
    sheet.ring((x, y), r, EDGE_MM)
    sheet.line((x - 0.7 * r, y + 0.7 * r), (x + 0.7 * r, y - 0.7 * r), weight_mm=EDGE_MM)
    sheet.outline(
        [
            (x - 0.45 * r, y - 0.3 * r),
            (x + 0.45 * r, y - 0.3 * r),
            (x + 0.45 * r, y + 0.1 * r),
            (x - 0.45 * r, y + 0.1 * r),
        ],
        0.35,
    )
    sheet.line((x - 0.45 * r, y + 0.1 * r), (x + 0.25 * r, y + 0.55 * r), weight_mm=0.35)


def ahead(sheet: Sheet, at: Point, long_mm: float) -> None:
    """An arrow to the right, beginning at a point."""
    x, y = at
    sheet.line((x, y), (x + long_mm, y), weight_mm=EDGE_MM)
    sheet.line((x + long_mm - 3, y + 2), (x + long_mm, y), (x + long_mm - 3, y - 2), weight_mm=EDGE_MM)
