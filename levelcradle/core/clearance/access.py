"""Getting at things in their place: the whole box in and out, its lid off, each module drawn, a hand at what is joined
there.

Whether the box is filled in the car or on the bench is not decided here: a lid that only comes off on the bench is a
note, a box that comes out no way is foul."""

from collections.abc import Iterator, Sequence
from functools import lru_cache

from levelcradle.core.assembly import Assembly, Obstacle, PlacedBox, PlacedPiece, outside_of
from levelcradle.core.axes import Placement, rotation, scaled
from levelcradle.core.box import OnFace, before_face, outward
from levelcradle.core.clearance.moves import free_travel_mm, meets
from levelcradle.core.clearance.ways_out import LEVEL_DEG, OUT_MM, TWO_PEOPLE_KG, Exit, as_obstacles, best_exit
from levelcradle.core.design.box import FACE_AT
from levelcradle.core.design.survey import InBox
from levelcradle.core.finding import Figure, Finding, State, Step, plain
from levelcradle.core.gear import Gear
from levelcradle.core.solids import Solid, block, hull

__all__ = ["access_findings", "hand_before"]

OPEN_DEG, SWING_STEP_DEG = 100, 10  # common practice, no source
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
        beside = tuple(o for other in others if _beside(box, other) for o in as_obstacles(other))
        rest = (*things, *_on_itself(box))
        yield from _lid(box, rest, beside)
        yield from _chamber_lids(box, things, beside)
        yield from _reach(box, rest, beside)


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


def _once_out(met: Sequence[Obstacle]) -> str:
    """Which boxes have to be out first, where nothing but boxes is in the way."""
    names = [plain(name) for name in dict.fromkeys(o.name for o in met)]
    return f", once the {' and the '.join(names)} {'is' if len(names) == 1 else 'are'} out"


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


# --- lid and modules ---


def _lid(box: PlacedBox, things: Sequence[Obstacle], boxes: Sequence[Obstacle]) -> Iterator[Finding]:
    """Whether what closes the box comes off in place, and a module can be drawn straight out, with everything else
    there."""
    made = box.shell.made
    if made.hinge:
        yield _swung(box, made.hinge, (*things, *boxes))
        return
    face = made.closed_face
    axis = FACE_AT[face][0]
    cap = [p.solid for p in box.pieces if p.role == "closure"]
    off = box.placement.direction(outward(face))
    need = made.lift_mm + 5.0
    longest = max(m.high[axis] - m.low[axis] for m in box.shell.modules)
    alone = free_travel_mm(cap, things, off, need + longest)
    met = meets(cap, boxes, scaled(off, alone))
    comes = min(alone, free_travel_mm(cap, boxes, off, alone)) if met else alone
    once = _once_out(met) if met else ""
    name, lid = plain(box.box.name), "lid" if face == "top" else f"{face} panel"
    state: State = "note"
    if alone < need:
        verb = "lifts" if face == "top" else "is drawn"
        message = f"{name}: its {lid} {verb} {{0}} and needs {{1}}: it comes off with the box out"
    elif alone < longest + need:
        message = (
            f"{name}: its {lid} comes off in place{once}; a module needs {{1}} {_BEFORE[face]} it and has {{0}}: "
            f"filled with the box out"
        )
        need += longest
    else:
        message = f"{name}: its {lid} comes off in place, and modules can be drawn{once}"
        state = "note" if once else "clear"
    yield Finding(
        id=f"access:{box.path}:lid",
        code="access.lid",
        station="place",
        state=state,
        subjects=(box.path,),
        message=message,
        figures=(Figure(alone, "mm", "down"), Figure(need, "mm", "up")),
        value=comes,
        limit=need,
        margin=comes - need,
        unit="mm",
        rationale="what closes it goes clear of the walls before it is turned away; asked with everything else there",
        label=lid,
    )


def _swung(box: PlacedBox, hinge: str, things: Sequence[Obstacle]) -> Finding:
    """How far what closes a box swings open in place, and whether a module can be drawn then."""
    face = box.shell.made.closed_face
    axis, off = FACE_AT[face][0], box.placement.direction(outward(face))
    opens = swing_deg(box, hinge, things)
    modules = [block(m.low, m.high).moved(box.placement) for m in box.shell.modules]
    longest = max(m.high[axis] - m.low[axis] for m in box.shell.modules)
    drawn = free_travel_mm(modules, things, off, longest)
    name, lid = plain(box.box.name), "lid" if face == "top" else f"{face} panel"
    message, state = f"{name}: its {lid} swings open in place, and modules can be drawn", "clear"
    if opens < OPEN_DEG:
        message, state = f"{name}: its {lid} swings {opens}° and no further: it is opened with the box out", "note"
    elif drawn < longest:
        message = f"{name}: its {lid} swings open in place; a module needs {{1}} {_BEFORE[face]} it and has {{0}}: "
        message, state = f"{message}filled with the box out", "note"
    said: State = state  # type: ignore[assignment]
    return Finding(
        id=f"access:{box.path}:lid",
        code="access.lid",
        station="place",
        state=said,
        subjects=(box.path,),
        message=message,
        figures=(Figure(drawn, "mm", "down"), Figure(longest, "mm", "up")),
        value=drawn,
        limit=longest,
        margin=drawn - longest,
        unit="mm",
        rationale=f"it turns {OPEN_DEG}° on its {hinge} edge, in steps of {SWING_STEP_DEG}°, everything else there",
        label=lid,
    )


def swing_deg(box: PlacedBox, hinge: str, things: Sequence[Obstacle]) -> int:
    """How far what closes a box turns outward on an edge of its face before it meets something, in whole steps [°]."""
    made = box.shell.made
    (axis, far), (side, end) = FACE_AT[made.closed_face], FACE_AT[hinge]
    pivot = [mm / 2 for mm in made.outer_mm]
    pivot[axis], pivot[side] = far * made.outer_mm[axis], end * made.outer_mm[side]
    about, at = 3 - axis - side, (pivot[0], pivot[1], pivot[2])
    cap = [p.solid for p in box.shell.outside if p.role == "closure"]

    def turned(deg: float) -> list[Solid]:
        angles = [0.0, 0.0, 0.0]  # yaw, pitch, roll: about up, right, aft
        angles[2 - about] = deg
        place = Placement.about(at, at, rotation(*angles))
        return [solid.moved(place) for solid in cap]

    way = 1 if _outward_by(turned(1.0), turned(-1.0), axis, far) else -1
    for deg in range(0, OPEN_DEG, SWING_STEP_DEG):
        pairs = zip(turned(way * deg), turned(way * (deg + SWING_STEP_DEG)), strict=True)
        swept = [hull([*a.points, *b.points]).moved(box.placement) for a, b in pairs]
        if meets(swept, things, (0.0, 0.0, 0.0)):
            return deg
    return OPEN_DEG


def _outward_by(one: list[Solid], other: list[Solid], axis: int, far: float) -> bool:
    """Whether the first lies further out of a face than the second."""
    reach = [max(s.high[axis] for s in rows) if far else -min(s.low[axis] for s in rows) for rows in (one, other)]
    return reach[0] > reach[1]


def _chamber_lids(box: PlacedBox, things: Sequence[Obstacle], boxes: Sequence[Obstacle]) -> Iterator[Finding]:
    """Whether the lid of each chamber comes off outward in place, with everything else there: gear is then reached
    without opening the cells' side."""
    for chamber in box.shell.chambers:
        lid = [p.solid.moved(box.placement) for p in chamber.outside if p.role == "closure"]
        off, need = box.placement.direction(outward(chamber.spec.face)), chamber.made.lift_mm + 5.0
        has = free_travel_mm(lid, (*things, *boxes), off, need)
        name = f"{plain(box.box.name)}: the lid of {plain(chamber.spec.name)}"
        comes = has >= need
        yield Finding(
            id=f"access:{box.path}:chambers/{chamber.id}",
            code="access.chamber",
            station="place",
            state="clear" if comes else "note",
            subjects=(box.path, f"{box.path}/chambers/{chamber.id}"),
            message=f"{name} comes off in place"
            if comes
            else f"{name} is drawn {{0}} and needs {{1}}: it comes off with the box out",
            figures=() if comes else (Figure(has, "mm", "down"), Figure(need, "mm", "up")),
            value=has,
            limit=need,
            margin=has - need,
            unit="mm",
            label=f"lid of {chamber.spec.name}",
            rationale="it goes clear of its walls before it is turned away; asked with everything else there",
        )


_BEFORE = {"top": "above", "base": "below"} | dict.fromkeys(("front", "aft", "left", "right"), "before")


# --- hands ---


JOINED = ("gland", "hose tail", "plug", "bleed screw")  # what is plugged, clamped or bled in place


def _reach(box: PlacedBox, things: Sequence[Obstacle], boxes: Sequence[Obstacle]) -> Iterator[Finding]:
    """Room for a hand before each opening, gland and hose tail: they are joined in place."""
    for key, hole in box.box.openings.items():
        if hole.joined:
            yield _hand(box, things, boxes, f"openings/{key}", hole, hole.name)
    for key, thing in box.box.protrusions.items():
        if thing.kind in JOINED:
            yield _hand(box, things, boxes, f"protrusions/{key}", thing, thing.name)


def hand_before(box: PlacedBox, thing: OnFace) -> Solid:
    """The room of a hand before a joint on a face."""
    low, high = before_face(thing, box.shell.outer_mm, HAND_MM[0], (8.0, HAND_MM[2]))
    return block(low, high).moved(box.placement)


def _hand(
    box: PlacedBox, things: Sequence[Obstacle], boxes: Sequence[Obstacle], path: str, thing: OnFace, what: str
) -> Finding:
    hand = hand_before(box, thing)
    met, hidden = (meets([hand], rows, (0.0, 0.0, 0.0)) for rows in (things, boxes))
    name, word = plain(box.box.name), plain(what)
    message = (
        f"{name}: no hand reaches {word}, {plain(met[0].name)} is before it"
        if met
        else f"{name}: a hand reaches {word}"
    )
    if hidden and not met:
        message += _once_out(hidden)
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
