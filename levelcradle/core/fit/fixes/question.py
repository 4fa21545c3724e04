"""One question: the design as it is, the change that is taken for granted, and what a change on top of that makes of
it."""

from collections.abc import Iterable, Mapping
from functools import cached_property
from itertools import product

from levelcradle.core.analysis import Analysis, analyse
from levelcradle.core.assembly import Assembly, resolve, stands
from levelcradle.core.axes import Vec
from levelcradle.core.box import Shell, shell_of
from levelcradle.core.design import Design
from levelcradle.core.design.box import Box
from levelcradle.core.design.patch import Op
from levelcradle.core.edits import edited
from levelcradle.core.errors import DesignError
from levelcradle.core.finding import Figure, Finding, message_text
from levelcradle.core.fit.fixes.fix import Does, Fix, costs_of
from levelcradle.core.fit.options import hindrances
from levelcradle.core.fit.space import ClearanceConstraint
from levelcradle.core.fit.stand import least_travel_mm, pressing
from levelcradle.core.meshes import Mesh
from levelcradle.core.solids import Solid

__all__ = ["FARTHEST_MM", "Move", "Question", "gaps_of"]

FARTHEST_MM = 200.0
AXES = (("aft", "fore"), ("right", "left"), ("up", "down"))


class Move:
    """A straight way along one of the vehicle's axes."""

    def __init__(self, axis: int, sign: float) -> None:
        self.axis, self.sign, self.word = axis, sign, AXES[axis][0 if sign > 0 else 1]

    def by(self, far_mm: float) -> Vec:
        x, y, z = (self.sign * far_mm if i == self.axis else 0.0 for i in range(3))
        return x, y, z


MOVES = tuple(Move(axis, sign) for axis, sign in product(range(3), (1.0, -1.0)))


class Question:
    """What is foul about a box, with ``base`` done; and changes tried on top.

    Attributes:
        asked: the design with what is taken for granted.
        foul: what has to be cleared.
    """

    def __init__(
        self, design: Design, box_id: str, base: Iterable[Op], before: Analysis, meshes: Mapping[str, Mesh]
    ) -> None:
        self.box_id, self.base, self.meshes, self.before = box_id, tuple(base), meshes, before
        self._foul_before = {f.id for f in before.findings if f.state == "foul"}
        self.asked = edited(design, self.base) if self.base else design
        self.now = analyse(self.asked, meshes) if self.base else before
        self.foul = self._foul_of(self.now)

    @cached_property
    def assembly(self) -> Assembly:
        return resolve(self.asked, self.meshes)

    @cached_property
    def box(self) -> Box:
        return self.asked.boxes[self.box_id]

    @cached_property
    def shell(self) -> Shell:
        return self.assembly.boxes[self.box_id].shell

    @cached_property
    def things(self) -> list[ClearanceConstraint]:
        return hindrances(self.assembly, self.assembly.boxes[self.box_id])

    @cached_property
    def pieces(self) -> list[Solid]:
        """The box and what is on it, without its brackets."""
        return [piece.solid for piece in self.assembly.boxes[self.box_id].pieces if piece.mount is None]

    def pieces_of(self, shell: Shell) -> list[Solid]:
        """What these would be, were it made so."""
        gear = [piece.solid for piece in self.assembly.boxes[self.box_id].pieces if piece.role == "gear"]
        placement = stands(self.box.pose, shell.outer_mm)
        return [*(piece.solid.moved(placement) for piece in shell.outside), *gear]

    def shell_with(self, ops: Iterable[Op]) -> Shell | None:
        """The box after a change of it or of what is in it; None where the document refuses that."""
        try:
            design = edited(self.asked, ops)
        except DesignError:
            return None
        box = design.boxes[self.box_id]
        return shell_of(box, design.module_kinds, design.tables)

    def out(self) -> list[Finding]:
        """How far the box stands out of its space, where something more was asked for: the study would not call that a
        fit."""
        own = f"boxes/{self.box_id}"
        return [f for f in self.now.findings if f.code == "place.out" and own in f.subjects] if self.base else []

    def _foul_of(self, analysis: Analysis) -> list[Finding]:
        """What is foul about the box, and what is foul elsewhere that was not before."""
        own = f"boxes/{self.box_id}"
        return [
            f
            for f in analysis.findings
            if f.state == "foul"
            and f.code != "drawings.release"
            and ((own in f.subjects and f.station in ("place", "box")) or f.id not in self._foul_before)
        ]

    # --- where it would stand ---

    def keeps(self, pieces: list[Solid], by: Vec) -> bool:
        """Whether pieces of the box keep every gap, moved so."""
        return all(p.spare_mm >= -1e-9 for p in pressing(pieces, self.things, by, 0.0))

    def travel(self, pieces: list[Solid], move: Move) -> float | None:
        """How far the pieces have to go until every gap is kept."""
        return least_travel_mm(pieces, self.things, move.axis, move.sign, FARTHEST_MM)

    def shortest(self, pieces: list[Solid]) -> tuple[float, Move] | None:
        """The shortest of the straight ways."""
        found = [(far, n) for n, move in enumerate(MOVES) if (far := self.travel(pieces, move)) is not None]
        return (min(found)[0], MOVES[min(found)[1]]) if found else None

    def moved(self, move: Move, far_mm: float) -> list[Op]:
        if not far_mm:
            return []
        at = [round(v + d, 4) for v, d in zip(self.box.pose.at_mm, move.by(far_mm), strict=True)]
        return [self.replace("pose/at_mm", at)]

    def replace(self, path: str, value: object) -> Op:
        return {"op": "replace", "path": f"/boxes/{self.box_id}/{path}", "value": value}

    # --- a change tried ---

    def fix(
        self,
        kind: str,
        does: Does,
        words: str,
        figures: tuple[Figure, ...],
        ops: list[Op],
        *,
        size: float,
        button: bool = True,
        at: Vec | None = None,
    ) -> Fix | None:
        """A change run through all checks; None where it clears nothing, or makes foul what was not."""
        tried = self._tried(ops)
        if tried is None:
            return None
        analysis, left = tried
        if not {f.id for f in left} < {f.id for f in self.foul}:
            return None
        patch = (*self.base, *ops) if button else None
        return Fix(
            kind,
            does,
            words,
            figures,
            size,
            not left,
            tuple(costs_of(self.before, analysis, self.box_id)),
            tuple(message_text(f) for f in left[:3]),
            patch,
            at,
        )

    def _tried(self, ops: list[Op]) -> tuple[Analysis, list[Finding]] | None:
        try:
            analysis = analyse(edited(self.asked, ops), self.meshes)
        except DesignError:
            return None
        return analysis, self._foul_of(analysis)


def gaps_of(foul: list[Finding]) -> list[Finding]:
    return [f for f in foul if f.code == "gap" and len(f.subjects) == 2]
