"""Tapes, diagonals, scans and sweeps against geometry worked by hand and against general libraries (scipy, trimesh,
shapely)."""

import math

import numpy as np
import pytest
import shapely
import trimesh
from scipy.optimize import least_squares
from scipy.spatial import ConvexHull

from levelcradle.core.bays.diagonals import out_of_square_deg
from levelcradle.core.design.solid import Hinge, PrismSolid
from levelcradle.core.meshes import Mesh, register_points, simplified
from levelcradle.core.solids import block, mesh_solid, nearest
from levelcradle.core.survey import swing
from levelcradle.core.sweeps import pieces_of


def test_two_tapes_by_the_triangle_they_make() -> None:
    """Base 800, tapes 500 and 700: along (800² + 500² − 700²) / 1600 = 250, out √(500² − 250²) = 433.013. Source:
    geometry."""
    found = swing(((0.0, 0.0, 300.0), (800.0, 0.0, 300.0)), (500.0, 700.0), (200.0, 300.0, 300.0))
    assert found is not None
    assert found.at == pytest.approx((250.0, 433.0127, 300.0), abs=1e-3)


@pytest.mark.parametrize("seed", range(6))
def test_four_disagreeing_tapes_against_a_general_least_squares(seed: int) -> None:
    rng = np.random.default_rng(seed)
    hooks = rng.uniform(-800, 800, (4, 3))
    there = np.array([100.0, 50.0, 900.0])
    lengths = np.linalg.norm(hooks - there, axis=1) + rng.normal(0, 4, 4)
    best = least_squares(lambda p: lengths - np.linalg.norm(p - hooks, axis=1), there, xtol=1e-14, ftol=1e-14)
    found = swing([tuple(map(float, h)) for h in hooks], [float(v) for v in lengths], (110.0, 60.0, 880.0))
    assert found is not None
    assert sum(m * m for m in found.misses_mm) <= 2 * best.cost + 1e-6


def test_out_of_square_by_the_law_of_cosines() -> None:
    """3-4-5 is square; 600 and 450 with 760 enclose 92.12°. Source: geometry."""
    assert out_of_square_deg(300, 400, 500) == pytest.approx(0.0, abs=1e-9)
    assert out_of_square_deg(600, 450, 760) == pytest.approx(1.602, abs=5e-4)
    assert out_of_square_deg(100, 100, 900) is None


def ball(radius: float = 40.0) -> trimesh.Trimesh:
    return trimesh.creation.icosphere(subdivisions=5, radius=radius)


def as_mesh(found: trimesh.Trimesh) -> Mesh:
    return Mesh(np.asarray(found.vertices), np.asarray(found.faces), bool(found.is_watertight))


@pytest.mark.parametrize(
    "shape",
    [
        ball(),
        trimesh.creation.box((100, 200, 300)),
        trimesh.creation.cylinder(40, 300, sections=64),
        trimesh.creation.annulus(60, 90, 200),
    ],
    ids=["ball", "block", "cylinder", "tube"],
)
def test_mesh_volume_and_distance_against_trimesh(shape: trimesh.Trimesh) -> None:
    mesh = as_mesh(shape)
    assert mesh.volume_mm3 == pytest.approx(shape.volume, rel=1e-9)
    solid = mesh_solid(mesh.vertices, mesh.triangles, slack_mm=0.0, closed=True, inside=False)
    rng = np.random.default_rng(1)
    for spot in [p for p in rng.uniform(-400, 400, (60, 3)) if np.abs(p).max() > 160]:
        dot = block(tuple(spot - 1e-4), tuple(spot + 1e-4))
        distance = float(trimesh.proximity.closest_point_naive(shape, [spot])[1][0])
        assert nearest(dot, solid).gap_mm == pytest.approx(distance, abs=2e-3)


@pytest.mark.parametrize("tolerance", [2.0, 5.0, 12.0])
def test_a_simplified_scan_stays_within_its_tolerance(tolerance: float) -> None:
    """Hausdorff distance by dense sampling of both surfaces, either way."""
    whole = ball()
    small = simplified(as_mesh(whole), tolerance)
    assert len(small.triangles) < len(whole.faces)
    after = trimesh.Trimesh(small.vertices, small.triangles, process=False)
    for one, other in ((whole, after), (after, whole)):
        spots, _ = trimesh.sample.sample_surface(one, 120, seed=3)
        off = trimesh.proximity.closest_point_naive(other, spots)[1]
        assert off.max() <= tolerance + 1e-9


@pytest.mark.parametrize("tolerance", [0.0, 2.0, 8.0])
def test_gaps_to_a_simplified_scan_are_never_optimistic(tolerance: float) -> None:
    whole = ball()
    small = simplified(as_mesh(whole), tolerance)
    solid = mesh_solid(small.vertices, small.triangles, slack_mm=tolerance, closed=True, inside=False)
    for x in (60.0, 120.0, 400.0):
        box = block((x, -30.0, -40.0), (x + 50, 60.0, 20.0))
        exact = nearest(
            box, mesh_solid(whole.vertices, np.asarray(whole.faces), slack_mm=0.0, closed=True, inside=False)
        ).gap_mm
        assert nearest(box, solid).gap_mm <= exact + 1e-6


def test_points_that_tie_a_scan_to_the_vehicle() -> None:
    """A known turn and shift come back; a point measured 6 mm wrong shows as residual, no mirror is made."""
    turn = trimesh.transformations.rotation_matrix(0.7, (1, 2, 3))[:3, :3]
    file = np.array([(0, 0, 0), (500, 0, 0), (0, 300, 40), (200, 100, 400)], dtype=float)
    there = file @ turn.T + (2600, 40, 350)
    fit = register_points([tuple(p) for p in file], [tuple(p) for p in there])
    assert np.allclose(fit.turn, turn)
    assert fit.residual_mm < 1e-9
    there[0, 2] += 6
    fit = register_points([tuple(p) for p in file], [tuple(p) for p in there])
    assert np.linalg.det(fit.turn) == pytest.approx(1.0)
    assert 1 < fit.residual_mm < 6


def test_swept_volume_of_a_hinged_panel_against_dense_sampling() -> None:
    """A plate 300 × 8 through 80°: area swept seen from the side, against the union of 400 positions; each step may
    stand off the true sweep by 1 mm."""
    plate = PrismSolid(
        type="prism",
        outline_mm=((0.0, -50.0), (300.0, -50.0), (300.0, 50.0), (0.0, 50.0)),
        low_up_mm=500.0,
        high_up_mm=508.0,
    )
    sweep = Hinge(type="hinge", about_mm=(0.0, 0.0, 500.0), axis=(0.0, -1.0, 0.0), to_deg=80.0)
    flat = shapely.box(0, 500, 300, 508)
    true = shapely.unary_union([shapely.affinity.rotate(flat, a, origin=(0, 500)) for a in np.linspace(0, 80, 400)])
    seen = shapely.unary_union([shapely.Polygon(p.outline(0, 2)) for p in pieces_of(plate, sweep)])
    assert true.difference(seen.buffer(1e-3)).area < 1.0
    assert seen.difference(true.buffer(1.0)).area < 1.0
    volume = sum(ConvexHull(p.points).volume for p in pieces_of(plate, sweep))
    assert volume >= true.area * 100 - 1
    assert math.isclose(seen.area, true.area, rel_tol=0.03)
