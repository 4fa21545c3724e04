"""An angle on an isolator: on the road the rubber gives, and no further than its stop; in a crash its bolt stands in it
as a short bar, bent."""

import math
from collections.abc import Callable, Mapping

import numpy as np

from levelcradle.core.connection.connection import ForceArray, Road
from levelcradle.core.design.mount import Isolator
from levelcradle.core.design.tables import BoltClass, BoltSize
from levelcradle.core.finding import Step
from levelcradle.core.strength import GAMMA_M0

__all__ = ["on_rubber", "rubber_steps"]

Load = tuple[ForceArray, ForceArray, ForceArray]
TRAVEL, BENT = "isolator's travel", "bolt, bent in its isolator"


def on_rubber(
    rubber: Isolator, bolt: BoltSize, grade: BoltClass, load: Load, *, road: Road
) -> Mapping[str, Callable[[], ForceArray]]:
    """Its travel in road cases, its bolt in crash cases. Sources: linear spring; statics, plastic, V half its thickness
    off (common practice, no source)."""
    n, d, w = load
    return {
        TRAVEL: lambda: np.where(
            road, np.sqrt(n * n + d * d + w * w) / rubber.stiffness_n_per_mm / rubber.travel_mm, 0.0
        ),
        BENT: lambda: np.where(road, 0.0, np.hypot(d, w) * rubber.thick_mm / 2 / _bears_n_mm(bolt, grade)),
    }


def _bears_n_mm(bolt: BoltSize, grade: BoltClass) -> float:
    """d³ / 6 × proof stress / γM0, d of its stress area."""
    across = math.sqrt(4 * bolt.stress_area_mm2 / math.pi)
    return across**3 / 6 * grade.proof_mpa / GAMMA_M0


def rubber_steps(
    check: str, rubber: Isolator, bolt: BoltSize, grade: BoltClass, load: tuple[float, float, float]
) -> tuple[Step, ...]:
    n, d, w = load
    if check == TRAVEL:
        whole = math.sqrt(n * n + d * d + w * w)
        return (
            Step("force on it", "√(N² + D² + W²)", whole, "N", "statics"),
            Step(
                "gives",
                "force / stiffness, as its maker says",
                whole / rubber.stiffness_n_per_mm,
                "mm",
                "linear spring",
            ),
            Step("to its stop", "as its maker says", rubber.travel_mm, "mm"),
        )
    return (
        Step("bends its bolt", "√(D² + W²) × half its thickness", math.hypot(d, w) * rubber.thick_mm / 2, "N·mm",
             "statics; common practice, no source"),
        Step("bolt bears", "d³ / 6 × proof stress / 1.1", _bears_n_mm(bolt, grade), "N·mm", "plastic (statics)"),
    )  # fmt: skip
