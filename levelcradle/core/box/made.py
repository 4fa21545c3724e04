"""What every construction of a box answers. Checks, drawings and files ask this, never how the box is made.

A new construction is a model in ``design.construction``, a class of this form, and its line in ``kinds``.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal, Protocol

from levelcradle.core.axes import Vec
from levelcradle.core.bar import Bar
from levelcradle.core.box.piece import Outside, Piece
from levelcradle.core.design.base import Face, Side
from levelcradle.core.design.tables import Material
from levelcradle.core.finding import Finding
from levelcradle.core.part import Flat, FlatPart
from levelcradle.core.strength import Bearing
from levelcradle.core.tolerances import tolerance_by

__all__ = ["LIFT_MM", "Layers", "Made", "StackRow", "Wall", "gasket_row", "sheet_row"]

LIFT_MM = 5.0  # a flat lid is lifted off its gasket before it is turned away: common practice, no source
GASKET_TOL_MM = 0.5
LEAST_MM = 0.6  # the standard's tolerances begin above half a millimetre


@dataclass(frozen=True, slots=True)
class StackRow:
    """One allowance of a stack-up: how much, how far it may be off, which way it is known to be off, and what sets
    it."""

    what: str
    mm: float
    tol_mm: float
    bias_mm: float
    source: str
    kind: Literal["gap", "metal", "liner", "space", "module", "growth", "other"]
    path: str


def sheet_row(what: str, mm: float, path: str) -> StackRow:
    """A sheet on the way through a box, as thick as sheet is true."""
    tol = tolerance_by("cut", max(mm, LEAST_MM))[0]
    return StackRow(what, mm, tol, 0.0, "sheet; ISO 2768-1 m, from memory", "metal", path)


def gasket_row(mm: float, path: str) -> StackRow:
    return StackRow("gasket, pressed", mm, GASKET_TOL_MM, 0.0, "common practice, no source", "metal", path)


@dataclass(frozen=True, slots=True)
class Layers:
    """What a box asks along a way beside its contents: from its outside to its inside, from there out again, and over
    the whole."""

    first: tuple[StackRow, ...]
    last: tuple[StackRow, ...]
    whole: tuple[StackRow, ...]


@dataclass(frozen=True, slots=True)
class Wall:
    """What there is of a wall for things to be fixed to, in the box's frame: from where to where along it, between
    which heights it is flat and free, how high it is from foot to rim, how thick, and of what. Of the underside of a
    tube its height is how wide that is, and its heights lie across it; ``sunk_mm``: how far it lies behind what clads
    the box."""

    start_mm: float
    end_mm: float
    flat_from_mm: float
    flat_to_mm: float
    height_mm: float
    thickness_mm: float
    material: Material
    what: str = "wall"
    sunk_mm: float = 0.0


class Made(Protocol):
    """A box of one construction and size, in its own frame: origin at its outside front, left, base corner."""

    @property
    def outer_mm(self) -> Vec:
        """Outside: the shell without closures and heads."""

    @property
    def inner_mm(self) -> Vec:
        """Between the walls, and from the base to the rim."""

    @property
    def given(self) -> bool:
        """Whether its inside was given, and not made round its contents."""

    @property
    def over(self) -> tuple[Vec, Vec]:
        """Its corners with closures, without heads, in its own frame."""

    @property
    def wall_mm(self) -> float:
        """From the outside of a wall to its inside."""

    @property
    def start_mm(self) -> Vec:
        """The front, left, base corner of its inside."""

    @property
    def closed_face(self) -> Face:
        """The face that it is filled through."""

    @property
    def open_to_air(self) -> bool:
        """Whether nothing closes it."""

    @property
    def hinge(self) -> Face | None:
        """The edge of the closed face that what closes it turns on; None where it is taken away."""

    @property
    def mouth(self) -> tuple[Flat, ...] | None:
        """The corners, along and across, of the opening that it is filled through, where that is narrower than its
        inside; else None."""

    @property
    def lift_mm(self) -> float:
        """How far what closes it is drawn off before it can be turned away."""

    @property
    def sheet_mm(self) -> float | None:
        """The sheet it is made of, where a thinner one may be chosen."""

    def proud_mm(self, face: str) -> float:
        """How far outside the body the surface of a face lies that things stand on."""

    def pieces(self) -> Iterator[Piece]:
        """Everything it is made of, without dividers."""

    def outside(self) -> Iterator[Outside]:
        """What gaps are measured to, without what stands out of it."""

    def wall_at(self, face: Side) -> Wall:
        """The wall on a face."""

    def tube_at(self, edge: Side) -> Wall | None:
        """The underside of the tube along an edge of the base; None where there is none."""

    def flat_at(self, face: Face) -> tuple[Flat, Flat] | None:
        """What is flat and free of a face for a cover to lie on: its first corner and its last, along the first and the
        second way; None where nothing is."""

    def along_walls(self, axis: int) -> tuple[float, float, float]:
        """From where to where, along or across, what is fixed inside along its walls reaches, and how much of either
        end lies on a post there; 0 where it lies on the wall all along."""

    def on_a_tube(self, face: Face, at: Vec, half_mm: float) -> bool | None:
        """Whether what is bolted to a face at a place of it, so wide about that, is on one of the bars that carry
        there; None where sheet alone carries."""

    def bearing_at(self, face: Face) -> Bearing | None:
        """What carries what presses on a face from inside; None where it is closed by what comes off."""

    def stack_rows(self, axis: int, path: str) -> Layers:
        """Its own rows of a stack-up along an axis."""

    def floor_mm(self, low: Vec, high: Vec) -> float:
        """How high the inside of the base lies under what stands between two corners."""

    def least_cut_mm(self, edge: tuple[str, str]) -> int | None:
        """The smallest cut of an edge that can be made, in whole millimetres; None where none can."""

    def parts(self, box_id: str, name: str) -> Iterator[FlatPart]:
        """The flat parts it is cut from; none where it cannot be made as drawn."""

    def bars(self, box_id: str, name: str) -> Iterator[Bar]:
        """The bars it is sawn from."""

    @property
    def lapped_mm(self) -> float:
        """How much of its seams is lapped and only tight where it is sealed; 0 of what is welded."""

    @property
    def weld_mm(self) -> float:
        """How much of it is welded, along its seams; 0 of what is there."""

    @property
    def fastened(self) -> int:
        """How many rivets and screws hold it together."""

    def bought(self) -> Iterator[tuple[str, int]]:
        """What holds it together and is bought, and how many of it."""

    def findings(self, path: str, name: str) -> Iterator[Finding]:
        """What stands against making it."""

    def message(self) -> tuple[str, tuple[str, ...]]:
        """(how it is made, in a few words; notes for its sheet)."""
