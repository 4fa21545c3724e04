"""What a box blows at when a cell fails: into the open, never at people or at what is hot."""

from collections.abc import Iterator

from levelcradle.core.assembly import Assembly, Obstacle, PlacedBox
from levelcradle.core.box import before_face
from levelcradle.core.clearance.moves import meets
from levelcradle.core.clearance.ways_out import as_obstacles
from levelcradle.core.design.box import Opening
from levelcradle.core.finding import Finding, State, plain
from levelcradle.core.solids import block

__all__ = ["relief_findings"]

BLOWS_MM = 300.0  # so far before a vent the gas is hot and fast: common practice, no source


def relief_findings(assembly: Assembly) -> Iterator[Finding]:
    for box in assembly.boxes.values():
        blowing = _blowing(box) if box.shell.modules else {}
        yield from (_finding(box, key, hole, *_at(assembly, box, hole)) for key, hole in blowing.items())


def _blowing(box: PlacedBox) -> dict[str, Opening]:
    """Through its pressure reliefs, which open long before its breathers would do; where it has none, through those."""
    for kind in ("pressure relief", "vent"):
        found = {key: hole for key, hole in box.box.openings.items() if hole.fitted and hole.fitted.kind == kind}
        if found:
            return found
    return {}


def _at(assembly: Assembly, box: PlacedBox, hole: Opening) -> tuple[State, str]:
    bay = assembly.bay_of(box)
    if box.box.vented_outside:
        return "note", "is led outside, as said: its hose takes the heat of the gas"
    if bay and "passenger" in bay.flags:
        return "foul", "blows into the passenger space"
    low, high = before_face(hole, box.shell.outer_mm, hole.seat_mm, (0.0, BLOWS_MM))
    met = meets([block(low, high).moved(box.placement)], list(_around(assembly, box)), (0.0, 0.0, 0.0))
    hot = next((thing for thing in met if thing.gap_class in ("hot", "warm")), None)
    if hot is not None:
        return "foul", f"blows at {plain(hot.name)}, which is {hot.gap_class}"
    if met:
        return "note", f"blows at {plain(met[0].name)} first"
    return "clear", f"blows into the open: nothing stands within {BLOWS_MM:g} before it"


def _around(assembly: Assembly, box: PlacedBox) -> Iterator[Obstacle]:
    """All that stands there but what is fixed to the box itself; spaces are no things."""
    bay = box.box.bay or ""
    rows = (*assembly.obstacles, *assembly.own_sides.get(bay, ()), *(s for s in assembly.sides if s.bay != bay))
    yield from (thing for thing in rows if thing.kind != "space" and not thing.crush and thing.fixed_to != box.id)
    yield from (row for other in assembly.boxes.values() if other is not box for row in as_obstacles(other))


def _finding(box: PlacedBox, key: str, hole: Opening, state: State, words: str) -> Finding:
    return Finding(
        id=f"relief:{box.path}:{key}",
        code="box.relief",
        station="box",
        state=state,
        subjects=(box.path, f"{box.path}/openings/{key}"),
        message=f"{plain(box.box.name)}: {plain(hole.name)} {words}",
        rationale="a failing cell gives off toxic and burning gas: away from people, from lines and from what is hot",
        label="what it blows at",
    )
