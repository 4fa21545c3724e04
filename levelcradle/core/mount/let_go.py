"""What the others must carry where one mount of a box lets go: its bracket stays on the box, and holds nothing."""

from collections.abc import Iterator
from dataclasses import dataclass

from levelcradle.core.assembly import Assembly
from levelcradle.core.finding import State
from levelcradle.core.mount.result import support_without

__all__ = ["LetGo", "let_go"]


@dataclass(frozen=True, slots=True)
class LetGo:
    """A mount that is taken for gone. ``words``: why nothing holds then; else the other that is used most, by which
    check and case, and how much. Empty and None where no use is given of any of the others."""

    box: str
    mount: str
    state: State
    words: str = ""
    other: str = ""
    check: str = ""
    case: str = ""
    utilisation: float | None = None


def let_go(assembly: Assembly) -> tuple[LetGo, ...]:
    """Each mount of each box in turn, worst first."""
    rows = (row for box in assembly.boxes for row in _of_box(assembly, box))
    return tuple(sorted(rows, key=lambda row: (row.utilisation is not None, -(row.utilisation or 0.0))))


def _of_box(assembly: Assembly, box_id: str) -> Iterator[LetGo]:
    for mount in assembly.boxes[box_id].mounts:
        if mount.unfit or not mount.contacts:
            continue
        found = support_without(assembly, box_id, mount.id)
        if not found.mounts:
            yield LetGo(box_id, mount.id, "foul", found.words)
            continue
        # nobody drives two million bumps like that
        rows = [(row, other) for other in found.mounts for row in other.rows if row.kind != "shaken"]
        if not rows:
            yield LetGo(box_id, mount.id, "unknown")
            continue
        row, other = max(rows, key=lambda pair: pair[0].utilisation)
        yield LetGo(box_id, mount.id, row.state, "", other.connection.mount.name, row.check, row.case, row.utilisation)
