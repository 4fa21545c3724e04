"""Edges of a box cut off so that it stands: which of them together, how the cuts lie, and how little is cut off."""

import math
from collections.abc import Callable, Iterator, Mapping
from functools import cache
from itertools import combinations

from levelcradle.core.box import Shell, largest_chamfer, lined_beside, shell_of
from levelcradle.core.design.base import Face
from levelcradle.core.design.box import FACE_AT, Box, Chamfer, edges_meet
from levelcradle.core.design.ids import free_id
from levelcradle.core.design.stock import ModuleKind
from levelcradle.core.design.tables import Tables
from levelcradle.core.finding import Finding

__all__ = ["EDGES", "Cuts", "Edge", "EdgeCuts"]

Edge = tuple[Face, Face]
Legs = tuple[int, int]
Cuts = tuple[tuple[Edge, Legs], ...]
"""Edges, each with how far its cut goes along its two faces, in whole millimetres."""

EDGES: tuple[Edge, ...] = (
    ("left", "base"),
    ("right", "base"),
    ("front", "base"),
    ("aft", "base"),
    ("front", "left"),
    ("front", "right"),
    ("aft", "left"),
    ("aft", "right"),
)
EVEN = (1.0, 1.0)
SHARES = (1.0, 0.75, 0.5, 0.25, 0.0)  # of what the modules leave, tried in turn where a larger cut cannot be made


class EdgeCuts:
    """The edges of one box, none of which is cut yet, and its shell with any of them cut."""

    def __init__(self, box: Box, kinds: Mapping[str, ModuleKind], tables: Tables, most_mm: float = math.inf) -> None:
        self._box, self._kinds, self._tables, self._most_mm = box, kinds, tables, most_mm
        self._shells: dict[Cuts, Shell] = {}
        self._held = {finding.id for finding in self._against(())}

    def box(self, cuts: Cuts) -> Box:
        """The box with these edges cut off as well."""
        chamfers = dict(self._box.chamfers)
        for edge, (one, other) in cuts:
            chamfers[free_id("-".join(edge), chamfers)] = Chamfer(edge=edge, mm=(float(one), float(other)))
        return self._box.model_copy(update={"chamfers": chamfers})

    def shell(self, cuts: Cuts) -> Shell:
        if cuts not in self._shells:
            self._shells[cuts] = shell_of(self.box(cuts), self._kinds, self._tables)
        return self._shells[cuts]

    def most(self, slopes: Mapping[Edge, tuple[float, float]] | None = None) -> list[Cuts]:
        """As much as can be cut off of edges that do not meet in a corner, for each largest such set. ``slopes``: how
        far a cut face is to look each of its two faces' ways; evenly where nothing is said."""
        had = [chamfer.edge for chamfer in self._box.chamfers.values()]
        legs = {
            edge: self._largest(edge, (slopes or {}).get(edge, EVEN))
            for edge in EDGES
            if not any(edges_meet(edge, other) for other in had)
        }
        rows = [tuple((edge, mm) for edge in together if (mm := legs.get(edge))) for together in _together()]
        return [cuts for cuts in dict.fromkeys(rows) if cuts and self._can_be_made(cuts)]

    def least(self, cuts: Cuts, holds: Callable[[Cuts], bool]) -> Cuts:
        """The least of given cuts with which something still holds: no edge that is not needed, then as little as may
        be along each face of those that are."""
        for row in cuts:
            fewer = tuple(other for other in cuts if other != row)
            if fewer and holds(fewer):
                cuts = fewer
        for n in range(len(cuts)):
            cuts = self._least_of(cuts, n, holds)
        return cuts

    def _least_of(self, cuts: Cuts, n: int, holds: Callable[[Cuts], bool]) -> Cuts:
        """First both legs alike, so that the face looks the same way, then each by itself."""
        edge, (one, other) = cuts[n]
        least, longest = self._least_mm(edge), max(one, other)

        def cut(one: int, other: int) -> Cuts:
            return (*cuts[:n], (edge, (one, other)), *cuts[n + 1 :])

        def scaled(mm: int) -> Legs:
            return max(least, math.ceil(one * mm / longest)), max(least, math.ceil(other * mm / longest))

        def stands(one: int, other: int) -> bool:
            return holds(cut(one, other)) and self._can_be_made(cut(one, other))

        a, b = scaled(_smallest(lambda mm: stands(*scaled(mm)), least, longest))
        a = _smallest(lambda mm: stands(mm, b), least, a)
        return cut(a, _smallest(lambda mm: stands(a, mm), least, b))

    def _least_mm(self, edge: Edge) -> int:
        return self.shell(()).made.least_cut_mm(edge) or 0

    def _largest(self, edge: Edge, slope: tuple[float, float]) -> Legs | None:
        """As far as the modules leave room and it can be made; None where not even the least cut does."""
        shell, least = self.shell(()), self._least_mm(edge)
        modules = [(m.low, m.high) for m in shell.modules]
        far = largest_chamfer(edge, shell.made.wall_mm, lined_beside(self._box, edge), shell.outer_mm, modules, slope)
        along = (FACE_AT[edge[1]][0], FACE_AT[edge[0]][0])
        legs = [
            math.floor(min(mm, self._most_mm, shell.outer_mm[axis] / 2) + 1e-9)
            for mm, axis in zip(far, along, strict=True)
        ]
        if not least or min(legs) < least:
            return None
        for share in SHARES:
            one, other = (max(least, math.floor(mm * share)) for mm in legs)
            if self._can_be_made(((edge, (one, other)),)):
                return one, other
        return None

    def _can_be_made(self, cuts: Cuts) -> bool:
        return all(finding.id in self._held for finding in self._against(cuts))

    def _against(self, cuts: Cuts) -> Iterator[Finding]:
        return (f for f in self.shell(cuts).made.findings("", "") if f.state in ("foul", "unknown"))


@cache
def _together() -> tuple[tuple[Edge, ...], ...]:
    """Each largest set of edges of which no two meet in a corner."""
    sets = [
        chosen
        for size in range(len(EDGES), 0, -1)
        for chosen in combinations(EDGES, size)
        if not any(edges_meet(one, other) for one, other in combinations(chosen, 2))
    ]
    return tuple(chosen for chosen in sets if not any(set(chosen) < set(other) for other in sets))


def _smallest(holds: Callable[[int], bool], low: int, high: int) -> int:
    """The least whole number that holds, given that ``high`` does."""
    while low < high:
        middle = (low + high) // 2
        low, high = (low, middle) if holds(middle) else (middle + 1, high)
    return high
