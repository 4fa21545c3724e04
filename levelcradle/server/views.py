"""What the routes answer: the analysis as the screens need it, without working."""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any, Literal

from pydantic import BaseModel, ConfigDict

from levelcradle.core.analysis import Analysis, BoxResult, StationState, WatchRow
from levelcradle.core.axes import Vec
from levelcradle.core.clearance import SnapPoint
from levelcradle.core.compared import Compared
from levelcradle.core.cuts import Body, Cut
from levelcradle.core.design.base import Face
from levelcradle.core.design.operation import Op, OpName
from levelcradle.core.finding import Figure, Finding, State, Step, Unit
from levelcradle.core.level import Corners, Lean, LoadRow, MassRow, PlusMinus, WeighedRow, WheelLoads
from levelcradle.core.modules import PackResult
from levelcradle.core.mount import MountResult, SupportResult
from levelcradle.core.mount.result import Demand, UtilisationRow
from levelcradle.core.next import Next
from levelcradle.core.projections import Shape
from levelcradle.core.stock import ShelfResult
from levelcradle.core.survey import BayResult

__all__ = [
    "AnalysisOut",
    "AnswerOut",
    "AskedPackOut",
    "BehindOut",
    "BlankOut",
    "BodiesOut",
    "BoxOpenedOut",
    "BoxSectionOut",
    "CarrierOut",
    "ChannelOut",
    "CostOut",
    "EditedOut",
    "FirstBoxOut",
    "FixOut",
    "KeptOut",
    "MadeAsOut",
    "MadePackOut",
    "OpenedOut",
    "OperationOut",
    "OutlinesOut",
    "OwnRowOut",
    "PackOut",
    "PatchOut",
    "PlaceOut",
    "PreviewOut",
    "ProblemOut",
    "ProjectOut",
    "ReadOut",
    "RevisionOut",
    "ScanOut",
    "SectionOut",
    "SheetGroupOut",
    "SheetOut",
    "ShelfOut",
    "ShelfRowOut",
    "SourceOut",
    "SwingOut",
    "TapeOut",
    "ToMeasureOut",
    "VariantOut",
    "WorkingOut",
    "analysis_out",
    "operations",
]


class Out(BaseModel):
    model_config = ConfigDict(extra="forbid")


class FindingOut(Out):
    id: str
    code: str
    station: str
    state: State
    subjects: tuple[str, ...]
    message: str
    figures: tuple[Figure, ...]
    value: float | None
    limit: float | None
    margin: float | None
    unit: Unit
    tolerance: float | None
    rationale: str
    points_mm: tuple[Vec, ...]
    label: str
    has_working: bool


class WheelLoadsOut(Out):
    front_kg: float
    rear_kg: float
    total_kg: float
    front_percent: float
    aft_mm: float
    across_mm: float | None
    up_mm: float | None
    corners: Corners | None
    rule: str
    assumed: str
    off: PlusMinus


class StateOut(Out):
    id: str
    name: str
    loads: WheelLoadsOut


class LevelOut(Out):
    found: WheelLoadsOut | None
    ready: WheelLoadsOut | None
    states: list[StateOut]
    masses: tuple[MassRow, ...]
    lean: Lean | None
    sums_kg: dict[str, float]
    weighed: tuple[WeighedRow, ...]


@dataclass(frozen=True, slots=True)
class GeometryRow:
    message: str
    fits: bool


class MountOut(Out):
    id: str
    c_mm: float | None
    rows: tuple[UtilisationRow, ...]
    geometry: list[GeometryRow]
    demands: tuple[Demand, ...]
    torque_nm: float
    preload_n: float
    unchecked: str
    remarks: tuple[str, ...]


class SupportOut(Out):
    box: str
    support_condition: str
    words: str
    mounts: list[MountOut]


class DrawnPieceOut(Out):
    role: str
    name: str
    ring: list[tuple[float, float]]


class DrawnMeasureOut(Out):
    words: str
    mm: float
    start: tuple[float, float]
    end: tuple[float, float]


class MountViewOut(Out):
    looking: str
    left: str
    right: str
    metal: Literal["below", "above", "left", "right", "behind"]
    pieces: list[DrawnPieceOut]
    measures: list[DrawnMeasureOut]
    ways: tuple[tuple[float, float], tuple[float, float], tuple[float, float]]


class CarriedOut(Out):
    mount: str
    name: str
    case: str
    off_n: float
    away_n: float
    along_n: float
    solve: str
    check: str
    utilisation: float | None


class CaseLoadsOut(Out):
    case: str
    kind: str
    mounts: list[CarriedOut]


class DrawnMountOut(Out):
    """A mount in two views, and what all mounts of its box carry, case by case."""

    spot: str
    views: list[MountViewOut]
    cases: list[CaseLoadsOut]


class LetGoOut(Out):
    box: str
    mount: str
    state: State
    words: str
    other: str
    check: str
    case: str
    utilisation: float | None


class AnalysisOut(Out):
    findings: list[FindingOut]
    watch: tuple[WatchRow, ...]
    stations: dict[str, StationState]
    boxes: dict[str, BoxResult]
    level: LevelOut
    supports: list[SupportOut]
    string: PackResult
    shapes: tuple[Shape, ...]
    released: bool
    bays: dict[str, BayResult]
    shelf: ShelfResult
    next: Next


class ProjectOut(Out):
    id: str
    name: str
    revision: int
    changed_at: str
    variant_of: str | None
    deleted_at: str


class RevisionOut(Out):
    number: int
    kind: str
    sentence: str
    who: str
    made_at: str


class VariantOut(Out):
    id: str
    name: str
    revision: int
    figures: Compared


class OpenedOut(Out):
    id: str
    revision: int
    document: dict[str, Any]
    analysis: AnalysisOut
    undo: str | None
    redo: str | None


class OperationOut(Out):
    op: OpName
    path: str
    value: Any = None


class EditedOut(Out):
    revision: int
    patches_since: list[OperationOut]
    document_patch: list[OperationOut]
    sentence: str
    analysis: AnalysisOut
    undo: str | None
    redo: str | None


class PreviewOut(Out):
    base: int
    analysis: AnalysisOut
    snap_points: tuple[SnapPoint, ...]


class CostOut(Out):
    message: str
    figures: tuple[Figure, ...]
    state: str


class FixOut(Out):
    """A change that was run through all checks; only a whole one of the box or the rule has a patch to apply."""

    kind: str
    does: str
    message: str
    figures: tuple[Figure, ...]
    whole: bool
    costs: tuple[CostOut, ...]
    left: tuple[str, ...]
    patch: list[OperationOut] | None
    at_mm: Vec | None


class ToldOut(Out):
    """A sentence with slots for its figures."""

    message: str
    figures: tuple[Figure, ...]


class WithinOut(Out):
    """A hard point near a box: the wall it is hung from, how far off it, by how much it misses (0: it can be used), and
    why not."""

    path: str
    name: str
    face: Face
    off_mm: float
    misses_mm: float
    why: str


class WayOut(Out):
    """Mounts that hold a box, as one edit."""

    on: tuple[str, ...]
    mass_kg: float
    utilisation: float
    governs: str
    message: str
    patch: list[OperationOut]


class SizeOut(Out):
    message: str
    mass_kg: float
    utilisation: float
    governs: str
    patch: list[OperationOut]


class SizedOut(Out):
    now_kg: float
    sizes: list[SizeOut]
    why: ToldOut | None


class WeldChoiceOut(Out):
    words: str
    fillet_mm: float
    plugs: int
    state: State
    utilisation: float | None
    governs: str
    why: str
    now: bool
    enough: bool
    patch: list[OperationOut]


class LoadSetOut(Out):
    id: str
    words: str
    now: bool
    patch: list[OperationOut]


class HangingOut(Out):
    """How a box can hang; in ``missing`` what it lacks where no way is found."""

    within: list[WithinOut]
    ways: list[WayOut]
    missing: list[ToldOut]


class AnswerOut(Out):
    question: str
    fits: bool
    patch: list[OperationOut]
    fixes: list[FixOut]
    foul: tuple[str, ...]


class SectionOut(Out):
    aft_mm: float
    cuts: tuple[Cut, ...]


class BodiesOut(Out):
    revision: int
    bodies: tuple[Body, ...]


class WorkingOut(Out):
    finding: str
    steps: tuple[Step, ...]


class TapeOut(Out):
    """``move_mm``: how the first thing is moved to make the tape read what is wanted."""

    move_mm: Vec | None = None
    distance_mm: float
    here: Vec
    there: Vec
    parts_mm: Vec


class FirstBoxOut(Out):
    """``patch`` adds the box; where not one module fits (``fits``), one that is foul."""

    modules: int
    fits: bool
    message: str
    patch: list[OperationOut]


class ReadOut(Out):
    """``unit``: what the text's bare numbers were taken to be in; ``by``: whether it moved the figure that stood
    there."""

    value: float
    unit: str
    by: bool


class MoveOut(Out):
    value_mm: float
    by: bool
    unit: str
    text: str


class PlaceOut(Out):
    aft: MoveOut | None
    across: MoveOut | None
    up: MoveOut | None


class PatchOut(Out):
    """A patch to apply, and the id of what it makes or changes."""

    patch: list[OperationOut]
    id: str


class ScanOut(Out):
    """How far a file's reading has come, and what was found: ``file`` is the name to put in the design."""

    id: str
    share: float
    message: str
    done: bool
    refused: str
    file: str | None
    triangles: int
    triangles_before: int
    size_mm: Vec | None
    closed: bool
    notes: list[str]


class KeptOut(Out):
    file: str


class OutlineOut(Out):
    layer: str
    points_mm: tuple[tuple[float, float], ...]
    area_mm2: float
    off_mm: float


class OutlinesOut(Out):
    unit: str
    outlines: tuple[OutlineOut, ...]
    notes: tuple[str, ...]


class ShelfRowOut(Out):
    line: int
    name: str
    becomes: dict[str, str | float]
    refused: str


class ShelfOut(Out):
    """``columns``: heading and the field it becomes ("" for none); ``patch`` puts the rows that are not refused on the
    shelf."""

    encoding: str
    divider: str
    columns: list[list[str]]
    fields: list[str]
    rows: list[ShelfRowOut]
    patch: list[OperationOut]


class SwingOut(Out):
    at_mm: Vec
    misses_mm: dict[str, float]
    misfit_mm: float


class ToMeasureOut(Out):
    path: str
    what: str
    why: str
    moves: float | None
    unit: str


class BlankOut(Out):
    number: int
    path: str
    group: str
    label: str
    kind: str
    value: float | None
    text: str
    hooked: str


class OpenedRectOut(Out):
    name: str
    low: tuple[float, float]
    high: tuple[float, float]


class OpenedPlaceOut(Out):
    edges: tuple[str, str]
    mm: tuple[float, float]
    ways: tuple[tuple[float, float], tuple[float, float]]


class OpenedHoleOut(Out):
    name: str
    path: str | None
    at: tuple[float, float]
    diameter_mm: float
    place: OpenedPlaceOut | None


class OpenedThingOut(Out):
    name: str
    path: str
    at: tuple[float, float]
    rects: list[OpenedRectOut]
    place: OpenedPlaceOut


class OpenedFaceOut(Out):
    face: str
    low: tuple[float, float]
    high: tuple[float, float]
    comes_off: bool
    holes: list[OpenedHoleOut]
    things: list[OpenedThingOut]
    plates: list[OpenedRectOut]


class MadeAsOut(Out):
    kind: str
    how: str
    now: bool
    shell_kg: float
    outer_mm: tuple[float, float, float]
    pieces: int
    weld_mm: float
    fastened: int


class BoxOpenedOut(Out):
    """A box opened, and its contents in other constructions."""

    faces: list[OpenedFaceOut]
    modules: list[OpenedRectOut]
    holders: list[OpenedRectOut]
    low: tuple[float, float]
    high: tuple[float, float]
    made_as: list[MadeAsOut]


class CutPieceOut(Out):
    role: str
    name: str
    ring: list[tuple[float, float]]


class CutLayerOut(Out):
    name: str
    start_mm: float
    mm: float


class SameLayersOut(Out):
    count: int
    name: str
    mm: float


class BoxSectionOut(Out):
    """A box cut across through a module, and every layer on the cut."""

    through: int | None
    choices: list[int]
    pieces: list[CutPieceOut]
    across: list[CutLayerOut]
    up: list[CutLayerOut]
    across_sum: list[SameLayersOut]
    up_sum: list[SameLayersOut]


class CarrierOut(Out):
    path: str
    name: str
    distance_mm: float
    message: str


class BehindOut(Out):
    depth_mm: float | None
    path: str | None
    name: str | None


class OwnRowOut(Out):
    """A shop's own row of a table, and the car it was written for."""

    subject: str
    id: str
    car: str
    row: dict[str, Any]


class ChannelOut(Out):
    """One channel of an instrument: ``text`` is what is held of it, ``says`` how steady it stands."""

    name: str
    value: float
    unit: str
    spread: float
    steady: bool
    message: str
    text: str


class SourceOut(Out):
    address: str
    message: str
    channels: list[ChannelOut]


class SheetOut(Out):
    """A sheet of a pack. ``cut``: name of its cut files without their ending; ``parts``: ids of the parts it is of;
    ``changed``: the latest change that may have made it out of date, empty where there is none; then ``in_metal`` says
    which of its parts are sent or cut."""

    name: str
    title: str
    cut: str
    parts: list[str]
    changed: str
    in_metal: list[str]


class SheetGroupOut(Out):
    title: str
    sheets: list[SheetOut]


class MadePackOut(Out):
    """A pack that is there to be taken away."""

    id: str
    revision: int
    released: bool
    groups: list[SheetGroupOut]
    files: list[str]


class AskedPackOut(Out):
    """A pack that is being made."""

    revision: int
    state: str
    share: float
    message: str


class PackOut(Out):
    revision: int
    made: MadePackOut | None
    asked: AskedPackOut | None


class FieldProblem(Out):
    path: str
    message: str


class ProblemOut(BaseModel):
    """Problem details (RFC 9457)."""

    type: str
    title: str
    status: int
    detail: str
    errors: list[FieldProblem] = []


def analysis_out(analysis: Analysis) -> AnalysisOut:
    """Built without validation: the core's values are what they say they are."""
    return AnalysisOut.model_construct(
        findings=[_finding(f) for f in analysis.findings],
        watch=analysis.watch,
        stations=dict(analysis.stations),
        boxes=dict(analysis.boxes),
        level=LevelOut.model_construct(
            found=_loads(analysis.level.found),
            ready=_loads(analysis.level.ready),
            states=[_state(row) for row in analysis.level.states],
            masses=analysis.level.masses,
            lean=analysis.level.lean,
            sums_kg=dict(analysis.level.sums_kg),
            weighed=analysis.weighed,
        ),
        supports=[_support(s) for s in analysis.supports],
        string=analysis.string,
        shapes=analysis.shapes,
        released=analysis.released,
        bays=dict(analysis.bays),
        shelf=analysis.shelf,
        next=analysis.next,
    )


def _finding(f: Finding) -> FindingOut:
    return FindingOut.model_construct(
        id=f.id,
        code=f.code,
        station=f.station,
        state=f.state,
        subjects=f.subjects,
        message=f.message,
        figures=f.figures,
        value=f.value,
        limit=f.limit,
        margin=f.margin,
        unit=f.unit,
        tolerance=f.tolerance,
        rationale=f.rationale,
        points_mm=f.points_mm,
        label=f.label,
        has_working=f.working is not None,
    )


def _loads(loads: WheelLoads | None) -> WheelLoadsOut | None:
    if loads is None:
        return None
    return WheelLoadsOut.model_construct(
        front_kg=loads.front_kg,
        rear_kg=loads.rear_kg,
        total_kg=loads.total_kg,
        front_percent=loads.front_percent,
        aft_mm=loads.aft_mm,
        across_mm=loads.across_mm,
        up_mm=loads.up_mm,
        corners=loads.corners,
        rule=loads.rule,
        assumed=loads.assumed,
        off=loads.off,
    )


def _state(row: LoadRow) -> StateOut:
    loads = _loads(row.loads)
    assert loads is not None
    return StateOut.model_construct(id=row.id, name=row.name, loads=loads)


def _support(support: SupportResult) -> SupportOut:
    return SupportOut.model_construct(
        box=support.box,
        support_condition=support.support.support_condition,
        words=support.words,
        mounts=[_mount(m) for m in support.mounts],
    )


def _mount(m: MountResult) -> MountOut:
    return MountOut.model_construct(
        id=m.id,
        c_mm=m.connection.reach_mm,
        rows=m.rows,
        geometry=[GeometryRow(message, fits) for message, fits in m.geometry],
        demands=m.demands,
        torque_nm=m.torque_nm,
        preload_n=m.preload_n,
        unchecked=m.unchecked,
        remarks=m.remarks,
    )


def operations(ops: Iterable[Op]) -> list[OperationOut]:
    """A patch as the API gives it."""
    return [OperationOut(op=op["op"], path=op["path"], value=op.get("value")) for op in ops]
