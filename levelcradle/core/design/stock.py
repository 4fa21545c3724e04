"""Module kinds, the modules on the shelf with their tests, factory stacks and donor hardware."""

from typing import Annotated, Literal

from pydantic import BeforeValidator, Field, model_validator

from levelcradle.core.design.base import (
    Count,
    DocumentModel,
    Id,
    Kg,
    Line,
    ModuleFace,
    NonNegativeLength,
    PositiveLength,
    Size3,
    Text,
    _as_tuple,
)

__all__ = [
    "Altered",
    "Cells",
    "Compression",
    "Growth",
    "Hardware",
    "Module",
    "ModuleKind",
    "MountHoles",
    "PackString",
    "ShelfRule",
    "Stack",
    "Test",
]

Volts = Annotated[float, Field(ge=0, le=2000)]


class Cells(DocumentModel):
    """Cells in series and parallel, written 12s3p."""

    series: Count
    parallel: Count


class Growth(DocumentModel):
    """How much wider the module is in its widest state, along its own length, width and height."""

    length: NonNegativeLength = 0.0
    width: NonNegativeLength = 0.0
    height: NonNegativeLength = 0.0


class Compression(DocumentModel):
    """Held under compression along one of its own axes; the size given is the clamped one, ``free_mm`` the released
    one."""

    axis: Literal["length", "width", "height"]
    free_mm: PositiveLength


class MountHoles(DocumentModel):
    """Through holes from base to top, in two rows along the module: so far from its ends and its sides, and how deep a
    nut or a head may sink in them."""

    count: Count
    diameter_mm: PositiveLength
    from_ends_mm: NonNegativeLength | None = None
    from_sides_mm: NonNegativeLength | None = None
    sunk_mm: NonNegativeLength = 0.0


class ModuleKind(DocumentModel):
    """``size_mm`` is (length, width, height) in the module's own frame; face gaps are what its faces ask for."""

    name: Line
    size_mm: Size3
    mass_kg: Annotated[Kg, Field(gt=0)]
    tol_kg: Kg = 0.0
    cells: Cells
    nominal_v: Volts
    full_v: Volts
    empty_v: Volts | None = None
    capacity_ah: Annotated[float, Field(gt=0, le=10_000)] | None = None
    may_rest_on: Annotated[tuple[ModuleFace, ...], BeforeValidator(_as_tuple), Field(min_length=1, max_length=6)]
    face_gap_mm: dict[ModuleFace, NonNegativeLength] = {}
    above_mm: NonNegativeLength = 0.0
    neighbour_gap_mm: NonNegativeLength = 0.0
    terminals: ModuleFace = "end_a"
    minus: ModuleFace | None = None
    plus_towards: ModuleFace | None = None
    taps: ModuleFace | None = None
    coolant: ModuleFace | None = None
    growth_mm: Growth = Growth()
    clamp: bool = False
    compression: Compression | None = None
    mount_holes: MountHoles | None = None
    made_up: bool = False
    source: Text = ""
    note: Text = ""

    def grows_mm(self, axis: int) -> float:
        """How much wider than its size it gets along length (0), width (1) or height (2): growth, or what it springs
        back."""
        name = ("length", "width", "height")[axis]
        spring = (
            self.compression.free_mm - self.size_mm[axis] if self.compression and self.compression.axis == name else 0.0
        )
        return max(float(getattr(self.growth_mm, name)), spring)

    @model_validator(mode="after")
    def _terminals_make_sense(self) -> "ModuleKind":
        if self.plus_towards is not None and self.plus_towards.split("_")[0] == self.terminals.split("_")[0]:
            raise ValueError("the plus stands towards a face beside the terminals' own")
        if (
            self.compression
            and self.compression.free_mm < self.size_mm[("length", "width", "height").index(self.compression.axis)]
        ):
            raise ValueError("the free size is smaller than the clamped one")
        return self


class Test(DocumentModel):
    """What one module read on one day."""

    __test__ = False  # no test case of pytest's

    on: Annotated[str, Field(pattern=r"^\d{4}-\d{2}-\d{2}$")]
    open_circuit_v: Volts | None = None
    resistance_mohm: Annotated[float, Field(ge=0, le=1e6)] | None = None
    temperature_c: Annotated[float, Field(ge=-60, le=200)] | None = None
    mass_kg: Kg | None = None
    note: Text = ""


class Altered(DocumentModel):
    """As altered: terminals shortened, taps renewed, ends turned; with the envelope it has now."""

    what: Line
    size_mm: Size3


class Module(DocumentModel):
    """One module on the shelf. ``verdict``: None until somebody judged it."""

    name: Line
    kind: Id
    serial: Annotated[Text, Field(max_length=60)] = ""
    reading_v: Volts | None = None
    tests: Annotated[dict[Id, Test], Field(max_length=200)] = {}
    damage: Text = ""
    altered: Altered | None = None
    tested_in_donor: bool | None = None
    stand_in: bool = False
    verdict: Literal["good", "spare", "reject"] | None = None
    order: int = 0
    note: Text = ""

    @property
    def volts(self) -> float | None:
        """The newest open-circuit voltage: of the latest test that has one, else what was read off first."""
        read = [(t.on, key, t.open_circuit_v) for key, t in self.tests.items() if t.open_circuit_v is not None]
        return max(read)[2] if read else self.reading_v


class Stack(DocumentModel):
    """Modules, end plates and rods as the factory joined them."""

    name: Line
    modules: Annotated[dict[Id, Literal[True]], Field(min_length=1, max_length=100)]
    size_mm: Size3
    mass_kg: Kg | None = None
    kept: bool = True
    split_needs: Text = ""


class Hardware(DocumentModel):
    """Something of the donor's that is kept for reuse."""

    name: Line
    count: Count
    what: Literal[
        "rods and plates", "links", "taps and electronics", "coolant parts", "contactors and fuses", "cables", "other"
    ] = "other"
    note: Text = ""


class PackString(DocumentModel):
    """Modules in series; several strings stand side by side. Blocks say which they are in."""

    name: Line
    order: int = 0


class ShelfRule(DocumentModel):
    """When a module counts as out of step: this far off per cell at least, and what the meter can tell at all."""

    floor_mv: Annotated[float, Field(ge=0, le=1000)] = 50.0
    meter_step_mv: Annotated[float, Field(gt=0, le=1000)] = 10.0
