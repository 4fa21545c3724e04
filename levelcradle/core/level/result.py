"""The loads of a design: as found, ready to drive, and in each load state; with every mass that counts."""

import math
from collections import Counter
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass, field

from levelcradle.core.assembly import Assembly, PlacedBox, middle_of
from levelcradle.core.design import Design
from levelcradle.core.design.accepted import accepted_plus_minus
from levelcradle.core.design.design import AS_FOUND
from levelcradle.core.design.vehicle import Weighed
from levelcradle.core.level.balance import Lean, MassRow, WheelLoads, found_loads, lean_of, loads_after, person

__all__ = ["LevelResult", "LoadRow", "base_of", "computed", "level_result", "masses", "root", "was_done"]


@dataclass(frozen=True, slots=True)
class LoadRow:
    """One state of the car: its id (``ready`` for empty), name and loads."""

    id: str
    name: str
    loads: WheelLoads


@dataclass(frozen=True, slots=True)
class LevelResult:
    """Everything the Level station shows. ``found`` is None until the car was weighed, ``ready`` also where more comes
    out than was there."""

    found: WheelLoads | None
    ready: WheelLoads | None
    states: tuple[LoadRow, ...]
    masses: tuple[MassRow, ...]
    missing: tuple[tuple[str, str, str], ...]  # (path, name, which figure)
    lean: Lean | None = None
    # of what comes out, goes in, rides along; found = kept + out
    sums_kg: Mapping[str, float] = field(default_factory=dict)


def level_result(assembly: Assembly) -> LevelResult:
    """Loads before and after, per load state."""
    design = assembly.design
    changes, missing = list(masses(assembly)), list(_missing(assembly))
    sums = {
        state: sum(i.weighs_kg or 0.0 for i in design.items.values() if i.state == state)
        for state in ("out", "in", "payload")
    }
    base = base_of(design)
    found = found_loads(design.vehicle, base.read if base else None)
    if base is not None:  # what was done by then is in what it weighed
        changes = [row for row in changes if not was_done(assembly, base, row.path)]
    if found is not None:
        sums |= {"found": found.total_kg, "kept": found.total_kg - sums["out"]}
    if found is None:
        return LevelResult(None, None, (), tuple(changes), tuple(missing), sums_kg=sums)
    if found.total_kg + sum(row.mass_kg for row in changes) <= 0:
        return LevelResult(found, None, (), tuple(changes), tuple(missing), sums_kg=sums)
    ready = loads_after(found, changes, design.vehicle)
    rows = []
    for key, state in sorted(design.load_states.items(), key=lambda row: (row[1].order, row[1].name)):
        aboard = [row for name in state.aboard if (row := _row(assembly, name)) is not None]
        rows.append(LoadRow(key, state.name, loads_after(found, changes + aboard, design.vehicle)))
    lean = lean_of(found, ready, design.vehicle.target)
    return LevelResult(found, ready, tuple(rows), tuple(changes), tuple(missing), lean, sums)


def base_of(design: Design) -> Weighed | None:
    """The weighing that loads are counted from: the car as found, else the first that was taken of it."""
    cars = sorted((row.order, key) for key, row in design.weighings.items() if row.kind != "box")
    first = design.weighings.get(AS_FOUND.removeprefix("weighings/"))
    return first or (design.weighings[cars[0][1]] if cars else None)


def was_done(assembly: Assembly, weighed: Weighed, path: str) -> bool:
    """Whether what changes the car's mass (a thing, a box, a mount) was done when it was weighed: stripped, all that
    comes out was out; finished, everything was done; on the way, what was said; a mount goes with its box."""
    if weighed.kind in ("as found", "finished"):
        return weighed.kind == "finished"
    kind, key = path.split("/", 1)
    if weighed.kind == "stripped":
        return kind == "items" and assembly.design.items[key].state == "out"
    if kind == "mounts":
        return f"boxes/{assembly.design.mounts[key].box}" in weighed.done
    return path in weighed.done


def masses(assembly: Assembly) -> Iterator[MassRow]:
    """What comes out (negative) and goes in, the full boxes and their mounts."""
    for key, item in sorted(
        assembly.design.items.items(), key=lambda row: (row[1].state != "out", row[1].order, row[1].name)
    ):
        if item.state in ("out", "in") and (row := _row(assembly, key)) is not None:
            yield row
    for box in assembly.in_order():
        yield from _box_rows(box, assembly)


def _row(assembly: Assembly, key: str) -> MassRow | None:
    """A thing's mass with its ±: as said, or as somebody answers for a guess; somebody who was aboard while weighed is
    one cause."""
    design, item, at = assembly.design, assembly.design.items[key], assembly.at_of(key)
    mass = item.weighs_kg
    if mass is None or at is None:
        return None
    sign = -1.0 if item.state == "out" else 1.0
    tol = max(item.tol_kg, accepted_plus_minus(design, f"/items/{key}/mass_kg") or 0.0)
    cause = f"items/{key}"
    if item.state == "payload" and (rider := _was_aboard(assembly, item.name)) is not None:
        cause, tol = person(item.name), max(tol, rider)
    places = [_place_tol(design, key, axis) for axis in range(3)]
    return MassRow(
        f"items/{key}", item.name, sign * mass, tol, at, ((cause, sign * tol),), (places[0], places[1], places[2])
    )


def _was_aboard(assembly: Assembly, name: str) -> float | None:
    """The ± of somebody of this name who was aboard while the car was weighed."""
    weighing = assembly.design.weighing
    rows = weighing.aboard.values() if weighing else ()
    return next((rider.tol_kg for rider in rows if person(rider.name) == person(name)), None)


def _place_tol(design: Design, key: str, axis: int) -> float:
    """± of a thing's place, where its reading states one."""
    reading = design.readings.get(f"/items/{key}/at_mm/{axis}") or design.readings.get(f"/items/{key}/at_mm")
    return (reading.tolerance or 0.0) if reading else 0.0


SHELL_SHARE = 0.03  # of the mass of sheet metal as drawn: rolling tolerance, welds, paint; common practice, no source
FITTINGS_SHARE = 0.25  # of links, liners and clamps, which nobody weighed: common practice, no source


def _box_rows(box: PlacedBox, assembly: Assembly) -> Iterator[MassRow]:
    """Modules of one kind are off together, so are the fittings of all boxes; each box's sheet on its own."""
    mass, causes = (box.weighed.kg, ((f"weighed:{box.id}", box.weighed.tol_kg),)) if box.weighed else computed(box)
    name = f"{box.box.name}, {'as weighed' if box.weighed else 'full'}"
    yield MassRow(box.path, name, mass, root(t for _, t in causes), box.cg, causes)
    for mount in box.mounts:
        mass = sum(p.mass_kg for p in mount.pieces)
        if mass:
            x, y, z = (sum(p.mass_kg * middle_of(p.solid)[i] for p in mount.pieces) / mass for i in range(3))
            yield MassRow(f"mounts/{mount.id}", mount.mount.name, mass, SHELL_SHARE * mass, (x, y, z))


def computed(box: PlacedBox) -> tuple[float, tuple[tuple[str, float], ...]]:
    """What a full box weighs by its figures, and by what that may be off."""
    shell = box.shell
    held, tols = Counter(m.kind for m in shell.modules), {m.kind: m.spec.tol_kg for m in shell.modules}
    causes = [(f"kind:{kind}", number * tols[kind]) for kind, number in sorted(held.items())]
    causes += [("fittings", FITTINGS_SHARE * shell.fittings_kg), (f"shell:{box.id}", SHELL_SHARE * shell.shell_kg)]
    return shell.full_kg, tuple(causes)


def root(tols: Iterable[float]) -> float:
    return math.sqrt(math.fsum(t * t for t in tols))


def _missing(assembly: Assembly) -> Iterator[tuple[str, str, str]]:
    design = assembly.design
    for key, rider in (design.weighing.aboard if design.weighing else {}).items():
        for what, figure in (("mass", rider.weighs_kg), ("place", rider.at_mm)):
            if figure is None:
                yield f"{AS_FOUND}/read/aboard/{key}", f"{rider.name} (aboard while weighing)", what
    aboard = {name for state in design.load_states.values() for name in state.aboard}
    for key, item in design.items.items():
        if item.state == "stays" or (item.state == "payload" and key not in aboard):
            continue
        if item.weighs_kg is None:
            yield f"items/{key}", item.name, "mass"
        elif item.at_mm is None:
            yield f"items/{key}", item.name, "place"
