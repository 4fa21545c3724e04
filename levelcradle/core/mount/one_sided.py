"""Forces of a rigid box on contacts of which some only push or pull.

The forces are those of least energy Σ f² / 2k with the one-sided ones not below zero; where nothing lifts they are
those of the two-way springs. Whether any forces at all balance a throw is asked first, by a linear programme. Source:
statics; thin springs, as reactions."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from levelcradle.core.axes import Matrix
from levelcradle.core.connection import Contact
from levelcradle.core.errors import OutOfRange
from levelcradle.core.mount.reactions import G_MS2

__all__ = ["OneSided", "Springs", "one_sided_envelope", "springs_of"]

MOST_STEPS = 60
HALVINGS = 25
BALANCED = 1e-6  # of the largest load
RIDGE = 1e-13  # of the stiffness: keeps a step defined while contacts are off


@dataclass(frozen=True, slots=True)
class Springs:
    """One spring a direction. ``rows``: (n, 6) what each does for unit forces and moments (scaled by ``length_mm``);
    ``one``: which only push along their direction; ``ways``: (n, 3) directions; ``contact``: of which contact each
    is."""

    rows: Matrix
    ways: Matrix
    one: NDArray[np.bool_]
    contact: NDArray[np.int64]
    middle: Matrix
    length_mm: float


@dataclass(frozen=True, slots=True)
class OneSided:
    """(2m + 1, k, n, 3) forces of the box on each contact [N], and the cases in which it lifts off (then there are no
    forces)."""

    forces: Matrix
    lifts: tuple[int, ...]


def springs_of(contacts: Sequence[Contact]) -> Springs:
    """Three springs where forces pass in all directions, one where the box only pushes or pulls."""
    points = np.array([c.at for c in contacts], dtype=float)
    middle = points.mean(axis=0)
    length = float(np.sqrt(((points - middle) ** 2).sum() / len(points))) or 1.0
    ways, one, owner = [], [], []
    for n, contact in enumerate(contacts):
        along = np.array(contact.n)
        for way in np.eye(3) if contact.can == "both" else [-along if contact.can == "push" else along]:
            ways.append(way)
            one.append(contact.can != "both")
            owner.append(n)
    direction, contact_of = np.array(ways), np.array(owner)
    arms = (points[contact_of] - middle) / length
    return Springs(
        np.hstack([direction, np.cross(arms, direction)]), direction, np.array(one), contact_of, middle, length
    )


def one_sided_envelope(
    contacts: Sequence[Contact], mount_of: Sequence[int], cg: Matrix, mass_kg: float, throws_g: Matrix
) -> OneSided:
    """As ``reactions.envelope``: equal stiffness first, then each mount at half, then each at double.

    Args:
        mount_of: of each contact, the number of its mount.
        cg: (3,) [mm]; throws_g: (k, 3) throws on the box, weight included [g].
    Raises: OutOfRange where no forces are found for a throw that can be balanced.
    """
    springs = springs_of(contacts)
    count = max(mount_of) + 1
    factor = np.ones((2 * count + 1, count))
    factor[1 : count + 1] -= 0.5 * np.eye(count)
    factor[count + 1 :] += np.eye(count)
    own = np.array([c.stiffness for c in contacts])[springs.contact]
    stiffness = factor[:, np.array(mount_of)[springs.contact]] * own
    force = mass_kg * G_MS2 * throws_g
    load = np.hstack([force, np.cross(cg - springs.middle, force) / springs.length_mm])
    two_way = _two_way(springs, stiffness, load)
    broken = [k for k in range(len(load)) if (two_way[:, k][:, springs.one] < 0).any()]
    lifts = tuple(k for k in broken if not _can_balance(springs, load[k]))
    if lifts:
        return OneSided(np.zeros((0, 0, 0, 3)), lifts)
    if broken:
        two_way[:, broken] = _least_energy(springs, stiffness, load[broken])
    forces = np.zeros((*two_way.shape[:2], len(contacts), 3))
    for n, way in enumerate(springs.ways):
        forces[:, :, springs.contact[n]] += two_way[:, :, n, None] * way
    return OneSided(forces, ())


def _two_way(springs: Springs, stiffness: Matrix, load: Matrix) -> Matrix:
    """(s, k, n) forces where every spring holds both ways."""
    matrix = np.einsum("sn,ni,nj->sij", stiffness, springs.rows, springs.rows)
    moved = np.linalg.solve(matrix, np.broadcast_to(load.T, (len(stiffness), *load.T.shape)))
    return np.asarray(np.einsum("sn,ni,sik->skn", stiffness, springs.rows, moved))


def _can_balance(springs: Springs, load: Matrix) -> bool:
    """Whether any admissible forces balance a load (linear programme)."""
    from scipy.optimize import linprog  # seldom asked, and slow to load

    bounds = [(0, None) if one else (None, None) for one in springs.one]
    size = float(np.abs(load).max()) or 1.0
    return bool(linprog(np.zeros(len(springs.rows)), A_eq=springs.rows.T, b_eq=load / size, bounds=bounds).status == 0)


def _least_energy(springs: Springs, stiffness: Matrix, load: Matrix) -> Matrix:
    """(s, k, n) forces by Newton on the six movements, each step halved until the energy falls enough."""
    sets, cases = len(stiffness), len(load)
    solved = [[_one_case(springs, stiffness[s], load[k]) for k in range(cases)] for s in range(sets)]
    return np.array(solved)


def _one_case(springs: Springs, stiffness: Matrix, load: Matrix) -> Matrix:
    rows, one = springs.rows, springs.one
    ridge = RIDGE * float((stiffness * (rows**2).sum(axis=1)).sum()) * np.eye(6)

    def pressed(moved: Matrix) -> Matrix:
        along = rows @ moved
        return np.where(one, np.maximum(along, 0.0), along)

    def energy(moved: Matrix) -> float:
        return float(0.5 * (stiffness * pressed(moved) ** 2).sum() - load @ moved)

    moved = np.asarray(np.linalg.solve((rows.T * stiffness) @ rows + ridge, load), dtype=float)
    for _ in range(MOST_STEPS):
        left: Matrix = load - (stiffness * pressed(moved)) @ rows
        if np.abs(left).max() <= BALANCED * np.abs(load).max():
            return np.asarray(stiffness * pressed(moved))
        held = stiffness * (~one | (rows @ moved > 0))
        step = np.asarray(np.linalg.solve((rows.T * held) @ rows + ridge, left), dtype=float)
        moved = _lowered(energy, moved, step, float(left @ step))
    raise OutOfRange("No forces were found that balance the box on what carries it.")


def _lowered(energy: Callable[[Matrix], float], moved: Matrix, step: Matrix, slope: float) -> Matrix:
    """The movement after as much of a step as lowers the energy (Armijo's rule)."""
    before, share = energy(moved), 1.0
    for _ in range(HALVINGS):
        if energy(moved + share * step) <= before - 1e-4 * share * slope:
            break
        share /= 2
    return np.asarray(moved + share * step)
