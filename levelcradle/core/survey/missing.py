"""What is still to measure for a goal, sorted by how much it could move the answer; and what to measure twice."""

from collections.abc import Iterator, Mapping
from copy import deepcopy
from dataclasses import dataclass
from typing import Any, Literal

from levelcradle.core.assembly import resolve
from levelcradle.core.clearance import gap_findings
from levelcradle.core.design import Design, tree_of, validate
from levelcradle.core.design.design import AS_FOUND
from levelcradle.core.design.pointer import find
from levelcradle.core.design.readings import NOT_TAKEN, kind_of
from levelcradle.core.design.taken import as_taken
from levelcradle.core.design.vehicle import Axles, CgGiven
from levelcradle.core.design.words import words_of
from levelcradle.core.errors import DesignError
from levelcradle.core.finding import Finding
from levelcradle.core.meshes import Mesh

__all__ = ["TWICE_MM", "Goal", "ToMeasure", "still_to_measure", "twice", "unseen"]

Goal = Literal["clearances", "loads", "level"]
TWICE_MM = 5.0  # a tape misread by a thumb's breadth of its figures: common practice, no source
GUESS = 0.2  # how far a guessed mass may be off: common practice, no source
MOST = 60


@dataclass(frozen=True, slots=True)
class ToMeasure:
    """One figure to take: where it stands, what to take, why, and how far the answer may move (None: nobody can
    say)."""

    path: str
    what: str
    why: str
    moves: float | None
    unit: Literal["kg", "mm"]


def still_to_measure(design: Design, goal: Goal) -> list[ToMeasure]:
    """What is missing or only assumed for a goal, what matters most first; what nobody can put a number to before
    all."""
    rows = {"clearances": _clearances, "loads": _loads, "level": _level}[goal](as_taken(design))
    return sorted(
        [*_not_taken(design, goal), *rows], key=lambda row: (row.moves is not None, -(row.moves or 0.0), row.what)
    )


def _not_taken(design: Design, goal: Goal) -> Iterator[ToMeasure]:
    """Figures that something new was begun with, and that nobody took: lengths for clearances, all else and the vehicle
    for loads."""
    tree = tree_of(design)
    for path, reading in design.readings.items():
        is_gap = kind_of(path) == "length" and not path.startswith("/vehicle/")
        if reading.basis == NOT_TAKEN and is_gap == (goal == "clearances"):
            yield ToMeasure(
                path[1:], words_of(tree, path), "not taken", None, "mm" if kind_of(path) == "length" else "kg"
            )


def _loads(design: Design) -> Iterator[ToMeasure]:
    vehicle, weighing = design.vehicle, design.weighing
    if weighing is None:
        yield ToMeasure(AS_FOUND, "what the car weighs, two axle readings or four wheels", "missing", None, "kg")
    elif weighing.type == "total":
        off = weighing.total_kg * weighing.front_tol_percent / 100
        yield ToMeasure(AS_FOUND, "each axle on its own", "the split is assumed", off, "kg")
    else:
        yield ToMeasure(AS_FOUND, "the axles on a finer scale", "half a step each", weighing.step_kg / 2, "kg")
    aboard = {name for state in design.load_states.values() for name in state.aboard}
    for key, item in design.items.items():
        if item.state == "stays" or (item.state == "payload" and key not in aboard):
            continue
        path, mass = f"items/{key}", item.weighs_kg
        share = abs(item.at_mm[0] / vehicle.wheelbase_mm) if item.at_mm else 1.0
        lever = max(share, abs(1 - share)) if item.at_mm else 1.0
        reading = design.readings.get(f"/{path}/mass_kg")
        if mass is None:
            yield ToMeasure(f"{path}/mass_kg", f"mass of {item.name}", "missing", None, "kg")
        elif reading and reading.basis == "assumed":
            yield ToMeasure(
                f"{path}/mass_kg", f"mass of {item.name}", "a guess", max(item.tol_kg, GUESS * mass) * lever, "kg"
            )
        elif item.tol_kg > 0:
            yield ToMeasure(
                f"{path}/mass_kg", f"mass of {item.name}, finer", f"± {item.tol_kg:g} kg", item.tol_kg * lever, "kg"
            )
        if item.at_mm is None and mass is not None:
            yield ToMeasure(f"{path}/at_mm", f"where {item.name} sits", "missing", mass, "kg")


def _level(design: Design) -> Iterator[ToMeasure]:
    vehicle, weighing = design.vehicle, design.weighing
    if isinstance(weighing, Axles) and weighing.left_kg is None:
        yield ToMeasure(AS_FOUND, "left and right wheels apart", "left/right not weighed", None, "kg")
    if vehicle.track_mm is None:
        yield ToMeasure("vehicle/track_mm", "the tracks", "missing", None, "mm")
    if vehicle.cg_height is None:
        yield ToMeasure("vehicle/cg_height", "height of the CG, by lifting an axle", "missing", None, "mm")
    elif isinstance(vehicle.cg_height, CgGiven) and vehicle.cg_height.basis == "assumed":
        yield ToMeasure(
            "vehicle/cg_height", "height of the CG, by lifting an axle", "assumed", vehicle.cg_height.tolerance_mm, "mm"
        )
    yield from _loads(design)


def unseen(design: Design) -> Iterator[ToMeasure]:
    """What no gap is checked against, since nobody measured it."""
    for key, bay in design.bays.items():
        for side in bay.sides.not_measured:
            yield ToMeasure(f"bays/{key}/sides/{side}", f"{bay.name}: its {side} side", "not measured", None, "mm")
    for key, item in design.items.items():
        if item.state in ("stays", "in") and item.solid is None:
            yield ToMeasure(
                f"items/{key}/solid", f"{item.name}: its size", "missing: nothing is checked against it", None, "mm"
            )


def _clearances(design: Design) -> Iterator[ToMeasure]:
    yield from unseen(design)
    for key, bay in design.bays.items():
        if not any(diagonal.length_mm for diagonal in bay.diagonals.values()):
            yield ToMeasure(
                f"bays/{key}",
                f"{bay.name}: a check diagonal",
                "nothing says it is square",
                bay.tolerance_mm or 3.0,
                "mm",
            )
    for path, reading in design.readings.items():
        if reading.basis == "assumed" and kind_of(path) == "length" and not path.startswith("/vehicle/"):
            off = reading.tolerance if reading.tolerance is not None else 3.0
            yield ToMeasure(path[1:], words_of(tree_of(design), path), "assumed", off, "mm")


def twice(design: Design, meshes: Mapping[str, Mesh]) -> list[ToMeasure]:
    """The figures that, 5 mm wrong, would turn a verdict on a gap; those that turn most first.

    Each figure of each thing whose gap is near turning is moved 5 mm either way and all gaps are checked again.
    """
    before = {f.id: f for f in gap_findings(resolve(design, meshes))}
    tree = tree_of(design)
    rows = []
    for path in _near_turning(before, tree):
        turned = set[str]()
        for by in (-TWICE_MM, TWICE_MM):
            turned |= _turned(tree, path, by, before, meshes)
        if turned:
            first = before[sorted(turned)[0]]
            why = f"turns {first.label}" + (f" and {len(turned) - 1} more" if len(turned) > 1 else "")
            rows.append((len(turned), ToMeasure(path[1:], words_of(tree, path), why, TWICE_MM, "mm")))
    return [row for _, row in sorted(rows, key=lambda r: (-r[0], r[1].what))][:MOST]


def _near_turning(found: Mapping[str, Finding], tree: dict[str, Any]) -> list[str]:
    """Paths of the lengths of things whose gap lies within 5 mm of becoming another verdict."""
    paths: dict[str, None] = {}
    for finding in found.values():
        if finding.margin is None or finding.state == "note":
            continue
        if min(abs(finding.margin), abs(finding.margin - (finding.tolerance or 0.0))) > TWICE_MM:
            continue
        for subject in finding.subjects:
            steps = subject.split("/")
            thing = "/" + "/".join(steps[:2])
            if steps[0] in ("bays", "items", "members"):
                paths.update(dict.fromkeys(_lengths(find(tree, thing), thing)))
    return list(paths)


def _lengths(value: Any, path: str) -> Iterator[str]:
    """Every length under a path, without what is no measure of shape."""
    if isinstance(value, dict):
        for key, inner in value.items():
            if key not in ("at_mm", "tolerance_mm", "diagonals", "keep_clear", "ties"):
                yield from _lengths(inner, f"{path}/{key}")
    elif isinstance(value, list):
        for index, inner in enumerate(value):
            yield from _lengths(inner, f"{path}/{index}")
    elif isinstance(value, (int, float)) and not isinstance(value, bool) and kind_of(path) == "length":
        yield path


def _turned(
    tree: dict[str, Any], path: str, by: float, before: Mapping[str, Finding], meshes: Mapping[str, Mesh]
) -> set[str]:
    tried = deepcopy(tree)
    above, last = path.rsplit("/", 1)
    holder = find(tried, above)
    holder[int(last) if isinstance(holder, list) else last] += by
    try:
        after = {f.id: f.state for f in gap_findings(resolve(validate(tried), meshes))}
    except DesignError:
        return set()
    return {
        key
        for key, finding in before.items()
        if finding.margin is not None and after.get(key, "clear") != finding.state
    }
