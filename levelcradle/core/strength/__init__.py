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
    bolt_group,
    bolt_long_mm,
    bolt_utilisation,
    class_asks,
    class_like,
    long_words,
    preload,
    pull_and_shear,
    pull_through_n,
    tightening,
    toe_pull,
)
from levelcradle.core.strength.fatigue import ROOT_MPA, ROOT_SOURCE, SHAKEN_G, TOE_MPA, TOE_SOURCE
from levelcradle.core.strength.holes import BoltHole
from levelcradle.core.strength.legs import ROAD_FACTOR, buckles, leg_capacity
from levelcradle.core.strength.metals import (
    can_be_welded,
    ultimate_beside_weld,
    weld_mpa,
    weld_unknown,
    yield_beside_weld,
)
from levelcradle.core.strength.sheets import Beams, Bearing, Plate, patch_n, tube_plastic_mm3

__all__ = [
    "BEYOND_PITCHES",
    "NUT_OF_D",
    "EDGE_HOLES",
    "GAMMA_M0",
    "GAMMA_M2",
    "Beams",
    "BoltHole",
    "Bearing",
    "Plate",
    "ROAD_FACTOR",
    "ROOT_MPA",
    "ROOT_SOURCE",
    "SHAKEN_G",
    "TOE_MPA",
    "TOE_SOURCE",
    "bearing_n",
    "bolt_capacity",
    "bolt_group",
    "bolt_long_mm",
    "bolt_utilisation",
    "buckles",
    "can_be_welded",
    "class_asks",
    "class_like",
    "leg_capacity",
    "long_words",
    "patch_n",
    "preload",
    "pull_and_shear",
    "pull_through_n",
    "tightening",
    "toe_pull",
    "tube_plastic_mm3",
    "ultimate_beside_weld",
    "weld_mpa",
    "weld_unknown",
    "yield_beside_weld",
]
