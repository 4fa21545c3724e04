"""What gap a pair needs: from its kinds, from what each is fixed to, or as agreed by hand."""

from dataclasses import dataclass
from functools import lru_cache
from math import radians

from levelcradle.core.assembly import Assembly, Obstacle, PlacedBox
from levelcradle.core.axes import Vec, dot, minus, plus, scaled
from levelcradle.core.solids import Nearest, Solid

__all__ = ["LIES_MM", "Need", "lies_on", "need_of_boxes", "need_of_thing", "twist_mm_of"]


@dataclass(frozen=True, slots=True)
class Need:
    """The gap a pair needs and why."""

    mm: float
    rationale: str


def need_of_thing(assembly: Assembly, box: PlacedBox, thing: Obstacle) -> Need:
    """A box and a thing. Two structures move against each other: then "same" is not enough."""
    if agreed := _agreed(assembly, box, thing):
        return agreed
    if thing.crush:
        return Need(0.0, "nothing with modules belongs in a crush zone")
    if thing.gap_class == "hot":
        return _moving(_hot(assembly, thing), box.travel_mm)
    return _moving(_larger(assembly, thing.gap_class, box.structure, thing.structure), box.travel_mm)


def need_of_boxes(assembly: Assembly, one: PlacedBox, other: PlacedBox) -> Need:
    if agreed := _agreed(assembly, one, other):
        return agreed
    return _moving(_larger(assembly, "same", one.structure, other.structure), one.travel_mm + other.travel_mm)


def _moving(need: Need, travel_mm: float) -> Need:
    """What moves on isolators asks for as much more."""
    if not travel_mm:
        return need
    return Need(need.mm + travel_mm, f"{need.rationale}; {travel_mm:g} more that isolators let it move")


LIES_MM = 1.0  # a box that lies on a thing may stand in it by so much: common practice, no source


def lies_on(box: PlacedBox, solid: Solid) -> bool:
    """Whether a box rests on a thing by intent: there is no gap to keep."""
    return any(m.bears_face and not m.unfit and m.sits_on(solid) for m in box.mounts)


TWIST_DEG_PER_M = 1.0  # of a separate frame on a bad road: common practice, no source
FRAMES = ("frame", "subframe")


def twist_mm_of(one: PlacedBox, other: PlacedBox, near: Nearest) -> float:
    """What a twisting frame takes off the gap between two boxes that hang on it [mm].

    φ |n · (x̂ × r)|: φ = 1° for each metre along between the centroids of their mounts, n the direction of the gap, r
    from the frame's middle line to the nearest points. A gap that faces fore and aft loses nothing."""
    if one.structure not in FRAMES or one.structure != other.structure:
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


def _larger(assembly: Assembly, name: str, ours: str, theirs: str) -> Need:
    rows = assembly.tables.gaps
    row = rows[name]  # type: ignore[index]
    if ours != theirs:
        between = rows["axle" if "axle" in (ours, theirs) else "other"]
        if between.need_mm > row.need_mm:
            return Need(between.need_mm, f"one on the {ours}, one on the {theirs}: {between.reason} ({between.source})")
    return Need(row.need_mm, _words(row.reason, row.source))


def _hot(assembly: Assembly, thing: Obstacle) -> Need:
    hot, warm = assembly.tables.gaps["hot"], assembly.tables.gaps["warm"]
    if thing.shielded:
        return Need(warm.need_mm, f"hot part behind a heat shield; {hot.need_mm:g} without one ({warm.source})")
    return Need(hot.need_mm, f"{hot.reason}; {warm.need_mm:g} behind a heat shield ({hot.source})")


@lru_cache(maxsize=256)
def _words(reason: str, source: str) -> str:
    return f"{reason} ({source})"


def _agreed(assembly: Assembly, one: PlacedBox, other: Obstacle | PlacedBox) -> Need | None:
    row = assembly.agreed(one.path, other.path)
    return Need(row.need_mm, f"agreed by hand: {row.reason}") if row else None
