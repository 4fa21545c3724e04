"""Each box is bonded to the body by a strap of its own, so that no fault can put it under voltage unnoticed."""

from collections.abc import Iterator

from levelcradle.core.assembly import Assembly
from levelcradle.core.finding import Finding, State, plain

__all__ = ["MOST_OHM", "bonding_findings"]

MOST_OHM = 0.1  # between what can be touched and the body: UN Regulation 100, 5.1.2, from memory


def bonding_findings(assembly: Assembly) -> Iterator[Finding]:
    """Of each box with modules: what its strap was measured to have; a note until somebody has."""
    for box in assembly.boxes.values():
        if not box.shell.modules:
            continue
        ohm, name = box.box.bond_ohm, plain(box.box.name)
        state: State = "note" if ohm is None else "clear" if ohm <= MOST_OHM else "foul"
        said = "not measured yet" if ohm is None else f"{ohm:g} Ω measured, at most {MOST_OHM:g}"
        yield Finding(
            id=f"bond:{box.path}",
            code="box.bond",
            station="box",
            state=state,
            subjects=(box.path,),
            value=ohm,
            limit=None if ohm is None else MOST_OHM,
            margin=None if ohm is None else MOST_OHM - ohm,
            label="bonding",
            message=f"{name}: bonded to the body by a strap of its own, {said}",
            rationale="bolts do not count: paint and rust lie under them, and who touches the box touches the body too",
        )
