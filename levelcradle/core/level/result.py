"""The loads of a design: as found, ready to drive, and in each load state; with every mass that counts."""

import math
from collections import Counter
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass, field

from levelcradle.core.assembly import Assembly, PlacedBox, Weight
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
    vehicle = assembly.vehicle
    changes, missing = list(masses(assembly)), list(_missing(assembly))
    sums = {
        state: sum(w.kg or 0.0 for w in assembly.weights.values() if w.state == state)
        for state in ("out", "in", "payload")
    }
    base = base_of(assembly.weighings)
    found = found_loads(vehicle, base.read if base else None)
    if base is not None:  # what was done by then is in what it weighed
        changes = [row for row in changes if not was_done(base, row)]
    if found is not None:
        sums |= {"found": found.total_kg, "kept": found.total_kg - sums["out"]}
    if found is None:
        return LevelResult(None, None, (), tuple(changes), tuple(missing), sums_kg=sums)
    if found.total_kg + sum(row.mass_kg for row in changes) <= 0:
        return LevelResult(found, None, (), tuple(changes), tuple(missing), sums_kg=sums)
    ready = loads_after(found, changes, vehicle)
    rows = []
    for key, state in sorted(assembly.load_states.items(), key=lambda row: (row[1].order, row[1].name)):
        aboard = [
            row
            for name in state.aboard
            if name in assembly.weights and (row := _row(assembly, assembly.weights[name])) is not None
        ]
        rows.append(LoadRow(key, state.name, loads_after(found, changes + aboard, vehicle)))
    lean = lean_of(found, ready, vehicle.target)
    return LevelResult(found, ready, tuple(rows), tuple(changes), tuple(missing), lean, sums)


def base_of(weighings: Mapping[str, Weighed]) -> Weighed | None:
    """The weighing that loads are counted from: the car as found, else the first that was taken of it."""
    cars = sorted((row.order, key) for key, row in weighings.items() if row.kind != "box")
    first = weighings.get(AS_FOUND.removeprefix("weighings/"))
    return first or (weighings[cars[0][1]] if cars else None)


def was_done(weighed: Weighed, row: MassRow) -> bool:
    """Whether what changes the car's mass (a thing, a box, a mount) was done when it was weighed: stripped, all that
    comes out was out; finished, everything was done; on the way, what was said; a mount goes with its box."""
    if weighed.kind in ("as found", "finished"):
        return weighed.kind == "finished"
    if weighed.kind == "stripped":
        return row.mass_kg < 0
    return (row.goes_with or row.path) in weighed.done


def masses(assembly: Assembly) -> Iterator[MassRow]:
    """What comes out (negative) and goes in, the full boxes and their mounts."""
    for weight in assembly.weights.values():
        if weight.state != "payload" and (row := _row(assembly, weight)) is not None:
            yield row
    for box in assembly.in_order():
        yield from _box_rows(box, assembly)
    for bar in assembly.crossmembers.values():
        yield MassRow(bar.path, bar.spec.name, bar.mass_kg, SHELL_SHARE * bar.mass_kg, bar.cg)


def _row(assembly: Assembly, weight: Weight) -> MassRow | None:
    """A thing's mass with its ±; somebody who was aboard while weighed is one cause."""
    if weight.kg is None or weight.at is None:
        return None
    sign, tol, cause = -1.0 if weight.state == "out" else 1.0, weight.tol_kg, weight.path
    if weight.state == "payload" and (rider := _was_aboard(assembly, weight.name)) is not None:
        cause, tol = person(weight.name), max(tol, rider)
    causes = ((cause, sign * tol),)
    return MassRow(weight.path, weight.name, sign * weight.kg, tol, weight.at, causes, weight.place_tol_mm)


def _was_aboard(assembly: Assembly, name: str) -> float | None:
    """The ± of somebody of this name who was aboard while the car was weighed."""
    weighing = assembly.weighing
    rows = weighing.aboard.values() if weighing else ()
    return next((rider.tol_kg for rider in rows if person(rider.name) == person(name)), None)


SHELL_SHARE = 0.03  # of the mass of sheet metal as drawn: rolling tolerance, welds, paint; common practice, no source
FITTINGS_SHARE = 0.25  # of links, liners and clamps, which nobody weighed: common practice, no source


def _box_rows(box: PlacedBox, assembly: Assembly) -> Iterator[MassRow]:
    """Modules of one kind are off together, so are the fittings of all boxes; each box's sheet on its own."""
    mass, causes = (box.weighed.kg, ((f"weighed:{box.id}", box.weighed.tol_kg),)) if box.weighed else computed(box)
    name = f"{box.box.name}, {'as weighed' if box.weighed else 'full'}"
    yield MassRow(box.path, name, mass, root(t for _, t in causes), box.cg, causes)
    for mount, (mass, at) in zip(box.mounts, box.hangers, strict=True):
        if mass:
            tol = SHELL_SHARE * mass
            yield MassRow(f"mounts/{mount.id}", mount.mount.name, mass, tol, at, goes_with=box.path)


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
    for key, rider in (assembly.weighing.aboard if assembly.weighing else {}).items():
        for what, figure in (("mass", rider.weighs_kg), ("place", rider.at_mm)):
            if figure is None:
                yield f"{AS_FOUND}/read/aboard/{key}", f"{rider.name} (aboard while weighing)", what
    aboard = {name for state in assembly.load_states.values() for name in state.aboard}
    for key, weight in assembly.weights.items():
        if weight.state == "payload" and key not in aboard:
            continue
        if weight.kg is None:
            yield weight.path, weight.name, "mass"
        elif weight.at is None:
            yield weight.path, weight.name, "place"
