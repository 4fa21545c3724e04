"""Where a mount lands on the vehicle: a place, which way the metal faces, and what is known of it."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from typing import Any

from levelcradle.core.axes import Vec, cross, dot, minus, plus, scaled, unit
from levelcradle.core.crossmember import PlacedCrossmember, crossmember_of
from levelcradle.core.design import Design, HardPoint
from levelcradle.core.design.mount import Isolator, LandsOn, OnCrossmember, OnHardPoint, OnMember, OnTwo
from levelcradle.core.design.survey import Member

__all__ = ["TESTED", "Spot", "crossmember_in", "frame_of", "spot_of"]

TESTED = ("rivet nut", "insert", "tapped thread")  # they count for what a shop's own pull test held
LEVEL = 0.7  # of the cosine: a bolt goes along the height of a section, or else along its width


@dataclass(frozen=True, slots=True)
class Spot:
    """A place that carries a mount. ``n``: from the vehicle's metal into the mount, length 1.

    ``wall_mm``: what a bolt there goes through, as far as it was measured; ``clamps_closed``: that is both walls of a
    closed section; ``unapproved``: it holds a seat or a belt, and nobody has said who approved it for more;
    ``tested_n``: what one like it held in a test; ``isolator``: rubber that a bracket there stands on; ``to``: the
    other end of what goes from one to another."""

    path: str
    name: str
    at: Vec
    n: Vec
    structure: str
    thread: str | None = None
    carried_kg: float | None = None
    kind: str = ""
    wall_mm: float | None = None
    clamps_closed: bool = False
    unapproved: bool = False
    tested_n: float | None = None
    isolator: Isolator | None = None
    to: "Spot | None" = None

    @property
    def untested(self) -> bool:
        """Whether it counts for nothing in a crash until one like it was tried."""
        return self.kind in TESTED and self.tested_n is None

    @property
    def ends(self) -> tuple["Spot", ...]:
        return (self, self.to) if self.to else (self,)


def frame_of(member: Member) -> tuple[Vec, Vec]:
    """(along, up) of a member, its width level."""
    along = unit(minus(member.end_mm, member.start_mm))
    flat = (along[0] ** 2 + along[1] ** 2) ** 0.5
    side = (-along[1] / flat, along[0] / flat, 0.0) if flat > 1e-9 else (0.0, 1.0, 0.0)
    return along, cross(along, side)


def spot_of(lands_on: LandsOn, design: Design) -> Spot:
    return _SPOTS[lands_on.type](lands_on, design)


def _hard_point(lands_on: OnHardPoint, design: Design) -> Spot:
    point = design.hardpoints[lands_on.hardpoint]
    member = design.members.get(point.member or "")
    return Spot(
        lands_on.path,
        point.name,
        point.at_mm,
        point.direction,
        point.structure,
        point.thread,
        point.carried_kg,
        kind=point.kind,
        wall_mm=_through_mm(point, member),
        clamps_closed=point.kind == "hole" and member is not None and member.section in ("closed", "tube"),
        unapproved=point.kind == "seat or belt point" and not point.approved.strip(),
        tested_n=point.tested_n,
        isolator=lands_on.isolator,
    )


def _two(lands_on: OnTwo, design: Design) -> Spot:
    one, other = (
        _hard_point(OnHardPoint(hardpoint=key, bolt=lands_on.bolt), design)
        for key in (lands_on.hardpoint, lands_on.other)
    )
    return replace(one, to=other)


def _through_mm(point: HardPoint, member: Member | None) -> float | None:
    """What a bolt there goes through: a sheet, or where it clamps a closed section all of that; None where nobody has
    measured it."""
    if point.kind == "hole" and member is not None and member.section in ("closed", "tube"):
        _, up = frame_of(member)
        return member.height_mm if abs(dot(up, point.direction)) > LEVEL else member.width_mm
    return point.wall_mm


def _member(lands_on: OnMember, design: Design) -> Spot:
    """On the middle line of its top."""
    member = design.members[lands_on.member]
    along, up = frame_of(member)
    at = plus(plus(member.start_mm, scaled(along, lands_on.along_mm)), scaled(up, member.height_mm / 2))
    return Spot(lands_on.path, member.name, at, up, member.structure)


def crossmember_in(design: Design, key: str) -> PlacedCrossmember:
    """A crossmember of a design in place."""
    spec = design.crossmembers[key]
    one, other = (design.hardpoints[name] for name in spec.hardpoints)
    return crossmember_of(key, spec, one, other, design.tables.materials[spec.material])


def _crossmember(lands_on: OnCrossmember, design: Design) -> Spot:
    bar = crossmember_in(design, lands_on.crossmember)
    at, n = bar.lands(lands_on.along_mm, top=lands_on.top)
    closed = bar.spec.section == "tube"
    return Spot(
        *(lands_on.path, bar.spec.name, at, n, bar.ends[0].structure),
        thread=lands_on.bolt.size,
        kind="hole",
        wall_mm=bar.through_mm,
        clamps_closed=closed,
    )


_SPOTS: Mapping[str, Callable[[Any, Design], Spot]] = {
    "hardpoint": _hard_point,
    "member": _member,
    "two": _two,
    "crossmember": _crossmember,
}
