"""A box that lies on pads: they bear what presses them, nothing sideways and nothing up; what is bolted has the
rest."""

from typing import Any

import pytest

from levelcradle.core.analysis import Analysis
from levelcradle.core.design import validate
from levelcradle.core.edits import edited, hung
from levelcradle.core.errors import DesignError
from levelcradle.core.finding import message_text
from tests.plain import a_block, analysed, box_at, found, held, plain_car

AT = (1000.0, 0.0, 406.0)  # 6 over the member's top
RAIL = {
    "name": "cross rail",
    "start_mm": [1107.0, -300.0, 375.0],
    "end_mm": [1107.0, 400.0, 375.0],
    "width_mm": 60.0,
    "height_mm": 50.0,
}


def rest(along: float, **shape: Any) -> dict[str, Any]:
    return {"name": f"pad {along:g}", "carries": {"boxes/x": True}, "face": "base", "shape": {"type": "rest", **shape},
            "to_box": {"type": "loose"}, "lands_on": {"type": "member", "member": "r", "along_mm": along}}  # fmt: skip


def car(pads: tuple[float, ...] = (330.0, 404.0), bolts: int = 3, **parts: Any) -> dict[str, Any]:
    """A box of bricks on a rail: two brackets on its right, one on its left, and pads."""
    spots = [(1050.0, 190.0, "right"), (1160.0, 190.0, "right"), (1107.0, -56.0, "left")][:bolts]
    hard = {
        f"h{n}": {"name": f"h{n}", "at_mm": [x, y, 440.0], "direction": [0, 0, 1]} for n, (x, y, _) in enumerate(spots)
    }
    wide = {"shape": {"type": "angle", "leg_b_mm": 60.0}, "to_box": {"type": "welded", "length_mm": 30.0}}
    mounts = {key: held("x", key, face, **wide) for key, (_, _, face) in zip(hard, spots, strict=True)}
    mounts |= {f"p{n}": rest(along) for n, along in enumerate(pads)}
    return plain_car(boxes={"x": box_at(AT)}, members={"r": RAIL}, hardpoints=hard, mounts=mounts, **parts)


def utilisations(analysis: Analysis) -> dict[str, float]:
    return {m.id: row.utilisation for s in analysis.supports for m in s.mounts for row in m.rows if row.check == "pad"}


def test_a_pad_bears_down_and_is_never_asked_to_hold() -> None:
    analysis = analysed(car())
    (support,) = analysis.supports
    assert support.support.holds
    pads = {m.id: m for m in support.mounts if m.id.startswith("p")}
    assert set(pads) == {"p0", "p1"}
    for mount in pads.values():
        assert all((d.pull_n, d.shear_n) == (0.0, 0.0) for d in mount.demands)
        assert [row.check for row in mount.rows] == ["pad"]
        assert mount.rows[0].n < 0, "pressed onto it"
    (told,) = [f for f in analysis.findings if f.id == "mount:spot:r"]
    assert message_text(told).startswith("cross rail must bear")
    assert told.value == pytest.approx(
        max(sum(m.demands[i].press_n for m in pads.values()) for i in range(len(pads["p0"].demands)))
    )


def test_twice_the_pad_is_pressed_half_as_hard() -> None:
    one, wide = car(), car()
    wide["mounts"]["p0"]["shape"]["length_mm"] = 160.0
    before, after = utilisations(analysed(one)), utilisations(analysed(wide))
    assert after["p0"] == pytest.approx(before["p0"] / 2, rel=0.02)
    soft = car()
    soft["mounts"]["p0"]["shape"]["bears_mpa"] = 0.001
    finding = next(f for f in analysed(soft).findings if f.id == "mount:p0")
    assert finding.state == "foul"
    assert "its pad" in message_text(finding)


def test_what_it_lies_on_is_no_gap_but_standing_in_it_is() -> None:
    with_pad, without = (found(tree, "gap") for tree in (car(), car(pads=())))
    assert not [f for f in with_pad if "members/r" in f.subjects]
    assert [f.state for f in without if "members/r" in f.subjects] == ["tight"]
    beside = {"t": a_block((1000, 0, 300), (1050, 100, 402), gap_class="same")}
    assert [f.state for f in found(car(items=beside), "gap") if "items/t" in f.subjects] == ["foul"], (
        "only what it lies on is excused"
    )


@pytest.mark.parametrize(("up", "words"), [(3.0, "3.0 over it"), (-3.0, "3.0 below its pad")])
def test_a_box_that_does_not_lie_on_its_pad_is_told(up: float, words: str) -> None:
    tree = car()
    tree["boxes"]["x"]["pose"]["at_mm"][2] += up
    told = [message_text(f) for f in found(tree, "mount.unfit")]
    assert len(told) == 2
    assert all(words in text for text in told)


def test_a_leaning_box_lies_on_nothing_flat() -> None:
    tree = car()
    tree["boxes"]["x"]["pose"]["roll_deg"] = 5.0
    assert all("does not lie flat" in message_text(f) for f in found(tree, "mount.unfit") if "mounts/p0" in f.subjects)


def test_pads_alone_hold_nothing_and_too_few_bolts_lift_off() -> None:
    """Bolted along one side alone it turns up over the bolts, whatever it lies on."""
    (loose,), (lifts,) = (found(car(bolts=n), "mount.support") for n in (0, 2))
    assert "free to slide or turn" in message_text(loose)
    assert "lifts off in rebound" in message_text(lifts)
    assert (loose.state, lifts.state) == ("foul", "foul")
    assert not utilisations(analysed(car(bolts=2)))


def test_a_new_rest_lies_in_the_middle_of_its_member() -> None:
    design = validate(car(pads=()))
    key, patch = hung(design, "x", "rest", "members/r", "base")
    mount = edited(design, patch).mounts[key]
    assert (mount.face, mount.shape.type, mount.lands_on.path) == ("base", "rest", "members/r")
    assert mount.lands_on.along_mm == pytest.approx(350.0)  # type: ignore[union-attr]


def test_what_does_not_go_together_is_refused() -> None:
    tree = car()
    tree["mounts"]["p0"]["face"] = "left"
    with pytest.raises(DesignError, match="kind rest"):
        validate(tree)
    tree = car()
    tree["mounts"]["p0"]["lands_on"]["member"] = "gone"
    with pytest.raises(DesignError, match="no member"):
        validate(tree)
