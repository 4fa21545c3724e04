"""Fit studies: asked for here, made by a worker."""

from typing import Annotated

from fastapi import APIRouter, Depends, Path, Request, Response
from pydantic import TypeAdapter

from levelcradle.core.fit import Fix, Wishes, check_wishes, what_it_takes
from levelcradle.jobs import Queue, StudyOut, study_out
from levelcradle.server.bodies import WouldTakeBody, json_body
from levelcradle.server.routes import ProjectId, TheScans, TheStore, takes, tried
from levelcradle.server.views import AnswerOut, CostOut, FixOut, ProblemOut, operations

__all__ = ["router"]

router = APIRouter(responses={code: {"model": ProblemOut} for code in (400, 404, 413, 422)})
StudyId = Annotated[str, Path(pattern=r"^[0-9a-f]{24}$")]
_STUDIES = TypeAdapter(list[StudyOut])


def _queue(request: Request) -> Queue:
    queue: Queue = request.app.state.queue
    return queue


@router.post("/projects/{project}/studies", response_model=StudyOut, status_code=202, openapi_extra=takes(Wishes))
def ask(
    project: ProjectId,
    store: TheStore,
    queue: Annotated[Queue, Depends(_queue)],
    wishes: Annotated[Wishes, Depends(json_body(Wishes))],
) -> Response:
    """Asks how many modules the bays take. Asked the same of the same revision again, it answers with the study there
    is."""
    opened = store.open(project)
    check_wishes(opened.design, wishes)
    asked, run = store.studies.ask(project, opened.revision, wishes.model_dump_json())
    if run:
        queue.put(asked.id)
    return Response(study_out(asked).model_dump_json(), 202, media_type="application/json")


@router.get("/projects/{project}/studies", response_model=list[StudyOut])
def studies(project: ProjectId, store: TheStore) -> Response:
    """The newest studies of a car."""
    store.open(project)
    return Response(
        _STUDIES.dump_json([study_out(s) for s in store.studies.of(project)]), media_type="application/json"
    )


@router.post("/projects/{project}/would-take", response_model=AnswerOut, openapi_extra=takes(WouldTakeBody))
def would_take(
    project: ProjectId,
    store: TheStore,
    scans: TheScans,
    body: Annotated[WouldTakeBody, Depends(json_body(WouldTakeBody))],
) -> Response:
    """What it would take: for a foul box, or for one more row or tier of it. Every answer has been run through all
    checks."""
    _, design = tried(store, project, body)
    answer = what_it_takes(design, body.box, body.more, meshes=scans.of(design), together=body.together)
    fixes = [_fix(fix) for fix in answer.fixes]
    out = AnswerOut(
        question=answer.question, fits=answer.fits, patch=operations(answer.patch), fixes=fixes, foul=answer.foul
    )
    return Response(out.model_dump_json(), media_type="application/json")


def _fix(fix: Fix) -> FixOut:
    costs = tuple(CostOut(message=c.message, figures=c.figures, state=c.state) for c in fix.costs)
    patch = operations(fix.patch) if fix.patch is not None and fix.whole else None
    return FixOut(
        kind=fix.kind,
        does=fix.does,
        message=fix.message,
        figures=fix.figures,
        whole=fix.whole,
        costs=costs,
        left=fix.left,
        patch=patch,
        at_mm=fix.at_mm,
    )


@router.get("/studies/{key}", response_model=StudyOut)
def one(key: StudyId, store: TheStore) -> Response:
    return Response(study_out(store.studies.get(key)).model_dump_json(), media_type="application/json")


@router.post("/studies/{key}/stop", response_model=StudyOut)
def stop(key: StudyId, store: TheStore) -> Response:
    """Ends a study with what it has."""
    return Response(study_out(store.studies.stop(key)).model_dump_json(), media_type="application/json")
