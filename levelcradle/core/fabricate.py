"""From the assembly to the parts that are cut."""

from collections.abc import Iterator

from levelcradle.core.assembly import Assembly
from levelcradle.core.box import lid_part, makeable, tray_part
from levelcradle.core.bracket import bracket_parts
from levelcradle.core.errors import UnknownThing
from levelcradle.core.part import FlatPart

__all__ = ["part_named", "parts_of"]


def parts_of(assembly: Assembly) -> tuple[FlatPart, ...]:
    """Every flat part: tray and lid of each box that can be folded, angle and doubler of each mount that can stand."""
    return tuple(_parts(assembly))


def part_named(assembly: Assembly, name: str) -> FlatPart:
    """Raises UnknownThing."""
    for part in parts_of(assembly):
        if part.id == name:
            return part
    raise UnknownThing("part", name)


def _parts(assembly: Assembly) -> Iterator[FlatPart]:
    tables = assembly.design.tables
    for key, box in sorted(assembly.boxes.items()):
        shell, material = box.shell, tables.materials[box.box.material]
        if all(row.has_mm >= row.needs_mm for row in makeable(box.box, shell.outer_mm)):
            yield tray_part(key, box.box, shell.outer_mm, material)
            yield lid_part(key, box.box, shell.outer_mm, shell.over_lid_mm, material)
        for mount in box.mounts:
            if mount.frame is not None and mount.pieces and mount.frame.c_mm > mount.mount.bracket.thickness_mm:
                yield from bracket_parts(mount.id, mount.mount, mount.frame.c_mm, box.box.name, box.box.material, tables)
