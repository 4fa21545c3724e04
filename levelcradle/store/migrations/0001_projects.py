"""Projects with their current document, and every revision that led to it."""

from typing import Any


def up(migrator: Any, db: Any) -> None:
    db.execute_sql(
        """
        CREATE TABLE project (
            id TEXT PRIMARY KEY,
            name TEXT NOT NULL,
            revision INTEGER NOT NULL,
            document TEXT NOT NULL,
            changed_at TIMESTAMPTZ NOT NULL DEFAULT now()
        );
        CREATE TABLE revision (
            project_id TEXT NOT NULL REFERENCES project (id) ON DELETE CASCADE,
            number INTEGER NOT NULL,
            kind TEXT NOT NULL CHECK (kind IN ('start', 'edit', 'undo', 'redo')),
            session TEXT NOT NULL,
            patch TEXT NOT NULL,
            inverse TEXT NOT NULL,
            sentence TEXT NOT NULL,
            made_at TIMESTAMPTZ NOT NULL DEFAULT now(),
            PRIMARY KEY (project_id, number)
        );
        """
    )


def down(migrator: Any, db: Any) -> None:
    db.execute_sql("DROP TABLE revision; DROP TABLE project;")
