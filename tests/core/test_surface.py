"""What each package offers is what it says it offers."""

import importlib
import inspect
import pkgutil

import pytest

import levelcradle
from levelcradle.core.errors import CradleError
from levelcradle.server.problems import ANSWERS

MODULES = sorted(
    m.name for m in pkgutil.walk_packages(levelcradle.__path__, "levelcradle.") if "migrations" not in m.name
)


@pytest.mark.parametrize("name", [m for m in MODULES if m.startswith("levelcradle.core")])
def test_every_public_name_is_there_and_documented(name: str) -> None:
    module = importlib.import_module(name)
    assert module.__doc__
    for public in getattr(module, "__all__", []):
        thing = getattr(module, public)
        if inspect.isfunction(thing) and thing.__module__ == name:
            assert not public.startswith("_")


def all_errors(kind: type[CradleError]) -> set[type[CradleError]]:
    return {kind}.union(*(all_errors(child) for child in kind.__subclasses__())) if kind.__subclasses__() else {kind}


def test_every_error_has_its_answer() -> None:
    for name in MODULES:
        if not name.endswith(("__main__", ".cli", ".shots")):
            importlib.import_module(name)
    missing = [kind for kind in all_errors(CradleError) - {CradleError} if kind not in ANSWERS]
    assert missing == []
