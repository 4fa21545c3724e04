"""The routes of the list of cars: new ones, from files, variants beside each other, what was deleted, and what each was
before."""

from typing import Annotated

from fastapi import APIRouter, Depends, Path, Response
from pydantic import Field, TypeAdapter

from levelcradle.core.analysis import analyse, analyse_assembly
from levelcradle.core.assembly import resolve
from levelcradle.core.compared import compared
from levelcradle.core.design import Design, load, new_design, tree_of, validate
from levelcradle.core.design.files import LARGEST_BYTES
from levelcradle.core.design.vehicle import Weighed
from levelcradle.core.edits import pattern_of
from levelcradle.drawings import plan_picture
from levelcradle.exchange import may_be_kept
from levelcradle.server.bodies import NewCar, json_body, raw_body
from levelcradle.server.problems import problem
from levelcradle.server.routes import FILE, ProjectId, Session, TheScans, TheStore, Who, download, json_out, takes
from levelcradle.server.scans import Scans
from levelcradle.server.views import ProblemOut, ProjectOut, RevisionOut, VariantOut
from levelcradle.store import Store, Summary, read_archive, write_archive

__all__ = ["router"]

Number = Annotated[int, Field(ge=1, le=999_999_999)]
"""Of a revision."""

LARGEST_ARCHIVE_BYTES = 200_000_000
router = APIRouter(responses={code: {"model": ProblemOut} for code in (400, 404, 409, 412, 413, 422)})


def _out(row: Summary) -> ProjectOut:
    return ProjectOut.model_validate(row, from_attributes=True)


@router.get("/projects", response_model=list[ProjectOut])
def projects(store: TheStore) -> list[ProjectOut]:
    return [_out(row) for row in store.all()]


@router.post("/projects", response_model=ProjectOut, status_code=201, openapi_extra=takes(NewCar))
def new_car(store: TheStore, session: Session, body: Annotated[NewCar, Depends(json_body(NewCar))]) -> Response:
    """A new car: name, wheelbase, and as much of tracks and weighing as is known."""
    design = new_design(body.name, body.wheelbase_mm)
    vehicle = design.vehicle.model_copy(update={"track_mm": body.track_mm})
    weighings = {"as-found": Weighed(kind="as found", read=body.weighing)} if body.weighing else {}
    return _created(
        store, store.create(design.model_copy(update={"vehicle": vehicle, "weighings": weighings}), session)
    )


@router.post("/projects/import", response_model=ProjectOut, status_code=201, openapi_extra=FILE)
def import_file(
    store: TheStore, session: Session, raw: Annotated[bytes, Depends(raw_body(LARGEST_BYTES))], another: bool = False
) -> Response:
    """A ``*.cradle.json`` file as a new project. Where a car of that name is there already it is refused, unless it is
    to be another."""
    design = load(raw)
    same = [row for row in store.all() if row.name == design.name]
    if same and not another:
        detail = f"“{same[0].name}” is on the bench already: is the file a newer version of it, or another car?"
        return problem(409, "Which car?", detail, same=same[0].id)
    return _created(store, store.create(design, session, message="from a file"))


@router.get("/projects/{project}/archive")
def archive(project: ProjectId, store: TheStore) -> Response:
    """The car with its log, scans and pictures in one file."""
    return download(f"{project}.cradle.zip", write_archive(store.archive(project)), "application/zip")


@router.post("/projects/import-archive", response_model=ProjectOut, status_code=201, openapi_extra=FILE)
def import_archive(
    store: TheStore, session: Session, raw: Annotated[bytes, Depends(raw_body(LARGEST_ARCHIVE_BYTES))]
) -> Response:
    """A car from an archive, with all that was in it, as another car on the bench."""
    return _created(store, store.restore(read_archive(raw, may_be_kept), session))


@router.post("/projects/{project}/again", response_model=ProjectOut, status_code=201)
def again(project: ProjectId, store: TheStore, session: Session) -> Response:
    """The same again: a new car by the pattern of this one, without what was measured, weighed or cut of it."""
    design = store.open(project).design
    return _created(store, store.create(pattern_of(design), session, message=f"by the pattern of {design.name}"))


def _created(store: Store, key: str) -> Response:
    return json_out(_out(next(p for p in store.all() if p.id == key)), 201)


@router.get("/deleted", response_model=list[ProjectOut])
def deleted(store: TheStore) -> list[ProjectOut]:
    """What was deleted and is still kept, for 30 days."""
    return [_out(row) for row in store.deleted()]


@router.post("/deleted/{project}/back", status_code=204)
def bring_back(project: ProjectId, store: TheStore) -> None:
    store.bring_back(project)


@router.delete("/projects/{project}", status_code=204)
def delete(project: ProjectId, store: TheStore) -> None:
    """Off the bench; it is kept for 30 days."""
    store.delete(project)


@router.post("/projects/{project}/copy", response_model=ProjectOut, status_code=201)
def copy(project: ProjectId, store: TheStore, session: Session, revision: Number | None = None) -> Response:
    """A variant, which knows its first: of the car as it stands, or as it was."""
    return _created(store, store.copy(project, session, revision))


@router.get("/projects/{project}/variants", response_model=list[VariantOut])
def variants(project: ProjectId, store: TheStore, scans: TheScans) -> Response:
    """A car's first and all its variants, side by side."""
    return _side_by_side(
        [_variant(car.id, car.revision, store.open(car.id).design, scans) for car in store.family(project)]
    )


@router.get("/projects/{project}/revisions/{number}", response_model=list[VariantOut])
def then_and_now(project: ProjectId, number: Annotated[Number, Path()], store: TheStore, scans: TheScans) -> Response:
    """A car as it was at a revision and as it stands, side by side."""
    now = store.open(project)
    then = _variant(project, number, validate(store.at(project, number)), scans)
    return _side_by_side([then, _variant(project, now.revision, now.design, scans)])


def _variant(key: str, revision: int, design: Design, scans: Scans) -> VariantOut:
    return VariantOut(id=key, name=design.name, revision=revision, figures=compared(analyse(design, scans.of(design))))


_VARIANTS = TypeAdapter(list[VariantOut])


def _side_by_side(rows: list[VariantOut]) -> Response:
    return Response(_VARIANTS.dump_json(rows), media_type="application/json")


@router.get("/projects/{project}/plan.svg")
def plan(project: ProjectId, store: TheStore, scans: TheScans, revision: Number) -> Response:
    """A small picture of its plan at a revision."""
    design = validate(store.at(project, revision))
    drawn = plan_picture(design, analyse_assembly(resolve(design, scans.of(design))).shapes)
    # its address names the revision
    return Response(drawn, media_type="image/svg+xml", headers={"Cache-Control": "max-age=31536000"})


@router.get("/projects/{project}/history", response_model=list[RevisionOut])
def history(project: ProjectId, store: TheStore) -> list[RevisionOut]:
    """Its revisions, the newest first, each with its sentence."""
    return [RevisionOut.model_validate(row, from_attributes=True) for row in store.history(project)]


@router.post("/projects/{project}/revisions/{number}/take-back", response_model=ProjectOut)
def take_back(
    project: ProjectId, number: Annotated[Number, Path()], store: TheStore, session: Session, who: Who
) -> Response:
    """An older revision as a new one; undo takes it back."""
    store.become(project, store.at(project, number), f"as in revision {number}", session=session, who=who)
    return json_out(_out(next(p for p in store.all() if p.id == project)))


@router.post("/projects/{project}/renewed", response_model=ProjectOut, openapi_extra=FILE)
def renewed(
    project: ProjectId,
    store: TheStore,
    session: Session,
    who: Who,
    raw: Annotated[bytes, Depends(raw_body(LARGEST_BYTES))],
) -> Response:
    """A file as a newer version of a car, as one revision; undo takes it back."""
    store.become(project, tree_of(load(raw)), "a newer version from a file", session=session, who=who)
    return json_out(_out(next(p for p in store.all() if p.id == project)))
