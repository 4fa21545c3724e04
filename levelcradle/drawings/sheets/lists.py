"""What is cut, bought and landed on: the tables of the pack."""

import math
from collections import Counter
from collections.abc import Iterator

from levelcradle.core.bar import Bar
from levelcradle.core.design.tables import Material
from levelcradle.core.fabricate import bought_for_crossmembers
from levelcradle.core.nesting import Nest, StockBar
from levelcradle.core.part import FlatPart
from levelcradle.drawings.names import file_stem
from levelcradle.drawings.sheets.lined import liners_bought
from levelcradle.drawings.subject import Subject
from levelcradle.drawings.table import Cell, Column, Table

__all__ = ["buying_list", "cut_list", "member_list"]


Bought = tuple[str, int | None, float | None, str]


def cut_list(subject: Subject) -> Table:
    """One row a part."""
    columns = (
        Column("mark", 0.7),
        Column("name", 2.6),
        Column("off", 0.5, 0),
        Column("material", 1.6),
        Column("thick", 1.0, 1, "fine"),
        Column("blank", 1.2, 1, "taped"),
        Column("by", 1.2, 1, "taped"),
        Column("bends", 0.7, 0),
        Column("holes", 0.7, 0),
        Column("kg each", 0.9, 3),
        Column("goes to", 3.0),
        Column("file", 0),
    )
    kits = subject.assembly.design.sheets.kits
    rows = tuple(_cut_row(part, kits) for part in subject.parts)
    return Table("cut-list", f"Cut list{subject.for_cars}", columns, rows, "Files: the same name with .dxf and .svg")


def _cut_row(part: FlatPart, kits: int) -> tuple[Cell, ...]:
    wide, tall = part.size_mm
    goes = ", ".join(one.name for one in part.each) if part.quantity > 1 else ""
    return (
        *(part.mark, part.each[0].name if part.each else part.name, part.quantity * kits, part.material_name),
        *(part.thickness_mm, wide, tall, len(part.bends), len(part.holes), part.mass_kg, goes, file_stem(part)),
    )


def member_list(subject: Subject) -> Table:
    """What of the vehicle is landed on."""
    columns = (
        *(Column("member", 2.0), Column("section mm", 1.0), Column("length", 0.8, 1, "taped"), Column("material", 1.0)),
        *(Column("condition", 1.0), Column("carries", 2.0)),
    )
    rows: list[tuple[Cell, ...]] = []
    for key, member in sorted(subject.assembly.design.members.items(), key=lambda row: row[1].name):
        carries = [m.mount.name for _, box in subject.boxes for m in box.mounts if m.spot.path == f"members/{key}"]
        section = f"{member.width_mm:g} × {member.height_mm:g}" + (f" × {member.wall_mm:g}" if member.wall_mm else "")
        length = math.dist(member.start_mm, member.end_mm)
        rows.append((member.name, section, length, member.material or "", member.condition, ", ".join(carries)))
    return Table("member-list", "Members of the vehicle", columns, tuple(rows))


def buying_list(subject: Subject) -> Table:
    """Fasteners, sheet and modules, with how many and what for."""
    columns = [Column("what", 2.6), Column("how many", 0.8, 0), Column("kg", 0.8, 1), Column("for", 3.2)]
    chosen = subject.assembly.design.sheets
    each = [*_bolts(subject), *_together(subject), *_sheet(subject), *_tube(subject), *_modules(subject)]
    rows: list[tuple[Cell, ...]] = []
    rows += [(what, n and n * chosen.kits, kg and kg * chosen.kits, goes) for what, n, kg, goes in each]
    bought = [*_stock(subject), *((what, None, None, how, price) for what, how, price in liners_bought(subject))]
    note = "Sheet and tube are the parts' own; the stock they are cut from is in the last rows"
    if any(price is not None for *_, price in bought):
        columns.append(Column(f"price {chosen.currency}".strip(), 0.9, 2))
        rows = [*((*row, None) for row in rows), *bought]
        rows.append(("what has a price, together", None, None, "", sum(price or 0.0 for *_, price in bought)))
    else:
        rows += [row[:-1] for row in bought]
    return Table("buying-list", f"Fasteners and buying list{subject.for_cars}", tuple(columns), tuple(rows), note)


def _bolts(subject: Subject) -> Iterator[Bought]:
    found: dict[str, list[str]] = {}
    for _, box in subject.boxes:
        for mount in box.mounts:
            for what in () if mount.unfit else mount.bought():
                found.setdefault(what, []).append(mount.mount.name)
    for what, name in bought_for_crossmembers(subject.assembly):
        found.setdefault(what, []).append(name)
    for what, names in sorted(found.items()):
        yield what, len(names), None, ", ".join(dict.fromkeys(names))


def _together(subject: Subject) -> Iterator[Bought]:
    """What holds the boxes together, and what sits in their openings."""
    for letter, box in subject.boxes:
        fitted = Counter(hole.fitted.words for hole in box.box.openings.values() if hole.fitted)
        for what, count in (*box.shell.bought(), *sorted(fitted.items())):
            yield what, count, None, f"box {letter}, {box.name}"


def _tube(subject: Subject) -> Iterator[Bought]:
    """Metres of each section."""
    sections: dict[tuple[str, str], list[Bar]] = {}
    for bar in subject.bars:
        sections.setdefault((str(bar.section), bar.material_name), []).append(bar)
    for (tube, material), bars in sorted(sections.items()):
        metres = sum(bar.length_mm * bar.quantity for bar in bars) / 1000
        kg = sum(bar.mass_kg * bar.quantity for bar in bars)
        yield f"{tube}, {material}, {metres:.2f} m", None, kg, ", ".join(bar.mark for bar in bars)


def _sheet(subject: Subject) -> Iterator[Bought]:
    masses: dict[tuple[str, float], float] = {}
    marks: dict[tuple[str, float], list[str]] = {}
    for part in subject.parts:
        key = (part.material_name, part.thickness_mm)
        masses[key] = masses.get(key, 0.0) + part.mass_kg * part.quantity
        marks.setdefault(key, []).append(part.mark)
    for (material, thick), kg in sorted(masses.items()):
        yield f"{material}, {thick:g} mm", None, kg, ", ".join(marks[material, thick])


def _stock(subject: Subject) -> Iterator[tuple[str, int | None, float | None, str, float | None]]:
    """Whole sheets and lengths to buy, how much of them is used, and what they cost."""
    job, metals = subject.job, {row.name: row for row in subject.assembly.tables.materials.values()}
    of_sheet: dict[str, list[Nest]] = {}
    for nest in subject.nested[0]:
        size = " × ".join(job.length(v) for v in nest.stock_mm)
        of_sheet.setdefault(f"sheet {size}, {nest.material}, {nest.thickness_mm:g} mm", []).append(nest)
    for what, nested in of_sheet.items():
        metal, full = metals[nested[0].material], sum(nest.full for nest in nested) / len(nested)
        volume = sum(math.prod(nest.stock_mm) * nest.thickness_mm for nest in nested)
        yield what, len(nested), None, f"stock, {100 * full:.0f} % used", _price(metal, volume)
    of_bar: dict[str, list[StockBar]] = {}
    for one in subject.sawn[0]:
        of_bar.setdefault(f"{one.section}, {one.material_name}, {job.length(one.stock_mm)} long", []).append(one)
    for what, bars in of_bar.items():
        used = 1 - sum(one.left_mm for one in bars) / sum(one.stock_mm for one in bars)
        kg = sum(one.cuts[0].mass_kg / one.cuts[0].length_mm * one.stock_mm for one in bars)
        price = metals[bars[0].material_name].price_per_kg
        yield what, len(bars), None, f"stock, {100 * used:.0f} % used", price and price * kg


def _price(metal: Material, mm3: float) -> float | None:
    return metal.price_per_kg and metal.price_per_kg * mm3 * metal.density_kg_m3 * 1e-9


def _modules(subject: Subject) -> Iterator[Bought]:
    for letter, box in subject.boxes:
        for name, count in sorted(Counter(m.spec.name for m in box.shell.modules).items()):
            mass = sum(m.spec.mass_kg for m in box.shell.modules if m.spec.name == name)
            yield name, count, mass, f"box {letter}, {box.name}"
