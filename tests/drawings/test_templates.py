"""Templates and dummies at true size, measured in the PDF that is printed."""

import copy
import io

import pdfplumber
import pytest

from levelcradle.core.assembly import resolve
from levelcradle.core.design import Design, validate
from levelcradle.drawings import sheets_pdf, subject_of
from levelcradle.drawings.sheet import PAPERS, Paper, Sheet, Stroke, Words
from levelcradle.drawings.subject import Subject
from levelcradle.drawings.templates import dummy_sheets, template_sheets
from levelcradle.drawings.tiles import EDGE_MM, HEAD_MM, OVERLAP_MM, tiles
from tests.conftest import DEMO

TO_MM = 25.4 / 72


@pytest.fixture(scope="module")
def of_demo() -> Subject:
    from levelcradle.demo import demo_design

    return subject_of(resolve(demo_design(), {}), revision=1, on="2026-03-01")


def test_a_printed_template_has_the_parts_size_hole_and_check_line(of_demo: Subject) -> None:
    (part,) = [p for p in of_demo.parts if p.mark == "B3"]
    sheets = [s for s in template_sheets(of_demo) if s.name == "template-B3"]
    (page,) = pdfplumber.open(io.BytesIO(sheets_pdf(sheets, "x"))).pages
    sizes = [(r["width"] * TO_MM, r["height"] * TO_MM) for r in page.rects]
    assert any(size == pytest.approx(part.size_mm, abs=0.1) for size in sizes)
    hole = part.holes[0].diameter_mm
    assert any(c["width"] * TO_MM == pytest.approx(hole, abs=0.1) == c["height"] * TO_MM for c in page.curves)
    assert any((n["x1"] - n["x0"]) * TO_MM == pytest.approx(100, abs=0.1) for n in page.lines)


@pytest.mark.parametrize("paper", PAPERS)
@pytest.mark.parametrize("size", [(100.0, 80.0), (613.0, 402.0), (1500.0, 290.0)])
def test_tiles_laid_over_each_other_are_the_whole(of_demo: Subject, paper: str, size: tuple[float, float]) -> None:
    """A line across the whole, put together from all tiles by where their windows are, is whole and straight."""
    from dataclasses import replace

    whole = Sheet("a", "A", Paper("whole", *size))
    whole.line((2.0, 3.0), (size[0] - 2.0, size[1] - 3.0), weight_mm=0.5)
    job = replace(of_demo.job, paper=PAPERS[paper])
    wide, tall = job.paper.wide_mm - 2 * EDGE_MM, job.paper.tall_mm - 2 * EDGE_MM - HEAD_MM
    points = list[tuple[float, float]]()
    for sheet in tiles(whole, job):
        row, column = (int(n) - 1 for n in sheet.name.split("-")[1:]) if sheet.name != "a" else (0, 0)
        left, low = column * (wide - OVERLAP_MM), row * (tall - OVERLAP_MM)
        runs = [m.points for m in sheet.marks if isinstance(m, Stroke) and m.weight_mm == 0.5]
        points += [(x - EDGE_MM + left, y - EDGE_MM + low) for run in runs for x, y in run]
        on_paper = [p for m in sheet.marks if isinstance(m, Stroke) for p in m.points]
        assert all(0 <= x <= job.paper.wide_mm and 0 <= y <= job.paper.tall_mm for x, y in on_paper)
    assert min(points) == pytest.approx((2.0, 3.0))
    assert max(points) == pytest.approx((size[0] - 2.0, size[1] - 3.0))
    slope = (size[1] - 6) / (size[0] - 4)
    assert all(y == pytest.approx(3 + slope * (x - 2), abs=1e-6) for x, y in points)


def test_neighbouring_tiles_show_the_same_strip(of_demo: Subject, demo: Design) -> None:
    whole = Sheet("a", "A", Paper("whole", 900.0, 100.0))
    for x in range(0, 900, 2):
        whole.line((x, 10.0), (x, 20.0), weight_mm=0.5)
    seen: dict[float, int] = {}
    for sheet in tiles(whole, of_demo.job):
        left = (int(sheet.name.split("-")[2]) - 1) * (of_demo.job.paper.wide_mm - 2 * EDGE_MM - OVERLAP_MM)
        for mark in sheet.marks:
            if isinstance(mark, Stroke) and mark.weight_mm == 0.5:
                x = round(mark.points[0][0] - EDGE_MM + left)
                seen[x] = seen.get(x, 0) + 1
    assert sorted(seen) == list(range(0, 900, 2))
    assert max(seen.values()) == 2
    assert sum(n == 2 for n in seen.values()) >= OVERLAP_MM / 2 * 3


def test_a_dummy_has_six_faces_of_the_module_and_says_what_is_on_them(of_demo: Subject, demo: Design) -> None:
    kind = demo.module_kinds["flagstone"]
    sheets = list(dummy_sheets(of_demo))
    said = {m.text for s in sheets for m in s.marks if isinstance(m, Words)}
    assert {"base", "top", "side a", "side b", "end a", "end b", "terminals", "+", "−"} <= said
    assert any(kind.name in text for text in said)


@pytest.mark.parametrize("rim_mm", [0.0, 25.0])
def test_a_rim_frame_is_printed_round_the_clear_size_where_there_is_one(rim_mm: float) -> None:
    hatch = {"name": "hatch", "at_mm": [1000, 0, 500], "direction": [0, 0, 1], "width_mm": 150.0, "height_mm": 90.0}
    tree = copy.deepcopy(DEMO)
    tree["openings"] = {"h": {**hatch, "cut": "to be cut", "rim_mm": rim_mm}}
    subject = subject_of(resolve(validate(tree), {}))
    sheets = [sheet for sheet in template_sheets(subject) if sheet.name.startswith("rim-")]
    assert bool(sheets) == bool(rim_mm)
    if sheets:
        (page,) = pdfplumber.open(io.BytesIO(sheets_pdf(sheets, "x"))).pages
        sizes = [(r["width"] * TO_MM, r["height"] * TO_MM) for r in page.rects]
        for wanted in ((200.0, 140.0), (150.0, 90.0)):
            assert any(size == pytest.approx(wanted, abs=0.1) for size in sizes)
