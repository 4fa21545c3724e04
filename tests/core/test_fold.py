"""A blank folded along its lines is the box, and the bracket, that it was drawn for."""

import copy
from dataclasses import replace
from typing import Any

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from levelcradle.core.assembly import PlacedBox, resolve
from levelcradle.core.axes import Placement
from levelcradle.core.design import validate
from levelcradle.core.errors import OutOfRange
from levelcradle.core.fabricate import parts_of
from levelcradle.core.fold import fold
from levelcradle.core.part import Bend, FlatPart, Stand
from levelcradle.core.solids import corner_points
from tests.conftest import DEMO


def made(changes: dict[str, Any] | None = None) -> tuple[PlacedBox, dict[str, FlatPart]]:
    tree = copy.deepcopy(DEMO)
    tree["boxes"]["tank"] |= changes or {}
    assembly = resolve(validate(tree), {})
    return assembly.boxes["tank"], {one.id: one for part in parts_of(assembly) for one in part.each}


def extent(part: FlatPart, frame: Placement) -> tuple[list[float], list[float]]:
    """Of the folded part, in the frame of the box."""
    points = frame.inverse.points(corner_points(list(fold(part).solids())))
    return points.min(axis=0).tolist(), points.max(axis=0).tolist()


@given(
    thickness=st.sampled_from([1.0, 1.5, 2.0, 3.0, 4.0]),
    radius=st.floats(0.5, 8.0),
    yaw=st.sampled_from([0.0, 90.0, 33.0]),
    chamfer=st.sampled_from([None, ("base", "aft"), ("front", "left"), ("base", "left")]),
)
def test_tray_and_lid_come_out_as_large_as_the_box(
    thickness: float, radius: float, yaw: float, chamfer: tuple[str, str] | None
) -> None:
    cut = {"a": {"edge": chamfer, "mm": (40.0, 55.0)}} if chamfer else {}
    pose = DEMO["boxes"]["tank"]["pose"] | {"yaw_deg": yaw}
    folded = {"type": "folded", "thickness_mm": thickness, "bend_radius_mm": radius}
    box, parts = made({"construction": folded, "chamfers": cut, "pose": pose})
    assume("tank-tray" in parts)
    low, high = extent(parts["tank-tray"], box.placement)
    assert low == pytest.approx([0, 0, 0], abs=1e-6)
    assert high == pytest.approx(box.shell.outer_mm, abs=1e-6)
    over, outer = box.shell.over_mm, box.shell.outer_mm
    out = (over[0] - outer[0]) / 2
    low, high = extent(parts["tank-lid"], box.placement)
    assert low[:2] == pytest.approx([-out, -out], abs=1e-6)
    assert high == pytest.approx([outer[0] + out, outer[1] + out, over[2]], abs=1e-6)


def test_a_bracket_folds_onto_the_vehicle_and_the_wall() -> None:
    """Against the solids that loads and gaps are worked out with, which know nothing of the blank."""
    box, parts = made()
    for mount in box.mounts:
        for part_id in {piece.part for piece in mount.pieces} - {""}:
            mine = [piece.solid for piece in mount.pieces if piece.part == part_id]
            there = corner_points(mine)
            found = corner_points(list(fold(parts[part_id]).solids()))
            assert found.min(axis=0) == pytest.approx(there.min(axis=0), abs=1e-6)
            assert found.max(axis=0) == pytest.approx(there.max(axis=0), abs=1e-6)


@pytest.mark.parametrize("part_id", ["tank-tray", "tank-lid", "tank-lf-angle", "tank-lf-doubler"])
def test_folding_keeps_the_metal(part_id: str) -> None:
    """Flats keep their area; a bend's middle is longer than its neutral fibre by (1/2 - K) t times its angle."""
    _, parts = made()
    part = parts[part_id]
    points, triangles = fold(part).mesh()
    a, b, c = (points[triangles[:, n]] for n in range(3))
    volume = float(np.einsum("ij,ij->i", a, np.cross(b, c)).sum() / 6)
    t = part.thickness_mm
    more = sum(
        np.hypot(*np.subtract(bend.end, bend.start))
        * t
        * (np.radians(bend.angle_deg) * (bend.radius_mm + t / 2) - bend.allowance_mm)
        for bend in part.bends
    )
    assert volume == pytest.approx(part.area_mm2 * t + more, rel=2e-3)  # holes and bends are many-sided


def test_a_bend_that_does_not_part_the_blank_is_refused() -> None:
    _, parts = made()
    tray = parts["tank-tray"]
    short = Bend((0.0, 0.0), (50.0, 0.0), 90.0, 3.0, True, 6.0)
    with pytest.raises(OutOfRange):
        fold(replace(tray, bends=(*tray.bends, short)))


@given(angle=st.floats(10, 170), up=st.booleans(), radius=st.floats(0.0, 20.0))
def test_a_strip_bent_once_ends_where_trigonometry_says(angle: float, up: bool, radius: float) -> None:
    """Two legs of 100 mm, tangent to a bend: the far end of the lower side is 100 mm along the turned way beyond it."""
    t, allowance = 2.0, 7.0
    bend = Bend((100.0 + allowance / 2, 0.0), (100.0 + allowance / 2, 30.0), angle, radius, up, allowance)
    outline = ((0.0, 0.0), (200.0 + allowance, 0.0), (200.0 + allowance, 30.0), (0.0, 30.0))
    still = Stand((1.0, 1.0), Placement(np.eye(3), (0.0, 0.0, 0.0)))
    part = FlatPart("a", "a", 1, "x", "x", t, 1.0, outline, (), (bend,), stand=still)
    far = fold(part).flats[1].placement.point((200.0 + allowance, 15.0, 0.0))
    turn, out = np.radians(angle), radius + t if up else radius  # of the lower side about the bend's middle
    sign = 1.0 if up else -1.0
    assert far[0] == pytest.approx(100.0 + out * np.sin(turn) + 100.0 * np.cos(turn), abs=1e-6)
    assert far[2] == pytest.approx(sign * (out * (1 - np.cos(turn)) + 100.0 * np.sin(turn)), abs=1e-6)
