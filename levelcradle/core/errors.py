"""What can go wrong, as a tree.

CradleError
├── ReadingError    a typed text is no length, mass or place       (ValueError)
├── OutOfRange      a rule was asked beyond what it is valid for   (ValueError)
├── DesignError     the document says something that cannot be     (ValueError)
│   └── PatchError  an edit cannot be applied to the document
└── UnknownThing    a project, finding or part that is not there   (LookupError)
"""

from dataclasses import dataclass

__all__ = ["CradleError", "DesignError", "OutOfRange", "PatchError", "Problem", "ReadingError", "UnknownThing"]


class CradleError(Exception):
    """Root of every error this application raises on purpose."""


class ReadingError(CradleError, ValueError):
    """A text that somebody typed cannot be read as what the blank asks for."""

    def __init__(self, text: str, message: str) -> None:
        self.text, self.message = text, message
        super().__init__(message)


class OutOfRange(CradleError, ValueError):
    """A rule was asked for a figure beyond what it is valid for."""


@dataclass(frozen=True, slots=True)
class Problem:
    """One thing wrong at one place of the document: a JSON pointer and a sentence."""

    path: str
    message: str


class DesignError(CradleError, ValueError):
    """The document is refused. Carries every problem found, each with its path."""

    def __init__(self, problems: tuple[Problem, ...]) -> None:
        self.problems = problems
        super().__init__("; ".join(f"{p.path or '/'}: {p.message}" for p in problems))


class PatchError(DesignError):
    """An edit names a place that is not there, or adds what exists already."""

    def __init__(self, path: str, message: str) -> None:
        super().__init__((Problem(path, message),))


class UnknownThing(CradleError, LookupError):
    """A project, revision, finding or part that does not exist."""

    def __init__(self, kind: str, name: str) -> None:
        self.kind, self.name = kind, name
        super().__init__(f"There is no {kind} “{name}”.")
