"""A crossmember laid from one hard point to another, taken away with what lands on it, and where on it a box hangs."""

from itertools import count
from typing import Any

from levelcradle.core.assembly import face_of, stands
from levelcradle.core.axes import dot, minus
from levelcradle.core.box import shell_of
from levelcradle.core.connection import crossmember_in
from levelcradle.core.crossmember import PlacedCrossmember
from levelcradle.core.design import Design
from levelcradle.core.design.crossmember import Crossmember
from levelcradle.core.design.ids import free_id
from levelcradle.core.design.mount import Bolt
from levelcradle.core.design.patch import Op
from levelcradle.core.errors import OutOfRange, UnknownThing
from levelcradle.core.strength import class_like

__all__ = ["crossed", "landing_on", "uncrossed"]

OFF_MM = 50.0  # a bracket is begun so far off the wall: room for its bend and its bolt; common practice, no source
ALONG = 0.2  # of the cosine: a bar that runs along a wall says nothing of how far off it is


def crossed(design: Design, one: str, other: str) -> tuple[str, list[Op]]:
    """(id, patch) of a new one between two hard points, its bolts of their thread. Raises UnknownThing, OutOfRange."""
    for key in (one, other):
        if key not in design.hardpoints:
            raise UnknownThing("hard point", key)
    if one == other:
        raise OutOfRange("A crossmember lies on two hard points.")
    bolt, thread = Bolt(), design.hardpoints[one].thread
    if thread in design.tables.bolts:
        grade = class_like(design.tables.bolts[thread], bolt.property_class, design.tables.bolt_classes)
        bolt = Bolt(size=thread, property_class=grade)
    named = {bar.name for bar in design.crossmembers.values()}
    name = next(words for n in count(1) if (words := f"Crossmember {n}") not in named)
    spec = Crossmember(name=name, hardpoints=(one, other), bolt=bolt)
    order = max((bar.order for bar in design.crossmembers.values()), default=-1) + 1
    value = {**spec.model_dump(mode="json"), "order": order}
    key = free_id(f"bar-{one}"[:50], design.crossmembers)
    return key, [{"op": "add", "path": f"/crossmembers/{key}", "value": value}]


def uncrossed(design: Design, key: str) -> list[Op]:
    """Taken away, and the mounts that land on it with it. Raises UnknownThing."""
    if key not in design.crossmembers:
        raise UnknownThing("crossmember", key)
    mounts = [name for name, mount in design.mounts.items() if f"crossmembers/{key}" in mount.lands_on.paths]
    return [{"op": "remove", "path": path} for path in (*(f"/mounts/{m}" for m in mounts), f"/crossmembers/{key}")]


def landing_on(design: Design, key: str, box_id: str, face: str, bolt: dict[str, Any] | None) -> dict[str, Any]:
    """Where a new mount of a box lands on one: a little off the wall that it holds, or under the middle of its base; on
    its top where the box stands above it."""
    bar, box = crossmember_in(design, key), design.boxes[box_id]
    shell = shell_of(box, design.module_kinds, design.tables)
    placement = stands(box.pose, shell.outer_mm)
    x, y, z = (mm / 2 for mm in shell.outer_mm)
    top = bar.frame.point((bar.span_mm / 2, 0.0, 0.0))[2] < placement.point((x, y, z))[2]
    along = _along_mm(bar, *face_of((shell, placement), face))
    landing = {"type": "crossmember", "crossmember": key, "along_mm": along, "top": top}
    return {**landing, "bolt": bolt or bar.spec.bolt.model_dump(mode="json"), "sleeve": True}


def _along_mm(bar: PlacedCrossmember, point: tuple[float, float, float], normal: tuple[float, float, float]) -> float:
    way = bar.frame.direction((1.0, 0.0, 0.0))
    off, runs = minus(point, bar.frame.origin), dot(way, normal)
    along = (dot(off, normal) + OFF_MM) / runs if abs(runs) > ALONG else dot(off, way)
    return round(min(max(along, 0.0), bar.span_mm), 1)
