"""Survey and Stock by a new user: keyboard alone, files, instruments, what is still to measure."""

import re
import socket
from pathlib import Path
from typing import Any

import pytest
import trimesh
from playwright.sync_api import Page, expect

from levelcradle.core.analysis import analyse
from levelcradle.instruments.simulated import devices, start
from levelcradle.store import Store
from tests.web.conftest import Bench, settled, worked_off


class Keys:
    """A user without a mouse: everything is focused and pressed by keys."""

    def __init__(self, page: Page) -> None:
        self.page = page

    def press(self, name: str) -> None:
        self.page.get_by_role("button", name=name, exact=True).focus()
        self.page.keyboard.press("Enter")
        settled(self.page)

    def type(self, *texts: str) -> None:
        for text in texts:
            self.page.keyboard.type(text)
            self.page.keyboard.press("Enter")
            settled(self.page)

    def fill(self, label: str, text: str) -> None:
        self.page.get_by_label(label, exact=True).focus()
        self.type(text)

    def choose(self, label: str, words: str) -> None:
        """A list answers to the first letters of its words."""
        self.page.get_by_label(label, exact=True).focus()
        expect(self.page.get_by_label(label, exact=True)).to_be_focused()
        self.page.keyboard.type(words)
        self.page.keyboard.press("Enter")
        settled(self.page)

    def station(self, key: str) -> None:
        self.page.keyboard.press("Escape")
        self.page.get_by_role("navigation", name="Stations").get_by_role("link").first.focus()
        self.page.keyboard.press(key)


def test_from_an_empty_project_to_a_surveyed_vehicle_by_keyboard(page: Page, store: Store) -> None:
    keys = Keys(page)
    page.goto("/")
    page.get_by_label("Name").focus()
    for text in ("Heron van", "2400", "1400", "1390", "", "600", "500", "10"):  # "" passes by how it was weighed
        page.keyboard.type(text)
        page.keyboard.press("Tab")
    page.keyboard.press("Enter")
    expect(page).to_have_url(re.compile(r"/survey(\?|$)"))
    keys.choose("Something aboard", "driver")
    keys.fill("Mass", "80")
    keys.press("say where")
    keys.fill("aft", "1400")
    keys.choose("It is", "assumed")
    keys.press("Things")
    page.get_by_label("Another that comes out").focus()
    keys.type("engine", "120", "50 aft, 0, 550 up", "", "tank", "9", "2100 aft, 0, 450 up", "400 x 600 x 200")
    expect(page.get_by_label("Another that comes out")).to_be_focused()  # for the next, once the last has its row
    keys.press("tank")
    keys.press("Make its place a space")
    keys.press("Reference points")
    keys.press("Another reference point")
    keys.fill("Name", "seat seam")
    for axis, text in zip(("aft", "across", "up"), ("1500", "0", "500"), strict=True):
        keys.fill(axis, text)
    keys.press("Spaces")
    keys.press("Another space")
    keys.fill("station 2, aft", "900")
    keys.fill("station 1, aft", "300")
    for number in (1, 2):
        keys.choose(f"station {number}, measured by", "widths")
        for label, text in (
            ("width at floor", "27 1/2 in"),
            ("width at top", "700"),
            ("floor, up", "-200"),
            ("top left, up", "+100"),
        ):
            keys.fill(f"station {number}, {label}", text)
    keys.station("2")
    expect(page.get_by_label("Start from a generic kind, made up")).to_contain_text("long", ignore_case=True)
    keys.choose("Start from a generic kind, made up", "long")
    keys.press("Shelf")
    keys.fill("Make", "3")
    expect(page.get_by_label(re.compile(", volts$"))).to_have_count(3)
    page.get_by_label(re.compile(", volts$")).first.focus()
    keys.type("58.1", "58.2", "57.0")  # Enter goes down the column
    design = store.open(store.all()[0].id).design
    assert [m.reading_v for _, m in sorted(design.modules.items(), key=lambda row: row[1].order)] == [58.1, 58.2, 57.0]
    assert len(design.bays) == 2
    taken = next(b for b in design.bays.values() if b.measured_from)
    assert [s.aft_mm for s in taken.stations.values()] == [1800.0, 2400.0]
    assert {getattr(s, "width_floor_mm", 0) for s in taken.stations.values()} == {698.5}
    figures = analyse(design, {})
    assert figures.level.found is not None
    assert figures.level.found.total_kg == pytest.approx(1020.0)
    assert design.items["tank"].solid is not None


def test_a_place_is_picked_in_the_views(bench: Bench) -> None:
    bench.go("survey")
    bench.page.get_by_role("button", name="Things").click()
    bench.page.get_by_label("Another that comes out").fill("oil cooler")
    bench.page.get_by_label("Another that comes out").press("Enter")
    bench.page.get_by_role("button", name="Pick the place of oil cooler in a view").click()
    for view in ("plan", "side"):
        box = bench.view(view).bounding_box()
        assert box
        bench.press(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    bench.saved(3)
    aft, across, up = bench.tree["items"]["oil-cooler"]["at_mm"]
    assert 1000 < aft < 1800
    assert abs(across) < 60
    assert 300 < up < 900
    bench.page.get_by_role("button", name="That is it").click()
    expect(bench.page.get_by_label("oil cooler, aft")).to_have_value(str(round(aft)))


def test_measured_twice_without_seeing_the_first(bench: Bench) -> None:
    bench.go("survey")
    bench.page.get_by_role("button", name="Still to measure").click()
    part = bench.page.get_by_role("region", name="Measure twice")
    again = part.get_by_label("motor: its upper face, again")
    first = bench.tree["items"]["motor"]["solid"]["high_mm"][2]
    expect(part).not_to_contain_text(str(round(first)))
    again.fill(f"{first - 4}")
    again.press("Enter")
    expect(part).to_contain_text(f"first {first:.0f}, again {first - 4:.0f}")
    expect(part.get_by_role("img", name="not known")).to_be_visible()  # further apart than a reached-in tape allows
    ledger = bench.page.get_by_role("complementary", name="Ledger")
    expect(ledger).to_contain_text(f"{first:.1f} mm the first time, {first - 4:.1f} mm the second")
    part.get_by_role("button", name="keep the second").click()
    bench.until(lambda: bench.tree["items"]["motor"]["solid"]["high_mm"][2] == first - 4, "the second figure")


def test_a_scan_is_read_in_and_placed_by_three_points(bench: Bench, tmp_path: Path) -> None:
    path = tmp_path / "carrier.stl"
    path.write_bytes(trimesh.creation.icosphere(subdivisions=3, radius=0.15).export(file_type="stl"))
    bench.go("survey")
    bench.page.get_by_role("button", name="Files").click()
    part = bench.page.get_by_role("group", name="Read a scan in")
    part.get_by_label("Scan file").set_input_files(path)
    expect(part).to_contain_text("waiting for a worker")
    worked_off(bench.page, bench.store)
    expect(part.get_by_role("alert")).to_contain_text("does not say its unit")
    part.get_by_label("It is in").select_option("m")
    part.get_by_label("Scan file").set_input_files(path)
    expect(part).to_contain_text("waiting for a worker")
    worked_off(bench.page, bench.store)
    expect(part).to_contain_text("of 1,280 in the file")
    expect(part).to_contain_text("300 × 300 × 300")
    part.get_by_role("button", name="Put it in the car").click()
    row = bench.page.get_by_role("region", name="carrier")
    row.get_by_role("button", name="Place it by three points").click()
    bench.saved(3)
    ties = bench.tree["items"]["carrier"]["solid"]["ties"]
    assert len(ties) == 3
    expect(row.get_by_label("point 1, file, x")).to_be_visible()


def test_a_table_of_modules_is_read_in(bench: Bench, tmp_path: Path) -> None:
    path = tmp_path / "shelf.csv"
    path.write_bytes("\ufeffModul;Spannung;Datum\nA1;44,61;2026-03-01\nA2;?;2026-03-01\n".encode())
    bench.go("stock")
    bench.page.get_by_role("button", name="Shelf", exact=True).click()
    bench.page.get_by_role("button", name="Read a table in").click()
    part = bench.page.get_by_role("region", name="Read a table in")
    part.get_by_label("Table file").set_input_files(path)
    for head, field in (("Modul", "name"), ("Spannung", "open_circuit_v"), ("Datum", "on")):
        part.get_by_label(f"“{head}” is").select_option(field)
    expect(part).to_contain_text("refused:")
    part.get_by_role("button", name="Put 1 on the shelf, leave 1 out").click()
    bench.saved(2)
    expect(bench.page.get_by_role("button", name=re.compile("^A1"))).to_be_visible()
    assert bench.tree["modules"]["a1"]["tests"]["t1"]["open_circuit_v"] == 44.61


def test_what_an_instrument_shows_is_held_into_the_blank(bench: Bench) -> None:
    server, port = start(devices()[4701])
    with socket.create_connection(("127.0.0.1", port)) as told:
        told.sendall(b"load lr 231\nunit lr lb\n")
        bench.go("survey")
        bench.page.get_by_role("button", name="instruments").click()
        strip = bench.page.get_by_role("region", name="Instruments")
        strip.get_by_label("Listen to").fill(f"127.0.0.1:{port}")
        strip.get_by_role("button", name="Listen").click()
        blank = bench.page.get_by_label("Left rear", exact=True)
        blank.focus()
        strip.get_by_role("button", name=re.compile("^Hold lr")).click()
        expect(blank).to_have_value(re.compile(r"^50[89]\.\d lb$"))
        expect(blank).to_be_focused()
        blank.press("Enter")
        bench.saved(2)
    server.shutdown()
    server.server_close()
    assert bench.tree["weighings"]["as-found"]["read"]["lr_kg"] == pytest.approx(231, abs=1.0)
    reading: dict[str, Any] = bench.tree["readings"]["/weighings/as-found/read/lr_kg"]
    assert reading["source"] == f"lr at 127.0.0.1:{port}"
    assert reading["basis"] == "measured"


@pytest.mark.parametrize("station", ["survey", "stock", "place", "box", "mount", "level", "drawings"])
def test_any_station_prints_black_on_white(bench: Bench, station: str) -> None:
    bench.go(station)
    bench.settle()
    bench.page.emulate_media(media="print")
    sheet = bench.page.get_by_role("region", name="Print sheet")
    expect(sheet).to_contain_text("NOT RELEASED")
    expect(sheet).to_contain_text("Calder Ouzel 1500")
    expect(sheet).to_contain_text("masses in kg")
    expect(sheet.get_by_role("columnheader", name="found").first).to_be_visible()
    line = sheet.locator("[data-check-line]").bounding_box()
    assert line
    assert line["width"] == pytest.approx(100 / 25.4 * 96, abs=1)
    expect(bench.page.get_by_role("navigation", name="Stations")).to_be_hidden()
    words = bench.page.evaluate(
        "[...document.querySelectorAll('section[aria-label=\"Print sheet\"] td')].map(e => getComputedStyle(e).color)"
    )
    assert set(words) <= {"rgb(0, 0, 0)"}
