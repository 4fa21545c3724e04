"""A rest: the box lies on a pad on the vehicle and is held one way, downward; sideways and up it bears nothing.

        box base
────────┬──────┬────────
        │ pad  │            n  up from the vehicle's metal, within 2° of the base's normal
────────┴──────┴────────  the hard point's or the member's top
"""

import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any, cast

import numpy as np

from levelcradle.core.axes import Matrix, Placement, Vec, cross, dot, minus, plus, scaled, unit
from levelcradle.core.connection.connection import (
    Contact,
    ForceArray,
    Governing,
    Measure,
    MountPiece,
    Plain,
    Road,
    Seat,
    Unfit,
    lies_on,
)
from levelcradle.core.connection.spot import Spot
from levelcradle.core.design import HardPoint
from levelcradle.core.design.crossmember import Crossmember
from levelcradle.core.design.mount import Mount, Rest
from levelcradle.core.design.survey import Member
from levelcradle.core.design.tables import Tables
from levelcradle.core.finding import Step, Working
from levelcradle.core.solids import Solid, block

__all__ = ["RestConnection"]

SQUARE_WITHIN = math.cos(math.radians(2.0))
PAD_KG_MM3 = 1.2e-6  # of hard rubber: common practice, no source
TOUCHES_MM = 1.0  # the base may be so far off the pad: common practice, no source


@dataclass(frozen=True, eq=False, slots=True)
class RestConnection(Plain):
    """A rest in place. ``gap_mm``: from its pad to the base of the box, below zero where the box stands in it."""

    id: str
    mount: Mount
    spot: Spot
    shape: Rest
    pieces: tuple[MountPiece, ...]
    gap_mm: float

    @staticmethod
    def of(key: str, mount: Mount, spot: Spot, seat: Seat, tables: Tables) -> "RestConnection | Unfit":
        shape = cast(Rest, mount.shape)
        lean = -dot(seat.normal, spot.n)
        if lean < SQUARE_WITHIN:
            return Unfit(key, mount, spot, "the box's base does not lie flat on it (within 2°)")
        gap = dot(minus(seat.point, spot.at), scaled(seat.normal, -1.0)) / lean - shape.pad_mm
        pad = (_pad(shape, spot),) if shape.pad_mm > 0 else ()
        return RestConnection(key, mount, spot, shape, pad, gap)

    @staticmethod
    def begun(on: str, landing: HardPoint | Member | Crossmember, like: Mount | None) -> dict[str, Any]:
        """In the middle of a member, where it is one."""
        shape = like.shape if like else Rest()
        lands_on: dict[str, Any] = {"type": "hardpoint", "hardpoint": on.removeprefix("hardpoints/")}
        if isinstance(landing, Member):
            along = minus(landing.end_mm, landing.start_mm)
            lands_on = {
                "type": "member",
                "member": on.removeprefix("members/"),
                "along_mm": round(dot(along, along) ** 0.5 / 2, 1),
            }
        return {
            "face": "base",
            "shape": shape.model_dump(mode="json"),
            "to_box": {"type": "loose"},
            "lands_on": lands_on,
        }

    @property
    def unfit(self) -> str:
        if self.gap_mm > TOUCHES_MM:
            return f"the box's base is {self.gap_mm:.1f} over it and does not lie on it"
        return f"the box's base is {-self.gap_mm:.1f} below its pad" if self.gap_mm < -TOUCHES_MM else ""

    @property
    def contacts(self) -> tuple[Contact, ...]:
        return (Contact(plus(self.spot.at, scaled(self.spot.n, self.shape.pad_mm)), self.spot.n, "push"),)

    @property
    def frame_mm(self) -> Placement:
        return Placement(_turn(self.spot), self.spot.at)

    @property
    def outward(self) -> Vec:
        return self.frame_mm.direction((1.0, 0.0, 0.0))

    @property
    def measures(self) -> tuple[Measure, ...]:
        long, wide, thick = self.shape.length_mm / 2, self.shape.width_mm / 2, self.shape.pad_mm
        return (
            Measure("pad", (long, 0.0, 0.0), (long, 0.0, thick)),
            Measure("long", (-long, 0.0, 0.0), (long, 0.0, 0.0)),
            Measure("wide", (0.0, -wide, 0.0), (0.0, wide, 0.0), at_wall=True),
        )

    @property
    def rough(self) -> tuple[str, ...]:
        return ("pad",)

    def parts_of(self, forces: Matrix) -> tuple[ForceArray, ForceArray, ForceArray]:
        """N pull-off +, and nothing along the pad."""
        n = forces @ np.array(self.spot.n)
        return n, np.zeros_like(n), np.zeros_like(n)

    def utilisations(
        self, load: tuple[ForceArray, ForceArray, ForceArray], *, road: Road, first: str = ""
    ) -> Iterator[tuple[str, ForceArray]]:
        """Pressure on the pad against what it may bear; all of it bears. Source: statics; the pressure as given of the
        pad's material."""
        shape = self.shape
        yield "pad", np.maximum(-load[0], 0.0) / (shape.length_mm * shape.width_mm * shape.bears_mpa)

    def working(self, row: Governing) -> Working:
        shape = self.shape
        solve, area = f"{row.case}, {row.solve}", shape.length_mm * shape.width_mm
        return (
            Step("pressed down with", solve, -row.load[0], "N", "rigid box on springs, pads only push (statics)"),
            Step("pad", "length × width", area, "mm²", "as given"),
            Step("pressure", "force / area", -row.load[0] / area, "MPa", "statics"),
            Step("may bear", "its material", shape.bears_mpa, "MPa", "as given"),
            Step("use of the pad", "demand / capacity", row.utilisation, ""),
        )

    def bought(self) -> Iterator[str]:
        shape = self.shape
        if shape.pad_mm:
            yield f"pad {shape.length_mm:g} × {shape.width_mm:g} × {shape.pad_mm:g}, bears {shape.bears_mpa:g} MPa"

    def sits_on(self, solid: Solid) -> bool:
        return lies_on(self.spot, solid)

    @property
    def bears_face(self) -> bool:
        return True


def _turn(spot: Spot) -> Matrix:
    """Its length aft as far as the spot lets it."""
    n = unit(spot.n)
    aft = minus((1.0, 0.0, 0.0), scaled(n, n[0]))
    along: Vec = unit(aft) if dot(aft, aft) > 0.01 else (0.0, 1.0, 0.0)
    return np.array([along, cross(n, along), n]).T


def _pad(shape: Rest, spot: Spot) -> MountPiece:
    """The pad as a block on the spot."""
    half, wide = shape.length_mm / 2, shape.width_mm / 2
    solid = block((-half, -wide, 0.0), (half, wide, shape.pad_mm)).moved(Placement(_turn(spot), spot.at))
    volume = shape.length_mm * shape.width_mm * shape.pad_mm
    return MountPiece("pad", solid, volume * PAD_KG_MM3)
