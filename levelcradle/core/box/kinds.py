"""Which class makes which construction."""

from collections.abc import Mapping
from typing import Any, Protocol

from levelcradle.core.axes import Vec
from levelcradle.core.box.existing import ExistingCase
from levelcradle.core.box.folded import FoldedBox
from levelcradle.core.box.framed import FramedBox
from levelcradle.core.box.made import Made
from levelcradle.core.box.racked import RackedBox
from levelcradle.core.design.box import Box
from levelcradle.core.design.construction import Closure, Construction
from levelcradle.core.design.tables import Material

__all__ = ["MAKERS", "made_of"]


class Maker(Protocol):
    """A class that makes boxes of one construction."""

    def round(self, box: Box, spec: Any, wanted_mm: Vec, material: Material, /) -> Made:
        """A box by its construction's figures, whose contents and liners want an inside of that size."""

    def begun(self, was: Made, shell_kg: float, /) -> tuple[Construction, Mapping[str, Closure]]:
        """How a box that was made otherwise begins as one of this."""


MAKERS: Mapping[str, Maker] = {"folded": FoldedBox, "framed": FramedBox, "racked": RackedBox, "existing": ExistingCase}


def made_of(box: Box, wanted_mm: Vec, material: Material) -> Made:
    """A box as its construction makes it, where its contents and liners want an inside of that size."""
    return MAKERS[box.construction.type].round(box, box.construction, wanted_mm, material)
