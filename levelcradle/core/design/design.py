"""The design document: one tree, the single source of truth."""

from collections.abc import Iterator
from itertools import pairwise
from typing import Annotated, Literal

from pydantic import Field

from levelcradle.core.design.agreed import AgreedGap, Chain, Pin, TapeKept
from levelcradle.core.design.base import DocumentModel, Id, Line
from levelcradle.core.design.bay import Bay, BayCorner
from levelcradle.core.design.box import FACE_AT, Box
from levelcradle.core.design.crossmember import Crossmember
from levelcradle.core.design.cut_part import CutPart, PartId
from levelcradle.core.design.holders import refers
from levelcradle.core.design.mount import Mount
from levelcradle.core.design.sheets import SheetChoice
from levelcradle.core.design.stock import Hardware, Module, ModuleKind, PackString, ShelfRule, Stack
from levelcradle.core.design.survey import (
    Duty,
    HardPoint,
    InBox,
    Item,
    Keepout,
    LoadState,
    Member,
    Reading,
    Reference,
    Snag,
    VehicleOpening,
)
from levelcradle.core.design.tables import Tables, standard_tables
from levelcradle.core.design.twins import TWINNED
from levelcradle.core.design.vehicle import Vehicle, Weighed, Weighing
from levelcradle.core.errors import Problem

__all__ = ["AS_FOUND", "Design", "Units", "broken_references", "new_design"]

AS_FOUND = "weighings/as-found"  # the one that loads are counted from; what was weighed later is held against it

Pointer = Annotated[str, Field(max_length=400, pattern=r"^(/[^/]*)+$")]


class Units(DocumentModel):
    """The unit of each list: lengths of the survey, the stock and all else, and masses."""

    survey: Literal["mm", "in"] = "mm"
    stock: Literal["mm", "in"] = "mm"
    place: Literal["mm", "in"] = "mm"
    mass: Literal["kg", "lb"] = "kg"


class Design(DocumentModel):
    """Everything that was decided. Collections are objects keyed by id; results are never stored here."""

    format: Literal[12]
    name: Line
    units: Units = Units()
    sheets: SheetChoice = SheetChoice()
    vehicle: Vehicle
    weighings: Annotated[dict[Id, Weighed], Field(max_length=100)] = {}
    references: Annotated[dict[Id, Reference], Field(max_length=200)] = {}
    items: Annotated[dict[Id, Item], Field(max_length=2000)] = {}
    keepouts: Annotated[dict[Id, Keepout], Field(max_length=2000)] = {}
    load_states: Annotated[dict[Id, LoadState], Field(max_length=50)] = {}
    bays: Annotated[dict[Id, Bay], Field(max_length=100)] = {}
    hardpoints: Annotated[dict[Id, HardPoint], Field(max_length=1000)] = {}
    members: Annotated[dict[Id, Member], Field(max_length=300)] = {}
    crossmembers: Annotated[dict[Id, Crossmember], Field(max_length=100)] = {}
    openings: Annotated[dict[Id, VehicleOpening], Field(max_length=200)] = {}
    duties: Annotated[dict[Id, Duty], Field(max_length=200)] = {}
    snags: Annotated[dict[Id, Snag], Field(max_length=500)] = {}
    module_kinds: Annotated[dict[Id, ModuleKind], Field(max_length=100)] = {}
    modules: Annotated[dict[Id, Module], Field(max_length=2000)] = {}
    stacks: Annotated[dict[Id, Stack], Field(max_length=100)] = {}
    hardware: Annotated[dict[Id, Hardware], Field(max_length=300)] = {}
    shelf_rule: ShelfRule = ShelfRule()
    boxes: Annotated[dict[Id, Box], Field(max_length=100)] = {}
    mounts: Annotated[dict[Id, Mount], Field(max_length=1000)] = {}
    agreed_gaps: Annotated[dict[Id, AgreedGap], Field(max_length=500)] = {}
    cut_parts: Annotated[dict[PartId, CutPart], Field(max_length=5000)] = {}
    pins: Annotated[dict[Id, Pin], Field(max_length=300)] = {}
    tapes: Annotated[dict[Id, TapeKept], Field(max_length=100)] = {}
    strings: Annotated[dict[Id, PackString], Field(max_length=24)] = {}
    chains: Annotated[dict[Id, Chain], Field(max_length=300)] = {}
    readings: Annotated[dict[Pointer, Reading], Field(max_length=20_000)] = {}
    tables: Tables

    @property
    def weighing(self) -> Weighing | None:
        """What the car weighed as found."""
        found = self.weighings.get(AS_FOUND.removeprefix("weighings/"))
        return found.read if found else None


def new_design(name: str, wheelbase_mm: float) -> Design:
    """An empty design for a car of which only the wheelbase is known."""
    return Design(format=12, name=name, vehicle=Vehicle(wheelbase_mm=wheelbase_mm), tables=standard_tables())


def broken_references(design: Design) -> Iterator[Problem]:
    """Every place where one thing names another that is not there, and what one model alone cannot see."""
    yield from _names(design)
    yield from _agreed(design)
    yield from _in_bays(design)
    yield from _kinds_in_boxes(design)
    if sum(b.counts.total for box in design.boxes.values() for b in box.blocks.values()) > 2000:
        yield Problem("/boxes", "more than 2,000 modules are placed")


def _names(design: Design) -> Iterator[Problem]:
    def there(path: str, name: str | None, collection: str, what: str) -> Iterator[Problem]:
        if name is not None and name not in getattr(design, collection):
            yield Problem(path, f"there is no {what} “{name}”")

    for key, bay in design.bays.items():
        yield from there(f"/bays/{key}/measured_from", bay.measured_from, "references", "reference point")
    for key, item in design.items.items():
        yield from there(f"/items/{key}/fixed_to", item.fixed_to, "boxes", "box")
        if isinstance(item.place, InBox):
            yield from there(f"/items/{key}/place/box", item.place.box, "boxes", "box")
            if not _square_edges(item.place.face, item.place.from_):
                yield Problem(f"/items/{key}/place/from", f"give two edges of the {item.place.face} that meet")
            held = design.boxes.get(item.place.box)
            if item.place.chamber is not None and held is not None and item.place.chamber not in held.chambers:
                yield Problem(f"/items/{key}/place/chamber", f"there is no chamber “{item.place.chamber}”")
    for key, load in design.load_states.items():
        for aboard in load.aboard:
            yield from there(f"/load_states/{key}/aboard/{aboard}", aboard, "items", "thing")
    for key, reference in design.references.items():
        for tape, swung in reference.tapes.items():
            yield from there(f"/references/{key}/tapes/{tape}/hooked", swung.hooked, "references", "reference point")
            if swung.hooked == key:
                yield Problem(
                    f"/references/{key}/tapes/{tape}/hooked", "a tape cannot be hooked on the point it places"
                )
    for key, point in design.hardpoints.items():
        yield from there(f"/hardpoints/{key}/member", point.member, "members", "member")
    for key, member in design.members.items():
        if member.material is not None and member.material not in design.tables.materials:
            yield Problem(f"/members/{key}/material", f"there is no material “{member.material}”")
    for key, duty in design.duties.items():
        yield from there(f"/duties/{key}/was", duty.was, "items", "thing")
        yield from there(f"/duties/{key}/done_by", duty.done_by, "items", "thing")
    for key, stack in design.stacks.items():
        for name in stack.modules:
            yield from there(f"/stacks/{key}/modules/{name}", name, "modules", "module")
    for key, module in design.modules.items():
        yield from there(f"/modules/{key}/kind", module.kind, "module_kinds", "module kind")
    for key, box in design.boxes.items():
        yield from there(f"/boxes/{key}/bay", box.bay, "bays", "bay")
        for name, block in box.blocks.items():
            yield from there(f"/boxes/{key}/blocks/{name}/string", block.string, "strings", "string")
        if box.material not in design.tables.materials:
            yield Problem(f"/boxes/{key}/material", f"there is no material “{box.material}”")
        if box.filler is not None and box.filler not in design.tables.fillers:
            yield Problem(f"/boxes/{key}/filler", f"there is no filler “{box.filler}”")
    for key, mount in design.mounts.items():
        yield from there(f"/mounts/{key}/carries", mount.box, "boxes", "box")
        for part in ("shape", "to_box", "lands_on"):
            for path, collection, name, words in getattr(mount, part).refers():
                if not _there(design, collection, name):
                    yield Problem(f"/mounts/{key}/{part}/{path}", words.format(name))
    for key, bar in design.crossmembers.items():
        for path, collection, name, words in bar.refers():
            if not _there(design, collection, name):
                yield Problem(f"/crossmembers/{key}/{path}", words.format(name))
    for collection in TWINNED:
        for key, row in getattr(design, collection).items():
            pair = getattr(design, collection).get(row.mirror_of) if row.mirror_of else row
            if pair is None or row.mirror_of == key or (pair is not row and pair.mirror_of):
                yield Problem(f"/{collection}/{key}/mirror_of", "is no row of the list that could have a mirror twin")
    for key, chain in design.chains.items():
        yield from there(f"/chains/{key}/box", chain.box, "boxes", "box")
    for path, reading in design.readings.items():
        yield from there(
            f"/readings/{path.replace('~', '~0').replace('/', '~1')}/from",
            reading.from_,
            "references",
            "reference point",
        )


def _agreed(design: Design) -> Iterator[Problem]:
    for key, pin in design.pins.items():
        if not _there(design, pin.what):
            yield Problem(f"/pins/{key}/what", f"there is no “{pin.what}”")
    for name, rows in (("agreed_gaps", design.agreed_gaps), ("tapes", design.tapes)):
        for key, row in rows.items():
            for end, path in (("one", row.one), ("other", row.other)):
                if not _there(design, path):
                    yield Problem(f"/{name}/{key}/{end}", f"there is no “{path}”")


def _there(design: Design, path: str, *last: str) -> bool:
    """Whether a thing's path leads somewhere; ``last``: further steps, whatever is written in them."""
    here: object = design
    for step in (*path.split("/"), *last):
        if isinstance(here, dict):
            if step not in here:
                return False
            here = here[step]
        elif step in getattr(type(here), "model_fields", {}):
            here = getattr(here, step)
        else:
            return False
    return True


def _in_bays(design: Design) -> Iterator[Problem]:
    for key, bay in design.bays.items():
        path = f"/bays/{key}"
        afts = sorted(station.aft_mm for station in bay.stations.values())
        if not afts or (len(afts) == 1 and bay.depth_mm is None) or any(b - a < 1 for a, b in pairwise(afts)):
            yield Problem(
                f"{path}/stations", "a bay needs two or more stations, at least 1 mm apart, or one and a depth"
            )
        for name, diagonal in bay.diagonals.items():
            yield from _diagonal(f"{path}/diagonals/{name}", bay, diagonal.one, diagonal.other)


def _diagonal(path: str, bay: Bay, one: BayCorner, other: BayCorner) -> Iterator[Problem]:
    for end, corner in (("one", one), ("other", other)):
        if corner.station not in bay.stations:
            yield Problem(f"{path}/{end}/station", f"there is no station “{corner.station}”")
    if one == other:
        yield Problem(path, "a diagonal runs between two corners")


def _kinds_in_boxes(design: Design) -> Iterator[Problem]:
    for key, box in design.boxes.items():
        for name, block in box.blocks.items():
            path = f"/boxes/{key}/blocks/{name}"
            kind = design.module_kinds.get(block.kind)
            if kind is None:
                yield Problem(f"{path}/kind", f"there is no module kind “{block.kind}”")
        yield from _inside(design, f"/boxes/{key}", box)
        for what, rows in (
            ("openings", box.openings),
            ("protrusions", box.protrusions),
            ("chambers", box.chambers),
            ("service_panels", box.service_panels),
        ):
            for name, row in rows.items():
                if not _square_edges(row.face, row.from_):
                    yield Problem(f"/boxes/{key}/{what}/{name}/from", f"give two edges of the {row.face} that meet")


def _inside(design: Design, path: str, box: Box) -> Iterator[Problem]:
    """What holders and layers name."""
    for name, holder in box.holders.items():
        if holder.block not in box.blocks:
            yield Problem(f"{path}/holders/{name}/block", f"there is no block “{holder.block}”")
        for at, table, row, words in refers(holder):
            if not _there(design, table, row):
                yield Problem(f"{path}/holders/{name}/{at}", words.format(row))
    for name, block in box.blocks.items():
        board = block.dividers and block.dividers.material
        if board and board not in design.tables.liners:
            yield Problem(f"{path}/blocks/{name}/dividers/material", f"there is no liner “{board}”")
    for face, layers in box.layers.items():
        for name, layer in layers.items():
            if layer.material is not None and layer.material not in design.tables.liners:
                yield Problem(f"{path}/layers/{face}/{name}/material", f"there is no liner “{layer.material}”")


def _square_edges(face: str, edges: tuple[str, str]) -> bool:
    return {FACE_AT[name][0] for name in (face, *edges)} == {0, 1, 2}
