"""Files that another program opens: DXF, cut list, sheets, PDF."""

import csv
import io
import math
import re
from dataclasses import replace
from typing import Any
from xml.etree import ElementTree

import ezdxf
import pdfplumber
import pytest
from ezdxf import recover
from shapely.geometry import Polygon

from levelcradle.core.assembly import resolve
from levelcradle.core.design import Design, validate
from levelcradle.core.fabricate import parts_of
from levelcradle.core.part import FlatPart, Hole
from levelcradle.drawings import cut_list_csv, job_of, pack_files, part_dxf, sheet_svg, sheets_of, sheets_pdf
from levelcradle.drawings.border import Job
from levelcradle.drawings.dxf import LAYERS
from levelcradle.drawings.flat_svg import part_svg
from levelcradle.drawings.part_sheet import part_sheets
from levelcradle.drawings.sheet import PAPERS, Sheet, Words

PARTS = ("bonnet-tray", "bonnet-lid", "bonnet-lf-angle", "bonnet-lf-doubler", "tank-tray")


@pytest.fixture(scope="module")
def parts() -> dict[str, FlatPart]:
    from levelcradle.demo import demo_design

    return {p.id: p for p in parts_of(resolve(demo_design(), {}))}


def read_back(data: bytes) -> Any:
    return ezdxf.read(io.StringIO(data.decode("utf-8")))


@pytest.mark.parametrize("version", ["R2010", "R12"])
@pytest.mark.parametrize("name", PARTS)
def test_a_dxf_read_back_has_the_parts_area_and_extents(parts: dict[str, FlatPart], name: str, version: Any) -> None:
    part = replace(parts[name], name="Plättchen ⌀ 5 Ж")
    doc = ezdxf.read(
        io.StringIO(part_dxf(part, released=True, version=version).decode("utf-8" if version == "R2010" else "cp1252"))
    )
    assert (doc.dxfversion, doc.units) == {"R2010": ("AC1024", 4), "R12": ("AC1009", 0)}[version]
    space = doc.modelspace()
    (outline,) = space.query('LWPOLYLINE POLYLINE[layer=="CUT"]')
    assert outline.is_closed if version == "R12" else outline.closed
    points = [(p[0], p[1]) for p in (outline.points() if version == "R12" else outline.get_points())]
    assert len(space.query("SPLINE")) == 0
    circles = space.query('CIRCLE[layer=="CUT"]')
    area = Polygon(points).area - sum(math.pi * c.dxf.radius**2 for c in circles)
    assert area == pytest.approx(part.area_mm2, rel=1e-4)
    low, high = (tuple(f(p[i] for p in points) for i in (0, 1)) for f in (min, max))
    assert (high[0] - low[0], high[1] - low[1]) == pytest.approx(part.size_mm, rel=1e-4)
    assert len(circles) == len(part.holes)
    assert len(space.query('LINE[layer=="BEND_UP"]')) == len(part.bends)


@pytest.mark.parametrize("name", PARTS)
def test_the_audit_finds_nothing_and_every_layer_is_named(parts: dict[str, FlatPart], name: str) -> None:
    doc, auditor = recover.read(io.BytesIO(part_dxf(parts[name], released=False)))
    assert not auditor.errors
    assert set(LAYERS) <= {layer.dxf.name for layer in doc.layers}
    assert {e.dxf.layer for e in doc.modelspace()} <= set(LAYERS)


def test_a_sheet_that_may_not_be_cut_says_so_in_the_file(parts: dict[str, FlatPart]) -> None:
    def texts(released: bool) -> list[str]:
        doc = read_back(part_dxf(parts["tank-tray"], released=released))
        return [t.dxf.text for t in doc.modelspace().query("TEXT")]

    assert texts(False)[0] == "NOT RELEASED"
    assert "NOT RELEASED" not in texts(True)
    assert any("bend deduction 5.31" in t for t in texts(True))


def test_the_cut_list_has_a_row_a_part(parts: dict[str, FlatPart]) -> None:
    rows = list(csv.DictReader(io.StringIO(cut_list_csv(parts.values(), released=True))))
    assert [r["part"] for r in rows] == list(parts)
    assert rows[2]["off"] == "4"
    assert rows[0]["blank mm"] == "1179.4 x 969.4"


@pytest.mark.parametrize("name", ["=1+1", "+cmd", "-2", "@sum", "\tx"])
def test_a_cell_that_looks_like_a_formula_stays_text(parts: dict[str, FlatPart], name: str) -> None:
    from dataclasses import replace

    text = cut_list_csv([replace(parts["tank-tray"], name=name)], released=True)
    cell = list(csv.reader(io.StringIO(text)))[1][1]
    assert cell == f"'{name}"


def test_names_are_text_in_every_drawing(tree: dict[str, Any]) -> None:
    tree["boxes"]["tank"]["name"] = "<script>alert(1)</script> & “co”"
    design = validate(tree)
    for sheet in sheets_of(resolve(design, {}), job_of(design, released=True)):
        svg = sheet_svg(sheet)
        assert "<script" not in svg
    assert "&lt;script&gt;" in sheet_svg(
        next(s for s in sheets_of(resolve(design, {}), job_of(design, released=True)) if s.name == "tank-box")
    )


def test_a_plan_says_which_way_it_lies_and_its_length_bar_is_true(demo: Design) -> None:
    sheet = next(s for s in sheets_of(resolve(demo, {}), job_of(demo, released=False)) if s.name == "tank-box")
    svg = sheet_svg(sheet)
    for word in ("NOSE", "LEFT", "RIGHT", "NOT RELEASED", "394.0", "700.0", "245.0", "check line 100 mm"):
        assert word in svg, word
    assert not re.search(r"\d\s*:\s*\d", svg), "no printed ratio"


def test_an_svg_unit_is_a_hundredth_of_a_millimetre() -> None:
    sheet = Sheet("x", "x")
    sheet.line((10.0, 10.0), (110.0, 10.0))
    assert 'd="M1000 20000 L11000 20000"' in sheet_svg(sheet)
    assert 'viewBox="0 0 29700 21000"' in sheet_svg(sheet)


@pytest.mark.parametrize("count", [3, 26, 27, 250])
def test_every_hole_of_a_part_stands_in_its_tables_once_and_under_its_heading(
    parts: dict[str, FlatPart], count: int
) -> None:
    holes = tuple(Hole((20.0 + n, 40.0), 5.0, "screw") for n in range(count))
    sheets = part_sheets(replace(parts["tank-lid"], holes=holes, bends=()), Job("A car", released=True))
    words = [[m for m in sheet.marks if isinstance(m, Words)] for sheet in sheets]
    told = [m.text for rows in words for m in rows if m.text.startswith("hole ")]
    assert told == [f"hole {n + 1}" for n in range(count)]
    for rows in words:
        table = [m.at for m in rows if m.text.startswith("hole ")]
        heads = [m.at for m in rows if m.text.startswith("From the left")]
        assert all(48 < y < 200 and any(x == head and y < top for head, top in heads) for x, y in table)


def test_each_sheet_has_its_own_paper_in_one_pdf() -> None:
    papers = [PAPERS[name] for name in ("A4", "A3", "Letter", "Tabloid", "A4")]
    with pdfplumber.open(io.BytesIO(sheets_pdf([Sheet(p.name, p.name, p) for p in papers], "x"))) as pdf:
        sizes = [(float(page.width) / 72 * 25.4, float(page.height) / 72 * 25.4) for page in pdf.pages]
    assert sizes == [pytest.approx((p.wide_mm, p.tall_mm), abs=0.1) for p in papers]


@pytest.mark.parametrize("name", PARTS)
def test_an_svg_read_back_has_the_parts_area_extents_and_holes_at_true_size(
    parts: dict[str, FlatPart], name: str
) -> None:
    part = replace(parts[name], name="<b> & co")
    root = ElementTree.fromstring(part_svg(part, released=False))
    groups = {g.get("id"): list(g) for g in root.iter("{http://www.w3.org/2000/svg}g")}
    (outline,) = [mark.get("d") or "" for mark in groups["CUT"] if mark.get("d")]
    ring = Polygon([tuple(map(float, xy.split(","))) for xy in re.findall(r"[-\d.]+,[-\d.]+", outline)])
    holes = [float(mark.get("r") or 0) for mark in groups["CUT"] if mark.get("r")]
    assert ring.area - sum(math.pi * r**2 for r in holes) == pytest.approx(part.area_mm2, rel=1e-6)
    assert ring.bounds == pytest.approx((0, 0, *part.size_mm), abs=1e-3)
    assert sorted(holes) == pytest.approx(sorted(h.diameter_mm / 2 for h in part.holes))
    assert root.get("width") == (root.get("viewBox") or "").split()[2] + "mm", "a unit is a millimetre"
    assert groups["TEXT"][0].text == "NOT RELEASED"
    bends = len(groups.get("BEND_UP", [])) + len(groups.get("BEND_DOWN", []))
    assert bends == len(part.bends)


@pytest.fixture(scope="module")
def pack() -> dict[str, bytes]:
    from levelcradle.demo import demo_design

    return pack_files(demo_design(), {})


def test_the_pack_holds_a_dxf_a_part_a_cut_list_and_one_pdf(pack: dict[str, bytes], parts: dict[str, FlatPart]) -> None:
    assert set(pack) == {
        *(f"{p}.{kind}" for p in parts for kind in ("dxf", "svg")),
        "cut-list.csv",
        "layers.txt",
        "drawings.pdf",
    }


def test_the_pdf_has_a_page_a_box_and_a_part_true_to_size(pack: dict[str, bytes], parts: dict[str, FlatPart]) -> None:
    with pdfplumber.open(io.BytesIO(pack["drawings.pdf"])) as pdf:
        assert len(pdf.pages) == 2 + len(parts)
        for page in pdf.pages:
            assert (float(page.width) / 72 * 25.4, float(page.height) / 72 * 25.4) == pytest.approx((297, 210), abs=0.1)
            assert "NOT RELEASED" in page.extract_text()
        check = [line for line in pdf.pages[0].lines if abs((line["x1"] - line["x0"]) / 72 * 25.4 - 100) < 0.05]
        assert check, "the 100 mm check line is 100 mm long"
        assert "Bonnet box" in pdf.pages[0].extract_text()


def test_a_design_without_a_box_has_nothing_to_cut(tree: dict[str, Any]) -> None:
    tree["boxes"], tree["mounts"] = {}, {}
    assert pack_files(validate(tree), {}) == {}


def test_a_box_that_cannot_be_folded_has_no_flat(tree: dict[str, Any]) -> None:
    tree["boxes"]["tank"]["closures"]["lid"]["edge_mm"] = 8
    assert "tank-tray" not in {p.id for p in parts_of(resolve(validate(tree), {}))}


@pytest.mark.parametrize("yaw", [0.0, 90.0, 180.0, -90.0])
def test_the_words_on_a_box_sheet_are_the_cars_however_the_box_is_turned(tree: dict[str, Any], yaw: float) -> None:
    """In plan the page's right is the box's aft: the word there is where the car has it."""
    tree["boxes"]["tank"]["pose"]["yaw_deg"] = yaw
    design = validate(tree)
    assembly = resolve(design, {})
    aft = assembly.boxes["tank"].placement.direction((1.0, 0.0, 0.0))
    right = {(1, 0): "TAIL", (-1, 0): "NOSE", (0, 1): "RIGHT", (0, -1): "LEFT"}[round(aft[0]), round(aft[1])]
    sheet = next(s for s in sheets_of(assembly, job_of(assembly.design, released=True)) if "Tank box" in s.title)
    words = [m for m in sheet.marks if isinstance(m, Words) and m.text in ("NOSE", "TAIL", "LEFT", "RIGHT")]
    assert max(words[:4], key=lambda m: m.at[0]).text == right
    assert yaw == 0 or any("turned" in m.text for m in sheet.marks if isinstance(m, Words))
