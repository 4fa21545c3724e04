"""How far above the ground the boxes hang: laden, and at full bump on a flat tyre."""

from collections.abc import Iterator

from levelcradle.core.assembly import Assembly, PlacedBox
from levelcradle.core.design.vehicle import Vehicle
from levelcradle.core.finding import Figure, Finding, State, Step, gap_state, plain
from levelcradle.core.level.balance import Loads
from levelcradle.core.level.figures import LevelFigures

__all__ = ["ground_findings"]

LADEN_MM = 140.0  # laden, or not below the lowest hard part between the axles: common practice, no source
BUMP_MM = 50.0  # at full bump with a flat tyre: common practice, no source
FLAT_SHARE = 0.25  # of its radius a tyre loses when flat: common practice, no source
MATTERS_MM = 330.0  # higher than this neither case comes near the ground, whatever the springs do
TOLERANCE_MM = 10.0  # ride height, common practice, no source
G = 9.80665


def ground_findings(assembly: Assembly, level: LevelFigures) -> Iterator[Finding]:
    """Nothing for a box that hangs so high that it cannot matter."""
    for box in assembly.boxes.values():
        low = min(p.solid.low[2] for p in box.pieces)
        if low < MATTERS_MM:
            yield from _of_box(assembly, box, low, level)


def _of_box(assembly: Assembly, box: PlacedBox, low: float, level: LevelFigures) -> Iterator[Finding]:
    vehicle = assembly.design.vehicle
    at = min(box.pieces, key=lambda p: p.solid.low[2]).solid
    aft = (at.low[0] + at.high[0]) / 2
    if level.found is None or vehicle.wheel_rates is None:
        yield _unknown(box, "laden", "how far the springs go down is not known: say the car's weight and its wheel rates")
    else:
        rows = [*((row.name, row.loads) for row in level.states), *([("ready", level.ready)] if level.ready else [])]
        name, sink = max(
            ((name, _sink(level.found, loads, vehicle, aft)) for name, loads in rows), key=lambda row: row[1], default=("ready", 0.0)
        )
        need = min(LADEN_MM, _lowest_hard(assembly))
        yield _finding(
            box, f"laden ({plain(name)})", low - sink, need, sink, "laden", "or no lower than the lowest hard part between the axles"
        )
    if vehicle.bump_mm is None or vehicle.overall is None:
        yield _unknown(box, "full bump", "how far the axles go up at full bump is not known: say it in Survey")
    else:
        share = aft / vehicle.wheelbase_mm
        down = vehicle.bump_mm.front * (1 - share) + vehicle.bump_mm.rear * share + vehicle.overall.tyre_radius_mm * FLAT_SHARE
        yield _finding(
            box, "at full bump on a flat tyre", low - down, BUMP_MM, down, "bump", "bump travel and a quarter of the tyre's radius"
        )


def _sink(found: Loads, now: Loads, vehicle: Vehicle, aft: float) -> float:
    """How far the body goes down at a place: each axle on its two springs, the body rigid between."""
    rates = vehicle.wheel_rates
    assert rates is not None
    front = (now.front_kg - found.front_kg) * G / (2 * rates.front_n_per_mm)
    rear = (now.rear_kg - found.rear_kg) * G / (2 * rates.rear_n_per_mm)
    return front + (rear - front) * aft / vehicle.wheelbase_mm


def _lowest_hard(assembly: Assembly) -> float:
    """The lowest part of the vehicle between the axles that is no axle."""
    base = assembly.design.vehicle.wheelbase_mm
    lows = [
        o.solid.low[2] for o in assembly.obstacles
        if o.path.startswith(("items/", "members/")) and o.gap_class != "axle" and o.solid.high[0] > 0 and o.solid.low[0] < base
    ]  # fmt: skip
    return min(lows, default=LADEN_MM)


def _finding(box: PlacedBox, words: str, has: float, need: float, down: float, key: str, why: str) -> Finding:
    return Finding(
        id=f"ground:{box.path}:{key}", code="ground", station="level", state=gap_state(has, need, TOLERANCE_MM), subjects=(box.path,),
        says=f"{plain(box.box.name)} above the ground, {words}: {{0}}, needs {{1}}",
        figures=(Figure(has, "mm", "down"), Figure(need, "mm", "up")), value=has, limit=need, margin=has - need, unit="mm",
        tolerance=TOLERANCE_MM, because=f"{why} (common practice, no source)", shows=f"ground, {key}",
        working=lambda: (Step("goes down by", why, down, "mm", "rigid body on linear springs"),
                         Step("left above the ground", f"{has + down:.1f} − {down:.1f}", has, "mm")),
    )  # fmt: skip


def _unknown(box: PlacedBox, key: str, why: str) -> Finding:
    state: State = "unknown"
    return Finding(
        id=f"ground:{box.path}:{key}", code="ground", station="level", state=state, subjects=(box.path,),
        says=f"{plain(box.box.name)} above the ground, {key}: not known", because=why, shows=f"ground, {key}",
    )  # fmt: skip
