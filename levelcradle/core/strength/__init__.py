"""What metal carries: bolts, sheet that is pressed on, bars side by side, welds that are shaken. Checks of mounts and
of what holds modules share these."""

from levelcradle.core.strength.bolts import (
    BEYOND_PITCHES,
    EDGE_HOLES,
    GAMMA_M0,
    GAMMA_M2,
    NUT_OF_D,
    bearing_n,
    bolt_capacity,
    bolt_long_mm,
    pull_and_shear,
    pull_through_n,
    toe_pull,
)
from levelcradle.core.strength.fatigue import ROOT_MPA, SHAKEN_G, TOE_MPA
from levelcradle.core.strength.sheets import Beams, Bearing, Plate, patch_n, tube_plastic_mm3

__all__ = [
    "BEYOND_PITCHES",
    "NUT_OF_D",
    "EDGE_HOLES",
    "GAMMA_M0",
    "GAMMA_M2",
    "Beams",
    "Bearing",
    "Plate",
    "ROOT_MPA",
    "SHAKEN_G",
    "TOE_MPA",
    "bearing_n",
    "bolt_capacity",
    "bolt_long_mm",
    "patch_n",
    "pull_and_shear",
    "pull_through_n",
    "toe_pull",
    "tube_plastic_mm3",
]
