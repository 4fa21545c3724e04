"""Tabulated numbers, one CSV a subject, every row with its source.

A design keeps its own copy of the rows (``Design.tables``), so that an old design computes the same for ever;
these files are where a new design's copy comes from.
"""

import csv
from functools import cache
from importlib.resources import files

__all__ = ["rows"]


@cache
def rows(subject: str) -> tuple[dict[str, str], ...]:
    """The rows of one table in file order, as text by column name. Raises FileNotFoundError."""
    text = files(__name__).joinpath(f"{subject}.csv").read_text(encoding="utf-8")
    return tuple(csv.DictReader(text.splitlines()))
