"""Figures that nobody measured: a check that rests on one is not known, until somebody answers for it with a ±."""

from levelcradle.core.design.design import Design

__all__ = ["accepted_plus_minus", "guessed"]


def guessed(design: Design, prefix: str) -> str | None:
    """The path of a figure under a pointer that is assumed and that nobody answers for; None where there is none."""
    rows = design.readings.items()
    return next((key for key, r in rows if r.basis == "assumed" and r.accepted is None and _under(key, prefix)), None)


def accepted_plus_minus(design: Design, path: str) -> float | None:
    """The ± with which somebody answers for an assumed figure."""
    reading = design.readings.get(path)
    return reading.accepted.plus_minus if reading and reading.accepted else None


def _under(key: str, prefix: str) -> bool:
    return key == prefix or key.startswith(f"{prefix}/")
