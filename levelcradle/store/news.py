"""News for everybody who has a car open: PostgreSQL's own notifications, sent inside the transaction that made them
true."""

import json
from collections.abc import AsyncIterator
from typing import Any
from urllib.parse import quote

import psycopg

__all__ = ["conninfo", "listen", "tell", "url_of"]

CHANNEL = "cradle"


def tell(database: Any, project: str, **news: Any) -> None:
    """Tells of a car when the transaction that runs now is committed."""
    database.execute_sql("SELECT pg_notify(%s, %s)", (CHANNEL, json.dumps({"project": project, **news})))


def conninfo(database: Any) -> str:
    """The address of a pool's database, for those who connect by themselves."""
    wanted = {k: v for k, v in database.connect_params.items() if k in ("host", "port", "user", "password")}
    return psycopg.conninfo.make_conninfo(dbname=database.database, **wanted)


def url_of(database: Any) -> str:
    """The same as a ``postgresql://`` address."""
    have = database.connect_params
    login = f"{quote(str(have['user']), safe='')}:{quote(str(have.get('password', '')), safe='')}"
    return f"postgresql://{login}@{have['host']}:{have['port']}/{database.database}"


async def listen(address: str) -> AsyncIterator[dict[str, Any]]:
    """Every piece of news from now on, until the connection breaks."""
    async with await psycopg.AsyncConnection.connect(address, autocommit=True) as connection:
        await connection.execute(f"LISTEN {CHANNEL}")
        yield {}
        async for note in connection.notifies():
            yield json.loads(note.payload)
