"""Whose work the server is built of: every package it runs with, its version, its licence and that licence's text."""

import re
from collections.abc import Iterator
from functools import lru_cache
from importlib.metadata import Distribution, PackageNotFoundError, distribution
from pathlib import Path

from fastapi import APIRouter
from pydantic import TypeAdapter
from starlette.responses import Response

from levelcradle.server.views import Out

__all__ = ["NoticeOut", "notices", "router"]

LOCK = Path(__file__).parents[2] / "requirements.txt"
_PINNED = re.compile(r"^([A-Za-z0-9_.\-]+)==", re.MULTILINE)
CODE = (".py", ".pyc")  # modules that are called so
_LICENCE_FILE = re.compile(r"(^|/)(licen[cs]e|copying|notice)[^/]*$", re.IGNORECASE)

router = APIRouter()


class NoticeOut(Out):
    name: str
    version: str
    licence: str
    text: str


@lru_cache(maxsize=1)
def notices() -> tuple[NoticeOut, ...]:
    """One for each package of the lock file that is installed here; some are of other machines alone."""
    return tuple(_of(name, found) for name in _PINNED.findall(LOCK.read_text()) for found in _installed(name))


def _installed(name: str) -> Iterator[Distribution]:
    try:
        yield distribution(name)
    except PackageNotFoundError:
        return


def _of(name: str, found: Distribution) -> NoticeOut:
    named = (Path(str(file.locate())) for file in found.files or () if _LICENCE_FILE.search(str(file)))
    files = [file for file in named if file.suffix not in CODE and file.is_file()]
    text = "\n\n".join(file.read_text(encoding="utf-8", errors="replace").strip() for file in files)
    return NoticeOut(name=name, version=found.version, licence=_licence(found), text=text)


def _licence(found: Distribution) -> str:
    """As the package itself says it: an SPDX expression, else its classifiers, else the first line of what it wrote."""
    meta = found.metadata
    classes = [row.split(" :: ")[-1] for row in meta.get_all("Classifier", []) if row.startswith("License ::")]
    written = (meta["License"] or "").strip().split("\n")[0]
    return meta["License-Expression"] or " or ".join(classes) or written or "see its text"


_NOTICES = TypeAdapter(tuple[NoticeOut, ...])


@router.get("/notices", response_model=list[NoticeOut])
def third_party_notices() -> Response:
    """The packages of others that the server runs with."""
    return Response(_NOTICES.dump_json(notices()), media_type="application/json")
