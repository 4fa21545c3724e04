"""What moves sweeps at least what it passes through, and not much more."""

import math
from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import TypeAdapter

from levelcradle.core.design.solid import SolidSpec, Sweep
from levelcradle.core.solids import Solid, block, mesh_solid, nearest
from levelcradle.core.sweeps import BOUND_MM, pieces_of, scan_swept

SPEC: TypeAdapter[SolidSpec] = TypeAdapter(SolidSpec)
SWEEP: TypeAdapter[Sweep] = TypeAdapter(Sweep)
BLOCK = {"type": "block", "low_mm": [0.0, -50.0, 300.0], "high_mm": [400.0, 50.0, 320.0]}
ROD = {"type": "rod", "start_mm": [0.0, 600.0, 290.0], "end_mm": [0.0, 780.0, 290.0], "radius_mm": 290.0}


def swept(spec: dict[str, Any], sweep: dict[str, Any] | None = None) -> tuple[Solid, ...]:
    return pieces_of(SPEC.validate_python(spec), SWEEP.validate_python(sweep) if sweep else None)


def gap_to(pieces: tuple[Solid, ...], point: Any) -> float:
    x, y, z = (float(v) for v in point)
    dot = block((x - 1e-4, y - 1e-4, z - 1e-4), (x + 1e-4, y + 1e-4, z + 1e-4))
    return min(nearest(dot, piece).gap_mm for piece in pieces)


def test_a_slide_is_exact() -> None:
    pieces = swept(BLOCK, {"type": "travel", "from_by_mm": [0, 0, -40.0], "to_by_mm": [0, 0, 90.0]})
    assert len(pieces) == 1
    assert (pieces[0].low[2], pieces[0].high[2]) == (260.0, 410.0)


HINGES = [(0.0, 70.0), (-110.0, 0.0), (0.0, 180.0)]


@pytest.mark.parametrize(("start", "end"), HINGES)
def test_a_hinged_panel_against_dense_sampling(start: float, end: float) -> None:
    """Every corner at a thousand angles lies in the sweep, and the sweep stands off the arc by no more than it says."""
    axis = {"type": "hinge", "about_mm": [0.0, 0.0, 300.0], "axis": [0.0, 1.0, 0.0], "from_deg": start, "to_deg": end}
    pieces = swept(BLOCK, axis)
    for angle in np.radians(np.linspace(start, end, 1000)):
        tip = (400 * math.cos(angle), 0.0, 300 - 400 * math.sin(angle))
        assert gap_to(pieces, tip) <= 1e-3
    reach = math.hypot(400, 20)
    for angle in np.radians(np.linspace(start, end, 97)):
        beyond = reach + BOUND_MM + 0.01
        assert gap_to(pieces, (beyond * math.cos(angle), 0.0, 300 - beyond * math.sin(angle))) > 0


def test_a_wheel_through_lock_and_bump() -> None:
    pieces = swept(
        ROD, {"type": "wheel", "bump_mm": 70.0, "droop_mm": 60.0, "lock_deg": 35.0, "pivot_mm": [0.0, 600.0, 290.0]}
    )
    assert min(p.low[2] for p in pieces) == pytest.approx(-60, abs=3)
    assert max(p.high[2] for p in pieces) == pytest.approx(290 + 290 + 70, abs=3)
    for turn in np.radians(np.linspace(-35, 35, 41)):  # the tyre's foremost edge at either side of it
        for out in (0.0, 180.0):
            edge = (
                -290 * math.cos(turn) - out * math.sin(turn),
                600 - 290 * math.sin(turn) + out * math.cos(turn),
                290.0,
            )
            assert gap_to(pieces, edge) <= 1e-3


def test_an_axle_through_bump_droop_and_articulation() -> None:
    axle = {"type": "block", "low_mm": [2400.0, -600.0, 250.0], "high_mm": [2500.0, 600.0, 350.0]}
    pieces = swept(axle, {"type": "axle", "bump_mm": 80.0, "droop_mm": 70.0, "articulation_deg": 6.0})
    for height in (-70.0, 0.0, 80.0):
        for turn in np.radians(np.linspace(-6, 6, 25)):
            y, z = -600 * math.cos(turn) - 50 * math.sin(turn), -600 * math.sin(turn) + 50 * math.cos(turn)
            assert gap_to(pieces, (2450.0, y, 300 + height + z)) <= 1e-3


@pytest.mark.parametrize(
    "spec",
    [BLOCK, ROD, {"type": "prism", "outline_mm": [[0, 0], [90, 0], [0, 90]], "low_up_mm": 1.0, "high_up_mm": 5.0}],
)
def test_a_guard_stands_off_all_round(spec: dict[str, Any]) -> None:
    plain, guarded = swept(spec), swept(spec, {"type": "guard", "guard_mm": 25.0})
    for i in range(3):
        assert guarded[0].low[i] <= plain[0].low[i] - 25 + 1e-6
        assert guarded[0].high[i] >= plain[0].high[i] + 25 - 1e-6


def test_a_corridor_keeps_its_section_round_a_bend() -> None:
    path = {
        "type": "path",
        "points_mm": [[0, 0, 300], [1000, 0, 300], [1000, 500, 300]],
        "width_mm": 60.0,
        "height_mm": 40.0,
    }
    pieces = swept(path)
    assert gap_to(pieces, (500, 29.9, 319.9)) <= 0
    assert gap_to(pieces, (500, 31.0, 300)) == pytest.approx(1.0, abs=1e-3)
    assert gap_to(pieces, (1029, -29, 300)) <= 0  # the outer corner of the bend


def test_nothing_hangs_below_the_lowest_line() -> None:
    line = {"type": "below", "points_mm": [[0, 0, 180], [1000, 0, 220]], "width_mm": 1200.0}
    assert gap_to(swept(line), (500, 0, 195)) <= 0
    assert gap_to(swept(line), (500, 0, 210)) == pytest.approx(10 * math.cos(math.atan2(40, 1000)), abs=1e-2)


AXLE = {
    "type": "path",
    "points_mm": [[2480, -600, 300], [2480, 0, 300], [2480, 600, 300]],
    "width_mm": 80.0,
    "height_mm": 80.0,
}


@settings(max_examples=20)
@given(bump=st.floats(0, 90), droop=st.floats(0, 90), rock=st.floats(0, 15), bent=st.floats(-120, 120))
def test_an_axle_rocks_as_one_about_its_middle(bump: float, droop: float, rock: float, bent: float) -> None:
    """Of a run in pieces every corner, at every height and rock, lies within the sweep to 0.1 mm: none rocks about a
    middle of its own."""
    spec = {**AXLE, "points_mm": [[2480, -600, 300], [2480 + bent, 0, 300], [2480, 600, 300]]}
    pieces = swept(spec, {"type": "axle", "bump_mm": bump, "droop_mm": droop, "articulation_deg": rock})
    whole = np.concatenate([p.points for p in swept(spec)])
    middle = (whole.min(axis=0) + whole.max(axis=0)) / 2
    corners = whole[np.argsort(np.abs(whole[:, 1]))[-4:]]
    for up in (-droop, bump):
        for angle in np.radians(np.linspace(-rock, rock, 7)):
            turn = np.array([[1, 0, 0], [0, math.cos(angle), -math.sin(angle)], [0, math.sin(angle), math.cos(angle)]])
            for corner in (corners - middle) @ turn.T + middle + (0, 0, up):
                assert gap_to(pieces, corner) <= 0.1


def test_the_rocked_axle_is_as_high_as_its_end_goes() -> None:
    """600 out at 10°, 40 above the middle: 300 + 600 sin 10° + 40 cos 10° = 443.6; in pieces that rock alone it would
    be 398."""
    pieces = swept(AXLE, {"type": "axle", "bump_mm": 0.0, "droop_mm": 0.0, "articulation_deg": 10.0})
    assert (
        max(p.high[2] for p in pieces)
        >= 300 + 600 * math.sin(math.radians(10)) + 40 * math.cos(math.radians(10)) - 0.01
    )


def scanned() -> Solid:
    """A wedge, as a scan would give it: its surface in triangles."""
    points = np.array(
        [(0, -50, 300), (400, -50, 300), (400, 60, 300), (0, 60, 300), (0, -50, 380), (0, 60, 380)], dtype=float
    )
    triangles = np.array([(0, 2, 1), (0, 3, 2), (0, 1, 4), (3, 5, 2), (1, 2, 5), (1, 5, 4), (0, 4, 5), (0, 5, 3)])
    return mesh_solid(points, triangles, slack_mm=2.0, closed=True, inside=False)


@settings(max_examples=20)
@given(share=st.floats(0, 1), slack=st.floats(0, 8), way=st.sampled_from(range(3)), sign=st.sampled_from([-1, 1]))
def test_a_scan_that_slides_sweeps_all_it_may_be_off_by_and_no_more(
    share: float, slack: float, way: int, sign: int
) -> None:
    slide = SWEEP.validate_python({"type": "travel", "from_by_mm": [0, 0, -30.0], "to_by_mm": [0, 20.0, 90.0]})
    pieces = scan_swept(scanned(), slide, slack)
    off = np.zeros(3)
    off[way] = sign * slack
    for corner in scanned().points:
        assert gap_to(pieces, corner + np.array((0, 20.0 * share, -30 + 120 * share)) + off) <= 1e-3
    assert pieces[0].low == pytest.approx((-slack, -50 - slack, 270 - slack))
    assert pieces[0].high == pytest.approx((400 + slack, 80 + slack, 470 + slack))


@pytest.mark.parametrize("slack", [0.0, 4.0])
def test_what_a_scanned_part_throws_is_kept_off_all_round(slack: float) -> None:
    """Both count: how far it flaps, and what the scan may be off."""
    (piece,) = scan_swept(scanned(), SWEEP.validate_python({"type": "guard", "guard_mm": 25.0}), slack)
    by = 25.0 + slack
    assert (piece.low, piece.high) == ((-by, -50 - by, 300 - by), (400 + by, 60 + by, 380 + by))
