"""Who made an edit, and the key that it was sent under: sent again, it is stored once."""

from typing import Any


def up(migrator: Any, db: Any) -> None:
    db.execute_sql(
        """
        ALTER TABLE revision ADD COLUMN who TEXT NOT NULL DEFAULT '', ADD COLUMN key TEXT;
        CREATE UNIQUE INDEX revision_key ON revision (project_id, key);
        """
    )


def down(migrator: Any, db: Any) -> None:
    db.execute_sql("ALTER TABLE revision DROP COLUMN key, DROP COLUMN who;")
