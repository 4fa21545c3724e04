"""Sheet and bars that something presses on. Everything plastic: what folds as far as it must, once, in a crash."""

import math
from dataclasses import dataclass
from typing import Protocol

from levelcradle.core.bar import Tube
from levelcradle.core.design.tables import Material
from levelcradle.core.strength.bolts import GAMMA_M0

__all__ = ["Beams", "Bearing", "Plate", "patch_n", "tube_plastic_mm3"]


class Bearing(Protocol):
    """What carries on a face of a box."""

    @property
    def thickness_mm(self) -> float:
        """Of the sheet, or of the bars' wall, that bolts hold in."""

    @property
    def material(self) -> Material: ...

    def carries_n(self, patch_mm: tuple[float, float]) -> float:
        """What may press on a patch in its middle [N]; the patch by the first and second way of the face."""

    @property
    def rule(self) -> str:
        """How that is worked out, and its source."""

    @property
    def rough(self) -> bool:
        """Whether that is no more than rough."""


@dataclass(frozen=True, slots=True)
class Plate:
    """A flat sheet between its edges: its size along the first and second way of its face, and of each of its four
    edges (first way's two, second way's two) whether it passes on into sheet as strong, which holds it from turning.
    ``opened``: the share of its width that is cut out of it at the worst section; so much less it carries (net section,
    common practice, no source)."""

    size_mm: tuple[float, float]
    thickness_mm: float
    material: Material
    held: tuple[tuple[bool, bool], tuple[bool, bool]]
    opened: float = 0.0

    @property
    def moment_n(self) -> float:
        """Plastic moment of a strip a millimetre wide [N·mm/mm]: fy t²/4 / γM0, of what is left beside an opening."""
        return (1 - self.opened) * self.material.yield_mpa * self.thickness_mm**2 / 4 / GAMMA_M0

    def carries_n(self, patch_mm: tuple[float, float]) -> float:
        return patch_n(self.size_mm, self.moment_n, patch_mm, self.held)

    @property
    def rule(self) -> str:
        return "yield lines of a plate, plastic, its load drawn in to the patch; rough"

    @property
    def rough(self) -> bool:
        return True


def patch_n(
    size_mm: tuple[float, float],
    moment_n: float,
    patch_mm: tuple[float, float],
    held: tuple[tuple[bool, bool], tuple[bool, bool]],
) -> float:
    """What a plate carries on a patch in its middle [N]: Johansen's formula for an even load over all of it, on sides
    shortened by how their ends are held; for the patch taken down both ways as a beam's is, span / (2 span − patch).

    Valid for: plates held from moving on all four edges. Yield lines are an upper bound, up to an eighth too high where
    all edges are held; membrane, which helps, is not counted. Rough.

    Args:
        size_mm: of the plate along its two ways; patch_mm: of the patch.
        moment_n: plastic moment of a strip a millimetre wide [N·mm/mm].
        held: of each way, whether its two ends are held from turning.
    Source: yield-line theory (Johansen), from memory.

    >>> round(patch_n((100.0, 100.0), 10.0, (100.0, 100.0), ((False, False), (False, False))))
    240
    """
    a, b = (2 * mm / sum(math.sqrt(2 if end else 1) for end in ends) for mm, ends in zip(size_mm, held, strict=True))
    even_mpa = 8 * moment_n * (1 + a / b + b / a) / (a * b)
    shares = (span / (2 * span - min(under, span)) for span, under in zip(size_mm, patch_mm, strict=True))
    return even_mpa * size_mm[0] * size_mm[1] * math.prod(shares)


@dataclass(frozen=True, slots=True)
class Beams:
    """Bars side by side, all of one length, that share what lies on them evenly; ``way``: along which way of the face
    they run. Free to turn at their ends."""

    count: int
    span_mm: float
    way: int
    plastic_mm3: float
    thickness_mm: float
    material: Material

    def carries_n(self, patch_mm: tuple[float, float]) -> float:
        under = min(patch_mm[self.way], self.span_mm)
        moment = self.plastic_mm3 * self.material.yield_mpa / GAMMA_M0
        return self.count * 8 * moment / (2 * self.span_mm - under)

    @property
    def rule(self) -> str:
        return f"{self.count} bars side by side, free at their ends, plastic (statics)"

    @property
    def rough(self) -> bool:
        return False


def tube_plastic_mm3(tube: Tube) -> float:
    """Plastic modulus of a cold-formed square hollow section, its corners rounded as for its area [mm³].

    Valid for: walls up to 6 mm, thinner than half the tube.
    Source: EN 10219-2, annex B (formulas from memory).

    >>> round(tube_plastic_mm3(Tube(40, 3)) / 1000, 2)
    5.72
    """
    b, t = tube.size_mm, tube.wall_mm
    outside, inside = 2 * t, t
    corner, arm = 1 - math.pi / 4, (10 - 3 * math.pi) / (12 - 3 * math.pi)
    cut = corner * outside**2 * (b / 2 - arm * outside)
    filled = corner * inside**2 * ((b - 2 * t) / 2 - arm * inside)
    return b**3 / 4 - (b - 2 * t) ** 3 / 4 - 4 * cut + 4 * filled
