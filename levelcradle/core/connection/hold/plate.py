"""The plate of a bracket on a box's wall, and the patch of wall behind it, however it is held there.

        bolt                             n  from the bolt along the plate to where it is held
─────────┼──────┬───────────── plate     d  outward from the wall
    c    │ start│ held
─────────┴──────┴─────────────           w  = n × d, across the plate
"""

import math
from abc import ABC, abstractmethod
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass

import numpy as np

from levelcradle.core.axes import Placement
from levelcradle.core.box import Wall
from levelcradle.core.connection.connection import ForceArray, Measure, MountPiece, Road, Seat
from levelcradle.core.design.tables import BoltSize, Material
from levelcradle.core.finding import Step
from levelcradle.core.part import FlatPart
from levelcradle.core.solids import Solid
from levelcradle.core.strength import GAMMA_M0, yield_beside_weld

__all__ = ["HeldPlate", "Lies", "Load", "WallPatch"]

Load = tuple[ForceArray, ForceArray, ForceArray]
"""(N along the plate, D away from the wall, W across it): what the box throws on the plate [N]."""


@dataclass(frozen=True, slots=True)
class WallPatch:
    """A patch of wall that is pulled and twisted: how wide along the wall, how high up it, and the sheet's effective
    thickness squared."""

    width_mm: float
    height_mm: float
    t2_mm2: float


@dataclass(frozen=True, slots=True)
class Lies:
    """What lies flat on the wall: half of it across, and from where to where off the bolt along the plate."""

    what: str
    half_mm: float
    near_mm: float
    far_mm: float


@dataclass(frozen=True, slots=True)
class HeldPlate(ABC):
    """In millimetres and MPa; each way of holding is a class of this form.

    ``long_mm``: from the bolt along the plate to its end. ``c_mm``: from the face that it lies on, to where the bolt's
    force passes, along d. ``upright``: its n goes up or down the wall, else along it."""

    width_mm: float
    long_mm: float
    thickness_mm: float
    metal: Material
    wall: Material
    wall_mm: float
    wall_height_mm: float
    c_mm: float
    upright: bool

    @property
    @abstractmethod
    def start_mm(self) -> float:
        """From the bolt along the plate to where it is first held."""

    @property
    @abstractmethod
    def middle_mm(self) -> float:
        """And to the middle of what holds it."""

    @property
    @abstractmethod
    def yield_mpa(self) -> float:
        """Of the plate."""

    @property
    @abstractmethod
    def ultimate_mpa(self) -> float:
        """Of the plate."""

    @property
    def left(self) -> float:
        """The share of the plate's width that is there where it is first held."""
        return 1.0

    @property
    @abstractmethod
    def unchecked(self) -> str:
        """Why no strength of it is given, in words; empty where its rules hold for its metals."""

    def yields_unknown(self) -> str:
        """Of which of its metals the table does not say what it yields at, as thick as it is; empty where of none."""
        for part, thickness in ((self.metal, self.thickness_mm), (self.wall, self.wall_mm)):
            if part.yield_mpa_at(thickness) is None:
                return f"{part.name}: its yield over 16 mm thick is not in the table"
        return ""

    @property
    def bolted_by(self) -> BoltSize | None:
        """Of a bolt through it where it is first held, its sizes."""
        return None

    @property
    def toe(self) -> bool:
        """Whether a weld's toe lies across it where it is first held."""
        return False

    @property
    @abstractmethod
    def lies(self) -> Lies:
        """On the wall's flat."""

    @abstractmethod
    def patches(self) -> Iterator[tuple[str, WallPatch]]:
        """The wall behind it, and behind what spreads its load."""

    @abstractmethod
    def utilisations(self, load: Load, *, road: Road) -> Mapping[str, Callable[[], ForceArray]]:
        """Each check of what holds it and of the wall, to be worked out where it is asked for."""

    def fatigue(self, load: Load) -> Iterator[tuple[str, ForceArray]]:
        """Of each weld the use under a load that comes to either side."""
        return iter(())

    def asks(self) -> Iterator[tuple[str, bool]]:
        """What it must keep, each with whether it does."""
        for name, patch in self.patches():
            share = patch.height_mm / self.wall_height_mm
            yield f"{name} {share:.2f} of the wall's height, at most 0.85", share <= 0.85

    def out_of_range(self) -> Iterator[str]:
        """What lies outside the range of the rules that are used: said, no reason to fail."""
        return iter(())

    def steps(self, check: str, load: Load) -> tuple[Step, ...]:
        """The working of one check of what holds it or the wall; none where it is no check of theirs."""
        patch = dict(self.patches()).get(check)
        return _patch_steps(self, patch, load) if patch else ()

    def measures(self) -> tuple[Measure, ...]:
        return ()

    def fillets(self) -> Iterator[Solid]:
        """Its welds as they are drawn, in the mount's own frame."""
        return iter(())

    def pieces(self, key: str, place: Placement) -> Iterator[MountPiece]:
        """What there is beside the bracket itself, in vehicle axes."""
        return iter(())

    def holes(self) -> Iterator[tuple[float, float, float, str]]:
        """Of each hole in the plate: off the bolt along it, across it, its diameter, and what for."""
        return iter(())

    def parts(self, key: str, name: str, box_name: str, frame: Placement) -> Iterator[FlatPart]:
        return iter(())

    @abstractmethod
    def note(self, box_name: str) -> str:
        """How it is held, for who makes the bracket."""

    def bought(self) -> Iterator[str]:
        return iter(())

    def moments(self, load: Load) -> Load:
        """At the middle of what holds it, about (d, w, n): (c, 0, −hc) × (D, W, N) [N·mm]."""
        n, d, w = load
        return self.middle_mm * w, -self.middle_mm * d - self.c_mm * n, self.c_mm * w

    def patch_capacity(self, patch: WallPatch) -> tuple[float, float, float]:
        """(N0 [N], Mn0, Mw0 [N·mm]) of a patch of wall by yield lines, as for the face of a hollow section: pulled,
        turned about the way up the wall, and about the way along it.

        β = height / wall height (its rim held by the lid), η = width / wall height. Valid for: β up to 0.85 (its shape
        says so where it is not; the formulas are then taken at 0.85). Source: yield lines, from memory; rough.
        """
        b0, fy = self.wall_height_mm, yield_beside_weld(self.wall, self.wall_mm)
        beta, eta, width, height = min(patch.height_mm / b0, 0.85), patch.width_mm / b0, patch.width_mm, patch.height_mm
        free = 1 - beta
        strength = fy * patch.t2_mm2 / GAMMA_M0
        pull = strength * (2 * eta + 4 * math.sqrt(free)) / free
        about_n = strength * width * (1 / (2 * eta) + 2 / math.sqrt(free) + eta / free)
        about_w = strength * (width * (1 + beta) / (2 * free) + math.sqrt(2 * b0 * height * (1 + beta) / free))
        return pull, about_n, about_w

    def patch_utilisation(self, patch: WallPatch, load: Load) -> ForceArray:
        """u = |D| / N0 + |Mn| / Mn0 + |Mw| / Mw0, with the moments at the middle of what holds it."""
        pull, about_up, about_along = self.patch_capacity(patch)
        _, m_w, m_n = self.moments(load)
        m_up, m_along = (m_n, m_w) if self.upright else (m_w, m_n)
        return np.asarray(np.abs(load[1]) / pull + np.abs(m_up) / about_up + np.abs(m_along) / about_along)

    def on_the_wall(self, along_w: float, along_n: float, t2: float) -> WallPatch:
        """A patch by its size across the plate and along it."""
        return WallPatch(along_w, along_n, t2) if self.upright else WallPatch(along_n, along_w, t2)


def wall_asks(plate: HeldPlate, frame: Placement, seat: Seat) -> Iterator[tuple[str, bool]]:
    """Whether what lies on the wall is on the flat that its cut-off edges leave: above the bend, below the lid's edge,
    between the corners. ``frame``: from (d, w, n) of the plate to vehicle axes."""
    lies, wall = plate.lies, seat.wall
    if wall is None:
        return
    ends = [(-plate.c_mm, w, n) for w in (-lies.half_mm, lies.half_mm) for n in (lies.near_mm, lies.far_mm)]
    local = (frame.points(np.array(ends)) - np.array(seat.placement.origin)) @ seat.placement.turn
    (left, right), (bottom, top) = ((min(row), max(row)) for row in local.T[[seat.runs, seat.rises]].tolist())
    low, high = wall.flat_from_mm, wall.flat_to_mm
    up = f"{lies.what} from {bottom:.1f} to {top:.1f} {_height(wall)}, its flat is {low:.1f} to {high:.1f}"
    yield up, bottom >= low - 1e-6 and top <= high + 1e-6
    span = (
        f"{lies.what} from {left:.1f} to {right:.1f} along the {wall.what}, which runs from {wall.start_mm:.1f} to "
        f"{wall.end_mm:.1f}"
    )
    yield span, left >= wall.start_mm - 1e-6 and right <= wall.end_mm + 1e-6


def _height(wall: Wall) -> str:
    return "up the wall" if wall.what == "wall" else f"across the {wall.what}"


def _patch_steps(plate: HeldPlate, patch: WallPatch, load: Load) -> tuple[Step, ...]:
    rough = "hollow-section face, from memory; rough"
    _, m_w, m_n = (float(m) for m in plate.moments(load))
    pull, about_up, about_along = plate.patch_capacity(patch)
    return (
        Step("moment about n", "c W", m_n, "N·mm", "statics"),
        Step("moment about w", "−hc D − c N", m_w, "N·mm", "statics"),
        Step("N0", "yield lines", pull, "N", rough),
        Step("Mn0" if plate.upright else "Mw0", "yield lines", about_up, "N·mm", rough),
        Step("Mw0" if plate.upright else "Mn0", "yield lines", about_along, "N·mm", rough),
    )
