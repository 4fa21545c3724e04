"""Module kinds and the modules on the shelf."""

from typing import Annotated, Literal

from pydantic import BeforeValidator, Field

from levelcradle.core.design.base import (
    Count,
    Forms,
    Id,
    Kg,
    Line,
    ModuleFace,
    Part,
    Positive,
    Share,
    Text,
    _as_tuple,
)  # fmt: skip

__all__ = ["Cells", "Growth", "Module", "ModuleKind", "MountHoles"]

Volts = Annotated[float, Field(ge=0, le=2000)]


class Cells(Part):
    """Cells in series and parallel, written 12s3p."""

    series: Count
    parallel: Count


class Growth(Part):
    """How much wider the module is in its widest state, along its own length, width and height."""

    length: Share = 0.0
    width: Share = 0.0
    height: Share = 0.0


class MountHoles(Part):
    count: Count
    diameter_mm: Positive


class ModuleKind(Part):
    """``size_mm`` is (length, width, height) in the module's own frame; face gaps are what its faces ask for."""

    name: Line
    size_mm: Forms
    mass_kg: Annotated[Kg, Field(gt=0)]
    tol_kg: Kg = 0.0
    cells: Cells
    nominal_v: Volts
    full_v: Volts
    capacity_ah: Annotated[float, Field(gt=0, le=10_000)] | None = None
    may_rest_on: Annotated[tuple[ModuleFace, ...], BeforeValidator(_as_tuple), Field(min_length=1, max_length=6)]
    face_gap_mm: dict[ModuleFace, Share] = {}
    above_mm: Share = 0.0
    neighbour_gap_mm: Share = 0.0
    terminals: ModuleFace = "end_a"
    taps: ModuleFace | None = None
    coolant: ModuleFace | None = None
    growth_mm: Growth = Growth()
    clamp: bool = False
    mount_holes: MountHoles | None = None
    note: Text = ""


class Module(Part):
    """One module on the shelf."""

    name: Line
    kind: Id
    reading_v: Volts | None = None
    verdict: Literal["good", "spare", "reject"] = "good"
    order: int = 0
    note: Text = ""
