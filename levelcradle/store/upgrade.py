"""Stored documents of an earlier format brought to this one, each by a revision that keeps both whole."""

import json
import logging
from typing import Any

from peewee import fn

from levelcradle.core.design import dump, validate
from levelcradle.core.design.upgrade import FORMAT
from levelcradle.core.errors import DesignError
from levelcradle.store.tables import Project, Revision, StudyRow, bind

__all__ = ["upgrade_all"]

_log = logging.getLogger(__name__)


def upgrade_all(database: Any) -> None:
    """Upgrades every car that is not of this format yet. One that would not hold is left as it is and logged: it says
    why when opened.

    A study asked of a car before speaks of the earlier form, so it is asked again.
    """
    bind(database)
    with database.connection_context():
        older = [p.id for p in Project.select(Project.id).where(~Project.document.startswith(f'{{"format": {FORMAT},'))]
        for key in older:
            with database.atomic():
                _upgrade(Project.select().where(Project.id == key).for_update().get())


def _upgrade(row: Any) -> None:
    try:
        document = dump(validate(json.loads(row.document)))
    except DesignError:
        _log.exception("a car could not be upgraded: %s", row.id)
        return
    row.revision += 1
    whole = [{"op": "replace", "path": "", "value": json.loads(text)} for text in (document, row.document)]
    Revision.create(
        project=row.id,
        number=row.revision,
        kind="upgrade",
        session="",
        patch=json.dumps(whole[:1]),
        inverse=json.dumps(whole[1:]),
        sentence=f"brought to format {FORMAT} of the file",
        made_at=fn.now(),
    )
    Project.update(revision=row.revision, document=document).where(Project.id == row.id).execute()
    StudyRow.delete().where(StudyRow.project == row.id).execute()
