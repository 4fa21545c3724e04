"""How a bracket's plate holds a box: by welds, or by bolts through the wall. Kinds of mounts share these."""

from levelcradle.core.connection.hold.bolted import BoltedPlate
from levelcradle.core.connection.hold.kinds import held_plate
from levelcradle.core.connection.hold.plate import HeldPlate, Lies, Load, wall_asks
from levelcradle.core.connection.hold.welded import WeldedPlate, weld_words

__all__ = ["BoltedPlate", "HeldPlate", "Lies", "Load", "WeldedPlate", "held_plate", "wall_asks", "weld_words"]
