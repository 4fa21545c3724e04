"""Figures that nobody measured: a check that rests on one is not known, until somebody answers for it with a ±."""

from levelcradle.core.design.design import Design
from levelcradle.core.design.readings import NOT_TAKEN
from levelcradle.core.design.survey import Reading

__all__ = ["accepted_plus_minus", "guesses", "under"]


def guesses(design: Design) -> tuple[str, ...]:
    """The paths of all figures that nobody took, or that are assumed and nobody answers for. What was taken from a
    reference point that has no place yet is not known either."""
    return tuple(path for path, reading in design.readings.items() if _is_guess(design, reading))


def _is_guess(design: Design, reading: Reading) -> bool:
    if reading.basis == NOT_TAKEN or (reading.basis == "assumed" and reading.accepted is None):
        return True
    hooks = (
        (design.readings.get(f"/references/{reading.from_}/at_mm/{axis}") for axis in range(3)) if reading.from_ else ()
    )
    return any(hook.basis == NOT_TAKEN for hook in hooks if hook)


def accepted_plus_minus(design: Design, path: str) -> float | None:
    """The ± with which somebody answers for an assumed figure."""
    reading = design.readings.get(path)
    return reading.accepted.plus_minus if reading and reading.accepted else None


def under(path: str, prefix: str) -> bool:
    return path == prefix or path.startswith(f"{prefix}/")
