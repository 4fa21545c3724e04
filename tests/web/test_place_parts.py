"""Parts of Place under the hand: the chain, agreed gaps, kept tapes, leaning, compartments, one more row."""

import re

import pytest
from playwright.sync_api import expect

from tests.web.conftest import Bench
from tests.web.test_fit import select


def test_a_row_of_the_chain_goes_to_what_sets_it(bench: Bench) -> None:
    bench.go("place")
    select(bench, "Tank box")
    chain = bench.page.get_by_role("region", name="Stack-up")
    expect(chain).to_contain_text("12.0 spare")
    expect(chain.get_by_role("row", name=re.compile("^module 6"))).to_contain_text("226")
    chain.get_by_role("button", name="across", exact=True).click()
    expect(chain).to_contain_text("terminals, links, covers")
    chain.get_by_role("button", name="aft", exact=True).click()
    chain.get_by_role("button", name="every allowance").click()
    expect(chain).to_contain_text("box as welded")
    chain.get_by_role("button", name=re.compile("gap to axle at full bump")).click()
    expect(bench.page.get_by_role("heading", name="axle at full bump")).to_be_visible()


def test_a_gap_is_agreed_with_a_reason_and_given_up_again(bench: Bench) -> None:
    bench.go("place")
    select(bench, "Tank box")
    bench.page.get_by_role("button", name="axle at full bump", exact=True).click()
    bench.page.get_by_role("button", name="agree on another gap").click()
    bench.page.get_by_label("gap agreed on").fill("10")
    bench.page.get_by_label("because", exact=True).fill("bump stop raised")
    bench.page.get_by_role("button", name="Agree", exact=True).click()
    bench.saved(2)
    expect(bench.page.get_by_text("Because: agreed by hand: bump stop raised")).to_be_visible()
    bench.page.get_by_role("button", name="back to the rule’s gap").click()
    bench.saved(3)
    assert bench.tree["agreed_gaps"] == {}


def test_laid_against_the_bonnet_panel_the_box_leans_with_it(bench: Bench) -> None:
    bench.go("place")
    select(bench, "Bonnet box")
    bench.page.get_by_label("Lay it against").select_option(label="bonnet top")
    bench.saved(2)
    assert bench.tree["boxes"]["bonnet"]["pose"]["pitch_deg"] == pytest.approx(-6.882, abs=0.01)
    expect(bench.page.get_by_text("Turned 0°, nose raised -6.882°")).to_be_visible()


def test_compartments_and_turning_about_are_chosen_on_the_screen(bench: Bench) -> None:
    bench.go("place")
    select(bench, "Tank box")
    bench.page.get_by_text("Rearrange block a").click()
    bench.page.get_by_label("Dividers").select_option("aft")
    bench.saved(2)
    assert bench.tree["boxes"]["tank"]["blocks"]["a"]["dividers"] == {
        "along": "aft",
        "every": 1,
        "thickness_mm": 2,
        "material": None,
        "relief": None,
    }
    bench.page.get_by_label("after every").select_option("2")
    bench.saved(3)
    bench.page.get_by_label("Turn every second about").select_option("aft")
    bench.saved(4)
    expect(bench.page.get_by_text(re.compile("Not on"))).to_contain_text(
        "its sheet in Stock does not let it rest there"
    )


def test_a_block_is_dragged_in_its_box_and_caught_in_line(bench: Bench) -> None:
    """Split in two; the second is drawn to the right, and the box grows with it; then nearly back, where it is caught
    in line."""
    bench.go("place")
    select(bench, "Tank box")
    bench.page.get_by_text("Rearrange block a").click()
    bench.page.get_by_label("Which way").select_option("aft")
    bench.page.get_by_role("button", name="split after").click()
    bench.saved(2)
    before = bench.tree["boxes"]["tank"]["blocks"]["b"]["origin_mm"]
    for _ in range(2):  # the box, then what lies under its lid
        bench.press(*bench.middle("plan", "boxes/tank/blocks/b", "module"))
    bench.page.keyboard.press("Escape")
    wide = bench.view("plan").locator('g[data-path="boxes/tank"][data-kind="tray"] polygon').first.bounding_box()
    bench.drag(bench.middle("plan", "boxes/tank/blocks/b", "module"), (0, -30))
    bench.saved(3)
    moved = bench.tree["boxes"]["tank"]["blocks"]["b"]["origin_mm"]
    assert (moved[0], moved[2]) == (before[0], before[2])
    assert moved[1] > before[1] + 20
    wider = bench.view("plan").locator('g[data-path="boxes/tank"][data-kind="tray"] polygon').first.bounding_box()
    assert wide
    assert wider
    assert wider["height"] > wide["height"] + 20
    bench.drag(bench.middle("plan", "boxes/tank/blocks/b", "module"), (0, 25))
    bench.saved(4)
    assert bench.tree["boxes"]["tank"]["blocks"]["b"]["origin_mm"] == before


def test_what_cannot_be_rearranged_says_why(bench: Bench) -> None:
    bench.go("place")
    select(bench, "Tank box")
    bench.page.get_by_text("Rearrange block a").click()
    bench.page.get_by_role("button", name="split after").click()
    expect(bench.page.get_by_role("alert")).to_contain_text("the block has 1 across")
    assert bench.revision == 1


def test_a_pinned_block_is_not_rearranged(bench: Bench) -> None:
    bench.go("place")
    select(bench, "Tank box")
    bench.page.get_by_text("Rearrange block a").click()
    bench.page.get_by_role("button", name="pin this block").click()
    bench.page.get_by_label("Why it stays").fill("links are cut")
    bench.page.get_by_role("button", name="Pin", exact=True).click()
    bench.saved(2)
    bench.page.get_by_role("button", name="copy beside").click()
    bench.saved(3)  # another block may come
    bench.page.get_by_role("button", name="mirror").first.click()
    expect(bench.page.get_by_text(re.compile("a is pinned: links are cut")).first).to_be_visible()


def test_one_more_row_says_what_it_would_take(bench: Bench) -> None:
    """Five behind one another stand in the axle's way, and are too heavy for four people with luggage: no small
    change clears both."""
    bench.go("place")
    select(bench, "Tank box")
    bench.page.get_by_role("button", name="one more row along").click()
    expect(bench.page.get_by_text("No small change clears it.")).to_be_visible()
    expect(bench.page.get_by_text(re.compile(r"^Gross mass, four up: 1[12]\.\d kg over its rating"))).to_be_visible()
    bench.page.get_by_role("button", name="one more row along").click()
    expect(bench.page.get_by_text("No small change clears it.")).to_have_count(0)


def test_a_kept_tape_is_a_live_row_until_it_is_dropped(bench: Bench) -> None:
    value = {"one": "boxes/tank", "other": "boxes/bonnet"}
    bench.store.edit(bench.car, [{"op": "add", "path": "/tapes/t", "value": value}], base=1, session="start")
    bench.go("place")
    row = bench.page.get_by_role("region", name="Kept tapes")
    expect(row).to_contain_text("Tank box to Bonnet box")
    before = row.inner_text()
    bench.store.edit(
        bench.car, [{"op": "replace", "path": "/boxes/tank/pose/at_mm/0", "value": 2690.5}], base=2, session="other"
    )
    expect(row).not_to_have_text(before)
    row.get_by_role("button", name="drop").click()
    bench.saved(4)
    expect(row).to_have_count(0)


def test_find_says_when_nothing_goes_by_that_name_and_is_walked_by_keys(bench: Bench) -> None:
    bench.go("place")
    bench.page.get_by_role("button", name="Find").click()
    search = bench.page.get_by_role("combobox", name="A name, a finding or a station")
    search.fill("zeppelin")
    expect(bench.page.get_by_text("Nothing goes by that name.")).to_be_visible()
    search.fill("tank")
    bench.page.keyboard.press("ArrowDown")
    chosen = bench.page.get_by_role("option", selected=True)
    expect(chosen).to_have_count(1)
    bench.page.keyboard.press("Escape")
    expect(search).to_have_count(0)
    expect(bench.page).to_have_url(re.compile(r"/place(\?|$)"))


def test_one_types_into_the_next_blank_before_the_sheet_that_was_closed_gives_the_focus_back(bench: Bench) -> None:
    bench.go("place")
    bench.page.get_by_role("button", name="Find").click()
    bench.page.get_by_role("combobox", name="A name, a finding or a station").fill("Tank box")
    # as on a busy machine, where keys are heard before timers
    bench.page.evaluate("() => { const soon = setTimeout; window.setTimeout = (then, ms = 0) => soon(then, ms + 700) }")
    bench.page.keyboard.press("Enter")
    bench.page.keyboard.press("=")
    aft = bench.page.get_by_label("aft (mm)", exact=True)
    aft.fill("2,69")
    bench.page.wait_for_timeout(1000)
    expect(aft).to_be_focused()
    expect(aft).to_have_value("2,69")
