"""Scans that are being read in: what was sent, how far it has come, what was found."""

from typing import Any


def up(migrator: Any, db: Any) -> None:
    db.execute_sql(
        """
        CREATE TABLE scan_reading (
            id TEXT PRIMARY KEY,
            name TEXT NOT NULL,
            unit TEXT,
            tolerance_mm DOUBLE PRECISION NOT NULL,
            data BYTEA NOT NULL,
            state TEXT NOT NULL CHECK (state IN ('waiting', 'reading', 'done', 'refused')),
            share DOUBLE PRECISION NOT NULL DEFAULT 0,
            says TEXT NOT NULL DEFAULT '',
            file TEXT,
            found TEXT NOT NULL DEFAULT '',
            asked_at TIMESTAMPTZ NOT NULL DEFAULT now()
        );
        """
    )


def down(migrator: Any, db: Any) -> None:
    db.execute_sql("DROP TABLE scan_reading;")
