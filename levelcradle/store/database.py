"""The connection pool and the migrations."""

from pathlib import Path
from typing import Any

from playhouse.db_url import parse
from playhouse.migrations import Runner
from playhouse.pool import PooledPostgresqlDatabase

__all__ = ["connect", "migrate"]

MIGRATIONS = Path(__file__).with_name("migrations")
LOCK = 0x4C43  # one number for this application's migrations


def connect(url: str) -> Any:
    """A pool for a ``postgresql://`` address. Every store function opens its own connection from it."""
    settings = parse(url)
    return PooledPostgresqlDatabase(**settings, prefer_psycopg3=True, autoconnect=False, max_connections=16, stale_timeout=300, timeout=5)


def migrate(database: Any) -> None:
    """Brings the schema up to date. An advisory lock lets only one process do it."""
    with database.connection_context():
        database.execute_sql("SELECT pg_advisory_lock(%s)", (LOCK,))
        try:
            Runner(database, str(MIGRATIONS)).up()
        finally:
            database.execute_sql("SELECT pg_advisory_unlock(%s)", (LOCK,))
