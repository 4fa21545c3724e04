"""How sheets are laid out: papers, projections, scales, and that nothing on them is lost or stands on something
else."""

import copy
import random
from functools import cache
from typing import Any

import numpy as np
import pypdfium2
import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st
from pypdfium2 import raw

from levelcradle.core.assembly import resolve
from levelcradle.core.design import Design, validate
from levelcradle.core.fabricate import parts_of
from levelcradle.drawings import drawn, sheets_pdf, subject_of
from levelcradle.drawings.border import CAUTIONS
from levelcradle.drawings.sheet import SERIES, Ring, Sheet, Stroke, Words, standard_scale
from levelcradle.drawings.sheets.arrangement import arrangement_sheet
from levelcradle.drawings.sheets.box import box_sheet
from levelcradle.drawings.sheets.walls import wall_sheets
from tests.compare import CHANGES
from tests.conftest import DEMO

CHOICES = [("A4", "third angle"), ("Tabloid", "first angle")]


@cache
def laid_out(paper: str, projection: str, *, names: str = "", lengths: str = "mm") -> list[Sheet]:
    """All sheets of the demo on a paper; with ``names`` everything that has a name is called so."""
    tree: dict[str, Any] = copy.deepcopy(DEMO)
    tree["sheets"] = {"paper": paper, "projection": projection, "lengths": lengths}
    if names:
        tree["name"] = names
        for collection in ("boxes", "mounts"):
            for row in tree[collection].values():
                row["name"] = names
    design = validate(tree)
    return drawn(subject_of(resolve(design, {}), revision=7, on="2026-03-01")).sheets


def texts(sheet: Sheet) -> list[Words]:
    return [mark for mark in sheet.marks if isinstance(mark, Words)]


def where(sheet: Sheet, text: str) -> tuple[float, float]:
    (found,) = [words.at for words in texts(sheet) if words.text == text]
    return found


@given(st.floats(1e-3, 5.0))
def test_a_scale_is_a_standard_one_and_the_largest_that_fits(most: float) -> None:
    scale = standard_scale(most)
    steps = [step * 10**decade for decade in range(5) for step in SERIES]
    assert any(scale == pytest.approx(1 / step) for step in steps)
    assert scale <= most * (1 + 1e-6)
    larger = [1 / step for step in steps if 1 / step > scale * (1 + 1e-9)]
    assert not larger or min(larger) > most


def test_in_third_angle_what_is_seen_from_above_stands_above_and_from_aft_aft_in_first_across() -> None:
    """ISO 5456-2: third angle puts a view at the side it is seen from, first angle at the other."""
    third, first = (next(s for s in laid_out(*choice) if s.name == "B-box") for choice in CHOICES)
    assert where(third, "looking down")[1] > where(third, "looking right")[1]
    assert where(first, "looking down")[1] < where(first, "looking right")[1]
    assert where(third, "looking forward")[0] > where(third, "looking right")[0]  # its aft end is at the right there
    assert where(first, "looking aft")[0] > where(first, "looking right")[0]
    # the car's sides at the ends of the view: who looks forward has the left at his left
    assert where_of_end(third, "LEFT") < where_of_end(third, "RIGHT")
    assert where_of_end(first, "RIGHT") < where_of_end(first, "LEFT")


def where_of_end(sheet: Sheet, word: str) -> float:
    (found,) = [words.at[0] for words in texts(sheet) if words.text == word and words.turned]
    return found


@pytest.mark.parametrize(("paper", "projection"), CHOICES)
def test_views_stand_inside_the_frame_and_fill_it(paper: str, projection: str) -> None:
    for sheet in laid_out(paper, projection):
        drawn_ = [p for m in sheet.marks if isinstance(m, Stroke) for p in m.points]
        assert all(0 < x < sheet.paper.wide_mm and 0 < y < sheet.paper.tall_mm for x, y in drawn_), sheet.name
        if sheet.name.endswith("-box"):
            ys = [
                y for m in sheet.marks if isinstance(m, Stroke) and m.weight_mm == 0.35 for _, y in m.points if y > 60
            ]
            assert max(ys) - min(ys) > 0.36 * sheet.paper.tall_mm


LONG = "A very long name of something that somebody gave it one evening, and more"


@pytest.mark.parametrize(
    ("paper", "projection", "names", "lengths"),
    [
        ("Letter", "first angle", LONG, "both"),
        ("Tabloid", "third angle", "Ж" * 110, "in"),
    ],
)
def test_no_text_stands_on_another_and_none_leaves_the_paper(
    paper: str, projection: str, names: str, lengths: str
) -> None:
    _nothing_meets(laid_out(paper, projection, names=names, lengths=lengths))


def test_nor_on_the_sheets_of_a_random_design_with_long_names() -> None:
    rng, tree = random.Random(1), copy.deepcopy(DEMO)
    for change in rng.sample(CHANGES, 5):
        change(rng, tree)
    for collection in ("boxes", "mounts", "items"):
        for row in tree[collection].values():
            row["name"] = LONG
    sheets = drawn(subject_of(resolve(validate(tree), {}))).sheets
    assert len({sheet.name for sheet in sheets}) == len(sheets)
    for sheet in sheets:
        points = [p for m in sheet.marks if isinstance(m, Stroke) for p in m.points]
        assert all(0 < x < sheet.paper.wide_mm and 0 < y < sheet.paper.tall_mm for x, y in points), sheet.name
    _nothing_meets(sheets)


def test_what_is_off_its_wall_is_drawn_where_it_is() -> None:
    """A box made so short that its mounts stand beside it: the sheet shows both."""
    tree = copy.deepcopy(DEMO)
    tree["boxes"]["bonnet"] |= {"blocks": {}, "holders": {}, "inner": {"type": "fixed", "size_mm": [300, 200, 150]}}
    assembly = resolve(validate(tree), {})
    sheets = list(wall_sheets(subject_of(assembly), "A", assembly.boxes["bonnet"]))
    assert sheets
    for sheet in sheets:
        points = [p for m in sheet.marks if isinstance(m, Stroke) for p in m.points]
        assert all(0 < x < sheet.paper.wide_mm and 0 < y < sheet.paper.tall_mm for x, y in points)


def test_a_car_of_which_only_the_wheelbase_is_known_stays_on_the_paper() -> None:
    tree = copy.deepcopy(DEMO)
    tree["vehicle"] |= {"overall": None, "track_mm": None}
    tree |= {"items": {}, "load_states": {}, "mounts": {}}
    sheet = arrangement_sheet(subject_of(resolve(validate(tree), {})))
    points = [p for m in sheet.marks if isinstance(m, Stroke) for p in m.points]
    assert all(0 < x < sheet.paper.wide_mm and 0 < y < sheet.paper.tall_mm for x, y in points)


def _nothing_meets(sheets: list[Sheet]) -> None:
    for number, page in enumerate(pypdfium2.PdfDocument(sheets_pdf(sheets, "x"))):
        letters, boxes = _letters(page.get_textpage())
        assert boxes[:, 0].min() > 0
        assert boxes[:, 2].max() < page.get_width()
        pairs = zip(*_upon_each_other(boxes), strict=True)
        # two letters that follow each other in a word may be drawn close
        upon = [(letters[i], letters[j]) for i, j in pairs if j != i + 1]
        assert upon == [], sheets[number].name


def _letters(text: Any) -> tuple[str, Any]:
    """Every letter of a page, and (n, 4) from where to where it stands: left, low, right, high."""
    rows = [(chr(raw.FPDFText_GetUnicode(text, n)), text.get_charbox(n, loose=True)) for n in range(text.count_chars())]
    shown = [(letter, box) for letter, box in rows if letter.strip() and box[2] > box[0]]
    return "".join(letter for letter, _ in shown), np.array([box for _, box in shown])


def _upon_each_other(boxes: Any) -> Any:
    """Which of (n, 4) letters cover more than a third of the smaller of two."""
    rings = shapely.box(*boxes.T)
    one, other = shapely.STRtree(rings).query(rings, "intersects")
    one, other = one[one < other], other[one < other]
    low, high = np.maximum(boxes[one, :2], boxes[other, :2]), np.minimum(boxes[one, 2:], boxes[other, 2:])
    both, size = np.prod(high - low, axis=1), np.prod(boxes[:, 2:] - boxes[:, :2], axis=1)
    upon = both > 0.35 * np.minimum(size[one], size[other])
    return one[upon], other[upon]


@pytest.mark.parametrize(("paper", "projection"), CHOICES)
def test_every_sheet_says_what_it_is_of_which_revision_and_its_cautions_whole(paper: str, projection: str) -> None:
    sheets = laid_out(paper, projection)
    for number, sheet in enumerate(sheets, 1):
        said = [words.text for words in texts(sheet)]
        of_it = ("revision 7", "2026-03-01", projection, f"{paper}, lengths in mm", f"sheet {number} of {len(sheets)}")
        for text in (*of_it, "CHECK BEFORE CUTTING", "NOT RELEASED", "check line 100 mm"):
            assert text in said, (sheet.name, text)
        assert all(word in " ".join(said) for word in CAUTIONS.split())
        assert min(words.size_mm for words in texts(sheet)) >= 2.5


def test_lines_are_as_wide_as_the_standard_has_them() -> None:
    """ISO 128-2, line widths: a series by the root of two (from memory)."""
    widths = {0.13, 0.18, 0.25, 0.35, 0.5, 0.7, 1.0}
    for sheet in laid_out("A4", "third angle"):
        assert {mark.weight_mm for mark in sheet.marks if not isinstance(mark, Words)} <= widths, sheet.name


def test_the_cover_lists_every_sheet_by_its_number() -> None:
    sheets = laid_out("A4", "third angle")
    covers = [sheet for sheet in sheets if sheet.name.startswith("cover")]
    listed = [[w.text for w in texts(cover) if w.size_mm == 2.8 and w.anchor == "end"] for cover in covers]
    assert [int(n) for page in listed for n in page] == list(range(len(covers) + 1, len(sheets) + 1))


def test_the_notes_of_every_part_are_all_there(demo: Design) -> None:
    parts = {part.mark: part for part in parts_of(resolve(demo, {}))}
    for choice in CHOICES:
        for sheet in laid_out(*choice):
            said = " ".join(words.text for words in texts(sheet))
            for note in parts[sheet.name].notes if sheet.name in parts else ():
                assert note in said, (choice, sheet.name)


def test_a_stranger_finds_where_each_of_those_alike_goes(demo: Design) -> None:
    """Every mount's angle and doubler stands on the sheet of its wall by its mark, from two edges; which of those alike
    goes where is told on the part's own sheet."""
    assembly = resolve(demo, {})
    sheets = {sheet.name: " ".join(w.text for w in texts(sheet)) for sheet in laid_out("A4", "third angle")}
    marks = {one.id: part.mark for part in parts_of(assembly) for one in part.each}
    for letter, box in zip("AB", assembly.in_order(), strict=True):
        for mount in box.mounts:
            walls = [
                text for name, text in sheets.items() if name.startswith(f"{letter}-on-") and mount.mount.name in text
            ]
            assert len(walls) == 1
            for part in mount.parts(assembly.tables):
                assert f"{marks[part.id]} {mount.mount.name}" in walls[0]
                assert part.name in sheets[marks[part.id]]


def test_where_a_bracket_is_welded_is_where_it_stands_in_the_car(demo: Design) -> None:
    """From the left edge as seen from outside and from the base, against the piece itself in the box's frame."""
    assembly = resolve(demo, {})
    box = assembly.boxes["tank"]
    length = box.shell.outer_mm[0]
    for face in ("left", "right"):
        (sheet,) = [s for s in laid_out("A4", "third angle") if s.name == f"B-on-{face}"]
        said = [w.text for w in texts(sheet)]
        for mount in box.mounts:
            if mount.mount.face != face:
                continue
            (leg,) = [p.solid.moved(box.placement.inverse) for p in mount.pieces if p.name == "leg B"]
            near = (
                leg.low[0] if face == "left" else length - leg.high[0]
            )  # who stands at the right has the nose at his right
            assert f"{near:.1f}" in said
            assert f"{leg.low[2]:.1f}" in said


@pytest.mark.parametrize("lengths", ["in", "both"])
def test_lengths_are_written_as_the_shop_reads_them(lengths: str) -> None:
    tree = copy.deepcopy(DEMO)
    tree["sheets"] = {"lengths": lengths}
    assembly = resolve(validate(tree), {})
    sheet = box_sheet(subject_of(assembly), "B", assembly.boxes["tank"])
    said = [w.text for w in texts(sheet)]
    assert ('15 1/2"' if lengths == "in" else '394.0 [15\u00a01/2"]') in said
    assert any("lengths in" in text and "inches" in text for text in said)


def test_each_bracket_says_its_welds_by_symbol_and_word_and_one_that_is_bolted_says_none() -> None:
    """z before the triangle, its length behind it, a ring where it goes all round."""
    tree = copy.deepcopy(DEMO)
    tree["mounts"]["bonnet-lf"]["to_box"] |= {"leg_mm": 5.0, "length_mm": 84.0}
    tree["mounts"]["bonnet-rf"] |= {"to_box": {"type": "bolted", "from_mm": 46.0}}
    sheets = {sheet.name: sheet for sheet in drawn(subject_of(resolve(validate(tree), {}))).sheets}
    said = [mark.text for mark in sheets["A-mounts"].marks if isinstance(mark, Words)]
    assert {"z5", "84", "either side", "z4", "doubler, all round"} <= set(said)
    assert said.count("either side") == said.count("doubler, all round") == 1
    rings = [m for m in sheets["A-mounts"].marks if isinstance(m, Ring) and m.weight_mm == 0.25]
    assert [m.radius_mm for m in rings].count(1.2) == 1
    other = [mark.text for mark in sheets["B-mounts"].marks if isinstance(mark, Words)]
    assert other.count("either side") == 2
