"""Which class makes which way of holding."""

from levelcradle.core.connection.hold.bolted import BoltedPlate
from levelcradle.core.connection.hold.plate import HeldPlate
from levelcradle.core.connection.hold.welded import WeldedPlate
from levelcradle.core.design.mount import Bolted, Welded
from levelcradle.core.design.tables import Material, Tables

__all__ = ["held_plate"]


def held_plate(
    hold: Welded | Bolted,
    tables: Tables,
    *,
    width_mm: float,
    long_mm: float,
    thickness_mm: float,
    metal: str,
    wall: Material,
    wall_key: str,
    wall_mm: float,
    wall_height_mm: float,
    c_mm: float,
    upright: bool = True,
) -> HeldPlate:
    """A bracket's plate on a wall. ``metal``, ``wall_key``: ids of materials; the rest as in ``HeldPlate``."""
    plate = (width_mm, long_mm, thickness_mm, tables.materials[metal], wall, wall_mm, wall_height_mm, c_mm, upright)
    if isinstance(hold, Welded):
        return WeldedPlate(*plate, hold, wall_key)
    spread = tables.materials[hold.behind.material] if hold.behind else None
    return BoltedPlate(
        *plate, hold, tables.bolts[hold.bolt.size], tables.bolt_classes[hold.bolt.property_class], spread
    )
