"""The routes of Survey and Stock: what is offered, what a file holds, what is near, missing and worth taking twice."""

import json
from typing import Annotated, Any

from fastapi import APIRouter, Depends, Path, Query, Request, Response

from levelcradle.core.assembly import resolve
from levelcradle.core.edits import (
    copied,
    freed_place,
    onto_the_shelf,
    reshaped,
    square_space,
    station_said,
    twinned,
    weighed_as,
)
from levelcradle.core.errors import DesignError, Problem, UnknownThing
from levelcradle.core.level import WeighedBy
from levelcradle.core.stock import starter_kinds, starters
from levelcradle.core.survey import Goal, carriers_near, depth_behind, still_to_measure, survey_blanks, swing, twice
from levelcradle.drawings import survey_sheet_pdf
from levelcradle.exchange import LARGEST_BYTES, picture_kind, read_outlines, read_shelf, write_shelf
from levelcradle.exchange.scans import LengthUnit
from levelcradle.exchange.shelf import FIELDS
from levelcradle.jobs import Queue
from levelcradle.server.bodies import (
    BehindBody,
    ReshapeBody,
    RestateBody,
    RowBody,
    SpaceBody,
    SwingBody,
    json_body,
    raw_body,
)
from levelcradle.server.problems import WrongBody
from levelcradle.server.routes import Key, ProjectId, TheScans, TheStore, download, takes
from levelcradle.server.views import (
    BehindOut,
    BlankOut,
    CarrierOut,
    KeptOut,
    OutlinesOut,
    OwnRowOut,
    PatchOut,
    ProblemOut,
    ScanOut,
    ShelfOut,
    ShelfRowOut,
    SwingOut,
    ToMeasureOut,
    operations,
)
from levelcradle.store import ScanImport, Sent

__all__ = ["router"]

router = APIRouter(responses={code: {"model": ProblemOut} for code in (400, 404, 413, 422)})
FileName = Annotated[str, Query(min_length=1, max_length=120, pattern=r"^[^\x00-\x1f\x7f]+$")]
OWN_SUBJECTS = ("materials", "bolts", "bolt_classes", "liners", "load_cases")
MOST_CARS = 50
_ANY = {
    "requestBody": {
        "required": True,
        "content": {"application/octet-stream": {"schema": {"type": "string", "format": "binary"}}},
    }
}


@router.get("/starters/{subject}")
def table(subject: Key) -> list[dict[str, str | float]]:
    """A table to start from: ``typical-masses``, ``fluids``, ``cg-heights``, ``keepouts``, ``liners``."""
    return list(starters(subject.replace("-", "_")))


@router.get("/own-rows")
def own_rows(store: TheStore) -> list[OwnRowOut]:
    """The shop's own rows of all tables, of its newest cars first; each once."""
    found: dict[tuple[str, str], OwnRowOut] = {}
    for car in store.all()[:MOST_CARS]:
        tables = store.open(car.id).design.tables
        for subject in OWN_SUBJECTS:
            for key, row in getattr(tables, subject).items():
                if row.own:
                    found.setdefault(
                        (subject, key),
                        OwnRowOut(subject=subject, id=key, car=car.name, row=row.model_dump(mode="json")),
                    )
    return list(found.values())


@router.get("/starter-kinds")
def kinds() -> dict[str, dict[str, Any]]:
    """Generic module kinds, all made up, as the document takes them."""
    return {key: kind.model_dump(mode="json") for key, kind in starter_kinds().items()}


@router.post("/projects/{project}/scans", response_model=ScanOut, status_code=202, openapi_extra=_ANY)
def read_in(
    project: ProjectId,
    store: TheStore,
    request: Request,
    raw: Annotated[bytes, Depends(raw_body(LARGEST_BYTES))],
    name: FileName,
    unit: LengthUnit | None = None,
    tolerance_mm: Annotated[float, Query(ge=0, le=50)] = 2.0,
) -> ScanOut:
    """Puts a mesh file (STL, OBJ, PLY, GLB) on the queue to be read; ask ``/scans/{id}`` how far it has come."""
    store.open(project)
    queue: Queue = request.app.state.queue
    key = store.scan_imports.ask(Sent(name, raw, unit, tolerance_mm))
    queue.put_scan(key)
    return _scan(store.scan_imports.get(key))


@router.get("/scans/{key}", response_model=ScanOut)
def reading(key: Key, store: TheStore) -> ScanOut:
    return _scan(store.scan_imports.get(key))


def _scan(job: ScanImport) -> ScanOut:
    found = (
        json.loads(job.found)
        if job.found
        else {"triangles": 0, "triangles_before": 0, "size_mm": None, "notes": [], "closed": False}
    )
    refused = job.message if job.state == "refused" else ""
    done = job.state in ("done", "refused")
    return ScanOut(id=job.id, share=job.share, message=job.message, file=job.file, refused=refused, done=done, **found)


@router.post("/projects/{project}/pictures", response_model=KeptOut, status_code=201, openapi_extra=_ANY)
def keep_picture(
    project: ProjectId,
    store: TheStore,
    scans: TheScans,
    raw: Annotated[bytes, Depends(raw_body(8_000_000))],
    name: FileName,
) -> KeptOut:
    """Keeps a picture of a fault."""
    store.open(project)
    return KeptOut(file=scans.files.keep(picture_kind(raw), name, raw))


@router.get("/pictures/{file}")
def picture(file: Annotated[str, Path(pattern=r"^[0-9a-f]{64}$")], scans: TheScans) -> Response:
    kind, data = scans.files.get(file)
    if not kind.startswith("image/"):
        raise UnknownThing("picture", file[:12])
    return Response(data, media_type=kind, headers={"Cache-Control": "private, max-age=31536000, immutable"})


@router.post("/outlines", response_model=OutlinesOut, openapi_extra=_ANY)
def outlines(raw: Annotated[bytes, Depends(raw_body(20_000_000))], unit: LengthUnit | None = None) -> OutlinesOut:
    """The closed outlines of a DXF drawing, in millimetres."""
    return OutlinesOut.model_validate(read_outlines(raw, unit), from_attributes=True)


@router.post("/projects/{project}/shelf-preview", response_model=ShelfOut, openapi_extra=_ANY)
def shelf_preview(
    project: ProjectId,
    store: TheStore,
    raw: Annotated[bytes, Depends(raw_body(5_000_000))],
    kind: Annotated[str | None, Query(max_length=60)] = None,
    mapping: Annotated[str | None, Query(max_length=4000)] = None,
) -> ShelfOut:
    """What each row of a CSV would become, and the patch that puts them on the shelf."""
    design = store.open(project).design
    if kind is not None and kind not in design.module_kinds:
        raise UnknownThing("module kind", kind[:60])
    found = read_shelf(raw, design, _mapping(mapping), kind)
    rows = [ShelfRowOut(line=r.line, name=r.name, becomes=dict(r.becomes), refused=r.refused) for r in found.rows]
    return ShelfOut(
        encoding=found.encoding,
        divider=found.divider,
        columns=[list(c) for c in found.columns],
        fields=list(FIELDS),
        rows=rows,
        patch=operations(onto_the_shelf(design, [r.becomes for r in found.rows if not r.refused])),
    )


def _mapping(text: str | None) -> dict[str, str] | None:
    if text is None:
        return None
    try:
        found = json.loads(text)
    except (json.JSONDecodeError, RecursionError):
        found = None
    if not isinstance(found, dict) or not all(isinstance(v, str) and (v == "" or v in FIELDS) for v in found.values()):
        raise WrongBody([{"path": "/mapping", "message": "is a JSON object from headings to fields"}])
    return found


@router.get("/projects/{project}/shelf.csv")
def shelf_csv(project: ProjectId, store: TheStore) -> Response:
    """The shelf as a table, with a mark in front that tells spreadsheets its encoding."""
    return download(
        "shelf.csv", b"\xef\xbb\xbf" + write_shelf(store.open(project).design).encode(), "text/csv; charset=utf-8"
    )


@router.post("/projects/{project}/swing", response_model=SwingOut, openapi_extra=takes(SwingBody))
def swing_tapes(
    project: ProjectId, store: TheStore, body: Annotated[SwingBody, Depends(json_body(SwingBody))]
) -> SwingOut:
    """Where swung tapes meet, the misfit of each, and the patch that puts a reference point there."""
    design = store.open(project).design
    missing = next((t.hooked for t in body.tapes.values() if t.hooked not in design.references), None)
    if missing is not None:
        raise UnknownThing("reference point", missing)
    rows = list(body.tapes.values())
    found = swing([design.references[t.hooked].at_mm for t in rows], [t.length_mm for t in rows], body.guess_mm)
    if found is None:
        raise DesignError((Problem("/tapes", "needs two tapes from two points that are not one above the other"),))
    at = [round(v, 3) for v in found.at]
    misses = dict(zip(body.tapes, found.misses_mm, strict=True))
    return SwingOut(at_mm=(at[0], at[1], at[2]), misses_mm=misses, misfit_mm=found.misfit_mm)


@router.get("/projects/{project}/to-measure", response_model=list[ToMeasureOut])
def to_measure(project: ProjectId, store: TheStore, goal: Goal = "clearances") -> list[ToMeasureOut]:
    """What is missing or only assumed for a goal, what could move the answer most first."""
    rows = still_to_measure(store.open(project).design, goal)
    return [ToMeasureOut.model_validate(row, from_attributes=True) for row in rows]


@router.get("/projects/{project}/twice", response_model=list[ToMeasureOut])
def measure_twice(project: ProjectId, store: TheStore, scans: TheScans) -> list[ToMeasureOut]:
    """The figures that, 5 mm wrong, would turn a verdict."""
    design = store.open(project).design
    return [ToMeasureOut.model_validate(row, from_attributes=True) for row in twice(design, scans.of(design))]


@router.get("/projects/{project}/carriers/{bay}", response_model=list[CarrierOut])
def carriers(project: ProjectId, bay: Key, store: TheStore, scans: TheScans) -> list[CarrierOut]:
    """What could carry a box near a bay."""
    design = store.open(project).design
    if bay not in design.bays:
        raise UnknownThing("bay", bay)
    found = carriers_near(design, bay)
    return [CarrierOut.model_validate(row, from_attributes=True) for row in found]


@router.post("/projects/{project}/behind", response_model=BehindOut, openapi_extra=takes(BehindBody))
def behind(
    project: ProjectId, store: TheStore, scans: TheScans, body: Annotated[BehindBody, Depends(json_body(BehindBody))]
) -> BehindOut:
    """How deep one may drill or reach from a point, and what is met first."""
    design = store.open(project).design
    if sum(v * v for v in body.direction) < 1e-12:
        raise WrongBody([{"path": "/direction", "message": "must be a direction"}])
    found = depth_behind(resolve(design, scans.of(design)), body.at_mm, body.direction)
    if found is None:
        return BehindOut(depth_mm=None, path=None, name=None)
    return BehindOut(depth_mm=found.depth_mm, path=found.path, name=found.name)


@router.post("/projects/{project}/restate", response_model=PatchOut, openapi_extra=takes(RestateBody))
def restate(
    project: ProjectId, store: TheStore, body: Annotated[RestateBody, Depends(json_body(RestateBody))]
) -> PatchOut:
    """A station copied further aft, mirrored, or said in another way of measuring."""
    key, patch = station_said(store.open(project).design, body.bay, body.station, body.do)
    return PatchOut(patch=operations(patch), id=key)


@router.post("/projects/{project}/weighed-by/{way}", response_model=PatchOut)
def weigh_by(project: ProjectId, way: WeighedBy, store: TheStore) -> PatchOut:
    """The weighing as by four wheels, two axles or the whole car, with what its readings tell of that."""
    return PatchOut(patch=operations(weighed_as(store.open(project).design, way)), id=way)


@router.post("/projects/{project}/freed/{item}", response_model=PatchOut)
def freed(project: ProjectId, item: Key, store: TheStore) -> PatchOut:
    """The place of a thing that comes out, as a bay whose sides are still to be measured."""
    key, patch = freed_place(store.open(project).design, item)
    return PatchOut(patch=operations(patch), id=key)


@router.post("/projects/{project}/spaces", response_model=PatchOut, openapi_extra=takes(SpaceBody))
def square(project: ProjectId, store: TheStore, body: Annotated[SpaceBody, Depends(json_body(SpaceBody))]) -> PatchOut:
    """A square space in one line, as a patch to apply."""
    key, patch = square_space(
        store.open(project).design, body.name, body.size_mm, body.at_mm, body.open, body.measured_from
    )
    return PatchOut(patch=operations(patch), id=key)


@router.post("/projects/{project}/rows", response_model=PatchOut, openapi_extra=takes(RowBody))
def another(project: ProjectId, store: TheStore, body: Annotated[RowBody, Depends(json_body(RowBody))]) -> PatchOut:
    """A row copied, its place still to be taken, or its mirror twin, as a patch to apply. ``id`` is the new row's
    path."""
    made, patch = (twinned if body.mirrored else copied)(store.open(project).design, body.path)
    return PatchOut(patch=operations(patch), id=made)


@router.post("/projects/{project}/reshaped", response_model=PatchOut, openapi_extra=takes(ReshapeBody))
def reshape(
    project: ProjectId, store: TheStore, body: Annotated[ReshapeBody, Depends(json_body(ReshapeBody))]
) -> PatchOut:
    """A solid said as another shape, with what carries over of its place and size."""
    return PatchOut(patch=operations(reshaped(store.open(project).design, body.path, body.shape)), id=body.path)


@router.get("/projects/{project}/blanks", response_model=list[BlankOut])
def blanks(project: ProjectId, store: TheStore) -> list[BlankOut]:
    """Every figure of the survey, numbered as on the printed sheet."""
    return [BlankOut.model_validate(row, from_attributes=True) for row in survey_blanks(store.open(project).design)]


@router.get("/projects/{project}/survey-sheet.pdf")
def survey_sheet(project: ProjectId, store: TheStore, scans: TheScans) -> Response:
    """The survey to print and fill by hand."""
    opened = store.open(project)
    return download(
        f"{project}-survey.pdf",
        survey_sheet_pdf(opened.design, opened.revision, scans.of(opened.design)),
        "application/pdf",
    )
