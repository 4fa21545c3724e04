"""The documents speak of what is there: every name and path in them leads somewhere."""

import doctest
import re
from importlib import import_module
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[1]
DOCS = [ROOT / "README.md", *sorted((ROOT / "docs").glob("*.md"))]
PATH = re.compile(r"`((?:levelcradle|web|tests|benchmarks|docs|launcher)/[\w./-]+)`")
NAME = re.compile(r"`(levelcradle(?:\.\w+)+)`")
LINK = re.compile(r"\]\(([^)#:]+)(?:#[^)]*)?\)")


@pytest.mark.parametrize("page", DOCS, ids=lambda page: page.name)
def test_every_path_name_and_link_leads_somewhere(page: Path) -> None:
    text = page.read_text(encoding="utf-8")
    assert [path for path in PATH.findall(text) if not (ROOT / path).exists()] == []
    assert [link for link in LINK.findall(text) if not (page.parent / link).exists()] == []
    for name in NAME.findall(text):
        found(name)


def found(name: str) -> object:
    """A module, or what is in one. Raises where there is none."""
    parts = name.split(".")
    for end in range(len(parts), 0, -1):
        try:
            thing: object = import_module(".".join(parts[:end]))
        except ModuleNotFoundError:
            continue
        for part in parts[end:]:
            thing = getattr(thing, part)
        return thing
    raise AssertionError(name)


EXAMPLES = sorted(p for p in (ROOT / "levelcradle").rglob("*.py") if ">>> " in p.read_text(encoding="utf-8"))


@pytest.mark.parametrize("file", EXAMPLES, ids=lambda file: file.stem)
def test_the_examples_beside_the_code_run(file: Path) -> None:
    module = import_module(".".join(file.relative_to(ROOT).with_suffix("").parts))
    ran = doctest.testmod(module)
    assert ran.attempted > 0
    assert ran.failed == 0
