"""Holes that a bolt goes through: round with the usual play, oversize, or a short slot either way."""

from dataclasses import dataclass

from levelcradle.core.design.mount import HoleKind
from levelcradle.core.design.tables import BoltSize

__all__ = ["BoltHole"]

SMALL_MM = 14.5  # up to M14
# by how much wider than the bolt, up to M14 and above: EN 1090-2 table 11, from memory; under M12 common practice
OVERSIZE_MM = (3.0, 4.0)
SLOT_MM = (4.0, 6.0)
# what is left of friction, a slot pushed along: EN 1993-1-8 table 3.6, from memory
SLIP = {"round": 1.0, "oversize": 0.85, "slot along": 0.76, "slot across": 0.76}
# what is left of bearing, a slot pushed aside: EN 1993-1-8 table 3.4, notes, from memory
BEARING = {"round": 1.0, "oversize": 0.8, "slot along": 0.6, "slot across": 0.6}


@dataclass(frozen=True, slots=True)
class BoltHole:
    """How long it is across the bracket, along its bend, and the other way, away from the box; what is left of friction
    and of bearing."""

    across_mm: float
    away_mm: float
    slip: float
    bearing: float

    @staticmethod
    def of(bolt: BoltSize, kind: HoleKind) -> "BoltHole":
        """
        >>> from levelcradle.core.design import standard_tables
        >>> m10 = standard_tables().bolts["M10"]
        >>> [(BoltHole.of(m10, kind).across_mm, BoltHole.of(m10, kind).away_mm) for kind in ("round", "slot along")]
        [(11.0, 11.0), (14.0, 11.0)]
        """
        large, d, hole = bolt.d_mm > SMALL_MM, bolt.d_mm, bolt.clearance_hole_mm
        long = max(d + SLOT_MM[large], hole)
        wide = max(d + OVERSIZE_MM[large], hole)
        sizes = {
            "round": (hole, hole),
            "oversize": (wide, wide),
            "slot along": (long, hole),
            "slot across": (hole, long),
        }
        return BoltHole(*sizes[kind], SLIP[kind], BEARING[kind])

    @property
    def narrow_mm(self) -> float:
        return min(self.across_mm, self.away_mm)

    @property
    def ends_mm(self) -> tuple[float, float]:
        """By how much its round ends lie nearer to an edge than its middle: across, and away from the box."""
        return (self.across_mm - self.narrow_mm) / 2, (self.away_mm - self.narrow_mm) / 2
