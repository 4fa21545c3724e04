"""What is bought to seal a box: so much gasket, or so many cartridges, round what closes it and under cladding; what
keeps its air dry."""

import math
from collections.abc import Iterator

from levelcradle.core.box.made import Made
from levelcradle.core.design.base import FACE_AT
from levelcradle.core.design.box import Box

__all__ = ["sealing_bought"]

DRY_G_L, BAG_G = 1.0, 10  # silica gel to a litre of air, and how bags go up: common practice, no source
BEAD_MM, CARTRIDGE_ML = 6.0, 310.0  # a bead as it is laid, a cartridge as it is sold: common practice, no source


def sealing_bought(box: Box, made: Made, air_l: float) -> Iterator[tuple[str, int]]:
    """(what, how many); nothing where nobody said that it is sealed. ``air_l``: left in it beside its modules."""
    if box.sealed:
        grams = max(1, math.ceil(DRY_G_L * air_l / BAG_G)) * BAG_G
        yield f"drying bag, {grams} g for {air_l:.0f} l of air", 1
    axis = FACE_AT[made.closed_face][0]
    round_mm = 2 * sum(mm for i, mm in enumerate(made.inner_mm) if i != axis)
    if box.sealing == "gasket":
        yield f"gasket strip, {round_mm / 1000:.2f} m, closing the box", 1
    bead_mm = (round_mm if box.sealing == "sealant" else 0.0) + (made.lapped_mm if box.sealed else 0.0)
    if bead_mm:
        bead_ml = math.pi / 4 * BEAD_MM**2 * bead_mm / 1000
        yield f"cartridge of sealant, {bead_mm / 1000:.2f} m of bead", math.ceil(bead_ml / CARTRIDGE_ML)
