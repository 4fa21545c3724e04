"""The largest case that still goes into what is left of the luggage room."""

from collections.abc import Mapping
from itertools import permutations
from math import prod

from levelcradle.core.design import Design
from levelcradle.core.fit.options import room_of
from levelcradle.core.fit.wishes import Wishes
from levelcradle.core.meshes import Mesh

__all__ = ["CASES", "largest_case"]

CASES: tuple[tuple[str, tuple[float, float, float]], ...] = (  # usual sizes of sale, common practice, no source
    ("large case, 780 × 520 × 310", (780, 520, 310)), ("medium case, 670 × 460 × 270", (670, 460, 270)),
    ("cabin case, 550 × 400 × 230", (550, 400, 230)), ("bag, 400 × 300 × 200", (400, 300, 200)),
)  # fmt: skip


def largest_case(design: Design, wishes: Wishes, meshes: Mapping[str, Mesh]) -> str | None:
    """The largest usual case, lying or standing square, that fits beside the boxes; None where no bay is for luggage."""
    bays = [key for key, bay in design.bays.items() if bay.flags.get("luggage")]
    if not bays:
        return None
    spaces = [room_of(design, key, wishes, meshes=meshes).space for key in bays]
    for name, size in sorted(CASES, key=lambda row: -prod(row[1])):
        if any(space.places((x, y, z), spare=1).any() for space in spaces for x, y, z in set(permutations(size))):
            return name
    return "no case"
