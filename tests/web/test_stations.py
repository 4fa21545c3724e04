"""Every station: what it teaches when empty, its cautions, its work, and the keyboard alone."""

import re
from typing import Any

import pytest
from playwright.sync_api import expect

from levelcradle.core.design import new_design
from levelcradle.store import Store
from tests.web.conftest import Bench, worked_off

TEACHES = {
    "survey": "Start with what the car weighs. Two axle readings will do; four wheels are better.",
    "stock": "No modules yet. Measure one, weigh it, and say how many are like it.",
    "place": "Nothing to place yet. It needs one measured space and one module.",
    "box": "No box yet. Place the modules first; the box is drawn round them.",
    "mount": "Place the modules first; then show where the car can hold them.",
    "level": "Weigh the car first, even on a public scale.",
    "drawings": "Nothing to cut yet. When a box has walls, its drawings and cut files appear here.",
}
CAUTIONS = {
    "survey": "Fuel first: drain, purge and cap",
    "stock": "Above 60 V d.c. can kill",
    "mount": "Have it checked",
    "drawings": "Never weld on a box with cells in it",
}


def test_an_empty_station_teaches(bench: Bench, store: Store) -> None:
    bench.car = store.create(new_design("Heron van", 2650.0), "start", id_="heron")
    for station, words in TEACHES.items():
        bench.go(station)
        expect(bench.page.get_by_role("main")).to_contain_text(words)


def test_cautions_stand_where_they_apply_and_every_picture_is_there(bench: Bench) -> None:
    dead = "[...document.images].filter((i) => !i.complete || i.naturalWidth === 0).map((i) => i.src)"
    for station in TEACHES:
        bench.go(station)
        notes = bench.page.get_by_role("note")
        if station in CAUTIONS:
            expect(notes.filter(has_text=CAUTIONS[station]).first).to_be_attached()
            expect(notes.get_by_role("button")).to_have_count(0)
        bench.page.wait_for_load_state("networkidle")
        assert bench.page.evaluate(dead) == [], station


def test_the_stations_say_how_they_stand_in_a_mark_and_a_word(bench: Bench) -> None:
    bench.go("place")
    tabs = bench.page.get_by_role("navigation", name="Stations")
    expect(tabs.get_by_role("link", name=re.compile("^Place foul 1"))).to_be_visible()
    expect(tabs.get_by_role("link", name=re.compile("^Box tight 3"))).to_be_visible()
    expect(tabs.get_by_role("link")).to_have_count(7)  # what is not built is not shown
    bench.page.keyboard.press("7")
    expect(bench.page).to_have_url(re.compile(r"/place(\?|$)"))
    bench.page.keyboard.press("9")
    expect(bench.page).to_have_url(re.compile(r"/drawings(\?|$)"))


def test_the_vial_says_its_loads_and_goes_to_level(bench: Bench) -> None:
    bench.go("place")
    vial = bench.page.get_by_role(
        "button", name=re.compile("left front 293, right front 293, left rear 302, right rear 304; heavy: rear")
    )
    vial.click()
    expect(bench.page).to_have_url(re.compile(r"/level(\?|$)"))


def test_from_axle_readings_the_vial_is_a_tube(bench: Bench) -> None:
    weighing = {"type": "axles", "front_kg": 532, "rear_kg": 453, "step_kg": 10}
    bench.store.edit(
        bench.car, [{"op": "replace", "path": "/weighings/as-found/read", "value": weighing}], base=1, session="x"
    )
    bench.go("place")
    expect(bench.page.get_by_role("button", name="left/right not weighed")).to_be_visible()


def test_stock_makes_many_of_a_kind_and_tells_one_out_of_step(bench: Bench) -> None:
    bench.go("stock")
    bench.page.get_by_role("button", name="Shelf", exact=True).click()
    bench.page.get_by_label("Make", exact=True).fill("3")
    bench.page.get_by_role("button", name="Add").click()
    bench.saved(2)
    assert len(bench.tree["modules"]) == 14
    volts = bench.page.get_by_label("Flagstone 1, volts")
    volts.fill("42")
    volts.press("Enter")
    bench.saved(3)
    expect(bench.page.get_by_role("complementary", name="Ledger")).to_contain_text(
        "Flagstone 1 reads 42.0 V, out of step"
    )


def test_one_row_a_thing_is_added_weighed_and_placed(bench: Bench) -> None:
    bench.go("survey")
    bench.page.get_by_role("button", name="Things").click()
    bench.page.get_by_label("Another that comes out").focus()
    texts = ("oil cooler", "47 lb", "-300 aft, 120 L, 18 in up", "400 x 12 in x 200")  # Enter goes from blank to blank
    for revision, text in enumerate(texts, 2):
        bench.page.keyboard.type(text)
        bench.page.keyboard.press("Enter")
        bench.saved(revision)
        bench.page.wait_for_timeout(400)
    assert bench.revision == 5, "each was taken once"
    item: dict[str, Any] = bench.tree["items"]["oil-cooler"]
    assert item["mass_kg"] == pytest.approx(21.3188, abs=1e-3)
    assert item["at_mm"] == pytest.approx([-300, -120, 457.2])
    assert item["solid"]["low_mm"] == pytest.approx([-500, -272.4, 357.2])
    expect(bench.page.get_by_label("Another that comes out")).to_be_focused()


def test_a_typical_mass_is_a_guess_until_it_is_weighed(bench: Bench) -> None:
    bench.go("survey")
    bench.page.get_by_role("button", name="Things").click()
    row = bench.page.get_by_role("region", name="comes out")
    row.get_by_label(re.compile("start from a typical mass")).select_option("engine-6")
    bench.saved(2)
    added = bench.page.get_by_role("row", name=re.compile("^engine, six"))
    expect(added).to_contain_text("a guess")
    assert any(r["basis"] == "assumed" for r in bench.tree["readings"].values())
    mass = bench.page.get_by_label("engine, six cylinders in line, mass")
    mass.fill("215")
    mass.press("Enter")
    bench.saved(3)
    expect(added).not_to_contain_text("a guess")


def test_a_removed_thing_that_others_name_is_refused_with_the_list(bench: Bench) -> None:
    bench.go("survey")
    bench.page.get_by_role("button", name="Hard points").click()
    bench.page.get_by_role("button", name="left rear rail, fore").click()
    bench.page.get_by_role("button", name="Remove left rear rail, fore").click()
    alert = bench.page.get_by_role("alert")
    expect(alert).to_contain_text("there is no hard point “tail-lf”")
    assert "tail-lf" in bench.tree["hardpoints"]


def test_box_takes_the_folders_deduction_and_a_round_hole(bench: Bench) -> None:
    bench.go("box")
    bench.page.get_by_role("button", name="Tank box", exact=True).click()
    field = bench.page.get_by_label("His bend deduction")
    field.fill("5.0")
    field.press("Enter")
    bench.saved(2)
    bench.page.get_by_role("button", name="Another hole there").click()
    bench.saved(3)
    tank = bench.tree["boxes"]["tank"]
    assert tank["construction"]["folder"]["deduction_mm"] == 5.0
    assert tank["openings"]["hole"]["from"] == ["left", "base"]


def test_a_mount_is_drawn_large_with_what_it_carries_in_a_case_and_what_its_bolt_lands_on(bench: Bench) -> None:
    bench.go("mount")
    page = bench.page
    page.get_by_role("button", name="Bonnet box mount, left fore").first.click()
    beside = page.get_by_role("figure", name="The mount, looking forward")
    expect(beside).to_contain_text("leg on the box 132")
    expect(page.get_by_role("figure", name="The mount, looking right")).to_contain_text("wide 90")
    page.get_by_label("Case").select_option("front impact")
    expect(beside).to_contain_text("press 6,634 N")
    rows = page.get_by_role("table", name="All mounts of the box").get_by_role("row")
    expect(rows).to_have_count(5)
    expect(rows.nth(1)).to_contain_text("−6,634")
    rows.nth(2).get_by_role("button", name="Bonnet box mount, right fore").click()
    expect(page.get_by_role("figure", name="The mount, looking left")).to_be_visible()

    page.get_by_role("button", name="change it").click()
    page.get_by_role("button", name="A backing plate with a captive nut").click()
    bench.saved(2)
    page.get_by_label("Passed in by a hole of (empty: not said)").fill("40")
    page.get_by_label("Passed in by a hole of (empty: not said)").press("Enter")
    told = page.get_by_role("complementary", name="Ledger")
    expect(told).to_contain_text("hole of 40.0 for a backing plate that turned passes 41.4")
    expect(told).to_contain_text("backing plate · ")
    assert bench.tree["mounts"]["bonnet-rf"]["lands_on"]["backing"]["entry_mm"] == 40


def test_mount_shows_uses_weakest_first_and_a_bracket_can_be_changed(bench: Bench) -> None:
    bench.go("mount")
    ledger = bench.page.get_by_role("complementary", name="Ledger")
    expect(ledger.get_by_role("button", name=re.compile("mount")).first).to_contain_text("0.85")
    alone = ledger.get_by_role("region", name="If one lets go")
    alone.get_by_role("button", name="What the others take then").click()
    expect(alone.get_by_role("listitem")).to_have_count(8)
    expect(alone.get_by_role("listitem").first).to_contain_text("1.27")
    ledger.get_by_role("button", name=re.compile("^Tank box mount, left fore")).first.click()
    bench.page.get_by_role("button", name="change it").click()
    bench.page.get_by_role("button", name="No doubler").click()
    bench.saved(2)
    expect(ledger).to_contain_text(re.compile(r"wall · side impact"))
    stations = bench.page.get_by_role("navigation", name="Stations")
    expect(stations.get_by_role("link", name=re.compile("^Mount foul 1"))).to_be_visible()


def test_level_holds_the_prediction_against_the_scale(bench: Bench) -> None:
    bench.go("level")
    weigh = bench.page.get_by_label("Weigh", exact=True)
    weigh.select_option("finished")
    assert bench.revision == 1  # a form that is open stores nothing
    bench.page.get_by_label("Front axle (kg)").fill("587")
    bench.page.get_by_label("Rear axle (kg)").fill("612")
    bench.page.get_by_role("button", name="Put it beside what was expected").click()
    bench.saved(2)
    ledger = bench.page.get_by_role("complementary", name="Ledger")
    expect(ledger).to_contain_text(
        "Finished, rear axle: 612.0 kg, 606.2 kg ± 3.7 kg expected; one of the figures behind it is wrong"
    )
    weigh.select_option("boxes/tank")
    bench.page.get_by_label("It weighs (kg)").fill("131")
    bench.page.get_by_role("button", name="Put it beside what was expected").click()
    bench.saved(3)
    expect(ledger.get_by_role("region", name="Weighed along the way")).to_contain_text("Tank box")
    expect(bench.page.get_by_role("row", name=re.compile("^Tank box, as weighed"))).to_contain_text("131.0")
    ledger.get_by_role("button", name=re.compile("^the car, finished")).click()
    expect(ledger.get_by_role("row", name=re.compile("^rear axle"))).to_contain_text("612.0")


def test_the_pack_is_made_looked_at_taken_away_and_told_out_of_date(bench: Bench) -> None:
    bench.go("drawings")
    page, ledger = bench.page, bench.page.get_by_role("complementary", name="Ledger")
    expect(ledger).to_contain_text("NOT RELEASED")
    expect(ledger).to_contain_text("Tank box to axle at full bump")  # what stands in the way, before anything is made
    ledger.get_by_text("How it is drawn").click()
    page.get_by_label("Paper").select_option("A3")
    page.get_by_label("Views stand in").select_option("first angle")
    bench.saved(3)
    page.get_by_role("button", name="Draw the sheets").click()
    worked_off(bench.page, bench.store)
    sheet = page.get_by_alt_text(re.compile("^Sheet: "))
    expect(sheet).to_have_attribute("alt", "Sheet: Cover and list of sheets")
    drawn = page.request.get(str(sheet.get_attribute("src"))).text()
    assert all(word in drawn for word in ("A3, lengths in mm", "first angle", "revision 3", 'width="420mm"'))
    ledger.get_by_role("button", name="B1 Tank box tray").click()
    expect(sheet).to_have_attribute("alt", "Sheet: B1 Tank box tray")
    with page.expect_download() as download:
        ledger.get_by_role("link", name="All sheets, PDF").click()
    assert download.value.suggested_filename == "drawings.pdf"
    with page.expect_download() as download:
        ledger.get_by_role("link", name="DXF").first.click()
    assert download.value.suggested_filename.startswith("A1-bonnet-box-tray")

    page.get_by_role("group", name="How far B1 is").get_by_role("button", name="cut", exact=True).click()
    bench.saved(4)
    bench.change([{"op": "replace", "path": "/boxes/tank/construction/thickness_mm", "value": 2.5}])
    expect(ledger).to_contain_text("Tank box tray is cut, and is drawn otherwise since")
    expect(page.get_by_text("Out of date since revision 5")).to_be_visible()
    ledger.get_by_role("button", name="A1 Bonnet box tray").click()
    expect(page.get_by_text("Out of date since")).to_have_count(0)
    page.get_by_role("button", name="Show it large, to read").click()
    expect(page.get_by_role("button", name="Show the whole sheet")).to_be_visible()


def test_a_car_from_a_file_and_a_broken_file(bench: Bench, tmp_path: Any) -> None:
    from levelcradle.core.design import dump
    from levelcradle.demo import demo_design

    bench.page.goto("/")
    broken, good = tmp_path / "b.json", tmp_path / "g.cradle.json"
    broken.write_text('{"format": 1')
    good.write_text(dump(demo_design()))
    chooser = bench.page.get_by_label("Open a .cradle.json file or an archive")
    chooser.set_input_files(broken)
    expect(bench.page.get_by_role("alert")).to_contain_text("breaks off")
    chooser.set_input_files(good)
    bench.page.get_by_role("button", name="Another car").click()
    expect(bench.page.get_by_role("navigation", name="Stations")).to_be_visible()


def test_the_new_car_form_says_what_is_wrong_at_the_field(bench: Bench) -> None:
    bench.page.goto("/")
    bench.page.get_by_label("Wheelbase (mm)").fill("2 thousand")
    bench.page.get_by_label("Track, front (mm)").fill("1400")
    bench.page.get_by_role("button", name="Start this car").click()
    expect(bench.page.get_by_role("alert").filter(has_text="Needed").first).to_be_visible()
    alerts = bench.page.get_by_role("alert").all_text_contents()
    assert "Needed" in alerts
    assert any("no unit of length" in a for a in alerts)
    assert "Give both tracks, or none" in alerts
    expect(bench.page.get_by_label("Wheelbase (mm)")).to_have_value("2 thousand")


def test_everything_can_be_reached_without_a_mouse(bench: Bench) -> None:
    """From the page's top: Tab to the stations, Enter, Tab to a box, nudge it, undo."""
    bench.go("level")
    page = bench.page

    def tab_to(name: str) -> None:
        for _ in range(80):
            page.keyboard.press("Tab")
            label = page.evaluate(
                "document.activeElement.getAttribute('aria-label') || document.activeElement.textContent || ''"
            )
            if label.startswith(name):
                return
        pytest.fail(f"never reached {name}")

    tab_to("Place")
    outline = page.evaluate("getComputedStyle(document.activeElement).outlineStyle")
    assert outline == "solid", "focus is visible"
    page.keyboard.press("Enter")
    expect(page).to_have_url(re.compile(r"/place(\?|$)"))
    tab_to("Tank box4 modules")
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="Tank box")).to_be_visible()
    for _ in range(60):
        page.keyboard.press("Shift+Tab")
        if page.evaluate("document.activeElement.getAttribute('data-view')") == "plan":
            break
    page.keyboard.press("ArrowRight")
    bench.saved(2)
    page.keyboard.press("u")
    bench.saved(3)
    assert bench.place()[0] == 2670.5


def test_html_in_a_name_is_text_on_the_screen(bench: Bench) -> None:
    name = "<img src=x onerror=window.hurt=1>"
    bench.store.edit(bench.car, [{"op": "replace", "path": "/boxes/tank/name", "value": name}], base=1, session="x")
    for station in ("place", "box", "mount", "drawings", "level"):
        bench.go(station)
        bench.settle()
    assert bench.page.evaluate("window.hurt") is None
