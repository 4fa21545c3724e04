"""What crossmembers carry, for who inspects them: each with its checks, its sag, and what its two ends must hold."""

from collections.abc import Iterator

from levelcradle.core.mount import CrossmemberResult, crossmember_result
from levelcradle.drawings.sheets.carried import CONFIRM, rounded_use
from levelcradle.drawings.subject import Subject
from levelcradle.drawings.table import Cell, Column, Table

__all__ = ["crossmember_table"]


def crossmember_table(subject: Subject) -> Table:
    """A row what it is, one a check, one its sag, one either end."""
    columns = (
        *(Column("crossmember", 2.6), Column("use", 0.6, 2), Column("pull, N", 0.8, 0), Column("shear, N", 0.8, 0)),
        *(Column("mm", 0.7, 1), Column("worst case, or how it is made", 3.6)),
    )
    rows = [row for result in crossmember_result(subject.assembly) for row in _rows(subject, result)]
    note = f"All boxes on it together, case by case; free to turn at its ends. {CONFIRM}"
    return Table("crossmembers", "Crossmembers", columns, tuple(rows), note)


def _rows(subject: Subject, result: CrossmemberResult) -> Iterator[tuple[Cell, ...]]:
    bar = result.bar
    ends = " to ".join(point.name for point in bar.ends)
    made = f"{bar.section}, {bar.material.name}, {bar.spec.ends} from {ends}"
    carries = ", ".join(box.name for box in result.boxes)
    yield f"{bar.spec.name}: {carries or 'nothing lies on it'}", None, None, None, bar.long_mm, made
    yield from ((f"   {words}", None, None, None, None, "foul") for words, fits in bar.asks(subject.assembly.tables)
                if not fits)  # fmt: skip
    if result.unchecked:
        yield f"   {result.unchecked}", None, None, None, None, "not known"
    for check in result.checks:
        yield f"   {check.check}", rounded_use(check.utilisation), None, None, None, check.case
    if result.sag_mm is not None:
        yield "   sags at rest", None, None, None, result.sag_mm, "at most a five-hundredth of its span"
    for point, demands in zip(bar.ends, result.demands, strict=True):
        if demands:
            pull, shear = max(d.pull_n for d in demands), max(d.shear_n for d in demands)
            yield f"   {point.name} must hold", None, pull, shear, None, "each in its worst case; no margin is claimed"
