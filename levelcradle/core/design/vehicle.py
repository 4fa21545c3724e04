"""The vehicle as found: what it weighs and in which state, how high its CG is, how it stood when it was measured."""

from typing import Annotated, Literal

from pydantic import Field, model_validator

from levelcradle.core.design.base import (
    DocumentModel,
    Id,
    Kg,
    Length,
    Line,
    NonNegativeLength,
    Point,
    PositiveLength,
    Text,
    ThingPath,
)

__all__ = [
    "Aboard",
    "Arches",
    "AxleCheck",
    "Axles",
    "CgGiven",
    "CgHeight",
    "CgLifted",
    "Corners",
    "Fluid",
    "Overall",
    "Hump",
    "Ratings",
    "Road",
    "Stance",
    "Target",
    "Total",
    "Track",
    "Vehicle",
    "Weighed",
    "Weighing",
    "WheelRates",
]

Step = Annotated[float, Field(gt=0, le=1000)]
Percent = Annotated[float, Field(ge=0, le=100)]


class Fluid(DocumentModel):
    """What a liquid weighs: volume [L] times density [kg/L]."""

    volume_l: Annotated[float, Field(gt=0, le=5000)]
    density_kg_l: Annotated[float, Field(gt=0, le=20)]

    @property
    def mass_kg(self) -> float:
        return self.volume_l * self.density_kg_l


class Aboard(DocumentModel):
    """Somebody or something in the car while it was weighed, that is no part of it: taken off the readings."""

    name: Line
    mass_kg: Kg | None = None
    fluid: Fluid | None = None
    tol_kg: Kg = 0.0
    at_mm: Point | None = None

    @property
    def weighs_kg(self) -> float | None:
        return self.fluid.mass_kg if self.mass_kg is None and self.fluid else self.mass_kg


class AxleCheck(DocumentModel):
    """The same car on an axle scale, to hold the sums of the corners against."""

    front_kg: Kg
    rear_kg: Kg
    step_kg: Step


Riders = Annotated[dict[Id, Aboard], Field(max_length=50)]


class Corners(DocumentModel):
    """Four wheel scales."""

    type: Literal["corners"]
    lf_kg: Kg
    rf_kg: Kg
    lr_kg: Kg
    rr_kg: Kg
    step_kg: Step
    aboard: Riders = {}
    check: AxleCheck | None = None


class Axles(DocumentModel):
    """Two axle readings, as from a public scale; with ``left_kg`` both left wheels were on it too."""

    type: Literal["axles"]
    front_kg: Kg
    rear_kg: Kg
    step_kg: Step
    left_kg: Kg | None = None
    aboard: Riders = {}


class Total(DocumentModel):
    """One reading of the whole car, its split between the axles assumed."""

    type: Literal["total"]
    total_kg: Kg
    step_kg: Step
    front_percent: Percent = 50.0
    front_tol_percent: Percent = 5.0
    aboard: Riders = {}


Weighing = Annotated[Corners | Axles | Total, Field(discriminator="type")]


class Weighed(DocumentModel):
    """One weighing: of the car as found, stripped, with part of the work done, finished; or of a box alone. ``done``:
    what was in the car by then."""

    kind: Literal["as found", "stripped", "box", "on the way", "finished"]
    read: Weighing
    order: int = 0
    done: Annotated[dict[ThingPath, Literal[True]], Field(max_length=500)] = {}


class Track(DocumentModel):
    front: PositiveLength
    rear: PositiveLength


class Overall(DocumentModel):
    """What the vehicle is drawn from."""

    overhang_front_mm: NonNegativeLength
    overhang_rear_mm: NonNegativeLength
    width_mm: PositiveLength
    height_mm: PositiveLength
    tyre_radius_mm: PositiveLength


class CgGiven(DocumentModel):
    """A height from elsewhere; ``note`` says where from."""

    basis: Literal["measured", "axle_lift", "assumed"]
    up_mm: NonNegativeLength
    tolerance_mm: NonNegativeLength
    note: Text = ""


class CgLifted(DocumentModel):
    """The axle-lift method: one axle raised, the other on the scale, suspension blocked, brakes off.

    ``level_kg`` and ``raised_kg`` are the readings of the axle that stays down; ``rise_mm`` is how much higher the
    wheel centres of the raised axle are than when level.
    """

    basis: Literal["lifted"]
    raised: Literal["front", "rear"]
    rise_mm: PositiveLength
    rise_tol_mm: NonNegativeLength = 2.0
    level_kg: Kg
    raised_kg: Kg
    step_kg: Step
    radius_front_mm: PositiveLength
    radius_rear_mm: PositiveLength


CgHeight = Annotated[CgGiven | CgLifted, Field(discriminator="basis")]


class Ratings(DocumentModel):
    front_kg: Kg | None = None
    rear_kg: Kg | None = None
    gross_kg: Kg | None = None


class WheelRates(DocumentModel):
    front_n_per_mm: Annotated[float, Field(gt=0, le=10_000)]
    rear_n_per_mm: Annotated[float, Field(gt=0, le=10_000)]


class Bump(DocumentModel):
    """How far each axle goes up from where it stands until it is stopped."""

    front: NonNegativeLength
    rear: NonNegativeLength


class Hump(DocumentModel):
    """A round hump across the road, from where it begins to where it ends."""

    long_mm: PositiveLength
    high_mm: PositiveLength

    @model_validator(mode="after")
    def _is_round(self) -> "Hump":
        if self.high_mm > self.long_mm / 2:
            raise ValueError("a round hump is at most half as high as it is long")
        return self


class Road(DocumentModel):
    """What the car is to pass over: a hump, and ramps so steep [%]; None where nobody has said."""

    hump: Hump | None = None
    ramp_percent: Annotated[float, Field(gt=0, le=60)] | None = None


class Target(DocumentModel):
    front_percent: Percent
    across_mm: Length = 0.0


class Arches(DocumentModel):
    """Heights of the four wheel arches over the wheel centres' ground, as a tape finds them."""

    lf_mm: NonNegativeLength | None = None
    rf_mm: NonNegativeLength | None = None
    lr_mm: NonNegativeLength | None = None
    rr_mm: NonNegativeLength | None = None


class Stance(DocumentModel):
    """How the car stood while it was measured. An angle finder is zeroed on the sill, so the sill's own slope is
    kept."""

    engine: Literal["in", "out"]
    stands: Literal["wheels", "hanging", "stands"]
    arches: Arches = Arches()
    sill_deg: Annotated[float, Field(ge=-30, le=30)] = 0.0


class Vehicle(DocumentModel):
    wheelbase_mm: PositiveLength
    track_mm: Track | None = None
    overall: Overall | None = None
    stance: Stance | None = None
    stance_after: Stance | None = None
    cg_height: CgHeight | None = None
    ratings: Ratings = Ratings()
    wheel_rates: WheelRates | None = None
    bump_mm: Bump | None = None
    road: Road = Road()
    target: Target | None = None

    @model_validator(mode="after")
    def _lift_is_possible(self) -> "Vehicle":
        height = self.cg_height
        if isinstance(height, CgLifted) and height.rise_mm >= 0.9 * self.wheelbase_mm:
            raise ValueError("the axle cannot be raised by nine tenths of the wheelbase")
        return self
