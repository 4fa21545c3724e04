"""A block is a grid of one module kind in one turn, in the box's own frame."""

from collections.abc import Iterator
from dataclasses import dataclass

from levelcradle.core.axes import Vec
from levelcradle.core.design.base import ModuleFace
from levelcradle.core.design.box import Block, Dividers
from levelcradle.core.design.stock import ModuleKind
from levelcradle.core.modules.orientations import Turned, turned, turned_about

__all__ = ["Laid", "NeighbourGap", "PlacedModule", "lay_out"]


@dataclass(frozen=True, slots=True)
class PlacedModule:
    """One module of a block: its place in the grid, its two corners in the block's frame [mm], and which of its faces
    look front, aft, left, right, down, up."""

    at: tuple[int, int, int]
    low: Vec
    high: Vec
    looks: tuple[ModuleFace, ...]


@dataclass(frozen=True, slots=True)
class NeighbourGap:
    """Gap between neighbours along one direction of a block: what there is and what the faces ask for."""

    direction: str
    has_mm: float
    needs_mm: float


@dataclass(frozen=True, slots=True)
class Laid:
    """A block laid out from its origin, with what its outer faces ask for; ``plates`` are where its dividers begin
    along their way."""

    turned: Turned
    modules: tuple[PlacedModule, ...]
    size_mm: Vec
    rows: tuple[NeighbourGap, ...]
    plates: tuple[float, ...] = ()


WAYS = ("aft", "across", "up")


def lay_out(block: Block, kind: ModuleKind) -> Laid:
    """Places every module of a block: first along aft, then across, then up."""
    shape = turned(kind, block.turn, either_way=block.alternate is not None)
    counts = (block.counts.aft, block.counts.across, block.counts.up)
    given = (block.gap_mm.aft, block.gap_mm.across, block.gap_mm.up)
    gaps = tuple(g if g is not None else n for g, n in zip(given, shape.neighbour_mm, strict=True))
    starts = [
        _starts(counts[i], shape.size_mm[i], gaps[i], block.dividers if _divided(block, i) else None) for i in range(3)
    ]
    size = [begins[-1] + shape.size_mm[i] for i, begins in enumerate(starts)]
    rows = tuple(NeighbourGap(name, gaps[i], shape.neighbour_mm[i]) for i, name in enumerate(WAYS) if counts[i] > 1)
    return Laid(
        shape,
        tuple(_grid(block, kind, starts, shape)),
        (size[0], size[1], size[2]),
        rows,
        tuple(_plates(block, starts, gaps)),
    )


def _divided(block: Block, axis: int) -> bool:
    return block.dividers is not None and block.dividers.along == WAYS[axis]


def _starts(count: int, size_mm: float, gap_mm: float, dividers: Dividers | None) -> list[float]:
    """Where each module begins along one way; a divider has the gap on both of its sides."""
    extra = gap_mm + dividers.thickness_mm if dividers else 0.0
    return [n * (size_mm + gap_mm) + (n // dividers.every if dividers else 0) * extra for n in range(count)]


def _plates(block: Block, starts: list[list[float]], gaps: tuple[float, ...]) -> Iterator[float]:
    if block.dividers is not None:
        axis = WAYS.index(block.dividers.along)
        for n, start in enumerate(starts[axis]):
            if n and n % block.dividers.every == 0:
                yield start - gaps[axis] - block.dividers.thickness_mm


def _grid(block: Block, kind: ModuleKind, starts: list[list[float]], shape: Turned) -> Iterator[PlacedModule]:
    """A turn about is half a turn round the upright: sizes stay, the faces that look along and across change ends."""
    about = turned(kind, turned_about(block.turn)).looks
    size, alternate = shape.size_mm, WAYS.index(block.alternate) if block.alternate else None
    for k, up in enumerate(starts[2]):
        for j, across in enumerate(starts[1]):
            for i, aft in enumerate(starts[0]):
                second = alternate is not None and (i, j, k)[alternate] % 2 == 1
                high = (aft + size[0], across + size[1], up + size[2])
                yield PlacedModule((i, j, k), (aft, across, up), high, about if second else shape.looks)
