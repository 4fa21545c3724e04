"""A block is a grid of one module kind in one turn, in the box's own frame."""

from collections.abc import Iterator
from dataclasses import dataclass

from levelcradle.core.axes import Vec
from levelcradle.core.design.box import Block
from levelcradle.core.design.stock import ModuleKind
from levelcradle.core.modules.turns import Turned, turned

__all__ = ["Laid", "PlacedModule", "Row", "lay_out"]


@dataclass(frozen=True, slots=True)
class PlacedModule:
    """One module of a block: its place in the grid and its two corners in the block's frame [mm]."""

    at: tuple[int, int, int]
    low: Vec
    high: Vec


@dataclass(frozen=True, slots=True)
class Row:
    """Gap between neighbours along one direction of a block: what there is and what the faces ask for."""

    direction: str
    has_mm: float
    needs_mm: float


@dataclass(frozen=True, slots=True)
class Laid:
    """A block laid out from its origin, with what its outer faces ask for."""

    turned: Turned
    modules: tuple[PlacedModule, ...]
    size_mm: Vec
    rows: tuple[Row, ...]


def lay_out(block: Block, kind: ModuleKind) -> Laid:
    """Places every module of a block: first along aft, then across, then up."""
    shape = turned(kind, block.turn)
    counts = (block.counts.aft, block.counts.across, block.counts.up)
    given = (block.gap_mm.aft, block.gap_mm.across, block.gap_mm.up)
    gaps = tuple(g if g is not None else n for g, n in zip(given, shape.neighbour_mm, strict=True))
    pitch = tuple(s + g for s, g in zip(shape.size_mm, gaps, strict=True))
    size = tuple(n * p - g for n, p, g in zip(counts, pitch, gaps, strict=True))
    rows = tuple(Row(name, gaps[i], shape.neighbour_mm[i]) for i, name in enumerate(("aft", "across", "up")) if counts[i] > 1)
    return Laid(shape, tuple(_grid(counts, pitch, shape.size_mm)), (size[0], size[1], size[2]), rows)


def _grid(counts: tuple[int, ...], pitch: tuple[float, ...], size: Vec) -> Iterator[PlacedModule]:
    for k in range(counts[2]):
        for j in range(counts[1]):
            for i in range(counts[0]):
                low = (i * pitch[0], j * pitch[1], k * pitch[2])
                yield PlacedModule((i, j, k), low, (low[0] + size[0], low[1] + size[1], low[2] + size[2]))
