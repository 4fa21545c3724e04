"""Pieces on sheets by the rectangles round them: quick, and as good as any where they are rectangles."""

from collections.abc import Sequence

from levelcradle.core.nesting.spot import Spot
from levelcradle.core.part import Flat, FlatPart

__all__ = ["by_rectangles"]


def by_rectangles(pieces: Sequence[FlatPart], stock_mm: Flat, gap_mm: float) -> list[list[Spot]]:
    """Sheets that pieces lie on, each with what lies on it. Sizes are whole tenths of a millimetre, rounded up, for the
    packer compares them."""
    import rectpack

    packer = rectpack.newPacker(rotation=True)
    wide, tall = (int((v - gap_mm) * 10) for v in stock_mm)
    for number, part in enumerate(pieces):
        packer.add_rect(*(int((v + gap_mm) * 10) + 1 for v in part.size_mm), rid=number)
    packer.add_bin(wide, tall, count=len(pieces) or 1)
    packer.pack()
    found: dict[int, list[Spot]] = {}
    for sheet, x, y, width, _, number in packer.rect_list():
        turned = abs(width - ((pieces[number].size_mm[0] + gap_mm) * 10)) > 1.5
        found.setdefault(sheet, []).append(Spot(number, (x / 10 + gap_mm, y / 10 + gap_mm), int(turned)))
    return [spots for _, spots in sorted(found.items())]
