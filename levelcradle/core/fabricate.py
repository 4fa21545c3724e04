"""From the assembly to the parts that are cut, each with the mark that is written on it."""

from collections import Counter
from collections.abc import Iterable, Iterator
from dataclasses import replace
from string import ascii_uppercase, digits
from typing import Literal, TypeVar

from levelcradle.core.assembly import Assembly, PlacedBox
from levelcradle.core.bar import Bar
from levelcradle.core.box import divider_part, notched
from levelcradle.core.connection import bolt_bought, spot_of
from levelcradle.core.design.mount import OnHardPoint
from levelcradle.core.mount import bolted, drilled
from levelcradle.core.part import FlatPart, Stand

__all__ = ["bars_of", "bought_for_crossmembers", "box_letters", "parts_of"]


def box_letters(assembly: Assembly) -> dict[str, str]:
    """The letter of each box, in their order: A to Z, then AA, AB …"""
    return {box.id: _letter(number) for number, box in enumerate(assembly.in_order())}


def _letter(number: int) -> str:
    more, last = divmod(number, 26)
    return (_letter(more - 1) if more else "") + ascii_uppercase[last]


def parts_of(assembly: Assembly) -> tuple[FlatPart, ...]:
    """Every flat part once, with how many are alike: what each box and each mount that can stand is cut from. A part's
    mark is the letter of the first box that it belongs to, and a number."""
    alike: dict[tuple[object, ...], list[FlatPart]] = {}
    for box in assembly.in_order():
        for part in _parts(assembly, box):
            part = _rolled(assembly, part)
            outline = tuple((round(x, 6), round(y, 6)) for x, y in part.outline)
            shape = (part.material, part.thickness_mm, outline, part.holes, part.bends, part.notes, part.cutouts)
            alike.setdefault(shape, []).append(part)
    return tuple(_marked(assembly, alike.values(), Counter()))


def _rolled(assembly: Assembly, part: FlatPart) -> FlatPart:
    """Across its bends, where a sheet cracks along its rolling direction and all run one way."""
    row, ways = assembly.tables.materials.get(part.material), part.bends_run
    if row is None or row.grain != "yes" or len(ways) != 1:
        return part
    rolled: Literal["across", "up"] = "up" if "across" in ways else "across"
    words = "Rolling direction across the bends: it is nested that way"
    return replace(part, rolled=rolled, notes=(*part.notes, words))


def bars_of(assembly: Assembly) -> tuple[Bar, ...]:
    """Every bar once, with how many are alike; their marks go on from those of the flat parts."""
    alike: dict[tuple[object, ...], list[Bar]] = {}
    for box in assembly.in_order():
        for bar in box.shell.made.bars(box.id, box.box.name):
            shape = (bar.material, bar.section, round(bar.length_mm, 1), bar.ends)
            alike.setdefault(shape, []).append(replace(bar, of=(box.path,)))
    for across in assembly.crossmembers.values():
        if not across.unfit:
            bar = replace(across.bar(list(drilled(assembly, across))), of=(across.path,))
            alike.setdefault((bar.material, bar.section, round(bar.length_mm, 1), bar.ends), []).append(bar)
    taken = Counter(part.mark.rstrip(digits) for part in parts_of(assembly)) if alike else Counter[str]()
    return tuple(_marked(assembly, alike.values(), taken))


def bought_for_crossmembers(assembly: Assembly) -> Iterator[tuple[str, str]]:
    """(what, for which) of the bolts and sleeves at the ends of crossmembers."""
    for bar in assembly.crossmembers.values():
        for key in bar.spec.hardpoints if bar.spec.ends == "bolted" and not bar.unfit else ():
            on = OnHardPoint(hardpoint=key, bolt=bar.spec.bolt)
            yield bolt_bought(on, spot_of(on, assembly.design), bar.through_mm, assembly.tables), bar.spec.name
            if bar.spec.section == "tube" and bar.spec.sleeve:
                inside = bar.spec.size_mm - 2 * bar.spec.wall_mm
                yield f"sleeve for {bar.spec.bolt.size}, {inside:g} long", bar.spec.name
    for mount in (mount for box in assembly.in_order() for mount in box.mounts):
        through = bolted(mount)
        if through is None or not through.sleeve:
            continue
        spec = assembly.crossmembers[through.crossmember].spec
        if spec.section == "tube":
            yield f"sleeve for {through.bolt.size}, {spec.size_mm - 2 * spec.wall_mm:g} long", spec.name


NOTCH_MM = 6.0  # round a tab, for its welds: common practice, no source
Made = TypeVar("Made", FlatPart, Bar)
CROSSMEMBERS = "CM"
"""What their marks begin with."""


def _marked(assembly: Assembly, alike: Iterable[list[Made]], taken: Counter[str]) -> Iterator[Made]:
    """Of those that are alike one, with all of them and its mark. ``taken``: how many marks each letter has."""
    letters = {f"boxes/{key}": letter for key, letter in box_letters(assembly).items()}
    letters |= {bar.path: CROSSMEMBERS for bar in assembly.crossmembers.values()}
    for each in alike:
        first, letter = each[0], letters[each[0].of[0]]
        taken[letter] += 1
        name = first.name if len(each) == 1 else f"{first.name} and {len(each) - 1} alike"
        yield replace(first, quantity=len(each), name=name, mark=f"{letter}{taken[letter]}", each=tuple(each))


def _parts(assembly: Assembly, box: PlacedBox) -> Iterator[FlatPart]:
    of = (box.box.material, assembly.tables.materials[box.box.material])
    plates = [solid for piece in box.shell.pieces if piece.role == "divider" for solid in piece.solids]
    for number, plate in enumerate(plates, 1):
        yield _in_vehicle(divider_part(box.id, box.box.name, number, plate.low, plate.high, of), box)
    tabs = [p.solid.moved(box.placement.inverse) for m in box.mounts if m.on_tube for p in m.pieces if p.on_wall]
    for part in box.shell.parts(box.id, box.box.name):
        yield _in_vehicle(notched(part, tabs, NOTCH_MM), box)
    for mount in box.mounts:
        for part in mount.parts(assembly.tables):
            yield replace(part, of=(box.path, f"mounts/{mount.id}"))
    for part in box.shell.held.parts(box.id, box.box.name):
        yield _in_vehicle(part, box)
    for chamber in box.shell.chambers:
        for part in chamber.parts(box.id, box.box.name):
            yield _in_vehicle(part, box)


def _in_vehicle(part: FlatPart, box: PlacedBox) -> FlatPart:
    stand = part.stand and Stand(part.stand.root, box.placement.after(part.stand.placement))
    return replace(part, stand=stand, of=(box.path,))
