"""The survey to fill by hand: every blank numbered as on the screen, a check line, an empty column."""

import io
import re
from typing import Any

import pdfplumber
import pytest

from levelcradle.core.design import Design, new_design, validate
from levelcradle.core.design.readings import reads_as
from levelcradle.core.survey import survey_blanks
from levelcradle.drawings import survey_sheet_pdf
from levelcradle.drawings.survey_sheet import survey_sheets


@pytest.fixture(scope="module")
def words() -> str:
    from levelcradle.demo import demo_design

    with pdfplumber.open(io.BytesIO(survey_sheet_pdf(demo_design(), 7, {}))) as pdf:
        assert all(float(page.width) > float(page.height) for page in pdf.pages)
        return "\n".join(page.extract_text(x_tolerance=1) for page in pdf.pages)


def test_every_blank_stands_on_the_sheet_with_its_number(words: str, demo: Design) -> None:
    blanks = survey_blanks(demo)
    for blank in blanks[:: max(1, len(blanks) // 40)]:
        assert re.search(rf"(?m)(^|\s){blank.number}\s", words), blank.label
    assert str(len(blanks)) in words


def test_the_sheet_names_car_revision_units_and_has_a_check_line(words: str) -> None:
    assert "Calder Ouzel 1500 · rev. 7" in words
    assert "check line 100 mm" in words
    assert "Lengths in mm, masses in kg" in words
    assert "engine in / out" in words
    assert words.count("sheet 1 of ") == 1


def test_an_empty_car_has_a_sheet_too() -> None:
    sheets = survey_sheets(new_design("Heron van", 2650.0), 1, {})
    assert len(sheets) >= 1
    assert survey_sheet_pdf(new_design("Heron van", 2650.0), 1, {}).startswith(b"%PDF")


def test_every_way_of_measuring_has_its_blanks(tree: dict[str, Any]) -> None:
    station = {"aft_mm": 500.0}
    tree["bays"]["odd"] = {
        "name": "odd space",
        "stations": {
            "a": station | {"type": "points", "points": {f"p{n}": {"across_mm": x, "up_mm": z, "order": n} for n, (x,
            z) in enumerate(
                ((-200.0, 300.0), (200.0, 300.0), (150.0, 600.0)))}},
            "b": {"aft_mm": 900.0, "type": "edge", "up_mm": 500.0, "depths": {"d1": {"across_mm": -200.0,
            "depth_mm": 200.0},
                  "d2": {"across_mm": 200.0, "depth_mm": 220.0}}},
        },
        "sides": tree["bays"]["tank"]["sides"],
    }  # fmt: skip
    labels = [b.label for b in survey_blanks(validate(tree)) if b.group == "odd space"]
    assert labels[0] == "station 1, aft"
    assert "station 1, point 3, up" in labels
    assert "station 2, 2, depth" in labels
    assert len(labels) == len(set(labels))


def test_blanks_count_from_the_point_the_tape_is_hooked_on(tree: dict[str, Any]) -> None:
    tree["bays"]["tank"]["measured_from"] = next(iter(tree["references"]))
    hook = tree["references"][tree["bays"]["tank"]["measured_from"]]["at_mm"]
    tree["readings"] = {}
    blank = next(b for b in survey_blanks(validate(tree)) if b.path.endswith("/floor_mm") and "/tank/" in b.path)
    assert blank.value is not None
    assert reads_as(blank.path, blank.text, "mm", hook).value == pytest.approx(blank.value)
