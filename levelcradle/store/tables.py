"""Rows. The document is TEXT written by us: a JSON column would reorder keys and change numbers."""

from typing import Any

from peewee import BlobField, CompositeKey, DateTimeField, ForeignKeyField, IntegerField, Model, TextField

__all__ = ["KeptFile", "Project", "Revision", "bind"]


class Project(Model):
    id = TextField(primary_key=True)
    name = TextField()
    revision = IntegerField()
    document = TextField()
    changed_at = DateTimeField()


class Revision(Model):
    project = ForeignKeyField(Project, column_name="project_id")
    number = IntegerField()
    kind = TextField()
    session = TextField()
    patch = TextField()
    inverse = TextField()
    sentence = TextField()
    made_at = DateTimeField()

    class Meta:
        primary_key = CompositeKey("project", "number")


class KeptFile(Model):
    """A scan or picture, named by the hash of what it holds: kept once, whoever speaks of it."""

    hash = TextField(primary_key=True)
    kind = TextField()
    name = TextField()
    data = BlobField()
    kept_at = DateTimeField()

    class Meta:
        table_name = "kept_file"


def bind(database: Any) -> None:
    database.bind([Project, Revision, KeptFile])
