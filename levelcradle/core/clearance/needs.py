"""What gap a pair needs: from its kinds, from what each is fixed to, or as agreed by hand."""

from dataclasses import dataclass
from functools import lru_cache
from math import radians

from levelcradle.core.assembly import Obstacle, PlacedBox
from levelcradle.core.axes import Vec, dot, minus, plus, scaled
from levelcradle.core.design import Design
from levelcradle.core.solids import Nearest, Solid

__all__ = ["LIES_MM", "Need", "lies_on", "need_of_boxes", "need_of_thing", "twist_of"]


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


LIES_MM = 1.0  # a box that lies on a thing may stand in it by so much: common practice, no source


def lies_on(box: PlacedBox, solid: Solid) -> bool:
    """Whether a box rests on a thing by intent: there is no gap to keep."""
    return any(m.bears_face and not m.unfit and m.sits_on(solid) for m in box.mounts)


TWIST_DEG_PER_M = 1.0  # of a separate frame on a bad road: common practice, no source
FRAMES = ("frame", "subframe")


def twist_of(design: Design, one: PlacedBox, other: PlacedBox, near: Nearest) -> float:
    """What a twisting frame takes off the gap between two boxes that hang on it [mm].

    φ |n · (x̂ × r)|: φ = 1° for each metre along between the centroids of their mounts, n the direction of the gap, r from the
    frame's middle line to the nearest points. A gap that faces fore and aft loses nothing.
    """
    if structure_of(design, one) not in FRAMES or structure_of(design, one) != structure_of(design, other):
        return 0.0
    held = [_held_at(box) for box in (one, other)]
    turn = radians(TWIST_DEG_PER_M) * abs(held[0][0] - held[1][0]) / 1000
    way = minus(near.there, near.here) if near.gap_mm > 0 else minus(near.here, near.there)
    size = dot(way, way) ** 0.5
    if size < 1e-9:
        return 0.0
    middle = scaled(plus(near.here, near.there), 0.5)
    across, up = middle[1], middle[2] - (held[0][2] + held[1][2]) / 2
    return float(turn * abs(-way[1] * up + way[2] * across) / size)


def _held_at(box: PlacedBox) -> Vec:
    """The centroid of a box's mounts; its centre of gravity while it has none."""
    points = [m.spot.at for m in box.mounts] or [box.cg]
    x, y, z = (sum(p[i] for p in points) / len(points) for i in range(3))
    return x, y, z


def structure_of(design: Design, box: PlacedBox) -> str:
    """What a box is fixed to: its hard points', else its bay's."""
    for mount in box.mounts:
        return mount.spot.structure
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
