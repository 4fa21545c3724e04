"""Getting at things in their place: the whole box in and out, its lid off, each module drawn, a hand at what is joined
there.

Whether the box is filled in the car or on the bench is not decided here: a lid that only comes off on the bench is a
note, a box that comes out no way is foul."""

from collections.abc import Iterator, Sequence
from functools import lru_cache

from levelcradle.core.assembly import Assembly, Obstacle, PlacedBox, PlacedPiece, outside_of
from levelcradle.core.box import OnFace, before_face
from levelcradle.core.clearance.lids import chamber_lid_findings, lid_findings, once_out
from levelcradle.core.clearance.moves import meets
from levelcradle.core.clearance.service_panels import cover_findings
from levelcradle.core.clearance.ways_out import LEVEL_DEG, OUT_MM, TWO_PEOPLE_KG, Exit, as_obstacles, best_exit
from levelcradle.core.design.box import FACE_AT
from levelcradle.core.design.survey import InBox
from levelcradle.core.finding import Finding, State, Step, plain
from levelcradle.core.gear import Gear
from levelcradle.core.solids import Solid, block

__all__ = ["access_findings", "hand_before"]

HAND_MM = (60.0, 60.0, 90.0)  # a hand before a joint: across, across, deep; common practice, no source


def access_findings(assembly: Assembly) -> Iterator[Finding]:
    boxes = list(assembly.boxes.values())
    free, sides = ([o for o in rows if _stands(o)] for rows in (assembly.obstacles, assembly.sides))
    for box in boxes:
        if not box.shell.modules:
            continue
        bay = box.box.bay
        own = [o for o in assembly.own_sides.get(bay, ()) if _stands(o)] if bay else []
        things = (*free, *own, *(o for o in sides if o.bay != bay))
        others = [other for other in boxes if other is not box]
        yield _brought_out(box, best_exit(box, things, others))
        yield from _opened(box, things, tuple(other for other in others if _beside(box, other)))


@lru_cache(maxsize=512)
def _opened(box: PlacedBox, things: tuple[Obstacle, ...], others: tuple[PlacedBox, ...]) -> tuple[Finding, ...]:
    """What closes a box taken off, and a hand before what is joined there: kept while nothing near it was moved."""
    beside = tuple(o for other in others for o in as_obstacles(other))
    rest = (*things, *_on_itself(box))
    covers = tuple(Obstacle(box.path, p.name, p.solid, "same") for p in box.pieces if p.role == "panel")
    return (
        *lid_findings(box, (*rest, *covers), beside),
        *chamber_lid_findings(box, things, beside),
        *cover_findings(box, rest, beside),
        *_reach(box, (*rest, *covers), beside),
    )


def _beside(box: PlacedBox, other: PlacedBox) -> bool:
    """Whether what closes it with a module behind that, or a hand, may come as far as another box."""
    (low, high), (other_low, other_high) = outside_of(box), outside_of(other)
    deep = box.shell.outer_mm[FACE_AT[box.shell.made.closed_face][0]]
    reach = max(deep + box.shell.made.lift_mm, HAND_MM[2]) + 10.0
    return all(other_low[i] < high[i] + reach and low[i] - reach < other_high[i] for i in range(3))


def _stands(thing: Obstacle) -> bool:
    """Whether it bars a way: no space, no panel that opens, and nothing that is fixed to a box, which goes with
    that."""
    return thing.fixed_to is None and not thing.crush and not thing.opens and thing.kind != "space"


@lru_cache(maxsize=512)
def _on_itself(box: PlacedBox) -> tuple[Obstacle, ...]:
    """Brackets and gear on its walls, which stay where they are when it is opened; what sits on the lid goes with
    it."""
    closed = box.shell.made.closed_face
    on_lid = {g.id for g in box.gear if _sits_on(g, closed)}
    rows = [p for p in box.pieces if p.mount or p.role == "chamber" or (p.gear and p.gear not in on_lid)]
    return tuple(Obstacle(_path_of(box, p), p.name, p.solid, "same") for p in rows)


def _sits_on(gear: Gear, face: str) -> bool:
    place = gear.item.place
    return isinstance(place, InBox) and place.chamber is None and place.face == face


def _path_of(box: PlacedBox, piece: PlacedPiece) -> str:
    return f"mounts/{piece.mount}" if piece.mount else f"items/{piece.gear}" if piece.gear else box.path


def _brought_out(box: PlacedBox, way: Exit) -> Finding:
    name = plain(box.box.name)
    message = f"{name} comes out {way.words}"
    state: State = "clear"
    if way.fixed:
        message = f"{name} comes out no way: metal stands in every straight, stepped, leaned and turned move"
        state = "foul"
    elif not way.free:
        first = [
            *(f"the {plain(n)} is out" for n in way.out[:4]),
            *([f"off: {plain(', '.join(way.off[:4]))}"] if way.off else []),
        ]
        message = f"{message}, once {', and once '.join(first)}"
        state = "note"
    return Finding(
        id=f"access:{box.path}:box",
        code="access.box",
        station="place",
        state=state,
        subjects=(box.path,),
        message=message,
        rationale="a box is hung full and comes out again for service; moves tried are straight, over a short first "
        "leg, leaned and turned",
        label="in and out",
        working=lambda: (
            Step(
                "moved", "each piece's hull before and after meets nothing", OUT_MM, "mm", "common practice, no source"
            ),
            Step(
                "lifted",
                f"full, with its brackets and what is fixed to it; by two people to {TWO_PEOPLE_KG:g} kg, beyond in a "
                f"sling "
                f"at {LEVEL_DEG:g}° to the level",
                box.hung_kg,
                "kg",
                "common practice, no source",
            ),
        ),
    )


JOINED = ("gland", "hose tail", "plug", "bleed screw")  # what is plugged, clamped or bled in place


STILL = (0.0, 0.0, 0.0)


def _reach(box: PlacedBox, things: tuple[Obstacle, ...], boxes: Sequence[Obstacle]) -> Iterator[Finding]:
    """Room for a hand before each opening, gland and hose tail: they are joined in place."""
    for path, what, hand, met in _hands(box, things):
        hidden = [] if met else meets([hand], boxes, STILL)
        yield _hand(box, path, what, met, hidden)


@lru_cache(maxsize=512)
def _hands(box: PlacedBox, things: tuple[Obstacle, ...]) -> tuple[tuple[str, str, Solid, list[Obstacle]], ...]:
    """Of each joint its path and name, the room of a hand before it, and what stands there whichever boxes do; kept
    while a box beside it is moved."""
    joints: list[tuple[str, OnFace, str]] = [
        *((f"openings/{key}", hole, hole.name) for key, hole in box.box.openings.items() if hole.joined),
        *((f"protrusions/{key}", on, on.name) for key, on in box.box.protrusions.items() if on.kind in JOINED),
    ]
    rows = ((path, what, hand_before(box, on)) for path, on, what in joints)
    return tuple((path, what, hand, meets([hand], things, STILL)) for path, what, hand in rows)


def hand_before(box: PlacedBox, thing: OnFace) -> Solid:
    """The room of a hand before a joint on a face."""
    low, high = before_face(thing, box.shell.outer_mm, HAND_MM[0], (8.0, HAND_MM[2]))
    return block(low, high).moved(box.placement)


def _hand(box: PlacedBox, path: str, what: str, met: Sequence[Obstacle], hidden: Sequence[Obstacle]) -> Finding:
    name, word = plain(box.box.name), plain(what)
    message = (
        f"{name}: no hand reaches {word}, {plain(met[0].name)} is before it"
        if met
        else f"{name}: a hand reaches {word}"
    )
    if hidden and not met:
        message += once_out(hidden)
    return Finding(
        id=f"access:{box.path}:{path}",
        code="access.reach",
        station="place",
        state="foul" if met else "note" if hidden else "clear",
        subjects=(box.path, *(o.path for o in met[:1])),
        message=message,
        label=what,
        rationale="a joint made in place needs room for a hand, 60 × 60 × 90 mm (common practice, no source)",
    )
