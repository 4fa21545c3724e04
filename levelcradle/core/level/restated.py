"""A weighing said in another way: what its readings tell of the other is kept, what they cannot is left to be read."""

from typing import Literal

from levelcradle.core.design.vehicle import Axles, Corners, Total, Weighing
from levelcradle.core.level.balance import total_kg_of

__all__ = ["WeighedBy", "weighed_by"]

WeighedBy = Literal["corners", "axles", "total"]
AXLE_STEP_KG, WHEEL_STEP_KG, TOTAL_STEP_KG = 10.0, 1.0, 20.0  # usual steps of such scales: common practice, no source


def weighed_by(weighing: Weighing | None, way: WeighedBy) -> Weighing:
    """The weighing by four wheels, two axles or the whole car; readings that nobody took are 0. Who was aboard stays
    aboard."""
    aboard = weighing.aboard if weighing else {}
    if way == "corners":
        return Corners(type="corners", lf_kg=0.0, rf_kg=0.0, lr_kg=0.0, rr_kg=0.0, step_kg=WHEEL_STEP_KG, aboard=aboard)
    if way == "total":
        total, step = (total_kg_of(weighing), weighing.step_kg) if weighing else (0.0, TOTAL_STEP_KG)
        return Total(type="total", total_kg=total, step_kg=step, aboard=aboard)
    if isinstance(weighing, Corners):
        front, rear, left = (
            weighing.lf_kg + weighing.rf_kg,
            weighing.lr_kg + weighing.rr_kg,
            weighing.lf_kg + weighing.lr_kg,
        )
        return Axles(type="axles", front_kg=front, rear_kg=rear, left_kg=left, step_kg=weighing.step_kg, aboard=aboard)
    return Axles(type="axles", front_kg=0.0, rear_kg=0.0, step_kg=AXLE_STEP_KG, aboard=aboard)
