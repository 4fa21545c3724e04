"""Stack-up of the critical lines: every allowance along the line with least to spare, each way through each box."""

from levelcradle.core.assembly import PlacedBox
from levelcradle.drawings.sheets.inside import WAYS
from levelcradle.drawings.subject import Subject
from levelcradle.drawings.table import Cell, Column, Table

__all__ = ["stack_table"]


def stack_table(subject: Subject, letter: str, box: PlacedBox) -> Table:
    columns = (
        *(Column("line", 1.0), Column("what", 2.8), Column("length", 1.0, 1, "taped"), Column("±", 0.8, 1, "fine")),
        Column("set by", 3.0),
    )
    rows: list[tuple[Cell, ...]] = []
    for way, words in WAYS:
        chain = subject.stack_up(box, way)
        if chain is None:
            continue
        rows.append((words, f"from {chain.ends[0].name}", None, None, ""))
        rows += [("", row.what, row.mm, row.tol_mm or None, row.source) for row in chain.rows]
        rows.append(("", f"to {chain.ends[1].name}", None, None, ""))
        rows.append(("", "asked, in all", chain.asked_mm, chain.worst_mm, "worst case, which decides"))
        rows.append(("", "there", chain.there_mm, chain.root_mm, "± by the root of the squares, beside it"))
        state = "not known" if chain.state == "unknown" else chain.state
        rows.append(("", "to spare", chain.spare_mm, None, state))
    return Table(f"stack-up-{letter.lower()}", f"Box {letter}, stack-up: {box.name}", columns, tuple(rows))
