"""How can a box hang: sets of hard points within reach, each with the lightest mounts that hold in every case, proved
by all checks.

All mounts of a proposal are alike but for what their place makes different. They are sized on the loads that the box
throws on them, and the whole design is analysed with them in it: what would become foul, or is used more than wanted,
is no proposal."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from itertools import combinations, islice
from math import ceil
from typing import Any

import numpy as np

from levelcradle.core.analysis import Analysis, analyse
from levelcradle.core.assembly import resolve
from levelcradle.core.axes import Matrix
from levelcradle.core.connection import SHAPE_OF, Contact, narrowed
from levelcradle.core.design import Design, tree_of
from levelcradle.core.design.patch import Op
from levelcradle.core.design.words import words_of
from levelcradle.core.edits import edited, hung_on, unhung
from levelcradle.core.errors import UnknownThing
from levelcradle.core.finding import TIGHT_UTILISATION, Finding, plain
from levelcradle.core.hang.missing import Missing, missing_points
from levelcradle.core.hang.sizing import Sizing, outline_of, words_of_all
from levelcradle.core.hang.within_reach import Within, within_reach
from levelcradle.core.meshes import Mesh
from levelcradle.core.mount import judge_support

__all__ = ["Answer", "Hanging", "how_it_hangs"]

COUNTS = (4, 3, 6)  # so many mounts are tried, in this order
NEAREST = 10  # of so many hard points
SETS = 3  # of each count so many sets are sized: those that throw least on their most loaded mount
MOST = 3
HEAVIEST = 40  # of so many mounts it is asked whether one more point would do
LATER = ("drawings.release",)  # it follows from the others
OWN_PROOFS = 16  # and so often where each is its own
PROOFS = 6  # on one set of points so many mounts are tried that stand in something's way
EACH_KG = 2.0  # of a bracket, until its own mass is known
"""Loads are sized for a box that is heavier by so much a mount; the proof counts their true mass."""


@dataclass(frozen=True, slots=True)
class Hanging:
    """A set of mounts as one edit: where, how heavy, what governs, and what it makes tight elsewhere."""

    on: tuple[str, ...]
    mass_kg: float
    utilisation: float
    governs: str
    message: str
    patch: tuple[Op, ...]


@dataclass(frozen=True, slots=True)
class Answer:
    """What is within reach, what would hold, and in words what is missing where nothing would."""

    within: tuple[Within, ...]
    ways: tuple[Hanging, ...]
    missing: tuple[Missing, ...]


def how_it_hangs(
    design: Design, box_id: str, *, meshes: Mapping[str, Mesh], most: int = MOST, where_it_hangs: bool = False
) -> Answer:
    """Answers for one box, whose own mounts make way, with at most so many ways; ``where_it_hangs``: on the very points
    that carry it now. Raises UnknownThing."""
    if box_id not in design.boxes:
        raise UnknownThing("box", box_id)
    return _Question(design, box_id, meshes, where_it_hangs=where_it_hangs).answer(most)


class _Question:
    """One box with nothing to hang on, and what the whole design says of itself before."""

    def __init__(self, design: Design, box_id: str, meshes: Mapping[str, Mesh], *, where_it_hangs: bool) -> None:
        self.design, self.box_id, self.meshes = design, box_id, meshes
        now = {op["path"].removeprefix("/mounts/") for op in unhung(design, box_id)} if where_it_hangs else ()
        self.only = {design.mounts[key].lands_on.path for key in now}
        self.off = unhung(design, box_id)
        self.bare = edited(design, self.off) if self.off else design
        self.assembly = resolve(self.bare, meshes)
        self.box = self.assembly.boxes[box_id]
        self.foul_before = {
            f.id for f in analyse(self.bare, meshes).findings if f.state == "foul"
        }  # brackets that it has excuse none
        self.in_the_way: list[Finding] = []
        self.sizing = Sizing(self.assembly, self.box)

    def answer(self, most: int) -> Answer:
        within = within_reach(self.assembly, self.box)
        if guess := self.assembly.guess_in(self.box):
            words = plain(words_of(tree_of(self.bare), guess))
            return Answer(tuple(within), (), (Missing(f"What hangs there is not known: not taken yet is {words}"),))
        if self.only:
            within = [row for row in within if row.path in self.only]
        usable = [row for row in within if not row.why][:NEAREST]
        found = (way for chosen in self._sets(usable) if (way := self._hung(chosen)))
        ways = tuple(islice(found, most))
        return Answer(tuple(within), ways, () if ways else tuple(self._missing(usable)))

    def _missing(self, usable: Sequence[Within]) -> list[Missing]:
        """Where strong ones were found, what they stand in the way of; else where one more point would do."""
        if self.in_the_way:
            worst = max(self.in_the_way, key=lambda f: sum(f.id == other.id for other in self.in_the_way))
            return [Missing(f"What would hold stands in the way: {worst.message}", worst.figures)]
        return missing_points(
            self.box,
            usable,
            lambda new: any(self._holds([*few, new]) for n in (3, 2) for few in combinations(usable[:6], n)),
        )

    def _hung(self, chosen: Sequence[Within]) -> Hanging | None:
        """The lightest mounts on a set that hold and stand in nothing's way: all alike, or where those are in the way
        each its own."""
        before = len(self.in_the_way)
        if way := self._all_alike(chosen):
            return way
        return self._each_its_own(chosen) if len(self.in_the_way) > before else None

    def _all_alike(self, chosen: Sequence[Within]) -> Hanging | None:
        too_large: list[tuple[float, ...]] = []
        for most, made in self._strong(chosen):
            size = outline_of(made[0])
            if any(all(a >= b for a, b in zip(size, other, strict=True)) for other in too_large):
                continue
            patch, analysis, foul = self._put(chosen, made)
            if foul is None:
                if way := self._told(chosen, made, patch, analysis, most):
                    return way
            elif foul.code != "mount.use":  # that one is too weak, no larger than it may be
                self.in_the_way.append(foul)
                too_large.append(size)
            if len(too_large) == PROOFS:
                break
        return None

    def _each_its_own(self, chosen: Sequence[Within]) -> Hanging | None:
        forces = self._forces(chosen)
        options = [self.sizing.holding(row, forces[:, :, n]) for n, row in enumerate(chosen)]
        for _ in range(OWN_PROOFS):
            if not all(options):
                break
            made = [rows[0] for rows in options]
            patch, analysis, foul = self._put(chosen, made)
            if foul is None:
                return self._told(chosen, made, patch, analysis, 1.0)
            if foul.margin is None or not foul.points_mm or foul.code == "mount.use":
                break
            there = np.array(foul.points_mm[0])
            n = int(np.argmin([np.linalg.norm(there - row.place.spot.at) for row in chosen]))
            options[n] = self._smaller(chosen[n], options[n], -foul.margin, forces[:, :, n])
        return None

    def _put(
        self, chosen: Sequence[Within], made: Sequence[dict[str, Any]]
    ) -> tuple[list[Op], Analysis, Finding | None]:
        """The box hung so: the edit, what all checks say of it with everything else there, and what is foul that was
        not before."""
        patch = [*self.off, *hung_on(self.design, self.box_id, zip((row.face for row in chosen), made, strict=True))]
        analysis = analyse(edited(self.design, patch), self.meshes)
        return patch, analysis, next((f for f in analysis.findings if self._is_new_foul(f)), None)

    def _smaller(
        self, row: Within, options: list[dict[str, Any]], by_mm: float, forces: Matrix
    ) -> list[dict[str, Any]]:
        """What is left where the first of them stands in the way by so much: each as narrow as that one must be, if it
        holds so, else what is less large another way."""
        size, left = outline_of(options[0]), []
        width = options[0]["shape"]["width_mm"] - 2.0 * ceil(by_mm)
        for made in options:
            narrow = narrowed(made, width)
            if narrow and self.sizing.utilisation_of(self.sizing.connected(row, narrow), forces) <= 1.0:
                left.append(narrow)
            elif any(a < b for a, b in zip(outline_of(made), size, strict=True)):
                left.append(made)
        return left

    def _is_new_foul(self, finding: Finding) -> bool:
        return finding.state == "foul" and finding.id not in self.foul_before and finding.code not in LATER

    def _sets(self, usable: Sequence[Within]) -> Iterator[Sequence[Within]]:
        """Sets that hold, of each count those first whose most loaded mount bears least."""
        for count in (len(usable),) if self.only else COUNTS:
            rows = [
                (peak, n, chosen)
                for n, chosen in enumerate(combinations(usable, count))
                if (peak := self._peak(chosen)) is not None
            ]
            yield from (chosen for _, _, chosen in sorted(rows)[:SETS])

    def _peak(self, chosen: Sequence[Within]) -> float | None:
        if judge_support([Contact(row.place.spot.at, row.place.spot.n) for row in chosen]).support_condition != "holds":
            return None
        return float(np.linalg.norm(self._forces(chosen), axis=3).max())

    def _forces(self, chosen: Sequence[Within]) -> Matrix:
        """On mounts that are a little heavier than they will be."""
        return self.sizing.forces([row.place.spot.at for row in chosen], self.box.hung_kg + EACH_KG * len(chosen))

    def _strong(self, chosen: Sequence[Within]) -> Iterator[tuple[float, list[dict[str, Any]]]]:
        """Mounts that hold, the lightest first: those of which nothing is used beyond what counts as clear where it
        may, then those that bear it all; with the most that is used of them."""
        forces, bear, hopeless = self._forces(chosen), [], set[int]()
        for number, shape in enumerate(SHAPE_OF):
            if shape in hopeless:
                continue
            utilisation = self._use(chosen, number, forces)
            if utilisation == np.inf:
                hopeless.add(shape)
            elif utilisation <= TIGHT_UTILISATION:
                yield TIGHT_UTILISATION, self._alike(chosen, number)
            elif utilisation <= 1.0:
                bear.append(number)
        yield from ((1.0, self._alike(chosen, number)) for number in bear)

    def _holds(self, chosen: Sequence[Within]) -> bool:
        """Whether any of the heaviest mounts hold."""
        if self._peak(chosen) is None:
            return False
        forces = self._forces(chosen)
        can_be_made = (n for n in reversed(range(len(SHAPE_OF))) if len(self._alike(chosen, n)) == len(chosen))
        return any(self._use(chosen, number, forces) <= 1.0 for number in islice(can_be_made, HEAVIEST))

    def _alike(self, chosen: Sequence[Within], number: int) -> list[dict[str, Any]]:
        return [made for row in chosen if (made := self.sizing.made(row, number))]

    def _use(self, chosen: Sequence[Within], number: int, forces: Matrix) -> float:
        """The largest use of mounts made alike, the hardest loaded first; without end where no bolt would make them
        hold."""
        most = 0.0
        for n in np.argsort(-np.linalg.norm(forces, axis=3).max(axis=(0, 1))):
            if self.sizing.made(chosen[n], number) is None:
                return np.inf
            most = max(most, self.sizing.utilisation_of(self.sizing.connection(chosen[n], number), forces[:, :, n]))
            if most > 1.0:
                break
        return most

    def _told(
        self, chosen: Sequence[Within], made: Sequence[dict[str, Any]], patch: list[Op], analysis: Analysis, most: float
    ) -> Hanging | None:
        """By what the whole design says of it: with their true mass they may be used more than they were sized for."""
        mounts = [m for support in analysis.supports if support.box == self.box_id for m in support.mounts]
        rows = [(row, row.check in m.connection.rough) for m in mounts for row in m.rows]
        if not rows or any(row.utilisation > most for row, rough in rows if not rough):
            return None
        weakest = max((row for row, _ in rows), key=lambda row: row.utilisation)
        return Hanging(
            tuple(row.name for row in chosen),
            analysis.boxes[self.box_id].hung_kg - self.box.hung_kg,
            weakest.utilisation,
            f"{weakest.check}, {weakest.case}",
            words_of_all(made),
            tuple(patch),
        )
