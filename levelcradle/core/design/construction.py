"""How a box is built and closed: unions, one model a kind. What each kind is made of is said in
``levelcradle.core.box``."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from levelcradle.core.design.base import DocumentModel, Line, NonNegativeLength, PositiveLength, Size3, Text

__all__ = ["Cap", "Closure", "Construction", "Existing", "Folded", "FoldingShop", "LidScrews"]


class FoldingShop(DocumentModel):
    """Who folds the sheet, and his own bend deduction where he gave one."""

    name: Text = ""
    deduction_mm: NonNegativeLength | None = None


class Folded(DocumentModel):
    """A tray folded from one sheet, its corners welded, with a cap of the same sheet over it."""

    closed_by: ClassVar[int] = 1
    type: Literal["folded"] = "folded"
    thickness_mm: Annotated[float, Field(gt=0, le=20)] = 3.0
    bend_radius_mm: Annotated[float, Field(ge=0, le=50)] = 3.0
    folder: FoldingShop = FoldingShop()


class Existing(DocumentModel):
    """A case that is there: its outside with its lid closed, its thicknesses and its mass as measured. It is checked,
    not made."""

    closed_by: ClassVar[int] = 0  # its lid is part of it
    type: Literal["existing"]
    size_mm: Size3
    wall_mm: PositiveLength
    base_mm: PositiveLength
    top_mm: PositiveLength
    mass_kg: Annotated[float, Field(gt=0, le=10_000)]
    tol_mm: NonNegativeLength = 1.0


Construction = Annotated[Folded | Existing, Field(discriminator="type")]


class LidScrews(DocumentModel):
    """Screws sideways through the lid's edge into rivet nuts in the tray's wall."""

    size: Line = "M5"
    hole_mm: PositiveLength = 5.5
    rivet_nut_hole_mm: PositiveLength = 7.0
    head_high_mm: PositiveLength = 3.0
    head_across_mm: PositiveLength = 9.0
    spacing_mm: PositiveLength = 140.0
    corner_mm: NonNegativeLength = 60.0


class Cap(DocumentModel):
    """A lid over the tray, its edges turned down. ``main``: the one that the box is filled through."""

    type: Literal["cap"] = "cap"
    face: Literal["top"] = "top"
    main: Literal[True] = True
    clearance_mm: NonNegativeLength = 0.5
    edge_mm: PositiveLength = 25.0
    screws: LidScrews = LidScrews()


Closure = Cap
