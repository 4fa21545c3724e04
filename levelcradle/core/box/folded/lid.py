"""What every lid of a folded tray answers: a cap over it, or a flat lid on a flange round its rim."""

from collections.abc import Iterator
from typing import Protocol

from levelcradle.core.axes import Vec
from levelcradle.core.box.folded.feasible import Makeable
from levelcradle.core.box.made import StackRow
from levelcradle.core.box.openings import FaceHole
from levelcradle.core.box.piece import Outside, Piece
from levelcradle.core.design.base import Face
from levelcradle.core.finding import Finding
from levelcradle.core.part import Flat, FlatPart

__all__ = ["Lid"]


class Lid(Protocol):
    """Round the rim of one tray, in the box's frame."""

    @property
    def over(self) -> tuple[Vec, Vec]:
        """Corners of the box with it, without heads."""

    @property
    def proud_mm(self) -> float:
        """How far above the rim its top lies."""

    @property
    def lift_mm(self) -> float:
        """How far it is drawn off before it can be turned away."""

    @property
    def hinge(self) -> Face | None:
        """The edge it turns on; None where it is taken away."""

    @property
    def mouth(self) -> tuple[Flat, ...] | None:
        """The corners of the opening under it, where that is narrower than the inside."""

    @property
    def covers_mm(self) -> float:
        """How far below the rim it takes the outside of the walls."""

    @property
    def weld_mm(self) -> float: ...

    @property
    def fastened(self) -> int: ...

    def in_walls(self) -> Iterator[FaceHole]:
        """Its holes in the walls of the tray."""

    def pieces(self) -> Iterator[Piece]: ...

    def outside(self) -> Iterator[Outside]: ...

    def parts(self, box_id: str, name: str) -> Iterator[FlatPart]: ...

    def stack_rows(self, path: str) -> Iterator[StackRow]:
        """What it lays on the rim, outward."""

    def bought(self) -> Iterator[tuple[str, int]]: ...

    def words(self) -> str:
        """How it is held, for the sheet of the box."""

    def makeable(self) -> Iterator[Makeable]:
        """What the folder and driller ask of it."""

    def findings(self, path: str, name: str) -> Iterator[Finding]:
        """What else is told of it."""
