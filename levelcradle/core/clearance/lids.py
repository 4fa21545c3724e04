"""What closes a box, and its chambers, comes off or swings open in place, with everything else there."""

from collections.abc import Iterator, Sequence
from functools import lru_cache

from levelcradle.core.assembly import Obstacle, PlacedBox
from levelcradle.core.axes import Placement, Vec, rotation, scaled
from levelcradle.core.box import outward
from levelcradle.core.clearance.moves import free_travel_mm, meets
from levelcradle.core.design.box import FACE_AT
from levelcradle.core.finding import Figure, Finding, State, plain
from levelcradle.core.solids import Solid, block, hull

__all__ = ["chamber_lid_findings", "lid_findings", "once_out"]

OPEN_DEG, SWING_STEP_DEG = 100, 10  # common practice, no source
BEFORE = {"top": "above", "base": "below"} | dict.fromkeys(("front", "aft", "left", "right"), "before")


def once_out(met: Sequence[Obstacle]) -> str:
    """Which boxes have to be out first, where nothing but boxes is in the way."""
    names = [plain(name) for name in dict.fromkeys(o.name for o in met)]
    return f", once the {' and the '.join(names)} {'is' if len(names) == 1 else 'are'} out"


def lid_findings(box: PlacedBox, things: Sequence[Obstacle], boxes: Sequence[Obstacle]) -> Iterator[Finding]:
    """Whether what closes the box comes off in place, and a module can be drawn straight out, with everything else
    there."""
    made = box.shell.made
    if made.hinge:
        yield _swung(box, made.hinge, (*things, *boxes))
        return
    face = made.closed_face
    axis = FACE_AT[face][0]
    cap = [p.solid for p in box.pieces if p.role == "closure"]
    if made.open_to_air:
        yield _open_above(box, (*things, *boxes))
        return
    off = box.placement.direction(outward(face))
    need = made.lift_mm + 5.0
    longest = max(m.high[axis] - m.low[axis] for m in box.shell.modules)
    alone = _alone_mm(box, tuple(things), off, need + longest)
    met = meets(cap, boxes, scaled(off, alone))
    comes = min(alone, free_travel_mm(cap, boxes, off, alone)) if met else alone
    once = once_out(met) if met else ""
    name, lid = _words(box)
    state: State = "note"
    if alone < need:
        verb = "lifts" if face == "top" else "is drawn"
        message = f"{name}: its {lid} {verb} {{0}} and needs {{1}}: it comes off with the box out"
    elif alone < longest + need:
        message = (
            f"{name}: its {lid} comes off in place{once}; a module needs {{1}} {BEFORE[face]} it and has {{0}}: "
            f"filled with the box out"
        )
        need += longest
    else:
        message = f"{name}: its {lid} comes off in place, and modules can be drawn{once}"
        state = "note" if once else "clear"
    why = "what closes it goes clear of the walls before it is turned away; asked with everything else there"
    yield _of_its_lid(box, state, message, (alone, comes, need), why)


@lru_cache(maxsize=512)
def _alone_mm(box: PlacedBox, things: tuple[Obstacle, ...], off: Vec, most_mm: float) -> float:
    """How far its cap goes, whichever boxes stand there; kept while one beside it is moved."""
    return free_travel_mm([p.solid for p in box.pieces if p.role == "closure"], things, off, most_mm)


def _open_above(box: PlacedBox, things: Sequence[Obstacle]) -> Finding:
    """Whether a module can be drawn out of what nothing closes."""
    modules = [block(m.low, m.high).moved(box.placement) for m in box.shell.modules]
    longest = max(m.high[2] - m.low[2] for m in box.shell.modules)
    drawn = free_travel_mm(modules, things, box.placement.direction(outward("top")), longest)
    free = drawn >= longest
    message = f"{plain(box.box.name)}: modules can be drawn in place"
    if not free:
        message = f"{plain(box.box.name)}: a module needs {{1}} above it and has {{0}}: filled with the box out"
    why = "nothing closes it; asked with everything else there"
    return _of_its_lid(box, "clear" if free else "note", message, (drawn, drawn, longest), why)


def _words(box: PlacedBox) -> tuple[str, str]:
    """Its name, and what its closure is called."""
    face = box.shell.made.closed_face
    return plain(box.box.name), "lid" if face == "top" else f"{face} panel"


def _of_its_lid(box: PlacedBox, state: State, message: str, mm: tuple[float, float, float], rationale: str) -> Finding:
    """``mm``: how far it goes as it is said, how far with everything there, and how far it must."""
    says, has, needs = mm
    return Finding(
        id=f"access:{box.path}:lid",
        code="access.lid",
        station="place",
        state=state,
        subjects=(box.path,),
        message=message,
        figures=(Figure(says, "mm", "down"), Figure(needs, "mm", "up")),
        value=has,
        limit=needs,
        margin=has - needs,
        unit="mm",
        rationale=rationale,
        label=_words(box)[1],
    )


def _swung(box: PlacedBox, hinge: str, things: Sequence[Obstacle]) -> Finding:
    """How far what closes a box swings open in place, and whether a module can be drawn then."""
    face = box.shell.made.closed_face
    axis, off = FACE_AT[face][0], box.placement.direction(outward(face))
    opens = _swing_deg(box, hinge, things)
    modules = [block(m.low, m.high).moved(box.placement) for m in box.shell.modules]
    longest = max(m.high[axis] - m.low[axis] for m in box.shell.modules)
    drawn = free_travel_mm(modules, things, off, longest)
    name, lid = _words(box)
    state: State = "note"
    if opens < OPEN_DEG:
        message = f"{name}: its {lid} swings {opens}° and no further: it is opened with the box out"
    elif drawn < longest:
        message = f"{name}: its {lid} swings open in place; a module needs {{1}} {BEFORE[face]} it and has {{0}}: "
        message += "filled with the box out"
    else:
        message, state = f"{name}: its {lid} swings open in place, and modules can be drawn", "clear"
    why = f"it turns {OPEN_DEG}° on its {hinge} edge, in steps of {SWING_STEP_DEG}°, everything else there"
    return _of_its_lid(box, state, message, (drawn, drawn, longest), why)


def _swing_deg(box: PlacedBox, hinge: str, things: Sequence[Obstacle]) -> int:
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


def chamber_lid_findings(box: PlacedBox, things: Sequence[Obstacle], boxes: Sequence[Obstacle]) -> Iterator[Finding]:
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
