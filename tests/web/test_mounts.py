"""Mounts under the hand of a new user: two kinds are taken, one made too weak is sized again, and all is told."""

import re

import pytest
from playwright.sync_api import expect

from levelcradle.core.analysis import analyse
from levelcradle.core.design import validate
from tests.core.crossed import crossed
from tests.core.hung import angles, tabs
from tests.core.test_frame_hung import framed, points_under
from tests.plain import plain_car
from tests.web.conftest import Bench, worked_off


@pytest.fixture
def stranger(bench: Bench) -> Bench:
    """A box that nothing carries yet, two points of which face along its walls and two that face up."""
    along, upward = tabs(), angles(to_box={"type": "welded"})
    points = {key: row for key, row in along["hardpoints"].items() if key.endswith("0")}
    points |= {key: row for key, row in upward["hardpoints"].items() if key.endswith("1")}
    bench.store.create(validate({**along, "hardpoints": points, "mounts": {}}), "start", id_="kinds")
    return Bench(bench.page, bench.store, "kinds")


def test_two_kinds_are_taken_sized_let_go_and_told(stranger: Bench) -> None:
    stranger.go("mount")
    page, ledger = stranger.page, stranger.page.get_by_role("complementary", name="Ledger")
    stations = page.get_by_role("navigation", name="Stations")
    expect(ledger).to_contain_text("nothing carries it")
    question = ledger.get_by_role("region", name="How can it hang")
    question.get_by_role("button", name="Look for brackets that hold").click()
    expect(question).to_contain_text(re.compile(r"2 tabs .*; 2 angles"))
    question.get_by_role("button", name="Hang it so").first.click()
    stranger.saved(2)
    assert sorted(m["shape"]["type"] for m in stranger.tree["mounts"].values()) == ["angle", "angle", "tab", "tab"]
    expect(stations.get_by_role("link", name=re.compile("^Mount .*foul"))).to_have_count(0)

    ledger.get_by_role("button", name=re.compile("^X mount, left0")).first.click()
    expect(page.get_by_role("figure", name="The mount, looking forward")).to_be_visible()
    page.get_by_label("Case").select_option("front impact")
    expect(page.get_by_role("figure", name="The mount, looking right")).to_contain_text(" N")
    page.get_by_role("button", name="change it").click()
    thick = page.get_by_label("Thickness", exact=True).first
    thick.fill("3")
    thick.press("Enter")
    stranger.saved(3)
    expect(stations.get_by_role("link", name=re.compile("^Mount foul 1"))).to_be_visible()
    sized = ledger.get_by_role("region", name="Size it")
    sized.get_by_role("button", name="Make it so").first.click()
    stranger.saved(4)
    expect(stations.get_by_role("link", name=re.compile("^Mount .*foul"))).to_have_count(0)
    sized_mm = stranger.tree["mounts"]["x-left0"]["shape"]["thickness_mm"]
    assert sized_mm > 3
    ledger.get_by_label("Thickness", exact=True).first.fill("12")
    ledger.get_by_label("Thickness", exact=True).first.press("Enter")
    stranger.saved(5)
    ledger.get_by_role("button", name="Make the other one of this box like it").click()
    stranger.saved(6)
    mounts = stranger.tree["mounts"]
    assert [mounts[key]["shape"]["thickness_mm"] for key in ("x-left0", "x-right0")] == [12, 12]

    ledger.get_by_role("button", name="all mounts").click()
    question.get_by_label("on the very points that carry it now").click()
    question.get_by_role("button", name="Look for brackets that hold").click()
    expect(question.get_by_role("button", name="Hang it so")).to_have_count(1)
    question.get_by_role("button", name="Hang it so").click()
    stranger.saved(7)
    assert stranger.tree["mounts"]["x-left0"]["shape"]["thickness_mm"] < 12
    alone = ledger.get_by_role("region", name="If one lets go")
    alone.get_by_role("button", name="What the others take then").click()
    expect(alone.get_by_role("listitem")).to_have_count(4)
    stranger.go("drawings")
    page.get_by_role("button", name="Draw the sheets").click()
    worked_off(page, stranger.store)
    expect(page.get_by_role("main")).to_contain_text("uses of its mounts")


def test_welds_are_exchanged_for_bolts_and_a_strap_is_hung(bench: Bench) -> None:
    bench.change([
        {"op": "add", "path": f"/hardpoints/{key}", "value": {
            "name": f"strap {key}", "at_mm": [2870, right, 600], "direction": [0, 0, -1], "thread": "M8"}}
        for key, right in (("left", -420), ("right", 420))
    ])  # fmt: skip
    bench.go("mount")
    page, ledger = bench.page, bench.page.get_by_role("complementary", name="Ledger")
    page.get_by_role("button", name=re.compile("^Tank box mount, left fore")).first.click()
    page.get_by_role("button", name="change it").click()
    page.get_by_label("Held by").select_option("bolted")
    bench.saved(3)
    expect(ledger).to_contain_text("bolts on the box ·")
    expect(ledger).to_contain_text("its nuts stand")  # the demo's boxes are snug
    page.get_by_role("button", name="No plate behind the wall").click()
    bench.saved(4)
    page.get_by_label("Held by").select_option("welded")
    bench.saved(5)
    assert bench.tree["mounts"]["tank-lf"]["to_box"]["type"] == "welded"

    ledger.get_by_role("button", name="all mounts").click()
    new = ledger.get_by_role("region", name="New mount")
    new.get_by_label("By a").select_option("strap")
    new.get_by_label("Carries").select_option("tank")
    new.get_by_label("On the hard point").select_option("hardpoints/left")
    new.get_by_label("And on").select_option("hardpoints/right")
    new.get_by_role("button", name="Put it there").click()
    bench.saved(6)
    expect(ledger).to_contain_text("is a second restraint: if the mounts let go, each end must hold")
    held = page.get_by_label("One like it held in a test (N)")
    held.fill("900")
    held.press("Enter")
    bench.saved(7)
    rows = analyse(validate(bench.tree), {}).findings
    assert [f.state for f in rows if f.code == "mount.second"] == ["tight"]


def test_a_bracket_is_told_which_welds_it_needs(bench: Bench) -> None:
    bench.go("mount")
    page = bench.page
    page.get_by_role("button", name=re.compile("^Bonnet box mount, left fore")).first.click()
    page.get_by_role("button", name="change it").click()
    page.get_by_role("button", name="Which welds it needs").click()
    rows = page.get_by_role("list", name="Which welds it needs").get_by_role("listitem")
    expect(rows).to_have_count(4)
    expect(rows.first).to_contain_text("edges alone · enough")
    expect(rows.first).to_contain_text("so now")
    rows.last.get_by_role("button", name="Take it").click()
    bench.saved(2)
    expect(rows.last).to_contain_text("so now")
    assert page.get_by_label("Plug hole").input_value() == "18"
    assert bench.tree["mounts"]["bonnet-lf"]["to_box"]["across_end"]


def test_a_box_is_hung_on_crossmembers_and_one_is_made_stronger(bench: Bench) -> None:
    tree = crossed({"size_mm": 30, "wall_mm": 2})
    bench.store.create(validate({**tree, "crossmembers": {}, "mounts": {}}), "start", id_="bars")
    hand = Bench(bench.page, bench.store, "bars")
    hand.go("mount")
    ledger = hand.page.get_by_role("complementary", name="Ledger")
    bars, new = (ledger.get_by_role("region", name=name) for name in ("Crossmembers", "New mount"))
    for end in (0, 1):
        bars.get_by_label("From", exact=True).select_option(f"left{end}")
        bars.get_by_label("To", exact=True).select_option(f"right{end}")
        bars.get_by_role("button", name="Lay a crossmember there").click()
        hand.saved(2 + end)
    saved = 3
    for key in hand.tree["crossmembers"]:
        for wall in ("left", "right"):
            new.get_by_label("Lands on").select_option(f"crossmembers/{key}")
            new.get_by_label("Wall of the box").select_option(wall)
            new.get_by_role("button", name="Put it there").click()
            saved += 1
            hand.saved(saved)
            ledger.get_by_role("button", name="all mounts").click()
    expect(bars).to_contain_text("bar, bent")
    foul = [f for f in analyse(validate(hand.tree), {}).findings if f.code == "mount.crossmember" and f.state == "foul"]
    assert foul
    bars.get_by_role("button", name="Its section and its ends").first.click()
    side = bars.get_by_label("Side", exact=True).first
    side.fill("80")
    side.press("Enter")
    hand.saved(saved + 1)
    assert max(bar["size_mm"] for bar in hand.tree["crossmembers"].values()) == 80
    bars.get_by_role("button", name="take it away").first.click()
    hand.saved(saved + 2)
    assert (len(hand.tree["crossmembers"]), len(hand.tree["mounts"])) == (1, 2)


def test_a_framed_box_is_hung_by_tabs_under_its_tubes(bench: Bench) -> None:
    """By hand one after the other; its tube is too thin, and a thicker one holds."""
    it = framed(40.0, 2.0)
    bare = plain_car(boxes={"x": it}, hardpoints=points_under(it, 120.0))
    bench.store.create(validate(bare), "start", id_="framed")
    hand = Bench(bench.page, bench.store, "framed")
    hand.go("mount")
    page, ledger = hand.page, hand.page.get_by_role("complementary", name="Ledger")
    new = ledger.get_by_role("region", name="New mount")
    for n, key in enumerate(bare["hardpoints"]):
        new.get_by_label("By a").select_option("tab")
        new.get_by_label("Lands on").select_option(f"hardpoints/{key}")
        new.get_by_label("Wall of the box").select_option("base")
        new.get_by_role("button", name="Put it there").click()
        hand.saved(2 + n)
        if n < 3:
            ledger.get_by_role("button", name="all mounts").click()
    expect(page.get_by_role("figure", name="The mount, looking up")).to_be_visible()
    ledger.get_by_role("button", name="change it").click()
    expect(ledger.get_by_label("A weld where it comes over the tube’s edge")).to_be_checked()
    expect(ledger.get_by_label("Held by")).to_have_count(0)
    worst = page.get_by_role("region", name="Watch strip").get_by_role(
        "button", name=re.compile("lower (left|right) tube, bent")
    )
    expect(worst.first).to_be_visible()
    hand.go("box")
    wall = page.get_by_label("Its wall", exact=True)
    wall.fill("3")
    wall.press("Enter")
    hand.saved(6)
    foul = [f for f in analyse(validate(hand.tree), {}).findings if f.code == "mount.tube" and f.state == "foul"]
    assert not foul


def test_a_mount_is_slid_along_its_bar_while_its_uses_follow(bench: Bench) -> None:
    """By keys a burst is one edit; in the hand figures follow, and nothing is written until it is let go."""
    bench.store.create(validate(crossed({"size_mm": 40, "wall_mm": 3})), "start", id_="slid")
    hand = Bench(bench.page, bench.store, "slid")
    hand.go("mount")
    page, ledger = hand.page, hand.page.get_by_role("complementary", name="Ledger")
    key = "right0"
    ledger.get_by_role("button", name=re.compile(f"^{key}")).first.click()
    ledger.get_by_role("button", name="change it").click()
    slider, was = ledger.get_by_role("slider"), hand.tree["mounts"][key]["lands_on"]["along_mm"]
    slider.focus()
    for _ in range(3):
        page.keyboard.press("Shift+ArrowRight")
    hand.saved(2)
    assert hand.tree["mounts"][key]["lands_on"]["along_mm"] == was + 30
    drawn = page.get_by_role("figure", name="The mount, looking forward")
    expect(drawn).to_contain_text("wall to bolt 90")
    expect(ledger).not_to_contain_text("Trying sizes")  # what comes above it moves it
    slider.hover()
    spot = slider.bounding_box()
    assert spot
    x, y = spot["x"] + spot["width"] / 2, spot["y"] + spot["height"] / 2
    page.mouse.down()
    page.mouse.move(x + 30, y, steps=4)
    expect(slider).not_to_have_attribute("aria-valuenow", f"{was + 30:g}")
    expect(drawn).not_to_contain_text("wall to bolt 90")
    expect(slider).to_be_in_viewport()  # though it is foul now
    page.keyboard.press("Escape")
    expect(slider).to_have_attribute("aria-valuenow", f"{was + 30:g}")
    page.mouse.up()
    assert hand.tree["mounts"][key]["lands_on"]["along_mm"] == was + 30
    expect(drawn).to_contain_text("wall to bolt 90")
    slider.hover()
    page.mouse.down()
    page.mouse.move(x + 30, y, steps=4)
    page.mouse.up()
    hand.saved(3)
    assert hand.tree["mounts"][key]["lands_on"]["along_mm"] > was + 40
