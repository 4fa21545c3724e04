"""The connection pool and the migrations."""

import time
from collections.abc import Iterator
from contextlib import AbstractContextManager, contextmanager, suppress
from pathlib import Path
from typing import Any

import psycopg
from peewee import InterfaceError, OperationalError
from playhouse.db_url import parse
from playhouse.migrations import Runner
from playhouse.pool import MaxConnectionsExceeded, PooledPostgresqlDatabase

from levelcradle.core.errors import CradleError
from levelcradle.store.upgrade import upgrade_all

__all__ = ["GONE", "StoreAway", "connect", "migrate", "until_there"]

MIGRATIONS = Path(__file__).with_name("migrations")
LOCK = 0x4C43  # one number for this application's migrations
GONE = (OperationalError, InterfaceError, MaxConnectionsExceeded, psycopg.OperationalError, psycopg.InterfaceError)


class StoreAway(CradleError):
    """The database does not answer now; nothing was stored. It heals by itself: the next call connects anew."""

    def __init__(self) -> None:
        super().__init__("The database does not answer just now. Nothing was lost; try again in a moment.")


class _Pool(PooledPostgresqlDatabase):
    """A pool that says StoreAway where the database is gone, and keeps no dead connection for the next one."""

    def connection_context(self) -> AbstractContextManager[Any]:
        return self._told(super().connection_context())

    @contextmanager
    def _told(self, context: AbstractContextManager[Any]) -> Iterator[Any]:
        try:
            with context as connection:
                yield connection
        except GONE as error:
            for close in (self.manual_close, self.close_idle):
                with suppress(*GONE):  # what is gone cannot be closed
                    close()
            raise StoreAway from error


def connect(url: str) -> Any:
    """A pool for a ``postgresql://`` address. Every store function opens its own connection from it."""
    settings = parse(url)
    return _Pool(**settings, prefer_psycopg3=True, autoconnect=False, max_connections=16, stale_timeout=300, timeout=5)


def migrate(database: Any) -> None:
    """Brings the schema and the stored cars up to date. An advisory lock lets only one process do it."""
    with database.connection_context():
        database.execute_sql("SELECT pg_advisory_lock(%s)", (LOCK,))
        try:
            Runner(database, str(MIGRATIONS)).up()
            upgrade_all(database)
        finally:
            database.execute_sql("SELECT pg_advisory_unlock(%s)", (LOCK,))


PATIENCE_S, AGAIN_S = 60.0, 0.3


def until_there(database: Any) -> None:
    """Waits until the database answers and is up to date: it may come back later than who uses it. Raises StoreAway
    after a minute."""
    end = time.monotonic() + PATIENCE_S
    while True:
        try:
            return migrate(database)
        except StoreAway:
            if time.monotonic() > end:
                raise
            time.sleep(AGAIN_S)
