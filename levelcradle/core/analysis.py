"""analyse(design) → Analysis: every check over one assembly."""

import logging
from collections.abc import Callable, Iterable, Iterator, Mapping
from dataclasses import dataclass
from functools import partial
from typing import TypeVar

from levelcradle.core.assembly import Assembly, resolve
from levelcradle.core.axes import Vec
from levelcradle.core.clearance import (
    access_findings,
    bonding_findings,
    filler_findings,
    flag_findings,
    gap_findings,
    inside_findings,
    mating_findings,
    outside_bay,
    relief_findings,
    room_findings,
)
from levelcradle.core.cut_findings import cut_findings
from levelcradle.core.design import Design
from levelcradle.core.design.box import Orientation
from levelcradle.core.errors import UnknownThing
from levelcradle.core.finding import ORDER, Figure, Finding, State
from levelcradle.core.held import held_findings
from levelcradle.core.level import LevelResult, WeighedRow, ground_findings, level_findings, level_result, weighed_rows
from levelcradle.core.meshes import Mesh
from levelcradle.core.modules import PackResult, StringResult, orientations_for, pack_result, strings_in
from levelcradle.core.mount import SupportResult, mount_findings, support_result
from levelcradle.core.next import Next, next_step
from levelcradle.core.projections import Shape, shapes
from levelcradle.core.stock import ShelfResult, shelf_result, stock_findings
from levelcradle.core.survey import BayResult, bay_result, survey_findings

__all__ = [
    "STATIONS",
    "Analysis",
    "BoxResult",
    "StationState",
    "WatchRow",
    "analyse",
    "analyse_assembly",
    "finding_named",
]

STATIONS = ("survey", "stock", "place", "box", "mount", "level", "wire", "flow", "drawings", "build")


@dataclass(frozen=True, slots=True)
class BoxResult:
    """What is said of a box as a whole. Sizes aft × across × up; ``corner`` is its front, left, base corner.
    ``full_kg`` is the box and its modules; ``hung_kg`` with brackets, doublers and everything fixed to it: what is
    lifted, and what the mounts carry."""

    name: str
    outer_mm: Vec
    inner_mm: Vec
    over_lid_mm: Vec
    wall_mm: float
    corner_mm: Vec
    shell_kg: float
    full_kg: float
    cg_mm: Vec
    hung_kg: float
    hung_cg_mm: Vec
    modules: int
    strings: Mapping[str, StringResult]  # of its own modules
    numbers: str
    turns: Mapping[str, tuple[Orientation, ...]]  # of each block: those its kind may stand in as the box stands


@dataclass(frozen=True, slots=True)
class WatchRow:
    """One row of the watch strip: a finding, or several of one rule told together."""

    state: State
    message: str
    figures: tuple[Figure, ...]
    ids: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class StationState:
    """How a station stands: not begun, or how many are foul, not known and tight."""

    begun: bool
    foul: int
    unknown: int
    tight: int


@dataclass(frozen=True, slots=True)
class Analysis:
    """Everything the checks say of one design, worst first."""

    findings: tuple[Finding, ...]
    watch: tuple[WatchRow, ...]
    stations: Mapping[str, StationState]
    boxes: Mapping[str, BoxResult]
    level: LevelResult
    weighed: tuple[WeighedRow, ...]
    supports: tuple[SupportResult, ...]
    string: PackResult
    shapes: tuple[Shape, ...]
    released: bool
    bays: Mapping[str, BayResult]
    shelf: ShelfResult
    next: Next


def analyse(design: Design, meshes: Mapping[str, Mesh]) -> Analysis:
    """Resolves a design once and runs every check over it. ``meshes``: the scans it speaks of, by file."""
    failed: list[Finding] = []
    assembly = _kept("where everything stands", "place", lambda: resolve(design, meshes), None, failed)
    if assembly is None:  # a stored car always opens: what is left is the bare car, and the finding that says so
        assembly = resolve(design.model_copy(update={name: {} for name in _STANDING}), {})
    return analyse_assembly(assembly, failed)


_STANDING = (
    *("boxes", "mounts", "items", "keepouts", "members", "crossmembers", "bays", "load_states", "pins", "tapes"),
    "agreed_gaps",
)


def analyse_assembly(assembly: Assembly, failed: Iterable[Finding] = ()) -> Analysis:
    """Every check over one assembly. One that fails is a finding itself, and the others stand."""
    found, design = list(failed), assembly.design
    level = _kept("axle loads", "level", lambda: level_result(assembly), LevelResult(None, None, (), (), ()), found)
    supports = _kept("reactions of the mounts", "mount", lambda: support_result(assembly), _NO_SUPPORTS, found)
    for name, station, check in _checks(design, assembly, level, supports):
        found += _kept(name, station, lambda check=check: list(check()), [], found)  # type: ignore[misc]
    shelf = _kept("the shelf", "stock", lambda: shelf_result(design), None, found)
    release = _release(assembly, found)
    findings = tuple(sorted([*found, *release], key=_worst_first))
    placed = strings_in(design.boxes.values(), design.module_kinds, design.strings)
    return Analysis(
        findings=findings,
        watch=tuple(_watch(findings)),
        stations={name: _station(name, design, findings) for name in STATIONS},
        boxes=_boxes(design, assembly),
        level=level,
        weighed=_kept("the weighings", "level", lambda: tuple(weighed_rows(assembly, level)), (), []),
        supports=supports,
        string=pack_result(placed),
        shapes=_kept("what is drawn", "survey", lambda: shapes(assembly), (), []),
        released=not release,
        bays=_all_bays(design),
        shelf=shelf or shelf_result(design.model_copy(update={"modules": {}})),
        next=_kept(
            "what comes next",
            "survey",
            lambda: next_step(design, findings),
            Next("look at what is foul", "place", "/boxes"),
            [],
        ),
    )


def _all_bays(design: Design) -> dict[str, BayResult]:
    return {
        key: found
        for key, bay in design.bays.items()
        if (found := _kept(key, "survey", partial(bay_result, bay), None, []))
    }


Check = tuple[str, str, Callable[[], Iterable[Finding]]]


def _checks(
    design: Design, assembly: Assembly, level: LevelResult, supports: tuple[SupportResult, ...]
) -> tuple[Check, ...]:
    """Every check: what it is about, the station it belongs to, and how it is run. Those of what was written down take
    the design."""
    return (
        ("the survey", "survey", lambda: survey_findings(design, assembly)),
        ("the stock", "stock", lambda: stock_findings(design, assembly)),
        ("gaps", "place", lambda: gap_findings(assembly)),
        ("room that boxes keep", "place", lambda: room_findings(assembly)),
        ("the inside of the boxes", "box", lambda: inside_findings(assembly)),
        ("what holds the modules", "box", lambda: held_findings(assembly)),
        ("boxes in their spaces", "place", lambda: outside_bay(assembly)),
        ("what their spaces ask", "box", lambda: flag_findings(assembly)),
        ("what vents blow at", "box", lambda: relief_findings(assembly)),
        ("bonding", "box", lambda: bonding_findings(assembly)),
        ("fillers of welds", "box", lambda: filler_findings(assembly)),
        ("plus and minus apart", "box", lambda: mating_findings(assembly)),
        ("ways in and out", "place", lambda: access_findings(assembly)),
        ("mounts", "mount", lambda: mount_findings(assembly, supports)),
        ("axle loads and ratings", "level", lambda: level_findings(assembly, level)),
        ("parts that are cut", "drawings", lambda: cut_findings(design.cut_parts, assembly)),
        ("ground clearance", "place", lambda: ground_findings(assembly, level)),
    )


_NO_SUPPORTS: tuple[SupportResult, ...] = ()
_log = logging.getLogger(__name__)
T = TypeVar("T")


def _kept(name: str, station: str, work: Callable[[], T], instead: T, found: list[Finding]) -> T:
    """What a piece of work gives; where it fails, ``instead``, and a finding that says so: nothing is clear that was
    not asked."""
    try:
        return work()
    except Exception as error:  # whatever it was: the fault is ours, and the rest of the car must stay readable
        _log.exception("a check failed: %s", name)
        found.append(
            Finding(
                id=f"failed:{name.replace(' ', '-')}",
                code="failed",
                station=station,
                state="unknown",
                subjects=(station,),
                message=f"Could not be worked out: {name}",
                rationale=f"a fault of the application ({type(error).__name__}); nothing here is clear",
                label="not worked out",
            )
        )
        return instead


def finding_named(analysis: Analysis, name: str) -> Finding:
    """Raises UnknownThing."""
    for finding in analysis.findings:
        if finding.id == name:
            return finding
    raise UnknownThing("finding", name)


_RANK = {"gap.crush": 0, "gap": 0, "inside": 1, "mount.support": 2, "level.rating": 3}


def _worst_first(finding: Finding) -> tuple[int, int, float]:
    return ORDER[finding.state], _RANK.get(finding.code, 4), finding.margin if finding.margin is not None else 0.0


def _release(assembly: Assembly, found: list[Finding]) -> list[Finding]:
    """Holds back the sheets while anything is foul, or a figure that the cut sizes rest on is not known."""
    if not assembly.boxes and not any(f.code == "failed" for f in found):
        return []
    foul = sum(f.state == "foul" for f in found)
    unknown = sum(f.state == "unknown" and f.holds_back for f in found)
    if not foul and not unknown:
        return []
    reasons = " and ".join(f"{n} {word}" for n, word in ((foul, "foul"), (unknown, "not known")) if n)
    return [
        Finding(
            id="drawings:release",
            code="drawings.release",
            station="drawings",
            state="foul",
            subjects=("drawings",),
            message=f"Drawings are not released: {reasons}",
            rationale="nothing is cut from figures that do not stand",
        )
    ]


def _watch(findings: tuple[Finding, ...]) -> Iterator[WatchRow]:
    """Foul, not known and tight ones; many of one rule and state become one row."""
    together: dict[tuple[str, str], list[Finding]] = {}
    for finding in findings:
        if finding.state in ("foul", "unknown", "tight"):
            key = (finding.code if finding.code in ("mount.use", "level.rating") else finding.id, finding.state)
            together.setdefault(key, []).append(finding)
    for (code, _), group in together.items():
        first = group[0]
        message = first.message
        if len(group) > 1 and code == "mount.use" and first.figures:
            words = {"foul": "foul", "tight": "tight, wall by rule"}.get(first.state, "not known")
            message = f"{len(group)} mounts {words}; weakest use {{0}}"
        elif len(group) > 1:
            message = f"{first.message} (and {len(group) - 1} more)"
        yield WatchRow(first.state, message, first.figures, tuple(f.id for f in group))


def _station(name: str, design: Design, findings: tuple[Finding, ...]) -> StationState:
    here = [f for f in findings if f.station == name]
    begun = {
        "survey": design.weighing is not None or bool(design.bays) or bool(design.items) or bool(design.references),
        "stock": bool(design.module_kinds),
        "place": bool(design.boxes),
        "box": bool(design.boxes),
        "mount": bool(design.mounts),
        "level": design.weighing is not None,
        "drawings": bool(design.boxes),
    }.get(name, False)
    count = {state: sum(f.state == state for f in here) for state in ("foul", "unknown", "tight")}
    return StationState(begun, count["foul"], count["unknown"], count["tight"])


def _boxes(design: Design, assembly: Assembly) -> dict[str, BoxResult]:
    out, number = {}, 0
    for box in assembly.in_order():
        shell, held = box.shell, len(box.shell.modules)
        strings = strings_in([box.box], design.module_kinds, design.strings)
        first, number = number + 1, number + held
        numbers = f"{first} – {number}" if held > 1 else str(first) if held else ""
        out[box.id] = BoxResult(
            box.box.name,
            shell.outer_mm,
            shell.inner_mm,
            shell.over_mm,
            shell.made.wall_mm,
            box.placement.point((0.0, 0.0, 0.0)),
            shell.shell_kg,
            shell.full_kg,
            box.cg,
            box.hung_kg,
            box.hung_cg,
            held,
            strings,
            numbers,
            {
                key: tuple(orientations_for(design.module_kinds[b.kind], box.placement.turn))
                for key, b in box.box.blocks.items()
            },
        )
    return out
