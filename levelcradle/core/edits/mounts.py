"""A box hung on a spot of the vehicle, a doubler put under a bracket, and welds exchanged for bolts."""

from collections.abc import Iterable, Iterator
from math import ceil
from typing import Any, Literal

from pydantic import TypeAdapter

from levelcradle.core.assembly import seat_of, stands
from levelcradle.core.axes import Vec
from levelcradle.core.box import shell_of
from levelcradle.core.connection import Seat, spot_of
from levelcradle.core.connection.kinds import MAKERS
from levelcradle.core.design import Design, HardPoint
from levelcradle.core.design.base import Face
from levelcradle.core.design.crossmember import Crossmember
from levelcradle.core.design.ids import free_id
from levelcradle.core.design.mount import Angle, Bolt, Bolted, Doubler, LandsOn, Loose, OnTwo, Rest, Tab, Welded
from levelcradle.core.design.patch import Op
from levelcradle.core.design.survey import Member
from levelcradle.core.edits.crossmembers import landing_on
from levelcradle.core.errors import UnknownThing
from levelcradle.core.strength import class_like

__all__ = ["doubled", "joined_by", "hung", "hung_on", "unhung"]

_LANDS_ON: TypeAdapter[LandsOn] = TypeAdapter(LandsOn)
# a doubler reaches so far beyond the weld on each side, and begins a little before it: common practice, no source
ROUND_MM = 30.0
BEFORE_MM = 12.0
THROUGH = "M8"  # bolts through a wall are begun with
EDGE = 1.5  # times their hole, to the edges of the plate: common practice, no source
PITCH_MM = 40.0


def hung(design: Design, box_id: str, kind: str, on: str, face: Face, other: str | None = None) -> tuple[str, list[Op]]:
    """(id, patch) of a new mount of a kind between a box and what it lands on (``hardpoints/x``), and to another where
    it has two ends. It is made like the last one of its kind under the same box. Raises UnknownThing."""
    if box_id not in design.boxes:
        raise UnknownThing("box", box_id)
    if kind not in MAKERS:
        raise UnknownThing("kind of mount", kind)
    collection, key = on.split("/", 1) if "/" in on else ("", on)
    rows = {"hardpoints": design.hardpoints, "members": design.members, "crossmembers": design.crossmembers}
    landing: HardPoint | Member | Crossmember | None = rows.get(collection, {}).get(key)  # type: ignore[attr-defined]
    if landing is None:
        raise UnknownThing("spot", on)
    path = f"boxes/{box_id}"
    alike = [m for m in design.mounts.values() if path in m.carries and m.shape.type == kind]
    made = MAKERS[kind].begun(on, landing, alike[-1] if alike else None)
    if collection == "crossmembers":
        made["lands_on"] = landing_on(design, key, box_id, face, made["lands_on"].get("bolt"))
    if made["lands_on"]["type"] == "two":
        to = (other or "").removeprefix("hardpoints/")
        if to not in design.hardpoints:
            raise UnknownThing("hard point for its other end", other or "")
        made["lands_on"]["other"] = to
    if bolt := made["lands_on"].get("bolt"):
        size = design.tables.bolts.get(bolt["size"])
        bolt["property_class"] = class_like(size, "8.8", design.tables.bolt_classes) if size else bolt["property_class"]
    spot = spot_of(_LANDS_ON.validate_python(made["lands_on"]), design)
    made = MAKERS[kind].fitted(made, spot, _seat(design, box_id, face, spot.at))
    id_ = free_id(f"{box_id}-{key}"[:50], design.mounts)
    return id_, [_added(design, id_, box_id, landing.name, {"face": face, **made}, len(design.mounts))]


def _seat(design: Design, box_id: str, face: Face, at: Vec) -> Seat:
    box = design.boxes[box_id]
    shell = shell_of(box, design.module_kinds, design.tables)
    return seat_of(box, shell, stands(box.pose, shell.outer_mm), face, at)


def _added(design: Design, key: str, box_id: str, landing: str, made: dict[str, Any], order: int) -> Op:
    name = f"{design.boxes[box_id].name} mount, {landing}"[:120]
    value = {**made, "name": name, "carries": {f"boxes/{box_id}": True}, "order": order}
    return {"op": "add", "path": f"/mounts/{key}", "value": value}


def unhung(design: Design, box_id: str) -> list[Op]:
    """Takes a box off all that carries it; its second restraints stay."""
    carries = ((key, m) for key, m in design.mounts.items() if m.box == box_id and not isinstance(m.lands_on, OnTwo))
    return [{"op": "remove", "path": f"/mounts/{key}"} for key, _ in carries]


def hung_on(design: Design, box_id: str, made: Iterable[tuple[str, dict[str, Any]]]) -> Iterator[Op]:
    """Hangs a box that hangs on nothing: of each mount the face it holds, and its shape, hold and landing on a hard
    point."""
    gone = {op["path"].removeprefix("/mounts/") for op in unhung(design, box_id)}
    taken = set(design.mounts) - gone
    for order, (face, row) in enumerate(made):
        point = row["lands_on"]["hardpoint"]
        key = free_id(f"{box_id}-{point}"[:50], taken)
        taken.add(key)
        yield _added(
            design, key, box_id, design.hardpoints[point].name, {**row, "face": face}, len(design.mounts) + order
        )


def doubled(design: Design, mount_id: str) -> list[Op]:
    """A doubler under a welded bracket, round its weld. Raises UnknownThing."""
    mount = design.mounts.get(mount_id)
    if mount is None or not isinstance(mount.to_box, Welded):
        raise UnknownThing("welded mount", mount_id)
    weld, wide = mount.to_box, mount.shape.width_mm
    plate = Doubler(
        along_w_mm=wide + 2 * ROUND_MM,
        along_n_mm=weld.length_mm + 2 * ROUND_MM,
        from_contact_mm=weld.from_mm - BEFORE_MM,
    )
    return [{"op": "replace", "path": f"/mounts/{mount_id}/to_box/doubler", "value": plate.model_dump(mode="json")}]


def joined_by(design: Design, mount_id: str, how: Literal["welded", "bolted"]) -> list[Op]:
    """A bracket held the other way, where it was: four bolts beyond where its welds began, or welds over what its bolts
    took; longer where it must be. Raises UnknownThing."""
    mount = design.mounts.get(mount_id)
    if mount is None or isinstance(mount.to_box, Loose) or isinstance(mount.shape, Rest):
        raise UnknownThing("mount that is welded or bolted to its box", mount_id)
    now, shape, path = mount.to_box, mount.shape, f"/mounts/{mount_id}"
    if now.type == how:
        return []
    size = THROUGH if THROUGH in design.tables.bolts else next(iter(design.tables.bolts))
    bolt, thick = design.tables.bolts[size], shape.thickness_mm
    clear, edge = max(bolt.washer_mm / 2 + 1, bolt.clearance_hole_mm / 2 + 2 * thick), EDGE * bolt.clearance_hole_mm
    if isinstance(now, Welded):
        first = float(ceil(now.from_mm + clear))
        apart = max(shape.width_mm - 2 * ceil(edge), 1.0)
        hold: Welded | Bolted = Bolted(bolt=Bolt(size=size), from_mm=first, pitch_mm=PITCH_MM, apart_mm=apart)
        ends = first + PITCH_MM + edge
    else:
        hold = Welded(from_mm=max(now.from_mm - clear, 1.0), length_mm=now.pitch_mm * (now.rows - 1) + 2 * clear)
        ends = hold.from_mm + hold.length_mm
    ops: list[Op] = [{"op": "replace", "path": f"{path}/to_box", "value": hold.model_dump(mode="json")}]
    long = "leg_b_mm" if shape.type == "angle" else "long_mm"
    if getattr(shape, long) < ends:
        ops.append({"op": "replace", "path": f"{path}/shape/{long}", "value": float(ceil(ends))})
    return ops


def alike(design: Design, mount_id: str) -> list[Op]:
    """All other mounts of its kind under the same box made like one, but for their bolts' sizes and what lies under
    them, which are their points'. Raises UnknownThing."""
    mount = design.mounts.get(mount_id)
    if mount is None:
        raise UnknownThing("mount", mount_id)
    ops: list[Op] = []
    for key, other in design.mounts.items():
        if key == mount_id or other.box != mount.box or other.shape.type != mount.shape.type:
            continue
        own = {"packing_mm": other.shape.packing_mm} if isinstance(other.shape, Tab | Angle) else {}
        made = {"shape": mount.shape.model_copy(update=own), "to_box": mount.to_box}
        ops += [
            {"op": "replace", "path": f"/mounts/{key}/{part}", "value": value.model_dump(mode="json")}
            for part, value in made.items()
            if value != getattr(other, part)
        ]
        bolt, theirs = getattr(mount.lands_on, "bolt", None), getattr(other.lands_on, "bolt", None)
        if bolt and theirs:
            size, classes = design.tables.bolts[theirs.size], design.tables.bolt_classes
            named = class_like(size, bolt.property_class, classes)
            if named != theirs.property_class:
                path = f"/mounts/{key}/lands_on/bolt/property_class"
                ops.append({"op": "replace", "path": path, "value": named})
    return ops
