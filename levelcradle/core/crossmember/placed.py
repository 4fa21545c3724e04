"""A crossmember in place: its solids in vehicle axes, and where on it a mount lands."""

import math
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from functools import cached_property, lru_cache

import numpy as np

from levelcradle.core.axes import Placement, Vec, cross, dot, minus, plus, scaled, unit
from levelcradle.core.bar import Angle, Bar, Flatbar, Section, Tube
from levelcradle.core.crossmember.section import SectionFigures, section_figures
from levelcradle.core.design.crossmember import Crossmember
from levelcradle.core.design.survey import HardPoint
from levelcradle.core.design.tables import Material, Tables
from levelcradle.core.solids import Solid, block
from levelcradle.core.strength import EDGE_HOLES, class_asks

__all__ = ["PlacedCrossmember", "crossmember_of"]

FLAT_WITHIN = math.cos(math.radians(2.0))


@dataclass(frozen=True, eq=False)
class PlacedCrossmember:
    """Its frame: zero at its first hard point, x to the second, z off the metal there."""

    id: str
    spec: Crossmember
    ends: tuple[HardPoint, HardPoint]
    material: Material
    frame: Placement
    span_mm: float
    unfit: str

    @property
    def path(self) -> str:
        return f"crossmembers/{self.id}"

    @property
    def section(self) -> Section:
        kinds: dict[str, Callable[[float, float], Section]] = {"tube": Tube, "angle": Angle, "flat": Flatbar}
        return kinds[self.spec.section](self.spec.size_mm, self.spec.wall_mm)

    @cached_property
    def figures(self) -> SectionFigures:
        return section_figures(self.section)

    @property
    def long_mm(self) -> float:
        return self.span_mm + 2 * self.spec.beyond_mm

    @property
    def mass_kg(self) -> float:
        return self.figures.area_mm2 * self.long_mm * self.material.density_kg_m3 * 1e-9

    @property
    def cg(self) -> Vec:
        y, z = self.figures.middle_mm
        return self.frame.point((self.span_mm / 2, y, z))

    @property
    def through_mm(self) -> float:
        """What a bolt goes through: both walls of a tube, else its metal."""
        return self.spec.size_mm if self.spec.section == "tube" else self.spec.wall_mm

    @property
    def bolt_line_mm(self) -> float:
        """How far off its middle its bolts stand: in the middle of what is free of an angle's leg."""
        return self.spec.wall_mm / 2 if self.spec.section == "angle" else 0.0

    @cached_property
    def solids(self) -> tuple[Solid, ...]:
        """Its outside; of an angle both legs."""
        spec, half = self.spec, self.spec.size_mm / 2
        start, end = -spec.beyond_mm, self.span_mm + spec.beyond_mm
        high = spec.size_mm if spec.section == "tube" else spec.wall_mm
        rows = [((start, -half, 0.0), (end, half, high))]
        if spec.section == "angle":
            rows.append(((start, -half, 0.0), (end, -half + spec.wall_mm, spec.size_mm)))
        return tuple(block(low, top).moved(self.frame) for low, top in rows)

    def lands(self, along_mm: float, *, top: bool) -> tuple[Vec, Vec]:
        """(a place on its middle line, the way it faces) of what lies on its top, or hangs under it."""
        n = self.frame.direction((0.0, 0.0, 1.0))
        off = (n[2] > 0) == top
        at = self.frame.point((along_mm, self.bolt_line_mm, self.through_mm if off else 0.0))
        return at, n if off else scaled(n, -1.0)

    def asks(self, tables: Tables) -> Iterator[tuple[str, bool]]:
        """What it must keep, each with whether it does."""
        spec, size = self.spec, tables.bolts[self.spec.bolt.size]
        if spec.ends == "welded":
            return
        named = spec.bolt.size, spec.bolt.property_class
        yield from class_asks(named, size, tables.bolt_classes[named[1]])
        for point in self.ends:
            if point.thread in tables.bolts:
                yield f"bolt {spec.bolt.size} in a hard point {point.thread}", point.thread == spec.bolt.size
        if spec.section == "tube":
            yield "end bolts through a closed section, in sleeves that keep its walls apart", spec.sleeve
        edge = EDGE_HOLES * size.clearance_hole_mm
        yield f"hard point to its end {spec.beyond_mm:.1f}, at least {edge:.1f}", spec.beyond_mm >= edge
        beside = self.figures.across_mm
        yield f"bolt to its edge {beside:.1f}, at least {edge:.1f}", beside >= edge

    def bar(self, holes: list[tuple[float, float]]) -> Bar:
        """As it is sawn and drilled. ``holes``: (how far from its first end, diameter)."""
        by_size: dict[float, list[float]] = {}
        for at, diameter in sorted(holes):
            by_size.setdefault(diameter, []).append(at)
        drilled = "; ".join(
            f"drilled ⌀ {diameter:g} through at {', '.join(f'{at:.1f}' for at in places)} from here"
            for diameter, places in sorted(by_size.items())
        )
        first = f"square; {drilled}" if drilled else "square"
        return Bar(self.id, self.spec.name, 1, self.spec.material, self.material.name, self.section, self.long_mm,
                   (first, "square"), self.mass_kg)  # fmt: skip


@lru_cache(maxsize=512)
def crossmember_of(
    key: str, spec: Crossmember, first: HardPoint, second: HardPoint, material: Material
) -> PlacedCrossmember:
    """From the first hard point to the second. Cached by content."""
    apart = minus(second.at_mm, first.at_mm)
    span = math.sqrt(dot(apart, apart))
    x = unit(apart) if span > 1.0 else (0.0, 1.0, 0.0)
    facing = plus(first.direction, second.direction)
    flat = minus(facing, scaled(x, dot(facing, x)))
    z = (
        unit(flat)
        if dot(flat, flat) > 1e-6
        else unit(cross(x, (0.0, 0.0, 1.0) if abs(x[2]) < 0.9 else (1.0, 0.0, 0.0)))
    )
    unfit = ""
    if span <= 1.0:
        unfit = "its two hard points are in one place"
    elif any(dot(z, point.direction) < FLAT_WITHIN for point in (first, second)):
        unfit = "it does not lie flat on the metal of both its hard points (within 2°)"
    frame = Placement(np.array([x, cross(z, x), z]).T, first.at_mm)
    return PlacedCrossmember(key, spec, (first, second), material, frame, span, unfit)
