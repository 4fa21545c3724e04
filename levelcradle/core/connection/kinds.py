"""Which class makes which kind of mount."""

from collections.abc import Callable, Mapping

from levelcradle.core.connection.angle import AngleConnection
from levelcradle.core.connection.connection import Connection, Seat
from levelcradle.core.connection.spot import Spot
from levelcradle.core.design.mount import Mount
from levelcradle.core.design.tables import Tables

__all__ = ["MAKERS", "connect"]

Maker = Callable[[str, Mount, Spot, Seat, Tables], Connection]
MAKERS: Mapping[str, Maker] = {"angle": AngleConnection.of}


def connect(key: str, mount: Mount, spot: Spot, seat: Seat, tables: Tables) -> Connection:
    """A mount in place, as its shape makes it between what it lands on and the box."""
    return MAKERS[mount.shape.type](key, mount, spot, seat, tables)
