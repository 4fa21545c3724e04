"""Forces of a rigid box on its mounts.

Each mount is a ball joint on springs that are equal in all directions. With equal springs everywhere the answer does
not depend on their stiffness, which is honest while the body's is unknown; then each mount in turn is taken at half
and at double stiffness, and every check runs on each of those 2N + 1 solves.
Source: statics of a rigid body on springs; the envelope is common practice, no source.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np

from levelcradle.core.axes import Matrix
from levelcradle.core.connection import Contact

__all__ = ["G_MS2", "Support", "envelope", "judge_support"]

G_MS2 = 9.80665  # standard acceleration of free fall, ISO 80000-3
LINE_RATIO = 1e-9
NEARLY_RATIO = 0.01
SAME_PLACE_MM = 1.0

SupportCondition = Literal["holds", "nearly in line", "nothing", "one", "line", "loose", "lifts off", "same place"]


@dataclass(frozen=True, slots=True)
class Support:
    """Whether a set of points can hold a rigid box, before any number.

    ``ratio`` is least to greatest eigenvalue of Σ(r²I − r rᵀ) about the centroid: 0 where all lie in a line.
    """

    support_condition: SupportCondition
    ratio: float

    @property
    def holds(self) -> bool:
        return self.support_condition in ("holds", "nearly in line")


def judge_support(contacts: Sequence[Contact]) -> Support:
    """Judges what carries a box. What only pushes or pulls holds along its own direction.

    >>> judge_support([Contact((x, 0.0, 0.0), (0.0, 0.0, 1.0)) for x in (0.0, 300.0, 600.0)]).support_condition
    'line'
    """
    if not contacts:
        return Support("nothing", 0.0)
    points = np.array([c.at for c in contacts], dtype=float)
    if any(c.can != "both" for c in contacts):
        return _judge_loose(contacts, points)
    count = len(points)
    if count == 1:
        return Support("one", 0.0)
    apart = np.linalg.norm(points[:, None] - points[None], axis=2) + np.eye(count) * 1e9
    if apart.min() < SAME_PLACE_MM:
        return Support("same place", 0.0)
    arms = points - points.mean(axis=0)
    values = np.linalg.eigvalsh(_turning(arms))
    ratio = float(values[0] / values[-1])
    if count == 2 or ratio < LINE_RATIO:
        return Support("line", max(ratio, 0.0))
    return Support("nearly in line" if ratio < NEARLY_RATIO else "holds", ratio)


def _judge_loose(contacts: Sequence[Contact], points: Matrix) -> Support:
    """By the least of the six ways in which a box can move, against the stiffest, turns scaled by the rms distance."""
    apart = np.linalg.norm(points[:, None] - points[None], axis=2) + np.eye(len(points)) * 1e9
    if apart.min() < SAME_PLACE_MM:
        return Support("same place", 0.0)
    arms = points - points.mean(axis=0)
    arms /= float(np.sqrt((arms**2).sum() / len(arms))) or 1.0
    ways = [(n, way) for n, c in enumerate(contacts) for way in (np.eye(3) if c.can == "both" else [np.array(c.n)])]
    rows = np.array([np.concatenate([way, np.cross(arms[n], way)]) for n, way in ways])
    values = np.linalg.eigvalsh(rows.T @ rows)
    ratio = max(float(values[0] / values[-1]), 0.0)
    return Support("loose" if ratio < LINE_RATIO else "nearly in line" if ratio < NEARLY_RATIO else "holds", ratio)


def _turning(arms: Matrix) -> Matrix:
    return np.asarray((arms**2).sum() * np.eye(3) - arms.T @ arms)


def envelope(points: Matrix, cg: Matrix, mass_kg: float, throws_g: Matrix, springs: Matrix | None = None) -> Matrix:
    """(2n + 1, k, n, 3) forces of the box on each mount [N]: equal springs first, or as stiff as is said, then each at
    half, then at double.

    Args:
        points: (n, 3) mounts that hold (judge_support), vehicle axes [mm].
        cg: (3,) centre of gravity of the full box [mm].
        throws_g: (k, 3) throws on the box, weight included [g].
        springs: (n,) how stiff each is beside the others.
    """
    count = len(points)
    stiffness = np.ones((2 * count + 1, count))
    stiffness[1 : count + 1] -= 0.5 * np.eye(count)
    stiffness[count + 1 :] += np.eye(count)
    stiffness = stiffness if springs is None else stiffness * springs
    arms = points - points.mean(axis=0)
    length = float(np.sqrt((arms**2).sum() / count))  # turns are scaled by the rms distance, so the equations are even
    spin = _cross_matrix(arms) / length
    forces = mass_kg * G_MS2 * throws_g
    moments = np.cross(cg - points.mean(axis=0), forces) / length
    matrix = np.zeros((len(stiffness), 6, 6))
    matrix[:, :3, :3] = stiffness.sum(axis=1)[:, None, None] * np.eye(3)
    matrix[:, :3, 3:] = -np.einsum("sn,nij->sij", stiffness, spin)
    matrix[:, 3:, :3] = np.einsum("sn,nij->sij", stiffness, spin)
    matrix[:, 3:, 3:] = -np.einsum("sn,nij,njk->sik", stiffness, spin, spin)
    right = np.concatenate([forces, moments], axis=1).T
    solved = np.linalg.solve(matrix, np.broadcast_to(right, (len(stiffness), *right.shape)))
    shift, turn = solved[:, :3], solved[:, 3:]
    moved = shift[:, None] - np.einsum("nij,sjk->snik", spin, turn)
    return np.asarray(np.einsum("sn,snik->skni", stiffness, moved))


def _cross_matrix(arms: Matrix) -> Matrix:
    """(n, 3, 3): matrix @ v = arm × v."""
    x, y, z = arms.T
    zero = np.zeros(len(arms))
    return np.array([[zero, -z, y], [z, zero, -x], [-y, x, zero]]).transpose(2, 0, 1)
