"""The statement of what carries a box: every case with every mount, and every check where it is worst, as the analysis
says."""

import copy
from typing import Any

from levelcradle.core.assembly import resolve
from levelcradle.core.design import validate
from levelcradle.core.mount import crossmember_result
from levelcradle.core.strength import SHAKEN_G
from levelcradle.drawings.sheets.carried import carried_table, uses_table
from levelcradle.drawings.sheets.crossmembers import crossmember_table
from levelcradle.drawings.sheets.sawn import saw_list
from levelcradle.drawings.subject import Subject, subject_of
from levelcradle.drawings.table import Table
from tests.conftest import DEMO
from tests.core.crossed import crossed
from tests.core.test_frame_hung import car as framed_car


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


def test_a_crossmember_is_told_with_every_check_and_both_ends() -> None:
    """A bar of two boxes is one row; its holes are on the saw list, where its ends differ."""
    subject = subject_of(resolve(validate(crossed({"size_mm": 60, "wall_mm": 5})), {}))
    table = crossmember_table(subject)
    first = [str(row[0]).strip() for row in table.rows]
    (result, _) = crossmember_result(subject.assembly)
    assert {check.check for check in result.checks} <= set(first)
    assert {f"{point.name} must hold" for point in result.bar.ends} <= set(first)
    for check in result.checks:
        shown = [row[1] for row in table.rows if str(row[0]).strip() == check.check]
        assert any(check.utilisation <= use < check.utilisation + 0.01 for use in shown if isinstance(use, float))
    (sawn,) = [row for row in saw_list(subject).rows if str(row[0]).startswith("CM")]
    assert "drilled ⌀ 11" in str(sawn[6])
    assert "both" not in str(sawn[6])
    assert crossmember_table(subject_of(resolve(validate(DEMO), {}))).rows == ()


def test_tubes_of_a_frame_are_among_the_uses_for_who_inspects_it() -> None:
    tree = framed_car()
    tree["readings"]["/hardpoints/left0/at_mm/2"] = {"text": "394", "basis": "assumed"}
    subject, _, uses = tables(tree, "x")
    told = {f.label: f for f in subject.analysis.findings if f.code == "mount.tube"}
    rows = [row for row in uses.rows if row[3] == "its frame"]
    assert len(rows) == len(told) == 2
    assert all(
        isinstance(row[1], float) and row[1] >= (f.value or 0.0) for row, f in zip(rows, told.values(), strict=True)
    )
    assert {row[2] for row in rows} == {f.state for f in told.values()} == {"unknown", "tight"}
