"""A car with everything that belongs to it in one file: the design, its whole log, its scans and pictures.

What is written of what was read is the same to the byte: rows in their order, times of the entries fixed."""

import hashlib
import io
import json
import re
import zipfile
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field, StringConstraints, TypeAdapter, ValidationError

from levelcradle.core.design import Design, dump, load
from levelcradle.core.design.operation import Op
from levelcradle.core.errors import DesignError, Problem

__all__ = ["FILE", "MOST_BYTES", "Archive", "Entry", "Kept", "read_archive", "write_archive"]

DESIGN, LOG, NAMES = "design.cradle.json", "log.json", "files.json"
MOST_BYTES = 400_000_000  # unpacked
MOST_ENTRIES = 5000
FIXED = (1980, 1, 1, 0, 0, 0)
FILE = re.compile(r"[0-9a-f]{64}")


class Entry(BaseModel):
    """A revision as the log has it."""

    model_config = ConfigDict(extra="forbid", strict=True)

    number: Annotated[int, Field(ge=1)]
    kind: Literal["start", "edit", "undo", "redo", "upgrade"]
    who: Annotated[str, StringConstraints(max_length=200)]
    sentence: Annotated[str, StringConstraints(max_length=2000)]
    made_at: Annotated[str, StringConstraints(max_length=40)]
    patch: list[Op]
    inverse: list[Op]


@dataclass(frozen=True, slots=True)
class Kept:
    """A scan or picture: what it is, what it was called, what it holds."""

    kind: str
    name: str
    data: bytes


@dataclass(frozen=True, slots=True)
class Archive:
    """``files`` by the hash of what they hold, which is how the design speaks of them."""

    design: Design
    log: tuple[Entry, ...]
    files: Mapping[str, Kept]


def write_archive(archive: Archive) -> bytes:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as zipped:
        for name, data in _entries(archive):
            zipped.writestr(zipfile.ZipInfo(name, FIXED), data, zipfile.ZIP_DEFLATED)
    return out.getvalue()


def _entries(archive: Archive) -> Iterator[tuple[str, bytes]]:
    yield DESIGN, dump(archive.design).encode()
    yield LOG, _json([entry.model_dump() for entry in archive.log])
    files = sorted(archive.files.items())
    yield NAMES, _json({key: {"kind": kept.kind, "name": kept.name} for key, kept in files})
    yield from ((f"files/{key}", kept.data) for key, kept in files)


def _json(value: Any) -> bytes:
    return json.dumps(value, ensure_ascii=False, indent=1, allow_nan=False).encode()


def read_archive(raw: bytes, check: Callable[[str, bytes], bool]) -> Archive:
    """``check`` tells of a file's kind and content whether it is one that may be kept. Raises DesignError, which says
    what of the archive is wrong; nothing of it is kept then."""
    try:
        with zipfile.ZipFile(io.BytesIO(raw)) as zipped:
            rows = zipped.infolist()
            if len(rows) > MOST_ENTRIES or sum(row.file_size for row in rows) > MOST_BYTES:
                raise _refused("it holds more than can be taken")
            inside = {row.filename: zipped.read(row) for row in rows}
    except (zipfile.BadZipFile, NotImplementedError, RuntimeError, OSError, EOFError) as error:
        raise _refused("it is no archive, or it is damaged") from error
    if DESIGN not in inside:
        raise _refused(f"it holds no {DESIGN}")
    design = load(inside[DESIGN])
    if dump(design).encode() != inside[DESIGN]:  # of an earlier form: its log speaks of figures that are elsewhere now
        return Archive(design, (), _files(inside, check))
    return Archive(design, _log(inside.get(LOG, b"[]")), _files(inside, check))


def _log(raw: bytes) -> tuple[Entry, ...]:
    try:
        log = tuple(TypeAdapter(list[Entry]).validate_json(raw))
        times = [datetime.fromisoformat(entry.made_at) for entry in log]
    except (ValidationError, ValueError) as error:
        raise _refused("its log cannot be read") from error
    if [entry.number for entry in log] != list(range(1, len(log) + 1)) or any(t.tzinfo is None for t in times):
        raise _refused("its log has gaps")
    return log


def _files(inside: Mapping[str, bytes], check: Callable[[str, bytes], bool]) -> dict[str, Kept]:
    try:
        names = json.loads(inside.get(NAMES, b"{}"))
        rows = {key: (str(row["kind"]), str(row["name"])[:200]) for key, row in names.items()}
    except (ValueError, KeyError, TypeError, AttributeError) as error:
        raise _refused("its list of files cannot be read") from error
    found = {}
    for key, (kind, name) in rows.items():
        data = inside.get(f"files/{key}", b"")
        if not FILE.fullmatch(key) or hashlib.sha256(data).hexdigest() != key or not check(kind, data):
            raise _refused("one of its files is not what it is said to be")
        found[key] = Kept(kind, name, data)
    return found


def _refused(why: str) -> DesignError:
    return DesignError((Problem("", why),))
