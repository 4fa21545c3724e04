"""Bend allowance and sheet mass against handbook rules.

Source: bend allowance BA = A (R + K t), deduction 2 tan(A/2)(R + t) − BA, as Machinery's Handbook and sheet-metal texts
give them; the handbook's own constants L = c T + 1.57 R, c from memory. Densities from memory.
"""

import math

import pytest

from levelcradle.core.box.folded.flat_pattern import FlatPattern, SheetBend, pan_outline
from levelcradle.core.part import FlatPart, bend_allowance_mm, bend_deduction_mm


@pytest.mark.parametrize(
    ("angle", "allowance", "deduction", "flat"),
    [(90.0, 4.46106, 3.53894, 76.4611), (60.0, 2.97404, 1.64476, 78.3552)],
)
def test_bends_of_2_mm_sheet_round_2_mm(angle: float, allowance: float, deduction: float, flat: float) -> None:
    """Legs 50 and 30 to the outside apex, K 0.42."""
    assert bend_allowance_mm(angle_deg=angle, radius_mm=2, thickness_mm=2, k=0.42) == pytest.approx(allowance, rel=1e-4)
    found = bend_deduction_mm(angle_deg=angle, radius_mm=2, thickness_mm=2, k=0.42)
    assert found == pytest.approx(deduction, rel=1e-4)
    assert 50 + 30 - found == pytest.approx(flat, rel=1e-4)


def test_above_90_degrees_the_deduction_is_refused() -> None:
    with pytest.raises(ValueError, match="up to 90"):
        bend_deduction_mm(angle_deg=120, radius_mm=2, thickness_mm=2, k=0.42)


@pytest.mark.parametrize(("c", "k"), [(0.55, 0.350141), (0.64, 0.407437), (0.71, 0.452)])
def test_the_handbooks_constants_are_k_factors(c: float, k: float) -> None:
    """L = c T + 1.57 R for a right angle: soft copper 0.55, soft steel 0.64, hard copper and bronze 0.71."""
    for radius, thickness in ((2.0, 2.0), (3.0, 1.5)):
        found = bend_allowance_mm(angle_deg=90, radius_mm=radius, thickness_mm=thickness, k=k)
        assert found == pytest.approx(c * thickness + math.pi / 2 * radius, rel=1e-3)


def test_k_of_a_measured_test_strip() -> None:
    """Blank 100.00, legs 40.20 and 63.55 outside after one bend, t 2, R 2.5: deduction 3.75, K 0.421127."""
    assert bend_deduction_mm(angle_deg=90, radius_mm=2.5, thickness_mm=2, k=0.421127) == pytest.approx(3.75, rel=1e-4)


def test_blank_of_an_open_tray() -> None:
    """Outside 400 × 250 × 60, t 1.5, R 1.5, K 0.44: 514.786 × 364.786."""
    deduction = bend_deduction_mm(angle_deg=90, radius_mm=1.5, thickness_mm=1.5, k=0.44)
    assert deduction == pytest.approx(2.60708, rel=1e-5)
    outline = pan_outline(FlatPattern(400, 250, 60, SheetBend(1.5, 1.5, deduction, "K 0.44")))
    part = FlatPart("x", "x", 1, "", "", 1.5, 7850, outline, (), ())
    assert part.size_mm == pytest.approx((514.786, 364.786), rel=1e-5)


@pytest.mark.parametrize(
    ("thickness", "density", "mass"),
    [(2.0, 2700.0, 0.972), (2.0, 7850.0, 2.826), (3.0, 1200.0, 0.648)],
    ids=["al", "steel", "pc"],
)
def test_mass_of_a_600_by_300_sheet(thickness: float, density: float, mass: float) -> None:
    square = ((0.0, 0.0), (600.0, 0.0), (600.0, 300.0), (0.0, 300.0))
    assert FlatPart("x", "x", 1, "", "", thickness, density, square, (), ()).mass_kg == pytest.approx(mass, rel=1e-5)


def test_flat_of_the_worked_angle() -> None:
    """t 6, R 10, K 0.42, legs 76 and 120: BA 19.666, BD 12.334, 183.666 long, 0.779 kg of S355 before its hole."""
    assert bend_allowance_mm(angle_deg=90, radius_mm=10, thickness_mm=6, k=0.42) == pytest.approx(19.666, abs=5e-4)
    deduction = bend_deduction_mm(angle_deg=90, radius_mm=10, thickness_mm=6, k=0.42)
    assert deduction == pytest.approx(12.334, abs=5e-4)
    length = 51 + 25 + 120 - deduction
    assert length == pytest.approx(183.666, abs=5e-4)
    assert length * 90 * 6 * 7850e-9 == pytest.approx(0.779, abs=5e-4)
