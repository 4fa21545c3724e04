"""The plate of a bracket on a box's wall: two fillets beside it, on the wall or on a doubler that is welded to it all
round. Shared by every kind of mount that is welded to a box.

        bolt                             n  from the bolt along the plate to its welds
─────────┼──────┬───────────── plate     d  outward from the wall
    c    │ from │ weld
─────────┴──────┴─────────────           w  = n × d, across the plate
"""

import math
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass

import numpy as np

from levelcradle.core.connection.connection import ForceArray
from levelcradle.core.design.mount import Doubler, Welded
from levelcradle.core.design.tables import Material
from levelcradle.core.finding import Step
from levelcradle.core.strength import (
    GAMMA_M0,
    ROOT_MPA,
    ROOT_SOURCE,
    can_be_welded,
    weld_mpa,
    weld_unknown,
    yield_beside_weld,
)

__all__ = [
    "WallPatch",
    "WeldedPlate",
    "doubler_weld_line",
    "patch_capacity",
    "weld_asks",
    "weld_fatigue",
    "weld_line",
    "weld_moments",
    "weld_out_of_range",
    "weld_steps",
    "weld_utilisations",
]


@dataclass(frozen=True, slots=True)
class WeldedPlate:
    """What the checks below need, in millimetres and MPa.

    ``c_mm``: from the face that it is welded to, to where the bolt's force passes, along d. ``upright``: its n goes up
    or down the wall, else along it."""

    weld: Welded
    width_mm: float
    t: float
    metal: Material
    wall: Material
    wall_mm: float
    wall_height_mm: float
    c_mm: float
    upright: bool = True

    @property
    def throat_mm(self) -> float:
        """a = min(leg / √2, 0.7 × the thinner part); the doubler is that part where there is one."""
        part = self.weld.doubler.thickness_mm if self.weld.doubler else self.wall_mm
        return min(self.weld.leg_mm / math.sqrt(2), 0.7 * min(self.t, part))

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
    def cannot_be_checked(self) -> str:
        """Why no strength of it is given, in words; empty where the rules below hold for its metals."""
        if not can_be_welded(self.metal, self.wall):
            return f"{self.metal.name} cannot be welded to {self.wall.name}"
        for part, thickness in ((self.metal, self.t), (self.wall, self.wall_mm)):
            if part.yield_mpa_at(thickness) is None:
                return f"{part.name}: its yield over 16 mm thick is not in the table"
            if words := weld_unknown(part):
                return words
        return ""

    def patches(self) -> Iterator[tuple[str, "WallPatch"]]:
        """The wall under the bracket (with the doubler's help) and under the doubler (the wall alone)."""
        plate, alone = self.weld.doubler, self.wall_mm**2
        helped = alone + (plate.thickness_mm**2 if plate else 0.0)
        yield "wall", self._patch(self.width_mm, self.weld.length_mm, helped)
        if plate:
            yield "doubler patch", self._patch(plate.along_w_mm, plate.along_n_mm, alone)

    def _patch(self, along_w: float, along_n: float, t2: float) -> "WallPatch":
        return WallPatch(along_w, along_n, t2) if self.upright else WallPatch(along_n, along_w, t2)


@dataclass(frozen=True, slots=True)
class WallPatch:
    """A patch of wall that is pulled and twisted: how wide along the wall, how high up it, and the sheet's effective
    thickness squared."""

    width_mm: float
    height_mm: float
    t2_mm2: float


def weld_moments(
    plate: WeldedPlate, n: ForceArray, d: ForceArray, w: ForceArray
) -> tuple[ForceArray, ForceArray, ForceArray]:
    """Moment at the weld's centre in (d, w, n): (c, 0, −hc) × (D, W, N), hc = zs + l/2 [N·mm]."""
    c, hc = plate.c_mm, plate.weld.from_mm + plate.weld.length_mm / 2
    return hc * w, -hc * d - c * n, c * w


@dataclass(frozen=True, slots=True)
class _WeldGroup:
    """Lines of weld about their middle: length, second moments about w and n [mm³], half extents along w and n."""

    length: float
    i_w: float
    i_n: float
    half_w: float
    half_n: float

    def most(
        self, forces: tuple[ForceArray, ForceArray, ForceArray], moments: tuple[ForceArray, ForceArray, ForceArray]
    ) -> ForceArray:
        """Largest force per length at its four ends [N/mm], forces and moments in (d, w, n). Source: line-weld method
        (statics)."""
        d, w, n = forces
        t_d, t_w, t_n = moments[0] / (self.i_w + self.i_n), moments[1] / self.i_w, moments[2] / self.i_n
        shape = (4, *([1] * np.ndim(n)))
        pw = (np.array([-1.0, -1.0, 1.0, 1.0]) * self.half_w).reshape(shape)
        pn = (np.array([-1.0, 1.0, -1.0, 1.0]) * self.half_n).reshape(shape)
        q_d, q_w, q_n = d / self.length + t_w * pn - t_n * pw, w / self.length - t_d * pn, n / self.length + t_d * pw
        return np.asarray(np.sqrt((q_d * q_d + q_w * q_w + q_n * q_n).max(axis=0)))


def weld_line(plate: WeldedPlate, n: ForceArray, d: ForceArray, w: ForceArray) -> ForceArray:
    """Largest force per length at the four ends of the two side fillets [N/mm]."""
    # shorter ones are foul by their shape; the use stays finite
    le = max(plate.weld.length_mm - 2 * plate.throat_mm, 1.0)
    group = _WeldGroup(2 * le, le**3 / 6, le * plate.width_mm**2 / 2, plate.width_mm / 2, le / 2)
    return group.most((d, w, n), weld_moments(plate, n, d, w))


def doubler_weld_line(plate: WeldedPlate, doubler: Doubler, n: ForceArray, d: ForceArray, w: ForceArray) -> ForceArray:
    """Largest force per length at the corners of the weld all round the doubler [N/mm]; what presses on the wall helps
    nothing."""
    a, b = doubler.along_w_mm, doubler.along_n_mm
    group = _WeldGroup(2 * (a + b), b**3 / 6 + a * b**2 / 2, a**3 / 6 + b * a**2 / 2, a / 2, b / 2)
    c, up = plate.c_mm + doubler.thickness_mm, doubler.from_contact_mm + b / 2
    return group.most((d, w, n), (up * w, -up * d - c * n, c * w))


def patch_capacity(plate: WeldedPlate, patch: WallPatch) -> tuple[float, float, float]:
    """(N0 [N], Mn0, Mw0 [N·mm]) of a patch of wall by yield lines, as for the face of a hollow section: pulled, turned
    about the way up the wall, and about the way along it.

    β = height / wall height (its rim held by the lid), η = width / wall height. Valid for: β up to 0.85 (geometry
    says so where it is not; the formulas are then taken at 0.85). Source: yield lines, from memory; rough.
    """
    b0, fy = plate.wall_height_mm, yield_beside_weld(plate.wall, plate.wall_mm)
    beta, eta, width, height = min(patch.height_mm / b0, 0.85), patch.width_mm / b0, patch.width_mm, patch.height_mm
    free = 1 - beta
    strength = fy * patch.t2_mm2 / GAMMA_M0
    pull = strength * (2 * eta + 4 * math.sqrt(free)) / free
    about_n = strength * width * (1 / (2 * eta) + 2 / math.sqrt(free) + eta / free)
    about_w = strength * (width * (1 + beta) / (2 * free) + math.sqrt(2 * b0 * height * (1 + beta) / free))
    return pull, about_n, about_w


def patch_utilisation(plate: WeldedPlate, patch: WallPatch, n: ForceArray, d: ForceArray, w: ForceArray) -> ForceArray:
    """u = |D| / N0 + |Mn| / Mn0 + |Mw| / Mw0, with the moments at the weld's centre."""
    pull, about_up, about_along = patch_capacity(plate, patch)
    _, m_w, m_n = weld_moments(plate, n, d, w)
    m_up, m_along = (m_n, m_w) if plate.upright else (m_w, m_n)
    return np.abs(d) / pull + np.abs(m_up) / about_up + np.abs(m_along) / about_along


def weld_utilisations(
    plate: WeldedPlate, n: ForceArray, d: ForceArray, w: ForceArray
) -> Mapping[str, Callable[[], ForceArray]]:
    """Each check of the welds and the wall behind them, to be worked out where it is asked for."""
    checks: dict[str, Callable[[], ForceArray]] = {
        "weld": lambda: weld_line(plate, n, d, w) / (plate.throat_mm * plate.weld_strength_mpa)
    }
    if doubler := plate.weld.doubler:
        strength = plate.doubler_throat_mm * weld_mpa((plate.wall,))  # doubler and wall are of one metal
        checks["doubler weld"] = lambda: doubler_weld_line(plate, doubler, n, d, w) / strength
    for name, patch in plate.patches():
        checks[name] = lambda patch=patch: patch_utilisation(plate, patch, n, d, w)  # type: ignore[misc]
    return checks


def weld_fatigue(
    plate: WeldedPlate, n: ForceArray, d: ForceArray, w: ForceArray
) -> Iterator[tuple[str, ForceArray]]:
    """Of each weld the use under a load that comes to either side: twice its stress over what it bears two million
    times. The wall itself is not among them: what bends it there is only roughly known."""
    bears = ROOT_MPA[plate.metal.weldable_with]
    yield "fatigue in the weld", 2 * weld_line(plate, n, d, w) / plate.throat_mm / bears
    if doubler := plate.weld.doubler:
        line = doubler_weld_line(plate, doubler, n, d, w)
        yield "fatigue in the doubler's weld", 2 * line / plate.doubler_throat_mm / bears


def weld_asks(plate: WeldedPlate) -> Iterator[tuple[str, bool]]:
    """What welds, doubler and patch must keep, each with whether they do. Sources: EN 1993-1-8 4.5.1; the rest common
    practice, no source."""
    least = max(30.0, 6 * plate.throat_mm) + 2 * plate.throat_mm
    yield f"weld length {plate.weld.length_mm:.1f}, at least {least:.1f}", plate.weld.length_mm >= least
    yield f"{plate.metal.name} welded to {plate.wall.name}", can_be_welded(plate.metal, plate.wall)
    for name, patch in plate.patches():
        share = patch.height_mm / plate.wall_height_mm
        yield f"{name} {share:.2f} of the wall's height, at most 0.85", share <= 0.85
    if doubler := plate.weld.doubler:
        near = plate.weld.from_mm - doubler.from_contact_mm
        far = doubler.from_contact_mm + doubler.along_n_mm - plate.weld.from_mm - plate.weld.length_mm
        side = (doubler.along_w_mm - plate.width_mm) / 2
        yield f"doubler round the weld {min(near, far, side):.1f}, at least 10", min(near, far, side) >= 10


THINNEST_MM, LEAST_THROAT_MM = 4.0, 3.0  # EN 1993-1-8 4.1 and 4.5.2, from memory


def weld_out_of_range(plate: WeldedPlate) -> Iterator[str]:
    """What lies outside the range the standard's weld rules are written for: said, no reason to fail."""
    doubler = plate.weld.doubler
    sheets = [("bracket", plate.t), ("wall", plate.wall_mm), *([("doubler", doubler.thickness_mm)] if doubler else [])]
    yield from (f"{name} {mm:g} mm, under {THINNEST_MM:g}" for name, mm in sheets if mm < THINNEST_MM)
    throats = [("weld", plate.throat_mm), *([("doubler's weld", plate.doubler_throat_mm)] if doubler else [])]
    yield from (
        f"throat of the {name} {mm:.1f} mm, under {LEAST_THROAT_MM:g}" for name, mm in throats if mm < LEAST_THROAT_MM
    )


_BEARS = {
    "steel": ("a fu / (√3 βw γM2)", "EN 1993-1-8 4.5.3.3"),
    "aluminium": ("a fw / (√3 γMw), of the weld metal", "EN 1999-1-1 8.6.3.3"),
}


def weld_steps(plate: WeldedPlate, check: str, load: tuple[ForceArray, ForceArray, ForceArray]) -> tuple[Step, ...]:
    """The working of one check of the welds or the wall; none where it is no check of theirs."""
    patch = dict(plate.patches()).get(check)
    if check in ("weld", "fatigue in the weld"):
        line, throat = float(weld_line(plate, *load)), plate.throat_mm
        along = Step("force per length", "line weld, worst of four ends", line, "N/mm", "statics")
    elif check in ("doubler weld", "fatigue in the doubler's weld") and (doubler := plate.weld.doubler):
        line, throat = float(doubler_weld_line(plate, doubler, *load)), plate.doubler_throat_mm
        along = Step("force per length", "line weld all round, worst corner", line, "N/mm", "statics")
    else:
        return _patch_steps(plate, patch, load) if patch else ()
    rows = (Step("throat a", "min(leg / √2, 0.7 t)", throat, "mm", "common practice, no source"), along)
    family = plate.metal.weldable_with
    if check.startswith("fatigue"):
        stress = Step("range of stress", "twice that over the throat", 2 * line / throat, "MPa", "elastic (statics)")
        return (*rows, stress, Step("bears", "two million times", ROOT_MPA[family], "MPa", ROOT_SOURCE[family]))
    strength = throat * (weld_mpa((plate.wall,)) if check == "doubler weld" else plate.weld_strength_mpa)
    rule, source = _BEARS[family]
    return (*rows, Step("capacity", rule, strength, "N/mm", source))


def _patch_steps(
    plate: WeldedPlate, patch: WallPatch, load: tuple[ForceArray, ForceArray, ForceArray]
) -> tuple[Step, ...]:
    rough = "hollow-section face, from memory; rough"
    _, m_w, m_n = (float(m) for m in weld_moments(plate, *load))
    pull, about_up, about_along = patch_capacity(plate, patch)
    return (
        Step("moment about n", "c W", m_n, "N·mm", "statics"),
        Step("moment about w", "−hc D − c N", m_w, "N·mm", "statics"),
        Step("N0", "yield lines", pull, "N", rough),
        Step("Mn0" if plate.upright else "Mw0", "yield lines", about_up, "N·mm", rough),
        Step("Mw0" if plate.upright else "Mn0", "yield lines", about_along, "N·mm", rough),
    )
