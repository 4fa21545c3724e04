"""Scans and pictures in a real PostgreSQL: kept once, given back as they were."""

import pytest

from levelcradle.core.errors import UnknownThing
from levelcradle.store import Store, connect, migrate
from levelcradle.store.tables import KeptFile


def test_what_holds_the_same_is_kept_once(store: Store) -> None:
    first = store.files.keep("scan", "a.stl", b"\x00\xff" * 5000)
    assert store.files.keep("scan", "other name.stl", b"\x00\xff" * 5000) == first
    assert store.files.get(first) == ("scan", b"\x00\xff" * 5000)
    assert store.files.keep("image/png", "b.png", b"other") != first


def test_a_file_that_was_never_kept(store: Store) -> None:
    with pytest.raises(UnknownThing):
        store.files.get("0" * 64)


def test_a_file_outlives_the_connection_and_a_second_migration(store: Store, database_url: str) -> None:
    key = store.files.keep("scan", "a.stl", b"kept")
    other = connect(database_url)
    migrate(other)
    assert Store(other).files.get(key) == ("scan", b"kept")
    with other.connection_context():
        assert KeptFile.select().count() == 1
    other.close_all()
