"""Parts of Box under the hand: edges cut off, paint and beads."""

import re

from playwright.sync_api import expect

from levelcradle.core.analysis import analyse
from levelcradle.core.assembly import resolve
from levelcradle.core.design import validate
from levelcradle.core.fabricate import parts_of
from tests.web.conftest import Bench


def at_the_tank_box(bench: Bench) -> None:
    bench.go("box")
    bench.page.get_by_role("button", name="Tank box", exact=True).click()


def test_edges_are_cut_off_typed_unfolded_and_cut_out_square(bench: Bench) -> None:
    at_the_tank_box(bench)
    edges = bench.page.get_by_role("region", name="Edges cut off")
    edges.get_by_label("Edge to cut off").select_option("front left")
    edges.get_by_role("button", name="Cut it off").click()
    bench.saved(2)
    field = edges.get_by_label("on the left")
    field.fill("30")
    field.press("Enter")
    bench.saved(3)
    assert list(bench.tree["boxes"]["tank"]["chamfers"].values()) == [
        {"edge": ["front", "left"], "mm": [20, 30], "square": False}
    ]
    offered = edges.get_by_label("Edge to cut off").locator("option").all_inner_texts()
    assert ("aft right" in offered, "left base" in offered, "front left" in offered) == (True, False, False)
    edges.get_by_role("button", name="leave it on").click()
    bench.saved(4)
    assert bench.tree["boxes"]["tank"]["chamfers"] == {}
    edges.get_by_label("Edge to cut off").select_option("aft base")
    edges.get_by_role("button", name="Cut it off").click()
    bench.saved(5)
    edges.get_by_label("cut out square").click()
    bench.saved(6)
    edges.get_by_label("Edge to cut off").select_option("left top")
    edges.get_by_role("button", name="Cut it off").click()
    bench.saved(7)
    ledger = bench.page.get_by_role("complementary", name="Ledger")
    expect(ledger.get_by_text("modules to the step at the aft", exact=False)).to_be_visible()
    expect(ledger.get_by_text("modules to the lid's slope left top", exact=False)).to_be_visible()


def test_paint_and_beads_count_in_the_chain(bench: Bench) -> None:
    at_the_tank_box(bench)
    bench.page.get_by_label("Coats on each face").select_option("3")
    bench.saved(2)
    bench.page.get_by_label("beads outside ground flush").click()
    bench.saved(3)
    assert bench.tree["boxes"]["tank"]["finish"] == {"coats": 3, "coat_mm": 0.08, "beads_ground": False, "bead_mm": 2.0}


def test_a_box_is_taken_for_an_existing_case_and_measured(bench: Bench) -> None:
    at_the_tank_box(bench)
    ledger = bench.page.get_by_role("complementary", name="Ledger")
    ledger.get_by_label("Made as").select_option("existing case")
    bench.saved(2)
    mass = ledger.get_by_label("Empty, with its lid")
    expect(mass).to_have_value("26.44")
    mass.fill("31")
    mass.press("Enter")
    bench.saved(3)
    assert bench.tree["boxes"]["tank"]["construction"] | {"mass_kg": 31} == {
        "type": "existing",
        "size_mm": [394, 700, 248],
        "wall_mm": 3,
        "base_mm": 3,
        "top_mm": 3,
        "mass_kg": 31,
        "tol_mm": 1,
    }
    parts = {part.name for part in parts_of(resolve(bench.store.open(bench.car).design, {}))}
    assert "Bonnet box tray" in parts
    assert "Tank box tray" not in parts


def test_a_box_is_looked_at_opened_and_made_as_a_frame_of_another_tube(bench: Bench) -> None:
    at_the_tank_box(bench)
    picture = bench.page.get_by_role("group", name="Tank box opened: walls laid round the base, seen from inside")
    for words in ("FRONT", "AFT", "LEFT", "RIGHT", "LID", "cable", "4"):
        expect(picture.get_by_text(words, exact=True)).to_be_visible()
    beside = bench.page.get_by_role("table", name="As another construction")
    expect(beside.get_by_role("row", name=re.compile("^folded sheet, as it is"))).to_be_visible()
    expect(beside.get_by_role("row", name=re.compile("^frame with cladding 25.8 kg"))).to_be_visible()
    section = bench.page.get_by_role("region", name="Tank box, cut across")
    expect(section.get_by_text("Across 700 = 2 × 3 wall + 2 × 4 liner + 60 terminals", exact=False)).to_be_visible()
    section.get_by_label("Cut through module").select_option("3")
    expect(section.get_by_role("img").get_by_text("3", exact=True)).to_be_visible()
    ledger = bench.page.get_by_role("complementary", name="Ledger")
    note = ledger.get_by_text("no room is left inside for the pull of its welds", exact=False)
    expect(note).to_be_visible()
    ledger.get_by_label("Welded true to").select_option("class B")
    bench.saved(2)
    expect(note).to_have_count(0)
    ledger.get_by_label("Made as").select_option("frame with cladding")
    bench.saved(3)
    expect(beside.get_by_role("row", name=re.compile("^frame with cladding, as it is"))).to_be_visible()
    tube = ledger.get_by_label("Square tube, outside")
    tube.fill("30")
    tube.press("Enter")
    bench.saved(4)
    ledger.get_by_label("Fixed by").select_option("screws tapped into the tube")
    bench.saved(5)
    expect(ledger.get_by_text("the wall of the tube gives a thread", exact=False)).to_be_visible()
    ledger.get_by_label("Filled through").select_option("its aft end")
    bench.saved(6)
    expect(picture.get_by_text("comes off", exact=True)).to_be_visible()
    expect(picture.get_by_text("TOP", exact=True)).to_be_visible()
    made = bench.tree["boxes"]["tank"]
    assert (made["construction"]["tube_mm"], made["construction"]["fastener"]) == (30, "tapped")
    assert (made["closures"]["lid"]["type"], made["closures"]["lid"]["face"]) == ("panel", "aft")


def test_a_gland_and_a_breather_are_put_where_they_go(bench: Bench) -> None:
    at_the_tank_box(bench)
    ledger, openings = (
        bench.page.get_by_role("complementary", name="Ledger"),
        bench.page.get_by_role("region", name="Openings"),
    )
    ledger.get_by_label("Sealed").select_option("with a gasket")
    bench.saved(2)
    expect(ledger.get_by_text("something to breathe through? nobody has said", exact=False)).to_be_visible()
    openings.get_by_label("What to put in").select_option("vent")
    openings.get_by_role("button", name="Put it where it goes").click()
    bench.saved(3)
    expect(ledger.get_by_text("something to breathe through? yes", exact=False)).to_be_visible()
    openings.get_by_label("In it sits").first.select_option(label="cable gland M32, line to 21 mm")
    bench.saved(4)
    held = bench.tree["boxes"]["tank"]["openings"]
    assert held["vent"]["fitted"]["kind"] == "vent"
    assert (held["cable"]["fitted"]["size"], held["cable"]["diameter_mm"]) == ("M32", 32.5)
    openings.get_by_role("button", name="Sizes of cable").click()
    seat = openings.get_by_label("cable: Seat, across")
    seat.fill("50")
    seat.press("Enter")
    bench.saved(5)
    assert bench.tree["boxes"]["tank"]["openings"]["cable"]["fitted"]["seat_mm"] == 50
    expect(openings.get_by_label("In it sits").first).to_have_value("own")


def test_modules_are_held_six_ways_by_what_is_sized_and_then_changed(bench: Bench) -> None:
    at_the_tank_box(bench)
    held = bench.page.get_by_role("region", name="Held, six ways")
    ways = held.get_by_role("button", name=re.compile("(to its|up:|down:)"))
    expect(held.get_by_role("button", name=re.compile(": rods on feet"))).to_have_count(6)
    held.get_by_role("button", name="Rods on feet", exact=True).click()
    held.get_by_label("Bolts of each").fill("1")
    held.get_by_label("Bolts of each").press("Enter")
    bench.saved(2)
    expect(held.get_by_role("img", name="foul").first).to_be_visible()
    held.get_by_role("button", name="to its front", exact=False).click()
    held.get_by_role("button", name="show the working").click()
    expect(held.get_by_text("0.9 fub As / γM2")).to_be_visible()
    held.get_by_role("button", name="take them out").click()
    bench.saved(3)
    expect(held.get_by_text("nobody has said what holds the modules", exact=False)).to_be_visible()
    held.get_by_label("What is to hold them").select_option("bolts through their own holes")
    held.get_by_role("button", name="Size it").click()
    expect(held.get_by_role("alert")).to_contain_text("holes from base to top")
    held.get_by_label("What is to hold them").select_option("rods on feet")
    held.get_by_role("button", name="Size it").click()
    bench.saved(4)
    expect(ways).to_have_count(6)
    expect(held.get_by_role("img", name="foul")).to_have_count(0)


def test_a_new_user_makes_a_frame_closed_at_its_end_with_contactors_in_a_chamber(bench: Bench) -> None:
    """A folded box; what it would be as a frame; taken, closed at the end, a chamber with a contactor block; its mass
    and
    its way out change, and its cut list is taken."""
    at_the_tank_box(bench)
    ledger = bench.page.get_by_role("complementary", name="Ledger")
    masses, chambers = (bench.page.get_by_role("region", name=name) for name in ("Sizes and masses", "Chambers"))
    expect(masses).to_contain_text("26.4 kg")
    beside = bench.page.get_by_role("table", name="As another construction")
    expect(beside.get_by_role("row", name=re.compile("^frame with cladding 25.8 kg"))).to_be_visible()
    ledger.get_by_label("Made as").select_option("frame with cladding")
    bench.saved(2)
    ledger.get_by_label("Filled through").select_option("its aft end")
    bench.saved(3)
    expect(masses).to_contain_text("25.4 kg")
    found = analyse(validate(bench.tree), {}).findings
    assert ["aft panel" in f.message for f in found if f.id == "access:boxes/tank:lid"] == [True]
    chambers.get_by_label("Face of the new chamber").select_option("front")
    chambers.get_by_role("button", name="Another chamber there").click()
    bench.saved(4)
    expect(masses).not_to_contain_text("25.4 kg")
    block = {"name": "contactor block", "state": "in", "role": "contactors", "mass_kg": 2.4, "at_mm": [2700, 0, 600],
             "solid": {"type": "block", "low_mm": [2660, -35, 580], "high_mm": [2740, 35, 620]}}  # fmt: skip
    bench.store.edit(bench.car, [{"op": "add", "path": "/items/block", "value": block}], base=4, session="x")
    bench.go("survey")
    bench.page.get_by_role("button", name="Things", exact=True).click()
    bench.page.get_by_role("button", name="contactor block", exact=True).click()
    sheet = bench.page
    sheet.get_by_label("It sits").select_option("in or on the Tank box")
    bench.saved(6)
    sheet.get_by_label("In the chamber").select_option("gear chamber")
    bench.saved(7)
    assert bench.tree["items"]["block"]["place"]["chamber"] == "chamber"
    cut = {part.id for part in parts_of(resolve(validate(bench.tree), {}))}
    assert {"tank-chamber-tray", "tank-chamber-lid", "tank-left-panel"} <= cut


def test_liners_lie_in_layers_face_by_face(bench: Bench) -> None:
    at_the_tank_box(bench)
    liners = bench.page.get_by_role("region", name="Liners")
    liners.get_by_label("Of", exact=True).select_option(label="glass-epoxy board, 4")
    bench.saved(2)
    liners.get_by_role("button", name="Another layer").click()
    bench.saved(3)
    liners.get_by_label("Of", exact=True).nth(1).select_option(label="mica sheet")
    bench.saved(4)
    liners.get_by_role("button", name="The same on all four walls").click()
    bench.saved(5)
    layers = bench.tree["boxes"]["tank"]["layers"]
    assert [[row["material"] for row in layers[face].values()] for face in ("front", "aft", "left", "right")] == [
        ["board-4", "mica-1"]
    ] * 4
    liners.get_by_label("On which face").select_option("base")
    liners.get_by_label("Laid").select_option("as runners, with room between")
    bench.saved(6)
    expect(liners.get_by_label("A runner is wide")).to_have_value("40")
    liners.get_by_role("button", name="take it out").click()
    bench.saved(7)
    expect(liners.get_by_text("Nothing lies on it.")).to_be_visible()


def test_a_rest_is_put_on_a_member(bench: Bench) -> None:
    rail = {
        "name": "cross rail",
        "start_mm": [2870, -300, 300],
        "end_mm": [2870, 300, 300],
        "width_mm": 60,
        "height_mm": 92,
    }
    bench.store.edit(bench.car, [{"op": "add", "path": "/members/rail", "value": rail}], base=1, session="x")
    bench.go("mount")
    new = bench.page.get_by_role("region", name="New mount")
    new.get_by_label("By a").select_option("rest under it")
    new.get_by_label("Carries").select_option("Tank box")
    new.get_by_label("Lands on").select_option("cross rail")
    new.get_by_role("button", name="Put it there").click()
    bench.saved(3)
    mount = next(m for m in bench.tree["mounts"].values() if m["shape"]["type"] == "rest")
    assert (mount["carries"], mount["lands_on"]) == (
        {"boxes/tank": True},
        {"type": "member", "member": "rail", "along_mm": 300},
    )
    bench.page.get_by_role("button", name="change it").click()
    expect(bench.page.get_by_label("Pad is thick")).to_have_value("6")
    expect(bench.page.get_by_text("pressed", exact=False).or_(bench.page.get_by_text("pad ·")).first).to_be_visible()


def test_an_opening_is_dragged_and_nudged_with_its_distances_beside_it(bench: Bench) -> None:
    """From the front at 202 and from the base at 60, on the left wall: laid below the base, its rim at the foot."""
    at_the_tank_box(bench)
    picture = bench.page.get_by_role("group", name="Tank box opened: walls laid round the base, seen from inside")
    cable = picture.get_by_role("button", name=re.compile("^cable"))
    expect(cable).to_have_accessible_name("cable, 202 from the front, 60 from the base: arrows move it")
    box = cable.locator("circle").last.bounding_box()
    assert box
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    bench.drag((x, y), (30, 20), release=False)
    expect(picture.get_by_text(re.compile(r"^2[3-9]\d$"))).to_be_visible()
    assert bench.revision == 1
    bench.page.mouse.up()
    bench.saved(2)
    hole = bench.tree["boxes"]["tank"]["openings"]["cable"]
    assert hole["u_mm"] > 220
    assert hole["v_mm"] > 70
    cable.focus()
    for key in ("ArrowLeft", "ArrowLeft", "Shift+ArrowUp"):
        bench.page.keyboard.press(key)
    expect(cable).to_have_accessible_name(
        re.compile(f"{hole['u_mm'] - 2:g} from the front, {hole['v_mm'] - 10:g} from the base")
    )
    bench.saved(3)  # a burst is one edit
    after = bench.tree["boxes"]["tank"]["openings"]["cable"]
    assert (after["u_mm"], after["v_mm"]) == (hole["u_mm"] - 2, hole["v_mm"] - 10)
    bench.page.keyboard.press("u")
    bench.saved(4)
    expect(cable).to_have_accessible_name(re.compile(f"{hole['u_mm']:g} from the front"))


def test_a_flat_lid_on_a_flange_a_panel_that_is_dragged_and_holes_that_take_weight_off(bench: Bench) -> None:
    at_the_tank_box(bench)
    ledger = bench.page.get_by_role("complementary", name="Ledger")
    beside = bench.page.get_by_role("table", name="As another construction")
    ledger.get_by_label("Closed by").select_option("a flat lid on a flange")
    bench.saved(2)
    expect(beside.get_by_role("row", name=re.compile("^folded sheet, as it is .* 6 "))).to_be_visible()
    panels = bench.page.get_by_role("region", name="Service panels")
    panels.get_by_label("Face of the new service panel").select_option("aft")
    panels.get_by_role("button", name="Another panel there").click()
    bench.saved(3)
    picture = bench.page.get_by_role("group", name="Tank box opened: walls laid round the base, seen from inside")
    panel = picture.get_by_role("button", name=re.compile("^service panel, 140 from the left, 110 from the base"))
    panel.scroll_into_view_if_needed()
    box = panel.bounding_box()
    assert box
    bench.drag((box["x"] + box["width"] / 2, box["y"] + box["height"] / 2), (0, -40))
    bench.saved(4)
    moved = bench.tree["boxes"]["tank"]["service_panels"]["panel"]
    assert moved["u_mm"] > 160
    assert moved["v_mm"] == 110
    holes = bench.page.get_by_role("region", name="Lightening holes")
    holes.get_by_label("Face of the lightening holes").select_option("front")
    holes.get_by_role("button", name="Holes there").click()
    bench.saved(5)
    expect(ledger.get_by_text("the lightening holes of its front are", exact=False)).to_be_visible()


def test_a_box_is_cut_apart_for_its_folder_opened_by_a_panel_and_divided(bench: Bench) -> None:
    at_the_tank_box(bench)
    ledger = bench.page.get_by_role("complementary", name="Ledger")
    beside = bench.page.get_by_role("table", name="As another construction")
    deepest = ledger.get_by_label("His deepest tray")
    deepest.fill("200")
    deepest.press("Enter")
    bench.saved(2)
    expect(ledger.get_by_text("walls cut apart and welded on: aft and front", exact=False)).to_be_visible()
    expect(beside.get_by_role("row", name=re.compile("^folded sheet, as it is .* 4 "))).to_be_visible()
    panels = bench.page.get_by_role("region", name="Service panels")
    panels.get_by_label("Face of the new service panel").select_option("aft")
    panels.get_by_role("button", name="Another panel there").click()
    bench.saved(3)
    picture = bench.page.get_by_role("group", name="Tank box opened: walls laid round the base, seen from inside")
    expect(picture.get_by_text("service panel", exact=True)).to_have_count(1)
    over = ledger.get_by_text("service panel reaches", exact=False)
    expect(over).to_have_count(0)
    across = panels.get_by_label("service panel: Opening along the face")
    across.fill("270")
    across.press("Enter")
    bench.saved(4)
    expect(over).to_be_visible()
    across.fill("150")
    across.press("Enter")
    bench.saved(5)
    expect(over).to_have_count(0)
    panels.get_by_label("Of", exact=True).select_option("clear polycarbonate, a window")
    bench.saved(6)
    ledger.get_by_label("Welded with").select_option("AlSi5 (4043)")
    bench.saved(7)
    expect(ledger.get_by_text("steel and aluminium make no weld", exact=False)).to_be_visible()
    parts = {part.name for part in parts_of(resolve(bench.store.open(bench.car).design, {}))}
    assert {"Tank box tray", "Tank box aft wall", "Tank box front wall"} <= parts
    bench.go("place")
    ledger.get_by_role("button", name=re.compile("^Tank box")).click()
    bench.page.get_by_text("Rearrange block a").click()
    bench.page.get_by_label("Dividers", exact=True).select_option("along")
    bench.saved(8)
    bench.page.get_by_label("Dividers of").select_option("glass-epoxy board, 2")
    bench.saved(9)
    bench.page.get_by_label("Each blows off on the").select_option("left")
    bench.saved(10)
    bench.page.get_by_role("button", name="Put a relief in each").click()
    bench.saved(11)
    box = bench.tree["boxes"]["tank"]
    assert box["blocks"]["a"]["dividers"]["material"] == "board-2"
    reliefs = [h for h in box["openings"].values() if h["fitted"] and h["fitted"]["kind"] == "pressure relief"]
    assert [h["face"] for h in reliefs] == ["left"] * 4
    at_the_tank_box(bench)
    ledger.get_by_label("Made as").select_option("open rack")
    bench.saved(12)
    expect(ledger.get_by_text("Tank box is open, and stands in", exact=False)).to_be_visible()
    expect(beside.get_by_role("row", name=re.compile("^open rack, as it is .*angle 30 × 30 × 3"))).to_be_visible()
    expect(picture.get_by_text("LID", exact=True)).to_have_count(0)
