"""How sheets are laid out: papers, projections, scales, and that nothing on them is lost or stands on something
else."""

import copy
import io
from itertools import product
from typing import Any

import numpy as np
import pdfplumber
import pytest
from hypothesis import given
from hypothesis import strategies as st

from levelcradle.core.assembly import resolve
from levelcradle.core.design import Design, validate
from levelcradle.drawings import job_of, pack_files, sheets_of, sheets_pdf
from levelcradle.drawings.border import CAUTIONS
from levelcradle.drawings.sheet import PAPERS, SERIES, Sheet, Stroke, Words, standard_scale
from tests.conftest import DEMO

CHOICES = list(product(PAPERS, ("first angle", "third angle")))


def laid_out(paper: str, projection: str, *, released: bool = True, names: str = "") -> list[Sheet]:
    """All sheets of the demo on a paper; with ``names`` everything that has a name is called so."""
    tree: dict[str, Any] = copy.deepcopy(DEMO)
    tree["sheets"] = {"paper": paper, "projection": projection}
    if names:
        tree["name"] = names
        for collection in ("boxes", "mounts"):
            for row in tree[collection].values():
                row["name"] = names
    design = validate(tree)
    return sheets_of(resolve(design, {}), job_of(design, released=released, revision=7, on="2026-03-01"))


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


@pytest.mark.parametrize("paper", PAPERS)
def test_in_third_angle_what_is_seen_from_above_stands_above_and_from_aft_aft_in_first_across(paper: str) -> None:
    """ISO 5456-2: third angle puts a view at the side it is seen from, first angle at the other."""
    third, first = (next(s for s in laid_out(paper, p) if s.name == "tank-box") for p in ("third angle", "first angle"))
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
def test_views_are_aligned_inside_the_frame_and_fill_it(paper: str, projection: str) -> None:
    for sheet in laid_out(paper, projection):
        drawn = [p for m in sheet.marks if isinstance(m, Stroke) for p in m.points]
        assert all(0 < x < sheet.paper.wide_mm and 0 < y < sheet.paper.tall_mm for x, y in drawn)
        if sheet.name.endswith("-box"):
            heavy = [m for m in sheet.marks if isinstance(m, Stroke) and m.closed and m.weight_mm == 0.5][1:]
            ys = [y for m in heavy for _, y in m.points]
            assert max(ys) - min(ys) > 0.36 * sheet.paper.tall_mm


LONG = "A very long name of something that somebody gave it one evening, and more"


@pytest.mark.parametrize(
    ("paper", "projection", "names"),
    [(paper, "third angle", "") for paper in PAPERS]
    + [("A4", "first angle", ""), ("A4", "third angle", LONG), ("Letter", "first angle", "Ж" * 110)],
)
def test_no_text_stands_on_another_and_none_leaves_the_paper(paper: str, projection: str, names: str) -> None:
    pdf = pdfplumber.open(io.BytesIO(sheets_pdf(laid_out(paper, projection, released=False, names=names), "x")))
    for page in pdf.pages:
        letters = [c for c in page.chars if c["text"].strip()]
        boxes = np.array([(c["x0"], c["top"], c["x1"], c["bottom"]) for c in letters], dtype=float)
        assert boxes[:, 0].min() > 0
        assert boxes[:, 2].max() < page.width
        assert [(letters[i]["text"], letters[j]["text"]) for i, j in zip(*_upon_each_other(boxes), strict=True)] == []


def _upon_each_other(boxes: Any) -> Any:
    """Which of (n, 4) letters cover more than a third of the smaller of two."""
    low, high = np.maximum(boxes[:, None, :2], boxes[None, :, :2]), np.minimum(boxes[:, None, 2:], boxes[None, :, 2:])
    both = np.prod(np.clip(high - low, 0.0, None), axis=2)
    size = np.prod(boxes[:, 2:] - boxes[:, :2], axis=1)
    return np.nonzero(np.triu(both > 0.35 * np.minimum(size[:, None], size[None]), k=1))


@pytest.mark.parametrize("paper", PAPERS)
def test_every_sheet_says_what_it_is_of_which_revision_and_its_cautions_whole(paper: str) -> None:
    sheets = laid_out(paper, "third angle", released=False)
    for number, sheet in enumerate(sheets, 1):
        said = [words.text for words in texts(sheet)]
        of_it = (
            "revision 7",
            "2026-03-01",
            "third angle",
            f"{paper}, lengths in mm",
            f"sheet {number} of {len(sheets)}",
        )
        for text in (*of_it, "CHECK BEFORE CUTTING", "NOT RELEASED", "check line 100 mm"):
            assert text in said, (sheet.name, text)
        assert all(word in " ".join(said) for word in CAUTIONS.split())
        assert min(words.size_mm for words in texts(sheet)) >= 2.5


def test_the_notes_of_every_part_are_all_there(demo: Design) -> None:
    from levelcradle.core.fabricate import parts_of

    parts = {part.id: part for part in parts_of(resolve(demo, {}))}
    for paper in PAPERS:
        for sheet in laid_out(paper, "first angle"):
            said = " ".join(words.text for words in texts(sheet))
            for note in parts[sheet.name].notes if sheet.name in parts else ():
                assert note in said, (paper, sheet.name)


def test_the_same_revision_gives_the_same_bytes(demo: Design) -> None:
    one, other = (pack_files(demo, {}, revision=3, on="2026-03-01") for _ in range(2))
    assert one == other
    assert pack_files(demo, {}, revision=4, on="2026-03-01")["drawings.pdf"] != one["drawings.pdf"]
