"""Fabrication packs: asked for by a screen, made by a worker, kept until the next one of the car is made."""

import hashlib
import json
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Any, Literal

from peewee import fn

from levelcradle.core.errors import UnknownThing
from levelcradle.store.news import tell
from levelcradle.store.tables import PackFile, PackRow, Revision

__all__ = ["Change", "KeptPack", "Packs"]

State = Literal["waiting", "running", "done", "refused"]
FORM = 1  # of what is kept of a pack: one that an earlier program kept in another form is made again


@dataclass(frozen=True, slots=True)
class KeptPack:
    """A pack as it stands; ``day``: of its revision; ``contents`` is what is in it as JSON, empty until it is done."""

    id: str
    project: str
    revision: int
    day: str
    state: State
    share: float
    message: str
    contents: str


@dataclass(frozen=True, slots=True)
class Change:
    """A revision since a pack was made: its sentence, and the paths it touched."""

    revision: int
    sentence: str
    paths: tuple[str, ...]


class Packs:
    """All packs in one database."""

    def __init__(self, database: Any) -> None:
        self._db = database

    def ask(self, project: str, revision: int, day: str) -> tuple[KeptPack, bool]:
        """The pack of this revision, and whether it is to be made: one that is under way or done is not made twice."""
        key = hashlib.sha256(f"{project}\n{revision}\n{FORM}".encode()).hexdigest()[:24]
        with self._db.connection_context(), self._db.atomic():
            fresh = {"state": "waiting", "share": 0.0, "message": "waiting for a worker", "contents": ""}
            PackRow.insert(
                id=key, project=project, revision=revision, form=FORM, day=day, asked_at=fn.now(), **fresh
            ).on_conflict_ignore().execute()
            row = PackRow.select().where(PackRow.id == key).for_update().first()
            if row.state == "refused":
                PackRow.update(**fresh).where(PackRow.id == key).execute()
                row = PackRow.get_by_id(key)
            return _kept(row), row.state == "waiting"

    def get(self, key: str) -> KeptPack:
        """Raises UnknownThing."""
        with self._db.connection_context():
            row = PackRow.get_or_none(PackRow.id == key)
        if row is None:
            raise UnknownThing("pack", key[:24])
        return _kept(row)

    def newest(self, project: str) -> tuple[KeptPack | None, KeptPack | None]:
        """The newest that is done, and the newest of later revisions that is not."""
        with self._db.connection_context():
            mine = PackRow.select().where((PackRow.project == project) & (PackRow.form == FORM))
            of = mine.order_by(PackRow.revision.desc())
            done = of.where(PackRow.state == "done").first()
            asked = of.where((PackRow.state != "done") & (PackRow.revision > (done.revision if done else -1))).first()
            return (_kept(done) if done else None), (_kept(asked) if asked else None)

    def waiting(self) -> Iterator[str]:
        with self._db.connection_context():
            yield from [row.id for row in PackRow.select(PackRow.id).where(PackRow.state == "waiting")]

    def told(self, key: str, share: float, message: str) -> None:
        self._put(key, state="running", share=share, message=message)

    def refused(self, key: str, message: str) -> None:
        self._put(key, state="refused", message=message)

    def done(self, key: str, contents: str, files: Mapping[str, bytes]) -> None:
        """Keeps the files; packs of earlier revisions and forms go."""
        with self._db.connection_context(), self._db.atomic():
            row = PackRow.get_or_none(PackRow.id == key)
            if row is None:
                return  # its car was removed meanwhile
            PackFile.delete().where(PackFile.pack == key).execute()
            for name, data in files.items():
                PackFile.insert(pack=key, name=name, data=data).execute()
            older = (PackRow.project == row.project) & (PackRow.revision <= row.revision) & (PackRow.id != key)
            PackRow.delete().where(older).execute()
            self._put(key, state="done", share=1.0, message="done", contents=contents)

    def _put(self, key: str, **values: Any) -> None:
        with self._db.connection_context(), self._db.atomic():
            PackRow.update(**values).where(PackRow.id == key).execute()
            row = PackRow.get_or_none(PackRow.id == key)
            if row is not None:
                tell(self._db, _kept(row).project, pack=key)

    def names(self, key: str) -> list[str]:
        with self._db.connection_context():
            return [
                row.name for row in PackFile.select(PackFile.name).where(PackFile.pack == key).order_by(PackFile.name)
            ]

    def file(self, key: str, name: str) -> bytes:
        """Raises UnknownThing."""
        with self._db.connection_context():
            row = PackFile.get_or_none((PackFile.pack == key) & (PackFile.name == name))
        if row is None:
            raise UnknownThing("file", name[:60])
        return bytes(row.data)

    def changes(self, project: str, since: int) -> list[Change]:
        """What was changed after a revision, the latest first."""
        with self._db.connection_context():
            rows = Revision.select().where((Revision.project == project) & (Revision.number > since))
            return [
                Change(row.number, row.sentence, tuple(op["path"] for op in json.loads(row.patch)))
                for row in rows.order_by(Revision.number.desc()).limit(500)
            ]


def _kept(row: Any) -> KeptPack:
    return KeptPack(row.id, row.project_id, row.revision, row.day, row.state, row.share, row.message, row.contents)
