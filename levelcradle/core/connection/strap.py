"""A strap under a box or over it: a second restraint. In a crash it counts for nothing; it is told what it must hold if
the others let go.

  A ○                    ○ B        its legs lie in one upright plane with both points
     ╲  ┌────────────┐  ╱
      ╲ │    box     │ ╱
       ╲└────────────┘╱             in its ends: F / (sin α + sin β), no friction
        ══════════════
"""

import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any, cast

import numpy as np

from levelcradle.core.axes import Placement, Vec, cross, dot, minus, plus, scaled, unit
from levelcradle.core.connection.backing import bolt_bought
from levelcradle.core.connection.connection import (
    Contact,
    MountPiece,
    Plain,
    Seat,
    Second,
    Unfit,
    lies_on,
)
from levelcradle.core.connection.pieces import head_kg
from levelcradle.core.connection.spot import Spot
from levelcradle.core.design import HardPoint
from levelcradle.core.design.crossmember import Crossmember
from levelcradle.core.design.mount import Bolt, Mount, OnHardPoint, OnTwo, Strap
from levelcradle.core.design.survey import Member
from levelcradle.core.design.tables import Tables
from levelcradle.core.part import FlatPart, Hole
from levelcradle.core.solids import Solid, block, rod
from levelcradle.core.strength import class_asks

__all__ = ["StrapConnection"]

FLATTEST = 0.1  # of the sines of both legs together: flatter ones are drawn without end; common practice, no source
END_HOLES = 1.5  # of a strap beyond its bolt, in holes: common practice, no source


@dataclass(frozen=True, eq=False, slots=True)
class StrapConnection(Plain):
    """A strap in place. ``path``: its inner face from one point round two edges of the box to the other, vehicle
    axes."""

    id: str
    mount: Mount
    spot: Spot
    seat: Seat
    path: tuple[Vec, Vec, Vec, Vec]
    tables: Tables

    @staticmethod
    def of(key: str, mount: Mount, spot: Spot, seat: Seat, tables: Tables) -> "StrapConnection | Unfit":
        assert spot.to is not None
        found = _path(spot.at, spot.to.at, seat)
        if isinstance(found, str):
            return Unfit(key, mount, spot, found, touches=False)
        made = StrapConnection(key, mount, spot, seat, found, tables)
        if made.sines < FLATTEST:
            return Unfit(key, mount, spot, "its legs lie too flat to hold anything", touches=False)
        return made

    @staticmethod
    def begun(on: str, landing: HardPoint | Member | Crossmember, like: Mount | None) -> dict[str, Any]:
        """To the other end, which whoever begins it names."""
        shape = like.shape if like else Strap()
        size = getattr(landing, "thread", None) or "M8"
        lands_on = {"type": "two", "hardpoint": on.removeprefix("hardpoints/"), "bolt": Bolt(size=size).model_dump()}
        return {"shape": shape.model_dump(mode="json"), "to_box": {"type": "loose"}, "lands_on": lands_on}

    @property
    def shape(self) -> Strap:
        return cast(Strap, self.mount.shape)

    @property
    def sines(self) -> float:
        """Of both legs to the face, together: what they lift for each newton in them."""
        (a, b, c, d), normal = self.path, self.seat.normal
        return -dot(unit(minus(a, b)), normal) - dot(unit(minus(d, c)), normal)

    @property
    def second(self) -> Second:
        return Second(self.seat.normal, 1.0 / self.sines, self.shape.tested_n)

    @property
    def long_mm(self) -> float:
        pairs = zip(self.path, self.path[1:], strict=False)
        return sum(math.dist(p, q) for p, q in pairs)

    @property
    def pieces(self) -> tuple[MountPiece, ...]:
        return tuple(self._pieces())

    def _pieces(self) -> Iterator[MountPiece]:
        shape, middle = self.shape, scaled(plus(self.path[1], self.path[2]), 0.5)
        density = self.tables.materials[shape.material].density_kg_m3 * 1e-9
        along = unit(minus(self.path[2], self.path[1]))
        aside = unit(cross(self.seat.normal, along))
        inside = minus(middle, scaled(self.seat.normal, 1000.0))
        for p, q in zip(self.path, self.path[1:], strict=False):
            way, long = unit(minus(q, p)), math.dist(p, q)
            out = cross(way, aside)
            out = out if dot(out, minus(p, inside)) > 0 else scaled(out, -1.0)
            frame = Placement(np.array([way, cross(out, way), out]).T, p)
            half = shape.width_mm / 2
            solid = block((0.0, -half, 0.0), (long, half, shape.thickness_mm)).moved(frame)
            mass = shape.width_mm * shape.thickness_mm * long * density
            yield MountPiece("strap", solid, mass, f"{self.id}-strap")
        bolt = self.tables.bolts[cast(OnTwo, self.mount.lands_on).bolt.size]
        for spot in self.spot.ends:
            top = plus(spot.at, scaled(spot.n, shape.thickness_mm + bolt.washer_thick_mm + bolt.head_mm))
            yield MountPiece("bolt head", rod(spot.at, top, bolt.washer_mm / 2), head_kg(bolt))

    @property
    def unfit(self) -> str:
        return ""

    @property
    def contacts(self) -> tuple[Contact, ...]:
        """None: it holds nothing while the others do."""
        return ()

    @property
    def frame_mm(self) -> None:
        return None

    @property
    def outward(self) -> Vec:
        return self.seat.normal

    @property
    def unchecked(self) -> str:
        return "a second restraint: it counts for nothing in a crash"

    def shape_asks(self) -> Iterator[tuple[str, bool]]:
        """What it must keep: room for its bolt, and a class that its bolts are made of."""
        bolt = cast(OnTwo, self.mount.lands_on).bolt
        least = 2 * END_HOLES * self.tables.bolts[bolt.size].clearance_hole_mm
        yield f"strap {self.shape.width_mm:.1f} wide, at least {least:.1f} round its bolt", self.shape.width_mm >= least
        named = bolt.size, bolt.property_class
        yield from class_asks(named, self.tables.bolts[named[0]], self.tables.bolt_classes[named[1]])

    def parts(self, tables: Tables) -> Iterator[FlatPart]:
        """The strip, flat, with a hole near either end."""
        shape, bolt = self.shape, cast(OnTwo, self.mount.lands_on).bolt
        hole_mm, metal = tables.bolts[bolt.size].clearance_hole_mm, tables.materials[shape.material]
        beyond, wide = END_HOLES * hole_mm, shape.width_mm
        if wide <= hole_mm:
            return
        long = self.long_mm + 2 * beyond
        holes = tuple(Hole((x, wide / 2), hole_mm, bolt.size) for x in (beyond, long - beyond))
        legs = " · ".join(f"{math.dist(p, q):.0f}" for p, q in zip(self.path, self.path[1:], strict=False))
        yield FlatPart(
            f"{self.id}-strap",
            f"{self.mount.name} strap",
            1,
            shape.material,
            metal.name,
            shape.thickness_mm,
            metal.density_kg_m3,
            ((0.0, 0.0), (long, 0.0), (long, wide), (0.0, wide)),
            holes,
            (),
            (f"Bent in place round {self.seat.box_name}: {legs}", "Rubber under it where it lies on the box"),
        )

    def bought(self) -> Iterator[str]:
        bolt = cast(OnTwo, self.mount.lands_on).bolt
        for spot in self.spot.ends:
            on = OnHardPoint(hardpoint=spot.path.removeprefix("hardpoints/"), bolt=bolt)
            yield bolt_bought(on, spot, self.shape.thickness_mm, self.tables)

    def sits_on(self, solid: Solid) -> bool:
        return any(lies_on(spot, solid) for spot in self.spot.ends)


def _path(one: Vec, other: Vec, seat: Seat) -> tuple[Vec, Vec, Vec, Vec] | str:
    """From one point round the edges of the face to the other; in words why there is no such way."""
    inverse, (low, high) = seat.placement.inverse, seat.over
    a, b = np.array(inverse.point(one)), np.array(inverse.point(other))
    under = float(seat.placement.turn[:, 2] @ np.array(seat.normal)) < 0
    level = low[2] if under else high[2]
    if any((end[2] - level) * (1 if under else -1) <= 0 for end in (a, b)):
        return "its points are no further up than what it passes under" if under else "its points are above the box"
    enters, leaves = 0.0, 1.0
    for axis in (0, 1):
        step = b[axis] - a[axis]
        if abs(step) < 1e-9:
            if not low[axis] < a[axis] < high[axis]:
                return "the box is not between its points"
            continue
        near, far = sorted(((low[axis] - a[axis]) / step, (high[axis] - a[axis]) / step))
        enters, leaves = max(enters, float(near)), min(leaves, float(far))
    if not 0.0 < enters < leaves < 1.0:
        return "the box is not between its points"
    edges = [a + (b - a) * share for share in (enters, leaves)]
    corners = [seat.placement.point((float(e[0]), float(e[1]), level)) for e in edges]
    return one, corners[0], corners[1], other
