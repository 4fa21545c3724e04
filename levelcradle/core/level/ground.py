"""How far above the ground the boxes hang: laden, over humps and ramps, and at full bump on a flat tyre."""

from collections.abc import Callable, Iterator, Sequence
from functools import lru_cache

from levelcradle.core.assembly import Assembly, PlacedBox
from levelcradle.core.axes import Matrix
from levelcradle.core.bays import extent
from levelcradle.core.design.vehicle import Road, Vehicle
from levelcradle.core.finding import Figure, Finding, Step, gap_state, plain
from levelcradle.core.level.balance import WheelLoads
from levelcradle.core.level.result import LevelResult
from levelcradle.core.level.road import at_the_foot, over_hump, over_top
from levelcradle.core.solids import corner_points

__all__ = ["ground_findings", "lowest_hard_mm"]

LADEN_MM = 140.0  # laden, or not below the lowest hard part between the axles: common practice, no source
BUMP_MM = 50.0  # at full bump with a flat tyre: common practice, no source
FLAT_SHARE = 0.25  # of its radius a tyre loses when flat: common practice, no source
MATTERS_MM = 330.0  # higher than this neither case comes near the ground, whatever the springs do
TOLERANCE_MM = 10.0  # ride height, common practice, no source
NO_ROAD = Road()
LEVEL_MM = 0.05  # less than is shown hangs no lower
G = 9.80665


def ground_findings(assembly: Assembly, level: LevelResult) -> Iterator[Finding]:
    """Of the flat ground nothing for a box that hangs so high that it cannot matter."""
    hard = lowest_hard_mm(assembly)
    for box in assembly.boxes.values():
        low = min(p.solid.low[2] for p in box.pieces)
        if low < MATTERS_MM:
            yield from _of_box(assembly.vehicle, box, _heights(assembly, box, level), hard)
        if assembly.vehicle.road != NO_ROAD:
            yield from _on_the_road(box, assembly.vehicle, _heights(assembly, box, level))
        yield from _lowest(assembly, box, low, hard)


def _lowest(assembly: Assembly, box: PlacedBox, low_mm: float, hard: float | None) -> Iterator[Finding]:
    """A box that hangs lower than everything of the car between its axles is what a kerb meets first."""
    bay = assembly.bay_of(box)
    said = any(space.lowest for space in assembly.obstacles)
    # a lowest line that was said is kept like any other gap
    if said or (hard is not None and hard - low_mm < LEVEL_MM):
        return
    name = plain(box.box.name)
    if hard is not None:
        yield Finding(
            id=f"lowest:{box.path}",
            code="place.lowest",
            station="place",
            state="tight",
            subjects=(box.path,),
            message=f"{name} hangs {{0}} below the lowest part of the car between the axles",
            figures=(Figure(hard - low_mm, "mm", "up"),),
            value=low_mm,
            limit=hard,
            margin=low_mm - hard,
            unit="mm",
            rationale="it is what a kerb or a ramp meets first",
            label="lowest",
        )
    elif bay is not None and bay.sides.floor.is_ == "open" and extent(bay)[0][2] - low_mm > LEVEL_MM:
        yield Finding(
            id=f"lowest:{box.path}",
            code="place.lowest",
            station="place",
            state="unknown",
            subjects=(box.path,),
            message=f"{name} hangs out below its space, and how low anything may hang is not known",
            rationale="measure the lowest part of the car between the axles, or say a lowest line",
            label="lowest",
        )


Heights = Sequence[tuple[str, Matrix, Matrix]]
"""State by state how high the corners of a box are then, and by how much they went down."""

SPRINGS = "how far the springs go down is not known: say the car's weight and its wheel rates"


def _heights(assembly: Assembly, box: PlacedBox, level: LevelResult) -> Heights:
    """Every corner of the box, its brackets and what is fixed on it goes down by as much as the body does where it is.
    None where that is not known."""
    vehicle, corners = assembly.vehicle, _corners(box)
    aft, up = corners[:, 0], corners[:, 2]
    if level.found is None or vehicle.wheel_rates is None:
        return ()
    rows = [*((row.name, row.loads) for row in level.states), *([("ready", level.ready)] if level.ready else [])]
    sunk = [(name, _sink(level.found, loads, vehicle, aft)) for name, loads in rows] or [("ready", 0.0 * aft)]
    return [(name, up - sink, sink) for name, sink in sunk]


def _of_box(vehicle: Vehicle, box: PlacedBox, heights: Heights, hard: float | None) -> Iterator[Finding]:
    corners = _corners(box)
    aft, up = corners[:, 0], corners[:, 2]
    if not heights:
        yield _unknown(box, "laden", SPRINGS)
    else:
        name, high, sink = min(heights, key=lambda row: float(row[1].min()))
        at = int(high.argmin())
        need = min(LADEN_MM, hard or LADEN_MM)
        yield _finding(
            box,
            f"laden ({plain(name)})",
            float(high[at]),
            need,
            float(sink[at]),
            "laden",
            "or no lower than the lowest hard part between the axles",
        )
    if vehicle.bump_mm is None or vehicle.overall is None:
        yield _unknown(box, "bump", "how far the axles go up at full bump is not known: say it in Survey")
    else:
        share = aft / vehicle.wheelbase_mm
        down = (
            vehicle.bump_mm.front * (1 - share)
            + vehicle.bump_mm.rear * share
            + vehicle.overall.tyre_radius_mm * FLAT_SHARE
        )
        at = int((up - down).argmin())
        yield _finding(
            box,
            _CASES["bump"],
            float(up[at] - down[at]),
            BUMP_MM,
            float(down[at]),
            "bump",
            "bump travel and a quarter of the tyre's radius",
        )


def _on_the_road(box: PlacedBox, vehicle: Vehicle, heights: Heights) -> Iterator[Finding]:
    """The least that is left under a box over what the car is to pass, in the load that lets it down furthest; nothing
    of what nobody said that it is to pass."""
    for key, (words, left) in _passes(vehicle, _corners(box)[:, 0]).items():
        if not heights:
            yield _unknown(box, key, SPRINGS)
            continue
        has, low, name = min((float(left(up).min()), float(up.min()), name) for name, up, _ in heights)
        yield _finding(box, f"{words} ({plain(name)})", has, 0.0, low - has, key, "rigid car, wheels on the road")


def _passes(vehicle: Vehicle, aft: Matrix) -> dict[str, tuple[str, Callable[[Matrix], Matrix]]]:
    """What the car is to pass, in words, and what is left under points so far aft that are so high."""
    base, road, passes = vehicle.wheelbase_mm, vehicle.road, dict[str, tuple[str, Callable[[Matrix], Matrix]]]()
    tyre = vehicle.overall.tyre_radius_mm if vehicle.overall else 0.0
    if hump := road.hump:
        words = f"over a hump {hump.long_mm:.0f} long and {hump.high_mm:.0f} high"
        passes["hump"] = (words, lambda up: over_hump(aft, up, base, hump, tyre))
    if road.ramp_percent is not None:
        slope, words = road.ramp_percent / 100, f"of a ramp of {road.ramp_percent:g} %"
        passes["top"] = (f"at the top {words}", lambda up: over_top(aft, up, base, slope))
        passes["foot"] = (f"at the foot {words}", lambda up: at_the_foot(aft, up, base, slope))
    return passes


@lru_cache(maxsize=512)
def _corners(box: PlacedBox) -> Matrix:
    """(n, 3) corners of every piece of a box's outside."""
    return corner_points(p.solid for p in box.pieces)


def _sink(found: WheelLoads, now: WheelLoads, vehicle: Vehicle, aft: Matrix) -> Matrix:
    """How far the body goes down at places: each axle on its two springs, the body rigid between and beyond."""
    rates = vehicle.wheel_rates
    assert rates is not None
    front = (now.front_kg - found.front_kg) * G / (2 * rates.front_n_per_mm)
    rear = (now.rear_kg - found.rear_kg) * G / (2 * rates.rear_n_per_mm)
    return front + (rear - front) * aft / vehicle.wheelbase_mm


def lowest_hard_mm(assembly: Assembly) -> float | None:
    """The lowest part of the vehicle between the axles that is no axle; None where nobody measured one."""
    base = assembly.vehicle.wheelbase_mm
    lows = [
        o.solid.low[2]
        for o in assembly.obstacles
        if o.path.startswith(("items/", "members/"))
        and o.fixed_to is None
        and o.gap_class != "axle"
        and o.solid.high[0] > 0
        and o.solid.low[0] < base
    ]
    return min(lows, default=None)


def _finding(box: PlacedBox, words: str, has_mm: float, need_mm: float, down_mm: float, key: str, why: str) -> Finding:
    return Finding(
        id=f"ground:{box.path}:{key}",
        code="ground",
        station="level",
        state=gap_state(has_mm, need_mm, TOLERANCE_MM),
        subjects=(box.path,),
        message=f"{plain(box.box.name)} above the ground, {words}: {{0}}, needs {{1}}",
        figures=(Figure(has_mm, "mm", "down"), Figure(need_mm, "mm", "up")),
        value=has_mm,
        limit=need_mm,
        margin=has_mm - need_mm,
        unit="mm",
        tolerance=TOLERANCE_MM,
        rationale=f"{why} (common practice, no source)",
        label=f"ground, {key}",
        working=lambda: (
            Step("goes down by", why, down_mm, "mm", "rigid body on linear springs"),
            Step("left above the ground", f"{has_mm + down_mm:.1f} − {down_mm:.1f}", has_mm, "mm"),
        ),
    )


_CASES = {
    "laden": "laden",
    "bump": "at full bump on a flat tyre",
    "hump": "over the hump",
    "top": "at the top of the ramp",
    "foot": "at the foot of the ramp",
}


def _unknown(box: PlacedBox, key: str, why: str) -> Finding:
    return Finding(
        id=f"ground:{box.path}:{key}",
        code="ground",
        station="level",
        state="unknown",
        subjects=(box.path,),
        message=f"{plain(box.box.name)} above the ground, {_CASES[key]}: not known",
        rationale=why,
        label=f"ground, {key}",
    )
