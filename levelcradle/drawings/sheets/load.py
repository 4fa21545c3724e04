"""The load statement: what each axle and wheel carries before and after, and every mass that makes the difference."""

from levelcradle.core.level import WheelLoads
from levelcradle.drawings.subject import Subject
from levelcradle.drawings.table import Cell, Column, Table

__all__ = ["load_statement", "mass_list"]


def load_statement(subject: Subject) -> Table:
    """A row a state of the car, and the ratings."""
    columns = (
        *(Column("state", 2.4), Column("front kg", 0.9, 1), Column("± kg", 0.6, 1), Column("rear kg", 0.9, 1)),
        *(
            Column("± kg", 0.6, 1),
            Column("total kg", 0.9, 1),
            Column("front %", 0.8, 1),
            Column("CG aft", 1.0, 1, "taped"),
        ),
        *(Column("CG R", 1.0, 1, "taped"), Column("CG up", 1.0, 1, "taped")),
    )
    level, ratings = subject.analysis.level, subject.assembly.design.vehicle.ratings
    rows: list[tuple[Cell, ...]] = []
    if level.found:
        rows.append(_row("as found", level.found))
    if level.ready:
        rows.append(_row("ready, nobody aboard", level.ready))
    rows += [_row(state.name, state.loads) for state in level.states]
    if ratings:
        rows.append(("rated", ratings.front_kg, None, ratings.rear_kg, None, ratings.gross_kg, *(None,) * 4))
    note = "Computed from what was weighed and from the masses listed; ± about 95 %. Weigh the finished car"
    return Table("load-statement", "Load statement", columns, tuple(rows), note)


def _row(name: str, loads: WheelLoads) -> tuple[Cell, ...]:
    return (
        *(name, loads.front_kg, loads.off.front_kg, loads.rear_kg, loads.off.rear_kg, loads.total_kg),
        *(loads.front_percent, loads.aft_mm, loads.across_mm, loads.up_mm),
    )


def mass_list(subject: Subject) -> Table:
    """Every mass that changes what the axles read."""
    columns = (
        *(Column("what", 3.0), Column("kg", 0.9, 1), Column("± kg", 0.7, 1)),
        *(Column(way, 0.9, 1, "taped") for way in ("aft", "R", "up")),
    )
    rows = tuple((row.name, row.mass_kg, row.tol_kg, *row.at) for row in subject.analysis.level.masses)
    missing = tuple(
        (f"{name}: its {what} is not known", None, None, None, None, None)
        for _, name, what in subject.analysis.level.missing
    )
    return Table("masses", "Masses that come and go", columns, rows + missing, "What comes out is negative")
