"""What the Place station asks of a design besides its analysis: chains of allowances, sections, bodies to walk
round."""

from collections.abc import Iterable
from dataclasses import asdict
from typing import Annotated, Literal

from fastapi import APIRouter, Depends, Query, Response
from pydantic import TypeAdapter

from levelcradle.core.assembly import resolve
from levelcradle.core.box_section import box_section
from levelcradle.core.clearance import StackUp, stack_up
from levelcradle.core.cuts import bodies, cut_at
from levelcradle.core.design.patch import Op
from levelcradle.core.edits import (
    active_set,
    alike,
    blocks_changed,
    built_as,
    crossed,
    doubled,
    fitted_in,
    held_by,
    hung,
    into_box,
    joined_by,
    laid_against,
    load_sets,
    out_of_box,
    relieved,
    removing,
    uncrossed,
    with_load_set,
)
from levelcradle.core.errors import UnknownThing
from levelcradle.core.hang import how_it_hangs, size_one, welds_compared
from levelcradle.core.mount import let_go
from levelcradle.core.mount_drawn import drawn_mount
from levelcradle.core.opened import made_as, opened
from levelcradle.server.bodies import (
    BlocksBody,
    CrossedBody,
    HungBody,
    LayBody,
    PlaceThingBody,
    PreviewBody,
    RemoveBoxBody,
    SectionBody,
    StackUpBody,
    json_body,
)
from levelcradle.server.routes import Key, ProjectId, TheScans, TheStore, json_out, takes, tried
from levelcradle.server.views import (
    BodiesOut,
    BoxOpenedOut,
    BoxSectionOut,
    DrawnMountOut,
    HangingOut,
    LetGoOut,
    LoadSetOut,
    MadeAsOut,
    PatchOut,
    ProblemOut,
    SectionOut,
    SizedOut,
    SizeOut,
    ToldOut,
    WayOut,
    WeldChoiceOut,
    WithinOut,
    operations,
)

__all__ = ["router"]

router = APIRouter(responses={code: {"model": ProblemOut} for code in (400, 404, 413, 422)})

_CHAIN = TypeAdapter(StackUp)


@router.post("/projects/{project}/stack-up", response_model=StackUp, openapi_extra=takes(StackUpBody))
def chain(
    project: ProjectId, store: TheStore, scans: TheScans, body: Annotated[StackUpBody, Depends(json_body(StackUpBody))]
) -> Response:
    """Every allowance along a line through a box, against the space there."""
    _, design = tried(store, project, body)
    found = stack_up(resolve(design, scans.of(design)), body.box, body.way, body.at_mm, body.module)
    return Response(_CHAIN.dump_json(found), media_type="application/json")


@router.post("/projects/{project}/blocks", response_model=PatchOut, openapi_extra=takes(BlocksBody))
def blocks(
    project: ProjectId, store: TheStore, body: Annotated[BlocksBody, Depends(json_body(BlocksBody))]
) -> Response:
    """Splits, joins, copies, mirrors, lines up, spreads or moves blocks of a box, as a patch to apply."""
    _, design = tried(store, project, body)
    return _patched(blocks_changed(design, body.box, body.order), body.box)


@router.post("/projects/{project}/lay-against", response_model=PatchOut, openapi_extra=takes(LayBody))
def lay(
    project: ProjectId, store: TheStore, scans: TheScans, body: Annotated[LayBody, Depends(json_body(LayBody))]
) -> Response:
    """Lays a box against something with the needed gap, as a patch to apply."""
    _, design = tried(store, project, body)
    return _patched(laid_against(resolve(design, scans.of(design)), body.box, body.other, turn=body.turn), body.box)


@router.post("/projects/{project}/removed-box", response_model=PatchOut, openapi_extra=takes(RemoveBoxBody))
def removed_box(
    project: ProjectId, store: TheStore, body: Annotated[RemoveBoxBody, Depends(json_body(RemoveBoxBody))]
) -> Response:
    """Takes a box out with everything that names it, as a patch to apply."""
    _, design = tried(store, project, body)
    if body.box not in design.boxes:
        raise UnknownThing("box", body.box)
    return _patched(removing(design, [body.box]), body.box)


@router.post("/projects/{project}/placed-thing", response_model=PatchOut, openapi_extra=takes(PlaceThingBody))
def placed_thing(
    project: ProjectId,
    store: TheStore,
    scans: TheScans,
    body: Annotated[PlaceThingBody, Depends(json_body(PlaceThingBody))],
) -> Response:
    """Puts a thing in or on a box, or takes it out of one, where it stands, as a patch to apply."""
    _, design = tried(store, project, body)
    assembly = resolve(design, scans.of(design))
    return _patched(into_box(assembly, body.item, body.box) if body.box else out_of_box(assembly, body.item), body.item)


@router.post("/projects/{project}/boxes/{box}/built-as/{kind}", response_model=PatchOut)
def another_construction(project: ProjectId, box: Key, kind: Key, store: TheStore) -> Response:
    """A box built another way, as large as it was, as a patch to apply."""
    return _patched(built_as(store.open(project).design, box, kind), box)


@router.post("/projects/{project}/boxes/{box}/fitted/{size}", response_model=PatchOut)
def fitted(project: ProjectId, box: Key, size: Key, store: TheStore, scans: TheScans) -> Response:
    """An opening with what sits in it, put where it goes, as a patch to apply."""
    design = store.open(project).design
    key, patch = fitted_in(resolve(design, scans.of(design)), box, size)
    return _patched(patch, key)


@router.post("/projects/{project}/boxes/{box}/blocks/{block}/relieved", response_model=PatchOut)
def compartments_relieved(project: ProjectId, box: Key, block: Key, store: TheStore, scans: TheScans) -> Response:
    """A pressure relief in each compartment of a block that lacks one on the chosen side, as a patch to apply."""
    design = store.open(project).design
    return _patched(relieved(resolve(design, scans.of(design)), box, block), box)


@router.post("/projects/{project}/boxes/{box}/held-by/{kind}", response_model=PatchOut)
def holders(project: ProjectId, box: Key, kind: Key, store: TheStore, scans: TheScans) -> Response:
    """What holds the modules of a box, sized so that no way is foul, as a patch to apply; ``any``: of whatever kind."""
    design = store.open(project).design
    return _patched(held_by(design, box, kind.replace("-", "_"), scans.of(design)), box)


@router.get("/projects/{project}/boxes/{box}/opened", response_model=BoxOpenedOut)
def box_opened(project: ProjectId, box: Key, store: TheStore, scans: TheScans) -> Response:
    """A box with its walls laid round its base, and what its contents would weigh in other constructions."""
    design = store.open(project).design
    laid = asdict(opened(resolve(design, scans.of(design)), box))
    return json_out(BoxOpenedOut(**laid, made_as=[MadeAsOut(**asdict(row)) for row in made_as(design, box)]))


@router.get("/projects/{project}/boxes/{box}/section", response_model=BoxSectionOut)
def box_cut(
    project: ProjectId,
    box: Key,
    store: TheStore,
    scans: TheScans,
    through: Annotated[int | None, Query(ge=1, le=100_000)] = None,
) -> Response:
    """A box cut across through one of its modules, and every layer on the cut; without a number through the first."""
    design = store.open(project).design
    return json_out(BoxSectionOut(**asdict(box_section(resolve(design, scans.of(design)), box, through))))


@router.post("/projects/{project}/hung", response_model=PatchOut, openapi_extra=takes(HungBody))
def new_mount(project: ProjectId, store: TheStore, body: Annotated[HungBody, Depends(json_body(HungBody))]) -> Response:
    """A mount between a box and a spot of the vehicle, as a patch to apply."""
    key, patch = hung(store.open(project).design, body.box, body.kind, body.on, body.face, body.other)
    return _patched(patch, key)


@router.post("/projects/{project}/crossed", response_model=PatchOut, openapi_extra=takes(CrossedBody))
def new_crossmember(
    project: ProjectId, store: TheStore, body: Annotated[CrossedBody, Depends(json_body(CrossedBody))]
) -> Response:
    """A crossmember between two hard points, as a patch to apply."""
    key, patch = crossed(store.open(project).design, body.one, body.other)
    return _patched(patch, key)


@router.post("/projects/{project}/crossmembers/{crossmember}/taken-away", response_model=PatchOut)
def no_crossmember(project: ProjectId, crossmember: Key, store: TheStore) -> Response:
    """A crossmember taken away with the mounts that land on it, as a patch to apply."""
    return _patched(uncrossed(store.open(project).design, crossmember), crossmember)


@router.post("/projects/{project}/mounts/{mount}/doubler", response_model=PatchOut)
def new_doubler(project: ProjectId, mount: Key, store: TheStore) -> Response:
    """A doubler under a bracket, as a patch to apply."""
    return _patched(doubled(store.open(project).design, mount), mount)


@router.post("/projects/{project}/mounts/{mount}/alike", response_model=PatchOut)
def new_likes(project: ProjectId, mount: Key, store: TheStore) -> Response:
    """All other mounts of its kind under the same box made like one, as a patch to apply; empty where they are."""
    return _patched(alike(store.open(project).design, mount), mount)


@router.post("/projects/{project}/mounts/{mount}/joined/{how}", response_model=PatchOut)
def new_joint(project: ProjectId, mount: Key, how: Literal["welded", "bolted"], store: TheStore) -> Response:
    """A bracket welded to its box, or bolted through its wall, as a patch to apply; empty where it is."""
    return _patched(joined_by(store.open(project).design, mount, how), mount)


@router.get("/projects/{project}/boxes/{box}/hanging", response_model=HangingOut)
def hanging(
    project: ProjectId, box: Key, store: TheStore, scans: TheScans, where_it_hangs: Annotated[bool, Query()] = False
) -> Response:
    """How a box can hang: what is within its reach, sets of mounts that hold, each run through all checks, and what is
    missing. ``where_it_hangs``: on the very points that carry it now."""
    design = store.open(project).design
    answer = how_it_hangs(design, box, meshes=scans.of(design), where_it_hangs=where_it_hangs)
    within = [
        WithinOut(path=w.path, name=w.name, face=w.face, off_mm=w.off_mm, misses_mm=w.misses_mm, why=w.why)
        for w in answer.within
    ]
    ways = [
        WayOut(
            on=w.on,
            mass_kg=w.mass_kg,
            utilisation=w.utilisation,
            governs=w.governs,
            message=w.message,
            patch=operations(w.patch),
        )
        for w in answer.ways
    ]
    missing = [ToldOut(message=m.message, figures=m.figures) for m in answer.missing]
    return Response(
        HangingOut(within=within, ways=ways, missing=missing).model_dump_json(), media_type="application/json"
    )


@router.get("/projects/{project}/load-sets", response_model=list[LoadSetOut])
def sets_of_cases(project: ProjectId, store: TheStore) -> list[LoadSetOut]:
    """The sets that the crash cases may be, which of them they are, and each as a patch to apply."""
    design = store.open(project).design
    now = active_set(design)
    return [
        LoadSetOut(id=key, words=one.words, now=key == now, patch=operations(with_load_set(design, key)))
        for key, one in load_sets().items()
    ]


@router.get("/projects/{project}/let-go", response_model=list[LetGoOut])
def one_lets_go(project: ProjectId, store: TheStore, scans: TheScans) -> list[LetGoOut]:
    """What the others carry where a mount lets go, each in turn, worst first."""
    design = store.open(project).design
    return [LetGoOut(**asdict(row)) for row in let_go(resolve(design, scans.of(design)))]


@router.post("/projects/{project}/mounts/{mount}/drawn", response_model=DrawnMountOut, openapi_extra=takes(PreviewBody))
def mount_drawn(
    project: ProjectId,
    mount: Key,
    store: TheStore,
    scans: TheScans,
    body: Annotated[PreviewBody, Depends(json_body(PreviewBody))],
) -> Response:
    """A mount in two views, and what all mounts of its box carry, case by case; as stored or with the same patch as a
    preview."""
    _, design = tried(store, project, body)
    return json_out(DrawnMountOut(**asdict(drawn_mount(resolve(design, scans.of(design)), mount))))


@router.get("/projects/{project}/mounts/{mount}/sizes", response_model=SizedOut)
def sizes(project: ProjectId, mount: Key, store: TheStore, scans: TheScans) -> SizedOut:
    """The lightest mounts of its kind that hold where one stands, each run through all checks, or why none does."""
    design = store.open(project).design
    sized = size_one(design, mount, meshes=scans.of(design))
    found = [
        SizeOut(
            message=row.message,
            mass_kg=row.mass_kg,
            utilisation=row.utilisation,
            governs=row.governs,
            patch=operations(row.patch),
        )
        for row in sized.sizes
    ]
    why = ToldOut(message=sized.why, figures=sized.figures) if sized.why else None
    return SizedOut(now_kg=sized.now_kg, sizes=found, why=why)


@router.get("/projects/{project}/mounts/{mount}/welds", response_model=list[WeldChoiceOut])
def welds(project: ProjectId, mount: Key, store: TheStore, scans: TheScans) -> list[WeldChoiceOut]:
    """A bracket's edges alone, with a weld across its end, with plugs; each as a patch to apply."""
    design = store.open(project).design
    return [WeldChoiceOut(**asdict(row)) for row in welds_compared(design, mount, meshes=scans.of(design))]


def _patched(ops: Iterable[Op], name: str) -> Response:
    return Response(PatchOut(patch=operations(ops), id=name).model_dump_json(), media_type="application/json")


@router.post("/projects/{project}/section", response_model=SectionOut, openapi_extra=takes(SectionBody))
def section(
    project: ProjectId, store: TheStore, scans: TheScans, body: Annotated[SectionBody, Depends(json_body(SectionBody))]
) -> Response:
    """What a plane square to the aft axis meets."""
    _, design = tried(store, project, body)
    cuts = cut_at(resolve(design, scans.of(design)), body.aft_mm)
    return Response(
        SectionOut.model_construct(aft_mm=body.aft_mm, cuts=cuts).model_dump_json(), media_type="application/json"
    )


@router.get("/projects/{project}/bodies", response_model=BodiesOut)
def walk_round(project: ProjectId, store: TheStore, scans: TheScans) -> Response:
    """Everything as triangles."""
    opened = store.open(project)
    found = bodies(resolve(opened.design, scans.of(opened.design)))
    return Response(
        BodiesOut.model_construct(revision=opened.revision, bodies=found).model_dump_json(),
        media_type="application/json",
    )
