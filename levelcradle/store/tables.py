"""Rows. The document is TEXT written by us: a JSON column would reorder keys and change numbers."""

from typing import Any

from peewee import CompositeKey, DateTimeField, ForeignKeyField, IntegerField, Model, TextField

__all__ = ["Project", "Revision", "bind"]


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


def bind(database: Any) -> None:
    database.bind([Project, Revision])
