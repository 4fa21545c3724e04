"""A cut part: a flat outline with its holes and bends, in one material."""

import hashlib
import math
from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Any, Literal

from shapely.geometry import LineString, Point, Polygon

from levelcradle.core.axes import Placement
from levelcradle.core.errors import OutOfRange

__all__ = [
    "Bend",
    "Cutout",
    "FlatPart",
    "Hole",
    "Stand",
    "bend_allowance_mm",
    "bend_deduction_mm",
    "bend_setback_mm",
    "bounding_mm",
]

Flat = tuple[float, float]


@dataclass(frozen=True, slots=True)
class Hole:
    """A round hole in the flat."""

    at: Flat
    diameter_mm: float
    purpose: str


@dataclass(frozen=True, slots=True)
class Cutout:
    """An opening in the flat that is not round: its corners, counter-clockwise."""

    outline: tuple[Flat, ...]
    purpose: str

    @property
    def size_mm(self) -> Flat:
        return bounding_mm(self.outline)

    @property
    def middle(self) -> Flat:
        xs, ys = zip(*self.outline, strict=True)
        return (min(xs) + max(xs)) / 2, (min(ys) + max(ys)) / 2


@dataclass(frozen=True, slots=True)
class Bend:
    """A bend line in the flat (the middle of the strip that is bent), its angle (change of direction), inside radius,
    which way it goes, and how wide the strip is: the neutral fibre."""

    start: Flat
    end: Flat
    angle_deg: float
    radius_mm: float
    up: bool
    allowance_mm: float


@dataclass(frozen=True, slots=True, eq=False)
class Stand:
    """Where a part is once it is folded: the flat that holds ``root`` lies in the frame of ``placement``, its lower
    side on that frame's first two axes and the side that is looked at in the flat up."""

    root: Flat
    placement: Placement


@dataclass(frozen=True, slots=True)
class FlatPart:
    """One flat part to cut.

    Attributes:
        outline: closed polygon, counter-clockwise [mm], first corner not repeated; ``cutouts`` in it.
        mass_kg: flat area less holes, times thickness and density.
        notes: what the folder and welder must know.
        stand: where it is in the box's frame, or in the vehicle's for the parts of a mount.
        of: paths of the box, and of the mount, that it is for.
        mark: what is written on it and on its sheet; given when all parts are known.
        rolled: which way the rolling direction runs in the flat, where that matters.
        each: every one of those that are alike, each at its own place in the vehicle.
    """

    id: str
    name: str
    quantity: int
    material: str
    material_name: str
    thickness_mm: float
    density_kg_m3: float
    outline: tuple[Flat, ...]
    holes: tuple[Hole, ...]
    bends: tuple[Bend, ...]
    notes: tuple[str, ...] = ()
    stand: Stand | None = field(default=None, compare=False)
    of: tuple[str, ...] = ()
    mark: str = ""
    each: tuple["FlatPart", ...] = field(default=(), compare=False)
    cutouts: tuple[Cutout, ...] = ()
    rolled: Literal["", "across", "up"] = ""

    @property
    def bends_run(self) -> frozenset[str]:
        """Which ways its bend lines run in the flat."""
        return frozenset(
            "across" if abs(b.start[0] - b.end[0]) > abs(b.start[1] - b.end[1]) else "up" for b in self.bends
        )

    @property
    def bends_in_order(self) -> list[Bend]:
        """In an order that they can be folded in: what lies furthest from the flat that stays first, so that nothing
        stands up beyond a line that is still to be bent (common practice, no source)."""
        root = Point(self.stand.root if self.stand else (0.0, 0.0))
        return sorted(self.bends, key=lambda b: -root.distance(LineString([b.start, b.end])))

    @property
    def area_mm2(self) -> float:
        out = sum(math.pi / 4 * hole.diameter_mm**2 for hole in self.holes)
        return float(Polygon(self.outline).area) - out - sum(float(Polygon(c.outline).area) for c in self.cutouts)

    @property
    def shape(self) -> str:
        """Digest of what the cutter and folder make: the same for the same blank of the same sheet, whatever it is
        called."""
        bends = [(b.start, b.end, b.angle_deg, b.radius_mm, b.up) for b in self.bends]
        holes = [(h.at, h.diameter_mm) for h in self.holes]
        rows = _rounded((self.outline, holes, bends, self.thickness_mm, *(cut.outline for cut in self.cutouts)))
        return hashlib.sha256(f"{self.material} {rows}".encode()).hexdigest()[:16]

    @property
    def size_mm(self) -> Flat:
        return bounding_mm(self.outline)

    @property
    def mass_kg(self) -> float:
        return self.area_mm2 * self.thickness_mm * self.density_kg_m3 * 1e-9


def bounding_mm(outline: Sequence[Flat]) -> Flat:
    """Size of the upright rectangle round an outline."""
    xs, ys = zip(*outline, strict=True)
    return max(xs) - min(xs), max(ys) - min(ys)


def _rounded(value: Any) -> Any:
    """To a thousandth, so that a figure that was worked out another way is the same."""
    if isinstance(value, float):
        return round(value, 3) + 0.0
    return [_rounded(each) for each in value] if isinstance(value, list | tuple) else value


def bend_allowance_mm(*, angle_deg: float, radius_mm: float, thickness_mm: float, k: float) -> float:
    """Length of the neutral fibre in a bend: BA = A (R + K t), A in radians.

    Args:
        angle_deg: change of direction, 0 < A < 180.
        radius_mm: inside radius R.
        k: place of the neutral fibre as a share of the thickness.
    Source: sheet-metal handbooks (neutral fibre), as Machinery's Handbook.

    >>> round(bend_allowance_mm(angle_deg=90, radius_mm=3, thickness_mm=3, k=0.42), 3)
    6.692
    """
    return math.radians(angle_deg) * (radius_mm + k * thickness_mm)


def bend_setback_mm(angle_deg: float, outside_radius_mm: float) -> float:
    """From the outside apex back to where the bend begins: tan(A/2)(R + t). Source: as bend_allowance_mm."""
    return math.tan(math.radians(angle_deg) / 2) * outside_radius_mm


def bend_deduction_mm(*, angle_deg: float, radius_mm: float, thickness_mm: float, k: float) -> float:
    """What two outside lengths to the apex exceed the flat by: BD = 2 tan(A/2)(R + t) - BA.

    Valid for: bends up to 90 degrees, outside lengths measured to the apex.
    Raises: OutOfRange above 90 degrees, where the outside length must be said otherwise.
    Source: as bend_allowance_mm.

    >>> round(bend_deduction_mm(angle_deg=90, radius_mm=3, thickness_mm=3, k=0.42), 3)
    5.308
    """
    if not 0 < angle_deg <= 90:
        raise OutOfRange("a bend deduction to the apex is given up to 90 degrees")
    setback = bend_setback_mm(angle_deg, radius_mm + thickness_mm)
    allowance = bend_allowance_mm(angle_deg=angle_deg, radius_mm=radius_mm, thickness_mm=thickness_mm, k=k)
    return 2 * setback - allowance
