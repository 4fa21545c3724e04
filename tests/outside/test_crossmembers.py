"""Bars across the vehicle against a general 3-D frame package, beam tables and tables of sections."""

import numpy as np
import pytest
from Pynite import FEModel3D

from levelcradle.core.bar import Angle, Flatbar, Tube
from levelcradle.core.crossmember import section_figures
from levelcradle.core.mount.beam import end_forces
from levelcradle.core.mount.crossmembers import sag_mm

E, G = 210_000.0, 80_770.0


def framed(span: float, loads: list[tuple[float, tuple[float, float, float]]], second: float) -> FEModel3D:
    """A bar on a pin and a roller by PyNiteFEA; its twist is held at one end."""
    model = FEModel3D()
    model.add_material("steel", E, G, 0.3, 7.85e-6)
    model.add_section("bar", 1000.0, second, second, second)
    model.add_node("A", 0, 0, 0)
    model.add_node("B", span, 0, 0)
    model.def_support("A", True, True, True, True, False, False)
    model.def_support("B", False, True, True, False, False, False)
    model.add_member("bar", "A", "B", "steel", "bar")
    for at, force in loads:
        for way, newtons in zip(("FX", "FY", "FZ"), force, strict=True):
            model.add_member_pt_load("bar", way, newtons, at)
    model.analyze(check_statics=False)
    return model


@pytest.mark.parametrize(
    "loads",
    [
        [(300.0, (0.0, 900.0, -4000.0))],
        [(150.0, (0.0, -2500.0, 3100.0)), (610.0, (0.0, 700.0, 1200.0)), (700.0, (0.0, 0.0, -900.0))],
    ],
)
def test_ends_and_sag_as_a_frame_package_finds_them(loads: list[tuple[float, tuple[float, float, float]]]) -> None:
    span, second = 820.0, 9.32e4
    model = framed(span, loads, second)
    forces, at = np.array([force for _, force in loads]), np.array([(mm, 0.0, 0.0) for mm, _ in loads])
    near, far = end_forces(forces, at, span)
    a, b = model.nodes["A"], model.nodes["B"]
    assert [-a.RxnFY["Combo 1"], -a.RxnFZ["Combo 1"]] == pytest.approx(near[1:].tolist(), rel=1e-6, abs=1e-3)
    assert [-b.RxnFY["Combo 1"], -b.RxnFZ["Combo 1"]] == pytest.approx(far[1:].tolist(), rel=1e-6, abs=1e-3)
    bar = model.members["bar"]
    deepest = max(abs(float(bar.deflection("dz", x))) for x in (*(mm for mm, _ in loads), span / 2))
    assert sag_mm(forces[:, 2], at[:, 0], span, E * second) == pytest.approx(deepest, rel=1e-3)


def test_a_load_in_the_middle_sags_by_the_table() -> None:
    """F L³ / 48 E I. Source: beam tables, from memory."""
    assert sag_mm(np.array([1000.0]), np.array([400.0]), 800.0, E * 9.32e4) == pytest.approx(
        1000 * 800**3 / (48 * E * 9.32e4)
    )


@pytest.mark.parametrize(
    ("size", "wall", "area_cm2", "i_cm4", "wel_cm3", "wpl_cm3"),
    [(40, 3, 4.21, 9.32, 4.66, 5.72), (50, 4, 6.95, 23.7, 9.49, 11.7), (60, 4, 8.55, 43.6, 14.5, 17.6)],
)
def test_square_tubes_as_in_the_table(
    size: float, wall: float, area_cm2: float, i_cm4: float, wel_cm3: float, wpl_cm3: float
) -> None:
    """EN 10219-2, annex B, cold-formed square hollow sections, from memory."""
    figures = section_figures(Tube(size, wall))
    assert figures.area_mm2 / 100 == pytest.approx(area_cm2, rel=5e-3)
    assert figures.second_mm4 / 1e4 == pytest.approx(i_cm4, rel=5e-3)
    assert figures.elastic_mm3[0] / 1e3 == pytest.approx(wel_cm3, rel=5e-3)
    assert figures.plastic_mm3[0] / 1e3 == pytest.approx(wpl_cm3, rel=5e-3)


def test_an_equal_angle_as_in_the_table() -> None:
    """50 × 50 × 5: A 4.80 cm², e 1.40 cm, I 11.0 cm⁴ about its legs' ways, least I 4.55 cm⁴. Source: EN 10056-1 tables,
    from memory; rounds at the root make the difference."""
    figures = section_figures(Angle(50, 5))
    assert figures.area_mm2 / 100 == pytest.approx(4.80, rel=0.02)
    assert figures.middle_mm[1] / 10 == pytest.approx(1.40, rel=0.03)
    # free to go sideways it sags by (Iy Iz − Iyz²) / Iz, which is Iu Iv / I
    assert figures.second_mm4 / 1e4 == pytest.approx(17.4 * 4.55 / 11.0, rel=0.04)
    assert figures.elastic_mm3[0] < 11.0e4 / (50 - 14.0)  # bent across its axes it bears less than about one of them


def test_a_flat_as_in_the_table() -> None:
    """b t³ / 12, b t² / 6, b t² / 4; torsion b t² / 3. Source: mechanics of materials."""
    figures = section_figures(Flatbar(60, 10))
    assert figures.second_mm4 == 60 * 1000 / 12
    assert (figures.elastic_mm3[0], figures.plastic_mm3[0], figures.twisted_mm3) == (1000.0, 1500.0, 2000.0)
