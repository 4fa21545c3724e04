"""The routes of the list of cars: new ones, from files, variants beside each other, what was deleted, and what each was before."""

from typing import Annotated

from fastapi import APIRouter, Depends, Path, Response
from pydantic import TypeAdapter

from levelcradle.core.analysis import analyse, analyse_assembly
from levelcradle.core.assembly import resolve
from levelcradle.core.compared import compared
from levelcradle.core.design import load, new_design, tree_of
from levelcradle.core.design.files import LARGEST_BYTES
from levelcradle.core.design.vehicle import Weighed
from levelcradle.drawings import plan_picture
from levelcradle.server.bodies import NewCar, json_body, raw_body
from levelcradle.server.problems import problem
from levelcradle.server.routes import FILE, ProjectId, Session, TheScans, TheStore, Who, json_out, takes
from levelcradle.server.views import ProblemOut, ProjectOut, RevisionOut, VariantOut
from levelcradle.store import Store, Summary

__all__ = ["router"]

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
    return _created(store, store.create(design.model_copy(update={"vehicle": vehicle, "weighings": weighings}), session))


@router.post("/projects/import", response_model=ProjectOut, status_code=201, openapi_extra=FILE)
def import_file(
    store: TheStore, session: Session, raw: Annotated[bytes, Depends(raw_body(LARGEST_BYTES))], another: bool = False
) -> Response:
    """A ``*.cradle.json`` file as a new project. Where a car of that name is there already it is refused, unless it is to be another."""
    design = load(raw)
    same = [row for row in store.all() if row.name == design.name]
    if same and not another:
        detail = f"“{same[0].name}” is on the bench already: is the file a newer version of it, or another car?"
        return problem(409, "Which car?", detail, same=same[0].id)
    return _created(store, store.create(design, session, says="from a file"))


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
def copy(project: ProjectId, store: TheStore, session: Session) -> Response:
    """A variant, which knows its first."""
    return _created(store, store.copy(project, session))


@router.get("/projects/{project}/variants", response_model=list[VariantOut])
def variants(project: ProjectId, store: TheStore, scans: TheScans) -> Response:
    """A car's first and all its variants, side by side."""
    rows = []
    for car in store.family(project):
        design = store.open(car.id).design
        rows.append(VariantOut(id=car.id, name=car.name, revision=car.revision, figures=compared(analyse(design, scans.of(design)))))
    return Response(_VARIANTS.dump_json(rows), media_type="application/json")


_VARIANTS = TypeAdapter(list[VariantOut])


@router.get("/projects/{project}/plan.svg")
def plan(project: ProjectId, store: TheStore, scans: TheScans) -> Response:
    """A small picture of its plan."""
    design = store.open(project).design
    drawn = plan_picture(design, analyse_assembly(resolve(design, scans.of(design))).shapes)
    return Response(drawn, media_type="image/svg+xml", headers={"Cache-Control": "max-age=31536000"})  # its address names the revision


@router.get("/projects/{project}/history", response_model=list[RevisionOut])
def history(project: ProjectId, store: TheStore) -> list[RevisionOut]:
    """Its revisions, the newest first, each with its sentence."""
    return [RevisionOut.model_validate(row, from_attributes=True) for row in store.history(project)]


@router.post("/projects/{project}/revisions/{number}/take-back", response_model=ProjectOut)
def take_back(
    project: ProjectId, number: Annotated[int, Path(ge=1, le=999_999_999)], store: TheStore, session: Session, who: Who
) -> Response:
    """An older revision as a new one; undo takes it back."""
    store.become(project, store.at(project, number), f"as in revision {number}", session=session, who=who)
    return json_out(_out(next(p for p in store.all() if p.id == project)))


@router.post("/projects/{project}/renewed", response_model=ProjectOut, openapi_extra=FILE)
def renewed(
    project: ProjectId, store: TheStore, session: Session, who: Who, raw: Annotated[bytes, Depends(raw_body(LARGEST_BYTES))]
) -> Response:
    """A file as a newer version of a car, as one revision; undo takes it back."""
    store.become(project, tree_of(load(raw)), "a newer version from a file", session=session, who=who)
    return json_out(_out(next(p for p in store.all() if p.id == project)))
