"""Everything of the design that has a body, by name and in its place: what goes into solid files."""

from collections.abc import Iterator
from dataclasses import dataclass, replace

import numpy as np

from levelcradle.core.assembly import PlacedBox
from levelcradle.core.axes import Placement
from levelcradle.core.fold import FoldedPart
from levelcradle.core.part import FlatPart
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
    """Of each box its parts, modules, heads and brackets; then every module and box that is not cut from sheet."""
    likes = {one.id: f"{part.mark}-{plain_name(part.each[0].name)}" for part in subject.parts for one in part.each}
    for letter, box in subject.boxes:
        group = f"{letter} {box.name}"
        cut = [one for part in subject.parts for one in part.each if one.id in _own(subject, box)]
        folded = {one.id: _folded(subject, one) for one in cut}
        for one in cut:
            found = folded[one.id]
            if found is not None and one.stand is not None:
                mark, like = subject.marks[one.id], likes[one.id]
                yield Named(f"{mark} {one.name}", group, found, one.stand.placement, like)
        yield from _uncut(box, group, has_parts=any(folded.values()))
        for number, module in enumerate(box.shell.modules, 1):
            size = tuple(h - v for v, h in zip(module.low, module.high, strict=True))
            corner = box.placement.after(Placement(np.eye(3), module.low))
            shape = (block((0.0, 0.0, 0.0), (size[0], size[1], size[2])),)
            yield Named(
                f"module {number}, {module.spec.name}",
                group,
                shape,
                corner,
                f"module-{module.kind}-{'x'.join(f'{v:.0f}' for v in size)}",
            )
        for mount in box.mounts:
            for piece in mount.pieces:
                if not piece.part or folded.get(piece.part) is None:
                    yield Named(f"{mount.mount.name}, {piece.name}", group, (piece.solid,), STILL, "")


def _own(subject: Subject, box: PlacedBox) -> set[str]:
    """Ids of the parts of a box and its mounts."""
    made = {part.id for part in box.shell.made.parts(box.id, box.name)}
    dividers = {one.id for part in subject.parts for one in part.each if one.id.startswith(f"{box.id}-divider-")}
    return made | dividers | {part.id for mount in box.mounts for part in mount.parts(subject.assembly.tables)}


def _folded(subject: Subject, part: FlatPart) -> FoldedPart | None:
    """In its own frame; None where it is not known how it stands."""
    folded = subject.folded(part) if part.stand else None
    return folded.in_own_frame() if folded else None


def _uncut(box: PlacedBox, group: str, *, has_parts: bool) -> Iterator[Named]:
    """What is not there as a part in its place: heads, plates welded into slanting edges; all of a box that is not cut
    from sheet."""
    cut = {"base", "wall", "bend", "divider"} if has_parts else set[str]()
    for piece in box.shell.pieces:
        own_part = has_parts and (piece.role == "closure" or piece.role == "slope") and "corner" not in piece.name
        if piece.role not in cut and not own_part and piece.solids:
            yield Named(f"{box.name}, {piece.name}", group, piece.solids, box.placement, "")
