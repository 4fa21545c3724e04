"""One fabrication pack made in a process of its own, with bounded memory: ``main`` with its key as the argument."""

import io
import json
import os
import resource
import sys
import zipfile
from collections.abc import Mapping
from contextlib import suppress

from levelcradle.core.design import validate
from levelcradle.core.errors import UnknownThing
from levelcradle.drawings import Pack, make_pack, sheet_svg
from levelcradle.jobs.kept_scans import kept_scans
from levelcradle.jobs.names import SHEETS, WHOLE
from levelcradle.store import Store, connect

__all__ = ["MOST_BYTES", "main", "make"]

MOST_BYTES = 1_500_000_000


def make(store: Store, key: str) -> None:
    """Makes the pack of a revision, keeps it, and tells how far it has come."""
    asked = store.packs.get(key)
    design = validate(store.at(asked.project, asked.revision))
    pack = make_pack(
        design,
        kept_scans(store, design),
        revision=asked.revision,
        on=asked.day,
        told=lambda share, what: store.packs.told(key, share, what),
    )
    pictures = {f"{SHEETS}/{s.name}.svg": sheet_svg(s).encode() for group in pack.groups for s in group.sheets}
    store.packs.done(key, _contents(pack), pack.files | pictures | {WHOLE: _zipped(pack.files, asked.day)})


def _zipped(files: Mapping[str, bytes], day: str) -> bytes:
    """All files in one; their day is the revision's, for the same design is to give the same bytes."""
    out = io.BytesIO()
    year, month, date = map(int, day.split("-"))
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        for name, data in files.items():
            archive.writestr(zipfile.ZipInfo(name, (year, month, date, 0, 0, 0)), data, zipfile.ZIP_DEFLATED)
    return out.getvalue()


def _contents(pack: Pack) -> str:
    groups = [
        {
            "title": group.title,
            "sheets": [
                {"name": s.name, "title": s.title, "cut": s.cut, "parts": s.parts, "about": s.about}
                for s in group.sheets
            ],
        }
        for group in pack.groups
    ]
    return json.dumps({"released": pack.released, "groups": groups})


def main() -> None:
    _, hard = resource.getrlimit(resource.RLIMIT_DATA)
    most = MOST_BYTES if hard == resource.RLIM_INFINITY else min(MOST_BYTES, hard)
    resource.setrlimit(resource.RLIMIT_DATA, (most, most))
    store = Store(connect(os.environ["LEVELCRADLE_DATABASE"]))
    with suppress(UnknownThing):  # its car was removed meanwhile
        make(store, sys.argv[1])
