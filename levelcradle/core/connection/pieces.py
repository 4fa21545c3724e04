"""What kinds of mounts have in common of their solids."""

import math
from collections.abc import Mapping

from levelcradle.core.design.tables import BoltSize
from levelcradle.core.part import Cutout, Hole
from levelcradle.core.strength import BoltHole

__all__ = ["SLIDES", "STEEL_KG_MM3", "head_kg", "opened_for", "slot_outline"]

STEEL_KG_MM3 = 7850e-9


# which part of a load goes along a slot: (off the metal, away from the box, along the bend)
SLIDES: Mapping[str, int | None] = {"round": None, "oversize": 0, "slot along": 2, "slot across": 1}


def head_kg(bolt: BoltSize) -> float:
    """Of a bolt's head and its washer [kg]; its shank fills the hole."""
    hexagon = math.sqrt(3) / 2 * bolt.across_flats_mm**2 * bolt.head_mm
    washer = math.pi / 4 * (bolt.washer_mm**2 - bolt.washer_hole_mm**2) * bolt.washer_thick_mm
    return (hexagon + washer) * STEEL_KG_MM3


ARC = 8  # straight pieces of a round end of a slot


def opened_for(hole: BoltHole, at: tuple[float, float], size: str) -> tuple[tuple[Hole, ...], tuple[Cutout, ...]]:
    """(holes, cut-outs) for the vehicle's bolt in a flat whose first way goes away from the box."""
    if hole.across_mm == hole.away_mm:
        return (Hole(at, hole.narrow_mm, size),), ()
    return (), (Cutout(slot_outline(at, hole.away_mm, hole.across_mm), f"slot for {size}"),)


def slot_outline(at: tuple[float, float], long_mm: float, wide_mm: float) -> tuple[tuple[float, float], ...]:
    """A slot with round ends, so long along the first way of a flat and so wide along the second, counter-clockwise."""
    r = min(long_mm, wide_mm) / 2
    half = (long_mm / 2 - r, wide_mm / 2 - r)
    turns = [math.pi / 2 * quarter + math.pi / 2 * n / ARC for quarter in range(4) for n in range(ARC + 1)]
    signs = ((1, 1), (-1, 1), (-1, -1), (1, -1))
    return tuple(
        (at[0] + sx * half[0] + r * math.cos(turn), at[1] + sy * half[1] + r * math.sin(turn))
        for turn, (sx, sy) in zip(turns, (sign for sign in signs for _ in range(ARC + 1)), strict=True)
    )
