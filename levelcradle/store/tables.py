"""Rows. The document is TEXT written by us: a JSON column would reorder keys and change numbers."""

from typing import Any

from peewee import (
    BlobField,
    BooleanField,
    CompositeKey,
    DateTimeField,
    FloatField,
    ForeignKeyField,
    IntegerField,
    Model,
    TextField,
)

__all__ = ["KeptFile", "PackFile", "PackRow", "Project", "Revision", "ScanRow", "StudyRow", "bind"]


class Project(Model):
    id = TextField(primary_key=True)
    name = TextField()
    revision = IntegerField()
    document = TextField()
    changed_at = DateTimeField()
    variant_of = TextField(null=True)
    deleted_at = DateTimeField(null=True)


class Revision(Model):
    project = ForeignKeyField(Project, column_name="project_id")
    number = IntegerField()
    kind = TextField()
    session = TextField()
    who = TextField(default="")
    key = TextField(null=True)
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


class StudyRow(Model):
    id = TextField(primary_key=True)
    project = ForeignKeyField(Project, column_name="project_id")
    revision = IntegerField()
    wishes = TextField()
    state = TextField()
    stop = BooleanField()
    message = TextField()
    tried = IntegerField()
    best = IntegerField()
    found = TextField()
    asked_at = DateTimeField()

    class Meta:
        table_name = "study"


class ScanRow(Model):
    id = TextField(primary_key=True)
    name = TextField()
    unit = TextField(null=True)
    tolerance_mm = FloatField()
    data = BlobField()
    state = TextField()
    share = FloatField()
    message = TextField()
    file = TextField(null=True)
    found = TextField()
    asked_at = DateTimeField()

    class Meta:
        table_name = "scan_reading"


class PackRow(Model):
    id = TextField(primary_key=True)
    project = ForeignKeyField(Project, column_name="project_id")
    revision = IntegerField()
    form = IntegerField()
    day = TextField()
    state = TextField()
    share = FloatField()
    message = TextField()
    contents = TextField()
    asked_at = DateTimeField()

    class Meta:
        table_name = "pack"


class PackFile(Model):
    pack = ForeignKeyField(PackRow, column_name="pack_id")
    name = TextField()
    data = BlobField()

    class Meta:
        table_name = "pack_file"
        primary_key = CompositeKey("pack", "name")


def bind(database: Any) -> None:
    database.bind([Project, Revision, KeptFile, StudyRow, ScanRow, PackRow, PackFile])
