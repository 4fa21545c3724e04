"""What was sent or cut, against what is drawn now."""

from collections.abc import Iterator, Mapping

from levelcradle.core.assembly import Assembly
from levelcradle.core.design.cut_part import CutPart
from levelcradle.core.fabricate import parts_of
from levelcradle.core.finding import Finding, State, plain

__all__ = ["cut_findings"]

TOLD: dict[str, tuple[State, str, str]] = {
    "sent": ("tight", "was sent out", "call whoever cuts it before he does"),
    "cut": ("foul", "is cut", "what is there no longer fits what is drawn"),
}


def cut_findings(kept: Mapping[str, CutPart], assembly: Assembly) -> Iterator[Finding]:
    """Every part that was sent or cut and is drawn otherwise now, or no more."""
    if not kept:
        return
    drawn = {one.id: one for part in parts_of(assembly) for one in part.each}
    for key, part in sorted(kept.items()):
        now = drawn.get(key)
        if now is not None and now.shape == part.shape:
            continue
        state, done, why = TOLD[part.state]
        how = "is drawn otherwise since" if now else "is no longer drawn"
        yield Finding(
            id=f"cut:{key}",
            code="drawings.cut",
            station="drawings",
            state=state,
            subjects=(f"cut_parts/{key}",),
            message=f"{plain(part.name)} {done}, and {how}",
            rationale=why,
            label=part.state,
        )
