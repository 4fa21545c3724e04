"""Survey said another way: stations of a bay, the weighing, the place that a thing leaves."""

from collections.abc import Collection
from typing import Any, Literal

from levelcradle.core.axes import Vec
from levelcradle.core.bays import MeasuringMethod, bay_of_block, mirrored, restated
from levelcradle.core.design import Design
from levelcradle.core.design.accepted import under
from levelcradle.core.design.design import AS_FOUND
from levelcradle.core.design.ids import free_id
from levelcradle.core.design.patch import Op
from levelcradle.core.design.taken import begun, not_taken
from levelcradle.core.errors import DesignError, Problem, UnknownThing
from levelcradle.core.level import WeighedBy, weighed_by
from levelcradle.core.solids import block
from levelcradle.core.sweeps import pieces_of

__all__ = ["freed_place", "square_space", "station_said", "weighed_as"]

Edit = tuple[str, list[Op]]  # id of what is made or changed, and the patch
FURTHER_MM = 200.0  # a copied station lies so far aft of the last


def station_said(design: Design, bay_id: str, key: str, do: MeasuringMethod | Literal["copy", "mirror"]) -> Edit:
    """A station copied further aft, mirrored, or said in another way of measuring. Raises UnknownThing, DesignError."""
    bay = design.bays.get(bay_id)
    if bay is None or key not in bay.stations:
        raise UnknownThing("station", key)
    path = f"/bays/{bay_id}/stations"
    if do == "copy":
        last = max(s.aft_mm for s in bay.stations.values())
        made, new = (
            bay.stations[key].model_copy(update={"aft_mm": last + FURTHER_MM}),
            free_id(f"{key}-copy", bay.stations),
        )
        return new, _said(design, "add", f"{path}/{new}", made.model_dump(mode="json"), of=f"{path}/{key}")
    found = mirrored(bay, key) if do == "mirror" else restated(bay, key, do)
    return key, _said(design, "replace", f"{path}/{key}", found.model_dump(mode="json"), of=f"{path}/{key}", how=do)


def _said(design: Design, op: str, path: str, value: Any, *, of: str, how: str = "") -> list[Op]:
    """What is made of figures that nobody took is not taken either."""
    unsure = any(under(untaken, of) for untaken in not_taken(design))
    return [{"op": op, "path": path, "value": value}, *(begun(design, path, value, how) if unsure else ())]


def weighed_as(design: Design, way: WeighedBy) -> list[Op]:
    """The weighing as by four wheels, two axles or the whole car, with what its readings tell of that; what they do not
    tell nobody has read yet."""
    found = weighed_by(design.weighing, way).model_dump(mode="json")
    unread = {name: value for name, value in found.items() if value == 0.0}
    told = begun(design, f"/{AS_FOUND}/read", unread)
    if design.weighing is None:
        return [{"op": "add", "path": f"/{AS_FOUND}", "value": {"kind": "as found", "read": found}}, *told]
    return [{"op": "replace", "path": f"/{AS_FOUND}/read", "value": found}, *told]


def square_space(
    design: Design, name: str, size_mm: Vec, at_mm: Vec, open_sides: Collection[str], measured_from: str | None
) -> Edit:
    """A space as a block, along × across × up; ``at_mm``: the middle of its fore edge, on its floor. All sides but the
    open ones are metal. Raises DesignError where no space is so small or lies so far away."""
    (aft, across, up), (long, wide, high) = at_mm, size_mm
    bay = bay_of_block(name, block((aft, across - wide / 2, up), (aft + long, across + wide / 2, up + high)))
    value = bay.model_dump(mode="json", by_alias=True)
    value["measured_from"] = measured_from
    for side, said in value["sides"].items():
        said["is"] = "open" if side in open_sides else "metal"
    key = free_id(name, design.bays)
    return key, [{"op": "add", "path": f"/bays/{key}", "value": value}]


def freed_place(design: Design, item: str) -> Edit:
    """The place of a thing that comes out, as a bay whose sides are still to be measured. Raises UnknownThing,
    DesignError."""
    thing = design.items.get(item)
    if thing is None:
        raise UnknownThing("thing", item)
    pieces = pieces_of(thing.solid, thing.sweep) if thing.solid else ()
    if not pieces:
        raise DesignError((Problem(f"/items/{item}/solid", "has no size yet"),))
    key = free_id(item, design.bays)
    bay = bay_of_block(f"where the {thing.name} was"[:120], pieces[0])
    return key, [{"op": "add", "path": f"/bays/{key}", "value": bay.model_dump(mode="json", by_alias=True)}]
