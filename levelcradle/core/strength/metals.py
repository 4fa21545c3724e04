"""What welding leaves of a metal's strength, and what welds of it bear.

Steel keeps its own. Aluminium that was rolled or aged hard is soft again beside a weld: EN 1999-1-1 6.1.6 (its zone is
20 to 30 mm wide on either side; here all of a welded piece of it is taken as soft, which is cautious)."""

import math
from collections.abc import Sequence

from levelcradle.core.design.tables import Material
from levelcradle.core.strength.bolts import GAMMA_M2

__all__ = ["can_be_welded", "ultimate_beside_weld", "weld_mpa", "weld_unknown", "yield_beside_weld"]


def yield_beside_weld(metal: Material, thickness_mm: float) -> float:
    """[MPa]; over 16 mm where the table does not say, that of thinner sheet.

    >>> from levelcradle.core.design import standard_tables
    >>> metals = standard_tables().materials
    >>> yield_beside_weld(metals["s355"], 8.0), yield_beside_weld(metals["al5754"], 8.0)
    (355.0, 80.0)
    """
    own = metal.yield_mpa_at(thickness_mm) or metal.yield_mpa
    return own if metal.weldable_with == "steel" else min(own, metal.welded_yield_mpa or own)


def ultimate_beside_weld(metal: Material) -> float:
    """[MPa]"""
    own = metal.ultimate_mpa
    return own if metal.weldable_with == "steel" else min(own, metal.welded_ultimate_mpa or own)


def can_be_welded(one: Material, other: Material) -> bool:
    """Whether two metals can be welded to each other: steel to steel, aluminium to aluminium."""
    return one.weldable_with == other.weldable_with


def weld_unknown(metal: Material) -> str:
    """What a table does not say of a metal that its welds ask; empty where it says all."""
    if metal.weldable_with == "steel":
        return "" if metal.beta_w else f"{metal.name}: its weld factor βw is not in the table"
    known = metal.welded_yield_mpa and metal.welded_ultimate_mpa and metal.weld_metal_mpa
    return "" if known else f"{metal.name}: how soft it is beside a weld is not in the table"


def weld_mpa(metals: Sequence[Material]) -> float:
    """What the throat of a fillet between metals of one family bears, however it is loaded [MPa]: the weakest.

    Steel: fu / (√3 βw γM2), EN 1993-1-8 4.5.3.3 and table 4.1. Aluminium: fw / (√3 γMw) of the weld metal, and where it
    is melted into the soft sheet fu,haz / (√3 γMw) on its leg, √2 times the throat; γMw 1.25, EN 1999-1-1 8.6.3."""
    return min(map(_bears, metals)) / (math.sqrt(3) * GAMMA_M2)


def _bears(metal: Material) -> float:
    if metal.weldable_with == "steel":
        return metal.ultimate_mpa / (metal.beta_w or 1.0)
    return min(metal.weld_metal_mpa or math.inf, math.sqrt(2) * ultimate_beside_weld(metal))
