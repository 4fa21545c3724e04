"""The welded angle: what it answers as any kind of mount does."""

from collections.abc import Hashable, Iterator
from dataclasses import dataclass, replace
from functools import cached_property
from itertools import chain
from typing import Any

import numpy as np

from levelcradle.core.axes import Matrix, Placement, Vec, plus, scaled, unit
from levelcradle.core.connection.angle.checks import (
    AngleJoint,
    fatigue,
    geometry,
    lever_pull,
    out_of_range,
    utilisations,
)
from levelcradle.core.connection.angle.pieces import AngleFrame, AngleMount, angle_pieces, bracket_parts
from levelcradle.core.connection.angle.working import working
from levelcradle.core.connection.backing import (
    backing_asks,
    backing_parts,
    bolt_bought,
    spot_utilisations,
    spot_working,
)
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
from levelcradle.core.connection.hold import wall_asks
from levelcradle.core.connection.pieces import SLIDES
from levelcradle.core.connection.spot import Spot
from levelcradle.core.design import HardPoint
from levelcradle.core.design.crossmember import Crossmember
from levelcradle.core.design.mount import Angle, Mount, Welded
from levelcradle.core.design.survey import Member
from levelcradle.core.design.tables import Tables
from levelcradle.core.finding import Working
from levelcradle.core.part import FlatPart
from levelcradle.core.solids import Solid
from levelcradle.core.strength import tightening

__all__ = ["AngleConnection"]

_NOWHERE = (0.0, 0.0, 0.0)
_ANYWHERE: dict[str, dict[str, Any]] = {
    "hardpoint": {"hardpoint": ""},
    "crossmember": {"crossmember": "", "along_mm": 0.0, "top": True},
}
NOT_SQUARE = "the box's wall does not stand square to the bolt (within 2°)"


@dataclass(frozen=True, eq=False)
class AngleConnection(Plain):
    """A welded angle in place."""

    id: str
    mount: Mount
    spot: Spot
    seat: Seat
    frame: AngleFrame
    joint: AngleJoint
    tables: Tables

    @cached_property
    def pieces(self) -> tuple[MountPiece, ...]:
        """Made where they are asked for: of most that are tried only the uses are."""
        own = angle_pieces(self.id, self.joint.mount, self.frame, self.joint.plate, self.tables)
        gussets = self.joint.gussets
        return (*own, *(gussets.pieces(self.id, self.frame.placement) if gussets else ()))

    @staticmethod
    def of(key: str, mount: Mount, spot: Spot, seat: Seat, tables: Tables) -> "AngleConnection | Unfit":
        its, wall = AngleMount.of(mount), seat.wall
        doubler = its.to_box.doubler if isinstance(its.to_box, Welded) else None
        foot = plus(spot.at, scaled(unit(spot.n), its.lift_mm))
        frame = AngleFrame.of(foot, spot.n, seat.point, seat.normal, doubler.thickness_mm if doubler else 0.0)
        if frame is None or wall is None:
            return Unfit(key, mount, spot, "the box's wall faces along the bolt", touches=False)
        if frame.c_mm <= 0:
            return Unfit(key, mount, spot, "the hard point lies inside the wall" if frame.square else NOT_SQUARE)
        if frame.c_mm <= its.shape.thickness_mm + its.shape.bend_radius_mm:
            why = f"the hard point is only {frame.c_mm:.1f} off the wall, less than the bracket's bend takes"
            return Unfit(key, mount, spot, why if frame.square else NOT_SQUARE)
        joint = AngleJoint.of(mount, frame.c_mm, wall, seat.material, tables)
        return AngleConnection(key, mount, spot, seat, frame, joint, tables)

    @staticmethod
    def begun(on: str, landing: HardPoint | Member | Crossmember, like: Mount | None) -> dict[str, Any]:
        """Its bolt is of the hard point's thread, where that is known."""
        last = AngleMount.of(like) if like else None
        size = getattr(landing, "thread", None) or (last.lands_on.bolt.size if last else "M10")
        shape, hold = (last.shape, last.to_box) if last else (Angle(), Welded())
        lands_on = {
            "type": "hardpoint",
            "hardpoint": on.removeprefix("hardpoints/"),
            "bolt": {"size": size, "property_class": "8.8"},
        }
        return {"shape": shape.model_dump(mode="json"), "to_box": hold.model_dump(mode="json"), "lands_on": lands_on}

    @property
    def unfit(self) -> str:
        return "" if self.frame.square else NOT_SQUARE

    @property
    def contacts(self) -> tuple[Contact, ...]:
        return (Contact(self.spot.at, self.spot.n),)

    @property
    def frame_mm(self) -> Placement:
        return Placement(self.frame.placement.turn, self.spot.at)

    @property
    def outward(self) -> Vec:
        return self.frame.d

    @property
    def measures(self) -> tuple[Measure, ...]:
        shape, c = self.joint.shape, self.frame.c_mm
        half = shape.width_mm / 2
        lift = self.joint.mount.lift_mm
        up: Vec = (0.0, 0.0, lift)
        rows = (
            Measure("wall to bolt", (-c, 0.0, 0.0), (0.0, 0.0, 0.0)),
            Measure("bolt to toe", (0.0, 0.0, 0.0), (shape.toe_mm, 0.0, 0.0)),
            Measure("leg on the box", (-c, 0.0, 0.0), (-c, 0.0, shape.leg_b_mm)),
            Measure("wide", (0.0, -half, 0.0), (0.0, half, 0.0), at_wall=True),
            *self.joint.plate.measures(),
        )
        lifted = tuple(replace(row, start=plus(row.start, up), end=plus(row.end, up)) for row in rows)
        words = "isolator" if self.spot.isolator else "packing"
        under = Measure(words, (shape.toe_mm, 0.0, 0.0), (shape.toe_mm, 0.0, lift))
        return (*lifted, *((under,) if lift else ()))

    @property
    def welds(self) -> tuple[Solid, ...]:
        return tuple(solid.moved(self.frame.placement) for solid in self.joint.plate.fillets())

    @property
    def reach_mm(self) -> float | None:
        """c: from the face the bracket is welded to, to the bolt."""
        return self.frame.c_mm

    @property
    def unchecked(self) -> str:
        return self.joint.unchecked

    @property
    def rough(self) -> tuple[str, ...]:
        return tuple(name for name, _ in self.joint.plate.patches())

    @property
    def remarks(self) -> tuple[str, ...]:
        return tuple(out_of_range(self.joint))

    @property
    def tightening(self) -> tuple[float, float]:
        return tightening(self.joint.bolt, self.joint.preload_n)

    @cached_property
    def alike(self) -> Hashable:
        """What it is made of and stands on, whatever its name and wherever that is."""
        mount, spot = self.joint.mount, self.spot
        on = mount.lands_on.model_copy(update=_ANYWHERE[mount.lands_on.type])
        nameless = replace(mount, name="", face="", lands_on=on)
        return replace(self.joint, mount=nameless), replace(spot, path="", name="", at=_NOWHERE, n=_NOWHERE)

    def parts_of(self, forces: Matrix) -> tuple[ForceArray, ForceArray, ForceArray]:
        """N pull-off +, D away from the wall, W along the bend."""
        n, d, w = (forces @ np.array(way) for way in (self.frame.n, self.frame.d, self.frame.w))
        return n, d, w

    def utilisations(
        self, load: tuple[ForceArray, ForceArray, ForceArray], *, road: Road, first: str = ""
    ) -> Iterator[tuple[str, ForceArray]]:
        checks = utilisations(self.joint, *load, road=road, first=first)
        on = self.joint.mount.lands_on
        passed = spot_utilisations(on, self.spot, lambda: self.pull_and_shear(load), self.tables, road=road)
        return chain(checks, passed)

    def fatigue(self, load: tuple[ForceArray, ForceArray, ForceArray]) -> Iterator[tuple[str, ForceArray]]:
        return fatigue(self.joint, *load)

    def pull_and_shear(self, load: tuple[ForceArray, ForceArray, ForceArray]) -> tuple[ForceArray, ForceArray]:
        """The toe's lever counts in the pull."""
        return lever_pull(self.joint, load[0]), np.hypot(load[1], load[2])

    def shape_asks(self) -> Iterator[tuple[str, bool]]:
        yield from geometry(self.joint)
        yield from backing_asks(self.joint.mount.lands_on, self.spot, self.tables)
        yield from wall_asks(self.joint.plate, self.frame.placement, self.seat)

    def working(self, row: Governing) -> Working:
        load = np.array(row.load[0]), np.array(row.load[1]), np.array(row.load[2])
        pull, shear = (float(part) for part in self.pull_and_shear(load))
        if steps := spot_working(self.joint.mount.lands_on, self.spot, pull, shear, row, self.tables):
            return steps
        return working(self.joint, row)

    def parts(self, tables: Tables) -> Iterator[FlatPart]:
        joint = self.joint
        yield from bracket_parts(self.id, joint.mount, self.frame, joint.plate, self.seat.box_name, tables)
        if joint.gussets:
            yield from joint.gussets.parts(self.id, self.mount.name, joint.shape.material, self.frame.placement)
        yield from backing_parts(self.id, self.mount.name, self.joint.mount.lands_on, tables)

    def bought(self) -> Iterator[str]:
        if soft := self.spot.isolator:
            stop = "with a captive stop" if soft.captive else "without a stop"
            yield f"isolator {soft.thick_mm:g} thick, {soft.stiffness_n_per_mm:g} N/mm, {stop}"
        clamped = self.joint.t + self.joint.mount.lift_mm
        yield bolt_bought(self.joint.mount.lands_on, self.spot, clamped, self.tables)
        yield from self.joint.plate.bought()

    def sits_on(self, solid: Solid) -> bool:
        return lies_on(self.spot, solid)

    @property
    def slides(self) -> int | None:
        return SLIDES[self.joint.shape.hole]
