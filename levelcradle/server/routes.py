"""The routes. Each reads its body, asks the store or the core, and answers; none computes."""

from typing import Annotated, Any
from urllib.parse import unquote

from fastapi import APIRouter, Depends, Header, Path, Request, Response
from pydantic import BaseModel

from levelcradle.core.analysis import analyse, analyse_assembly, finding_named
from levelcradle.core.assembly import resolve
from levelcradle.core.clearance import move_to, snap_points, tape_between
from levelcradle.core.design import Design, dump, schema, validate
from levelcradle.core.design.ids import free_id
from levelcradle.core.design.patch import Op, apply
from levelcradle.core.design.readings import reads_as
from levelcradle.core.errors import PatchError
from levelcradle.core.fit import first_box
from levelcradle.core.quantity import meant, read_place
from levelcradle.server.bodies import (
    FirstBoxBody,
    Operation,
    PatchBody,
    PreviewBody,
    ReadBody,
    ReadPlaceBody,
    ShownBody,
    TapeBody,
    WorkingBody,
    json_body,
)
from levelcradle.server.scans import Scans
from levelcradle.server.views import (
    AnalysisOut,
    EditedOut,
    FirstBoxOut,
    OpenedOut,
    OperationOut,
    PlaceOut,
    PreviewOut,
    ProblemOut,
    ReadOut,
    TapeOut,
    WorkingOut,
    analysis_out,
)
from levelcradle.store import Edited, Opened, Store

__all__ = [
    "FILE",
    "Key",
    "ProjectId",
    "Session",
    "TheScans",
    "TheStore",
    "Who",
    "download",
    "json_out",
    "router",
    "takes",
    "tried",
]

router = APIRouter(responses={code: {"model": ProblemOut} for code in (400, 404, 412, 413, 422)})
ProjectId = Annotated[str, Path(pattern=r"^[a-z0-9][a-z0-9-]{0,79}$")]
Key = Annotated[str, Path(pattern=r"^[a-z0-9][a-z0-9-]{0,59}$")]
Session = Annotated[str, Header(alias="X-Session", pattern=r"^[A-Za-z0-9-]{1,64}$")]


def _who(named: Annotated[str, Header(alias="X-Who", max_length=400)] = "") -> str:
    """The name that whoever works at the screen gave, percent-encoded on the way."""
    return "".join(c for c in unquote(named, errors="replace") if c.isprintable())[:60].strip()


Who = Annotated[str, Depends(_who)]


def takes(model: type[BaseModel], kind: str = "application/json") -> dict[str, Any]:
    ref = {"$ref": f"#/components/schemas/{model.__name__}"}
    return {"requestBody": {"required": True, "content": {kind: {"schema": ref}}}}


FILE = {"requestBody": {"required": True, "content": {"application/json": {"schema": {"type": "object"}}}}}


def _store(request: Request) -> Store:
    store: Store = request.app.state.store
    return store


def _scans(request: Request) -> Scans:
    scans: Scans = request.app.state.scans
    return scans


TheStore = Annotated[Store, Depends(_store)]
TheScans = Annotated[Scans, Depends(_scans)]


def json_out(out: BaseModel, status: int = 200) -> Response:
    return Response(out.model_dump_json(), status, media_type="application/json")


def _analysed(design: Design, scans: Scans) -> AnalysisOut:
    return analysis_out(analyse(design, scans.of(design)))


@router.get("/health", responses={503: {"model": ProblemOut}})
def health(store: TheStore) -> dict[str, str]:
    """Whether the database answers (503 where it does not) and a worker lives."""
    return {"message": "Level Cradle", "database": "there", "worker": "there" if store.worker_there() else "away"}


@router.get("/schema")
def document_schema() -> dict[str, Any]:
    """JSON Schema of the design document."""
    return schema()


@router.post("/read", response_model=ReadOut, openapi_extra=takes(ReadBody))
def read_text(body: Annotated[ReadBody, Depends(json_body(ReadBody))]) -> Response:
    """What a typed text means: mm, kg, degrees, N·m, V."""
    if body.path is not None:
        base = list(body.base_mm) if body.base_mm else None
        found = reads_as(body.path, body.text, body.unit, base, body.now_mm)
        return json_out(ReadOut(value=found.value, unit=found.unit, by=found.by))
    value, unit = meant(body.text, body.kind, body.unit)
    return json_out(ReadOut(value=value, unit=unit, by=False))


@router.post("/read-place", response_model=PlaceOut, openapi_extra=takes(ReadPlaceBody))
def read_place_text(body: Annotated[ReadPlaceBody, Depends(json_body(ReadPlaceBody))]) -> Response:
    """A place or a move: ``840 aft, 120 R, 310 up``, ``+12``."""
    place = read_place(body.text, body.axis, body.unit)
    return json_out(PlaceOut.model_validate(place, from_attributes=True))


@router.get("/projects/{project}", response_model=OpenedOut)
def open_project(project: ProjectId, store: TheStore, scans: TheScans, session: Session) -> Response:
    opened = store.open(project)
    undo, redo = store.steps(project, session=session)
    return json_out(
        OpenedOut.model_construct(
            id=opened.id,
            revision=opened.revision,
            document=opened.tree,
            analysis=_analysed(opened.design, scans),
            undo=undo,
            redo=redo,
        )
    )


@router.patch("/projects/{project}", response_model=EditedOut, openapi_extra=takes(PatchBody))
def edit_project(
    project: ProjectId,
    store: TheStore,
    scans: TheScans,
    session: Session,
    who: Who,
    if_match: Annotated[str, Header(pattern=r'^"?[0-9]{1,9}"?$')],
    body: Annotated[PatchBody, Depends(json_body(PatchBody))],
) -> Response:
    """One edit, on the revision named by If-Match."""
    base = int(if_match.strip('"'))
    edited = store.edit(project, _ops(body.patch), base=base, session=session, who=who, seen=body.seen, once=body.once)
    return _edited(store, scans, edited, session)


def _ops(patch: list[Operation]) -> list[Op]:
    return [Op(op=o.op, path=o.path, value=o.value) if o.op != "remove" else Op(op=o.op, path=o.path) for o in patch]


def _edited(store: Store, scans: Scans, edited: Edited, session: str) -> Response:
    undo, redo = store.steps(edited.opened.id, session=session)
    return json_out(
        EditedOut.model_construct(
            revision=edited.opened.revision,
            patches_since=_patch_out(edited.since),
            document_patch=_patch_out(edited.patch),
            sentence=edited.sentence,
            analysis=_analysed(edited.opened.design, scans),
            undo=undo,
            redo=redo,
        )
    )


def _patch_out(patch: tuple[Op, ...]) -> list[OperationOut]:
    return [OperationOut.model_construct(op=op["op"], path=op["path"], value=op.get("value")) for op in patch]


@router.post("/projects/{project}/undo", response_model=EditedOut)
def undo(project: ProjectId, store: TheStore, scans: TheScans, session: Session, who: Who) -> Response:
    """Takes back this session's last step, as a new revision."""
    return _stepped(store, scans, store.step_back(project, "undo", session=session, who=who), session, "undo")


@router.post("/projects/{project}/redo", response_model=EditedOut)
def redo(project: ProjectId, store: TheStore, scans: TheScans, session: Session, who: Who) -> Response:
    return _stepped(store, scans, store.step_back(project, "redo", session=session, who=who), session, "redo")


def _stepped(store: Store, scans: Scans, edited: Edited | None, session: str, what: str) -> Response:
    if edited is None:
        raise PatchError("", f"there is nothing to {what}")
    return _edited(store, scans, edited, session)


@router.post("/projects/{project}/preview", response_model=PreviewOut, openapi_extra=takes(ShownBody))
def preview(
    project: ProjectId, store: TheStore, scans: TheScans, body: Annotated[ShownBody, Depends(json_body(ShownBody))]
) -> Response:
    """What a patch would do, without saving it, and where a box that it moves is caught; without shapes where they were
    not asked for, because what is dragged follows the hand."""
    opened, design = tried(store, project, body)
    assembly = resolve(design, scans.of(design))
    analysis = analysis_out(analyse_assembly(assembly))
    moved = next(
        (
            key
            for key, box in assembly.boxes.items()
            if any(op.path.startswith(f"/{box.path}/pose") for op in body.patch)
        ),
        None,
    )
    caught = snap_points(assembly, moved) if moved is not None else ()
    shown = analysis if body.shapes else analysis.model_copy(update={"shapes": ()})
    return json_out(PreviewOut.model_construct(base=opened.revision, analysis=shown, snap_points=caught))


def tried(store: Store, project: str, body: PreviewBody) -> tuple[Opened, Design]:
    opened = store.open(project)
    if not body.patch:
        return opened, opened.design
    return opened, validate(apply(opened.tree, _ops(body.patch)).tree, (opened.tree, opened.design))


@router.post("/projects/{project}/working", response_model=WorkingOut, openapi_extra=takes(WorkingBody))
def working(
    project: ProjectId, store: TheStore, scans: TheScans, body: Annotated[WorkingBody, Depends(json_body(WorkingBody))]
) -> Response:
    """The steps behind one finding, as stored or with the same patch as a preview."""
    _, design = tried(store, project, body)
    finding = finding_named(analyse(design, scans.of(design)), body.finding)
    return json_out(WorkingOut(finding=finding.id, steps=finding.working() if finding.working else ()))


@router.post("/projects/{project}/tape", response_model=TapeOut, openapi_extra=takes(TapeBody))
def tape(
    project: ProjectId, store: TheStore, scans: TheScans, body: Annotated[TapeBody, Depends(json_body(TapeBody))]
) -> Response:
    """The shortest distance between two things."""
    _, design = tried(store, project, body)
    assembly = resolve(design, scans.of(design))
    found = tape_between(assembly, body.one, body.other)
    move = None if body.want_mm is None else move_to(assembly, body.one, body.other, body.want_mm)
    return json_out(
        TapeOut(
            distance_mm=found.distance_mm, here=found.here, there=found.there, parts_mm=found.parts_mm, move_mm=move
        )
    )


@router.post("/projects/{project}/first-box", response_model=FirstBoxOut, openapi_extra=takes(FirstBoxBody))
def put_box(
    project: ProjectId,
    store: TheStore,
    scans: TheScans,
    body: Annotated[FirstBoxBody, Depends(json_body(FirstBoxBody))],
) -> Response:
    """The box with most modules that stands square in a bay, as a patch to apply; where none does, one module that is
    foul."""
    opened = store.open(project)
    found = first_box(opened.design, body.bay, body.kind, body.turn, most=body.most, meshes=scans.of(opened.design))
    key = free_id(body.bay, opened.design.boxes)
    value = found.box.model_dump(mode="json", by_alias=True)
    patch = [OperationOut(op="add", path=f"/boxes/{key}", value=value)]
    return json_out(FirstBoxOut(modules=found.modules, fits=found.fits, message=found.message, patch=patch))


@router.get("/projects/{project}/export")
def export(project: ProjectId, store: TheStore) -> Response:
    """The document as a ``*.cradle.json`` file."""
    return download(f"{project}.cradle.json", dump(store.open(project).design).encode(), "application/json")


def download(name: str, data: bytes, kind: str) -> Response:
    return Response(data, media_type=kind, headers={"Content-Disposition": f'attachment; filename="{name}"'})
