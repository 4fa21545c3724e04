"""What boxes on a crossmember do to it: a bar free to turn at both ends, bent both ways, twisted and drawn along, and
its two ends. Several boxes on one count together, case by case, each by its own worst solve.

Source: statics of a beam on two supports; sections by EN 1993-1-1, 6.2 (from memory): plastic in a crash, elastic on
yield / 1.5 on the road; sums without signs, as of legs (cautious, no source)."""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from levelcradle.core.assembly import Assembly, PlacedBox
from levelcradle.core.axes import Matrix
from levelcradle.core.connection import Connection, ForceArray
from levelcradle.core.crossmember import PlacedCrossmember
from levelcradle.core.design.mount import OnCrossmember
from levelcradle.core.design.tables import LoadCase, Tables
from levelcradle.core.finding import Step, Working
from levelcradle.core.mount.result import Demand, loads_of
from levelcradle.core.strength import (
    GAMMA_M0,
    ROAD_FACTOR,
    STIFF_MPA,
    bearing_n,
    bolt_utilisation,
    preload,
    weld_mpa,
    yield_beside_weld,
)

__all__ = [
    "SAG_SHARE",
    "CheckOfBar",
    "CrossmemberResult",
    "bolted",
    "crossmember_result",
    "end_forces",
    "sag_mm",
    "thrown_on",
]

SAG_SHARE = 1 / 500  # of its span at rest: the shop's line, common practice, no source
STATICS = "a beam on two supports, free to turn at its ends (statics)"
WHY_CAUTIOUS = "sums without signs (cautious, no source)"
REST_G = (0.0, 0.0, -1.0)
ALONG = (1.0, 0.0, 0.0)


@dataclass(frozen=True, slots=True)
class Thrown:
    """What mounts of one box throw on a bar, in its frame: (s, k, n, 3) forces [N], and (n, 3) where [mm], from the
    middle of its first end's face."""

    forces: Matrix
    at: Matrix


@dataclass(frozen=True, slots=True)
class CheckOfBar:
    """One check of a bar: its worst use, in which case, and how that came about."""

    check: str
    utilisation: float
    case: str
    working: Working


@dataclass(frozen=True, slots=True)
class CrossmemberResult:
    """A crossmember with its checks (weakest first), what its two hard points must carry, and how far it sags at rest.

    ``unchecked``: why no use is given."""

    bar: PlacedCrossmember
    boxes: tuple[PlacedBox, ...]
    checks: tuple[CheckOfBar, ...] = ()
    demands: tuple[tuple[Demand, ...], tuple[Demand, ...]] = ((), ())
    sag_mm: float | None = None
    unchecked: str = ""


def crossmember_result(assembly: Assembly) -> tuple[CrossmemberResult, ...]:
    return tuple(_of_bar(assembly, bar) for bar in assembly.crossmembers.values())


def _of_bar(assembly: Assembly, bar: PlacedCrossmember) -> CrossmemberResult:
    boxes = tuple(b for b in assembly.boxes.values() if any(m.spot.path == bar.path for m in b.mounts))
    if bar.unfit or not boxes:
        return CrossmemberResult(bar, boxes, unchecked=bar.unfit or "nothing lies on it")
    found = [thrown_on(bar, box, assembly.tables) for box in boxes]
    loose = next((box for box, row in zip(boxes, found, strict=True) if row is None), None)
    if loose is not None:
        return CrossmemberResult(bar, boxes, unchecked=f"what carries {loose.box.name} does not hold it")
    loads, cases = [row for row in found if row is not None], list(assembly.tables.load_cases.values())
    if any((row.at[:, 0] < 0).any() or (row.at[:, 0] > bar.span_mm).any() for row in loads):
        return CrossmemberResult(bar, boxes, unchecked="a mount lands on it beyond its hard points")
    at = np.unique(np.concatenate([row.at[:, 0] for row in loads]))
    states = [_State.of(bar, row, at) for row in loads]
    checks = sorted(
        _checks(bar, states, cases, _left(bar, boxes, assembly.tables), assembly.tables),
        key=lambda row: -row.utilisation,
    )
    ends = [_demands(bar, states, cases, end) for end in (0, 1)]
    return CrossmemberResult(
        bar, boxes, tuple(checks), (ends[0], ends[1]), _sag(bar, loads, cases, assembly.tables.load_factor)
    )


def thrown_on(bar: PlacedCrossmember, box: PlacedBox, tables: Tables) -> Thrown | None:
    """What a box's mounts on a bar throw on it; None where what carries the box does not hold."""
    loads = loads_of(box, tables)
    on = [n for n, mount in enumerate(loads.standing) if mount.spot.path == bar.path]
    if not on or not loads.thrown.size:
        return None
    places = np.array([loads.standing[n].contacts[0].at for n in on])
    local = (places - np.array(bar.frame.origin)) @ bar.frame.turn
    return Thrown(loads.thrown[:, :, on] @ bar.frame.turn, local)


def end_forces(forces: Matrix, at: Matrix, span_mm: float) -> tuple[Matrix, Matrix]:
    """(…, 3) what forces (…, n, 3) at places (n, 3) along a bar press its two ends with [N], in its frame: both balance
    every moment across the bar; what is drawn along it they share."""
    x = np.array(ALONG)
    whole, moment = forces.sum(axis=-2), np.cross(at, forces).sum(axis=-2)
    far = np.cross(moment, x) / span_mm + whole[..., :1] / 2 * x
    return whole - far, far


@dataclass(frozen=True, slots=True)
class _State:
    """Of one box's load in a bar, most of its solves, without signs.

    Attributes:
        bent: (k, p, 2) moments about y and z [N·mm] at each place, the greater of just before and just behind it.
        sheared: (k, 2) along z and y [N]; twisted: (k, 2) at either end [N·mm]; drawn: (k,) along [N].
        lifted, slid: (k, 2) what pulls at either end off the metal, and shears it [N].
    """

    bent: Matrix
    sheared: Matrix
    twisted: Matrix
    drawn: Matrix
    lifted: Matrix
    slid: Matrix

    @staticmethod
    def of(bar: PlacedCrossmember, row: Thrown, places: Matrix) -> "_State":
        forces, span, x = row.forces, bar.span_mm, np.array(ALONG)
        at = row.at - np.array((0.0, *bar.figures.middle_mm))
        near, far = end_forces(forces, at, span)
        bent, sheared = [], [np.abs(near), np.abs(far)]
        for place in places:
            for before in (at[:, 0] < place - 1e-6, at[:, 0] <= place + 1e-6):
                gone = forces[:, :, before]
                inside = -place * np.cross(x, near)
                inside = inside - np.cross(at[before] - place * x, gone).sum(axis=2)
                bent.append(np.abs(inside[..., 1:]))
                sheared.append(np.abs(near - gone.sum(axis=2)))
        arms = row.at - np.array((0.0, *bar.figures.turns_about_mm))
        turning = np.cross(arms * (0.0, 1.0, 1.0), forces)[..., 0]
        share = at[:, 0] / span
        twisted = np.stack([(turning * (1 - share)).sum(axis=2), (turning * share).sum(axis=2)], axis=-1)
        ends = np.stack([near, far], axis=2)
        lifted, slid = np.maximum(ends[..., 2], 0.0), np.hypot(ends[..., 0], ends[..., 1])
        return _State(
            np.stack(bent, axis=2).max(axis=0).reshape(forces.shape[1], len(places), 2, 2).max(axis=2),
            np.stack(sheared).max(axis=0).max(axis=0)[:, [2, 1]],
            np.abs(twisted).max(axis=0),
            np.abs(forces[..., 0]).sum(axis=2).max(axis=0),
            lifted.max(axis=0),
            slid.max(axis=0),
        )


def _together(states: Sequence[_State], name: str) -> ForceArray:
    return np.asarray(sum(getattr(state, name) for state in states))


def _checks(
    bar: PlacedCrossmember, states: Sequence[_State], cases: list[LoadCase], left: float, tables: Tables
) -> Iterator[CheckOfBar]:
    road = np.array([case.kind == "road" for case in cases])
    yield from _bar_checks(bar, states, cases, left, road)
    yield from _end_checks(bar, states, cases, tables, road)


def _bar_checks(
    bar: PlacedCrossmember, states: Sequence[_State], cases: list[LoadCase], left: float, road: NDArray[np.bool_]
) -> Iterator[CheckOfBar]:
    spec, figures, metal = bar.spec, bar.figures, bar.material
    fy = yield_beside_weld(metal, spec.wall_mm) if spec.ends == "welded" else metal.yield_mpa
    stress = np.where(road, fy / ROAD_FACTOR, fy / GAMMA_M0)
    bent, drawn = _together(states, "bent"), _together(states, "drawn")
    modulus = [np.where(road, e, p) * left for p, e in zip(figures.plastic_mm3, figures.elastic_mm3, strict=True)]
    used = (
        bent[..., 0] / (modulus[0] * stress)[:, None]
        + bent[..., 1] / (modulus[1] * stress)[:, None]
        + (drawn / (figures.area_mm2 * left * stress))[:, None]
    )
    k, p = divmod(int(used.argmax()), used.shape[1])
    yield CheckOfBar(
        "bar, bent",
        float(used[k, p]),
        cases[k].name,
        (
            Step("moment, up and down", "the worst place, all boxes on it", float(bent[k, p, 0]), "N·mm", STATICS),
            Step("moment, level", "there", float(bent[k, p, 1]), "N·mm", STATICS),
            Step("drawn along", "shared by both ends", float(drawn[k]), "N", STATICS),
            Step("left beside its holes", "of its moduli", left, "", "net section (common practice, no source)"),
            Step("W, up and down", str(bar.section), float(modulus[0][k] / left), "mm³", "of the section"),
            Step("W, level", str(bar.section), float(modulus[1][k] / left), "mm³", "of the section"),
            Step("may be stressed", "fy / 1.1, on the road fy / 1.5", float(stress[k]), "MPa", WHY_CAUTIOUS),
            Step("use", "My / W f + Mz / W f + N / A f", float(used[k, p]), "", "EN 1993-1-1, 6.2.9, from memory"),
        ),
    )
    sheared, twisted = _together(states, "sheared"), _together(states, "twisted").max(axis=1)
    shear = stress / math.sqrt(3)
    used = (sheared / np.array(figures.sheared_mm2)).sum(axis=1) / shear + twisted / figures.twisted_mm3 / shear
    k = int(used.argmax())
    yield CheckOfBar(
        "bar, sheared and twisted",
        float(used[k]),
        cases[k].name,
        (
            Step("shear, up and down", "at its worst place", float(sheared[k, 0]), "N", STATICS),
            Step("shear, level", "at its worst place", float(sheared[k, 1]), "N", STATICS),
            Step("twist", "at its worse end, about its shear centre", float(twisted[k]), "N·mm", STATICS),
            Step("may be sheared", "f / √3", float(shear[k]), "MPa", "EN 1993-1-1, 6.2.6, from memory"),
            Step("use", "V / A f + T / W f", float(used[k]), "", WHY_CAUTIOUS),
        ),
    )


def _left(bar: PlacedCrossmember, boxes: Sequence[PlacedBox], tables: Tables) -> float:
    """What the holes of bolts on it leave of its moduli, as if one were at the worst place; a pad needs none."""
    mounts = [m for box in boxes for m in box.mounts if m.spot.path == bar.path]
    holes = [tables.bolts[on.bolt.size].clearance_hole_mm for m in mounts if (on := bolted(m)) is not None]
    if not holes:
        return 1.0
    hole, spec = max(holes), bar.spec
    if spec.section == "tube":
        return max(1 - hole * spec.wall_mm * (spec.size_mm - spec.wall_mm) / bar.figures.plastic_mm3[0], 0.05)
    return max(1 - hole / spec.size_mm, 0.05)


def bolted(mount: Connection) -> OnCrossmember | None:
    """Where a mount is bolted through a bar; None of what only lies on it."""
    on = mount.mount.lands_on
    return on if isinstance(on, OnCrossmember) and mount.mount.to_box.type != "loose" else None


def _end_checks(
    bar: PlacedCrossmember, states: Sequence[_State], cases: list[LoadCase], tables: Tables, road: NDArray[np.bool_]
) -> Iterator[CheckOfBar]:
    lifted, slid, twisted = (_together(states, name) for name in ("lifted", "slid", "twisted"))
    if bar.spec.ends == "welded":
        yield from _welded(bar, lifted, slid, twisted, cases)
        return
    size, grade = tables.bolts[bar.spec.bolt.size], tables.bolt_classes[bar.spec.bolt.property_class]
    pull = lifted + 2 * twisted / bar.spec.size_mm
    pressed = math.inf if bar.material.weldable_with == "steel" else bar.material.yield_mpa
    used = bolt_utilisation(pull, slid, size, grade, preload(size, grade, pressed), road=road[:, None])
    k, end = divmod(int(used.argmax()), 2)
    yield CheckOfBar(
        "end bolt",
        float(used[k, end]),
        cases[k].name,
        (
            Step("lifted with", "its end", float(lifted[k, end]), "N", STATICS),
            Step("pull T", "and 2 × its share of the twist / its width", float(pull[k, end]), "N", "statics"),
            Step("shear V", "along the metal", float(slid[k, end]), "N", STATICS),
            Step("use", "as of a bracket's bolt", float(used[k, end]), "", "EN 1993-1-8 table 3.4; road: no slip"),
        ),
    )
    edges, metal = (bar.spec.beyond_mm, bar.figures.across_mm), bar.spec.wall_mm
    walls = 2 * metal if bar.spec.section == "tube" else metal
    bears = bearing_n(size, grade.ultimate_mpa, bar.material.ultimate_mpa, walls, edges)
    used = slid / bears
    k, end = divmod(int(used.argmax()), 2)
    yield CheckOfBar(
        "end hole",
        float(used[k, end]),
        cases[k].name,
        (
            Step("shear V", "along the metal", float(slid[k, end]), "N", STATICS),
            Step("rim of the hole", "k1 αb fu d t / γM2", bears, "N", "EN 1993-1-8 table 3.4"),
            Step("use", "demand / capacity", float(used[k, end]), ""),
        ),
    )


def _welded(
    bar: PlacedCrossmember, lifted: ForceArray, slid: ForceArray, twisted: ForceArray, cases: list[LoadCase]
) -> Iterator[CheckOfBar]:
    """A fillet along both edges of what lies on the metal, as long as it goes on past the hard point to either side."""
    long, spec = 2 * bar.spec.beyond_mm, bar.spec
    throat = min(spec.weld_leg_mm / math.sqrt(2), 0.7 * spec.wall_mm)
    line = np.hypot(lifted / (2 * long) + twisted / (spec.size_mm * long), slid / (2 * long))
    bears = throat * weld_mpa((bar.material,))
    used = line / bears
    k, end = divmod(int(used.argmax()), 2)
    yield CheckOfBar(
        "end weld",
        float(used[k, end]),
        cases[k].name,
        (
            Step(
                "force per length", "two fillets, lifted, sheared and twisted", float(line[k, end]), "N/mm", "statics"
            ),
            Step("throat a", "min(leg / √2, 0.7 t)", throat, "mm", "common practice, no source"),
            Step("capacity", "of its own metal; the vehicle's is not known", bears, "N/mm", "EN 1993-1-8 4.5.3.3"),
            Step("use", "demand / capacity", float(used[k, end]), ""),
        ),
    )


def _demands(bar: PlacedCrossmember, states: Sequence[_State], cases: list[LoadCase], end: int) -> tuple[Demand, ...]:
    lifted, slid, twisted = (_together(states, name)[:, end] for name in ("lifted", "slid", "twisted"))
    pull = lifted + 2 * twisted / bar.spec.size_mm
    return tuple(Demand(case.name, float(pull[k]), float(slid[k])) for k, case in enumerate(cases))


def _sag(bar: PlacedCrossmember, loads: Sequence[Thrown], cases: list[LoadCase], factor: float) -> float | None:
    """How far it sags at rest, by equal springs, without the shop's factor; None where no case is at rest."""
    rest = next((k for k, case in enumerate(cases) if (case.aft_g, case.right_g, case.up_g) == REST_G), None)
    if rest is None:
        return None
    stiff = STIFF_MPA[bar.material.weldable_with] * bar.figures.second_mm4
    down = np.concatenate([row.forces[0, rest, :, 2] for row in loads]) / factor
    return sag_mm(down, np.concatenate([row.at[:, 0] for row in loads]), bar.span_mm, stiff)


def sag_mm(loads_n: Matrix, at_mm: Matrix, span_mm: float, stiff_n_mm2: float) -> float:
    """The most that a bar sags under point loads, in its middle or where one of them is. ``stiff_n_mm2``: E I. Source:
    F b x (L² − b² − x²) / 6 E I L, each load for itself (beam theory)."""
    sags = []
    for x in (*at_mm, span_mm / 2):
        near = np.where(x <= at_mm, x, span_mm - x)
        b = np.where(x <= at_mm, span_mm - at_mm, at_mm)
        bent = loads_n * b * near * (span_mm**2 - b**2 - near**2)
        sags.append(abs(float(bent.sum() / (6 * stiff_n_mm2 * span_mm))))
    return max(sags)
