"""On which line of a JSON text a path stands, so that whoever wrote the file finds it."""

import json
import re
from collections.abc import Iterator

from levelcradle.core.design.pointer import join

__all__ = ["line_of"]

_TEXT = r'"(?:[^"\\]|\\.)*"'
_TOKEN = re.compile(rf'(?P<key>{_TEXT})\s*:|{_TEXT}|[{{}}\[\],]|[^\s{{}}\[\],:"]+')


def line_of(text: str, path: str) -> int | None:
    """The line, from 1, where what stands at a path begins, or where nothing does, what should hold it. None for the
    whole text."""
    best, line = "", None
    for here, at in _values(text):
        if len(here) > len(best) and (path == here or path.startswith(here + "/")):
            best, line = here, text.count("\n", 0, at) + 1
    return line


def _values(text: str) -> Iterator[tuple[str, int]]:
    """(path, offset) of every value of sound JSON."""
    steps: list[str | int] = []  # the key or number at each depth
    for token in _TOKEN.finditer(text):
        word = token[0]
        if token["key"]:
            steps[-1] = json.loads(token["key"])
        elif word == ",":
            steps[-1] = steps[-1] + 1 if isinstance(steps[-1], int) else steps[-1]
        elif word in ("}", "]"):
            steps.pop()
        else:
            yield join(*map(str, steps)), token.start()
            if word in ("{", "["):
                steps.append("" if word == "{" else 0)
