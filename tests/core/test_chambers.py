"""Chambers for gear on the faces of a box: of the box's mass and outside, made and reached by themselves."""

import copy
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from levelcradle.core.analysis import analyse
from levelcradle.core.assembly import PlacedBox, resolve
from levelcradle.core.design import validate
from levelcradle.core.design.base import FACE_AT
from levelcradle.core.design.box import EDGES_OF
from levelcradle.core.errors import DesignError
from levelcradle.core.fabricate import parts_of
from levelcradle.core.fold import fold
from levelcradle.core.solids import bounds
from tests.conftest import DEMO
from tests.plain import a_block, box_at, found, held, plain_car

AT = (1000.0, 0.0, 400.0)
FACES = tuple(FACE_AT)
STEEL = 7850e-9
TALL = {"inner": {"type": "fixed", "size_mm": [600.0, 500.0, 400.0]}}


def chamber(face: str = "left", **more: Any) -> dict[str, Any]:
    (one, _), (other, _) = EDGES_OF[face]  # type: ignore[index]
    first, second = (150.0 if face in ("front", "aft", "base", "top") else 250.0), 150.0
    return {"name": "gear", "face": face, "from": [one, other], "u_mm": 250.0, "v_mm": 180.0,
            "size_mm": [first + 50, second + 20, 90.0], **more}  # fmt: skip


def car(*chambers: dict[str, Any], box: dict[str, Any] | None = None, **more: Any) -> dict[str, Any]:
    own = {f"c{n}": row for n, row in enumerate(chambers)}
    return plain_car(boxes={"x": {**box_at(AT, (1, 1, 1)), **TALL, "chambers": own, **(box or {})}}, **more)


def placed(tree: dict[str, Any]) -> PlacedBox:
    return resolve(validate(tree), {}).boxes["x"]


def corners(solids: list[Any]) -> tuple[Any, Any]:
    low, high = bounds(solids)
    return low.min(axis=0), high.max(axis=0)


@pytest.mark.parametrize("face", FACES)
@pytest.mark.parametrize("yaw", [0.0, 40.0])
def test_it_stands_outward_on_its_face_by_its_depth(face: str, yaw: float) -> None:
    """From the face (from what closes it on the top) to the rim; its lid a sheet further, its heads no further out."""
    pose = {"anchor": "front-left-base", "at_mm": list(AT), "yaw_deg": yaw}
    box = placed(car(chamber(face), box={"pose": pose}))
    made, (own,) = box.shell.made, box.shell.chambers
    axis, far = FACE_AT[face]
    start = made.outer_mm[axis] + made.proud_mm(face) if far else -made.proud_mm(face)
    tray = next(p.solid for p in own.outside if p.role == "body")
    near, end = (tray.low[axis], tray.high[axis]) if far else (tray.high[axis], tray.low[axis])
    assert (near, abs(end - near)) == (pytest.approx(start), pytest.approx(90.0))
    low, high = corners([p.solid for p in own.outside])
    assert (high[axis] if far else -low[axis]) == pytest.approx(abs(end) + 2.0 if not far else end + 2.0)
    sides = [i for i in range(3) if i != axis]
    assert [tray.high[i] - tray.low[i] for i in sides] == pytest.approx(own.spec.size_mm[:2])


@given(
    st.sampled_from(FACES),
    st.floats(120, 260),
    st.floats(100, 240),
    st.floats(40, 120),
    st.sampled_from([1.0, 1.5, 2.0, 3.0]),
)
def test_it_weighs_what_its_parts_weigh_and_moves_the_boxs_centre_towards_it(
    face: str, a: float, b: float, deep: float, thick: float
) -> None:
    bare, with_it = (
        placed(car()),
        placed(car(chamber(face, size_mm=[a, b, deep], thickness_mm=thick, bend_radius_mm=thick))),
    )
    more = with_it.shell.shell_kg - bare.shell.shell_kg
    (own,) = with_it.shell.chambers
    parts = list(own.parts("x", "X"))
    heads = sum(p.mass_kg for p in own.made.pieces() if p.role == "fastener")
    assert more == pytest.approx(sum(p.mass_kg for p in parts) + heads, rel=1e-3)
    axis, far = FACE_AT[face]
    towards = with_it.shell.cg[axis] - bare.shell.cg[axis]
    assert towards > 0 if far else towards < 0


def test_its_parts_are_cut_once_and_fold_up_where_it_stands() -> None:
    tree = car(chamber("left"), chamber("right"))
    assembly = resolve(validate(tree), {})
    box = assembly.boxes["x"]
    cut = {p.id: p.quantity for p in parts_of(assembly) if "-c" in p.id}
    assert cut == {"x-c0-tray": 2, "x-c0-lid": 2}
    for own in box.shell.chambers:
        tray = next(p for p in own.parts("x", "X") if p.id.endswith("tray"))
        wanted = corners([p.solid for p in own.outside if p.role == "body"])
        assert np.array(corners(list(fold(tray).solids()))) == pytest.approx(np.array(wanted), abs=0.05)


def test_gear_in_it_turns_with_it_and_is_asked_what_it_stands_in() -> None:
    """A block on its base, 20 from two edges of it; then thicker than it is deep."""
    thing = {"name": "contactors", "state": "in", "role": "contactors", "mass_kg": 2.0, "at_mm": [40.0, 30.0, 20.0],
             "solid": {"type": "block", "low_mm": [0, 0, 0], "high_mm": [80, 60, 40]},
             "place": {"type": "box", "box": "x", "chamber": "c0", "face": "base", "from": ["front", "left"],
                       "u_mm": 20.0, "v_mm": 20.0, "off_mm": 2.0}}  # fmt: skip
    for face in ("left", "aft", "right", "front"):
        tree = car(chamber(face), items={"k": thing})
        box = placed(tree)
        (gear,), (own,) = box.gear, box.shell.chambers
        assert gear.inside
        low, high = corners([s.moved(own.frame.inverse) for s in gear.local])
        assert low == pytest.approx([20, 20, 2])
        assert high == pytest.approx([100, 80, 42])
        assert box.hung_kg == pytest.approx(box.full_kg + 2.0)
        assert [f.state for f in found(tree, "inside.gear")] == ["clear"]
        tall = copy.deepcopy(tree)
        tall["items"]["k"]["solid"]["high_mm"] = [80, 60, 89]
        rows = found(tall, "inside.gear")
        assert {f.state for f in rows} == {"foul"}
        assert any("lid" in f.message for f in rows)


def states(tree: dict[str, Any]) -> list[str]:
    return [f.state for f in found(tree, "box.chamber")]


def test_it_lies_on_its_face_and_in_nothing_of_the_box() -> None:
    assert states(car(chamber("left"))) == []
    assert states(car(chamber("left", u_mm=149.0))) == ["foul"]  # 1 mm over the front edge: 300 wide
    assert states(car(chamber("left", u_mm=150.0))) == []
    assert states(car(chamber("top"))) == ["foul"]  # the lid comes off
    assert states(car(chamber("left"), chamber("left", u_mm=420.0))) == ["foul"]  # one in the other
    assert states(car(chamber("left", v_mm=330.0))) != []  # under the lid's edge and heads
    spot = {"name": "h", "at_mm": [1250.0, -60.0, 600.0], "direction": [0, 0, -1], "kind": "captive nut"}
    hung = car(chamber("left"), hardpoints={"h": spot}, mounts={"m": held("x", "h", "left")})
    assert states(hung)
    assert set(states(hung)) == {"foul"}


@pytest.mark.parametrize("face", ["left", "aft", "right", "front", "base"])
def test_its_lid_is_asked_for_by_itself_with_everything_there(face: str) -> None:
    """Twenty of edge and five to spare outward; what stands nearer keeps it shut while the box is in."""

    def told(free_mm: float) -> list[str]:
        tree = car(chamber(face))
        (own,) = placed(tree).shell.chambers
        axis, far = FACE_AT[face]
        low, high = corners([p.solid for p in own.outside])
        near = high[axis] if far else low[axis]
        lows, highs = low - 50.0, high + 50.0
        lows[axis], highs[axis] = (near + free_mm, near + 400) if far else (near - 400, near - free_mm)
        a, b = lows + np.array(AT), highs + np.array(AT)
        tree["items"] = {"w": a_block(tuple(a.tolist()), tuple(b.tolist()), gap_class="same")}
        return [f.state for f in found(tree, "access.chamber")]

    assert told(25.6) == ["clear"]
    assert told(24.0) == ["note"]


def test_gaps_are_measured_to_it() -> None:
    tree = car(chamber("left"))
    (own,) = placed(tree).shell.chambers
    out = corners([p.solid for p in own.outside])[0][1]
    y = AT[1] + out - 10.0
    tree["items"] = {"w": a_block((1000.0, y - 50, 400.0), (1500.0, y, 800.0), gap_class="same")}
    assert next(f.value for f in found(tree, "gap") if "items/w" in f.subjects) == pytest.approx(10.0, abs=0.01)


def test_nonsense_is_refused_at_its_place() -> None:
    place = {
        "type": "box",
        "box": "x",
        "chamber": "gone",
        "face": "base",
        "from": ["front", "left"],
        "u_mm": 1.0,
        "v_mm": 1.0,
    }
    thing = {"name": "k", "state": "in", "place": place}
    with pytest.raises(DesignError, match="no chamber “gone”"):
        validate(car(items={"k": thing}))
    with pytest.raises(DesignError, match="two edges of the left that meet"):
        validate(car({**chamber("left"), "from": ["left", "base"]}))


def test_the_demo_with_a_framed_box_in_the_well_and_contactors_in_its_chamber() -> None:
    """Figures worked by hand. Tube 20 × 2 with rounded corners 133.7 mm²; three cells of 2.9, links and clamps 4.5; the
    axle loads by levers about the front axle."""
    tree = copy.deepcopy(DEMO)
    tree["boxes"]["tank"]["pose"]["at_mm"][0] = 2685.0
    before = analyse(validate(tree), {})
    tree["boxes"]["well"] = {
        "name": "Well box", "bay": "well", "order": 3,
        "pose": {"anchor": "front-left-base", "at_mm": [3145, -130, 330]},
        "construction": {"type": "framed", "rails": 1, "tube_mm": 20, "tube_wall_mm": 2, "cladding_mm": 1.5},
        "closures": {"lid": {"type": "panel", "face": "aft", "thickness_mm": 2}},
        "blocks": {"a": {"kind": "ingot", "turn": {"down": "base", "aft": "end_b"}, "counts": {"across": 3}}},
        "chambers": {"gear": {"name": "gear chamber", "face": "right", "from": ["front", "base"], "u_mm": 100,
                              "v_mm": 120, "size_mm": [120, 110, 60], "thickness_mm": 1.5, "bend_radius_mm": 1.5}},
    }  # fmt: skip
    tree["items"]["contactors"] = {
        "name": "contactors", "state": "in", "role": "contactors", "mass_kg": 1.6, "tol_kg": 0.1, "at_mm": [35, 25, 20],
        "solid": {"type": "block", "low_mm": [0, 0, 0], "high_mm": [70, 50, 40]},
        "place": {"type": "box", "box": "well", "chamber": "gear", "face": "base", "from": ["front", "left"],
                  "u_mm": 25, "v_mm": 25, "off_mm": 1.5},
    }  # fmt: skip
    design = validate(tree)
    box, after = resolve(design, {}).boxes["well"], analyse(design, {})
    length, width, tall = box.shell.outer_mm
    assert (length, width, tall) == pytest.approx((187.5, 207.0, 252.0))
    tubes = 133.7 * (4 * 186 + 5 * 164 + 4 * 209) * STEEL
    sheets = STEEL * 1.5 * (204 * 249 + 2 * 187.5 * 249 + 2 * 187.5 * 207)
    panel = STEEL * 2 * 207 * 252
    assert box.shell.full_kg == pytest.approx(tubes + sheets + panel + 0.83 + 3 * 2.9 + 4.5, abs=0.1)
    hung, aft = box.hung_kg, box.hung_cg[0]
    assert hung == pytest.approx(box.shell.full_kg + 1.6)
    assert (aft, box.hung_cg[1]) == (pytest.approx(3247, abs=1), pytest.approx(-12.5, abs=1))
    for was, now in zip(before.level.states, after.level.states, strict=True):
        assert now.loads.rear_kg - was.loads.rear_kg == pytest.approx(hung * aft / 2480, abs=0.01)
        assert now.loads.front_kg - was.loads.front_kg == pytest.approx(hung * (1 - aft / 2480), abs=0.01)
    fouls = {f.id for f in after.findings if f.state == "foul"}
    assert {"gap:boxes/well:items/charger", "gap:boxes/well:keepouts/crush-rear", "mount:support:well",
            "level:rating:four-up:rear axle"} <= fouls  # fmt: skip
    assert not any("contactors" in name or "chamber" in name for name in fouls)
    ids = {p.id for p in parts_of(resolve(design, {}))}
    assert {"well-gear-tray", "well-gear-lid", "well-lid", "well-front-panel"} <= ids
