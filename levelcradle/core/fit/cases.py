"""The largest case that still goes into what is left of the luggage room."""

from collections.abc import Mapping
from itertools import permutations
from math import prod

from levelcradle.core.design import Design
from levelcradle.core.fit.options import BayCavity, room_of
from levelcradle.core.fit.space import ClearanceConstraint
from levelcradle.core.fit.wishes import Wishes
from levelcradle.core.meshes import Mesh

__all__ = ["CASES", "LuggageRoom"]

CASES: tuple[tuple[str, tuple[float, float, float]], ...] = (  # usual sizes of sale, common practice, no source
    ("large case, 780 × 520 × 310", (780, 520, 310)),
    ("medium case, 670 × 460 × 270", (670, 460, 270)),
    ("cabin case, 550 × 400 × 230", (550, 400, 230)),
    ("bag, 400 × 300 × 200", (400, 300, 200)),
)


class LuggageRoom:
    """The bays for luggage of a car: what is in them before a study is marked once."""

    def __init__(self, bare: Design, wishes: Wishes, meshes: Mapping[str, Mesh]) -> None:
        self._wishes, self._meshes = wishes.model_copy(update={"leave_empty": None}), meshes
        self._rooms = {key: self._room(bare, key) for key, bay in bare.bays.items() if bay.flags.get("luggage")}

    def _room(self, design: Design, bay: str) -> BayCavity:
        return room_of(design, bay, self._wishes, meshes=self._meshes)

    def largest_case(self, design: Design) -> str | None:
        """The largest usual case, lying or standing square, that fits beside the boxes of a design, which may be more
        than there were; None where no bay is for luggage."""
        if not self._rooms:
            return None
        spaces = [room.space.beside(self._more(design, key)) for key, room in self._rooms.items()]
        for name, size in sorted(CASES, key=lambda row: -prod(row[1])):
            if any(space.places((x, y, z), spare=1).any() for space in spaces for x, y, z in set(permutations(size))):
                return name
        return "no case"

    def _more(self, design: Design, bay: str) -> list[ClearanceConstraint]:
        held = {(thing.solid, thing.need_mm) for thing in self._rooms[bay].things}
        return [thing for thing in self._room(design, bay).things if (thing.solid, thing.need_mm) not in held]
