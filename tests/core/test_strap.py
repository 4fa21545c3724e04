"""A strap under a box or over it: a second restraint, that counts for nothing while the mounts hold and in a crash."""

import math
from typing import Any

import numpy as np
import pytest

from levelcradle.core.assembly import resolve
from levelcradle.core.connection.strap import StrapConnection
from levelcradle.core.design import validate
from levelcradle.core.edits import edited, hung
from levelcradle.core.errors import DesignError, UnknownThing
from levelcradle.core.hang import how_it_hangs
from levelcradle.core.mount import let_go
from levelcradle.core.solids import nearest
from tests.core.hung import AT, angles, mounts_of, of_box, placed
from tests.plain import analysed, found, said

WELDED = {"type": "welded", "from_mm": 22.0, "length_mm": 80.0}


def strapped(*, out_mm: float = 60.0, up_mm: float = 260.0, face: str = "base", **strap: Any) -> dict[str, Any]:
    """A box on four brackets, a strap about its middle from points that far out of its long walls and up from its
    base."""
    tree = angles(to_box=WELDED)
    length, width, _ = placed(of_box()).shell.outer_mm
    way = [0, 0, -1] if face == "base" else [0, 0, 1]
    for key, right in (("one", AT[1] - out_mm), ("two", AT[1] + width + out_mm)):
        at = [AT[0] + length / 2, right, AT[2] + up_mm]
        tree["hardpoints"][key] = {"name": key, "at_mm": at, "direction": way, "thread": "M8"}
    tree["mounts"]["strap"] = {
        "name": "strap",
        "carries": {"boxes/x": True},
        "face": face,
        "shape": {"type": "strap", **strap},
        "to_box": {"type": "loose"},
        "lands_on": {"type": "two", "hardpoint": "one", "other": "two"},
    }
    return tree


def made(tree: dict[str, Any]) -> StrapConnection:
    box = resolve(validate(tree), {}).boxes["x"]
    one = next(m for m in box.mounts if m.id == "strap")
    assert isinstance(one, StrapConnection), one.unfit
    return one


def second(tree: dict[str, Any]) -> Any:
    (one,) = found(tree, "mount.second")
    return one


def test_the_mounts_carry_what_they_carried_without_it() -> None:
    """But for its own mass, all the box throws is theirs: it is no mount among the others."""
    tree, bare = strapped(), strapped()
    del bare["mounts"]["strap"]
    with_it, without = mounts_of(tree), mounts_of(bare)
    assert set(with_it) == set(without)
    kg = sum(p.mass_kg for p in made(tree).pieces)
    hung_kg = next(iter(analysed(bare).boxes.values())).hung_kg
    for key, mount in without.items():
        assert with_it[key].rows[0].utilisation == pytest.approx(
            mount.rows[0].utilisation * (1 + kg / hung_kg), rel=0.02
        )


def test_a_box_on_straps_alone_is_foul() -> None:
    tree = strapped()
    tree["mounts"] = {"strap": tree["mounts"]["strap"]}
    (support,) = found(tree, "mount.support")
    assert (support.state, "straps alone" in support.message) == ("foul", True)
    tree["mounts"] = {}
    assert "straps" not in found(tree, "mount.support")[0].message


@pytest.mark.parametrize(("face", "g"), [("base", 11.0), ("top", 11.0)])
def test_each_end_must_hold_its_share_of_the_throw_against_it(face: str, g: float) -> None:
    """Two legs at one slope: F / (2 sin α); upright ones half each."""
    up = 260.0 if face == "base" else -20.0
    tree = strapped(face=face, up_mm=up, out_mm=60.0)
    finding, strap = second(tree), made(tree)
    (a, b, _, _) = strap.path
    sine = abs(b[2] - a[2]) / math.dist(a, b)
    full = next(iter(analysed(tree).boxes.values())).hung_kg
    assert finding.value == pytest.approx(full * 9.80665 * g / (2 * sine), rel=1e-6)
    assert finding.state == "note"
    steep = strapped(face=face, up_mm=up, out_mm=4.0)
    assert second(steep).value < finding.value


def test_flatter_legs_are_drawn_harder_and_flat_ones_hold_nothing() -> None:
    far, near = second(strapped(out_mm=300.0)), second(strapped(out_mm=20.0))
    assert far.value > near.value * 1.2
    assert any("too flat" in text for text in said(strapped(up_mm=12.0, out_mm=900.0), "mount.unfit"))


@pytest.mark.parametrize(("tested", "state"), [(None, "note"), (500.0, "tight"), (50_000.0, "note")])
def test_it_counts_for_no_more_than_was_tried(tested: float | None, state: str) -> None:
    finding = second(strapped(tested_n=tested))
    assert finding.state == state
    assert ("nobody has tried" in finding.rationale) is (tested is None)
    assert [step.value for step in finding.working()][-1] == pytest.approx(finding.value)


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"up_mm": -30.0}, "no further up"),
        ({"face": "top", "up_mm": 400.0}, "above the box"),
        ({"out_mm": -40.0}, "not between"),
    ],
)
def test_where_it_cannot_pass_it_says_why(change: dict[str, Any], words: str) -> None:
    tree = strapped(**change)
    assert any(words in text for text in said(tree, "mount.unfit")), said(tree, "mount.unfit")
    assert not found(tree, "mount.second")


@pytest.mark.parametrize("face", ["base", "top"])
def test_it_lies_on_the_box_and_stands_in_nothing_of_it(face: str) -> None:
    tree = strapped(face=face, up_mm=260.0 if face == "base" else -20.0)
    strap, box = made(tree), resolve(validate(tree), {}).boxes["x"]
    bodies = [p.solid for p in box.pieces if p.role in ("body", "closure")]
    for piece in strap.pieces:
        if piece.name == "strap":
            assert min(nearest(piece.solid, body).gap_mm for body in bodies) >= -0.01
    under = strap.pieces[1].solid
    assert min(nearest(under, body).gap_mm for body in bodies) == pytest.approx(0.0, abs=0.01)
    lowest = min(float(np.min(p.solid.low[2])) for p in strap.pieces)
    assert (lowest == pytest.approx(AT[2] - 2.0)) is (face == "base")


def test_its_strip_is_as_long_as_its_way_and_its_bolts_ask() -> None:
    strap = made(strapped())
    (part,) = strap.parts(strap.tables)
    xs = [x for x, _ in part.outline]
    first, last = (hole.at[0] for hole in part.holes)
    assert last - first == pytest.approx(strap.long_mm)
    assert max(xs) - last == first == pytest.approx(1.5 * 9.0)
    kg = sum(p.mass_kg for p in strap.pieces if p.name == "strap")
    assert kg == pytest.approx(strap.long_mm * 30 * 2 * 7850e-9)
    assert len(list(strap.bought())) == 2
    assert second(strapped(width_mm=20.0)).state == "foul"


def test_it_lets_go_of_nothing_and_over_what_opens_it_is_taken_off() -> None:
    tree = strapped(face="top", up_mm=-20.0)
    assert "strap" not in {row.mount for row in let_go(resolve(validate(tree), {}))}
    assert not found(tree, "mount.opened")


def test_it_is_begun_between_two_points() -> None:
    tree = strapped()
    del tree["mounts"]["strap"]
    key, patch = hung(validate(tree), "x", "strap", "hardpoints/one", "base", "hardpoints/two")
    again = validate({**tree, "mounts": {**tree["mounts"], key: patch[0]["value"]}})
    assert again.mounts[key].lands_on.paths == ("hardpoints/one", "hardpoints/two")
    with pytest.raises(UnknownThing):
        hung(validate(tree), "x", "strap", "hardpoints/one", "base")
    with pytest.raises(DesignError, match="both ends"):
        validate({**tree, "mounts": {key: {**patch[0]["value"], "lands_on": {
            "type": "two", "hardpoint": "one", "other": "one"}}}})  # fmt: skip


def test_another_way_to_hang_leaves_the_strap() -> None:
    tree = strapped()
    ways = how_it_hangs(validate(tree), "x", meshes={}).ways
    assert ways
    assert "strap" in edited(validate(tree), ways[0].patch).mounts
