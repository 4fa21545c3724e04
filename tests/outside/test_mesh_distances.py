"""Box to mesh: the kernel's distance against an exact one to every triangle of the mesh.

The exact value is the least over all triangles of a convex quadratic programme: two points, one in the box, one in the
triangle by its barycentric weights, solved as bounded least squares (scipy.optimize.lsq_linear, and the weights' sum
held by a heavy row). Source of the way: convex optimisation, any textbook."""

import numpy as np
import pytest
from scipy.optimize import lsq_linear

from levelcradle.core.axes import Placement, rotation
from levelcradle.core.solids import Solid, block, mesh_solid, nearest, surface_of

HEAVY = 1e4


def exact(size: tuple[float, float, float], placement: Placement, triangles: np.ndarray) -> float:
    """Least distance from a turned box about its middle to any triangle."""
    half = np.array(size) / 2
    best = np.inf
    for triangle in triangles:
        # unknowns: the point in the box in its own axes, then the three weights
        rows = np.hstack((placement.turn, -triangle.T))
        wanted = -np.array(placement.origin)
        rows = np.vstack((rows, HEAVY * np.array([0, 0, 0, 1, 1, 1])))
        found = lsq_linear(rows, np.append(wanted, HEAVY), bounds=([*-half, 0, 0, 0], [*half, 1, 1, 1]), tol=1e-14)
        best = min(best, float(np.linalg.norm((rows @ found.x - np.append(wanted, HEAVY))[:3])))
    return best


def ground(bumps: float) -> Solid:
    """An open surface of small hills."""
    xs = np.linspace(-200, 200, 9)
    points = np.array([(x, y, bumps * np.sin(x / 60) * np.cos(y / 45)) for x in xs for y in xs])
    cells = [(9 * i + j, 9 * i + j + 1, 9 * i + j + 9, 9 * i + j + 10) for i in range(8) for j in range(8)]
    triangles = np.array([t for a, b, c, d in cells for t in ((a, c, b), (b, c, d))], dtype=np.int64)
    return mesh_solid(points, triangles, slack_mm=0.0, closed=False, inside=False)


CASES = [
    ((100, 60, 40), (0, 0, 0), (10.0, 20.0, 90.0)), ((100, 60, 40), (30, 0, 0), (-40.0, 60.0, 75.0)),
    ((80, 80, 20), (0, 25, 10), (90.0, -70.0, 95.0)),
    ((200, 30, 30), (45, 10, -30), (0.0, 0.0, 120.0)), ((40, 40, 40), (45, 35.264, 0), (150.0, 150.0, 80.0)),
]  # fmt: skip


@pytest.mark.parametrize(("size", "turn", "at"), CASES)
@pytest.mark.parametrize("bumps", [0.0, 18.0])
def test_a_turned_box_over_hills(size: tuple[float, float, float], turn: tuple[float, float, float], at: tuple[float,
    float, float],
                                 bumps: float) -> None:  # fmt: skip
    placement = Placement(rotation(*turn), at)
    x, y, z = (s / 2 for s in size)
    box, hills = block((-x, -y, -z), (x, y, z)).moved(placement), ground(bumps)
    points, triangles = surface_of(hills)
    assert nearest(box, hills).gap_mm == pytest.approx(exact(size, placement, points[triangles]), abs=2e-3)
