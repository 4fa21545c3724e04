"""A plate with two fillets beside it, on the wall or on a doubler that is welded to it all round."""

import math
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass

import numpy as np

from levelcradle.core.axes import Placement, cross
from levelcradle.core.connection.connection import ForceArray, Measure, MountPiece, Road
from levelcradle.core.connection.hold.plate import HeldPlate, Lies, Load, WallPatch
from levelcradle.core.design.mount import Doubler, Welded
from levelcradle.core.finding import Step
from levelcradle.core.part import FlatPart, Stand
from levelcradle.core.solids import Solid, block
from levelcradle.core.strength import (
    ROOT_MPA,
    ROOT_SOURCE,
    can_be_welded,
    ultimate_beside_weld,
    weld_mpa,
    weld_unknown,
    yield_beside_weld,
)

__all__ = ["WeldedPlate"]

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
        """hc = zs + l/2."""
        return self.weld.from_mm + self.weld.length_mm / 2

    @property
    def end_mm(self) -> float:
        return self.weld.from_mm + self.weld.length_mm

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
        return Lies("weld", self.width_mm / 2, self.weld.from_mm, self.end_mm)

    def patches(self) -> Iterator[tuple[str, WallPatch]]:
        """The wall under the bracket (with the doubler's help) and under the doubler (the wall alone)."""
        plate, alone = self.weld.doubler, self.wall_mm**2
        helped = alone + (plate.thickness_mm**2 if plate else 0.0)
        yield "wall", self.on_the_wall(self.width_mm, self.weld.length_mm, helped)
        if plate:
            yield "doubler patch", self.on_the_wall(plate.along_w_mm, plate.along_n_mm, alone)

    def weld_line(self, load: Load) -> ForceArray:
        """Largest force per length at the four ends of the two side fillets [N/mm]."""
        # shorter ones are foul by their shape; the use stays finite
        le = max(self.weld.length_mm - 2 * self.throat_mm, 1.0)
        group = _WeldGroup(2 * le, le**3 / 6, le * self.width_mm**2 / 2, self.width_mm / 2, le / 2)
        return group.most(load, self.moments(load))

    def doubler_weld_line(self, doubler: Doubler, load: Load) -> ForceArray:
        """Largest force per length at the corners of the weld all round the doubler [N/mm]; what presses on the wall
        helps nothing."""
        a, b, (n, d, w) = doubler.along_w_mm, doubler.along_n_mm, load
        group = _WeldGroup(2 * (a + b), b**3 / 6 + a * b**2 / 2, a**3 / 6 + b * a**2 / 2, a / 2, b / 2)
        c, up = self.c_mm + doubler.thickness_mm, doubler.from_contact_mm + b / 2
        return group.most(load, (up * w, -up * d - c * n, c * w))

    def utilisations(self, load: Load, *, road: Road) -> Mapping[str, Callable[[], ForceArray]]:
        checks: dict[str, Callable[[], ForceArray]] = {
            "weld": lambda: self.weld_line(load) / (self.throat_mm * self.weld_strength_mpa)
        }
        if doubler := self.weld.doubler:
            strength = self.doubler_throat_mm * weld_mpa((self.wall,))  # doubler and wall are of one metal
            checks["doubler weld"] = lambda: self.doubler_weld_line(doubler, load) / strength
        for name, patch in self.patches():
            checks[name] = lambda patch=patch: self.patch_utilisation(patch, load)  # type: ignore[misc]
        return checks

    def fatigue(self, load: Load) -> Iterator[tuple[str, ForceArray]]:
        """Twice its stress over what it bears two million times. The wall itself is not among them: what bends it there
        is only roughly known."""
        bears = ROOT_MPA[self.metal.weldable_with]
        yield "fatigue in the weld", 2 * self.weld_line(load) / self.throat_mm / bears
        if doubler := self.weld.doubler:
            line = self.doubler_weld_line(doubler, load)
            yield "fatigue in the doubler's weld", 2 * line / self.doubler_throat_mm / bears

    def asks(self) -> Iterator[tuple[str, bool]]:
        """Sources: EN 1993-1-8 4.5.1; the rest common practice, no source."""
        yield f"welds end at {self.end_mm:.1f}, the bracket at {self.long_mm:.1f}", self.end_mm <= self.long_mm
        least = max(30.0, 6 * self.throat_mm) + 2 * self.throat_mm
        yield f"weld length {self.weld.length_mm:.1f}, at least {least:.1f}", self.weld.length_mm >= least
        yield f"{self.metal.name} welded to {self.wall.name}", can_be_welded(self.metal, self.wall)
        yield from HeldPlate.asks(self)
        if plate := self.weld.doubler:
            near = self.weld.from_mm - plate.from_contact_mm
            far = plate.from_contact_mm + plate.along_n_mm - self.end_mm
            side = (plate.along_w_mm - self.width_mm) / 2
            yield f"doubler round the weld {min(near, far, side):.1f}, at least 10", min(near, far, side) >= 10

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
        if check in ("weld", "fatigue in the weld"):
            line, throat = float(self.weld_line(load)), self.throat_mm
            along = Step("force per length", "line weld, worst of four ends", line, "N/mm", "statics")
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
        weld = self.weld
        size = f"leg {weld.leg_mm:g}, {weld.length_mm:g} long"
        return f"Two fillet welds, {size}, from {weld.from_mm:g} off the contact plane"


@dataclass(frozen=True, slots=True)
class _WeldGroup:
    """Lines of weld about their middle: length, second moments about w and n [mm³], half extents along w and n."""

    length: float
    i_w: float
    i_n: float
    half_w: float
    half_n: float

    def most(self, load: Load, moments: Load) -> ForceArray:
        """Largest force per length at its four ends [N/mm], moments about (d, w, n). Source: line-weld method
        (statics)."""
        n, d, w = load
        t_d, t_w, t_n = moments[0] / (self.i_w + self.i_n), moments[1] / self.i_w, moments[2] / self.i_n
        shape = (4, *([1] * np.ndim(n)))
        pw = (np.array([-1.0, -1.0, 1.0, 1.0]) * self.half_w).reshape(shape)
        pn = (np.array([-1.0, 1.0, -1.0, 1.0]) * self.half_n).reshape(shape)
        q_d, q_w, q_n = d / self.length + t_w * pn - t_n * pw, w / self.length - t_d * pn, n / self.length + t_d * pw
        return np.asarray(np.sqrt((q_d * q_d + q_w * q_w + q_n * q_n).max(axis=0)))
