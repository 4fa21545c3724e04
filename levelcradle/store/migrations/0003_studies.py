"""Fit studies, unique by car, revision and wishes; and the tables of the task queue."""

from typing import Any

from procrastinate.schema import SchemaManager


def up(migrator: Any, db: Any) -> None:
    db.execute_sql(
        """
        CREATE TABLE study (
            id TEXT PRIMARY KEY,
            project_id TEXT NOT NULL REFERENCES project (id) ON DELETE CASCADE,
            revision INTEGER NOT NULL,
            wishes TEXT NOT NULL,
            state TEXT NOT NULL CHECK (state IN ('waiting', 'running', 'done', 'stopped', 'refused')),
            stop BOOLEAN NOT NULL DEFAULT false,
            says TEXT NOT NULL DEFAULT '',
            tried INTEGER NOT NULL DEFAULT 0,
            best INTEGER NOT NULL DEFAULT 0,
            found TEXT NOT NULL DEFAULT '',
            asked_at TIMESTAMPTZ NOT NULL DEFAULT now()
        );
        CREATE INDEX study_of_project ON study (project_id, asked_at);
        """
    )
    db.execute_sql(SchemaManager.get_schema().replace("%", "%%"))


def down(migrator: Any, db: Any) -> None:
    db.execute_sql("DROP TABLE study;")
