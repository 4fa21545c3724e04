"""A box opened: every wall as large as it is, what is on it in its place, whatever it is made of."""

import copy
import random
from typing import Any

import pytest

from levelcradle.core.assembly import resolve
from levelcradle.core.design import tree_of, validate
from levelcradle.core.edits import built_as, edited
from levelcradle.core.errors import UnknownThing
from levelcradle.core.opened import Opened, OpenedFace, made_as, opened
from tests.compare import CHANGES
from tests.conftest import DEMO


def cars() -> list[tuple[dict[str, Any], str]]:
    """The demo, random designs, and the tank box as a frame."""
    trees = [copy.deepcopy(DEMO) for _ in range(4)]
    for seed, tree in enumerate(trees[1:]):
        rng = random.Random(seed)
        for change in rng.sample(CHANGES, 4):
            change(rng, tree)
    framed = edited(validate(DEMO), built_as(validate(DEMO), "tank", "framed"))
    return [*((tree, key) for tree in trees for key in tree["boxes"]), (tree_of(framed), "tank")]


def size(face: OpenedFace) -> tuple[float, float]:
    return face.high[0] - face.low[0], face.high[1] - face.low[1]


def by_face(laid: Opened) -> dict[str, OpenedFace]:
    return {face.face: face for face in laid.faces}


@pytest.mark.parametrize(("tree", "key"), cars())
def test_every_wall_is_as_large_as_it_is_and_none_lies_on_another(tree: dict[str, Any], key: str) -> None:
    assembly = resolve(validate(tree), {})
    laid = by_face(opened(assembly, key))
    (length, width, height), over = assembly.boxes[key].shell.outer_mm, assembly.boxes[key].shell.over_mm
    assert size(laid["base"]) == pytest.approx((length, width))
    assert size(laid["left"]) == size(laid["right"]) == pytest.approx((length, height))
    assert size(laid["front"]) == size(laid["aft"]) == pytest.approx((height, width))
    assert size(laid["top"]) == pytest.approx(over[:2])
    faces = list(laid.values())
    for n, one in enumerate(faces):
        for other in faces[n + 1 :]:
            assert not all(one.low[i] < other.high[i] - 1e-6 and other.low[i] < one.high[i] - 1e-6 for i in (0, 1))


@pytest.mark.parametrize(("tree", "key"), cars())
def test_what_is_on_a_wall_is_there_once_and_within_it(tree: dict[str, Any], key: str) -> None:
    assembly = resolve(validate(tree), {})
    box, laid = assembly.boxes[key], opened(assembly, key)
    placed = [hole.path for face in laid.faces for hole in face.holes if hole.path]
    assert sorted(placed) == sorted(f"boxes/{key}/openings/{name}" for name in box.box.openings)
    screws = [hole for face in laid.faces for hole in face.holes if not hole.path]
    assert len(screws) == sum(piece.role == "fastener" for piece in box.shell.pieces)
    for face in laid.faces:
        for hole in face.holes:
            if not hole.path:
                assert all(face.low[i] - 1e-6 <= hole.at[i] <= face.high[i] + 1e-6 for i in (0, 1))
    assert [module.name for module in laid.modules] == [str(m.number) for m in box.shell.modules]
    base = by_face(laid)["base"]
    if not any(f.state == "foul" for f in box.shell.made.findings("x", "x")) and not box.shell.made.given:
        assert all(base.low[i] <= m.low[i] and m.high[i] <= base.high[i] for m in laid.modules for i in (0, 1))


def test_a_hole_lies_where_it_was_placed_from_two_edges() -> None:
    """60 from the front edge and 40 up its left wall: the wall hangs below the base, its rim away from it."""
    tree = copy.deepcopy(DEMO)
    hole = {"name": "h", "from": ["front", "base"], "u_mm": 60.0, "v_mm": 40.0, "diameter_mm": 20.0}
    tree["boxes"]["tank"]["openings"] = {
        "l": {**hole, "face": "left"}, "r": {**hole, "face": "right"},
        "f": {**hole, "face": "front", "from": ["left", "base"]},
        "a": {**hole, "face": "aft", "from": ["left", "base"]},
        "b": {**hole, "face": "base", "from": ["front", "left"]},
    }  # fmt: skip
    assembly = resolve(validate(tree), {})
    length, width, _ = assembly.boxes["tank"].shell.outer_mm
    there = {h.path.rsplit("/", 1)[-1]: h.at for f in opened(assembly, "tank").faces for h in f.holes if h.path}
    assert there == {
        "l": pytest.approx((60, -40)), "r": pytest.approx((60, width + 40)), "b": pytest.approx((60, 40)),
        "f": pytest.approx((-40, 60)), "a": pytest.approx((length + 40, 60)),
    }  # fmt: skip


def test_of_another_construction_it_tells_what_that_box_would_weigh() -> None:
    design = validate(DEMO)
    rows = {row.kind: row for row in made_as(design, "tank")}
    assert [kind for kind, row in rows.items() if row.now] == ["folded"]
    framed = edited(design, built_as(design, "tank", "framed"))
    shell = resolve(framed, {}).boxes["tank"].shell
    assert rows["framed"].shell_kg == pytest.approx(shell.shell_kg)
    assert rows["framed"].outer_mm == pytest.approx(shell.outer_mm)
    assert [kind for kind, row in {r.kind: r for r in made_as(framed, "tank")}.items() if row.now] == ["framed"]
    with pytest.raises(UnknownThing):
        made_as(design, "none")
    with pytest.raises(UnknownThing):
        opened(resolve(design, {}), "none")


@pytest.mark.parametrize("edges", [("front", "base"), ("aft", "base"), ("front", "top"), ("aft", "top")])
def test_an_opening_goes_in_the_drawing_the_way_its_distances_grow(edges: tuple[str, str]) -> None:
    def drawn(u: float, v: float) -> Any:
        tree = copy.deepcopy(DEMO)
        row = tree["boxes"]["tank"]["openings"]["cable"]
        row |= {"face": "left", "from": list(edges), "u_mm": u, "v_mm": v}
        laid = by_face(opened(resolve(validate(tree), {}), "tank"))
        return next(hole for hole in laid["left"].holes if hole.place)

    start = drawn(100.0, 60.0)
    for n, further in enumerate((drawn(107.0, 60.0), drawn(100.0, 67.0))):
        moved = [b - a for a, b in zip(start.at, further.at, strict=True)]
        assert moved == pytest.approx([7 * way for way in start.place.ways[n]])
    assert start.place.mm == (100.0, 60.0)
