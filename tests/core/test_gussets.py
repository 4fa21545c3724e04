"""Gussets carry what would bend the corner of an angle, as long as they reach where it is held and leave room for a
socket."""

from typing import Any

import pytest

from levelcradle.core.assembly import resolve
from levelcradle.core.design import validate
from levelcradle.core.fabricate import parts_of
from levelcradle.core.fold import fold
from levelcradle.core.mount import MountResult
from levelcradle.core.solids import bounds, nearest
from tests.core.hung import angles, mounts_of
from tests.plain import found

WELDED = {"type": "welded", "from_mm": 22.0, "length_mm": 90.0}
GUSSETS = {"count": 2, "thickness_mm": 5.0, "along_mm": 35.0, "up_mm": 45.0, "weld_leg_mm": 4.0}


def hung(gussets: dict[str, Any] | None, **shape: Any) -> dict[str, Any]:
    return angles(to_box=WELDED, width_mm=90.0, gussets=gussets, **shape)


def uses(tree: dict[str, Any]) -> dict[str, float]:
    """The worst of all four, by check."""
    worst: dict[str, float] = {}
    for mount in mounts_of(tree).values():
        for row in mount.rows:
            worst[row.check] = max(worst.get(row.check, 0.0), row.utilisation)
    return worst


def asks(tree: dict[str, Any]) -> list[str]:
    row: MountResult = mounts_of(tree)["left0"]
    return [words for words, fits in row.geometry if not fits]


def test_gussets_take_the_bending_off_both_legs_and_nothing_off_bolt_weld_and_wall() -> None:
    bare, stiff = uses(hung(None)), uses(hung(GUSSETS))
    assert {"gusset", "gusset weld", "fatigue in the gusset's weld"} == set(stiff) - set(bare)
    for check in ("leg A", "leg B", "fatigue at the weld's toe"):
        assert stiff[check] < bare[check]
    # they weigh something, and what hangs on the mounts is so much heavier
    for check in ("bolt", "weld", "wall", "bearing", "leg A at the bolt"):
        assert stiff[check] == pytest.approx(bare[check], rel=0.03)


def test_more_metal_in_them_is_used_less() -> None:
    one, two = (uses(hung({**GUSSETS, "count": count, "along_mm": 25.0})) for count in (1, 2))
    assert two["gusset"] == pytest.approx(one["gusset"] / 2, rel=0.03)
    thin, thick = (uses(hung({**GUSSETS, "thickness_mm": t})) for t in (5.0, 10.0))
    assert thick["gusset"] == pytest.approx(thin["gusset"] / 2, rel=0.03)
    short, long = (uses(hung({**GUSSETS, "along_mm": mm})) for mm in (25.0, 35.0))
    assert long["gusset"] < short["gusset"]
    assert long["leg A"] < short["leg A"]


@pytest.mark.parametrize(
    ("changes", "words"),
    [
        ({"count": 1, "along_mm": 50.0}, "room for a socket"),
        ({"along_mm": 60.0}, "it ends before the bolt"),
        ({"up_mm": 20.0}, "to where that is held"),
        ({"up_mm": 140.0}, "up leg B, which has"),
        ({"along_mm": 25.0, "up_mm": 30.0}, "at least 32.0 to be welded"),
        ({"thickness_mm": 1.5}, "or it buckles"),
    ],
)
def test_what_would_not_hold_or_leaves_no_room_is_foul(changes: dict[str, Any], words: str) -> None:
    assert any(words in row for row in asks(hung({**GUSSETS, **changes}))), asks(hung({**GUSSETS, **changes}))
    assert not asks(hung(GUSSETS))


@pytest.mark.parametrize("count", [1, 2])
def test_a_gusset_stands_in_the_corner_and_is_cut_as_it_stands(count: int) -> None:
    tree = hung({**GUSSETS, "count": count, "along_mm": 25.0})
    assembly = resolve(validate(tree), {})
    mount = next(m for m in assembly.boxes["x"].mounts if m.id == "left0")
    gussets = [piece for piece in mount.pieces if piece.name == "gusset"]
    others = [piece for piece in mount.pieces if piece.name in ("leg A", "leg B", "bolt head")]
    assert len(gussets) == count
    for piece in gussets:
        assert all(nearest(piece.solid, other.solid).gap_mm >= -1e-3 for other in others)
    parts = [one for part in parts_of(assembly) for one in part.each if one.id.startswith("left0-gusset")]
    assert len(parts) == count
    for part, piece in zip(parts, gussets, strict=True):
        assert part.mass_kg == pytest.approx(piece.mass_kg, rel=1e-6)
        (flat,) = fold(part).flats
        corners = [flat.placement.point((x, y, z)) for x, y in part.outline for z in (0.0, part.thickness_mm)]
        low, high = bounds([piece.solid])
        assert [min(p[i] for p in corners) for i in range(3)] == pytest.approx(low[0].tolist(), abs=1e-6)
        assert [max(p[i] for p in corners) for i in range(3)] == pytest.approx(high[0].tolist(), abs=1e-6)


@pytest.mark.parametrize("mm", [2.0, 10.0])
def test_packing_lifts_an_angle_and_takes_of_its_bolts_shear_what_the_standard_says(mm: float) -> None:
    """EN 1993-1-8 3.6.1 (12): thicker than a third of the bolt it leaves 9 d / (8 d + 3 tp)."""
    bare, packed = hung(None), hung(None, packing_mm=mm)
    for key in bare["hardpoints"]:
        packed["hardpoints"][key]["at_mm"][2] -= mm  # so that the bracket stands where it stood
    before, after = uses(bare), uses(packed)
    share = 9 * 10 / (8 * 10 + 3 * mm) if mm > 10 / 3 else 1.0
    rows = {
        key: {r.check: r for r in mounts_of(tree)["left0"].rows} for key, tree in (("bare", bare), ("packed", packed))
    }
    assert after["bolt"] >= before["bolt"] * 0.98
    if share < 1:
        assert after["bolt"] > before["bolt"] * 1.02
    assert rows["packed"]["leg A"].utilisation == pytest.approx(rows["bare"]["leg A"].utilisation, rel=0.12)
    assembly = resolve(validate(packed), {})
    mount = next(m for m in assembly.boxes["x"].mounts if m.id == "left0")
    pad = next(piece for piece in mount.pieces if piece.name == "packing")
    assert (pad.solid.low[2], pad.solid.high[2]) == pytest.approx((mount.spot.at[2], mount.spot.at[2] + mm))
    leg = next(piece for piece in mount.pieces if piece.name == "leg A")
    assert leg.solid.low[2] == pytest.approx(pad.solid.high[2])
    (part,) = [one for row in parts_of(assembly) for one in row.each if one.id == "left0-packing"]
    assert part.thickness_mm == mm
    assert not asks(packed)
    assert any("packing 20.0, at most 13.3" in row for row in asks(hung(None, packing_mm=20.0)))


def test_the_weakest_check_of_a_gusset_opens_its_working() -> None:
    tree = hung({**GUSSETS, "thickness_mm": 3.0, "along_mm": 25.0, "weld_leg_mm": 1.0})
    rows = [f for f in found(tree, "mount.use") if f.working]
    weak = [f for f in rows if "gusset" in f.message]
    assert weak
    for finding in weak:
        assert finding.working is not None
        steps = finding.working()
        assert any("bends the corner" in step.what for step in steps)
