"""Running dimensions: along two edges of a drawing, how far each place on it is from their corner (ISO 129-1,
superimposed running dimensioning). The last figure is the whole length."""

from collections.abc import Iterable, Sequence

import numpy as np

from levelcradle.drawings.border import SMALLEST_MM, Job
from levelcradle.drawings.letters import letters_mm
from levelcradle.drawings.sheet import Frame, Sheet

__all__ = ["places", "running", "running_room_mm", "spread"]

PITCH_MM = 3.4  # between two figures beside each other
MOST_FIGURES = 30  # along an edge: so many have room on the smallest paper
LEAST_MM = 0.1  # apart, as figures are written
NEAR_MM, KINK_MM, FAR_MM = 1.0, 2.5, 5.5  # off the edge: where a line begins, where it turns to its figure, and ends


def places(must: Iterable[float], may: Iterable[float] = ()) -> list[float]:
    """Each once, in their order: what is closer than can be written is one place. Where there is no room for all, what
    ``may`` be told stands in the table alone; and at the worst only both ends are told.

    >>> places([12.04, 0.0, 12.0], [7.5])
    [0.0, 7.5, 12.0]
    """
    least = _apart(must)
    found = _apart([*least, *may])
    return next((some for some in (found, least) if len(some) <= MOST_FIGURES), [least[0], least[-1]])


def _apart(values: Iterable[float]) -> list[float]:
    found = list[float]()
    for value in sorted(values):
        if not found or value > found[-1] + LEAST_MM:
            found.append(value)
    return found


def running_room_mm(values: Sequence[float], job: Job) -> float:
    """How far such figures reach off the edge."""
    return FAR_MM + 1.0 + max((letters_mm(job.length(v - values[0]), SMALLEST_MM) for v in values), default=0.0)


def running(
    sheet: Sheet,
    frame: Frame,
    values: Sequence[float],
    edge: float,
    job: Job,
    *,
    upright: bool,
    span: tuple[float, float] | None = None,
) -> None:
    """Figures under a drawing, or with ``upright`` at its left.

    ``values``: places along the edge in model millimetres, in their order; ``edge``: where the edge stands, across;
    ``span``: from where they count and what ends the whole length, where those are not the first and the last.
    """
    zero, whole = span or (values[0], values[-1])
    on_page = [frame.at((edge, v) if upright else (v, edge)) for v in values]
    along = 1 if upright else 0
    beside = spread([point[along] for point in on_page], PITCH_MM)
    for number, (point, at) in enumerate(zip(on_page, beside, strict=True)):
        off = point[1 - along]
        run = [(point[along], off - NEAR_MM), (point[along], off - KINK_MM), (at, off - FAR_MM)]
        sheet.line(*((y, x) if upright else (x, y) for x, y in run), weight_mm=0.13)
        # the line meets the figure at its middle: letters stand on their baseline
        x, y = (off - FAR_MM - 1.0, at - 0.9) if upright else (at + 0.9, off - FAR_MM - 1.0)
        ends, text = abs(values[number] - whole) < LEAST_MM, job.length(values[number] - zero)
        sheet.words((x, y), text, SMALLEST_MM, "end", bold=ends, turned=not upright)


def spread(wanted: Sequence[float], apart: float) -> list[float]:
    """Places in the same order, each as near to where it is wanted as can be with so much between any two; the first
    stays, for before it the figures of the other edge begin.

    >>> spread([0.0, 10.0, 11.0, 30.0], 3.0)
    [0.0, 9.0, 12.0, 30.0]
    """
    from scipy.optimize import isotonic_regression

    if not wanted:
        return []
    steps = apart * np.arange(len(wanted))
    free = isotonic_regression(np.array(wanted) - steps).x
    return [float(at) for at in np.maximum(free, wanted[0]) + steps]
