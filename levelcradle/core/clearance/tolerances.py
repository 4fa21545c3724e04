"""How far a gap or a place may be off, as it was taped and as its box is welded."""

from math import hypot

from levelcradle.core.assembly import PlacedBox
from levelcradle.core.design import Design
from levelcradle.core.tolerances import tolerance_by

__all__ = ["gap_tolerance", "tape_tolerance"]

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
