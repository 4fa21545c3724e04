"""What is sawn: each kind of bar, and which come from which length of stock."""

import itertools

from levelcradle.core.bar import Bar
from levelcradle.core.nesting import StockBar
from levelcradle.drawings.border import Job
from levelcradle.drawings.subject import Subject
from levelcradle.drawings.table import Cell, Column, Table

__all__ = ["saw_list", "saw_plan"]


def saw_list(subject: Subject) -> Table:
    """One row a kind of bar."""
    columns = (
        *(Column("mark", 0.6), Column("name", 2.6), Column("off", 0.5, 0), Column("section", 1.8)),
        *(Column("material", 1.0), Column("length", 1.0, 1, "taped"), Column("ends", 1.0), Column("kg each", 0.8, 3)),
        Column("goes to", 3.0),
    )
    kits = subject.assembly.design.sheets.kits
    rows = tuple(_bar_row(bar, kits) for bar in subject.bars)
    return Table(
        "saw-list", f"Saw list{subject.for_cars}", columns, rows, "Lengths over all; the saw's cut is not in them"
    )


def _bar_row(bar: Bar, kits: int) -> tuple[Cell, ...]:
    goes = ", ".join(one.name for one in bar.each) if bar.quantity > 1 else ""
    ends = f"both {bar.ends[0]}" if len(set(bar.ends)) == 1 else ", the other ".join(bar.ends)
    return (
        *(bar.mark, bar.each[0].name, bar.quantity * kits, str(bar.section), bar.material_name, bar.length_mm),
        *(ends, bar.mass_kg, goes),
    )


def saw_plan(subject: Subject) -> Table:
    """One row a length of stock: what is sawn from it, one after another, and what is left."""
    columns = (
        *(Column("stock", 0.5, 0), Column("section", 1.8), Column("material", 1.0), Column("long", 0.9, 1, "taped")),
        *(Column("saw off, in turn", 4.6), Column("left", 0.9, 1, "taped")),
    )
    chosen = subject.assembly.design.sheets
    found, left = subject.sawn
    rows: list[tuple[Cell, ...]] = [
        (n, str(one.section), one.material_name, one.stock_mm, _in_turn(one, subject.job), one.left_mm)
        for n, one in enumerate(found, 1)
    ]
    rows += [
        (None, str(bar.section), bar.material_name, bar.length_mm, f"{bar.mark} is longer than a stock", None)
        for bar in left
    ]
    note = f"A cut takes {subject.job.length(chosen.saw_mm)}. The fewest lengths found; each begins at a square end"
    return Table("saw-plan", f"Saw plan{subject.for_cars}", columns, tuple(rows), note)


def _in_turn(stock: StockBar, job: Job) -> str:
    """Alike ones that follow each other told once."""
    groups = [(bar, len(list(rows))) for bar, rows in itertools.groupby(stock.cuts)]
    return ", ".join(f"{n} × {bar.mark} {job.length(bar.length_mm)}" for bar, n in groups)
