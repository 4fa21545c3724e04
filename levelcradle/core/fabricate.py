"""From the assembly to the parts that are cut."""

from collections.abc import Iterator
from dataclasses import replace

from levelcradle.core.assembly import Assembly
from levelcradle.core.box import divider_part
from levelcradle.core.part import FlatPart

__all__ = ["parts_of"]


def parts_of(assembly: Assembly) -> tuple[FlatPart, ...]:
    """Every flat part once, with how many are alike: tray and lid of each box that can be folded, angle and doubler of
    each mount that can stand."""
    alike: dict[tuple[object, ...], list[FlatPart]] = {}
    for part in _parts(assembly):
        shape = (part.material, part.thickness_mm, _rounded(part.outline), part.holes, part.bends, part.notes)
        alike.setdefault(shape, []).append(part)
    return tuple(_together(parts) for parts in alike.values())


def _rounded(outline: tuple[tuple[float, float], ...]) -> tuple[tuple[float, float], ...]:
    return tuple((round(x, 6), round(y, 6)) for x, y in outline)


def _together(parts: list[FlatPart]) -> FlatPart:
    first = parts[0]
    if len(parts) == 1:
        return first
    return replace(first, quantity=len(parts), name=f"{first.name} and {len(parts) - 1} alike")


def _parts(assembly: Assembly) -> Iterator[FlatPart]:
    tables = assembly.tables
    for key, box in sorted(assembly.boxes.items()):
        of = (box.box.material, tables.materials[box.box.material])
        plates = [solid for piece in box.shell.pieces if piece.role == "divider" for solid in piece.solids]
        for number, plate in enumerate(plates, 1):
            yield divider_part(key, box.box.name, number, plate.low, plate.high, of)
        yield from box.shell.made.parts(key, box.box.name)
        for mount in box.mounts:
            yield from mount.parts(tables)
