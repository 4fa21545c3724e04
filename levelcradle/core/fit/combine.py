"""Loads of bays combined to the wanted count by a constraint solver, once for each thing that may matter most."""

import math
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from itertools import product
from math import dist, prod
from typing import TYPE_CHECKING

import numpy as np

from levelcradle.core.assembly import resolve, stands
from levelcradle.core.axes import Vec, plus, scaled, vec
from levelcradle.core.box import shell_of
from levelcradle.core.design import Design
from levelcradle.core.fit.cutting import points_to_make
from levelcradle.core.fit.options import Option
from levelcradle.core.fit.wanted import Wanted, held_in
from levelcradle.core.fit.wishes import Wishes
from levelcradle.core.level import level_result

if TYPE_CHECKING:
    from ortools.sat.python import cp_model

__all__ = ["BayCandidate", "combinations", "most_unrated"]

EACH = 3  # solutions asked for with each emphasis
SECONDS = 1.0


@dataclass(frozen=True, slots=True)
class BayCandidate:
    """What a bay holds: its boxes with their mass, centre of gravity and volume, how far cables go to the motor's end,
    the corners of its boxes and how many mounting points have to be made for them."""

    bay: str
    options: tuple[Option, ...]
    modules: int
    mass_kg: float
    cg_mm: Vec
    litres: float
    cable_mm: float
    outer_mm: tuple[Vec, ...]
    to_make: int = 0

    @staticmethod
    def of(design: Design, bay: str, options: tuple[Option, ...]) -> "BayCandidate":
        mass, moment, litres, outers, middles, outsides = 0.0, (0.0, 0.0, 0.0), 0.0, [], [], []
        for option in options:
            box = option.box
            shell = shell_of(box, design.module_kinds, design.tables)
            placement = stands(box.pose, shell.outer_mm)
            at = placement.point(shell.cg)
            mass, moment = mass + shell.full_kg, plus(moment, scaled(at, shell.full_kg))
            litres += prod(shell.outer_mm) * 1e-6
            outers.append(shell.outer_mm)
            middles.append(at)
            corners = placement.points(np.array(list(product(*((0.0, v) for v in shell.outer_mm)))))
            outsides.append((vec(corners.min(axis=0)), vec(corners.max(axis=0))))
        end = _gear(design)
        cable = sum(dist(a, end) for a in middles)
        return BayCandidate(
            bay,
            options,
            sum(o.modules for o in options),
            mass,
            scaled(moment, 1 / mass),
            litres,
            cable,
            tuple(outers),
            points_to_make(design, outsides),
        )


def _gear(design: Design) -> Vec:
    """Where the cables of all boxes meet: the junction box, else the motor control, else the front axle's middle."""
    at = {i.role: i.at_mm for i in design.items.values() if i.state == "in" and i.at_mm}
    return at.get("junction") or at.get("motor control") or (0.0, 0.0, 400.0)


EMPHASES: tuple[tuple[float, ...], ...] = (
    # count, balance, low, boxes, cable, cutting
    (100, 3, 2, 2, 1, 1),
    (100, 50, 1, 1, 1, 1),
    (100, 1, 50, 1, 1, 1),
    (100, 1, 1, 50, 1, 1),
    (100, 1, 1, 1, 50, 1),
    (100, 1, 1, 1, 1, 50),
    (10, 50, 10, 10, 1, 1),
)


def combinations(
    design: Design,
    loads: Mapping[str, Sequence[BayCandidate]],
    wanted: Wanted,
    wishes: Wishes,
    stop: Callable[[], bool],
) -> Iterator[tuple[BayCandidate, ...]]:
    """Choices of at most one load a bay that together hold what is wanted, each once."""
    rows, car = [load for bay in loads.values() for load in bay], _Car.of(design)
    seen: set[tuple[int, ...]] = set()
    for emphasis in EMPHASES:
        for _ in range(EACH):
            if stop():
                return
            chosen = _solve(design, car, rows, wanted, wishes, emphasis, seen)
            if chosen is None:
                break
            seen.add(chosen)
            yield tuple(rows[i] for i in chosen)


def most_unrated(design: Design, loads: Mapping[str, Sequence[BayCandidate]], wanted: Wanted, wishes: Wishes) -> int:
    """How many modules would be taken if nothing of the car were rated."""
    rows = [load for bay in loads.values() for load in bay]
    chosen = _solve(design, _Car(0, {}), rows, wanted, wishes, EMPHASES[0], set())
    return sum(rows[i].modules for i in chosen or ())


def _solve(
    design: Design,
    car: "_Car",
    rows: Sequence[BayCandidate],
    wanted: Wanted,
    wishes: Wishes,
    emphasis: tuple[float, ...],
    seen: set[tuple[int, ...]],
) -> tuple[int, ...] | None:
    """The best choice that was not made before. The solver works in whole numbers: moments in tenths of a
    kilogram-metre, lengths in centimetres."""
    from ortools.sat.python import cp_model  # dear to import, and only studies need it

    model = cp_model.CpModel()
    take = [model.new_bool_var("") for _ in rows]
    for bay in {load.bay for load in rows}:
        model.add_at_most_one(take[i] for i, load in enumerate(rows) if load.bay == bay)
    number = model.new_int_var_from_domain(cp_model.Domain.from_values(list(wanted.totals)), "")
    model.add(number == sum(t * load.modules for t, load in zip(take, rows, strict=True)))
    _hold_to(model, take, [held_in(option.box for option in load.options) for load in rows], wanted)
    for old in seen:
        model.add_bool_or([take[i].negated() if i in old else take[i] for i in range(len(rows))])
    if wishes.one_size:
        for i, one in enumerate(rows):
            for j, other in enumerate(rows[:i]):
                if one.bay != other.bay and set(one.outer_mm) != set(other.outer_mm):
                    model.add_at_most_one(take[i], take[j])
    off = model.new_int_var(0, 10**7, "")
    aim = _aim(design)
    moment = (
        sum(t * round(load.mass_kg * (load.cg_mm[0] - aim) / 100) for t, load in zip(take, rows, strict=True)) + car.off
    )
    model.add(off >= moment)
    model.add(off >= -moment)
    price = sum(t * round(_price(load, emphasis)) for t, load in zip(take, rows, strict=True))
    for where, spare in car.spare_kg.items():
        model.add(
            sum(t * _borne(design, load, where) for t, load in zip(take, rows, strict=True)) <= math.ceil(spare * 10)
        )
    model.minimize(round(emphasis[1]) * off + price - number * round(emphasis[0] * 1000))
    solver = cp_model.CpSolver()
    solver.parameters.max_time_in_seconds, solver.parameters.num_workers, solver.parameters.random_seed = SECONDS, 1, 1
    if solver.solve(model) not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return None
    return tuple(i for i, t in enumerate(take) if solver.value(t))


def _price(load: BayCandidate, emphasis: tuple[float, ...]) -> float:
    _, _, low, boxes, cable, cutting = emphasis
    height = load.mass_kg * load.cg_mm[2] / 100
    return low * height + boxes * 200 * len(load.options) + cable * load.cable_mm / 10 + cutting * 50 * load.to_make


def _hold_to(
    model: "cp_model.CpModel", take: Sequence["cp_model.IntVar"], held: Sequence[Mapping[str, int]], wanted: Wanted
) -> None:
    """No more of a kind than are left, as many in every string, and the strings within the window, in hundredths of a
    volt."""
    series = {k: model.new_int_var(0, left // wanted.parallel, "") for k, left in wanted.left.items()}
    for kind, number in series.items():
        model.add(number * wanted.parallel == sum(t * row.get(kind, 0) for t, row in zip(take, held, strict=True)))
    if wanted.window_v is not None:
        low, high = wanted.window_v
        model.add(
            sum(n * math.floor(_hundredths(wanted.volts[k][0])) for k, n in series.items())
            >= math.ceil(_hundredths(low))
        )
        model.add(
            sum(n * math.ceil(_hundredths(wanted.volts[k][1])) for k, n in series.items())
            <= math.floor(_hundredths(high))
        )


def _hundredths(volts: float) -> float:
    return round(volts * 100, 6)


def _aim(design: Design) -> float:
    """How far aft the centre of gravity is wanted."""
    front = design.vehicle.target.front_percent if design.vehicle.target else 50.0
    return design.vehicle.wheelbase_mm * (1 - front / 100)


@dataclass(frozen=True, slots=True)
class _Car:
    """The car without these boxes: its moment about the aim, in tenths of a kilogram-metre, and what its axles and the
    whole of it still bear in every load state [kg]; nothing is said of what has no rating or is over it already."""

    off: int
    spare_kg: Mapping[str, float]

    @staticmethod
    def of(design: Design) -> "_Car":
        figures = level_result(resolve(design, {}))  # of weights alone: scans weigh nothing
        if figures.ready is None:
            return _Car(0, {})
        ratings, states = design.vehicle.ratings, [figures.ready, *(row.loads for row in figures.states)]
        rows = {
            "front": (ratings.front_kg, max(s.front_kg for s in states)),
            "rear": (ratings.rear_kg, max(s.rear_kg for s in states)),
            "gross": (ratings.gross_kg, max(s.total_kg for s in states)),
        }
        spare = {name: most - load for name, (most, load) in rows.items() if most is not None and most >= load}
        return _Car(round(figures.ready.total_kg * (figures.ready.aft_mm - _aim(design)) / 100), spare)


def _borne(design: Design, load: BayCandidate, where: str) -> int:
    """What a load puts on an axle or on the whole car, in tenths of a kilogram, never too much."""
    rear = load.cg_mm[0] / design.vehicle.wheelbase_mm
    return math.floor(load.mass_kg * {"front": 1 - rear, "rear": rear, "gross": 1.0}[where] * 10)
