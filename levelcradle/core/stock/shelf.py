"""Modules of different length compared per cell, by a rule that one bad module cannot bend."""

from dataclasses import dataclass
from statistics import median

from levelcradle.core.design import Design
from levelcradle.core.design.stock import ShelfRule
from levelcradle.core.modules import per_cell_v

__all__ = ["MAD_FACTOR", "OUTLYING", "ShelfResult", "ShelfRow", "shelf_result"]

MAD_FACTOR = 1.4826  # turns the median absolute deviation of normal readings into their standard deviation: 1 / 0.6745
OUTLYING = 3.5  # modified z-score beyond which a reading is an outlier: Iglewicz and Hoaglin 1993, from memory
FEWEST = 3  # fewer readings have no middle


@dataclass(frozen=True, slots=True)
class ShelfRow:
    """One module: its newest voltage per cell, how far from the middle, and whether that is out of step."""

    id: str
    per_cell_v: float
    off_v: float
    out_of_step: bool


@dataclass(frozen=True, slots=True)
class ShelfResult:
    """The shelf's middle and spread per cell [V], what counts as out of step, and what the meter can tell."""

    rows: tuple[ShelfRow, ...]
    middle_v: float | None
    spread_v: float
    limit_v: float
    meter_v: float  # the coarsest a cell's voltage is known, of all modules that read
    message: str


def shelf_result(design: Design) -> ShelfResult:
    """Every module that is not rejected and has a voltage; the limit is the wider of the user's floor and 3.5 spreads.

    Source: median and median absolute deviation with the modified z-score of 3.5 (Iglewicz and Hoaglin, from memory).
    """
    modules = {k: m for k, m in design.modules.items() if m.verdict != "reject"}
    known = {k: v for k, m in modules.items() if (v := per_cell_v(m, design.module_kinds[m.kind])) is not None}
    rule = design.shelf_rule
    meter = max(
        (rule.meter_step_mv / 1000 / design.module_kinds[modules[k].kind].cells.series for k in known), default=0.0
    )
    if len(known) < FEWEST:
        return ShelfResult(
            (), None, 0.0, rule.floor_mv / 1000, meter, "Three readings or more have a middle to compare with."
        )
    middle = median(known.values())
    spread = MAD_FACTOR * median(abs(v - middle) for v in known.values())
    limit = max(rule.floor_mv / 1000, OUTLYING * spread)
    rows = tuple(ShelfRow(k, v, v - middle, abs(v - middle) > limit) for k, v in known.items())
    return ShelfResult(rows, middle, spread, limit, meter, _meter(rule, meter))


def _meter(rule: ShelfRule, meter_v: float) -> str:
    step = meter_v * 1000
    if step > rule.floor_mv:
        return f"The meter's step is {step:.1f} mV a cell: it cannot tell {rule.floor_mv:g} mV."
    return f"The meter's step is {step:.1f} mV a cell."
