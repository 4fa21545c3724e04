"""Forces of a rigid box on contacts of which some only push or pull.

The forces are those of least energy Σ f² / 2k with the one-sided ones not below zero; where nothing lifts they are
those of the two-way springs. Whether any forces at all balance a throw is asked first. Source: statics; thin springs,
as reactions."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from levelcradle.core.axes import Matrix
from levelcradle.core.connection import Contact
from levelcradle.core.errors import OutOfRange
from levelcradle.core.mount.reactions import G_MS2

__all__ = ["OneSided", "Springs", "can_hold", "held_all_ways", "one_sided_envelope", "springs_of"]

MOST_STEPS = 60
HALVINGS = 25
BALANCED = 1e-6  # of the largest load
LOOSE_RATIO = 1e-9
LEFT_OVER = 1e-7  # of the load
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


def held_all_ways(contacts: Sequence[Contact]) -> bool:
    """Whether their springs resist each of the six movements of a body, were each of them held both ways."""
    if not contacts:
        return False
    return _all_ways(springs_of(contacts).rows)


def _all_ways(rows: Matrix) -> bool:
    """Whether springs, by their rows, resist all six movements both ways."""
    if len(rows) < 6:
        return False
    values = np.linalg.eigvalsh(rows.T @ rows)
    return bool(values[0] > LOOSE_RATIO * values[-1])


def can_hold(contacts: Sequence[Contact], at: Matrix, force: Matrix) -> bool:
    """Whether they can balance a force (3,) through a point (3,) at all."""
    springs = springs_of(contacts)
    return _can_balance(springs, np.concatenate([force, np.cross(at - springs.middle, force) / springs.length_mm]))


def _two_way(springs: Springs, stiffness: Matrix, load: Matrix) -> Matrix:
    """(s, k, n) forces where every spring holds both ways."""
    matrix = np.einsum("sn,ni,nj->sij", stiffness, springs.rows, springs.rows)
    moved = np.linalg.solve(matrix, np.broadcast_to(load.T, (len(stiffness), *load.T.shape)))
    return np.asarray(np.einsum("sn,ni,sik->skn", stiffness, springs.rows, moved))


def _can_balance(springs: Springs, load: Matrix) -> bool:
    """Whether any admissible forces balance a load: those that hold both ways alone, where they hold all ways. Else
    these are two that push, and least squares with no force below zero mostly finds some, fast; its answer is not
    trusted but put in (of what cannot be balanced it has given nonsense), and where it does not balance a linear
    programme is asked."""
    if _all_ways(springs.rows[~springs.one]):
        return True
    from scipy.optimize import linprog, nnls  # seldom asked, and slow to load

    columns, wanted = np.hstack([springs.rows.T, -springs.rows[~springs.one].T]), load / (np.abs(load).max() or 1.0)
    forces, _ = nnls(columns, wanted)
    if np.abs(columns @ forces - wanted).max() < LEFT_OVER:
        return True
    return bool(linprog(np.zeros(columns.shape[1]), A_eq=columns, b_eq=wanted).status == 0)


def _least_energy(springs: Springs, stiffness: Matrix, load: Matrix) -> Matrix:
    """(s, k, n) forces by Newton on the six movements of all solves at once, each step halved until its energy falls
    enough (Armijo's rule)."""
    rows, one = springs.rows, springs.one
    loads, stiff = np.tile(load, (len(stiffness), 1)), np.repeat(stiffness, len(load), axis=0)
    ridge = RIDGE * (stiff @ (rows**2).sum(axis=1))[:, None, None] * np.eye(6)
    moved = _solved(stiff, rows, ridge, loads)
    todo = np.arange(len(loads))
    for _ in range(MOST_STEPS):
        left = loads[todo] - (stiff[todo] * _pressed(rows, one, moved[todo])) @ rows
        todo, left = _unbalanced(todo, left, loads)
        if not len(todo):
            forces: Matrix = stiff * _pressed(rows, one, moved)
            return forces.reshape(len(stiffness), len(load), -1)
        held = stiff[todo] * (~one | (moved[todo] @ rows.T > 0))
        step = _solved(held, rows, ridge[todo], left)
        moved[todo] = _lowered(springs, stiff[todo], loads[todo], moved[todo], step, (left * step).sum(axis=1))
    raise OutOfRange("No forces were found that balance the box on what carries it.")


def _pressed(rows: Matrix, one: NDArray[np.bool_], moved: Matrix) -> Matrix:
    """(r, n) how far each spring is pressed; those that only push are not pulled."""
    along = moved @ rows.T
    return np.where(one, np.maximum(along, 0.0), along)


def _solved(stiff: Matrix, rows: Matrix, ridge: Matrix, right: Matrix) -> Matrix:
    """(r, 6) movements under loads, of springs that hold both ways."""
    products = (rows[:, :, None] * rows[:, None, :]).reshape(len(rows), 36)
    matrix = (stiff @ products).reshape(-1, 6, 6) + ridge
    return np.asarray(np.linalg.solve(matrix, right[:, :, None])[:, :, 0])


def _unbalanced(todo: NDArray[np.int64], left: Matrix, loads: Matrix) -> tuple[NDArray[np.int64], Matrix]:
    more = np.abs(left).max(axis=1) > BALANCED * np.abs(loads[todo]).max(axis=1)
    return todo[more], left[more]


def _lowered(springs: Springs, stiff: Matrix, loads: Matrix, moved: Matrix, step: Matrix, slope: Matrix) -> Matrix:
    """(r, 6) movements after as much of each step as lowers its energy enough."""

    def energy(of: NDArray[np.int64], at: Matrix) -> Matrix:
        pressed = _pressed(springs.rows, springs.one, at)
        return np.asarray(0.5 * (stiff[of] * pressed**2).sum(axis=1) - (loads[of] * at).sum(axis=1))

    live, share = np.arange(len(moved)), np.ones(len(moved))
    before = energy(live, moved)
    for _ in range(HALVINGS):
        tried = energy(live, moved[live] + share[live, None] * step[live])
        live = live[tried > before[live] - 1e-4 * share[live] * slope[live]]
        if not len(live):
            break
        share[live] /= 2
    return moved + share[:, None] * step
