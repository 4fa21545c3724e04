"""What every kind of holder is told of the stack it holds, and what it answers.

A new kind is a model in ``design.holders``, a class of the form ``Holding``, and its line in ``kinds``.
"""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from typing import Any, Literal, Protocol

import numpy as np
from numpy.typing import NDArray

from levelcradle.core.axes import Vec
from levelcradle.core.box.chamfers import beyond
from levelcradle.core.box.cut_out import Taken
from levelcradle.core.box.made import Made
from levelcradle.core.box.piece import Piece
from levelcradle.core.design.base import FACE_AT, Face
from levelcradle.core.design.box import Block, Box
from levelcradle.core.design.holders import Bolts
from levelcradle.core.design.stock import ModuleKind
from levelcradle.core.design.tables import BoltClass, BoltSize, Tables
from levelcradle.core.finding import Step
from levelcradle.core.modules import Laid
from levelcradle.core.part import FlatPart
from levelcradle.core.solids import nearest, point
from levelcradle.core.strength import NUT_OF_D

__all__ = ["Check", "Forces", "Grip", "Holding", "InFace", "Placed", "Stack", "nut_mm", "tool_mm"]

Forces = NDArray[np.float64]
WITHIN_MM = 1e-6


def tool_mm(bolt: BoltSize) -> float:
    """From the middle of a bolt to what stands beside it or to the edge of the sheet it holds, at least: its washer,
    a socket on it (outside 1.25 s + 3, ISO 2725-1, from memory), its edge distance (1.2 d0, EN 1993-1-8 table 3.3)."""
    return max(bolt.washer_mm / 2, (1.25 * bolt.across_flats_mm + 3) / 2, 1.2 * bolt.clearance_hole_mm)


def nut_mm(bolt: BoltSize) -> float:
    """How high a nut and its washer stand."""
    return NUT_OF_D * bolt.d_mm + bolt.washer_thick_mm


@dataclass(frozen=True, slots=True)
class Stack:
    """A block by itself, before its box is made round it: its grid, its kind, and how that stands."""

    block: Block
    kind: ModuleKind
    laid: Laid
    tables: Tables

    @property
    def holes_axis(self) -> int:
        """Along which axis of the box the modules' own holes run: from base to top."""
        return self.laid.turned.looks.index("base") // 2

    @property
    def ends_axis(self) -> int:
        """Along which axis of the box the modules are long."""
        return self.laid.turned.looks.index("end_a") // 2

    def axis_of(self, way: Literal["length", "width", "height"]) -> int:
        """Along which axis of the box its modules' length, width or height lies."""
        face = {"length": "end_a", "width": "side_a", "height": "base"}[way]
        return [look.replace("_b", "_a").replace("top", "base") for look in self.laid.turned.looks].index(face) // 2

    @property
    def sunk_mm(self) -> float:
        return self.kind.mount_holes.sunk_mm if self.kind.mount_holes else 0.0

    def counts(self, axis: int) -> int:
        return (self.block.counts.aft, self.block.counts.across, self.block.counts.up)[axis]

    def bolt(self, bolts: Bolts) -> tuple[BoltSize, BoltClass]:
        return self.tables.bolts[bolts.size], self.tables.bolt_classes[bolts.property_class]


@dataclass(frozen=True, slots=True)
class Placed:
    """A stack in its box: how the box is made, where the block's corner is in the box's frame, what is left for the
    pull of welds, which is no room: they take it, or it is packed out; and what of its faces is cut out or covered."""

    stack: Stack
    box: Box
    made: Made
    origin: Vec
    pull_mm: Vec
    taken: tuple[Taken, ...] = ()

    @property
    def low(self) -> Vec:
        return self.origin

    @property
    def high(self) -> Vec:
        x, y, z = (at + size for at, size in zip(self.origin, self.stack.laid.size_mm, strict=True))
        return x, y, z

    @property
    def mass_kg(self) -> float:
        return self.stack.block.counts.total * self.stack.kind.mass_kg

    @property
    def floor_mm(self) -> float:
        """How high the inside of the base lies under it."""
        return self.made.floor_mm(self.low, self.high)

    def free_mm(self, face: Face) -> float:
        """From the block to the inside of the box on a face, layers counted as room."""
        axis, far = FACE_AT[face]
        start = self.floor_mm if face == "base" else self.made.start_mm[axis]
        end = self.made.start_mm[axis] + self.made.inner_mm[axis]
        has = end - self.high[axis] if far else self.low[axis] - start
        return has - self.pull_mm[axis] / 2

    def gap_mm(self, face: Face) -> float:
        """From the block to the innermost layer on a face."""
        return self.free_mm(face) - self.box.lined_mm(face)

    def why_no_bolt(self, face: Face, at: Vec, half_mm: float, *, tubes: bool = True) -> str:
        """Why nothing that is so wide about a place of a face can be bolted there; empty where it can. Without
        ``tubes`` a tube is taken to be where it is wanted."""
        for taken in self.taken:
            if taken.face == face and nearest(point(at), taken.solid).gap_mm < half_mm + taken.round_mm:
                return taken.name
        stands_on_a_step = self.floor_mm > self.made.start_mm[2] + WITHIN_MM
        for chamfer in self.box.chamfers.values():
            shelf = chamfer.square and face == "base" and stands_on_a_step
            if not shelf and beyond(chamfer, self.made.outer_mm, at) > -half_mm:
                return "an edge that is cut off"
        on_a_tube = self.made.on_a_tube(face, at, half_mm)
        if on_a_tube is not None:
            return "" if on_a_tube or not tubes else "sheet between bars: one has to run there"
        flat, along = self.made.flat_at(face), [i for i in range(3) if i != FACE_AT[face][0]]
        if flat is None or all(
            low + half_mm <= at[i] + WITHIN_MM and at[i] - WITHIN_MM <= high - half_mm
            for i, low, high in zip(along, *flat, strict=True)
        ):
            return ""
        return "a bend or a rim"

    def holes(self) -> Iterator[tuple[float, float]]:
        """Middles of one module's own holes by its length and width [mm], from its middle; in two rows along it. Where
        nobody has measured them they are taken a diameter inside its edges."""
        kind, holes = self.stack.kind, self.stack.kind.mount_holes
        if holes is None:
            return
        rows = 2 if holes.count > 1 else 1
        a_row = -(-holes.count // rows)
        ends, sides = (holes.diameter_mm if at is None else at for at in (holes.from_ends_mm, holes.from_sides_mm))
        along = [0.0] if a_row == 1 else np.linspace(-0.5, 0.5, a_row) * (kind.size_mm[0] - 2 * ends)
        across = [0.0] if rows == 1 else [-0.5, 0.5]
        places = [(float(u), v * (kind.size_mm[1] - 2 * sides)) for u in along for v in across]
        yield from places[: holes.count]


@dataclass(frozen=True, slots=True)
class Grip:
    """Where a holder takes hold, in the box's frame. ``n``: from what holds towards the modules; ``can``: in all
    directions, or only where they press against it. ``bolts``: what holds it to the ``face`` of the box."""

    at: Vec
    n: Vec
    can: Literal["both", "push"] = "both"
    face: Face | None = None
    bolts: Bolts | None = None


@dataclass(frozen=True, slots=True)
class InFace:
    """A bolt in a face of the box, where that is in the box's frame."""

    face: Face
    at: Vec
    bolts: Bolts


@dataclass(frozen=True, slots=True)
class Check:
    """One check over all solves and cases: its use, and how that of one of them came about. A ``rough`` one is
    clear only to half of what it says."""

    name: str
    utilisation: Forces  # (s, k)
    steps: Callable[[int, int], tuple[Step, ...]]
    rough: bool = False


class Holding(Protocol):
    """A holder in place."""

    @property
    def words(self) -> str:
        """What holds, in a few words."""

    @property
    def missing(self) -> str:
        """What is missing of it, in a sentence; then it holds nothing. Empty where nothing is."""

    @property
    def ties(self) -> bool:
        """Whether it holds each module of the stack by itself."""

    @property
    def presses(self) -> int | None:
        """Along which axis it presses the modules together; None where it does not."""

    def asks(self) -> Iterator[tuple[str, bool]]:
        """What must be, each with whether it is."""

    def grips(self) -> tuple[Grip, ...]: ...

    def checks(self, forces: Forces) -> Iterator[Check]:
        """``forces``: (s, k, n, 3) of the modules on its grips [N], in the box's frame."""

    def pieces(self) -> Iterator[Piece]: ...

    def bolted(self) -> Iterator[InFace]:
        """Its bolts in faces of the box."""

    def parts(self, box_id: str, name: str) -> Iterator[FlatPart]:
        """The flat parts it is cut from; their ids begin with the box's and its own."""

    def bought(self) -> Iterator[tuple[str, int]]: ...


class Kind(Protocol):
    """A class that makes holders of one kind."""

    def __call__(self, key: str, spec: Any, placed: Placed, /) -> Holding: ...

    def room(self, spec: Any, stack: Stack, /) -> Mapping[Face, float]:
        """How much it takes before each face of the stack [mm], of what is free there; a liner is cut away for it."""
