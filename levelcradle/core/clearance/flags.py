"""What the flags of a space ask of a box in it: sealed and vented where people sit, sealed where it is wet, no modules
in a crush zone."""

from collections.abc import Iterator

from levelcradle.core.assembly import Assembly, PlacedBox
from levelcradle.core.finding import Finding, State, plain

__all__ = ["flag_findings"]

SEALED = ("gasket", "sealant")
CABIN = "a failing cell gives off toxic and burning gas: sealed from the passenger space, and vented outside"
WET = "water in a box is a fault sooner or later"


def flag_findings(assembly: Assembly) -> Iterator[Finding]:
    for box in assembly.boxes.values():
        bay = assembly.bay_of(box)
        if bay is None or not box.shell.modules:
            continue
        name, spec = plain(box.box.name), box.box
        if "passenger" in bay.flags:
            yield _asked(
                box, "sealed", f"{name} stands in the passenger space: sealed towards it?", _sealed(box), CABIN
            )
            yield _asked(
                box, "vented", f"{name} stands in the passenger space: vented outside?", spec.vented_outside, CABIN
            )
        elif "wet" in bay.flags:
            yield _asked(box, "sealed", f"{name} stands in a wet space: sealed?", _sealed(box), WET)


def _sealed(box: PlacedBox) -> bool | None:
    return None if box.box.sealing is None else box.box.sealing in SEALED


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
