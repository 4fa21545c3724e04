"""Each part of Survey and Stock, worked as its user would: what is typed, what it becomes, what is told."""

import io
import re
from pathlib import Path
from typing import Any

import ezdxf
import pytest
from PIL import Image
from playwright.sync_api import Locator, expect

from levelcradle.core.design import new_design
from tests.web.conftest import Bench, settled


def part(bench: Bench, station: str, name: str) -> None:
    bench.go(station)
    bench.page.get_by_role("button", name=name, exact=True).click()


def put(field: Locator, text: str) -> None:
    field.fill(text)
    field.press("Enter")
    expect(field).to_have_value(text)
    settled(field.page)


def test_fuel_aboard_is_taken_off_the_bare_car(bench: Bench) -> None:
    bench.go("survey")
    bare = bench.page.get_by_role("region", name="The bare car")
    expect(bare).to_contain_text("985.0 kg")
    aboard = bench.page.get_by_role("region", name="Aboard on the scales")
    aboard.get_by_label("Something aboard").select_option("fuel")
    put(aboard.get_by_label("Volume (L)"), "40")
    aboard.get_by_role("button", name="say where").click()
    put(aboard.get_by_label("aft", exact=True), "2880")
    expect(bare).to_contain_text("955.2 kg")
    aboard.get_by_label("Of", exact=True).select_option("diesel")
    expect(bare).to_contain_text("951.6 kg")


def test_corner_sums_against_an_axle_scale(bench: Bench) -> None:
    bench.go("survey")
    bench.page.get_by_role("button", name="Hold the sums against an axle scale").click()
    put(bench.page.get_by_label("Axle scale, front"), "520")
    put(bench.page.get_by_label("Axle scale, rear"), "450")
    ledger = bench.page.get_by_role("complementary", name="Ledger")
    expect(ledger).to_contain_text("Front wheels add up to 532.0 kg, the axle scale reads 520.0 kg")
    expect(ledger).not_to_contain_text("Rear wheels add up")


def test_cg_height_by_lifting_an_axle_with_its_working(bench: Bench) -> None:
    bench.go("survey")
    bench.page.get_by_label("It is", exact=True).select_option("lifted")
    expect(bench.page.get_by_role("note").filter(has_text="Block the suspension")).to_be_visible()
    for label, text in (
        ("Wheel centres raised by", "500"),
        ("Loaded radius, front", "290"),
        ("Loaded radius, rear", "290"),
    ):
        put(bench.page.get_by_label(label), text)
    put(bench.page.get_by_label("Rear axle reads, level"), "453")
    put(bench.page.get_by_label("Rear axle reads, raised"), "475")
    told = bench.page.get_by_role("region", name="As found").get_by_role(
        "button", name=re.compile("CG .* up by the axle lift")
    )
    expect(told).to_be_visible()
    put(bench.page.get_by_label("lift, the scale's step"), "10")
    expect(told).to_contain_text("it only counts as assumed")
    told.click()
    bench.page.get_by_role("region", name="As found").get_by_role("button", name="show the working").click()
    expect(bench.page.get_by_role("region", name="As found").locator("ol")).to_contain_text("ISO 10392")


def test_a_height_from_the_table_is_an_assumption(bench: Bench) -> None:
    bench.go("survey")
    bench.page.get_by_label("It is", exact=True).select_option("assumed")
    bench.page.get_by_label("As of a").select_option("roadster")
    settled(bench.page)
    height: dict[str, Any] = bench.tree["vehicle"]["cg_height"]
    assert (height["basis"], height["up_mm"], height["tolerance_mm"]) == ("assumed", 480, 60)
    assert "an assumption" in height["note"]


def test_the_stance_is_asked_once_and_kept_apart(bench: Bench) -> None:
    bench.go("survey")
    ledger = bench.page.get_by_role("complementary", name="Ledger")
    expect(ledger).to_contain_text("Say once how the car stood")
    before = bench.page.get_by_role("region", name="How it stood while it was measured")
    before.get_by_role("button", name="Say how it stands").click()
    put(before.get_by_label("Arch, left front"), "24 1/2 in")
    expect(ledger).not_to_contain_text("Say once how the car stood")
    assert bench.tree["vehicle"]["stance"]["arches"]["lf_mm"] == pytest.approx(622.3)
    assert bench.tree["vehicle"]["stance_after"] is None


def test_a_point_by_swung_tapes_shows_its_misfit(bench: Bench) -> None:
    part(bench, "survey", "Reference points")
    tapes = bench.page.get_by_role("group", name="Tapes swung to rear panel lip")
    tapes.get_by_role("button", name="place it by swung tapes").click()
    for _ in range(2):
        tapes.get_by_role("button", name="another tape").click()
        settled(bench.page)
    references = bench.tree["references"]
    lip = next(r for r in references.values() if r["name"] == "rear panel lip")
    there = lip["at_mm"]
    for number, tape in enumerate(lip["tapes"].values(), start=1):
        hook = references[tape["hooked"]]["at_mm"]
        far = sum((a - b) ** 2 for a, b in zip(hook, there, strict=True)) ** 0.5
        put(tapes.get_by_label(f"tape {number}, reads"), f"{far + (8 if number == 1 else 0):.0f}")
    tapes.get_by_role("button", name="Where do they meet?").click()
    expect(tapes.get_by_role("status")).to_contain_text("They meet at")
    expect(tapes).to_contain_text("misses by")


def test_a_corner_of_a_section_is_moved_by_keys_and_a_wall_is_picked_for_a_lump(bench: Bench) -> None:
    part(bench, "survey", "Spaces")
    bench.page.get_by_role("button", name="tank space").click()
    key = next(iter(bench.tree["bays"]["tank"]["stations"]))
    first = bench.tree["bays"]["tank"]["stations"][key]["left_top_mm"]
    grip = bench.page.get_by_role("button", name="station 1, left top: drag it, or arrow keys")
    grip.focus()
    bench.page.keyboard.press("Shift+ArrowRight")
    bench.saved(2)
    assert bench.tree["bays"]["tank"]["stations"][key]["left_top_mm"] == first + 10
    bench.page.get_by_role("group", name="Sections, looking forward").locator("g.cursor-pointer").first.dispatch_event(
        "click"
    )
    lumps = bench.page.get_by_role("region", name="Lumps and hollows")
    lumps.get_by_role("button").first.click()
    settled(bench.page)
    assert len(bench.tree["bays"]["tank"]["lumps"]) == 1


def test_a_space_said_in_wall_angles_copied_and_mirrored(bench: Bench) -> None:
    part(bench, "survey", "Spaces")
    bench.page.get_by_role("button", name="spare-wheel well").click()
    litres = bench.page.get_by_text(re.compile(r"^\d+ litres$"))
    before = litres.text_content()
    bench.page.get_by_label("station 1, measured by").select_option("leans")
    expect(bench.page.get_by_label("station 1, left wall leans out")).to_be_visible()
    expect(litres).to_have_text(before or "")
    bench.page.get_by_role("group", name="station 1").get_by_role("button", name="copy").click()
    expect(bench.page.get_by_role("group", name=re.compile("^station"))).to_have_count(3)
    bench.page.get_by_role("group", name="station 3").get_by_role("button", name="mirror").click()
    settled(bench.page)
    assert [len(b["stations"]) for b in bench.tree["bays"].values() if b["name"] == "spare-wheel well"] == [3]


def test_a_square_space_is_made_in_one_line(bench: Bench) -> None:
    part(bench, "survey", "Spaces")
    bench.page.get_by_role("button", name="a square one, in one line").click()
    form = bench.page.get_by_role("form", name="A square space")
    form.get_by_label("Name").fill("under the seat")
    form.get_by_label("Along × across × high").fill("460 x 330")
    form.get_by_label("Peg").and_(form.get_by_role("textbox")).fill("1400 aft, 20 R, 300 up")
    form.get_by_role("button", name="Make this space").click()
    expect(form.get_by_role("alert")).to_have_text("Three figures: 500 x 300 x 200.")
    bench.page.reload()
    bench.page.get_by_role("button", name="a square one, in one line").click()
    expect(form.get_by_label("Name")).to_have_value("under the seat")  # half typed, and kept
    form.get_by_label("Along × across × high").fill("460 x 33 cm x 310")
    form.get_by_role("button", name="Make this space").click()
    expect(form).to_have_count(0)
    bay = bench.tree["bays"]["under-the-seat"]
    assert sorted(s["aft_mm"] for s in bay["stations"].values()) == [1400.0, 1860.0]
    station = bay["stations"]["a"]
    assert (station["left_floor_mm"], station["right_top_mm"]) == (-145.0, 185.0)
    assert (station["floor_mm"], station["top_left_mm"]) == (300.0, 610.0)
    assert {name: side["is"] for name, side in bay["sides"].items() if side["is"] != "metal"} == {"top": "open"}


def test_a_check_diagonal_tells_how_far_out_of_square(bench: Bench) -> None:
    part(bench, "survey", "Spaces")
    part_ = bench.page.get_by_role("region", name="Check diagonals")
    part_.get_by_role("button", name="A check diagonal").click()
    expect(part_).to_contain_text("not taken yet")
    put(part_.get_by_label("The tape reads"), "1200")
    expect(part_).to_contain_text("misses by")
    expect(bench.page.get_by_role("complementary", name="Ledger")).to_contain_text("diagonal")


def test_depths_below_a_straight_edge(bench: Bench) -> None:
    part(bench, "survey", "Spaces")
    bench.page.get_by_label("station 1, measured by").select_option("edge")
    expect(bench.page.get_by_label("station 1, depth 1", exact=True)).to_be_visible()
    count = bench.page.get_by_label(re.compile(r"^station 1, depth \d+$")).count()
    bench.page.get_by_role("button", name="another, 100 further right").click()
    expect(bench.page.get_by_label(re.compile(r"^station 1, depth \d+$"))).to_have_count(count + 1)


def test_what_moves_sweeps_its_space(bench: Bench) -> None:
    part(bench, "survey", "Things")
    bench.page.get_by_label("Another that stays").fill("pedal")
    bench.page.get_by_label("Another that stays").press("Enter")
    bench.page.get_by_label("pedal, where").fill("900 aft, 200 L, 400 up")
    bench.page.get_by_label("pedal, where").press("Enter")
    expect(bench.page.get_by_label("pedal, aft")).to_be_visible()
    bench.page.get_by_label("pedal, size").fill("40 x 40 x 200")
    bench.page.get_by_label("pedal, size").press("Enter")
    settled(bench.page)
    bench.page.get_by_role("button", name="pedal", exact=True).click()
    bench.page.get_by_label("It", exact=True).nth(1).select_option("hinge")
    put(bench.page.get_by_label("to", exact=True), "45")
    bench.page.get_by_role("button", name="a hand before its front").click()
    settled(bench.page)
    item = bench.tree["items"]["pedal"]
    assert item["sweep"]["to_deg"] == 45
    assert item["keep_clear"]["front-room"] == {"face": "front", "depth_mm": 90, "run": None, "reason": "a hand"}


def test_keep_outs_start_from_common_practice_and_a_corridor_has_a_run(bench: Bench) -> None:
    part(bench, "survey", "Keep-outs")
    bench.page.get_by_label("Another keep-out").select_option("corridor")
    bench.saved(2)
    row = bench.page.locator("div.border-b").filter(
        has=bench.page.locator('input[value="corridor for cables and pipes"]')
    )
    row.get_by_role("button", name="Another point after point 2").click()
    bench.saved(3)
    keepout: dict[str, Any] = next(
        k for k in bench.tree["keepouts"].values() if k["kind"] == "corridor" and len(k["solid"]["points_mm"]) == 3
    )
    assert "common practice, no source" in keepout["reason"]
    assert keepout["solid"]["width_mm"] == 60


def test_members_duties_and_faults(bench: Bench) -> None:
    part(bench, "survey", "Hard points")
    bench.page.get_by_role("button", name="Another member").click()
    bench.page.get_by_role("region", name="Members").get_by_label("Condition").select_option("cracked")
    bench.page.get_by_role("region", name="What is behind this hole").get_by_role("button", name="How deep?").click()
    expect(bench.page.get_by_role("region", name="What is behind this hole").get_by_role("status")).not_to_be_empty()
    near = bench.page.get_by_role("region", name="What could carry a box near here")
    near.get_by_label("Near").select_option("tank")
    expect(near).to_contain_text("left rear rail, fore")
    bench.page.get_by_role("button", name="Duties, faults").click()
    bench.page.get_by_role("button", name="Another duty").click()
    duties = bench.page.get_by_role("region", name="Duties")
    duties.get_by_label("It", exact=True).select_option("vacuum")
    ledger = bench.page.get_by_role("complementary", name="Ledger")
    expect(ledger).to_contain_text("nothing")
    duties.get_by_label("How it is done now").fill("electric pump")
    duties.get_by_label("How it is done now").press("Enter")
    settled(bench.page)
    bench.page.get_by_role("button", name="Another fault").click()
    picture = io.BytesIO()
    Image.new("RGB", (20, 12), "brown").save(picture, "PNG")
    photo = {"name": "rust.png", "mimeType": "image/png", "buffer": picture.getvalue()}
    bench.page.get_by_label("Picture of the fault").set_input_files(photo)  # type: ignore[arg-type]
    expect(bench.page.get_by_role("img", name="new fault")).to_be_visible()


def test_a_drawn_outline_becomes_a_section_and_a_thing(bench: Bench, tmp_path: Path) -> None:
    drawing = ezdxf.new("R2010", units=4)
    drawing.modelspace().add_lwpolyline([(-300, 300), (300, 300), (250, 600), (-250, 600)], close=True)
    drawing.modelspace().add_line((0, 0), (10, 0))
    path = tmp_path / "section.dxf"
    drawing.saveas(path)
    part(bench, "survey", "Files")
    files = bench.page.get_by_role("group", name="Read a drawing in")
    files.get_by_label("Drawing file").set_input_files(path)
    expect(files).to_contain_text("4 corners, 600 × 300")
    files.get_by_label("Outline 1, as a section of").select_option("")
    bench.saved(2)
    files.get_by_role("button", name="A thing in plan").click()
    bench.saved(3)
    assert bench.tree["bays"]["drawn-space"]["stations"]["drawn"]["type"] == "points"
    assert len(bench.tree["items"]["outline-1"]["solid"]["outline_mm"]) == 4


def test_a_module_is_edited_on_its_six_faces_by_keyboard(bench: Bench) -> None:
    bench.go("stock")
    faces = bench.page.get_by_role("group", name="Flagstone 12s3p, unfolded")
    faces.get_by_role("button", name=re.compile("^end B")).focus()
    bench.page.keyboard.press("Enter")
    here = bench.page.get_by_role("region", name="On end B")
    here.get_by_label("Terminals").select_option("minus")
    bench.saved(2)
    expect(faces.get_by_role("button", name=re.compile("^end B, minus terminal"))).to_be_visible()
    expect(faces.get_by_role("button", name=re.compile("^end A, plus terminal"))).to_be_visible()
    here.get_by_label("May be down").check()
    here.get_by_label("Room before end B").fill("22")
    here.get_by_label("Room before end B").press("Enter")
    bench.page.get_by_label("Compression").select_option("width")
    put(bench.page.get_by_label("Free size, released"), "230")
    kind: dict[str, Any] = bench.tree["module_kinds"]["flagstone"]
    assert (kind["terminals"], kind["minus"], kind["face_gap_mm"]["end_b"]) == ("end_a", "end_b", 22)
    assert "end_b" in kind["may_rest_on"]
    assert kind["compression"] == {"axis": "width", "free_mm": 230}


def test_altered_and_stand_in_modules_stay_on_the_watch_strip(bench: Bench) -> None:
    part(bench, "stock", "Shelf")
    bench.page.get_by_role("button", name=re.compile("^Flagstone 3")).click()
    bench.page.get_by_role("button", name="It was altered").click()
    put(bench.page.get_by_label("Length now (was 612)"), "630")
    bench.page.get_by_label("A stand-in for trial, to be swapped").check()
    settled(bench.page)
    ledger = bench.page.get_by_role("complementary", name="Ledger")
    expect(ledger).to_contain_text("as altered is 18.0 mm larger than its kind")
    bench.page.get_by_role("region", name="Watch strip").get_by_role("button", name=re.compile(r"^all \d+")).click()
    expect(bench.page.get_by_role("region", name="Watch strip")).to_contain_text("is a stand-in for trial")


def test_readings_of_a_day_make_a_test_of_each_module(bench: Bench) -> None:
    """Typed down the column faster than the line answers."""
    part(bench, "stock", "Shelf")
    bench.page.get_by_label("another day").fill("2026-04-02")
    line = bench.page.context.new_cdp_session(bench.page)
    line.send("Network.enable")
    line.send(
        "Network.emulateNetworkConditions",
        {"offline": False, "latency": 400, "downloadThroughput": -1, "uploadThroughput": -1},
    )
    column = bench.page.get_by_label(re.compile(r", volts$"))
    column.first.focus()
    for text in ("44.7", "44.6", "44.5"):
        bench.page.keyboard.type(text)
        bench.page.keyboard.press("Enter")
    expect(column.nth(3)).to_be_focused()
    settled(bench.page)
    line.detach()
    resistance = bench.page.get_by_label("Flagstone 1, inner resistance")
    put(resistance, "1.8")
    tests = [list(m["tests"].values()) for m in sorted(bench.tree["modules"].values(), key=lambda m: m["order"])][:3]
    assert [t[0]["open_circuit_v"] for t in tests] == [44.7, 44.6, 44.5]
    assert (tests[0][0]["on"], tests[0][0]["resistance_mohm"]) == ("2026-04-02", 1.8)


def test_stacks_and_hardware_are_kept(bench: Bench) -> None:
    part(bench, "stock", "Stacks and hardware")
    bench.page.get_by_role("button", name="Another stack").click()
    stacks = bench.page.get_by_role("region", name="Factory stacks")
    stacks.get_by_label("Flagstone 2", exact=True).check()
    stacks.get_by_label("Kept whole").uncheck()
    settled(bench.page)
    expect(bench.page.get_by_role("complementary", name="Ledger")).to_contain_text("new stack is to be split")
    bench.page.get_by_role("button", name="Another part").click()
    put(bench.page.get_by_role("region", name="Donor hardware kept").get_by_label("How many"), "24")
    assert next(iter(bench.tree["hardware"].values()))["count"] == 24


def test_a_row_of_the_shops_own_is_marked_and_goes_to_the_next_car(bench: Bench) -> None:
    part(bench, "stock", "Tables")
    bench.page.get_by_role("button", name="Liners", exact=True).click()
    add = bench.page.get_by_role("button", name="Add a row of our own")
    expect(add).to_be_disabled()
    bench.page.get_by_label("Name of the own row").fill("cork sheet")
    bench.page.get_by_label("Where its figures come from").fill("measured here, 3 samples")
    add.click()
    row = bench.page.get_by_role("row", name=re.compile("^cork-sheet"))
    expect(row).to_contain_text("shop's own")
    put(row.get_by_label("cork-sheet, thick"), "4.5")
    bench.until(lambda: bench.tree["tables"]["liners"]["cork-sheet"]["thickness_mm"] == 4.5, "the thickness")
    bench.car = bench.store.create(new_design("Heron van", 2650.0), "start", id_="heron")
    part(bench, "stock", "Tables")
    bench.page.get_by_role("button", name="Liners", exact=True).click()
    bench.page.get_by_role("region", name="Own rows of other cars").get_by_role("button", name="Take it over").click()
    bench.saved(2)
    assert bench.tree["tables"]["liners"]["cork-sheet"]["own"]


def test_units_are_chosen_per_list(bench: Bench) -> None:
    bench.go("survey")
    bench.page.get_by_role("button", name="in", exact=True).click()
    bench.saved(2)
    expect(bench.page.get_by_label("Wheelbase")).to_have_value('97 5/8"')
    bench.go("stock")
    expect(bench.page.get_by_label("Length (end A to end B)")).to_have_value("612")
    assert bench.tree["units"] == {"survey": "in", "stock": "mm", "place": "mm", "mass": "kg"}


def test_measurements_are_taken_of_the_space_that_is_shown(bench: Bench) -> None:
    part(bench, "survey", "Spaces")
    bench.page.get_by_role("button", name="spare-wheel well").click()
    bench.page.get_by_role("button", name="Take measurements").click()
    expect(bench.page.get_by_label("Taking")).to_have_value("spare-wheel well")
    expect(bench.page.get_by_text("· spare-wheel well")).to_be_visible()


def test_a_picking_left_open_selects_as_ever_in_other_stations(bench: Bench) -> None:
    part(bench, "survey", "Things")
    bench.page.get_by_role("button", name="Pick the place of engine in a view").click()
    bench.page.keyboard.press("3")
    expect(bench.page).to_have_url(re.compile(r"/place(\?|$)"))
    expect(bench.page.get_by_role("heading", name="Everything placed")).to_be_visible()
    bench.press(*bench.middle("plan", "boxes/tank", "tray"))
    expect(bench.page.get_by_role("heading", name="Tank box")).to_be_visible()
    assert bench.revision == 1


def test_weighed_another_way_keeps_what_the_readings_tell(bench: Bench) -> None:
    bench.go("survey")
    bench.page.get_by_label("Weighed by").select_option("axles")
    expect(bench.page.get_by_label("Front axle", exact=True)).to_have_value("532")
    expect(bench.page.get_by_label("Both left wheels (empty: not weighed)")).to_have_value("496")
    bench.page.get_by_label("Weighed by").select_option("total")
    expect(bench.page.get_by_label("Whole car", exact=True)).to_have_value("985")


def test_a_number_on_the_sheet_leads_to_its_blank(bench: Bench) -> None:
    bench.go("survey")
    bench.page.get_by_role("button", name="Take measurements").click()
    bench.page.get_by_label("Number on the sheet").fill("3")
    bench.page.get_by_label("Number on the sheet").press("Enter")
    expect(bench.page.get_by_text("No. 3 ·")).to_be_visible()
    name = bench.page.get_by_role("main").get_by_role("heading", level=2).last.text_content() or ""
    bench.page.get_by_label(name, exact=True).fill("229")
    bench.page.get_by_label(name, exact=True).press("Enter")
    expect(bench.page.get_by_text("No. 4 ·")).to_be_visible()
    settled(bench.page)
    assert any(r["basis"] == "measured" and r["text"] == "229" for r in bench.tree["readings"].values())


def test_a_rod_is_as_thick_as_its_diameter_which_is_what_a_caliper_reads(bench: Bench) -> None:
    part(bench, "survey", "Things")
    bench.page.get_by_role("button", name="steering column", exact=True).click()
    field = bench.page.get_by_label("diameter")
    expect(field).to_have_value("56")
    put(field, "60")
    settled(bench.page)
    assert bench.tree["items"]["steering-column"]["solid"]["radius_mm"] == 30


def test_another_shape_keeps_the_place(bench: Bench) -> None:
    part(bench, "survey", "Things")
    bench.page.get_by_role("button", name="steering column", exact=True).click()
    before = bench.tree["items"]["steering-column"]["solid"]
    bench.page.get_by_label("Shape").select_option(label="a run with a cross-section")
    bench.saved(2)
    after = bench.tree["items"]["steering-column"]["solid"]
    assert after == {
        "type": "path",
        "points_mm": [before["start_mm"], before["end_mm"]],
        "width_mm": 56,
        "height_mm": 56,
    }
