"""The fabrication pack: asked for here, made by a worker; and single cut files, made at once."""

import json
from collections.abc import Iterator
from typing import Annotated, Any

from fastapi import APIRouter, Depends, Path, Request, Response

from levelcradle.core.assembly import resolve
from levelcradle.core.design import Design
from levelcradle.core.edits import as_cut
from levelcradle.core.errors import UnknownThing
from levelcradle.drawings import cut_file, subject_of, touched
from levelcradle.jobs import SHEETS, WHOLE, Queue
from levelcradle.server.bodies import CutPartsBody, json_body
from levelcradle.server.routes import ProjectId, TheScans, TheStore, download, json_out, takes
from levelcradle.server.views import (
    AskedPackOut,
    MadePackOut,
    PackOut,
    PatchOut,
    ProblemOut,
    SheetGroupOut,
    SheetOut,
    operations,
)
from levelcradle.store import Change, KeptPack, Opened, Store

__all__ = ["router"]

router = APIRouter(responses={code: {"model": ProblemOut} for code in (404, 422)})
PackId = Annotated[str, Path(pattern=r"^[0-9a-f]{24}$")]
FileName = Annotated[str, Path(max_length=200)]
KINDS = {
    "dxf": "image/vnd.dxf",
    "svg": "image/svg+xml",
    "txt": "text/plain; charset=utf-8",
    "csv": "text/csv; charset=utf-8",
    "pdf": "application/pdf",
    "xlsx": "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
    "step": "model/step",
    "stl": "model/stl",
    "glb": "model/gltf-binary",
    "zip": "application/zip",
}


def _queue(request: Request) -> Queue:
    queue: Queue = request.app.state.queue
    return queue


@router.post("/projects/{project}/pack", response_model=PackOut, status_code=202)
def ask(project: ProjectId, store: TheStore, queue: Annotated[Queue, Depends(_queue)]) -> Response:
    """Asks for the pack of the car as it stands now; asked again, it answers with the one there is."""
    opened = store.open(project)
    asked, run = store.packs.ask(project, opened.revision, opened.on)
    if run:
        queue.put_pack(asked.id)
    return json_out(_out(store, opened), 202)


@router.get("/projects/{project}/pack", response_model=PackOut)
def pack(project: ProjectId, store: TheStore) -> Response:
    """The newest pack, what of it is out of date since which change, and the one that is being made."""
    return json_out(_out(store, store.open(project)))


def _out(store: Store, opened: Opened) -> PackOut:
    made, asked = store.packs.newest(opened.id)
    return PackOut(
        revision=opened.revision,
        made=_made(store, made, opened.design) if made else None,
        asked=AskedPackOut(revision=asked.revision, state=asked.state, share=asked.share, message=asked.message)
        if asked
        else None,
    )


def _made(store: Store, made: KeptPack, design: Design) -> MadePackOut:
    contents, changes = json.loads(made.contents), store.packs.changes(made.project, made.revision)
    groups = [
        SheetGroupOut(title=group["title"], sheets=[_sheet(sheet, changes, design) for sheet in group["sheets"]])
        for group in contents["groups"]
    ]
    files = [name for name in store.packs.names(made.id) if name != WHOLE and not name.startswith(f"{SHEETS}/")]
    return MadePackOut(id=made.id, revision=made.revision, released=contents["released"], groups=groups, files=files)


def _sheet(sheet: dict[str, Any], changes: list[Change], design: Design) -> SheetOut:
    """With the latest change that may have made it out of date, and what of it is in metal already."""
    since = next((c for c in changes if any(touched(sheet["about"], path) for path in c.paths)), None)
    return SheetOut(
        name=sheet["name"],
        title=sheet["title"],
        cut=sheet["cut"],
        parts=list(sheet["parts"]),
        changed=f"revision {since.revision}: {since.sentence}" if since else "",
        in_metal=list(_in_metal(sheet, design)) if since else [],
    )


def _in_metal(sheet: dict[str, Any], design: Design) -> Iterator[str]:
    """Parts that the sheet is about and that are sent or cut, in words; a sheet of the whole is about all."""
    things = {path for path in sheet["about"] if path.startswith(("boxes/", "mounts/"))}
    for key, part in design.cut_parts.items():
        if key in sheet["parts"] or (not sheet["parts"] and (not things or things & set(part.of))):
            yield f"{part.name} is {'sent out' if part.state == 'sent' else 'cut'}"


@router.get("/projects/{project}/pack/{key}/whole.zip")
def whole(project: ProjectId, key: PackId, store: TheStore) -> Response:
    """All files of a pack."""
    return download(f"{project}.zip", store.packs.file(_of(store, project, key), WHOLE), KINDS["zip"])


@router.get("/projects/{project}/pack/{key}/files/{name:path}")
def file(project: ProjectId, key: PackId, name: FileName, store: TheStore) -> Response:
    """One file of a pack."""
    data = store.packs.file(_of(store, project, key), name)
    return download(name.rsplit("/", 1)[-1], data, KINDS.get(name.rsplit(".", 1)[-1], "application/octet-stream"))


@router.get("/projects/{project}/pack/{key}/sheets/{name}")
def sheet(project: ProjectId, key: PackId, name: FileName, store: TheStore) -> Response:
    """One sheet of a pack as SVG."""
    return Response(store.packs.file(_of(store, project, key), f"{SHEETS}/{name}.svg"), media_type=KINDS["svg"])


def _of(store: Store, project: str, key: str) -> str:
    """The pack's key, if it is this car's. Raises UnknownThing."""
    if store.packs.get(key).project != project:
        raise UnknownThing("pack", key)
    return key


@router.post("/projects/{project}/cut-parts", response_model=PatchOut, openapi_extra=takes(CutPartsBody))
def cut_parts(
    project: ProjectId,
    store: TheStore,
    scans: TheScans,
    body: Annotated[CutPartsBody, Depends(json_body(CutPartsBody))],
) -> Response:
    """Every part of a mark said to be sent, cut, or only drawn, as a patch to apply."""
    design = store.open(project).design
    found = as_cut(resolve(design, scans.of(design)), body.mark, body.state)
    return json_out(PatchOut(patch=operations(found), id=body.mark))


@router.get("/projects/{project}/cut/{name}")
def cut(project: ProjectId, name: FileName, store: TheStore, scans: TheScans) -> Response:
    """One cut file of the car as it stands now, by its name in the pack."""
    opened = store.open(project)
    assembly = resolve(opened.design, scans.of(opened.design))
    data = cut_file(subject_of(assembly, revision=opened.revision, on=opened.on), f"cut/{name}")
    if data is None:
        raise UnknownThing("file", name[:60])
    return download(name, data, KINDS[name.rsplit(".", 1)[-1]])
