"""Pieces of a box in its own frame: real solids, each with what it is and what it weighs; and its outside, which gaps
are measured to."""

import math
from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property
from typing import Literal

from levelcradle.core.axes import Vec, plus, scaled
from levelcradle.core.solids import Solid, block, rod

__all__ = ["STEEL_KG_MM3", "Outside", "Piece", "Role", "block_piece", "head_piece"]

STEEL_KG_MM3 = 7850e-9
Role = Literal[
    "base",
    "wall",
    "top",
    "slope",
    "bend",
    "frame",
    "closure",
    "fastener",
    "divider",
    "board",
    "holder",
    "chamber",
    "panel",
]


@dataclass(frozen=True, eq=False)
class Piece:
    """One piece of a box: a flat or bend of a sheet, a plate, a screw head.

    Attributes:
        mass_kg, centre: what it weighs, and its centre of gravity.
        build: makes its convex solids; they are only made where they are asked for.
        part: of which flat part of the box it is a piece, by what follows the box's id in the part's; none where it is
            shaped otherwise than it was cut.
    """

    name: str
    role: Role
    mass_kg: float
    centre: Vec
    build: Callable[[], tuple[Solid, ...]]
    part: str = ""

    @cached_property
    def solids(self) -> tuple[Solid, ...]:
        return self.build()


def block_piece(name: str, role: Role, low: Vec, high: Vec, density_kg_m3: float, part: str = "") -> Piece:
    """An upright block of one material between two corners."""
    size, centre = (
        [h - v for v, h in zip(low, high, strict=True)],
        [(h + v) / 2 for v, h in zip(low, high, strict=True)],
    )
    mass = size[0] * size[1] * size[2] * density_kg_m3 * 1e-9
    return Piece(name, role, mass, (centre[0], centre[1], centre[2]), lambda: (block(low, high),), part)


def head_piece(foot: Vec, top: Vec, radius_mm: float) -> Piece:
    """A round head of steel, whatever the box is made of."""
    middle, high_mm = scaled(plus(foot, top), 0.5), math.dist(foot, top)
    mass = math.pi * radius_mm**2 * high_mm * STEEL_KG_MM3
    return Piece("screw head", "fastener", mass, middle, lambda: (rod(foot, top, radius_mm),))


@dataclass(frozen=True, eq=False, slots=True)
class Outside:
    """A piece of a box's outside: its body (filled: nothing may stand in it), what closes it, fasteners, what stands
    out of it."""

    name: str
    role: Literal["body", "closure", "fastener", "protrusion", "chamber", "panel"]
    solid: Solid
