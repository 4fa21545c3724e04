"""A revision may be an upgrade of the document's format."""

from typing import Any


def up(migrator: Any, db: Any) -> None:
    _kinds(db, "'start', 'edit', 'undo', 'redo', 'upgrade'")


def down(migrator: Any, db: Any) -> None:
    _kinds(db, "'start', 'edit', 'undo', 'redo'")


def _kinds(db: Any, kinds: str) -> None:
    db.execute_sql("ALTER TABLE revision DROP CONSTRAINT revision_kind_check;")
    db.execute_sql(f"ALTER TABLE revision ADD CONSTRAINT revision_kind_check CHECK (kind IN ({kinds}));")
