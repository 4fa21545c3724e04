"""Which class makes which kind of mount."""

from collections.abc import Mapping
from typing import Any, Protocol

from levelcradle.core.connection.angle import AngleConnection
from levelcradle.core.connection.angle.offer import AngleOffer
from levelcradle.core.connection.connection import Connection, Seat
from levelcradle.core.connection.offers import Place, Reach
from levelcradle.core.connection.recipes import Recipe
from levelcradle.core.connection.rest import RestConnection
from levelcradle.core.connection.spot import Spot
from levelcradle.core.connection.strap import StrapConnection
from levelcradle.core.connection.tab import TabConnection
from levelcradle.core.connection.tab.offer import TabOffer
from levelcradle.core.design import HardPoint
from levelcradle.core.design.crossmember import Crossmember
from levelcradle.core.design.mount import Mount
from levelcradle.core.design.survey import Member
from levelcradle.core.design.tables import Tables

__all__ = ["MAKERS", "OFFERS", "connect"]


class Maker(Protocol):
    """A class that makes mounts of one kind."""

    def of(self, key: str, mount: Mount, spot: Spot, seat: Seat, tables: Tables, /) -> Connection:
        """A mount in place."""

    def begun(self, on: str, landing: HardPoint | Member | Crossmember, like: Mount | None, /) -> dict[str, Any]:
        """Shape, hold and landing of a new one on a hard point, a member or a crossmember, like another of its kind
        where there is one."""

    def fitted(self, made: dict[str, Any], spot: Spot, seat: Seat, /) -> dict[str, Any]:
        """What was begun, drawn to where it is put."""


class Offering(Protocol):
    """How mounts of one kind are proposed."""

    long: str
    """Which figure of its shape is how long it is on the box."""

    words: str
    """Several of them."""

    def reach(self, spot: Spot, seat: Seat, tables: Tables, /) -> Reach | None:
        """What a spot is to a wall; None where this kind cannot stand between them."""

    def made(self, recipe: Recipe, place: Place, tables: Tables, /) -> dict[str, Any] | None:
        """Shape, hold and landing for a place; None where it cannot stand there."""


MAKERS: Mapping[str, Maker] = {
    "angle": AngleConnection,
    "tab": TabConnection,
    "rest": RestConnection,
    "strap": StrapConnection,
}
OFFERS: Mapping[str, Offering] = {"angle": AngleOffer, "tab": TabOffer}


def connect(key: str, mount: Mount, spot: Spot, seat: Seat, tables: Tables) -> Connection:
    """A mount in place, as its shape makes it between what it lands on and the box."""
    return MAKERS[mount.shape.type].of(key, mount, spot, seat, tables)
