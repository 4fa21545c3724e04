"""A plate with two fillets beside it, on the wall or on a doubler that is welded to it all round; where asked for one
across its end, and plugs through it."""

import math
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass

import numpy as np

from levelcradle.core.axes import Placement, cross
from levelcradle.core.connection.connection import ForceArray, Measure, MountPiece, Road
from levelcradle.core.connection.hold.plate import HeldPlate, Lies, Load, WallPatch
from levelcradle.core.connection.hold.weld_group import WeldGroup, weld_group
from levelcradle.core.design.mount import Doubler, Welded
from levelcradle.core.finding import Step
from levelcradle.core.part import FlatPart, Stand
from levelcradle.core.solids import Solid, block, rod
from levelcradle.core.strength import (
    ROOT_MPA,
    ROOT_SOURCE,
    can_be_welded,
    ultimate_beside_weld,
    weld_mpa,
    weld_unknown,
    yield_beside_weld,
)

__all__ = ["WeldedPlate", "weld_words"]

THINNEST_MM, LEAST_THROAT_MM = 4.0, 3.0  # EN 1993-1-8 4.1 and 4.5.2, from memory
BEARS = {
    "steel": ("a fu / (√3 βw γM2)", "EN 1993-1-8 4.5.3.3"),
    "aluminium": ("a fw / (√3 γMw), of the weld metal", "EN 1999-1-1 8.6.3.3"),
}


@dataclass(frozen=True, slots=True)
class WeldedPlate(HeldPlate):
    """``wall_key``: id of what the wall is made of; its doubler is of the same."""

    weld: Welded
    wall_key: str

    @property
    def start_mm(self) -> float:
        return self.weld.from_mm

    @property
    def middle_mm(self) -> float:
        """hc = zs + l/2, of what is welded in all."""
        return (self.start_mm + self._far_mm) / 2

    @property
    def end_mm(self) -> float:
        return self.weld.from_mm + self.weld.length_mm

    @property
    def _far_mm(self) -> float:
        """Where its last weld lies."""
        return max(self.end_mm, self.long_mm) if self.weld.across_end else self.end_mm

    @property
    def yield_mpa(self) -> float:
        return yield_beside_weld(self.metal, self.thickness_mm)

    @property
    def ultimate_mpa(self) -> float:
        return ultimate_beside_weld(self.metal)

    @property
    def toe(self) -> bool:
        return True

    @property
    def throat_mm(self) -> float:
        """a = min(leg / √2, 0.7 × the thinner part); the doubler is that part where there is one."""
        part = self.weld.doubler.thickness_mm if self.weld.doubler else self.wall_mm
        return min(self.weld.leg_mm / math.sqrt(2), 0.7 * min(self.thickness_mm, part))

    @property
    def doubler_throat_mm(self) -> float:
        """Of the weld round the doubler; 0 where there is none."""
        plate = self.weld.doubler
        return min(plate.weld_leg_mm / math.sqrt(2), 0.7 * min(plate.thickness_mm, self.wall_mm)) if plate else 0.0

    @property
    def weld_strength_mpa(self) -> float:
        """Of the throat, of the weaker part."""
        return weld_mpa((self.metal, self.wall))

    @property
    def unchecked(self) -> str:
        if not can_be_welded(self.metal, self.wall):
            return f"{self.metal.name} cannot be welded to {self.wall.name}"
        return self.yields_unknown() or weld_unknown(self.metal) or weld_unknown(self.wall)

    @property
    def lies(self) -> Lies:
        if plate := self.weld.doubler:
            far = plate.from_contact_mm + plate.along_n_mm
            return Lies("doubler", plate.along_w_mm / 2, plate.from_contact_mm, far)
        return Lies("weld", self.width_mm / 2, self.weld.from_mm, self._far_mm)

    def patches(self) -> Iterator[tuple[str, WallPatch]]:
        """The wall under the bracket (with the doubler's help) and under the doubler (the wall alone)."""
        plate, alone = self.weld.doubler, self.wall_mm**2
        helped = alone + (plate.thickness_mm**2 if plate else 0.0)
        yield "wall", self.on_the_wall(self.width_mm, self._far_mm - self.start_mm, helped)
        if plate:
            yield "doubler patch", self.on_the_wall(plate.along_w_mm, plate.along_n_mm, alone)

    def weld_line(self, load: Load, *, plugs: bool = True) -> ForceArray:
        """Largest force per length at the ends of its fillets [N/mm], with the plugs' help or without."""
        return self._group(plugs=plugs).fillet(load, self.c_mm)

    def plug_force(self, load: Load) -> ForceArray:
        """Of the plug that is sheared most [N]."""
        return self._group().plug(load)

    def _group(self, *, plugs: bool = True) -> WeldGroup:
        """Each fillet is shorter by a throat at either end: EN 1993-1-8 4.5.1 (1)."""
        # shorter ones are foul by their shape; the use stays finite
        a, half, least = self.throat_mm, self.width_mm / 2, 0.5
        low, high = _shorter(self.start_mm, self.end_mm, a, least)
        lines = [((w, low), (w, high)) for w in (-half, half)] if self.beside_counts else []
        left, right = _shorter(-half, half, a, least)
        lines += [((left, n), (right, n)) for n in self._across_at()]
        at = tuple((0.0, n) for n in self._plugs_at()) if plugs else ()
        return weld_group(tuple(lines), at, self._plug_mm2 / a)

    def _across_at(self) -> Iterator[float]:
        """How far from the bolt it is welded across."""
        if self.weld.across_start:
            yield self.start_mm
        if self.weld.across_end:
            yield self.long_mm

    @property
    def least_weld_mm(self) -> float:
        """Of a fillet, with its ends. Source: EN 1993-1-8 4.5.1 (2)."""
        return max(30.0, 6 * self.throat_mm) + 2 * self.throat_mm

    @property
    def beside_counts(self) -> bool:
        """What is welded across both edges of a tube is so, whether or not that leaves length enough beside it."""
        return self.weld.length_mm >= self.least_weld_mm or not (self.weld.across_start and self.weld.across_end)

    def _plugs_at(self) -> Iterator[float]:
        """Up from the bolt along its middle."""
        count = self.weld.plugs.count if self.weld.plugs else 0
        yield from (self.start_mm + self.weld.length_mm * (i + 0.5) / count for i in range(count))

    @property
    def _plug_mm2(self) -> float:
        """Aw, of a plug: all of its hole (EN 1993-1-8 4.6, from memory)."""
        return math.pi * self.weld.plugs.hole_mm**2 / 4 if self.weld.plugs else 0.0

    def doubler_weld_line(self, doubler: Doubler, load: Load) -> ForceArray:
        """Largest force per length at the corners of the weld all round the doubler [N/mm]; what presses on the wall
        helps nothing."""
        half, low = doubler.along_w_mm / 2, doubler.from_contact_mm
        high = low + doubler.along_n_mm
        corners = ((-half, low), (half, low), (half, high), (-half, high))
        lines = tuple(zip(corners, (*corners[1:], corners[0]), strict=True))
        return weld_group(lines).fillet(load, self.c_mm + doubler.thickness_mm)

    def utilisations(self, load: Load, *, road: Road) -> Mapping[str, Callable[[], ForceArray]]:
        checks: dict[str, Callable[[], ForceArray]] = {
            "weld": lambda: self.weld_line(load) / (self.throat_mm * self.weld_strength_mpa)
        }
        if self.weld.plugs:
            checks["plugs"] = lambda: self.plug_force(load) / (self._plug_mm2 * self.weld_strength_mpa)
        if doubler := self.weld.doubler:
            strength = self.doubler_throat_mm * weld_mpa((self.wall,))  # doubler and wall are of one metal
            checks["doubler weld"] = lambda: self.doubler_weld_line(doubler, load) / strength
        for name, patch in self.patches():
            checks[name] = lambda patch=patch: self.patch_utilisation(patch, load)  # type: ignore[misc]
        return checks

    def fatigue(self, load: Load) -> Iterator[tuple[str, ForceArray]]:
        """Twice its stress over what it bears two million times. The wall itself is not among them: what bends it there
        is only roughly known. Plugs help nothing: what they bear so often nobody has told."""
        bears = ROOT_MPA[self.metal.weldable_with]
        yield "fatigue in the weld", 2 * self.weld_line(load, plugs=False) / self.throat_mm / bears
        if doubler := self.weld.doubler:
            line = self.doubler_weld_line(doubler, load)
            yield "fatigue in the doubler's weld", 2 * line / self.doubler_throat_mm / bears

    def asks(self) -> Iterator[tuple[str, bool]]:
        """Sources: EN 1993-1-8 4.5.1; the rest common practice, no source."""
        yield f"welds end at {self.end_mm:.1f}, the bracket at {self.long_mm:.1f}", self.end_mm <= self.long_mm
        least = self.least_weld_mm
        if self.beside_counts:
            yield f"weld length {self.weld.length_mm:.1f}, at least {least:.1f}", self.weld.length_mm >= least
        else:
            yield f"weld across it {self.width_mm:.1f}, at least {least:.1f}", self.width_mm >= least
        yield from self._plug_asks()
        yield f"{self.metal.name} welded to {self.wall.name}", can_be_welded(self.metal, self.wall)
        yield from HeldPlate.asks(self)
        if plate := self.weld.doubler:
            near = self.weld.from_mm - plate.from_contact_mm
            far = plate.from_contact_mm + plate.along_n_mm - self.end_mm
            side = (plate.along_w_mm - self.width_mm) / 2
            yield f"doubler round the weld {min(near, far, side):.1f}, at least 10", min(near, far, side) >= 10

    def _plug_asks(self) -> Iterator[tuple[str, bool]]:
        """Sources: EN 1993-1-8 4.3.5 (3), from memory: a hole 8 mm wider than the sheet is thick; between holes and
        beside the fillets as much as the sheet is thick, common practice, no source."""
        if self.weld.plugs is None:
            return
        hole, least = self.weld.plugs.hole_mm, self.thickness_mm + 8
        yield f"plug of {hole:g}, at least {least:g} in {self.thickness_mm:g} mm", hole >= least
        between = self.weld.length_mm / self.weld.plugs.count - hole
        beside = (self.width_mm - hole) / 2
        left = min(between, beside)
        yield f"{left:.1f} of sheet beside a plug, at least {2 * self.thickness_mm:g}", left >= 2 * self.thickness_mm

    def out_of_range(self) -> Iterator[str]:
        plate = self.weld.doubler
        sheets = [
            ("bracket", self.thickness_mm),
            ("wall", self.wall_mm),
            *([("doubler", plate.thickness_mm)] if plate else []),
        ]
        yield from (f"{name} {mm:g} mm, under {THINNEST_MM:g}" for name, mm in sheets if mm < THINNEST_MM)
        throats = [("weld", self.throat_mm), *([("doubler's weld", self.doubler_throat_mm)] if plate else [])]
        for name, mm in throats:
            if mm < LEAST_THROAT_MM:
                yield f"throat of the {name} {mm:.1f} mm, under {LEAST_THROAT_MM:g}"

    def steps(self, check: str, load: Load) -> tuple[Step, ...]:
        if check == "plugs":
            return self._plug_steps(load)
        if check in ("weld", "fatigue in the weld"):
            line, throat = float(self.weld_line(load, plugs=check == "weld")), self.throat_mm
            along = Step("force per length", "line weld, worst of the ends", line, "N/mm", "statics")
        elif check in ("doubler weld", "fatigue in the doubler's weld") and (doubler := self.weld.doubler):
            line, throat = float(self.doubler_weld_line(doubler, load)), self.doubler_throat_mm
            along = Step("force per length", "line weld all round, worst corner", line, "N/mm", "statics")
        else:
            return HeldPlate.steps(self, check, load)
        rows = (Step("throat a", "min(leg / √2, 0.7 t)", throat, "mm", "common practice, no source"), along)
        family = self.metal.weldable_with
        if check.startswith("fatigue"):
            stress = Step(
                "range of stress", "twice that over the throat", 2 * line / throat, "MPa", "elastic (statics)"
            )
            return (*rows, stress, Step("bears", "two million times", ROOT_MPA[family], "MPa", ROOT_SOURCE[family]))
        strength = throat * (weld_mpa((self.wall,)) if check == "doubler weld" else self.weld_strength_mpa)
        rule, source = BEARS[family]
        return (*rows, Step("capacity", rule, strength, "N/mm", source))

    def _plug_steps(self, load: Load) -> tuple[Step, ...]:
        rule, source = BEARS[self.metal.weldable_with]
        return (
            Step("force on the worst plug", "shared along the wall with the fillets", float(self.plug_force(load)),
                 "N", "statics"),
            Step("area Aw", "π d² / 4 of its hole", self._plug_mm2, "mm²", "EN 1993-1-8 4.6, from memory"),
            Step("capacity", rule.replace("a ", "Aw ", 1), self._plug_mm2 * self.weld_strength_mpa, "N", source),
        )  # fmt: skip

    def measures(self) -> tuple[Measure, ...]:
        c, plate = self.c_mm, self.weld.doubler
        rows = (Measure("weld", (-c, 0.0, self.start_mm), (-c, 0.0, self.end_mm)),)
        if plate is None:
            return rows
        low, wide = plate.from_contact_mm, plate.along_w_mm / 2
        return (
            *rows,
            Measure("doubler", (-c, -wide, low), (-c, wide, low), at_wall=True),
            Measure("doubler", (-c, -wide, low), (-c, -wide, low + plate.along_n_mm), at_wall=True),
        )

    def fillets(self) -> Iterator[Solid]:
        half, leg, c = self.width_mm / 2, self.weld.leg_mm, self.c_mm
        for low, high in ((-half - leg, -half), (half, half + leg)):
            yield block((-c, low, self.start_mm), (-c + leg, high, self.end_mm))
        if self.weld.across_end:
            yield block((-c, -half, self.long_mm), (-c + leg, half, self.long_mm + leg))
        if self.weld.across_start:
            yield block((-c - leg, -half, self.start_mm - leg), (-c, half, self.start_mm))
        if plugs := self.weld.plugs:
            for n in self._plugs_at():
                yield rod((-c, 0.0, n), (-c + self.thickness_mm, 0.0, n), plugs.hole_mm / 2)

    def holes(self) -> Iterator[tuple[float, float, float, str]]:
        if plugs := self.weld.plugs:
            yield from ((n, 0.0, plugs.hole_mm, "plug weld") for n in self._plugs_at())

    def pieces(self, key: str, place: Placement) -> Iterator[MountPiece]:
        plate, c = self.weld.doubler, self.c_mm
        if plate:
            low = (-c - plate.thickness_mm, -plate.along_w_mm / 2, plate.from_contact_mm)
            high = (-c, plate.along_w_mm / 2, plate.from_contact_mm + plate.along_n_mm)
            mass = plate.thickness_mm * plate.along_w_mm * plate.along_n_mm * self.wall.density_kg_m3 * 1e-9
            yield MountPiece("doubler", block(low, high).moved(place), mass, f"{key}-doubler", on_wall=True)

    def parts(self, key: str, name: str, box_name: str, frame: Placement) -> Iterator[FlatPart]:
        plate = self.weld.doubler
        if plate is None:
            return
        w, n = plate.along_w_mm, plate.along_n_mm
        corner = frame.point((-self.c_mm - plate.thickness_mm, -w / 2, plate.from_contact_mm))
        across, along = frame.direction((0.0, 1.0, 0.0)), frame.direction((0.0, 0.0, 1.0))
        stand = Placement(np.array([across, along, cross(across, along)]).T, corner)
        yield FlatPart(
            f"{key}-doubler",
            f"{name} doubler",
            1,
            self.wall_key,
            self.wall.name,
            plate.thickness_mm,
            self.wall.density_kg_m3,
            ((0.0, 0.0), (w, 0.0), (w, n), (0.0, n)),
            (),
            (),
            (f"Welded all round to {box_name}; {w:g} along the bend line, {n:g} along the bolt",),
            Stand((w / 2, n / 2), stand),
        )

    def note(self, box_name: str) -> str:
        words = weld_words(self.weld)
        return words[0].upper() + words[1:]


def weld_words(weld: Welded) -> str:
    """What is welded beside a bracket and through it, for who welds it."""
    words = (
        f"two fillet welds, leg {weld.leg_mm:g}, {weld.length_mm:g} long, from {weld.from_mm:g} off the contact plane"
    )
    across = ", one across its end" if weld.across_end else ""
    across += ", one where it comes over the tube's edge" if weld.across_start else ""
    plugs = f", {weld.plugs.count} plugs through holes of {weld.plugs.hole_mm:g}" if weld.plugs else ""
    return words + across + plugs


def _shorter(low: float, high: float, a_mm: float, least_mm: float) -> tuple[float, float]:
    """A stretch that ends a throat before either end, about its middle never shorter than so much."""
    middle, half = (low + high) / 2, max((high - low) / 2 - a_mm, least_mm)
    return middle - half, middle + half
