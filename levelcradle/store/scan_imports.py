"""Scans on their way in: sent by a browser, read by a worker, told to whoever asks. What was sent is kept until it is
read."""

import secrets
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any, Literal

from peewee import SQL, fn

from levelcradle.core.errors import UnknownThing
from levelcradle.store.tables import ScanRow

__all__ = ["ScanImport", "ScanImports", "Sent"]

State = Literal["waiting", "reading", "done", "refused"]
KEPT_DAYS = 2


@dataclass(frozen=True, slots=True)
class ScanImport:
    """How far the reading of a file has come; ``file`` is what it is kept as, ``found`` what was found, as JSON."""

    id: str
    state: State
    share: float
    message: str
    file: str | None
    found: str


@dataclass(frozen=True, slots=True)
class Sent:
    """A file as it was sent."""

    name: str
    data: bytes
    unit: str | None
    tolerance_mm: float


class ScanImports:
    """All readings in one database."""

    def __init__(self, database: Any) -> None:
        self._db = database

    def ask(self, sent: Sent) -> str:
        """Keeps what was sent until a worker reads it; those of days ago go."""
        key = secrets.token_hex(8)
        with self._db.connection_context(), self._db.atomic():
            ScanRow.delete().where(ScanRow.asked_at < SQL(f"now() - interval '{KEPT_DAYS} days'")).execute()
            ScanRow.insert(
                id=key,
                name=sent.name,
                unit=sent.unit,
                tolerance_mm=sent.tolerance_mm,
                data=sent.data,
                state="waiting",
                message="waiting for a worker",
                share=0.0,
                found="",
                asked_at=fn.now(),
            ).execute()
        return key

    def get(self, key: str) -> ScanImport:
        """Raises UnknownThing."""
        with self._db.connection_context():
            columns = (ScanRow.id, ScanRow.state, ScanRow.share, ScanRow.message, ScanRow.file, ScanRow.found)
            row = ScanRow.select(*columns).where(ScanRow.id == key).first()
        if row is None:
            raise UnknownThing("reading", key[:20])
        return ScanImport(row.id, row.state, row.share, row.message, row.file, row.found)

    def take(self, key: str) -> Sent | None:
        """What was sent, for whoever reads it; None where it is read already, or gone."""
        with self._db.connection_context():
            row = ScanRow.get_or_none((ScanRow.id == key) & ScanRow.state.in_(("waiting", "reading")))
        return Sent(row.name, bytes(row.data), row.unit, row.tolerance_mm) if row else None

    def waiting(self) -> Iterator[str]:
        with self._db.connection_context():
            yield from [row.id for row in ScanRow.select(ScanRow.id).where(ScanRow.state == "waiting")]

    def told(self, key: str, share: float, message: str) -> None:
        self._put(key, state="reading", share=share, message=message)

    def done(self, key: str, file: str, found: str) -> None:
        self._put(key, state="done", share=1.0, message="done", file=file, found=found, data=b"")

    def refused(self, key: str, message: str) -> None:
        self._put(key, state="refused", message=message, data=b"")

    def _put(self, key: str, **values: Any) -> None:
        with self._db.connection_context(), self._db.atomic():
            ScanRow.update(**values).where(ScanRow.id == key).execute()
