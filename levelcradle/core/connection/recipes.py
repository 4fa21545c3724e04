"""What can be made of usual sheet and bolts when it is asked how a box can hang: in one order for all kinds and places,
the lightest first."""

from dataclasses import dataclass, replace
from itertools import product

__all__ = ["IN_ALUMINIUM", "LENGTHS", "RADII", "RECIPES", "ROUND_MM", "ROUND_UP_MM", "SHAPE_OF", "WIDTHS", "Recipe"]

RADII = {
    4: 4.0,
    5: 5.0,
    6: 8.0,
    8: 10.0,
    10: 12.0,
    12: 16.0,
}  # inside radius by thickness, as shops fold S355: common practice, no source
WIDTHS = (60.0, 90.0, 105.0, 120.0)
LENGTHS = (60.0, 90.0, 120.0, 180.0)  # of the welds: on a high wall a long one keeps it from bulging
PLATES = (None, 3.0, 4.0, 6.0)
IN_ALUMINIUM = {3.0: 4.0, 4.0: 6.0, 6.0: 8.0}  # doublers of aluminium instead: common practice, no source
CLASSES = ("8.8", "10.9")
ROUND_MM, ROUND_UP_MM = 30.0, 50.0  # a plate beyond the bracket on either side, and beyond its welds up and down


@dataclass(frozen=True, slots=True)
class Recipe:
    """What all mounts of a box have in common. ``held_mm``: so long are the welds, or so far from end to end are the
    bolts with their metal; ``plate_mm``: the doubler, or the plate behind the wall."""

    thickness_mm: float
    width_mm: float
    held_mm: float
    plate_mm: float | None
    property_class: str
    bolted: bool

    @property
    def mass_kg(self) -> float:
        """About in proportion to its mass; a stronger bolt costs a little, so that it is not taken for nothing."""
        plate = (self.width_mm + 2 * ROUND_MM) * (self.held_mm + 2 * ROUND_UP_MM) * (self.plate_mm or 0.0)
        sheet = self.thickness_mm * self.width_mm * (self.held_mm + 130)
        return (sheet + plate) * (1.02 if self.property_class != CLASSES[0] else 1.0)


_OPTIONS = (RADII, WIDTHS, LENGTHS, PLATES, CLASSES, (False, True))
RECIPES = sorted((Recipe(*row) for row in product(*_OPTIONS)), key=lambda recipe: recipe.mass_kg)
_SHAPES = list(dict.fromkeys(replace(recipe, property_class="") for recipe in RECIPES))
SHAPE_OF = [_SHAPES.index(replace(recipe, property_class="")) for recipe in RECIPES]
"""Which of them are alike but for the bolt: they have one number here."""
