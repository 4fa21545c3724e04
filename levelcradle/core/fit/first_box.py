"""“Put a box in this bay”: one block in a turn chosen by hand, as many modules as stand clear of everything.

It is one question to the bay that a study asks many times. Where not one module stands, one is put where it lacks
least, so that what it would take can be asked of it."""

from collections.abc import Mapping
from dataclasses import dataclass

from levelcradle.core.assembly import resolve
from levelcradle.core.bays import extent
from levelcradle.core.box import shell_of
from levelcradle.core.design import Design
from levelcradle.core.design.box import Box, Counts, Orientation
from levelcradle.core.errors import UnknownThing
from levelcradle.core.fit.fixes import least_foul
from levelcradle.core.fit.options import PROBE, BayCavity, room_of
from levelcradle.core.fit.wanted import left_of
from levelcradle.core.fit.wishes import Making, Wishes
from levelcradle.core.meshes import Mesh

__all__ = ["FirstBox", "first_box"]


@dataclass(frozen=True, slots=True)
class FirstBox:
    """The box, how many modules it holds, and whether it stands clear of everything."""

    box: Box
    modules: int
    fits: bool
    message: str


def first_box(
    design: Design, bay_id: str, kind_id: str, turn: Orientation, *, most: int | None = None, meshes: Mapping[str, Mesh]
) -> FirstBox:
    """The box with most modules in a bay, lowest first.

    Args:
        most: no more modules than this; None for what stands on the shelf and is not placed yet, at least one.
    Raises: UnknownThing for a bay or kind that is not there.
    """
    if bay_id not in design.bays:
        raise UnknownThing("bay", bay_id)
    if kind_id not in design.module_kinds:
        raise UnknownThing("module kind", kind_id)
    most = max(left_of(design, kind_id), 1) if most is None else most
    material = "s235" if "s235" in design.tables.materials else next(iter(design.tables.materials))
    wishes = Wishes(
        kinds=(kind_id,), bays=(bay_id,), mixed_turns=False, more_than_the_shelf=True, making=Making(material=material)
    )
    room = room_of(design, bay_id, wishes, meshes=meshes, only=turn)
    best = next(room.options(most, every=False), None)
    if best is None:
        return FirstBox(
            _anyway(room, meshes), 1, False, f"Not one module fits in {design.bays[bay_id].name} in this turn."
        )
    (block,) = best.box.blocks.values()
    return FirstBox(best.box, best.modules, True, _says(block.counts, design.bays[bay_id].name))


def _anyway(room: BayCavity, meshes: Mapping[str, Mesh]) -> Box:
    """One module in the middle of the bay's floor, moved to where it lacks least."""
    box = room.one()
    size = shell_of(box, room.design.module_kinds, room.design.tables).outer_mm
    low, high = extent(room.design.bays[room.bay])
    middle = ((low[0] + high[0] - size[0]) / 2, (low[1] + high[1] - size[1]) / 2, low[2])
    placed = box.model_copy(update={"pose": box.pose.model_copy(update={"at_mm": tuple(round(v, 1) for v in middle)})})
    assembly = resolve(room.design.model_copy(update={"boxes": {**room.design.boxes, PROBE: placed}}), meshes)
    return placed.model_copy(update={"pose": placed.pose.model_copy(update={"at_mm": least_foul(assembly, PROBE)})})


def _says(counts: Counts, bay: str) -> str:
    tiers = "one tier" if counts.up == 1 else f"{counts.up} tiers"
    words = "1 module" if counts.total == 1 else f"{counts.total} modules"
    return f"{words} in {bay}: {counts.aft} along, {counts.across} across, {tiers}"
