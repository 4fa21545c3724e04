"""The views under a mouse: wheel and empty drags move the view and never the design; picking; what is printed."""

import re

import pytest
from playwright.sync_api import expect

from tests.web.conftest import Bench


def apart(bench: Bench, view: str = "plan") -> float:
    """How far the two boxes stand from each other on the screen."""
    return bench.middle(view, "boxes/tank", "tray")[0] - bench.middle(view, "boxes/bonnet", "tray")[0]


def empty_spot(bench: Bench) -> tuple[float, float]:
    """Between the boxes, above everything in plan."""
    box = bench.view("plan").bounding_box()
    assert box
    return box["x"] + box["width"] * 0.55, box["y"] + 40


def test_the_wheel_comes_closer_about_the_pointer(bench: Bench) -> None:
    bench.go("place")
    spot = bench.middle("plan", "boxes/tank", "tray")
    before = apart(bench)
    bench.page.mouse.move(*spot)
    for _ in range(4):
        bench.page.mouse.wheel(0, -120)
    bench.until(lambda: apart(bench) / before == pytest.approx(1.15**4, rel=0.02), "four turns closer")
    assert apart(bench, "side") / before == pytest.approx(1.15**4, rel=0.02)
    stays = bench.middle("plan", "boxes/tank", "tray")
    assert stays[0] == pytest.approx(spot[0], abs=12)
    bench.page.get_by_role("button", name="whole car").click()
    assert apart(bench) == pytest.approx(before, rel=0.01)
    assert bench.revision == 1


def test_it_comes_no_closer_than_a_dozen_times(bench: Bench) -> None:
    bench.go("place")
    before = apart(bench)
    bench.page.mouse.move(*bench.middle("plan", "boxes/tank", "tray"))
    for _ in range(30):
        bench.page.mouse.wheel(0, -120)
    bench.until(lambda: apart(bench) / before == pytest.approx(12, rel=0.02), "twelve times as large, and no more")


def test_a_drag_on_nothing_moves_the_view_alone(bench: Bench) -> None:
    bench.go("place")
    before, place = bench.middle("plan", "boxes/tank", "tray"), bench.place()
    bench.drag(empty_spot(bench), (80, 0))
    after = bench.middle("plan", "boxes/tank", "tray")
    assert after[0] - before[0] == pytest.approx(80, abs=4)
    assert bench.middle("side", "boxes/tank", "tray")[0] - before[0] == pytest.approx(80, abs=4)
    assert (bench.place(), bench.revision) == (place, 1)


def test_after_the_view_was_moved_a_box_still_follows_the_hand(bench: Bench) -> None:
    bench.go("place")
    bench.page.mouse.move(*bench.middle("plan", "boxes/tank", "tray"))
    for _ in range(3):
        bench.page.mouse.wheel(0, -120)
    before = bench.place()
    at = bench.middle("plan", "boxes/tank", "tray")
    bench.press(*at)
    bench.drag(at, (40, 0))
    bench.saved(2)
    assert bench.place()[0] > before[0]
    assert bench.place()[1:] == before[1:]


def test_esc_leaves_picking_and_nothing_changed(bench: Bench) -> None:
    bench.go("survey")
    bench.page.get_by_role("button", name="Things").click()
    bench.page.get_by_role("button", name="Pick the place of engine in a view").click()
    expect(bench.page.get_by_text("Press where")).to_be_visible()
    bench.page.keyboard.press("Escape")
    expect(bench.page.get_by_text("Press where")).to_have_count(0)
    assert bench.revision == 1


def test_a_finding_of_the_survey_opens_the_part_where_it_is_mended(bench: Bench) -> None:
    bench.store.edit(
        bench.car,
        [{"op": "add", "path": "/duties/heat", "value": {"name": "cabin heat", "kind": "heat"}}],
        base=1,
        session="x",
    )
    bench.go("stock")
    bench.page.get_by_role("region", name="Watch strip").get_by_role("button", name=re.compile(r"^all \d+")).click()
    bench.page.get_by_role("region", name="Watch strip").get_by_role("button", name=re.compile("cabin heat")).click()
    expect(bench.page).to_have_url(re.compile(r"/survey(\?|$)"))
    expect(bench.page.get_by_role("button", name="Duties, faults")).to_have_attribute("aria-pressed", "true")
    expect(bench.page.get_by_role("button", name=re.compile("^cabin heat"))).to_have_attribute("aria-expanded", "true")


def test_the_printed_survey_has_every_blank_and_the_plan(bench: Bench) -> None:
    bench.go("survey")
    bench.settle()
    bench.page.emulate_media(media="print")
    sheet = bench.page.get_by_role("region", name="Print sheet")
    expect(sheet).to_contain_text("PLAN, NOSE at the left, RIGHT upward")
    expect(sheet.get_by_role("row").filter(has_text="Weights: left front wheel")).to_contain_text("268")
    expect(sheet.get_by_role("row").filter(has_text="tank space: station 1, floor, up")).to_be_visible()
    bench.page.emulate_media(media="screen")
    expect(sheet).to_have_count(0)


def test_a_printed_finding_says_its_state_in_a_word(bench: Bench) -> None:
    bench.go("place")
    bench.page.emulate_media(media="print")
    row = (
        bench.page.get_by_role("region", name="Print sheet")
        .get_by_role("row")
        .filter(has_text="Tank box to axle at full bump")
    )
    expect(row).to_contain_text("foul")
    expect(row.get_by_role("cell").nth(2)).to_have_text("10.5 mm")
    expect(row.get_by_role("cell").nth(3)).to_have_text("25.0 mm")
    expect(row.get_by_role("cell").nth(4)).to_have_text("")


def test_taking_measurements_goes_back_and_keeps_what_was_refused(bench: Bench) -> None:
    bench.go("survey")
    page = bench.page
    page.get_by_role("button", name="Spaces").click()
    expect(page.get_by_role("button", name="Spaces")).to_have_attribute("aria-pressed", "true")
    page.get_by_role("button", name="Take measurements").click()
    page.get_by_role("button", name="Leave it, next").click()
    expect(page.get_by_role("heading", name="station 1, floor, up")).to_be_visible()
    blank = page.get_by_label("station 1, floor, up", exact=True)
    blank.fill("2500")  # above its own top
    blank.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("must be above the floor")
    expect(blank).to_have_value("2500")
    blank.fill("12 furlongs")
    expect(page.get_by_role("alert")).to_contain_text("no unit of length")
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Back").click()
    expect(page.get_by_role("heading", name="station 1, aft")).to_be_visible()
    assert bench.revision == 1


def test_the_pad_does_sums_and_takes_back(bench: Bench) -> None:
    bench.go("survey")
    bench.page.get_by_role("button", name="Take measurements").click()
    pad = bench.page.get_by_role("group", name="Pad")
    for key in ("2", "6", "9", "rub out", "0", "+", "7", "."):
        pad.get_by_role("button", name=key, exact=True).click()
    pad.get_by_role("button", name="5", exact=True).click()
    expect(bench.page.get_by_role("status").filter(has_text="267.5 kg")).to_be_visible()
    bench.page.get_by_role("button", name="Take it, next").click()
    bench.saved(2)
    assert bench.tree["weighings"]["as-found"]["read"]["lf_kg"] == 267.5
    assert bench.tree["readings"]["/weighings/as-found/read/lf_kg"]["text"] == "260+7.5"
