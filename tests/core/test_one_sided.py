"""Boxes that partly only lie on what carries them: forces balance, none pulls where it can only push, and none could
strain less."""

from typing import Any

import numpy as np
import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from levelcradle.core.connection import Contact
from levelcradle.core.mount import envelope, judge_support
from levelcradle.core.mount.one_sided import one_sided_envelope
from levelcradle.core.mount.reactions import G_MS2

UP = (0.0, 0.0, 1.0)
KG = 80.0
place = st.tuples(st.integers(-500, 500), st.integers(-400, 400), st.integers(-100, 100)).map(
    lambda p: tuple(map(float, p))
)
throw = st.tuples(st.floats(-20, 20), st.floats(-15, 15), st.floats(-11, 11))


def pads(places: Any, can: Any = "push") -> list[Contact]:
    return [Contact(at, UP, can) for at in places]


def forces_of(contacts: list[Contact], g: tuple[float, ...], cg: tuple[float, ...] = (0.0, 0.0, 0.0)) -> Any:
    return one_sided_envelope(contacts, list(range(len(contacts))), np.array(cg), KG, np.array([g]))


@settings(max_examples=60, deadline=None)
@given(
    st.lists(place, min_size=2, max_size=3, unique=True),
    st.lists(place, min_size=1, max_size=4, unique=True),
    place,
    throw,
)
def test_forces_balance_the_throw_and_no_pad_pulls(bolted: Any, lying: Any, cg: Any, g: Any) -> None:
    contacts = [*(Contact(at, UP) for at in bolted), *pads(lying)]
    assume(judge_support(contacts).support_condition == "holds")
    found = forces_of(contacts, g, cg)
    assume(not found.lifts)
    load, spots = KG * G_MS2 * np.array(g), np.array([c.at for c in contacts])
    for forces in found.forces[:, 0]:
        assert forces.sum(axis=0) == pytest.approx(load, abs=1.0)
        assert np.cross(spots, forces).sum(axis=0) == pytest.approx(np.cross(np.array(cg), load), abs=600.0)
        assert (forces[len(bolted) :, 2] <= 1e-6).all(), "n looks up, so a pad only ever presses down"
        assert (forces[len(bolted) :, :2] == 0).all(), "and bears nothing sideways"


@settings(max_examples=40, deadline=None)
@given(st.lists(place, min_size=3, max_size=5, unique=True), place, throw)
def test_where_nothing_could_lift_it_is_the_two_way_answer(bolted: Any, cg: Any, g: Any) -> None:
    contacts = [Contact(at, UP) for at in bolted]
    assume(judge_support(contacts).support_condition == "holds")
    two_way = envelope(np.array(bolted), np.array(cg), KG, np.array([g]))
    assert forces_of(contacts, g, cg).forces == pytest.approx(two_way, abs=1e-3 * KG * G_MS2)


def test_a_pad_that_would_pull_carries_nothing_and_the_others_take_its_share() -> None:
    """Four bolts at the corners of 400 × 600 and a pad under the middle: down it bears a fifth, up nothing."""
    corners = [(x, y, 0.0) for x in (-200.0, 200.0) for y in (-300.0, 300.0)]
    contacts = [*(Contact(at, UP) for at in corners), *pads([(0.0, 0.0, 0.0)])]
    down, up = (forces_of(contacts, (0.0, 0.0, g)).forces[0, 0, :, 2] for g in (-1.0, 1.0))
    assert down == pytest.approx([-KG * G_MS2 / 5] * 5)
    assert up == pytest.approx([KG * G_MS2 / 4] * 4 + [0.0])


def test_no_admissible_forces_strain_less_than_those_found() -> None:
    """Least energy: moved a little in any way that keeps the balance and the signs, they strain more."""
    rng = np.random.default_rng(3)
    corners = [(x, y, 0.0) for x in (-200.0, 200.0) for y in (-300.0, 300.0)]
    contacts = [Contact(corners[0], UP), Contact(corners[3], UP), *pads([corners[1], corners[2], (50.0, 20.0, 0.0)])]
    forces = forces_of(contacts, (0.0, 3.0, -6.0), (30.0, 10.0, 200.0)).forces[0, 0]
    rows = [(n, way) for n, c in enumerate(contacts) for way in (np.eye(3) if c.can == "both" else [np.array(UP)])]
    sums = np.array([np.concatenate([way, np.cross(np.array(contacts[n].at) / 1000, way)]) for n, way in rows])
    strained = np.array([forces[n] @ way for n, way in rows])
    _, values, ways = np.linalg.svd(sums.T)
    idle = ways[len(values[values > 1e-9]) :]
    for _ in range(200):
        other = strained + rng.normal(size=len(idle)) @ idle * 50
        if all(f <= 0 for f, (n, _) in zip(other, rows, strict=True) if contacts[n].can == "push"):
            assert (other**2).sum() >= (strained**2).sum() - 1e-6


@pytest.mark.parametrize(("g", "lifts"), [((0.0, 0.0, -1.0), False), ((0.0, 0.0, 1.0), True)])
def test_a_box_that_only_lies_there_lifts_off(g: tuple[float, float, float], lifts: bool) -> None:
    """Two bolts on one side, pads on the other: thrown up, it turns over the bolts."""
    contacts = [
        Contact((-200.0, -300.0, 0.0), UP),
        Contact((200.0, -300.0, 0.0), UP),
        *pads([(-200.0, 300.0, 0.0), (200.0, 300.0, 0.0)]),
    ]
    assert judge_support(contacts).holds
    assert bool(forces_of(contacts, g, (0.0, 0.0, 100.0)).lifts) == lifts


def test_what_only_lies_on_pads_is_not_held() -> None:
    corners = [(x, y, 0.0) for x in (-200.0, 200.0) for y in (-300.0, 300.0)]
    assert judge_support(pads(corners)).support_condition == "loose"
    assert judge_support([*pads(corners), Contact((0.0, 0.0, 50.0), UP)]).support_condition == "loose", (
        "free to turn about the one bolt"
    )
    assert judge_support(pads([corners[0], corners[0]])).support_condition == "same place"
