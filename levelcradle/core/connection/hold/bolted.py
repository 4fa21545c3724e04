"""A plate that is bolted through the wall, in rows, with or without a plate behind the wall that spreads the load.

     │   wall │ plate
nut ═╪════════╪═ head      rows so far apart along n, so many bolts in each across w
     │behind  │
"""

import math
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass

import numpy as np

from levelcradle.core.axes import Placement, Vec, cross
from levelcradle.core.connection.connection import ForceArray, Measure, MountPiece, Road
from levelcradle.core.connection.hold.plate import HeldPlate, Lies, Load, WallPatch
from levelcradle.core.connection.pieces import STEEL_KG_MM3
from levelcradle.core.design.mount import Bolted
from levelcradle.core.design.refused import STRONGEST_MPA
from levelcradle.core.design.tables import BoltClass, BoltSize, Material
from levelcradle.core.finding import Step
from levelcradle.core.part import FlatPart, Hole, Stand
from levelcradle.core.solids import block, rod
from levelcradle.core.strength import (
    BEYOND_PITCHES,
    EDGE_HOLES,
    NUT_OF_D,
    bearing_n,
    bolt_capacity,
    bolt_group,
    bolt_long_mm,
    bolt_utilisation,
    class_asks,
    long_words,
    preload,
    pull_through_n,
)

__all__ = ["BoltedPlate"]

APART_HOLES = (2.2, 2.4)  # along the plate and across it, in holes, at least: EN 1993-1-8 table 3.3, from memory
SOCKET_MM = 2.0  # washers side by side, so that a socket goes on: common practice, no source


@dataclass(frozen=True, slots=True)
class BoltedPlate(HeldPlate):
    """``spread``: what the plate behind the wall is made of, where there is one."""

    hold: Bolted
    bolt: BoltSize
    grade: BoltClass
    spread: Material | None

    @property
    def places_mm(self) -> list[tuple[float, float]]:
        """(across, along) of each bolt from the middle of them."""
        hold = self.hold
        across = [(i - (hold.across - 1) / 2) * hold.apart_mm for i in range(hold.across)]
        along = [(i - (hold.rows - 1) / 2) * hold.pitch_mm for i in range(hold.rows)]
        return [(w, n) for n in along for w in across]

    @property
    def span_mm(self) -> tuple[float, float]:
        """From the first to the last bolt, across and along."""
        return (self.hold.across - 1) * self.hold.apart_mm, (self.hold.rows - 1) * self.hold.pitch_mm

    @property
    def start_mm(self) -> float:
        return self.hold.from_mm

    @property
    def middle_mm(self) -> float:
        return self.hold.from_mm + self.span_mm[1] / 2

    @property
    def yield_mpa(self) -> float:
        return self.metal.yield_mpa_at(self.thickness_mm) or self.metal.yield_mpa

    @property
    def ultimate_mpa(self) -> float:
        return self.metal.ultimate_mpa

    @property
    def bolted_by(self) -> BoltSize:
        return self.bolt

    @property
    def left(self) -> float:
        """None left is foul by its shape; the use stays finite."""
        return max(1.0 - self.hold.across * self.bolt.clearance_hole_mm / self.width_mm, 0.01)

    @property
    def unchecked(self) -> str:
        if self.grade.ultimate_mpa > STRONGEST_MPA:
            return f"property class {self.hold.bolt.property_class}: classes above 10.9 are not used here"
        return self.yields_unknown()

    @property
    def lies(self) -> Lies:
        behind = self.hold.behind
        across, along = behind.size_mm if behind else self.outline_mm
        return Lies(
            "plate behind it" if behind else "row of bolts",
            across / 2,
            self.middle_mm - along / 2,
            self.middle_mm + along / 2,
        )

    @property
    def outline_mm(self) -> tuple[float, float]:
        """Round the washers, across and along."""
        across, along = self.span_mm
        return across + self.bolt.washer_mm, along + self.bolt.washer_mm

    def patches(self) -> Iterator[tuple[str, WallPatch]]:
        """The wall under the bolts (with the help of the plate behind it) and under that plate (the wall alone)."""
        behind, alone = self.hold.behind, self.wall_mm**2
        helped = alone + (behind.thickness_mm**2 if behind else 0.0)
        yield "wall", self.on_the_wall(*self.outline_mm, helped)
        if behind:
            yield "wall round the plate behind it", self.on_the_wall(*behind.size_mm, alone)

    def each(self, load: Load) -> tuple[ForceArray, ForceArray]:
        """(pull, shear) of each bolt [N], bolts first."""
        (n, d, w), (m_d, m_w, m_n) = load, self.moments(load)
        pull, shear_w, shear_n = bolt_group(self.places_mm, (-np.asarray(d), w, n), (m_d, -m_w, -m_n))
        return np.maximum(pull, 0.0), np.hypot(shear_w, shear_n)

    @property
    def preload_n(self) -> float:
        """Aluminium under a washer is pressed no further than it yields."""
        under = [(self.metal, self.yield_mpa), (self.wall, self.wall.yield_mpa)]
        under = under[:1] if self.hold.behind else under
        soft = min((mpa for metal, mpa in under if metal.weldable_with == "aluminium"), default=math.inf)
        return preload(self.bolt, self.grade, soft)

    def bearing_n(self) -> tuple[float, float]:
        """What one bolt bears on in the plate and in the wall [N]. Sources: EN 1993-1-8 table 3.4, EN 1999-1-1 table
        8.5, which is alike; edges and distances are those that are nearest, whichever way it is pushed."""
        pitch = min(self.hold.pitch_mm, self.hold.apart_mm)
        edge = max(min(self.edges_mm), 0.1)  # one so near is foul by its shape; the use stays finite
        bolt_mpa = self.grade.ultimate_mpa
        return (
            bearing_n(self.bolt, bolt_mpa, self.ultimate_mpa, self.thickness_mm, (edge, edge), pitch_mm=pitch),
            bearing_n(self.bolt, bolt_mpa, self.wall.ultimate_mpa, self.wall_mm, pitch_mm=pitch),
        )

    def through_n(self) -> float:
        """What draws a head through the plate, or a nut through what is under it, the plate behind the wall or the wall
        itself [N]."""
        behind, across = self.hold.behind, self.bolt.across_flats_mm
        under = (self.wall.ultimate_mpa, self.wall_mm)
        if behind and self.spread:
            under = (self.spread.ultimate_mpa, behind.thickness_mm)
        return min(pull_through_n(across, self.ultimate_mpa, self.thickness_mm), pull_through_n(across, *under))

    @property
    def edges_mm(self) -> tuple[float, float]:
        """From the last row to the end of the plate, and from the outer bolts to its sides."""
        across, along = self.span_mm
        return self.long_mm - self.hold.from_mm - along, (self.width_mm - across) / 2

    def utilisations(self, load: Load, *, road: Road) -> Mapping[str, Callable[[], ForceArray]]:
        pull, shear = self.each(load)
        used = {
            "bolts on the box": lambda: bolt_utilisation(
                pull, shear, self.bolt, self.grade, self.preload_n, road=road
            ).max(axis=0),
            "bearing at the box": lambda: (shear / min(self.bearing_n())).max(axis=0),
            "pulled through the wall": lambda: (pull / self.through_n()).max(axis=0),
        }
        patches = {name: lambda patch=patch: self.patch_utilisation(patch, load) for name, patch in self.patches()}
        return {**used, **patches}

    def asks(self) -> Iterator[tuple[str, bool]]:
        """Sources: distances EN 1993-1-8 table 3.3; room for the socket common practice, no source."""
        hold, hole = self.hold, self.bolt.clearance_hole_mm
        yield from class_asks((hold.bolt.size, hold.bolt.property_class), self.bolt, self.grade)
        for words, mm in zip(("end", "side"), self.edges_mm, strict=True):
            least = EDGE_HOLES * hole
            yield f"bolts on the box to the bracket's {words} {mm:.1f}, at least {least:.1f}", mm >= least
        for words, mm, of in (
            ("rows", hold.pitch_mm, APART_HOLES[0]),
            ("bolts of a row", hold.apart_mm, APART_HOLES[1]),
        ):
            least = max(of * hole, self.bolt.washer_mm + SOCKET_MM)
            yield f"{words} on the box {mm:.1f} apart, at least {least:.1f}", mm >= least
        if behind := hold.behind:
            least = EDGE_HOLES * hole
            rim = min(size - span for size, span in zip(behind.size_mm, self.span_mm, strict=True)) / 2
            yield f"bolts to the edge of the plate behind the wall {rim:.1f}, at least {least:.1f}", rim >= least
        yield from HeldPlate.asks(self)

    def steps(self, check: str, load: Load) -> tuple[Step, ...]:
        pull, shear = self.each(load)
        group, drawn, pushed = "bolt group (statics)", float(pull.max()), float(shear.max())
        rows = (
            Step("pull of the hardest drawn", "D / m and moments over Σ r², about the middle", drawn, "N", group),
            Step("shear of the hardest pushed", "W, N / m and torsion over Σ r²", pushed, "N", group),
        )
        ft, fv = bolt_capacity(self.bolt, self.grade)
        rules = {
            "bolts on the box": (
                Step("Ft,Rd", "0.9 fub As / γM2", ft, "N", "EN 1993-1-8 table 3.4"),
                Step("Fv,Rd", "αv fub As / γM2", fv, "N", "EN 1993-1-8 table 3.4"),
            ),
            "bearing at the box": (
                Step("Fb,Rd", "k1 αb fu d t / γM2", min(self.bearing_n()), "N", "EN 1993-1-8 table 3.4"),
            ),
            "pulled through the wall": (
                Step("Bp,Rd", "0.6 π dm t fu / γM2", self.through_n(), "N", "EN 1993-1-8 table 3.4"),
            ),
        }
        return (*rows, *rules[check]) if check in rules else HeldPlate.steps(self, check, load)

    def measures(self) -> tuple[Measure, ...]:
        c, (across, along), start = self.c_mm, self.span_mm, self.start_mm
        last = start + along
        return (
            Measure("to the first row", (-c, 0.0, 0.0), (-c, 0.0, start)),
            Measure("rows", (-c, -across / 2, start), (-c, -across / 2, last), at_wall=True),
            Measure("bolts of a row", (-c, -across / 2, last), (-c, across / 2, last), at_wall=True),
        )

    @property
    def clamped_mm(self) -> float:
        behind = self.hold.behind
        return self.thickness_mm + self.wall_mm + (behind.thickness_mm if behind else 0.0)

    def _beyond_mm(self) -> float:
        """What stands out behind: washer, nut, and the threads beyond it."""
        return self.bolt.washer_thick_mm + NUT_OF_D * self.bolt.d_mm + BEYOND_PITCHES * self.bolt.pitch_mm

    def pieces(self, key: str, place: Placement) -> Iterator[MountPiece]:
        """Heads on the plate, the plate behind the wall and the nuts on it."""
        bolt, c, inside = self.bolt, self.c_mm, -self.c_mm - self.wall_mm
        behind, spread = self.hold.behind, self.spread
        if behind and spread:
            (wide, long), t = behind.size_mm, behind.thickness_mm
            low = (inside - t, -wide / 2, self.lies.near_mm)
            solid = block(low, (inside, wide / 2, self.lies.far_mm)).moved(place)
            mass = wide * long * t * spread.density_kg_m3 * 1e-9
            yield MountPiece("plate behind the wall", solid, mass, f"{key}-behind", inside=True)
            inside -= t
        head, face = bolt.washer_thick_mm + bolt.head_mm, -c + self.thickness_mm
        each_kg = self._each_kg() / 2
        for w, n in self.places_mm:
            at = self.middle_mm + n
            yield _rod("bolt head on the bracket", place, (face, w, at), head, bolt, each_kg, inside=False)
            yield _rod("nut behind the wall", place, (inside, w, at), -self._beyond_mm(), bolt, each_kg, inside=True)

    def _each_kg(self) -> float:
        """A bolt of the holes it fills, head, nut and two washers; the holes themselves are not taken off."""
        bolt = self.bolt
        hexagon = math.sqrt(3) / 2 * bolt.across_flats_mm**2 * (bolt.head_mm + NUT_OF_D * bolt.d_mm)
        washer = math.pi / 4 * (bolt.washer_mm**2 - bolt.washer_hole_mm**2) * bolt.washer_thick_mm
        return (hexagon + 2 * washer) * STEEL_KG_MM3

    def holes(self) -> Iterator[tuple[float, float, float, str]]:
        for w, n in self.places_mm:
            yield self.middle_mm + n, w, self.bolt.clearance_hole_mm, self.hold.bolt.size

    def parts(self, key: str, name: str, box_name: str, frame: Placement) -> Iterator[FlatPart]:
        behind, spread = self.hold.behind, self.spread
        if behind is None or spread is None or any(not fits for words, fits in self.asks() if "edge" in words):
            return
        wide, long = behind.size_mm
        across, along = frame.direction((0.0, 1.0, 0.0)), frame.direction((0.0, 0.0, 1.0))
        corner = frame.point((-self.c_mm - self.wall_mm - behind.thickness_mm, -wide / 2, self.lies.near_mm))
        stand = Placement(np.array([across, along, cross(across, along)]).T, corner)
        hole_mm, size = self.bolt.clearance_hole_mm, self.hold.bolt.size
        holes = tuple(Hole((wide / 2 + w, long / 2 + n), hole_mm, size) for w, n in self.places_mm)
        yield FlatPart(
            f"{key}-behind",
            f"{name} plate behind the wall",
            1,
            behind.material,
            spread.name,
            behind.thickness_mm,
            spread.density_kg_m3,
            ((0.0, 0.0), (wide, 0.0), (wide, long), (0.0, long)),
            holes,
            (),
            (f"Inside {box_name}, under the nuts; drilled together with the bracket",),
            Stand((wide / 2, long / 2), stand),
        )

    def note(self, box_name: str) -> str:
        hold, count = self.hold, len(self.places_mm)
        return (
            f"Bolted to {box_name} by {count} {hold.bolt.size} {hold.bolt.property_class}, the first row "
            f"{hold.from_mm:g} off the contact plane; the wall is drilled {self.bolt.clearance_hole_mm:g} through "
            "these holes, in place"
        )

    def bought(self) -> Iterator[str]:
        clamped, hold = self.clamped_mm + 2 * self.bolt.washer_thick_mm, self.hold
        long = bolt_long_mm(self.bolt, clamped)
        words = f"{hold.bolt.size} bolt, class {hold.bolt.property_class}"
        end = "with locking nut and washers, through a box's wall: a sealing washer where it is sealed"
        for _ in self.places_mm:
            yield (
                f"{words}, {long_words(self.bolt, long)} long, {end}"
                if long
                else f"{words}, threaded rod for {clamped:.0f}, {end}"
            )


def _rod(
    name: str, place: Placement, at: Vec, long_mm: float, bolt: BoltSize, mass_kg: float, *, inside: bool
) -> MountPiece:
    """Along d from a place."""
    ends = place.points(np.array([at, (at[0] + long_mm, at[1], at[2])]))
    return MountPiece(name, rod(tuple(ends[0]), tuple(ends[1]), bolt.washer_mm / 2), mass_kg, inside=inside)
