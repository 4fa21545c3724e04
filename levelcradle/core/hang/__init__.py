"""How can it hang: what of the vehicle is within reach of a box, and sets of mounts there that hold; one mount sized,
and its welds compared."""

from levelcradle.core.hang.hang import Answer, Hanging, how_it_hangs
from levelcradle.core.hang.proposals import with_hanging
from levelcradle.core.hang.size_one import Size, Sized, size_one
from levelcradle.core.hang.welds import WeldChoice, welds_compared
from levelcradle.core.hang.within_reach import Within

__all__ = [
    "Answer",
    "Hanging",
    "Size",
    "Sized",
    "WeldChoice",
    "Within",
    "how_it_hangs",
    "size_one",
    "welds_compared",
    "with_hanging",
]
