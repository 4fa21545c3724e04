"""What a box is welded with: of its own family of metals, and not one that cracks with its alloy."""

from collections.abc import Iterator

from levelcradle.core.assembly import Assembly, PlacedBox
from levelcradle.core.finding import Finding, State, plain

__all__ = ["filler_findings"]


def filler_findings(assembly: Assembly) -> Iterator[Finding]:
    """Of each box that is welded; where nobody has said of one of aluminium it is noted, steel is welded with steel."""
    for box in assembly.boxes.values():
        said = _said(assembly, box) if any(box.box.construction.welded) else None
        if said:
            state, words, why = said
            yield Finding(
                id=f"filler:{box.path}",
                code="box.filler",
                station="box",
                state=state,
                subjects=(box.path,),
                message=f"{plain(box.box.name)}: {words}",
                label="filler",
                rationale=why,
            )


def _said(assembly: Assembly, box: PlacedBox) -> tuple[State, str, str] | None:
    metal = assembly.tables.materials[box.box.material]
    why = "filler and alloy go together, or the weld cracks as it cools (EN 1011-4, from memory)"
    filler = assembly.tables.fillers.get(box.box.filler or "")
    if filler is None:
        if metal.weldable_with == "steel":
            return None
        return "note", f"nobody has said with which filler {plain(metal.name)} is welded", why
    pair = f"{plain(metal.name)} welded with {plain(filler.name)}"
    if filler.welds != metal.weldable_with:
        return "foul", f"{pair}: steel and aluminium make no weld", why
    if filler.cracks_with and metal.series is None:
        return "unknown", f"{pair}: nobody has said of which series the alloy is", why
    if metal.series in filler.cracks_with.split():
        return "foul", f"{pair} cracks", filler.source
    return "clear", pair, why
