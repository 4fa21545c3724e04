"""As a new user would, without the demo: New car to downloaded DXF, ending with no foul finding."""

import io
import re
from pathlib import Path

import ezdxf
from playwright.sync_api import Page, expect

from levelcradle.core.analysis import analyse
from levelcradle.store import Store
from tests.web.conftest import settled


def fill(page: Page, label: str, text: str) -> None:
    field = page.get_by_label(label, exact=True)
    field.fill(text)
    field.press("Enter")
    expect(field).to_have_value(text)
    settled(page)


def station(page: Page, name: str) -> None:
    page.get_by_role("navigation", name="Stations").get_by_role("link", name=re.compile(f"^{name}")).click()


def click(page: Page, name: str) -> None:
    page.get_by_role("button", name=name, exact=True).click()
    settled(page)


def new_car(page: Page) -> None:
    page.goto("/")
    figures = {"Name": "Heron van", "Wheelbase (mm)": "240 cm", "Track, front (mm)": "1400", "Track, rear (mm)": "1390",
               "Front axle (kg)": "600", "Rear axle (kg)": "500", "The scale's step (kg)": "10"}  # fmt: skip
    for label, text in figures.items():
        page.get_by_label(label).fill(text)
    page.keyboard.press("Enter")
    expect(page).to_have_url(re.compile(r"/survey(\?|$)"))


def survey(page: Page) -> None:
    click(page, "Things")
    things = (("comes out", "engine", "120", "50 aft, 0, 550 up"), ("goes in", "motor", "132 lb", "300 aft, 0, 400 up"))
    for words, name, mass, place in things:
        page.get_by_label(f"Another that {words}").fill(name)
        page.get_by_label(f"Another that {words}").press("Enter")
        fill(page, f"{name}, mass", mass)
        page.get_by_label(f"{name}, where").fill(place)
        page.get_by_label(f"{name}, where").press("Enter")
        expect(page.get_by_label(f"{name}, up")).to_be_visible()
    click(page, "Reference points")
    click(page, "Another reference point")
    expect(page.get_by_text("Not placed yet")).to_be_visible()
    expect(page.get_by_label("aft", exact=True)).to_have_value("")
    page.get_by_label("Name", exact=True).fill("seat seam")
    page.get_by_label("Name", exact=True).press("Enter")
    for axis, text in zip(("aft", "across", "up"), ("1500", "0", "500"), strict=True):
        fill(page, axis, text)
    expect(page.get_by_text("Not placed yet")).to_have_count(0)


def measure_the_space(page: Page) -> None:
    """From the seat seam: 1,000 to 1,600 aft of it, 350 either side, floor 200 below, top 120 above."""
    click(page, "Spaces")
    click(page, "Measure the first space")
    page.get_by_label("Name", exact=True).fill("tank space")
    page.get_by_label("Name", exact=True).press("Enter")
    fill(page, "station 2, aft", "1600")
    fill(page, "station 1, aft", "1000")
    for number in (1, 2):
        fill(page, f"station {number}, top left, up", "120")
        fill(page, f"station {number}, top right, up", "120")
        fill(page, f"station {number}, floor, up", "-200")
        for side, text in (("left at floor", "350 L"), ("left at top", "350 L"), ("right at floor", "350 R"), ("right at top", "350 R")):
            fill(page, f"station {number}, {side}", text)
    for side in ("fore", "aft", "left", "right", "floor"):
        page.get_by_label(side, exact=True).select_option("open")
    page.get_by_label("top", exact=True).select_option("metal")


def stock(page: Page) -> None:
    station(page, "Stock")
    click(page, "Measure a module")
    page.get_by_label("Name", exact=True).fill("Slate 6s1p")
    page.get_by_label("Name", exact=True).press("Enter")
    for label, text in (("Length (end A to end B)", "300"), ("Width (side A to side B)", "100"), ("Height (base to top)", "170"),
                        ("Mass", "8"), ("Cells in series", "6"), ("Cells in parallel", "1"), ("Nominal", "22.2"), ("Full", "25.2"),
                        ("Above whatever is up", "8"), ("To a neighbour", "4")):  # fmt: skip
        fill(page, label, text)
    ledger = page.get_by_role("complementary", name="Ledger")
    expect(ledger).to_contain_text("Not taken yet: Slate 6s1p: end a")
    fill(page, "Room before end A", "60")
    expect(ledger).not_to_contain_text("Not taken yet")
    click(page, "Shelf")
    page.get_by_label("Make", exact=True).fill("6")
    click(page, "Add")


def place(page: Page) -> None:
    station(page, "Place")
    page.get_by_role("region", name="Put a box in a bay").get_by_label("Stands").select_option(label="flat, terminals forward")
    click(page, "What fits?")
    told = page.get_by_role("region", name="Put a box in a bay").get_by_role("status")
    expect(told).to_contain_text("6 modules in tank space: 1 along, 6 across, one tier")
    click(page, "Put it there")
    expect(page.get_by_role("heading", name="Tank space box")).to_be_visible()
    click(page, "one more row along")
    expect(page.get_by_text("Tank space box: the next row along")).to_be_visible()
    expect(page.get_by_text(re.compile("^Tank space box: the next row along: .* out of the tank space"))).to_be_visible()  # open is not free
    station(page, "Box")
    page.get_by_label("Modules held by").select_option(label="rods and plates")
    expect(page.get_by_role("complementary", name="Ledger")).to_contain_text("has no hole for a cable")
    click(page, "Another hole there")


def hang_it(page: Page) -> None:
    """Four captive nuts under the rails, 460 up; the brackets are asked for."""
    station(page, "Mount")
    expect(page.get_by_role("complementary", name="Ledger")).to_contain_text("nothing carries it: held by nothing")
    station(page, "Survey")
    click(page, "Hard points")
    for number, (aft, across) in enumerate((("2700", "362 L"), ("2700", "362 R"), ("2900", "362 L"), ("2900", "362 R"))):
        click(page, "Another hard point")
        row = page.get_by_role("region", name="Hard points").locator("div.border-b:has(> button)").nth(number)
        row.get_by_label("Name").fill(f"nut {number + 1}")
        row.get_by_label("Name").press("Enter")
        for axis, text in (("aft", aft), ("across", across), ("up", "460")):
            field = row.get_by_label(axis, exact=True)
            field.fill(text)
            field.press("Enter")
            expect(field).to_have_value(text)
        row.get_by_label("From the metal, a bracket lies").select_option("down")
        row.get_by_label("Thread").select_option("M10")
    station(page, "Mount")
    click(page, "Look for brackets that hold")
    asked = page.get_by_role("region", name="How can it hang")
    expect(asked).to_contain_text("nut 1, on the left")
    asked.get_by_role("button", name="Hang it so").first.click()
    expect(asked.get_by_role("button", name="Hang it so")).to_have_count(0)


def test_new_car_to_downloaded_dxf(page: Page, store: Store, tmp_path: Path) -> None:
    new_car(page)
    survey(page)
    measure_the_space(page)
    stock(page)
    place(page)
    hang_it(page)
    station(page, "Level")
    page.get_by_label("Weigh", exact=True).select_option("finished")
    page.get_by_label("Front axle (kg)").fill("540")
    page.get_by_label("Rear axle (kg)").fill("590")
    click(page, "Put it beside what was expected")
    expect(page.get_by_role("complementary", name="Ledger")).to_contain_text("Finished, rear axle: 590.0 kg")
    station(page, "Drawings")
    expect(page.get_by_role("complementary", name="Ledger")).to_contain_text("Nothing is foul; these may be cut.")
    with page.expect_download() as download:
        page.get_by_role("listitem").filter(has_text="Tank space box tray").get_by_role("link", name="DXF").click()
    path = tmp_path / "tray.dxf"
    download.value.save_as(path)
    doc = ezdxf.read(io.StringIO(path.read_text()))
    assert not doc.audit().errors
    assert len(doc.modelspace().query('LWPOLYLINE[layer=="CUT"]')) == 1
    design = store.open(store.all()[0].id).design
    states = {f.state for f in analyse(design, {}).findings}
    assert "foul" not in states
    assert len(design.mounts) == 4
