"""Scans and pictures that designs speak of."""

import hashlib
from collections.abc import Iterable
from typing import Any

from peewee import fn

from levelcradle.core.errors import UnknownThing
from levelcradle.store.archive import Kept
from levelcradle.store.tables import KeptFile

__all__ = ["Files"]


class Files:
    """Kept files in one database; what holds the same is kept once."""

    def __init__(self, database: Any) -> None:
        self._db = database

    def keep(self, kind: str, name: str, data: bytes) -> str:
        """Keeps a file and returns the name it goes by from now on."""
        key = hashlib.sha256(data).hexdigest()
        with self._db.connection_context(), self._db.atomic():
            KeptFile.insert(hash=key, kind=kind, name=name, data=data, kept_at=fn.now()).on_conflict_ignore().execute()
        return key

    def those(self, keys: Iterable[str]) -> dict[str, Kept]:
        """Those of these names that are kept."""
        with self._db.connection_context():
            rows = KeptFile.select().where(KeptFile.hash.in_(list(keys)))
            return {row.hash: Kept(row.kind, row.name, bytes(row.data)) for row in rows}

    def get(self, key: str) -> tuple[str, bytes]:
        """(kind, data). Raises UnknownThing."""
        with self._db.connection_context():
            row = KeptFile.select(KeptFile.kind, KeptFile.data).where(KeptFile.hash == key).first()
        if row is None:
            raise UnknownThing("file", key[:12])
        return str(row.kind), bytes(row.data)
