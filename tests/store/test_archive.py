"""A car in one file, with its log, scans and pictures: out, in and out again it is the same to the byte."""

import io
import json
import zipfile
from pathlib import Path
from typing import Any

import pytest

from levelcradle.core.design import Design
from levelcradle.core.design.upgrade import FORMAT
from levelcradle.core.errors import DesignError
from levelcradle.exchange import may_be_kept
from levelcradle.store import Store, read_archive, write_archive

FORMATS = Path(__file__).parents[1] / "formats"
PICTURE = b"\x89PNG\r\n\x1a\n" + b"a picture of rust"


@pytest.fixture
def car(store: Store, demo: Design) -> str:
    """With a picture that an earlier revision spoke of, and an undone edit."""
    file = store.files.keep("image/png", "rust.png", PICTURE)
    key = store.create(demo, "anna")
    snag = {"name": "rust", "photo": file}
    store.edit(key, [{"op": "add", "path": "/snags/rust", "value": snag}], base=1, session="anna", who="Anna")
    store.edit(key, [{"op": "replace", "path": "/boxes/tank/pose/at_mm/0", "value": 2700.0}], base=2, session="ben")
    store.step_back(key, "undo", session="ben")
    store.edit(key, [{"op": "remove", "path": "/snags/rust"}], base=4, session="anna")
    return key


def test_out_in_and_out_again_is_byte_equal(store: Store, car: str) -> None:
    raw = write_archive(store.archive(car))
    key = store.restore(read_archive(raw, may_be_kept), "carl")
    assert key != car
    assert write_archive(store.archive(key)) == raw
    assert store.files.get(next(iter(store.archive(key).files)))[1] == PICTURE
    assert [row.sentence for row in store.history(key)] == [row.sentence for row in store.history(car)]
    assert store.at(key, 3) == store.at(car, 3)
    assert store.open(key).revision == 5


def test_one_who_brings_it_in_goes_on_from_there(store: Store, car: str) -> None:
    key = store.restore(read_archive(write_archive(store.archive(car)), may_be_kept), "carl")
    store.edit(key, [{"op": "replace", "path": "/name", "value": "Another"}], base=5, session="carl")
    assert store.open(key).revision == 6


def changed(raw: bytes, name: str, data: bytes | None) -> bytes:
    out = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(raw)) as old, zipfile.ZipFile(out, "w") as new:
        for row in old.infolist():
            if row.filename != name:
                new.writestr(row, old.read(row))
        if data is not None:
            new.writestr(name, data)
    return out.getvalue()


def refusals() -> list[tuple[str, Any]]:
    def log(change: Any) -> Any:
        def broken(old: bytes) -> bytes:
            with zipfile.ZipFile(io.BytesIO(old)) as zipped:
                rows = json.loads(zipped.read("log.json"))
            change(rows)
            return changed(old, "log.json", json.dumps(rows).encode())

        return broken

    return [
        ("no zip", lambda raw: b"PK nonsense"),
        ("cut short", lambda raw: raw[: len(raw) // 2]),
        ("no design", lambda raw: changed(raw, "design.cradle.json", None)),
        ("broken design", lambda raw: changed(raw, "design.cradle.json", b"{}")),
        ("log is no list", lambda raw: changed(raw, "log.json", b"{}")),
        ("a gap in the log", log(lambda rows: rows.pop(1))),
        ("an operation without a path", log(lambda rows: rows[1]["patch"].append({"op": "add"}))),
        ("a day that is none", log(lambda rows: rows[1].update(made_at="yesterday"))),
        ("a day of no zone", log(lambda rows: rows[1].update(made_at="2026-01-01T10:00:00"))),
        ("files no object", lambda raw: changed(raw, "files.json", b"[1]")),
        ("a file that is another", lambda raw: changed(raw, next_file(raw), b"other")),
    ]


def next_file(raw: bytes) -> str:
    with zipfile.ZipFile(io.BytesIO(raw)) as zipped:
        return next(name for name in zipped.namelist() if name.startswith("files/"))


@pytest.mark.parametrize(("_", "broken"), refusals(), ids=[name for name, _ in refusals()])
def test_a_broken_archive_is_refused_and_nothing_of_it_is_kept(store: Store, car: str, _: str, broken: Any) -> None:
    raw = write_archive(store.archive(car))
    with pytest.raises(DesignError):
        read_archive(broken(raw), may_be_kept)
    assert len(store.all()) == 1


def test_a_file_is_kept_only_for_what_it_is(store: Store) -> None:
    assert may_be_kept("image/png", PICTURE)
    assert not may_be_kept("image/jpeg", PICTURE)
    assert not may_be_kept("text/html", b"<script>")
    assert not may_be_kept("scan", b"nonsense")


def test_an_archive_of_an_earlier_form_comes_without_its_log(store: Store, car: str) -> None:
    old = next(FORMATS.glob("format-2*.cradle.json")).read_bytes()
    found = read_archive(changed(write_archive(store.archive(car)), "design.cradle.json", old), may_be_kept)
    assert found.log == ()
    assert found.design.format == FORMAT
    assert store.open(store.restore(found, "carl")).revision == 1
