"""Every mount of a design with its uses over all cases and the whole envelope."""

from collections.abc import Container, Hashable, Iterable, Iterator, Sequence
from dataclasses import dataclass

import numpy as np

from levelcradle.core.assembly import Assembly, PlacedBox
from levelcradle.core.axes import Matrix
from levelcradle.core.connection import Connection, ForceArray
from levelcradle.core.design import Tables
from levelcradle.core.design.tables import LoadCase
from levelcradle.core.finding import State, utilisation_state
from levelcradle.core.memo import Memo, written
from levelcradle.core.mount.one_sided import one_sided_envelope
from levelcradle.core.mount.reactions import Support, envelope, judge_support
from levelcradle.core.strength import SHAKEN_G

__all__ = [
    "Demand",
    "Loads",
    "MountResult",
    "SupportResult",
    "UtilisationRow",
    "loads_of",
    "solve_names",
    "support_result",
    "support_without",
]


Parts = tuple[ForceArray, ForceArray, ForceArray]
"""Of the three parts of a load on a mount, each solve and case (s, k) [N]."""
STANDING_G = np.array((0.0, 0.0, -1.0))


@dataclass(frozen=True, slots=True)
class UtilisationRow:
    """One check of a mount: its worst use and state, in which case and solve, and the loads there [N].

    A rough check, as that of the wall, is never better than tight.
    """

    check: str
    utilisation: float
    state: State
    case: str
    kind: str
    solve: str
    n: float
    d: float
    w: float


@dataclass(frozen=True, slots=True)
class Demand:
    """What a spot must carry in one case: largest pull (a toe's lever included) and shear of the envelope [N]; of what
    only lies on it, the press."""

    case: str
    pull_n: float
    shear_n: float
    press_n: float = 0.0


@dataclass(frozen=True, slots=True)
class MountResult:
    """A mount: its uses (weakest first), its shape's demands, what its spot must carry, and tightening.

    ``unchecked`` says in words why no use is given; then ``rows`` is empty. ``remarks``: what lies outside the
    standard's range."""

    id: str
    connection: Connection
    rows: tuple[UtilisationRow, ...]
    geometry: tuple[tuple[str, bool], ...]
    demands: tuple[Demand, ...]
    torque_nm: float
    preload_n: float
    unchecked: str = ""
    remarks: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class SupportResult:
    """What carries one box. ``mounts`` is empty where the support does not hold; ``words`` says why."""

    box: str
    support: Support
    words: str
    mounts: tuple[MountResult, ...]
    unfit: tuple[tuple[Connection, str], ...]  # (mount, why it cannot stand where it is)


def support_result(assembly: Assembly) -> tuple[SupportResult, ...]:
    """Reactions and uses for every box."""
    tables = assembly.tables
    rules = written(tables)
    return tuple(_supports.get((box, rules), lambda box=box: _of_box(box, tables)) for box in assembly.boxes.values())  # type: ignore[misc]


_supports: Memo[SupportResult] = Memo(512)


def support_without(assembly: Assembly, box_id: str, mount: str) -> SupportResult:
    """What carries a box where one of its mounts has let go."""
    return _of_box(assembly.boxes[box_id], assembly.tables, without=mount)


@dataclass(frozen=True, slots=True)
class Loads:
    """What a box throws on its mounts: (s, k, n, 3) forces [N] of every solve and case on each that stands, and to
    either side where it is shaken. ``words``: why there are none."""

    support: Support
    words: str
    standing: tuple[Connection, ...]
    thrown: Matrix
    shaken: Matrix


def loads_of(box: PlacedBox, tables: Tables, without: str | None = None) -> Loads:
    standing = tuple(m for m in box.mounts if m.contacts and not m.unfit and m.id != without)
    contacts = [c for m in standing for c in m.contacts]
    support, none = judge_support(contacts), np.zeros((0, 0, 0, 3))
    if not support.holds:
        return Loads(support, _words(support, standing), standing, none, none)
    cases = list(tables.load_cases.values())
    thrown_g = tables.load_factor * np.array([(c.aft_g, c.right_g, c.up_g) for c in cases])
    shaken_g = np.array(list(SHAKEN_G.values()))
    throws_g = np.concatenate([thrown_g, STANDING_G + shaken_g, STANDING_G - shaken_g])
    groups = [n for n, m in enumerate(standing) for _ in m.contacts]
    if all(c.can == "both" for c in contacts):
        places, springs = np.array([c.at for c in contacts]), _springs(standing)
        forces = envelope(places, np.array(box.hung_cg), box.hung_kg, throws_g, springs)
    else:
        found = one_sided_envelope(contacts, groups, np.array(box.hung_cg), box.hung_kg, throws_g)
        if found.lifts:
            names = [*(case.name for case in cases), *SHAKEN_G, *SHAKEN_G]
            words = " and in ".join(dict.fromkeys(names[n] for n in found.lifts))
            return Loads(Support("lifts off", support.ratio), f"lifts off in {words}", standing, none, none)
        forces = found.forces
    whole = np.add.reduceat(forces, [groups.index(n) for n in range(len(standing))], axis=2)
    thrown, one_way, other_way = np.split(whole, (len(cases), len(cases) + len(SHAKEN_G)), axis=1)
    return Loads(support, _words(support, standing), standing, thrown, (one_way - other_way) / 2)


def _springs(standing: Sequence[Connection]) -> Matrix | None:
    """How stiff isolators are beside each other; None where not all mounts stand on one: how stiff the vehicle is
    nobody says."""
    soft = [m.spot.isolator.stiffness_n_per_mm for m in standing for _ in m.contacts if m.spot.isolator]
    every = sum(len(m.contacts) for m in standing)
    return np.array(soft) / max(soft) if soft and len(soft) == every else None


def _of_box(box: PlacedBox, tables: Tables, without: str | None = None) -> SupportResult:
    loads = loads_of(box, tables, without)
    unfit = tuple((m, m.unfit) for m in box.mounts if m.unfit)
    mounts = _mounts(list(tables.load_cases.values()), loads) if loads.thrown.size else ()
    return SupportResult(box.id, loads.support, loads.words, mounts, unfit)


def _words(support: Support, standing: Sequence[Connection]) -> str:
    names = [m.mount.name for m in standing]
    return {
        "nothing": "held by nothing",
        "one": "free to turn about the bolt, three ways",
        "line": f"free to turn about the line through {names[0]} and {names[-1]}" if len(names) > 1 else "",
        "loose": "free to slide or turn: what it only lies on holds it one way",
        "same place": "two mounts are in one place",
        "nearly in line": "mounts are nearly in line",
    }.get(support.support_condition, "")


def _mounts(cases: list[LoadCase], loads: Loads) -> tuple[MountResult, ...]:
    """Of each mount that stands; those that are alike are worked out together."""
    standing, names = loads.standing, solve_names(loads.standing)
    alike: dict[Hashable, list[int]] = {}
    for n, mount in enumerate(standing):
        alike.setdefault(mount.alike, []).append(n)
    found: dict[int, MountResult] = {}
    for group in alike.values():
        mounts = [standing[n] for n in group]
        thrown, shaken = _parts(mounts, loads.thrown[:, :, group]), _parts(mounts, loads.shaken[:, :, group])
        rows: list[list[UtilisationRow]] = [[] for _ in group]
        for n, row in _rows(mounts[0], thrown, shaken, cases, names):
            rows[n].append(row)
        demands = _demands(mounts[0], thrown, cases)
        found.update(zip(group, map(_mount, mounts, rows, demands), strict=True))
    return tuple(found[n] for n in range(len(standing)))


def _parts(mounts: Sequence[Connection], forces: Matrix) -> Parts:
    """(mounts, s, k) of each part of (s, k, mounts, 3) forces."""
    parts = [mount.parts_of(forces[:, :, n]) for n, mount in enumerate(mounts)]
    n, d, w = (np.stack(rows) for rows in zip(*parts, strict=True))
    return n, d, w


def _demands(mount: Connection, load: Parts, cases: list[LoadCase]) -> list[tuple[Demand, ...]]:
    """Of each of a number of mounts like one."""
    press = np.maximum(-load[0], 0.0) if mount.bears_face else np.zeros_like(load[0])
    most = [part.max(axis=1).tolist() for part in (*mount.pull_and_shear(load), press)]
    names = [case.name for case in cases]
    return [tuple(map(Demand, names, *rows)) for rows in zip(*most, strict=True)]


def _mount(mount: Connection, rows: Iterable[UtilisationRow], demands: tuple[Demand, ...]) -> MountResult:
    ranked, asks = sorted(rows, key=lambda row: -row.utilisation), tuple(mount.shape_asks())
    return MountResult(mount.id, mount, tuple(ranked), asks, demands, *mount.tightening, mount.unchecked, mount.remarks)


def solve_names(standing: Sequence[Connection]) -> list[str]:
    return ["equal springs"] + [f"{m.mount.name} at {how}" for how in ("half", "double") for m in standing]


def _rows(
    mount: Connection, thrown: Parts, shaken: Parts, cases: list[LoadCase], names: list[str]
) -> Iterator[tuple[int, UtilisationRow]]:
    """Of each of a number of mounts like one, its number among them and the worst use of each check over all cases and
    solves; of each weld also where it is shaken. The parts: (mounts, s, k)."""
    if mount.unchecked:
        return
    road = np.array([case.kind == "road" for case in cases])
    uses = mount.utilisations(thrown, road=road)
    yield from _worst(uses, thrown, [(case.name, case.kind) for case in cases], names, mount.rough)
    yield from _worst(mount.fatigue(shaken), shaken, [(name, "shaken") for name in SHAKEN_G], names)


def _worst(
    uses: Iterable[tuple[str, ForceArray]],
    load: Parts,
    cases: Sequence[tuple[str, str]],
    names: Sequence[str],
    rough: Container[str] = (),
) -> Iterator[tuple[int, UtilisationRow]]:
    for check, utilisation in uses:
        for n, at in enumerate(utilisation.reshape(len(utilisation), -1).argmax(axis=1).tolist()):
            solve, column = divmod(at, len(cases))
            worst, pull, out, along = (float(values[n, solve, column]) for values in (utilisation, *load))
            (case, kind), state = cases[column], utilisation_state(worst)
            state = "tight" if check in rough and state == "clear" else state
            yield n, UtilisationRow(check, worst, state, case, kind, names[solve], pull, out, along)
