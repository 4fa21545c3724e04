"""What boxes together may hold to answer a question: how many, of which kinds, in which strings."""

from collections import Counter
from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from levelcradle.core.design import Design
from levelcradle.core.design.box import Box
from levelcradle.core.fit.wishes import Wishes

__all__ = ["Wanted", "held_in", "left_of"]

MOST_ANYWHERE = 400  # where nothing is on a shelf


def held_in(boxes: Iterable[Box]) -> Counter[str]:
    """How many modules of each kind boxes hold."""
    held: Counter[str] = Counter()
    for box in boxes:
        for block in box.blocks.values():
            held[block.kind] += block.counts.total
    return held


def left_of(design: Design, kind: str) -> int:
    """Modules of a kind on the shelf that no box holds; any number where the shelf has none of that kind."""
    shelf = sum(m.kind == kind and m.verdict != "reject" for m in design.modules.values())
    return max(shelf - held_in(design.boxes.values())[kind], 0) if shelf else MOST_ANYWHERE


@dataclass(frozen=True, slots=True)
class Wanted:
    """Totals that are wanted, no more of a kind than are ``left``, ``parallel`` strings that are alike, and the lowest
    and highest voltage a string may have, empty cell to full cell (``volts``: of one module of a kind, empty and
    full)."""

    totals: tuple[int, ...]
    left: Mapping[str, int]
    parallel: int
    window_v: tuple[float, float] | None
    volts: Mapping[str, tuple[float, float]]

    @staticmethod
    def of(design: Design, wishes: Wishes) -> "Wanted":
        kinds = {key: design.module_kinds[key] for key in wishes.kinds}
        left = {key: MOST_ANYWHERE if wishes.more_than_the_shelf else left_of(design, key) for key in kinds}
        volts = {key: (kind.empty_v or 0.0, kind.full_v) for key, kind in kinds.items()}
        most = min(sum(left.values()), MOST_ANYWHERE)
        totals = [wishes.modules] if wishes.modules is not None else range(wishes.parallel, most + 1, wishes.parallel)
        if wishes.window_v is not None:
            totals = [n for n in totals if _reaches(n // wishes.parallel, volts.values(), wishes.window_v)]
        return Wanted(tuple(totals), left, wishes.parallel, wishes.window_v, volts)

    def suits(self, held: Mapping[str, int]) -> bool:
        """Whether these modules and no others answer the question."""
        if sum(held.values()) not in self.totals or any(n > self.left[k] or n % self.parallel for k, n in held.items()):
            return False
        empty, full = (sum(n // self.parallel * self.volts[k][i] for k, n in held.items()) for i in (0, 1))
        return self.window_v is None or (empty >= self.window_v[0] and full <= self.window_v[1])


def _reaches(series: int, volts: Iterable[tuple[float, float]], window: tuple[float, float]) -> bool:
    """Whether so many in series could lie within a window with the best of the kinds at either end."""
    rows = list(volts)
    return series * max(empty for empty, _ in rows) >= window[0] and series * min(full for _, full in rows) <= window[1]
