"""What the flags of a space ask of a box in it: sealed and vented where people sit, sealed and drained where it is wet;
and what a sealed box asks wherever it hangs: something to breathe through."""

import math
from collections.abc import Collection, Iterator
from dataclasses import replace

from levelcradle.core.assembly import Assembly, PlacedBox
from levelcradle.core.axes import minus
from levelcradle.core.box import outward
from levelcradle.core.design.base import FACE_AT, Face
from levelcradle.core.design.fitted import FittedKind
from levelcradle.core.design.holders import refers
from levelcradle.core.finding import Finding, State, plain

__all__ = ["flag_findings"]

CABIN = "a failing cell gives off toxic and burning gas: sealed from the passenger space, and vented outside"
WET = "water in a box is a fault sooner or later"
DRAIN = "what condenses or gets in runs out at its lowest place"
AIR_PA, WARMER_K, ROOM_K = 101_325.0, 20.0, 293.15
PUSH_PA = AIR_PA * WARMER_K / ROOM_K  # of shut air that is 20 K warmer: ideal gas


def flag_findings(assembly: Assembly) -> Iterator[Finding]:
    for box in assembly.boxes.values():
        if not box.shell.modules:
            continue
        bay = assembly.bay_of(box)
        if box.shell.made.open_to_air or box.box.lightening:
            yield _in_the_dry(box, bay.flags if bay else None)
        else:
            yield from _of_its_space(assembly, box, bay.flags if bay else ())
        if _sealed(box):
            yield from _breathing(box)
        yield from _metals(assembly, box, bay.flags if bay else ())


def _in_the_dry(box: PlacedBox, flags: Collection[str] | None) -> Finding:
    """What is open to the air stands where it is dry and nobody sits, or nowhere; where that is no measured space
    nobody knows."""
    name, against = plain(box.box.name), sorted({"wet", "passenger"} & set(flags or ()))
    state: State = "foul" if against or _sealed(box) else "unknown" if flags is None else "clear"
    words = f"{name} is open, and stands in a dry space"
    if against:
        words = f"{name} is open, and stands in {' and '.join(WHERE[flag] for flag in against)}"
    elif _sealed(box):
        words = f"{name} is open: nothing of it is sealed"
    elif flags is None:
        words = f"{name} is open, and belongs in no measured space: dry? nobody has said"
    return Finding(
        id=f"space:{box.path}:open",
        code="box.space",
        station="box",
        state=state,
        subjects=(box.path,),
        message=words,
        label="open to the air",
        rationale=f"{WET}; {CABIN}",
    )


WHERE = {"wet": "a wet space", "passenger": "the passenger space"}


def _dry(assembly: Assembly, box: PlacedBox) -> Finding:
    """Each face keeps the water out that reaches it: what looks at an open side of its space is sealed, what looks at
    metal at least keeps splashes out."""
    name, left = plain(box.box.name), sorted(box.box.sides)
    if not left or (box.box.sealing is None and len(left) < len(FACE_AT)):
        return _asked(box, "sealed", f"{name} stands in a wet space: sealed?", _sealed(box), WET)
    met = [face for face in left if box.box.sides[face] == "open" or _looks_out(assembly, box, face)]
    keeps = (box.box.sealed or len(left) == len(FACE_AT)) and not met
    asked = _asked(box, "sealed", f"{name} stands in a wet space: sealed?", keeps, WET)
    words = f"its {' and '.join(met or left)} " + ("let water in" if met else "keep splashes out, and look at metal")
    if not met and not keeps:
        words = "not but for splashes"
    return replace(asked, message=f"{name} stands in a wet space: {words}")


LOOKS = (("fore", "aft"), ("left", "right"), ("floor", "top"))


def _looks_out(assembly: Assembly, box: PlacedBox, face: Face) -> bool:
    """Whether a face looks at a side of its space that is not metal: as its box stands, by where it looks most."""
    bay, way = assembly.bay_of(box), box.placement.direction(outward(face))
    axis = max(range(3), key=lambda i: abs(way[i]))
    return bay is None or getattr(bay.sides, LOOKS[axis][way[axis] > 0]).is_ != "metal"


def _of_its_space(assembly: Assembly, box: PlacedBox, flags: Collection[str]) -> Iterator[Finding]:
    name, spec = plain(box.box.name), box.box
    if "passenger" in flags:
        yield _asked(box, "sealed", f"{name} stands in the passenger space: sealed towards it?", _sealed(box), CABIN)
        yield _asked(
            box, "vented", f"{name} stands in the passenger space: vented outside?", spec.vented_outside, CABIN
        )
    elif "wet" in flags:
        yield _dry(assembly, box)
        if _sealed(box):
            yield _opening(box, "drain", f"{name} stands in a wet space: a drain?", "drain", DRAIN)


def _metals(assembly: Assembly, box: PlacedBox, flags: Collection[str]) -> Iterator[Finding]:
    """Aluminium that touches steel is eaten where it is wet. What screws, rivets and bolts a box is steel."""
    named = (row for holder in box.box.holders.values() for row in refers(holder))
    used = [box.box.material, *(key for _, table, key, _ in named if table == "tables/materials")]
    metals = {assembly.tables.materials[key].weldable_with for key in used}
    if "aluminium" not in metals:
        return
    wet = "wet" in flags
    yield Finding(
        id=f"space:{box.path}:metals",
        code="box.metals",
        station="box",
        state="tight" if wet else "note",
        subjects=(box.path,),
        message=f"{plain(box.box.name)}: steel on aluminium{', in a wet space' if wet else ''}",
        rationale="where water stays between the two the aluminium is eaten: a barrier, sleeves, sealant, a drain",
        label="steel on aluminium",
    )


def _breathing(box: PlacedBox) -> Iterator[Finding]:
    """Shut air pushes and draws at what closes the box as it warms and cools."""
    inner, axis = box.shell.inner_mm, FACE_AT[box.shell.made.closed_face][0]
    push_n = PUSH_PA * math.prod(v for i, v in enumerate(inner) if i != axis) * 1e-6
    filled = sum(math.prod(minus(m.high, m.low)) for m in box.shell.modules)
    litres = (math.prod(inner) - filled) * 1e-6
    question = f"{plain(box.box.name)} is sealed: something to breathe through?"
    why = (
        f"{WARMER_K:g} K warmer its air pushes with {PUSH_PA / 1000:.1f} kPa, {push_n:,.0f} N on what closes it; a bag "
        f"dries its {litres:.0f} litres of air, by its maker's table"
    )
    yield _opening(box, "breathes", question, "vent", why)


def _opening(box: PlacedBox, what: str, question: str, kind: FittedKind, rationale: str) -> Finding:
    """Asked until such a thing sits in an opening of the box, and put there."""
    sits = any(hole.fitted and hole.fitted.kind == kind for hole in box.box.openings.values())
    asked = _asked(box, what, question, True if sits else None, rationale)
    return replace(asked, code="box.air", subjects=(f"{box.path}/openings", box.path))


def _sealed(box: PlacedBox) -> bool | None:
    """All over."""
    return None if box.box.sealing is None else box.box.sealed and not box.box.sides


def _asked(box: PlacedBox, what: str, question: str, answer: bool | None, rationale: str) -> Finding:
    """Not known until it is answered; a yes is somebody's word, not a proof."""
    state: State = "unknown" if answer is None else "note" if answer else "foul"
    words = {None: "nobody has said", True: "yes, as said", False: "no"}[answer]
    return Finding(
        id=f"space:{box.path}:{what}",
        code="box.space",
        station="box",
        state=state,
        subjects=(box.path,),
        message=f"{question} {words}",
        rationale=rationale,
        label=what,
    )
