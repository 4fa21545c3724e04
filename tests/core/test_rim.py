"""Edges of the rim cut off: the tray ends under the slope, the lid lies on it, and neither stands in what is inside."""

import math
from itertools import combinations
from typing import Any

import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from levelcradle.core.assembly import PlacedBox, resolve
from levelcradle.core.design import validate
from levelcradle.core.design.base import FACE_AT
from levelcradle.core.fold import fold
from levelcradle.core.part import FlatPart
from levelcradle.core.solids import corner_points, nearest
from tests.plain import a_block, box_at, found, plain_car

AT = (1000.0, 0.0, 400.0)
WALLS = ("front", "aft", "left", "right")


def box(cuts: dict[str, tuple[float, float]], **more: Any) -> dict[str, Any]:
    """``cuts``: of each wall, how far along the top and down the wall."""
    chamfers = {face: {"edge": ["top", face], "mm": list(mm)} for face, mm in cuts.items()}
    return box_at(AT, (2, 2, 2), construction={"type": "folded"}, chamfers=chamfers, **more)


def placed(of: dict[str, Any]) -> tuple[PlacedBox, dict[str, FlatPart]]:
    one = resolve(validate(plain_car(boxes={"x": of})), {}).boxes["x"]
    return one, {part.id: part for part in one.shell.made.parts("x", "X")}


cut = st.tuples(st.floats(20, 90), st.floats(20, 90))


@settings(max_examples=40)
@given(st.sampled_from(WALLS), cut, st.booleans(), cut)
def test_blanks_fold_up_to_metal_on_this_side_of_the_slope_and_lie_on_each_other(
    face: str, mm: tuple[float, float], both: bool, other: tuple[float, float]
) -> None:
    """The parts themselves, folded: no corner of the tray lies beyond the plane through the two lines, none of the lid
    within it, the tray's rim and the lid's slope lie on it, and both weigh what the solids do."""
    across = {"front": "aft", "aft": "front", "left": "right", "right": "left"}[face]
    cuts = {face: mm, **({across: other} if both else {})}
    one, parts = placed(box(cuts))
    assume(parts)
    tray, lid = (corner_points(list(fold(parts[f"x-{what}"]).solids())) for what in ("tray", "lid"))
    outer = one.shell.outer_mm
    for side, (in_, down) in cuts.items():
        axis, far = FACE_AT[side]

        def over(points: Any, axis: int = axis, far: float = far, in_: float = in_, down: float = down) -> Any:
            inward = outer[axis] - points[:, axis] if far else points[:, axis]
            return (1 - inward / in_ - (outer[2] - points[:, 2]) / down) / math.hypot(1 / in_, 1 / down)

        assert over(tray).max() == pytest.approx(0.0, abs=0.05)
        assert over(lid).max() == pytest.approx(3.0, abs=0.05), "the lid's sheet lies on the plane"
        low = min(tray[:, 2].max(), outer[2] - down)
        wall = abs(tray[:, axis] - outer[axis] * far) < 0.05
        assert tray[wall, 2].max() == pytest.approx(low, abs=0.05)
        edge = abs(lid[:, axis] - (outer[axis] + 3.5 if far else -3.5)) < 0.05
        assert lid[edge, 2].min() == pytest.approx(outer[2] - down - 22.0, abs=0.05), "its edge is turned down as far"
    metal = [p for p in one.shell.pieces if p.role != "fastener"]
    assert sum(p.mass_kg for p in metal) == pytest.approx(sum(p.mass_kg for p in parts.values()), rel=1e-9)
    for a, b in combinations(metal, 2):
        if a.part != b.part and "bend" not in a.name + b.name:
            assert min(nearest(s, t).gap_mm for s in a.solids for t in b.solids) > -0.05, (a.name, b.name)


def test_screws_stand_as_far_below_each_rim_and_holes_of_lid_and_tray_meet() -> None:
    one, parts = placed(box({"left": (40.0, 50.0)}))
    height = one.shell.outer_mm[2]
    heads = [p.centre for p in one.shell.pieces if p.role == "fastener"]
    left = [at for at in heads if at[1] < 0]
    assert {round(at[2], 6) for at in left} == {round(height - 50.0 - 11.0, 6)}
    assert {round(at[2], 6) for at in heads if at not in left} == {round(height - 11.0, 6)}
    number = [sum(h.purpose == "lid screw" for h in parts[f"x-{what}"].holes) for what in ("tray", "lid")]
    assert number[0] == number[1] == len(heads)


def test_modules_keep_off_the_slope_and_a_bracket_stays_below_the_lower_rim() -> None:
    def told(in_: float, down: float) -> list[str]:
        tree = plain_car(boxes={"x": box({"left": (in_, down)})})
        return [f.state for f in found(tree, "inside") if "chamfer" in f.id]

    assert told(20.0, 20.0) == ["foul"]
    assert told(1.0, 1.0) == ["clear"]
    one, _ = placed(box({"left": (40.0, 50.0)}))
    height = one.shell.outer_mm[2]
    assert one.shell.made.wall_at("left").flat_to_mm == height - 50.0 - 22.0
    assert one.shell.made.wall_at("front").flat_to_mm == height - 50.0
    assert one.shell.made.wall_at("right").flat_to_mm == height - 22.0


def test_a_gap_beside_the_slope_is_won() -> None:
    """A bar that runs along the upper left edge, 10 off the lid's edge there."""
    height = placed(box({}))[0].shell.outer_mm[2]
    bar = a_block((900.0, -40.0, 400 + height - 10), (1600.0, -3.5 - 10, 400 + height + 20), gap_class="same")

    def gap(cuts: dict[str, tuple[float, float]]) -> float:
        tree = plain_car(boxes={"x": box(cuts)}, items={"b": bar})
        return min(float(f.value) for f in found(tree, "gap") if f.value is not None)

    assert gap({}) == pytest.approx(10.0 - 3.0)  # to the heads
    assert gap({"left": (60.0, 60.0)}) > 30.0


def test_it_is_told_that_a_slope_has_no_edge_turned_down_at_its_ends() -> None:
    one, _ = placed(box({"left": (40.0, 40.0)}))
    told = {f.label: f.state for f in one.shell.made.findings("boxes/x", "X")}
    assert told.get("lid's slope left") == "note"
    assert "foul" not in told.values()


def test_a_flange_wants_a_level_rim() -> None:
    one, parts = placed(box({"left": (40.0, 40.0)}, closures={"lid": {"type": "flange"}}))
    assert parts == {}
    assert "rim at the left" in {f.label for f in one.shell.made.findings("boxes/x", "X") if f.state == "foul"}
