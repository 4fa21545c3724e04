"""A piece of a box in its own frame."""

from dataclasses import dataclass

from levelcradle.core.axes import Vec

__all__ = ["Piece"]


@dataclass(frozen=True, slots=True)
class Piece:
    """A block of metal of the shell, or of its outside, to which gaps are measured. ``corners``: its own, where a chamfer
    makes it no block. What a chamfer takes away has a mass below zero."""

    name: str
    low: Vec
    high: Vec
    mass_kg: float
    corners: tuple[Vec, ...] | None = None
