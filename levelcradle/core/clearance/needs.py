"""What gap a pair needs: from its kinds, from what each is fixed to, or as agreed by hand."""

from dataclasses import dataclass
from functools import lru_cache

from levelcradle.core.assembly import Obstacle, PlacedBox
from levelcradle.core.design import Design

__all__ = ["Need", "need_of_boxes", "need_of_thing"]


@dataclass(frozen=True, slots=True)
class Need:
    """The gap a pair needs and why."""

    mm: float
    because: str


def need_of_thing(design: Design, box: PlacedBox, thing: Obstacle) -> Need:
    """A box and a thing. Two structures move against each other: then "same" is not enough."""
    if agreed := _agreed(design, box.path, thing.path):
        return agreed
    if thing.crush:
        return Need(0.0, "nothing with modules belongs in a crush zone")
    name = thing.gap_class
    if name == "hot":
        return _hot(design, thing)
    theirs, ours = thing.structure, structure_of(design, box)
    return _larger(design, name, ours, theirs)


def need_of_boxes(design: Design, one: PlacedBox, other: PlacedBox) -> Need:
    if agreed := _agreed(design, one.path, other.path):
        return agreed
    return _larger(design, "same", structure_of(design, one), structure_of(design, other))


def structure_of(design: Design, box: PlacedBox) -> str:
    """What a box is fixed to: its hard points', else its bay's."""
    for mount in box.mounts:
        return design.hardpoints[mount.mount.hardpoint].structure
    bay = design.bays.get(box.box.bay or "")
    return bay.structure if bay else "body"


def _larger(design: Design, name: str, ours: str, theirs: str) -> Need:
    rows = design.tables.gaps
    row = rows[name]  # type: ignore[index]
    if ours != theirs:
        between = rows["axle" if "axle" in (ours, theirs) else "other"]
        if between.need_mm > row.need_mm:
            return Need(between.need_mm, f"one on the {ours}, one on the {theirs}: {between.reason} ({between.source})")
    return Need(row.need_mm, _words(row.reason, row.source))


def _hot(design: Design, thing: Obstacle) -> Need:
    hot, warm = design.tables.gaps["hot"], design.tables.gaps["warm"]
    if thing.shielded:
        return Need(warm.need_mm, f"hot part behind a heat shield; {hot.need_mm:g} without one ({warm.source})")
    return Need(hot.need_mm, f"{hot.reason}; {warm.need_mm:g} behind a heat shield ({hot.source})")


@lru_cache(maxsize=256)
def _words(reason: str, source: str) -> str:
    return f"{reason} ({source})"


def _agreed(design: Design, one: str, other: str) -> Need | None:
    for row in design.agreed_gaps.values():
        if {row.one, row.other} == {one, other}:
            return Need(row.need_mm, f"agreed by hand: {row.reason}")
    return None
