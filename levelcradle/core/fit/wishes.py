"""What a fit study is asked."""

from typing import Annotated, Literal

from pydantic import Field, model_validator

from levelcradle.core.design.base import Count, DocumentModel, Id, NonNegativeLength, PositiveLength
from levelcradle.core.design.construction import Folded, WeldClass
from levelcradle.core.design.layers import Liners

__all__ = ["Making", "Weights", "Wishes"]

Towards = Literal["up", "front", "aft", "left", "right"]
Weight = Annotated[float, Field(ge=0, le=100)]


class Weights(DocumentModel):
    """How much each thing matters beside the others when proposals are ranked; 0 leaves it out."""

    count: Weight = 30.0
    balance: Weight = 3.0
    low: Weight = 2.0
    boxes: Weight = 2.0
    cable: Weight = 1.0
    luggage: Weight = 1.0
    cutting: Weight = 1.0

    @model_validator(mode="after")
    def _something_matters(self) -> "Weights":
        if not any(getattr(self, name) for name in type(self).model_fields):
            raise ValueError("must not all be zero: say at least one thing that matters")
        return self


class Making(DocumentModel):
    """How the boxes of a study are made, so that the true overhead is used."""

    material: Id = "s235"
    construction: Folded = Folded()
    weld_class: WeldClass | None = "B"
    liners: Liners = Liners()


class Wishes(DocumentModel):
    """One question to the bays.

    ``modules``: exactly so many, None for as many as go in. ``bays``: those that may be used. ``keep``: boxes that stay
    as they are; all others that stand in the asked bays are laid out anew. ``window_v``: lowest and highest voltage
    that the gear takes, empty cell to full cell; ``gears_window``: the one that all gear which goes in has in common.
    With it the counts are those whose string fits it, ``parallel`` strings side by side."""

    kinds: Annotated[tuple[Id, ...], Field(min_length=1, max_length=6, strict=False)]
    bays: Annotated[tuple[Id, ...], Field(min_length=1, max_length=20, strict=False)]
    modules: Count | None = None
    parallel: Annotated[int, Field(ge=1, le=20)] = 1
    window_v: Annotated[tuple[PositiveLength, PositiveLength] | None, Field(strict=False)] = None
    gears_window: bool = False
    keep: Annotated[tuple[Id, ...], Field(max_length=100, strict=False)] = ()
    leave_empty: Literal["left", "right"] | None = None
    towards: Annotated[tuple[Towards, ...], Field(max_length=5, strict=False)] = ()
    rest_on: Annotated[
        tuple[Literal["base", "top", "side_a", "side_b", "end_a", "end_b"], ...], Field(strict=False)
    ] = ()
    most_tiers: Annotated[int, Field(ge=1, le=20)] = 20
    boxes_per_bay: Annotated[int, Field(ge=1, le=3)] = 1
    one_size: bool = False
    mixed_turns: bool = True
    tilts_deg: Annotated[tuple[Annotated[float, Field(ge=-30, le=30)], ...], Field(max_length=4, strict=False)] = ()
    chamfers: bool = False
    more_than_the_shelf: bool = False
    making: Making = Making()
    weights: Weights = Weights()
    largest_chamfer_mm: NonNegativeLength = 60.0

    @model_validator(mode="after")
    def _no_contradiction(self) -> "Wishes":
        if self.window_v and self.window_v[0] >= self.window_v[1]:
            raise ValueError("the lowest voltage must be below the highest")
        if self.modules is not None and (self.window_v is not None or self.gears_window):
            raise ValueError("asks for a fixed count and for a voltage window: leave one of the two out")
        if self.modules is not None and self.modules % self.parallel:
            raise ValueError(f"{self.modules} modules do not make {self.parallel} equal strings")
        return self
