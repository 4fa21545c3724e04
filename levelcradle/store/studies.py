"""Fit studies: what was asked, how far each has come, what it found."""

import hashlib
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any, Literal

from peewee import fn

from levelcradle.core.errors import UnknownThing
from levelcradle.store.news import tell
from levelcradle.store.tables import StudyRow

__all__ = ["Asked", "Studies"]

State = Literal["waiting", "running", "done", "stopped", "refused"]
OVER = ("done", "refused")


@dataclass(frozen=True, slots=True)
class Asked:
    """One study as it stands; ``found`` is its proposals as JSON, empty before there are any."""

    id: str
    project: str
    revision: int
    wishes: str
    state: State
    stop: bool
    message: str
    tried: int
    best: int
    found: str


class Studies:
    """All studies in one database."""

    def __init__(self, database: Any) -> None:
        self._db = database

    def ask(self, project: str, revision: int, wishes: str) -> tuple[Asked, bool]:
        """The study of these wishes on this revision, and whether it is to be run: one that is under way or done is not
        made twice, one that was stopped is taken up again."""
        key = hashlib.sha256(f"{project}\n{revision}\n{wishes}".encode()).hexdigest()[:24]
        with self._db.connection_context(), self._db.atomic():
            StudyRow.insert(
                id=key,
                project=project,
                revision=revision,
                wishes=wishes,
                state="waiting",
                stop=False,
                message="waiting",
                tried=0,
                best=0,
                found="",
                asked_at=fn.now(),
            ).on_conflict_ignore().execute()
            row = StudyRow.select().where(StudyRow.id == key).for_update().first()
            if row.state == "stopped":
                row.state, row.stop, row.message = "waiting", False, "waiting"
                row.save()
            return _asked(row), row.state == "waiting"

    def get(self, key: str) -> Asked:
        """Raises UnknownThing."""
        with self._db.connection_context():
            row = StudyRow.select().where(StudyRow.id == key).first()
        if row is None:
            raise UnknownThing("study", key[:24])
        return _asked(row)

    def of(self, project: str, most: int = 10) -> list[Asked]:
        """The newest studies of a car."""
        with self._db.connection_context():
            rows = StudyRow.select().where(StudyRow.project == project).order_by(StudyRow.asked_at.desc()).limit(most)
            return [_asked(row) for row in rows]

    def waiting(self) -> Iterator[str]:
        with self._db.connection_context():
            yield from [row.id for row in StudyRow.select(StudyRow.id).where(StudyRow.state == "waiting")]

    def told(self, key: str, state: State, message: str, tried: int, best: int, found: str | None = None) -> bool:
        """Writes how far a study has come; answers whether it is to stop."""
        with self._db.connection_context(), self._db.atomic():
            change = {"state": state, "message": message, "tried": tried, "best": best} | (
                {} if found is None else {"found": found}
            )
            StudyRow.update(**change).where(StudyRow.id == key).execute()
            row = StudyRow.select(StudyRow.project, StudyRow.stop).where(StudyRow.id == key).first()
            if row is None:
                return True
            tell(self._db, row.project_id, study=key)
            return bool(row.stop)

    def stop(self, key: str) -> Asked:
        """Asks a study to stop with what it has. Raises UnknownThing."""
        found = self.get(key)
        with self._db.connection_context(), self._db.atomic():
            StudyRow.update(stop=True).where((StudyRow.id == key) & StudyRow.state.not_in(OVER)).execute()
            StudyRow.update(state="stopped", message="stopped before it began").where(
                (StudyRow.id == key) & (StudyRow.state == "waiting")
            ).execute()
            tell(self._db, found.project, study=key)
        return self.get(key)


def _asked(row: Any) -> Asked:
    return Asked(
        row.id,
        row.project_id,
        row.revision,
        row.wishes,
        row.state,
        row.stop,
        row.message,
        row.tried,
        row.best,
        row.found,
    )
