"""One mount as it stands between the vehicle and its box, in two views, and what all mounts of that box carry, case by
case."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np

from levelcradle.core.assembly import Assembly, PlacedBox
from levelcradle.core.axes import Placement, Vec, cross, dot, scaled, unit
from levelcradle.core.connection import Connection, ForceArray, Measure
from levelcradle.core.cuts import rings_at
from levelcradle.core.errors import UnknownThing
from levelcradle.core.mount import loads_of, solve_names
from levelcradle.core.solids import Polygon, Solid, projections
from levelcradle.core.strength import SHAKEN_G

__all__ = ["Carried", "CaseLoads", "DrawnMeasure", "DrawnMount", "DrawnPiece", "MountView", "case_loads", "drawn_mount"]

Flat = tuple[float, float]
MetalSide = Literal["below", "above", "left", "right", "behind"]
WORST = "worst of all"


@dataclass(frozen=True, slots=True)
class DrawnPiece:
    """One piece in a view, from the spot: right and up. ``role``: of the mount, its welds, or the box."""

    role: str
    name: str
    ring: Polygon


@dataclass(frozen=True, slots=True)
class DrawnMeasure:
    words: str
    mm: float
    start: Flat
    end: Flat


@dataclass(frozen=True, slots=True)
class MountView:
    """One view of it.

    Attributes:
        looking: which way one looks; ``left``, ``right``: what lies at those hands.
        metal: on which side of the spot the vehicle's metal is.
        ways: which way in it (right, up) each part of the forces goes: off the metal, away from the box, along it; none
            where towards or from the eye.
    """

    looking: str
    left: str
    right: str
    metal: MetalSide
    pieces: tuple[DrawnPiece, ...]
    measures: tuple[DrawnMeasure, ...]
    ways: tuple[Flat, Flat, Flat]


@dataclass(frozen=True, slots=True)
class Carried:
    """What one mount carries in one case, in the solve that is worst for it: pulled off the metal, away from the box's
    face, along it [N]; its weakest check there, none where its strength is not given."""

    mount: str
    name: str
    case: str
    off_n: float
    away_n: float
    along_n: float
    solve: str
    check: str
    utilisation: float | None


@dataclass(frozen=True, slots=True)
class CaseLoads:
    """One case; the first of all is that each mount is in which it is used most. ``kind``: road, crash, or shaken to
    either side."""

    case: str
    kind: str
    mounts: tuple[Carried, ...]


@dataclass(frozen=True, slots=True)
class DrawnMount:
    """``spot``: what it lands on; ``views``: beside it, and at the face that it holds, none where it cannot be made."""

    spot: str
    views: tuple[MountView, ...]
    cases: tuple[CaseLoads, ...]


def drawn_mount(assembly: Assembly, mount_id: str) -> DrawnMount:
    """Raises UnknownThing."""
    for box in assembly.boxes.values():
        for mount in box.mounts:
            if mount.id == mount_id:
                return DrawnMount(mount.spot.name, tuple(_views(box, mount)), tuple(case_loads(assembly, box)))
    raise UnknownThing("mount", mount_id)


_WAYS = (("aft", "forward"), ("right", "left"), ("up", "down"))
_HANDS = (("AFT", "FORE"), ("RIGHT", "LEFT"), ("UP", "DOWN"))


def _named(way: Vec, names: Sequence[tuple[str, str]]) -> str:
    """The name of a direction, by the axis that it goes along most."""
    axis = int(np.argmax(np.abs(way)))
    return names[axis][0 if way[axis] > 0 else 1]


def _views(box: PlacedBox, mount: Connection) -> Iterator[MountView]:
    """Beside it one looks forward or right, so that the car's left or its nose is at the left; at the face from
    outside. Up is up, as far as it has a way that goes up."""
    frame = mount.frame_mm
    if frame is None:
        return
    away, _, n = ways = [frame.direction(way) for way in ((1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0))]
    up, level = (n, away) if abs(n[2]) >= abs(away[2]) - 1e-9 else (away, n)
    beside = _frame_of(_positive(level), _upward(up), frame.origin)
    cut = [DrawnPiece("box", p.name, r) for p in box.shell.pieces for s in p.solids for r in _cut(s, box, beside)]
    rings = [(p, list(rings_at(p.solid.moved(beside.inverse), 0.0))) for p in mount.pieces]
    # what stands beside the cut is seen behind it
    behind = [DrawnPiece("mount", p.name, _outline(p.solid, beside)) for p, met in rings if not met]
    pieces = [DrawnPiece("mount", p.name, ring) for p, met in rings for ring in met]
    outlines = [DrawnPiece("weld", "weld", _outline(s, beside)) for s in mount.welds]
    yield _view(mount, beside, (*cut, *behind, *pieces, *outlines), at_wall=False)
    flat = [way for way in ways if abs(dot(way, mount.outward)) < 0.5]
    up = _upward(max(flat, key=lambda way: (round(abs(way[2]), 6), way is n)))
    ahead = _frame_of(unit(cross(up, mount.outward)), up, frame.origin)
    faces = [
        DrawnPiece("box", p.name, _outline(s.moved(box.placement), ahead))
        for p in box.shell.pieces
        if p.role in ("wall", "base")
        for s in p.solids
    ]
    nearer_last = sorted(mount.pieces, key=lambda p: p.solid.moved(ahead.inverse).high[0])
    pieces = [DrawnPiece("mount", p.name, _outline(p.solid, ahead)) for p in nearer_last]
    outlines = [DrawnPiece("weld", "weld", _outline(s, ahead)) for s in mount.welds]
    yield _view(mount, ahead, (*faces, *pieces, *outlines), at_wall=True)


def _upward(way: Vec) -> Vec:
    return scaled(way, 1.0 if way[2] > -1e-9 else -1.0)


def _positive(way: Vec) -> Vec:
    """Aft, right or up, by the axis that it goes along most."""
    return scaled(way, 1.0 if way[int(np.argmax(np.abs(way)))] > 0 else -1.0)


def _frame_of(right: Vec, up: Vec, at: Vec) -> Placement:
    """Its second axis to the right of a view and its third up; the first comes towards the eye."""
    return Placement(np.array([cross(right, up), right, up]).T, at)


def _cut(solid: Solid, box: PlacedBox, frame: Placement) -> Iterator[Polygon]:
    return rings_at(solid.moved(box.placement).moved(frame.inverse), 0.0)


def _outline(solid: Solid, frame: Placement) -> Polygon:
    """(right, up) of all of it."""
    turned = Placement(np.array([[0.0, 1.0, 0.0], [-1.0, 0.0, 0.0], [0.0, 0.0, 1.0]]), (0.0, 0.0, 0.0))
    return projections(solid.moved(frame.inverse).moved(turned))[1]


def _view(mount: Connection, frame: Placement, pieces: tuple[DrawnPiece, ...], *, at_wall: bool) -> MountView:
    right, up, own = frame.direction((0.0, 1.0, 0.0)), frame.direction((0.0, 0.0, 1.0)), mount.frame_mm
    assert own is not None
    looks, left = cross(up, right), scaled(right, -1.0)
    measures = tuple(_measured(row, mount, frame) for row in mount.measures if row.at_wall is at_wall)
    off, away, along = (
        (round(dot(way, right), 6), round(dot(way, up), 6))
        for way in (own.direction((0.0, 0.0, 1.0)), own.direction((1.0, 0.0, 0.0)), own.direction((0.0, 1.0, 0.0)))
    )
    return MountView(
        f"looking {_named(looks, _WAYS)}",
        _named(left, _HANDS),
        _named(right, _HANDS),
        _metal_side(off),
        pieces,
        measures,
        (off, away, along),
    )


def _metal_side(off: Flat) -> MetalSide:
    """Where the metal is in a view that shows the way off it; behind, where one looks at its face."""
    if max(abs(off[0]), abs(off[1])) < 0.5:
        return "behind"
    if abs(off[1]) >= abs(off[0]):
        return "below" if off[1] > 0 else "above"
    return "left" if off[0] > 0 else "right"


def _measured(row: Measure, mount: Connection, frame: Placement) -> DrawnMeasure:
    own = mount.frame_mm
    assert own is not None
    ends = [frame.inverse.point(own.point(at)) for at in (row.start, row.end)]
    (_, a, b), (_, c, d) = ends
    return DrawnMeasure(row.words, float(np.hypot(c - a, d - b)), (a, b), (c, d))


def case_loads(assembly: Assembly, box: PlacedBox) -> Iterator[CaseLoads]:
    """What the mounts of a box carry: first each in that case in which it is used most, then case by case, then as it
    is shaken. Nothing where they do not hold it."""
    loads, table = loads_of(box, assembly.tables), assembly.tables.load_cases.values()
    if not loads.thrown.size:
        return
    cases = [(case.name, str(case.kind)) for case in table] + [(name, "shaken") for name in SHAKEN_G]
    road, names = np.array([case.kind == "road" for case in table]), solve_names(loads.standing)
    rows = []
    for n, mount in enumerate(loads.standing):
        thrown, shaken = mount.parts_of(loads.thrown[:, :, n]), mount.parts_of(loads.shaken[:, :, n])
        uses = {} if mount.unchecked else dict(mount.utilisations(thrown, road=road))
        tires = {} if mount.unchecked else dict(mount.fatigue(shaken))
        worst = [*_worst(thrown, uses), *_worst(shaken, tires)]
        rows.append(
            [
                Carried(mount.id, mount.mount.name, case, *parts, names[solve], check, use)
                for (case, _), (parts, solve, check, use) in zip(cases, worst, strict=True)
            ]
        )
    yield CaseLoads(WORST, "", tuple(max(row, key=lambda one: one.utilisation or 0.0) for row in rows))
    for k, (name, kind) in enumerate(cases):
        yield CaseLoads(name, kind, tuple(row[k] for row in rows))


Parts = tuple[float, float, float]


def _worst(
    parts: tuple[ForceArray, ForceArray, ForceArray], checks: Mapping[str, ForceArray]
) -> Iterator[tuple[Parts, int, str, float | None]]:
    """Case by case the solve in which a mount is used most, or where no use is given the one that throws most: what it
    carries then, which solve, by which check, how far."""
    for k in range(parts[0].shape[1]):
        check = max(checks, key=lambda name: float(checks[name][:, k].max()), default="")
        size = checks[check][:, k] if check else np.linalg.norm([part[:, k] for part in parts], axis=0)
        solve = int(size.argmax())
        off, away, along = (float(part[solve, k]) for part in parts)
        yield (off, away, along), solve, check, float(size[solve]) if check else None
