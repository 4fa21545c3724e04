"""Parts laid out on sheets of stock, so that little is left over: by the rectangles round them."""

from collections.abc import Sequence
from dataclasses import dataclass

from levelcradle.core.part import Flat, FlatPart

__all__ = ["Laid", "Nest", "nests"]

GAP_MM = 8.0  # between two parts, and to the edge of the sheet: kerf and a bridge; common practice, no source


@dataclass(frozen=True, slots=True)
class Laid:
    """A part on a sheet: where the lower left corner of its rectangle comes, and whether it is turned by a quarter."""

    part: FlatPart
    at: Flat
    turned: bool

    def point(self, p: Flat) -> Flat:
        """A point of the part on the sheet."""
        x, y = p[0] - min(q[0] for q in self.part.outline), p[1] - min(q[1] for q in self.part.outline)
        if self.turned:  # to the left, so that nothing is mirrored
            x, y = self.part.size_mm[1] - y, x
        return self.at[0] + x, self.at[1] + y


@dataclass(frozen=True, slots=True)
class Nest:
    """One sheet of stock and what is cut from it; ``full``: how much of it is cut, as a share."""

    material: str
    thickness_mm: float
    stock_mm: Flat
    laid: tuple[Laid, ...]

    @property
    def full(self) -> float:
        return sum(laid.part.area_mm2 for laid in self.laid) / (self.stock_mm[0] * self.stock_mm[1])


def nests(parts: Sequence[FlatPart], stock_mm: Flat, kits: int = 1) -> tuple[list[Nest], list[FlatPart]]:
    """The sheets that all parts are cut from, for so many cars; and the parts that are larger than a sheet."""
    found, left = list[Nest](), list[FlatPart]()
    stocks = dict.fromkeys((part.material_name, part.thickness_mm) for part in parts)
    for material, thickness in stocks:
        mine = [p for p in parts if (p.material_name, p.thickness_mm) == (material, thickness)]
        fits = [p for p in mine if _fits(p, stock_mm)]
        left += [p for p in mine if p not in fits]
        for laid in _packed(fits, stock_mm, kits):
            found.append(Nest(material, thickness, stock_mm, laid))
    return found, left


def _fits(part: FlatPart, stock_mm: Flat) -> bool:
    size, room = sorted(part.size_mm), sorted(v - 2 * GAP_MM for v in stock_mm)
    return size[0] <= room[0] and size[1] <= room[1]


def _packed(parts: Sequence[FlatPart], stock_mm: Flat, kits: int) -> list[tuple[Laid, ...]]:
    """Sizes are whole tenths of a millimetre, rounded up, for the packer compares them."""
    import rectpack

    packer = rectpack.newPacker(rotation=True)
    wide, tall = (int((v - GAP_MM) * 10) for v in stock_mm)
    rows = [part for part in parts for _ in range(part.quantity * kits)]
    for number, part in enumerate(rows):
        packer.add_rect(*(int((v + GAP_MM) * 10) + 1 for v in part.size_mm), rid=number)
    packer.add_bin(wide, tall, count=len(rows) or 1)
    packer.pack()
    found: dict[int, list[Laid]] = {}
    for sheet, x, y, width, _, number in packer.rect_list():
        part = rows[number]
        turned = abs(width - ((part.size_mm[0] + GAP_MM) * 10)) > 1.5
        found.setdefault(sheet, []).append(Laid(part, (x / 10 + GAP_MM, y / 10 + GAP_MM), turned))
    return [tuple(laid) for _, laid in sorted(found.items())]
