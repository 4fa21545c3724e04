"""How a box is built and closed: unions, one model a kind. What each kind is made of is said in ``levelcradle.core.box``."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from levelcradle.core.design.base import Forms, Line, Part, Positive, Share, Text

__all__ = ["Cap", "Closure", "Construction", "Existing", "Folded", "Folder", "LidScrews"]


class Folder(Part):
    """Who folds the sheet, and his own bend deduction where he gave one."""

    name: Text = ""
    deduction_mm: Share | None = None


class Folded(Part):
    """A tray folded from one sheet, its corners welded, with a cap of the same sheet over it."""

    closed_by: ClassVar[int] = 1
    type: Literal["folded"] = "folded"
    thickness_mm: Annotated[float, Field(gt=0, le=20)] = 3.0
    bend_radius_mm: Annotated[float, Field(ge=0, le=50)] = 3.0
    folder: Folder = Folder()


class Existing(Part):
    """A case that is there: its outside with its lid closed, its thicknesses and its mass as measured. It is checked, not made."""

    closed_by: ClassVar[int] = 0  # its lid is part of it
    type: Literal["existing"]
    size_mm: Forms
    wall_mm: Positive
    base_mm: Positive
    top_mm: Positive
    mass_kg: Annotated[float, Field(gt=0, le=10_000)]
    tol_mm: Share = 1.0


Construction = Annotated[Folded | Existing, Field(discriminator="type")]


class LidScrews(Part):
    """Screws sideways through the lid's edge into rivet nuts in the tray's wall."""

    size: Line = "M5"
    hole_mm: Positive = 5.5
    rivet_nut_hole_mm: Positive = 7.0
    head_high_mm: Positive = 3.0
    head_across_mm: Positive = 9.0
    spacing_mm: Positive = 140.0
    corner_mm: Share = 60.0


class Cap(Part):
    """A lid over the tray, its edges turned down. ``main``: the one that the box is filled through."""

    type: Literal["cap"] = "cap"
    face: Literal["top"] = "top"
    main: Literal[True] = True
    clearance_mm: Share = 0.5
    edge_mm: Positive = 25.0
    screws: LidScrews = LidScrews()


Closure = Cap
