"""Room that a face of a box keeps clear: a hand behind it, air past it, a corridor beside it. It goes and turns with
the box."""

from collections.abc import Iterator

from levelcradle.core.assembly import Assembly, Obstacle, PlacedBox
from levelcradle.core.clearance.gaps import around, is_taken, untaken_around
from levelcradle.core.clearance.tolerances import gap_tolerance_mm
from levelcradle.core.design.survey import KeepClear
from levelcradle.core.finding import Figure, Finding, gap_state, plain
from levelcradle.core.solids import Solid, block, nearest

__all__ = ["USUAL_MM", "room_findings", "room_of"]

USUAL_MM = {"a hand": 90.0, "air past": 40.0, "a corridor": 60.0}
"""A hand with a spanner; air past a warm face; a run of cables in its clips: common practice, no source."""
BEYOND_MM = 30.0  # further out than it must be free nobody looks
WITHIN_MM = 0.05
BEHIND = {"front": "ahead of", "aft": "behind", "left": "left of", "right": "right of", "base": "below", "top": "above"}


def room_of(box: PlacedBox, room: KeepClear, depth_mm: float) -> Solid:
    """So deep a room before a face, as wide and high as the box or a run along an edge; above it from over the lid."""
    aft, right, up = box.shell.outer_mm
    high = (aft, right, up + box.shell.made.proud_mm("top") if room.face == "top" else up)
    return block(*room.before((0.0, 0.0, 0.0), high, depth_mm)).moved(box.placement)


def room_findings(assembly: Assembly) -> Iterator[Finding]:
    """What each face that keeps room has before it."""
    for box in assembly.in_order():
        for key, room in box.box.keep_clear.items():
            yield _finding(assembly, box, key, room)


def _finding(assembly: Assembly, box: PlacedBox, key: str, room: KeepClear) -> Finding:
    free, thing = _free(assembly, box, room)
    tolerance = gap_tolerance_mm(assembly, box, thing) if thing else 0.0
    state, rationale = gap_state(free, room.depth_mm, tolerance), "asked of that face, wherever the box stands"
    if state != "foul" and (unsure := _unsure(assembly, box, thing)):
        state, rationale = "unknown", unsure
    words = plain(room.reason or "room kept") + (f" along its {room.run.beside} edge" if room.run else "")
    message = (
        f"{plain(box.box.name)}, {words}: {{0}} {BEHIND[room.face]} it"
        + (f" to {plain(thing.name)}" if thing else "")
        + ", needs {1}"
    )
    return Finding(
        id=f"room:{box.path}:{key}",
        code="gap.room",
        station="place",
        state=state,
        subjects=(box.path, thing.path) if thing else (box.path,),
        message=message,
        figures=(Figure(free, "mm", "down"), Figure(room.depth_mm, "mm", "up")),
        value=free,
        limit=room.depth_mm,
        margin=free - room.depth_mm,
        unit="mm",
        tolerance=tolerance,
        rationale=rationale,
        label=words,
    )


def _unsure(assembly: Assembly, box: PlacedBox, thing: Obstacle | PlacedBox | None) -> str:
    """Why nobody can say that it is free: something round the box was not measured, not taken, or is only assumed."""
    bay = assembly.bay_of(box)
    if bay and bay.sides.not_measured:
        return f"{plain(bay.name)}: its {bay.sides.not_measured[0]} side was not measured"
    figure = (
        next(iter(untaken_around(assembly, box).values()), None)
        or assembly.assumed(box)
        or (thing and assembly.assumed(thing))
    )
    return f"{plain(assembly.words_of(figure))} is not measured" if figure else ""


def _free(assembly: Assembly, box: PlacedBox, room: KeepClear) -> tuple[float, Obstacle | PlacedBox | None]:
    """How deep the room before a face is free, and what ends it; a little beyond what is asked nothing counts."""
    most, ends = room.depth_mm + BEYOND_MM, None
    others = (other for other in assembly.boxes.values() if other is not box)
    things: list[tuple[Obstacle | PlacedBox, Solid]] = [
        (thing, thing.solid) for thing in around(assembly, box) if is_taken(assembly, thing)
    ]
    things += [(other, piece.solid) for other in others for piece in other.pieces]
    for thing, solid in things:
        if _meets(box, room, most, solid):
            most, ends = _depth(box, room, most, solid), thing
    return most, ends


def _meets(box: PlacedBox, room: KeepClear, depth_mm: float, solid: Solid) -> bool:
    return depth_mm > 0 and nearest(room_of(box, room, depth_mm), solid).gap_mm < 0


def _depth(box: PlacedBox, room: KeepClear, most_mm: float, solid: Solid) -> float:
    """Where a room that grows out of the face first meets a solid: halved again and again, told as too little."""
    free, met = 0.0, most_mm
    while met - free > WITHIN_MM:
        middle = (free + met) / 2
        free, met = (free, middle) if _meets(box, room, middle, solid) else (middle, met)
    return free
