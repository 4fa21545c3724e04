"""Rules of the hand at Place: selecting, dragging, nudging, typing, one figure everywhere, undo."""

import re

import pytest
from playwright.sync_api import expect

from tests.web.conftest import Bench


def ledger_title(bench: Bench, name: str) -> None:
    expect(bench.page.get_by_role("complementary", name="Ledger").get_by_role("heading", level=2)).to_have_text(name)


def test_pressing_selects_the_topmost_and_again_the_next_below(bench: Bench) -> None:
    """Rule 1: the box, then the module under the same spot, told as "2 of … here"."""
    bench.go("place")
    spot = bench.middle("plan", "boxes/tank/blocks/a", "module")
    bench.press(*spot)
    ledger_title(bench, "Tank box")
    strip = bench.page.get_by_role("region", name="Watch strip")
    expect(strip).to_contain_text(re.compile(r"1 of \d here: Tank box"))
    bench.press(*spot)
    expect(strip).to_contain_text(re.compile(r"2 of \d here: module 6"))
    expect(bench.page.get_by_role("complementary", name="Ledger")).to_contain_text("Module 6 is chosen")
    for view in ("plan", "side"):
        stroke = bench.view(view).locator('g[data-kind="tray"][data-path="boxes/tank"] polygon')
        bench.page.keyboard.press("Escape")
        assert stroke.count() == 1


def test_what_is_selected_is_heavy_and_blue_in_both_views(bench: Bench) -> None:
    bench.go("place")
    bench.press(*bench.middle("side", "boxes/tank", "tray"))
    for view in ("plan", "side"):
        tray = bench.view(view).locator('g[data-kind="tray"][data-path="boxes/tank"] polygon')
        assert tray.get_attribute("stroke") == "var(--color-blue)"
        assert float(tray.get_attribute("stroke-width") or 0) > 3


def test_esc_climbs_module_block_box_nothing(bench: Bench) -> None:
    bench.go("place")
    spot = bench.middle("plan", "boxes/tank/blocks/a", "module")
    bench.press(*spot)
    bench.press(*spot)
    ledger = bench.page.get_by_role("complementary", name="Ledger")
    expect(ledger).to_contain_text("Module 6 is chosen")
    bench.page.keyboard.press("Escape")
    expect(ledger).not_to_contain_text("is chosen")
    ledger_title(bench, "Tank box")
    bench.page.keyboard.press("Escape")
    ledger_title(bench, "Tank box")
    bench.page.keyboard.press("Escape")
    ledger_title(bench, "Everything placed")


@pytest.mark.parametrize(("view", "untouched"), [("plan", 2), ("side", 1)])
def test_dragging_changes_two_axes_and_leaves_the_third_bit_equal(bench: Bench, view: str, untouched: int) -> None:
    """Rule 2, and one gesture is one revision (rule 10)."""
    bench.go("place")
    before = bench.place()
    bench.drag(bench.middle(view, "boxes/tank", "tray"), (40, -20))
    bench.saved(2)
    after = bench.place()
    assert after[untouched] == before[untouched]
    assert after[0] > before[0]
    assert after[3 - untouched] > before[3 - untouched], "right and up are upward on the screen"


def test_nothing_moves_under_six_pixels_of_travel(bench: Bench) -> None:
    bench.go("place")
    bench.drag(bench.middle("plan", "boxes/tank", "tray"), (4, 3))
    ledger_title(bench, "Tank box")
    bench.page.wait_for_timeout(200)
    assert bench.revision == 1


@pytest.mark.parametrize(("grip", "moved"), [("moves aft only", 0), ("moves across only", 1)])
def test_grips_move_one_way_only(bench: Bench, grip: str, moved: int) -> None:
    bench.go("place")
    bench.press(*bench.middle("plan", "boxes/tank", "tray"))
    handle = bench.view("plan").locator(f'[data-grip="{grip}"]').last.bounding_box()
    assert handle
    before = bench.place()
    bench.drag((handle["x"] + handle["width"] / 2, handle["y"] + handle["height"] / 2), (30, -30))
    bench.saved(2)
    after = bench.place()
    assert [after[i] == before[i] for i in range(3)] == [i != moved for i in range(3)]


def test_while_dragging_the_gap_the_vial_and_the_strip_follow_and_esc_puts_all_back(bench: Bench) -> None:
    bench.go("place")
    bubble = bench.page.locator("[data-bubble]")
    at_rest = bubble.get_attribute("data-bubble")
    strip = bench.page.get_by_role("region", name="Watch strip")
    expect(strip).to_contain_text("10.5 mm")
    bench.drag(bench.middle("plan", "boxes/tank", "tray"), (30, 0), release=False)
    expect(strip).not_to_contain_text("10.5 mm")
    assert bubble.get_attribute("data-bubble") != at_rest
    bench.page.keyboard.press("Escape")
    bench.page.mouse.up()
    expect(strip).to_contain_text("10.5 mm")
    assert bubble.get_attribute("data-bubble") == at_rest
    assert bench.revision == 1


def test_one_gap_is_one_text_on_flag_ledger_and_strip(bench: Bench) -> None:
    """Rule 8."""
    bench.go("place")
    bench.press(*bench.middle("plan", "boxes/tank", "tray"))
    flag = bench.page.locator('[data-flag="gap:boxes/tank:items/axle"] text').first
    row = bench.page.get_by_role("row").filter(has_text="axle at full bump")
    button = bench.page.get_by_role("region", name="Watch strip").get_by_role("button").first
    assert (flag.text_content() or "").startswith("10.5")
    expect(row).to_contain_text("10.5")
    expect(button).to_contain_text("10.5 mm")
    bench.page.get_by_role("button", name="in", exact=True).click()
    expect(row).to_contain_text('13/32"')
    assert (flag.text_content() or "").startswith('13/32"')
    expect(button).to_contain_text('13/32"')


def test_choosing_a_finding_selects_what_it_speaks_of_and_shows_its_working(bench: Bench) -> None:
    bench.go("level")
    bench.page.get_by_role("region", name="Watch strip").get_by_role("button").first.click()
    expect(bench.page).to_have_url(re.compile(r"/place(\?|$)"))
    ledger_title(bench, "Tank box")
    bench.page.keyboard.press("w")
    expect(bench.page.get_by_role("complementary", name="Ledger")).to_contain_text(
        "exact distance between convex solids"
    )


def test_arrows_nudge_and_a_burst_is_one_revision(bench: Bench) -> None:
    """Rules 10 and 12: the heavy-framed view decides which way up is."""
    bench.go("place")
    bench.press(*bench.middle("side", "boxes/tank", "tray"))
    for key in ("ArrowRight", "ArrowRight", "ArrowUp", "Shift+ArrowRight"):
        bench.page.keyboard.press(key)
    bench.saved(2)
    assert bench.place() == [2682.5, -350.0, 353.0]
    expect(bench.page.get_by_role("button", name="Undo: Tank box 12 mm aft, 1 mm up")).to_be_visible()
    bench.page.wait_for_timeout(1200)
    assert bench.revision == 2


def test_undo_names_thing_change_and_amount_and_keys_do_it(bench: Bench) -> None:
    bench.go("place")
    bench.press(*bench.middle("plan", "boxes/tank", "tray"))
    bench.page.keyboard.press("ArrowLeft")
    bench.saved(2)
    bench.page.get_by_role("button", name="Undo: Tank box 1 mm forward").click()
    bench.saved(3)
    assert bench.place()[0] == 2670.5
    bench.page.keyboard.press("Control+Shift+Z")
    bench.saved(4)
    assert bench.place()[0] == 2669.5
    bench.page.keyboard.press("u")
    bench.saved(5)
    assert bench.place()[0] == 2670.5


@pytest.mark.parametrize(
    ("typed", "place"),
    [
        ("840 aft, 120 R, 310 up", [840.0, 120.0, 310.0]),
        ("+14.5", [2685.0, -350.0, 352.0]),
        ("+12 aft", [2682.5, -350.0, 352.0]),
        ('105 1/2"', [2679.7, -350.0, 352.0]),
    ],
)
def test_a_place_is_typed_after_the_equals_key(bench: Bench, typed: str, place: list[float]) -> None:
    """Rule 5."""
    bench.go("place")
    bench.press(*bench.middle("plan", "boxes/tank", "tray"))
    bench.page.keyboard.press("=")
    blanks = bench.page.get_by_role("dialog", name="Place of Tank box")
    assert blanks.get_by_role("textbox").count() == 3
    bench.page.keyboard.type(typed)
    bench.page.keyboard.press("Enter")
    bench.saved(2)
    assert bench.place() == pytest.approx(place)
    expect(blanks).to_have_count(0)


def test_a_fraction_typed_for_a_place_is_shown_in_both_units_afterwards(bench: Bench) -> None:
    bench.go("place")
    bench.press(*bench.middle("plan", "boxes/tank", "tray"))
    bench.page.keyboard.press("=")
    bench.page.keyboard.type("105 1/8")
    bench.page.keyboard.press("Enter")
    bench.saved(2)
    bench.page.keyboard.press("=")
    blanks = bench.page.get_by_role("dialog", name="Place of Tank box")
    expect(blanks.get_by_label("aft (mm)")).to_have_value("2670.2")
    expect(blanks).to_contain_text("typed 105 1/8 in")


def test_a_place_is_typed_from_a_reference_point(bench: Bench) -> None:
    bench.go("place")
    bench.press(*bench.middle("plan", "boxes/tank", "tray"))
    bench.page.keyboard.press("=")
    bench.page.get_by_label("From", exact=True).select_option(label="seat seam")
    blank = bench.page.get_by_label("aft (mm)")
    expect(blank).to_have_value("1060.5")
    blank.fill("1075")
    blank.press("Tab")
    bench.saved(2)
    assert bench.place() == [2685.0, -350.0, 352.0]


def test_four_quarter_turns_return_every_figure(bench: Bench) -> None:
    bench.go("place")
    bench.press(*bench.middle("plan", "boxes/tank", "tray"))
    pose = bench.tree["boxes"]["tank"]["pose"]
    for turn in range(1, 5):
        bench.page.keyboard.press("q")
        bench.saved(1 + turn)
        assert bench.place() == pose["at_mm"], "its peg stays"
    assert bench.tree["boxes"]["tank"]["pose"] == pose


def test_the_tape_between_two_things(bench: Bench) -> None:
    bench.go("place")
    bench.press(*bench.middle("plan", "boxes/tank", "tray"))
    bench.page.keyboard.press("t")
    bench.page.keyboard.press("t")
    bench.page.get_by_role("button", name="Tape between two things (T)").click()
    tape = bench.page.get_by_role("region", name="Tape")
    expect(tape).to_contain_text("From Tank box: press the second thing")
    bench.press(*bench.middle("plan", "boxes/bonnet", "tray"))
    expect(tape).to_contain_text(re.compile(r"Tank box to Bonnet box: [\d.]+"))


def test_counts_turn_and_gap_of_a_block(bench: Bench) -> None:
    bench.go("place")
    bench.press(*bench.middle("plan", "boxes/tank", "tray"))
    bench.page.get_by_role("button", name="one more aft").click()
    bench.saved(2)
    gap = bench.page.get_by_label("gap", exact=True)
    gap.fill("6")
    gap.press("Enter")
    bench.saved(3)
    bench.page.get_by_label("Stands").select_option(label="on edge, terminals right")
    bench.saved(4)
    block = bench.tree["boxes"]["tank"]["blocks"]["a"]
    assert (block["counts"]["aft"], block["gap_mm"]["aft"], block["turn"]) == (5, 6, {"down": "side_a", "aft": "base"})


def test_a_turn_it_may_not_rest_in_is_not_offered(bench: Bench) -> None:
    bench.go("place")
    bench.press(*bench.middle("plan", "boxes/tank", "tray"))
    turns = bench.page.get_by_label("Stands").locator("option").all_text_contents()
    assert len(turns) == 12
    assert not any("upside down" in t or "on end" in t for t in turns)


def test_a_clash_with_another_screen_shows_theirs_and_loses_nothing(bench: Bench) -> None:
    bench.go("place")
    """What others do while the box is in the hand is not taken over until it is let go."""
    x, y = bench.middle("plan", "boxes/tank", "tray")
    bench.press(x, y)
    path = "/boxes/tank/pose/at_mm/0"
    bench.drag((x, y), (30, 0), release=False)
    bench.settle()
    bench.store.edit(bench.car, [{"op": "replace", "path": path, "value": 2700.0}], base=1, session="other")
    bench.settle()
    bench.page.mouse.up()
    alert = bench.page.get_by_role("alert")
    expect(alert).to_contain_text("Somebody else changed the same figure")
    expect(alert).to_contain_text("2700")
    alert.get_by_role("button", name="Close").click()
    expect(bench.page.get_by_role("complementary", name="Ledger")).to_contain_text("2,700 · 350 L · 352")


def test_esc_closes_the_blanks_and_a_misread_place_stays_to_be_mended(bench: Bench) -> None:
    bench.go("place")
    bench.press(*bench.middle("plan", "boxes/tank", "tray"))
    bench.page.keyboard.press("=")
    blanks = bench.page.get_by_role("dialog", name="Place of Tank box")
    bench.page.keyboard.type("840 sideways")
    bench.page.keyboard.press("Enter")
    expect(blanks.get_by_role("alert")).to_contain_text("“sideways” is no unit of length.")
    bench.page.keyboard.press("Escape")
    bench.page.keyboard.press("Escape")
    expect(blanks).to_have_count(0)
    assert bench.revision == 1


def test_a_selected_mount_and_hard_point_are_named_in_the_views(bench: Bench) -> None:
    bench.go("mount")
    bench.page.get_by_role("button", name="Tank box mount, right aft").click()
    bench.page.get_by_role("group", name="Shown").get_by_role("button", name="In the car").click()
    for view in ("plan", "side"):
        expect(bench.view(view).get_by_text("Tank box mount, right aft", exact=True)).to_be_visible()
