"""The document: what was decided, and nothing computed from it."""

from levelcradle.core.design.bay import Bay
from levelcradle.core.design.box import ANCHORS, Block, Box, Pose
from levelcradle.core.design.design import Design, new_design
from levelcradle.core.design.files import dump, load, schema, tree_of, validate
from levelcradle.core.design.mount import Mount
from levelcradle.core.design.solid import SolidSpec
from levelcradle.core.design.stock import Module, ModuleKind
from levelcradle.core.design.survey import HardPoint, Item, Keepout, Reading, Reference
from levelcradle.core.design.tables import Tables, standard_tables
from levelcradle.core.design.vehicle import Vehicle

__all__ = [
    "ANCHORS",
    "Bay",
    "Block",
    "Box",
    "Design",
    "HardPoint",
    "Item",
    "Keepout",
    "Module",
    "ModuleKind",
    "Mount",
    "Pose",
    "Reading",
    "Reference",
    "SolidSpec",
    "Tables",
    "Vehicle",
    "dump",
    "load",
    "new_design",
    "schema",
    "standard_tables",
    "tree_of",
    "validate",
]
