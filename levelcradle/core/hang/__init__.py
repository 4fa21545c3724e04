"""How can it hang: what of the vehicle is within reach of a box, and sets of mounts there that hold."""

from levelcradle.core.hang.hang import Answer, Hanging, how_it_hangs
from levelcradle.core.hang.mend import Mend, what_mends
from levelcradle.core.hang.proposals import with_hanging
from levelcradle.core.hang.within_reach import Within

__all__ = ["Answer", "Hanging", "Mend", "Within", "how_it_hangs", "what_mends", "with_hanging"]
