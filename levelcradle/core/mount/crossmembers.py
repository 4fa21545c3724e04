"""What boxes on a crossmember do to it, as a beam on its two hard points, and to its two ends; how far it sags."""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import numpy as np

from levelcradle.core.assembly import Assembly, PlacedBox
from levelcradle.core.axes import Matrix
from levelcradle.core.connection import Connection, ForceArray
from levelcradle.core.crossmember import PlacedCrossmember
from levelcradle.core.design.mount import OnCrossmember
from levelcradle.core.design.tables import LoadCase, Tables
from levelcradle.core.finding import Step
from levelcradle.core.mount.beam import STATICS, Beam, BeamState, CheckOfBar, Thrown, beam_checks, together
from levelcradle.core.mount.result import Demand, loads_of
from levelcradle.core.strength import (
    STIFF_MPA,
    bearing_n,
    bolt_utilisation,
    preload,
    weld_mpa,
    yield_beside_weld,
)

__all__ = [
    "SAG_SHARE",
    "CrossmemberResult",
    "bolted",
    "crossmember_result",
    "sag_mm",
    "thrown_on",
]

SAG_SHARE = 1 / 500  # of its span at rest: the shop's line, common practice, no source
REST_G = (0.0, 0.0, -1.0)


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
    beam = _beam(bar, _left(bar, boxes, assembly.tables))
    states = [BeamState.of(beam, row, at) for row in loads]
    every = (*beam_checks(beam, states, cases), *_end_checks(bar, states, cases, assembly.tables))
    checks = sorted(every, key=lambda row: -row.utilisation)
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


def _beam(bar: PlacedCrossmember, left: float) -> Beam:
    metal, welded = bar.material, bar.spec.ends == "welded"
    fy = yield_beside_weld(metal, bar.spec.wall_mm) if welded else metal.yield_mpa
    return Beam(bar.section, bar.span_mm, fy, left)


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
    bar: PlacedCrossmember, states: Sequence[BeamState], cases: list[LoadCase], tables: Tables
) -> Iterator[CheckOfBar]:
    road = np.array([case.kind == "road" for case in cases])
    lifted, slid, twisted = (together(states, name) for name in ("lifted", "slid", "twisted"))
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


def _demands(
    bar: PlacedCrossmember, states: Sequence[BeamState], cases: list[LoadCase], end: int
) -> tuple[Demand, ...]:
    lifted, slid, twisted = (together(states, name)[:, end] for name in ("lifted", "slid", "twisted"))
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
