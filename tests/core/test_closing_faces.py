"""A box that is closed on another face than its top: what is asked of its lid is asked of that face."""

from typing import Any

import numpy as np
import pytest

from levelcradle.core.assembly import resolve
from levelcradle.core.clearance import stack_up
from levelcradle.core.cuts import bodies
from levelcradle.core.design import validate
from levelcradle.core.design.base import FACE_AT
from levelcradle.core.errors import DesignError
from tests.plain import a_block, box_at, found, held, plain_car

AT = (1000.0, 0.0, 400.0)
FACES = tuple(FACE_AT)
LIFTS_MM = 10.0  # five off its gasket, and five to spare
TOUCHES_MM = 0.6  # what comes half a millimetre into a thing only touches it
WAY = ("aft", "across", "up")


def box(face: str, *, rails: int = 0, **more: Any) -> dict[str, Any]:
    made = {"construction": {"type": "framed", "rails": rails}, "closures": {"lid": {"type": "panel", "face": face}}}
    return {**box_at(AT, (2, 1, 1)), **made, **more}


def before(face: str, free_mm: float, **more: Any) -> dict[str, Any]:
    """A car with a wall so far before what closes the box (its heads do not count), and nothing else."""
    tree = plain_car(boxes={"x": box(face, **more)})
    placed = resolve(validate(tree), {}).boxes["x"]
    axis, far = FACE_AT[face]
    low, high = placed.shell.made.over
    near = (high if far else low)[axis]
    lows, highs = [v - 500.0 for v in low], [v + 500.0 for v in high]
    lows[axis], highs[axis] = (near + free_mm, near + 900.0) if far else (near - 900.0, near - free_mm)
    a, b = (placed.placement.point((c[0], c[1], c[2])) for c in (lows, highs))
    low_mm, high_mm = zip(*(sorted(pair) for pair in zip(a, b, strict=True)), strict=True)
    return {**tree, "items": {"w": a_block(low_mm, high_mm, gap_class="same")}}


@pytest.mark.parametrize("face", FACES)
@pytest.mark.parametrize("yaw", [0.0, 90.0])
def test_it_is_opened_and_emptied_before_that_face(face: str, yaw: float) -> None:
    """So much off, then the length of a module that way."""
    module = {"front": 200.0, "aft": 200.0, "left": 120.0, "right": 120.0, "base": 90.0, "top": 90.0}[face]
    pose = {"pose": {"anchor": "front-left-base", "at_mm": list(AT), "yaw_deg": yaw}}

    def told(free_mm: float) -> tuple[str, str]:
        (row,) = found(before(face, free_mm, **pose), "access.lid")
        return row.state, row.message

    assert told(LIFTS_MM + module + 0.1)[0] == "clear"
    state, words = told(LIFTS_MM + module - TOUCHES_MM)
    assert (state, "filled with the box out" in words) == ("note", True)
    state, words = told(LIFTS_MM - TOUCHES_MM)
    assert (state, "comes off with the box out" in words) == ("note", True)


@pytest.mark.parametrize("face", FACES)
@pytest.mark.parametrize("way", WAY)
def test_allowances_on_a_line_add_up_to_what_there_is_of_the_box(face: str, way: str) -> None:
    assembly = resolve(validate(plain_car(boxes={"x": box(face)})), {})
    placed = assembly.boxes["x"]
    low, high = (
        [f(p.solid.low[i] if f is min else p.solid.high[i] for p in placed.pieces) for i in range(3)]
        for f in (min, max)
    )
    axis = WAY.index(way)
    total = sum(row.mm for row in stack_up(assembly, "x", way).rows if row.path.startswith("boxes/"))  # type: ignore[arg-type]
    assert total == pytest.approx(high[axis] - low[axis])


def test_no_bracket_holds_what_comes_off() -> None:
    def told(face: str) -> list[str]:
        spot = {"name": "h", "at_mm": [1080.0, -60.0, 500.0], "direction": [0, 0, -1], "kind": "captive nut"}
        tree = plain_car(boxes={"x": box(face)}, hardpoints={"h": spot}, mounts={"m": held("x", "h", "left")})
        return [f.state for f in found(tree, "mount.opened")]

    assert told("left") == ["foul"]
    assert told("right") == []


def fouls(tree: dict[str, Any], code: str) -> list[tuple[str, str]]:
    return [(f.state, f.label) for f in found(tree, code)]


def test_rails_do_not_cross_the_way_in() -> None:
    in_the_way = ("foul", "rails in the way")
    assert in_the_way in fouls(plain_car(boxes={"x": box("base", rails=1)}), "box.make")
    assert in_the_way not in fouls(plain_car(boxes={"x": box("base", rails=0)}), "box.make")
    assert in_the_way not in fouls(plain_car(boxes={"x": box("aft", rails=1)}), "box.make")


@pytest.mark.parametrize(
    ("face", "pose", "opens_below"),
    [
        ("base", {}, True),
        ("aft", {}, False),
        ("top", {}, False),
        ("top", {"roll_deg": 180.0}, True),
        ("aft", {"pitch_deg": 29.0}, False),
        ("aft", {"pitch_deg": 31.0}, True),
        ("front", {"pitch_deg": 31.0}, False),
    ],
)
def test_where_it_opens_below_something_else_holds_the_modules(
    face: str, pose: dict[str, float], opens_below: bool
) -> None:
    placed = {"pose": {"anchor": "front-left-base", "at_mm": list(AT), **pose}}

    def told(how: str | None) -> list[str]:
        holders = {"h": {"type": how, "block": "a"}} if how else {}
        tree = plain_car(boxes={"x": box(face, holders=holders, **placed)})
        return [f.state for f in found(tree, "inside.opened")]

    assert told(None) == (["unknown"] if opens_below else [])
    assert told("fit") == (["foul"] if opens_below else [])
    assert told("rods") == (["note"] if opens_below else [])


@pytest.mark.parametrize("face", FACES)
@pytest.mark.parametrize("yaw", [0.0, 30.0])
def test_taken_apart_its_modules_stand_before_that_face_and_what_comes_off_beyond_them(face: str, yaw: float) -> None:
    """Frame where it was, each side off it on its own side: nothing is inside anything any more."""
    pose = {"pose": {"anchor": "front-left-base", "at_mm": list(AT), "yaw_deg": yaw}}
    assembly = resolve(validate(plain_car(boxes={"x": box(face, **pose)})), {})
    back = assembly.boxes["x"].placement.inverse
    axis, far = FACE_AT[face]
    reach = {}
    for name, body in ((b.name, b) for b in bodies(assembly) if b.owner == "boxes/x"):
        points = back.points(np.array(body.points) + np.array(body.apart_mm))
        kind = "module" if body.kind == "module" else "lid" if "comes off" in name or name == "lid" else name
        along = points[:, axis] if far else -points[:, axis]
        low, high = reach.get(kind, (np.inf, -np.inf))
        reach[kind] = min(low, along.min()), max(high, along.max())
    frame = max(high for kind, (_, high) in reach.items() if "tube" in kind or "post" in kind)
    assert frame < reach["module"][0]
    assert reach["module"][1] < reach["lid"][0]
    assert len([kind for kind in reach if kind.endswith("panel")]) == 5


# --- hinged ---


def hinged(face: str, edge: str, free_mm: float, yaw: float = 0.0) -> Any:
    lid = {"closures": {"lid": {"type": "panel", "face": face, "hinge": edge}}}
    pose = {"pose": {"anchor": "front-left-base", "at_mm": list(AT), "yaw_deg": yaw}}
    (row,) = found(before(face, free_mm, **lid, **pose), "access.lid")
    return row


EDGES = [(face, edge) for face in FACES for edge in FACES if FACE_AT[face][0] != FACE_AT[edge][0]]


@pytest.mark.parametrize(("face", "edge"), EDGES)
def test_it_swings_until_its_far_edge_meets_what_stands_before_it(face: str, edge: str) -> None:
    """A wall so far before it: the edge of a panel of length l is a·sin off the face; whole steps of ten degrees."""
    placed = resolve(validate(plain_car(boxes={"x": box(face)})), {}).boxes["x"]
    long = placed.shell.outer_mm[FACE_AT[edge][0]]
    for share in (0.4, 0.8):
        row = hinged(face, edge, share * long)
        told = int(row.message.split("swings ")[1].split("°")[0])
        assert row.state == "note"
        assert abs(told - np.degrees(np.arcsin(share))) <= 10.0
    assert hinged(face, edge, 1.1 * long + 300).state == "clear"


def test_open_it_still_asks_room_for_a_module() -> None:
    row = hinged("aft", "left", 180.0)  # its panel is 175 wide, a module 200 long
    assert (row.state, "swings open in place" in row.message, "filled with the box out" in row.message) == (
        "note",
        True,
        True,
    )
    assert hinged("aft", "left", 205.0).state == "clear"
    assert hinged("aft", "left", 205.0, yaw=90.0).state == "clear"


def test_hinges_are_bought_and_an_edge_that_is_none_is_refused() -> None:
    lid = {"type": "panel", "face": "top", "hinge": "aft"}
    placed = resolve(validate(plain_car(boxes={"x": box("top", closures={"lid": lid})})), {}).boxes["x"]
    bought = dict(placed.shell.bought())
    assert [n for what, n in bought.items() if "hinge" in what] == [2]
    with pytest.raises(DesignError, match="turns on an edge of its face"):
        validate(plain_car(boxes={"x": box("top", closures={"lid": {**lid, "hinge": "base"}})}))
