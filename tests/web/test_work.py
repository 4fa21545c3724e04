"""Work across stations: load states, leans, keep-outs, undo that shows its place, keys."""

import re

import pytest
from playwright.sync_api import expect

from tests.web.conftest import Bench, settled


def test_who_is_aboard_is_chosen_for_a_load_state(bench: Bench) -> None:
    bench.go("level")
    ledger = bench.page.get_by_role("complementary", name="Ledger")
    ledger.get_by_role("group", name="four up").get_by_label("luggage").click()
    bench.saved(2)
    row = bench.page.get_by_role("row").filter(has_text="four up").first
    expect(row).to_contain_text("1,491.9")
    bench.page.get_by_role("button", name="Another load state").click()
    bench.saved(3)
    assert len(bench.tree["load_states"]) == 3


def test_the_loads_show_their_working(bench: Bench) -> None:
    bench.go("level")
    ledger = bench.page.get_by_role("complementary", name="Ledger")
    ledger.get_by_role("button", name=re.compile("Ready: front 585.7 kg ± 3.4 kg, rear 606.2 kg ± 3.6 kg")).click()
    ledger.get_by_role("button", name="show the working").click()
    expect(ledger).to_contain_text("moments about the front axle line (statics)")
    expect(ledger).to_contain_text("Tank box, full")


def test_a_box_leans_in_degrees_and_is_drawn_leaning(bench: Bench) -> None:
    bench.go("place")
    bench.press(*bench.middle("plan", "boxes/tank", "tray"))
    bench.page.get_by_text("Turn and lean in degrees").click()
    field = bench.page.get_by_label("Nose raised")
    field.fill("7.5")
    field.press("Enter")
    bench.saved(2)
    assert bench.tree["boxes"]["tank"]["pose"]["pitch_deg"] == 7.5
    expect(bench.page.get_by_role("complementary", name="Ledger")).to_contain_text("nose raised 7.5°")
    tray = bench.view("side").locator('g[data-kind="tray"][data-path="boxes/tank"] polygon')
    corners = {point.split(",")[1] for point in (tray.get_attribute("points") or "").split()}
    assert len(corners) == 4, "no two corners stand at one height any more"


def test_a_keep_out_is_entered_and_counts_at_once(bench: Bench) -> None:
    bench.go("survey")
    bench.page.get_by_role("button", name="Keep-outs").click()
    bench.page.get_by_label("Another keep-out").select_option(label="other space")
    bench.saved(2)
    rows = bench.page.locator("div.border-b").filter(has=bench.page.get_by_label("It is a", exact=True))
    row = rows.filter(has=bench.page.locator('input[value="other space"]'))
    for label, text in (("from, aft", "2600"), ("from, up", "200")):
        field = row.get_by_label(label, exact=True).nth(0)
        field.fill(text)
        field.press("Enter")
        expect(field).to_have_value(text)
    expect(bench.page.get_by_role("alert")).to_contain_text("must be aft of, right of and above the low corner")


def test_undo_shows_the_place_it_changed(bench: Bench) -> None:
    bench.go("survey")
    field = bench.page.get_by_label("Front overhang")
    field.fill("700")
    field.press("Enter")
    bench.saved(2)
    bench.go("place")
    bench.press(*bench.middle("plan", "boxes/tank", "tray"))
    bench.page.keyboard.press("ArrowRight")
    bench.saved(3)
    bench.page.keyboard.press("Escape")
    bench.page.get_by_role("navigation", name="Stations").get_by_role("link", name=re.compile("^Level")).click()
    bench.page.get_by_role("button", name=re.compile("^Undo: Tank box 1 mm aft")).click()
    bench.saved(4)
    expect(bench.page).to_have_url(re.compile(r"/place(\?|$)"))
    expect(bench.page.get_by_role("heading", name="Tank box")).to_be_visible()


def test_n_goes_to_the_next_worst_and_a_question_mark_shows_the_keys(bench: Bench) -> None:
    bench.go("stock")
    bench.page.keyboard.press("n")
    expect(bench.page).to_have_url(re.compile(r"/place(\?|$)"))
    bench.page.keyboard.press("n")
    expect(bench.page).to_have_url(re.compile(r"/drawings(\?|$)"))
    bench.page.keyboard.press("?")
    card = bench.page.get_by_role("dialog", name="Keys")
    expect(card).to_contain_text("quarter turn about its peg")
    bench.page.keyboard.press("Escape")
    expect(card).to_have_count(0)


@pytest.mark.parametrize(("key", "station"), [("1", "survey"), ("2", "stock"), ("6", "level"), ("9", "drawings")])
def test_digits_are_the_stations_in_order(bench: Bench, key: str, station: str) -> None:
    bench.go("place")
    bench.page.keyboard.press(key)
    expect(bench.page).to_have_url(re.compile(rf"/{station}(\?|$)"))


def test_the_views_show_the_whole_car_or_one_space(bench: Bench) -> None:
    bench.go("place")
    tray = bench.view("plan").locator('g[data-kind="tray"][data-path="boxes/tank"] polygon')
    small = tray.bounding_box()
    bench.page.get_by_role("button", name="tank space", exact=True).click()
    large = tray.bounding_box()
    assert small
    assert large
    assert large["width"] > 1.7 * small["width"]
    assert large["width"] / large["height"] == pytest.approx(small["width"] / small["height"], rel=0.05), (
        "one scale both ways"
    )


def test_plan_and_side_stand_on_one_aft_axis_at_one_scale(bench: Bench) -> None:
    bench.go("place")
    boxes = [
        bench.view(v).locator('g[data-kind="tray"][data-path="boxes/tank"] polygon').bounding_box()
        for v in ("plan", "side")
    ]
    plan, side = boxes
    assert plan
    assert side
    assert plan["x"] == pytest.approx(side["x"], abs=0.6)
    assert plan["width"] == pytest.approx(side["width"], abs=0.6)
    assert plan["height"] / plan["width"] == pytest.approx(700 / 394, rel=0.08)
    assert side["height"] / side["width"] == pytest.approx(245 / 394, rel=0.08)


def test_a_box_goes_with_its_mounts_and_comes_back_with_them(bench: Bench) -> None:
    bench.go("place")
    bench.press(*bench.middle("plan", "boxes/tank", "tray"))
    bench.page.get_by_role("button", name="Remove this box and its 4 mounts").click()
    bench.saved(2)
    assert "tank" not in bench.tree["boxes"]
    bench.page.keyboard.press("u")
    bench.saved(3)
    assert len(bench.tree["mounts"]) == 8


def test_edits_made_quickly_one_after_the_other_are_all_kept(bench: Bench) -> None:
    bench.go("place")
    bench.press(*bench.middle("plan", "boxes/tank", "tray"))
    for _ in range(4):
        bench.page.get_by_role("button", name="one more aft").click()
        bench.page.get_by_role("button", name="one more across").click()
    settled(bench.page)
    counts = bench.tree["boxes"]["tank"]["blocks"]["a"]["counts"]
    assert counts["aft"] > 4, "a count was stored"
    shown = bench.page.locator("output").all_text_contents()
    assert [str(counts[w]) for w in ("aft", "across", "up")] == shown


# --- the last thing done ---


def _overhang(bench: Bench, mm: str) -> None:
    bench.go("survey")
    field = bench.page.get_by_label("Front overhang", exact=True)
    field.fill(mm)
    field.press("Enter")


def test_undo_takes_back_the_nudge_that_was_just_made_and_nothing_before_it(bench: Bench) -> None:
    """Within the second in which more nudges may come; across stations; and redo says what it does."""
    _overhang(bench, "700")
    bench.saved(2)
    bench.go("place")
    bench.press(*bench.middle("plan", "boxes/tank", "tray"))
    expect(bench.page.get_by_role("heading", name="Tank box")).to_be_visible()
    before = bench.place()
    bench.page.keyboard.press("ArrowRight")
    bench.page.keyboard.press("u")
    bench.saved(4)
    assert bench.place() == before
    assert bench.tree["vehicle"]["overall"]["overhang_front_mm"] == 700
    expect(bench.page.get_by_role("button", name="Redo: Tank box 1 mm aft")).to_be_visible()
    bench.page.keyboard.press("Control+y")
    bench.saved(5)
    assert bench.place()[0] == before[0] + 1


def test_a_nudge_is_stored_before_its_view_is_left_and_before_what_is_done_next(bench: Bench) -> None:
    bench.go("place")
    bench.press(*bench.middle("plan", "boxes/tank", "tray"))
    expect(bench.page.get_by_role("heading", name="Tank box")).to_be_visible()
    before = bench.place()
    bench.page.keyboard.press("ArrowRight")
    bench.page.keyboard.press("1")
    field = bench.page.get_by_label("Front overhang", exact=True)
    field.fill("701")
    field.press("Enter")
    bench.saved(3)
    assert bench.place()[0] == before[0] + 1
    bench.page.keyboard.press("Escape")
    bench.page.keyboard.press("Escape")
    bench.page.keyboard.press("u")
    bench.saved(4)
    assert bench.tree["vehicle"]["overall"]["overhang_front_mm"] == 690
    assert bench.place()[0] == before[0] + 1


def test_in_a_blank_where_nothing_is_being_typed_ctrl_z_takes_back_what_is_stored(bench: Bench) -> None:
    bench.go("survey")
    field = bench.page.get_by_label("Front overhang", exact=True)
    field.fill("700")
    field.press("Tab")
    bench.saved(2)
    bench.page.keyboard.press("Control+z")
    bench.saved(3)
    assert bench.tree["vehicle"]["overall"]["overhang_front_mm"] == 690
    expect(field).to_have_value("690")
    field.fill("70")
    bench.page.keyboard.press("Control+z")  # over what is typed: the browser's own
    bench.page.wait_for_timeout(300)
    assert bench.revision == 3


def test_a_reload_and_back_return_to_the_part_the_study_and_the_selected_thing(bench: Bench) -> None:
    page = bench.page
    bench.go("survey")
    page.get_by_role("button", name="Hard points").click()
    page.reload()
    expect(page.get_by_role("button", name="Hard points")).to_have_attribute("aria-pressed", "true")
    page.get_by_role("button", name="Spaces").click()
    page.go_back()
    expect(page.get_by_role("button", name="Hard points")).to_have_attribute("aria-pressed", "true")
    bench.go("place")
    bench.press(*bench.middle("plan", "boxes/tank", "tray"))
    expect(page.get_by_role("heading", name="Tank box")).to_be_visible()
    page.reload()
    expect(page.get_by_role("heading", name="Tank box")).to_be_visible()
    page.keyboard.press("5")
    expect(page).to_have_url(re.compile(r"/mount\?"))
    expect(page.get_by_role("heading", name="Mounts")).to_be_visible()
    page.keyboard.press("Escape")
    page.go_back()
    expect(page.get_by_role("heading", name="Tank box")).to_be_visible()
    page.keyboard.press("Escape")
    page.get_by_role("button", name="How many fit?").click()
    question = page.get_by_role("complementary", name="Question")
    expect(question).to_be_visible()
    page.reload()
    expect(question).to_be_visible()
    page.go_back()
    expect(question).to_have_count(0)
    expect(page.get_by_role("button", name="How many fit?")).to_be_visible()
