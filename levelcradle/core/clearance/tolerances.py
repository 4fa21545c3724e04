"""How far a figure may be off: as taped, as cut, as welded."""

import csv
from functools import cache
from importlib.resources import files
from math import hypot
from typing import Literal

from levelcradle.core.assembly import PlacedBox
from levelcradle.core.design import Design

__all__ = ["gap_tolerance", "tape_tolerance", "tolerance_by"]

DEFAULT_TOLERANCE_MM = 3.0  # a reached-in tape and the box as welded: common practice, no source


def gap_tolerance(design: Design, box: PlacedBox, path: str) -> float:
    """How far a gap between a box and a thing may be off: what the thing was measured to, and half of what the longest side of the
    box may be off as welded, as the root of their squares; 3 mm either way covers both where nothing was said.

    Source: independent errors add as the root of their squares; ISO 13920 class A for the box.
    """
    stated = _stated(design, path)
    return DEFAULT_TOLERANCE_MM if stated is None else hypot(stated, tolerance_by("welded", max(box.shell.outer_mm))[0] / 2)


def tape_tolerance(design: Design, path: str) -> float:
    """How far the place of a thing may be off, else 3 mm either way."""
    stated = _stated(design, path)
    return DEFAULT_TOLERANCE_MM if stated is None else stated


def _stated(design: Design, path: str) -> float | None:
    """What was said of its whole space, or the widest tolerance its readings state."""
    steps = path.split("/")
    if steps[0] == "bays" and (tape := design.bays[steps[1]].tolerance_mm) is not None:
        return tape
    prefix = f"/{path}/"
    rows = [r for key, r in design.readings.items() if key.startswith(prefix)]
    stated = [r.tolerance for r in rows if r.tolerance is not None]
    return max([*stated, *(r.accepted.plus_minus for r in rows if r.accepted)], default=None)


def tolerance_by(rule: Literal["cut", "welded"], mm: float) -> tuple[float, str]:
    """The general tolerance of a length and its source: over the first limit, up to and with the second."""
    rows = [row for row in _tolerances() if row[0] == rule]
    for _, over, to, tol, source in rows:
        if over < mm <= to:
            return tol, source
    return (rows[0][3], rows[0][4]) if mm <= rows[0][1] else (rows[-1][3], rows[-1][4])


@cache
def _tolerances() -> tuple[tuple[str, float, float, float, str], ...]:
    text = (files("levelcradle.core.tables") / "tolerances.csv").read_text(encoding="utf-8")
    return tuple(
        (r["rule"], float(r["over_mm"]), float(r["to_mm"]), float(r["tol_mm"]), r["source"]) for r in csv.DictReader(text.splitlines())
    )
