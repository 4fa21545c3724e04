"""General tolerances of lengths: as cut, as welded."""

from functools import cache

from levelcradle.core.tables import rows

__all__ = ["tolerance_by"]


def tolerance_by(rule: str, mm: float) -> tuple[float, str]:
    """The general tolerance of a length and its source: over the first limit, up to and with the second. ``rule``:
    ``cut``, or ``welded`` with a class, A to D.

    >>> tolerance_by('cut', 245.0)[0]
    0.5
    """
    found = [row for row in _tolerances() if row[0] == rule]
    for _, over, to, tol, source in found:
        if over < mm <= to:
            return tol, source
    return (found[0][3], found[0][4]) if mm <= found[0][1] else (found[-1][3], found[-1][4])


@cache
def _tolerances() -> tuple[tuple[str, float, float, float, str], ...]:
    return tuple(
        (r["rule"], float(r["over_mm"]), float(r["to_mm"]), float(r["tol_mm"]), r["source"]) for r in rows("tolerances")
    )
