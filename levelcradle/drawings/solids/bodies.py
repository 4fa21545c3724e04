"""Everything of the design that has a body, by name and in its place: what goes into solid files."""

from collections.abc import Iterator
from dataclasses import dataclass, replace

import numpy as np

from levelcradle.core.assembly import PlacedBox
from levelcradle.core.axes import Placement
from levelcradle.core.fold import FoldedPart
from levelcradle.core.solids import Solid, block
from levelcradle.drawings.names import plain_name
from levelcradle.drawings.subject import Subject

__all__ = ["Named", "named_bodies"]

STILL = Placement(np.eye(3), (0.0, 0.0, 0.0))


@dataclass(frozen=True, slots=True, eq=False)
class Named:
    """A body with its name: a folded part or convex solids, in a frame of its own that ``placement`` puts into the
    vehicle. ``group``: the box it goes with; ``like``: of bodies of one shape the same, and fit to be a file's name."""

    name: str
    group: str
    shape: FoldedPart | tuple[Solid, ...]
    placement: Placement
    like: str

    @property
    def key(self) -> str:
        """The same for what has the same shape."""
        return self.like or f"{self.name} {id(self.shape)}"

    def at_home(self) -> "Named":
        """In its own frame."""
        return replace(self, placement=STILL)


def named_bodies(subject: Subject) -> Iterator[Named]:
    """Of each box its parts, modules and brackets, and what of it is not there as a part in its place."""
    for letter, box in subject.boxes:
        group = f"{letter} {box.name}"
        parts = list(_parts(subject, box, group))
        yield from parts
        folded = {body.shape.part.id for body in parts if isinstance(body.shape, FoldedPart)}
        yield from _pieces(box, group, folded)
        for number, module in enumerate(box.shell.modules, 1):
            a, b, c = (h - v for v, h in zip(module.low, module.high, strict=True))
            corner = box.placement.after(Placement(np.eye(3), module.low))
            like = f"module-{module.kind}-{a:.0f}x{b:.0f}x{c:.0f}"
            yield Named(
                f"module {number}, {module.spec.name}", group, (block((0.0, 0.0, 0.0), (a, b, c)),), corner, like
            )


def _parts(subject: Subject, box: PlacedBox, group: str) -> Iterator[Named]:
    """What is cut of sheet for a box, folded, where it stands in the vehicle."""
    for part in subject.parts:
        like = f"{part.mark}-{plain_name(part.each[0].name)}"
        for one in part.each:
            folded = subject.folded(one) if one.stand and box.path in one.of else None
            if folded and one.stand:
                yield Named(f"{part.mark} {one.name}", group, folded.in_own_frame(), one.stand.placement, like)


def _pieces(box: PlacedBox, group: str, folded: set[str]) -> Iterator[Named]:
    """What is no folded part: heads, bevelled plates in slanting edges, bolts; all of a box that is not cut from
    sheet."""
    for piece in box.shell.pieces:
        if piece.role != "divider" and f"{box.id}-{piece.part}" not in folded and piece.solids:
            yield Named(f"{box.name}, {piece.name}", group, piece.solids, box.placement, "")
    for mount in box.mounts:
        for bit in mount.pieces:
            if bit.part not in folded:
                yield Named(f"{mount.mount.name}, {bit.name}", group, (bit.solid,), STILL, "")
