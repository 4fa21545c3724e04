"""The frame: square tubes along the edges of the box, and rails under what stands in it, welded."""

import math
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from functools import cached_property

from levelcradle.core.axes import Vec, minus, plus
from levelcradle.core.bar import Tube, tube_area_mm2
from levelcradle.core.design.box import Box
from levelcradle.core.design.construction import Framed, Panel
from levelcradle.core.design.tables import Material
from levelcradle.core.solids import Solid, hull

__all__ = ["Frame", "Run", "tube_solids"]


@dataclass(frozen=True, eq=False)
class Frame:
    """What a framed box is made from: its inside, its tube, its cladding, what closes it; its tubes follow."""

    box: Box
    spec: Framed
    lid: Panel
    inner_mm: Vec
    material: Material

    @property
    def tube(self) -> Tube:
        return Tube(self.spec.tube_mm, self.spec.tube_wall_mm)

    def clad_mm(self, face: str) -> float:
        """Cladding on a face; none where it is closed by what comes off."""
        return 0.0 if face == self.lid.face else self.spec.cladding_mm

    def deep_mm(self, face: str) -> float:
        """From the outside of a face to the box's inside: where it is filled that goes up to the rim."""
        return 0.0 if face == self.lid.face else self.spec.cladding_mm + self.spec.tube_mm

    @cached_property
    def start_mm(self) -> Vec:
        return self.deep_mm("front"), self.deep_mm("left"), self.deep_mm("base")

    @cached_property
    def outer_mm(self) -> Vec:
        beyond = (self.deep_mm("aft"), self.deep_mm("right"), self.deep_mm("top"))
        return plus(plus(self.start_mm, self.inner_mm), beyond)

    @cached_property
    def edges(self) -> tuple[Vec, Vec]:
        """The frame's own corners, without cladding."""
        beyond = (self.clad_mm("aft"), self.clad_mm("right"), self.clad_mm("top"))
        return (self.clad_mm("front"), self.clad_mm("left"), self.clad_mm("base")), minus(self.outer_mm, beyond)

    @cached_property
    def runs(self) -> tuple["Run", ...]:
        return tuple(_runs(self))

    @property
    def makeable(self) -> bool:
        """Whether there is anything to cut: a frame has all its edges, and tubes of some length."""
        return not self.box.chamfers and min(run.length_mm for run in self.runs) > 0

    def kg(self, run: "Run") -> float:
        return tube_area_mm2(self.tube) * run.middle_mm * self.material.density_kg_m3 * 1e-9


@dataclass(frozen=True, slots=True)
class Run:
    """One tube of the frame, between two opposite corners in the box's frame; it runs along ``axis``. ``mitred``: its
    ends are cut at 45 degrees; the side that is longest looks so far out along which other axis."""

    name: str
    axis: int
    low: Vec
    high: Vec
    mitred: tuple[int, bool] | None = None

    @property
    def length_mm(self) -> float:
        """Over all."""
        return self.high[self.axis] - self.low[self.axis]

    @property
    def middle_mm(self) -> float:
        """Along its middle line: what it weighs."""
        return self.length_mm - (self.high[self.mitred[0]] - self.low[self.mitred[0]] if self.mitred else 0.0)

    def ends_at(self, at: Vec) -> tuple[float, float]:
        """From where to where along it the metal goes that lies, across it, where a point does."""
        low, high = self.low[self.axis], self.high[self.axis]
        if self.mitred is None:
            return low, high
        across, far = self.mitred
        cut = self.high[across] - at[across] if far else at[across] - self.low[across]
        return low + cut, high - cut


def _runs(frame: Frame) -> Iterator[Run]:
    """Two rings, a post in each corner between the rings, and rails across in the lower ring. Of a ring the tubes are
    mitred, cut or folded, or the long ones go through and the cross ones stand between them."""
    s, rails, mitred = frame.spec.tube_mm, frame.spec.rails, frame.spec.corners != "butt"
    in_ = 0.0 if mitred else s
    (x0, y0, z0), (x1, y1, z1) = frame.edges
    for ring, up in (("lower", z0), ("upper", z1 - s)):
        for side, y in (("left", y0), ("right", y1 - s)):
            cut = (1, side == "right") if mitred else None
            yield Run(f"{ring} {side} tube", 0, (x0, y, up), (x1, y + s, up + s), cut)
        for end, x in (("front", x0), ("aft", x1 - s)):
            cut = (0, end == "aft") if mitred else None
            yield Run(f"{ring} {end} tube", 1, (x, y0 + in_, up), (x + s, y1 - in_, up + s), cut)
    for side, y in (("left", y0), ("right", y1 - s)):
        for end, x in (("front", x0), ("aft", x1 - s)):
            yield Run(f"{end} {side} post", 2, (x, y, z0 + s), (x + s, y + s, z1 - s))
    between = (x1 - x0 - (2 + rails) * s) / (rails + 1)
    even = (s + between * (n + 1) + s * n for n in range(rails))
    said = (at - s / 2 for at in sorted(frame.spec.rails_at_mm))
    for n, at in enumerate(said if frame.spec.rails_at_mm else even, 1):
        yield Run(f"rail {n}", 1, (x0 + at, y0 + s, z0), (x0 + at + s, y1 - s, z0 + s))


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
                at = [0.0, 0.0, 0.0]
                at[across[0]], at[across[1]] = run.low[across[0]] + a, run.low[across[1]] + b
                for end in run.ends_at((at[0], at[1], at[2])):
                    at[run.axis] = end
                    points.append((at[0], at[1], at[2]))
            solids.append(hull(points))
        return tuple(solids)

    return build
