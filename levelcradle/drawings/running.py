"""Running dimensions: along two edges of a drawing, how far each place on it is from their corner (ISO 129-1,
superimposed running dimensioning). The whole length is the bold figure."""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

import numpy as np

from levelcradle.drawings.border import SMALLEST_MM, Job
from levelcradle.drawings.letters import letters_mm
from levelcradle.drawings.sheet import Frame, Sheet

__all__ = ["Measured", "running", "spread"]

PITCH_MM = 3.4  # between two figures beside each other
LEAST_MM = 0.1  # apart, as figures are written
NEAR_MM, KINK_MM, FAR_MM = 1.0, 2.5, 5.5  # off the edge: where a line begins, where it turns to its figure, and ends


@dataclass(frozen=True, slots=True)
class Measured:
    """Places along an edge, in model millimetres. ``may``: what stands in a table too, and gives way where there is no
    room; ``span``: from where they count, and what ends the whole length, where those are not the first and last."""

    must: tuple[float, ...]
    may: tuple[float, ...] = ()
    span: tuple[float, float] | None = None

    @property
    def ends(self) -> tuple[float, float]:
        return self.span or (min(self.must), max(self.must))

    def figures(self, most: int) -> list[float]:
        """In their order, each once; at the worst, only both ends.

        >>> Measured((12.04, 0.0, 12.0), (7.5,)).figures(3), Measured((12.04, 0.0, 12.0), (7.5,)).figures(2)
        ([0.0, 7.5, 12.0], [0.0, 12.0])
        """
        least = _apart(self.must)
        found = _apart([*least, *self.may])
        return next((some for some in (found, least) if len(some) <= most), [least[0], least[-1]])

    def reach_mm(self, job: Job) -> float:
        """How far the figures reach off the edge."""
        wide = (letters_mm(job.length(v - self.ends[0]), SMALLEST_MM) for v in (*self.must, *self.may))
        return FAR_MM + 1.0 + max(wide)


def _apart(values: Iterable[float]) -> list[float]:
    """What is closer than can be written is one place."""
    found = list[float]()
    for value in sorted(values):
        if not found or value > found[-1] + LEAST_MM:
            found.append(value)
    return found


def running(
    sheet: Sheet, frame: Frame, measured: Measured, edge: float, job: Job, *, upright: bool, limit_mm: float
) -> None:
    """Figures under a drawing, or with ``upright`` at its left. ``edge``: where it stands, across, in model
    millimetres; ``limit_mm``: how far right, or up, there is room on the sheet."""
    along, (zero, whole) = 1 if upright else 0, measured.ends
    first = frame.at((min(measured.must),) * 2)[along]
    values = measured.figures(int((limit_mm - first) / PITCH_MM))
    on_page = [frame.at((edge, v) if upright else (v, edge)) for v in values]
    beside = spread([point[along] for point in on_page], PITCH_MM, limit_mm)
    for value, point, at in zip(values, on_page, beside, strict=True):
        off = point[1 - along]
        run = [(point[along], off - NEAR_MM), (point[along], off - KINK_MM), (at, off - FAR_MM)]
        sheet.line(*((y, x) if upright else (x, y) for x, y in run), weight_mm=0.13)
        # the line meets the figure at its middle: letters stand on their baseline
        x, y = (off - FAR_MM - 1.0, at - 0.9) if upright else (at + 0.9, off - FAR_MM - 1.0)
        sheet.words(
            (x, y), job.length(value - zero), SMALLEST_MM, "end", bold=abs(value - whole) < LEAST_MM, turned=not upright
        )


def spread(wanted: Sequence[float], apart: float, limit: float = math.inf) -> list[float]:
    """Places in the same order, each as near to where it is wanted as can be with so much between any two, none beyond
    the limit; the first stays, for before it the figures of the other edge begin.

    >>> spread([0.0, 10.0, 11.0, 30.0], 3.0)
    [0.0, 9.0, 12.0, 30.0]
    """
    from scipy.optimize import isotonic_regression

    if not wanted:
        return []
    steps = apart * np.arange(len(wanted))
    free = isotonic_regression(np.array(wanted) - steps).x
    return [float(at) for at in np.clip(free, wanted[0], max(wanted[0], limit - steps[-1])) + steps]
