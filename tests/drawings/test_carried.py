"""The statement of what carries a box: every case with every mount, and every check where it is worst, as the analysis
says."""

import copy
from typing import Any

from levelcradle.core.assembly import resolve
from levelcradle.core.design import validate
from levelcradle.core.strength import SHAKEN_G
from levelcradle.drawings.sheets.carried import carried_table, uses_table
from levelcradle.drawings.subject import Subject, subject_of
from levelcradle.drawings.table import Table
from tests.conftest import DEMO


def tables(tree: dict[str, Any], key: str = "tank") -> tuple[Subject, Table, Table]:
    subject = subject_of(resolve(validate(copy.deepcopy(tree)), {}))
    letter, box = next(row for row in subject.boxes if row[1].id == key)
    return subject, carried_table(subject, letter, box), uses_table(subject, letter, box)


def test_every_case_is_there_with_every_mount_and_what_it_throws() -> None:
    subject, carried, _ = tables(DEMO)
    rows = [row for row in carried.rows[1:] if not str(row[0]).startswith(" ")]
    cases = subject.assembly.tables.load_cases.values()
    shaken = [f"{name} (shaken)" for name in SHAKEN_G]
    assert [row[0] for row in rows] == [*(f"{case.name} ({case.kind})" for case in cases), *shaken]
    assert rows[-1][5] == "to either side +0.4 right g; common practice, no source"
    front = next(row for row in rows if str(row[0]).startswith("front impact"))
    assert front[5] == "-20 aft · -1 up g; a national low-volume set, from memory"
    mounts = [row for row in carried.rows if str(row[0]).startswith(" ")]
    assert len(mounts) == 4 * len(rows)
    for support in subject.analysis.supports:
        for mount in support.mounts if support.box == "tank" else ():
            governing = mount.rows[0]
            told = (f"   {mount.connection.mount.name}", governing.n, governing.d, governing.w)
            assert any(row[:4] == told and row[5] == governing.check for row in mounts)


def test_every_check_is_told_where_it_is_worst_and_a_use_is_rounded_up() -> None:
    subject, _, uses = tables(DEMO)
    rows = [row for s in subject.analysis.supports if s.box == "tank" for m in s.mounts for row in m.rows]
    assert {row[0] for row in uses.rows} == {row.check for row in rows}
    for check, use, state, *_ in uses.rows:
        worst = max((row for row in rows if row.check == check), key=lambda row: row.utilisation)
        assert isinstance(use, float)
        assert 0 <= use - worst.utilisation < 0.01
        assert state == worst.state
    assert "Have it checked" in uses.note


def test_what_cannot_be_stands_on_it_too() -> None:
    tree = copy.deepcopy(DEMO)
    tree["mounts"]["tank-lf"]["shape"]["toe_mm"] = 10.0
    assert any(row[2:4] == ("foul", "Tank box mount, left fore") for row in tables(tree)[2].rows)
    tree["mounts"] = {key: m for key, m in tree["mounts"].items() if not key.startswith("tank")}
    tree["readings"] = {}
    _, carried, uses = tables(tree)
    assert [row[0] for row in carried.rows[1:]] == [row[0] for row in uses.rows] == ["Held by nothing"]
    assert str(carried.rows[0][0]).startswith("130.4 kg full, with its brackets")
