"""Bars cut from lengths of stock: column generation over cutting patterns.

Source: P. C. Gilmore, R. E. Gomory, "A linear programming approach to the cutting-stock problem", Operations Research 9
(1961), 849-859."""

import math
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import Bounds, LinearConstraint, linprog, milp

from levelcradle.core.bar import Bar, Section

__all__ = ["StockBar", "cut_from_bars"]

STEP_MM = 0.5  # lengths are rounded up to it: patterns are counted in it
ROUNDS = 200
SECONDS = 1.0

Pattern = NDArray[np.int_]  # how many of each length


@dataclass(frozen=True, slots=True)
class StockBar:
    """One length of stock and the bars that are cut from it, one after another from its end."""

    section: Section
    material_name: str
    stock_mm: float
    cuts: tuple[Bar, ...]
    kerf_mm: float

    @property
    def left_mm(self) -> float:
        """What is left, with a cut after every bar but where the last ends the stock."""
        return max(self.stock_mm - sum(bar.length_mm + self.kerf_mm for bar in self.cuts), 0.0)


def cut_from_bars(
    bars: Sequence[Bar], stock_mm: float, kerf_mm: float, kits: int = 1
) -> tuple[list[StockBar], list[Bar]]:
    """The lengths of stock that all bars are cut from, for so many cars; and the bars that are longer than one."""
    found, left = list[StockBar](), [bar for bar in bars if bar.length_mm > stock_mm]
    sections = dict.fromkeys((bar.section, bar.material_name) for bar in bars)
    for section, material in sections:
        mine = [b for b in bars if (b.section, b.material_name) == (section, material) and b not in left]
        pieces = [bar for bar in mine for _ in range(bar.quantity * kits)]
        for cuts in _cut(pieces, stock_mm, kerf_mm):
            found.append(StockBar(section, material, stock_mm, tuple(cuts), kerf_mm))
    return found, left


def _cut(pieces: Sequence[Bar], stock_mm: float, kerf_mm: float) -> list[list[Bar]]:
    """Pieces by stock: each longest first, and the fullest stock first. The stock is longer by one cut, for nothing is
    cut off after the last bar."""
    if not pieces:
        return []
    room = int((stock_mm + kerf_mm) / STEP_MM + 1e-9)
    # one as long as the stock fills it, whatever it is rounded to
    takes = {bar.length_mm: min(math.ceil((bar.length_mm + kerf_mm) / STEP_MM - 1e-9), room) for bar in pieces}
    ways = [_first_fit(pieces, takes, room)]
    if len(ways[0]) > math.ceil(sum(takes[bar.length_mm] for bar in pieces) / room):  # else nothing is better
        ways.append(_by_patterns(pieces, takes, room))
    best = min(ways, key=len)
    return sorted(best, key=lambda cuts: -sum(takes[bar.length_mm] for bar in cuts))


def _first_fit(pieces: Sequence[Bar], takes: dict[float, int], room: int) -> list[list[Bar]]:
    """Longest first, each from the first stock that has room for it."""
    stocks: list[tuple[int, list[Bar]]] = []
    for bar in sorted(pieces, key=lambda b: -b.length_mm):
        need = takes[bar.length_mm]
        n = next((n for n, (free, _) in enumerate(stocks) if free >= need), None)
        if n is None:
            stocks.append((room - need, [bar]))
        else:
            stocks[n] = stocks[n][0] - need, [*stocks[n][1], bar]
    return [cuts for _, cuts in stocks]


def _by_patterns(pieces: Sequence[Bar], takes: dict[float, int], room: int) -> list[list[Bar]]:
    """Fewest stocks over all patterns that the linear relaxation found worth while."""
    wanted = Counter(bar.length_mm for bar in pieces)
    lengths = sorted(wanted, reverse=True)
    need, most = np.array([takes[v] for v in lengths]), np.array([wanted[v] for v in lengths])
    patterns = [np.eye(len(lengths), dtype=int)[n] * min(most[n], room // need[n]) for n in range(len(lengths))]
    for _ in range(ROUNDS):
        rows = np.array(patterns).T
        relaxed = linprog(np.ones(rows.shape[1]), A_ub=-rows, b_ub=-most, method="highs")
        pattern, worth = _best_pattern(need, -relaxed.ineqlin.marginals, most, room)
        if worth <= 1 + 1e-9:
            break
        patterns.append(pattern)
    rows = np.array(patterns).T
    ones = np.ones(rows.shape[1])
    chosen = milp(
        ones,
        constraints=LinearConstraint(rows, lb=most),
        integrality=ones,
        bounds=Bounds(0, len(pieces)),
        options={"time_limit": SECONDS},
    )
    if chosen.x is None:
        return [[bar] for bar in pieces]
    left = {v: [bar for bar in pieces if bar.length_mm == v] for v in lengths}
    stocks = []
    for pattern, times in zip(patterns, np.round(chosen.x).astype(int).tolist(), strict=True):
        for _ in range(times):
            cuts = [left[v].pop() for v, n in zip(lengths, pattern.tolist(), strict=True) for _ in range(n) if left[v]]
            if cuts:
                stocks.append(cuts)
    return stocks


def _best_pattern(need: Pattern, worth: NDArray[np.float64], most: Pattern, room: int) -> tuple[Pattern, float]:
    """The pattern that is worth most, by dynamic programming over what is cut from a stock; each length at most as
    often as it is wanted."""
    best, steps = np.zeros(room + 1), list[tuple[int, NDArray[np.bool_]]]()
    for n, (long, value, times) in enumerate(zip(need.tolist(), worth.tolist(), most.tolist(), strict=True)):
        for _ in range(min(times, room // long)):
            more = np.full(room + 1, -1.0)
            more[long:] = best[: room + 1 - long] + value
            better = more > best + 1e-12
            if not better.any():
                break
            best = np.where(better, more, best)
            steps.append((n, better))
    pattern, free = np.zeros(len(need), int), room
    for n, better in reversed(steps):
        if better[free]:
            pattern[n] += 1
            free -= int(need[n])
    return pattern, float(best[room])
