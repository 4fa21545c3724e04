"""A bar cut to length: a piece of tube with what is done to its ends."""

import math
from dataclasses import dataclass, field

__all__ = ["Angle", "Bar", "Flatbar", "Section", "Tube", "tube_area_mm2"]


@dataclass(frozen=True, slots=True)
class Tube:
    """A square hollow section [mm]."""

    size_mm: float
    wall_mm: float

    def __str__(self) -> str:
        return f"square tube {self.size_mm:g} × {self.size_mm:g} × {self.wall_mm:g}"


def tube_area_mm2(tube: Tube) -> float:
    """Area of a cold-formed square hollow section, its corners rounded: 2 t outside and t inside up to 6 mm.

    Valid for: walls up to 6 mm, thinner than half the tube.
    Source: EN 10219-2, annex B (radii and formulas from memory).

    >>> round(tube_area_mm2(Tube(25, 2)) * 7850e-6, 2), round(tube_area_mm2(Tube(40, 3)) * 7850e-6, 2)
    (1.36, 3.3)
    """
    t = tube.wall_mm
    sharp, rounded = 4 * t * (tube.size_mm - t), 4 - math.pi
    return sharp - rounded * ((2 * t) ** 2 - t**2)


@dataclass(frozen=True, slots=True)
class Angle:
    """An equal angle [mm], its corners taken sharp: it weighs up to a fiftieth more than it is drawn."""

    leg_mm: float
    wall_mm: float

    def __str__(self) -> str:
        return f"angle {self.leg_mm:g} × {self.leg_mm:g} × {self.wall_mm:g}"


@dataclass(frozen=True, slots=True)
class Flatbar:
    """A flat [mm]."""

    wide_mm: float
    thick_mm: float

    def __str__(self) -> str:
        return f"flat {self.wide_mm:g} × {self.thick_mm:g}"


Section = Tube | Angle | Flatbar


@dataclass(frozen=True, slots=True)
class Bar:
    """One bar to saw.

    Attributes:
        length_mm: over all.
        ends: what is done to its two ends.
        of: paths of what it is for.
        mark: what is written on it; given when all are known.
        each: every one of those that are alike.
    """

    id: str
    name: str
    quantity: int
    material: str
    material_name: str
    section: Section
    length_mm: float
    ends: tuple[str, str]
    mass_kg: float
    of: tuple[str, ...] = ()
    mark: str = ""
    each: tuple["Bar", ...] = field(default=(), compare=False)
