"""From the assembly to the parts that are cut, each with the mark that is written on it."""

from collections import Counter
from collections.abc import Iterator
from dataclasses import replace
from string import ascii_uppercase, digits

from levelcradle.core.assembly import Assembly, PlacedBox
from levelcradle.core.bar import Bar
from levelcradle.core.box import divider_part
from levelcradle.core.part import FlatPart, Stand

__all__ = ["bars_of", "box_letters", "parts_of"]


def box_letters(assembly: Assembly) -> dict[str, str]:
    """The letter of each box, in their order: A to Z, then AA, AB …"""
    return {box.id: _letter(number) for number, box in enumerate(assembly.in_order())}


def _letter(number: int) -> str:
    more, last = divmod(number, 26)
    return (_letter(more - 1) if more else "") + ascii_uppercase[last]


def parts_of(assembly: Assembly) -> tuple[FlatPart, ...]:
    """Every flat part once, with how many are alike: tray and lid of each box that can be folded, angle and doubler of
    each mount that can stand. A part's mark is the letter of the first box that it belongs to, and a number."""
    alike: dict[tuple[object, ...], list[FlatPart]] = {}
    letters, first = box_letters(assembly), dict[tuple[object, ...], str]()
    for box in assembly.in_order():
        for part in _parts(assembly, box):
            shape: tuple[object, ...] = (
                part.material,
                part.thickness_mm,
                _rounded(part.outline),
                part.holes,
                part.bends,
                part.notes,
            )
            alike.setdefault(shape, []).append(part)
            first.setdefault(shape, letters[box.id])
    numbers: dict[str, int] = {}
    out = []
    for shape, parts in alike.items():
        letter = first[shape]
        numbers[letter] = numbers.get(letter, 0) + 1
        out.append(_together(parts, f"{letter}{numbers[letter]}"))
    return tuple(out)


def bars_of(assembly: Assembly) -> tuple[Bar, ...]:
    """Every bar once, with how many are alike; their marks go on from those of the flat parts."""
    alike: dict[tuple[object, ...], list[Bar]] = {}
    letters = box_letters(assembly)
    numbers = Counter(part.mark.rstrip(digits) for part in parts_of(assembly))
    for box in assembly.in_order():
        for bar in box.shell.made.bars(box.id, box.box.name):
            shape = (bar.material, bar.tube, round(bar.length_mm, 1), bar.ends)
            alike.setdefault(shape, []).append(replace(bar, of=(box.path,)))
    out = []
    for bars in alike.values():
        letter = letters[bars[0].of[0].removeprefix("boxes/")]
        numbers[letter] += 1
        name = bars[0].name if len(bars) == 1 else f"{bars[0].name} and {len(bars) - 1} alike"
        out.append(replace(bars[0], quantity=len(bars), name=name, mark=f"{letter}{numbers[letter]}", each=tuple(bars)))
    return tuple(out)


def _rounded(outline: tuple[tuple[float, float], ...]) -> tuple[tuple[float, float], ...]:
    return tuple((round(x, 6), round(y, 6)) for x, y in outline)


def _together(parts: list[FlatPart], mark: str) -> FlatPart:
    first = parts[0]
    name = first.name if len(parts) == 1 else f"{first.name} and {len(parts) - 1} alike"
    return replace(first, quantity=len(parts), name=name, mark=mark, each=tuple(parts))


def _parts(assembly: Assembly, box: PlacedBox) -> Iterator[FlatPart]:
    of = (box.box.material, assembly.tables.materials[box.box.material])
    plates = [solid for piece in box.shell.pieces if piece.role == "divider" for solid in piece.solids]
    for number, plate in enumerate(plates, 1):
        yield _in_vehicle(divider_part(box.id, box.box.name, number, plate.low, plate.high, of), box)
    for part in box.shell.made.parts(box.id, box.box.name):
        yield _in_vehicle(part, box)
    for mount in box.mounts:
        for part in mount.parts(assembly.tables):
            yield replace(part, of=(box.path, f"mounts/{mount.id}"))


def _in_vehicle(part: FlatPart, box: PlacedBox) -> FlatPart:
    stand = part.stand and Stand(part.stand.root, box.placement.after(part.stand.placement))
    return replace(part, stand=stand, of=(box.path,))
