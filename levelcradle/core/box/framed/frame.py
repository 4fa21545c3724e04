"""The frame: square tubes along the edges of the box, and rails under what stands in it, butt-welded."""

import math
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from functools import cached_property

from levelcradle.core.axes import Vec
from levelcradle.core.bar import Tube, tube_area_mm2
from levelcradle.core.design.box import Box
from levelcradle.core.design.construction import Framed, Panel
from levelcradle.core.design.tables import Material
from levelcradle.core.solids import Solid, hull

__all__ = ["Frame", "Run", "tube_solids"]


@dataclass(frozen=True, eq=False)
class Frame:
    """What a framed box is made from: its size, its tube, its cladding, its lid; its tubes follow."""

    box: Box
    spec: Framed
    lid: Panel
    outer_mm: Vec
    material: Material

    @property
    def tube(self) -> Tube:
        return Tube(self.spec.tube_mm, self.spec.tube_wall_mm)

    @property
    def inside_mm(self) -> float:
        """From the outside of the cladding to the inside of the tubes."""
        return self.spec.cladding_mm + self.spec.tube_mm

    @cached_property
    def runs(self) -> tuple["Run", ...]:
        return tuple(_runs(self))

    @property
    def makeable(self) -> bool:
        """Whether there is anything to cut: a frame has all its edges, and tubes of some length."""
        return not self.box.chamfers and min(run.length_mm for run in self.runs) > 0

    def kg(self, run: "Run") -> float:
        return tube_area_mm2(self.tube) * run.length_mm * self.material.density_kg_m3 * 1e-9


@dataclass(frozen=True, slots=True)
class Run:
    """One tube of the frame, between two opposite corners in the box's frame; it runs along ``axis``."""

    name: str
    axis: int
    low: Vec
    high: Vec

    @property
    def length_mm(self) -> float:
        return self.high[self.axis] - self.low[self.axis]


def _runs(frame: Frame) -> Iterator[Run]:
    """Two rings, the long tubes whole and the cross tubes between them, a post in each corner between the rings, and
    rails across in the lower ring."""
    c, s, rails = frame.spec.cladding_mm, frame.spec.tube_mm, frame.spec.rails
    (length, width, height), inside = frame.outer_mm, frame.inside_mm
    for ring, up in (("lower", c), ("upper", height - s)):
        for side, y in (("left", c), ("right", width - inside)):
            yield Run(f"{ring} {side} tube", 0, (c, y, up), (length - c, y + s, up + s))
        for end, x in (("front", c), ("aft", length - inside)):
            yield Run(f"{ring} {end} tube", 1, (x, inside, up), (x + s, width - inside, up + s))
    for side, y in (("left", c), ("right", width - inside)):
        for end, x in (("front", c), ("aft", length - inside)):
            yield Run(f"{end} {side} post", 2, (x, y, inside), (x + s, y + s, height - s))
    between = (length - 2 * inside - rails * s) / (rails + 1)
    for n in range(rails):
        x = inside + between * (n + 1) + s * n
        yield Run(f"rail {n + 1}", 1, (x, inside, c), (x + s, width - inside, inside))


def tube_solids(run: Run, tube: Tube) -> Callable[[], tuple[Solid, ...]]:
    """Its four walls as convex solids. Its corners are cut off flat by as much as the rounds of the section take, so
    that the solids weigh what the tube weighs."""

    def build() -> tuple[Solid, ...]:
        s, t = tube.size_mm, tube.wall_mm
        cut = math.sqrt(max(4 * t * (s - t) - tube_area_mm2(tube), 0.0) / 2)
        half = cut / 2
        wall = [(cut, 0.0), (s - cut, 0.0), (s - half, half), (s - t, t), (t, t), (half, half)]
        across = [i for i in range(3) if i != run.axis]
        solids = []
        for quarter in range(4):
            points = []
            for a, b in wall:
                for _ in range(quarter):
                    a, b = s - b, a  # about the tube's middle
                for end in (run.low[run.axis], run.high[run.axis]):
                    at = [0.0, 0.0, 0.0]
                    at[run.axis] = end
                    at[across[0]], at[across[1]] = run.low[across[0]] + a, run.low[across[1]] + b
                    points.append((at[0], at[1], at[2]))
            solids.append(hull(points))
        return tuple(solids)

    return build
