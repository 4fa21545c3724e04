"""Service panels: whether each lies on flat wall, stands in nothing else of the box, comes off in place, and lets a
hand through."""

from collections.abc import Iterator, Sequence
from dataclasses import replace

from levelcradle.core.assembly import Obstacle, PlacedBox
from levelcradle.core.box import ServicePanelMade, openings_of, outward
from levelcradle.core.clearance.chambers import stands_in
from levelcradle.core.clearance.moves import free_travel_mm
from levelcradle.core.design.base import FACE_AT
from levelcradle.core.finding import Figure, Finding, State, plain
from levelcradle.core.strength import EDGE_HOLES

__all__ = ["cover_findings", "panel_findings"]

HAND_MM = (60.0, 90.0)  # what a hand goes through, and the room before it: common practice, no source
OFF_MM = 5.0  # clear of its gasket before it is turned away: common practice, no source


def panel_findings(box: PlacedBox) -> Iterator[Finding]:
    for number, panel in enumerate(box.shell.service_panels):
        over = _over_flat_wall(box, panel)
        if over is None:
            words = f"on the {panel.spec.face} there is no flat wall for it"
            yield _of(box, panel, "wall", "foul", words, "it lies on flat wall, where what is behind it stays")
        elif over > 0:
            why = "its cover lies between bends, rims and tubes"
            yield _of(box, panel, "over", "foul", "reaches {0} over flat wall", why, over)
        others = [(other.spec.name, other.cover) for other in box.shell.service_panels[:number]]
        others += [(c.spec.name, piece.solid) for c in box.shell.chambers for piece in c.outside]
        for name, deep in stands_in(box, [panel.cover], others).items():
            yield _of(box, panel, name, "foul", f"stands {{0}} in {plain(name)}", "metal is solid", deep)
        yield from _holes(box, panel)
        edge, needs = panel.spec.overlap_mm / 2, EDGE_HOLES * panel.spec.screws.rivet_nut_hole_mm
        if edge < needs:
            words = "has its screws {0} too near the edge of its opening"
            yield _of(box, panel, "edge", "foul", words, f"{EDGE_HOLES:g} holes: EN 1993-1-8 table 3.3", needs - edge)
        if box.box.sealed and not panel.spec.gasket_mm:
            yield _of(box, panel, "seal", "foul", "has no gasket, and the box is sealed", "each cover has its own seal")


def _over_flat_wall(box: PlacedBox, panel: ServicePanelMade) -> float | None:
    """How far its cover reaches beyond what is flat of its face [mm]; None where nothing is."""
    flat = box.shell.made.flat_at(panel.spec.face)
    if flat is None:
        return None
    along = [i for i in range(3) if i != FACE_AT[panel.spec.face][0]]
    pairs = zip(along, panel.cover_mm, *flat, strict=True)
    at = panel.frame.origin
    return round(max(max(low - at[i] + mm / 2, at[i] + mm / 2 - high) for i, mm, low, high in pairs), 9)


def _holes(box: PlacedBox, panel: ServicePanelMade) -> Iterator[Finding]:
    """Openings that its cover lies over."""
    back = panel.frame.inverse
    wide, tall = panel.cover_mm
    for hole in openings_of(box.box, box.shell.outer_mm):
        if hole.face == panel.spec.face:
            x, y, _ = back.point(hole.at)
            over = min(wide / 2 - abs(x), tall / 2 - abs(y)) + hole.seat_mm / 2
            if over > 0:
                name = plain(box.box.openings[hole.name].name)
                yield _of(box, panel, hole.name, "foul", f"lies {{0}} over {name}", "one wall, one hole", over)


def cover_findings(box: PlacedBox, things: Sequence[Obstacle], boxes: Sequence[Obstacle]) -> Iterator[Finding]:
    """Whether each cover comes off outward in place, and a hand goes through its opening, with everything else
    there."""
    for panel in box.shell.service_panels:
        off, need = box.placement.direction(outward(panel.spec.face)), OFF_MM + HAND_MM[1]
        cover = [panel.cover.moved(box.placement)]
        has = free_travel_mm(cover, (*things, *boxes), off, need)
        least = min(panel.spec.size_mm)
        if least < HAND_MM[0]:
            words = f"its opening is {{0}}, a hand needs {HAND_MM[0]:g}: only what is seen or touched with a tool"
            yield _access(box, panel, "note", words, (least, HAND_MM[0]))
        elif has < need:
            words = "{0} before it, {1} needed: it comes off, and a hand goes in, with the box out"
            yield _access(box, panel, "note", words, (has, need))
        else:
            yield _access(box, panel, "clear", "comes off in place, and a hand goes in", (has, need))


def _access(box: PlacedBox, panel: ServicePanelMade, state: State, words: str, mm: tuple[float, float]) -> Finding:
    has, needs = mm
    why = (
        f"drawn off its screws, then a hand {HAND_MM[0]:g} across and {HAND_MM[1]:g} deep; asked with everything there"
    )
    return replace(
        _of(box, panel, "access", state, words, why),
        id=f"access:{box.path}:service_panels/{panel.id}",
        code="access.panel",
        station="place",
        figures=(Figure(has, "mm", "down"), Figure(needs, "mm", "up")) if state != "clear" else (),
        value=has,
        limit=needs,
        margin=has - needs,
        unit="mm",
    )


def _of(
    box: PlacedBox, panel: ServicePanelMade, key: str, state: State, words: str, rationale: str, mm: float | None = None
) -> Finding:
    return Finding(
        id=f"panel:{box.path}:{panel.id}:{key}",
        code="box.panel",
        station="box",
        state=state,
        subjects=(box.path, f"{box.path}/service_panels/{panel.id}"),
        message=f"{plain(box.box.name)}: {plain(panel.spec.name)} {words}",
        figures=(Figure(mm, "mm", "up"),) if mm is not None else (),
        value=mm,
        limit=0.0 if mm is not None else None,
        margin=-mm if mm is not None else None,
        unit="mm" if mm is not None else "",
        label=panel.spec.name,
        rationale=rationale,
    )
