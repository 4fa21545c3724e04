"""Which hard points a box could hang on, from which of its walls."""

from collections.abc import Iterator
from dataclasses import dataclass, replace

from levelcradle.core.assembly import Assembly, PlacedBox, seat_of
from levelcradle.core.connection import OFFERS, Place, Reach, Spot, spot_of
from levelcradle.core.design.base import Face, Side
from levelcradle.core.design.mount import OnHardPoint

__all__ = ["SIDES", "NEAR_MM", "Within", "place_on", "within_reach"]

SIDES: tuple[Side, ...] = ("left", "right", "front", "aft")
FACES: tuple[Face, ...] = (*SIDES, "base")
NEAR_MM = 400.0  # further off nothing is told of a hard point: common practice, no source


@dataclass(frozen=True, eq=False, slots=True)
class Within:
    """A hard point near a box: from which wall, by which kind of mount, how far off it, and by how much it misses (0: a
    mount can be made there)."""

    kind: str
    path: str
    name: str
    face: Face
    off_mm: float
    misses_mm: float
    why: str
    place: Place


def within_reach(assembly: Assembly, box: PlacedBox) -> list[Within]:
    """Each hard point near a box by the wall it is best hung from; those that can be used first, near first."""
    rows = (
        _best(assembly, box, spot_of(OnHardPoint(hardpoint=key), assembly.design)) for key in assembly.design.hardpoints
    )
    near = [_unless_taken(assembly, box, row) for row in rows if row and max(row.misses_mm, row.off_mm) <= NEAR_MM]
    return sorted(near, key=lambda row: (row.misses_mm, row.off_mm, row.name))


def _unless_taken(assembly: Assembly, box: PlacedBox, row: Within) -> Within:
    """A bolt carries one bracket, and where people are held none without leave."""
    if row.place.spot.unapproved and not row.why:
        return replace(row, why="holds a seat or a belt: it needs its own approval")
    if row.place.spot.untested and not row.why:
        return replace(row, why=f"is a {row.place.spot.kind}: it counts for nothing in a crash without a pull test")
    elsewhere = ((b.box.name, m.mount) for b in assembly.boxes.values() if b is not box for m in b.mounts)
    others = (name for name, mount in elsewhere if row.path in mount.lands_on.paths)
    owner = next(others, None)
    return replace(row, why=f"carries the {owner} already") if owner and not row.why else row


def place_on(box: PlacedBox, spot: Spot, face: Face) -> Place:
    return Place(spot, face, seat_of(box.box, box.shell, box.placement, face, spot.at))


def _best(assembly: Assembly, box: PlacedBox, spot: Spot) -> Within | None:
    rows = list(_from_each(assembly, box, spot))
    return min(rows, key=lambda row: (row.misses_mm, bool(row.why), not _on_tube(row), row.off_mm), default=None)


def _on_tube(row: Within) -> bool:
    """A frame's tube holds more than what clads it."""
    return row.face == "base"


def _from_each(assembly: Assembly, box: PlacedBox, spot: Spot) -> Iterator[Within]:
    for face in FACES:
        place = place_on(box, spot, face)
        for kind, offer in OFFERS.items():
            reach: Reach | None = offer.reach(spot, place.seat, assembly.tables)
            if reach and reach.off_mm > 0:
                yield Within(kind, spot.path, spot.name, face, reach.off_mm, reach.misses_mm, reach.why, place)
