"""The flat tab: what it answers as any kind of mount does."""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property
from itertools import chain
from typing import Any, cast

import numpy as np

from levelcradle.core.axes import Matrix, Placement, Vec, scaled
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
from levelcradle.core.connection.hold import Load, held_plate, wall_asks
from levelcradle.core.connection.hold.offer import Room, across_a_tube
from levelcradle.core.connection.pieces import SLIDES
from levelcradle.core.connection.spot import Spot
from levelcradle.core.connection.tab.checks import TabJoint
from levelcradle.core.connection.tab.frame import TOUCHES_MM, TabFrame
from levelcradle.core.connection.tab.pieces import tab_parts, tab_pieces
from levelcradle.core.connection.tab.working import working
from levelcradle.core.design import HardPoint
from levelcradle.core.design.crossmember import Crossmember
from levelcradle.core.design.mount import Bolt, Bolted, BoltedOn, Mount, OnHardPoint, Tab, Welded
from levelcradle.core.design.survey import Member
from levelcradle.core.design.tables import Tables
from levelcradle.core.finding import Working
from levelcradle.core.part import FlatPart
from levelcradle.core.solids import Solid
from levelcradle.core.strength import tightening

__all__ = ["TabConnection"]

NO_TUBE = "under the base a tab is welded to a tube of a frame, and there is none"


@dataclass(frozen=True, eq=False)
class TabConnection(Plain):
    """A tab in place."""

    id: str
    mount: Mount
    spot: Spot
    seat: Seat
    joint: TabJoint
    tables: Tables

    @staticmethod
    def of(key: str, mount: Mount, spot: Spot, seat: Seat, tables: Tables) -> "TabConnection | Unfit":
        shape, hold = cast(Tab, mount.shape), cast(Welded | Bolted, mount.to_box)
        doubler = hold.doubler if isinstance(hold, Welded) else None
        frame, wall = TabFrame.of(spot, seat, doubler.thickness_mm if doubler else 0.0), seat.wall
        if wall is None:
            return Unfit(key, mount, spot, NO_TUBE, touches=False)
        if isinstance(frame, str):
            return Unfit(key, mount, spot, frame, touches=False)
        plate = held_plate(
            hold,
            tables,
            width_mm=shape.width_mm,
            long_mm=shape.long_mm,
            thickness_mm=shape.thickness_mm,
            metal=shape.material,
            wall=wall.material,
            wall_key=seat.material,
            wall_mm=wall.thickness_mm,
            wall_height_mm=wall.height_mm,
            c_mm=-frame.needs_mm(shape),
            upright=frame.upright,
        )
        named = cast(BoltedOn, mount.lands_on).bolt
        joint = TabJoint(
            shape, frame, plate, named, tables.bolts[named.size], tables.bolt_classes[named.property_class]
        )
        return TabConnection(key, mount, spot, seat, joint, tables)

    @staticmethod
    def begun(on: str, landing: HardPoint | Member | Crossmember, like: Mount | None) -> dict[str, Any]:
        """Its bolt is of the hard point's thread, where that is known."""
        shape = like.shape if like else Tab()
        hold = like.to_box if like else Welded(from_mm=40.0, length_mm=90.0)
        size = getattr(landing, "thread", None) or "M10"
        lands_on = OnHardPoint(hardpoint=on.removeprefix("hardpoints/"), bolt=Bolt(size=size))
        return {
            "shape": shape.model_dump(mode="json"),
            "to_box": hold.model_dump(mode="json"),
            "lands_on": lands_on.model_dump(mode="json"),
        }

    @staticmethod
    def fitted(made: dict[str, Any], spot: Spot, seat: Seat) -> dict[str, Any]:
        """Under a frame as long as it has to be to its tube, and packed; else as it was begun."""
        shape, frame = Tab.model_validate(made["shape"]), TabFrame.of(spot, seat, 0.0)
        if seat.wall is None or seat.wall.what == "wall" or isinstance(frame, str):
            return made
        welded, long_mm = across_a_tube(Room.of(frame.at, frame.n, seat), Welded().leg_mm)
        packing = max(round(frame.off_mm if frame.outside else -frame.off_mm - shape.thickness_mm, 1), 0.0)
        drawn = shape.model_copy(update={"long_mm": long_mm, "packing_mm": packing})
        return {**made, "shape": drawn.model_dump(mode="json"), "to_box": welded.model_dump(mode="json")}

    @cached_property
    def pieces(self) -> tuple[MountPiece, ...]:
        return tuple(tab_pieces(self.id, self.joint))

    @property
    def unfit(self) -> str:
        frame = self.joint.frame
        more = frame.off_mm - frame.needs_mm(self.joint.shape)
        if abs(more) <= TOUCHES_MM:
            return ""
        packing = self.joint.shape.packing_mm + (more if frame.outside else -more)
        if packing < 0:
            return f"there is {-packing:.1f} too little room for it between the vehicle's metal and the box's wall"
        return f"it does not lie on the vehicle's metal and on the wall: with packing of {packing:.1f} it would"

    @property
    def contacts(self) -> tuple[Contact, ...]:
        return (Contact(self.spot.at, self.spot.n),)

    @property
    def frame_mm(self) -> Placement:
        """Away from the box is along it, off the metal square to it."""
        frame = self.joint.frame
        away = scaled(frame.n, -1.0)
        across = scaled(frame.w, 1.0 if frame.outside else -1.0)
        return Placement(np.array([away, across, self.spot.n]).T, frame.at)

    @property
    def outward(self) -> Vec:
        return self.joint.frame.d

    @property
    def measures(self) -> tuple[Measure, ...]:
        own, shape = self.frame_mm.inverse.after(self.joint.frame.placement), self.joint.shape
        half, at = shape.width_mm / 2, self.joint.frame.needs_mm(shape)
        rows = (
            Measure("bolt to end", (at, 0.0, 0.0), (at, 0.0, -shape.toe_mm), at_wall=True),
            Measure("bolt to its end on the box", (at, 0.0, 0.0), (at, 0.0, shape.long_mm), at_wall=True),
            Measure("wide", (at, -half, 0.0), (at, half, 0.0), at_wall=True),
            Measure("thick", (at, 0.0, 0.0), (at + shape.thickness_mm, 0.0, 0.0)),
            *self.joint.plate.measures(),
        )
        if shape.packing_mm:
            end = shape.packing_mm if self.joint.frame.outside else -shape.packing_mm
            rows += (Measure("packing", (0.0, 0.0, 0.0), (end, 0.0, 0.0)),)
        return tuple(Measure(r.words, own.point(r.start), own.point(r.end), r.at_wall) for r in rows)

    @property
    def welds(self) -> tuple[Solid, ...]:
        return tuple(solid.moved(self.joint.frame.placement) for solid in self.joint.plate.fillets())

    @property
    def reach_mm(self) -> float | None:
        return self.joint.frame.edge_mm

    @property
    def unchecked(self) -> str:
        return self.joint.unchecked

    @property
    def rough(self) -> tuple[str, ...]:
        return tuple(name for name, _ in self.joint.plate.patches())

    @property
    def remarks(self) -> tuple[str, ...]:
        return tuple(self.joint.plate.out_of_range())

    @property
    def tightening(self) -> tuple[float, float]:
        return tightening(self.joint.bolt, self.joint.preload_n)

    def parts_of(self, forces: Matrix) -> tuple[ForceArray, ForceArray, ForceArray]:
        """Off the metal +, away from the box along the tab, across it."""
        turn = self.frame_mm.turn
        away, across, off = (forces @ turn[:, i] for i in range(3))
        return off, away, across

    def _on_the_plate(self, load: tuple[ForceArray, ForceArray, ForceArray]) -> Load:
        off, away, across = (np.asarray(part) for part in load)
        side = 1.0 if self.joint.frame.outside else -1.0
        return -away, side * off, side * across

    def utilisations(
        self, load: tuple[ForceArray, ForceArray, ForceArray], *, road: Road, first: str = ""
    ) -> Iterator[tuple[str, ForceArray]]:
        checks = self.joint.utilisations(self._on_the_plate(load), road=road, first=first)
        on = cast(BoltedOn, self.mount.lands_on)
        passed = spot_utilisations(on, self.spot, lambda: self.pull_and_shear(load), self.tables, road=road)
        return chain(checks, passed)

    def fatigue(self, load: tuple[ForceArray, ForceArray, ForceArray]) -> Iterator[tuple[str, ForceArray]]:
        return self.joint.fatigue(self._on_the_plate(load))

    def pull_and_shear(self, load: tuple[ForceArray, ForceArray, ForceArray]) -> tuple[ForceArray, ForceArray]:
        """The free end's lever counts in the pull."""
        return self.joint.lever_pull(self._on_the_plate(load)), np.hypot(load[1], load[2])

    def shape_asks(self) -> Iterator[tuple[str, bool]]:
        yield from self.joint.asks()
        yield from backing_asks(cast(BoltedOn, self.mount.lands_on), self.spot, self.tables)
        yield from wall_asks(self.joint.plate, self.joint.frame.placement, self.seat)

    def working(self, row: Governing) -> Working:
        load = np.array(row.load[0]), np.array(row.load[1]), np.array(row.load[2])
        pull, shear = (float(part) for part in self.pull_and_shear(load))
        on = cast(BoltedOn, self.mount.lands_on)
        if steps := spot_working(on, self.spot, pull, shear, row, self.tables):
            return steps
        return working(self.joint, row, self._on_the_plate(load))

    def parts(self, tables: Tables) -> Iterator[FlatPart]:
        yield from tab_parts(self.id, self.mount.name, self.joint, self.seat.box_name)
        yield from backing_parts(self.id, self.mount.name, cast(BoltedOn, self.mount.lands_on), tables)

    def bought(self) -> Iterator[str]:
        clamped = self.joint.plate.thickness_mm + self.joint.shape.packing_mm
        yield bolt_bought(cast(BoltedOn, self.mount.lands_on), self.spot, clamped, self.tables)
        yield from self.joint.plate.bought()

    def sits_on(self, solid: Solid) -> bool:
        return lies_on(self.spot, solid)

    @property
    def on_tube(self) -> Seat | None:
        return self.seat if self.mount.face == "base" else None

    @property
    def slides(self) -> int | None:
        return SLIDES[self.joint.shape.hole]
