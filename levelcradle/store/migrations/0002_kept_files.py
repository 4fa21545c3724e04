"""Scans and pictures, kept by the hash of what they hold."""

from typing import Any


def up(migrator: Any, db: Any) -> None:
    db.execute_sql(
        """
        CREATE TABLE kept_file (
            hash TEXT PRIMARY KEY,
            kind TEXT NOT NULL,
            name TEXT NOT NULL,
            data BYTEA NOT NULL,
            kept_at TIMESTAMPTZ NOT NULL DEFAULT now()
        );
        """
    )


def down(migrator: Any, db: Any) -> None:
    db.execute_sql("DROP TABLE kept_file;")
