"""Variants know their first; what is deleted is kept for a while."""

from typing import Any


def up(migrator: Any, db: Any) -> None:
    db.execute_sql(
        """
        ALTER TABLE project
            ADD COLUMN variant_of TEXT REFERENCES project (id) ON DELETE SET NULL,
            ADD COLUMN deleted_at TIMESTAMPTZ;
        """
    )


def down(migrator: Any, db: Any) -> None:
    db.execute_sql("ALTER TABLE project DROP COLUMN deleted_at, DROP COLUMN variant_of;")
