"""What a study or a scan that is read in says of itself is its message; studies kept under the earlier names are made
again when asked."""

from typing import Any


def up(migrator: Any, db: Any) -> None:
    db.execute_sql("ALTER TABLE study RENAME COLUMN says TO message;")
    db.execute_sql("ALTER TABLE scan_reading RENAME COLUMN says TO message;")
    db.execute_sql("DELETE FROM study;")


def down(migrator: Any, db: Any) -> None:
    db.execute_sql("ALTER TABLE study RENAME COLUMN message TO says;")
    db.execute_sql("ALTER TABLE scan_reading RENAME COLUMN message TO says;")
