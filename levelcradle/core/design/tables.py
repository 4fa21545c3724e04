"""The design's own copy of the tabulated rows it uses, with their sources."""

from typing import Annotated, Literal, get_args

from pydantic import Field, field_validator

from levelcradle.core.design.base import DocumentModel, GapClass, Id, Line, NonNegativeLength, PositiveLength, Text
from levelcradle.core.design.fitted import FittedKind
from levelcradle.core.tables import rows

__all__ = [
    "BoltClass",
    "BoltSize",
    "FittedSize",
    "GapNeed",
    "Liner",
    "LoadCase",
    "Material",
    "TableRow",
    "Tables",
    "standard_tables",
]

Mpa = Annotated[float, Field(gt=0, le=10_000)]
Price = Annotated[float, Field(gt=0, le=1e6)]
InG = Annotated[float, Field(ge=-100, le=100)]


class TableRow(DocumentModel):
    """A tabulated row with its source; ``own`` marks a shop's own."""

    source: Text
    own: bool = False


Thread = Literal["metric", "inch"]
Series = Literal["1xxx", "2xxx", "3xxx", "5xxx", "6xxx", "7xxx"]
SERIES: tuple[str, ...] = get_args(Series)


class Material(TableRow):
    """``bend_radii``: the least inside radius it is bent to, in thicknesses; ``grain``: whether it cracks where it is
    bent along its rolling direction; ``welded_yield_mpa``, ``welded_ultimate_mpa``: what is left of aluminium beside a
    weld, ``weld_metal_mpa``: what the weld itself bears. None where nobody has said."""

    name: Line
    density_kg_m3: Annotated[float, Field(gt=0, le=30_000)]
    yield_mpa: Mpa
    yield_over_16_mpa: Mpa | None = None  # of sheet and plate over 16 mm thick
    ultimate_mpa: Mpa
    beta_w: Annotated[float, Field(gt=0, le=1)] | None = None
    k_factor: Annotated[float, Field(gt=0, lt=1)]
    weldable_with: Literal["steel", "aluminium"]
    series: Series | None = None  # of an aluminium alloy
    welded_yield_mpa: Mpa | None = None
    welded_ultimate_mpa: Mpa | None = None
    weld_metal_mpa: Mpa | None = None
    welded_source: Text = ""
    k_source: Text
    bend_radii: Annotated[float, Field(ge=0, le=20)] | None = None
    grain: Literal["yes", "no"] | None = None
    bend_source: Text = ""
    price_per_kg: Price | None = None

    def yield_mpa_at(self, thickness_mm: float) -> float | None:
        """Yield strength at a thickness [MPa]; None over 16 mm where the row does not say. Source: EN 10025-2 table of
        thicknesses."""
        return self.yield_mpa if thickness_mm <= 16 else self.yield_over_16_mpa


class BoltSize(TableRow):
    """``thread``: of metric or of inch bolts, which come in classes and lengths of their own."""

    thread: Thread = "metric"
    d_mm: PositiveLength
    pitch_mm: PositiveLength
    stress_area_mm2: PositiveLength
    clearance_hole_mm: PositiveLength
    washer_hole_mm: PositiveLength
    washer_mm: PositiveLength
    washer_thick_mm: PositiveLength
    across_flats_mm: PositiveLength
    head_mm: PositiveLength


class BoltClass(TableRow):
    thread: Thread = "metric"
    ultimate_mpa: Mpa
    proof_mpa: Mpa
    alpha_v: Annotated[float, Field(gt=0, le=1)]


class GapNeed(TableRow):
    need_mm: NonNegativeLength
    reason: Text


class Liner(TableRow):
    """What lies between a box and its modules; ``creeps``: it settles in time and leaves play, by about so much of its
    thickness. ``limit_c``: the most it stands for long; ``density_kg_m3``: of what boards of it weigh. None where
    nobody has said."""

    name: Line
    thickness_mm: PositiveLength
    creeps: Literal["yes", "no"]
    settles_percent: Annotated[float, Field(ge=0, le=95)] | None = None
    conducts: Literal["yes", "no"] | None = None
    burns: Literal["yes", "no"] | None = None
    limit_c: Annotated[float, Field(ge=-60, le=2000)] | None = None
    density_kg_m3: Annotated[float, Field(gt=0, le=20_000)] | None = None
    price_per_m2: Price | None = None


class Filler(TableRow):
    """What welds are made with: of which metals, and of alloys of which series the weld cracks."""

    name: Line
    welds: Literal["steel", "aluminium"]
    cracks_with: Text = ""

    @field_validator("cracks_with")
    @classmethod
    def _of_series(cls, said: str) -> str:
        """Anything else would be taken for nothing."""
        series = said.replace(",", " ").split()
        if any(name not in SERIES for name in series):
            raise ValueError(f"names series of alloys, apart by blanks: {', '.join(SERIES)}")
        return " ".join(series)


class FittedSize(TableRow):
    """What may sit in an opening of a box, to begin with: its hole and its own sizes."""

    kind: FittedKind
    size: Text = ""
    hole_mm: PositiveLength
    seat_mm: PositiveLength
    out_mm: NonNegativeLength
    in_mm: NonNegativeLength
    line_mm: NonNegativeLength
    bend_radius_mm: NonNegativeLength


class LoadCase(TableRow):
    """One throw on the box in g, everything in it (weight included). ``least_hz``: it is enough only where a box shakes
    on its mounts no slower than that."""

    kind: Literal["road", "crash"]
    name: Line
    aft_g: InG
    right_g: InG
    up_g: InG
    least_hz: Annotated[float, Field(gt=0, le=1000)] | None = None


def _standard_liners() -> "dict[str, Liner]":
    """A file from before there was this table gets the rows that come with this version."""
    return {
        row["id"]: Liner.model_validate(_typed({k: v for k, v in row.items() if k != "id"})) for row in rows("liners")
    }


def _standard_fitted() -> "dict[str, FittedSize]":
    return {
        row["id"]: FittedSize.model_validate(_typed({k: v for k, v in row.items() if k != "id"}))
        for row in rows("fitted")
    }


def _standard_fillers() -> "dict[str, Filler]":
    return {
        row["id"]: Filler.model_validate(_typed({k: v for k, v in row.items() if k != "id"})) for row in rows("fillers")
    }


class Tables(DocumentModel):
    """Never empty: the checks rest on them. ``load_factor``: the shop's own, on every load case but what shakes.
    ``vehicle_stiffness_n_per_mm``: how stiff the vehicle is at each mount, any way; None where nobody has stated it."""

    materials: Annotated[dict[Id, Material], Field(min_length=1, max_length=500)]
    bolts: Annotated[dict[Line, BoltSize], Field(min_length=1, max_length=500)]
    bolt_classes: Annotated[dict[Line, BoltClass], Field(min_length=1, max_length=100)]
    gaps: dict[GapClass, GapNeed]
    load_cases: Annotated[dict[Id, LoadCase], Field(min_length=1, max_length=100)]
    liners: Annotated[dict[Id, Liner], Field(max_length=200, default_factory=_standard_liners)]
    fitted: Annotated[dict[Id, FittedSize], Field(max_length=200, default_factory=_standard_fitted)]
    fillers: Annotated[dict[Id, Filler], Field(max_length=100, default_factory=_standard_fillers)]
    load_factor: Annotated[float, Field(ge=1, le=5)] = 1.0
    vehicle_stiffness_n_per_mm: Annotated[float, Field(gt=0, le=1e7)] | None = None

    @field_validator("gaps")
    @classmethod
    def _every_class(cls, gaps: dict[GapClass, GapNeed]) -> dict[GapClass, GapNeed]:
        missing = [name for name in get_args(GapClass) if name not in gaps]
        if missing:
            raise ValueError(f"lacks {', '.join(missing)}")
        return gaps


_WORDS = {
    "name",
    "source",
    "k_source",
    "bend_source",
    "welded_source",
    "grain",
    "weldable_with",
    "reason",
    "kind",
    "creeps",
    "conducts",
    "burns",
    "size",
    "series",
    "thread",
    "welds",
    "cracks_with",
}


def _typed(row: dict[str, str]) -> dict[str, str | float]:
    return {k: v if k in _WORDS else float(v) for k, v in row.items() if v != ""}


def standard_tables() -> Tables:
    """The tables that come with this version, as a new design copies them."""

    def copy(subject: str, key: str) -> dict[str, dict[str, str | float]]:
        return {row[key]: _typed({k: v for k, v in row.items() if k != key}) for row in rows(subject)}

    return Tables.model_validate(
        {
            "materials": copy("materials", "id"),
            "bolts": copy("bolts", "size"),
            "bolt_classes": copy("bolt_classes", "id"),
            "gaps": copy("gaps", "id"),
            "load_cases": copy("load_cases", "id"),
        }
    )
