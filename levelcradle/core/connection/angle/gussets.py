"""Gussets of an angle: triangles in its inside corner, welded to both legs. They carry what would bend it there.

   leg B │╲
         │ ╲  gusset, up_mm on leg B
         │__╲____
─────────┴───────────── leg A, along_mm on it, then the bolt
"""

import math
from collections.abc import Callable, Iterable, Iterator, Mapping
from dataclasses import dataclass

import numpy as np

from levelcradle.core.axes import Placement, cross
from levelcradle.core.connection.connection import ForceArray, MountPiece, Road
from levelcradle.core.design.mount import Angle, Gussets
from levelcradle.core.design.tables import BoltSize, Material
from levelcradle.core.finding import Step
from levelcradle.core.part import FlatPart, Stand
from levelcradle.core.solids import hull
from levelcradle.core.strength import GAMMA_M0, ROAD_FACTOR, ROOT_MPA, weld_mpa, yield_beside_weld

__all__ = ["Gusseted"]

SNIP_MM = 2.0  # the corner is cut off so far beyond the bend: common practice, no source
OVERLAPS_MM = 10.0  # so far a gusset reaches on past where leg B is first held: common practice, no source
OUTSTAND = 14.0  # of a free edge, times √(235 / fy): EN 1993-1-1 table 5.2, class 3, from memory


@dataclass(frozen=True, slots=True)
class Gusseted:
    """The gussets of one angle. ``c_mm``: from its back to the bolt; ``starts_mm``: from the contact plane to where leg
    B is first held; ``b1_mm``: from the bolt to the middle of leg B."""

    shape: Angle
    spec: Gussets
    metal: Material
    bolt: BoltSize
    c_mm: float
    starts_mm: float
    b1_mm: float

    @property
    def to_bolt_mm(self) -> float:
        """From their end on leg A to the bolt."""
        return self.c_mm - self.shape.thickness_mm - self.spec.along_mm

    @property
    def _short_mm(self) -> float:
        return min(self.spec.along_mm, self.spec.up_mm)

    @property
    def _snip_mm(self) -> float:
        return self.shape.bend_radius_mm + SNIP_MM

    @property
    def _yields_mpa(self) -> float:
        return yield_beside_weld(self.metal, self.spec.thickness_mm)

    def asks(self, holes: Iterable[tuple[float, float, float, str]]) -> Iterator[tuple[str, bool]]:
        """``holes``: in leg B, as its plate tells them. Socket on a nut: outside 1.25 s + 3 (ISO 2725-1, from
        memory)."""
        spec, shape = self.spec, self.shape
        socket = (1.25 * self.bolt.across_flats_mm + 3) / 2
        beside = self.to_bolt_mm if spec.count == 1 else max(self.to_bolt_mm, shape.width_mm / 2 - spec.thickness_mm)
        yield f"bolt to gusset {beside:.1f}, room for a socket {socket:.1f}", beside >= socket
        yield f"gusset to bolt {self.to_bolt_mm:.1f}: it ends before the bolt", self.to_bolt_mm >= 0
        needs = self.starts_mm - shape.thickness_mm + OVERLAPS_MM
        yield f"gusset {spec.up_mm:.1f} up leg B, {needs:.1f} to where that is held", spec.up_mm >= needs
        ends = shape.leg_b_mm - shape.thickness_mm
        yield f"gusset {spec.up_mm:.1f} up leg B, which has {ends:.1f}", spec.up_mm <= ends
        least = self._snip_mm + 20.0
        yield (
            f"gusset {self._short_mm:.1f} on its shorter leg, at least {least:.1f} to be welded",
            self._short_mm >= least,
        )
        deep = spec.along_mm * spec.up_mm / math.hypot(spec.along_mm, spec.up_mm)
        most = OUTSTAND * math.sqrt(235 / self.metal.yield_mpa) * spec.thickness_mm
        yield f"gusset {deep:.1f} deep at its free edge, at most {most:.1f} or it buckles", deep <= most
        yield from ((f"{what} behind a gusset", False) for n, w, mm, what in holes if self._hides(n, w, mm / 2))

    def _hides(self, n: float, w: float, radius: float) -> bool:
        """Whether a hole in leg B lies behind one of them."""
        thick = self.spec.thickness_mm
        middle = 0.0 if self.spec.count == 1 else (self.shape.width_mm - thick) / 2
        return abs(abs(w) - middle) < thick / 2 + radius and n - radius < self.shape.thickness_mm + self.spec.up_mm

    def moment_n_mm(self, n: ForceArray, d: ForceArray) -> ForceArray:
        """What bends the corner: |N| b1 + |D| h, without signs (cautious, no source)."""
        h = max(self.starts_mm - self.shape.thickness_mm / 2, 0.0)
        return np.abs(n) * self.b1_mm + np.abs(d) * h

    def utilisations(self, n: ForceArray, d: ForceArray, *, road: Road) -> Mapping[str, Callable[[], ForceArray]]:
        moment = self.moment_n_mm(n, d)
        return {
            "gusset": lambda: moment / self._bears_n_mm(road=road),
            "gusset weld": lambda: self._line(moment, n, d) / (self._throat_mm * weld_mpa((self.metal,))),
        }

    def fatigue(self, n: ForceArray, d: ForceArray) -> Iterator[tuple[str, ForceArray]]:
        line = self._line(self.moment_n_mm(n, d), n, d)
        yield "fatigue in the gusset's weld", 2 * line / self._throat_mm / ROOT_MPA[self.metal.weldable_with]

    def _bears_n_mm(self, *, road: Road) -> ForceArray:
        """Across the shorter of its two legs, the other leg of the angle not counted: plastic, on the road elastic.
        Source: mechanics of materials."""
        whole = self.spec.count * self.spec.thickness_mm * self._short_mm**2
        fy = self._yields_mpa
        return np.asarray(np.where(road, whole / 6 * fy / ROAD_FACTOR, whole / 4 * fy / GAMMA_M0))

    @property
    def _throat_mm(self) -> float:
        thinner = min(self.spec.thickness_mm, self.shape.thickness_mm)
        return min(self.spec.weld_leg_mm / math.sqrt(2), 0.7 * thinner)

    def _line(self, moment: ForceArray, n: ForceArray, d: ForceArray) -> ForceArray:
        """Force per length at the end of the two fillets of each along its shorter leg [N/mm]. Source: line-weld method
        (statics)."""
        long = max(self._short_mm - self._snip_mm, 1.0)
        lines = 2 * self.spec.count
        return np.asarray(6 * moment / (lines * long**2) + np.hypot(n, d) / (lines * long))

    def steps(self, check: str, n: ForceArray, d: ForceArray) -> tuple[Step, ...]:
        moment = float(self.moment_n_mm(n, d))
        first = Step("bends the corner", "|N| b1 + |D| h", moment, "N·mm", "statics")
        if check == "gusset":
            crash, road = (float(self._bears_n_mm(road=on)) for on in (False, True))
            return (
                first,
                Step("gussets bear in a crash", "count × t l² / 4 × fy / 1.1", crash, "N·mm", "statics"),
                Step("on the road", "count × t l² / 6 × fy / 1.5", road, "N·mm", "statics"),
            )
        line = float(self._line(self.moment_n_mm(n, d), n, d))
        return (
            first,
            Step("force per length", "6 M / 2n l² + √(N² + D²) / 2n l", line, "N/mm", "line-weld method (statics)"),
            Step("throat a", "min(leg / √2, 0.7 t)", self._throat_mm, "mm", "common practice, no source"),
        )

    def _across_mm(self) -> tuple[float, ...]:
        """Where their middles are along the bend: one in the middle, two at the edges."""
        half = (self.shape.width_mm - self.spec.thickness_mm) / 2
        return (0.0,) if self.spec.count == 1 else (-half, half)

    def _ring(self) -> tuple[tuple[float, float], ...]:
        """Along leg A and up leg B from the inside corner."""
        snip = min(self._snip_mm, self._short_mm / 2)
        return (snip, 0.0), (self.spec.along_mm, 0.0), (0.0, self.spec.up_mm), (0.0, snip)

    def pieces(self, key: str, place: Placement) -> Iterator[MountPiece]:
        corner, half = -self.c_mm + self.shape.thickness_mm, self.spec.thickness_mm / 2
        for number, middle in enumerate(self._across_mm(), 1):
            points = [
                (corner + x, w, self.shape.thickness_mm + z)
                for w in (middle - half, middle + half)
                for x, z in self._ring()
            ]
            yield MountPiece("gusset", hull(points).moved(place), self._kg(), f"{key}-gusset-{number}")

    def _kg(self) -> float:
        (snip, _), *_ = self._ring()
        area = (self.spec.along_mm * self.spec.up_mm - snip**2) / 2
        return area * self.spec.thickness_mm * self.metal.density_kg_m3 * 1e-9

    def parts(self, key: str, name: str, material: str, frame: Placement) -> Iterator[FlatPart]:
        corner = -self.c_mm + self.shape.thickness_mm
        along, up = frame.direction((1.0, 0.0, 0.0)), frame.direction((0.0, 0.0, 1.0))
        out = cross(along, up)
        for number, middle in enumerate(self._across_mm(), 1):
            # the lower side of its sheet lies towards the first way along the bend
            at = frame.point((corner, middle + self.spec.thickness_mm / 2, self.shape.thickness_mm))
            stand = Placement(np.array([along, up, out]).T, at)
            yield FlatPart(
                f"{key}-gusset-{number}", f"{name} gusset {number}", 1, material, self.metal.name,
                self.spec.thickness_mm, self.metal.density_kg_m3, self._ring(), (), (),
                (f"Welded into the corner of the angle, both sides, leg {self.spec.weld_leg_mm:g}; "
                 f"{self.spec.along_mm:g} on leg A, {self.spec.up_mm:g} up leg B",),
                Stand((self.spec.along_mm / 3, self.spec.up_mm / 3), stand),
            )  # fmt: skip
