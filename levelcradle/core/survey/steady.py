"""Whether what an instrument sends has come to rest, and what to hold of it."""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import takewhile
from statistics import fmean, median

__all__ = ["BAND", "Sample", "Steadiness", "steadiness"]

WINDOW_S = 1.5
SPAN_S = 1.0  # what is looked at must last so long
FEWEST = 4
SILENT_S = 1.0
DRIFT_S = 4.0  # a drift is told from so much of the past at least, since it came to rest
AT_REST = 3.0  # bands: what stood farther off was still settling: common practice, no source
# how far readings may stand apart and count as one: common practice, no source
BAND = {"kg": 0.5, "lb": 1.0, "mm": 1.0, "cm": 0.1, "m": 0.001, "in": 1 / 32, "V": 0.02, "mV": 20.0}
DIGITS = {"kg": 1, "lb": 1, "mm": 1, "cm": 2, "m": 4, "in": 3, "V": 3, "mV": 0}
SHARE = 0.002  # of the reading, for a unit that is not listed: common practice, no source


@dataclass(frozen=True, slots=True)
class Sample:
    """One line of an instrument: when it came [s], its figure and its unit."""

    at_s: float
    value: float
    unit: str


@dataclass(frozen=True, slots=True)
class Steadiness:
    """What stands on an instrument: the middle of the last readings, how far they stand apart, whether that is at
    rest."""

    value: float
    unit: str
    spread: float
    steady: bool
    message: str
    text: str


def steadiness(samples: Sequence[Sample], now_s: float) -> Steadiness | None:
    """Judges the newest readings of one channel, oldest first; None where there are none.

    Readings before a change of unit do not count. Steady: four or more over a second that stand within the unit's band.
    """
    if not samples:
        return None
    last = samples[-1]
    alike = _since_unit(samples, last.unit)
    recent = [s for s in alike if s.at_s >= last.at_s - WINDOW_S]
    values = [s.value for s in recent]
    middle, spread = median(values), max(values) - min(values)
    steady, message = _judged(alike, recent, spread, now_s)
    text = f"{middle:.{DIGITS.get(last.unit, 3)}f} {last.unit}".strip()
    return Steadiness(middle, last.unit, spread, steady, message, text)


def _since_unit(samples: Sequence[Sample], unit: str) -> list[Sample]:
    for index in range(len(samples) - 1, -1, -1):
        if samples[index].unit != unit:
            return list(samples[index + 1 :])
    return list(samples)


def _judged(alike: Sequence[Sample], recent: Sequence[Sample], spread: float, now_s: float) -> tuple[bool, str]:
    """Whether it stands still, and what to say of it."""
    last = recent[-1]
    if now_s - last.at_s > SILENT_S:
        return False, f"silent for {now_s - last.at_s:.0f} s"
    if len(recent) < FEWEST or last.at_s - recent[0].at_s < SPAN_S:
        return False, "waiting for more"
    band = BAND.get(last.unit, abs(last.value) * SHARE)
    if spread > band:
        return False, "settling"
    drift = _drift(alike, last, AT_REST * band)
    return True, "steady" if abs(
        drift
    ) * DRIFT_S / 60 < band / 4 else f"steady, drifts {drift:+.2g} {last.unit} a minute"


def _drift(alike: Sequence[Sample], last: Sample, reach: float) -> float:
    """Units a minute since it came to rest, between the halves; none while there is too little to tell it from."""
    rest = list(takewhile(lambda s: abs(s.value - last.value) <= reach, reversed(alike)))[::-1]
    if last.at_s - rest[0].at_s < DRIFT_S:
        return 0.0
    early, late = rest[: len(rest) // 2], rest[len(rest) // 2 :]
    took = fmean(s.at_s for s in late) - fmean(s.at_s for s in early)
    return (fmean(s.value for s in late) - fmean(s.value for s in early)) / took * 60
