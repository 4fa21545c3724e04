"""Running dimensions: nothing of a blank is left out, each figure belongs to its place, none stands on another."""

import copy
import itertools
import random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from levelcradle.core.assembly import resolve
from levelcradle.core.design import validate
from levelcradle.core.part import FlatPart
from levelcradle.drawings import subject_of
from levelcradle.drawings.border import SMALLEST_MM
from levelcradle.drawings.running import FAR_MM, spread
from levelcradle.drawings.sheet import Sheet, Stroke, Words
from levelcradle.drawings.sheets.part import part_sheets
from levelcradle.drawings.subject import Subject
from tests.compare import CHANGES
from tests.conftest import DEMO

apart = st.floats(0.5, 5.0)
wanted = st.lists(st.floats(0.0, 200.0), min_size=1, max_size=30).map(sorted)


@given(wanted, apart)
def test_figures_keep_their_order_and_their_distance(places: list[float], least: float) -> None:
    made = spread(places, least)
    assert all(b - a >= least - 1e-9 for a, b in itertools.pairwise(made))
    assert made[0] == places[0]


@given(wanted, apart)
def test_what_has_room_stays_where_it_is(places: list[float], least: float) -> None:
    roomy = [place + 2 * least * n for n, place in enumerate(places)]
    assert spread(roomy, least) == pytest.approx(roomy)


def figures(sheet: Sheet, *, upright: bool) -> list[tuple[float, str]]:
    """Where the line of each figure touches the blank's edge, along it, and what it says."""
    along = 1 if upright else 0
    words = [m for m in sheet.marks if isinstance(m, Words) and m.size_mm == SMALLEST_MM and m.anchor == "end"]
    found = []
    for mark in sheet.marks:
        if isinstance(mark, Stroke) and len(mark.points) == 3 and mark.weight_mm == 0.13:
            near, kink, far = mark.points
            if (
                abs(near[along] - kink[along]) < 1e-9
                and abs(abs(near[1 - along] - far[1 - along]) - (FAR_MM - 1)) < 1e-9
            ):
                text = min(words, key=lambda w: abs(w.at[0] - far[0]) + abs(w.at[1] - far[1]))
                found.append((near[along], text.text))
    return found


def checked(subject: Subject, part: FlatPart) -> None:
    sheet = part_sheets(subject, part)[0]
    for axis, upright in ((0, False), (1, True)):
        shown = figures(sheet, upright=upright)
        zero = min(point[axis] for point in part.outline)
        bends = [b.start[axis] for b in part.bends if abs(b.start[axis] - b.end[axis]) < 1e-6]
        for value in (*(p[axis] for p in part.outline), *bends, *(hole.at[axis] for hole in part.holes)):
            assert any(abs(float(text) - (value - zero)) <= 0.1501 for _, text in shown), f"{part.mark}: {value - zero}"
        scale = (shown[-1][0] - shown[0][0]) / float(shown[-1][1])
        for at, text in shown:
            assert at - shown[0][0] == pytest.approx(float(text) * scale, abs=0.11 * scale)


def test_each_corner_bend_and_hole_of_a_blank_has_its_figure_at_its_place() -> None:
    subject = subject_of(resolve(validate(DEMO), {}))
    for part in subject.parts:
        checked(subject, part)


@pytest.mark.parametrize("seed", range(4))
def test_so_have_the_parts_of_random_designs(seed: int) -> None:
    rng, tree = random.Random(seed), copy.deepcopy(DEMO)
    for change in rng.sample(CHANGES, 4):
        change(rng, tree)
    subject = subject_of(resolve(validate(tree), {}))
    for part in subject.parts:
        checked(subject, part)
