"""What carries a box, for who inspects it: its mass, every load case with what it throws on each mount, and every check
with the mount and the case that is worst for it."""

import math
from collections.abc import Iterator

from levelcradle.core.assembly import PlacedBox
from levelcradle.core.mount import NOT_CHECKED, MountResult, UtilisationRow, tube_results
from levelcradle.core.mount_drawn import CaseLoads, case_loads
from levelcradle.core.strength import SHAKEN_G
from levelcradle.drawings.subject import Subject
from levelcradle.drawings.table import Cell, Column, Table

__all__ = ["CONFIRM", "carried_table", "rounded_use", "uses_table"]

CONFIRM = "Confirm the cases with the rules where the vehicle is registered."


def carried_table(subject: Subject, letter: str, box: PlacedBox) -> Table:
    """Case by case, each mount in the solve that is worst for it; forces of the box on the mount."""
    columns = (
        *(Column("case, mount", 2.6), Column("off it, N", 0.9, 0), Column("away, N", 0.9, 0)),
        *(Column("along, N", 0.9, 0), Column("use", 0.6, 2), Column("weakest; of a case, thrown and source", 3.4)),
        Column("body stiffness", 0.0),
    )
    cases = subject.assembly.tables.load_cases.values()
    ways = [f"{_g(case.aft_g, case.right_g, case.up_g)}; {case.source}" for case in cases]
    ways += [f"to either side {_g(*g)}; common practice, no source" for g in SHAKEN_G.values()]
    rows: list[tuple[Cell, ...]] = [_mass(subject, box)]
    each = list(case_loads(subject.assembly, box))[1:]  # the worst of all is in the other table
    for loads, way in zip(each, ways, strict=False):
        rows.append((f"{loads.case} ({loads.kind})", None, None, None, None, way, ""))
        rows += list(_mounts(loads))
    rows += [(words, None, None, None, None, "", "") for words in _why_none(subject, box)]
    note = (
        "Forces of the box on its mounts: off the vehicle's metal, away from the box's face, along it. Each mount at "
        f"the body stiffness that is worst for it. {CONFIRM}"
    )
    if (factor := subject.assembly.tables.load_factor) > 1:
        note += f" Every case times {factor:g}, the shop's own factor; what shakes as it is."
    return Table(f"carried-{letter.lower()}", f"Box {letter}, loads of its mounts", columns, tuple(rows), note)


def uses_table(subject: Subject, letter: str, box: PlacedBox) -> Table:
    """Every check in the mount that it is worst in; then what of their shapes cannot be, and what is not checked."""
    columns = (
        *(Column("check", 2.2), Column("use", 0.6, 2), Column("state", 0.8), Column("worst in", 2.4)),
        *(Column("worst case", 2.2), Column("body stiffness", 0.0)),
    )
    worst: dict[str, tuple[UtilisationRow, str]] = {}
    for mount in _results(subject, box):
        for row in mount.rows:
            if row.check not in worst or row.utilisation > worst[row.check][0].utilisation:
                worst[row.check] = (row, mount.connection.mount.name)
    order = sorted(worst.values(), key=lambda pair: -pair[0].utilisation)
    rows: list[tuple[Cell, ...]] = [
        (row.check, rounded_use(row.utilisation), row.state, name, row.case, row.solve) for row, name in order
    ]
    for on in tube_results(subject.assembly, box):
        use = rounded_use(on.weakest.utilisation)
        rows.append((on.weakest.check, use, on.state, "its frame", on.weakest.case, ""))
    rows += [row for mount in _results(subject, box) for row in _broken(mount)]
    rows += [(words, None, "", "", "", "") for words in _why_none(subject, box)]
    title = f"Box {letter}, uses of its mounts"
    return Table(f"uses-{letter.lower()}", title, columns, tuple(rows), NOT_CHECKED)


def _mass(subject: Subject, box: PlacedBox) -> tuple[Cell, ...]:
    aft, right, up = (f"{abs(mm):.1f} {words[mm < 0]}" for mm, words in zip(box.hung_cg, _WAYS, strict=True))
    kg = math.ceil(box.hung_kg * 10) / 10
    words = f"{kg:.1f} kg full, with its brackets and what is fixed to it, at {aft}, {right}, {up}"
    return words, None, None, None, None, "", ""


_WAYS = (("aft", "fore"), ("R", "L"), ("up", "down"))


def _g(*throw: float) -> str:
    """The parts of a throw that are there."""
    parts = zip(throw, ("aft", "right", "up"), strict=True)
    return " · ".join(f"{g:+g} {way}" for g, way in parts if g) + " g"


def _mounts(loads: CaseLoads) -> Iterator[tuple[Cell, ...]]:
    for row in loads.mounts:
        use = None if row.utilisation is None else rounded_use(row.utilisation)
        yield f"   {row.name}", row.off_n, row.away_n, row.along_n, use, row.check or "not checked", row.solve


def _results(subject: Subject, box: PlacedBox) -> Iterator[MountResult]:
    yield from (mount for s in subject.analysis.supports if s.box == box.id for mount in s.mounts)


def _broken(mount: MountResult) -> Iterator[tuple[Cell, ...]]:
    name = mount.connection.mount.name
    yield from ((words, None, "foul", name, "its shape", "") for words, fits in mount.geometry if not fits)
    if mount.unchecked:
        yield mount.unchecked, None, "not known", name, "", ""


def _why_none(subject: Subject, box: PlacedBox) -> Iterator[str]:
    for support in subject.analysis.supports:
        if support.box == box.id:
            yield from ([support.words.capitalize()] if support.words else [])
            yield from (f"{mount.mount.name} cannot stand where it is: {why}" for mount, why in support.unfit)


def rounded_use(use: float) -> float:
    """A demand rounds up."""
    return math.ceil(use * 100 - 1e-9) / 100
