"""Compartments between the dividers of a block: whether each blows off by the side that was chosen for it."""

from collections.abc import Iterator
from dataclasses import dataclass

from levelcradle.core.assembly import Assembly, PlacedBox
from levelcradle.core.box import openings_of
from levelcradle.core.design.base import FACE_AT, Face
from levelcradle.core.design.box import Dividers
from levelcradle.core.finding import Finding, State, plain
from levelcradle.core.modules import WAYS

__all__ = ["Compartment", "compartment_findings", "compartments_of"]

BLOWS = ("pressure relief", "vent")


@dataclass(frozen=True, slots=True)
class Compartment:
    """The part of a box between two dividers, or a divider and a wall: from where to where along which axis, inside, in
    the box's frame. ``relieved``: whether something that blows sits in its piece of the chosen face."""

    axis: int
    start_mm: float
    end_mm: float
    relieved: bool


def compartments_of(box: PlacedBox, block: str) -> tuple[Compartment, ...]:
    """Of a block with dividers, in order; none of one without."""
    dividers = box.box.blocks[block].dividers
    if dividers is None:
        return ()
    axis, made = WAYS.index(dividers.along), box.shell.made
    plates = [(low[axis], high[axis]) for key, low, high in box.shell.plates if key == block]
    starts = [made.start_mm[axis], *(high for _, high in plates)]
    ends = [*(low for low, _ in plates), made.start_mm[axis] + made.inner_mm[axis]]
    blown = list(_blown(box, dividers.relief, axis)) if dividers.relief else []
    return tuple(
        Compartment(axis, start, end, any(start < at < end for at in blown))
        for start, end in zip(starts, ends, strict=True)
    )


def _blown(box: PlacedBox, face: Face, axis: int) -> Iterator[float]:
    """Where along an axis what blows sits in a face: in an end wall within it, so that it is the last one's."""
    made, (across, far) = box.shell.made, FACE_AT[face]
    kinds = {key: hole.fitted.kind for key, hole in box.box.openings.items() if hole.fitted}
    rows = openings_of(box.box, box.shell.outer_mm)
    inner = made.start_mm[axis] + (made.inner_mm[axis] - 1e-6 if far else 1e-6)
    for hole in rows:
        if hole.face == face and kinds.get(hole.name) in BLOWS:
            yield inner if across == axis else hole.at[axis]


def compartment_findings(assembly: Assembly, box: PlacedBox) -> Iterator[Finding]:
    """One a block that is divided: a failing module blows off by its compartment's own side, or into its neighbours."""
    for key, block in box.box.blocks.items():
        dividers = block.dividers
        rows = compartments_of(box, key)
        if dividers is None or len(rows) < 2:
            continue
        bare = sum(not row.relieved for row in rows)
        state: State = "clear" if not bare else "note" if dividers.relief is None else "foul"
        name = f"{plain(box.box.name)}, block {key}"
        if dividers.relief is None:
            message = f"{name}: {len(rows)} compartments, and nobody has said by which side they blow off"
        elif bare:
            message = f"{name}: {bare} of {len(rows)} compartments have nothing that blows on the {dividers.relief}"
        else:
            message = f"{name}: each of {len(rows)} compartments blows off on the {dividers.relief}"
        yield Finding(
            id=f"compartments:{box.path}:{key}",
            code="box.compartments",
            station="box",
            state=state,
            subjects=(box.path, f"{box.path}/blocks/{key}"),
            message=message,
            label="reliefs of compartments",
            rationale="shut in, the gas of a failing module goes through the dividers to its neighbours (common "
            "practice, no source)",
        )
        yield from _weightless(assembly, box, key, dividers)


def _weightless(assembly: Assembly, box: PlacedBox, key: str, dividers: Dividers) -> Iterator[Finding]:
    """Boards of which nobody has said what they weigh: they are not in the box's mass."""
    row = assembly.tables.liners.get(dividers.material or "")
    if row and row.density_kg_m3 is None:
        yield Finding(
            id=f"compartments:{box.path}:{key}:mass",
            code="box.compartments",
            station="box",
            state="unknown",
            subjects=(box.path, f"{box.path}/blocks/{key}"),
            message=f"{plain(box.box.name)}, block {key}: nobody has said how dense {plain(row.name)} is",
            label="mass of dividers",
            rationale="its dividers are not in what the box weighs",
        )
