"""Fabrication packs: how far each has come, and its files."""

from typing import Any


def up(migrator: Any, db: Any) -> None:
    db.execute_sql(
        """
        CREATE TABLE pack (
            id TEXT PRIMARY KEY,
            project_id TEXT NOT NULL REFERENCES project (id) ON DELETE CASCADE,
            revision INTEGER NOT NULL,
            form INTEGER NOT NULL,
            day TEXT NOT NULL,
            state TEXT NOT NULL CHECK (state IN ('waiting', 'running', 'done', 'refused')),
            share DOUBLE PRECISION NOT NULL DEFAULT 0,
            message TEXT NOT NULL DEFAULT '',
            contents TEXT NOT NULL DEFAULT '',
            asked_at TIMESTAMPTZ NOT NULL DEFAULT now()
        );
        CREATE INDEX pack_project ON pack (project_id, revision);
        CREATE TABLE pack_file (
            pack_id TEXT NOT NULL REFERENCES pack (id) ON DELETE CASCADE,
            name TEXT NOT NULL,
            data BYTEA NOT NULL,
            PRIMARY KEY (pack_id, name)
        );
        """
    )


def down(migrator: Any, db: Any) -> None:
    db.execute_sql("DROP TABLE pack_file; DROP TABLE pack;")
