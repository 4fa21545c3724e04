"""Length blanks (rule 11) and keys that are dead inside them (rule 12)."""

import re

from playwright.sync_api import Locator, expect

from tests.web.conftest import Bench

PATH = "/vehicle/overall/overhang_front_mm"


def blank(bench: Bench, label: str = "Front overhang") -> Locator:
    bench.go("survey")
    return bench.page.get_by_label(label, exact=True)


def test_it_shows_what_it_understood_does_sums_and_keeps_the_text(bench: Bench) -> None:
    field = blank(bench)
    field.fill("2' 3 1/2\" + 3 x 2 mm")
    expect(bench.page.get_by_text('704.5 mm · 27 3/4"')).to_be_visible()
    field.press("Enter")
    bench.saved(2)
    assert bench.tree["vehicle"]["overall"]["overhang_front_mm"] == 704.5
    assert bench.tree["readings"][PATH]["text"] == "2' 3 1/2\" + 3 x 2 mm"
    expect(field).to_have_value("2' 3 1/2\" + 3 x 2 mm")
    bench.page.reload()
    expect(bench.page.get_by_label("Front overhang")).to_have_value("2' 3 1/2\" + 3 x 2 mm")


def test_tab_takes_it_and_goes_on(bench: Bench) -> None:
    field = blank(bench)
    field.fill("70 cm")
    field.press("Tab")
    bench.saved(2)
    expect(bench.page.get_by_label("Rear overhang")).to_be_focused()
    assert bench.tree["vehicle"]["overall"]["overhang_front_mm"] == 700


def test_esc_restores(bench: Bench) -> None:
    field = blank(bench)
    field.fill("999")
    field.press("Escape")
    expect(field).to_have_value("690")
    bench.page.wait_for_timeout(200)
    assert bench.revision == 1


def test_nonsense_gets_a_message_at_the_field_and_loses_nothing(bench: Bench) -> None:
    field = blank(bench)
    field.fill("--3")
    expect(bench.page.get_by_role("alert")).to_contain_text("Two signs stand together")
    field.press("Enter")
    expect(field).to_have_value("--3")
    assert bench.revision == 1
    field.fill("-5")
    field.press("Enter")
    expect(bench.page.get_by_role("alert")).to_contain_text("must be at least 0")
    expect(field).to_have_value("-5")


def test_over_three_times_its_neighbours_asks_once(bench: Bench) -> None:
    field = blank(bench, "Track, front")
    field.fill("13100")
    field.press("Enter")
    expect(bench.page.get_by_role("alert")).to_contain_text("Over three times its neighbours")
    assert bench.revision == 1
    field.press("Enter")
    bench.saved(2)
    assert bench.tree["vehicle"]["track_mm"]["front"] == 13100


def test_a_station_is_read_from_its_reference_point(bench: Bench) -> None:
    bench.go("survey")
    bench.page.get_by_role("button", name="Spaces").click()
    bench.page.get_by_role("button", name="tank space").click()
    field = bench.page.get_by_label("station 1, floor, up")
    expect(field).to_have_value("215 down")
    field.fill("-8 1/2 in")
    field.press("Enter")
    bench.saved(2)
    path = "/bays/tank/stations/a/floor_mm"
    assert bench.tree["bays"]["tank"]["stations"]["a"]["floor_mm"] == 324.1
    assert bench.tree["readings"][path]["from"] == "seat-seam"


def test_units_are_switched_for_the_list_and_the_text_as_typed_stays_beside_it(bench: Bench) -> None:
    field = blank(bench)
    field.fill("70 cm")
    field.press("Enter")
    bench.saved(2)
    bench.page.get_by_role("button", name="in", exact=True).click()
    bench.saved(3)
    expect(bench.page.get_by_label("Rear overhang")).to_have_value('40 15/16"')
    expect(field).to_have_value('27 9/16"')
    expect(bench.page.get_by_text("typed 70 cm")).to_be_visible()
    bench.go("stock")
    expect(bench.page.get_by_label("Length (end A to end B)")).to_have_value("612")


def test_letters_are_dead_inside_blanks(bench: Bench) -> None:
    field = blank(bench)
    field.press("q")
    field.press("5")
    bench.page.wait_for_timeout(150)
    assert bench.revision == 1
    expect(bench.page).to_have_url(re.compile(r"/survey(\?|$)"))
    field.press("Escape")
    expect(field).to_have_value("690")
    field.press("Escape")
    bench.page.keyboard.press("5")
    expect(bench.page).to_have_url(re.compile(r"/mount(\?|$)"))


def test_a_reading_keeps_its_hook_whatever_the_list_is_hooked_on_meanwhile(bench: Bench) -> None:
    bench.go("survey")
    bench.page.get_by_role("button", name="Spaces").click()
    bench.page.get_by_role("button", name="tank space").click()
    field = bench.page.get_by_label("station 1, floor, up")
    field.fill("-215")
    field.press("Enter")
    bench.saved(2)
    stood = bench.tree["bays"]["tank"]["stations"]["a"]["floor_mm"]
    bench.page.get_by_label("The tape is hooked on").select_option(label="front axle line, centreline and ground")
    expect(field).to_have_value("-215")
    expect(bench.page.get_by_text("from seat seam").first).to_be_visible()
    field.fill("-216")
    field.press("Enter")
    bench.saved(3)
    assert bench.tree["bays"]["tank"]["stations"]["a"]["floor_mm"] == stood - 1
    assert bench.tree["readings"]["/bays/tank/stations/a/floor_mm"]["from"] == "seat-seam"
