"""Every mount of a design with its uses over all cases and the whole envelope."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

import numpy as np

from levelcradle.core.assembly import Assembly, PlacedBox, PlacedMount
from levelcradle.core.axes import Matrix
from levelcradle.core.design import HardPoint, Tables
from levelcradle.core.design.tables import LoadCase
from levelcradle.core.finding import State, use_state
from levelcradle.core.memo import Memo
from levelcradle.core.mount.angle_checks import AngleJoint, Load, geometry, lever_pull, out_of_range, tightening, uses
from levelcradle.core.mount.reactions import Support, envelope, judge_support

__all__ = ["Demand", "MountFigures", "SupportFigures", "UseRow", "local_loads", "support_figures"]

ROUGH = ("wall", "doubler patch")


@dataclass(frozen=True, slots=True)
class UseRow:
    """One check of a mount: its worst use and state, in which case and solve, and the loads there [N].

    The wall is a rough check: it is never better than tight.
    """

    check: str
    use: float
    state: State
    case: str
    kind: str
    solve: str
    n: float
    d: float
    w: float


@dataclass(frozen=True, slots=True)
class Demand:
    """What a hard point must carry in one case: largest pull (toe lever included) and shear of the envelope [N]."""

    case: str
    pull_n: float
    shear_n: float


@dataclass(frozen=True, slots=True)
class MountFigures:
    """A mount: its joint, its uses (weakest first), its geometry, what its hard point must carry, and tightening.

    ``unchecked`` says in words why no use is given; then ``rows`` is empty. ``remarks``: what lies outside the standard's range.
    """

    id: str
    joint: AngleJoint
    rows: tuple[UseRow, ...]
    geometry: tuple[tuple[str, bool], ...]
    demands: tuple[Demand, ...]
    torque_nm: float
    preload_n: float
    unchecked: str = ""
    remarks: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class SupportFigures:
    """What carries one box. ``mounts`` is empty where the support does not hold; ``words`` says why."""

    box: str
    support: Support
    words: str
    mounts: tuple[MountFigures, ...]
    unfit: tuple[tuple[str, str], ...]  # (mount id, why it cannot stand where it is)


def support_figures(assembly: Assembly) -> tuple[SupportFigures, ...]:
    """Reactions and uses for every box."""
    tables, points = assembly.design.tables, assembly.design.hardpoints
    rules = tables.model_dump_json(exclude={"gaps"})
    return tuple(_supports.get((box, rules), lambda box=box: _of_box(box, tables, points)) for box in assembly.boxes.values())  # type: ignore[misc]


_supports: Memo[SupportFigures] = Memo(512)


def _of_box(box: PlacedBox, tables: Tables, hardpoints: Mapping[str, HardPoint]) -> SupportFigures:
    standing = [m for m in box.mounts if m.frame is not None and m.frame.square and m.pieces]
    unfit = tuple((m.id, _why_unfit(m)) for m in box.mounts if m not in standing)
    points = np.array([m.frame.at for m in standing if m.frame]).reshape(-1, 3)
    support = judge_support(points)
    words = _words(support, [m.mount.name for m in standing])
    if not support.holds:
        return SupportFigures(box.id, support, words, (), unfit)
    cases = tables.load_cases
    throws = np.array([(c.aft_g, c.right_g, c.up_g) for c in cases.values()])
    forces = envelope(points, np.array(box.hung_cg), box.hung_kg, throws)
    mounts = tuple(_mount(tables, hardpoints, box, m, forces[:, :, i], standing) for i, m in enumerate(standing))
    return SupportFigures(box.id, support, words, mounts, unfit)


def _why_unfit(mount: PlacedMount) -> str:
    if mount.frame is None:
        return "the box's wall faces along the bolt"
    if not mount.frame.square:
        return "the box's wall does not stand square to the bolt (within 2°)"
    reach = mount.frame.c_mm
    if reach <= 0:
        return "the hard point lies inside the wall"
    return f"the hard point is only {reach:.1f} off the wall, less than the bracket's bend takes"


def _words(support: Support, names: list[str]) -> str:
    return {
        "nothing": "held by nothing",
        "one": "free to turn about the bolt, three ways",
        "line": f"free to turn about the line through {names[0]} and {names[-1]}" if len(names) > 1 else "",
        "same place": "two mounts are in one place",
        "nearly in line": "mounts are nearly in line",
        "holds": "",
    }[support.verdict]


def local_loads(forces: Matrix, mount: PlacedMount) -> tuple[Load, Load, Load]:
    """(..., 3) forces in vehicle axes to N, D, W of a mount."""
    assert mount.frame is not None
    n, d, w = (forces @ np.array(way) for way in (mount.frame.n, mount.frame.d, mount.frame.w))
    return n, d, w


def _mount(
    tables: Tables,
    hardpoints: Mapping[str, HardPoint],
    box: PlacedBox,
    mount: PlacedMount,
    forces: Matrix,
    standing: list[PlacedMount],
) -> MountFigures:
    assert mount.frame is not None
    wall = box.shell.made.wall_at(mount.mount.face)
    joint = AngleJoint.of(mount.mount, mount.frame.c_mm, wall.material, wall.thickness_mm, wall.height_mm, tables)
    names = ["equal springs"] + [f"{m.mount.name} at {how}" for how in ("half", "double") for m in standing]
    loads = local_loads(forces, mount)
    cases = list(tables.load_cases.values())
    unchecked = joint.unchecked
    rows = [] if unchecked else sorted(_worst(joint, loads, cases, names), key=lambda row: -row.use)
    most = (load.max(axis=0).tolist() for load in (lever_pull(joint, loads[0]), np.hypot(loads[1], loads[2])))
    demands = tuple(Demand(case.name, pull, shear) for case, pull, shear in zip(cases, *most, strict=True))
    torque, preload = tightening(joint)
    shape = (*geometry(joint), *_on_the_wall(box, mount), *_thread(tables, hardpoints, mount))
    return MountFigures(mount.id, joint, tuple(rows), shape, demands, torque, preload, unchecked, tuple(out_of_range(joint)))


def _worst(joint: AngleJoint, loads: tuple[Load, Load, Load], cases: list[LoadCase], names: list[str]) -> Iterator[UseRow]:
    """The worst use of each check over road and crash cases and all solves."""
    road = np.array([case.kind == "road" for case in cases])
    for check, use in uses(joint, *loads, road=road).items():
        solve, column = divmod(int(use.argmax()), len(cases))
        case, at = cases[column], (float(load[solve, column]) for load in loads)
        worst = float(use[solve, column])
        yield UseRow(check, worst, _state(check, worst), case.name, case.kind, names[solve], *at)


def _state(check: str, use: float) -> State:
    state = use_state(use)
    return "tight" if check in ROUGH and state == "clear" else state


def _on_the_wall(box: PlacedBox, mount: PlacedMount) -> Iterator[tuple[str, bool]]:
    """Whether what is welded to the wall lies on the flat that its cut-off edges leave: above the bend, below the lid's edge,
    between the corners."""
    assert mount.frame is not None
    bracket, plate = mount.mount.shape, mount.mount.to_box.doubler
    half = (plate.along_w_mm if plate else bracket.width_mm) / 2
    near = plate.from_contact_mm if plate else mount.mount.to_box.from_mm
    far = near + (plate.along_n_mm if plate else mount.mount.to_box.length_mm)
    c = mount.frame.c_mm + (plate.thickness_mm if plate else 0.0)
    corners = mount.frame.placement.points(np.array([(-c, w, n) for w in (-half, half) for n in (near, far)]))
    local = (corners - np.array(box.placement.origin)) @ box.placement.turn
    along = local[:, 0 if mount.mount.face in ("left", "right") else 1]
    wall = box.shell.made.wall_at(mount.mount.face)
    low, high = wall.flat_from_mm, wall.flat_to_mm
    what = "doubler" if plate else "weld"
    up = f"{what} from {local[:, 2].min():.1f} to {local[:, 2].max():.1f} up the wall, its flat is {low:.1f} to {high:.1f}"
    yield up, bool(local[:, 2].min() >= low - 1e-6 and local[:, 2].max() <= high + 1e-6)
    span = f"{what} from {along.min():.1f} to {along.max():.1f} along the wall, which runs from {wall.start_mm:.1f} to {wall.end_mm:.1f}"
    yield span, bool(along.min() >= wall.start_mm - 1e-6 and along.max() <= wall.end_mm + 1e-6)


def _thread(tables: Tables, hardpoints: Mapping[str, HardPoint], mount: PlacedMount) -> Iterator[tuple[str, bool]]:
    thread, size = hardpoints[mount.mount.lands_on.hardpoint].thread, mount.mount.lands_on.bolt.size
    if thread and thread in tables.bolts:
        yield f"bolt {size} in a hard point {thread}", thread == size
