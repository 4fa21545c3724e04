"""Projects and their revisions. Each function opens its connection inside one synchronous call.

An edit holds the project's row (SELECT … FOR UPDATE) from reading the document to storing the revision, so that
nothing acknowledged is ever lost. Undo and redo are revisions like any other; nothing is taken back in place.
"""

import json
import re
import secrets
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any, Literal

from peewee import SQL, fn

from levelcradle.core.design import Design, dump, validate
from levelcradle.core.design.files import tree_of
from levelcradle.core.design.patch import Op, apply, clashes
from levelcradle.core.design.pointer import find, join, resolves
from levelcradle.core.design.sentence import sentence
from levelcradle.core.design.upgrade import upgraded
from levelcradle.core.errors import CradleError, PatchError, UnknownThing
from levelcradle.core.memo import Memo
from levelcradle.store.archive import FILE, Archive, Entry
from levelcradle.store.files import Files
from levelcradle.store.news import conninfo, tell, url_of
from levelcradle.store.packs import Packs
from levelcradle.store.scan_imports import ScanImports
from levelcradle.store.studies import Studies
from levelcradle.store.tables import Project, Revision, bind

__all__ = ["Clash", "Edited", "HistoryRow", "Opened", "Stale", "Store", "Summary"]

RevisionKind = Literal["edit", "undo", "redo"]
WORKER_BEATS_S = 15.0
KEPT_DAYS = 30


@dataclass(frozen=True, slots=True)
class Summary:
    """``variant_of``: the car that it was first copied from; ``deleted_at``: empty while it is on the bench."""

    id: str
    name: str
    revision: int
    changed_at: str
    variant_of: str | None = None
    deleted_at: str = ""


@dataclass(frozen=True, slots=True)
class Opened:
    """A project as it stands: its tree as JSON, with all that the document got since it was kept, and validated;
    ``on``: the day of its revision, such as 2026-11-29."""

    id: str
    revision: int
    tree: dict[str, Any]
    design: Design
    on: str = ""


@dataclass(frozen=True, slots=True)
class Edited:
    """A stored edit: what others changed since its base, and the patch as it took effect."""

    opened: Opened
    since: tuple[Op, ...]
    patch: tuple[Op, ...]
    sentence: str


@dataclass(frozen=True, slots=True)
class HistoryRow:
    number: int
    kind: str
    sentence: str
    who: str
    made_at: str


@dataclass(frozen=True, slots=True)
class Clash:
    """One path that was changed since: what stands there now, what was asked, who was first (nameless: "") and when."""

    path: str
    theirs: Any
    yours: Any
    who: str
    at: str


class Stale(CradleError):
    """A late edit touches what was changed since its base."""

    def __init__(
        self, revision: int, found: tuple[Clash, ...], message: str = "Somebody changed the same thing since."
    ) -> None:
        self.revision, self.clashes = revision, found
        super().__init__(message)


class Store:
    """All projects in one database; a process has one store, which its threads share."""

    def __init__(self, database: Any) -> None:
        self._db = database
        self._opened: Memo[Opened] = Memo(32)
        self.files = Files(database)
        self.studies = Studies(database)
        self.scan_imports = ScanImports(database)
        self.packs = Packs(database)
        bind(database)

    @property
    def url(self) -> str:
        """Of the database, as ``connect`` takes it: for a process of one's own, by its environment."""
        return url_of(self._db)

    @property
    def address(self) -> str:
        """Of the database, for those who connect by themselves."""
        return conninfo(self._db)

    def worker_there(self) -> bool:
        """Whether a worker has shown a sign of life lately. Raises StoreAway."""
        with self._db.connection_context():
            query = (
                "SELECT count(*) FROM procrastinate_workers WHERE last_heartbeat > now() - make_interval(secs => %s)"
            )
            return bool(self._db.execute_sql(query, (WORKER_BEATS_S,)).fetchone()[0])

    def all(self) -> list[Summary]:
        """The cars on the bench, the newest change first."""
        with self._db.connection_context():
            return [
                _summary(p) for p in _listed().where(Project.deleted_at.is_null()).order_by(Project.changed_at.desc())
            ]

    def deleted(self) -> list[Summary]:
        """What was deleted and is still kept, the last first."""
        with self._db.connection_context():
            return [
                _summary(p)
                for p in _listed().where(Project.deleted_at.is_null(False)).order_by(Project.deleted_at.desc())
            ]

    def family(self, key: str) -> list[Summary]:
        """A car's first and all its variants, the first first. Raises UnknownThing."""
        with self._db.connection_context():
            first = _row(key, lock=False).variant_of or key
            rows = _listed().where(Project.deleted_at.is_null(), (Project.id == first) | (Project.variant_of == first))
            return sorted(map(_summary, rows), key=lambda car: (car.id != first, car.name))

    def create(
        self,
        design: Design,
        session: str,
        *,
        id_: str | None = None,
        variant_of: str | None = None,
        message: str = "started",
    ) -> str:
        """Stores a design as revision 1 and returns its id. What was deleted long ago goes for good."""
        key = id_ or f"{_slug(design.name)}-{secrets.token_hex(3)}"
        with self._db.connection_context(), self._db.atomic():
            Project.delete().where(Project.deleted_at < SQL(f"now() - interval '{KEPT_DAYS} days'")).execute()
            Project.create(
                id=key, name=design.name, revision=1, document=dump(design), changed_at=fn.now(), variant_of=variant_of
            )
            Revision.create(
                project=key,
                number=1,
                kind="start",
                session=session,
                patch="[]",
                inverse="[]",
                sentence=message,
                made_at=fn.now(),
            )
        return key

    def copy(self, key: str, session: str, revision: int | None = None) -> str:
        """A variant of a car, as it stands or stood at a revision; it knows its first. Raises UnknownThing."""
        family, opened = self.family(key), self.open(key)
        design = validate(self.at(key, revision)) if revision else opened.design
        name = f"{family[0].name[:100]}, variant {len(family)}"
        message = f"started as {design.name}, revision {revision or opened.revision}"
        return self.create(design.model_copy(update={"name": name}), session, variant_of=family[0].id, message=message)

    def delete(self, key: str) -> None:
        """Off the bench; it is kept for a while. Raises UnknownThing."""
        with self._db.connection_context(), self._db.atomic():
            Project.update(deleted_at=fn.now()).where(Project.id == _row(key, lock=True).id).execute()

    def bring_back(self, key: str) -> None:
        """What was deleted, on the bench again. Raises UnknownThing."""
        with self._db.connection_context(), self._db.atomic():
            back = Project.update(deleted_at=None).where(Project.id == key, Project.deleted_at.is_null(False)).execute()
        if not back:
            raise UnknownThing("deleted car", key[:60])

    def open(self, key: str) -> Opened:
        """Raises UnknownThing."""
        with self._db.connection_context():
            row = Project.select(Project.revision).where(Project.id == key, Project.deleted_at.is_null()).first()
            if row is None:
                raise UnknownThing("project", key[:60])
            return self._opened.get((key, row.revision), lambda: _opened(_row(key, lock=False)))

    def at(self, key: str, revision: int) -> dict[str, Any]:
        """The document as it stood at a revision. Raises UnknownThing."""
        with self._db.connection_context():
            row = _row(key, lock=False)
            if not 1 <= revision <= row.revision:
                raise UnknownThing("revision", str(revision))
            later = Revision.select(Revision.inverse).where((Revision.project == key) & (Revision.number > revision))
            inverses = [json.loads(r.inverse) for r in later.order_by(Revision.number.desc())]
        tree = _opened(row).tree
        for inverse in inverses:
            tree = inverse[0]["value"] if _is_whole(inverse) else apply(tree, inverse, back=True).tree
        return upgraded(tree)

    def edit(
        self,
        key: str,
        patch: Sequence[Op],
        *,
        base: int,
        session: str,
        who: str = "",
        seen: int | None = None,
        once: str | None = None,
    ) -> Edited:
        """Applies a patch made on revision ``base``. ``who``: the name of whoever works at this session. ``seen``: the
        revision that they had before their eyes, where that is an older one: what others changed since then clashes,
        one's own does not. ``once``: a key of the edit's own; sent again under it, it is answered and not stored twice.

        Raises: UnknownThing, PatchError, DesignError, Stale.
        """
        with self._db.connection_context(), self._db.atomic():
            row = _row(key, lock=True)
            done = Revision.get_or_none((Revision.project == key) & (Revision.key == once)) if once else None
            if done is not None:
                return Edited(_opened(row), _ops_of(_since(key, base)), (), done.sentence)
            return self._store(row, patch, base=base, seen=seen, session=session, who=who, kind="edit", once=once)

    def become(self, key: str, tree: dict[str, Any], message: str, *, session: str, who: str = "") -> Edited:
        """The whole document becomes another, as one revision that undo takes back: an older one, or that of a file.
        What is pinned now stays pinned, and where it is. Raises as edit."""
        with self._db.connection_context(), self._db.atomic():
            row = _row(key, lock=True)
            stands = _opened(row).tree
            tree = {**tree, "pins": {**tree.get("pins", {}), **stands.get("pins", {})}}
            patch: list[Op] = [
                {"op": "replace", "path": join(name), "value": value}
                for name, value in tree.items()
                if stands.get(name) != value
            ]
            if not patch:
                raise PatchError("", "stands like that already")
            return self._store(row, patch, base=row.revision, session=session, who=who, kind="edit", message=message)

    def step_back(self, key: str, kind: Literal["undo", "redo"], *, session: str, who: str = "") -> Edited | None:
        """Undoes or redoes the session's last step; None where there is none. Raises as edit."""
        with self._db.connection_context(), self._db.atomic():
            row = _row(key, lock=True)
            number = _stacks(key, session)[kind == "redo"]
            if not number:
                return None
            last = Revision.get((Revision.project == key) & (Revision.number == number[-1]))
            did = _bare(last.sentence)  # of the step itself: of what takes it back the way would be the other one
            message = f"undone: {did}" if kind == "undo" else did
            return self._store(
                row, json.loads(last.inverse), base=last.number, session=session, who=who, kind=kind, message=message
            )

    def steps(self, key: str, *, session: str) -> tuple[str | None, str | None]:
        """What undo and redo would do, as sentences."""
        with self._db.connection_context():
            undo, redo = _stacks(key, session)
            said = {
                r.number: r.sentence
                for r in Revision.select(Revision.number, Revision.sentence).where(
                    (Revision.project == key) & Revision.number.in_([*undo[-1:], *redo[-1:]] or [0])
                )
            }
            return (said[undo[-1]] if undo else None), (_bare(said[redo[-1]]) if redo else None)

    def history(self, key: str, *, most: int = 200) -> list[HistoryRow]:
        with self._db.connection_context():
            _row(key, lock=False)
            rows = Revision.select().where(Revision.project == key).order_by(Revision.number.desc()).limit(most)
            return [HistoryRow(r.number, r.kind, r.sentence, r.who, r.made_at.isoformat()) for r in rows]

    def archive(self, key: str) -> Archive:
        """A car with its log and every file that any revision of it spoke of. Raises UnknownThing."""
        opened = self.open(key)
        with self._db.connection_context():
            rows = _since(key, 0)
            log = tuple(
                Entry(
                    number=r.number,
                    kind=r.kind,
                    who=r.who,
                    sentence=r.sentence,
                    made_at=r.made_at.astimezone(UTC).isoformat(),
                    patch=json.loads(r.patch),
                    inverse=json.loads(r.inverse),
                )
                for r in rows
            )
        spoken_of = set(FILE.findall(dump(opened.design) + "".join(r.patch + r.inverse for r in rows)))
        return Archive(opened.design, log, self.files.those(spoken_of))

    def restore(self, archive: Archive, session: str) -> str:
        """A car from an archive, with its log where it has one; returns its id."""
        for kept in archive.files.values():
            self.files.keep(kept.kind, kept.name, kept.data)
        key = self.create(archive.design, session, message="from an archive")
        if archive.log:
            with self._db.connection_context(), self._db.atomic():
                Revision.delete().where(Revision.project == key).execute()
                for entry in archive.log:
                    row = entry.model_dump() | {"patch": json.dumps(entry.patch), "inverse": json.dumps(entry.inverse)}
                    row["made_at"] = datetime.fromisoformat(entry.made_at)
                    Revision.create(project=key, session=session, **row)
                last = archive.log[-1]
                Project.update(revision=last.number, changed_at=datetime.fromisoformat(last.made_at)).where(
                    Project.id == key
                ).execute()
        return key

    def _store(
        self,
        row: Any,
        patch: Sequence[Op],
        *,
        base: int,
        session: str,
        who: str,
        kind: RevisionKind,
        message: str = "",
        seen: int | None = None,
        once: str | None = None,
    ) -> Edited:
        opened = _opened(row)
        before = opened.tree
        if max(base, seen or 0) > row.revision:
            raise PatchError("", f"revision {max(base, seen or 0)} does not exist yet")
        later = _since(row.id, base if seen is None else min(base, seen))
        # one's own steps since what one saw went before this one; an undo's took each other back
        theirs = [r for r in later if r.session != session or (kind == "edit" and r.number > base)]
        since = [r for r in later if r.number > base] if kind == "edit" else theirs
        if _is_whole(_ops_of(theirs)):
            raise Stale(row.revision, (), "This car was brought to a newer form since. Load the page anew.")
        found = clashes(patch, _ops_of(theirs))
        if found:
            raise Stale(row.revision, tuple(_clash(path, before, patch, theirs) for path in found))
        applied = apply(before, patch, as_given=_is_of_collections(patch), back=kind != "edit")
        design = validate(applied.tree, (before, opened.design))
        tree = tree_of(design)
        done = tuple(_as_stands(op, tree) for op in applied.patch)
        message = message or sentence(before, tree, done, design.units.place)
        row.revision += 1
        Revision.create(
            project=row.id,
            number=row.revision,
            kind=kind,
            session=session,
            who=who,
            key=once,
            patch=json.dumps(done),
            inverse=json.dumps(applied.inverse),
            sentence=message,
            made_at=fn.now(),
        )
        changed = {"revision": row.revision, "document": json.dumps(tree, ensure_ascii=False), "name": design.name}
        Project.update(**changed, changed_at=fn.now()).where(Project.id == row.id).execute()
        tell(self._db, row.id, revision=row.revision)  # not whose: a session's name would let others undo as it
        return Edited(Opened(row.id, row.revision, tree, design), _ops_of(since), done, message)


def _slug(name: str) -> str:
    return re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-")[:40] or "car"


def _listed() -> Any:
    return Project.select(
        Project.id, Project.name, Project.revision, Project.changed_at, Project.variant_of, Project.deleted_at
    )


def _summary(row: Any) -> Summary:
    gone = row.deleted_at.isoformat() if row.deleted_at else ""
    return Summary(row.id, row.name, row.revision, row.changed_at.isoformat(), row.variant_of, gone)


def _row(key: str, *, lock: bool) -> Any:
    query = Project.select().where(Project.id == key, Project.deleted_at.is_null())
    row = (query.for_update() if lock else query).first()
    if row is None:
        raise UnknownThing("project", key[:60])
    return row


def _opened(row: Any) -> Opened:
    design = validate(json.loads(row.document))
    return Opened(row.id, row.revision, tree_of(design), design, row.changed_at.date().isoformat())


def _since(key: str, base: int) -> list[Any]:
    """Every revision after one, in order."""
    return list(Revision.select().where((Revision.project == key) & (Revision.number > base)).order_by(Revision.number))


def _ops_of(revisions: Sequence[Any]) -> tuple[Op, ...]:
    return tuple(op for row in revisions for op in json.loads(row.patch))


def _is_whole(ops: Sequence[Op]) -> bool:
    """Whether an upgrade is among them, which replaces the whole document."""
    return any(op["path"] == "" for op in ops)


def _is_of_collections(ops: Sequence[Op]) -> bool:
    """Whether whole collections change, as where a car becomes what it was: then nothing is left to follow."""
    return all(op["path"].count("/") == 1 for op in ops)


def _clash(path: str, tree: dict[str, Any], patch: Sequence[Op], theirs: Sequence[Any]) -> Clash:
    yours = next((op.get("value") for op in patch if op["path"] == path), None)
    touched = [op for op in patch if op["path"] == path]
    last = next(r for r in reversed(theirs) if clashes(touched, json.loads(r.patch)))
    return Clash(path, find(tree, path) if resolves(tree, path) else None, yours, last.who, last.made_at.isoformat())


def _as_stands(op: Op, tree: dict[str, Any]) -> Op:
    """The operation with its value as the validated document holds it, defaults filled in."""
    if op["op"] != "remove" and resolves(tree, op["path"]):
        return {**op, "value": find(tree, op["path"])}
    return op


def _stacks(key: str, session: str) -> tuple[list[int], list[int]]:
    """Revision numbers that undo and redo would take back, newest last. A new edit clears redo; an upgrade ends
    both."""
    undo: list[int] = []
    redo: list[int] = []
    theirs = (Revision.session == session) | (Revision.kind == "upgrade")
    rows = Revision.select(Revision.number, Revision.kind).where((Revision.project == key) & theirs)
    for row in rows.order_by(Revision.number):
        if row.kind == "upgrade":
            undo.clear()
            redo.clear()
        elif row.kind == "edit":
            undo.append(row.number)
            redo.clear()
        elif row.kind == "undo":
            undo.pop()
            redo.append(row.number)
        elif row.kind == "redo":
            redo.pop()
            undo.append(row.number)
    return undo, redo


def _bare(message: str) -> str:
    return message.removeprefix("undone: ")
