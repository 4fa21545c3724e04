"""Every mount of a design with its uses over all cases and the whole envelope."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import numpy as np

from levelcradle.core.assembly import Assembly, PlacedBox
from levelcradle.core.axes import Matrix
from levelcradle.core.connection import Connection, ForceArray
from levelcradle.core.design import Tables
from levelcradle.core.design.tables import LoadCase
from levelcradle.core.finding import State, utilisation_state
from levelcradle.core.memo import Memo
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
    rules = tables.model_dump_json(exclude={"gaps"})
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
    whole = np.stack([forces[:, :, [g == n for g in groups]].sum(axis=2) for n in range(len(standing))], axis=2)
    thrown, one_way, other_way = np.split(whole, (len(cases), len(cases) + len(SHAKEN_G)), axis=1)
    return Loads(support, _words(support, standing), standing, thrown, (one_way - other_way) / 2)


def _springs(standing: Sequence[Connection]) -> Matrix | None:
    """How stiff isolators are beside each other; None where not all mounts stand on one: how stiff the vehicle is
    nobody says."""
    soft = [m.spot.isolator.stiffness_n_per_mm for m in standing for _ in m.contacts if m.spot.isolator]
    every = sum(len(m.contacts) for m in standing)
    return np.array(soft) / max(soft) if soft and len(soft) == every else None


def _of_box(box: PlacedBox, tables: Tables, without: str | None = None) -> SupportResult:
    loads, cases = loads_of(box, tables, without), list(tables.load_cases.values())
    unfit = tuple((m, m.unfit) for m in box.mounts if m.unfit)
    forces = zip(np.moveaxis(loads.thrown, 2, 0), np.moveaxis(loads.shaken, 2, 0), strict=True)
    mounts = tuple(
        _mount(cases, mount, thrown, shaken, loads.standing)
        for mount, (thrown, shaken) in zip(loads.standing, forces, strict=False)
    )
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


def _mount(
    cases: list[LoadCase], mount: Connection, forces: Matrix, shaken: Matrix, standing: Sequence[Connection]
) -> MountResult:
    names = solve_names(standing)
    loads, unchecked = mount.parts_of(forces), mount.unchecked
    every = () if unchecked else (*_worst(mount, loads, cases, names), *_shaken(mount, mount.parts_of(shaken), names))
    rows = sorted(every, key=lambda row: -row.utilisation)
    press = np.maximum(-loads[0], 0.0) if mount.bears_face else np.zeros_like(loads[0])
    most = (load.max(axis=0).tolist() for load in (*mount.pull_and_shear(loads), press))
    demands = tuple(Demand(case.name, *row) for case, *row in zip(cases, *most, strict=True))
    return MountResult(
        mount.id, mount, tuple(rows), tuple(mount.shape_asks()), demands, *mount.tightening, unchecked, mount.remarks
    )


def solve_names(standing: Sequence[Connection]) -> list[str]:
    return ["equal springs"] + [f"{m.mount.name} at {how}" for how in ("half", "double") for m in standing]


def _shaken(
    mount: Connection, loads: tuple[ForceArray, ForceArray, ForceArray], names: list[str]
) -> Iterator[UtilisationRow]:
    """The worst use of each weld that is shaken, over all solves."""
    cases = list(SHAKEN_G)
    for check, utilisation in mount.fatigue(loads):
        solve, column = divmod(int(utilisation.argmax()), len(cases))
        worst, at = float(utilisation[solve, column]), (float(load[solve, column]) for load in loads)
        yield UtilisationRow(check, worst, utilisation_state(worst), cases[column], "shaken", names[solve], *at)


def _worst(
    mount: Connection, loads: tuple[ForceArray, ForceArray, ForceArray], cases: list[LoadCase], names: list[str]
) -> Iterator[UtilisationRow]:
    """The worst use of each check over road and crash cases and all solves."""
    road, rough = np.array([case.kind == "road" for case in cases]), mount.rough
    for check, utilisation in mount.utilisations(loads, road=road):
        solve, column = divmod(int(utilisation.argmax()), len(cases))
        case, at = cases[column], (float(load[solve, column]) for load in loads)
        worst = float(utilisation[solve, column])
        state = utilisation_state(worst)
        yield UtilisationRow(
            check,
            worst,
            "tight" if check in rough and state == "clear" else state,
            case.name,
            case.kind,
            names[solve],
            *at,
        )
