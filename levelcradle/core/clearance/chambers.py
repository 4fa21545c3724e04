"""Chambers of a box: whether each can be made, lies on its face, and stands in nothing else of the box."""

from collections.abc import Iterator
from dataclasses import replace

from levelcradle.core.assembly import PlacedBox
from levelcradle.core.box import ChamberMade
from levelcradle.core.design.base import FACE_AT
from levelcradle.core.finding import Figure, Finding, plain
from levelcradle.core.solids import Solid, nearest

__all__ = ["chamber_findings", "stands_in"]

TOUCHES_MM = 1e-3  # rounding of the kernel


def chamber_findings(box: PlacedBox) -> Iterator[Finding]:
    for number, chamber in enumerate(box.shell.chambers):
        yield from chamber.findings(box.path, box.box.name)
        if chamber.spec.face == box.shell.made.closed_face:
            words = f"stands on the {chamber.spec.face}, which comes off"
            yield _foul(box, chamber, "closed", words, "a chamber stays where it is when the cells' side is opened")
        over = _over_its_face(box, chamber)
        if over > TOUCHES_MM:
            why = "its base lies on the face, all of it"
            yield _foul(box, chamber, "over", "stands {0} over the edge of its face", why, over)
        yield from _in_others(box, chamber, box.shell.chambers[:number])
        yield from _over_heads(box, chamber)


def _over_its_face(box: PlacedBox, chamber: ChamberMade) -> float:
    """How far it stands over the edges of the face that it is on."""
    axis, outer = FACE_AT[chamber.spec.face][0], box.shell.outer_mm
    length, width, _ = chamber.made.outer_mm
    corners = [chamber.frame.point((x, y, 0.0)) for x in (0.0, length) for y in (0.0, width)]
    return max(max(-at[i], at[i] - outer[i]) for at in corners for i in range(3) if i != axis)


def _in_others(box: PlacedBox, chamber: ChamberMade, before: tuple[ChamberMade, ...]) -> Iterator[Finding]:
    """What else of the box it stands in, each once."""
    own = [piece.solid for piece in chamber.outside]
    others = [(other.spec.name, piece.solid) for other in before for piece in other.outside]
    for name, deep in stands_in(box, own, others).items():
        yield _foul(box, chamber, name, f"stands {{0}} in {plain(name)}", "metal is solid", deep)


def stands_in(box: PlacedBox, own: list[Solid], others: list[tuple[str, Solid]]) -> dict[str, float]:
    """How deep something on a face stands in what closes the box, stands out of it, is welded to it, in bars that
    stand before the face, and in others that are named; each once."""
    rows = [(p.name, p.solid) for p in box.shell.outside if p.role in ("closure", "protrusion")]
    rows += [(p.name, solid) for p in box.shell.pieces if p.role == "frame" for solid in p.solids]
    back = box.placement.inverse
    rows += [(f"{m.mount.name}, {p.name}", p.solid.moved(back)) for m in box.mounts for p in m.pieces]
    met: dict[str, float] = {}
    for name, solid in (*rows, *others):
        gap = _gap(own, solid)
        if gap < -TOUCHES_MM:
            met[name] = max(-gap, met.get(name, 0.0))
    return met


def _over_heads(box: PlacedBox, chamber: ChamberMade) -> Iterator[Finding]:
    """Heads that hold a face's own sheet are sunk under it, or left out there."""
    own = [piece.solid for piece in chamber.outside]
    heads = [p for p in box.shell.outside if p.role == "fastener" and _gap(own, p.solid) < -TOUCHES_MM]
    for name in dict.fromkeys(p.name for p in heads):
        words = f"stands over {plain(name)}: sink those under it, or leave them out"
        yield replace(_foul(box, chamber, name, words, "its base lies flat on the face"), state="note")


def _gap(own: list[Solid], solid: Solid) -> float:
    return min(nearest(piece, solid).gap_mm for piece in own)


def _foul(
    box: PlacedBox, chamber: ChamberMade, key: str, words: str, rationale: str, mm: float | None = None
) -> Finding:
    return Finding(
        id=f"chamber:{box.path}:{chamber.id}:{key}",
        code="box.chamber",
        station="box",
        state="foul",
        subjects=(box.path, f"{box.path}/chambers/{chamber.id}"),
        message=f"{plain(box.box.name)}: {plain(chamber.spec.name)} {words}",
        figures=(Figure(mm, "mm", "up"),) if mm is not None else (),
        value=mm,
        limit=0.0 if mm is not None else None,
        margin=-mm if mm is not None else None,
        unit="mm" if mm is not None else "",
        label=chamber.spec.name,
        rationale=rationale,
    )
