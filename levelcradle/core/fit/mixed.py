"""Boxes whose modules stand in two turns: one tier packed with pieces along and across, repeated upward."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import numpy as np

from levelcradle.core.axes import Vec
from levelcradle.core.design.base import ModuleFace
from levelcradle.core.design.box import Block, Counts, Gaps, Orientation
from levelcradle.core.design.stock import ModuleKind
from levelcradle.core.fit.space import Space
from levelcradle.core.fit.tier import Tile, pack_tier
from levelcradle.core.modules import Turned, turned

__all__ = ["Footprint", "lengths_of", "mixed_blocks", "widest"]

LENGTHS = 10  # so many lengths of the box are tried
STEPS = 600
FACES: tuple[ModuleFace, ...] = ("end_a", "side_a", "base")
WORTH = 5  # with fewer pieces in a tier, mixed turns win nothing that a plain grid does not have


@dataclass(frozen=True, slots=True)
class Footprint:
    """A kind lying along and across on the same face, each with the room its faces ask for.

    ``length_mm``, ``width_mm``: with that room, of the one that lies along; ``spare_mm`` is how much of it the
    outermost ones do not need before a wall."""

    kind: str
    along: Orientation
    across: Orientation
    shapes: tuple[Turned, Turned]
    length_mm: float
    width_mm: float
    spare_mm: float

    @staticmethod
    def of(kind_id: str, kind: ModuleKind, turn: Orientation) -> "Footprint":
        other = Orientation(down=turn.down, aft=next(face for face in FACES if _square(turn, face)))
        one, two = turned(kind, turn), turned(kind, other)
        asked = [
            max(s.face_clearance_mm[2 * i] + s.face_clearance_mm[2 * i + 1] for s, i in ((one, axis), (two, 1 - axis)))
            for axis in (0, 1)
        ]
        gap = kind.neighbour_gap_mm
        sides = [one.size_mm[i] + max(asked[i], gap) for i in (0, 1)]
        return Footprint(kind_id, turn, other, (one, two), sides[0], sides[1], max(0.0, gap - max(asked)))


def _square(turn: Orientation, face: ModuleFace) -> bool:
    """Whether a face looks neither up or down nor aft or forward in a turn: it looks aft after a quarter turn."""
    axis = {"end": 0, "sid": 1, "bas": 2, "top": 2}
    used = {axis[turn.down[:3]], axis[turn.aft[:3]]}
    return axis[face[:3]] not in used


def widest(space: Space, length_mm: float, height_mm: float, most_mm: float) -> float:
    """The widest box of a length and height that the cells let stand, to one cell; 0 where none does."""
    low, high = 0, int(most_mm // space.step_mm)
    while low < high:
        middle = (low + high + 1) // 2
        if space.places((length_mm, middle * space.step_mm, height_mm)).any():
            low = middle
        else:
            high = middle - 1
    return low * space.step_mm


def mixed_blocks(foot: Footprint, inside: tuple[float, float], tiers: int, most: int) -> dict[str, Block] | None:
    """Blocks that fill an inside of length × width; None where a plain grid holds as many."""
    length, width = (side + foot.spare_mm for side in inside)
    plain = max(
        int(length // a) * int(width // b)
        for a, b in ((foot.length_mm, foot.width_mm), (foot.width_mm, foot.length_mm))
    )
    if plain < WORTH - 1 or length * width < (plain + 1) * foot.length_mm * foot.width_mm:
        return None
    tiles = pack_tier(length, width, foot.length_mm, foot.width_mm, steps=STEPS)
    if len(tiles) <= plain or len(tiles) * tiers > most:
        return None
    return {f"b{n}": block for n, block in enumerate(_gathered(foot, tiles, tiers), 1)}


def _gathered(foot: Footprint, tiles: Sequence[Tile], tiers: int) -> Iterator[Block]:
    """Tiles of one turn that lie in a grid become one block."""
    for across in (False, True):
        size = (foot.width_mm, foot.length_mm) if across else (foot.length_mm, foot.width_mm)
        left = {(round(t.x, 3), round(t.y, 3)) for t in tiles if t.across == across}
        while left:
            start = min(left, key=lambda p: (p[1], p[0]))
            columns = _run(left, start, (size[0], 0.0))
            rows = 1
            while all(
                (round(start[0] + i * size[0], 3), round(start[1] + rows * size[1], 3)) in left for i in range(columns)
            ):
                rows += 1
            left -= {
                (round(start[0] + i * size[0], 3), round(start[1] + j * size[1], 3))
                for i in range(columns)
                for j in range(rows)
            }
            yield _block(foot, across, start, (columns, rows, tiers), size)


def _run(left: set[tuple[float, float]], start: tuple[float, float], by: tuple[float, float]) -> int:
    n = 1
    while (round(start[0] + n * by[0], 3), round(start[1] + n * by[1], 3)) in left:
        n += 1
    return n


def _block(
    foot: Footprint, across: bool, start: tuple[float, float], counts: tuple[int, int, int], size: tuple[float, float]
) -> Block:
    shape = foot.shapes[across]
    origin: Vec = (start[0] + shape.face_clearance_mm[0], start[1] + shape.face_clearance_mm[2], 0.0)
    gaps = Gaps(aft=round(size[0] - shape.size_mm[0], 6), across=round(size[1] - shape.size_mm[1], 6))
    aft, wide, up = counts
    turn = foot.across if across else foot.along
    return Block(kind=foot.kind, turn=turn, counts=Counts(aft=aft, across=wide, up=up), gap_mm=gaps, origin_mm=origin)


def lengths_of(low_mm: float, high_mm: float) -> list[float]:
    return [float(v) for v in np.linspace(high_mm, low_mm, LENGTHS)] if high_mm > low_mm else []
