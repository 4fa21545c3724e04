"""What sits in an opening, put where it goes: near what it serves, on flat wall, clear inside and out."""

import math
from collections.abc import Iterator, Sequence
from dataclasses import replace

from levelcradle.core.assembly import Assembly, Obstacle, PlacedBox
from levelcradle.core.axes import Vec
from levelcradle.core.box import before_face, on_face, shell_of
from levelcradle.core.clearance import (
    Compartment,
    as_obstacles,
    compartments_of,
    hand_before,
    meets,
    opening_findings,
)
from levelcradle.core.design.base import FACE_AT, Face
from levelcradle.core.design.box import EDGES_OF, Box, Opening
from levelcradle.core.design.fitted import Fitted
from levelcradle.core.design.ids import free_id
from levelcradle.core.design.patch import Op
from levelcradle.core.design.tables import FittedSize
from levelcradle.core.errors import OutOfRange, UnknownThing
from levelcradle.core.modules import terminal_plates
from levelcradle.core.solids import block

__all__ = ["fitted_in", "relieved"]

STEP_MM, FINE_MM = 20.0, 10.0  # anywhere in the box; within a compartment
SERVES = {"coolant bulkhead": "coolant", "tap plug": "taps"}  # by the face of a module; all else serves its terminals
STILL: Vec = (0.0, 0.0, 0.0)


def fitted_in(assembly: Assembly, box_id: str, key: str) -> tuple[str, list[Op]]:
    """Its id, and the opening with what sits in it: the place nearest to what it serves where nothing is foul of it; if
    its room outside is free nowhere, the nearest where that alone is not. Raises UnknownThing, OutOfRange."""
    if box_id not in assembly.boxes:
        raise UnknownThing("box", box_id)
    if key not in assembly.tables.fitted:
        raise UnknownThing("size", key)
    box, row = assembly.boxes[box_id], assembly.tables.fitted[key]
    new = free_id(row.kind, box.box.openings)
    around, already, second = _around(assembly, box), _against(assembly, box, box.box), None
    served = tuple(_served(box, row.kind))
    for opening in sorted(_places(box, row), key=lambda one: _far(box, row.kind, served, one)):
        free = _free(box, opening, around)
        if (second and not free) or not _made(assembly, box, new, opening, already):
            continue
        if free:
            return new, [_put(box_id, new, opening)]
        second = opening
    if second is None:
        raise OutOfRange(f"No face of {box.box.name} has room for a {row.kind} {row.size}".strip() + ".")
    return new, [_put(box_id, new, second)]


def relieved(assembly: Assembly, box_id: str, block: str) -> list[Op]:
    """A pressure relief in each compartment of a divided block that has none on the chosen side, nearest to the middle
    of its piece of that. Raises UnknownThing, OutOfRange."""
    if box_id not in assembly.boxes:
        raise UnknownThing("box", box_id)
    box = assembly.boxes[box_id]
    if block not in box.box.blocks:
        raise UnknownThing("block", block)
    dividers, row = box.box.blocks[block].dividers, _relief(assembly)
    if dividers is None or dividers.relief is None:
        raise OutOfRange("Say first by which side its compartments blow off.")
    found: list[Op] = []
    compartments = compartments_of(box, block)
    if len(compartments) > 1 and FACE_AT[dividers.relief][0] == compartments[0].axis:
        raise OutOfRange(f"Not every compartment has a piece of the {dividers.relief}: choose a side they all reach.")
    for compartment in compartments:
        if not compartment.relieved:
            key = free_id(row.kind, box.box.openings)
            opening = _in_compartment(assembly, box, key, row, dividers.relief, compartment)
            found.append(_put(box_id, key, opening))
            box = replace(box, box=box.box.model_copy(update={"openings": {**box.box.openings, key: opening}}))
    return found


def _relief(assembly: Assembly) -> FittedSize:
    for row in assembly.tables.fitted.values():
        if row.kind == "pressure relief":
            return row
    raise OutOfRange("The table of what sits in openings has no pressure relief.")


def _in_compartment(
    assembly: Assembly, box: PlacedBox, key: str, row: FittedSize, face: Face, compartment: Compartment
) -> Opening:
    """The place nearest to the middle of a compartment's piece of a face where it can be made, and nothing inside is
    in its way; one that is free outside first."""
    outer, already, around = box.shell.outer_mm, _against(assembly, box, box.box), _around(assembly, box)
    middle = [mm / 2 for mm in outer]
    middle[compartment.axis] = (compartment.start_mm + compartment.end_mm) / 2
    rows = [(on_face(one, outer), one) for one in _places(box, row, FINE_MM) if one.face == face]
    start, end = compartment.start_mm + row.seat_mm / 2, compartment.end_mm - row.seat_mm / 2
    rows = [(at, one) for at, one in rows if start <= at[compartment.axis] <= end]
    second = None
    for _, one in sorted(rows, key=lambda each: math.dist(each[0], middle)):
        if _made(assembly, box, key, one, already):
            if _free(box, one, around):
                return one
            second = second or one
    if second is None:
        raise OutOfRange(f"A compartment of {box.box.name} has no room for a {row.kind} on the {face}.")
    return second


def _put(box_id: str, key: str, opening: Opening) -> Op:
    value = opening.model_dump(mode="json", by_alias=True)
    return {"op": "add", "path": f"/boxes/{box_id}/openings/{key}", "value": value}


def _places(box: PlacedBox, row: FittedSize, step_mm: float = STEP_MM) -> Iterator[Opening]:
    """On every face but the one that comes off, in steps, its seat within the edges."""
    outer = box.shell.outer_mm
    sizes = row.model_dump(include=set(Fitted.model_fields))
    for face, pairs in EDGES_OF.items():
        if face == box.shell.made.closed_face:
            continue
        one, other = pairs[0][0], pairs[1][0]
        (along, up) = (outer[FACE_AT[edge][0]] for edge in (one, other))
        for u in _steps(along, row.seat_mm, step_mm):
            for v in _steps(up, row.seat_mm, step_mm):
                yield Opening.model_validate(
                    {
                        "name": row.kind,
                        "face": face,
                        "from": (one, other),
                        "u_mm": u,
                        "v_mm": v,
                        "diameter_mm": row.hole_mm,
                        "fitted": sizes,
                    }
                )


def _steps(long_mm: float, seat_mm: float, step_mm: float) -> Iterator[float]:
    at = math.ceil(seat_mm / 2 / step_mm) * step_mm
    while at <= long_mm - seat_mm / 2:
        yield at
        at += step_mm


def _far(box: PlacedBox, kind: str, served: Sequence[Vec], opening: Opening) -> tuple[float, float]:
    """How far a place is from what it serves; a breather and a pressure relief are for the
    highest place, a drain for the lowest."""
    outer = box.shell.outer_mm
    at = on_face(opening, outer)
    middle = math.dist(at, [v / 2 for v in outer])
    if kind in ("vent", "pressure relief", "drain"):
        up = box.placement.point(at)[2]
        return (up if kind == "drain" else -up), middle
    return min((math.dist(at, one) for one in served), default=0.0), middle


def _served(box: PlacedBox, kind: str) -> Iterator[Vec]:
    """Middles of the faces or terminals of modules that it serves, in the box's frame."""
    for module in box.shell.modules:
        face = getattr(module.spec, SERVES.get(kind, ""), None)
        if face:
            way = module.looks.index(face)
            middle = [(v + h) / 2 for v, h in zip(module.low, module.high, strict=True)]
            middle[way // 2] = (module.low, module.high)[way % 2][way // 2]
            yield middle[0], middle[1], middle[2]
        else:
            for _, low, high in terminal_plates(module.low, module.high, module.looks, module.spec):
                yield (low[0] + high[0]) / 2, (low[1] + high[1]) / 2, (low[2] + high[2]) / 2


def _made(assembly: Assembly, box: PlacedBox, key: str, opening: Opening, already: set[str]) -> bool:
    """Whether it is clear of everything inside, of other openings, and of bends and tubes; ``already``: what stood
    against making the box before."""
    before = box.box
    after = before.model_copy(update={"openings": {**before.openings, key: opening}})
    tried = replace(box, box=after)
    path = f"{box.path}/openings/{key}"
    if any(row.state == "foul" and path in row.subjects for row in opening_findings(tried)):
        return False
    return _against(assembly, box, after) <= already


def _against(assembly: Assembly, box: PlacedBox, spec: Box) -> set[str]:
    """What stands against making a box."""
    made = shell_of(spec, assembly.design.module_kinds, assembly.tables).made
    return {row.id for row in made.findings(box.path, spec.name)}


def _around(assembly: Assembly, box: PlacedBox) -> list[Obstacle]:
    """What its room outside must not meet: all but spaces and what gives way; other boxes; what is on this one."""
    own = assembly.own_sides.get(box.box.bay or "", ())
    things = (*assembly.obstacles, *(o for o in assembly.sides if o.bay != box.box.bay), *own)
    found = [o for o in things if not o.crush and o.kind != "space"]
    found += [o for other in assembly.boxes.values() if other is not box for o in as_obstacles(other)]
    on_it = [p for p in box.pieces if p.mount or p.gear or p.role == "protrusion"]
    return [*found, *(Obstacle(box.path, p.name, p.solid, "same") for p in on_it)]


def _free(box: PlacedBox, opening: Opening, around: list[Obstacle]) -> bool:
    """Whether its room outside is, and that of the hand that joins it."""
    assert opening.fitted
    proud = box.shell.made.proud_mm(opening.face)
    room = before_face(opening, box.shell.outer_mm, opening.seat_mm, (proud, proud + opening.fitted.reach_mm))
    hand = [hand_before(box, opening)] if opening.joined else []
    return not meets([block(*room).moved(box.placement), *hand], around, STILL)
