"""Files that another program opens: DXF, cut list, sheets, PDF."""

import csv
import hashlib
import io
import json
import math
import os
import re
import subprocess
import sys
from dataclasses import replace
from pathlib import Path
from typing import Any
from xml.etree import ElementTree

import ezdxf
import openpyxl
import pdfplumber
import pyogrio
import pytest
from ezdxf import recover
from shapely import wkb
from shapely.geometry import Polygon

from levelcradle.core.assembly import resolve
from levelcradle.core.design import Design, validate
from levelcradle.core.fabricate import parts_of
from levelcradle.core.part import FlatPart, Hole
from levelcradle.drawings import Pack, cut_file, drawn, make_pack, part_dxf, sheet_svg, sheets_pdf, subject_of
from levelcradle.drawings.dxf import LAYERS
from levelcradle.drawings.flat_svg import part_svg
from levelcradle.drawings.names import file_stem, plain_name
from levelcradle.drawings.sheet import PAPERS, Sheet, Words
from levelcradle.drawings.sheets.box import box_sheet
from levelcradle.drawings.sheets.part import part_sheets
from levelcradle.drawings.subject import Subject
from levelcradle.drawings.table import Column, Table, for_files, table_csv, workbook
from tests.conftest import one_box

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


@pytest.mark.parametrize("lengths", ["mm", "in", "both"])
def test_a_table_holds_lengths_in_the_unit_that_is_wanted_and_nothing_else_is_turned(lengths: Any) -> None:
    columns = (Column("off", 1.0, 0), Column("blank", 1.0, 1, "taped"), Column("kg", 1.0, 3))
    made = for_files(Table("a", "A", columns, ((4, 254.0, 2.54), (1, None, 1.0))), lengths)
    heads = [column.title for column in made.columns]
    there = {"blank mm": 254.0, "blank in": pytest.approx(10.0)}
    wanted = {"mm": ["blank mm"], "in": ["blank in"], "both": ["blank mm", "blank in"]}[lengths]
    assert heads == ["off", *wanted, "kg"]
    assert made.rows == ((4, *(there[head] for head in wanted), 2.54), (1, *(None for _ in wanted), 1.0))


HOSTILE = ["=1+1", "+cmd", "-2", "@sum", "\tx"]


def table_of(cells: list[str | float | None]) -> Table:
    return Table("a", "A", (Column("words", 1.0), Column("mm", 1.0, 2)), tuple((c, 1.5) for c in cells))


@pytest.mark.parametrize("name", HOSTILE)
def test_a_cell_that_looks_like_a_formula_stays_text(name: str) -> None:
    text = table_csv(table_of([name]), released=True).decode("utf-8-sig")
    assert list(csv.reader(io.StringIO(text)))[1] == [f"'{name}", "1.50"]


def test_a_workbook_holds_numbers_as_numbers_and_no_formula() -> None:
    data = workbook([table_of([*HOSTILE, "https://nowhere.example", None])], released=False, on="2026-03-01")
    leaf = openpyxl.load_workbook(io.BytesIO(data))["a"]
    assert [row[0].value for row in leaf.iter_rows(min_row=2, max_row=8)] == [*HOSTILE, "https://nowhere.example", None]
    assert all(cell.data_type != "f" and cell.hyperlink is None for row in leaf.iter_rows() for cell in row)
    assert [row[1].value for row in leaf.iter_rows(min_row=2, max_row=3)] == [1.5, 1.5]
    assert leaf["A9"].value == "NOT RELEASED"


@pytest.mark.parametrize("name", ["../../etc/passwd", "a/b\\c", "نص", "🔥🔥", "<b>&", "con:*?", "x" * 300])
def test_a_file_is_named_in_letters_that_every_system_takes(parts: dict[str, FlatPart], name: str) -> None:
    part = replace(parts["tank-tray"], name=name, each=(), material_name=name)
    assert re.fullmatch(r"[A-Za-z0-9_-]{1,140}", file_stem(part))
    assert re.fullmatch(r"[a-z0-9-]*", plain_name(name))


def subject(design: Design) -> Subject:
    return subject_of(resolve(design, {}))


def test_names_are_text_in_every_drawing(tree: dict[str, Any]) -> None:
    tree["boxes"]["tank"]["name"] = "<script>alert(1)</script> & “co”"
    pages = {sheet.name: sheet_svg(sheet) for sheet in drawn(subject(validate(tree))).sheets}
    assert not [name for name, svg in pages.items() if "<script" in svg]
    assert "&lt;script&gt;" in pages["B-box"]


def test_a_plan_says_which_way_it_lies_and_its_length_bar_is_true(demo: Design) -> None:
    sheet = next(s for s in drawn(subject(demo)).sheets if s.name == "B-box")
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
    parts: dict[str, FlatPart], demo: Design, count: int
) -> None:
    holes = tuple(Hole((20.0 + n, 40.0), 5.0, "screw") for n in range(count))
    sheets = part_sheets(subject(demo), replace(parts["tank-lid"], holes=holes, bends=(), mark="B2"))
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
def pack() -> Pack:
    from levelcradle.demo import demo_design

    return make_pack(demo_design(), {}, revision=3, on="2026-03-01")


def test_the_pack_holds_sheets_cut_files_tables_templates_and_solids(pack: Pack, parts: dict[str, FlatPart]) -> None:
    cut = {f"cut/{file_stem(p)}.{kind}" for p in parts.values() for kind in ("dxf", "svg")}
    nests = {name for name in pack.files if name.startswith("cut/nest-")}
    assert {name for name in pack.files if name.startswith("cut/")} == {*cut, *nests, "cut/layers.txt"}
    assert len(nests) == len({(p.material_name, p.thickness_mm) for p in parts.values()}) + 1  # trays and lids take two
    assert {"drawings.pdf", "templates.pdf", "dummies.pdf", "tables/tables.xlsx", "tables/cut-list.csv"} < set(
        pack.files
    )
    assert {"solids/whole.step", "solids/whole.glb", "solids/B-tank-box.step", "solids/B-tank-box.stl"} < set(
        pack.files
    )


def test_labels_for_the_engraver_are_open_lines_and_circles_alone(pack: Pack) -> None:
    doc, auditor = recover.read(io.BytesIO(pack.files["labels/labels.dxf"]))
    assert not auditor.errors
    space = doc.modelspace()
    assert {(e.dxftype(), e.dxf.layer) for e in space} == {
        ("LWPOLYLINE", "CUT"),
        *((kind, "ENGRAVE") for kind in ("LWPOLYLINE", "CIRCLE")),
    }
    assert len(space.query('LWPOLYLINE[layer=="CUT"]')) == 2 + 20, "the labels of two boxes, and the small plates"
    root = ElementTree.fromstring(pack.files["labels/labels.svg"])
    assert {mark.tag.split("}")[1] for mark in root.iter()} == {"svg", "title", "g", "path", "circle"}
    assert {g.get("fill") for g in root.iter("{http://www.w3.org/2000/svg}g")} == {"none"}
    drawn_lines = len(list(root.iter("{http://www.w3.org/2000/svg}path")))
    assert drawn_lines == len(space.query("LWPOLYLINE"))


@pytest.mark.parametrize("version", ["R2010", "R12"])
@pytest.mark.parametrize("name", PARTS)
def test_another_reader_finds_the_same_area_and_holes(
    parts: dict[str, FlatPart], tmp_path: Path, name: str, version: Any
) -> None:
    """Read by GDAL, which many programs read DXF with."""
    part, path = parts[name], tmp_path / "part.dxf"
    path.write_bytes(part_dxf(part, released=True, version=version))
    meta, _, shapes, fields = pyogrio.raw.read(path, columns=["Layer", "SubClasses"])
    rows = zip(fields[list(meta["fields"]).index("Layer")], map(wkb.loads, shapes), strict=True)
    rings = sorted((Polygon(line.coords) for layer, line in rows if layer == "CUT"), key=lambda ring: -ring.area)
    outline, *holes = rings
    assert outline.bounds[2] - outline.bounds[0] == pytest.approx(part.size_mm[0], rel=1e-6)
    assert outline.area - sum(hole.area for hole in holes) == pytest.approx(part.area_mm2, rel=1e-3)
    assert len(holes) == len(part.holes)
    assert all(hole.within(outline) for hole in holes)


def test_the_pdf_has_a_page_a_sheet_true_to_size(pack: Pack) -> None:
    sheets = [sheet for group in pack.groups for sheet in group.sheets]
    with pdfplumber.open(io.BytesIO(pack.files["drawings.pdf"])) as pdf:
        assert len(pdf.pages) == len(sheets)
        for page, sheet in zip(pdf.pages, sheets, strict=True):
            assert (float(page.width) / 72 * 25.4, float(page.height) / 72 * 25.4) == pytest.approx((297, 210), abs=0.1)
            text = page.extract_text()
            assert "NOT RELEASED" in text
            check = [n for n in page.lines if abs((n["x1"] - n["x0"]) / 72 * 25.4 - 100) < 0.05]
            assert check, f"the 100 mm check line of {sheet.name} is 100 mm long"


DIGESTS = """
import hashlib, json
from levelcradle.demo import demo_design
from levelcradle.drawings.pack import make_pack
files = make_pack(demo_design(), {}, revision=3, on="2026-03-01").files
print(json.dumps({name: hashlib.sha256(data).hexdigest() for name, data in files.items()}))
"""


def test_the_same_revision_gives_the_same_bytes_in_another_process(pack: Pack) -> None:
    """Where things come out of sets their order is another in every process. The kernel writes a STEP as it likes."""
    seeded = os.environ | {"PYTHONHASHSEED": "3"}
    run = subprocess.run([sys.executable, "-c", DIGESTS], env=seeded, capture_output=True, check=True)
    again = json.loads(run.stdout)
    assert set(again) == set(pack.files)
    here = {name: hashlib.sha256(data).hexdigest() for name, data in pack.files.items()}
    assert [name for name in here if here[name] != again[name] and not name.endswith(".step")] == []


def test_one_cut_file_by_itself_is_the_one_in_the_pack(pack: Pack, demo: Design) -> None:
    name = next(name for name in pack.files if name.endswith(".dxf"))
    assert cut_file(subject_of(resolve(demo, {}), revision=3, on="2026-03-01"), name) == pack.files[name]
    assert cut_file(subject(demo), "cut/none.dxf") is None


def test_hostile_names_come_out_harmless_in_every_file(tree: dict[str, Any]) -> None:
    name = "=cmd|'/C x'!A1 <img src=x> ../../نص 🔥"
    tree = one_box(tree)
    tree["name"] = name
    for collection in ("boxes", "mounts", "items", "hardpoints", "module_kinds"):
        for row in tree[collection].values():
            row["name"] = name
    files = make_pack(validate(tree), {}).files
    assert [n for n in files if not re.fullmatch(r"(cut|labels|solids|tables)?/?[A-Za-z0-9._-]+", n)] == []
    for file, data in files.items():
        if file.endswith(".dxf"):
            assert not recover.read(io.BytesIO(data))[1].errors
        if file.endswith(".svg"):
            assert not list(ElementTree.fromstring(data).iter("{http://www.w3.org/2000/svg}image"))
        if file.endswith(".csv"):
            cells = [cell for row in csv.reader(io.StringIO(data.decode("utf-8-sig"))) for cell in row]
            assert not [cell for cell in cells if cell.startswith(("=", "@", "\t"))]
    assert files["solids/whole.step"].startswith(b"ISO-10303-21;")


def test_a_design_without_a_box_has_nothing_to_cut(tree: dict[str, Any]) -> None:
    tree["boxes"], tree["mounts"] = {}, {}
    assert make_pack(validate(tree), {}).files == {}


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
    sheet = box_sheet(subject_of(assembly), "B", assembly.boxes["tank"])
    words = [m for m in sheet.marks if isinstance(m, Words) and m.text in ("NOSE", "TAIL", "LEFT", "RIGHT")]
    assert max(words[:4], key=lambda m: m.at[0]).text == right
    assert yaw == 0 or any("turned" in m.text for m in sheet.marks if isinstance(m, Words))
