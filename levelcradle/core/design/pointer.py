"""JSON pointers (RFC 6901) into the document tree."""

from typing import Any

from levelcradle.core.errors import PatchError

__all__ = ["find", "join", "resolves", "split", "touches"]


def split(path: str) -> list[str]:
    """The steps of a pointer. Raises PatchError.

    >>> split('/readings/~1boxes~1tank')
    ['readings', '/boxes/tank']
    """
    if path == "":
        return []
    if not path.startswith("/") or len(path) > 600:
        raise PatchError(path[:80], "is no path into the document")
    return [step.replace("~1", "/").replace("~0", "~") for step in path[1:].split("/")]


def join(*steps: str) -> str:
    """A JSON Pointer from its steps.

    >>> join('readings', '/boxes/tank')
    '/readings/~1boxes~1tank'
    """
    return "".join("/" + step.replace("~", "~0").replace("/", "~1") for step in steps)


def find(tree: Any, path: str) -> Any:
    """What stands at a path. Raises PatchError where nothing does.

    >>> find({'boxes': {'tank': {'mm': [1, 2, 3]}}}, '/boxes/tank/mm/2')
    3
    """
    for step in split(path):
        if isinstance(tree, dict) and step in tree:
            tree = tree[step]
        elif isinstance(tree, list) and step.isdecimal() and int(step) < len(tree):
            tree = tree[int(step)]
        else:
            raise PatchError(path, "is not there")
    return tree


def resolves(tree: Any, path: str) -> bool:
    try:
        find(tree, path)
    except PatchError:
        return False
    return True


def touches(one: str, other: str) -> bool:
    """Whether one path is the other, holds it or lies in it."""
    return one == other or one.startswith(other + "/") or other.startswith(one + "/")
